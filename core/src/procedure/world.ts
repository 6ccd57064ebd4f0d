import type { PersonRef as By } from '../person-ref'
import type { Tolerant } from '../quantity/measured'
import { type CalcCondition, type Facts, holds, plansIn, type StateValue, type Truth, unknown } from './condition'
import type { OrderEvent } from './event'
import { type Losing, type Procedure, type ProcedureFile, type StateDeclaration, type Step, setBy, stepsOfFile } from './file'

export interface Known {
  value: StateValue
  /** Milliseconds since 1970, by the device that said it. */
  at_ms: number
  by: By | null
}

/** A step that was told last. */
export interface Last {
  event: string
  step: string
  at_ms: number
  /** What was done before it with full hands, and told in one with it. */
  before: Last | null
}

/** How a machine stands in its order of work: what its events make of it. */
export interface World {
  states: Readonly<Record<string, Known>>
  /** Steps confirmed in this run, and when. */
  done: Readonly<Record<string, number>>
  inputs: Readonly<Record<string, Tolerant & { at_ms: number }>>
  /** What each showed last as this machine stands, also where it counts no longer. */
  read: Readonly<Record<string, Tolerant>>
  plan: Readonly<Record<string, unknown>>
  /** What is being held or watched. */
  holding: { step: string; since_ms: number } | null
  /** The first of two has confirmed it. */
  waiting: { step: string; by: By; at_ms: number } | null
  /** Stops that are pressed, or not yet reset. */
  stops: readonly string[]
  /** What is held, since when, and how everything stood as it was begun. */
  override: { id: string; since_ms: number; stood: Readonly<Record<string, StateValue>> } | null
  /** What it does that it should not, as long as the way from it is open. */
  symptom: { symptom: string; since_ms: number } | null
  /** The last step, as long as nothing rests on it: a slip of the finger can be taken back. */
  last: Last | null
  /** Lost by ending the order: nothing is offered any more. */
  ended: 'emergency' | 'as-it-stands' | null
}

/** What the world is asked with besides itself: the calculators, and the moment. */
export interface Asking {
  now_ms: number
  computed: (c: CalcCondition, facts: Facts) => Truth
}

/** The world as a shift finds it: what nobody has looked at is unknown. */
export function firstWorld(f: ProcedureFile): World {
  const states = f.states.map((s): [string, Known] => [s.id, { value: s.initial, at_ms: 0, by: null }])
  return {
    states: Object.fromEntries(states),
    done: {},
    inputs: {},
    read: {},
    plan: {},
    holding: null,
    waiting: null,
    stops: [],
    override: null,
    symptom: null,
    last: null,
    ended: null,
  }
}

/** What every state of a world is, by id. */
export const valuesOf = ({ states }: World): Record<string, StateValue> =>
  Object.fromEntries(Object.entries(states).map(([id, k]) => [id, k.value]))

/** A state and what it is, as people say it. */
export function stateWords(f: ProcedureFile, id: string, value: StateValue): { label: string; value: string } {
  const d = f.states.find((s) => s.id === id)
  const said = value === unknown ? 'not known' : (d?.values?.find((v) => v.id === value)?.label ?? String(value))
  return { label: d?.label ?? id, value: said }
}

/** What two worlds of one file tell apart: a device that was away, and the records. */
export const differing = (f: ProcedureFile, here: World, there: World) =>
  Object.entries(here.states).flatMap(([id, { value }]) => {
    const other = there.states[id]?.value ?? unknown
    if (other === value) return []
    return [
      { id, label: stateWords(f, id, value).label, here: stateWords(f, id, value).value, there: stateWords(f, id, other).value },
    ]
  })

/** Whether a confirmation is too old to count. */
const aged = (s: StateDeclaration, k: Known, now_ms: number) =>
  s.lostAfter_s !== undefined && k.value !== unknown && now_ms - k.at_ms > s.lostAfter_s * 1000

const at = (value: unknown, path: string): unknown =>
  path.split('.').reduce<unknown>((v, key) => (typeof v === 'object' && v !== null ? Reflect.get(v, key) : undefined), value)

