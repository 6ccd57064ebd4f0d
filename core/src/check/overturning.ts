import { byUse, type Finding, found, shareOf } from '../finding/finding'
import type { Case } from '../lift/case'
import type { Crane } from '../machine/crane'
import { normalDegrees } from '../physics'
import { allRules, ratedByRule } from '../statics/tipping-load'
import { UNREACHABLE } from './area'
import type { Check } from './check'
import { byPapers, gantryOverturning } from './gantry'
import { straddleOverturning } from './straddle'
import { truckOverturning } from './truck-stands'

/** Nothing works out whether a tower falls over: the papers of its base do, as long as they hold. */
function onBaseOf({ tower }: Crane, { setup }: Case): Finding[] {
  const papers = tower?.base?.papersEvidence ?? ''
  const { standing } = setup
  const seen = setup.confirmed.find((c) => c.id === papers)
  const until = standing.on === 'base' ? (standing.certificate?.until ?? null) : null
  const missing = until === null || !seen
  if (missing) return byPapers([], papers)
  if (seen.at.slice(0, 10) > until)
    return [found({ check: 'overturning', verdict: 'not-proven', reason: 'papers-expired', detail: { until } })]
  return byPapers(setup.confirmed, papers)
}

/** The least that stability allows on the path, with the margin of the machine's table. */
export const overturningCheck: Check<'overturning'> = {
  id: 'overturning',
  since: 1,
  run: ({ hook, stands, near_share, support, machine, plan }) => {
    if (support.on === 'base') return onBaseOf(machine, plan)
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
  field: ({ tables, total_kg, head_kg, lift }) =>
    lift?.support.on === 'base'
      ? []
      : [
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
