import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { boomLimitsCalculator } from '../src'
import { runs } from './runs'

const m = (from: number, to: number) => fc.double({ min: from, max: to, noNaN: true })
const run = (input: object) => boomLimitsCalculator.output.parse(boomLimitsCalculator.run(input))

describe('limits under a ceiling', () => {
  it('touch what is kept at the angle that they give, pass it above, and stay under it with any shorter boom', () => {
    fc.assert(
      fc.property(
        m(3, 40),
        m(0, 1),
        m(0, 2),
        m(1, 3),
        m(0.1, 1),
        m(4, 30),
        m(0.2, 1),
        (boom_m, above, ahead, height_m, keep_m, ceiling_m, part) => {
          const input = { boom_m, pivot: { back_m: 1, height_m }, headAbove_m: above, headAhead_m: ahead, ceiling_m, keep_m }
          const { angle_deg } = run(input)
          // A corner of the head turned about the foot.
          const high = (deg: number, long = boom_m + ahead) => {
            const a = (deg * Math.PI) / 180
            return height_m + long * Math.sin(a) + above * Math.cos(a)
          }
          const under = ceiling_m - keep_m
          if (angle_deg === null) {
            for (let a = 0; a <= 90; a += 3) expect(high(a)).toBeLessThanOrEqual(under + 1e-9)
            return
          }
          expect(high(angle_deg)).toBeCloseTo(under, 7)
          for (let a = angle_deg - 0.01; a > 0; a -= 4) expect(high(a)).toBeLessThanOrEqual(under)
          expect(high(angle_deg + 0.01)).toBeGreaterThan(under - 1e-6)
          if (angle_deg > 0) expect(high(angle_deg, (boom_m + ahead) * part)).toBeLessThanOrEqual(under + 1e-9)
        },
      ),
      { numRuns: runs(3000, 200) },
    )
  })
  it('stop short of a wall by what is kept, with a level boom too', () => {
    const o = run({
      boom_m: 14,
      pivot: { back_m: 1.4, height_m: 2 },
      headAbove_m: 0,
      headAhead_m: 0.6,
      wallAway_m: 11,
      keep_m: 0.5,
    })
    expect(o).toEqual({ height_m: null, angle_deg: null, reach_m: 10.5, levelBoom_m: expect.closeTo(11.3, 12) })
  })
  it('refuse where nothing is left, and say which figure', () => {
    const input = { boom_m: 9, pivot: { back_m: 0, height_m: 2 }, headAbove_m: 0, headAhead_m: 0, keep_m: 0.5 }
    expect(boomLimitsCalculator.run(input)).toMatchObject({ error: { code: 'missing-field', path: 'ceiling_m' } })
    expect(boomLimitsCalculator.run({ ...input, ceiling_m: 0.4 })).toMatchObject({
      error: { code: 'no-room', path: 'ceiling_m' },
    })
    expect(boomLimitsCalculator.run({ ...input, wallAway_m: 0.4 })).toMatchObject({
      error: { code: 'no-room', path: 'wallAway_m' },
    })
  })
})
