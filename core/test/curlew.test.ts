import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { assess, nearestRemedies } from '../src'
import { LiftContext } from '../src/check/context'
import { curlew, curlewCase, type RotatingJob } from './curlew-case'
import { judgedBy } from './demo'
import { runs } from './runs'

const judged = (job: RotatingJob) => judgedBy(curlewCase(job))
const tips = (stops: RotatingJob['stops'], from_deg: number, to_deg: number) => {
  const step = { boom_m: 11, pickUp: { radius_m: 10, slew_deg: from_deg }, setDown: { radius_m: 10, slew_deg: to_deg } }
  const [stand] = new LiftContext(curlewCase({ kg: 1000, stops, step, wind: 0 })).stands
  return stand?.tipping() ?? null
}
const right = { FR: 'intermediate', RR: 'intermediate' }

describe('a rotating telehandler', () => {
  it('tips by its shortest legs all round, and by its long ones over the side that they stand on', () => {
    expect(tips({}, 0, 359.9)?.tipping_kg).toBeCloseTo(5187.9739, 3)
    const short = tips(right, 0, 359.9)
    expect(short?.tipping_kg).toBeCloseTo(2851.5476, 3)
    expect(short?.slew_deg).toBeCloseTo(270, 1)
    expect(tips(right, 20, 160)?.tipping_kg).toBeCloseTo(5187.9739, 3)
  })
  it('reads its jobs by height and reach, and a shorter reach brings it inside', () => {
    const inside = assess(curlewCase({ kg: 2300 }))
    expect([inside.verdict, (inside.governing?.utilisation ?? 1) < 0.9]).toEqual(['inside', true])
    expect(inside.findings.find((f) => f.check === 'rating')?.utilisation).toBeCloseTo(2325 / 3550, 9)
    expect(judged({ kg: 3200 })).toEqual(['near', 'rating', 0.908])
    expect(judged({ kg: 3600 })).toEqual(['outside', 'rating', 1.021])
    expect(judged({ kg: 2300, shown: undefined }).slice(0, 2)).toEqual(['not-proven', 'selection'])
    expect(judged({ kg: 2300, shown: 'forks' }).slice(0, 2)).toEqual(['outside', 'selection'])
    const c = curlewCase({ kg: 3600 })
    const { governing } = assess(c)
    const changes = governing ? nearestRemedies(c, governing, { mats: [], canStand: () => true }) : []
    const nearer = changes.find((x) => x.change.kind === 'radius')
    expect(nearer?.change).toMatchObject({ radius_m: 8 })
    // At eight metres its bearing on the grid ends: turned fast it stands out of it, so that the whole is near.
    expect(nearer?.assessment?.findings.find((f) => f.check === 'rating')?.utilisation).toBeCloseTo(3625 / 4950, 9)
    expect(nearer?.assessment?.verdict).toBe('near')
  })
  it('weighs its tool at the boom’s end, in the whole proof as in the working area', () => {
    const limit = (tool: string) => {
      const c = curlewCase({ kg: 400, tool, rigging_kg: 0 })
      return assess(c).findings.find((f) => f.check === 'overturning')?.limit ?? 0
    }
    // The basket weighs 540 kg more than the hook: as much less, by its rule, is left.
    expect((limit('hook') - limit('basket')) / 0.7).toBeCloseTo(540, 0)
  })
  it('has a table for legs half out, and one over its long legs', () => {
    const at = (slew_deg: number, stops: RotatingJob['stops']) =>
      assess(
        curlewCase({
          kg: 900,
          stops,
          step: { boom_m: 11, pickUp: { radius_m: 10, slew_deg }, setDown: { radius_m: 10, slew_deg: slew_deg + 20 } },
        }),
      )
    expect(at(80, right).configuration?.id).toBe('hook-left')
    expect(at(250, right).configuration?.id).toBe('hook-narrow')
    expect(at(250, right).rated_kg ?? 0).toBeLessThan(at(80, right).rated_kg ?? 0)
    expect(at(80, { FL: 'retracted' }).verdict).toBe('outside')
  })
  it('carries people in its basket only, weighed with what they carry', () => {
    const persons = [{ mass_kg: { value: 88, tolerance: 4 } }, { mass_kg: { value: 79, tolerance: 4 } }]
    const basket = { tool: 'basket', persons, rigging_kg: 0, step: { boom_m: 10 } }
    const c = curlewCase({ kg: 50, ...basket })
    const rated = assess(c).findings.find((f) => f.check === 'rating')
    expect(rated?.measured).toBe(225)
    expect(rated?.utilisation).toBeCloseTo(225 / 700, 9)
    const aloft = (job: RotatingJob) => assess(curlewCase(job)).findings.find((f) => f.check === 'aloft')?.verdict
    expect(aloft({ kg: 50, ...basket })).toBe('inside')
    expect(aloft({ kg: 50, ...basket, persons: [...persons, ...persons] })).toBe('outside')
    expect(aloft({ kg: 50, persons })).toBe('outside')
  })
  it('is not proven, or refused, with anything left out', () => {
    for (const e of curlew.evidence)
      if (e.id !== 'bubble') expect(judged({ kg: 2300, without: [e.id] }).slice(0, 2)).toEqual(['not-proven', 'evidence'])
    expect(judged({ kg: null })[0]).toBe('not-proven')
    expect(() => assess(curlewCase({ kg: 900, tool: 'bucket' }))).toThrow('forks, hook, basket')
  })
  it('is never rated more with its legs further in', () => {
    const some = (min: number, max: number) => fc.double({ min, max, noNaN: true })
    const half = { FL: 'intermediate', FR: 'intermediate', RL: 'intermediate', RR: 'intermediate' }
    fc.assert(
      fc.property(some(6, 16), some(0.3, 0.95), some(0, 359), (boom_m, share, slew_deg) => {
        const radius_m = Math.max(3.2, boom_m * share)
        const point = { radius_m, slew_deg }
        const rated = (stops: RotatingJob['stops']) =>
          assess(curlewCase({ kg: 300, ...(stops && { stops }), step: { boom_m, pickUp: point, setDown: point } })).rated_kg ?? 0
        expect(rated(half)).toBeLessThanOrEqual(rated(undefined))
      }),
      { numRuns: runs(300, 60) },
    )
  })
})
