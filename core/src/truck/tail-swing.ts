import { z } from 'zod'
import { defineCalculator } from '../calculator/define'
import { rad } from '../physics'
import { measuredNotNegative, measuredPositive, notNegative } from '../quantity/measured'
import { Refusal } from '../refusal'

/**
 * Room a truck needs that steers with its rear wheels: it turns about a point on the line of its front axle, wheelbase/tan δ
 * from the middle. Aisle for a right-angled turn into a stack: tail radius, plus how far the load's outer corner reaches.
 */
export function tailSwing(input: {
  wheelbase_m: number
  steer_deg: number
  halfWidth_m: number
  tailOverhang_m: number
  load: { faceAhead_m: number; length_m: number; width_m: number }
  clearance_m: number
}) {
  const turn_m = input.wheelbase_m / Math.tan(input.steer_deg * rad)
  const { faceAhead_m, length_m, width_m } = input.load
  const tailRadius_m = Math.hypot(input.wheelbase_m + input.tailOverhang_m, turn_m + input.halfWidth_m)
  const loadRadius_m = Math.hypot(faceAhead_m + length_m, turn_m + width_m / 2)
  // Nearest to the turning point: the body on the axle's line, or the load's inner rear corner.
  const bodyInner_m = Math.max(0, turn_m - input.halfWidth_m)
  const loadInner_m = Math.hypot(faceAhead_m, Math.max(0, turn_m - width_m / 2))
  const inner_m = Math.min(bodyInner_m, loadInner_m)
  // Load wider than the turning point's distance on both sides: its corner, else its whole length, sets the aisle.
  const beyond = width_m / 2 - turn_m
  const reach_m = beyond > 0 ? Math.hypot(faceAhead_m + length_m, beyond) : faceAhead_m + length_m
  const outer_m = Math.max(tailRadius_m, loadRadius_m)
  return {
    turnCentre_m: turn_m,
    tailRadius_m,
    loadRadius_m,
    innerRadius_m: inner_m,
    sweptWidth_m: outer_m - inner_m,
    /** How far the tail swings out beyond the body's own side. */
    tailOut_m: tailRadius_m - turn_m - input.halfWidth_m,
    aisle_m: tailRadius_m + reach_m + input.clearance_m,
  }
}

export const tailSwingCalculator = defineCalculator({
  name: 'tail-swing',
  purpose: 'How far the tail swings out in a turn, how wide the truck sweeps, and the aisle it needs.',
  source: 'Plane geometry of rear steering about a point on the front axle’s line.',
  cautions: [
    'The tail swings towards people beside the truck: look behind before every turn.',
    'Tyres slip: leave more than the figure.',
  ],
  input: z.strictObject({
    wheelbase_m: measuredPositive,
    steer_deg: measuredPositive,
    halfWidth_m: measuredPositive,
    tailOverhang_m: measuredNotNegative,
    load: z.strictObject({ faceAhead_m: measuredNotNegative, length_m: measuredNotNegative, width_m: measuredPositive }),
    clearance_m: notNegative,
  }),
  output: z.object({
    turnCentre_m: z.number(),
    tailRadius_m: z.number(),
    loadRadius_m: z.number(),
    innerRadius_m: z.number(),
    sweptWidth_m: z.number(),
    tailOut_m: z.number(),
    aisle_m: z.number(),
  }),
  worse: {
    turnCentre_m: 'high',
    tailRadius_m: 'high',
    loadRadius_m: 'high',
    innerRadius_m: 'low',
    sweptWidth_m: 'high',
    tailOut_m: 'high',
    aisle_m: 'high',
  },
  example: {
    wheelbase_m: 1.6,
    steer_deg: 72,
    halfWidth_m: 0.58,
    tailOverhang_m: 0.45,
    load: { faceAhead_m: 0.42, length_m: 1.2, width_m: 0.8 },
    clearance_m: 0.2,
  },
  compute: (input) => {
    if (input.steer_deg > 89.9) throw new Refusal('too-sharp', 'Steering stops short of 90°; give at most 89.9.', 'steer_deg')
    return tailSwing(input)
  },
})
