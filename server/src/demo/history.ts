import { createHash } from 'node:crypto'
import { expectedOnPlate, itemsOf, type Machine, soundReading } from '@geolabe/core'
import type pg from 'pg'
import { readMachineFile, readTableFile } from './files'

const org = 'skarrow-haven'
const day_ms = 86_400_000

const at = (daysAgo: number, hour: number) => {
  const d = new Date(Date.now() - daysAgo * day_ms)
  d.setUTCHours(0, 0, 0, 0)
  return new Date(d.getTime() + hour * 3_600_000)
}
const dateAgo = (daysAgo: number) => new Date(Date.now() - daysAgo * day_ms).toISOString().slice(0, 10)

/** The same words give the same id, so that laying out twice adds nothing. */
const idOf = (...parts: (string | number)[]) => {
  const h = createHash('sha256').update(parts.join('|')).digest('hex')
  return `${h.slice(0, 8)}-${h.slice(8, 12)}-4${h.slice(13, 16)}-a${h.slice(17, 20)}-${h.slice(20, 32)}`
}
/** A figure between nothing and one that looks like chance and is always the same. */
const wobble = (...parts: (string | number)[]) =>
  Number.parseInt(createHash('sha256').update(parts.join('|')).digest('hex').slice(0, 8), 16) / 2 ** 32

interface Past {
  machine: string
  daysAgo: number
  operator: string
  hours: number | null
  fuel_share?: number
  words: string
  standsAt: string
  readings?: Record<string, number>
  defects?: string[]
  /** From the first item to the last; left out: as somebody takes who looks. */
  seconds?: number
}

const tomas = 'tomas-brekke'
const ines = 'ines-haldane'

/** About six weeks of shifts: a fork heel wears towards its limit, a rope thins, one round is always walked in a minute. */
function sixWeeks(): Past[] {
  const days = [41, 38, 35, 32, 28, 25, 21, 18, 14, 11, 9, 6, 4, 2]
  const tern = days.map(
    (daysAgo, i): Past => ({
      machine: 'tern',
      daysAgo,
      operator: i % 2 === 0 ? tomas : ines,
      hours: 3760 + i * 4.5 + (daysAgo === 2 ? 3.5 : 0),
      fuel_share: [0.8, 0.65, 0.5, 0.4, 0.9, 0.75, 0.6][i % 7] ?? 0.5,
      standsAt: 'Beside the market wall',
      words:
        daysAgo === 6
          ? 'Rear left jack hose sweats at the upper fitting; entered to watch.'
          : daysAgo === 2
            ? 'Rope is thinning near the drum, still inside. Left beside the market wall, legs in, hook tied.'
            : 'Nothing out of the way.',
      readings: { rope: Math.round((15.78 - i * 0.0215) * 100) / 100 },
    }),
  )
  const puffin = days.slice(0, 13).map(
    (daysAgo, i): Past => ({
      machine: 'puffin',
      daysAgo: daysAgo - 0.001,
      operator: ines,
      hours: 7210 + i * 6,
      fuel_share: [0.7, 0.5, 0.3, 0.9][i % 4] ?? 0.5,
      standsAt: 'Net store, bay 2',
      words: daysAgo === 4 ? 'Left fork heel is near its limit; it was measured twice.' : 'Clamp work, nothing out of the way.',
      readings: { 'fork-l': Math.round((38.2 - i * 0.115) * 100) / 100, 'fork-r': Math.round((38.9 - i * 0.03) * 100) / 100 },
    }),
  )
  const whimbrel = [20, 17, 15, 12, 10, 7, 5, 3].map(
    (daysAgo, i): Past => ({
      machine: 'whimbrel',
      daysAgo,
      operator: tomas,
      hours: 5120 + i * 5,
      fuel_share: 0.6,
      standsAt: 'Foot of the ramp',
      words: '',
      seconds: 34 + (i % 3),
    }),
  )
  const gannet = [30, 23, 16, 8].map(
    (daysAgo, i): Past => ({
      machine: 'gannet',
      daysAgo,
      operator: ines,
      hours: 1890 + i * 3,
      fuel_share: 0.55 - i * 0.05,
      standsAt: 'Bay under the crane shed',
      words: i === 0 ? 'Stop at the rear right leg did nothing; entered as danger.' : 'Two boats out, one in.',
      ...(i === 0 ? { defects: ['stops'] } : {}),
    }),
  )
  const others = (
    [
      ['heron', tomas, 2210, 13],
      ['dunlin', ines, 9040, 3],
      ['godwit', tomas, 3420, 5],
      ['curlew', ines, 1610, 11],
      ['turnstone', ines, 640, 19],
      ['dipper', tomas, 310, 1],
      ['cormorant', ines, 4105, 22],
      ['wren', tomas, 88, 26],
    ] as const
  ).flatMap(([machine, operator, hours, daysAgo]) =>
    [daysAgo + 10, daysAgo].map(
      (d, i): Past => ({
        machine,
        daysAgo: d,
        operator,
        hours: hours + i * 7,
        fuel_share: i === 0 ? 0.8 : machine === 'dunlin' ? 0.26 : 0.5,
        standsAt: 'its own place',
        words: 'Nothing out of the way.',
      }),
    ),
  )
  return [...tern, ...puffin, ...whimbrel, ...gannet, ...others].sort((a, b) => b.daysAgo - a.daysAgo)
}

