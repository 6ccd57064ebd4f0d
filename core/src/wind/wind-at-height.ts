import { z } from 'zod'
import { defineCalculator } from '../calculator/define'
import { measuredNotNegative } from '../quantity/measured'

/** Gust at a height from the ten-minute mean at ten metres: ((z/10)^0.14 + 0.4)·v₁₀, z not below 10 m. */
export function gustAtHeight_mps(mean10_mps: number, height_m: number): number {
  return ((Math.max(10, height_m) / 10) ** 0.14 + 0.4) * mean10_mps
}

export const windAtHeightCalculator = defineCalculator({
  name: 'wind-at-height',
  purpose: 'Gust at the boom tip or the load, from a forecast for ten metres or a gauge at the tip.',
  source: 'EN 13000: gust = ((z/10)^0.14 + 0.4)·v₁₀.',
  cautions: [
    'Gusts round buildings and over water edges can be stronger than any formula.',
    'A gust read at the tip is not raised again.',
  ],
  input: z.strictObject({
    speed_mps: measuredNotNegative,
    height_m: measuredNotNegative,
    read: z.enum(['mean-at-10m', 'gust-at-tip']),
  }),
  output: z.object({ gust_mps: z.number(), factor: z.number() }),
  worse: { gust_mps: 'high', factor: 'high' },
  example: { speed_mps: 7, height_m: 32, read: 'mean-at-10m' },
  transfers: { wind_mps: (o) => o.gust_mps },
  compute: ({ speed_mps, height_m, read }) => {
    const factor = read === 'gust-at-tip' ? 1 : gustAtHeight_mps(1, height_m)
    return { gust_mps: factor * speed_mps, factor }
  },
})
