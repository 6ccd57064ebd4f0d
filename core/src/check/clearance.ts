import { type Outline, planDistance } from '../clearance/standing'
import type { Swept } from '../clearance/sweep'
import { byUse, type Finding, found, shareOf } from '../finding/finding'
import { heightsOf } from '../parts/stability/slew'
import { normalDegrees, rad } from '../physics'
import { outlineOf } from '../place/outline'
import type { Feature } from '../place/place'
import { atSlew } from '../plane/point'
import { high, low } from '../quantity/measured'
import { type Layer, NOT_RATED, type Ring, type Spot, UNREACHABLE } from './area'
import type { Check } from './check'
import type { LiftContext } from './context'
import { type Bodies, bodiesOnRing, fromPoseToPose, movingIn, plenty, widest_m } from './swept'

/** No more corners are looked at: a plan drawn finer is not proven. */
const most_corners = 2000
/** What stands further beyond the reach of everything is not worth a figure, metres. */
const beyond_m = 3

/** The least gap, never more than it is; and the nearest pose that was seen, never less. */
interface Gap {
  gap_m: number
  found_m: number
  slew_deg: number
}
/** How near each body comes to one thing, in a pose or over a sweep. */
interface Gaps {
  /** @param enough_m the nearest that is known already: further than that need not be looked at closely */
  boom: (enough_m: number) => Gap
  tail: () => Gap
  load: (enough_m: number) => Gap
  /** Where the load is taken and where it is put down. */
  ends: { pickUp: Gap; setDown: Gap }
}

const gapOf = ({ least_m, found_m, slew_deg }: Swept): Gap => ({ gap_m: least_m, found_m, slew_deg })

/** The nearest that anything comes to one thing. */
interface Nearest {
  gap: Gap
  body: 'boom' | 'load' | 'tail'
  found_m: number
  /** The load would be carried over it or past it, and nobody has said how high. */
  low: boolean
}

/**
 * What the load is carried over is the hook height's affair; what stands higher it passes beside. Asked of every cell of a working area:
 * nothing is made on the way that is not needed.
 */
function nearestTo({ step, plan }: LiftContext, { height_m: top_m = Infinity }: Feature, gaps: Gaps, known_m: number): Nearest {
  const heights = heightsOf(step)
  const boom = gaps.boom(known_m)
  const tail = gaps.tail()
  const load = gaps.load(Math.max(plan.policy.thingGap_m, Math.min(known_m, boom.found_m, tail.found_m)))
  let [gap, body, found_m]: [Gap, Nearest['body'], number] = [boom, 'boom', Math.min(boom.found_m, tail.found_m)]
  if (tail.gap_m < gap.gap_m) [gap, body] = [tail, 'tail']
  const beside = (one: Gap) => {
    found_m = Math.min(found_m, one.found_m)
    if (one.gap_m < gap.gap_m) [gap, body] = [one, 'load']
  }
  if (heights === null || top_m > heights.over_m) beside(load)
  else {
    if (top_m > heights.pickUp_m) beside(gaps.ends.pickUp)
    if (top_m > heights.setDown_m) beside(gaps.ends.setDown)
  }
  return { gap, body, found_m, low: heights === null && top_m < Infinity && load.gap_m < plan.policy.thingGap_m }
}

/** A solid thing in the machine's frame, and how near it comes to the slew centre. */
interface Thing {
  feature: Feature
  o: Outline
  centre_m: number
}

function thingsOf({ plan }: LiftContext): Thing[] {
  return plan.place.features
    .filter((f) => f.kind === 'solid')
    .map((feature) => {
      const o = outlineOf(feature, plan.setup.position)
      return { feature, o, centre_m: planDistance(o, { x_m: 0, y_m: 0 }) }
    })
}

/** What is missing before the gap to things within reach can be judged. */
function lacking(
  { machine }: LiftContext,
  load_m: number | null,
  things: readonly Thing[],
): 'no-boom-size' | 'no-load-size' | 'too-many' | null {
  if (things.reduce((n, { o }) => n + o.points.length, 0) > most_corners) return 'too-many'
  if (machine.boom.halfWidth_m === undefined) return 'no-boom-size'
  return load_m === null ? 'no-load-size' : null
}

/** A gap that is wider is wide enough, and how much is of no account, metres. */
const mattersTo_m = ({ plan, near_share }: LiftContext) => plan.policy.thingGap_m / near_share + beyond_m

