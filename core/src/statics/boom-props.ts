import { z } from 'zod'
import { defineCalculator } from '../calculator/define'
import { useOf } from '../calculator/use'
import { g_mps2 } from '../physics'
import { measured, measuredNotNegative, measuredPositive, positive } from '../quantity/measured'
import type { SlewingMass } from './schema'

/** A boom on its foot and on props under it, as a lever. */
export interface OnProps {
  /** On both props together. */
  pair_kg: number
  /** On the boom's foot; negative: it pulls the frame up. */
  foot_kg: number
}

/**
 * Moments about the boom's foot: R = (Q·(r + back) + Σ m·(s·cos)) / (p + back); the foot carries what is left.
 *
 * @param hook what hangs, and how far from the slew centre
 * @param boom the boom's own masses, at their radii from the slew centre
 * @param back_m the boom's foot behind the slew centre
 * @example onProps({ mass_kg: 14_000, radius_m: 6 }, boom, 4.5, 1.2).foot_kg // −1413
 */
export function onProps(hook: SlewingMass, boom: readonly SlewingMass[], at_m: number, back_m: number): OnProps {
  const all = [hook, ...boom]
  const pair_kg = all.reduce((s, m) => s + m.mass_kg * (m.radius_m + back_m), 0) / (at_m + back_m)
  return { pair_kg, foot_kg: all.reduce((s, m) => s + m.mass_kg, 0) - pair_kg }
}

export const boomPropsCalculator = defineCalculator({
  name: 'boom-props',
  purpose: 'What two props under a boom carry, and how hard its foot then pulls the frame up.',
  source: 'The boom as a lever on its foot and its props.',
  cautions: [
    'Only straight up and down, with the boom and the props that the maker names for it.',
    'The load hangs in the middle between the props: aside of it one of them carries more.',
    'What the props stand on is looked at by itself, each with its float or mat.',
  ],
  input: z.strictObject({
    hook_kg: measuredNotNegative,
    radius_m: measuredPositive,
    boom: z
      .array(z.strictObject({ mass_kg: positive, radius_m: measured }))
      .min(1, 'Give the boom’s own masses.')
      .max(20),
    props_m: measuredPositive,
    back_m: measuredNotNegative,
    dynamicFactor: positive.min(1, 'At least 1.').max(4, 'At most 4.'),
    prop_N: positive,
    footPull_N: positive,
  }),
  output: z.object({
    each_N: z.number(),
    foot_N: z.number(),
    propUse: z.number().nullable(),
    footUse: z.number().nullable(),
    most_kg: z.number(),
  }),
  worse: { each_N: 'high', foot_N: 'low', propUse: 'high', footUse: 'high', most_kg: 'low' },
  example: {
    hook_kg: { value: 14_000, tolerance: 200 },
    radius_m: 6,
    boom: [
      { mass_kg: 2600, radius_m: 0.72 },
      { mass_kg: 1300, radius_m: 2.03 },
      { mass_kg: 900, radius_m: 4.66 },
    ],
    props_m: 4.5,
    back_m: 1.2,
    dynamicFactor: 1.1,
    prop_N: 135_000,
    footPull_N: 30_000,
  },
  compute: ({ hook_kg, radius_m, boom, props_m, back_m, dynamicFactor, prop_N, footPull_N }) => {
    const at = (kg: number) => onProps({ mass_kg: kg, radius_m }, boom, props_m, back_m)
    const each_N = (Math.max(0, at(hook_kg * dynamicFactor).pair_kg) / 2) * g_mps2
    // The jerk of lifting pulls at the foot as well; hanging still it bears the least.
    const foot_N = Math.min(at(hook_kg).foot_kg, at(hook_kg * dynamicFactor).foot_kg) * g_mps2
    // Both grow evenly with what hangs.
    const [none, one] = [at(0), at(1)]
    const [pair, foot] = [one.pair_kg - none.pair_kg, none.foot_kg - one.foot_kg]
    const byProps_kg = ((2 * prop_N) / g_mps2 - none.pair_kg) / pair / dynamicFactor
    const byFoot_kg = foot > 0 ? (footPull_N / g_mps2 + none.foot_kg) / foot / dynamicFactor : Infinity
    return {
      each_N,
      foot_N,
      propUse: useOf(each_N, prop_N).utilisation,
      footUse: useOf(Math.max(0, -foot_N), footPull_N).utilisation,
      most_kg: Math.max(0, Math.min(byProps_kg, byFoot_kg)),
    }
  },
})
