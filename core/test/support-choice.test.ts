import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { chartReading, ratingTable, supportChoiceCalculator, supportRatings } from '../src'
import { runs } from './runs'

const example = supportChoiceCalculator.input.parse(supportChoiceCalculator.example)
const chart = ratingTable.parse(example.chart)

describe('which way of standing', () => {
  const point = fc.record({
    radius_m: fc.double({ min: 3.5, max: 8.5, noNaN: true }),
    slew_deg: fc.double({ min: 0, max: 359, noNaN: true }),
  })
  const asked = fc.record({
    from: point,
    to: point,
    direction: fc.constantFrom('clockwise' as const, 'anticlockwise' as const),
    load_kg: fc.double({ min: 500, max: 16_000, noNaN: true }),
  })
  it('rates no more than any pose of the way, and the first that takes it is the first whose every pose does', () => {
    fc.assert(
      fc.property(asked, ({ load_kg, ...way }) => {
        const input = { ...example, chart, load_kg, deductions: [], boom_m: 9, way, rule: 'worse-row' as const }
        const { options, first } = supportRatings(input)
        const ahead = (((way.to.slew_deg - way.from.slew_deg) % 360) + 360) % 360
        const by = way.direction === 'anticlockwise' ? ahead : ahead - 360
        for (const { state, net_kg } of options)
          for (let i = 0; i <= 40; i++) {
            const radius_m = way.from.radius_m + ((way.to.radius_m - way.from.radius_m) * i) / 40
            const slew_deg = way.from.slew_deg + (by * i) / 40
            const { net_kg: there } = chartReading({
              chart,
              configuration: state,
              radius_m,
              boom_m: 9,
              slew_deg,
              rule: 'worse-row',
              deductions: [],
            })
            if (there === 'not-rated') expect(net_kg, `${state} at ${slew_deg}`).toBeNull()
            else if (net_kg !== null) expect(net_kg).toBeLessThanOrEqual(there)
          }
        const place = options.findIndex((o) => o.net_kg !== null && o.net_kg >= load_kg)
        expect(first).toBe(place < 0 ? null : place + 1)
      }),
      { numRuns: runs(5000, 200) },
    )
  })
  it('stands at the worse end of a doubt, and refuses what the table has not', () => {
    const run = (over: object) => supportChoiceCalculator.run({ ...supportChoiceCalculator.example, ...over })
    expect(run({ load_kg: { value: 5900, tolerance: 5 } })).toMatchObject({ first: 2, high: { first: 2 } })
    expect(run({ load_kg: { value: 5900, tolerance: 50 } })).toMatchObject({ high: { first: null } })
    expect(run({ states: ['wheels', 'stilts'] })).toMatchObject({ error: { code: 'unknown-configuration' } })
    expect(run({ states: ['legs', 'legs'] })).toMatchObject({ error: { path: 'states' } })
  })
})
