import { z } from 'zod'
import { finite, notNegative } from '../../quantity/measured'

/** How both booms of a folding boom stand, how far the outer is drawn out, and where they point. */
export const articulatedPose = z.strictObject({
  inner_deg: finite,
  fold_deg: finite,
  extension_m: notNegative,
  slew_deg: finite,
})
export type ArticulatedPose = z.infer<typeof articulatedPose>

/** Between two poses: inner boom, outer boom, stages and slew one after another in this order, or all of them together. */
export const poseMode = z.enum(['one-after-another', 'together'])

/** A way through poses. */
export interface FoldingWay {
  waypoints: readonly ArticulatedPose[]
  mode: z.infer<typeof poseMode>
}
