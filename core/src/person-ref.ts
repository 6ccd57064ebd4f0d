import { z } from 'zod'

/** Who it was, with the name of that day. */
export const personRef = z.object({ id: z.string(), name: z.string() })
export type PersonRef = z.infer<typeof personRef>
