import type { WearKind } from '../wear/limits'
import { judge } from './judge'
import type { Measure } from './measure'
import type { EarlierReading } from './query-reading'
import { readingTrend } from './reading-trend'
import type { Placed } from './walkround'

/** Looked at at every walk-round; measured so often, days, where the machine's own book says nothing. */
const usual_days: Partial<Record<WearKind, number>> & { range: number; other: number } = {
  'tyre-pressure': 7,
  'broken-wires-6d': 7,
  'broken-wires-30d': 7,
  'wheel-studs': 7,
  'rope-rotation-resistant': 30,
  'rope-steel-core': 30,
  'rope-fibre-core': 30,
  range: 7,
  other: 30,
}

/** Days between two measurements of a part that is well inside its limit; 0: at every walk-round. */
export function intervalOf_days(m: Measure): number {
  if (m.every_days !== undefined) return m.every_days
  if (m.kind === 'wear') return usual_days[m.wear] ?? usual_days.other
  return m.kind === 'range' ? usual_days.range : usual_days.other
}

/** Near its limit, or expected to reach it within a few intervals, a part is measured this many times as often. */
const sooner_times = 4
const foresight_intervals = 3
/** A measurement that is put off no longer, in intervals. */
const longest_intervals = 2
/** As many as a morning asks for besides what has to be. */
const mostAMorning = 4

export interface DueReading {
  item: string
  /** Why it is measured today, in words for the person who measures. */
  why: string
}

const day_ms = 86_400_000
const daysBetween = (from: string, to: string) => (Date.parse(to.slice(0, 10)) - Date.parse(from.slice(0, 10))) / day_ms

type Dated = EarlierReading & { replaced?: boolean }

interface Asked extends DueReading {
  must: boolean
  /** How long it has been due, in its own intervals. */
  urgency: number
}

function asked(item: string, m: Measure, earlier: readonly Dated[], today: string): Asked | null {
  const every = intervalOf_days(m)
  if (every === 0) return { item, why: 'Read at every walk-round.', must: true, urgency: Infinity }
  const last = earlier.at(-1)
  if (!last) return { item, why: 'Not on record yet.', must: true, urgency: Infinity }
  const since = daysBetween(last.at, today)
  const near = isNear(m, last.value) || reachesSoon(m, earlier, today, every)
  const interval = near ? Math.max(1, every / sooner_times) : every
  if (since < interval) return null
  const on = last.at.slice(0, 10)
  const why = near ? `Near its limit, so measured sooner; last on ${on}.` : `Every ${every} days; last on ${on}.`
  return { item, why, must: since >= longest_intervals * interval, urgency: since / interval }
}

function isNear(m: Measure, reading: number): boolean {
  try {
    return judge(m, reading).verdict !== 'ok'
  } catch {
    // A reading of what the list asked for before it was changed: measured again.
    return true
  }
}

function reachesSoon(m: Measure, earlier: readonly Dated[], today: string, every_days: number): boolean {
  const { earliest, passed } = readingTrend(m, earlier)
  return passed || (earliest !== null && daysBetween(today, earliest) <= foresight_intervals * every_days)
}

/**
 * What of a walk-round is measured today rather than only looked at: what is read every time, what is not on record, what is due by its
 * interval, sooner near its limit. What is merely due is spread over the mornings, the longest due first, and not put off for ever.
 *
 * @param readings by item, oldest first, of before this shift
 * @param today ISO date
 * @example readingsDue(itemsOf(machine.walkround), file.readings, '2026-05-04').map((d) => d.why)
 */
export function readingsDue(
  items: readonly Placed[],
  readings: Readonly<Record<string, readonly Dated[]>>,
  today: string,
): DueReading[] {
  const all = items.flatMap(({ item }) =>
    item.measure ? (asked(item.id, item.measure, readings[item.id] ?? [], today) ?? []) : [],
  )
  const must = all.filter((a) => a.must)
  const rest = all.filter((a) => !a.must).sort((a, b) => b.urgency - a.urgency)
  const chosen = new Set([...must, ...rest.slice(0, Math.max(0, mostAMorning - must.length))].map((a) => a.item))
  return all.filter((a) => chosen.has(a.item)).map(({ item, why }) => ({ item, why }))
}