/** What a world answers to conditions. */
export function factsOf(f: ProcedureFile, w: World, { now_ms, computed }: Asking): Facts {
  const declared = declarations(f)
  return {
    state: (id) => {
      const d = declared.get(id)
      if (d?.plan !== undefined) {
        const v = at(w.plan, d.plan)
        return typeof v === 'string' || typeof v === 'number' ? v : d.initial
      }
      const k = w.states[id]
      return !d || !k || aged(d, k, now_ms) ? unknown : k.value
    },
    done: (step) => w.done[step] !== undefined,
    input: (id) => {
      const read = w.inputs[id]
      return read && { value: read.value, tolerance: read.tolerance }
    },
    plan: (path) => at(w.plan, path),
    computed,
  }
}

const kept = new WeakMap<ProcedureFile, Map<string, StateDeclaration>>()
/** The states of a file by id. */
export function declarations(f: ProcedureFile): Map<string, StateDeclaration> {
  const known = kept.get(f) ?? new Map(f.states.map((s) => [s.id, s]))
  kept.set(f, known)
  return known
}
const keptSteps = new WeakMap<ProcedureFile, Map<string, Step>>()
/** The steps of a file by id. */
export function stepNamed(f: ProcedureFile, id: string): Step | undefined {
  const known = keptSteps.get(f) ?? new Map(stepsOfFile(f).map((s) => [s.id, s]))
  keptSteps.set(f, known)
  return known.get(id)
}

/** States made unknown, and with them the steps that had made them what they were. */
export function forgetting(f: ProcedureFile, w: World, ids: readonly string[], at_ms: number): World {
  if (ids.length === 0) return w
  const gone = new Set(ids)
  const states = Object.fromEntries(ids.map((id) => [id, { value: unknown, at_ms, by: null }]))
  return undone(f, { ...w, states: { ...w.states, ...states } }, (id) => rests(f, id, gone))
}

/** Steps taken back, and with each what was read off for it: that was as it stood then. */
function undone(f: ProcedureFile, w: World, is: (step: string) => boolean): World {
  const done = Object.fromEntries(Object.entries(w.done).filter(([id]) => !is(id)))
  const inputs = Object.fromEntries(
    Object.entries(w.inputs).filter(([id]) => {
      const step = readFor(f, id)
      return step === undefined || !is(step)
    }),
  )
  return { ...w, done, inputs }
}
const keptReadings = new WeakMap<ProcedureFile, Map<string, string>>()
/** The step that something is read off for. */
function readFor(f: ProcedureFile, input: string): string | undefined {
  const known = keptReadings.get(f) ?? new Map(stepsOfFile(f).flatMap((s) => s.measures.map((m) => [m.id, s.id] as const)))
  keptReadings.set(f, known)
  return known.get(input)
}

/** Whether something has been read off since a step was last done. */
export function readSince(w: World, step: string, input: string): boolean {
  const [read, done] = [w.inputs[input], w.done[step]]
  return read !== undefined && (done === undefined || read.at_ms > done)
}
const rests = (f: ProcedureFile, step: string, gone: ReadonlySet<string>) => {
  const s = stepNamed(f, step)
  return s !== undefined && setBy(s).some((id) => gone.has(id))
}

const losable = (f: ProcedureFile, why: Losing): string[] => f.states.filter((s) => s.lost.includes(why)).map((s) => s.id)

