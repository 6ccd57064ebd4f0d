import { z } from 'zod'
import { rad } from '../../physics'
import { finite, notNegative, positive } from '../../quantity/measured'
import { articulatedPart } from './articulated-part'
import type { BoomModel } from './boom'
import { type BoomShape, poseAtAngle, poseAtRadius } from './telescopic-geometry'

/** A trolley that runs under a level jib, as near to the mast as that. */
const trolleyPart = z.strictObject({ least_m: positive })

export const boomPart = z.strictObject({
  /** Boom foot: behind the slew centre, and its height. */
  pivot: z.strictObject({ back_m: finite, height_m: finite }),
  headOffset_m: notNegative,
  /** Half of its greatest width or depth; left out: its clearance is not proven. */
  halfWidth_m: positive.optional(),
  lengths_m: z.array(positive).min(1),
  /** A section that is drawn by hand and pinned: only these lengths can be used. */
  pinned: z.literal(true).optional(),
  minAngle_deg: finite,
  maxAngle_deg: finite,
  /** A level jib with a trolley: its length is the jib's, its foot's height the jib's. */
  trolley: trolleyPart.optional(),
  /** Raised from the ground by pendants over a mast: where its head then stands, what they hold, how far from the front edge it keeps. */
  raising: z
    .strictObject({ mast: z.strictObject({ x_m: finite, height_m: positive }), pendant_N: positive, keepMargin_m: notNegative })
    .optional(),
  /** Folding: two booms on a hinge, of which the masses above are the straight reading. */
  articulated: articulatedPart.optional(),
  /** Each section's centre stands at_m + share·(boom length) along the boom from its foot; a lattice's mass grows with its length. */
  masses: z.array(
    z.strictObject({
      name: z.string().min(1),
      mass_kg: positive,
      perMetre_kg: positive.optional(),
      at_m: finite,
      share: finite.min(0).max(1),
    }),
  ),
})
export type BoomPart = z.infer<typeof boomPart>

/** What a section weighs with the boom at a length, kg. */
const weighs = ({ mass_kg, perMetre_kg = 0 }: BoomPart['masses'][number], boom_m: number) => mass_kg + perMetre_kg * boom_m

/** A boom of sections that slide out, straight in every pose. */
export function telescopicBoom(part: BoomPart): BoomModel {
  const { pivot, headOffset_m, masses } = part
  const shape = (boom_m: number, deflection_m = 0): BoomShape => ({ boom_m, pivot, headOffset_m, deflection_m })
  const alongBoom_m = (m: BoomPart['masses'][number], boom_m: number) => m.at_m + m.share * boom_m
  const massesAt: BoomModel['massesAt'] = (boom_m, angle_deg, fixed = []) => {
    const c = Math.cos(angle_deg * rad)
    const head_m = fixed.length > 0 ? poseAtAngle(shape(boom_m), angle_deg).radius_m : 0
    return [
      ...masses.map((m) => ({ mass_kg: weighs(m, boom_m), radius_m: alongBoom_m(m, boom_m) * c - pivot.back_m })),
      ...fixed.map(({ mass_kg, at_m }) => ({
        mass_kg,
        radius_m: at_m === undefined ? head_m : at_m * c - pivot.back_m,
      })),
    ]
  }
  const foot = { out_m: -pivot.back_m, height_m: pivot.height_m }
  return {
    lengths_m: part.lengths_m,
    minAngle_deg: part.minAngle_deg,
    maxAngle_deg: part.maxAngle_deg,
    poseAtRadius: (boom_m, radius_m, deflection_m) => poseAtRadius(shape(boom_m, deflection_m), radius_m),
    poseAtAngle: (boom_m, angle_deg, deflection_m) => poseAtAngle(shape(boom_m, deflection_m), angle_deg),
    hinged: false,
    massesAt,
    lineAt: (boom_m, angle_deg, deflection_m) => {
      const { radius_m, tip_height_m } = poseAtAngle(shape(boom_m, deflection_m), angle_deg)
      return [foot, { out_m: radius_m, height_m: tip_height_m }]
    },
    steepest: (boom_m) => ({
      radius_m: poseAtAngle(shape(boom_m), part.maxAngle_deg).radius_m,
      masses: massesAt(boom_m, part.maxAngle_deg),
    }),
    furthest_m: (boom_m, deflection_m) => poseAtAngle(shape(boom_m, deflection_m), part.minAngle_deg).radius_m,
    lowest: (boom_m, _least_m, greatest_m, deflection_m) => poseAtRadius(shape(boom_m, deflection_m), greatest_m),
    headMass_kg: (boom_m, fixed = []) => {
      const own = masses.reduce((s, m) => s + (weighs(m, boom_m) * alongBoom_m(m, boom_m)) / boom_m, 0)
      return fixed.reduce((s, m) => s + (m.mass_kg * (m.at_m ?? boom_m)) / boom_m, own)
    },
  }
}
