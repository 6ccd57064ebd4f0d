import { createHash } from 'node:crypto'
import type { HistoryFile, PastDefect, PastShift } from '@geolabe/contract'
import { itemsOf, type Machine, project, Refusal, type ShiftEvent, soundReading } from '@geolabe/core'
import type pg from 'pg'
import { readMachineFile, readOrganisations, readPlaceFile } from './files'
import { type Event, eventsOf, inOrder, keepWorked, type Worked, workedOn } from './worked'

const day_ms = 86_400_000

/** So many days ago at a time of day, UTC. */
const at = (daysAgo: number, clock: string) => {
  const [hours = 0, minutes = 0] = clock.split(':').map(Number)
  const d = new Date(Date.now() - daysAgo * day_ms)
  d.setUTCHours(hours, minutes, 0, 0)
  return d
}
const dateAgo = (daysAgo: number) => new Date(Date.now() - daysAgo * day_ms).toISOString().slice(0, 10)

/** The same words give the same id, so that laying out twice adds nothing. */
const idOf = (...parts: (string | number)[]) => {
  const h = createHash('sha256').update(parts.join('|')).digest('hex')
  return `${h.slice(0, 8)}-${h.slice(8, 12)}-4${h.slice(13, 16)}-a${h.slice(17, 20)}-${h.slice(20, 32)}`
}

/** @throws Refusal where a past shift speaks of an item that this machine's walk-round has not */
function refuseUnknownItems(s: PastShift, m: Machine, i: number): void {
  const known = new Set(itemsOf(m.walkround).map(({ item }) => item.id))
  for (const [field, ids] of [
    ['readings', Object.keys(s.readings ?? {})],
    ['defects', s.defects ?? []],
    ['notFitted', s.notFitted ?? []],
  ] as const)
    for (const id of ids)
      if (!known.has(id)) throw new Refusal('unknown-item', `${m.name} has no item “${id}”.`, `shifts.${i}.${field}`)
}

/** @param operator by name */
async function shift(client: pg.Client, history: HistoryFile, s: PastShift, m: Machine, operator: string): Promise<void> {
  const org = history.organisation
  const id = idOf('shift', s.machine, s.daysAgo)
  const [begun, ended] = [at(s.daysAgo, s.from), at(s.daysAgo, s.to)]
  await client.query("select set_config('app.org', $1, true), set_config('app.person', $2, true)", [org, s.operator])
  const hand = {
    hours: s.hours ?? null,
    fuel_share: s.fuel_share ?? null,
    standsAt: s.standsAt,
    words: s.words,
    leftAs: '',
    limitsOn: '',
    at: ended.toISOString(),
  }
  await client.query(
    `insert into shift (org, id, machine, machine_revision, place, operator, opened_at, closed_at, sign_on, handover)
     values ($1, $2, $3, $4, $10, $5, $6, $7, $8, $9)`,
    [
      org,
      id,
      m.id,
      m.revision,
      s.operator,
      begun,
      ended,
      JSON.stringify({ ppe: m.ppe.map((x) => x.id), documents: m.documents.map((p) => p.id) }),
      JSON.stringify(hand),
      s.place,
    ],
  )
  const items = itemsOf(m.walkround)
  const seconds = s.walkround_s
  const step = (seconds * 1000) / Math.max(1, items.length - 1)
  await client.query(
    `insert into inspection (org, id, shift, machine, occasion, by, opened_at, finished_at, raised_at, items, defects, duration_s)
     values ($1, $2, $2, $3, 'pre-use', $4, $5, $6, $6, $7, $8, $9)`,
    [
      org,
      id,
      m.id,
      s.operator,
      begun,
      new Date(begun.getTime() + seconds * 1000 + 5000),
      items.length,
      s.defects?.length ?? 0,
      seconds,
    ],
  )
  const rows = items.map(({ item }, i) => ({
    item: item.id,
    result: s.defects?.includes(item.id) ? 'defect' : s.notFitted?.includes(item.id) ? 'not-fitted' : 'in-order',
    reading: item.measure ? (s.readings?.[item.id] ?? soundReading(item.measure)) : null,
    at: new Date(begun.getTime() + i * step).toISOString(),
  }))
  await client.query(
    `insert into inspection_entry (org, shift, inspection, machine, item, result, reading, at)
     select $1, $2, $2, $3, item, result, case when result = 'not-fitted' then null else reading end, at
     from json_to_recordset($4) as r(item text, result text, reading float8, at timestamptz)`,
    [org, id, m.id, JSON.stringify(rows)],
  )
  const work = workedOn(history, s, m, begun, operator, idOf)
  if (work) await keepWorked(client, org, id, work)
  await tellShift(client, org, s, m, operator, {
    work,
    id,
    begun,
    ended,
    rows,
    finished: new Date(begun.getTime() + seconds * 1000 + 5000),
    handover: hand,
  })
  await client.query(
    "select journal_append('shift-opened', $1, $2), journal_append('inspection-finished', $1, $3), journal_append('shift-closed', $1, $4)",
    [
      id,
      JSON.stringify({ machine: m.id, place: s.place }),
      JSON.stringify({ machine: m.id, items: items.length }),
      JSON.stringify({ machine: m.id, ...hand }),
    ],
  )
}

