import { z } from 'zod'
import { defineCalculator } from '../../calculator/define'
import { rad } from '../../physics'
import { measured, measuredNotNegative } from '../../quantity/measured'

/**
 * What telescoping and paying out do to the gap between hook block and boom head. The rope runs along the boom: drawing the
 * boom out by ΔL takes ΔL of rope from the n parts, paying out gives it back.
 */
export function hookTravel(input: {
  parts: number
  boomExtension_m: number
  lineOut_m: number
  gap_m: number
  boomAngle_deg: number
}) {
  const { parts: n, boomExtension_m: extension_m } = input
  const gapChange_m = (input.lineOut_m - extension_m) / n
  const left = input.gap_m + gapChange_m
  return {
    gapChange_m,
    /** Gap that is left; nothing where the block meets the head on the way. */
    gapLeft_m: Math.max(0, left),
    /** The block meets the boom head before this extension is drawn. */
    twoBlocks: left <= 1e-12,
    /** Extension from now on, with this line paid out, at which block meets head; never below nothing. */
    extensionUntilTwoBlock_m: Math.max(0, n * input.gap_m + input.lineOut_m),
    lineToHoldHeight_m: extension_m * (1 + n * Math.sin(input.boomAngle_deg * rad)),
  }
}

export const hookTravelCalculator = defineCalculator({
  name: 'hook-travel',
  purpose: 'How telescoping draws the hook towards the boom head, and how much line holds its height.',
  source: 'Length of rope over n parts: gap changes by (line out − extension)/n.',
  cautions: [
    'The hook stop is the last defence, not a gauge. Pay out before extending.',
    'Rope stretch and drum layers are left out.',
  ],
  input: z.strictObject({
    parts: z.int().min(1, 'At least one part of line.').max(32, 'At most 32 parts of line.'),
    boomExtension_m: measured,
    lineOut_m: measured,
    gap_m: measuredNotNegative,
    boomAngle_deg: measured,
  }),
  output: z.object({
    gapChange_m: z.number(),
    gapLeft_m: z.number(),
    twoBlocks: z.boolean(),
    extensionUntilTwoBlock_m: z.number(),
    lineToHoldHeight_m: z.number(),
  }),
  worse: {
    gapChange_m: 'low',
    gapLeft_m: 'low',
    twoBlocks: true,
    extensionUntilTwoBlock_m: 'low',
    lineToHoldHeight_m: 'high',
  },
  example: { parts: 4, boomExtension_m: 6, lineOut_m: 0, gap_m: 2.5, boomAngle_deg: 60 },
  compute: hookTravel,
})
