import { z } from 'zod'
import { articulatedPose, poseMode } from '../booms/pose'
import { stepHeights, stepRadiusBasis } from './slew'

/** Taking a folding boom from one pose to the next. */
export const poseStep = z.strictObject({
  do: z.literal('pose'),
  /** False: before the load is taken, or after it is let go. */
  laden: z.boolean().default(true),
  waypoints: z
    .array(articulatedPose)
    .min(2, 'Give at least two poses: from where, and to where.')
    .max(20, 'At most 20 poses; prove the rest as another step.'),
  mode: poseMode,
  heights: stepHeights,
  radiusBasis: stepRadiusBasis,
})
export type PoseStep = z.infer<typeof poseStep>
