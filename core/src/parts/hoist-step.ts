import { z } from 'zod'
import { measuredNotNegative } from '../quantity/measured'

/** Straight up or down: a gantry's towers with all that hangs between them, or the slings of a frame. */
export const hoistStep = z.strictObject({
  do: z.literal('hoist'),
  laden: z.boolean().default(true),
  /** Heights of the towers, or of the slings at the keel, above what the machine stands on. */
  from_m: measuredNotNegative,
  to_m: measuredNotNegative,
  /** Together, or one of them alone by its id. */
  which: z.union([z.literal('all'), z.array(z.string().min(1)).min(1)]).default('all'),
})
export type HoistStep = z.infer<typeof hoistStep>
