import { z } from 'zod'

/** Hanging from a beam, as a set-up plan has it. */
export const onRunway = z.strictObject({ on: z.literal('runway'), state: z.string().min(1).optional(), beam: z.string().min(1) })
