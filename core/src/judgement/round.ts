import { z } from 'zod'
import { checkHead, runHead } from '../practice/run-head'
import type { RatingTable } from '../rating/table'
import { Refusal } from '../refusal'
import { type Item, itemsFrom, type JudgedOn, mistakes, opinions } from './item'
import { isRight, type Marks, marksOf, type Sure, surenesses } from './marks'
import { partLines } from './part-item'

/** This way of drawing and marking; a round of another is shown, not marked anew. */
export const judgeVersion = 1
export const itemsARound = 10

/** What somebody else read or set up, judged: answers alone, from which everything else follows. */
export const judgeRound = z.strictObject({
  ...runHead,
  game: z.literal('judge'),
  /** The tables that were read, each as it stood. */
  tables: z.array(z.strictObject({ id: z.string().min(1).max(80), revision: z.int().min(1) })).max(40),
  /** What its walk-round said of the parts that were looked at. */
  parts: z.array(z.string().min(1).max(300)).max(200),
  /** What might be wrong. */
  only: z.array(z.enum(mistakes)).min(1).max(mistakes.length),
  /** One an item, in their order. */
  answers: z
    .array(
      z.strictObject({
        wrong: z.enum(opinions),
        /** The outrigger, or the place on a part, that it is wrong with. */
        at: z.string().min(1).max(80).optional(),
        sure: z.literal(surenesses, 'How sure: 50, 60, 70, 80, 90 or 100.'),
      }),
    )
    .length(itemsARound, `A round is ${itemsARound} answers.`),
})
export type JudgeRound = z.infer<typeof judgeRound>

/** What one answer came to. */
export interface Answered {
  wrong: JudgeRound['answers'][number]['wrong']
  said: JudgeRound['answers'][number]['wrong']
  /** What it is and, where that is asked, where. */
  right: boolean
  sure: Sure
}
export type JudgeResult = Marks & { answers: Answered[] }

/** The items of a round. @throws Refusal `no-items` */
export const itemsOfRound = (on: JudgedOn, how: Pick<JudgeRound, 'seed' | 'level' | 'only'>): Item[] =>
  itemsFrom(on, how, itemsARound)

/**
 * A round marked anew from its answers alone.
 *
 * @param on the machine, and its tables that are in use now
 * @throws Refusal `version-unknown`, `machine-changed`, `no-items`
 */
export function markRound(on: JudgedOn, round: JudgeRound): JudgeResult {
  const { machine, tables } = on
  checkHead(machine, round, judgeVersion)
  const asWas = (t: RatingTable) => round.tables.some((r) => r.id === t.id && r.revision === t.revision)
  if (tables.length !== round.tables.length || !tables.every(asWas))
    throw new Refusal(
      'machine-changed',
      `The tables of ${machine.name} have changed since this round; it counts for them as they were.`,
      'tables',
    )
  if (partLines(machine).join('\n') !== round.parts.join('\n'))
    throw new Refusal(
      'machine-changed',
      `The walk-round of ${machine.name} has changed since this round; it counts for its parts as they were.`,
      'parts',
    )
  const items = itemsOfRound(on, round)
  const answers = items.map((item, i) => {
    const said = round.answers[i] ?? { wrong: 'nothing', sure: 50 }
    return { wrong: item.wrong, said: said.wrong, right: isRight(item, said), sure: said.sure }
  })
  return { ...marksOf(items, round.answers), answers }
}
