import type { SlewingMass } from '../../statics/schema'
import type { BoomPose } from './telescopic-geometry'

/** Something fixed to the boom that is no part of it: a stowed jib, a cable drum. */
export interface OnBoom {
  mass_kg: number
  /** From the boom foot, metres; omitted: at the head. */
  at_m?: number | undefined
}

/** A point of a boom: how far out along its direction, and how high, metres. */
export interface BoomJoint {
  out_m: number
  height_m: number
}

/** A boom at one length, as a step has it. */
export interface BoomAt {
  boom: BoomModel
  boom_m: number
  deflection_m: number
}

/** A boom: where its head is in a pose, how far it may be raised and lowered, and where its masses then are. */
export interface BoomModel {
  readonly lengths_m: readonly number[]
  readonly minAngle_deg: number
  readonly maxAngle_deg: number
  /** Hinged between foot and head: then it is not lowest where it reaches furthest. */
  readonly hinged: boolean
  /**
   * The raised pose that puts the head over a radius.
   * @param deflection_m how far the head bends outwards under the load; omitted: not at all
   * @throws Refusal `out-of-reach`
   */
  poseAtRadius: (boom_m: number, radius_m: number, deflection_m?: number) => BoomPose
  poseAtAngle: (boom_m: number, angle_deg: number, deflection_m?: number) => BoomPose
  /** Its sections and what is fixed to it, where the angle puts them. They move with the boom; its outward bend is not added. */
  massesAt: (boom_m: number, angle_deg: number, fixed?: readonly OnBoom[]) => SlewingMass[]
  /** From its foot over its hinges to its head: along its direction from the slew centre, and up, metres. */
  lineAt: (boom_m: number, angle_deg: number, deflection_m?: number) => readonly BoomJoint[]
  /** As near as it can be brought in: where the empty machine leans back most. */
  steepest: (boom_m: number) => { radius_m: number; masses: SlewingMass[] }
  /** As far as its head gets, metres. */
  furthest_m: (boom_m: number, deflection_m?: number) => number
  /** The lowest that its head stands between two radii. */
  lowest: (boom_m: number, least_m: number, greatest_m: number, deflection_m?: number) => BoomPose
  /** All of that reduced to the head, Σm·s/L, kg: F of the 1.25P + 0.1F rule. */
  headMass_kg: (boom_m: number, fixed?: readonly OnBoom[]) => number
}
