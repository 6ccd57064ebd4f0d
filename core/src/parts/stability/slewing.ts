import { type FixedSums, type SlewingSums, sumFixed, sumSlewing } from '../../statics/resultant'
import type { BoomModel, OnBoom } from '../booms/boom'
import type { BoomPart } from '../booms/telescopic'
import type { BoomPose } from '../booms/telescopic-geometry'
import { type ChassisPart, type UpperPart, upperMasses } from '../superstructure'

/** The parts of a machine that slews: what stands still, what turns, and the boom. */
export interface SlewingParts {
  name: string
  chassis: ChassisPart
  upper: UpperPart
  boom: BoomPart
}

export interface Posed {
  pose: BoomPose
  fixed: FixedSums
  slewing: SlewingSums
}

/**
 * The unloaded machine with the boom at a radius.
 * @param fixed what is fixed to the boom
 * @throws Refusal `out-of-reach`
 */
export function poseMachine(
  machine: SlewingParts,
  counterweight: { mass_kg: number; radius_m: number },
  boom: BoomModel,
  { boom_m, radius_m, deflection_m = 0 }: { boom_m: number; radius_m: number; deflection_m?: number },
  fixed: readonly OnBoom[] = [],
): Posed {
  const pose = boom.poseAtRadius(boom_m, radius_m, deflection_m)
  return {
    pose,
    fixed: sumFixed(machine.chassis.masses, {}),
    slewing: sumSlewing([...upperMasses(machine.upper, counterweight), ...boom.massesAt(boom_m, pose.angle_deg, fixed)]),
  }
}
