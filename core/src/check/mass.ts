import { found } from '../finding/finding'
import type { Check } from './check'

/** What is lifted is known, and how it is known. */
export const massCheck: Check<'mass'> = {
  id: 'mass',
  since: 1,
  run: ({ hook }) => (hook ? [] : [found({ check: 'mass', verdict: 'not-proven', reason: 'unknown', detail: {} })]),
  heldBackBy: [],
  impliedBy: ['hoist-rope'],
  remedies: [],
}
