import { z } from 'zod'
import { defineCalculator } from '../calculator/define'
import { rad } from '../physics'
import { measured, measuredNotNegative } from '../quantity/measured'
import { Refusal } from '../refusal'

/** What a tilt does at the boom tip: Δr = −H(tan p·cosψ + tan r·sinψ) along the boom, and across it as a side load. */
export function levelEffect(input: { height_m: number; pitch_deg: number; roll_deg: number; slew_deg: number }) {
  const [p, r] = [Math.tan(input.pitch_deg * rad), Math.tan(input.roll_deg * rad)]
  const [c, s] = [Math.cos(input.slew_deg * rad), Math.sin(input.slew_deg * rad)]
  const across = r * c - p * s
  return {
    /** Outwards positive. */
    radiusChange_m: -input.height_m * (p * c + r * s),
    /** To the left of the boom positive. */
    side_m: -input.height_m * across,
    /** Sideways pull on the boom head as a share of the load. */
    sideLoadShare: Math.abs(across),
  }
}

export const levelEffectCalculator = defineCalculator({
  name: 'level-effect',
  purpose: 'What a machine out of level does to the radius and to the side load of the boom.',
  source: 'Plane geometry of a small tilt: Δr = −H(tan p·cosψ + tan r·sinψ).',
  cautions: ['A table holds only within the tilt it was made for; this figure does not extend it.'],
  input: z.strictObject({ height_m: measuredNotNegative, pitch_deg: measured, roll_deg: measured, slew_deg: measured }),
  output: z.object({ radiusChange_m: z.number(), side_m: z.number(), sideLoadShare: z.number() }),
  worse: { radiusChange_m: 'high', side_m: 'either', sideLoadShare: 'high' },
  example: { height_m: 24, pitch_deg: -0.8, roll_deg: 0.5, slew_deg: 30 },
  compute: (input) => {
    for (const axis of ['pitch_deg', 'roll_deg'] as const) {
      if (Math.abs(input[axis]) > 15) throw new Refusal('too-steep', 'More than 15° is no set-up; check the figure.', axis)
    }
    return levelEffect(input)
  },
})
