import { describe, expect, it } from 'vitest'
import { assess, nearestRemedies, supportChoice } from '../src'
import { caseOf, everythingConfirmed, type Job, works, worksBy } from './jobs'

describe.each(works)('the work of $machine', (work) => {
  it.each(work.jobs)('$name, $load.mass_kg kg at $radius_m m: $verdict by $check', (job) => {
    const c = caseOf(work, job)
    const a = assess(c)
    const named = a.findings
      .filter((f) => f.check === job.check)
      .reduce((x, y) => ((y.utilisation ?? 0) > (x.utilisation ?? 0) ? y : x))
    // In inside rows another check may read more, never near.
    if (job.verdict === 'inside') expect(a.governing?.utilisation ?? 0).toBeLessThan(0.9)
    else expect(a.governing?.check).toBe(job.check)
    if (job.share !== undefined) expect(named.utilisation).toBeCloseTo(job.share, 3)
    if (!job.change || !a.governing) return
    const { kind, verdict, share } = job.change
    const offered = nearestRemedies(c, a.governing, { mats: c.place.mats, canStand: () => true }).find(
      (r) => r.change.kind === kind,
    )
    expect(offered, kind).toBeDefined()
    if (!offered?.changedCase) return
    // Taken, it is what it says; what another way of standing needs is confirmed when the machine stands so.
    const taken = assess(everythingConfirmed({ ...c, ...offered.changedCase }))
    expect(taken.verdict).toBe(verdict)
    const there = taken.findings.find((f) => f.id === named.id)?.utilisation ?? 1
    if (share !== undefined) expect(there).toBeLessThanOrEqual(share + 1e-3)
  })
})

describe('which way of standing a lift needs', () => {
  const petrel = worksBy('petrel')
  const [car, van, lorry] = petrel.jobs as [Job, Job, Job]
  const means = { mats: [], canStand: () => true }
  const least = (job: Job, kg: number) =>
    supportChoice(caseOf(petrel, { ...job, load: { ...job.load, mass_kg: kg } }), means).find((o) => o.least)?.id ?? null
  it('is the least whose own table takes it along the whole way', () => {
    expect(least(car, 2300)).toBe('wheels')
    expect(least({ ...car, state: 'legs' }, 2300)).toBe('wheels')
    expect(least({ ...van, boom_m: 9.5, radius_m: 7 }, 4000)).toBe('legs')
    expect(least(lorry, 16_000)).toBe('braces')
    expect(least(lorry, 18_500)).toBeNull()
  })
  it('says what each rates', () => {
    const each = supportChoice(caseOf(petrel, { ...van, boom_m: 9.5, radius_m: 7, load: { mass_kg: 4000 } }), means)
    expect(each.map((o) => [o.id, o.rated_kg])).toEqual([
      ['wheels', 3100],
      ['legs', 9400],
      ['braces', 12_800],
      // At 7 m it has no row, and props stand still.
      ['props', null],
    ])
    expect(each[0]?.use).toBeCloseTo(1.348, 2)
    expect(each[1]?.use).toBeCloseTo(0.445, 2)
  })
})
