import { rad } from '../../physics'
import { Refusal } from '../../refusal'
import { leastOn, rootBetween } from '../../search'
import type { SlewingMass } from '../../statics/schema'
import type { ArticulatedPart } from './articulated-part'
import type { BoomModel, OnBoom } from './boom'
import type { ArticulatedPose, FoldingWay } from './pose'
import type { BoomPart } from './telescopic'
import type { BoomPose } from './telescopic-geometry'

/** A folding boom with its foot. */
export interface Folding extends ArticulatedPart {
  pivot: BoomPart['pivot']
}

/** Between two poses every joint runs evenly. */
const between = (a: ArticulatedPose, b: ArticulatedPose, t: number): ArticulatedPose => ({
  inner_deg: a.inner_deg + (b.inner_deg - a.inner_deg) * t,
  fold_deg: a.fold_deg + (b.fold_deg - a.fold_deg) * t,
  extension_m: a.extension_m + (b.extension_m - a.extension_m) * t,
  slew_deg: a.slew_deg + (b.slew_deg - a.slew_deg) * t,
})

/** Where hinge and head stand: out from the slew centre along the boom, and up. */
export function jointsOf(f: Folding, p: ArticulatedPose) {
  const [a, o] = [p.inner_deg * rad, (p.inner_deg - p.fold_deg) * rad]
  const foot = { out_m: -f.pivot.back_m, height_m: f.pivot.height_m }
  const knuckle = { out_m: foot.out_m + f.inner_m * Math.cos(a), height_m: foot.height_m + f.inner_m * Math.sin(a) }
  const outer_m = f.outer_m + p.extension_m
  const head = { out_m: knuckle.out_m + outer_m * Math.cos(o), height_m: knuckle.height_m + outer_m * Math.sin(o) }
  return { foot, knuckle, head }
}

/** Its own masses, and what is fixed to it, where a pose puts them. */
export function foldedMasses(f: Folding, p: ArticulatedPose, fixed: readonly OnBoom[] = []): SlewingMass[] {
  const [a, o] = [p.inner_deg * rad, (p.inner_deg - p.fold_deg) * rad]
  const { foot, knuckle, head } = jointsOf(f, p)
  const { inner, outer, stages } = f.masses
  const alongOuter = (at_m: number) => knuckle.out_m + at_m * Math.cos(o)
  return [
    { mass_kg: inner.mass_kg, radius_m: foot.out_m + inner.at_m * Math.cos(a) },
    { mass_kg: outer.mass_kg, radius_m: alongOuter(outer.at_m) },
    { mass_kg: stages.mass_kg, radius_m: alongOuter(stages.at_m + stages.share * p.extension_m) },
    ...fixed.map(({ mass_kg, at_m }) => ({ mass_kg, radius_m: at_m === undefined ? head.out_m : alongOuter(at_m - f.inner_m) })),
  ]
}

/** One stretch of a way between two poses, along which the head only goes out, or only comes in. */
export interface FoldingStretch {
  boom: BoomModel
  /** The straight length by which the table is read: between two stages it lies between their columns. */
  boom_m: number
  /** Both ends: counted in poses from the first, and where the head then is. */
  ends: readonly [StretchEnd, StretchEnd]
  poseAt: (radius_m: number) => ArticulatedPose
  /** How far along the way a radius is, in poses from the first. */
  t_at: (radius_m: number) => number
}
export interface StretchEnd {
  t: number
  pose: ArticulatedPose
  radius_m: number
}

const samples = 64
const tight = 1e-12

/** How the head goes out along one even run, and where it turns. */
function turnings(f: Folding, a: ArticulatedPose, b: ArticulatedPose): number[] {
  const [da, df, de] = [(b.inner_deg - a.inner_deg) * rad, (b.fold_deg - a.fold_deg) * rad, b.extension_m - a.extension_m]
  const speed = (t: number) => {
    const p = between(a, b, t)
    const [inner, outer] = [p.inner_deg * rad, (p.inner_deg - p.fold_deg) * rad]
    return -f.inner_m * da * Math.sin(inner) + de * Math.cos(outer) - (f.outer_m + p.extension_m) * (da - df) * Math.sin(outer)
  }
  const found: number[] = []
  // The last place where it moved, and which way: where it stands still it turns back only once it moves the other way.
  let before = { t: 0, s: speed(0) }
  for (let i = 1; i <= samples; i++) {
    const now = { t: i / samples, s: speed(i / samples) }
    if (now.s === 0) continue
    if (before.s * now.s < 0) found.push(rootBetween(speed, before.t, now.t, tight))
    before = now
  }
  return found
}

