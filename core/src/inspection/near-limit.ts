import { Refusal } from '../refusal'
import { judge } from './judge'
import { limitsOf, type Measure, measureLabel, measureUnit } from './measure'
import type { EarlierReading } from './query-reading'
import { readingTrend } from './reading-trend'
import { itemsOf, type Walkround } from './walkround'

export interface NearLimit {
  label: string
  reading: number
  unit: string
  limit: number
  /** The day the limit is expected, by the trend. */
  reaches: string | null
}

/** Watched or worse. A reading of what the list asked for before it was changed no longer belongs to the measure: not judged. */
function isNear(m: Measure, reading: number): boolean {
  try {
    return judge(m, reading).verdict !== 'ok'
  } catch (e) {
    if (e instanceof Refusal) return false
    throw e
  }
}

/**
 * What of a walk-round reads near its limit or beyond it.
 * @param readings by item, oldest first
 * @param now readings of this round by item, before the earlier ones; null and undefined: not taken
 */
export function nearLimits(
  w: Walkround,
  readings: Readonly<Record<string, readonly (EarlierReading & { replaced?: boolean })[]>>,
  now: Readonly<Record<string, number | null | undefined>> = {},
): NearLimit[] {
  return itemsOf(w).flatMap(({ item }) => {
    const earlier = readings[item.id] ?? []
    const reading = now[item.id] ?? earlier.at(-1)?.value
    if (!item.measure || reading === undefined || !isNear(item.measure, reading)) return []
    const { least, most } = limitsOf(item.measure)
    const trend = readingTrend(item.measure, earlier)
    return [
      {
        label: `${item.label}, ${measureLabel(item.measure).toLowerCase()}`,
        reading,
        unit: measureUnit(item.measure),
        limit: trend.limit ?? least ?? most ?? 0,
        reaches: trend.reaches,
      },
    ]
  })
}
