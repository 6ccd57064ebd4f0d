import type { TruckChassis, TruckPart } from '../parts/truck'
import { g_mps2, rad } from '../physics'
import { insideLine } from '../plane/hull'

/** A truck whose chassis is known. */
export type Truck = TruckPart & {
  chassis: TruckChassis
  /** Where it would tip over forwards, ahead of the front axle: over its feet where they are down. */
  edgeAhead_m?: number
}

/** How high the forks are, how far the mast is tilted forward (negative: back), and how far the carriage is shifted to the left. */
export interface MastPose {
  height_m: number
  tilt_deg: number
  sideShift_m: number
  /** Of a boom: how far its tool is out, from where reach is counted to the load centre. */
  reach_m?: number | undefined
  /** How far along its step, in waypoints from the first. */
  t?: number | undefined
}

/** What is on the forks: its mass, and its centre of gravity from the face of the forks, x ahead, y left, z above them. */
export interface OnForks {
  mass_kg: number
  x_m: number
  y_m: number
  z_m: number
}

/** What is fitted besides the truck's own: a tool, counterweight slabs. */
export interface FittedMasses {
  tool: { mass_kg: number; ahead_m: number } | null
  slabs: { mass_kg: number; behindFront_m: number } | null
  /** Who rides up with the load. */
  persons_kg?: number | undefined
}

/** Where everything weighs together. Frame: middle of the front axle, x ahead, y left, z up. */
export interface Balance {
  total_kg: number
  x_m: number
  /** With the give of mast and tyres and the lean of the mast, which count only for tipping forwards. */
  xFront_m: number
  y_m: number
  z_m: number
}

/** What a truck weighs and where, before anything is raised, shifted or tilted; moments in kilogram metres. */
export class Weights {
  total_kg = Number.NaN
  x_kgm = Number.NaN
  y_kgm = Number.NaN
  z_kgm = Number.NaN
  /** As much of it as goes up with the forks: of what goes half as far, half. */
  rises_kg = 0
  /** What is on the carriage: it goes aside and leans with it. */
  raised_kg = 0
  give_share = Number.NaN

  constructor({ mass_kg, cgBehindFront_m, give_share, chassis }: Truck) {
    this.total_kg = mass_kg
    this.x_kgm = -mass_kg * cgBehindFront_m
    this.y_kgm = 0
    this.z_kgm = mass_kg * chassis.cgHeight_m
    this.rises_kg = chassis.rises.reduce((s, r) => s + r.mass_kg * r.share, 0)
    this.give_share = give_share
  }

  add(
    kg: number,
    { x_m, y_m = 0, z_m }: { x_m: number; y_m?: number; z_m: number },
    goes: { up: number; onCarriage?: true },
  ): void {
    this.total_kg += kg
    this.x_kgm += kg * x_m
    this.y_kgm += kg * y_m
    this.z_kgm += kg * z_m
    this.rises_kg += kg * goes.up
    if (goes.onCarriage) this.raised_kg += kg
  }
}

/**
 * What a truck weighs and where, with what is fitted and what is on its forks.
 *
 * @param load null: nothing on it
 * @param reach_m how far the arm of a truck with one is drawn out; omitted: to the load's centre
 */
export function weightsOf(t: Truck, fitted: FittedMasses, load: OnForks | null, reach_m = load?.x_m ?? 0): Weights {
  const { chassis, boom } = t
  const { slabs, tool, persons_kg } = fitted
  const face_m = t.faceToAxle_m + (tool?.ahead_m ?? 0)
  const arm_m = t.faceToAxle_m + reach_m
  const all = new Weights(t)
  if (slabs) all.add(slabs.mass_kg, { x_m: -slabs.behindFront_m, z_m: chassis.cgHeight_m }, { up: 0 })
  if (boom) all.add(boom.mass_kg, { x_m: boom.share * arm_m, z_m: chassis.cgHeight_m }, { up: 0.5 })
  // A tool hangs at the end of an arm, or stands at the face of a carriage.
  if (tool) all.add(tool.mass_kg, { x_m: boom ? arm_m : face_m, z_m: 0 }, { up: 1, onCarriage: true })
  if (chassis.operator && persons_kg) all.add(persons_kg, { x_m: chassis.operator.x_m, z_m: chassis.operator.above_m }, { up: 1 })
  if (load) all.add(load.mass_kg, { ...load, x_m: face_m + load.x_m }, { up: 1, onCarriage: true })
  return all
}

