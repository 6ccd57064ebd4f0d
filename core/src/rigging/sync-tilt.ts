import { z } from 'zod'
import { defineCalculator } from '../calculator/define'
import { rad } from '../physics'
import { measured, measuredNotNegative, measuredPositive } from '../quantity/measured'
import { Refusal } from '../refusal'
import { shareOfTwo } from './load-sharing'

/** Two hoists count as level with one another within this where their book says nothing, metres. */
const usualWithin_m = 0.01

export const syncTiltCalculator = defineCalculator({
  name: 'sync-tilt',
  purpose: 'What two hoists carry when one is higher than the other, and whether they count as aligned.',
  source: 'φ = atan(Δz/(a + b)); shares by moments, as of two hooks.',
  cautions: [
    'With the centre of gravity below the lift points the high hoist gains, above them the low one.',
    'Read the difference on every rope, not at one end only.',
    'Not aligned: lift one at a time until they are, with nothing else moving.',
  ],
  input: z.strictObject({
    mass_kg: measuredPositive,
    /** From each hoist to the centre of gravity. */
    a_m: measuredPositive,
    b_m: measuredPositive,
    /** Centre of gravity below the lift points; above them: less than nothing. */
    h_m: measured,
    /** How much higher the first hoist is; lower: less than nothing. */
    firstHigher_m: measured,
    /** By the machine's book; left out: 10 mm. */
    alignedWithin_m: measuredNotNegative.optional(),
  }),
  output: z.object({
    tilt_deg: z.number(),
    first_kg: z.number(),
    second_kg: z.number(),
    /** More on the first than level, kg; less than nothing: it carries less. */
    firstGains_kg: z.number(),
    aligned: z.boolean(),
  }),
  worse: { tilt_deg: 'either', first_kg: 'high', second_kg: 'high', firstGains_kg: 'either', aligned: false },
  example: { mass_kg: 38_000, a_m: 2.4, b_m: 3.6, h_m: 1.2, firstHigher_m: 0.02 },
  compute: ({ mass_kg, a_m, b_m, h_m, firstHigher_m, alignedWithin_m = usualWithin_m }) => {
    const span_m = a_m + b_m
    const tilt_deg = Math.atan(firstHigher_m / span_m) / rad
    if (Math.abs(tilt_deg) > 45)
      throw new Refusal('out-of-range', 'One hoist is higher than the two are apart; measure again.', 'firstHigher_m')
    const { first, second } = shareOfTwo({ mass_kg, a_m, b_m, h_m, tilt_deg })
    if (first < 0 || second < 0)
      throw new Refusal(
        'slack',
        'Tilted so far one hoist carries nothing; level them before anything is lifted.',
        'firstHigher_m',
      )
    return {
      tilt_deg,
      first_kg: first * mass_kg,
      second_kg: second * mass_kg,
      firstGains_kg: (first - b_m / span_m) * mass_kg,
      aligned: Math.abs(firstHigher_m) <= alignedWithin_m + 1e-12,
    }
  },
})
