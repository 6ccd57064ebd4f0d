import type { Machine } from '../machine/machine'
import { type DrivesPart, type MotionName, motionNames } from '../parts/drives'
import { Refusal } from '../refusal'
import type { AxisLimits } from '../swing/axis'
import type { RopeLoad } from '../swing/pendulum'
import { atRest, Motion, type Moving } from '../swing/tip'
import { type Carrier, carrierOf, type Ends } from './carrier'

/** One motion of a machine in practice, between its ends; degrees for slew, luff and outer boom, metres for the rest. */
export interface RigAxis extends Ends {
  motion: MotionName
  limits: AxisLimits
}

/** What hangs in practice: block and chains, round in plan. */
export interface PracticeLoad extends RopeLoad {
  radius_m: number
  /** Half its height. */
  half_m: number
}

/** A machine as practice moves it: nothing of what it may carry, only how it moves. */
export interface Rig extends Pick<Carrier, 'under' | 'reach' | 'radii' | 'foot' | 'body' | 'slew_deg' | 'level'> {
  machine: string
  revision: number
  axes: readonly RigAxis[]
  /** What the speed of its levers can be set to, of full. */
  leverShares: readonly number[]
  load: PracticeLoad
  /** The rope to the load's centre is never shorter. */
  twoBlock_m: number
  /** What loads are set down on stands so high over the ground. */
  deck_m: number
  /** So high over the deck the load hangs as practice begins, and is lifted between rings. */
  hangs_m: number
  /** Where nothing turns it the course lies in a line. */
  turns: boolean
  /** Out along the boom and up, where it is hinged; none on a straight one. */
  elbowAt: ((moving: readonly Moving[]) => readonly [number, number]) | null
  /** Written to the second, where there is one. */
  motionOf: (moving: readonly Moving[], to?: Motion) => Motion
  /** How far the front end of what two hoists carry hangs over its rear one. */
  apartAt: (moving: readonly Moving[]) => number
}

/** The rope to a load that stands is no longer than this where the tip is high: then a deck stands under it. */
const longest_m = 18
/** So high the load hangs where there is room above it; under a low beam half of what there is. */
const hangs_m = 1.5
const half_m = 0.4
/** A hook without a block swings with chains of so much. */
const least_kg = 30

/** With a rope under something that moves over the ground, and a file that says how. */
export const canPractise = (m: Machine): boolean => carrierOf(m) !== null

/** Tip and rope with every axis at rest where it is said to be; left out: where practice begins. */
export const restingAt = (rig: Rig, at: readonly number[] = rig.axes.map((a) => a.at)): Motion => rig.motionOf(at.map(atRest))

/**
 * A machine made ready for practice: its boom half drawn out, block and chains hanging over a deck.
 *
 * @throws Refusal `no-drives` where its file does not say how it moves
 * @example rigOf(tern).axes.map((a) => a.motion) // ['slew', 'luff', 'extend', 'hoist']
 */
