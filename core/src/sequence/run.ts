import { z } from 'zod'
import type { Machine } from '../machine/machine'
import { longest_ticks } from '../practice/drill'
import { checkHead, runHead } from '../practice/run-head'
import type { Lesson } from '../practice/weak-point'
import { checkActs, timedActs } from './act'
import { SequenceDrill } from './drill'
import { sequenceCourse } from './generate'
import { marksOfDrill, type SequenceMarks, type SequencePoint, sequencePoints } from './marks'

export const sequenceVersion = 1

/** An order of work kept while things go wrong: acts alone, from which everything else follows. */
export const sequenceRun = z.strictObject({
  ...runHead,
  game: z.literal('sequence'),
  /** Which order of work it was: 0 the one of the machine's own file, then as often as another was put in force. */
  order: z.int().min(0),
  acts: timedActs,
})
export type SequenceRun = z.infer<typeof sequenceRun>

/** A drill as it stands after acts. */
export function drillAfter(m: Machine, { seed, level, acts }: Pick<SequenceRun, 'seed' | 'level' | 'acts'>): SequenceDrill {
  const drill = new SequenceDrill(m, sequenceCourse(m, seed, level), seed)
  for (const act of acts) drill.do(act)
  return drill
}

/**
 * A run of an order of work marked anew from its acts alone.
 *
 * @throws Refusal `version-unknown`, `machine-changed`, `inputs-order`, `inputs-too-long`, `no-course`
 */
export function markSequence(m: Machine, run: SequenceRun): SequenceMarks {
  checkHead(m, run, sequenceVersion)
  checkActs(run.acts, longest_ticks)
  return marksOfDrill(drillAfter(m, run), run.acts.at(-1)?.[0] ?? 0)
}

/** What a run showed of each thing that can go wrong; of what did not come to its end only what went wrong. */
export function sequenceLessons({ tries, met, overrides, untold, ended }: SequenceMarks): Lesson<SequencePoint>[] {
  const came = (kind: SequencePoint) => met.some((m) => m.kind === kind)
  const wrong: Record<SequencePoint, boolean> = {
    trusted: tries.some((t) => t.trusted),
    grave: tries.some((t) => t.grave && !t.trusted),
    refused: tries.some((t) => !t.grave),
    override: overrides > 0,
    ...wrongFirstOf(met),
  }
  const could: Record<SequencePoint, boolean> = {
    trusted: untold,
    grave: true,
    refused: true,
    override: true,
    emergency: came('emergency'),
    stop: came('stop'),
    lost: came('lost'),
    symptom: came('symptom'),
    unlisted: came('unlisted'),
  }
  return sequencePoints
    .filter((p) => wrong[p] || (ended && could[p]))
    .map((point) => ({ point, right: !wrong[point], sure: null }))
}

function wrongFirstOf(met: SequenceMarks['met']) {
  const wrong = (kind: SequencePoint) => met.some((m) => m.kind === kind && m.wrongFirst)
  return {
    emergency: wrong('emergency'),
    stop: wrong('stop'),
    lost: wrong('lost'),
    symptom: wrong('symptom'),
    unlisted: wrong('unlisted'),
  }
}
