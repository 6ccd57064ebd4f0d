import { z } from 'zod'
import { defineCalculator } from '../calculator/define'
import { nth } from '../list'
import { g_mps2, rad } from '../physics'
import { measured, measuredNotNegative, measuredPositive, positive } from '../quantity/measured'
import { Refusal } from '../refusal'
import { supportReactions } from '../statics/support-reactions'

/**
 * Shares of two hooks at a and b from the centre of gravity: R₁ = W(b + h·tan φ)/(a + b), h the depth of the centre of
 * gravity below the lift points, φ positive with hook 1 high.
 */
export function shareOfTwo(input: { mass_kg: number; a_m: number; b_m: number; h_m: number; tilt_deg: number }) {
  const first = (input.b_m + input.h_m * Math.tan(input.tilt_deg * rad)) / (input.a_m + input.b_m)
  return { first, second: 1 - first }
}

const hook = z.object({
  id: z.string(),
  load_kg: z.number(),
  share: z.number(),
  upper_kg: z.number(),
  utilisation: z.number().nullable(),
  pressure_kPa: z.number().nullable(),
  /** Measured over computed pressure; far from 1: something binds, leaks or stands wrong. */
  pressureRatio: z.number().nullable(),
})

export const loadSharingCalculator = defineCalculator({
  name: 'load-sharing',
  purpose: 'What each of two hooks, or each of several hoists or towers, carries of one load.',
  source: 'Moments, R₁ = W(b + h·tan φ)/(a + b); several points: support-reactions with their upper bounds.',
  cautions: [
    'Two machines on one load is a planned lift with one person in charge.',
    'Compare each tower’s pressure with its own computed share, not with the other towers.',
    'Stop when a load tilts: the shares move with it.',
  ],
  input: z.strictObject({
    mass_kg: measuredPositive,
    two: z
      .strictObject({
        a_m: measuredPositive,
        b_m: measuredPositive,
        h_m: measured,
        tilt_deg: measured,
        first_kg: positive.optional(),
        second_kg: positive.optional(),
      })
      .optional(),
    several: z
      .strictObject({
        cg: z.strictObject({ x_m: measured, y_m: measured }),
        points: z
          .array(
            z.strictObject({
              id: z.string().min(1),
              x_m: measured,
              y_m: measured,
              capacity_kg: positive.optional(),
              piston_m2: positive.optional(),
              measured_kPa: measuredNotNegative.optional(),
            }),
          )
          .max(16),
      })
      .optional(),
  }),
  output: z.object({ hooks: z.array(hook), greatestUse: z.number().nullable() }),
  worse: {
    hooks: { rows: 'id' },
    'hooks.*.id': 'given',
    'hooks.*.load_kg': 'high',
    'hooks.*.share': 'high',
    'hooks.*.upper_kg': 'high',
    'hooks.*.utilisation': 'high',
    'hooks.*.pressure_kPa': 'high',
    'hooks.*.pressureRatio': { worse: 'high', nothing: 'unknown' },
    greatestUse: 'high',
  },
  example: {
    mass_kg: { value: 8400, tolerance: 200 },
    two: { a_m: 2.1, b_m: 3.4, h_m: 0.8, tilt_deg: 2, first_kg: 6000, second_kg: 5000 },
  },
  compute: ({ mass_kg, two, several }) => {
    if ((two === undefined) === (several === undefined)) {
      throw new Refusal(
        'two-or-several',
        'Give either two hooks (“two”) or several points (“several”).',
        two === undefined ? 'two' : 'several',
      )
    }
    const greatest = (hooks: { utilisation: number | null }[]) =>
      hooks.reduce<number | null>((u, h) => (h.utilisation === null ? u : Math.max(u ?? 0, h.utilisation)), null)
    if (two) {
      if (Math.abs(two.tilt_deg) > 45)
        throw new Refusal('too-steep', 'More than 45° is no lift; check the figure.', 'two.tilt_deg')
      const share = shareOfTwo({ mass_kg, ...two })
      if (share.first < 0 || share.second < 0) {
        throw new Refusal(
          'hook-slack',
          'At this tilt one hook would carry everything and the other hang slack; bring it level.',
          'two.tilt_deg',
        )
      }
      const one = (id: string, s: number, capacity: number | undefined) => ({
        id,
        load_kg: mass_kg * s,
        share: s,
        upper_kg: mass_kg * s,
        utilisation: capacity === undefined ? null : (mass_kg * s) / capacity,
        pressure_kPa: null,
        pressureRatio: null,
      })
      const hooks = [one('1', share.first, two.first_kg), one('2', share.second, two.second_kg)]
      return { hooks, greatestUse: greatest(hooks) }
    }
    const points = several?.points ?? []
    const cg = several?.cg ?? { x_m: 0, y_m: 0 }
    const r = supportReactions({ supports: points.map(({ id, x_m, y_m }) => ({ id, x_m, y_m })), masses: [{ mass_kg, ...cg }] })
    if (!r.reactions) {
      throw new Refusal(
        'outside-points',
        'The centre of gravity stands outside the lift points: it would fall out of them.',
        'several.cg',
      )
    }
    const hooks = r.reactions.map((x, i) => {
      const p = nth(points, i)
      const pressure_kPa = p.piston_m2 === undefined ? null : x.reaction_N / p.piston_m2 / 1000
      return {
        id: x.id,
        load_kg: x.reaction_N / g_mps2,
        share: x.reaction_N / (mass_kg * g_mps2),
        upper_kg: x.upper_N / g_mps2,
        utilisation: p.capacity_kg === undefined ? null : x.upper_N / g_mps2 / p.capacity_kg,
        pressure_kPa,
        pressureRatio:
          pressure_kPa !== null && pressure_kPa > 0 && p.measured_kPa !== undefined ? p.measured_kPa / pressure_kPa : null,
      }
    })
    return { hooks, greatestUse: greatest(hooks) }
  },
})
