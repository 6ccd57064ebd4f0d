import type { BoomModel } from '../parts/booms/boom'
import { Refusal } from '../refusal'

/** An angle at its limit is reached, whatever the last digit says. */
export const grace_deg = 1e-9

/** Why a boom does not get to a radius. */
export type Unreached =
  | { radius_m: number; reason: 'too-steep' | 'too-flat'; limit_deg: number }
  | { radius_m: number; reason: 'out-of-reach' }

/** The first of these radii that the boom does not get to: too short, or outside its angles. Null: it gets to all. */
export function reachedAt(boom: BoomModel, boom_m: number, deflection_m: number, radii_m: readonly number[]): Unreached | null {
  for (const radius_m of radii_m) {
    try {
      const { angle_deg } = boom.poseAtRadius(boom_m, radius_m, deflection_m)
      if (angle_deg > boom.maxAngle_deg + grace_deg) return { radius_m, reason: 'too-steep', limit_deg: boom.maxAngle_deg }
      if (angle_deg < boom.minAngle_deg - grace_deg) return { radius_m, reason: 'too-flat', limit_deg: boom.minAngle_deg }
    } catch (e) {
      if (!(e instanceof Refusal)) throw e
      return { radius_m, reason: 'out-of-reach' }
    }
  }
  return null
}
