import type { Machine } from '../machine/machine'
import { jointsOf } from '../parts/booms/articulated'
import type { ArticulatedPart } from '../parts/booms/articulated-part'
import { type DrivesPart, type MotionName, motionNames } from '../parts/drives'
import { rad } from '../physics'
import { Refusal } from '../refusal'
import type { AxisLimits } from '../swing/axis'
import type { RopeLoad } from '../swing/pendulum'
import { boomTip, hingedTip, type Motion, type Moving, type TipMotion } from '../swing/tip'

/** One motion of a machine in practice, between its ends; degrees for slew, luff and outer boom, metres for the rest. */
export interface RigAxis {
  motion: MotionName
  limits: AxisLimits
  least: number
  most: number
  /** Where it stands as practice begins. */
  at: number
}

/** What hangs in practice: block and chains, round in plan. */
export interface PracticeLoad extends RopeLoad {
  radius_m: number
  /** Half its height. */
  half_m: number
}

/** A machine as practice moves it: nothing of what it may carry, only how it moves. */
export interface Rig {
  machine: string
  revision: number
  axes: readonly RigAxis[]
  load: PracticeLoad
  /** The rope to the load's centre is never shorter. */
  twoBlock_m: number
  /** What loads are set down on stands so high over the ground. */
  deck_m: number
  /** Between these radii the course lies. */
  radii: { least_m: number; most_m: number }
  /** How far from radius to the figure of the axis that sets it: luff by its angle, trolley by its own. */
  reach: { motion: 'luff' | 'trolley'; at: (radius_m: number) => number }
  /** Foot of what carries the tip, behind the slew centre and over the ground. */
  foot: { back_m: number; height_m: number }
  /** Out along the boom and up, where it is hinged; none on a straight one. */
  elbowAt: ((moving: readonly Moving[]) => readonly [number, number]) | null
  /** What stands under the boom: a box in plan that no load comes over. */
  body: Box
  motionOf: (moving: readonly Moving[]) => Motion
}

interface Box {
  x: readonly [number, number]
  y: readonly [number, number]
}

/** The rope to a load that stands is no longer than this where the tip is high: then a deck stands under it. */
const longest_m = 18
/** So high over the deck the load hangs as practice begins. */
export const hangs_m = 1.5
const half_m = 0.4
/** A hook without a block swings with chains of so much. */
const least_kg = 30
const noMotion: Moving = { at: 0, speed: 0, acceleration: 0 }

/** A boom half drawn out, or as far as it takes to come round one end of the machine itself. */
function lengthFor(boom: NonNullable<Machine['boom']>, body: Box): number {
  const { lengths_m } = boom
  const half = Math.floor((lengths_m.length - 1) / 2)
  const round_m = 1.2 * Math.min(-body.x[0], body.x[1]) + 1
  const enough = lengths_m.slice(half).find((l) => boom.trolley || tipOf(boom, l).radii.most_m >= round_m)
  return enough ?? Math.max(...lengths_m)
}

export function canPractise(m: Machine): boolean {
  return Boolean(m.drives?.slew && m.boom && m.hoist && (m.drives.luff || m.drives.trolley))
}

interface Tip {
  of: (angle: Moving, length: Moving, outer: Moving) => TipMotion
  reach: Rig['reach']
  radii: Rig['radii']
}

/** A boom that is raised, lowered and drawn out. */
function boomed(boom: NonNullable<Machine['boom']>, length_m: number): Tip {
  const { pivot, headOffset_m, minAngle_deg, maxAngle_deg } = boom
  const figures = { back_m: pivot.back_m, foot_m: pivot.height_m, offset_m: headOffset_m }
  const length: Moving = { ...noMotion, at: length_m }
  const of: Tip['of'] = (angle, drawn) => boomTip(figures, angle, drawn)
  const radiusAt = (deg: number) => boomTip(figures, { ...noMotion, at: deg }, length).radius_m
  const [steep, flat] = [Math.min(72, maxAngle_deg), Math.max(38, minAngle_deg)]
  const across = Math.hypot(length.at, headOffset_m)
  const lead = Math.atan2(headOffset_m, length.at)
  return {
    of,
    radii: { least_m: radiusAt(steep), most_m: radiusAt(flat) },
    reach: {
      motion: 'luff',
      at: (r) => ((lead + Math.acos(Math.max(-1, Math.min(1, (r + pivot.back_m) / across)))) * 180) / Math.PI,
    },
  }
}

/** Folded down by so much as practice begins, as far as it folds: a folding boom near its work. */
const foldedTo = ({ fold }: ArticulatedPart) => Math.max(fold.min_deg, Math.min(fold.max_deg, 30))

