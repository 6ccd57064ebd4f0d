import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { leastInner, recovery, unfoldClearanceCalculator } from '../src'
import { runs } from './runs'

const heron = {
  inner_m: 2.9,
  outer_m: 3,
  halfDepth_m: 0.25,
  pivot: { back_m: 0.1, height_m: 2.6 },
  margin_m: 0.3,
  boxes: [{ x0_m: -20, x1_m: 20, top_m: 1.3 }],
  foldFrom_deg: 165,
  foldTo_deg: 60,
  maxAngle_deg: 80,
}
const flat = (top_m: number, more = heron) => ({ ...more, boxes: [{ x0_m: -20, x1_m: 20, top_m }] })
const between = (min: number, max: number) => fc.double({ min, max, noNaN: true })

describe('unfolding over what lies under it', () => {
  it('is the golden case, and none over high goods', () => {
    expect(leastInner(heron).leastInner_deg).toBeCloseTo(50.88, 1)
    expect(Math.abs((leastInner(heron).leastInner_deg ?? 0) - 50.883)).toBeLessThan(0.02)
    expect(leastInner(flat(2.4)).leastInner_deg).toBeNull()
    expect(leastInner(flat(2.4)).touches?.box).toBe(0)
  })
  it('over flat ground is the closed form: sin α = (top + margin + d + outer − pivot)/inner', () => {
    fc.assert(
      fc.property(between(0.2, 1.9), between(0, 0.5), (top_m, margin_m) => {
        const sine = (top_m + margin_m + 0.25 + 3 - 2.6) / 2.9
        const angle = (Math.asin(Math.min(1, sine)) * 180) / Math.PI
        // Only where the outer hangs straight down on its way.
        fc.pre(sine < Math.sin((75 * Math.PI) / 180) && angle + 90 < 165 && angle + 90 > 60)
        const found = leastInner(flat(top_m, { ...heron, margin_m })).leastInner_deg ?? 90
        expect(found).toBeGreaterThanOrEqual(angle - 1e-6)
        expect(found).toBeLessThan(angle + 0.02)
      }),
      { numRuns: runs(1000, 25) },
    )
  })
  it('clears at every greater angle, looked at by brute force', () => {
    const box = fc.record({ x0_m: between(-3, 2), wide_m: between(0.3, 4), top_m: between(0, 2.5) })
    fc.assert(
      fc.property(fc.array(box, { minLength: 1, maxLength: 3 }), (all) => {
        const boxes = all.map((b) => ({ x0_m: b.x0_m, x1_m: b.x0_m + b.wide_m, top_m: b.top_m }))
        const { leastInner_deg } = leastInner({ ...heron, boxes })
        if (leastInner_deg === null) return
        let least = Infinity
        for (let a = leastInner_deg; a <= heron.maxAngle_deg; a += 1.7)
          for (let f = 60; f <= 165; f += 1.3) {
            const r = (d: number) => (d * Math.PI) / 180
            const elbow = [2.9 * Math.cos(r(a)) - 0.1, 2.6 + 2.9 * Math.sin(r(a))]
            for (let t = 0; t <= 1; t += 0.05) {
              const x = (elbow[0] ?? 0) + 3 * t * Math.cos(r(a - f))
              const z = (elbow[1] ?? 0) + 3 * t * Math.sin(r(a - f))
              for (const b of boxes)
                least = Math.min(least, Math.hypot(Math.max(0, b.x0_m - x, x - b.x1_m), Math.max(0, z - b.top_m)))
            }
          }
        expect(least).toBeGreaterThan(0.55 - 1e-6)
      }),
      { numRuns: runs(200, 10) },
    )
  })
  it('comes to an end whatever it is given', () => {
    for (const huge of [1e200, 1.7e308])
      for (const field of [{ inner_m: huge, outer_m: huge }, { pivot: { back_m: -huge, height_m: huge } }, { margin_m: huge }]) {
        const { leastInner_deg } = leastInner({ ...heron, ...field })
        expect(leastInner_deg === null || (leastInner_deg >= 0 && leastInner_deg <= 80)).toBe(true)
      }
  })
  it('says which field cannot be', () => {
    expect(unfoldClearanceCalculator.run({ ...heron, boxes: [{ x0_m: 3, x1_m: 1, top_m: 1 }] })).toMatchObject({
      error: { path: 'boxes.0.x1_m' },
    })
  })
})

describe('what is lifted behind a truck', () => {
  it('fills the rear axle before the front one is too light: the wheel-lift of the golden case', () => {
    const kg = 9.80665
    const plover = { frontAxle_N: 7542.093 * kg, overhang_m: 2.6, wheelbase_m: 4.3, least_share: 0.6 }
    const rear = { rearAxle_N: 9207.907 * kg, rearLimit_N: 13_000 * kg }
    expect(recovery({ ...plover, pull_N: 0 }).greatestPull_N / kg).toBeCloseTo(4989.4, 0)
    const both = recovery({ ...plover, ...rear, pull_N: 2500 * kg })
    expect(both.greatestPull_N / kg).toBeCloseTo(2363.19, 1)
    expect([both.ok, both.rearUse]).toEqual([false, expect.closeTo(1.017, 3)])
    expect(recovery({ ...plover, ...rear, pull_N: 2000 * kg }).ok).toBe(true)
  })
})
