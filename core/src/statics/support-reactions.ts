import { z } from 'zod'
import { defineCalculator } from '../calculator/define'
import { sampleLegs } from '../calculator/sample'
import { nth } from '../list'
import { marginInside } from '../plane/hull'
import { elasticReactions, upperReactions } from './elastic'
import { type Footprint, prepareFootprint, type Support } from './footprint'
import { type Resultant, resultantAt, sumFixed } from './resultant'
import { footingInput, type Mass, type Moments } from './schema'

export interface ContactReaction {
  id: string
  /** On equal springs, or the given ones. */
  reaction_N: number
  /** The most this leg can carry whatever the settlements. */
  upper_N: number
  contact: boolean
}

export interface SupportReactions {
  stable: boolean
  resultant: Resultant
  /** Signed distance from the resultant to the nearest edge of the footprint: inside positive. */
  margin_m: number
  edge: [string, string]
  /** Null when the machine would not stand. */
  reactions: ContactReaction[] | null
}

/** Reactions at one resultant on a prepared footprint. */
export function reactionsAt(f: Footprint, r: Resultant): SupportReactions {
  const { margin_m, edge } = marginInside(f.hull, r)
  const stable = margin_m > f.least_m
  const base: Omit<SupportReactions, 'reactions'> = { stable, resultant: r, margin_m, edge: [edge[0].id, edge[1].id] }
  if (!stable) return { ...base, reactions: null }
  const elastic = new Float64Array(f.supports.length)
  const upper = new Float64Array(f.supports.length)
  elasticReactions(f, r.x_m, r.y_m, r.force_N, elastic)
  upperReactions(f, r.x_m, r.y_m, r.force_N, upper)
  return {
    ...base,
    reactions: f.supports.map((s, i) => {
      const reaction_N = nth(elastic, i)
      // The bound and the spring answer come from different sums; the bound is never reported below by rounding.
      return { id: s.id, reaction_N, upper_N: Math.max(nth(upper, i), reaction_N), contact: reaction_N > 0 }
    }),
  }
}

/**
 * What each support carries under given masses and moments.
 *
 * @throws Refusal for supports in a line or fewer than three, or no weight at all.
 * Source: statics; Winkler supports without tension.
 */
export function supportReactions(input: { supports: readonly Support[]; masses: readonly Mass[] } & Moments): SupportReactions {
  const f = prepareFootprint(input.supports)
  return reactionsAt(f, resultantAt(sumFixed(input.masses, input)))
}

export const supportReactionsCalculator = defineCalculator({
  name: 'support-reactions',
  purpose: 'What each leg carries, and how far the weight stands inside the footprint.',
  source: 'Statics; rigid frame on Winkler supports that cannot pull.',
  cautions: ['Use the upper figure for ground and mats: legs never share as springs on paper do.'],
  input: z.strictObject(footingInput),
  output: z.object({
    stable: z.boolean(),
    resultant: z.object({ x_m: z.number(), y_m: z.number(), force_N: z.number() }),
    margin_m: z.number(),
    edge: z.tuple([z.string(), z.string()]),
    reactions: z
      .array(z.object({ id: z.string(), reaction_N: z.number(), upper_N: z.number(), contact: z.boolean() }))
      .nullable(),
  }),
  worse: {
    stable: false,
    'resultant.x_m': 'either',
    'resultant.y_m': 'either',
    'resultant.force_N': 'high',
    margin_m: 'low',
    edge: { with: 'margin_m' },
    reactions: { worse: 'high', nothing: 'unknown' },
    'reactions.*.id': 'given',
    'reactions.*.reaction_N': 'high',
    'reactions.*.upper_N': 'high',
    'reactions.*.contact': false,
  },
  example: {
    supports: sampleLegs,
    masses: [{ mass_kg: { value: 31000, tolerance: 500 }, x_m: 0.4, y_m: 0.3 }],
  },
  compute: (input) => supportReactions(input),
})
