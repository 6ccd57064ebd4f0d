import type { DueLine, DuePage, EnergyLine } from '@geolabe/contract'
import { byUrgency, energyPlan, hoursPerDay, type Machine, nextDue } from '@geolabe/core'
import type { Tx } from '../db/database'

const isoToday = () => new Date().toISOString().slice(0, 10)

interface Done {
  machine: string
  duty: string
  done_on: string
  hours: number | null
  by: string | null
  name: string | null
  words: string
}

/** The meter as it was read at handovers of the last six weeks and the last before them, oldest first. */
async function metersOf(tx: Tx, machines: readonly string[]) {
  const r = await tx.query<{ machine: string; at: Date; hours: number; share: number | null }>(
    `select s.machine, s.closed_at as at, (s.handover->>'hours')::float8 as hours, (s.handover->>'fuel_share')::float8 as share
     from unnest($1::text[]) as wanted(machine) cross join lateral (
       select * from shift x where x.org = current_org() and x.machine = wanted.machine and x.handover is not null
       order by x.opened_at desc limit 60) s
     where s.handover->>'hours' is not null order by s.machine, s.closed_at`,
    [machines],
  )
  return r.rows
}

/** Everything that falls due on these machines, the most pressing first. */
export async function dueLines(tx: Tx, machines: readonly Machine[], today = isoToday()): Promise<DueLine[]> {
  const ids = machines.map((m) => m.id)
  const done = await tx.query<Done>(
    `select distinct on (d.machine, d.duty) d.machine, d.duty, d.done_on::text as done_on, d.hours, d.by, p.name, d.words
     from duty_done d left join person p on p.org = d.org and p.id = d.by where d.machine = any($1)
     order by d.machine, d.duty, d.done_on desc, d.at desc`,
    [ids],
  )
  const meters = await metersOf(tx, ids)
  const lines = machines.flatMap((m) =>
    m.duties.map((duty) => {
      const last = done.rows.find((d) => d.machine === m.id && d.duty === duty.id)
      const readings = meters.filter((x) => x.machine === m.id).map((x) => ({ at: x.at.toISOString(), hours: x.hours }))
      const next = nextDue(duty, last ? { at: last.done_on, hours: last.hours } : null, readings, today)
      return { m, duty, last, next }
    }),
  )
  return lines
    .sort((a, b) => byUrgency(a.next, b.next))
    .map(({ m, duty, last, next }) => ({
      machine: m.id,
      machineName: m.name,
      duty: duty.id,
      label: duty.label,
      kind: duty.kind,
      by: duty.by,
      source: duty.source,
      every_days: duty.every_days ?? null,
      every_hours: duty.every_hours ?? null,
      state: next.state,
      date: next.date,
      daysLeft: next.daysLeft,
      hoursLeft: next.hoursLeft,
      atHours: next.atHours,
      expectedBy: next.by,
      note: next.note,
      last: last
        ? {
            on: last.done_on,
            hours: last.hours,
            by: last.by ? { id: last.by, name: last.name ?? last.by } : null,
            words: last.words,
          }
        : null,
    }))
}

export async function readDue(tx: Tx): Promise<DuePage> {
  const r = await tx.query<{ document: Machine }>('select document from machine order by id limit 500')
  const machines = r.rows.map((x) => x.document)
  const meters = await metersOf(
    tx,
    machines.map((m) => m.id),
  )
  const energy = machines.flatMap((m): EnergyLine[] => {
    if (!m.energy) return []
    const own = meters.filter((x) => x.machine === m.id)
    const hoursADay = hoursPerDay(own.map((x) => ({ at: x.at.toISOString(), hours: x.hours })))
    const plan = energyPlan(m.energy, own.at(-1)?.share ?? null, hoursADay)
    return [{ machine: m.id, machineName: m.name, kind: m.energy.kind, label: m.energy.label, hoursADay, ...plan }]
  })
  const rank = { 'refill-now': 0, 'refill-today': 1, 'read-it': 2, nothing: 3 }
  return {
    today: isoToday(),
    due: await dueLines(tx, machines),
    energy: energy.sort((a, b) => rank[a.action] - rank[b.action] || (a.share ?? 2) - (b.share ?? 2)),
  }
}
