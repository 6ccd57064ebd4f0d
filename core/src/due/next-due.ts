import type { Duty } from './duty'

const day_ms = 86_400_000
const dayOf = (date: string) => Math.floor(Date.parse(`${date.slice(0, 10)}T00:00:00Z`) / day_ms)
const dateOf = (day: number) => new Date(day * day_ms).toISOString().slice(0, 10)

/** Warned this long ahead unless the duty says otherwise. */
const ahead_days = 14
/** Beyond this nothing is foretold from use. */
const horizon_days = 3650

export interface HourReading {
  at: string
  hours: number
}

export interface NextDue {
  duty: string
  /** never: nothing on record, so not proven to be in date. */
  state: 'never' | 'overdue' | 'soon' | 'later'
  /** The day it falls due by the calendar or, by use, is expected to. */
  date: string | null
  /** The reading of the meter at which it falls due. */
  atHours: number | null
  hoursLeft: number | null
  daysLeft: number | null
  by: 'date' | 'use' | null
  /** Given by use, and use is not known. */
  note: string | null
}

/**
 * Hours a day from the meter's readings: from the first to the last of the latest six weeks. Null where fewer than two
 * readings on different days are there, or the meter went back.
 */
export function hoursPerDay(readings: readonly HourReading[]): number | null {
  const sorted = [...readings].sort((a, b) => a.at.localeCompare(b.at))
  const last = sorted.at(-1)
  if (!last) return null
  const first = sorted.find((r) => dayOf(last.at) - dayOf(r.at) <= 42)
  if (!first) return null
  const days = dayOf(last.at) - dayOf(first.at)
  const used = last.hours - first.hours
  return days < 1 || used < 0 ? null : used / days
}

/**
 * When a duty falls due next: by date from the day it was last done, by use from the meter then and the present use; the
 * earlier counts.
 * @param today ISO date
 */
export function nextDue(
  d: Duty,
  last: { at: string; hours: number | null } | null,
  readings: readonly HourReading[],
  today: string,
): NextDue {
  const none: NextDue = {
    duty: d.id,
    state: 'never',
    date: null,
    atHours: null,
    hoursLeft: null,
    daysLeft: null,
    by: null,
    note: 'Never recorded: not proven to be in date.',
  }
  if (!last) return none
  const now = dayOf(today)
  const byDate = d.every_days === undefined ? null : dayOf(last.at) + Math.floor(d.every_days)
  const meter = [...readings].sort((a, b) => a.at.localeCompare(b.at)).at(-1) ?? null
  const atHours = d.every_hours !== undefined && last.hours !== null ? last.hours + d.every_hours : null
  const hoursLeft = atHours !== null && meter ? atHours - meter.hours : null
  const rate = hoursPerDay(readings)
  let byUse: number | null = null
  let note: string | null = null
  if (d.every_hours !== undefined) {
    if (hoursLeft === null) note = 'The hours at which it was last done are not on record.'
    else if (hoursLeft <= 0) byUse = meter ? Math.min(now, dayOf(meter.at)) : now
    else if (rate !== null && rate > 0 && meter) {
      const ahead = hoursLeft / rate
      byUse = ahead > horizon_days ? null : dayOf(meter.at) + Math.floor(ahead)
    } else note = 'Use is not known well enough to say when.'
  }
  const due = byDate === null ? byUse : byUse === null ? byDate : Math.min(byDate, byUse)
  const overdue = (byDate !== null && byDate < now) || (hoursLeft !== null && hoursLeft <= 0)
  const soon = due !== null && due - now <= (d.ahead_days ?? ahead_days)
  if (due === null && hoursLeft === null) return { ...none, note: note ?? none.note }
  return {
    duty: d.id,
    state: overdue ? 'overdue' : soon ? 'soon' : 'later',
    date: due === null ? null : dateOf(due),
    atHours,
    hoursLeft,
    daysLeft: due === null ? null : due - now,
    by: due === null ? null : due === byDate ? 'date' : 'use',
    note,
  }
}

const order = { overdue: 0, never: 1, soon: 2, later: 3 } as const

/** The most pressing first; by date among equals. */
export function byUrgency(a: NextDue, b: NextDue): number {
  return order[a.state] - order[b.state] || (a.date ?? '9999').localeCompare(b.date ?? '9999')
}
