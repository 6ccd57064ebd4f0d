import { z } from 'zod'
import type { Machine } from '../machine/machine'
import { checkInputs, leverInputs } from '../practice/inputs'
import { canPractise, rigOf } from '../practice/rig'
import { checkHead, runHead } from '../practice/run-head'
import { type Lesson, lessonsTogether } from '../practice/weak-point'
import { givenAgain } from './again'
import { signalCourse } from './course'
import { type SignalFault, type SignalMarks, signalFaults, signalMarks } from './marks'
import { movingSignals, wantedBy } from './signal'

export const signalVersion = 1
/** No more of a device’s own delay is taken off. */
export const mostLatency_s = 0.1

/** Signals answered: what was done with which lever at which tick. */
export const signalRun = z.strictObject({
  ...runHead,
  game: z.literal('signal'),
  inputs: leverInputs,
  /** Ticks at which the emergency stop was pressed. */
  stops: z.array(z.int().min(0)).max(200),
  /** How long the device takes until it has a touch or a key: the median of ten. */
  latency_s: z.number().min(0).max(mostLatency_s, 'At most a tenth of a second is taken off.'),
})
export type SignalRun = z.infer<typeof signalRun>

/** Whether a machine’s levers can answer every signal that moves a load. */
export function canSignal(m: Machine): boolean {
  if (!canPractise(m)) return false
  const motions = rigOf(m).axes.map((a) => a.motion)
  return movingSignals.every((s) => {
    const wants = wantedBy[s]
    return typeof wants === 'string' || motions.includes(wants.motion)
  })
}

/**
 * A run of signals marked anew from its inputs alone.
 *
 * @throws Refusal `version-unknown`, `machine-changed`, `inputs-order`, `axis-unknown`, `no-drives`
 */
export function markSignals(m: Machine, run: SignalRun): SignalMarks {
  checkHead(m, run, signalVersion)
  const { axes } = rigOf(m)
  // In order before anything is reckoned; then within the course as it was given to who answered so.
  checkInputs(run.inputs, axes.length, Number.POSITIVE_INFINITY)
  const motions = axes.map((a) => a.motion)
  const course = givenAgain(signalCourse(run.seed, run.level), motions, run, run.seed)
  checkInputs(run.inputs, axes.length, course.at(-1)?.until ?? 0)
  return signalMarks(course, motions, run)
}

/** What a run of signals showed: a fault is wrong; what was asked and came without it is right. */
export function signalLessons({ responses }: Pick<SignalMarks, 'responses'>): Lesson<SignalFault>[] {
  const could: Record<SignalFault, (r: SignalMarks['responses'][number]) => boolean> = {
    'wrong-motion': (r) => r.wants === 'move' && r.fault !== 'no-answer' && !r.guessed,
    'no-answer': (r) => r.wants === 'move',
    slow: (r) => r.wants === 'move' && r.after_s !== null && !r.guessed,
    'late-stop': (r) => r.wants === 'stop' && !r.guessed,
    'obeyed-other': (r) => r.wants === 'nothing' && r.who === 'other',
    'never-agreed': (r) => r.wants === 'nothing' && r.signal === 'unknown',
    'without-signal': (r) => r.wants === 'nothing' && r.who === 'signaller' && r.signal !== 'unknown',
  }
  // Who answered nothing at all has shown nothing by keeping still.
  const took = responses.some((r) => r.wants === 'move' && r.after_s !== null)
  return lessonsTogether(
    responses.flatMap((r) =>
      signalFaults
        .filter((f) => r.fault === f || (took && could[f](r)))
        .map((point) => ({ point, right: r.fault !== point, sure: null })),
    ),
  )
}
