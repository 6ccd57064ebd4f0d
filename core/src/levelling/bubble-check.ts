import { z } from 'zod'
import { defineCalculator } from '../calculator/define'
import { measured } from '../quantity/measured'

/**
 * A loose level read, turned end for end and read again, both by its own ends: the true slope is half the difference, its
 * own error half the sum. The machine's fixed bubble is then compared with the true slope.
 */
export function bubbleCheck(input: { first_deg: number; turned_deg: number; fixed_deg?: number | undefined; surface: string }) {
  const true_deg = (input.first_deg - input.turned_deg) / 2
  return {
    true_deg,
    error_deg: (input.first_deg + input.turned_deg) / 2,
    fixedError_deg: input.fixed_deg === undefined ? null : input.fixed_deg - true_deg,
    surface: input.surface,
  }
}

export const bubbleCheckCalculator = defineCalculator({
  name: 'bubble-check',
  purpose: 'Whether a level reads true, and how far the machine’s own bubble is off.',
  source: 'Reversal: a level’s own error keeps its sign when it is turned, the slope does not.',
  cautions: [
    'Both readings on the same clean, named surface, in the same line.',
    'A bubble that cannot be proved leaves the level not proven.',
  ],
  input: z.strictObject({
    first_deg: measured,
    turned_deg: measured,
    fixed_deg: measured.optional(),
    surface: z.string().trim().min(1, 'Name the surface that it was read on.').max(200),
  }),
  output: z.object({
    true_deg: z.number(),
    error_deg: z.number(),
    fixedError_deg: z.number().nullable(),
    /** Where it was compared; the error is kept with it. */
    surface: z.string(),
  }),
  worse: { true_deg: 'either', error_deg: 'either', fixedError_deg: 'either', surface: 'given' },
  example: { first_deg: 0.8, turned_deg: -0.4, fixed_deg: 0.3, surface: 'slewing ring' },
  compute: bubbleCheck,
})
