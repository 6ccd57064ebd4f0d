import { type PolicyPage, policyPage, type SetPolicyRequest } from '@geolabe/contract'
import { answerIn, isSofter, placeDefinition, policyQuestions, withAnswer } from '@geolabe/core'
import type { Tx } from '../db/database'
import { requireRole } from '../http/routes'
import { placeInUse, revisePlace } from '../library/place'
import { Problem } from '../problem/problem'

/** What stands in a place's policy, each with who set it last, when and why. */
export async function readPolicies(tx: Tx, id: string): Promise<PolicyPage> {
  const { document } = await placeInUse(tx, id)
  const set = await tx.query<{ policy: string; by: string; name: string; at: Date; why: string; engineer: string | null }>(
    `select distinct on (j.body->>'policy') j.body->>'policy' as policy, j.actor as by, p.name, j.at, j.body->>'why' as why, j.body->>'engineer' as engineer
     from journal j join person p on p.org = j.org and p.id = j.actor
     where j.kind = 'policy-set' and j.subject = $1 order by j.body->>'policy', j.seq desc`,
    [document.id],
  )
  return policyPage.parse({
    place: document.id,
    answers: policyQuestions.map(({ id: policy }) => {
      const last = set.rows.find((r) => r.policy === policy)
      return {
        policy,
        value: answerIn(document.policy, policy),
        set: last
          ? { by: { id: last.by, name: last.name }, at: last.at.toISOString(), why: last.why, engineer: last.engineer }
          : null,
      }
    }),
  })
}

/** Sets one answer as a new revision of the place; in force for shifts that begin, or read it anew, from then on. */
export async function setPolicy(tx: Tx, id: string, b: SetPolicyRequest): Promise<PolicyPage> {
  await requireRole(tx, 'person-in-charge', 'A site’s policy is set by the person in charge.')
  const question = policyQuestions.find((q) => q.id === b.policy)
  if (!question) throw new Problem(422, 'unknown-policy', 'There is no such policy.', 'policy')
  const stands = await placeInUse(tx, id)
  const { document } = stands
  const was = answerIn(document.policy, b.policy)
  const engineer = b.engineer || null
  if (isSofter(question, b.value) && engineer === null)
    throw new Problem(
      422,
      'engineer-missing',
      'This is softer than without an answer: name the engineer who stands for it.',
      'engineer',
    )
  const changed = placeDefinition.safeParse({ ...document, policy: withAnswer(document.policy, b.policy, b.value) })
  if (!changed.success)
    throw new Problem(422, 'not-allowed', changed.error.issues[0]?.message ?? 'A site may not set it so.', 'value')
  const revision = await revisePlace(tx, stands, changed.data)
  const { policy, value, why } = b
  await tx.journal('policy-set', document.id, { revision, policy, from: was, to: value, why, engineer })
  return readPolicies(tx, id)
}
