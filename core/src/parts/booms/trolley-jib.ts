import { rad } from '../../physics'
import { Refusal } from '../../refusal'
import type { BoomModel } from './boom'
import type { BoomPart } from './telescopic'

/**
 * A level jib under which a trolley runs. Where the trolley is stands in the place of an angle, by its cosine: out at the jib's end it is none, and the
 * nearer the mast the greater; so that whatever is swept over angles is swept over the trolley's travel.
 */
export function trolleyJib(part: BoomPart & { trolley: NonNullable<BoomPart['trolley']> }): BoomModel {
  const { pivot, masses, trolley } = part
  const tip_height_m = pivot.height_m
  const angleAt = (boom_m: number, radius_m: number) => Math.acos(Math.min(1, Math.max(-1, radius_m / boom_m))) / rad
  const poseAtRadius: BoomModel['poseAtRadius'] = (boom_m, radius_m) => {
    if (radius_m > boom_m * (1 + 1e-12))
      throw new Refusal('out-of-reach', `The jib is ${boom_m} m long; come closer.`, 'radius_m')
    if (radius_m < trolley.least_m - 1e-9)
      throw new Refusal('out-of-reach', `The trolley comes no nearer than ${trolley.least_m} m.`, 'radius_m')
    return { radius_m, tip_height_m, angle_deg: angleAt(boom_m, radius_m) }
  }
  const poseAtAngle: BoomModel['poseAtAngle'] = (boom_m, angle_deg) => ({
    radius_m: boom_m * Math.cos(angle_deg * rad),
    tip_height_m,
    angle_deg,
  })
  const massesAt: BoomModel['massesAt'] = (boom_m, angle_deg, fixed = []) => [
    // The jib lies as it lies; only what hangs from the trolley goes with it.
    ...masses.map((m) => ({ mass_kg: m.mass_kg, radius_m: m.at_m + m.share * boom_m - pivot.back_m })),
    ...fixed.map(({ mass_kg, at_m }) => ({ mass_kg, radius_m: at_m ?? boom_m * Math.cos(angle_deg * rad) })),
  ]
  return {
    lengths_m: part.lengths_m,
    minAngle_deg: 0,
    maxAngle_deg: angleAt(Math.min(...part.lengths_m), trolley.least_m),
    hinged: false,
    poseAtRadius,
    poseAtAngle,
    massesAt,
    lineAt: (boom_m, angle_deg) => [
      { out_m: -pivot.back_m, height_m: tip_height_m },
      { out_m: boom_m, height_m: tip_height_m },
      { out_m: boom_m * Math.cos(angle_deg * rad), height_m: tip_height_m },
    ],
    steepest: (boom_m) => ({ radius_m: trolley.least_m, masses: massesAt(boom_m, angleAt(boom_m, trolley.least_m)) }),
    furthest_m: (boom_m) => boom_m,
    lowest: (boom_m, _least_m, greatest_m) => poseAtRadius(boom_m, greatest_m),
    headMass_kg: (boom_m, fixed = []) => fixed.reduce((s, m) => s + (m.mass_kg * (m.at_m ?? boom_m)) / boom_m, 0),
  }
}
