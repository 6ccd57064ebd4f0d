import type { HandOverNote, MachineFile, Yard, YardMachine } from '@geolabe/contract'
import { type BoomTable, isBoomTable, type Machine, type Place, type RatingTable } from '@geolabe/core'
import type { Tx } from '../db/database'
import { defectsWhere } from '../defects/read'
import { notFound } from '../http/routes'
import { revisionInUse } from '../tables/routes'

interface Row {
  id: string
  document: Machine
  stopped: boolean
  shift: string | null
  opened_at: Date | null
  operator: string | null
  operator_name: string | null
  place_name: string | null
  by_id: string | null
  by_where: string | null
  by_words: string | null
  by_grade: string | null
  by_state: string | null
  watched: string
  closed_at: Date | null
  hand_over: { hours: number | null; fuel_share: number | null; words: string; standsAt: string } | null
  handed_by: string | null
  handed_by_name: string | null
}

const select = `
  select m.id, m.document, machine_stopped(m.org, m.id) as stopped,
    s.id as shift, s.opened_at, s.operator, p.name as operator_name, pl.document->>'name' as place_name,
    d.id as by_id, d.place_on_machine as by_where, d.words as by_words, d.grade as by_grade, d.state as by_state,
    (select count(*) from defect w where w.org = m.org and w.machine = m.id and w.grade = 'watch' and w.state <> 'returned') as watched,
    l.closed_at, l.hand_over, l.operator as handed_by, lp.name as handed_by_name
  from machine m
  left join shift s on s.org = m.org and s.machine = m.id and s.closed_at is null
  left join person p on p.org = s.org and p.id = s.operator
  left join place pl on pl.org = s.org and pl.id = s.place
  left join lateral (
    select * from defect x where x.org = m.org and x.machine = m.id and x.grade in ('danger', 'harm') and x.state <> 'returned'
    order by x.grade, x.raised_at limit 1
  ) d on true
  left join lateral (
    select * from shift y where y.org = m.org and y.machine = m.id and y.hand_over is not null and y.imported is null
    order by y.closed_at desc limit 1
  ) l on true
  left join person lp on lp.org = l.org and lp.id = l.operator`

function yardMachine(r: Row): YardMachine {
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
    hours: r.hand_over?.hours ?? null,
    lastHandOver: r.closed_at?.toISOString() ?? null,
  }
}

export async function readYard(tx: Tx): Promise<Yard> {
  const r = await tx.query<Row>(`${select} order by m.id limit 500`)
  return { machines: r.rows.map(yardMachine) }
}

export async function readMachine(tx: Tx, id: string): Promise<MachineFile> {
  const r = await tx.query<Row>(`${select} where m.id = $1`, [id])
  const row = r.rows[0]
  if (!row) throw notFound('This machine')
  const open = await defectsWhere(tx, "d.machine = $1 and d.state <> 'returned'", [id], 100)
  const handOver: HandOverNote | null =
    row.hand_over && row.closed_at && row.handed_by
      ? { by: { id: row.handed_by, name: row.handed_by_name ?? '' }, at: row.closed_at.toISOString(), ...pick(row.hand_over) }
      : null
  return {
    definition: row.document,
    tables: await tablesOf(tx, id),
    state: yardMachine(row),
    watched: open.filter((d) => d.grade === 'watch'),
    stopping: open.filter((d) => d.grade !== 'watch'),
    handOver,
  }
}

const pick = (h: NonNullable<Row['hand_over']>) => ({
  words: h.words,
  hours: h.hours,
  fuel_share: h.fuel_share,
  standsAt: h.standsAt,
})

/** The revision in use of each table of a machine that a lift on legs is proved with. */
export async function tablesOf(tx: Tx, machine: string): Promise<BoomTable[]> {
  const r = await tx.query<{ document: RatingTable }>(
    `select t.document from rating_table t join (${revisionInUse}) u on u.id = t.id and u.revision = t.revision where t.machine = $1 order by t.id`,
    [machine],
  )
  return r.rows.map((x) => x.document).filter(isBoomTable)
}

export async function machineNamed(tx: Tx, id: string): Promise<Machine> {
  const r = await tx.query<{ document: Machine }>('select document from machine where id = $1', [id])
  if (!r.rows[0]) throw notFound('This machine')
  return r.rows[0].document
}

export async function readPlaces(tx: Tx): Promise<{ places: Place[] }> {
  const r = await tx.query<{ document: Place }>('select document from place order by id limit 500')
  return { places: r.rows.map((x) => x.document) }
}

export async function placeNamed(tx: Tx, id: string): Promise<Place> {
  const r = await tx.query<{ document: Place }>('select document from place where id = $1', [id])
  if (!r.rows[0]) throw notFound('This place')
  return r.rows[0].document
}
