import { type Finding, found } from '../finding/finding'
import type { Check } from './check'
import { towMass } from './towing'

const hungKnown = ({ hung }: { hung: unknown }): Finding[] =>
  hung ? [] : [found({ check: 'mass', verdict: 'not-proven', reason: 'unknown', detail: {} })]

/** What is lifted is known, and how it is known. */
export const massCheck: Check<'mass'> = {
  id: 'mass',
  since: 1,
  run: ({ hook }) => (hook ? [] : [found({ check: 'mass', verdict: 'not-proven', reason: 'unknown', detail: {} })]),
  truck: ({ mass_kg }) => (mass_kg ? [] : [found({ check: 'mass', verdict: 'not-proven', reason: 'unknown', detail: {} })]),
  tow: towMass,
  runway: hungKnown,
  gantry: hungKnown,
  straddle: hungKnown,
  heldBackBy: [],
  impliedBy: ['hoist-rope', 'axle', 'share'],
  remedies: [],
}
