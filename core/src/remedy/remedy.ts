import type { Assessment } from '../assess/assessment'
import type { Case } from '../lift/case'
import type { RemedyKind } from '../lift/remedy'
import type { MatKind } from '../place/place'

/** What the site has to put a lift right with. */
export interface AvailableResources {
  mats: readonly MatKind[]
  /** Whether an outrigger can stand at a stop on a mat (null: its own pad) here: walls and voids keep some of them in. */
  canStand: (legId: string, stop: string, matId: string | null) => boolean
}

export interface Remedy {
  change: RemedyKind
  /** The case with the change made; null for advice that only a person can carry out and measure again. */
  changedCase: Pick<Case, 'setup' | 'lift' | 'conditions'> | null
  /** What a fresh assessment of it says. */
  assessment: Assessment | null
}
