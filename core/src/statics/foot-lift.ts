import { z } from 'zod'
import { defineCalculator } from '../calculator/define'
import { g_mps2, rad } from '../physics'
import { measured, measuredNotNegative, measuredPositive } from '../quantity/measured'
import { Refusal } from '../refusal'

interface FootLiftInput {
  boom_m: number
  mass_kg: number
  cgFromFoot_m: number
  slingFromFoot_m: number
  hinge: { x_m: number; height_m: number }
}

/**
 * The foot of a boom that lies on the ground, lifted to its hinge: the boom's angle then, what sling and head carry, where the mast's tip has to be, how
 * far the head draws.
 *
 * @throws Refusal `out-of-reach`, `cg-outside`, `sling-past-centre`
 */
export function footLift({ boom_m, mass_kg, cgFromFoot_m, slingFromFoot_m, hinge }: FootLiftInput) {
  if (hinge.height_m >= boom_m)
    throw new Refusal('out-of-reach', 'The hinge is higher than the boom is long; lift it whole.', 'hinge.height_m')
  if (cgFromFoot_m >= boom_m)
    throw new Refusal('cg-outside', 'Its centre of gravity lies past its head; measure again from the foot.', 'cgFromFoot_m')
  if (slingFromFoot_m >= cgFromFoot_m)
    throw new Refusal(
      'sling-past-centre',
      'Slung past its centre of gravity the head would rise, not the foot; sling nearer to the foot.',
      'slingFromFoot_m',
    )
  const angle = Math.asin(hinge.height_m / boom_m)
  const weight_N = mass_kg * g_mps2
  const arm_m = boom_m - slingFromFoot_m
  return {
    angle_deg: angle / rad,
    lift_N: (weight_N * (boom_m - cgFromFoot_m)) / arm_m,
    head_N: (weight_N * (cgFromFoot_m - slingFromFoot_m)) / arm_m,
    mastTip_m: hinge.x_m + slingFromFoot_m * Math.cos(angle),
    draws_m: boom_m * (1 - Math.cos(angle)),
  }
}

export const footLiftCalculator = defineCalculator({
  name: 'foot-lift',
  purpose: 'Lifting the foot of a lattice boom that lies on the ground up to its pins: how much, how far, from where.',
  source: 'Statics of a beam on its head and a sling; sin β = hinge height/length.',
  cautions: [
    'The mast’s tip goes over the sling: the boom is never dragged.',
    'The head draws over the ground as the foot rises: rollers or plates under it, nobody beside it.',
    'Rigging and blocks on the boom are in its mass and centre only if you put them there.',
  ],
  input: z.strictObject({
    boom_m: measuredPositive,
    mass_kg: measuredPositive,
    cgFromFoot_m: measuredPositive,
    slingFromFoot_m: measuredNotNegative,
    /** Where its foot is pinned: ahead of the slew centre, and how high. */
    hinge: z.strictObject({ x_m: measured, height_m: measuredPositive }),
  }),
  output: z.object({
    angle_deg: z.number(),
    lift_N: z.number(),
    head_N: z.number(),
    mastTip_m: z.number(),
    draws_m: z.number(),
  }),
  worse: { angle_deg: 'high', lift_N: 'high', head_N: 'high', mastTip_m: 'either', draws_m: 'high' },
  example: {
    boom_m: 12,
    mass_kg: 6200,
    cgFromFoot_m: 5.4,
    slingFromFoot_m: 1.2,
    hinge: { x_m: 1.3, height_m: 2.1 },
  },
  compute: footLift,
})
