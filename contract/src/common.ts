import { z } from 'zod'

export { maybeWords, moment, type PersonRef, personRef, words } from '@geolabe/core'

/** Made by the client, so that a write sent twice is recorded once. */
export const clientId = z.uuid('Give a UUID made by the client.')

export const problem = z.object({
  error: z.object({
    code: z.string(),
    message: z.string(),
    path: z.string(),
    /** Further reasons, each with what would put it right. */
    impediments: z.array(z.object({ code: z.string(), why: z.string(), resolution: z.string() })).optional(),
  }),
})
export type ProblemBody = z.infer<typeof problem>
