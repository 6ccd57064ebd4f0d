import { byUse, found, shareOf } from '../finding/finding'
import type { Conditions, LiftPlan } from '../lift/plan'
import type { Policy } from '../place/place'
import { high, nominal } from '../quantity/measured'
import { windForce_N } from '../wind/air'
import { windLimit } from '../wind/wind-limit'
import type { ChosenTable } from './rating'

/** Wind against what this load's sail allows at its lightest; and the force it puts on the load, newtons. */
export function windFinding(
  lift: LiftPlan,
  c: Conditions,
  chosen: ChosenTable | null,
  policy: Policy,
  lightest_kg: number | null,
) {
  const missing = (reason: string, limit: number | null = null) => ({
    finding: found({ check: 'wind', verdict: 'not-proven', reason, quantity: 'speed', limit }),
    limit_mps: limit,
    force_N: null as number | null,
  })
  const table = chosen?.table.wind
  if (!table) return missing('no-limit')
  if (lift.load.sailArea_m2 === null) return missing('no-sail')
  if (lightest_kg === null) return missing('no-mass')
  const { limit_mps } = windLimit({
    chartLimit_mps: table.limit_mps,
    referenceArea_m2_per_t: table.referenceArea_m2_per_t,
    mass_kg: lightest_kg,
    sailArea_m2: high(lift.load.sailArea_m2),
    dragCoefficient: lift.load.dragCoefficient,
  })
  if (c.wind_mps === null) return missing('unread', limit_mps)
  const wind = high(c.wind_mps)
  return {
    limit_mps,
    force_N: windForce_N(wind, lift.load.dragCoefficient, high(lift.load.sailArea_m2)),
    finding: found({
      check: 'wind',
      verdict: byUse(shareOf(wind, limit_mps), policy.near_share),
      reason: 'speed',
      quantity: 'speed',
      measured: wind,
      nominal: nominal(c.wind_mps),
      limit: limit_mps,
      utilisation: shareOf(wind, limit_mps),
      detail: { chart_mps: table.limit_mps },
    }),
  }
}