/** An inner and an outer boom on a hinge: raised together by the inner one, folded by the other, drawn out of that. */
function hinged(boom: NonNullable<Machine['boom']>, folding: ArticulatedPart, length_m: number): Tip {
  const { back_m, height_m } = boom.pivot
  const { inner_m, innerAngle } = folding
  const of: Tip['of'] = (angle, drawn, outer) =>
    hingedTip({ back_m, foot_m: height_m, inner_m }, angle, outer, { ...drawn, at: drawn.at - inner_m })
  // With its hinge as it is the two turn about the foot as one, flatter than the inner boom by so much.
  const [outer_m, fold] = [length_m - inner_m, foldedTo(folding) * rad]
  const [x, y] = [inner_m + outer_m * Math.cos(fold), outer_m * Math.sin(fold)]
  const [across, flatter_deg] = [Math.hypot(x, y), Math.atan2(y, x) / rad]
  const steep = Math.min(72, innerAngle.max_deg - flatter_deg)
  const radiusAt = (deg: number) => across * Math.cos(deg * rad) - back_m
  return {
    of,
    radii: { least_m: radiusAt(steep), most_m: radiusAt(Math.min(38, steep - 10)) },
    reach: {
      motion: 'luff',
      at: (r) => flatter_deg + Math.acos(Math.max(-1, Math.min(1, (r + back_m) / across))) / rad,
    },
  }
}

/** A trolley under a level jib. */
function trolleyed(boom: NonNullable<Machine['boom']>, least_m: number): Tip {
  const jib_m = Math.max(...boom.lengths_m)
  return {
    of: (_angle, out) => ({
      radius_m: out.at,
      radius_mps: out.speed,
      radius_mps2: out.acceleration,
      height_m: boom.pivot.height_m,
      height_mps: 0,
      height_mps2: 0,
    }),
    radii: { least_m: least_m + 3, most_m: 0.7 * jib_m },
    reach: { motion: 'trolley', at: (r) => r },
  }
}

const tipOf = (boom: NonNullable<Machine['boom']>, length_m: number): Tip =>
  boom.trolley
    ? trolleyed(boom, boom.trolley.least_m)
    : boom.articulated
      ? hinged(boom, boom.articulated, length_m)
      : boomed(boom, length_m)

/** Tip and rope with every axis at rest where it is said to be; left out: where practice begins. */
export const restingAt = (rig: Rig, at: readonly number[] = rig.axes.map((a) => a.at)): Motion =>
  rig.motionOf(at.map((x) => ({ ...noMotion, at: x })))

/** What of the machine does not turn, and does not move with its boom. */
function bodyOf(m: Machine): Box {
  const points = m.outline.plan.filter((p) => !p.slews && !p.raised).flatMap((p) => p.points)
  const [xs, ys] = [points.map((p) => p[0]), points.map((p) => p[1])]
  return { x: [Math.min(0, ...xs), Math.max(0, ...xs)], y: [Math.min(0, ...ys), Math.max(0, ...ys)] }
}

/** How far a place is from a box in plan, metres; within it nought. */
export function awayFrom({ x, y }: Box, at: readonly [number, number]): number {
  const beyond = (v: number, [low, high]: readonly [number, number]) => Math.max(0, low - v, v - high)
  return Math.hypot(beyond(at[0], x), beyond(at[1], y))
}

/** Ahead, or where the machine itself reaches as far as its load, over its left side. */
const startSlew_deg = (body: Box, radius_m: number) => (awayFrom(body, [radius_m, 0]) > 2 ? 0 : 90)

/** How its outer boom stands against the inner one as practice begins; of a straight one as if it were drawn on. */
const outerAt = ({ articulated }: NonNullable<Machine['boom']>) => (articulated ? -foldedTo(articulated) : 0)

/** What each motion of it goes between. */
function endsOf(boom: NonNullable<Machine['boom']>, length_m: number, tip_m: number, slew_deg: number) {
  const lengths = boom.lengths_m
  return {
    slew: { least: -400, most: 400, at: slew_deg },
    luff: { least: boom.minAngle_deg, most: boom.maxAngle_deg, at: 0 },
    // Of the outer boom, up positive: straight on from the inner one at nought.
    outer: boom.articulated
      ? { least: -boom.articulated.fold.max_deg, most: -boom.articulated.fold.min_deg, at: outerAt(boom) }
      : { least: 0, most: 0, at: 0 },
    extend: { least: Math.min(...lengths), most: Math.max(...lengths), at: length_m },
    trolley: { least: boom.trolley?.least_m ?? 0, most: Math.max(...lengths), at: 0 },
    // Of the hook, up positive: nought where practice begins.
    hoist: { least: -tip_m, most: tip_m, at: 0 },
  }
}

/**
 * A machine made ready for practice: its boom half drawn out, block and chains hanging over a deck.
 *
 * @throws Refusal `no-drives` where its file does not say how it moves
 * @example rigOf(tern).axes.map((a) => a.motion) // ['slew', 'luff', 'extend', 'hoist']
 */
