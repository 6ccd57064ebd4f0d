import { rad } from '../physics'
import type { Point } from '../plane/point'
import type { FixedSums, SlewingSums } from './resultant'

/** The circle that the resultant goes round while the superstructure slews. */
export interface Round {
  force_N: number
  centre: Point
  radius_m: number
  /** Its slew on an arc when the resultant stands in a direction from the centre, degrees; null: that direction is not on the arc. */
  slewAt: (direction_rad: number) => number | null
}

/** A direction as it lies on an arc from the lesser angle to the greater, degrees; null: it is not on it. */
export function onArc(deg: number, { from_deg, to_deg }: { from_deg: number; to_deg: number }): number | null {
  const past = (((deg - from_deg) % 360) + 360) % 360
  return from_deg + past < to_deg ? from_deg + past : null
}

/** @param arc from the lesser angle to the greater, degrees */
export function roundOver(fixed: FixedSums, slewing: SlewingSums, arc: { from_deg: number; to_deg: number }): Round {
  const force_N = fixed.force_N + slewing.force_N
  const ahead_rad = Math.atan2(slewing.across_Nm, slewing.along_Nm)
  return {
    force_N,
    centre: { x_m: fixed.wx_Nm / force_N, y_m: fixed.wy_Nm / force_N },
    radius_m: Math.hypot(slewing.along_Nm, slewing.across_Nm) / force_N,
    slewAt: (direction_rad) => onArc((direction_rad - ahead_rad) / rad, arc),
  }
}
