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

/**
 * @param load null: nothing on it
 * @param reach_m how far the arm of a truck with one is drawn out; omitted: to the load's centre
 */
export function balanceOf(
  t: Truck,
  fitted: FittedMasses,
  load: OnForks | null,
  pose: MastPose,
  reach_m = load?.x_m ?? 0,
): Balance {
  const { chassis } = t
  const h = pose.height_m
  const lean_m = Math.sin(Math.max(0, pose.tilt_deg) * rad) * h
  const give_m = t.give_share * h + lean_m
  const rising = chassis.rises.reduce((s, r) => s + r.mass_kg * r.share * h, 0)
  const sum = { m: t.mass_kg, x: -t.mass_kg * t.cgBehindFront_m, give: 0, y: 0, z: t.mass_kg * chassis.cgHeight_m + rising }
  const add = (m: number, x: number, y: number, z: number, moves: boolean) => {
    sum.m += m
    sum.x += m * x
    sum.give += moves ? m * give_m : 0
    sum.y += m * y
    sum.z += m * z
  }
  const face_m = t.faceToAxle_m + (fitted.tool?.ahead_m ?? 0)
  if (fitted.slabs) add(fitted.slabs.mass_kg, -fitted.slabs.behindFront_m, 0, chassis.cgHeight_m, false)
  const arm_m = t.faceToAxle_m + reach_m
  if (t.boom) add(t.boom.mass_kg, t.boom.share * arm_m, 0, chassis.cgHeight_m + h / 2, false)
  // A tool hangs at the end of an arm, or stands at the face of a carriage.
  if (fitted.tool) add(fitted.tool.mass_kg, t.boom ? arm_m : face_m, pose.sideShift_m, h, true)
  const { operator } = chassis
  if (operator && fitted.persons_kg) add(fitted.persons_kg, operator.x_m, 0, h + operator.above_m, false)
  if (load) add(load.mass_kg, face_m + load.x_m, pose.sideShift_m + load.y_m, h + load.z_m, true)
  return {
    total_kg: sum.m,
    x_m: sum.x / sum.m,
    xFront_m: (sum.x + sum.give) / sum.m,
    y_m: sum.y / sum.m,
    z_m: sum.z / sum.m,
  }
}

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

/** What its braked wheels carry of its weight as it slows so. */
export function brakedShare({ chassis }: Pick<Truck, 'chassis'>, b: Balance, { pitch_rad, braking_mps2 }: Going): number {
  const along = braking_mps2 / g_mps2 - Math.sin(pitch_rad)
  const front = ((chassis.wheelbase_m + b.x_m) * Math.cos(pitch_rad) + b.z_m * along) / chassis.wheelbase_m
  return chassis.braked === 'front' ? front : Math.cos(pitch_rad) - front
}

/** Friction that its braked axle needs, and what share of the weight stands on it. */
export function tractionOf(truck: Truck, b: Balance, going: Going): { needed: number; share: number } {
  const share = brakedShare(truck, b, going)
  const along = going.braking_mps2 / g_mps2 - Math.sin(going.pitch_rad)
  return { needed: share > 0 ? Math.abs(along) / share : Infinity, share }
}