/** Where a stage is just drawn out or in on the way. */
function stageMarks(f: Folding, a: ArticulatedPose, b: ArticulatedPose): number[] {
  const de = b.extension_m - a.extension_m
  if (de === 0) return []
  const marks: number[] = []
  for (let k = 0; k <= f.stages; k++) {
    const t = (k * f.stage_m - a.extension_m) / de
    if (t > tight && t < 1 - tight) marks.push(t)
  }
  return marks
}

/** The poses between which every joint runs evenly. */
function runsOf({ waypoints, mode }: FoldingWay): { a: ArticulatedPose; b: ArticulatedPose; t0: number; t1: number }[] {
  return waypoints.slice(1).flatMap((b, i) => {
    const a = waypoints[i]
    if (!a) return []
    if (mode === 'together') return [{ a, b, t0: i, t1: i + 1 }]
    const order = [
      a,
      { ...a, inner_deg: b.inner_deg },
      { ...a, inner_deg: b.inner_deg, fold_deg: b.fold_deg },
      { ...b, slew_deg: a.slew_deg },
      b,
    ]
    const moves = order.slice(1).flatMap((to, k) => {
      const from = order[k]
      return from && Object.entries(to).some(([key, v]) => v !== Reflect.get(from, key)) ? [{ from, to }] : []
    })
    const n = Math.max(1, moves.length)
    return moves.length === 0
      ? [{ a, b, t0: i, t1: i + 1 }]
      : moves.map(({ from, to }, k) => ({ a: from, b: to, t0: i + k / n, t1: i + (k + 1) / n }))
  })
}

type Run = ReturnType<typeof runsOf>[number]

/** The share of a run at which the head is at a radius, between two shares where it only goes out or only comes in. */
function shareFinder(f: Folding, { a, b }: Run, s0: number, s1: number) {
  const radiusAt = (s: number) => jointsOf(f, between(a, b, s)).head.out_m
  const [r0, r1] = [radiusAt(s0), radiusAt(s1)]
  const [least, most] = [Math.min(r0, r1), Math.max(r0, r1)]
  const shareAt = (radius_m: number): number => {
    if (most - least < 1e-9) return s0
    if (radius_m < least - 1e-6 || radius_m > most + 1e-6)
      throw new Refusal('out-of-reach', 'The booms do not come to this radius between these poses.', 'radius_m')
    if (radius_m <= least) return r0 <= r1 ? s0 : s1
    if (radius_m >= most) return r0 <= r1 ? s1 : s0
    return rootBetween((s) => radiusAt(s) - radius_m, s0, s1, tight)
  }
  return { shareAt, r0, r1 }
}

/** The boom along a stretch. What sweeps count as its angle is how far along it is. */
function stretchBoom(f: Folding, { a, b }: Run, s0: number, s1: number, shareAt: (radius_m: number) => number): BoomModel {
  const at = (s: number) => between(a, b, s)
  const straight_m = f.inner_m + f.outer_m + Math.max(a.extension_m, b.extension_m)
  // So many degrees from end to end that nothing moves further for one of them than a straight boom's head would.
  const turn_deg =
    Math.abs(b.inner_deg - a.inner_deg) +
    Math.abs(b.inner_deg - b.fold_deg - a.inner_deg + a.fold_deg) +
    Math.abs(b.extension_m - a.extension_m) / straight_m / rad +
    1e-6
  const pose = (s: number, bend_m = 0): BoomPose => {
    const { head } = jointsOf(f, at(s))
    return { radius_m: head.out_m + bend_m, tip_height_m: head.height_m, angle_deg: s * turn_deg }
  }
  const middle = at((s0 + s1) / 2)
  let lowest: number | undefined
  return {
    ...unposed(f, middle),
    lengths_m: [straight_m],
    poseAtRadius: (_boom_m, radius_m, bend_m = 0) => pose(shareAt(radius_m - bend_m), bend_m),
    poseAtAngle: (_boom_m, angle_deg, bend_m) => pose(angle_deg / turn_deg, bend_m),
    massesAt: (_boom_m, angle_deg, fixed) => foldedMasses(f, at(angle_deg / turn_deg), fixed),
    lineAt: (_boom_m, angle_deg, bend_m = 0) => {
      const { foot, knuckle, head } = jointsOf(f, at(angle_deg / turn_deg))
      return [foot, knuckle, { ...head, out_m: head.out_m + bend_m }]
    },
    lowest: (_boom_m, _least, _greatest, bend_m) => {
      lowest ??= leastOn((s) => pose(s).tip_height_m, s0, s1, Math.max(tight, (s1 - s0) / 32)).x
      return pose(lowest, bend_m)
    },
  }
}

