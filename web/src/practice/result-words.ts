import type { PracticeResult } from '@geolabe/contract'
import { type JudgeResult, type Say, type SequenceMarks, type SignalMarks, signalFaults } from '@geolabe/core'
import { plural, t, told } from '../language/t'
import { afterWords, driveWords, pointWords } from './words'

/** The one sentence after a run of signals: the gravest mistake, or what went well. */
export function signalWords({ way, responses, passed, guesses }: SignalMarks): string {
  const worst = signalFaults.find((f) => responses.some((r) => r.fault === f))
  if (worst) {
    const of = responses.filter((r) => r.fault === worst).length
    return plural(of, { one: '{1}, once', other: '{1}, # times' }, pointWords[worst])
  }
  if (passed)
    return way === 'given'
      ? t`Every signal the right one, in time`
      : t`Every signal answered in time, and nothing moved without one`
  return guesses > 0 ? t`Answered before anybody could have seen it: that is a guess` : t`Right, but slow`
}

/** The one sentence after a round of judgement. */
export function judgeWords(marks: Pick<JudgeResult, 'missed' | 'falseAlarms'>): string {
  return marks.missed > 0
    ? plural(marks.missed, {
        one: '# mistake passed as right',
        other: '# mistakes passed as right',
      })
    : marks.falseAlarms > 0
      ? plural(marks.falseAlarms, {
          one: 'Every mistake seen; # that was none called one',
          other: 'Every mistake seen; # that were none called one',
        })
      : t`Every mistake seen, and nothing called one that was right`
}

/** The one sentence after an order of work: the gravest, or what went well. */
export function sequenceWords({ tries, met, overrides, ended, passed }: SequenceMarks): string {
  if (!ended) return t`Not brought to its end`
  const trusted = tries.find((x) => x.trusted)
  if (trusted) return t`“${told(trusted.step)}” taken on somebody’s word: it was not so`
  const first = met.find((m) => m.wrongFirst)
  if (first) return pointWords[first.kind]
  const grave = tries.filter((x) => x.grave).length
  if (grave > 0) return plural(grave, { one: '# step out of order that can hurt', other: '# steps out of order that can hurt' })
  if (overrides > 0) return pointWords.override
  if (tries.length > 0) return plural(tries.length, { one: '# step out of order', other: '# steps out of order' })
  return passed ? t`Kept in order, and everything met as it came` : t`In order, but slowly where something came`
}

/** What any run came to, in one sentence. */
export function resultWords(r: PracticeResult, say: Say): string {
  switch (r.game) {
    case 'load':
      return afterWords(r, say)
    case 'drive':
      return t`${driveWords(r)}.`
    case 'sequence':
      return t`${sequenceWords(r)}.`
    case 'signal':
      return t`${signalWords(r)}.`
    case 'judge':
      return t`${judgeWords(r)}.`
  }
}
