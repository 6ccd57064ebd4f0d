import { z } from 'zod'
import type { Machine } from '../machine/machine'
import type { RatingTable } from '../rating/table'
import { Refusal } from '../refusal'
import { type Item, itemsFrom, misreadings, opinions } from './item'
import { type Marks, marksOf, type Sure, surenesses } from './marks'

/** This way of drawing and marking; a round of another is shown, not marked anew. */
export const judgeVersion = 1
export const itemsARound = 10
const mostSeed = 2 ** 32 - 1

/** Tables read by somebody else, judged: answers alone, from which everything else follows. */
export const judgeRound = z.strictObject({
  format: z.literal('geolabe.practice/1'),
  id: z.uuid(),
  game: z.literal('judge'),
  version: z.int().min(1),
  machine: z.strictObject({ id: z.string().min(1).max(80), revision: z.int().min(1) }),
  /** The tables that were read, each as it stood. */
  tables: z.array(z.strictObject({ id: z.string().min(1).max(80), revision: z.int().min(1) })).max(40),
  seed: z.int().min(0).max(mostSeed, 'A seed is a whole number below 4,294,967,296.'),
  level: z.number().min(0).max(1),
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
  if (round.version !== judgeVersion)
    throw new Refusal(
      'version-unknown',
      'This round was made with another version of practice; it cannot be marked here.',
      'version',
    )
  const asWas = (t: RatingTable) => round.tables.some((r) => r.id === t.id && r.revision === t.revision)
  const sameTables = tables.length === round.tables.length && tables.every(asWas)
  if (round.machine.id !== m.id || round.machine.revision !== m.revision || !sameTables)
    throw new Refusal(
      'machine-changed',
      `${m.name} or its tables have changed since this round; it counts for the machine as it was.`,
      sameTables ? 'machine.revision' : 'tables',
    )
  const items = itemsOfRound(tables, round)
  const answers = items.map(({ wrong }, i) => {
    const said = round.answers[i]
    return { wrong, said: said?.wrong ?? 'nothing', sure: said?.sure ?? 50 }
  })
  return { ...marksOf(items, round.answers), answers }
}
