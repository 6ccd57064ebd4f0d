import { planDistance } from '../clearance/standing'
import { byUse, type Finding, found, shareOf } from '../finding/finding'
import { lineApproach } from '../ground/line-approach'
import { normalDegrees } from '../physics'
import { outlineOf } from '../place/outline'
import type { Feature } from '../place/place'
import { type Layer, NOT_RATED, type Spot, UNREACHABLE } from './area'
import type { Check } from './check'
import type { LiftContext } from './context'
import { bodiesOnRing, fromPoseToPose, type Moving, movingIn, plenty, widest_m } from './swept'

/** Least distance of any part to one line, its sag and blow-out taken off, against what its voltage asks for. */
function approach(ctx: LiftContext, moving: Moving, line: Feature): Finding {
  const { label } = line
  const { plan, near_share, path, machine } = ctx
  const missing = (reason: 'no-height' | 'no-movement' | 'no-figure' | 'no-size'): Finding =>
    found({ check: 'overhead-line', subject: line.id, verdict: 'not-proven', reason, detail: { label } })
  const { required_m: limit } = lineApproach({ voltage_kV: line.voltage_kV ?? null, distance_m: 0 })
  const o = outlineOf(line, plan.setup.position)
  const beside_m = planDistance(o, { x_m: 0, y_m: 0 }) - moving.reach_m
  const { bodies, least } = moving
  if (limit === null) return missing('no-figure')
  const far = beside_m > 2 * limit
  if (!far && line.height_m === undefined) return missing('no-height')
  if (!far && (line.sag_m === undefined || line.blowOut_m === undefined)) return missing('no-movement')
  if (!far && (machine.boom.halfWidth_m === undefined || bodies.load_m === null)) return missing('no-size')
  const height_m = line.height_m ?? 0
  // How far it is beyond twice what it has to be does not matter.
  const enough_m = 2 * limit + (line.sag_m ?? 0) + (line.blowOut_m ?? 0)
  // So far off that nothing more need be worked out: in plan, from the furthest that anything gets.
  const swept = far
    ? { least_m: beside_m, slew_deg: path.arc.to_deg }
    : [least(bodies.boomToWire(o, height_m), enough_m), least(bodies.loadToWire(o, height_m), enough_m)].reduce((a, b) =>
        b.least_m < a.least_m ? b : a,
      )
  const measured = Math.max(0, swept.least_m - (line.sag_m ?? 0) - (line.blowOut_m ?? 0))
  const utilisation = shareOf(limit, measured)
  return found({
    check: 'overhead-line',
    subject: line.id,
    verdict: byUse(utilisation, near_share),
    reason: 'distance',
    quantity: 'length',
    measured,
    nominal: measured,
    limit,
    utilisation,
    at: { radius_m: path.greatest_m, slew_deg: normalDegrees(swept.slew_deg) },
    detail: { label, voltage_kV: line.voltage_kV ?? null },
  })
}

/** Boom, rope and load against every overhead line of the place, over every slew and radius of the step. */
export const overheadLineCheck: Check<'overhead-line'> = {
  id: 'overhead-line',
  since: 1,
  run: (ctx) => {
    if (ctx.reached) return []
    const lines = ctx.plan.place.features.filter((f) => f.kind === 'overhead')
    if (lines.length === 0) return [found({ check: 'overhead-line', verdict: 'inside', reason: 'none-drawn', detail: {} })]
    const moving = movingIn(ctx)
    return lines.map((line) => approach(ctx, moving, line))
  },
  field: ({ lift }) =>
    lift ? lift.plan.place.features.filter((f) => f.kind === 'overhead').map((line) => lineField(lift, line)) : [],
  heldBackBy: ['boom-limits'],
  impliedBy: [],
  remedies: ['slew-direction', 'radius', 'set-down-slew', 'boom'],
}

/** The same in each pose of a working area. */
function lineField(ctx: LiftContext, line: Feature): Layer {
  const { plan, machine, near_share } = ctx
  const { required_m: limit } = lineApproach({ voltage_kV: line.voltage_kV ?? null, distance_m: 0 })
  const o = outlineOf(line, plan.setup.position)
  const centre_m = planDistance(o, { x_m: 0, y_m: 0 })
  const moves_m = (line.sag_m ?? 0) + (line.blowOut_m ?? 0)
  const unknown = line.height_m === undefined || line.sag_m === undefined || line.blowOut_m === undefined
  const height_m = line.height_m ?? 0
  const near = fromPoseToPose(ctx, (plenty * (limit ?? 0)) / near_share + moves_m)
  const useAt = ({ ring, slew_deg }: Spot): number => {
    if (limit === null || !ring.reaches) return NOT_RATED
    const bodies = bodiesOnRing(ctx, ring)
    const beside_m = centre_m - ring.radius_m - (bodies.load_m ?? widest_m)
    const use = (m: number) => shareOf(limit, Math.max(0, m - moves_m)) ?? UNREACHABLE
    if (beside_m > 2 * limit) return use(beside_m)
    if (unknown || machine.boom.halfWidth_m === undefined || bodies.load_m === null) return NOT_RATED
    const known_m = near.atLeast(ring, slew_deg, bodies.load_m)
    if (known_m !== null) return use(known_m)
    const at = [slew_deg, ring.angle_deg] as const
    const gap_m = Math.min(bodies.boomToWire(o, height_m)(...at), bodies.loadToWire(o, height_m)(...at))
    near.seen(ring, slew_deg, bodies.load_m, gap_m)
    return use(gap_m)
  }
  return { id: `overhead-line:${line.id}`, weighs: false, useAt }
}