/** What does not depend on how it is folded just then. */
function unposed(
  f: Folding,
  p: ArticulatedPose,
): Pick<BoomModel, 'minAngle_deg' | 'maxAngle_deg' | 'hinged' | 'steepest' | 'furthest_m' | 'headMass_kg'> {
  const straight = { ...p, fold_deg: Math.max(0, f.fold.min_deg) }
  const [steep, level] = [
    { ...straight, inner_deg: f.innerAngle.max_deg },
    { ...straight, inner_deg: 0, fold_deg: 0 },
  ]
  const boom_m = f.inner_m + f.outer_m + p.extension_m
  return {
    // Its joints have limits of their own, which the way is held to.
    minAngle_deg: -Infinity,
    maxAngle_deg: Infinity,
    hinged: true,
    steepest: () => ({ radius_m: jointsOf(f, steep).head.out_m, masses: foldedMasses(f, steep) }),
    furthest_m: (_boom_m, bend_m = 0) => boom_m - f.pivot.back_m + bend_m,
    headMass_kg: (_boom_m, fixed) =>
      foldedMasses(f, level, fixed).reduce((sum, m) => sum + (m.mass_kg * (m.radius_m + f.pivot.back_m)) / boom_m, 0),
  }
}

function stretchOf(f: Folding, run: Run, s0: number, s1: number): FoldingStretch {
  const { a, b, t0, t1 } = run
  const { shareAt, r0, r1 } = shareFinder(f, run, s0, s1)
  const t_of = (s: number) => t0 + (t1 - t0) * s
  const end = (s: number, radius_m: number): StretchEnd => ({ t: t_of(s), pose: between(a, b, s), radius_m })
  return {
    boom: stretchBoom(f, run, s0, s1, shareAt),
    boom_m: f.inner_m + f.outer_m + between(a, b, (s0 + s1) / 2).extension_m,
    ends: [end(s0, r0), end(s1, r1)],
    poseAt: (radius_m) => between(a, b, shareAt(radius_m)),
    t_at: (radius_m) => t_of(shareAt(radius_m)),
  }
}

/**
 * A way through poses, cut where the head turns back and where a stage is just out: along each piece radius and pose answer each other
 * one to one, so that whatever is worst at a radius is found there exactly.
 *
 * @throws Refusal `joint-outside` naming the joint; `unknown-section` where a pose stands between two stages
 * @example foldingStretches(heron, step).map((s) => s.ends.map((e) => e.radius_m))
 */
export function foldingStretches(f: Folding, step: FoldingWay, path: string): FoldingStretch[] {
  for (const [i, p] of step.waypoints.entries()) refuseOutside(f, p, `${path}.waypoints.${i}`)
  return runsOf(step).flatMap((run) => {
    const cuts = [0, ...turnings(f, run.a, run.b), ...stageMarks(f, run.a, run.b), 1].sort((x, y) => x - y)
    const places = cuts.filter((s, i) => i === 0 || s - (cuts[i - 1] ?? 0) > 1e-9)
    return places.slice(1).map((s1, i) => stretchOf(f, run, places[i] ?? 0, s1))
  })
}

const within = (v: number, { min_deg, max_deg }: { min_deg: number; max_deg: number }) =>
  v >= min_deg - 1e-9 && v <= max_deg + 1e-9

