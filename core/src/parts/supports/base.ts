import { z } from 'zod'

/** A tower on its base, as a set-up plan has it. */
export const onBase = z.strictObject({
  on: z.literal('base'),
  state: z.string().min(1).optional(),
  /** The papers of its base, and until when they hold, as a day; null: none. */
  certificate: z
    .strictObject({ id: z.string().trim().min(1, 'Say which papers.'), until: z.iso.date('Give a day, as 2026-09-30.') })
    .nullable(),
})
export type OnBase = z.infer<typeof onBase>
