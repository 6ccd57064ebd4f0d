import type { Machine } from '../machine/machine'
import type { Policy } from '../place/place'
import type { BoomTable } from '../rating/table'
import type { Conditions, LiftPlan, SetupPlan } from './plan'

/** Everything an assessment is made from, as one value that a change can be applied to. */
export interface Case {
  machine: Machine
  tables: readonly BoomTable[]
  setup: SetupPlan
  lift: LiftPlan
  conditions: Conditions
  policy: Policy
}
