import { z } from 'zod'
import { moment, personRef, words } from './common'

const answer = z.union([z.number(), z.string()])

/** What a site answers to each question on which practice differs; where nobody has answered, it is as without. */
export const policyPage = z.object({
  place: z.string(),
  answers: z.array(
    z.object({
      policy: z.string(),
      value: answer,
      /** Null: as it is without an answer. */
      set: z.object({ by: personRef, at: moment, why: z.string(), engineer: z.string().nullable() }).nullable(),
    }),
  ),
})
export type PolicyPage = z.infer<typeof policyPage>

/** One answer of a site, and why; a softer one than without an answer names the engineer who stands for it. */
export const setPolicyRequest = z.strictObject({
  policy: z.string().min(1),
  value: answer,
  why: words,
  engineer: z.string().trim().max(200).default(''),
})
export type SetPolicyRequest = z.infer<typeof setPolicyRequest>
