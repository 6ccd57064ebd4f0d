import { influence } from './compiled'
import { doneId, holds, unknown } from './condition'
import type { OrderEvent } from './event'
import { concerns, type Need, type Procedure, type ProcedureFile, type Step, setBy, stepsOfFile, toldLater } from './file'
import {
  type Asking,
  declarations,
  factsOf,
  homeOf,
  isFarOff,
  makesWhatIs,
  readSince,
  stepNamed,
  type World,
  withStep,
} from './world'

/** Why an act is refused; its unmet needs, each with what would break and what puts it right. */
export interface Refused {
  refused: RefusalCode
  unmet: Need[]
}
export type RefusalCode =
  | 'unknown-step'
  | 'not-permitted'
  | 'needs-second'
  | 'same-person'
  | 'hold-too-short'
  | 'hold-too-long'
  | 'measure-range'
  | 'read-again'
  | 'machine-stopped'
  | 'override-purpose'
  | 'override-load'
  | 'too-late'
export type Permission = { ok: true } | Refused
const may: Permission = { ok: true }

const examined = 'The machine is stopped until it has been examined and taken back.'

const said = (id: string, because: string, remedy?: string): Need => ({
  id,
  if: { done: id },
  because,
  ...(remedy === undefined ? {} : { remedy }),
})

const unmetOf = (f: ProcedureFile, w: World, asking: Asking, needs: readonly Need[]): Need[] => {
  const facts = factsOf(f, w, asking)
  return needs.filter((n) => holds(n.if, facts) !== true)
}

/** Needs that an override in use lets a step pass. */
function passed(f: ProcedureFile, w: World, now_ms: number): readonly string[] {
  const o = f.overrides.find((x) => x.id === w.override?.id)
  // Held longer than it may be, it lets nothing pass any more.
  return o && w.override && now_ms - w.override.since_ms <= o.most_s * 1000 ? o.waits : []
}

/** What is as this step is done, or would be were it done, and must never be. */
function wouldBreak(f: ProcedureFile, w: World, asking: Asking, s: Step): Need[] {
  const touched = f.invariants.filter((v) => concerns(v, s))
  if (touched.length === 0) return []
  const after = withStep(f, w, s, { id: '', at_ms: asking.now_ms, by: { id: '', name: '' } })
  const [now, then] = [factsOf(f, w, asking), factsOf(f, after, asking)]
  return touched.filter((v) => holds(v.never, v.doing ? now : then) !== false).map((v) => said(v.id, v.because))
}

/**
 * Whether a step may be done now, and if not, what is not yet true and what would break.
 *
 * @param asking the moment, and who answers computed conditions
 * @example permitted(file, world, 'pin-out', asking) // { refused: 'not-permitted', unmet: [{ because: 'Until the stand carries it …' }] }
 */
export function permitted(f: ProcedureFile, w: World, step: string, asking: Asking): Permission {
  const s = stepNamed(f, step)
  if (!s) return { refused: 'unknown-step', unmet: [] }
  if (w.ended) return { refused: 'machine-stopped', unmet: [said('ended', examined)] }
  const [stop] = w.stops
  if (stop !== undefined) {
    const label = f.stops.find((x) => x.id === stop)?.label ?? stop
    return { refused: 'not-permitted', unmet: [said('stop', `${label} is pressed: find out why, then reset it in order.`)] }
  }
  if (w.symptom && !homeOf(f, step)?.back)
    return {
      refused: 'not-permitted',
      unmet: [said('symptom', `“${w.symptom.symptom}” is being followed: until it is at its end, only bring it back to safety.`)],
    }
  // What is held was asked for as it began; it moves what it needed, and `keeps` says what has to stay.
  if (w.holding?.step === step) return may
  const hands = w.holding ? stepNamed(f, w.holding.step) : undefined
  if (hands) return { refused: 'not-permitted', unmet: [said('held', `Let go first: ${hands.label}.`)] }
  const unmet = unmetOf(f, w, asking, [...startOf(f, s), ...s.needs, ...s.keeps, ...(s.two?.first ?? [])])
  const letBy = passed(f, w, asking.now_ms)
  const open = unmet.filter((n) => !letBy.includes(n.id))
  const breaks = open.length > 0 ? [] : wouldBreak(f, w, asking, s)
  const all = [...open, ...breaks]
  return all.length > 0 ? { refused: 'not-permitted', unmet: all } : may
}
/** What its procedure needs before any step of it, and that it belongs to how the machine stands. */
const startOf = (f: ProcedureFile, s: Step): Need[] => {
  const p = f.procedures.find((x) => x.steps.includes(s))
  const own = p?.when ? [{ id: `${p.id}.when`, if: p.when, because: `“${p.label}” does not belong to how it stands now.` }] : []
  return [...own, ...(p?.start ?? [])]
}

