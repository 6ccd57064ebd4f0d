import { type WearTrend, wearTrend } from '../wear/wear-trend'
import { limitsOf, type Measure } from './measure'
import type { EarlierReading } from './query-reading'

export interface ReadingTrend extends WearTrend {
  /** The limit it is going towards, in the measure's own unit. */
  limit: number | null
}

/**
 * When a measured part will reach its limit, from dated readings since it was last replaced. Where both ends are limits the
 * end that the readings go towards counts.
 */
export function readingTrend(m: Measure, readings: readonly (EarlierReading & { replaced?: boolean })[]): ReadingTrend {
  const since = readings.map((r) => Boolean(r.replaced)).lastIndexOf(true)
  const own = readings.slice(Math.max(0, since)).map((r) => ({ date: r.at.slice(0, 10), value: r.value }))
  const { least, most } = limitsOf(m)
  const falls = (own.at(-1)?.value ?? 0) < (own[0]?.value ?? 0)
  const limit = least !== null && most !== null ? (falls ? least : most) : (least ?? most)
  if (limit === null) {
    return {
      enough: false,
      why: 'No limit is on record for it.',
      perDay: null,
      now: null,
      reaches: null,
      earliest: null,
      latest: null,
      passed: false,
      limit,
    }
  }
  const direction = limit === least ? ('falling' as const) : ('rising' as const)
  return { ...wearTrend({ readings: own, limit, direction }), limit }
}
