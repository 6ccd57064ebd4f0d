import type { Machine } from '../machine/machine'
import type { TruckChassis, TruckDriving } from '../parts/truck'
import { Refusal } from '../refusal'
import { AxisFigures } from '../swing/axis'
import { type Balance, balanceAt, type MastPose, type Truck, weightsOf } from '../truck/balance'
import type { DrivenAxle } from './pose'
import type { OverEdge } from './tipping'

/** A box in plan in the truck’s own frame, metres: from x to x, so far to either side. */
export interface PlanBox {
  rear_m: number
  front_m: number
  half_m: number
}

/** A truck as practice drives it, something on its forks. */
export interface DrivenTruck {
  machine: string
  revision: number
  chassis: TruckChassis
  driving: TruckDriving
  travel: AxisFigures
  /** What drives and brakes it. */
  axle: DrivenAxle
  /** Forward is forks first, 1, or chassis first, −1. */
  faces: 1 | -1
  steer_rad: number
  steer_rad_s: number
  /** Back positive, degrees: as far as the mast leans back, and forward. */
  tilt_deg: { back: number; forward: number }
  body: PlanBox
  load: PlanBox
  /** All of it that may touch something: its body; forks or arm and load, which side shift moves. */
  boxes: { body: PlanBox; carriage: readonly PlanBox[] }
  /** Too high to see over: it is driven backwards. */
  tall: boolean
  gyration_m: number
  /** What it stands on: its rear axle pivots. */
  triangle: { frontHalfTrack_m: number; wheelbase_m: number; rearHalfTrack_m: number }
  truck: Truck
  /** How it balances with its mast there, back positive; written to the second, where there is one. */
  balance: (at: { height_m: number; tilt_deg: number; shift_m: number }, to?: Balance) => Balance
}

/** How its mast stands, written over. */
class Mast implements MastPose {
  height_m = Number.NaN
  tilt_deg = Number.NaN
  sideShift_m = Number.NaN
}

/** A mast or a hand leans back no further in practice, degrees. */
const backTilt_deg = 6
/** Forks or arm are so wide to either side. */
const aheadHalf_m = 0.35
/** A load that cannot be seen over is so many times as high as a usual one. */
const tall_share = 1.9

export const canDrive = (m: Machine): boolean => m.truck?.chassis !== undefined && m.truck.driving !== undefined

/** How a machine stands and drives. @throws Refusal `no-drives` where its file does not say */
export function drivingOf(m: Machine): { truck: Truck; driving: TruckDriving } {
  const { chassis, driving } = m.truck ?? {}
  if (!m.truck || !chassis || !driving)
    throw new Refusal(
      'no-drives',
      `Nothing says how ${m.name} answers its wheel and pedals; driving is not offered for it.`,
      'machine',
    )
  return { truck: { ...m.truck, chassis }, driving }
}

/**
 * A truck made ready for practice, its load on the forks.
 *
 * @param tall the load is too high to see over
 * @throws Refusal `no-drives` where its file does not say how it drives
 */
export function drivenTruck(m: Machine, tall: boolean): DrivenTruck {
  const { truck, driving } = drivingOf(m)
  const { chassis } = truck
  const tool = truck.boom ? (truck.attachments?.[0] ?? null) : null
  const { load } = driving
  const ahead_m = driving.reach_m ?? load.length_m / 2
  const onForks = { mass_kg: load.mass_kg, x_m: ahead_m, y_m: 0, z_m: (load.height_m * (tall ? tall_share : 1)) / 2 }
  const down = Math.min(driving.travel.down, chassis.braking_mps2)
  const weights = weightsOf(truck, { tool, slabs: null }, onForks, driving.reach_m)
  const mast = new Mast()
  const middle_m = truck.faceToAxle_m + (tool?.ahead_m ?? 0) + ahead_m
  const points = m.outline.plan.filter((p) => !p.raised).flatMap((p) => p.points)
  const body: PlanBox = {
    rear_m: Math.min(-chassis.wheelbase_m - chassis.tailOverhang_m, ...points.map((p) => p[0])),
    front_m: truck.faceToAxle_m,
    half_m: Math.max(chassis.width_m / 2, ...points.map((p) => Math.abs(p[1]))),
  }
  const carried: PlanBox = {
    rear_m: middle_m - load.length_m / 2,
    front_m: middle_m + load.length_m / 2,
    half_m: load.width_m / 2,
  }
  // What is drawn ahead of it besides the load: an arm, the tips of its forks.
  const ahead: PlanBox = {
    rear_m: body.front_m,
    front_m: Math.max(carried.rear_m, ...points.map((p) => p[0])),
    half_m: aheadHalf_m,
  }
  return {
    machine: m.id,
    revision: m.revision,
    chassis,
    driving,
    axle: chassis.braked,
    faces: driving.faces === 'chassis' ? -1 : 1,
    travel: new AxisFigures({ stop: down, ...driving.travel, down }),
    steer_rad: (chassis.steer_deg * Math.PI) / 180,
    steer_rad_s: (driving.steer_deg_s * Math.PI) / 180,
    tilt_deg: driving.tilt_deg_s
      ? { back: backTilt_deg, forward: truck.forwardTilt_deg ?? backTilt_deg }
      : { back: 0, forward: 0 },
    body,
    load: carried,
    boxes: { body, carriage: [ahead, carried] },
    tall,
    // As a box of its own width and twice the height of its centre of gravity: rather too little, so that it goes over rather sooner.
    gyration_m: Math.hypot(chassis.width_m, 2 * chassis.cgHeight_m) / Math.sqrt(12),
    triangle: { frontHalfTrack_m: chassis.frontHalfTrack_m, wheelbase_m: chassis.wheelbase_m, rearHalfTrack_m: 0 },
    truck,
    balance: ({ height_m: h, tilt_deg, shift_m }, to) => {
      mast.height_m = h
      mast.tilt_deg = -tilt_deg
      mast.sideShift_m = shift_m
      return balanceAt(weights, mast, to)
    },
  }
}

/** Tail to the far side of the load, metres. */
export const overallLength = (t: Pick<DrivenTruck, 'body' | 'load'>): number => t.load.front_m - t.body.rear_m

/** Which edge of its triangle something stands nearest to. */
export const truckEdges = ['front', 'left', 'right'] as const
export type TruckEdge = (typeof truckEdges)[number]

/** Away from an edge, in the truck’s own frame. */
export function outwardOf({ chassis }: Pick<DrivenTruck, 'chassis'>, edge: TruckEdge): readonly [number, number] {
  if (edge === 'front') return [1, 0]
  const long = Math.hypot(chassis.wheelbase_m, chassis.frontHalfTrack_m)
  const side = edge === 'left' ? 1 : -1
  return [-chassis.frontHalfTrack_m / long, (side * chassis.wheelbase_m) / long]
}

/** How its weight stands on an edge when nothing moves and the ground is level. */
export function overEdge(t: DrivenTruck, b: Balance, edge: TruckEdge): OverEdge {
  const [nx, ny] = outwardOf(t, edge)
  // A front wheel lies on every edge: on two of them the left one.
  const wheel_m = (edge === 'right' ? -1 : 1) * t.chassis.frontHalfTrack_m
  const inside_m = edge === 'front' ? -b.xFront_m : -nx * b.x_m + ny * (wheel_m - b.y_m)
  return { inside_m, height_m: b.z_m, gyration_m: t.gyration_m }
}