type Check<K extends OrderEvent['do']> = (
  f: ProcedureFile,
  w: World,
  e: Extract<OrderEvent, { do: K }> & { at_ms: number },
  asking: Asking,
) => Permission
const always = (): Permission => may
const refuse = (refused: RefusalCode, id: string, because: string): Refused => ({ refused, unmet: [said(id, because)] })

/** A step that is held is begun and let go; one tap confirms none. */
const held = (f: ProcedureFile, step: string) => stepNamed(f, step)?.hold !== undefined

/** What is read off is read for this time, not taken over from the last. */
function unread(f: ProcedureFile, w: World, step: string): Refused | null {
  const missing = stepNamed(f, step)?.measures.find((m) => !readSince(w, step, m.id))
  return missing ? refuse('measure-range', step, `Enter what is measured first: ${missing.ask}.`) : null
}

const checks: { [K in OrderEvent['do']]: Check<K> } = {
  found: (f, w, e, asking) => {
    const d = declarations(f).get(e.state)
    if (!d || d.source === 'computed') return { refused: 'unknown-step', unmet: [] }
    if (d.values ? !d.values.some((v) => v.id === e.to) : typeof e.to !== 'number')
      return refuse('measure-range', e.state, `${d.label} is never that.`)
    if (w.ended) return refuse('machine-stopped', 'ended', examined)
    if (d.usual === undefined) return refuse('not-permitted', e.state, `${d.label}: its steps say what it is, nothing else does.`)
    return factsOf(f, w, asking).state(e.state) === unknown
      ? may
      : refuse('not-permitted', e.state, `${d.label}: what it is now is known; its steps change it.`)
  },
  confirm: (f, w, e, asking) => {
    if (held(f, e.step)) return refuse('hold-too-short', e.step, 'This is held: begin it, and let go when it is done.')
    return unread(f, w, e.step) ?? permitted(f, w, e.step, asking)
  },
  refused: always,
  second: (f, w, e, asking) => {
    if (w.waiting?.step !== e.step) return refuse('needs-second', e.step, 'Whoever acts confirms first.')
    if (w.waiting.by.id === e.by.id) return refuse('same-person', e.step, 'Two people, two badges: the other one confirms.')
    return permitted(f, w, e.step, asking)
  },
  measure: (f, w, e) => {
    const m = f.procedures.flatMap((p) => p.steps.flatMap((s) => s.measures)).find((x) => x.id === e.input)
    if (!m) return { refused: 'unknown-step', unmet: [] }
    if (typeof m.tolerance === 'number' && e.tolerance < m.tolerance)
      return refuse('measure-range', e.input, `${m.ask}: it is read to ± ${m.tolerance} and no better.`)
    if (e.value < m.min || e.value > m.max)
      return refuse('measure-range', e.input, `${m.ask} It is between ${m.min} and ${m.max}.`)
    return isFarOff(w, e.input, e) && !e.again
      ? refuse('read-again', e.input, `${m.ask}: far from what was read before. Read it once more.`)
      : may
  },
  'hold-begin': (f, w, e, asking) => {
    if (!held(f, e.step)) return refuse('unknown-step', e.step, 'This step is not held.')
    if (w.holding) return refuse('not-permitted', 'held', 'It is held already: let go first.')
    return unread(f, w, e.step) ?? permitted(f, w, e.step, asking)
  },
  'hold-end': (_f, w, e) =>
    w.holding?.step === e.step ? may : refuse('hold-too-short', e.step, 'It was not begun, or a stop has ended it.'),
  mistap: (f, w, e) => {
    const { last } = w
    const undo = last && stepNamed(f, last.step)?.undo
    if (!last || last.event !== e.of || undo?.how !== 'mistap')
      return refuse(
        'too-late',
        e.of,
        'Something rests on it already, or it cannot be taken back by a tap. Do the steps in reverse.',
      )
    return e.at_ms - last.at_ms <= undo.within_s * 1000
      ? may
      : refuse('too-late', e.of, 'That was too long ago to be a slip. Do the steps in reverse.')
  },
  'stop-pressed': (f, _w, e) => (f.stops.some((s) => s.id === e.stop) ? may : { refused: 'unknown-step', unmet: [] }),
  reset: (_f, w, e) => (w.stops.includes(e.stop) ? may : refuse('not-permitted', e.stop, 'That stop is not pressed.')),
  'override-begin': (f, w, e, asking) => {
    const o = f.overrides.find((x) => x.id === e.override)
    if (!o) return { refused: 'unknown-step', unmet: [] }
    if (w.ended) return refuse('machine-stopped', 'ended', examined)
    if (w.override) return refuse('not-permitted', 'held', 'One is held already: let go first.')
    if (w.stops.length > 0) return refuse('not-permitted', 'stop', 'A stop is pressed: reset it first.')
    if (o.load === 'none' && f.states.some((s) => s.id === 'load') && factsOf(f, w, asking).state('load') !== 'none')
      return refuse('override-load', 'load', 'It is not for a load: nothing may hang, and somebody has looked.')
    const unmet = unmetOf(f, w, asking, o.needs)
    return unmet.length > 0 ? { refused: 'override-purpose', unmet } : may
  },
  'override-end': (_f, w) => (w.override ? may : refuse('not-permitted', 'override', 'None is held.')),
  lost: always,
  'symptom-begin': always,
  symptom: always,
  // Made by a shift's own events alone: no device tells it.
  begin: always,
  proved: always,
  plan: always,
  // Never refused, from any world.
  emergency: always,
  'as-it-stands': always,
}

