import type { HistoryFile, PastShift } from '@geolabe/contract'
import {
  assess,
  type Case,
  type LiftRecord,
  type Machine,
  type OrderStation,
  orderOf,
  partOfPlan,
  Refusal,
  reckonedBy,
  type SetupPlan,
  type Shift,
  type ShiftEvent,
  type SiteRecord,
  walkThrough,
  withEvent,
} from '@geolabe/core'
import type pg from 'pg'
import { version } from '../version'
import { readPlaceFile, readTableFile } from './files'

/** Minutes after a shift began: the site looked at, set up, then each lift proved, and done. */
const [site_min, setUp_min, first_min, each_min, done_min] = [31, 52, 74, 41, 13] as const
const after = (begun: Date, minutes: number) => new Date(begun.getTime() + minutes * 60_000)

export type Event = [kind: string, at: Date, body: Record<string, unknown>]

interface Proved {
  id: string
  at: Date
  done: Date
  lift: Pick<LiftRecord, 'plan' | 'conditions' | 'policy' | 'assessment' | 'versions'>
}

/** How a machine stood on a past day, and what it lifted or moved there, proved as it is today. */
export interface Worked {
  site: { at: Date; record: SiteRecord }
  setup: { id: string; at: Date; plan: SetupPlan }
  lifts: Proved[]
}

/**
 * @param looked who looked at the site, by name
 * @param ids of the set-up, and of each lift, the same every time that the world is laid out
 * @throws Refusal `not-inside` where what the file says was done is not inside its limits
 */
export function workedOn(
  history: HistoryFile,
  s: PastShift,
  m: Machine,
  begun: Date,
  looked: string,
  ids: (...parts: (string | number)[]) => string,
): Worked | null {
  const work = history.work[s.machine]
  if (!work || work.setup.place !== s.place) return null
  const at = after(begun, setUp_min)
  const confirmed = work.setup.confirmed.map((id) => ({ id, by: s.operator, at: at.toISOString() }))
  const plan: SetupPlan = { ...work.setup, confirmed }
  const place = readPlaceFile(s.place)
  const tables = m.tables.map(readTableFile)
  // Not the same every day: one to all of them, begun with another each time.
  const count = 1 + (s.daysAgo % work.lifts.length)
  const lifts = Array.from({ length: count }, (_, k): Proved => {
    const one = work.lifts[(s.daysAgo + k) % work.lifts.length]
    if (!one) throw new RangeError('no lift')
    const c: Case = { machine: m, tables, setup: plan, lift: one.plan, conditions: one.conditions, place, policy: place.policy }
    const assessment = assess(c)
    if (assessment.verdict !== 'inside' && assessment.verdict !== 'near')
      throw new Refusal(
        'not-inside',
        `${m.name}: ${one.plan.hung.load.name} is ${assessment.verdict}.`,
        `work.${s.machine}.lifts`,
      )
    const proved = after(begun, first_min + k * each_min)
    return {
      id: ids('lift', s.machine, s.daysAgo, k),
      at: proved,
      done: after(proved, done_min),
      lift: {
        plan: one.plan,
        conditions: one.conditions,
        policy: place.policy,
        assessment,
        versions: {
          geolabe: version,
          machine: { id: m.id, revision: m.revision },
          place: { id: place.id, revision: 1 },
          tables: tables.map((t) => ({ id: t.id, revision: t.revision })),
        },
      },
    }
  })
  const controls = place.hazards.map((h) => ({ hazard: h.id, control: h.control }))
  const site = { at: after(begun, site_min), record: { controls, more: [], team: [looked], fit: true } }
  return { site, setup: { id: ids('setup', s.machine, s.daysAgo), at, plan }, lifts }
}

const outcome = { outcome: 'done', reason: '' }

/** What happened, as events of the shift. */
export const eventsOf = ({ site, setup: { at, ...setup }, lifts }: Worked): Event[] => [
  ['site-recorded', site.at, { site: site.record }],
  ['setup-recorded', at, { setup }],
  ...lifts.flatMap((l): Event[] => [
    ['lift-proved', l.at, { lift: { id: l.id, setup: setup.id, ...l.lift } }],
    ['lift-outcome', l.done, { lift: l.id, outcome }],
  ]),
]

/** Where each of them asks for an order that has come to its goal. */
const afterOrder: Record<string, OrderStation> = { 'setup-recorded': 'setup', 'lift-outcome': 'lift', 'shift-closed': 'stow' }
/** Somebody who does it right has begun so long before. */
const order_ms = 5 * 60_000

/**
 * A past shift's events with every step of its order of work before what rests on it, done right and in turn.
 *
 * @param opened the shift as it was taken
 */
export function inOrder(m: Machine, opened: Shift, events: readonly Event[]): Event[] {
  const by = opened.operator
  let shift = opened
  return events.flatMap(([kind, at, body], n): Event[] => {
    const station = afterOrder[kind]
    const before = new Date(at.getTime() - order_ms)
    const told: Event[] = []
    const tell = (list: object[]) => {
      if (list.length === 0) return
      told.push(['order', before, { events: list }])
      shift = withEvent(shift, { kind: 'order', at: before.toISOString(), by, events: list } as ShiftEvent)
    }
    if (kind === 'setup-recorded')
      tell([
        {
          do: 'plan',
          id: `${n}.plan`,
          at: before.toISOString(),
          by,
          device: '',
          plan: partOfPlan((body.setup as { plan: SetupPlan }).plan),
        },
      ])
    if (station) {
      const { file, world } = orderOf(m, shift)
      tell(
        walkThrough(file, world, station, {
          by,
          from_ms: before.getTime(),
          id: (k) => `${n}.${k}`,
          computed: reckonedBy(m).computed,
        }),
      )
    }
    shift = withEvent(shift, { kind, at: at.toISOString(), by, ...body } as ShiftEvent)
    return [...told, [kind, at, body]]
  })
}

/** Kept as a shift keeps them, and in the journal. */
export async function keepWorked(client: pg.Client, org: string, shift: string, { site, setup, lifts }: Worked): Promise<void> {
  await client.query('update shift set site = $3 where org = $1 and id = $2', [
    org,
    shift,
    JSON.stringify({ ...site.record, at: site.at.toISOString() }),
  ])
  await client.query('insert into setup (org, id, shift, at, plan) values ($1, $2, $3, $4, $5)', [
    org,
    setup.id,
    shift,
    setup.at,
    JSON.stringify(setup.plan),
  ])
  const tell = (kind: string, body: object) =>
    client.query('select journal_append($1, $2, $3)', [kind, shift, JSON.stringify(body)])
  await tell('site-recorded', site.record)
  await tell('setup-recorded', { setup: setup.id, plan: setup.plan })
  for (const l of lifts) {
    const { plan, conditions, policy, assessment, versions } = l.lift
    await client.query(
      'insert into lift (org, id, shift, setup, at, plan, conditions, policy, assessment, versions, outcome) values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11)',
      [
        org,
        l.id,
        shift,
        setup.id,
        l.at,
        ...[plan, conditions, policy, assessment, versions].map((x) => JSON.stringify(x)),
        JSON.stringify({ ...outcome, at: l.done.toISOString() }),
      ],
    )
    await tell('lift-proved', {
      lift: l.id,
      plan,
      conditions,
      verdict: assessment.verdict,
      governing: assessment.governing?.id ?? null,
    })
    await tell('lift-outcome', { lift: l.id, ...outcome })
  }
}
