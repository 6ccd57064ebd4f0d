import { byUse, found } from '../finding/finding'
import type { Check } from './check'
import { runwayChain } from './runway'
import { straddleLines } from './straddle'

/** Everything on the hook against what this many parts of line hold. */
export const hoistRopeCheck: Check<'hoist-rope'> = {
  id: 'hoist-rope',
  since: 1,
  run: ({ hook, hoist, partsOfLine, near_share }) => {
    if (!hook) return []
    const limit = hoist.limit_kg(partsOfLine)
    const utilisation = hook.total_kg / limit
    return [
      found({
        check: 'hoist-rope',
        verdict: byUse(utilisation, near_share),
        reason: 'capacity',
        quantity: 'mass',
        measured: hook.total_kg,
        nominal: hook.totalNominal_kg,
        limit,
        utilisation,
        detail: { partsOfLine },
      }),
    ]
  },
  runway: runwayChain,
  straddle: straddleLines,
  heldBackBy: ['mass'],
  impliedBy: [],
  remedies: ['parts-of-line', 'mass', 'split'],
}
