import type { ReadingRule } from '../rating/read'
import type { Footprint } from '../statics/footprint'
import type { StabilityRule } from '../statics/tipping-load'
import type { Candidate } from './choose-table'
import type { LiftContext } from './context'

/** In a cell's place where there is nothing to say: not rated, not proven. */
export const NOT_RATED = -1
/** In a cell's place where the machine would fall, or the boom does not reach. */
export const UNREACHABLE = Infinity

/** Everything that is the same at one radius, whatever the slew. */
export interface Ring {
  radius_m: number
  /** The boom gets there inside its angles. */
  reaches: boolean
  angle_deg: number
  tip_height_m: number
  /** Unloaded and loaded: along the boom, newton metres, and the whole weight. */
  unloaded: { force_N: number; along_Nm: number }
  loaded: { force_N: number; along_Nm: number }
  /** Where the hook load acts, tilt and wind counted. */
  hook_m: number
  /** What each table rates here, kg; null: nothing. */
  gross_kg: readonly (number | null)[]
}

/** One radius at one slew. */
export interface Spot {
  ring: Ring
  slew_deg: number
  /** The place of the slew in the area's list; −1: none of them. */
  slew: number
  /** Of the tables that cover this slew, the one that rates most here; −1: none rates anything. */
  table: number
}

/** The same with what the machine weighs on its supports there, worked out once for every check. */
export interface Cell extends Spot {
  /** The machine falls with the load on. */
  falls: boolean
  /** Mass on the hook at which it would tip, kg; nothing where it falls without one, Infinity where none could. */
  tipping_kg: number
  /** The most that each support carries, with the load on or with the hook empty, newtons. */
  reaction: Float64Array
}

/** What is the same for every cell of a working area. */
export interface Area {
  f: Footprint
  tables: readonly (Candidate & { rules: readonly StabilityRule[]; rule: ReadingRule })[]
  total_kg: number
  /** With what hangs on the boom counted, as the table has it. */
  used_kg: number
  head_kg: number
  /** Share of what the ground allows under each support, by its reaction; null: not proven. */
  groundUse: readonly (((reaction_N: number) => number) | null)[]
  /** The greatest load that each support's structure may carry; null: nobody has said. */
  capacity_N: readonly (number | null)[]
  /** The lift that the area is worked out for; null: only figures were given, and no place. */
  lift: LiftContext | null
}

/** Share of one limit that is used, cell by cell: `NOT_RATED` and `UNREACHABLE` besides. */
export type Layer =
  | {
      /** That of the finding: check and subject. */
      id: string
      weighs: true
      useAt: (cell: Cell) => number
    }
  | {
      id: string
      /** It says the same whatever weighs on the supports: asked before that is worked out. */
      weighs: false
      useAt: (spot: Spot) => number
    }