interface Told {
  work: Worked | null
  id: string
  begun: Date
  finished: Date
  ended: Date
  rows: readonly { item: string; result: string; reading: number | null; at: string }[]
  handover: { at: string } & Record<string, unknown>
}

/** What happened in a past shift, as its events. */
async function tellShift(client: pg.Client, org: string, s: PastShift, m: Machine, operator: string, t: Told): Promise<void> {
  const { at: _at, ...handover } = t.handover
  const entry = (r: Told['rows'][number]) => ({
    ...r,
    reading: r.result === 'not-fitted' ? null : r.reading,
    device: '',
    because: null,
  })
  const events: [kind: string, at: Date | string, body: object][] = [
    [
      'shift-opened',
      t.begun,
      {
        shift: t.id,
        machine: { id: m.id, name: m.name, revision: m.revision },
        place: { id: s.place, name: readPlaceFile(s.place).name },
        signOn: { ppe: m.ppe.map((x) => x.id), documents: m.documents.map((x) => x.id) },
      },
    ],
    ['inspection-opened', t.begun, { inspection: t.id, occasion: 'pre-use' }],
    ...t.rows.map((r): [string, string, object] => ['inspection-entry', r.at, { inspection: t.id, entry: entry(r) }]),
    ['inspection-finished', t.finished, { inspection: t.id, part: 'first' }],
    ['inspection-finished', t.finished, { inspection: t.id, part: 'raised' }],
  ]
  const closed: Event = ['shift-closed', t.ended, { handover: { leftAsItStands: null, ...handover } }]
  const by = { id: s.operator, name: operator }
  const opened = project(
    events.slice(0, 2).map(([kind, at, body]) => ({ kind, at: new Date(at).toISOString(), by, ...body }) as ShiftEvent),
  )
  events.push(...(t.work ? inOrder(m, opened, [...eventsOf(t.work), closed]) : [closed]))
  await client.query(
    `insert into shift_event (org, shift, at, actor, kind, body)
     select $1, $2, at, $3, kind, body from json_to_recordset($4) as r(n int, kind text, at timestamptz, body jsonb) order by n`,
    [org, t.id, s.operator, JSON.stringify(events.map(([kind, at, body], n) => ({ n, kind, at, body })))],
  )
}

