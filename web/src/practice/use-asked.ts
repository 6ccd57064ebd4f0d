import { offerIn } from '@geolabe/contract'
import { forKindOf, type Machine, neverPractised, type Place, type PracticeAsked, practiceAsked } from '@geolabe/core'
import { usePracticeGames, usePractised } from '../api/queries'

/** The practice that a place asks of who is signed on before a shift on a machine; null: none, or nobody knows yet. */
export function usePracticeAsked(m: Machine, place: Place | null): PracticeAsked | null {
  const [games, known] = [usePracticeGames().data, usePractised().data]
  const of = games?.machines.find((g) => g.machine === m.id)
  if (!place || !of || !known) return null
  return practiceAsked(m, place.policy, forKindOf(new Map(Object.entries(known.kinds)), m) ?? neverPractised, offerIn(of))
}
