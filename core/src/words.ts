import { z } from 'zod'

/** Free words: kept as typed, with a bound. */
export const words = z.string().trim().min(1, 'Write a few words.').max(2000, 'At most 2,000 characters.')
export const maybeWords = z.string().trim().max(2000, 'At most 2,000 characters.')
