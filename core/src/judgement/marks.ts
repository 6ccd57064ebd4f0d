import type { Item, Opinion } from './item'

/** How sure an answer may say it is, percent. */
export const surenesses = [50, 60, 70, 80, 90, 100] as const
export type Sure = (typeof surenesses)[number]

export interface Judged {
  wrong: Opinion
  /** The outrigger, or the place on a part, that it is wrong with, where that is asked. */
  at?: string | undefined
  sure: Sure
}

/** Whether what somebody said of an item is said of where it is wrong. A figure has only one place, and so have a way and wind. */
function isThere(item: Item, said: Judged): boolean {
  if (!('where' in item) || item.wrong === 'nothing') return true
  const where: readonly string[] = item.where
  return where.length > 0 ? said.at !== undefined && where.includes(said.at) : said.wrong === item.wrong
}

/** Whether an answer is right: what it is, and where. */
export const isRight = (item: Item, said: Judged): boolean => said.wrong === item.wrong && isThere(item, said)

export interface Marks {
  /** Nothing said of what could have hurt, or said of another place. */
  missed: number
  /** Something said where nothing was wrong, there or at all. */
  falseAlarms: number
  /** Something wrong, called by another name. */
  misnamed: number
  right: number
  score: number
  passed: boolean
}

/** What was not answered. */
const unsure: Judged = { wrong: 'nothing', sure: 50 }

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
  const each = items.map((item, i) => ({ item, said: answers[i] ?? unsure }))
  const amiss = each.filter(({ item }) => item.wrong !== 'nothing')
  const whole = each.filter(({ item }) => item.wrong === 'nothing')
  const found = amiss.filter(({ said }) => said.wrong !== 'nothing')
  // Somewhere else it is missed, and something is called wrong that is not.
  const elsewhere = found.filter(({ item, said }) => !isThere(item, said)).length
  const missed = amiss.length - found.length + elsewhere
  const falseAlarms = whole.filter(({ said }) => said.wrong !== 'nothing').length + elsewhere
  const misnamed = found.filter(({ item, said }) => isThere(item, said) && said.wrong !== item.wrong).length
  const share = (lost: number, of: number) => (of === 0 ? 1 : Math.max(0, 1 - lost / of))
  const seen = share(missed + misnamed_share * misnamed, amiss.length)
  const calm = share(falseAlarms, whole.length)
  const fails = falseAlarms > most_falseAlarms * whole.length
  const score = (100 * (missed_weight * seen + calm)) / (missed_weight + 1)
  return {
    missed,
    falseAlarms,
    misnamed,
    right: each.filter(({ item, said }) => isRight(item, said)).length,
    score: fails ? Math.min(failed_score, score) : score,
    passed: !fails && missed === 0 && score >= pass_score,
  }
}
