import { z } from 'zod'
import type { PersonRef as By } from '../person-ref'
import { nominal } from '../quantity/measured'
import { type Condition, type Facts, figureOf, holds, statesIn, unknown } from './condition'
import { ahead, reached, stepsNow } from './engine'
import { type OrderEvent, orderEvent } from './event'
import {
  concerns,
  type Measure,
  type OrderStation,
  type Procedure,
  type ProcedureFile,
  type Step,
  setBy,
  stepsOfFile,
} from './file'
import { type Asking, apply, factsOf, firstWorld, isFarOff, readSince, type World } from './world'

/** The procedures of a station that are offered now: all but those that do not belong to how it stands. Where that is not known they are offered, and it is asked first. */
export function offered(f: ProcedureFile, w: World, station: OrderStation, asking: Asking): Procedure[] {
  const facts = factsOf(f, w, asking)
  return f.procedures.filter((p) => p.station === station && (p.when === undefined || holds(p.when, facts) !== false))
}

/** Whether a machine has an order of work at a station at all. */
export const hasOrder = ({ procedures }: { procedures: ProcedureFile }, station: OrderStation): boolean =>
  procedures.procedures.some((p) => p.station === station)

/** Whether a station waits for a procedure, as its plan and the site have it. */
export const isAwaited = (f: ProcedureFile, w: World, { required, requiredIf }: Procedure, asking: Asking): boolean =>
  required || (requiredIf !== undefined && holds(requiredIf, factsOf(f, w, asking)) === true)

/** The procedures of a station that it waits for, and that have not come to their goal. */
export const owedAt = (f: ProcedureFile, w: World, station: OrderStation, asking: Asking): Procedure[] =>
  offered(f, w, station, asking).filter((p) => isAwaited(f, w, p, asking) && !reached(f, w, p, asking))

/** States that a procedure rests on and nobody has said: what it is now is asked first, all on one screen. */
export function toConfirm(f: ProcedureFile, w: World, p: Procedure, asking: Asking): { state: string; usual: string | number }[] {
  const facts = factsOf(f, w, asking)
  const asked = new Set<string>()
  const look = (c: Condition) => {
    for (const id of statesIn(c)) asked.add(id)
  }
  if (p.when) look(p.when)
  for (const n of p.start) look(n.if)
  for (const s of stepsNow(f, w, p, asking)) {
    for (const n of s.needs) look(n.if)
    for (const id of setBy(s)) asked.add(id)
    for (const v of f.invariants) if (concerns(v, s)) look(v.never)
  }
  for (const g of p.goal) look(g)
  return f.states.flatMap((s) =>
    s.usual !== undefined && s.source === 'person' && asked.has(s.id) && facts.state(s.id) === unknown
      ? [{ state: s.id, usual: s.usual }]
      : [],
  )
}

/** What steps that are done vouch for in an assessment, and since when: where several vouch for it, all of them, at the last. */
export function provedBy(f: ProcedureFile, w: World, asking: Asking): { id: string; at_ms: number }[] {
  const steps = f.procedures.flatMap((p) => stepsNow(f, w, p, asking)).filter((s) => s.proves !== undefined)
  return [...new Set(steps.map((s) => s.proves ?? ''))].flatMap((id) => {
    const since = steps.filter((s) => s.proves === id).map((s) => w.done[s.id])
    return since.some((at) => at === undefined) ? [] : [{ id, at_ms: Math.max(...since.map((at) => at ?? 0)) }]
  })
}

/** Who does it, when, and how events are named, for a run that nobody taps. */
export interface Walking {
  by: By
  second?: By
  /** The moment of the first event; each is a second after the one before, a hold as long as it asks. */
  from_ms: number
  id: (n: number) => string
  computed: Asking['computed']
}

/** What is read off where all is well: as it is planned, or in the middle of what can be. */
export function usualOf(m: Measure, facts: Facts): number {
  const usual = m.usual === undefined ? undefined : figureOf(m.usual, facts)
  return usual === undefined ? (m.min + m.max) / 2 : nominal(usual)
}

