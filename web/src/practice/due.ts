import type { PointLine } from '@geolabe/contract'

/** What is due now, what is least left of first. */
export const dueNow = (points: readonly PointLine[]): PointLine[] =>
  points.filter((p) => Date.parse(p.dueAt) <= Date.now()).sort((a, b) => a.recall_share - b.recall_share)
