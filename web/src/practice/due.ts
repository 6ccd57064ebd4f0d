import type { PointLine } from '@geolabe/contract'
import { plural, t } from '../language/t'

/** What is due now, what is least left of first. */
export const dueNow = (points: readonly PointLine[]): PointLine[] =>
  points.filter((p) => Date.parse(p.dueAt) <= Date.now()).sort((a, b) => a.recall_share - b.recall_share)

/** How much is due, in words. */
export const dueWords = (count: number): string =>
  count > 0
    ? plural(count, {
        one: '# thing that went wrong before is due again',
        other: '# things that went wrong before are due again',
      })
    : t`nothing is due`
