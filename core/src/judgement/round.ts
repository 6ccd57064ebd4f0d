import { z } from 'zod'
import type { Machine } from '../machine/machine'
import { checkHead, runHead } from '../practice/run-head'
import type { RatingTable } from '../rating/table'
import { Refusal } from '../refusal'
import { type Item, itemsFrom, misreadings, opinions } from './item'
import { type Marks, marksOf, type Sure, surenesses } from './marks'

/** This way of drawing and marking; a round of another is shown, not marked anew. */
export const judgeVersion = 1
export const itemsARound = 10

/** Tables read by somebody else, judged: answers alone, from which everything else follows. */
export const judgeRound = z.strictObject({
  ...runHead,
  game: z.literal('judge'),
  /** The tables that were read, each as it stood. */
  tables: z.array(z.strictObject({ id: z.string().min(1).max(80), revision: z.int().min(1) })).max(40),
  /** What might be wrong. */
  only: z.array(z.enum(misreadings)).min(1).max(misreadings.length),
  /** One an item, in their order. */
  answers: z
    .array(
      z.strictObject({
        wrong: z.enum(opinions),
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
  sure: Sure
}
export type JudgeResult = Marks & { answers: Answered[] }

/** The items of a round. @throws Refusal `no-items` */
export const itemsOfRound = (tables: readonly RatingTable[], how: Pick<JudgeRound, 'seed' | 'level' | 'only'>): Item[] =>
  itemsFrom(tables, how, itemsARound)

/**
 * A round marked anew from its answers alone.
 *
 * @param tables the machine’s, in use now
 * @throws Refusal `version-unknown`, `machine-changed`, `no-items`
 */
export function markRound(
  m: Pick<Machine, 'id' | 'revision' | 'name'>,
  tables: readonly RatingTable[],
  round: JudgeRound,
): JudgeResult {
  checkHead(m, round, judgeVersion)
  const asWas = (t: RatingTable) => round.tables.some((r) => r.id === t.id && r.revision === t.revision)
  if (tables.length !== round.tables.length || !tables.every(asWas))
    throw new Refusal(
      'machine-changed',
      `The tables of ${m.name} have changed since this round; it counts for them as they were.`,
      'tables',
    )
  const items = itemsOfRound(tables, round)
  const answers = items.map(({ wrong }, i) => {
    const said = round.answers[i]
    return { wrong, said: said?.wrong ?? 'nothing', sure: said?.sure ?? 50 }
  })
  return { ...marksOf(items, round.answers), answers }
}
