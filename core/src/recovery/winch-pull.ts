import { z } from 'zod'
import { defineCalculator } from '../calculator/define'
import { lineSum } from '../parts/hoists/line'
import { g_mps2, rad } from '../physics'
import { measured, measuredNotNegative, measuredPositive, positive } from '../quantity/measured'

/** Pull that moves a mass up a slope: m·g·(sin s + c·cos s); through n parts of line with a friction at each block. */
export function winchPull(input: {
  mass_kg: number
  slope_deg: number
  resistance_share: number
  parts: number
  sheaveEfficiency: number
  winch_N?: number | undefined
  selfRecovery?: boolean | undefined
}) {
  const s = input.slope_deg * rad
  const pull_N = Math.max(0, input.mass_kg * g_mps2 * (Math.sin(s) + input.resistance_share * Math.cos(s)))
  const line_N = pull_N / lineSum(input.parts, input.sheaveEfficiency)
  return {
    pull_N,
    line_N,
    /**
     * On what the blocks are made fast to: everything that the winch itself does not hold, and never less than the two parts that
     * run over one block. A machine that pulls itself out holds nothing: the anchor takes the whole pull.
     */
    anchor_N: input.selfRecovery || input.parts === 1 ? pull_N : Math.max(2 * line_N, pull_N - line_N),
    utilisation: input.winch_N === undefined ? null : line_N / input.winch_N,
  }
}

export const winchPullCalculator = defineCalculator({
  name: 'winch-pull',
  purpose: 'Pull on the line to move something up a slope, straight or through snatch blocks.',
  source: 'Statics on a slope; rolling or sliding resistance as a share of the weight; sheave friction.',
  cautions: [
    'Stuck in mud or against a kerb it takes far more; start with a guess on the high side.',
    'Everyone out of the line of the rope and of its recoil.',
    'The drum pulls less on its outer layers.',
  ],
  input: z.strictObject({
    mass_kg: measuredPositive,
    slope_deg: measured,
    resistance_share: measuredNotNegative,
    parts: z.int().min(1, 'At least one.').max(8, 'At most eight.'),
    sheaveEfficiency: positive.max(1, 'At most 1.'),
    winch_N: positive.optional(),
    /** The winch is on the machine that is pulled. */
    selfRecovery: z.boolean().optional(),
  }),
  worse: { pull_N: 'high', line_N: 'high', anchor_N: 'high', utilisation: 'high' },
  output: z.object({ pull_N: z.number(), line_N: z.number(), anchor_N: z.number(), utilisation: z.number().nullable() }),
  example: {
    mass_kg: { value: 9000, tolerance: 1000 },
    slope_deg: 8,
    resistance_share: 0.15,
    parts: 2,
    sheaveEfficiency: 0.96,
    winch_N: 60000,
  },
  compute: winchPull,
})
