import { byUse, type Finding, found } from '../finding/finding'
import { areasNear } from '../ground/areas-near'
import { known } from '../list'
import { NOT_RATED, UNREACHABLE } from './area'
import type { Check } from './check'
import type { LiftContext } from './context'
import { gantryGround } from './gantry'
import { trackGround, trackLayers } from './tracks'
import { truckFeet } from './truck-stands'

/** Mats that lie so near each other that their pressures add up, which no figure of either by itself has in it. */
function nearMats({ bearings, contacts }: LiftContext): Finding[] {
  const at = new Map(contacts.map((c) => [c.id, c]))
  const areas = bearings.map(({ point, pressed }) => {
    const { x_m, y_m } = known(at, point.id)
    return { id: point.id, x_m, y_m, ...pressed.effective }
  })
  const labels = new Map(bearings.map(({ point }) => [point.id, point.label]))
  return areasNear(areas).map(({ ids: [a, b], gap_m, overlap, needed_m }) =>
    found({
      check: 'ground',
      subject: `${a}-${b}`,
      verdict: overlap ? 'outside' : 'near',
      reason: overlap ? 'mats-overlap' : 'mats-near',
      quantity: 'length',
      measured: Math.max(0, gap_m),
      nominal: Math.max(0, gap_m),
      limit: needed_m,
      detail: { label: known(labels, a), other: known(labels, b) },
    }),
  )
}

function groundFindings(ctx: LiftContext): Finding[] {
  return [
    ...ctx.bearings.map(({ point, setting: { ground }, pressed, at, empty }) => {
      const detail = {
        label: point.label,
        empty,
        ground: ground?.label ?? '',
        source: ground?.source ?? '',
        ...(pressed.requiredSide_m === null ? {} : { side_m: pressed.requiredSide_m }),
      }
      const base = { check: 'ground', subject: point.id, quantity: 'pressure', measured: pressed.formation_kPa, at } as const
      return pressed.utilisation === null
        ? found({ ...base, verdict: 'not-proven', reason: ground ? 'nothing-presumed' : 'unknown', detail })
        : found({
            ...base,
            verdict: byUse(pressed.utilisation, ctx.near_share),
            reason: pressed.presumed ? 'presumed' : 'allowable',
            limit: pressed.allowable_kPa,
            utilisation: pressed.utilisation,
            detail,
          })
    }),
    ...nearMats(ctx),
  ]
}

/** Pressure under each outrigger's float or mat against what the ground there takes; mats that lie near each other. */
export const groundCheck: Check<'ground'> = {
  id: 'ground',
  since: 1,
  run: (ctx) => (ctx.support.on === 'outriggers' ? groundFindings(ctx) : trackGround(ctx)),
  field: ({ f, groundUse, lift }) => {
    if (lift && lift.support.on !== 'outriggers') return trackLayers(lift)
    return f.supports.map(({ id }, i) => ({
      id: `ground:${id}`,
      weighs: true,
      useAt: ({ ring, falls, reaction }) => {
        if (!ring.reaches) return NOT_RATED
        return falls ? UNREACHABLE : (groundUse[i]?.(reaction[i] ?? 0) ?? NOT_RATED)
      },
    }))
  },
  gantry: gantryGround,
  truck: truckFeet,
  heldBackBy: ['mass', 'boom-limits', 'overturning'],
  impliedBy: [],
  remedies: ['mat', 'radius', 'extension', 'mass', 'split', 'mat-size'],
}
