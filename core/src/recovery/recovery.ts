import { z } from 'zod'
import { defineCalculator } from '../calculator/define'
import { measuredNotNegative, measuredPositive, notNegative } from '../quantity/measured'

/**
 * What a load behind the rear axle leaves on the front axle, F₀ − P·o/wheelbase, and puts on the rear one, R₀ + P·(1 + o/wheelbase): with an arm
 * close behind, the rear axle is full first.
 */
export function recovery(input: {
  frontAxle_N: number
  pull_N: number
  overhang_m: number
  wheelbase_m: number
  least_share: number
  rearAxle_N?: number | undefined
  rearLimit_N?: number | undefined
}) {
  const left = input.frontAxle_N - (input.pull_N * input.overhang_m) / input.wheelbase_m
  const { rearAxle_N, rearLimit_N } = input
  const byFront_N = (input.frontAxle_N * (1 - input.least_share) * input.wheelbase_m) / input.overhang_m
  const rear = rearAxle_N !== undefined && rearLimit_N !== undefined
  const each = 1 + input.overhang_m / input.wheelbase_m
  const rear_N = rear ? rearAxle_N + input.pull_N * each : 0
  return {
    ...(rear && { rear_N, rearUse: rear_N / rearLimit_N }),
    frontLeft_N: Math.max(0, left),
    frontLeft_share: Math.max(0, left) / input.frontAxle_N,
    frontLifts: left <= 0,
    greatestPull_N: rear ? Math.min(byFront_N, Math.max(0, rearLimit_N - rearAxle_N) / each) : byFront_N,
    ok: left >= input.least_share * input.frontAxle_N && (!rear || rear_N <= rearLimit_N),
  }
}

export const recoveryCalculator = defineCalculator({
  name: 'recovery',
  purpose: 'What stays on the front axle, and comes onto the rear one, while something is lifted or towed behind the truck.',
  source: 'Moments about the rear axle: F₀ − P·o/wheelbase.',
  cautions: [
    'Steering and braking need the front axle; the maker and the law say how much must stay on it.',
    'Give the rear axle as well: behind a wheel-lift it is full before the front one is too light.',
    'On a slope or braking downhill less stays.',
  ],
  input: z.strictObject({
    frontAxle_N: measuredPositive,
    pull_N: measuredNotNegative,
    overhang_m: measuredPositive,
    wheelbase_m: measuredPositive,
    least_share: notNegative.max(1, 'At most 1.'),
    /** What the rear axle carries without it, and what it may carry; left out: only the front one is looked at. */
    rearAxle_N: measuredNotNegative.optional(),
    rearLimit_N: measuredPositive.optional(),
  }),
  output: z.object({
    frontLeft_N: z.number(),
    frontLeft_share: z.number(),
    frontLifts: z.boolean(),
    greatestPull_N: z.number(),
    ok: z.boolean(),
    rear_N: z.number().optional(),
    rearUse: z.number().optional(),
  }),
  worse: {
    frontLeft_N: 'low',
    frontLeft_share: 'low',
    frontLifts: true,
    greatestPull_N: 'low',
    ok: false,
    rear_N: 'high',
    rearUse: 'high',
  },
  example: { frontAxle_N: 52000, pull_N: 30000, overhang_m: 2.4, wheelbase_m: 5.2, least_share: 0.5 },
  compute: recovery,
})
