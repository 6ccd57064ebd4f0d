import { describe, expect, it } from 'vitest'
import { type Assessment, assess, checks, nearestRemedies } from '../src'
import { caseOf, works } from './truck-jobs'

describe.each(works)('the work of $machine', (work) => {
  it.each(work.jobs)('$name, $kg kg: $verdict by $check', (job) => {
    const c = caseOf(work, job)
    const a = assess(c)
    const told = a.findings.map((f) => `${f.id} ${f.verdict} ${f.reason} ${f.utilisation?.toFixed(3)}`).join('\n')
    const named = a.findings
      .filter((f) => f.check === job.check)
      .reduce((x, y) => ((y.utilisation ?? 0) > (x.utilisation ?? 0) ? y : x))
    expect(a.verdict, told).toBe(job.verdict)
    if (job.verdict === 'inside') expect(a.governing?.utilisation ?? 0, told).toBeLessThan(0.9)
    else expect(a.governing?.check, told).toBe(job.check)
    if (job.share !== undefined) expect(named.utilisation, told).toBeCloseTo(job.share, 2)
    if (!job.change || !a.governing) return
    const offered = nearestRemedies(c, a.governing, { mats: [], canStand: () => false })
    const own = offered.find((r) => r.change.kind === job.change?.kind)
    expect(own?.assessment?.verdict, JSON.stringify(offered.map((r) => r.change))).toBe(job.change.verdict)
  })
  it('switching any check off never betters a verdict', () => {
    const rank = { inside: 0, near: 1, 'not-proven': 2, outside: 3 }
    for (const job of work.jobs) {
      const c = caseOf(work, job)
      const was = assess(c)
      for (const off of checks) {
        if (!was.findings.some((f) => f.check === off.id)) continue
        const { verdict } = assess(c, { checks: checks.filter((x) => x !== off) })
        expect(Math.max(rank[verdict], 0), off.id).toBeGreaterThanOrEqual(was.verdict === 'outside' ? 2 : rank[was.verdict])
      }
    }
  })
})

describe('what a floor carries', () => {
  const work = works.find((w) => w.machine === 'whimbrel')
  const job = work?.jobs[0]
  if (!work || !job) throw new Error('no work')
  const c = caseOf(work, { ...job, stack_m: undefined })
  const [drive] = c.lift.steps
  if (drive?.do !== 'drive') throw new Error('no way')
  const [piece] = drive.way
  if (!piece?.floor) throw new Error('no floor')
  const over = (floor: object, laden: boolean, part: object = {}) =>
    assess({
      ...c,
      lift: {
        ...c.lift,
        steps: [{ ...drive, laden, way: [{ ...piece, ...part, floor: { ...piece.floor, ...floor } as typeof piece.floor }] }],
      },
    }).findings
  const of = (findings: Assessment['findings'], end: string) =>
    findings.find((f) => f.check === 'floor' && f.subject?.endsWith(end))
  it('is asked of both axles: driven empty the rear one is the heavier', () => {
    const empty = over({}, false)
    const [front, rear] = [of(empty, '-front'), of(empty, '-rear')]
    expect(rear?.measured).toBeGreaterThan(front?.measured ?? Infinity)
    // A floor that takes the front axle empty and not the rear one.
    const between = ((rear?.measured ?? 0) + (front?.measured ?? 0)) / 2
    expect(of(over({ axle_N: between }, false), '-rear')?.verdict).toBe('outside')
    expect(of(over({ axle_N: between }, false), '-front')?.verdict).not.toBe('outside')
  })
  it('is asked of all of it where a plate says so, whoever stands on it', () => {
    const total = of(over({ total_N: 1e6 }, true), '-total')?.measured ?? 0
    const empty = over({}, false)
    const truck_N = (of(empty, '-front')?.measured ?? 0) + (of(empty, '-rear')?.measured ?? 0)
    expect(total).toBeGreaterThan(truck_N)
    expect(of(over({ total_N: total * 0.99 }, true), '-total')?.verdict).toBe('outside')
  })
  it('a wheel has a factor on a floor and none on a plate', () => {
    const wheel = (kind: string) => of(over({}, true, { kind }), '-front-wheel')?.measured ?? 0
    expect(wheel('straight') / wheel('leveller')).toBeCloseTo(c.machine.truck?.chassis?.floorFactor ?? 0, 9)
  })
  it('a turn without a radius is not proven', () => {
    const findings = over({}, true, { kind: 'turn', radius_m: undefined })
    expect(findings.find((f) => f.check === 'way')?.reason).toBe('no-radius')
  })
})

describe('a truck', () => {
  it.each(works)('$machine stands on its wheels and nowhere else', (work) => {
    const [job] = work.jobs
    if (!job) throw new RangeError('no job')
    const c = caseOf(work, job)
    for (const standing of [
      { on: 'runway', beam: 'wsh-1' },
      { on: 'outriggers', outriggers: [], wheels: 'clear' },
    ] as unknown as (typeof c.setup.standing)[])
      expect(() => assess({ ...c, setup: { ...c.setup, standing } })).toThrow(/stands on its wheels/)
  })
})
