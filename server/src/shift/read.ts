import type { LiftRecord, SetupRecord, Shift, ShiftPage, WalkMark } from '@geolabe/contract'
import type { RoundTime } from '@geolabe/core'
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
  hand_over: Shift['handOver']
}

const from = `from shift s
  join machine m on m.org = s.org and m.id = s.machine
  join place pl on pl.org = s.org and pl.id = s.place
  join person p on p.org = s.org and p.id = s.operator`

export async function readShift(tx: Tx, id: string): Promise<Shift> {
  const r = await tx.query<Row>(
    `select s.*, m.document->>'name' as machine_name, pl.document->>'name' as place_name, p.name as operator_name ${from} where s.id = $1`,
    [id],
  )
  const s = r.rows[0]
  if (!s) throw notFound('This shift')
  const marks = await tx.query<Omit<WalkMark, 'at'> & { round: string; at: Date }>(
    'select round, item, result, reading, at, device, because from walk_mark where shift = $1 order by at, item',
    [id],
  )
  const rounds = await tx.query<{
    id: string
    time: RoundTime
    opened_at: Date
    finished_at: Date | null
    raised_at: Date | null
    hands_on_at: Date | null
  }>('select id, time, opened_at, finished_at, raised_at, hands_on_at from inspection where shift = $1 order by opened_at, id', [
    id,
  ])
  const sequences = await tx.query<Omit<Shift['sequences'][number], 'at'> & { at: Date }>(
    'select id, procedure, steps, at from sequence_done where shift = $1 order by at, id',
    [id],
  )
  const overrides = await tx.query<
    Omit<Shift['overrides'][number], 'at' | 'followedAt'> & { at: Date; followed_at: Date | null }
  >(
    'select id, override, label, reason, seconds, at, after, follow_role as role, followed_at from override_use where shift = $1 order by at, id',
    [id],
  )
  const setups = await tx.query<Omit<SetupRecord, 'at'> & { at: Date }>(
    'select id, at, plan, steps from setup where shift = $1 order by at, id',
    [id],
  )
  const lifts = await tx.query<Omit<LiftRecord, 'at'> & { at: Date }>(
    'select id, setup, at, plan, conditions, policy, assessment, versions, outcome from lift where shift = $1 order by at, id',
    [id],
  )
  const iso = <T extends { at: Date }>(row: T) => ({ ...row, at: row.at.toISOString() })
  const marksOf = (round: string) =>
    marks.rows.filter((m) => m.round === round).map(({ round: _r, ...m }) => ({ ...m, at: m.at.toISOString() }))
  const first = rounds.rows.find((r) => r.id === id)
  return {
    id: s.id,
    machine: { id: s.machine, name: s.machine_name, revision: s.machine_revision },
    place: { id: s.place, name: s.place_name },
    operator: { id: s.operator, name: s.operator_name },
    openedAt: s.opened_at.toISOString(),
    closedAt: s.closed_at?.toISOString() ?? null,
    signOn: s.sign_on,
    walk: {
      marks: marksOf(id),
      finishedAt: first?.finished_at?.toISOString() ?? null,
      raisedAt: first?.raised_at?.toISOString() ?? null,
      handsOnAt: first?.hands_on_at?.toISOString() ?? null,
    },
    rounds: rounds.rows
      .filter((r) => r.id !== id)
      .map((r) => ({
        id: r.id,
        time: r.time,
        openedAt: r.opened_at.toISOString(),
        marks: marksOf(r.id),
        finishedAt: r.finished_at?.toISOString() ?? null,
      })),
    sequences: sequences.rows.map(iso),
    overrides: overrides.rows.map(({ followed_at, ...o }) => ({ ...iso(o), followedAt: followed_at?.toISOString() ?? null })),
    site: s.site,
    movedAt: s.moved_at?.toISOString() ?? null,
    setups: setups.rows.map(iso),
    lifts: lifts.rows.map(iso),
    handOver: s.hand_over,
  }
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

/** The shift as it is changed by its own operator while open. */
export async function ownOpenShift(tx: Tx, id: string): Promise<{ machine: string; place: string }> {
  const r = await tx.query<{ machine: string; place: string; operator: string; closed_at: Date | null }>(
    'select machine, place, operator, closed_at from shift where id = $1',
    [id],
  )
  const s = r.rows[0]
  if (!s) throw notFound('This shift')
  if (s.operator !== tx.who.person) throw new Problem(403, 'not-your-shift', 'This shift belongs to somebody else.')
  if (s.closed_at) throw new Problem(409, 'shift-closed', 'This shift has been handed over; nothing more is added to it.')
  return s
}
