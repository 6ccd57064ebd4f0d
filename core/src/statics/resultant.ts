import { g_mps2, rad } from '../physics'
import { Refusal } from '../refusal'
import type { Mass, Moments, SlewingMass } from './schema'

export interface Resultant {
  x_m: number
  y_m: number
  force_N: number
}

/**
 * Weight and first moments of what stands still, kept as sums so that slewing masses can be added at each angle without
 * going over the fixed ones again.
 */
export interface FixedSums {
  force_N: number
  /** Σ m·g·x + M_y and Σ m·g·y − M_x, newton metres: right-hand moments about +x and +y added to the weights'. */
  wx_Nm: number
  wy_Nm: number
}

export function sumFixed(masses: readonly Mass[], m: Moments): FixedSums {
  let [force_N, wx_Nm, wy_Nm] = [0, m.moment_y_Nm ?? 0, -(m.moment_x_Nm ?? 0)]
  for (const { mass_kg, x_m, y_m } of masses) {
    const w = mass_kg * g_mps2
    force_N += w
    wx_Nm += w * x_m
    wy_Nm += w * y_m
  }
  return { force_N, wx_Nm, wy_Nm }
}

/** Calculators of the slewing masses about their own axes: along the boom and across it. Turn them with `resultantAt`. */
export interface SlewingSums {
  force_N: number
  along_Nm: number
  across_Nm: number
}

export function sumSlewing(masses: readonly SlewingMass[]): SlewingSums {
  const s = { force_N: 0, along_Nm: 0, across_Nm: 0 }
  for (const { mass_kg, radius_m, offset_deg = 0 } of masses) {
    const w = mass_kg * g_mps2
    s.force_N += w
    s.along_Nm += w * radius_m * Math.cos(offset_deg * rad)
    s.across_Nm += w * radius_m * Math.sin(offset_deg * rad)
  }
  return s
}

const still: SlewingSums = { force_N: 0, along_Nm: 0, across_Nm: 0 }

/** @throws Refusal `no-weight` when nothing weighs anything. */
export function resultantAt(fixed: FixedSums, slewing: SlewingSums = still, slew_deg = 0): Resultant {
  const force_N = fixed.force_N + slewing.force_N
  if (!(force_N > 0)) throw new Refusal('no-weight', 'All masses are zero; give at least one that weighs.', 'masses')
  const c = Math.cos(slew_deg * rad)
  const s = Math.sin(slew_deg * rad)
  return {
    x_m: (fixed.wx_Nm + slewing.along_Nm * c - slewing.across_Nm * s) / force_N,
    y_m: (fixed.wy_Nm + slewing.along_Nm * s + slewing.across_Nm * c) / force_N,
    force_N,
  }
}
