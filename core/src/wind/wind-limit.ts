import { z } from 'zod'
import { defineCalculator } from '../calculator/define'
import { measuredNotNegative, measuredPositive, positive } from '../quantity/measured'

export interface WindLimit {
  limit_mps: number
  /** True when the load's sail, not the table's own figure, sets the limit. */
  reducedByLoad: boolean
}

/**
 * The wind in which this load may be lifted, m/s: chart × √(reference area per tonne · tonnes / (c·A)), never above the
 * chart's own. The reference area comes from the chart; there is no default for it.
 */
export function windLimit(input: {
  chartLimit_mps: number
  referenceArea_m2_per_t: number
  mass_kg: number
  sailArea_m2: number
  dragCoefficient: number
}): WindLimit {
  const allowed = (input.referenceArea_m2_per_t * input.mass_kg) / 1000
  const has = input.dragCoefficient * input.sailArea_m2
  const reducedByLoad = has > allowed
  return { limit_mps: reducedByLoad ? input.chartLimit_mps * Math.sqrt(allowed / has) : input.chartLimit_mps, reducedByLoad }
}

export const windLimitCalculator = defineCalculator({
  name: 'wind-limit',
  purpose: 'The wind in which this load may be lifted.',
  source: 'EN 13000: permitted wind reduced by the square root of reference to actual wind area.',
  cautions: ['The limit holds for gusts at the boom tip.', 'Loads that catch the wind turn: tag lines, and nobody beneath.'],
  input: z.strictObject({
    chartLimit_mps: positive,
    referenceArea_m2_per_t: positive,
    mass_kg: measuredPositive,
    sailArea_m2: measuredNotNegative,
    dragCoefficient: measuredPositive,
  }),
  output: z.object({ limit_mps: z.number(), reducedByLoad: z.boolean() }),
  worse: { limit_mps: 'low', reducedByLoad: true },
  example: {
    chartLimit_mps: 10,
    referenceArea_m2_per_t: 1.2,
    mass_kg: { value: 1800, tolerance: 200 },
    sailArea_m2: 5,
    dragCoefficient: 1.2,
  },
  compute: (input) => windLimit(input),
})
