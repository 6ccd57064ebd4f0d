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

/** The same value with the fields of every object in one order, and none that says nothing: two that mean the same read the same. */
export const inFieldOrder = (v: unknown): unknown =>
  Array.isArray(v)
    ? v.map(inFieldOrder)
    : typeof v === 'object' && v !== null
      ? Object.fromEntries(
          Object.entries(v)
            .filter(([, x]) => x !== undefined)
            .sort(([a], [b]) => (a < b ? -1 : 1))
            .map(([k, x]) => [k, inFieldOrder(x)]),
        )
      : v

/** A file as text that is the same in whatever order its fields were written: what a signature is made over. */
export function canonical(v: unknown): string {
  if (Array.isArray(v)) return `[${v.map(canonical).join(',')}]`
  if (typeof v === 'object' && v !== null) {
    const fields = Object.entries(v)
      .filter(([, x]) => x !== undefined)
      .sort(([a], [b]) => (a < b ? -1 : 1))
    return `{${fields.map(([k, x]) => `${JSON.stringify(k)}:${canonical(x)}`).join(',')}}`
  }
  return JSON.stringify(v) ?? 'null'
}

/** What of a file its signature is made over: all of it but the signature. */
export const signedPart = (file: object): string => {
  const { signature: _s, ...rest } = file as { signature?: unknown }
  return canonical(rest)
}