export function rigOf(m: Machine): Rig {
  const { drives, boom, hoist } = m
  if (!canPractise(m) || !drives || !boom || !hoist)
    throw new Refusal(
      'no-drives',
      `Nothing says how ${m.name} moves under its levers; load control is not offered for it.`,
      'machine',
    )
  const reeving = hoist.reevings[0] ?? { parts: 1, block: { mass_kg: 100, leastDrop_m: 1 } }
  const body = bodyOf(m)
  const length = lengthFor(boom, body)
  const tip = tipOf(boom, length)
  const start_m = (tip.radii.least_m + tip.radii.most_m) / 2
  const startAt = tip.reach.at(start_m)
  const still = (at: number): Moving => ({ ...noMotion, at })
  const out = (trolley: Moving, drawn: Moving) => (boom.trolley ? trolley : drawn)
  const tip_m = tip.of(still(startAt), out(still(start_m), still(length)), still(outerAt(boom))).height_m
  const load: PracticeLoad = {
    mass_kg: Math.max(least_kg, reeving.block.mass_kg),
    cA_m2: 0.4,
    loss_per_s: 0.03,
    radius_m: 0.35,
    half_m,
  }
  const deck_m = Math.max(0, Math.floor(tip_m - half_m - longest_m))
  const twoBlock_m = Math.max(1, (reeving.block.leastDrop_m ?? 1) + half_m)
  const rope_m = tip_m - deck_m - half_m - hangs_m
  const ends = endsOf(boom, length, tip_m, startSlew_deg(body, start_m))
  const names = motionNames.filter((n) => drives[n] && !(n === 'extend' && (boom.pinned || boom.lengths_m.length < 2)))
  const axes = names.map((motion) => ({
    motion,
    limits: limitsOf(drives, motion),
    ...ends[motion],
    ...(motion === tip.reach.motion ? { at: startAt } : {}),
  }))
  const began = { angle: startAt, length, outer: outerAt(boom), trolley: start_m, rope_m, parts: reeving.parts }
  return {
    machine: m.id,
    revision: m.revision,
    axes,
    load,
    twoBlock_m,
    deck_m,
    radii: tip.radii,
    reach: tip.reach,
    body,
    foot: { back_m: boom.pivot.back_m, height_m: boom.pivot.height_m },
    elbowAt: elbowOf(boom, names, startAt),
    motionOf: motionFor(names, tip.of, Boolean(boom.trolley), began),
  }
}

/** Where a folding boom's hinge is; how the outer boom stands is nothing to it. */
function elbowOf(
  { articulated, pivot }: NonNullable<Machine['boom']>,
  names: readonly MotionName[],
  began_deg: number,
): Rig['elbowAt'] {
  if (!articulated) return null
  const [luffAt, folding] = [names.indexOf('luff'), { ...articulated, pivot }]
  return (moving) => {
    const inner_deg = moving[luffAt]?.at ?? began_deg
    const { knuckle } = jointsOf(folding, { inner_deg, fold_deg: 0, extension_m: 0, slew_deg: 0 })
    return [knuckle.out_m, knuckle.height_m]
  }
}

/** Tip and rope of a rig from where its axes are, in the order of their names. */
function motionFor(
  names: readonly MotionName[],
  tipOf: Tip['of'],
  trolleyed: boolean,
  began: { angle: number; length: number; outer: number; trolley: number; rope_m: number; parts: number },
): Rig['motionOf'] {
  const indexOf = (n: MotionName) => names.indexOf(n)
  const [slewAt, luffAt, drawnAt] = [indexOf('slew'), indexOf('luff'), indexOf('extend')]
  const [trolleyAt, hoistAt, hingeAt] = [indexOf('trolley'), indexOf('hoist'), indexOf('outer')]
  const still = (at: number): Moving => ({ ...noMotion, at })
  const [stillAngle, stillLength] = [still(began.angle), still(began.length)]
  const [stillTrolley, stillOuter] = [still(began.trolley), still(began.outer)]
  const { rope_m, length, parts } = began
  return (moving) => {
    const slew = moving[slewAt] ?? noMotion
    const drawn = moving[drawnAt] ?? stillLength
    const hoisted = moving[hoistAt] ?? noMotion
    const outer = moving[hingeAt] ?? stillOuter
    const at = tipOf(moving[luffAt] ?? stillAngle, trolleyed ? (moving[trolleyAt] ?? stillTrolley) : drawn, outer)
    return {
      radius_m: at.radius_m,
      radius_mps: at.radius_mps,
      radius_mps2: at.radius_mps2,
      height_m: at.height_m,
      height_mps: at.height_mps,
      height_mps2: at.height_mps2,
      slew_deg: slew.at,
      slew_deg_s: slew.speed,
      slew_deg_s2: slew.acceleration,
      // Drawing the boom out takes rope: the hook comes up by its share of it.
      rope_m: rope_m - hoisted.at - (drawn.at - length) / parts,
      payOut_mps: -hoisted.speed - drawn.speed / parts,
      payOut_mps2: -hoisted.acceleration - drawn.acceleration / parts,
    }
  }
}

function limitsOf(drives: DrivesPart, motion: MotionName): AxisLimits {
  const d = drives[motion]
  if (!d) throw new Refusal('no-drives', `Nothing says how ${motion} answers its lever.`, `drives.${motion}`)
  const { stop, ...rest } = d
  return stop === undefined ? rest : { ...rest, stop }
}
