import {
  type Case,
  type Finding,
  type MatKind,
  nearestRemedies,
  type Remedy,
  type Uncertainty,
  uncertaintyOf,
} from '@geolabe/core'
import { expose } from 'comlink'

export interface Question {
  case: Case
  /** Findings to put right, gravest first. */
  failed: Finding[]
  mats: readonly MatKind[]
  /** What something stands in the way of: outrigger, stop, mat (null: the float alone). */
  blocked: { outrigger: string; stop: string; mat: string | null }[]
}

export interface Advice {
  changes: { finding: string; changes: Remedy[] }[]
}

/** What takes longer than a proof: the nearest changes, and what every ± makes of it. */
const advisor = {
  advise(q: Question): Advice {
    const means = {
      mats: q.mats,
      canStand: (outrigger: string, stop: string, mat: string | null) =>
        !q.blocked.some((b) => b.outrigger === outrigger && b.stop === stop && b.mat === mat),
    }
    return { changes: q.failed.map((f) => ({ finding: f.id, changes: nearestRemedies(q.case, f, means) })) }
  },
  uncertainty: (c: Case): Uncertainty | null => uncertaintyOf(c),
}
export type Advisor = typeof advisor
expose(advisor)
