import { z } from 'zod'
import { groundKind } from '../place/place'
import { finite, measuredNotNegative, notNegative, positive } from '../quantity/measured'
import { reachWaypoint } from './booms/reach'

/** Forks at a height, mast tilted forward (negative: back), carriage shifted to the left. */
const mastPose = z.strictObject({
  height_m: notNegative,
  tilt_deg: finite.min(-20).max(20).default(0),
  sideShift_m: finite.min(-1).max(1).default(0),
})

/** Standing still: the load raised, put into a stack or taken out of one. */
export const mastStep = z.strictObject({
  do: z.literal('mast'),
  laden: z.boolean().default(true),
  waypoints: z.array(mastPose).min(1, 'Give at least one height.').max(20, 'At most 20; prove the rest as another step.'),
})
export type MastStep = z.infer<typeof mastStep>

/** Standing still: the boom drawn out and raised from pose to pose, joints running evenly between. */
export const reachStep = z.strictObject({
  do: z.literal('reach'),
  laden: z.boolean().default(true),
  waypoints: z.array(reachWaypoint).min(1, 'Give at least one pose.').max(20, 'At most 20; prove the rest as another step.'),
})
export type ReachStep = z.infer<typeof reachStep>

export const surface = z.enum(['dry', 'wet', 'wet-steel', 'ice'])
export type Surface = z.infer<typeof surface>

/** One piece of a way: how long and wide and high, how it slopes in the direction of travel, what it is made of. */
export const wayPart = z.strictObject({
  kind: z.enum(['straight', 'turn', 'door', 'ramp', 'leveller', 'trailer']),
  label: z.string().max(80).default(''),
  length_m: positive,
  /** Rising in the direction of travel: positive. More than 40 % is degrees typed for per cent. */
  grade_pct: finite.min(-40, 'At most 40 %; is this in degrees?').max(40, 'At most 40 %; is this in degrees?').default(0),
  /** Its left side high: positive. */
  cross_pct: finite.min(-40, 'At most 40 %.').max(40, 'At most 40 %.').default(0),
  /** Null: not measured. */
  width_m: positive.nullable(),
  /** Clear height; null: open above. */
  height_m: positive.nullable(),
  /** Of a turn, to the middle of the truck. */
  radius_m: positive.optional(),
  surface,
  /** Of a trailer: what keeps its nose down or up while a truck drives in; null: nobody has looked. */
  nose: z.enum(['coupled', 'stands']).nullable().optional(),
  /** Null: nobody has named it. */
  floor: groundKind.nullable(),
})
export type WayPart = z.infer<typeof wayPart>

/** More of a way is proved as another move. */
export const most_pieces = 40

/** Driving with the load, or empty. */
export const driveStep = z.strictObject({
  do: z.literal('drive'),
  laden: z.boolean().default(true),
  way: z.array(wayPart).min(1, 'Give at least one piece of the way.').max(most_pieces, `At most ${most_pieces} pieces.`),
  /** As it is drawn over the place, in its metres; left out: it is not. */
  route: z
    .array(z.tuple([finite, finite]))
    .min(2, 'A way goes from somewhere to somewhere.')
    .max(40, 'At most 40 corners.')
    .optional(),
  /** Underside of the forks above the floor. */
  height_m: notNegative,
  facing: z.enum(['load-first', 'load-last']),
  /** Null: not said; what it may turn with is then answered. */
  speed_mps: measuredNotNegative.nullable(),
})
export type DriveStep = z.infer<typeof driveStep>
