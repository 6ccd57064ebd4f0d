import * as contract from '@geolabe/contract'
import * as core from '@geolabe/core'
import { told } from './t'

/** A list of words, each in the person's language. */
export function each<T>(words: T): T {
  if (typeof words === 'string') return told(words) as T & string
  if (typeof words !== 'object' || words === null) return words
  return Object.fromEntries(Object.entries(words).map(([k, v]) => [k, each(v)])) as T
}

/** What the core calls things, in the person's language. */
export const verdictWords = each(core.verdictWords)
export const gradeWords = each(core.gradeWords)
export const occasionWords = each(core.occasionWords)
export const controlWayWords = each(core.wayWords)
export const returningWords = each(core.returningWords)
export const roleWords = each(core.roleWords)
export const walkPartWords = each(core.walkPartWords)
export const stationWords = each(contract.stationWords)
export const stopWords = (id: string, label: string) => told(core.stopWords(id, label))
