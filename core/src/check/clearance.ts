import { type Outline, planDistance } from '../clearance/standing'
import { byUse, type Finding, found, shareOf } from '../finding/finding'
import { normalDegrees } from '../physics'
import { outlineOf } from '../place/outline'
import type { Feature } from '../place/place'
import { atSlew } from '../plane/point'
import { high } from '../quantity/measured'
import { type Layer, NOT_RATED, UNREACHABLE } from './area'
import type { Check } from './check'
import type { LiftContext } from './context'
import { type Bodies, bodiesOf, movingIn } from './swept'

/** A load whose size nobody has said is taken for no wider than this, metres; where nothing stands so near, it does not matter. */
const widest_m = 12
/** What stands further beyond the reach of everything is not worth a figure, metres. */
const beyond_m = 3

interface Gap {
  body: 'boom' | 'load' | 'tail'
  gap_m: number
  slew_deg: number
}
/** How near each body comes to one thing, in a pose or over a sweep. */
interface Gaps {
  boom: () => { gap_m: number; slew_deg: number }
  tail: () => { gap_m: number; slew_deg: number }
  load: () => { gap_m: number; slew_deg: number }
  /** Where the load is taken and where it is put down. */
  ends: { pickUp: { gap_m: number; slew_deg: number }; setDown: { gap_m: number; slew_deg: number } }
}

/**
 * The nearest that anything comes to one solid thing. What the load is carried over is the hook height's affair; what stands higher
 * it passes beside. `low`: it would be carried over or past it, and nobody has said how high.
 */
function nearestTo({ step, plan }: LiftContext, { height_m: top_m = Infinity }: Feature, gaps: Gaps): { gap: Gap; low: boolean } {
  const { heights } = step
  const all: Gap[] = [
    { body: 'boom', ...gaps.boom() },
    { body: 'tail', ...gaps.tail() },
  ]
  const load = gaps.load()
  if (heights === undefined || top_m > heights.over_m) all.push({ body: 'load', ...load })
  else {
    if (top_m > heights.pickUp_m) all.push({ body: 'load', ...gaps.ends.pickUp })
    if (top_m > heights.setDown_m) all.push({ body: 'load', ...gaps.ends.setDown })
  }
  const gap = all.reduce((a, b) => (b.gap_m < a.gap_m ? b : a))
  const low = heights === undefined && top_m < Infinity && load.gap_m < plan.policy.thingGap_m
  return { gap, low }
}

/** Solid things that stand within a reach of the slew centre. */
function solidsWithin({ plan }: LiftContext, reach_m: number): Feature[] {
  const centre = { x_m: 0, y_m: 0 }
  return plan.place.features.filter(
    (f) => f.kind === 'solid' && planDistance(outlineOf(f, plan.setup.position), centre) < reach_m,
  )
}

/** What is missing before the gap to things within reach can be judged. */
function lacking({ machine }: LiftContext, load_m: number | null): 'no-boom-size' | 'no-load-size' | null {
  if (machine.boom.halfWidth_m === undefined) return 'no-boom-size'
  return load_m === null ? 'no-load-size' : null
}

/** Of all things, the gap that is least; where the load would be carried over one of them at nobody knows what height, that one. */
function worstOf(ctx: LiftContext, things: readonly Feature[], gapsTo: (o: Outline, top_m: number) => Gaps) {
  const looked = things.map((feature) => {
    const o = outlineOf(feature, ctx.plan.setup.position)
    return { feature, ...nearestTo(ctx, feature, gapsTo(o, feature.height_m ?? Infinity)) }
  })
  const low = looked.find((x) => x.low)
  const { feature, gap } = looked.reduce((a, b) => (b.gap.gap_m < a.gap.gap_m ? b : a))
  return { feature, gap, low: gap.body === 'load' ? low?.feature : undefined }
}

