import { z } from 'zod'
import { finite, positive } from '../../quantity/measured'

const between = z.strictObject({ min_deg: finite, max_deg: finite })

/** A boom that folds: an inner boom from its foot, an outer one on a hinge, and stages that slide out of that. */
export const articulatedPart = z.strictObject({
  inner_m: positive,
  /** The outer boom with nothing drawn out. */
  outer_m: positive,
  /** How far each stage slides out, and how many there are. */
  stage_m: positive,
  stages: z.int().min(0).max(12),
  innerAngle: between,
  /** 0: straight on from the inner boom; positive: folded down. */
  fold: between,
  /** Half the depth of the outer boom with its hook. */
  halfDepth_m: positive,
  masses: z.strictObject({
    /** Along the inner boom from its foot. */
    inner: z.strictObject({ mass_kg: positive, at_m: finite }),
    /** Along the outer boom from its hinge. */
    outer: z.strictObject({ mass_kg: positive, at_m: finite }),
    /** Along the outer boom: at_m + share·what is drawn out. */
    stages: z.strictObject({ mass_kg: positive, at_m: finite, share: finite.min(0).max(1) }),
  }),
})
export type ArticulatedPart = z.infer<typeof articulatedPart>
