import type { SlewStep } from '../parts/stability/slew'
import { normalDegrees } from '../physics'
import { high, low } from '../quantity/measured'
import type { Arc } from '../statics/reaction-envelope'

export interface Path {
  /** Slew from pick-up to set-down the way the lift is turned; a pick and set at one slew is an arc of nothing. */
  arc: Arc
  /** The least and greatest radius at the worse end of what was measured. */
  least_m: number
  greatest_m: number
  /** The lift passes its points in an order nobody fixes, so every slew is checked at both. */
  radii_m: number[]
}

export function pathOf(step: SlewStep): Path {
  const from = normalDegrees(step.pickUp.slew_deg)
  const ahead = normalDegrees(step.setDown.slew_deg - step.pickUp.slew_deg)
  const by = ahead < 1e-9 || ahead > 360 - 1e-9 ? 0 : step.slewDirection === 'anticlockwise' ? ahead : ahead - 360
  const least_m = Math.min(low(step.pickUp.radius_m), low(step.setDown.radius_m))
  const greatest_m = Math.max(high(step.pickUp.radius_m), high(step.setDown.radius_m))
  return {
    arc: { from_deg: from, to_deg: from + by },
    least_m,
    greatest_m,
    radii_m: greatest_m - least_m > 1e-9 ? [least_m, greatest_m] : [greatest_m],
  }
}

/** A slew as the arc counts it, which may go below nought or past a full turn; null where the arc does not pass it. */
export function passing({ from_deg, to_deg }: Arc, slew_deg: number): number | null {
  const [least, most] = [Math.min(from_deg, to_deg), Math.max(from_deg, to_deg)]
  const ahead = normalDegrees(slew_deg - least)
  if (least + ahead <= most) return least + ahead
  return ahead > 360 - 1e-9 ? least : null
}
