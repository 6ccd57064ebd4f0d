import { z } from 'zod'
import { defineCalculator } from '../calculator/define'
import { g_mps2, rad } from '../physics'
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

/** A point in the truck’s own frame: middle of the front axle, x forward, y left, z up. */
export interface WeightPoint {
  x_m: number
  y_m: number
  z_m: number
}

/** How a truck stands and goes: nose up, left side up, accelerating to the left, braking towards its nose. */
export interface TruckStands {
  pitch_rad: number
  roll_rad: number
  lateral_mps2: number
  braking_mps2: number
}

/**
 * Where its weight presses on the ground: x_p = x + z(b/g − sin p)/c, y_p = y + z(−a/g − sin r)/c, c = √(1 − sin²p − sin²r).
 *
 * @example pressesAt({ x_m: -0.6, y_m: 0, z_m: 0.7 }, { pitch_rad: 0, roll_rad: 0, lateral_mps2: 1.2, braking_mps2: 0 }) // y −0.086
 */
export function pressesAt(w: WeightPoint, of: TruckStands, to = { x_m: 0, y_m: 0 }): { x_m: number; y_m: number } {
  const sp = Math.sin(of.pitch_rad)
  const sr = Math.sin(of.roll_rad)
  const c = Math.sqrt(1 - sp * sp - sr * sr)
  to.x_m = w.x_m + (w.z_m * (of.braking_mps2 / g_mps2 - sp)) / c
  to.y_m = w.y_m + (w.z_m * (-of.lateral_mps2 / g_mps2 - sr)) / c
  return to
}

/**
 * How far within the left and the right edge of the triangle, or trapezium, it stands on; metres, outside negative. An edge leads from a front wheel,
 * half the front track h aside, to r aside at the rear: inside it by (wb·(h ∓ y) + (h − r)·x)/√(wb² + (h − r)²).
 */
export function insideSides(
  t: { frontHalfTrack_m: number; wheelbase_m: number; rearHalfTrack_m: number },
  p: { x_m: number; y_m: number },
  to = { left_m: 0, right_m: 0 },
): { left_m: number; right_m: number } {
  const { frontHalfTrack_m: h, wheelbase_m: wb } = t
  const narrows = h - t.rearHalfTrack_m
  const long = Math.sqrt(wb * wb + narrows * narrows)
  to.left_m = (wb * (h - p.y_m) + narrows * p.x_m) / long
  to.right_m = (wb * (h + p.y_m) + narrows * p.x_m) / long
  return to
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
  const rearHalfTrack_m = input.rear === 'pivot' ? 0 : input.rear.halfTrack_m
  const at = (v2: number) =>
    pressesAt(
      { x_m: x, y_m: y, z_m: z },
      {
        pitch_rad: input.pitch_deg * rad,
        roll_rad: input.roll_deg * rad,
        lateral_mps2: input.turnRadius_m === undefined ? 0 : v2 / input.turnRadius_m,
        braking_mps2: input.braking_mps2,
      },
    )
  const sides = (p: { x_m: number; y_m: number }) => insideSides({ ...input, rearHalfTrack_m }, p)
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