/** What a step makes of the world, whether or not it may be done. */
export function withStep(f: ProcedureFile, from: World, s: Step, e: { id: string; at_ms: number; by: By }): World {
  const w = s.loses ? forgetting(f, from, losable(f, s.loses), e.at_ms) : from
  const states = { ...w.states }
  for (const { state, to } of s.sets) {
    const value = typeof to === 'object' ? (w.inputs[to.from]?.value ?? unknown) : to
    states[state] = { value, at_ms: e.at_ms, by: e.by }
  }
  // A step of another procedure that undoes one takes its confirmation back; within a procedure it is the way on.
  const home = homeOf(f, s.id)
  const touched = new Set(setBy(s))
  const { done: kept, inputs } = undone(f, w, (id) => homeOf(f, id) !== home && rests(f, id, touched) && id !== s.id)
  const done = { ...kept }
  for (const id of foundSo(home, w, s)) done[id] ??= e.at_ms
  return {
    ...w,
    inputs,
    states,
    done: { ...done, [s.id]: e.at_ms },
    holding: null,
    waiting: null,
    last: { event: e.id, step: s.id, at_ms: e.at_ms, before: toldWith(f, w, e.at_ms) },
  }
}
/** What hands were full with, told at the same moment. */
const toldWith = (f: ProcedureFile, { last }: World, at_ms: number): Last | null =>
  last && last.at_ms === at_ms && stepNamed(f, last.step)?.handsFull ? last : null
const keptHomes = new WeakMap<ProcedureFile, Map<string, Procedure>>()
/** The procedure that a step is of. */
export function homeOf(f: ProcedureFile, step: string): Procedure | undefined {
  const known = keptHomes.get(f) ?? new Map(f.procedures.flatMap((p) => p.steps.map((s) => [s.id, p] as const)))
  keptHomes.set(f, known)
  return known.get(step)
}

/** Steps before this one that were found so and needed no act: what follows may change it again without asking for them. */
const foundSo = (home: Procedure | undefined, w: World, s: Step): string[] =>
  (home?.steps.slice(0, home.steps.indexOf(s)) ?? [])
    .filter((x) => w.done[x.id] === undefined && makesWhatIs(x, (id) => w.states[id]?.value ?? unknown))
    .map((x) => x.id)

/** What a step makes is so, and it is one that can be found so: it measures nothing, and is asked each time. */
export const makesWhatIs = (s: Step, now: (state: string) => StateValue): boolean =>
  s.sets.length > 0 &&
  s.measures.length === 0 &&
  s.every === 'time' &&
  s.sets.every(({ state, to }) => typeof to !== 'object' && (to === unknown || now(state) === to)) &&
  s.sets.some(({ to }) => to !== unknown)

/** A hold let go early, or broken: what it was to make is unknown. */
function broken(f: ProcedureFile, w: World, at_ms: number): World {
  if (!w.holding) return w
  const s = stepNamed(f, w.holding.step)
  const next = { ...w, holding: null }
  return s ? forgetting(f, next, setBy(s), at_ms) : next
}

/** A hold that ends: done, too short, or too long. */
function letGo(f: ProcedureFile, w: World, s: Step, e: { id: string; at_ms: number; by: By; failed: boolean }): World {
  const held_s = w.holding?.step === s.id ? (e.at_ms - w.holding.since_ms) / 1000 : 0
  const { hold } = s
  if (!hold) return w
  if (!e.failed && held_s >= hold.least_s && (hold.most_s === undefined || held_s <= hold.most_s)) return withStep(f, w, s, e)
  if (!e.failed && held_s < hold.least_s && hold.early === 'restart') return { ...w, holding: null }
  return broken(f, w, e.at_ms)
}

/** What has to stay true while something is held, and does not: the hold is broken. What is computed counts as not so. */
function keeping(f: ProcedureFile, w: World, at_ms: number): World {
  const s = w.holding && stepNamed(f, w.holding.step)
  if (!s || s.keeps.length === 0) return w
  const facts = factsOf(f, w, { now_ms: at_ms, computed: () => null })
  return s.keeps.every((n) => holds(n.if, facts) === true) ? w : broken(f, w, at_ms)
}

/** Everything unknown that a person had said. */
const nothingKnown = (f: ProcedureFile, w: World, at_ms: number): World =>
  forgetting(
    f,
    { ...w, holding: null, waiting: null, last: null, override: null, symptom: null },
    f.states.map((s) => s.id),
    at_ms,
  )

