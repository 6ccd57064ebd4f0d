import { readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { type Assessment, assessCase, type Case, conditions, doubtOf, liftPlan, nearestChanges, setupPlan } from '../src'
import { northQuay, tern, ternTable } from './demo'

/**
 * A thousand lifts of Tern, drawn once at random in November 2026 and kept with what was answered then (`fixture/`, never made
 * anew). Whatever is rebuilt under them has to answer the same to 1e-9; what is meant to differ is listed here with its reason.
 */
interface Kept {
  setup: Omit<Case['setup'], 'legs'> & { legs: { mat: string | null; ground: string | null }[] }
  lift: unknown
  wind_mps: unknown
  policy: Partial<Case['policy']>
  gives: Gives
}
interface Gives {
  verdict: string
  governing: string | null
  findings: [string, ...unknown[]][]
  doubt?: unknown
  changes?: unknown
  [other: string]: unknown
}
const kept = readFileSync(new URL('./fixture/tern-cases.jsonl', import.meta.url), 'utf8')
  .trimEnd()
  .split('\n')
  .map((line): Kept => JSON.parse(line))

/** Today's case from the kept one. */
function caseOf(k: Kept): Case {
  const named = <T extends { id: string }>(list: readonly T[], id: string | null) => list.find((x) => x.id === id) ?? null
  const legs = k.setup.legs.map((l) => ({ ...l, mat: named(northQuay.mats, l.mat), ground: named(northQuay.ground, l.ground) }))
  return {
    machine: tern,
    tables: [ternTable],
    setup: setupPlan.parse({ ...k.setup, legs }),
    lift: liftPlan.parse(k.lift),
    conditions: conditions.parse({ wind_mps: k.wind_mps }),
    policy: { ...northQuay.policy, ...k.policy },
  }
}

/** Names and sources are data of the demo; what was computed is kept. */
const said = new Set(['label', 'ground', 'source', 'table'])
const detailOf = (detail: object) => Object.fromEntries(Object.entries(detail).filter(([key]) => !said.has(key)))
const findingOf = (f: Assessment['findings'][number]): [string, ...unknown[]] => [
  f.id,
  f.verdict,
  f.reason,
  f.measured,
  f.nominal,
  f.limit,
  f.utilisation,
  f.at ? [f.at.radius_m, f.at.slew_deg] : null,
  detailOf(f.detail),
]

/** What is answered now, in the form it was kept in. */
function nowOf(c: Case, like: Gives): Gives {
  const a = assessCase(c)
  const means = { mats: northQuay.mats, canStand: () => true }
  return {
    verdict: a.verdict,
    governing: a.governing?.id ?? null,
    findings: a.findings.map(findingOf),
    configuration: a.configuration?.id ?? null,
    rated_kg: a.rated_kg,
    ratedAt: a.ratedAt && [a.ratedAt.pick_kg, a.ratedAt.set_kg],
    readFrom: a.readFrom.map((r) => [r.boom_m, r.radius_m, r.rating_kg]),
    onHook_kg: a.onHook_kg,
    legs: a.legs.map((l) => Object.values(l)),
    windLimit_mps: a.windLimit_mps,
    tip: a.tip && Object.values(a.tip),
    ...('doubt' in like ? { doubt: doubtOf(c) } : {}),
    ...('changes' in like && a.governing
      ? { changes: nearestChanges(c, a.governing, means).map((n) => [n.change, n.assessment?.verdict ?? null]) }
      : {}),
  }
}

/** Where two answers differ by more than 1e-9 of the figure, as paths. */
function differing(was: unknown, now: unknown, path = ''): string[] {
  if (typeof was === 'number' && typeof now === 'number') {
    return Math.abs(was - now) <= 1e-9 * Math.max(1, Math.abs(was)) ? [] : [`${path}: ${was} was, ${now} is`]
  }
  if (typeof was !== 'object' || typeof now !== 'object' || was === null || now === null) {
    return Object.is(was, now) ? [] : [`${path}: ${JSON.stringify(was)} was, ${JSON.stringify(now)} is`]
  }
  const keys = new Set([...Object.keys(was), ...Object.keys(now)])
  const at = (o: object, key: string) => (o as Record<string, unknown>)[key]
  return [...keys].flatMap((key) => differing(at(was, key), at(now, key), `${path}.${key}`))
}

describe('a thousand lifts of Tern', () => {
  it('hold every verdict, and answers that were worth keeping', () => {
    expect(kept).toHaveLength(1000)
    const of = (verdict: string) => kept.filter((k) => k.gives.verdict === verdict).length
    for (const verdict of ['inside', 'near', 'outside', 'not-proven']) expect(of(verdict)).toBeGreaterThan(100)
    expect(kept.flatMap((k) => k.gives.findings).length).toBeGreaterThan(10_000)
  })
  it.each(Array.from({ length: 10 }, (_, i) => i * 100))('are answered as they were, from number %i on', (from) => {
    const differ = kept.slice(from, from + 100).flatMap((k, i) => {
      const paths = differing(k.gives, nowOf(caseOf(k), k.gives))
      return paths.length > 0 ? [`case ${from + i}: ${paths.slice(0, 4).join('; ')}`] : []
    })
    expect(differ).toEqual([])
  })
})
