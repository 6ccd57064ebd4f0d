import { z } from 'zod'

/** A rating in kilograms, or that there is none. */
export const ratedFigure = z.union([z.number(), z.literal('not-rated')])
export type RatedFigure = number | 'not-rated'

export interface Use {
  /** Share of what is allowed that is used; null with a reason in `why`. */
  utilisation: number | null
  why: string | null
}

/**
 * Share of a rating that a load uses. There is no share of nothing: where a table allows 0 kg, or says nothing, the answer is null
 * and says why.
 *
 * @example useOf(800, 1000) // { utilisation: 0.8, why: null }
 */
export function useOf(load_kg: number, allowed: RatedFigure): Use {
  if (allowed === 'not-rated') return { utilisation: null, why: 'Not rated: nothing may be lifted so.' }
  if (!(allowed > 0)) return { utilisation: null, why: 'Rated at 0 kg: nothing may be lifted so.' }
  return { utilisation: load_kg / allowed, why: null }
}

/** How `useOf` behaves over a ±: no share is worse than any. */
export const worseUse = { worse: 'high', nothing: 'worst' } as const
/** A rating is worse the less it is, and not rated is worst. */
export const worseRating = { worse: 'low', nothing: 'worst' } as const
