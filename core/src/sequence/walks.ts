import type { Machine } from '../machine/machine'
import { ahead, reached } from '../procedure/engine'
import { orderEvent } from '../procedure/event'
import type { Procedure, ProcedureFile, Step } from '../procedure/file'
import { asPlanned, isAwaited, offered, toConfirm, usualOf } from '../procedure/walk'
import { type Asking, apply, factsOf, type World, withStep } from '../procedure/world'

/** Practice has no clock: nothing grows old in it, and what is computed or measured comes out well. */
const practised_ms = Date.UTC(2000, 0, 1)
export const inPractice: Asking = { now_ms: practised_ms, computed: () => true }
const nobody = { id: 'practice', name: '' }
const told = { id: 'practice', at: new Date(practised_ms).toISOString(), by: nobody, device: '' }

/** An event of the order of work taken in, as it is practised. */
export const happened = (f: ProcedureFile, w: World, act: Record<string, unknown>): World =>
  apply(f, w, orderEvent.parse({ ...told, ...act }))

/** A step done right, whatever it asks to be held, read off or confirmed by two. */
export function doneRight(f: ProcedureFile, w: World, s: Step): World {
  const read = s.measures.reduce(
    (x, m) => happened(f, x, { do: 'measure', input: m.id, value: usualOf(m, factsOf(f, x, inPractice)), tolerance: 0 }),
    w,
  )
  return withStep(f, read, s, { id: told.id, at_ms: practised_ms, by: nobody })
}

const asUsual = (f: ProcedureFile, w: World, p: Procedure): World =>
  toConfirm(f, w, p, inPractice).reduce((x, { state, usual }) => happened(f, x, { do: 'found', state, to: usual }), w)

/** A procedure as it goes when each step is done right and in the file’s order. */
export interface Walk {
  procedure: Procedure
  /** As it stands before each step, and at the end. */
  worlds: World[]
  steps: Step[]
}

const most_steps = 200

/** From a world to where a procedure has its goal, or all of some steps are done; null: there is no way on in the file’s order. */
export function walkOn(f: ProcedureFile, from: World, p: Procedure, until?: (w: World) => boolean): Walk | null {
  const worlds = [asUsual(f, from, p)]
  const steps: Step[] = []
  for (;;) {
    const w = worlds.at(-1) ?? from
    if (until ? until(w) : reached(f, w, p, inPractice)) return { procedure: p, worlds, steps }
    const n = ahead(f, w, p, inPractice)
    if (!('step' in n) || steps.length >= most_steps) return null
    steps.push(n.step)
    worlds.push(asUsual(f, doneRight(f, w, n.step), p))
  }
}

/** What happens between one station and the next: a set-up that is recorded, a lift that is proved, make anew what rests on them. */
const between = {
  setup: [],
  lift: [
    { do: 'lost', why: 'setup' },
    { do: 'begin', station: 'lift', alike: false },
    { do: 'lost', why: 'change' },
    { do: 'lost', why: 'load' },
  ],
  stow: [{ do: 'begin', station: 'stow', alike: false }],
} as const

/** Every procedure of a machine that can be walked, each from a day on which all before it was done right. */
function walksFrom(f: ProcedureFile, taken: World): Walk[] {
  const all: Walk[] = []
  let w = taken
  for (const [station, acts] of Object.entries(between)) {
    w = acts.reduce((x, act) => happened(f, x, act), w)
    for (const p of offered(f, w, station === 'setup' ? 'setup' : station === 'lift' ? 'lift' : 'stow', inPractice)) {
      const walk = walkOn(f, w, p)
      if (walk) all.push(walk)
      if (walk && isAwaited(f, w, p, inPractice)) w = walk.worlds.at(-1) ?? w
    }
  }
  return all
}

const kept = new WeakMap<ProcedureFile, Map<string, Walk[]>>()

/**
 * The procedures of a machine that can be practised, by how it is planned to stand.
 *
 * @param standing of the ways it may stand; left out where it has only one
 */
export function walksOf({ procedures: f }: Pick<Machine, 'procedures'>, standing: string | null): Walk[] {
  const of = kept.get(f) ?? new Map<string, Walk[]>()
  kept.set(f, of)
  const key = standing ?? ''
  const known = of.get(key) ?? walksFrom(f, asPlanned(f, standing))
  of.set(key, known)
  return known
}

/** A step that was said to be done, taken back: what it sets is what it was before, whatever else has been done since. */
export function takenBack(w: World, before: World, s: Step): World {
  const states = { ...w.states }
  for (const { state } of s.sets) {
    const was = before.states[state]
    if (was) states[state] = was
  }
  const { [s.id]: _gone, ...done } = w.done
  return { ...w, states, done }
}
