import { randomUUID } from 'node:crypto'
import { orderRequest } from '@geolabe/contract'
import {
  admits,
  ahead,
  apply,
  differing,
  type Machine,
  next,
  type OrderEvent,
  type OrderStation,
  type Override,
  offered,
  orderOf,
  owedAt,
  type PersonRef,
  type ProcedureFile,
  type Reckoning,
  reckonedBy,
  replay,
  type Shift,
  type StateValue,
  stepsOfFile,
  valuesOf,
  type World,
  withPlan,
} from '@geolabe/core'
import { type Request, Router } from 'express'
import type { z } from 'zod'
import type { Database, Tx } from '../db/database'
import { notFound, reads, trueMoment, uuidParam, writes } from '../http/routes'
import type { Sealing } from '../key/sealing'
import { machineNamed, machineTaken } from '../library/machine'
import { placeNamed } from '../library/place'
import { Problem } from '../problem/problem'
import { ownOpenShift, readShift } from './read'
import { record } from './record'
import { stopMachine, tellInCharge } from './stop-machine'

/** How the order of a shift stands in the records. */
export async function standing(tx: Tx, id: string, definition: Machine, place: string) {
  const shift = await readShift(tx, id)
  const { computed } = reckonedBy(definition)
  return { shift, computed, ...orderOf(definition, shift, await placeNamed(tx, place)) }
}

const asking = ({ computed }: Pick<Reckoning, 'computed'>) => ({ now_ms: Date.now(), computed })

/**
 * Stations of the order are left only when their procedures have come to their goals, as the same engine on the server finds from what was confirmed.
 *
 * @param plan what the write itself says of the plan, ahead of the record
 */
export async function requireOrder(
  tx: Tx,
  shift: { id: string; place: string; definition: Machine },
  stations: readonly OrderStation[],
  plan: Record<string, unknown> = {},
): Promise<void> {
  const s = await standing(tx, shift.id, shift.definition, shift.place)
  if (s.world.override) throw new Problem(409, 'override-held', 'An override is held: say that it was let go first.', 'override')
  if (s.world.symptom)
    throw new Problem(409, 'symptom-open', `“${s.world.symptom.symptom}” is being followed: go on to its end first.`, 'symptom')
  const world = withPlan(s.file, s.world, plan, Date.now())
  const [owed] = stations.flatMap((station) => owedAt(s.file, world, station, asking(s)))
  if (!owed) return
  const n = ahead(s.file, world, owed, asking(s))
  const first = 'step' in n ? n.step : 'blocked' in n ? n.blocked : null
  const why = 'blocked' in n ? ` ${n.unmet[0]?.because ?? ''}` : ''
  throw new Problem(422, 'not-confirmed', `Not confirmed yet: ${first?.label ?? owed.label}.${why}`, 'steps')
}

/** What is refused, with what would break. */
function refusal(file: ProcedureFile, e: OrderEvent, refused: string, unmet: readonly { because: string }[]): Problem {
  const label = 'step' in e ? (stepsOfFile(file).find((s) => s.id === e.step)?.label ?? e.step) : e.do
  const why = unmet.map((n) => n.because).join(' ')
  const status = refused === 'unknown-step' || refused === 'measure-range' ? 422 : 409
  return new Problem(
    status,
    refused,
    why === '' ? `“${label}” is no act of this machine’s order.` : `Not yet: ${label}. ${why}`,
    'events',
  )
}

/** So many states are shown side by side. */
const most_shown = 20

/**
 * Told where a device had not seen all that the records have: what was told elsewhere since, and both worlds where they differ.
 *
 * @param told the records before this request
 * @param own what this request brings that the records have not
 * @param after the last act that the device knew of, null: of none
 */
function behind(
  file: ProcedureFile,
  told: readonly OrderEvent[],
  own: readonly OrderEvent[],
  after: string | null,
  e: OrderEvent,
) {
  const known = told.findIndex((x) => x.id === after) + 1
  const unseen = told.length - known
  if ((after !== null && known === 0) || unseen === 0) return null
  const before = own.slice(0, own.indexOf(e))
  const apart = differing(file, replay(file, [...told.slice(0, known), ...before]), replay(file, [...told, ...before]))
  // Alike in every state, it would have been refused there too.
  if (apart.length === 0) return null
  return new Problem(
    409,
    'stale-world',
    `Acts told elsewhere that this device did not know of: ${unseen}. Look how it stands now, and go on from there.`,
    'after',
    apart.slice(0, most_shown).map((d) => ({
      code: d.id,
      why: `${d.label}: ${d.here} on this device, ${d.there} in the records.`,
      resolution: 'Confirm what it is now.',
    })),
  )
}

/** The second of two people, by badge and PIN; a device that only says so is not believed. */
export type WhoIs = (req: Request, badge: string, pin: string) => Promise<PersonRef>

/** An override that was let go, or that a stop has ended. */
interface Use {
  id: string
  override: Override
  seconds: number
  words: string
  /** How everything stood as it was begun, and as it was let go. */
  stood: { before: Readonly<Record<string, StateValue>>; after: Readonly<Record<string, StateValue>> }
}

/** So many uses in one shift are told to the person in charge. */
const too_often = 3

function useOf(file: ProcedureFile, before: World, after: World, e: OrderEvent): Use[] {
  const held = before.override
  const override = file.overrides.find((o) => o.id === held?.id)
  if (!held || !override || after.override) return []
  const seconds = Math.max(1, Math.round((Date.parse(e.at) - held.since_ms) / 1000))
  const words = e.do === 'override-end' ? e.words : ''
  return [{ id: randomUUID(), override, seconds, words, stood: { before: held.stood, after: valuesOf(after) } }]
}

