import { found } from '../finding/finding'
import type { Check } from './check'
import { runwayMass } from './runway'
import { towMass } from './towing'

/** What is lifted is known, and how it is known. */
export const massCheck: Check<'mass'> = {
  id: 'mass',
  since: 1,
  run: ({ hook }) => (hook ? [] : [found({ check: 'mass', verdict: 'not-proven', reason: 'unknown', detail: {} })]),
  truck: ({ mass_kg }) => (mass_kg ? [] : [found({ check: 'mass', verdict: 'not-proven', reason: 'unknown', detail: {} })]),
  tow: towMass,
  runway: runwayMass,
  heldBackBy: [],
  impliedBy: ['hoist-rope', 'axle'],
  remedies: [],
}
