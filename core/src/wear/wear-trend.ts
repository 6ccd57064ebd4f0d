import { z } from 'zod'
import { defineCalculator } from '../calculator/define'
import { finite } from '../calculator/measured'
import { isoDate } from '../people/person'
import { Refusal } from '../refusal'

const day_ms = 86_400_000
const dayOf = (date: string) => Date.parse(`${date}T00:00:00Z`) / day_ms
const dateOf = (day: number) => new Date(Math.floor(day) * day_ms).toISOString().slice(0, 10)

/** Fewer readings than this, or all of one day, make no trend. */
const leastReadings = 3
/** Further ahead than this nothing is foretold: ten years. */
const horizon_days = 3653

export interface WearTrend {
  enough: boolean
  why: string | null
  perDay: number | null
  /** Value of the line on the last reading's day. */
  now: number | null
  /** The day the line meets the limit; null: it does not within ten years. */
  reaches: string | null
  /** The same for the ends of the line's band, two standard errors either way. */
  earliest: string | null
  latest: string | null
}

/** Least-squares line through dated readings, and when it meets a limit. A wearing figure falls, a growing one rises. */
export function wearTrend(input: { readings: readonly { date: string; value: number }[]; limit: number }): WearTrend {
  const points = input.readings.map((r) => ({ x: dayOf(r.date), y: r.value }))
  const n = points.length
  const none = (why: string): WearTrend => ({
    enough: false,
    why,
    perDay: null,
    now: null,
    reaches: null,
    earliest: null,
    latest: null,
  })
  if (n < leastReadings)
    return none(`${n} ${n === 1 ? 'reading makes' : 'readings make'} no trend; ${leastReadings} on different days do.`)
  const mx = points.reduce((s, p) => s + p.x, 0) / n
  const my = points.reduce((s, p) => s + p.y, 0) / n
  const xx = points.reduce((s, p) => s + (p.x - mx) ** 2, 0)
  if (new Set(points.map((p) => p.x)).size < leastReadings)
    return none(`The readings are of fewer than ${leastReadings} different days.`)
  const slope = points.reduce((s, p) => s + (p.x - mx) * (p.y - my), 0) / xx
  const left = points.reduce((s, p) => s + (p.y - my - slope * (p.x - mx)) ** 2, 0)
  const sigma = Math.sqrt(left / Math.max(1, n - 2))
  const last = Math.max(...points.map((p) => p.x))
  const line = (x: number) => my + slope * (x - mx)
  const band = (x: number) => 2 * sigma * Math.sqrt(1 / n + (x - mx) ** 2 / xx)
  const rising = my < input.limit
  // First day from the last reading on at which f has crossed the limit.
  const meets = (f: (x: number) => number): string | null => {
    const past = (x: number) => (rising ? f(x) >= input.limit : f(x) <= input.limit)
    if (past(last)) return dateOf(last)
    let [lo, hi] = [last, last + 1]
    while (!past(hi)) {
      lo = hi
      hi = last + (hi - last) * 2
      if (hi - last > horizon_days) return null
    }
    while (hi - lo > 0.01) {
      const middle = (lo + hi) / 2
      if (past(middle)) hi = middle
      else lo = middle
    }
    return dateOf(hi)
  }
  const toward = rising ? 1 : -1
  return {
    enough: true,
    why: null,
    perDay: slope,
    now: line(last),
    reaches: meets(line),
    earliest: meets((x) => line(x) + toward * band(x)),
    latest: meets((x) => line(x) - toward * band(x)),
  }
}

export const wearTrendCalculator = defineCalculator({
  name: 'wear-trend',
  purpose: 'When a wearing part will reach its limit, from dated readings.',
  source: 'Least-squares line; band of two standard errors of the line.',
  cautions: [
    'Wear does not keep to a line: measure more often as the limit comes near.',
    'Readings by different hands differ; measure at the same marked place.',
  ],
  input: z.strictObject({
    readings: z.array(z.strictObject({ date: isoDate, value: finite })).max(10_000),
    limit: finite,
  }),
  output: z.object({
    enough: z.boolean(),
    why: z.string().nullable(),
    perDay: z.number().nullable(),
    now: z.number().nullable(),
    reaches: z.string().nullable(),
    earliest: z.string().nullable(),
    latest: z.string().nullable(),
  }),
  example: {
    readings: [
      { date: '2026-06-01', value: 44.1 },
      { date: '2026-07-15', value: 43.4 },
      { date: '2026-09-02', value: 42.9 },
      { date: '2026-10-20', value: 42.1 },
    ],
    limit: 40.5,
  },
  compute: (input) => {
    input.readings.forEach((r, i) => {
      if (Number.isNaN(Date.parse(`${r.date}T00:00:00Z`)))
        throw new Refusal('bad-date', 'This day does not exist.', `readings.${i}.date`)
    })
    return wearTrend(input)
  },
})
