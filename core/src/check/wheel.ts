import { byUse, found, shareOf } from '../finding/finding'
import { g_mps2 } from '../physics'
import { NOT_RATED, UNREACHABLE } from './area'
import type { Check } from './check'
import { straddleWheels } from './straddle'
import { towWheels } from './towing'
import { wheelsIn } from './wheels-in-area'

/**
 * What the tyres of each corner carry against what they may, standing. Axles hang on springs, so that a corner carries what it does on
 * an even, elastic ground.
 */
export const wheelCheck: Check<'wheel'> = {
  id: 'wheel',
  since: 1,
  run: ({ support, machine, bearings, near_share, plan: { setup } }) => {
    const { standing } = setup
    if (support.on !== 'wheels' || standing.on !== 'wheels' || !machine.wheels) return []
    if (standing.tyres === null && bearings.length > 0)
      return [found({ check: 'wheel', verdict: 'not-proven', reason: 'not-looked-at', detail: {} })]
    const { axles } = machine.wheels
    return bearings.map(({ point, max_N, at, empty }) => {
      const axle = axles.find((a) => point.id.startsWith(a.id === 'front' ? 'F' : 'R'))
      const detail = { label: point.label, empty }
      const base = { check: 'wheel', subject: point.id, at } as const
      if (axle?.tyre_kg === undefined) return found({ ...base, verdict: 'not-proven', reason: 'no-figure', detail })
      const measured = max_N / axle.wheels / g_mps2
      const utilisation = shareOf(measured, axle.tyre_kg)
      return found({
        ...base,
        verdict: byUse(utilisation, near_share),
        reason: 'rating',
        quantity: 'mass',
        measured,
        nominal: measured,
        limit: axle.tyre_kg,
        utilisation,
        detail,
      })
    })
  },
  field: (area) => {
    const carried = wheelsIn(area)
    const { lift } = area
    const standing = lift?.plan.setup.standing
    if (!carried || standing?.on !== 'wheels') return []
    return carried.axles.map((axle, k) => ({
      id: `wheel:${axle.id}`,
      weighs: true,
      useAt: (cell) => {
        if (axle.tyre_kg === undefined || standing.tyres === null) return NOT_RATED
        const on = carried.at(cell)
        return on === null ? UNREACHABLE : (on.corner_N[k] ?? 0) / axle.wheels / g_mps2 / axle.tyre_kg
      },
    }))
  },
  tow: towWheels,
  straddle: straddleWheels,
  heldBackBy: ['mass', 'boom-limits', 'overturning'],
  impliedBy: [],
  remedies: ['support', 'radius', 'mass', 'split', 'arm', 'lifted'],
}
