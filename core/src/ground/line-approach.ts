import { z } from 'zod'
import { defineCalculator } from '../calculator/define'
import { measuredNotNegative, notNegative } from '../quantity/measured'
import { Refusal } from '../refusal'

/** Least distances to overhead lines by voltage up to and including, metres. */
const distances: readonly { to_kV: number; required_m: number }[] = [
  { to_kV: 50, required_m: 3.05 },
  { to_kV: 200, required_m: 4.572 },
  { to_kV: 350, required_m: 6.1 },
  { to_kV: 500, required_m: 7.62 },
  { to_kV: 750, required_m: 10.67 },
  { to_kV: 1000, required_m: 13.72 },
]

export interface LineApproach {
  /** Null above 1000 kV: the utility's own figure is needed. */
  required_m: number | null
  ok: boolean | null
  short_m: number | null
}

/** Least distance to an overhead line, sag and blow-out taken off what was measured. Source: OSHA 1926.1408, table A, and 1409. */
export function lineApproach(input: {
  voltage_kV: number | null
  confirmedBelow350?: boolean | undefined
  distance_m: number
  sag_m?: number | undefined
  blowOut_m?: number | undefined
  siteMinimum_m?: number | undefined
}): LineApproach {
  const { voltage_kV } = input
  const byVoltage =
    voltage_kV === null
      ? input.confirmedBelow350
        ? 6.1
        : 15.24
      : (distances.find((d) => voltage_kV <= d.to_kV)?.required_m ?? null)
  if (byVoltage === null && input.siteMinimum_m === undefined) return { required_m: null, ok: null, short_m: null }
  const required_m = Math.max(byVoltage ?? 13.72, input.siteMinimum_m ?? 0)
  const clear_m = input.distance_m - (input.sag_m ?? 0) - (input.blowOut_m ?? 0)
  const short_m = Math.max(0, required_m - clear_m)
  return { required_m, ok: short_m === 0, short_m }
}

export const lineApproachCalculator = defineCalculator({
  name: 'line-approach',
  purpose: 'How far to keep from an overhead line, and whether this is far enough.',
  source: 'OSHA 1926.1408 table A and 1926.1409; the utility and local law decide.',
  cautions: [
    'Dead and earthed, in writing from the utility, before anything goes nearer.',
    'Sag and blow-out move the line during the day.',
  ],
  input: z.strictObject({
    voltage_kV: notNegative.nullable(),
    confirmedBelow350: z.boolean().optional(),
    distance_m: measuredNotNegative,
    sag_m: measuredNotNegative.optional(),
    blowOut_m: measuredNotNegative.optional(),
    siteMinimum_m: notNegative.optional(),
  }),
  output: z.object({ required_m: z.number().nullable(), ok: z.boolean().nullable(), short_m: z.number().nullable() }),
  worse: {
    required_m: { worse: 'high', nothing: 'unknown' },
    ok: { words: [true, null, false] },
    short_m: { worse: 'high', nothing: 'unknown' },
  },
  example: { voltage_kV: 11, distance_m: { value: 5, tolerance: 0.5 }, sag_m: 0.4, blowOut_m: 0.6 },
  compute: (input) => {
    if (input.voltage_kV !== null && input.confirmedBelow350 !== undefined) {
      throw new Refusal('voltage-known', 'confirmedBelow350 is for an unknown voltage; leave it out.', 'confirmedBelow350')
    }
    return lineApproach(input)
  },
})
