import { z } from 'zod'
import { finite, measuredNotNegative, measuredPositive, positive } from '../quantity/measured'
import { wayPart } from './truck-steps'

/** What lifts one end of a vehicle behind the rear axle, with the boom stowed meanwhile. */
export const towPart = z.strictObject({
  /** How the boom lies: its length, angle and slew. */
  stowed: z.strictObject({ boom_m: positive, angle_deg: finite, slew_deg: finite }),
  /** The machine's own centre of gravity so, above the road. */
  cgHeight_m: positive,
  /** How far behind the rear axle it lifts, and how much out to where; the last is as far as it goes. */
  arm: z.strictObject({
    from_m: positive,
    ratings: z.array(z.strictObject({ to_m: positive, rating_kg: positive })).min(1),
  }),
  /** Share of what the front axle carries unladen that has to stay on it. */
  leastFrontShare: positive.max(1, 'At most 1.'),
  /** What turns with it: half its width, and its front corner ahead of the front axle. */
  halfWidth_m: positive,
  frontOverhang_m: positive,
  braking_mps2: positive,
})
export type TowPart = z.infer<typeof towPart>

/** Driving with one end of a vehicle lifted. */
export const towStep = z.strictObject({
  do: z.literal('tow'),
  laden: z.boolean().default(true),
  /** What the arm carries, not what the vehicle weighs; null: nobody knows it. */
  lifted_kg: measuredNotNegative.nullable(),
  /** Where it is carried, behind the rear axle. */
  overhang_m: measuredPositive,
  /** From there to the axle that stays on the road; null: not measured. */
  toAxle_m: measuredPositive.nullable(),
  /** Null: not said; what it may turn with is then answered. */
  speed_mps: measuredNotNegative.nullable(),
  way: z.array(wayPart).min(1, 'Give at least one piece of the way.').max(40, 'At most 40 pieces.'),
})
export type TowStep = z.infer<typeof towStep>
