import { z } from 'zod'
import { defineCalculator } from '../../calculator/define'
import { rad } from '../../physics'
import { measured, measuredNotNegative, measuredPositive } from '../../quantity/measured'
import { Refusal } from '../../refusal'

export interface BoomPivot {
  /** How far behind the slew centre the boom foot is, metres. */
  back_m: number
  height_m: number
}

export interface BoomShape {
  boom_m: number
  pivot: BoomPivot
  /** Head sheave's offset square to the boom, metres, towards the load side. */
  headOffset_m?: number | undefined
  jib?: { length_m: number; offset_deg: number } | undefined
  /** Outward movement of the tip under load, metres. */
  deflection_m?: number | undefined
}

export interface BoomPose {
  radius_m: number
  tip_height_m: number
  angle_deg: number
}

/** Radius and tip height at a boom angle. R = L·cosθ + e·sinθ + J·cos(θ−δ) − back + deflection. */
export function poseAtAngle(b: BoomShape, angle_deg: number): BoomPose {
  const t = angle_deg * rad
  const e = b.headOffset_m ?? 0
  const j = b.jib?.length_m ?? 0
  const jt = t - (b.jib?.offset_deg ?? 0) * rad
  return {
    radius_m: b.boom_m * Math.cos(t) + e * Math.sin(t) + j * Math.cos(jt) - b.pivot.back_m + (b.deflection_m ?? 0),
    tip_height_m: b.pivot.height_m + b.boom_m * Math.sin(t) - e * Math.cos(t) + j * Math.sin(jt),
    angle_deg,
  }
}

/**
 * The raised pose that puts the tip at a radius.
 * @throws Refusal `out-of-reach` when no boom angle does.
 */
export function poseAtRadius(b: BoomShape, radius_m: number): BoomPose {
  const d = (b.jib?.offset_deg ?? 0) * rad
  const j = b.jib?.length_m ?? 0
  const along = b.boom_m + j * Math.cos(d)
  const across = (b.headOffset_m ?? 0) + j * Math.sin(d)
  const reach = (radius_m - (b.deflection_m ?? 0) + b.pivot.back_m) / Math.hypot(along, across)
  if (reach > 1 + 1e-12) {
    throw new Refusal('out-of-reach', 'The boom is too short for this radius; extend it or come closer.', 'radius_m')
  }
  if (reach < -1) {
    throw new Refusal('out-of-reach', 'This radius lies behind what the boom can reach.', 'radius_m')
  }
  const angle_deg = (Math.atan2(across, along) + Math.acos(Math.min(1, reach))) / rad
  return poseAtAngle(b, angle_deg)
}

export const telescopicGeometryCalculator = defineCalculator({
  name: 'telescopic-geometry',
  purpose: 'Radius and tip height from the boom angle, or the angle that gives a radius.',
  source: 'Plane geometry; head offset, jib offset and boom deflection included.',
  cautions: ['A boom bends under load: the true radius is greater unless deflection is given or it was measured loaded.'],
  input: z.strictObject({
    boom_m: measuredPositive,
    angle_deg: measured.optional(),
    radius_m: measured.optional(),
    pivot: z.strictObject({ back_m: measured, height_m: measured }),
    headOffset_m: measured.optional(),
    jib: z.strictObject({ length_m: measuredNotNegative, offset_deg: measured }).optional(),
    deflection_m: measuredNotNegative.optional(),
  }),
  output: z.object({ radius_m: z.number(), tip_height_m: z.number(), angle_deg: z.number() }),
  worse: { radius_m: 'high', tip_height_m: 'either', angle_deg: 'either' },
  example: { boom_m: 19.4, radius_m: 9, pivot: { back_m: 1.35, height_m: 2.4 }, headOffset_m: 0.4 },
  transfers: { radius_m: (o) => o.radius_m },
  compute: (input) => {
    const { angle_deg, radius_m } = input
    if (angle_deg !== undefined && radius_m === undefined) return poseAtAngle(input, angle_deg)
    if (radius_m !== undefined && angle_deg === undefined) return poseAtRadius(input, radius_m)
    throw new Refusal('angle-or-radius', 'Give either angle_deg or radius_m, not both.', 'angle_deg')
  },
})
