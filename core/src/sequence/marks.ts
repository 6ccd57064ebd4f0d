import { tick_s } from '../swing/axis'
import type { SequenceDrill } from './drill'
import type { Cue } from './fault'

/** What can go wrong in keeping an order, the gravest first. */
export const sequencePoints = [
  'trusted',
  'emergency',
  'grave',
  'stop',
  'lost',
  'symptom',
  'unlisted',
  'override',
  'refused',
] as const
export type SequencePoint = (typeof sequencePoints)[number]

/** Something that came, and how it was met. */
export interface MetMark {
  kind: Cue['kind']
  from_s: number
  /** Seconds to the first right act; null: never. */
  after_s: number | null
  wrongFirst: boolean
  slips: number
}

/** A try that was refused. */
export interface TryMark {
  at_s: number
  step: string
  because: string
  trusted: boolean
  grave: boolean
}

export interface SequenceMarks {
  score: number
  passed: boolean
  /** To its end, or left. */
  ended: boolean
  time_s: number
  tries: TryMark[]
  met: MetMark[]
  overrides: number
  /** Something was not as it had been said. */
  untold: boolean
}

/** Points off. A try that can hurt counts three times another. */
const off = { refused: 5, grave: 15, trusted: 20, wrongFirst: 20, slip: 5, override: 15 }
/** Seconds to the first right act that cost nothing: to read what has happened. Each further one costs a point, up to ten. */
const [free_s, most_slow] = [10, 10]
const pass_score = 80

/** What an order of work came to, as far as it has come. */
export function marksOfDrill(drill: SequenceDrill, lastTick: number): SequenceMarks {
  const met = drill.met.map(({ cue, from, right, wrongFirst, slips }): MetMark => {
    const after_s = right === null ? null : (right - from) * tick_s
    return { kind: cue.kind, from_s: from * tick_s, after_s, wrongFirst, slips }
  })
  const tries = drill.refused.map(
    ({ tick, step, unmet, trusted, grave }): TryMark => ({
      at_s: tick * tick_s,
      step: step.label,
      because: unmet[0]?.because ?? '',
      trusted,
      grave,
    }),
  )
  const forTries = tries.reduce((sum, t) => sum + (t.trusted ? off.trusted : t.grave ? off.grave : off.refused), 0)
  const forMet = met.reduce((sum, m) => {
    const slow = Math.max(0, Math.min(most_slow, (m.after_s ?? 0) - free_s))
    return sum + (m.wrongFirst ? off.wrongFirst : 0) + m.slips * off.slip + slow
  }, 0)
  const all = forTries + forMet + drill.overrides.length * off.override
  const score = drill.over ? Math.max(0, 100 - all) : 0
  const clean = tries.every((t) => !t.grave) && met.every((m) => !m.wrongFirst) && drill.overrides.length === 0
  return {
    score,
    passed: clean && score >= pass_score,
    ended: drill.over,
    time_s: lastTick * tick_s,
    tries,
    met,
    overrides: drill.overrides.length,
    untold: drill.course.faults.some((f) => f.kind === 'untrue' || (f.kind === 'claimed' && !f.true)),
  }
}
