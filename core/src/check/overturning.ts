import { byUse, found, shareOf } from '../finding/finding'
import { normalDegrees } from '../physics'
import { allRules, ratedByRule } from '../statics/tipping-load'
import { UNREACHABLE } from './area'
import type { Check } from './check'
import { gantryOverturning } from './gantry'
import { straddleOverturning } from './straddle'
import { truckOverturning } from './truck-stands'

/** The least that stability allows on the path, with the margin of the machine's table. */
export const overturningCheck: Check<'overturning'> = {
  id: 'overturning',
  since: 1,
  run: ({ hook, stands, near_share }) => {
    if (!hook || stands.length === 0) return []
    const tipping = stands.map((s) => ({ radius_m: s.radius_m, ...s.tipping() }))
    const fallen = tipping.find((s) => !s.standsUnloaded)
    if (fallen) {
      const at = { radius_m: fallen.radius_m, slew_deg: normalDegrees(fallen.slew_deg) }
      return [found({ check: 'overturning', verdict: 'outside', reason: 'unstable-unloaded', at, detail: {} })]
    }
    const worst = tipping.reduce((a, b) => ((b.rated_kg ?? Infinity) < (a.rated_kg ?? Infinity) ? b : a))
    const at = { radius_m: worst.radius_m, slew_deg: normalDegrees(worst.slew_deg) }
    if (worst.rated_kg === null) {
      return [found({ check: 'overturning', verdict: 'inside', reason: 'cannot-tip', at, detail: {} })]
    }
    const utilisation = shareOf(hook.total_kg, worst.rated_kg)
    return [
      found({
        check: 'overturning',
        verdict: byUse(utilisation, near_share),
        reason: 'tipping',
        quantity: 'mass',
        measured: hook.total_kg,
        nominal: hook.totalNominal_kg,
        limit: worst.rated_kg,
        utilisation,
        at,
        detail: { tipping_kg: worst.tipping_kg ?? 0, edge: worst.edge?.join('–') ?? '' },
      }),
    ]
  },
  field: ({ tables, total_kg, head_kg }) => [
    {
      id: 'overturning',
      weighs: true,
      useAt: ({ ring, table, tipping_kg }) => {
        if (!ring.reaches) return UNREACHABLE
        if (tipping_kg === Infinity) return 0
        let rated = Infinity
        for (const rule of tables[table]?.rules ?? allRules) rated = Math.min(rated, ratedByRule(tipping_kg, rule, head_kg))
        return rated > 0 ? total_kg / rated : UNREACHABLE
      },
    },
  ],
  truck: truckOverturning,
  gantry: gantryOverturning,
  straddle: straddleOverturning,
  heldBackBy: ['mass', 'boom-limits'],
  impliedBy: [],
  remedies: [
    'support',
    'radius',
    'slew-direction',
    'extension',
    'counterweight',
    'set-down-slew',
    'load-centre',
    'height',
    'mass',
    'split',
  ],
}
