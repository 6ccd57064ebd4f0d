import type { TruckPart } from '../../parts/truck'
import { rad } from '../../physics'
import { type LimitOf, partOf } from './limit-of'

/** Forward tipping of a truck, kg, with a load at a distance ahead of the edge. */
function forwardLimit_kg(
  t: TruckPart,
  ahead: {
    edge_m: number
    arm_m: number
    restoring_kgm?: number
    attachment?: { mass_kg: number; ahead_m: number } | undefined
  },
): number {
  const restoring = t.mass_kg * (t.cgBehindFront_m + ahead.edge_m) + (ahead.restoring_kgm ?? 0)
  const boom = t.boom ? t.boom.mass_kg * (t.boom.share * (ahead.arm_m + ahead.edge_m) - ahead.edge_m) : 0
  const attached = ahead.attachment ? ahead.attachment.mass_kg * (ahead.arm_m - ahead.attachment.ahead_m) : 0
  if (ahead.arm_m <= 0) return Infinity
  return Math.max(0, t.share * (restoring - boom - attached)) / ahead.arm_m
}

const attachmentOf = (t: TruckPart, id: string | undefined) => t.attachments?.find((a) => a.id === id)

/** Telehandlers: the load moves out with height by the give of boom and tyres. */
export const reachLimit: LimitOf = (m, { appliesTo }) => {
  const truck = partOf(m, 'truck', m.truck)
  const edge_m = appliesTo.edgeAhead_m ?? 0
  const attachment = attachmentOf(truck, appliesTo.attachment)
  return (height, reach) => {
    const arm_m = Number(reach) + truck.faceToAxle_m + truck.give_share * Number(height) - edge_m
    return forwardLimit_kg(truck, { edge_m, arm_m, attachment })
  }
}

/** Forklifts: give and forward tilt of the mast move the load out with height. */
export const plateLimit: LimitOf = (m, { appliesTo }) => {
  const truck = partOf(m, 'truck', m.truck)
  const attachment = attachmentOf(truck, appliesTo.attachment)
  const lean = appliesTo.mast === 'forward' ? Math.sin((truck.forwardTilt_deg ?? 0) * rad) : 0
  return (height, centre) =>
    forwardLimit_kg(truck, {
      edge_m: 0,
      arm_m: truck.faceToAxle_m + (attachment?.ahead_m ?? 0) + Number(centre) + (truck.give_share + lean) * Number(height),
      attachment: attachment && { mass_kg: attachment.mass_kg, ahead_m: Number(centre) },
    })
}

/** A sliding counterweight: slabs, and how far they are moved out. */
export const counterweightLimit: LimitOf = (m, { appliesTo }) => {
  const truck = partOf(m, 'truck', m.truck)
  const slab = partOf(m, 'truck.slab', truck.slab)
  const attachment = attachmentOf(truck, appliesTo.tool)
  return (extension, slabs) =>
    forwardLimit_kg(truck, {
      edge_m: 0,
      arm_m: truck.faceToAxle_m + (appliesTo.loadCentre_m ?? 0),
      restoring_kgm: Number(slabs) * slab.mass_kg * (slab.behindFront_m + Number(extension)),
      attachment,
    })
}

/** A tyre handler: its tool hangs where the load does. */
export const toolLimit: LimitOf = (m, { appliesTo }) => {
  const truck = partOf(m, 'truck', m.truck)
  return (reach) =>
    forwardLimit_kg(truck, {
      edge_m: 0,
      arm_m: Number(reach) + truck.faceToAxle_m,
      attachment: { mass_kg: appliesTo.tool_kg ?? 0, ahead_m: 0 },
    })
}