const planParts = z.record(z.string(), z.unknown())

/** A plan in which a figure stands at a path. */
function planWith(plan: unknown, [key, ...rest]: readonly string[], value: unknown): unknown {
  if (key === undefined) return value
  const inside = typeof plan === 'object' && plan !== null ? plan : {}
  return { ...inside, [key]: planWith(Reflect.get(inside, key), rest, value) }
}

/** The world as a shift finds it, with a plan: how it stands, and in the middle of its gauge whatever is read off against one. Practice and tests begin so. */
export function asPlanned(f: ProcedureFile, standing: string | null): World {
  const w = firstWorld(f)
  const stands = standing === null ? {} : { setup: { standing: { state: standing } } }
  const plan = stepsOfFile(f)
    .flatMap((s) => s.measures)
    .reduce<unknown>(
      (plan, m) => (typeof m.usual === 'object' ? planWith(plan, m.usual.plan.split('.'), (m.min + m.max) / 2) : plan),
      stands,
    )
  return { ...w, plan: planParts.parse(plan) }
}

/** How a step is done by somebody who does it right. */
function actsOf(s: Step, w: World, facts: Facts): { act: Record<string, unknown>; after_s: number; second?: boolean }[] {
  const measured = s.measures
    .filter((m) => !readSince(w, s.id, m.id))
    .map((m) => {
      const read = { value: usualOf(m, facts), tolerance: typeof m.tolerance === 'number' ? m.tolerance : 0 }
      return { act: { do: 'measure', input: m.id, ...read, again: isFarOff(w, m.id, read) }, after_s: 1 }
    })
  if (s.hold) {
    const held = [
      { act: { do: 'hold-begin', step: s.id }, after_s: 1 },
      { act: { do: 'hold-end', step: s.id }, after_s: s.hold.least_s },
    ]
    return [...measured, ...held]
  }
  const confirmed = [...measured, { act: { do: 'confirm', step: s.id }, after_s: 1 }]
  return s.two ? [...confirmed, { act: { do: 'second', step: s.id }, after_s: 1, second: true }] : confirmed
}

/**
 * The events that bring a station's procedures to their goals, from what is usual, each step done right and in the file's order. Demo days and tests
 * are walked by it.
 *
 * @throws RangeError where there is no way on: a defect of the file
 */
export function walkThrough(f: ProcedureFile, from: World, station: OrderStation, walking: Walking): OrderEvent[] {
  const events: OrderEvent[] = []
  let [w, now_ms] = [from, walking.from_ms]
  const asking = (): Asking => ({ now_ms, computed: walking.computed })
  const tell = (act: Record<string, unknown>, by: By, after_s: number) => {
    now_ms += after_s * 1000
    const told = { id: walking.id(events.length), at: new Date(now_ms).toISOString(), by, device: '' }
    const e = orderEvent.parse({ ...told, ...act })
    events.push(e)
    w = apply(f, w, e)
  }
  for (const p of offered(f, w, station, asking()).filter((x) => isAwaited(f, w, x, asking()))) {
    for (let guard = 0; !reached(f, w, p, asking()); guard++) {
      for (const { state, usual } of toConfirm(f, w, p, asking())) tell({ do: 'found', state, to: usual }, walking.by, 0)
      // What was found may be all that it asks: what stands is not put together again.
      if (reached(f, w, p, asking())) break
      const n = ahead(f, w, p, asking())
      if (!('step' in n) || guard > 300) {
        const why = 'blocked' in n ? `${n.blocked.id}: ${n.unmet.map((u) => u.id).join(', ')}` : 'its goal'
        throw new RangeError(`${p.id}: no way on to ${why}`)
      }
      for (const { act, after_s, second } of actsOf(n.step, w, factsOf(f, w, asking())))
        tell(act, second ? (walking.second ?? { id: 'second', name: 'Second person' }) : walking.by, after_s)
    }
  }
  return events
}
