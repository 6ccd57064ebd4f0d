import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  assess,
  boomPropsCalculator,
  capacityMap,
  checks,
  mapOfCase,
  onProps,
  supportChoice,
  telescopicBoom,
  useAt,
} from '../src'
import { caseOf, everythingConfirmed, worksBy } from './jobs'
import { runs } from './runs'

const petrel = worksBy('petrel')
const tractor = (kg: number, more = {}) => {
  const job = petrel.jobs.find((j) => j.name === 'tractor')
  if (!job) throw new Error('no tractor')
  // Block and slings hang with it.
  return caseOf(petrel, { ...job, propsOnUnknown: undefined, load: { mass_kg: kg - 180 }, ...more })
}
const found = (c: ReturnType<typeof tractor>, id: string) => assess(c).findings.find((f) => f.id === id)
const { boom } = tractor(14_000).machine
if (!boom) throw new Error('no boom')
const back_m = boom.pivot.back_m
const angle_deg = telescopicBoom(boom).poseAtRadius(9.5, 6).angle_deg
const masses = telescopicBoom(boom).massesAt(9.5, angle_deg)

describe('a boom on its props', () => {
  it('bears on them with more than its load, and pulls its foot up: the golden case', () => {
    const on = onProps({ mass_kg: 14_000, radius_m: 6 }, masses, 4.5, back_m)
    expect(on.pair_kg).toBeCloseTo(20_213, 0)
    expect(on.foot_kg).toBeCloseTo(-1413, 0)
  })
  it('is a lever: what it and its foot carry adds up, and its moments too', () => {
    const figure = fc.double({ min: 0.5, max: 12, noNaN: true })
    fc.assert(
      fc.property(fc.double({ min: 0, max: 2e4, noNaN: true }), figure, figure, figure, (mass_kg, radius_m, at_m, back) => {
        const { pair_kg, foot_kg } = onProps({ mass_kg, radius_m }, masses, at_m, back)
        const all = [{ mass_kg, radius_m }, ...masses]
        expect(pair_kg + foot_kg).toBeCloseTo(
          all.reduce((s, m) => s + m.mass_kg, 0),
          6,
        )
        // About the props, whatever is not looked at twice.
        expect(foot_kg * (at_m + back)).toBeCloseTo(
          all.reduce((s, m) => s + m.mass_kg * (at_m - m.radius_m), 0),
          3,
        )
      }),
      { numRuns: runs(20_000, 200) },
    )
  })
  it('shows on each prop, on its ground and on the foot', () => {
    const c = tractor(14_000)
    const [left, right] = ['outrigger:PL', 'outrigger:PR'].map((id) => found(c, id)?.measured ?? 0)
    const dynamic = c.policy.dynamicFactor
    const { pair_kg, foot_kg } = onProps({ mass_kg: 14_000 * dynamic, radius_m: 6 }, masses, 4.5, back_m)
    // A little more for the wind, which carries the load outwards.
    expect((left ?? 0) / ((pair_kg / 2) * 9.80665)).toBeCloseTo(1, 3)
    expect(left).toBeGreaterThanOrEqual((pair_kg / 2) * 9.80665)
    expect(right).toBe(left)
    expect((found(c, 'structure:foot')?.measured ?? 0) / (-foot_kg * 9.80665)).toBeCloseTo(1, 2)
    expect(found(c, 'ground:PL')?.verdict).toBeDefined()
    // Nothing of the load is on the outriggers: the frame is lighter by what its foot is pulled up with.
    const all = ['FL', 'FR', 'RL', 'RR'].reduce((s, id) => s + (assess(c).outriggers.find((o) => o.id === id)?.max_N ?? 0), 0)
    expect(all).toBeGreaterThan((21_500 + 5200 + 1500 + foot_kg) * 9.80665)
  })
  it('is lifted in where braces no longer do, and is not proven where what the props stand on is not known', () => {
    const c = tractor(16_500)
    const means = { mats: c.place.mats, canStand: () => true }
    const options = supportChoice(c, means)
    expect(options.map((o) => o.id)).toEqual(['wheels', 'legs', 'braces', 'props'])
    expect(options.find((o) => o.least)?.id).toBe('props')
    // At 5 m, 18,500 kg: none.
    expect(supportChoice(tractor(18_500, { radius_m: 5 }), means).some((o) => o.least)).toBe(false)
  })
  it('goes straight up and down, with its own boom', () => {
    expect(found(tractor(14_000), 'motion')?.verdict).toBe('inside')
    expect(found(tractor(12_000, { slew_deg: [179, 180] }), 'motion')?.verdict).toBe('outside')
    expect(found(tractor(12_000, { boom_m: 12 }), 'motion')?.verdict).toBe('outside')
    const c = tractor(12_000)
    const [step] = c.lift.steps
    if (step?.do !== 'slew') throw new Error('no slew')
    const luffed = { ...c, lift: { ...c.lift, steps: [{ ...step, setDown: { ...step.setDown, radius_m: 5.5 } }] } }
    expect(assess(luffed).findings.find((f) => f.id === 'motion')?.reason).toBe('up-and-down')
  })
  it('passes with everything confirmed and known, and never with a check switched off', () => {
    const c = everythingConfirmed(tractor(12_000))
    expect(['inside', 'near']).toContain(assess(c).verdict)
    for (const off of ['structure', 'motion', 'outrigger', 'ground', 'rating', 'overturning', 'evidence'])
      expect(['not-proven', 'outside'], off).toContain(assess(c, { checks: checks.filter((x) => x.id !== off) }).verdict)
  })
  it('has no working area', () => {
    const input = mapOfCase(tractor(5000), [5, 6], [179, 180, 181])
    if (!input) throw new Error('no map')
    const map = capacityMap(input)
    for (let i = 0; i < 6; i++) expect(useAt(map, i)).toBeGreaterThan(1)
  })
  it('is no better with more on it', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1000, max: 16_000 }), fc.integer({ min: 1, max: 3000 }), (kg, more) => {
        for (const id of ['outrigger:PL', 'structure:foot', 'rating'])
          expect(found(tractor(kg + more), id)?.utilisation ?? 0).toBeGreaterThanOrEqual(found(tractor(kg), id)?.utilisation ?? 0)
      }),
      { numRuns: runs(300, 25) },
    )
  })
})

