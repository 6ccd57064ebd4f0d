import { z } from 'zod'
import { defineCalculator } from '../calculator/define'
import { measuredNotNegative, measuredPositive } from '../quantity/measured'
import { Refusal } from '../refusal'

/**
 * Force of a hydraulic cylinder: R = p_b·A_b − p_r·A_r, friction against the motion. What it can be seen to hold with
 * valves closed may be more than the relief valve lets the pump give.
 */
export function hydraulicForce(input: {
  bore_m: number
  rod_m: number
  base_kPa: number
  rodSide_kPa: number
  friction_N: number
  relief_kPa?: number | undefined
}) {
  const area = (d: number) => (Math.PI * d * d) / 4
  const base_m2 = area(input.bore_m)
  const ring_m2 = base_m2 - area(input.rod_m)
  const net_N = input.base_kPa * 1000 * base_m2 - input.rodSide_kPa * 1000 * ring_m2
  return {
    base_m2,
    ring_m2,
    net_N,
    /** What it pushes while moving out; what load stands on it while creeping in. */
    raising_N: net_N - input.friction_N,
    lowering_N: net_N + input.friction_N,
    atRelief: input.relief_kPa !== undefined && input.base_kPa >= input.relief_kPa,
  }
}

export const hydraulicForceCalculator = defineCalculator({
  name: 'hydraulic-force',
  purpose: 'What a hydraulic cylinder carries, from the pressures on its two sides.',
  source: 'Statics of a cylinder: p·A on each side, friction either way.',
  cautions: [
    'A stall on the relief valve is never a rating.',
    'A cylinder with its valves closed can hold more than relief pressure; a gauge on the pump side does not show it.',
  ],
  input: z.strictObject({
    bore_m: measuredPositive,
    rod_m: measuredNotNegative,
    base_kPa: measuredNotNegative,
    rodSide_kPa: measuredNotNegative,
    friction_N: measuredNotNegative,
    relief_kPa: measuredPositive.optional(),
  }),
  output: z.object({
    base_m2: z.number(),
    ring_m2: z.number(),
    net_N: z.number(),
    raising_N: z.number(),
    lowering_N: z.number(),
    atRelief: z.boolean(),
  }),
  worse: {
    base_m2: 'either',
    ring_m2: 'either',
    net_N: 'either',
    raising_N: 'low',
    lowering_N: 'high',
    atRelief: true,
  },
  example: { bore_m: 0.16, rod_m: 0.11, base_kPa: 14000, rodSide_kPa: 600, friction_N: 6000, relief_kPa: 21000 },
  compute: (input) => {
    if (input.rod_m >= input.bore_m)
      throw new Refusal('rod-too-thick', 'The rod is as thick as the bore; correct one of them.', 'rod_m')
    return hydraulicForce(input)
  },
})
