import { byUse, type Finding, found, shareOf } from '../finding/finding'
import { motionsOf } from '../lift/motion'
import { drawnOut_m, sizeOf } from '../lift/plan'
import { heightsOf } from '../parts/stability/slew'
import { high } from '../quantity/measured'
import { NOT_RATED, type Spot, UNREACHABLE } from './area'
import type { Check } from './check'
import type { LiftContext } from './context'
import { reachedAt } from './reached'

const events = ['pickUp', 'over', 'setDown'] as const

/** From the boom's head down to the underside of the load, the block drawn up to its stop, metres; null: a size is missing. */
function hangsBelow_m({ block: { leastDrop_m }, plan }: LiftContext): number | null {
  const { load, rigging_height_m } = plan.lift.hung
  const size = sizeOf(load)
  if (leastDrop_m === undefined || size === null || rigging_height_m === undefined) return null
  return leastDrop_m + high(rigging_height_m) + size.height_m
}

/**
 * Room above what the load is taken from, carried over and set down on: head, less the block with its hook stop, rigging and load.
 * The head stands lowest at the greatest radius.
 */
export const hookHeightCheck: Check<'hook-height'> = {
  id: 'hook-height',
  since: 1,
  run: (ctx) => {
    const { step, block, boom, deflection_m, near_share, plan } = ctx
    const { boom_m } = step
    if (!step.heights || ctx.reached || !step.laden) return []
    const missing = (reason: 'no-block' | 'no-size' | 'no-heights'): Finding[] => [
      found({ check: 'hook-height', verdict: 'not-proven', reason, detail: {} }),
    ]
    const heights = heightsOf(step)
    if (heights === null) return missing('no-heights')
    if (block.leastDrop_m === undefined) return missing('no-block')
    const hangs_m = hangsBelow_m(ctx)
    if (hangs_m === null) return missing('no-size')
    const limit = plan.policy.thingGap_m
    const rooms = events.map((event) => {
      const { least_m, greatest_m } = ctx.path
      const { radius_m, tip_height_m } =
        event === 'over'
          ? boom.lowest(boom_m, least_m, greatest_m, deflection_m)
          : boom.poseAtRadius(boom_m, high(step[event].radius_m), deflection_m)
      const slew_deg = event === 'pickUp' ? step.pickUp.slew_deg : step.setDown.slew_deg
      return { event, room_m: tip_height_m - hangs_m - heights[`${event}_m`], at: { radius_m, slew_deg } }
    })
    const { event, room_m, at } = rooms.reduce((a, b) => (b.room_m < a.room_m ? b : a))
    const utilisation = shareOf(limit, room_m)
    const figures = { quantity: 'length', measured: room_m, nominal: room_m, limit, utilisation, at } as const
    return [
      found({ check: 'hook-height', verdict: byUse(utilisation, near_share), reason: 'room', ...figures, detail: { event } }),
    ]
  },
  field: ({ lift }) => {
    if (!lift?.step.heights || !lift.step.laden) return []
    const [heights, hangs_m] = [heightsOf(lift.step), hangsBelow_m(lift)]
    const highest_m = heights && Math.max(...events.map((e) => heights[`${e}_m`]))
    const limit = lift.plan.policy.thingGap_m
    const useAt = ({ ring }: Spot): number =>
      hangs_m === null || highest_m === null
        ? NOT_RATED
        : (shareOf(limit, ring.tip_height_m - hangs_m - highest_m) ?? UNREACHABLE)
    return [{ id: 'hook-height', weighs: false, useAt }]
  },
  heldBackBy: ['boom-limits'],
  impliedBy: [],
  remedies: ['boom', 'radius'],
}

/** Where the head is when the boom begins to be drawn out under load: at the end of the step before; of a way through poses, at its first. */
function drawnFrom({ plan: { lift }, machine, index }: LiftContext) {
  const pose = lift.steps[index]?.do === 'pose'
  const before = lift.steps[pose ? index : index - 1]
  const [motion] = before ? motionsOf(machine, before, `lift.steps.${index}`) : []
  if (!motion) return null
  const { boom, boom_m, deflection_m, step } = motion
  const point = pose ? step.pickUp : step.setDown
  // Where it did not get to, its own step says so.
  if (reachedAt(boom, boom_m, deflection_m, [high(point.radius_m)])) return null
  const { radius_m, tip_height_m } = boom.poseAtRadius(boom_m, high(point.radius_m), deflection_m)
  return { step, radius_m, tip_height_m, slew_deg: point.slew_deg }
}

/** Gap between block and head when the boom is drawn out under load and no rope is paid out: it shrinks by ΔL/n. */
export const twoBlockCheck: Check<'two-block'> = {
  id: 'two-block',
  since: 1,
  run: (ctx) => {
    const { plan, index, block, hoist, near_share, partsOfLine } = ctx
    const out_m = drawnOut_m(plan.lift.steps, index)
    const from = out_m === 0 || ctx.reached ? null : drawnFrom(ctx)
    if (!from) return []
    const { load, rigging_height_m } = plan.lift.hung
    const missing = (reason: 'no-block' | 'no-heights'): Finding[] => [
      found({ check: 'two-block', verdict: 'not-proven', reason, detail: {} }),
    ]
    if (block.leastDrop_m === undefined) return missing('no-block')
    const [heights, size] = [heightsOf(from.step), sizeOf(load)]
    if (heights === null || size === null || rigging_height_m === undefined) return missing('no-heights')
    const { radius_m, tip_height_m, slew_deg } = from
    const gap_m = tip_height_m - (heights.over_m + size.height_m + high(rigging_height_m)) - out_m / partsOfLine
    const limit = block.leastDrop_m
    const utilisation = shareOf(limit, gap_m)
    const judged = byUse(utilisation, near_share)
    const stalls = judged === 'outside' && hoist.hookStop === 'stalls'
    const at = { radius_m, slew_deg }
    const figures = { quantity: 'length', measured: gap_m, nominal: gap_m, limit, utilisation, at } as const
    return [
      stalls
        ? found({ check: 'two-block', verdict: 'near', reason: 'stalls', ...figures, detail: { out_m } })
        : found({ check: 'two-block', verdict: judged, reason: 'gap', ...figures, detail: { out_m } }),
    ]
  },
  heldBackBy: ['boom-limits'],
  impliedBy: [],
  remedies: [],
}
