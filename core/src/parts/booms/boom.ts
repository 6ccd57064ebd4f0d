import type { SlewingMass } from '../../statics/schema'
import type { BoomPose } from './telescopic-geometry'

/** Something fixed to the boom that is no part of it: a stowed jib, a cable drum. */
export interface OnBoom {
  mass_kg: number
  /** From the boom foot, metres; omitted: at the head. */
  at_m?: number | undefined
}

/** A boom: where its head is in a pose, how far it may be raised and lowered, and where its masses then are. */
export interface BoomModel {
  readonly lengths_m: readonly number[]
  readonly minAngle_deg: number
  readonly maxAngle_deg: number
  /**
   * The raised pose that puts the head over a radius.
   * @param deflection_m how far the head bends outwards under the load; omitted: not at all
   * @throws Refusal `out-of-reach`
   */
  poseAtRadius: (boom_m: number, radius_m: number, deflection_m?: number) => BoomPose
  poseAtAngle: (boom_m: number, angle_deg: number, deflection_m?: number) => BoomPose
  /** Its sections and what is fixed to it, where the angle puts them. They move with the boom; its outward bend is not added. */
  massesAt: (boom_m: number, angle_deg: number, fixed?: readonly OnBoom[]) => SlewingMass[]
  /** All of that reduced to the head, Σm·s/L, kg: F of the 1.25P + 0.1F rule. */
  headMass_kg: (boom_m: number, fixed?: readonly OnBoom[]) => number
}
