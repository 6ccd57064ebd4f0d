import { g_mps2 } from '../physics'

/**
 * How far a truck goes until it stands: v·t + v²/(2(b + g·sin p)), the brake no harder than its tyres hold.
 *
 * @param speed_mps along the way driven, not negative
 * @param uphill_rad along the way driven; downhill negative
 * @returns metres; null: it will not stop here
 * @example stoppingDistance({ speed_mps: 2.5, reaction_s: 0.75, braking_mps2: 1.5 }) // 3.958333
 */
export function stoppingDistance(of: {
  speed_mps: number
  reaction_s: number
  braking_mps2: number
  uphill_rad?: number
  /** What its braked tyres can hold. */
  grip_mps2?: number
}): number | null {
  const braking = Math.min(of.braking_mps2, of.grip_mps2 ?? Infinity) + g_mps2 * Math.sin(of.uphill_rad ?? 0)
  if (braking <= 0) return null
  return of.speed_mps * of.reaction_s + of.speed_mps ** 2 / (2 * braking)
}