/** Whether an event may be taken in. Emergency, leaving it as it stands, a stop and what is lost never ask for anything. */
export function admits(f: ProcedureFile, w: World, e: OrderEvent, computed: Asking['computed']): Permission {
  const at_ms = Date.parse(e.at)
  const check = checks[e.do] as Check<OrderEvent['do']>
  return check(f, w, { ...e, at_ms }, { now_ms: at_ms, computed })
}

/** The steps of a procedure that are steps now, as its plan and the site have it. */
export function stepsNow(f: ProcedureFile, w: World, p: Procedure, asking: Asking): Step[] {
  const facts = factsOf(f, w, asking)
  return p.steps.filter((s) => s.when === undefined || holds(s.when, facts) === true)
}

/** Whether what a step makes is so already: confirmed in this run, or found so. */
export function isDone(f: ProcedureFile, w: World, s: Step, asking: Asking): boolean {
  if (w.done[s.id] !== undefined) return true
  const facts = factsOf(f, w, asking)
  return makesWhatIs(s, facts.state)
}

/** Whether a procedure has come to its goal. */
export function reached(f: ProcedureFile, w: World, p: Procedure, asking: Asking): boolean {
  const facts = factsOf(f, w, asking)
  return p.goal.every((g) => holds(g, facts) === true)
}

