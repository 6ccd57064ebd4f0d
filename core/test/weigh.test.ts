import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { endsWeightCalculator, g_mps2, supportsWeightCalculator, transferToLift, weighByEnds } from '../src'
import { runs } from './runs'

const m = (from: number, to: number) => fc.double({ min: from, max: to, noNaN: true })
const ends = (input: object) => endsWeightCalculator.output.parse(endsWeightCalculator.run(input))
const supports = (points: object[]) => supportsWeightCalculator.output.parse(supportsWeightCalculator.run({ points }))

describe('weighing it anyway', () => {
  it('finds again what a load of known mass would show, end by end, whichever end comes first', () => {
    fc.assert(
      fc.property(
        m(200, 50_000),
        m(0.1, 0.9),
        m(1, 12),
        m(-5, 5),
        m(0.2, 1.2),
        m(0.2, 1.2),
        m(0, 300),
        (kg, share, long, from, a, b, rigging) => {
          const [left, right, cg] = [from, from + long, from + share * long]
          // Taken from the moments about each edge, not from the formula that is tested.
          const pick = (edge: number, pickedAt_m: number) => ({
            standsAt_m: edge,
            pickedAt_m,
            shown_kg: rigging + (kg * Math.abs(cg - edge)) / Math.abs(pickedAt_m - edge),
          })
          const [one, other] = [pick(left, left + a * long), pick(right, right - b * long)]
          for (const found of [weighByEnds(one, other, rigging), weighByEnds(other, one, rigging)]) {
            expect(found.mass_kg / kg).toBeCloseTo(1, 9)
            expect(found.cg_m).toBeCloseTo(cg, 7)
          }
        },
      ),
      { numRuns: runs(3000, 200) },
    )
  })
  it('hands its ± to the lift, both ends of it', () => {
    const shown = (kg: number) => ({ value: kg, tolerance: 50 })
    const input = {
      first: { shown_kg: shown(1900), pickedAt_m: 4, standsAt_m: 0 },
      second: { shown_kg: shown(1300), pickedAt_m: 0, standsAt_m: 4 },
      inReading_kg: 100,
    }
    const answer = endsWeightCalculator.run(input) as never
    expect(transferToLift(endsWeightCalculator, answer)).toEqual({ mass_kg: { value: 3000, tolerance: 100 } })
  })
  it.each([
    ['same-edge', 'second.standsAt_m', { second: { shown_kg: 900, pickedAt_m: 0, standsAt_m: 0 } }],
    ['picked-inside', 'first.pickedAt_m', { first: { shown_kg: 900, pickedAt_m: -1, standsAt_m: 0 } }],
    ['picked-inside', 'second.pickedAt_m', { second: { shown_kg: 900, pickedAt_m: 5, standsAt_m: 4 } }],
    ['no-weight', 'first.shown_kg', { inReading_kg: 900 }],
  ])('refuses what cannot be: %s at %s', (code, path, over) => {
    const asked = {
      first: { shown_kg: 900, pickedAt_m: 4, standsAt_m: 0 },
      second: { shown_kg: 950, pickedAt_m: 0, standsAt_m: 4 },
      inReading_kg: 20,
    }
    expect(ends(asked).mass_kg).toBe(1810)
    expect(endsWeightCalculator.run({ ...asked, ...over })).toMatchObject({ error: { code, path } })
  })
  it('weighs by supports the same by scale and by pressure, wherever the plan’s zero is', () => {
    const point = fc.record({ x_m: m(-8, 8), y_m: m(-8, 8), empty_kg: m(0, 9000), added: m(1, 9000), piston_m2: m(0.005, 0.1) })
    fc.assert(
      fc.property(fc.array(point, { minLength: 1, maxLength: 6 }), m(-20, 20), (points, moved) => {
        const named = points.map((p, i) => ({ ...p, id: `p${i}` }))
        const scale = (by: number) =>
          supports(
            named.map(({ id, x_m, y_m, empty_kg, added }) => ({ id, x_m: x_m + by, y_m, empty_kg, loaded_kg: empty_kg + added })),
          )
        const kPa = (kg: number, piston_m2: number) => (kg * g_mps2) / piston_m2 / 1000
        const pressed = supports(
          named.map(({ id, x_m, y_m, empty_kg, added, piston_m2 }) => ({
            id,
            x_m,
            y_m,
            piston_m2,
            emptyPressure_kPa: kPa(empty_kg, piston_m2),
            loadedPressure_kPa: kPa(empty_kg + added, piston_m2),
          })),
        )
        const there = scale(0)
        expect(there.mass_kg).toBeCloseTo(
          points.reduce((s, p) => s + p.added, 0),
          6,
        )
        expect(pressed.mass_kg).toBeCloseTo(there.mass_kg, 6)
        expect(pressed.cg.y_m).toBeCloseTo(there.cg.y_m, 6)
        expect(scale(moved).cg.x_m).toBeCloseTo(there.cg.x_m + moved, 6)
        // Weights at the points turn about it in balance.
        const turn = named.reduce((s, p) => s + p.added * (p.x_m - there.cg.x_m), 0)
        expect(Math.abs(turn)).toBeLessThan(1e-6 * there.mass_kg)
      }),
      { numRuns: runs(2000, 100) },
    )
  })
  it('takes an axle that gets lighter, and finds the load beyond the other', () => {
    const found = supports([
      { id: 'front', x_m: 0, y_m: 0, empty_kg: 3900, loaded_kg: 7150 },
      { id: 'rear', x_m: -2.1, y_m: 0, empty_kg: 4600, loaded_kg: 3350 },
    ])
    expect(found.mass_kg).toBe(2000)
    expect(found.cg.x_m).toBeCloseTo((1250 * 2.1) / 2000, 12)
  })
  it('never takes half a reading, two readings for one, or a name twice', () => {
    const whole = { id: 'a', x_m: 0, y_m: 0, empty_kg: 0, loaded_kg: 10 }
    const { loaded_kg: _, ...half } = whole
    const says = (points: object[]) => supportsWeightCalculator.run({ points })
    expect(says([half])).toMatchObject({ error: { code: 'scale-or-pressure', path: 'points.0' } })
    expect(says([{ ...whole, piston_m2: 0.1, emptyPressure_kPa: 1, loadedPressure_kPa: 2 }])).toMatchObject({
      error: { code: 'scale-or-pressure' },
    })
    expect(says([whole, whole])).toMatchObject({ error: { code: 'twice', path: 'points.1.id' } })
    expect(says([{ ...whole, empty_kg: 10, loaded_kg: 0 }])).toMatchObject({ error: { code: 'no-weight', path: 'points' } })
  })
})
