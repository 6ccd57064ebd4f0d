import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { intervalOf_days, itemsOf, type Measure, readingsDue, soundReading } from '../src'
import { demoMachine, demoMachines } from './demo'

const day = (n: number) => new Date(Date.UTC(2026, 3, 1 + n)).toISOString().slice(0, 10)
const tern = itemsOf(demoMachine('tern').walkround)
const measured = tern.filter((x) => x.item.measure)

/** Readings as a yard makes them: what is due each morning, and nothing else. */
function mornings(items: typeof tern, days: number) {
  const readings: Record<string, { at: string; value: number }[]> = {}
  return Array.from({ length: days }, (_, n) => {
    const asked = readingsDue(items, readings, day(n))
    for (const d of asked) {
      const m = items.find((x) => x.item.id === d.item)?.item.measure as Measure
      readings[d.item] = [...(readings[d.item] ?? []), { at: day(n), value: soundReading(m) }]
    }
    return asked
  })
}

describe('readings that are due', () => {
  it('an ordinary morning on Tern asks for at most four, each with why; nothing is put off for more than two intervals', () => {
    const year = mornings(tern, 200)
    for (const asked of year.slice(1)) {
      expect(asked.length).toBeLessThanOrEqual(4)
      for (const d of asked) expect(d.why).toMatch(/Every \d+ days; last on 2026-/)
    }
    for (const { item } of measured) {
      const every = intervalOf_days(item.measure as Measure)
      const on = year.flatMap((asked, n) => (asked.some((d) => d.item === item.id) ? [n] : []))
      expect(on.length).toBeGreaterThan(1)
      on.slice(1).forEach((n, i) => {
        expect(n - (on[i] as number)).toBeGreaterThanOrEqual(every)
        expect(n - (on[i] as number)).toBeLessThanOrEqual(2 * every)
      })
    }
  })
  it('no machine is measured all over every morning, and what is read every time is asked for every time', () => {
    for (const id of demoMachines) {
      const items = itemsOf(demoMachine(id).walkround)
      const always = items.filter((x) => x.item.measure && intervalOf_days(x.item.measure) === 0).length
      for (const asked of mornings(items, 40).slice(1)) {
        expect(asked.length, id).toBeLessThanOrEqual(Math.max(4, always))
        expect(asked.filter((d) => d.why === 'Read at every walk-round.').length, id).toBe(always)
      }
    }
  })
  it('near its limit, or about to reach it, a part is measured sooner', () => {
    const rope = measured.find((x) => x.item.id === 'rope') as (typeof measured)[number]
    const at = (values: [number, number][], today: number) =>
      readingsDue([rope], { rope: values.map(([n, value]) => ({ at: day(n), value })) }, day(today))
    expect(at([[0, 16]], 10)).toEqual([])
    expect(at([[0, 16]], 30)).toHaveLength(1)
    // 5 % of 16 mm is the limit: 15.4 is watched.
    expect(at([[0, 15.4]], 8)[0]?.why).toMatch(/Near its limit, so measured sooner/)
    const thinning: [number, number][] = [
      [0, 15.95],
      [10, 15.75],
      [20, 15.55],
    ]
    expect(at(thinning, 28)[0]?.why).toMatch(/sooner/)
  })
  it('what is not on record is asked for whatever else is', () => {
    fc.assert(
      fc.property(fc.subarray(measured), (known) => {
        const readings = Object.fromEntries(
          known.map(({ item }) => [item.id, [{ at: day(0), value: soundReading(item.measure as Measure) }]]),
        )
        const asked = readingsDue(tern, readings, day(1)).map((d) => d.item)
        for (const { item } of measured) if (!readings[item.id]) expect(asked).toContain(item.id)
      }),
    )
  })
})