async function defect(client: pg.Client, org: string, d: PastDefect): Promise<void> {
  const id = idOf('defect', d.machine, d.words)
  const shiftId = d.shiftDaysAgo === null ? null : idOf('shift', d.machine, d.shiftDaysAgo)
  const as = (person: string) => client.query("select set_config('app.person', $1, true)", [person])
  const tell = (kind: string, body: object) =>
    client.query('select journal_append($1, $2, $3)', [kind, id, JSON.stringify({ machine: d.machine, ...body })])
  await as(d.by)
  await client.query(
    `insert into defect (org, id, machine, shift, item, place_on_machine, words, grade, raised_grade, raised_by, raised_at, spot)
     values ($1, $2, $3, $4, $5, $6, $7, $8, $8, $9, $10, $11)`,
    [
      org,
      id,
      d.machine,
      shiftId,
      d.item,
      d.where,
      d.words,
      d.grade,
      d.by,
      at(d.daysAgo, '07:36'),
      d.spot ? JSON.stringify(d.spot) : null,
    ],
  )
  await tell('defect-raised', { words: d.words, grade: d.grade })
  if (!d.repaired && !d.watchedUntil) return
  const step = async (by: string, moment: Date, action: string, words: string, detail: object, kind: string) => {
    await as(by)
    await client.query("select set_config('app.moment', $1, true)", [moment.toISOString()])
    await client.query('select defect_move($1, $2, $3, $4)', [id, action, words, JSON.stringify(detail)])
    await client.query("select set_config('app.moment', '', true)")
    await tell(kind, { words })
  }
  const wil = 'wilhelmina-osei'
  await step(wil, at(d.daysAgo, '08:12'), 'acknowledge', '', {}, 'defect-acknowledged')
  if (d.watchedUntil) {
    const until_date = new Date(Date.now() + d.watchedUntil * day_ms).toISOString().slice(0, 10)
    const words = 'Look at it every morning; a drip ends it'
    await step(wil, at(d.daysAgo, '08:24'), 'watch', words, { until_date, until_hours: null }, 'defect-watched')
  }
  if (!d.repaired) return
  const m = d.repaired
  await step(
    'rafiq-dunmore',
    at(m.daysAgo, '11:00'),
    'repair',
    m.words,
    { words: m.words, parts: m.parts, hours: m.hours },
    'defect-repaired',
  )
  await step(wil, at(m.daysAgo, '13:00'), 'verify', m.checked, {}, 'defect-verified')
  await step(wil, at(m.daysAgo, '14:00'), 'return', 'Seen working', {}, 'defect-returned')
}

/** Lays out what an organisation did before today. @throws Refusal naming what the file says that its machines have not */
export async function seedHistory(client: pg.Client, history: HistoryFile): Promise<void> {
  const { organisation: org, shifts, defects, duties, plates } = history
  const machines = new Map<string, Machine>()
  const machine = (id: string) => {
    const m = machines.get(id) ?? readMachineFile(id)
    machines.set(id, m)
    return m
  }
  const names = new Map(readOrganisations().flatMap((o) => o.people.map((p) => [p.id, p.name] as const)))
  for (const [i, s] of shifts.entries()) {
    refuseUnknownItems(s, machine(s.machine), i)
    await shift(client, history, s, machine(s.machine), names.get(s.operator) ?? s.operator)
  }
  for (const d of defects) await defect(client, org, d)
  for (const [i, d] of duties.entries()) {
    if (!machine(d.machine).duties.some((x) => x.id === d.duty))
      throw new Refusal('unknown-duty', `${machine(d.machine).name} has no duty “${d.duty}”.`, `duties.${i}.duty`)
    await client.query(
      'insert into duty_done (org, id, machine, duty, done_on, hours, by, words) values ($1, $2, $3, $4, $5, $6, $7, $8)',
      [org, idOf('duty', d.machine, d.duty), d.machine, d.duty, dateAgo(d.daysAgo), d.hours, d.by, ''],
    )
  }
  for (const [id, fields] of Object.entries(plates))
    for (const [field, value] of Object.entries(fields))
      await client.query('insert into plate_value (org, machine, field, value) values ($1, $2, $3, $4)', [org, id, field, value])
}