async function shift(client: pg.Client, s: Past, m: Machine): Promise<string> {
  const id = idOf('shift', s.machine, Math.round(s.daysAgo))
  const begun = at(Math.round(s.daysAgo), 7 + wobble('begun', id) * 1.5)
  const ended = at(Math.round(s.daysAgo), 15 + wobble('ended', id) * 1.5)
  await client.query("select set_config('app.org', $1, true), set_config('app.person', $2, true)", [org, s.operator])
  const hand = {
    steps: m.procedures.stow.map((x) => x.id),
    hours: m.hours ? s.hours : null,
    fuel_share: m.energy ? (s.fuel_share ?? null) : null,
    standsAt: s.standsAt,
    words: s.words,
    leftAs: '',
    limitsOn: '',
    at: ended.toISOString(),
  }
  await client.query(
    `insert into shift (org, id, machine, machine_revision, place, operator, opened_at, closed_at, sign_on, handover)
     values ($1, $2, $3, $4, 'north-quay', $5, $6, $7, $8, $9)`,
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
    ],
  )
  const items = itemsOf(m.walkround)
  const seconds = s.seconds ?? items.length * (9 + wobble('pace', id) * 6)
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
    result: s.defects?.includes(item.id)
      ? 'defect'
      : item.mayBeMissing && wobble('fitted', m.id, item.id) < 0.4
        ? 'not-fitted'
        : 'in-order',
    reading: item.measure ? (s.readings?.[item.id] ?? soundReading(item.measure)) : null,
    at: new Date(begun.getTime() + i * step).toISOString(),
  }))
  await client.query(
    `insert into inspection_entry (org, shift, inspection, machine, item, result, reading, at)
     select $1, $2, $2, $3, item, result, case when result = 'not-fitted' then null else reading end, at
     from json_to_recordset($4) as r(item text, result text, reading float8, at timestamptz)`,
    [org, id, m.id, JSON.stringify(rows)],
  )
  await tellShift(client, s, m, {
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
      JSON.stringify({ machine: m.id, place: 'north-quay' }),
      JSON.stringify({ machine: m.id, items: items.length }),
      JSON.stringify({ machine: m.id, ...hand }),
    ],
  )
  return id
}

interface Told {
  id: string
  begun: Date
  finished: Date
  ended: Date
  rows: readonly { item: string; result: string; reading: number | null; at: string }[]
  handover: { at: string } & Record<string, unknown>
}

/** What happened in a past shift, as its events. */
async function tellShift(client: pg.Client, s: Past, m: Machine, t: Told): Promise<void> {
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
        place: { id: 'north-quay', name: 'North Quay' },
        signOn: { ppe: m.ppe.map((x) => x.id), documents: m.documents.map((x) => x.id) },
      },
    ],
    ['inspection-opened', t.begun, { inspection: t.id, occasion: 'pre-use' }],
    ...t.rows.map((r): [string, string, object] => ['inspection-entry', r.at, { inspection: t.id, entry: entry(r) }]),
    ['inspection-finished', t.finished, { inspection: t.id, part: 'first' }],
    ['inspection-finished', t.finished, { inspection: t.id, part: 'raised' }],
    ['shift-closed', t.ended, { handover: { leftAsItStands: null, ...handover } }],
  ]
  await client.query(
    `insert into shift_event (org, shift, at, actor, kind, body)
     select $1, $2, at, $3, kind, body from json_to_recordset($4) as r(n int, kind text, at timestamptz, body jsonb) order by n`,
    [org, t.id, s.operator, JSON.stringify(events.map(([kind, at, body], n) => ({ n, kind, at, body })))],
  )
}

interface PastDefect {
  machine: string
  shiftDaysAgo: number | null
  item: string | null
  where: string
  words: string
  grade: 'danger' | 'harm' | 'watch'
  daysAgo: number
  by: string
  spot?: { view: 'plan' | 'side'; at: [number, number] }
  /** Repaired, looked at by another, returned: so many days ago. */
  repaired?: { daysAgo: number; words: string; parts: string; hours: number; checked: string }
  watchedUntil?: number
}

