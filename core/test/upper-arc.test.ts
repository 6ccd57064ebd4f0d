import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { groundPressure, prepareFootprint, resultantAt } from '../src'
import { groundUse } from '../src/ground/ground-pressure'
import { elasticReactions, upperReactions } from '../src/statics/elastic'
import { elasticOver } from '../src/statics/elastic-arc'
import { marginOf } from '../src/statics/footprint'
import { upperOver } from '../src/statics/upper-arc'
import { runs } from './runs'

const metre = (by: number) => fc.double({ min: -by, max: by, noNaN: true })
const foot = fc.record({ x_m: fc.double({ min: 1, max: 4, noNaN: true }), y_m: fc.double({ min: 1, max: 4, noNaN: true }) })

describe('the upper bound round an arc', () => {
  it('is what the most loaded of many slews gives, and is carried where it says', () => {
    fc.assert(
      fc.property(
        fc.array(foot, { minLength: 4, maxLength: 4 }),
        metre(3e4),
        metre(3e4),
        metre(4e5),
        metre(1e5),
        fc.integer({ min: -180, max: 360 }),
        fc.integer({ min: 0, max: 360 }),
        (feet, wx_Nm, wy_Nm, along_Nm, across_Nm, from_deg, by) => {
          const signs = [
            [1, 1],
            [-1, 1],
            [-1, -1],
            [1, -1],
          ] as const
          const f = prepareFootprint(
            signs.map(([i, j], k) => ({ id: `${k}`, x_m: i * (feet[k]?.x_m ?? 1), y_m: j * (feet[k]?.y_m ?? 1) })),
          )
          const fixed = { force_N: 1.8e5, wx_Nm, wy_Nm }
          const slewing = { force_N: 1e5, along_Nm, across_Nm }
          const said = upperOver(f, fixed, slewing, { from_deg, to_deg: from_deg + by })
          const out = new Float64Array(4)
          const at = (deg: number) => {
            const r = resultantAt(fixed, slewing, deg)
            if (marginOf(f, r) <= 0) return null
            upperReactions(f, r.x_m, r.y_m, r.force_N, out)
            return Array.from(out)
          }
          let stands = false
          for (let i = 0; i <= 720; i++) {
            const carried = at(from_deg + (by * i) / 720)
            if (!carried) continue
            stands = true
            carried.forEach((N, k) => {
              expect(N).toBeLessThanOrEqual((said[k]?.upper_N ?? 0) * (1 + 1e-9) + 1e-3)
            })
          }
          if (!stands) return
          for (const [k, s] of said.entries()) {
            expect(s.upper_at_deg).toBeGreaterThanOrEqual(from_deg - 1e-9)
            expect(s.upper_at_deg).toBeLessThanOrEqual(from_deg + by + 1e-9)
            const there = at(s.upper_at_deg)
            if (there) expect(there[k]).toBeCloseTo(s.upper_N, 3)
          }
        },
      ),
      { numRuns: runs(600, 150) },
    )
  })
  it('of a square with the load turning in its middle third is W/4 and the tilt’s share, in closed form', () => {
    const side = 2
    const f = prepareFootprint([
      { id: 'a', x_m: side, y_m: side },
      { id: 'b', x_m: -side, y_m: side },
      { id: 'c', x_m: -side, y_m: -side },
      { id: 'd', x_m: side, y_m: -side },
    ])
    const force_N = 1000
    const round = upperOver(
      f,
      { force_N: 900, wx_Nm: 0, wy_Nm: 0 },
      { force_N: 100, along_Nm: 500, across_Nm: 0 },
      { from_deg: 0, to_deg: 360 },
    )
    // Worst over the diagonal: half the weight and as much again as the load stands out, over the diagonal's half.
    const out_m = 500 / force_N
    for (const s of round) expect(s.upper_N).toBeCloseTo((force_N / 2) * (1 + out_m / (side * Math.SQRT2)), 6)
    expect(round.map((s) => s.upper_at_deg)).toEqual([45, 135, 225, 315].map((d) => expect.closeTo(d, 6)))
  })
})

describe('the elastic load round an arc on which every support stays down', () => {
  let down = 0
  it('is that of the most and the least loaded of many slews, and is there where it says', () => {
    fc.assert(
      fc.property(
        fc.array(foot, { minLength: 3, maxLength: 3 }),
        metre(3e4),
        metre(2e5),
        metre(5e4),
        fc.integer({ min: -180, max: 360 }),
        fc.integer({ min: 0, max: 360 }),
        (feet, wx_Nm, along_Nm, across_Nm, from_deg, by) => {
          const [a, b, c] = feet.map((p) => p ?? { x_m: 1, y_m: 1 }) as [{ x_m: number; y_m: number }, ...typeof feet]
          const f = prepareFootprint([
            { id: 'a', ...a },
            { id: 'b', x_m: -(b?.x_m ?? 1), y_m: b?.y_m ?? 1 },
            { id: 'c', x_m: -a.x_m, y_m: -(c?.y_m ?? 1) },
            { id: 'd', x_m: c?.x_m ?? 1, y_m: -a.y_m },
          ])
          const [fixed, slewing] = [
            { force_N: 1.8e5, wx_Nm, wy_Nm: 0 },
            { force_N: 1e5, along_Nm, across_Nm },
          ]
          const said = elasticOver(f, fixed, slewing, { from_deg, to_deg: from_deg + by })
          const out = new Float64Array(4)
          const at = (deg: number) => {
            const r = resultantAt(fixed, slewing, deg)
            if (marginOf(f, r) <= 0) return null
            elasticReactions(f, r.x_m, r.y_m, r.force_N, out)
            return Array.from(out)
          }
          const seen = Array.from({ length: 361 }, (_, i) => at(from_deg + (by * i) / 360))
          if (said === null) return
          down++
          said.forEach((e, k) => {
            const carried = seen.map((s) => s?.[k] ?? Number.NaN)
            expect(Math.max(...carried)).toBeLessThanOrEqual(e.max_N * (1 + 1e-9))
            expect(Math.min(...carried)).toBeGreaterThanOrEqual(e.min_N - 1e-6)
            expect(at(e.max_at_deg)?.[k]).toBeCloseTo(e.max_N, 4)
            expect(at(e.min_at_deg)?.[k]).toBeCloseTo(e.min_N, 4)
          })
        },
      ),
      { numRuns: runs(2000, 200) },
    )
    expect(down).toBeGreaterThan(20)
  })
})

describe('the share of the ground by the reaction', () => {
  it('is that of the whole answer, while the mat presses all over and when it bends', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 9e5, noNaN: true }),
        fc.double({ min: 0.02, max: 0.2, noNaN: true }),
        fc.constantFrom('one-way' as const, 'two-way' as const),
        fc.constantFrom(undefined, 'gravel-medium-dense' as const),
        (reaction_N, thickness_m, spreads, soil) => {
          const mat = {
            length_m: 1.2,
            width_m: 1,
            thickness_m,
            allowableBending_MPa: 12,
            allowableShear_MPa: 1.5,
            mass_kg: 110,
            spreads,
          }
          const input = { pad: { length_m: 0.5, width_m: 0.5 }, mat, ...(soil ? { soil } : { allowable_kPa: 250 }) }
          const use = groundUse(input)?.(reaction_N) as number
          const whole = groundPressure({ ...input, reaction_N }).utilisation as number
          expect(Math.abs(use - whole)).toBeLessThanOrEqual(1e-9 * Math.max(1, whole))
        },
      ),
      { numRuns: runs(3000, 400) },
    )
  })
})
