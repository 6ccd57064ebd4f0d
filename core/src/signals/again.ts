import type { LeverInputs } from '../practice/inputs'
import { randomFrom } from '../practice/random'
import { tick_s } from '../swing/axis'
import type { Prompt } from './course'
import { signalMarks } from './marks'

/** So many that were guessed are given again. */
const most = 3
const ticks = (s: number) => Math.round(s / tick_s)

/** The tick by which it is known what was guessed. */
export const knownBy = (course: readonly Prompt[]): number => course.at(-1)?.from ?? 0

/**
 * A course as it is given to whoever answers so: a motion, or its stop, that was answered sooner than anybody sees or hears it comes once more
 * before the end, after another wait. Nothing that is done later changes it.
 *
 * @param motions the rig’s, in the order of its axes
 * @example givenAgain(course, motions, { ...run, inputs: [] }, 7).length === course.length // nobody guessed
 */
export function givenAgain(
  course: readonly Prompt[],
  motions: readonly string[],
  run: { inputs: LeverInputs; stops: readonly number[]; latency_s: number },
  seed: number,
): Prompt[] {
  const end = course.at(-1)
  if (!end) return []
  const asked = course.slice(0, -1)
  const { responses } = signalMarks(asked, motions, run)
  const random = randomFrom(seed, 'again')
  const again = new Set<Prompt>()
  let move: Prompt | null = null
  for (const [i, p] of asked.entries()) {
    if (typeof p.wants === 'object' && !p.wants.slow) move = p
    if (responses[i]?.guessed && move) again.add(move)
  }
  const out = [...asked]
  const show = (lasts_s: number, p: Omit<Prompt, 'from' | 'until'>) => {
    const from = out.at(-1)?.until ?? 0
    out.push({ ...p, from, until: from + ticks(lasts_s) })
  }
  for (const { by, signal, wants } of [...again].slice(0, most)) {
    show(1 + random(), { by, who: 'signaller', signal: 'attention', wants: 'nothing' })
    show(3 + random(), { by, who: 'signaller', signal, wants })
    show(2, { by, who: 'signaller', signal: 'stop', wants: 'stop' })
  }
  show((end.until - end.from) * tick_s, { by: end.by, who: end.who, signal: end.signal, wants: end.wants })
  return out
}
