import { z } from 'zod'
import { groundKind } from '../../place/place'
import { measured } from '../../quantity/measured'
import { fall } from './towers'

/** On the wheels of a frame astride its load. */
export const onFrame = z.strictObject({
  on: z.literal('frame'),
  state: z.string().min(1).optional(),
  /** Where each hoist's slings hang, from the middle of its wheels ahead. */
  hoists: z.array(z.strictObject({ id: z.string().min(1), x_m: measured })).max(8),
  /** As its panel shows; only aligned may both lift together. Null: not read. */
  synchronised: z.enum(['separate', 'selected', 'aligning', 'aligned']).nullable(),
  /** What its wheels stand on while it lifts; null: not known. */
  ground: groundKind.nullable(),
  fall,
})
export type OnFrame = z.infer<typeof onFrame>
