import { z } from 'zod'
import { rad } from '../../physics'
import { finite, notNegative, positive } from '../../quantity/measured'
import type { BoomModel } from './boom'
import { type BoomShape, poseAtAngle, poseAtRadius } from './telescopic-geometry'

export const boomPart = z.strictObject({
  /** Boom foot: behind the slew centre, and its height. */
  pivot: z.strictObject({ back_m: finite, height_m: finite }),
  headOffset_m: notNegative,
  /** Half of its greatest width or depth; left out: its clearance is not proven. */
  halfWidth_m: positive.optional(),
  lengths_m: z.array(positive).min(1),
  minAngle_deg: finite,
  maxAngle_deg: finite,
  /** Each section's centre stands at_m + share·(boom length) along the boom from its foot. */
  masses: z.array(z.strictObject({ name: z.string().min(1), mass_kg: positive, at_m: finite, share: finite.min(0).max(1) })),
})
export type BoomPart = z.infer<typeof boomPart>

/** A boom of sections that slide out, straight in every pose. */
export function telescopicBoom(part: BoomPart): BoomModel {
  const { pivot, headOffset_m, masses } = part
  const shape = (boom_m: number, deflection_m = 0): BoomShape => ({ boom_m, pivot, headOffset_m, deflection_m })
  const alongBoom_m = (m: BoomPart['masses'][number], boom_m: number) => m.at_m + m.share * boom_m
  return {
    lengths_m: part.lengths_m,
    minAngle_deg: part.minAngle_deg,
    maxAngle_deg: part.maxAngle_deg,
    poseAtRadius: (boom_m, radius_m, deflection_m) => poseAtRadius(shape(boom_m, deflection_m), radius_m),
    poseAtAngle: (boom_m, angle_deg, deflection_m) => poseAtAngle(shape(boom_m, deflection_m), angle_deg),
    massesAt: (boom_m, angle_deg, fixed = []) => {
      const c = Math.cos(angle_deg * rad)
      const head_m = fixed.length > 0 ? poseAtAngle(shape(boom_m), angle_deg).radius_m : 0
      return [
        ...masses.map((m) => ({ mass_kg: m.mass_kg, radius_m: alongBoom_m(m, boom_m) * c - pivot.back_m })),
        ...fixed.map(({ mass_kg, at_m }) => ({
          mass_kg,
          radius_m: at_m === undefined ? head_m : at_m * c - pivot.back_m,
        })),
      ]
    },
    headMass_kg: (boom_m, fixed = []) => {
      const own = masses.reduce((s, m) => s + (m.mass_kg * alongBoom_m(m, boom_m)) / boom_m, 0)
      return fixed.reduce((s, m) => s + (m.mass_kg * (m.at_m ?? boom_m)) / boom_m, own)
    },
  }
}
