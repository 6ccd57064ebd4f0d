import type { ShiftPage } from '@geolabe/contract'
import { project, type Shift, type ShiftEvent } from '@geolabe/core'
import type { Request } from 'express'
import type { Tx } from '../db/database'
import { notFound } from '../http/routes'
import { Problem } from '../problem/problem'

interface Row {
  id: string
  machine: string
  machine_name: string
  machine_revision: number
  place: string
  place_name: string
  operator: string
  operator_name: string
  opened_at: Date
  closed_at: Date | null
  sign_on: Shift['signOn']
  site: Shift['site']
  moved_at: Date | null
  handover: Shift['handover']
}

const from = `from shift s
  join machine m on m.org = s.org and m.id = s.machine
  join place pl on pl.org = s.org and pl.id = s.place
  join person p on p.org = s.org and p.id = s.operator`

/** What happened in a shift, in the order it was recorded. */
export async function eventsOf(tx: Tx, id: string): Promise<ShiftEvent[]> {
  const r = await tx.query<{ at: Date; kind: string; body: object; actor: string; name: string }>(
    `select e.at, e.kind, e.body, e.actor, p.name from shift_event e join person p on p.org = e.org and p.id = e.actor
     where e.shift = $1 order by e.seq`,
    [id],
  )
  return r.rows.map(
    (e) => ({ kind: e.kind, at: e.at.toISOString(), by: { id: e.actor, name: e.name }, ...e.body }) as unknown as ShiftEvent,
  )
}

/** A shift: what its events make of it. */
export async function readShift(tx: Tx, id: string): Promise<Shift> {
  const events = await eventsOf(tx, id)
  if (events.length === 0) throw notFound('This shift')
  return project(events)
}

const pageSize = 50

/** Shifts, newest first, paged by the moment they were opened. */
export async function listShifts(tx: Tx, req: Request): Promise<ShiftPage> {
  const before = typeof req.query.before === 'string' ? new Date(req.query.before) : null
  if (before && Number.isNaN(before.getTime()))
    throw new Problem(422, 'bad-input', 'Give a moment as the last page did.', 'before')
  const mine = req.query.mine === undefined ? null : tx.who.person
  const r = await tx.query<Row & { lifts: string }>(
    `select s.*, m.document->>'name' as machine_name, pl.document->>'name' as place_name, p.name as operator_name,
      (select count(*) from lift l where l.org = s.org and l.shift = s.id) as lifts
    ${from} where ($1::timestamptz is null or s.opened_at < $1) and ($2::text is null or (s.operator = $2 and s.closed_at is null))
    order by s.opened_at desc, s.id limit ${pageSize + 1}`,
    [before, mine],
  )
  const page = r.rows.slice(0, pageSize).map((s) => ({
    id: s.id,
    machine: { id: s.machine, name: s.machine_name },
    place: s.place_name,
    operator: { id: s.operator, name: s.operator_name },
    openedAt: s.opened_at.toISOString(),
    closedAt: s.closed_at?.toISOString() ?? null,
    lifts: Number(s.lifts),
  }))
  return { shifts: page, next: r.rows.length > pageSize ? (page[page.length - 1]?.openedAt ?? null) : null }
}

/** A shift that is not handed over yet. */
export async function openShift(tx: Tx, id: string): Promise<{ machine: string; place: string; operator: string }> {
  const r = await tx.query<{ machine: string; place: string; operator: string; closed_at: Date | null }>(
    'select machine, place, operator, closed_at from shift where id = $1',
    [id],
  )
  const s = r.rows[0]
  if (!s) throw notFound('This shift')
  if (s.closed_at) throw new Problem(409, 'shift-closed', 'This shift has been handed over; nothing more is added to it.')
  return s
}

/** The shift as it is changed by its own operator while open. */
export async function ownOpenShift(tx: Tx, id: string): Promise<{ machine: string; place: string }> {
  const s = await openShift(tx, id)
  if (s.operator !== tx.who.person) throw new Problem(403, 'not-your-shift', 'This shift belongs to somebody else.')
  return s
}
