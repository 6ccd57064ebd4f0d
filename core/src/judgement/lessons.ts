import { type Lesson, lessonsTogether } from '../practice/weak-point'
import type { Mistake } from './item'
import type { JudgeResult } from './round'

/** What can be weak in judging: each mistake not seen, and seeing one where there is none. */
export type JudgePoint = Mistake | 'false-alarm'

/** What a round showed of each mistake, and of what was in order. */
export const judgeLessons = ({ answers }: Pick<JudgeResult, 'answers'>): Lesson<JudgePoint>[] =>
  lessonsTogether(answers.map(({ wrong, right, sure }) => ({ point: wrong === 'nothing' ? 'false-alarm' : wrong, right, sure })))
