import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { alternatingLowerCalculator, footLiftCalculator, loweringBy, sectionSlideCalculator, syncTiltCalculator } from '../src'
import { runs } from './runs'

const m = (from: number, to: number) => fc.double({ min: from, max: to, noNaN: true })

describe('a machine let down side by side', () => {
  it('gives its printed moves', () => {
    const o = alternatingLowerCalculator.output.parse(
      alternatingLowerCalculator.run({ span_m: 4.2, stroke_m: 0.42, limit_deg: 0.5 }),
    )
    expect([o.count, o.step_m * 1000]).toEqual([13, expect.closeTo(36.7, 1)])
    expect(o.moves.slice(0, 3).map((x) => [x.first_m * 1000, x.second_m * 1000])).toEqual([
      [expect.closeTo(36.7, 1), 0],
      [expect.closeTo(36.7, 1), expect.closeTo(73.3, 1)],
      [expect.closeTo(110, 1), expect.closeTo(73.3, 1)],
    ])
  })
  it('never tilts past the step, lets both all the way down, moves one side at a time and only down, in as few moves as can be', () => {
    fc.assert(
      fc.property(m(0.02, 2), m(0.01, 0.3), (stroke_m, step_m) => {
        const moves = loweringBy(stroke_m, step_m)
        let [a, b] = [0, 0]
        for (const { side, first_m, second_m } of moves) {
          expect(Math.abs(first_m - second_m)).toBeLessThanOrEqual(step_m + 2e-9)
          expect(side === 'first' ? second_m : first_m).toBe(side === 'first' ? b : a)
          expect(side === 'first' ? first_m : second_m).toBeGreaterThan(side === 'first' ? a : b)
          ;[a, b] = [first_m, second_m]
        }
        expect([a, b]).toEqual([stroke_m, stroke_m])
        // Each move but the first and the last goes two steps.
        expect(moves.length).toBe(Math.ceil(stroke_m / step_m - 1e-9) + 1)
      }),
      { numRuns: runs(5000, 400) },
    )
  })
})

describe('a boom’s foot lifted to its hinge', () => {
  it('gives its printed figures, and sling and head carry all of it with no moment left', () => {
    const o = footLiftCalculator.run(footLiftCalculator.example)
    expect(o).toEqual({
      angle_deg: expect.closeTo(10.08, 2),
      lift_N: expect.closeTo(37_156, 0),
      head_N: expect.closeTo(23_645, 0),
      mastTip_m: expect.closeTo(2.481, 3),
      draws_m: expect.closeTo(0.185, 3),
    })
    fc.assert(
      fc.property(m(4, 60), m(100, 40_000), m(0.1, 0.9), m(0, 0.95), m(0.1, 3), (boom_m, mass_kg, x, s, height_m) => {
        const [cgFromFoot_m, slingFromFoot_m] = [boom_m * x, boom_m * x * s]
        const f = footLiftCalculator.output.parse(
          footLiftCalculator.run({ boom_m, mass_kg, cgFromFoot_m, slingFromFoot_m, hinge: { x_m: 1, height_m } }),
        )
        expect(f.lift_N + f.head_N).toBeCloseTo(mass_kg * 9.80665, 3)
        expect(f.lift_N * slingFromFoot_m + f.head_N * boom_m).toBeCloseTo(mass_kg * 9.80665 * cgFromFoot_m, 2)
        expect(boom_m * Math.sin((f.angle_deg * Math.PI) / 180)).toBeCloseTo(height_m, 9)
      }),
      { numRuns: runs(2000, 200) },
    )
  })
})

describe('what could slide, and what hangs crooked', () => {
  it('slides from the angle whose tangent its friction is; drawn within half, or a degree', () => {
    expect(sectionSlideCalculator.run({ friction: 0.08, section_kg: 95 })).toMatchObject({
      slides_deg: expect.closeTo(4.57, 2),
      within_deg: expect.closeTo(2.29, 2),
    })
    expect(sectionSlideCalculator.run({ section_kg: 95 })).toMatchObject({ slides_deg: null, within_deg: 1 })
  })
  it('gives the high hoist more of what hangs below its points, less of what stands above, and tells both by its book', () => {
    const at = (h_m: number, firstHigher_m: number, alignedWithin_m?: number) =>
      syncTiltCalculator.output.parse(
        syncTiltCalculator.run({
          mass_kg: 10_000,
          a_m: 2,
          b_m: 2,
          h_m,
          firstHigher_m,
          ...(alignedWithin_m && { alignedWithin_m }),
        }),
      )
    fc.assert(
      fc.property(m(0.05, 1.5), m(0.001, 0.2), (h, d) => {
        expect(at(h, d).firstGains_kg).toBeGreaterThan(0)
        expect(at(-h, d).firstGains_kg).toBeLessThan(0)
        expect(at(h, -d).first_kg).toBeCloseTo(at(h, d).second_kg, 6)
        expect(at(h, d).first_kg + at(h, d).second_kg).toBeCloseTo(10_000, 6)
        expect(at(h, d).aligned).toBe(d <= 0.01)
        expect(at(h, d, 0.1).aligned).toBe(d <= 0.1)
      }),
      { numRuns: runs(1000, 200) },
    )
  })
})
