import { type Assessment, assess } from '../assess/assess'
import type { Conditions, LiftPlan, SetupPlan } from '../lift/plan'
import type { Machine } from '../machine/machine'
import type { Extension } from '../parts/parts'
import type { MatKind, Policy } from '../place/place'
import type { BoomTable } from '../rating/table'

/** Everything an assessment is made from, as one value that a change can be applied to. */
export interface Case {
  machine: Machine
  tables: readonly BoomTable[]
  setup: SetupPlan
  lift: LiftPlan
  conditions: Conditions
  policy: Policy
}

export function assessCase(c: Case): Assessment {
  return assess(c.machine, c.tables, c.setup, c.lift, c.conditions, c.policy)
}

/** What the site has to mend a lift with. */
export interface Means {
  mats: readonly MatKind[]
  /** Whether a leg can stand at an extension on a mat (null: its own pad) here: walls and voids keep some of them in. */
  canStand: (legId: string, extension: Extension, matId: string | null) => boolean
}

export type ChangeKind =
  | { kind: 'radius'; radius_m: number; less_m: number }
  | { kind: 'mass'; mass_kg: number; less_kg: number }
  | { kind: 'split'; lifts: number; mass_kg: number }
  | { kind: 'turn'; turn: LiftPlan['turn'] }
  | { kind: 'set-slew'; slew_deg: number; by_deg: number }
  | { kind: 'extension'; legs: { id: string; label: string; extension: Extension }[] }
  | { kind: 'mat'; leg: string; label: string; mat: MatKind }
  | { kind: 'mat-size'; leg: string; label: string; side_m: number }
  | { kind: 'parts'; parts: number }
  | { kind: 'boom'; boom_m: number }
  | { kind: 'counterweight'; id: string; label: string }
  | { kind: 'wind'; wind_mps: number }
  | { kind: 'level' }

export interface Change {
  change: ChangeKind
  /** The case with the change made; null for advice that only a person can carry out and measure again. */
  makes: Pick<Case, 'setup' | 'lift' | 'conditions'> | null
  /** What a fresh assessment of it says. */
  assessment: Assessment | null
}
