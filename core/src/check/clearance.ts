import { planDistance } from '../clearance/standing'
import { byUse, type Finding, found, shareOf } from '../finding/finding'
import { normalDegrees } from '../physics'
import { outlineOf } from '../place/outline'
import type { Feature } from '../place/place'
import type { Check } from './check'
import type { LiftContext } from './context'
import { type Moving, movingIn } from './swept'

/** A load whose size nobody has said is taken for no wider than this, metres; where nothing stands so near, it does not matter. */
const widest_m = 12

/** What stands further beyond the reach of everything is not worth a figure, metres. */
const beyond_m = 3

type Body = 'boom' | 'load' | 'tail'
interface Nearest {
  body: Body
  feature: Feature
  gap_m: number
  slew_deg: number
}

/**
 * The nearest that anything comes to one solid thing. What the load is carried over is the hook height's affair; what stands higher
 * it passes beside. `low`: it would be carried over or past it, and nobody has said how high.
 */
function nearestTo(ctx: LiftContext, moving: Moving, feature: Feature): { nearest: Nearest; low: boolean } {
  const { plan, step } = ctx
  const o = outlineOf(feature, plan.setup.position)
  const top_m = feature.height_m ?? Infinity
  const gaps: Nearest[] = [
    { body: 'boom', feature, ...gapOf(moving.boomTo(o, top_m)) },
    { body: 'tail', feature, ...gapOf(moving.tailTo(o)) },
  ]
  const { heights } = step
  const load = gapOf(moving.loadTo(o))
  if (heights === undefined || top_m > heights.over_m) gaps.push({ body: 'load', feature, ...load })
  else {
    const ends = moving.loadAtEnds(o)
    if (top_m > heights.pickUp_m) gaps.push({ body: 'load', feature, gap_m: ends.pickUp_m, slew_deg: step.pickUp.slew_deg })
    if (top_m > heights.setDown_m) gaps.push({ body: 'load', feature, gap_m: ends.setDown_m, slew_deg: step.setDown.slew_deg })
  }
  const nearest = gaps.reduce((a, b) => (b.gap_m < a.gap_m ? b : a))
  const low = heights === undefined && top_m < Infinity && load.gap_m < plan.policy.thingGap_m
  return { nearest, low }
}
const gapOf = ({ least_m, slew_deg }: { least_m: number; slew_deg: number }) => ({ gap_m: least_m, slew_deg })

/** Room between boom, load, tail and whatever solid stands there, over every slew and radius of the step. */
export const clearanceCheck: Check<'clearance'> = {
  id: 'clearance',
  since: 1,
  run: (ctx) => {
    const { plan, machine, near_share, path } = ctx
    if (ctx.reached) return []
    const { position } = plan.setup
    const centre = { x_m: 0, y_m: 0 }
    const limit = plan.policy.thingGap_m
    const within = (reach_m: number) =>
      plan.place.features.filter((f) => f.kind === 'solid' && planDistance(outlineOf(f, position), centre) < reach_m)
    const missing = (reason: 'no-boom-size' | 'no-load-size' | 'no-heights', label: string) => [
      found({ check: 'clearance', verdict: 'not-proven', reason, detail: { label } }),
    ]
    const moving = movingIn(ctx)
    const reach_m = Math.max(moving.reach_m, machine.upper.tailSwingRadius_m) + limit / near_share + beyond_m
    const [first] = within(reach_m + (moving.load_m === null ? widest_m : 0))
    if (!first) return [found({ check: 'clearance', verdict: 'inside', reason: 'nothing-near', detail: {} })]
    if (machine.boom.halfWidth_m === undefined) return missing('no-boom-size', first.label)
    if (moving.load_m === null) return missing('no-load-size', first.label)
    const looked = within(reach_m).map((f) => nearestTo(ctx, moving, f))
    const low = looked.find((x) => x.low)
    const { body, feature, gap_m, slew_deg } = looked.reduce((a, b) => (b.nearest.gap_m < a.nearest.gap_m ? b : a)).nearest
    if (low && body === 'load') return missing('no-heights', low.nearest.feature.label)
    const utilisation = shareOf(limit, gap_m)
    const finding: Finding = found({
      check: 'clearance',
      verdict: byUse(utilisation, near_share),
      reason: 'gap',
      quantity: 'length',
      measured: gap_m,
      nominal: gap_m,
      limit,
      utilisation,
      at: { radius_m: path.greatest_m, slew_deg: normalDegrees(slew_deg) },
      detail: { label: feature.label, body },
    })
    return [finding]
  },
  heldBackBy: ['boom-limits'],
  impliedBy: [],
  remedies: ['slew-direction', 'radius', 'set-down-slew'],
}