/** A tail that is made high passes over what stands lower, with room to spare. */
const passesOver = ({ machine, plan }: LiftContext, top_m: number) =>
  machine.upper.tailAbove_m !== undefined && top_m + plan.policy.thingGap_m <= machine.upper.tailAbove_m
const nowhereNear = (slew_deg: number): Gap => ({ gap_m: Infinity, found_m: Infinity, slew_deg })

/** Of all things, the gap that is least; where the load would be carried over one of them at nobody knows what height, that one. */
function worstOf(ctx: LiftContext, things: readonly Thing[], gapsTo: (thing: Thing, top_m: number) => Gaps) {
  // Beyond this nothing is near, and how far it is does not matter.
  let known_m = mattersTo_m(ctx)
  let worst: { feature: Feature; nearest: Nearest } | null = null
  let low: Feature | undefined
  for (const thing of things) {
    const { feature } = thing
    const nearest = nearestTo(ctx, feature, gapsTo(thing, feature.height_m ?? Infinity), known_m)
    known_m = Math.min(known_m, nearest.found_m)
    if (nearest.low) low ??= feature
    if (worst === null || nearest.gap.gap_m < worst.nearest.gap.gap_m) worst = { feature, nearest }
  }
  if (worst === null) return null
  const { feature, nearest } = worst
  return { feature, gap: nearest.gap, body: nearest.body, overWhat: nearest.body === 'load' ? low : undefined }
}

/** Room between boom, load, tail and whatever solid stands there, over every slew and radius of the step. */
export const clearanceCheck: Check<'clearance'> = {
  id: 'clearance',
  since: 1,
  run: (ctx) => {
    const { plan, machine, near_share, path, step } = ctx
    if (ctx.reached) return []
    const limit = plan.policy.thingGap_m
    const { bodies, least, leastLow, reach_m } = movingIn(ctx)
    const within_m = Math.max(reach_m, machine.upper.tailSwingRadius_m) + limit / near_share + beyond_m
    const things = thingsOf(ctx).filter((t) => t.centre_m < within_m)
    const [first] = things
    if (!first) return [found({ check: 'clearance', verdict: 'inside', reason: 'nothing-near', detail: {} })]
    const lacks = lacking(ctx, bodies.load_m, things)
    const missing = (reason: NonNullable<ReturnType<typeof lacking>> | 'no-heights', { label }: Feature) => [
      found({ check: 'clearance', verdict: 'not-proven', reason, detail: { label } }),
    ]
    if (lacks) return missing(lacks, first.feature)
    const end = (which: 'pickUp' | 'setDown', o: Outline) => {
      const { radius_m, slew_deg } = step[which]
      const gaps = [low(radius_m), high(radius_m)].map((r) => bodies.loadAt(o, atSlew(r, slew_deg)))
      return { gap_m: Math.min(...gaps), found_m: Math.min(...gaps), slew_deg }
    }
    const worst = worstOf(ctx, things, ({ o }, top_m) => ({
      boom: (enough_m) => gapOf(leastLow(bodies.boomTo(o, top_m), enough_m)),
      load: (enough_m) => gapOf(least(bodies.loadTo(o), enough_m)),
      tail: () =>
        passesOver(ctx, top_m)
          ? nowhereNear(path.arc.to_deg)
          : gapOf(bodies.tailTo(o, path.arc.from_deg, path.arc.to_deg, mattersTo_m(ctx))),
      ends: { pickUp: end('pickUp', o), setDown: end('setDown', o) },
    }))
    if (!worst) return []
    const { feature, gap, body, overWhat } = worst
    if (overWhat) return missing('no-heights', overWhat)
    const utilisation = shareOf(limit, gap.gap_m)
    const figures = { quantity: 'length', measured: gap.gap_m, nominal: gap.gap_m, limit, utilisation } as const
    const finding: Finding = found({
      check: 'clearance',
      verdict: byUse(utilisation, near_share),
      reason: 'gap',
      ...figures,
      at: { radius_m: path.greatest_m, slew_deg: normalDegrees(gap.slew_deg) },
      detail: { label: feature.label, body },
    })
    return [finding]
  },
  field: ({ lift }) => (lift ? [clearanceField(lift)] : []),
  heldBackBy: ['boom-limits'],
  impliedBy: [],
  remedies: ['slew-direction', 'radius', 'set-down-slew'],
}

