import type { Machine } from '../machine/machine'
import { unknown } from '../procedure/condition'
import { emergencyCards } from '../procedure/emergency'
import { permitted } from '../procedure/engine'
import { type Losing, setBy } from '../procedure/file'
import { declarations, type World } from '../procedure/world'
import { follow, isEnd } from '../troubleshooting/path'
import { symptomsOf } from '../troubleshooting/shown'
import { canBeSeen, pick, type Random, restsOn, type SequenceCourse, seenAs, shuffled } from './course'
import { losses, type SequenceFault, unlistedThings } from './fault'
import { inPractice, takenBack } from './walks'

/** A state that is not as it was handed over, where a step of the course would be taken on the word of it. */
export function untrueIn(random: Random, c: SequenceCourse, walk: readonly World[]): SequenceFault | null {
  const f = c.file
  const candidates = c.steps.flatMap((s, i) => {
    const before = new Set(c.steps.slice(0, i).flatMap(setBy))
    return s.hazards.length === 0 ? [] : restsOn(f, s).flatMap((id) => (before.has(id) ? [] : [{ s, i, id }]))
  })
  for (const { s, i, id } of shuffled(random, candidates)) {
    const d = declarations(f).get(id)
    const [there, now] = [walk[i], c.begin.states[id]?.value ?? unknown]
    if (!there || !canBeSeen(d) || now === unknown) continue
    const is = shuffled(random, d.values).find(
      (v) => v.id !== now && !('ok' in permitted(f, seenAs(f, there, id, v.id), s.id, inPractice)),
    )
    if (is) return { kind: 'untrue', after: 0, state: id, is: is.id }
  }
  return null
}

/** A step of the course that somebody else says is done as it is come to; a later one rests on it. */
export function claimedIn(random: Random, c: SequenceCourse, walk: readonly World[]): SequenceFault | null {
  const f = c.file
  const candidates = c.steps.flatMap((s, i) => {
    const sets = setBy(s)
    const there = walk[i]
    const seen = sets.length > 0 && sets.every((id) => canBeSeen(declarations(f).get(id)))
    if (!there || !seen || s.measures.length > 0 || s.hold || s.repeats || sets.some((id) => there.states[id]?.value === unknown))
      return []
    const rests = c.steps.slice(i + 1).some((x, k) => {
      const then = walk[i + 1 + k]
      return (
        then &&
        'ok' in permitted(f, then, x.id, inPractice) &&
        !('ok' in permitted(f, takenBack(then, there, s), x.id, inPractice))
      )
    })
    return rests ? [{ s, i }] : []
  })
  const of = pick(random, candidates)
  return of ? { kind: 'claimed', after: of.i, step: of.s.id, true: random() < 0.5 } : null
}

/** What is found on a way from a symptom, question by question, and how it ends. */
function foundOn(random: Random, path: ReturnType<typeof symptomsOf>[number]) {
  const finds: string[] = []
  for (;;) {
    const n = follow(path, finds, { share: null })
    if (isEnd(n)) return { finds, end: n.end }
    finds.push(pick(random, n.answers)?.label ?? '')
  }
}

/** What may happen in the open in a course: one of each, in no order. */
export function cuesFor(random: Random, m: Machine, c: SequenceCourse): SequenceFault[] {
  const f = c.file
  const last = c.steps.length - 1
  const after = () => Math.floor(random() * c.steps.length)
  const inWork = c.procedure.station === 'lift'
  const out: SequenceFault[] = [{ kind: 'unlisted', after: after(), which: Math.floor(random() * unlistedThings) }]
  const stop = pick(random, f.stops)
  if (stop) out.push({ kind: 'stop', after: after(), stop: stop.id })
  const why = pick(
    random,
    losses.filter((l) => f.states.some((s) => s.lost.includes(l))),
  )
  if (why) out.push({ kind: 'lost', after: after(), why })
  const path = inWork ? pick(random, symptomsOf(m)) : undefined
  if (path) {
    const { finds, end } = foundOn(random, path)
    out.push({ kind: 'symptom', after: end === 'continue' ? after() : last, symptom: path.symptom, finds })
  }
  const cards = emergencyCards(f.emergency).filter((e) => inWork || e.id === 'fire' || e.id === 'trapped')
  const card = pick(random, cards)
  if (card) out.push({ kind: 'emergency', after: last, card: card.id })
  return shuffled(random, out)
}

/** Where the way from a symptom ends, and what it takes away. */
function endOf(m: Machine, symptom: string, answers: readonly string[]) {
  const path = symptomsOf(m).find((p) => p.symptom === symptom)
  const end = path && follow(path, answers, { share: null })
  return end && isEnd(end) ? end : null
}

/** Ends the course where it comes: nothing is gone on with after it. */
export const endsIt = (m: Machine, x: SequenceFault): boolean =>
  x.kind === 'emergency' || (x.kind === 'symptom' && endOf(m, x.symptom, x.finds)?.end !== 'continue')

export const losesAtEnd = (m: Machine, symptom: string, answers: readonly string[]): readonly Losing[] =>
  endOf(m, symptom, answers)?.loses ?? []
