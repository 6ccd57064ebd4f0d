import type { Machine } from '../machine/machine'
import type { Place, Policy } from '../place/place'
import type { RatingTable } from '../rating/table'
import type { Conditions, LiftPlan, SetupPlan } from './plan'

/** Everything an assessment is made from, as one value that a change can be applied to. */
export interface Case {
  machine: Machine
  tables: readonly RatingTable[]
  setup: SetupPlan
  lift: LiftPlan
  conditions: Conditions
  /** Where it is done: what stands there, hangs there, drops away there. */
  place: Place
  policy: Policy
}

/** From this share of a limit on it is near: the site's, or the machine's own alarm where that comes sooner. */
export const nearShareOf = ({ machine, policy }: Pick<Case, 'machine' | 'policy'>): number =>
  Math.min(policy.near_share, machine.approachAlarm_share ?? 1)
