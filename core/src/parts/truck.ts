import { z } from 'zod'
import { finite, notNegative, positive } from '../quantity/measured'

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
  boom: z.strictObject({ mass_kg: positive, share: finite.min(0).max(1) }).optional(),
  slab: z.strictObject({ mass_kg: positive, behindFront_m: positive }).optional(),
  attachments: z
    .array(z.strictObject({ id: z.string().min(1), label: z.string().min(1), mass_kg: notNegative, ahead_m: finite }))
    .optional(),
})
export type TruckPart = z.infer<typeof truckPart>
