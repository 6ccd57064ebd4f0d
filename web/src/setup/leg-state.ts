import type { Verdict } from '@geolabe/core'

export interface LegState {
  verdict: Verdict | null
  groundUse: number | null
  pressure_kPa: number | null
  unloaded: { min_N: number; max_N: number } | null
  loaded: { min_N: number; max_N: number; upper_N: number } | null
}
