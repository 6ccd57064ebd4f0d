import type { Item, Opinion } from './item'

/** How sure an answer may say it is, percent. */
export const surenesses = [50, 60, 70, 80, 90, 100] as const
export type Sure = (typeof surenesses)[number]

export interface Judged {
  wrong: Opinion
  sure: Sure
}

export interface Marks {
  /** Nothing said of what could have hurt. */
  missed: number
  /** Something said where nothing was wrong. */
  falseAlarms: number
  /** Something wrong, called by another name. */
  misnamed: number
  right: number
  score: number
  passed: boolean
}

/** Missed danger weighs five times a false alarm. */
const missed_weight = 5
/** Called by another name, it was seen, and is not put right by that. */
const misnamed_share = 0.4
/** More false alarms than this share of what was in order fails, and leaves next to nothing. */
const most_falseAlarms = 0.4
const failed_score = 20
const pass_score = 80

/**
 * What answers come to: whoever says everything is wrong, or nothing, gets next to nothing.
 *
 * @param answers one an item, in their order; what was not answered counts as nothing wrong
 */
export function marksOf(items: readonly Item[], answers: readonly Judged[]): Marks {
  const each = items.map((item, i) => ({ item, said: answers[i]?.wrong ?? 'nothing' }))
  const amiss = each.filter(({ item }) => item.wrong !== 'nothing')
  const whole = each.filter(({ item }) => item.wrong === 'nothing')
  const missed = amiss.filter(({ said }) => said === 'nothing').length
  const falseAlarms = whole.filter(({ said }) => said !== 'nothing').length
  const misnamed = amiss.filter(({ item, said }) => said !== 'nothing' && said !== item.wrong).length
  const share = (lost: number, of: number) => (of === 0 ? 1 : 1 - lost / of)
  const found = share(missed + misnamed_share * misnamed, amiss.length)
  const calm = share(falseAlarms, whole.length)
  const fails = falseAlarms > most_falseAlarms * whole.length
  const score = (100 * (missed_weight * found + calm)) / (missed_weight + 1)
  return {
    missed,
    falseAlarms,
    misnamed,
    right: each.filter(({ item, said }) => item.wrong === said).length,
    score: fails ? Math.min(failed_score, score) : score,
    passed: !fails && missed === 0 && score >= pass_score,
  }
}