const past: PastDefect[] = [
  {
    machine: 'tern',
    shiftDaysAgo: 6,
    item: 'leg-rl',
    where: 'Rear left · Rear left leg',
    words: 'Sweating at the upper hose fitting of the jack; no drip yet',
    grade: 'watch',
    daysAgo: 6,
    by: ines,
    spot: { view: 'plan', at: [-3.05, 1.35] },
    watchedUntil: 9,
  },
  {
    machine: 'gannet',
    shiftDaysAgo: 30,
    item: 'stops',
    where: 'Engine slow until warm · Stops: cab and all four legs',
    words: 'Stop at the rear right leg does nothing',
    grade: 'danger',
    daysAgo: 30,
    by: ines,
    repaired: {
      daysAgo: 28,
      words: 'Broken wire in the stop circuit at the gland, new cable drawn',
      parts: 'Cable 12 m, one gland',
      hours: 3.5,
      checked: 'All five stops tried, each kills the engine',
    },
  },
  {
    machine: 'avocet',
    shiftDaysAgo: null,
    item: null,
    where: 'Hand and arms · Grip cylinder',
    words: 'Grip opens slowly by itself with a fender in it',
    grade: 'danger',
    daysAgo: 3,
    by: ines,
    spot: { view: 'plan', at: [3.1, 0.7] },
  },
]

async function defect(client: pg.Client, d: PastDefect): Promise<void> {
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
      at(d.daysAgo, 7.6),
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
  await step(wil, at(d.daysAgo, 8.2), 'acknowledge', '', {}, 'defect-seen')
  if (d.watchedUntil) {
    const until_date = new Date(Date.now() + d.watchedUntil * day_ms).toISOString().slice(0, 10)
    const words = 'Look at it every morning; a drip ends it'
    await step(wil, at(d.daysAgo, 8.4), 'watch', words, { until_date, until_hours: null }, 'defect-watched')
  }
  if (!d.repaired) return
  const m = d.repaired
  await step(
    'rafiq-dunmore',
    at(m.daysAgo, 11),
    'repair',
    m.words,
    { words: m.words, parts: m.parts, hours: m.hours },
    'defect-repaired',
  )
  await step(wil, at(m.daysAgo, 13), 'verify', m.checked, {}, 'defect-verified')
  await step(wil, at(m.daysAgo, 14), 'return', 'Seen working', {}, 'defect-returned')
}

/** When each duty was last done, so that some are overdue, some soon, some never recorded. */
async function duties(client: pg.Client, m: Machine, last: Past | undefined): Promise<void> {
  const hours = last?.hours ?? null
  for (const d of m.duties) {
    // Done with each walk-round.
    if (d.kind === 'daily' && !last) continue
    const every = d.every_days ?? 365
    const used = wobble('duty', m.id, d.id)
    if (used < 0.06 && d.kind !== 'daily') continue
    const daysAgo = d.kind === 'daily' ? Math.round(last?.daysAgo ?? 0) : Math.round(every * (0.15 + used * 0.88))
    const back = d.every_hours === undefined ? null : Math.max(0, (hours ?? 0) - Math.round(d.every_hours * (0.2 + used * 0.75)))
    await client.query(
      'insert into duty_done (org, id, machine, duty, done_on, hours, by, words) values ($1, $2, $3, $4, $5, $6, $7, $8)',
      [
        org,
        idOf('duty', m.id, d.id),
        m.id,
        d.id,
        dateAgo(daysAgo),
        back,
        d.by === 'operator' ? ines : d.by === 'fitter' ? 'rafiq-dunmore' : 'wilhelmina-osei',
        '',
      ],
    )
  }
}

/** What the rating plates say; one machine's is still to be entered. */
async function plates(client: pg.Client, m: Machine): Promise<void> {
  if (m.id === 'wren') return
  const tables = m.tables.map(readTableFile)
  for (const f of m.plateFields) {
    const value =
      f.id === 'serial'
        ? `SH-${m.id.slice(0, 3).toUpperCase()}-${1000 + Math.round(wobble('serial', m.id) * 8999)}`
        : f.id === 'year'
          ? String(2006 + Math.round(wobble('year', m.id) * 17))
          : f.id === 'maker'
            ? 'Holm Lifting Works'
            : f.id === 'model'
              ? `${m.name} ${10 + Math.round(wobble('model', m.id) * 80)}`
              : String(expectedOnPlate(f, tables) ?? 'As in the table on file')
    await client.query('insert into plate_value (org, machine, field, value) values ($1, $2, $3, $4)', [org, m.id, f.id, value])
  }
}

export async function seedHistory(client: pg.Client, machines: readonly string[]): Promise<void> {
  const whole = new Map(machines.map((id) => [id, readMachineFile(id)]))
  const shifts = sixWeeks()
  for (const s of shifts) {
    const m = whole.get(s.machine)
    if (m) await shift(client, s, m)
  }
  for (const d of past) await defect(client, d)
  for (const m of whole.values()) {
    const last = shifts.filter((s) => s.machine === m.id).at(-1)
    await duties(client, m, last)
    await plates(client, m)
  }
}