function refuseOutside(f: Folding, p: ArticulatedPose, path: string): void {
  const outside = (joint: string, field: string, { min_deg, max_deg }: ArticulatedPart['fold']): never => {
    throw new Refusal('joint-outside', `The ${joint} goes from ${min_deg}° to ${max_deg}°; keep inside that.`, `${path}.${field}`)
  }
  if (!within(p.inner_deg, f.innerAngle)) outside('inner boom', 'inner_deg', f.innerAngle)
  if (!within(p.fold_deg, f.fold)) outside('outer boom', 'fold_deg', f.fold)
  const stage = p.extension_m / f.stage_m
  if (Math.abs(stage - Math.round(stage)) > 1e-6 || Math.round(stage) > f.stages) {
    const stages = Array.from({ length: f.stages + 1 }, (_, k) => Math.round(k * f.stage_m * 1000) / 1000).join(', ')
    throw new Refusal('unknown-section', `It is drawn out by whole stages: ${stages} m.`, `${path}.extension_m`)
  }
  const { knuckle, head } = jointsOf(f, p)
  if (Math.min(knuckle.height_m, head.height_m) < 0)
    throw new Refusal('joint-outside', 'This pose puts the boom into the ground; raise the inner boom.', `${path}.inner_deg`)
}

/**
 * A folding boom where nobody has said how it stands: at each radius the pose that weighs most outwards, of all that reach it. For a
 * working area, which knows no poses.
 */
export function anyFold(f: Folding, boom_m: number): BoomModel {
  const extension_m = Math.max(0, boom_m - f.inner_m - f.outer_m)
  const outer_m = f.outer_m + extension_m
  const known = new Map<number, { pose: ArticulatedPose; highest_m: number }>()
  const atRadius = (radius_m: number) => {
    const before = known.get(radius_m)
    if (before) return before
    let best: { pose: ArticulatedPose; moment: number } | null = null
    let highest_m = -Infinity
    for (let inner_deg = f.innerAngle.min_deg; inner_deg <= f.innerAngle.max_deg + 1e-9; inner_deg += 2) {
      const c = (radius_m + f.pivot.back_m - f.inner_m * Math.cos(inner_deg * rad)) / outer_m
      if (Math.abs(c) > 1) continue
      const o = Math.acos(c) / rad
      for (const outer_deg of [o, -o]) {
        const pose = { inner_deg, fold_deg: inner_deg - outer_deg, extension_m, slew_deg: 0 }
        if (!within(pose.fold_deg, f.fold) || jointsOf(f, pose).head.height_m < 0) continue
        const moment = foldedMasses(f, pose).reduce((sum, m) => sum + m.mass_kg * m.radius_m, 0)
        highest_m = Math.max(highest_m, jointsOf(f, pose).head.height_m)
        if (best === null || moment > best.moment) best = { pose, moment }
      }
    }
    if (best === null) throw new Refusal('out-of-reach', 'The booms do not reach this radius; extend or come closer.', 'radius_m')
    const found = { pose: best.pose, highest_m }
    known.set(radius_m, found)
    return found
  }
  const asPose = (radius_m: number): BoomPose => ({ radius_m, tip_height_m: atRadius(radius_m).highest_m, angle_deg: radius_m })
  return {
    ...unposed(f, { inner_deg: 0, fold_deg: 0, extension_m, slew_deg: 0 }),
    lengths_m: [boom_m],
    poseAtRadius: (_boom_m, radius_m, bend_m = 0) => ({ ...asPose(radius_m - bend_m), radius_m }),
    poseAtAngle: (_boom_m, angle_deg, bend_m = 0) => ({ ...asPose(angle_deg), radius_m: angle_deg + bend_m }),
    massesAt: (_boom_m, angle_deg, fixed) => foldedMasses(f, atRadius(angle_deg).pose, fixed),
    lineAt: (_boom_m, angle_deg) => {
      const { foot, knuckle, head } = jointsOf(f, atRadius(angle_deg).pose)
      return [foot, knuckle, head]
    },
    lowest: (_boom_m, _least_m, greatest_m) => asPose(greatest_m),
  }
}
