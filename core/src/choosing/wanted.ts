import { z } from 'zod'
import { hung } from '../lift/plan'
import { finite, notNegative } from '../quantity/measured'

/** A point of a place, and how high the underside of the load is there, metres. */
const spot = z.strictObject({ x_m: finite, y_m: finite, height_m: notNegative })
export type Spot = z.infer<typeof spot>

/** A load that is to go from one point of a place to another, whatever takes it there. */
export const wantedLift = z.strictObject({
  format: z.literal('geolabe.wanted/1'),
  hung,
  from: spot,
  to: spot,
  /** The top of what it is carried over. */
  over_m: notNegative.default(0),
})
export type WantedLift = z.infer<typeof wantedLift>
