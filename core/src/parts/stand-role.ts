import { z } from 'zod'

/** What somebody stands on the ground for while a load is up. */
export const standRole = z.enum(['signaller', 'slinger', 'tag-line', 'spotter'])
export type StandRole = z.infer<typeof standRole>