describe('what props carry, as a calculator', () => {
  const figure = fc.record({
    hook_kg: fc.double({ min: 0, max: 2e4, noNaN: true }),
    radius_m: fc.double({ min: 4.6, max: 9, noNaN: true }),
    props_m: fc.double({ min: 2, max: 5, noNaN: true }),
    back_m: fc.double({ min: 0, max: 2, noNaN: true }),
  })
  const own = masses.map(({ mass_kg, radius_m }) => ({ mass_kg, radius_m }))
  const sum = (asked: { hook_kg: number; radius_m: number; props_m: number; back_m: number }) =>
    boomPropsCalculator.output.parse(
      boomPropsCalculator.run({ ...asked, boom: own, dynamicFactor: 1.1, prop_N: 135_000, footPull_N: 30_000 }),
    )
  it('is what the proof of such a lift finds', () => {
    const c = tractor(14_000)
    const still = sum({ hook_kg: 14_000, radius_m: 6, props_m: 4.5, back_m })
    expect((found(c, 'outrigger:PL')?.measured ?? 0) / still.each_N).toBeCloseTo(1, 3)
    expect((found(c, 'structure:foot')?.measured ?? 0) / -still.foot_N).toBeCloseTo(1, 2)
  })
  it('lifts at most what brings the first of both just to its limit', () => {
    fc.assert(
      fc.property(figure, (asked) => {
        const { most_kg } = sum(asked)
        const at = sum({ ...asked, hook_kg: most_kg })
        const most = Math.max(at.propUse ?? 0, at.footUse ?? 0)
        if (most_kg > 0) expect(most).toBeCloseTo(1, 6)
        else expect(most).toBeGreaterThanOrEqual(1 - 1e-9)
      }),
      { numRuns: runs(5000, 200) },
    )
  })
})
