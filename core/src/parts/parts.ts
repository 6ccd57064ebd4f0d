import { z } from 'zod'
import { finite, notNegative, positive } from '../quantity/measured'

export const extension = z.enum(['in', 'middle', 'full'])
export type Extension = z.infer<typeof extension>

const footPosition = z.strictObject({ x_m: finite, y_m: finite })

const leg = z.strictObject({
  id: z.string().min(1),
  label: z.string().min(1),
  positions: z.strictObject({ in: footPosition, middle: footPosition, full: footPosition }),
  /** Jack's ends; the foot leaves the ground below min. */
  stroke: z.strictObject({ min_m: notNegative, max_m: positive }),
  /** The greatest load the leg's own structure may carry. */
  capacity_N: positive,
  pad: z.strictObject({ length_m: positive, width_m: positive }),
})
export type Leg = z.infer<typeof leg>

const boomPart = z.strictObject({
  /** Boom foot: behind the slew centre, and its height. */
  pivot: z.strictObject({ back_m: finite, height_m: finite }),
  headOffset_m: notNegative,
  lengths_m: z.array(positive).min(1),
  minAngle_deg: finite,
  maxAngle_deg: finite,
  /** Each section's centre stands at_m + share·(boom length) along the boom from its foot. */
  masses: z.array(z.strictObject({ name: z.string().min(1), mass_kg: positive, at_m: finite, share: finite.min(0).max(1) })),
})
export type BoomPart = z.infer<typeof boomPart>

const hoistPart = z.strictObject({
  linePull_N: positive,
  sheaveEfficiency: positive.max(1, 'At most 1.'),
  leadSheaves: z.int().min(0),
  reevings: z
    .array(
      z.strictObject({
        parts: z.int().min(1).max(32),
        block: z.strictObject({ name: z.string().min(1), mass_kg: notNegative, hook_kg: positive }),
      }),
    )
    .min(1),
})
export type HoistPart = z.infer<typeof hoistPart>

/** The parts a machine may have. Rules ask which parts are there, never which kind it is. */
export const machineParts = {
  chassis: z
    .strictObject({
      masses: z.array(z.strictObject({ name: z.string().min(1), mass_kg: positive, x_m: finite, y_m: finite })).min(1),
    })
    .optional(),
  upper: z
    .strictObject({
      /** Radius along the boom's direction; behind the slew centre negative. */
      masses: z.array(z.strictObject({ name: z.string().min(1), mass_kg: positive, radius_m: finite })),
      counterweights: z
        .array(z.strictObject({ id: z.string().min(1), label: z.string().min(1), mass_kg: notNegative, radius_m: finite }))
        .min(1),
      tail_m: positive,
    })
    .optional(),
  boom: boomPart.optional(),
  legs: z.array(leg).min(3).optional(),
  hoist: hoistPart.optional(),
  /** Trucks that tip forwards over an edge: forklifts, telehandlers, tyre handlers. Frame: middle of the front axle. */
  truck: z
    .strictObject({
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
    .optional(),
  tower: z.strictObject({ moment_kgm: positive, jib_m: positive }).optional(),
  gantry: z
    .strictObject({
      towers: z.int().min(2).max(16),
      working_kPa: positive,
      share: positive.max(1, 'At most 1.'),
      stages: z.array(z.strictObject({ upTo_m: positive, piston_m2: positive })).min(1),
    })
    .optional(),
  /** Several hoists on one frame. */
  hoists: z
    .strictObject({
      each: z
        .array(z.strictObject({ id: z.string().min(1), label: z.string().min(1), linePull_N: positive, parts: z.int().min(1) }))
        .min(1),
      sheaveEfficiency: positive.max(1, 'At most 1.'),
      /** Sheaves between drum and block; none where the rope falls straight from the drum. */
      leadSheaves: z.int().min(0),
      frame_kg: positive,
    })
    .optional(),
  runway: z
    .strictObject({
      falls: z.int().min(1),
      perFall_kg: positive,
      wheels: z.int().min(2),
      perWheel_kg: positive,
      beam: z.strictObject({ span_m: positive, modulus_cm3: positive, allowable_MPa: positive }),
    })
    .optional(),
}
