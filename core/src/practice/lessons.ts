import type { Attempt, CatchWord, Fault } from './attempts'
import type { LegScore } from './score'
import { type Lesson, lessonsTogether } from './weak-point'

/** What can be weak in load control: each way of missing a catch, and each mistake beside one. */
export type LoadPoint = Exclude<CatchWord, 'caught-in-one'> | Fault['word']

const ofCatch: readonly LoadPoint[] = ['wrong-way', 'early', 'late', 'overcorrected', 'too-little', 'several-moves', 'nearly']
const ofTravel: readonly LoadPoint[] = ['too-fast', 'chased']
/** Two hoists that carry one load show it as well: they never run quite alike. */
const ofTwoHoists: readonly LoadPoint[] = [...ofTravel, 'unlevel']

/** What a run showed: a swing caught in one is right in every way of missing one; a course passed, in every mistake beside it. */
export function loadLessons(r: {
  attempts: readonly Pick<Attempt, 'word'>[]
  faults: readonly Pick<Fault, 'word'>[]
  legs: readonly Pick<LegScore, 'greatestApart_m'>[]
  passed: boolean
}): Lesson<LoadPoint>[] {
  const lesson = (right: boolean) => (point: LoadPoint) => ({ point, right, sure: null })
  const missed = r.attempts.flatMap((a) => (a.word === 'caught-in-one' ? [] : [a.word]))
  const byTwo = r.legs.some((l) => l.greatestApart_m > 0)
  const caught = r.attempts.some((a) => a.word === 'caught-in-one')
  return lessonsTogether([
    ...missed.map(lesson(false)),
    ...r.faults.map((f) => lesson(false)(f.word)),
    ...(caught ? ofCatch.map(lesson(true)) : []),
    ...(r.passed ? (byTwo ? ofTwoHoists : ofTravel).map(lesson(true)) : []),
  ])
}
