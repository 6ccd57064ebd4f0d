import { answerIn, isSofter, policyQuestions, usualPolicy, withAnswer } from '@geolabe/core'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { type Running, start } from './helper'

let app: Running
beforeAll(async () => {
  app = await start()
})
afterAll(() => app.stop())

const path = '/places/boatyard/policies'
interface Answers {
  answers: {
    policy: string
    value: number | string
    set: { by: { name: string }; why: string; engineer: string | null } | null
  }[]
}
const own = (body: Answers, policy: string) => body.answers.find((a) => a.policy === policy)

describe('where practice differs', () => {
  it('every question has an answer without one, in words that say why, and the hardest answer is never softer', () => {
    expect(new Set(policyQuestions.map((q) => q.id)).size).toBe(policyQuestions.length)
    for (const q of policyQuestions) {
      const usual = answerIn(usualPolicy, q.id)
      expect(isSofter(q, usual), q.id).toBe(false)
      expect(q.why.length, q.id).toBeGreaterThan(20)
      expect(answerIn(withAnswer(usualPolicy, q.id, usual) as typeof usualPolicy, q.id)).toBe(usual)
      if ('choices' in q.answer) expect(isSofter(q, q.answer.choices[0]?.value ?? ''), q.id).toBe(false)
    }
  })
  it('is answered by the person in charge, with who, when and why, in the journal, and in force', async () => {
    const [wil, ines] = [await app.as('Wilhelmina Osei'), await app.as('Ines Haldane')]
    const before = own((await ines.get(path)).body, 'trucks.stabilityShare')
    expect(before).toMatchObject({ value: 0.5, set: null })
    const set = { policy: 'trucks.stabilityShare', value: 0.4, why: 'The slip is wet most of the year.' }
    expect((await ines.post(path, set)).status).toBe(403)
    const done = await wil.post(path, set)
    expect(done.status).toBe(200)
    expect(own(done.body, set.policy)).toMatchObject({
      value: 0.4,
      set: { by: { name: 'Wilhelmina Osei' }, why: set.why, engineer: null },
    })
    const places = (await ines.get('/places')).body.places as { id: string; policy: { trucks: { stabilityShare: number } } }[]
    expect(places.find((p) => p.id === 'boatyard')?.policy.trucks.stabilityShare).toBe(0.4)
    const told = await app.owner.query("select body from journal where kind = 'policy-set' and subject = 'boatyard'")
    expect(told.rows).toHaveLength(1)
    expect(told.rows[0]?.body).toMatchObject({ policy: set.policy, from: 0.5, to: 0.4, why: set.why })
  })
  it('is softer only where an engineer stands for it, and never beyond what any site may', async () => {
    const wil = await app.as('Wilhelmina Osei')
    const soft = { policy: 'dynamicFactor', value: 1, why: 'Loads here are set on air cushions.' }
    const refused = await wil.post(path, soft)
    expect([refused.status, refused.body.error.path]).toEqual([422, 'engineer'])
    expect((await wil.post(path, { ...soft, engineer: 'Calder, harbour trust' })).status).toBe(200)
    for (const [policy, value] of [
      ['trucks.friction.ice', 0.3],
      ['near_share', 0.99],
      ['readingRule', 'average'],
      ['thingGap_m', 'wide'],
    ] as const) {
      const r = await wil.post(path, { policy, value, why: 'Why not.', engineer: 'Calder' })
      expect([r.status, r.body.error.path], policy).toEqual([422, 'value'])
    }
    expect((await wil.post(path, { policy: '__proto__', value: 1, why: 'Nonsense.' })).status).toBe(422)
    expect((await wil.post(path, { policy: 'near_share', value: 0.8, why: '' })).status).toBe(422)
  })
  it('of many set at once none is lost unsaid', async () => {
    const wil = await app.as('Wilhelmina Osei')
    const at = '/places/ice-store/policies'
    const harder = policyQuestions.flatMap(({ id: policy, answer }, i) => {
      if ('choices' in answer) return []
      const value = Number(answerIn(usualPolicy, policy)) * (answer.harder === 'less' ? 0.9 : 1.1)
      return [{ policy, value, why: `Reason ${i}.` }]
    })
    const answers = await Promise.all(harder.map((b) => wil.post(at, b)))
    const done = harder.filter((_, i) => answers[i]?.status === 200)
    for (const a of answers) expect([200, 409]).toContain(a.status)
    const now = (await wil.get(at)).body as Answers
    for (const d of done) expect(own(now, d.policy)).toMatchObject({ value: d.value, set: { why: d.why } })
    const kept = await app.owner.query("select count(*)::int as n from place_revision where id = 'ice-store'")
    const told = await app.owner.query(
      "select count(*)::int as n from journal where kind = 'policy-set' and subject = 'ice-store'",
    )
    expect(told.rows[0]?.n).toBe(done.length)
    expect(kept.rows[0]?.n).toBe(done.length + 1)
  })
  it('is nobody’s in another organisation', async () => {
    const aud = await app.as('Aud Lindqvane')
    expect((await aud.get(path)).status).toBe(404)
  })
})
