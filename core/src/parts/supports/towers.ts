import { z } from 'zod'
import { groundKind, matKind } from '../../place/place'
import { measured } from '../../quantity/measured'

/** How far what it stands on falls: along, its front high positive; across, its left side high positive. Null: not read. */
export const fall = z.strictObject({ along_pct: measured.nullable(), cross_pct: measured.nullable() })
export type Fall = z.infer<typeof fall>

/** On towers, each measured from the middle between them: x ahead, y to the left. */
export const onTowers = z.strictObject({
  on: z.literal('towers'),
  state: z.string().min(1).optional(),
  towers: z
    .array(
      z.strictObject({
        id: z.string().min(1),
        x_m: measured,
        y_m: measured,
        /** What lies under it; null: not known. */
        ground: groundKind.nullable(),
        /** What its footing stands on; null: on the ground itself. */
        plate: matKind.nullable(),
      }),
    )
    .max(16),
  fall,
  /** What hangs from one point of each header goes by moments; from four links it may hang on two of them. */
  linkage: z.enum(['one-point-per-header', 'four-links']),
})
export type OnTowers = z.infer<typeof onTowers>
