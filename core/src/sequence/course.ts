import { randomFrom } from '../practice/random'
import { type StateValue, statesIn } from '../procedure/condition'
import { isDone, permitted, stepsNow } from '../procedure/engine'
import { concerns, type Procedure, type ProcedureFile, type StateDeclaration, type Step, setBy } from '../procedure/file'
import { forgetting, type World } from '../procedure/world'
import type { SequenceFault } from './fault'
import { happened, inPractice } from './walks'

/** An order of work to be kept, from where somebody else left it. */
export interface SequenceCourse {
  file: ProcedureFile
  procedure: Procedure
  /** As it is handed over. */
  begin: World
  /** The steps to be taken, in the file’s order. */
  steps: Step[]
  faults: SequenceFault[]
}

export type Random = () => number
export const pick = <T>(random: Random, of: readonly T[]): T | undefined => of[Math.floor(random() * of.length)]
export function shuffled<T>(random: Random, of: readonly T[]): T[] {
  const all = [...of]
  for (let i = all.length - 1; i > 0; i--) {
    const k = Math.floor(random() * (i + 1))
    const [a, b] = [all[i], all[k]]
    if (a !== undefined && b !== undefined) [all[i], all[k]] = [b, a]
  }
  return all
}

/** A state seen to be something else than was known: what had made it what it was counts no more. */
export const seenAs = (f: ProcedureFile, w: World, state: string, is: StateValue): World =>
  happened(f, forgetting(f, w, [state], inPractice.now_ms), { do: 'found', state, to: is })

/** States that a step rests on or changes, and what must never be of them. */
export function restsOn(f: ProcedureFile, s: Step): string[] {
  const needs = [...s.needs, ...s.keeps, ...(s.two?.first ?? [])].flatMap((n) => statesIn(n.if))
  const nevers = f.invariants.filter((v) => concerns(v, s)).flatMap((v) => statesIn(v.never))
  return [...new Set([...needs, ...setBy(s), ...nevers])]
}

/** A state that can be looked at: it is one of several things, and nobody computes it. */
export const canBeSeen = (d: StateDeclaration | undefined): d is StateDeclaration & { values: { id: string; label: string }[] } =>
  d !== undefined && d.source !== 'computed' && d.values !== undefined

/** What is handed over, as far as this course rests on it. */
export function statesOfCourse({ file, procedure, steps, begin }: SequenceCourse): StateDeclaration[] {
  const asked = new Set([...procedure.start.flatMap((n) => statesIn(n.if)), ...steps.flatMap((s) => restsOn(file, s))])
  return file.states.filter((s) => asked.has(s.id) && canBeSeen(s) && begin.states[s.id] !== undefined)
}

/** Steps to choose from: what may be done now, what comes later, and what belongs elsewhere; in no order. */
export function offerAt({ file: f, procedure, steps }: SequenceCourse, told: World, seed: number, taken: number): Step[] {
  const open = stepsNow(f, told, procedure, inPractice).filter((s) => !isDone(f, told, s, inPractice))
  const may = (s: Step) => 'ok' in permitted(f, told, s.id, inPractice)
  const right = open.filter(may).slice(0, 2)
  const later = open.filter((s) => !right.includes(s) && !may(s))
  const apart = steps.filter((s) => !open.includes(s) && !may(s))
  const elsewhere = f.procedures.flatMap((p) => (p === procedure ? [] : p.steps.filter((s) => s.hazards.length > 0 && !may(s))))
  const random = randomFrom(seed, `offer ${taken}`)
  const near = [...shuffled(random, later.slice(0, 6)), ...shuffled(random, apart), ...shuffled(random, elsewhere)]
  const words = new Set(right.map((s) => s.label))
  const others = near.filter((s) => !words.has(s.label) && words.add(s.label))
  return shuffled(random, [...right, ...others.slice(0, 6 - right.length)])
}