/**
 * The world at a load like the last one: steps that are not asked again have made of it what they did with that, as far as what they need is still so;
 * the others are asked anew. What ages is asked all the same.
 */
function likeBefore(f: ProcedureFile, w: World, steps: readonly Step[], e: { at_ms: number; by: By }): World {
  const ages = (id: string) => declarations(f).get(id)?.lostAfter_s !== undefined
  let now = w
  for (const s of steps.filter((x) => x.every === 'change' && w.done[x.id] !== undefined)) {
    const facts = factsOf(f, now, { now_ms: e.at_ms, computed: () => true })
    if (s.needs.every((n) => holds(n.if, facts) === true)) {
      const states = { ...now.states }
      for (const { state, to } of s.sets)
        if (typeof to !== 'object' && !ages(state)) states[state] = { value: to, at_ms: e.at_ms, by: e.by }
      now = { ...now, states }
    } else {
      now = undone(f, now, (id) => id === s.id)
    }
  }
  return now
}

/** The world with something planned anew: what was done on the strength of the old plan is asked again. */
export function withPlan(f: ProcedureFile, w: World, anew: Readonly<Record<string, unknown>>, at_ms: number): World {
  const plan = { ...w.plan, ...anew }
  const differs = (path: string) => JSON.stringify(at(w.plan, path)) !== JSON.stringify(at(plan, path))
  const on = stepsOfFile(f).filter((s) => w.done[s.id] !== undefined && s.needs.some((n) => plansIn(n.if).some(differs)))
  const steps = new Set(on.map((s) => s.id))
  const back = undone(f, { ...w, plan }, (id) => steps.has(id))
  return forgetting(f, back, [...new Set(on.flatMap(setBy))], at_ms)
}

/** With another load, set-up, place or person everything may well read otherwise. */
const standsAnew: ReadonlySet<Losing> = new Set(['setup', 'moved', 'operator', 'change'])

/** So many times its doubt from the last, a reading is read once more. */
const far_times = 5
/** Whether a reading is far from what was read last. */
export function isFarOff(w: World, input: string, { value, tolerance }: Tolerant): boolean {
  const last = w.read[input]
  const within = Math.max(tolerance, last?.tolerance ?? 0)
  return last !== undefined && within > 0 && Math.abs(value - last.value) > far_times * within
}

type Change<K extends OrderEvent['do']> = (
  f: ProcedureFile,
  w: World,
  e: Extract<OrderEvent, { do: K }> & { at_ms: number },
) => World

