import { z } from 'zod'
import { finite } from '../quantity/measured'

/** One thing that a rating plate says: words, or a figure, which a cell of the table in use or the machine’s own file also gives. */
export const plateField = z.strictObject({
  id: z.string().min(1),
  label: z.string().min(1),
  /** What the figure is, in kg, m, V, or none; left out: words. */
  quantity: z.enum(['mass', 'length', 'voltage', 'none']).optional(),
  /** The cell of the machine’s tables that the plate must agree with: its configuration, row and column by their figures. */
  cell: z
    .strictObject({
      configuration: z.string().min(1),
      row: z.union([finite, z.string()]),
      column: z.union([finite, z.string()]),
    })
    .optional(),
  /** What the rest of the machine’s file rests on. */
  expected: finite.optional(),
})
export type PlateField = z.infer<typeof plateField>
export type PlateValue = string | number
