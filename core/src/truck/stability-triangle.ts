import { z } from 'zod'
import { defineCalculator } from '../calculator/define'
import { g_mps2, rad } from '../physics'
import { insideLine } from '../plane/hull'
import { measured, measuredNotNegative, measuredPositive, positive } from '../quantity/measured'
import { Refusal } from '../refusal'

export interface TruckStability {
  x_m: number
  y_m: number
  margins: { front_m: number; left_m: number; right_m: number; rear_m?: number | undefined }
  stable: boolean
  /** Speed at which this turn overturns it; null when driving straight. */
  tipSpeed_mps: number | null
  permittedSpeed_mps: number | null
}

/**
 * Where the weight of a truck stands between its wheels on a slope, turning and braking. Frame: middle of the front axle, x
 * forward, y left. A pivoting rear axle gives a triangle, rear wheels with a track a trapezium.
 *
 * x_p = x + z(b/g − sin p)/c, y_p = y + z(−v²/(g·R) − sin r)/c, c = √(1 − sin²p − sin²r). Mast and tyre give is not included.
 */
export function stabilityTriangle(input: {
  masses: readonly { mass_kg: number; x_m: number; y_m: number; z_m: number }[]
  frontHalfTrack_m: number
  wheelbase_m: number
  rear: 'pivot' | { halfTrack_m: number }
  pitch_deg: number
  roll_deg: number
  speed_mps: number
  /** Left positive; omitted: straight on. */
  turnRadius_m?: number | undefined
  braking_mps2: number
  lateralShare?: number | undefined
}): TruckStability {
  const all = input.masses.reduce((s, m) => s + m.mass_kg, 0)
  const mean = (pickUp: (m: { x_m: number; y_m: number; z_m: number }) => number) =>
    input.masses.reduce((s, m) => s + m.mass_kg * pickUp(m), 0) / all
  const [x, y, z] = [mean((m) => m.x_m), mean((m) => m.y_m), mean((m) => m.z_m)]
  const [sp, sr] = [Math.sin(input.pitch_deg * rad), Math.sin(input.roll_deg * rad)]
  const c = Math.sqrt(1 - sp * sp - sr * sr)
  const half = input.rear === 'pivot' ? 0 : input.rear.halfTrack_m
  const at = (v2: number) => ({
    x_m: x + (z * (input.braking_mps2 / g_mps2 - sp)) / c,
    y_m: y + (z * (-(input.turnRadius_m === undefined ? 0 : v2 / (g_mps2 * input.turnRadius_m)) - sr)) / c,
  })
  const frontLeft = { x_m: 0, y_m: input.frontHalfTrack_m }
  const frontRight = { x_m: 0, y_m: -input.frontHalfTrack_m }
  const rearLeft = { x_m: -input.wheelbase_m, y_m: half }
  const rearRight = { x_m: -input.wheelbase_m, y_m: -half }
  const sides = (p: { x_m: number; y_m: number }) => ({
    left_m: insideLine(frontLeft, rearLeft, p),
    right_m: insideLine(rearRight, frontRight, p),
  })
  const p = at(input.speed_mps ** 2)
  const margins = {
    front_m: -p.x_m,
    ...sides(p),
    ...(input.rear === 'pivot' ? {} : { rear_m: p.x_m + input.wheelbase_m }),
  }
  let tipSpeed_mps: number | null = null
  let permittedSpeed_mps: number | null = null
  const { turnRadius_m } = input
  if (turnRadius_m !== undefined) {
    // The margin on the outer side falls in proportion to v².
    const outer = (v2: number) => (turnRadius_m > 0 ? sides(at(v2)).right_m : sides(at(v2)).left_m)
    const still = outer(0)
    const perV2 = still - outer(1)
    const at0 = (share: number) => (still <= 0 ? 0 : perV2 > 0 ? Math.sqrt((share * still) / perV2) : null)
    tipSpeed_mps = at0(1)
    permittedSpeed_mps = at0(input.lateralShare ?? 0.5)
  }
  return { ...p, margins, stable: Object.values(margins).every((m) => m > 0), tipSpeed_mps, permittedSpeed_mps }
}

export const stabilityTriangleCalculator = defineCalculator({
  name: 'stability-triangle',
  purpose: 'How far a forklift is from tipping forwards or over a side, on a slope, turning or braking.',
  source:
    'Statics with braking and cornering forces (ISO 22915 principles); half the lateral margin used unless a policy says otherwise.',
  cautions: [
    'Mast and tyre give is not included: the true margin is smaller.',
    'Never turn on a slope. Never raise a load further than travel height to drive.',
  ],
  input: z.strictObject({
    masses: z
      .array(z.strictObject({ mass_kg: measuredPositive, x_m: measured, y_m: measured, z_m: measuredNotNegative }))
      .min(1, 'Give at least one mass.')
      .max(100),
    frontHalfTrack_m: measuredPositive,
    wheelbase_m: measuredPositive,
    rear: z.union([z.literal('pivot'), z.strictObject({ halfTrack_m: measuredPositive })]),
    pitch_deg: measured,
    roll_deg: measured,
    speed_mps: measuredNotNegative,
    turnRadius_m: measured.optional(),
    braking_mps2: measuredNotNegative,
    lateralShare: positive.max(1, 'At most 1.').optional(),
  }),
  output: z.object({
    x_m: z.number(),
    y_m: z.number(),
    margins: z.object({ front_m: z.number(), left_m: z.number(), right_m: z.number(), rear_m: z.number().optional() }),
    stable: z.boolean(),
    tipSpeed_mps: z.number().nullable(),
    permittedSpeed_mps: z.number().nullable(),
  }),
  worse: {
    x_m: 'high',
    y_m: 'either',
    'margins.front_m': 'low',
    'margins.left_m': 'low',
    'margins.right_m': 'low',
    'margins.rear_m': 'low',
    stable: false,
    tipSpeed_mps: { worse: 'low', nothing: 'best' },
    permittedSpeed_mps: { worse: 'low', nothing: 'best' },
  },
  example: {
    masses: [
      { mass_kg: 4200, x_m: -0.95, y_m: 0, z_m: 0.7 },
      { mass_kg: 1800, x_m: 0.9, y_m: 0, z_m: 1.1 },
    ],
    frontHalfTrack_m: 0.48,
    wheelbase_m: 1.6,
    rear: 'pivot',
    pitch_deg: -2,
    roll_deg: 1,
    speed_mps: 2,
    turnRadius_m: 4,
    braking_mps2: 1.5,
  },
  compute: (input) => {
    if (input.turnRadius_m === 0)
      throw new Refusal('no-turn', 'A turn needs a radius; leave turnRadius_m out to drive straight.', 'turnRadius_m')
    for (const axis of ['pitch_deg', 'roll_deg'] as const) {
      if (Math.abs(input[axis]) > 40)
        throw new Refusal('too-steep', 'More than 40° is no slope to drive on; check the figure.', axis)
    }
    return stabilityTriangle(input)
  },
})
