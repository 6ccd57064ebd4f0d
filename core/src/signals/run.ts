import { z } from 'zod'
import { signalIds } from '../hand-signals/hand-signal'
import type { Machine } from '../machine/machine'
import { checkInputs, leverInputs } from '../practice/inputs'
import { canPractise, rigOf } from '../practice/rig'
import { checkHead, runHead } from '../practice/run-head'
import { type Lesson, lessonsTogether } from '../practice/weak-point'
import { Refusal } from '../refusal'
import { givenAgain } from './again'
import { signalCourse } from './course'
import { givenMarks } from './giving'
import { type SignalFault, type SignalMarks, signalFaults, signalMarks } from './marks'
import { answersAll } from './signal'
import { situations } from './situation'

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
  /** The other way round: which signal was given at which tick. Left out: they are answered. */
  gave: z
    .array(z.tuple([z.int().min(0), z.enum(signalIds)]))
    .max(60)
    .optional(),
})
export type SignalRun = z.infer<typeof signalRun>

/** Whether a machine’s levers can answer every signal that moves a load. */
export function canSignal(m: Machine): boolean {
  return canPractise(m) && answersAll(rigOf(m).axes.map((a) => a.motion))
}

/**
 * A run of signals marked anew from its inputs alone.
 *
 * @throws Refusal `version-unknown`, `machine-changed`, `inputs-order`, `axis-unknown`, `no-drives`
 */
export function markSignals(m: Machine, run: SignalRun): SignalMarks {
  checkHead(m, run, signalVersion)
  const { axes } = rigOf(m)
  if (run.gave) return markGiven(run, run.gave)
  // In order before anything is reckoned; then within the course as it was given to who answered so.
  checkInputs(run.inputs, axes.length, Number.POSITIVE_INFINITY)
  const motions = axes.map((a) => a.motion)
  const course = givenAgain(signalCourse(run.seed, run.level, motions), motions, run, run.seed)
  checkInputs(run.inputs, axes.length, course.at(-1)?.until ?? 0)
  return signalMarks(course, motions, run)
}

/** Signals that were given, to nobody's levers. @throws Refusal `inputs-order` */
function markGiven({ seed, level, inputs, stops }: SignalRun, gave: NonNullable<SignalRun['gave']>): SignalMarks {
  if (inputs.length + stops.length > 0)
    throw new Refusal('inputs-order', 'Who gives signals moves no lever: leave them out.', 'inputs')
  const late = gave.findIndex(([tick], i) => i > 0 && tick <= (gave[i - 1]?.[0] ?? 0))
  if (late >= 0) throw new Refusal('inputs-order', 'Signals go forward in time; this one does not.', `gave.${late}`)
  return givenMarks(situations(seed, level), gave)
}

/** What a run of signals showed: a fault is wrong; what was asked and came without it is right. */
export function signalLessons({ way, responses }: Pick<SignalMarks, 'way' | 'responses'>): Lesson<SignalFault>[] {
  if (way === 'given') return givenLessons(responses)
  const could: Record<SignalFault, (r: SignalMarks['responses'][number]) => boolean> = {
    'wrong-motion': (r) => r.wants === 'move' && r.fault !== 'no-answer' && !r.guessed,
    'no-answer': (r) => r.wants === 'move',
    slow: (r) => r.wants === 'move' && r.after_s !== null && !r.guessed,
    'wrong-signal': () => false,
    'no-signal': () => false,
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

/** Of what was given: right or wrong, and given at all. Stopping at everything shows nothing. */
function givenLessons(responses: SignalMarks['responses']): Lesson<SignalFault>[] {
  const told = responses.some((r) => r.wants !== 'stop' && r.gave === r.signal)
  return lessonsTogether(
    responses.flatMap((r): Lesson<SignalFault>[] => {
      if (r.fault !== null) return [{ point: r.fault, right: false, sure: null }]
      if (!told || r.gave !== r.signal) return []
      return [
        { point: 'wrong-signal', right: true, sure: null },
        { point: 'no-signal', right: true, sure: null },
      ]
    }),
  )
}