/** Who used it, why, how long; what must follow holds the next lift, and some end the machine's day by themselves. */
async function recordUse(tx: Tx, shift: string, machine: string, { id, override: o, seconds, words, stood }: Use) {
  const reason = words || o.purpose
  const { what: after, by: role } = o.follow
  await tx.query(
    'insert into override_use (org, id, shift, machine, override, label, reason, seconds, after, follow_role, by) values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11)',
    [tx.who.org, id, shift, machine, o.id, o.label, reason, seconds, after, role, tx.who.person],
  )
  const use = { id, override: o.id, label: o.label, reason, seconds, after, role }
  const told = { machine, override: o.label, purpose: o.purpose, reason, seconds, longer: seconds > o.most_s, after, stood }
  await record(tx, shift, { kind: 'override-used', use }, told)
  if (o.stops) await stopMachine(tx, machine, shift, o.label, `${o.label} was used: ${reason}. ${after}.`)
  const uses = await tx.query<{ label: string }>('select label from override_use where shift = $1 order by at, id', [shift])
  if (uses.rows.length !== too_often) return
  const which = uses.rows.map((u) => u.label).join(', ')
  await tellInCharge(tx, machine, shift, 'Overrides', `${too_often} in one shift: ${which}. Ask why; look what is wrong.`)
}

/** Who the second person is that a request names, if it does; opened where a device has kept it sealed. */
async function secondOf({ second, events }: z.output<typeof orderRequest>, req: Request, whoIs: WhoIs, sealing: Sealing) {
  if (!second) return null
  const of = events.find((e) => e.do === 'second')
  const { badge, pin } = 'sealed' in second ? sealing.open(second.sealed, of?.id ?? '') : second
  return whoIs(req, badge, pin)
}

/**
 * Events judged one after another by the engine and recorded, with what follows from them: uses of overrides, a stopped machine.
 *
 * @param elsewhere what a refused one is told besides, where its device had not seen all that was told before it
 */
export async function takeIn(
  tx: Tx,
  id: string,
  machine: string,
  { file, world: before, computed }: Pick<Awaited<ReturnType<typeof standing>>, 'file' | 'world' | 'computed'>,
  events: readonly OrderEvent[],
  elsewhere: (e: OrderEvent) => Problem | null = () => null,
): Promise<Shift> {
  let world = before
  const uses: Use[] = []
  for (const e of events) {
    const verdict = admits(file, world, e, computed)
    if ('refused' in verdict)
      throw (verdict.refused === 'not-permitted' && elsewhere(e)) || refusal(file, e, verdict.refused, verdict.unmet)
    const after = apply(file, world, e)
    uses.push(...useOf(file, world, after, e))
    world = after
  }
  if (events.length > 0) await record(tx, id, { kind: 'order', events: [...events] }, { machine, events })
  for (const use of uses) await recordUse(tx, id, machine, use)
  for (const e of events) {
    if (e.do !== 'emergency') continue
    await stopMachine(tx, machine, id, 'Emergency', `Emergency: ${e.card}. Stopped until it has been examined.`)
  }
  return readShift(tx, id)
}

async function take(tx: Tx, b: z.output<typeof orderRequest>, req: Request, whoIs: WhoIs, sealing: Sealing) {
  const id = uuidParam(req)
  const s = await ownOpenShift(tx, id)
  const stood = await standing(tx, id, await machineNamed(tx, s.machine), s.place)
  const second = await secondOf(b, req, whoIs, sealing)
  const known = new Set(stood.shift.order.map((e) => e.id))
  const events: OrderEvent[] = []
  for (const given of b.events) {
    if (known.has(given.id)) continue
    known.add(given.id)
    if (given.do === 'second' && !second)
      throw new Problem(403, 'needs-second', 'The second person confirms with their own badge and PIN.', 'second')
    const by = given.do === 'second' && second ? second : stood.shift.operator
    events.push({ ...given, by, at: trueMoment(req, given.at).at })
  }
  const { file, shift } = stood
  return takeIn(tx, id, s.machine, stood, events, (e) =>
    b.after === undefined ? null : behind(file, shift.order, events, b.after, e),
  )
}

/** The order of work: acts taken in one by one, judged by the same engine as on the device. */
export function orderRoutes(db: Database, whoIs: WhoIs, sealing: Sealing): Router {
  const router = Router()
  router.post(
    '/shifts/:id/procedure-events',
    writes(db, orderRequest, (tx, b, req) => take(tx, b, req, whoIs, sealing)),
  )
  router.get(
    '/shifts/:id/world',
    reads(db, async (tx, req) => {
      const shift = await readShift(tx, uuidParam(req))
      const { world } = orderOf(await machineTaken(tx, shift.id, shift.machine.id), shift)
      const { last: _last, ...told } = world
      return told
    }),
  )
  router.get(
    '/shifts/:id/next',
    reads(db, async (tx, req) => {
      const shift = await readShift(tx, uuidParam(req))
      const definition = await machineNamed(tx, shift.machine.id)
      const stood = await standing(tx, shift.id, definition, shift.place.id)
      const { file, world } = stood
      const procedure = file.procedures.find((p) => p.id === req.query.procedure)
      if (!procedure || !offered(file, world, procedure.station, asking(stood)).includes(procedure))
        throw notFound('This procedure')
      const n = next(file, world, procedure, asking(stood))
      if ('step' in n) return { step: n.step.id, label: n.step.label }
      if ('goal' in n) return { goal: true }
      return { blocked: n.blocked.id, unmet: n.unmet, way: n.way?.map((x) => x.id) ?? null }
    }),
  )
  return router
}
