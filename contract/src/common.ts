import { z } from 'zod'

/** Made by the client, so that a write sent twice is recorded once. */
export const clientId = z.uuid('Give a UUID made by the client.')
export const moment = z.iso.datetime({ offset: true })

export const problem = z.object({
  error: z.object({
    code: z.string(),
    message: z.string(),
    path: z.string(),
    /** Further reasons, each with what would mend it. */
    bars: z.array(z.object({ code: z.string(), why: z.string(), mend: z.string() })).optional(),
  }),
})
export type ProblemBody = z.infer<typeof problem>

/** Free words: kept as typed, with a bound. */
export const words = z.string().trim().min(1, 'Write a few words.').max(2000, 'At most 2,000 characters.')
export const maybeWords = z.string().trim().max(2000, 'At most 2,000 characters.')

export const personRef = z.object({ id: z.string(), name: z.string() })
export type PersonRef = z.infer<typeof personRef>
