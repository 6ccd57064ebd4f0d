/** How long what somebody knows lasts: after a half-life half of it is there. */
const least_days = 1
const most_days = 180
/** What was wrong for the first time lasts so long. */
const first_days = 1
/** It is due again where so much of it is left. */
const due_share = 0.85
/** An answer sooner than this share of the half-life never lengthens it: ten right in a row in one evening would. */
const tooSoon_share = 0.1
/** Wrong, and at least so sure of it, percent: it comes again at once. */
const sure_percent = 90

/**
 * How much of it is left after so many days, as a share.
 *
 * @example recallAfter(4, 4) // 0.5
 */
export const recallAfter = (halfLife_days: number, days: number): number => 2 ** (-days / halfLife_days)

/** Days until it is due. */
export const dueIn_days = (halfLife_days: number): number => -Math.log2(due_share) * halfLife_days

const isTooSoon = (halfLife_days: number, days: number) => days < tooSoon_share * halfLife_days

/**
 * The half-life after an answer: right, the longer the less was left; wrong, two fifths of it.
 *
 * @param days since the answer before
 * @returns days, from one to 180
 * @example halfLifeAfter(4, 1, true) // 5.963697
 */
export function halfLifeAfter(halfLife_days: number, days: number, right: boolean): number {
  const longer = halfLife_days * (1.3 + 1.2 * (1 - recallAfter(halfLife_days, days)))
  const next = right ? (isTooSoon(halfLife_days, days) ? halfLife_days : longer) : 0.4 * halfLife_days
  return Math.max(least_days, Math.min(most_days, next))
}

/** What a round showed of one thing that can be wrong: right every time it came, or not. */
export interface Lesson<Point extends string = string> {
  point: Point
  right: boolean
  /** Of the wrong answer, percent; null where nobody was asked. */
  sure: number | null
}

/** A weak point, as it is at some moment. */
export interface WeakPoint {
  halfLife_days: number
  /** Days since the answer from which that counts. */
  ago_days: number
  /** Days until it comes again; negative: it is overdue. */
  dueIn_days: number
}

/**
 * A weak point after a lesson. Being wrong never puts off what was to come sooner; being right again too soon puts off no more than the answer before
 * did.
 *
 * @param known as it is now; null: nothing was wrong with it before
 * @returns null where there is none: never wrong
 */
export function weakPointAfter(known: WeakPoint | null, { right, sure }: Lesson): WeakPoint | null {
  if (!right) {
    const halfLife_days = known ? halfLifeAfter(known.halfLife_days, known.ago_days, false) : first_days
    const atOnce = sure !== null && sure >= sure_percent
    const sooner_days = known && known.dueIn_days > 0 ? known.dueIn_days : Number.POSITIVE_INFINITY
    return { halfLife_days, ago_days: 0, dueIn_days: atOnce ? 0 : Math.min(sooner_days, dueIn_days(halfLife_days)) }
  }
  if (!known) return null
  const { halfLife_days: h, ago_days } = known
  if (isTooSoon(h, ago_days)) return { ...known, dueIn_days: dueIn_days(h) - ago_days }
  const halfLife_days = halfLifeAfter(h, ago_days, true)
  return { halfLife_days, ago_days: 0, dueIn_days: dueIn_days(halfLife_days) }
}

/** Lessons of one thing put together: one wrong makes it wrong, as sure as its surest. */
export function lessonsTogether<Point extends string>(all: readonly Lesson<Point>[]): Lesson<Point>[] {
  const points = [...new Set(all.map((l) => l.point))]
  return points.map((point) => {
    const wrong = all.filter((l) => l.point === point && !l.right)
    const sure = wrong.flatMap((l) => (l.sure === null ? [] : [l.sure]))
    return { point, right: wrong.length === 0, sure: sure.length > 0 ? Math.max(...sure) : null }
  })
}
