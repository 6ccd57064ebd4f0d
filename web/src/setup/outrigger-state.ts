import type { Finding, Verdict } from '@geolabe/core'

/** What the checks say of one leg, and what it carries once round. */
export interface OutriggerState {
  /** The worse of its own strength and of the ground. */
  verdict: Verdict | null
  ground: Finding | null
  structure: Finding | null
  unloaded: { min_N: number; max_N: number } | null
  loaded: { min_N: number; max_N: number; upper_N: number } | null
}
