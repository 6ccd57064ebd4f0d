import { z } from 'zod'

/** What a machine's own computer may be set to: each is read off its display, apart from what is fitted. */
export const displayed = ['configuration', 'attachment', 'boom_m', 'partsOfLine', 'counterweight'] as const
export type Displayed = (typeof displayed)[number]

/** A machine's own display, and what of its setting it shows. */
export const displayPart = z.strictObject({ label: z.string().min(1), shows: z.array(z.enum(displayed)).min(1) })
export type DisplayPart = z.infer<typeof displayPart>

/** What was read off it. What is left out nobody has read. */
export const selected = z.strictObject({
  configuration: z.string().min(1).optional(),
  attachment: z.string().min(1).optional(),
  boom_m: z.number().positive().optional(),
  partsOfLine: z.int().min(1).optional(),
  counterweight: z.string().min(1).optional(),
})
export type Selected = z.infer<typeof selected>
