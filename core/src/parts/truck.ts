import { z } from 'zod'
import { finite, notNegative, positive } from '../quantity/measured'
import { reachPart } from './booms/reach'
import { drive } from './drives'

const share = finite.min(0).max(1)

/** How a truck stands and drives: without it only its plate is known, and nothing about it is proved. */
const truckChassis = z.strictObject({
  wheelbase_m: positive,
  /** From the middle to the middle of the front wheels of one side. The rear axle pivots: it stands on a triangle. */
  frontHalfTrack_m: positive,
  /** Of the unladen truck with its mast down. */
  cgHeight_m: positive,
  /** Masses that rise with the load, each by a share of its height. */
  rises: z.array(z.strictObject({ mass_kg: positive, share })),
  frontWheels: z.int().min(1).max(16),
  rearWheels: z.int().min(1).max(16),
  contact_m2: positive,
  /** Of a wheel that rolls over a floor: air 1.4, solid 2.0 (EN 1991-1-1). */
  floorFactor: finite.min(1).max(3),
  axles: z.strictObject({ front_kg: positive, rear_kg: positive }),
  width_m: positive,
  /** Behind the rear axle. */
  tailOverhang_m: positive,
  steer_deg: positive.max(90),
  grades: z.strictObject({ along_pct: positive, cross_pct: positive }),
  /** As high as its forks go. */
  greatestHeight_m: positive,
  mastLow_m: positive.optional(),
  fork_m: positive.optional(),
  /** The load guard's top above the forks. */
  guardAbove_m: positive.optional(),
  braking_mps2: positive,
  braked: z.enum(['front', 'rear']),
  /** Passed the tilting platform (ISO 22915-2): its reserve is known. */
  typeTest: z.literal(true).optional(),
  /** Somebody rides up with the load: where, ahead of the front axle and above the forks, and how many. */
  operator: z.strictObject({ x_m: finite, above_m: positive, most: z.int().min(1) }).optional(),
  /** It holds its load by friction: the clamp's least force at relief, on how many faces, and what a face holds dry and wet. */
  grip: z.strictObject({ least_N: positive, faces: z.int().min(1), dry: positive.max(1), wet: positive.max(1) }).optional(),
  /** Slope of a floor that it may stack on, per cent. */
  stackSlope_pct: positive,
})
export type TruckChassis = z.infer<typeof truckChassis>

/** How it answers wheel, pedal and levers: what driving is practised by. Without it none is offered. */
const truckDriving = z.strictObject({
  /** Of the axle that drives and brakes it; it slows down as it is let go of, no harder than its service brake. */
  travel: drive,
  /** Which end its driver has before them: forward is that way. */
  faces: z.enum(['forks', 'chassis']).default('forks'),
  steer_deg_s: positive.max(180),
  forks_mps: positive,
  /** Left out: its mast does not lean. */
  tilt_deg_s: positive.optional(),
  /** Its driver rises with the load: raised higher than so it goes no faster, and from there up not at all. */
  platform: z.strictObject({ above_m: positive, slow_mps: positive, most_m: positive }).optional(),
  /** How far its carriage goes to either side of the middle, and how fast; left out: it does not. */
  shift: z.strictObject({ most_m: positive, mps: positive }).optional(),
  /** How far its arm is out while it drives, from where reach is counted to the load’s middle. */
  reach_m: positive.optional(),
  /** What is on its forks in practice, from their face: a box, its weight in its middle. */
  load: z.strictObject({ mass_kg: positive, length_m: positive, width_m: positive, height_m: positive }),
})
export type TruckDriving = z.infer<typeof truckDriving>
/** What a truck is driven by, in the order in which a run’s inputs name them. */
export const drivingMotions = ['travel', 'steer', 'forks', 'tilt', 'shift'] as const
export type DrivingMotion = (typeof drivingMotions)[number]

/** Trucks that tip forwards over an edge: forklifts, telehandlers, tyre handlers. Frame: middle of the front axle. */
export const truckPart = z.strictObject({
  mass_kg: positive,
  /** Behind the front axle, metres. */
  cgBehindFront_m: positive,
  /** From the front axle to the face of the forks, or to where reach is counted from. */
  faceToAxle_m: finite,
  /** Share of the load that would tip it which the maker allows. */
  share: positive.max(1, 'At most 1.'),
  /** How far the load moves out for each metre it is raised: give of mast, boom and tyres. */
  give_share: notNegative,
  /** Forward tilt of a mast. */
  forwardTilt_deg: notNegative.optional(),
  chassis: truckChassis.optional(),
  driving: truckDriving.optional(),
  boom: z.strictObject({ mass_kg: positive, share: finite.min(0).max(1) }).optional(),
  /** How the boom is drawn out and raised. */
  reach: reachPart.optional(),
  /** Feet ahead of the front wheels: with them down it stands on a triangle that is longer, and narrower at the same place. */
  stabilisers: z
    .strictObject({
      ahead_m: positive,
      half_m: positive,
      capacity_N: positive,
      /** What the rear axle may carry standing still with them down, by the maker. */
      rear_kg: positive,
      float: z.strictObject({ length_m: positive, width_m: positive }),
    })
    .optional(),
  slab: z.strictObject({ mass_kg: positive, behindFront_m: positive }).optional(),
  attachments: z
    .array(
      z.strictObject({
        id: z.string().min(1),
        label: z.string().min(1),
        mass_kg: notNegative,
        ahead_m: finite,
        persons: z.int().min(1).optional(),
        /** Loads hang from it. */
        hook: z.literal(true).optional(),
      }),
    )
    .optional(),
})
export type TruckPart = z.infer<typeof truckPart>
