import { byUse, found } from '../finding/finding'
import { type Cell, UNREACHABLE } from './area'
import type { Check } from './check'

/** What each outrigger carries against the strength of its own structure. */
export const outriggerCheck: Check<'outrigger'> = {
  id: 'outrigger',
  since: 1,
  run: ({ support, bearings, near_share }) =>
    (support.on === 'outriggers' ? bearings : []).map(({ point, reaction_N, elastic_N, at, empty }) =>
      found({
        check: 'outrigger',
        subject: point.id,
        verdict: byUse(reaction_N / point.capacity_N, near_share),
        reason: 'capacity',
        quantity: 'force',
        measured: reaction_N,
        nominal: elastic_N,
        limit: point.capacity_N,
        utilisation: reaction_N / point.capacity_N,
        at,
        detail: { label: point.label, empty },
      }),
    ),
  field: ({ f, capacity_N, lift }) =>
    (lift && lift.support.on !== 'outriggers' ? [] : f.supports).flatMap(({ id }, i) => {
      const most_N = capacity_N[i] ?? null
      if (most_N === null) return []
      const useAt = ({ ring, falls, reaction }: Cell): number =>
        !ring.reaches || falls ? UNREACHABLE : (reaction[i] ?? 0) / most_N
      return [{ id: `outrigger:${id}`, weighs: true, useAt }]
    }),
  heldBackBy: ['mass', 'boom-limits', 'overturning'],
  impliedBy: [],
  remedies: ['support', 'radius', 'extension', 'set-down-slew', 'mass', 'split'],
}
