import { byUse, type Finding, found, shareOf } from '../finding/finding'
import { high, low, nominal } from '../quantity/measured'
import { windLimit } from '../wind/wind-limit'
import type { Check } from './check'
import type { LiftContext } from './context'
import type { TruckContext } from './truck-context'

/** The gust that this load may be lifted in, at its lightest and with its greatest sail, m/s; null: a figure is missing. */
export function windLimitOf({ choice, hook, step, plan: { lift }, machine }: LiftContext): number | null {
  const table = choice.chosen?.table.wind
  if (!table) return null
  if (!step.laden) return stepFor(machine, 0) ?? table.limit_mps
  const { windArea_m2, dragCoefficient } = lift.hung.load
  if (windArea_m2 === null || !hook) return null
  const { limit_mps, reducedByLoad } = windLimit({
    chartLimit_mps: table.limit_mps,
    referenceArea_m2_per_t: table.referenceArea_m2_per_t,
    mass_kg: hook.loadLightest_kg,
    sailArea_m2: high(windArea_m2),
    dragCoefficient,
  })
  return reducedByLoad ? limit_mps : (stepFor(machine, high(windArea_m2)) ?? limit_mps)
}

/** As far as its book's steps let a load of so much sail be lifted, m/s; null: it has no steps. */
function stepFor({ tower }: LiftContext['machine'], windArea_m2: number): number | null {
  const steps = tower?.base?.windSteps.filter((s) => s.windArea_m2 === undefined || windArea_m2 <= s.windArea_m2)
  return steps ? Math.max(0, ...steps.map((s) => s.upTo_mps)) : null
}

/** Wind against what this load's sail allows. */
export const windCheck: Check<'wind'> = {
  id: 'wind',
  since: 1,
  run: (ctx) => {
    const { choice, hook, plan, near_share } = ctx
    const missing = (reason: 'no-limit' | 'no-sail' | 'no-mass' | 'unread', limit: number | null = null): Finding[] => [
      found({ check: 'wind', verdict: 'not-proven', reason, quantity: 'speed', limit, detail: {} }),
    ]
    const table = choice.chosen?.table.wind
    if (!table) return missing('no-limit')
    if (ctx.step.laden && plan.lift.hung.load.windArea_m2 === null) return missing('no-sail')
    if (!hook) return missing('no-mass')
    const limit = windLimitOf(ctx)
    const { wind_mps } = plan.conditions
    if (wind_mps === null || limit === null) return missing('unread', limit)
    const utilisation = shareOf(high(wind_mps), limit)
    return [
      found({
        check: 'wind',
        verdict: byUse(utilisation, near_share),
        reason: 'speed',
        quantity: 'speed',
        measured: high(wind_mps),
        nominal: nominal(wind_mps),
        limit,
        utilisation,
        detail: { chart_mps: table.limit_mps },
      }),
    ]
  },
  truck: windOn,
  gantry: windOn,
  straddle: windOn,
  heldBackBy: [],
  impliedBy: [],
  remedies: ['wind'],
}

/** As much of a step without a hook as wind asks for. */
type InWind = Pick<TruckContext, 'plan' | 'step' | 'near_share'> & { machine: { id: string } }

/** Under a roof there is none; outdoors a load's sail counts as a crane's does. */
function windOn({ plan, step, near_share, machine }: InWind): Finding[] {
  const { wind_mps, roofShut } = plan.conditions
  if (roofShut) return [found({ check: 'wind', verdict: 'inside', reason: 'under-roof', detail: {} })]
  const missing = (reason: 'no-limit' | 'no-sail' | 'no-mass'): Finding[] => [
    found({ check: 'wind', verdict: 'not-proven', reason, detail: {} }),
  ]
  const table = plan.tables.find((t) => t.machine === machine.id)?.wind
  const { windArea_m2, dragCoefficient, mass_kg, massSource, lightest_kg } = plan.lift.hung.load
  if (!table) return missing('no-limit')
  if (step.laden && windArea_m2 === null) return missing('no-sail')
  if (step.laden && (mass_kg === null || massSource === null)) return missing('no-mass')
  const limit = step.laden
    ? windLimit({
        chartLimit_mps: table.limit_mps,
        referenceArea_m2_per_t: table.referenceArea_m2_per_t,
        mass_kg: Math.max(0, low(lightest_kg ?? mass_kg ?? 0)),
        sailArea_m2: high(windArea_m2 ?? 0),
        dragCoefficient,
      }).limit_mps
    : table.limit_mps
  if (wind_mps === null)
    return [found({ check: 'wind', verdict: 'not-proven', reason: 'unread', quantity: 'speed', limit, detail: {} })]
  const utilisation = shareOf(high(wind_mps), limit)
  const figures = { quantity: 'speed', measured: high(wind_mps), nominal: nominal(wind_mps), limit, utilisation } as const
  const detail = { chart_mps: table.limit_mps }
  return [found({ check: 'wind', verdict: byUse(utilisation, near_share), reason: 'speed', ...figures, detail })]
}