/** How far round something may still be from where it was last looked at, where a gap of so much or more is wide enough. */
function tailsOf(ctx: LiftContext, wide_m: number): (bodies: Bodies, thing: Thing, slew_deg: number) => Gap {
  const radius_m = ctx.machine.upper.tailSwingRadius_m
  const matters_m = mattersTo_m(ctx)
  const tails = new Map<Thing, Gap>()
  return (bodies, thing, slew_deg) => {
    const known = tails.get(thing)
    if (known) {
      if (known.slew_deg === slew_deg) return known
      const gap_m = known.gap_m - Math.abs(slew_deg - known.slew_deg) * rad * radius_m
      if (gap_m >= wide_m) return { gap_m, found_m: gap_m, slew_deg }
    }
    const gap = { ...gapOf(bodies.tailTo(thing.o, slew_deg, slew_deg, matters_m)), slew_deg }
    tails.set(thing, gap)
    return gap
  }
}

/** The same in each pose of a working area. Of boom and load is looked at closely only what may be near. */
function clearanceField(ctx: LiftContext): Layer {
  const { plan, machine, near_share } = ctx
  const limit = plan.policy.thingGap_m
  const wide_m = (plenty * limit) / near_share
  const matters_m = mattersTo_m(ctx)
  const all = thingsOf(ctx)
  const tailAt = tailsOf(ctx, wide_m)
  const rings = new Map<Ring, { bodies: Bodies; things: readonly Thing[]; open: boolean }>()
  const onRing = (ring: Ring) => {
    const bodies = bodiesOnRing(ctx, ring)
    const reach_m = Math.max(ring.radius_m + (bodies.load_m ?? widest_m), machine.upper.tailSwingRadius_m)
    const within_m = reach_m + limit / near_share + beyond_m
    const things = all.filter((t) => t.centre_m < within_m)
    const known = { bodies, things, open: lacking(ctx, bodies.load_m, things) !== null }
    rings.set(ring, known)
    return known
  }
  const [booms, loads] = [fromPoseToPose(ctx, wide_m), fromPoseToPose(ctx, wide_m)]
  const useAt = ({ ring, slew_deg }: Spot): number => {
    if (!ring.reaches) return NOT_RATED
    const { bodies, things, open } = rings.get(ring) ?? onRing(ring)
    if (things.length === 0) return 0
    if (open) return NOT_RATED
    const load_m = bodies.load_m ?? widest_m
    const [boom_m, hung_m] = [booms.atLeast(ring, slew_deg, 0), loads.atLeast(ring, slew_deg, load_m)]
    if (boom_m !== null && hung_m !== null) {
      let least_m = Math.min(boom_m, hung_m)
      for (const thing of things)
        if (!passesOver(ctx, thing.feature.height_m ?? Infinity))
          least_m = Math.min(least_m, tailAt(bodies, thing, slew_deg).gap_m)
      return shareOf(limit, least_m) ?? UNREACHABLE
    }
    const there = (gap_m: number): Gap => ({ gap_m, found_m: gap_m, slew_deg })
    let [leastBoom_m, leastLoad_m] = [matters_m, matters_m]
    const worst = worstOf(ctx, things, (thing, top_m) => {
      const boom = boom_m ?? bodies.boomTo(thing.o, top_m)(slew_deg, ring.angle_deg)
      const hung = hung_m ?? bodies.loadTo(thing.o)(slew_deg, ring.angle_deg)
      leastBoom_m = Math.min(leastBoom_m, boom)
      leastLoad_m = Math.min(leastLoad_m, hung)
      const load = there(hung)
      return {
        boom: () => there(boom),
        load: () => load,
        tail: () => (passesOver(ctx, top_m) ? nowhereNear(slew_deg) : tailAt(bodies, thing, slew_deg)),
        ends: { pickUp: load, setDown: load },
      }
    })
    if (!worst) return 0
    if (boom_m === null) booms.seen(ring, slew_deg, 0, leastBoom_m)
    if (hung_m === null) loads.seen(ring, slew_deg, load_m, leastLoad_m)
    const { gap, overWhat } = worst
    return overWhat ? NOT_RATED : (shareOf(limit, gap.gap_m) ?? UNREACHABLE)
  }
  return { id: 'clearance', weighs: false, useAt }
}
