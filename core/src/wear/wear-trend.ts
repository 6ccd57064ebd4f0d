import { z } from 'zod'
import { defineCalculator } from '../calculator/define'
import { nth } from '../list'
import { isoDate } from '../quantity/date'
import { finite } from '../quantity/measured'
import { Refusal } from '../refusal'
import { boundary } from '../search'

const day_ms = 86_400_000
const dayOf = (date: string) => Date.parse(`${date}T00:00:00Z`) / day_ms
const dateOf = (day: number) => new Date(Math.floor(day) * day_ms).toISOString().slice(0, 10)

/** Fewer readings than this, or all of one day, make no trend. */
const leastReadings = 3
/** Further ahead than this nothing is foretold: ten years. */
const horizon_days = 3653

export type WearDirection = 'falling' | 'rising'

export interface WearTrend {
  enough: boolean
  why: string | null
  perDay: number | null
  /** Value of the line on the last reading's day. */
  now: number | null
  /** The limit is reached or passed: by the line today, or by the last reading. */
  passed: boolean
  /** The day the line meets the limit, the last reading's where it has; null: it does not within ten years. */
  reaches: string | null
  /** The same for the ends of the line's band, 95 % either way. */
  earliest: string | null
  latest: string | null
}

/**
 * Share of a Student's t distribution of whole degrees of freedom that lies within ±t: the finite trigonometric series.
 * Source: Abramowitz and Stegun 26.7.3, 26.7.4.
 */
function withinStudent(t: number, freedom: number): number {
  const a = Math.atan(t / Math.sqrt(freedom))
  const [s, c] = [Math.sin(a), Math.cos(a)]
  const odd = freedom % 2 === 1
  let [sum, term] = [0, odd ? c : 1]
  for (let k = odd ? 3 : 2; k <= freedom; k += 2) {
    sum += term
    term *= (c * c * (k - 1)) / k
  }
  return odd ? (2 / Math.PI) * (a + s * sum) : s * sum
}

/** Student's t that holds 95 % within ±t. Few readings say little: 12.7 for one degree of freedom, 1.96 for very many. */
export function studentT95(freedom: number): number {
  return boundary((t) => withinStudent(t, freedom) <= 0.95, 0, 100, 1e-12)
}

/**
 * Least-squares line through dated readings, and when it meets a limit.
 *
 * @param input.direction whether the figure falls or rises as the part wears; without it the side on which the first readings stand
 * and the way they go decide, and where these do not agree nothing is foretold
 */
export function wearTrend(input: {
  readings: readonly { date: string; value: number }[]
  limit: number
  direction?: WearDirection | undefined
}): WearTrend {
  const points = input.readings.map((r) => ({ x: dayOf(r.date), y: r.value })).sort((a, b) => a.x - b.x)
  const n = points.length
  const lastPoint = points[n - 1]
  const beyond = (y: number) =>
    input.direction !== undefined && (input.direction === 'rising' ? y >= input.limit - 1e-12 : y <= input.limit + 1e-12)
  const none = (why: string, passed = lastPoint !== undefined && beyond(lastPoint.y)): WearTrend => ({
    enough: false,
    why,
    perDay: null,
    now: null,
    passed,
    reaches: passed && lastPoint ? dateOf(lastPoint.x) : null,
    earliest: passed && lastPoint ? dateOf(lastPoint.x) : null,
    latest: null,
  })
  if (n < leastReadings)
    return none(`${n} ${n === 1 ? 'reading makes' : 'readings make'} no trend; ${leastReadings} on different days do.`)
  if (new Set(points.map((p) => p.x)).size < leastReadings)
    return none(`The readings are of fewer than ${leastReadings} different days.`)
  const fit = lineThrough(points)
  const direction = input.direction ?? directionOf(points, input.limit, fit)
  if (direction === null)
    return {
      ...none('Say whether the figure falls or rises as the part wears; the readings do not show it.', false),
      perDay: fit.slope,
    }
  const past = (y: number) => (direction === 'rising' ? y >= input.limit - 1e-12 : y <= input.limit + 1e-12)
  const last = nth(points, n - 1)
  // First day from the last reading on at which f has met the limit; a part that has passed it has met it.
  const meets = (f: (x: number) => number): string | null => {
    if (past(last.y) || past(f(last.x))) return dateOf(last.x)
    for (let day = 1; day <= horizon_days; day++) {
      if (past(f(last.x + day))) return dateOf(boundary((x) => !past(f(x)), last.x + day - 1, last.x + day, 1e-6) + 1e-6)
    }
    return null
  }
  const toward = direction === 'rising' ? 1 : -1
  return {
    enough: true,
    why: null,
    perDay: fit.slope,
    now: fit.line(last.x),
    passed: past(last.y) || past(fit.line(last.x)),
    reaches: meets(fit.line),
    earliest: meets((x) => fit.line(x) + toward * fit.band(x)),
    latest: meets((x) => fit.line(x) - toward * fit.band(x)),
  }
}

interface Line {
  slope: number
  /** Standard error of the slope times Student's t. */
  slopeBand: number
  line: (x: number) => number
  band: (x: number) => number
}

function lineThrough(points: readonly { x: number; y: number }[]): Line {
  const n = points.length
  const mx = points.reduce((s, p) => s + p.x, 0) / n
  const my = points.reduce((s, p) => s + p.y, 0) / n
  const xx = points.reduce((s, p) => s + (p.x - mx) ** 2, 0)
  const slope = points.reduce((s, p) => s + (p.x - mx) * (p.y - my), 0) / xx
  const left = points.reduce((s, p) => s + (p.y - my - slope * (p.x - mx)) ** 2, 0)
  const freedom = n - 2
  const wide = studentT95(freedom) * Math.sqrt(left / freedom)
  return {
    slope,
    slopeBand: wide / Math.sqrt(xx),
    line: (x) => my + slope * (x - mx),
    band: (x) => wide * Math.sqrt(1 / n + (x - mx) ** 2 / xx),
  }
}

/** Where nobody says it: towards the limit from where the first reading stood; away from it only if the readings clearly go there. */
function directionOf(points: readonly { x: number; y: number }[], limit: number, fit: Line): WearDirection | null {
  const first = nth(points, 0).y
  const towards: WearDirection = first < limit ? 'rising' : 'falling'
  const goes: WearDirection = fit.slope >= 0 ? 'rising' : 'falling'
  if (goes === towards || fit.slope === 0) return towards
  return Math.abs(fit.slope) > fit.slopeBand ? goes : null
}

export const wearTrendCalculator = defineCalculator({
  name: 'wear-trend',
  purpose: 'When a wearing part will reach its limit, from dated readings.',
  source: 'Least-squares line; band of the line at 95 % by Student’s t.',
  cautions: [
    'Wear does not keep to a line: measure more often as the limit comes near.',
    'Readings by different hands differ; measure at the same marked place.',
  ],
  input: z.strictObject({
    readings: z.array(z.strictObject({ date: isoDate, value: finite })).max(10_000),
    limit: finite,
    direction: z.enum(['falling', 'rising']).optional(),
  }),
  output: z.object({
    enough: z.boolean(),
    why: z.string().nullable(),
    perDay: z.number().nullable(),
    now: z.number().nullable(),
    passed: z.boolean(),
    reaches: z.string().nullable(),
    earliest: z.string().nullable(),
    latest: z.string().nullable(),
  }),
  // No field of it takes a ±.
  worse: {
    enough: false,
    why: 'given',
    perDay: 'either',
    now: 'either',
    passed: true,
    reaches: 'given',
    earliest: 'given',
    latest: 'given',
  },
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
