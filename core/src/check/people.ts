import { planDistance } from '../clearance/standing'
import { type Finding, found } from '../finding/finding'
import { normalDegrees } from '../physics'
import { outlineOf } from '../place/outline'
import type { Feature } from '../place/place'
import { atSlew } from '../plane/point'
import { type Layer, NOT_RATED, type Spot, UNREACHABLE } from './area'
import type { Check } from './check'
import type { LiftContext } from './context'
import { standing } from './crew-stands'
import { gantryPeople } from './gantry-people'
import { straddlePeople } from './straddle-people'
import { bodiesOnRing, type Moving, movingIn, widest_m } from './swept'
import { truckPeople } from './truck-travels'

const areasOf = ({ plan }: LiftContext) => plan.place.features.filter((f) => f.kind === 'people')
const isClosed = ({ plan }: LiftContext, { id }: Feature) => plan.lift.closes?.includes(id) ?? false

/** The load with its swing over one place where people walk; closed while the load is up, it may pass. */
function over(ctx: LiftContext, moving: Moving, area: Feature): Finding {
  const { plan, path } = ctx
  const { bodies } = moving
  const { id: subject, label } = area
  const o = outlineOf(area, plan.setup.position)
  const at = (slew_deg: number) => ({ radius_m: path.greatest_m, slew_deg: normalDegrees(slew_deg) })
  const clear = (gap_m: number, slew_deg: number) =>
    found({
      check: 'people',
      subject,
      verdict: 'inside',
      reason: 'clear',
      quantity: 'length',
      measured: gap_m,
      nominal: gap_m,
      at: at(slew_deg),
      detail: { label },
    })
  const beyond_m = planDistance(o, { x_m: 0, y_m: 0 }) - moving.reach_m
  if (beyond_m > 0) return clear(beyond_m, path.arc.to_deg)
  if (isClosed(ctx, area)) return found({ check: 'people', subject, verdict: 'inside', reason: 'closed', detail: { label } })
  if (bodies.load_m === null)
    return found({ check: 'people', subject, verdict: 'not-proven', reason: 'no-load-size', detail: { label } })
  const { least_m, slew_deg } = moving.least(bodies.loadTo(o))
  if (least_m > 0) return clear(least_m, slew_deg)
  return found({ check: 'people', subject, verdict: 'outside', reason: 'over', at: at(slew_deg), detail: { label } })
}

/** No load over people: places where others walk are closed while it is up, or it goes another way. */
export const peopleCheck: Check<'people'> = {
  id: 'people',
  since: 1,
  run: (ctx) => {
    if (ctx.reached || !ctx.step.laden) return []
    const areas = areasOf(ctx)
    const stands = ctx.plan.lift.crew?.stands ?? []
    const none = areas.length === 0 ? [found({ check: 'people', verdict: 'inside', reason: 'none-drawn', detail: {} })] : []
    if (areas.length + stands.length === 0) return none
    const moving = movingIn(ctx)
    return [...none, ...areas.map((area) => over(ctx, moving, area)), ...stands.map((s, i) => standing(ctx, moving, s, i))]
  },
  truck: truckPeople,
  straddle: straddlePeople,
  gantry: gantryPeople,
  field: ({ lift }) => (lift?.step.laden ? areasOf(lift).map((area) => areaField(lift, area)) : []),
  heldBackBy: ['boom-limits'],
  impliedBy: [],
  remedies: ['close', 'slew-direction', 'set-down-slew'],
}

/** The same in each pose of a working area. */
function areaField(ctx: LiftContext, area: Feature): Layer {
  const o = outlineOf(area, ctx.plan.setup.position)
  const centre_m = planDistance(o, { x_m: 0, y_m: 0 })
  const closed = isClosed(ctx, area)
  const useAt = ({ ring, slew_deg }: Spot): number => {
    if (!ring.reaches) return NOT_RATED
    const bodies = bodiesOnRing(ctx, ring)
    if (closed || ring.radius_m + (bodies.load_m ?? widest_m) < centre_m) return 0
    if (bodies.load_m === null) return NOT_RATED
    return bodies.loadAt(o, atSlew(ring.radius_m, slew_deg)) > 0 ? 0 : UNREACHABLE
  }
  return { id: `people:${area.id}`, weighs: false, useAt }
}
