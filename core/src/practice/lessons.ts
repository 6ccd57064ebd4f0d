import type { Attempt, CatchWord, Fault } from './attempts'
import { type Lesson, lessonsTogether } from './weak-point'

/** What can be weak in load control: each way of missing a catch, and each mistake beside one. */
export type LoadPoint = Exclude<CatchWord, 'caught-in-one'> | Fault['word']

const ofCatch: readonly LoadPoint[] = ['wrong-way', 'early', 'late', 'overcorrected', 'too-little', 'several-moves', 'nearly']
const ofTravel: readonly LoadPoint[] = ['too-fast', 'chased', 'unlevel']

/** What a run showed: a swing caught in one is right in every way of missing one; a course passed, in every mistake beside it. */
export function loadLessons(r: {
  attempts: readonly Pick<Attempt, 'word'>[]
  faults: readonly Pick<Fault, 'word'>[]
  passed: boolean
}): Lesson<LoadPoint>[] {
  const lesson = (right: boolean) => (point: LoadPoint) => ({ point, right, sure: null })
  const missed = r.attempts.flatMap((a) => (a.word === 'caught-in-one' ? [] : [a.word]))
  const caught = r.attempts.some((a) => a.word === 'caught-in-one')
  return lessonsTogether([
    ...missed.map(lesson(false)),
    ...r.faults.map((f) => lesson(false)(f.word)),
    ...(caught ? ofCatch.map(lesson(true)) : []),
    ...(r.passed ? ofTravel.map(lesson(true)) : []),
  ])
}
