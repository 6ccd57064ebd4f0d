import { found } from '../finding/finding'
import type { Check } from './check'
import { gantryTable } from './gantry'
import { runwayTable } from './runway'
import { straddleTable } from './straddle'

/** A table of this machine covers this set-up. */
export const tableCheck: Check<'table'> = {
  id: 'table',
  since: 1,
  run: ({ choice }) => {
    if (choice.by === 'none') return [found({ check: 'table', verdict: 'not-proven', reason: choice.reason, detail: {} })]
    if (choice.by !== 'short') return []
    const detail = { table: choice.table, outriggers: choice.outriggers.join(', ') }
    return [found({ check: 'table', verdict: 'outside', reason: 'legs-short', detail })]
  },
  runway: runwayTable,
  gantry: gantryTable,
  straddle: straddleTable,
  heldBackBy: ['mass'],
  impliedBy: ['rating'],
  remedies: ['support', 'extension', 'set-down-slew', 'slew-direction'],
}
