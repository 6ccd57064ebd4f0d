import { describe, expect, it } from 'vitest'
import { assess, type Case } from '../src'
import { caseOf, works } from './truck-jobs'

const loaded = (machine: string, tiers_m: Case['lift']['hung']['load']['tiers_m']): Case => {
  const work = works.find((w) => w.machine === machine)
  const job = work?.jobs[0]
  if (!work || !job) throw new RangeError(`${machine} has no job`)
  return caseOf(work, {
    ...job,
    hung: { ...job.hung, load: { ...caseOf(work, job).lift.hung.load, ...(tiers_m && { tiers_m }) } },
  })
}
const guard = (machine: string, tiers_m?: Case['lift']['hung']['load']['tiers_m']) =>
  assess(loaded(machine, tiers_m)).findings.filter((f) => f.check === 'guard')

describe('a load guard', () => {
  // Puffin's stands 1.22 m over the forks.
  it('stands as high as the middle of the topmost loose tier, each tier at the worse end of its height', () => {
    expect(guard('puffin', [0.4, 0.4, 0.4])[0]).toMatchObject({ verdict: 'inside', measured: expect.closeTo(1, 9), limit: 1.22 })
    expect(guard('puffin', [0.4, 0.4, 0.6])[0]).toMatchObject({ verdict: 'near' })
    expect(guard('puffin', [0.4, 0.4, 0.4, 0.4])[0]).toMatchObject({ verdict: 'outside' })
    expect(guard('puffin', [0.5, { value: 0.5, tolerance: 0.1 }, 0.4])[0]?.measured).toBeCloseTo(1.3, 9)
  })
  it('is not asked of what is wrapped, and not proven where nobody has measured it', () => {
    expect(guard('puffin')).toEqual([])
    expect(guard('whimbrel', [0.4, 0.4])[0]).toMatchObject({ verdict: 'not-proven', reason: 'no-figure' })
  })
})
