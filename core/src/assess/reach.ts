import { type Finding, found } from '../finding/finding'
import type { LiftPlan } from '../lift/plan'
import { boomShape, type Crane } from '../machine/posed'
import { poseAtRadius } from '../parts/booms/telescopic-geometry'
import { nominal } from '../quantity/measured'
import { Refusal } from '../refusal'

/** Outward bend of the boom where it is given; a radius measured under load has it in it already. */
export function deflectionOf(lift: LiftPlan): number {
  return lift.radiusKnown !== null && typeof lift.radiusKnown === 'object' ? lift.radiusKnown.deflection_m : 0
}

/** Whether the boom gets there: long enough, and inside its angles. Null: it does. */
export function reachFinding(machine: Crane, lift: LiftPlan, radii_m: readonly number[]): Finding | null {
  const { minAngle_deg, maxAngle_deg } = machine.boom
  for (const radius_m of radii_m) {
    const outside = (reason: string, detail: Finding['detail']) =>
      found({ check: 'reach', verdict: 'outside', reason, at: { radius_m, slew_deg: lift.set.slew_deg }, detail })
    try {
      const { angle_deg } = poseAtRadius(boomShape(machine, lift.boom_m, deflectionOf(lift)), radius_m)
      if (angle_deg > maxAngle_deg) return outside('too-steep', { angle_deg: maxAngle_deg, boom_m: lift.boom_m })
      if (angle_deg < minAngle_deg) return outside('too-flat', { angle_deg: minAngle_deg, boom_m: lift.boom_m })
    } catch (e) {
      if (!(e instanceof Refusal)) throw e
      return outside('out-of-reach', { boom_m: lift.boom_m })
    }
  }
  return null
}

/** Tip heights and boom angles at the two ends. */
export function tipOf(
  machine: Crane,
  lift: LiftPlan,
): { pick_m: number; set_m: number; angle_pick_deg: number; angle_set_deg: number } {
  const at = (r: number) => poseAtRadius(boomShape(machine, lift.boom_m, deflectionOf(lift)), r)
  const [pick, set] = [at(nominal(lift.pick.radius_m)), at(nominal(lift.set.radius_m))]
  return {
    pick_m: pick.tip_height_m,
    set_m: set.tip_height_m,
    angle_pick_deg: pick.angle_deg,
    angle_set_deg: set.angle_deg,
  }
}