/** Room between boom, load, tail and whatever solid stands there, over every slew and radius of the step. */
export const clearanceCheck: Check<'clearance'> = {
  id: 'clearance',
  since: 1,
  run: (ctx) => {
    const { plan, machine, near_share, path, step } = ctx
    if (ctx.reached) return []
    const limit = plan.policy.thingGap_m
    const { bodies, least, reach_m } = movingIn(ctx)
    const within_m = Math.max(reach_m, machine.upper.tailSwingRadius_m) + limit / near_share + beyond_m
    const things = solidsWithin(ctx, within_m + (bodies.load_m === null ? widest_m : 0))
    const [first] = things
    if (!first) return [found({ check: 'clearance', verdict: 'inside', reason: 'nothing-near', detail: {} })]
    const lacks = lacking(ctx, bodies.load_m)
    const missing = (reason: 'no-boom-size' | 'no-load-size' | 'no-heights', { label }: Feature) => [
      found({ check: 'clearance', verdict: 'not-proven', reason, detail: { label } }),
    ]
    if (lacks) return missing(lacks, first)
    const gapOf = ({ least_m, slew_deg }: { least_m: number; slew_deg: number }) => ({ gap_m: least_m, slew_deg })
    const end = (which: 'pickUp' | 'setDown', o: Outline) => {
      const { radius_m, slew_deg } = step[which]
      return { gap_m: bodies.loadAt(o, atSlew(high(radius_m), slew_deg)), slew_deg }
    }
    const { feature, gap, low } = worstOf(ctx, things, (o, top_m) => ({
      boom: () => gapOf(least(bodies.boomTo(o, top_m))),
      load: () => gapOf(least(bodies.loadTo(o))),
      tail: () => gapOf(bodies.tailTo(o, path.arc.from_deg, path.arc.to_deg)),
      ends: { pickUp: end('pickUp', o), setDown: end('setDown', o) },
    }))
    if (low) return missing('no-heights', low)
    const utilisation = shareOf(limit, gap.gap_m)
    const figures = { quantity: 'length', measured: gap.gap_m, nominal: gap.gap_m, limit, utilisation } as const
    const finding: Finding = found({
      check: 'clearance',
      verdict: byUse(utilisation, near_share),
      reason: 'gap',
      ...figures,
      at: { radius_m: path.greatest_m, slew_deg: normalDegrees(gap.slew_deg) },
      detail: { label: feature.label, body: gap.body },
    })
    return [finding]
  },
  field: ({ lift }) => (lift ? [clearanceField(lift)] : []),
  heldBackBy: ['boom-limits'],
  impliedBy: [],
  remedies: ['slew-direction', 'radius', 'set-down-slew'],
}

/** The same in each pose of a working area; what the tail does at a slew is worked out once for all its radii. */
function clearanceField(ctx: LiftContext): Layer {
  const { plan, machine, near_share } = ctx
  const limit = plan.policy.thingGap_m
  const tails = new Map<string, { gap_m: number; slew_deg: number }>()
  const tailAt = (bodies: Bodies, o: Outline, key: string, slew_deg: number) => {
    const known = tails.get(key)
    if (known) return known
    const { least_m, slew_deg: at } = bodies.tailTo(o, slew_deg, slew_deg)
    const gap = { gap_m: least_m, slew_deg: at }
    tails.set(key, gap)
    return gap
  }
  const useAt: Layer['useAt'] = ({ ring, slew_deg }) => {
    if (!ring.reaches) return NOT_RATED
    const bodies = bodiesOf(ctx, ring.tip_height_m, ring.radius_m)
    const within_m =
      Math.max(ring.radius_m + (bodies.load_m ?? 0), machine.upper.tailSwingRadius_m) + limit / near_share + beyond_m
    const things = solidsWithin(ctx, within_m + (bodies.load_m === null ? widest_m : 0))
    if (things.length === 0) return 0
    if (lacking(ctx, bodies.load_m)) return NOT_RATED
    const there = (gap_m: number) => ({ gap_m, slew_deg })
    const { gap, low } = worstOf(ctx, things, (o, top_m) => {
      const load = there(bodies.loadTo(o)(slew_deg, ring.angle_deg))
      return {
        boom: () => there(bodies.boomTo(o, top_m)(slew_deg, ring.angle_deg)),
        load: () => load,
        tail: () => tailAt(bodies, o, `${slew_deg} ${o.points[0]?.x_m} ${o.points[0]?.y_m} ${o.points.length}`, slew_deg),
        ends: { pickUp: load, setDown: load },
      }
    })
    return low ? NOT_RATED : (shareOf(limit, gap.gap_m) ?? UNREACHABLE)
  }
  return { id: 'clearance', useAt }
}
