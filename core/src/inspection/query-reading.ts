import { limitsOf, type Measure, measureLabel, measureUnit, wearsTowards } from './measure'

/** How far two careful readings of the same unworn part may differ: a share of the reading. */
const repeat_share = 0.01
/** A day's wear beyond this share of what was left to the limit is asked about. */
const leap_share = 0.5

export interface EarlierReading {
  /** ISO date or moment. */
  at: string
  value: number
}

/**
 * What has to be asked about a reading that can be read but is hard to believe beside the last one: a part that wears has
 * come back, or half of all that was left went at once. Null: nothing to ask. The reading itself is never refused for it;
 * the person measures again, or says that the part was replaced.
 */
export function queryReading(m: Measure, reading: number, last: EarlierReading | undefined): string | null {
  if (!last) return null
  const towards = wearsTowards(m)
  const unit = measureUnit(m)
  const repeat = repeat_share * Math.max(Math.abs(last.value), Math.abs(reading))
  const change = reading - last.value
  if (towards === 'down' && change > repeat) {
    return `${measureLabel(m)} was ${last.value} ${unit} last time; it cannot have grown to ${reading} ${unit} by itself.`
  }
  if (towards === 'up' && change < -repeat) {
    return `${measureLabel(m)} was ${last.value} ${unit} last time; it cannot have shrunk to ${reading} ${unit} by itself.`
  }
  if (towards === 'either') return null
  const limit = towards === 'down' ? limitsOf(m).least : limitsOf(m).most
  if (limit === null) return null
  const left = Math.abs(limit - last.value)
  if (Math.abs(change) > repeat && left > 0 && Math.abs(change) > leap_share * left) {
    return `${measureLabel(m)} went from ${last.value} to ${reading} ${unit} since the last reading: more than half of what was left.`
  }
  return null
}