const changes: { [K in OrderEvent['do']]: Change<K> } = {
  found: (_f, w, e) => ({ ...w, states: { ...w.states, [e.state]: { value: e.to, at_ms: e.at_ms, by: e.by } }, last: null }),
  confirm: (f, w, e) => {
    const s = stepNamed(f, e.step)
    if (!s) return w
    if (s.two && w.waiting?.step !== s.id) return { ...w, waiting: { step: s.id, by: e.by, at_ms: e.at_ms } }
    return withStep(f, w, s, e)
  },
  refused: (_f, w) => w,
  second: (f, w, e) => {
    const s = stepNamed(f, e.step)
    return s && w.waiting?.step === s.id ? withStep(f, w, s, e) : w
  },
  measure: (_f, w, e) => ({
    ...w,
    read: { ...w.read, [e.input]: { value: e.value, tolerance: e.tolerance } },
    inputs: { ...w.inputs, [e.input]: { value: e.value, tolerance: e.tolerance, at_ms: e.at_ms } },
  }),
  'hold-begin': (f, w, e) => {
    const s = stepNamed(f, e.step)
    const held = { ...w, holding: { step: e.step, since_ms: e.at_ms } }
    // What moves while it is held stands nowhere until it is done, also where the device dies meanwhile.
    const lost = s?.hold?.early === 'incomplete' ? setBy(s) : []
    const states = Object.fromEntries(lost.map((id) => [id, { value: unknown, at_ms: e.at_ms, by: null }]))
    return { ...held, states: { ...held.states, ...states } }
  },
  'hold-end': (f, w, e) => {
    const s = stepNamed(f, e.step)
    return s ? letGo(f, w, s, e) : w
  },
  // It was not done, and what stood before it has not been looked at since.
  mistap: (f, w, e) => {
    const s = w.last?.event === e.of ? stepNamed(f, w.last.step) : undefined
    if (!s) return w
    const back = undone(f, w, (id) => id === s.id)
    // What was told in one with it can be taken back in the same way.
    return { ...forgetting(f, back, setBy(s), e.at_ms), last: w.last?.before ?? null }
  },
  'stop-pressed': (f, w, e) => {
    const stop = f.stops.find((s) => s.id === e.stop)
    const halted = broken(f, { ...w, waiting: null, last: null, override: null }, e.at_ms)
    const lost = forgetting(f, halted, [...losable(f, 'stop'), ...(stop?.unknownAfter ?? [])], e.at_ms)
    const killed = (stop?.kills ?? []).map((k) => [k.state, { value: k.to, at_ms: e.at_ms, by: e.by }] as const)
    return { ...lost, states: { ...lost.states, ...Object.fromEntries(killed) }, stops: [...new Set([...w.stops, e.stop])] }
  },
  reset: (_f, w, e) => ({ ...w, stops: w.stops.filter((s) => s !== e.stop) }),
  'override-begin': (_f, w, e) => ({ ...w, override: { id: e.override, since_ms: e.at_ms, stood: valuesOf(w) } }),
  'override-end': (_f, w) => ({ ...w, override: null }),
  lost: (f, w, e) => {
    const halted = e.why === 'sight' || e.why === 'leaving' ? broken(f, { ...w, waiting: null }, e.at_ms) : w
    const read = standsAnew.has(e.why) ? {} : halted.read
    return forgetting(f, { ...halted, read, last: null }, losable(f, e.why), e.at_ms)
  },
  // Hands off: what is being held is let go.
  'symptom-begin': (f, w, e) => ({
    ...broken(f, { ...w, waiting: null, last: null }, e.at_ms),
    symptom: { symptom: e.symptom, since_ms: e.at_ms },
  }),
  symptom: (f, w, e) => {
    const lost = e.loses.flatMap((why) => losable(f, why))
    return forgetting(f, { ...w, last: null, symptom: null }, lost, e.at_ms)
  },
  begin: (f, w, e) => {
    const again = f.procedures.filter((p) => p.station === e.station).flatMap((p) => p.steps)
    const anew = new Set(again.filter((s) => s.every === 'time' || (s.every === 'change' && !e.alike)).map((s) => s.id))
    const begun = { ...undone(f, w, (id) => anew.has(id)), last: null }
    return e.alike ? likeBefore(f, begun, again, e) : begun
  },
  plan: (f, w, e) => withPlan(f, w, e.plan, e.at_ms),
  // A run of its steps begins with it; what was done with the last load stays done until then.
  proved: (_f, w, e) => ({ ...w, plan: { ...w.plan, lift: e.lift } }),
  emergency: (f, w, e) => ({ ...nothingKnown(f, w, e.at_ms), ended: 'emergency' }),
  'as-it-stands': (f, w, e) => ({ ...nothingKnown(f, w, e.at_ms), ended: 'as-it-stands' }),
}

/** One event taken into the world. What may not be done is refused before it gets here (`permitted`). */
export function apply(f: ProcedureFile, w: World, e: OrderEvent): World {
  const at_ms = Date.parse(e.at)
  const change = changes[e.do] as Change<OrderEvent['do']>
  const after = keeping(f, change(f, w, { ...e, at_ms }), at_ms)
  // Anything that happens after a step rests on it, but for a try that was refused and what was planned.
  return after.last === w.last && e.do !== 'refused' && e.do !== 'plan' && e.do !== 'proved' ? { ...after, last: null } : after
}

/** The world that events make, in their order. */
export const replay = (f: ProcedureFile, events: readonly OrderEvent[]): World =>
  events.reduce((w, e) => apply(f, w, e), firstWorld(f))
