import { z } from 'zod'
import { defineCalculator } from '../calculator/define'
import { measuredNotNegative, measuredPositive, notNegative } from '../quantity/measured'

/** What a load behind the rear axle leaves on the front axle: F₀ − P·o/wheelbase. */
export function recovery(input: {
  frontAxle_N: number
  pull_N: number
  overhang_m: number
  wheelbase_m: number
  least_share: number
}) {
  const left = input.frontAxle_N - (input.pull_N * input.overhang_m) / input.wheelbase_m
  return {
    frontLeft_N: Math.max(0, left),
    frontLeft_share: Math.max(0, left) / input.frontAxle_N,
    frontLifts: left <= 0,
    greatestPull_N: (input.frontAxle_N * (1 - input.least_share) * input.wheelbase_m) / input.overhang_m,
    ok: left >= input.least_share * input.frontAxle_N,
  }
}

export const recoveryCalculator = defineCalculator({
  name: 'recovery',
  purpose: 'What stays on the front axle while something is lifted or towed behind the truck.',
  source: 'Moments about the rear axle: F₀ − P·o/wheelbase.',
  cautions: [
    'Steering and braking need the front axle; the maker and the law say how much must stay on it.',
    'On a slope or braking downhill less stays.',
  ],
  input: z.strictObject({
    frontAxle_N: measuredPositive,
    pull_N: measuredNotNegative,
    overhang_m: measuredPositive,
    wheelbase_m: measuredPositive,
    least_share: notNegative.max(1, 'At most 1.'),
  }),
  output: z.object({
    frontLeft_N: z.number(),
    frontLeft_share: z.number(),
    frontLifts: z.boolean(),
    greatestPull_N: z.number(),
    ok: z.boolean(),
  }),
  worse: { frontLeft_N: 'low', frontLeft_share: 'low', frontLifts: true, greatestPull_N: 'low', ok: false },
  example: { frontAxle_N: 52000, pull_N: 30000, overhang_m: 2.4, wheelbase_m: 5.2, least_share: 0.5 },
  compute: recovery,
})
