import type { LiftPlan, Tol } from '@geolabe/core'

/** A lift with the wind that it is done in, or under a roof. */
export interface OutdoorDraft {
  lift: LiftPlan
  wind_mps: Tol | null
  roofShut: boolean
}

export type SetOutdoor = (change: (d: OutdoorDraft) => OutdoorDraft) => void