/** What comes now: the first step in the file's order that is not done and may be; else the first that is not, and what keeps from it. */
export type Ahead = { goal: true } | { step: Step } | { blocked: Step; unmet: Need[] }
export type Next = Exclude<Ahead, { unmet: Need[] }> | { blocked: Step; unmet: Need[]; way: Step[] | null }

/** What comes now, as a screen asks for it: without looking for a way. */
export function ahead(f: ProcedureFile, w: World, p: Procedure, asking: Asking): Ahead {
  if (reached(f, w, p, asking)) return { goal: true }
  const open = stepsNow(f, w, p, asking).filter((s) => !isDone(f, w, s, asking))
  const first = open.find((s) => 'ok' in permitted(f, w, s.id, asking))
  if (first) return { step: first }
  const [blocked] = open
  if (!blocked) return { goal: true }
  const verdict = permitted(f, w, blocked.id, asking)
  return { blocked, unmet: 'ok' in verdict ? [] : verdict.unmet }
}

/** The same; where the first step is kept from, with the shortest way to it. */
export function next(f: ProcedureFile, w: World, p: Procedure, asking: Asking): Next {
  const n = ahead(f, w, p, asking)
  if (!('blocked' in n)) return n
  const wanted = n.unmet.map((u) => u.if)
  return { ...n, way: wayTo(f, w, wanted, asking) }
}

/**
 * What is told in one: the next step and, where hands are full with it, those after it as far as the first that leaves a hand free, each permitted
 * once the one before it is done. What is held, read or done by two stays for itself. Empty: nothing may be done now.
 *
 * @example nextTold(dunlin, world, lift, asking) // tilted back, down to travel height, looked round
 */
export function nextTold(f: ProcedureFile, w: World, p: Procedure, asking: Asking): Step[] {
  const told: Step[] = []
  for (let then = w; ; ) {
    const n = ahead(f, then, p, asking)
    if (!('step' in n) || told.includes(n.step) || (told.length > 0 && !toldLater(n.step))) return told
    told.push(n.step)
    if (!n.step.handsFull) return told
    then = withStep(f, then, n.step, { id: '', at_ms: asking.now_ms, by: { id: '', name: '' } })
  }
}

const longest = 40
const most_worlds = 4000

/** A world as it is told apart on the way: what its states are, and what is done of them. */
const keyOf = (f: ProcedureFile, w: World, cone: ReadonlySet<string>) => {
  const states = f.states.map((s) => (cone.has(s.id) ? w.states[s.id]?.value : ''))
  return [...states, ...Object.keys(w.done).filter((id) => cone.has(doneId(id)))].join('|')
}

/**
 * The shortest way of steps to where conditions hold, as if what is computed or measured on it came out well; null: there is none of at most forty
 * steps.
 */
export function wayTo(f: ProcedureFile, w: World, wanted: readonly Need['if'][], asking: Asking): Step[] | null {
  const hopeful: Asking = { ...asking, computed: () => true }
  const steps = stepsOfFile(f)
  const cone = influence(f, steps, wanted)
  const useful = steps.filter((s) => setBy(s).some((id) => cone.has(id)) || cone.has(doneId(s.id)))
  const there = (x: World) => {
    const facts = factsOf(f, x, hopeful)
    return wanted.every((c) => holds(c, facts) === true)
  }
  let edge: { w: World; way: Step[] }[] = [{ w, way: [] }]
  const seen = new Set([keyOf(f, w, cone)])
  for (let depth = 0; depth < longest && edge.length > 0; depth++) {
    const further: typeof edge = []
    for (const { w: from, way } of edge)
      for (const s of useful) {
        if (!('ok' in permitted(f, from, s.id, hopeful))) continue
        const to = { ...withStep(f, from, s, { id: '', at_ms: asking.now_ms, by: { id: '', name: '' } }), last: null }
        const key = keyOf(f, to, cone)
        if (seen.has(key)) continue
        seen.add(key)
        if (there(to)) return [...way, s]
        further.push({ w: to, way: [...way, s] })
        if (seen.size > most_worlds) return null
      }
    edge = further
  }
  return null
}