export function rigOf(m: Machine): Rig {
  const { drives, boom } = m
  const carrier = carrierOf(m)
  if (!carrier || !drives)
    throw new Refusal(
      'no-drives',
      `Nothing says how ${m.name} moves under its levers; load control is not offered for it.`,
      'machine',
    )
  const { ends, block, under, reach, radii, foot, body, slew_deg, level } = carrier
  const tip_m = carrier.of(stillAt(carrier, 'luff'), stillAt(carrier, outOf(carrier)), stillAt(carrier, 'outer')).height_m
  const load: PracticeLoad = {
    mass_kg: Math.max(least_kg, block.mass_kg),
    // A hook alone gives the wind less to push than a block.
    cA_m2: Math.min(0.4, Math.max(least_kg, block.mass_kg) / 400),
    loss_per_s: 0.03,
    radius_m: 0.35,
    half_m,
  }
  const deck_m = Math.max(0, Math.floor(tip_m - half_m - longest_m))
  const room_m = Math.min(hangs_m, (tip_m - deck_m - 2 * half_m) / 3)
  const drawn = boom && !boom.pinned && boom.lengths_m.length > 1
  // Of the hook, up positive: nought where practice begins.
  const lifts: Ends = { least: -tip_m, most: tip_m, at: 0 }
  const all: Partial<Record<MotionName, Ends>> = { ...ends, hoist: lifts, rear: lifts }
  const axes = motionNames.flatMap((motion): RigAxis[] => {
    const its = all[motion]
    return its && drives[motion] && (motion !== 'extend' || drawn) ? [{ motion, limits: limitsOf(drives, motion), ...its }] : []
  })
  const names = axes.map((a) => a.motion)
  const rope_m = tip_m - deck_m - half_m - room_m
  const [luffAt, frontAt, rearAt] = (['luff', 'hoist', 'rear'] as const).map((n) => names.indexOf(n))
  const { elbow } = carrier
  return {
    machine: m.id,
    revision: m.revision,
    axes,
    leverShares: drives.leverShares ?? [1],
    load,
    twoBlock_m: Math.max(1, block.leastDrop_m + half_m),
    deck_m,
    hangs_m: room_m,
    turns: names.includes('slew'),
    under,
    reach,
    radii,
    foot,
    body,
    slew_deg,
    level,
    elbowAt: elbow && ((moving) => elbow(at(moving, luffAt) ?? ends.luff?.at ?? 0)),
    apartAt: (moving) => (level ? (at(moving, frontAt) ?? 0) - (at(moving, rearAt) ?? 0) : 0),
    motionOf: motionFor(names, carrier, rope_m),
  }
}

/** Where one of its motions stands as practice begins. */
const stillAt = ({ ends, slew_deg }: Carrier, motion: MotionName): Moving =>
  atRest(ends[motion]?.at ?? (motion === 'slew' ? slew_deg : 0))

const at = (moving: readonly Moving[], axis = -1) => moving[axis]?.at

/** What of it takes the tip out, its own speed and all: drawing the boom out, a trolley, the whole frame. */
const outOf = ({ reach: { motion } }: Carrier) => (motion === 'luff' ? 'extend' : motion)

/** Tip and rope of a rig from where its axes are, in the order of their names. */
function motionFor(names: readonly MotionName[], carrier: Carrier, rope_m: number): Rig['motionOf'] {
  const { of, parts } = carrier
  const out = outOf(carrier)
  const indexOf = (n: MotionName) => names.indexOf(n)
  const [slewAt, luffAt, drawnAt, outAt] = [indexOf('slew'), indexOf('luff'), indexOf('extend'), indexOf(out)]
  const [hoistAt, rearAt, hingeAt] = [indexOf('hoist'), indexOf('rear'), indexOf('outer')]
  const [stillSlew, stillAngle, stillLength] = [stillAt(carrier, 'slew'), stillAt(carrier, 'luff'), stillAt(carrier, 'extend')]
  const [stillOut, stillOuter, unmoved] = [stillAt(carrier, out), stillAt(carrier, 'outer'), atRest(0)]
  return (moving, to = new Motion()) => {
    const slew = moving[slewAt] ?? stillSlew
    const drawn = moving[drawnAt] ?? stillLength
    const front = moving[hoistAt] ?? unmoved
    // The middle of what hangs on two hoists; of one it is that.
    const rear = moving[rearAt] ?? front
    of(moving[luffAt] ?? stillAngle, moving[outAt] ?? stillOut, moving[hingeAt] ?? stillOuter, to)
    to.slew_deg = slew.at
    to.slew_deg_s = slew.speed
    to.slew_deg_s2 = slew.acceleration
    // Drawing the boom out takes rope: the hook comes up by its share of it.
    to.rope_m = rope_m - (front.at + rear.at) / 2 - (drawn.at - stillLength.at) / parts
    to.payOut_mps = -(front.speed + rear.speed) / 2 - drawn.speed / parts
    to.payOut_mps2 = -(front.acceleration + rear.acceleration) / 2 - drawn.acceleration / parts
    return to
  }
}

function limitsOf(drives: DrivesPart, motion: MotionName): AxisLimits {
  const d = drives[motion]
  if (!d) throw new Refusal('no-drives', `Nothing says how ${motion} answers its lever.`, `drives.${motion}`)
  const { stop, ...rest } = d
  return stop === undefined ? rest : { ...rest, stop }
}
