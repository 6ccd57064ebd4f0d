/** How long what somebody knows lasts: after a half-life half of it is there. */
const least_days = 1
const most_days = 180
/** It is due again where so much of it is left. */
const due_share = 0.85
/** An answer sooner than this share of the half-life never lengthens it: ten right in a row in one evening would. */
const tooSoon_share = 0.1

/**
 * How much of it is left after so many days, as a share.
 *
 * @example recallAfter(4, 4) // 0.5
 */
export const recallAfter = (halfLife_days: number, days: number): number => 2 ** (-days / halfLife_days)

/** Days until it is due. */
export const dueIn_days = (halfLife_days: number): number => -Math.log2(due_share) * halfLife_days

/**
 * The half-life after an answer: right, the longer the less was left; wrong, two fifths of it.
 *
 * @param days since the answer before
 * @returns days, from one to 180
 * @example halfLifeAfter(4, 1, true) // 5.963697
 */
export function halfLifeAfter(halfLife_days: number, days: number, right: boolean): number {
  const longer = halfLife_days * (1.3 + 1.2 * (1 - recallAfter(halfLife_days, days)))
  const next = right ? (days < tooSoon_share * halfLife_days ? halfLife_days : longer) : 0.4 * halfLife_days
  return Math.max(least_days, Math.min(most_days, next))
}
