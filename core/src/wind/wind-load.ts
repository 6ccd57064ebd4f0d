import { z } from 'zod'
import { defineCalculator } from '../calculator/define'
import { g_mps2, rad } from '../physics'
import { measuredNotNegative, measuredPositive } from '../quantity/measured'
import { windForce_N } from './air'

/** Steady force of wind on a load, how far it hangs out, and the moment about a height below. */
export function windLoad(input: {
  speed_mps: number
  sailArea_m2: number
  dragCoefficient: number
  mass_kg: number
  ropeLength_m: number
  height_m?: number | undefined
}) {
  const force_N = windForce_N(input.speed_mps, input.dragCoefficient, input.sailArea_m2)
  const share = force_N / (input.mass_kg * g_mps2)
  return {
    force_N,
    /** Sideways, by the small-angle rule L·F/(m·g): never less than the true drift. */
    drift_m: input.ropeLength_m * share,
    angle_deg: Math.atan(share) / rad,
    moment_Nm: input.height_m === undefined ? null : force_N * input.height_m,
  }
}

export const windLoadCalculator = defineCalculator({
  name: 'wind-load',
  purpose: 'What the wind does to a hanging load: force, how far it hangs out, overturning moment.',
  source: 'ISO 4302: ½ρv²·c·A, ρ = 1.25 kg/m³; drift L·F/(m·g).',
  cautions: ['Gusts swing a load further than a steady wind holds it.', 'Take the largest face: the load turns into the wind.'],
  input: z.strictObject({
    speed_mps: measuredNotNegative,
    sailArea_m2: measuredNotNegative,
    dragCoefficient: measuredPositive,
    mass_kg: measuredPositive,
    ropeLength_m: measuredNotNegative,
    height_m: measuredNotNegative.optional(),
  }),
  output: z.object({
    force_N: z.number(),
    drift_m: z.number(),
    angle_deg: z.number(),
    moment_Nm: z.number().nullable(),
  }),
  worse: { force_N: 'high', drift_m: 'high', angle_deg: 'high', moment_Nm: 'high' },
  example: {
    speed_mps: 9,
    sailArea_m2: { value: 6, tolerance: 1 },
    dragCoefficient: 1.2,
    mass_kg: 1800,
    ropeLength_m: 14,
    height_m: 30,
  },
  compute: windLoad,
})
