import type { DueLine, HandoverNote, MachineFile, Yard, YardMachine } from '@geolabe/contract'
import { handoverLines, type Machine, nearLimits } from '@geolabe/core'
import type { Tx } from '../db/database'
import { defectsWhere, isOpen } from '../defects/read'
import { dueLines } from '../due/read'
import { notFound } from '../http/routes'
import { withOwn } from '../library/machine'
import { plateExpected, plateOf } from '../library/plate'
import { readingsOf } from '../library/readings'
import { tablesOf } from '../library/table'

interface Row {
  id: string
  document: Machine
  stopped: boolean
  shift: string | null
  opened_at: Date | null
  operator: string | null
  operator_name: string | null
  place_name: string | null
  last_place: string | null
  by_id: string | null
  by_where: string | null
  by_words: string | null
  by_grade: string | null
  by_state: string | null
  watched: string
  closed_at: Date | null
  handover: {
    hours: number | null
    fuel_share: number | null
    words: string
    standsAt: string
    leftAs?: string
    limitsOn?: string
  } | null
  hands_on_at: Date | null
  last_shift: string | null
  handed_by: string | null
  handed_by_name: string | null
}

const select = `
  select m.id, m.document, machine_stopped(m.org, m.id) as stopped,
    s.id as shift, s.opened_at, s.operator, p.name as operator_name, pl.document->>'name' as place_name,
    d.id as by_id, d.place_on_machine as by_where, d.words as by_words, d.grade as by_grade, d.state as by_state,
    (select count(*) from defect w where w.org = m.org and w.machine = m.id and w.grade = 'watch' and not w.pending and w.state not in ('returned', 'accepted')) as watched,
    hi.hands_on_at, l.id as last_shift, l.place as last_place, l.closed_at, l.handover, l.operator as handed_by, lp.name as handed_by_name
  from machine m
  left join shift s on s.org = m.org and s.machine = m.id and s.closed_at is null
  left join person p on p.org = s.org and p.id = s.operator
  left join inspection hi on hi.org = s.org and hi.id = s.id
  left join place pl on pl.org = s.org and pl.id = s.place
  left join lateral (
    select * from defect x where x.org = m.org and x.machine = m.id and (x.grade in ('hazard', 'damage') or x.pending) and x.state not in ('returned', 'accepted')
    order by gravity(x.grade) desc, x.raised_at limit 1
  ) d on true
  left join lateral (
    select * from shift y where y.org = m.org and y.machine = m.id and y.handover is not null
    order by y.closed_at desc limit 1
  ) l on true
  left join person lp on lp.org = l.org and lp.id = l.operator`

function yardMachine(r: Row, due: readonly DueLine[]): YardMachine {
  const next = due[0]
  return {
    id: r.id,
    name: r.document.name,
    kind: r.document.kind.label,
    note: r.document.note,
    state: r.stopped ? 'stopped' : r.shift ? 'in-use' : 'ready',
    holder:
      r.shift && r.operator && r.opened_at
        ? {
            person: { id: r.operator, name: r.operator_name ?? '' },
            since: r.opened_at.toISOString(),
            place: r.place_name ?? '',
            shift: r.shift,
          }
        : null,
    stoppedBy: r.by_id
      ? { id: r.by_id, where: r.by_where ?? '', words: r.by_words ?? '', grade: r.by_grade ?? '', state: r.by_state ?? '' }
      : null,
    watched: Number(r.watched),
    handsOn:
      r.hands_on_at && r.operator
        ? { person: { id: r.operator, name: r.operator_name ?? '' }, since: r.hands_on_at.toISOString() }
        : null,
    nextDue: next ? { label: next.label, state: next.state, date: next.date } : null,
    energy_share: r.handover?.fuel_share ?? null,
    hours: r.handover?.hours ?? null,
    lastHandover: r.closed_at?.toISOString() ?? null,
    lastPlace: r.last_place,
    drawing: {
      outline: { side: r.document.outline.side },
      ...(r.document.boom ? { boom: r.document.boom } : {}),
    },
  }
}

export async function readYard(tx: Tx): Promise<Yard> {
  const r = await tx.query<Row>(`${select} order by m.id limit 500`)
  const due = await dueLines(
    tx,
    r.rows.map((x) => x.document),
  )
  return {
    machines: r.rows.map((row) =>
      yardMachine(
        row,
        due.filter((d) => d.machine === row.id),
      ),
    ),
  }
}

export async function readMachine(tx: Tx, id: string): Promise<MachineFile> {
  const r = await tx.query<Row>(`${select} where m.id = $1`, [id])
  const row = r.rows[0]
  if (!row) throw notFound('This machine')
  const { definition, walkroundRevision, orderRevision } = await withOwn(tx, row.document)
  const open = await defectsWhere(tx, `d.machine = $1 and ${isOpen}`, [id], 100)
  const due = await dueLines(tx, [definition])
  const readings = await readingsOf(tx, id)
  const overrides = await tx.query<{ id: string; label: string; reason: string; after: string; role: string; at: Date }>(
    'select id, label, reason, after, follow_role as role, at from override_use where machine = $1 and followed_at is null order by at desc limit 20',
    [id],
  )
  const openOverrides = overrides.rows.map((o) => ({ ...o, at: o.at.toISOString() }))
  const h = row.handover
  const handover: HandoverNote | null =
    h && row.closed_at && row.handed_by
      ? {
          by: { id: row.handed_by, name: row.handed_by_name ?? '' },
          at: row.closed_at.toISOString(),
          words: h.words,
          hours: h.hours,
          fuel_share: h.fuel_share,
          standsAt: h.standsAt,
          lines: handoverLines({
            defects: open.map((d) => ({ where: d.where, words: d.words, grade: d.grade, worsened: d.worsenedAt !== null })),
            nearLimit: nearLimits(definition.walkround, readings),
            overrides: openOverrides.map((o) => ({ ...o, followed: false })),
            due: due.map((d) => ({ label: d.label, state: d.state, date: d.date })),
            hours: h.hours,
            energy: definition.energy ? { label: definition.energy.label, share: h.fuel_share } : null,
            standsAt: h.standsAt,
            leftAs: h.leftAs ?? '',
            limitsOn: h.limitsOn ?? '',
          }),
        }
      : null
  return {
    definition,
    walkroundRevision,
    orderRevision,
    tables: await tablesOf(tx, id),
    state: yardMachine(row, due),
    watched: open.filter((d) => d.grade === 'watch' && !d.pending),
    stopping: open.filter((d) => d.grade !== 'watch' || d.pending),
    handover,
    readings,
    plate: await plateOf(tx, definition),
    plateExpected: await plateExpected(tx, definition),
    lastDriven: await lastDriven(tx, id),
    due,
    openOverrides,
  }
}

/** The machine this person drove before, other than this one: what its controls were. */
async function lastDriven(tx: Tx, id: string): Promise<MachineFile['lastDriven']> {
  const r = await tx.query<{ id: string; document: Machine }>(
    `select m.id, m.document from shift s join machine m on m.org = s.org and m.id = s.machine
     where s.operator = $1 and s.machine <> $2 order by s.opened_at desc limit 1`,
    [tx.who.person, id],
  )
  const m = r.rows[0]
  return m ? { id: m.id, name: m.document.name, controls: m.document.controls } : null
}
