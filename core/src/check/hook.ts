import { byUse, found } from '../finding/finding'
import type { Check } from './check'

/** Everything on the hook against what its block is marked with. */
export const hookCheck: Check<'hook'> = {
  id: 'hook',
  since: 1,
  run: ({ hook, block, near_share }) => {
    if (!hook) return []
    const utilisation = hook.total_kg / block.hook_kg
    return [
      found({
        check: 'hook',
        verdict: byUse(utilisation, near_share),
        reason: 'capacity',
        quantity: 'mass',
        measured: hook.total_kg,
        nominal: hook.totalNominal_kg,
        limit: block.hook_kg,
        utilisation,
        detail: { block: block.name },
      }),
    ]
  },
  heldBackBy: ['mass'],
  impliedBy: [],
  remedies: ['parts-of-line', 'mass', 'split'],
}