/** How it balances with its mast so. @param to written over */
export function balanceAt(
  w: Weights,
  { height_m: h, sideShift_m, tilt_deg }: MastPose,
  to: Balance = { total_kg: 0, x_m: 0, xFront_m: 0, y_m: 0, z_m: 0 },
): Balance {
  const lean_m = Math.sin(Math.max(0, tilt_deg) * rad) * h
  to.total_kg = w.total_kg
  to.x_m = w.x_kgm / w.total_kg
  to.xFront_m = (w.x_kgm + w.raised_kg * (w.give_share * h + lean_m)) / w.total_kg
  to.y_m = (w.y_kgm + w.raised_kg * sideShift_m) / w.total_kg
  to.z_m = (w.z_kgm + w.rises_kg * h) / w.total_kg
  return to
}

/** Both at once. */
export const balanceOf = (t: Truck, fitted: FittedMasses, load: OnForks | null, pose: MastPose, reach_m?: number): Balance =>
  balanceAt(weightsOf(t, fitted, load, reach_m), pose)

/** Room to the edges of the triangle it stands on, metres; negative: it falls over that edge. */
export interface Margins {
  front_m: number
  /** The lesser of both sides. */
  side_m: number
}

/**
 * Room to the edges with its weight moved by slope, braking and turning.
 * @param forward how far it moves ahead for each metre of height: b/g − sin p
 * @param sideways the same across, whichever way is worse
 */
export function marginsOf({ chassis, edgeAhead_m = 0 }: Truck, b: Balance, forward = 0, sideways = 0): Margins {
  const front = { x_m: edgeAhead_m, y_m: chassis.frontHalfTrack_m }
  const rear = { x_m: -chassis.wheelbase_m, y_m: 0 }
  // Ahead it is further from where both sides meet: the slope along does not help the sides.
  const x_m = Math.min(b.x_m, b.x_m + b.z_m * forward)
  const p = { x_m, y_m: Math.abs(b.y_m) + b.z_m * Math.abs(sideways) }
  return { front_m: edgeAhead_m - (b.xFront_m + b.z_m * forward), side_m: insideLine(front, rear, p) }
}

/** Front and rear axle, kg. */
export function axlesOf({ chassis, edgeAhead_m = 0 }: Truck, b: Balance): { front_kg: number; rear_kg: number } {
  const front = (x_m: number) => (b.total_kg * (chassis.wheelbase_m + x_m)) / (chassis.wheelbase_m + edgeAhead_m)
  return { front_kg: front(b.xFront_m), rear_kg: b.total_kg - front(b.x_m) }
}

/** How it moves on a slope. */
export interface Going {
  /** Which way its nose points up: positive, radians. */
  pitch_rad: number
  /** Deceleration towards the nose: positive when it drives forwards and brakes, m/s². */
  braking_mps2: number
}

/** How far ahead for each metre of height slope and braking move its weight. */
export const forwardOf = ({ pitch_rad, braking_mps2 }: Going): number =>
  (braking_mps2 / g_mps2 - Math.sin(pitch_rad)) / Math.cos(pitch_rad)

/** Friction that its braked axle needs as it slows so, and what share of the weight stands on it. */
export interface Traction {
  needed: number
  share: number
}

export function tractionOf(
  { chassis }: Pick<Truck, 'chassis'>,
  b: Balance,
  { pitch_rad, braking_mps2 }: Going,
  to: Traction = { needed: 0, share: 0 },
): Traction {
  const along = braking_mps2 / g_mps2 - Math.sin(pitch_rad)
  const front = ((chassis.wheelbase_m + b.x_m) * Math.cos(pitch_rad) + b.z_m * along) / chassis.wheelbase_m
  const share = chassis.braked === 'front' ? front : Math.cos(pitch_rad) - front
  to.share = share
  if (share > 0) to.needed = Math.abs(along) / share
  else to.needed = Infinity
  return to
}
