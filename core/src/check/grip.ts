import { byUse, found, shareOf } from '../finding/finding'
import { g_mps2 } from '../physics'
import type { Check } from './check'

/** What hangs between two pads by friction alone: u = s·m·g/(n·μ·F), F the least that the clamp holds at relief. */
export const gripCheck: Check<'grip'> = {
  id: 'grip',
  since: 1,
  run: () => [],
  truck: ({ truck, plan, step, near_share, mass_kg }) => {
    const { grip } = truck.chassis
    if (!grip || !step.laden || !mass_kg) return []
    const { faces } = plan.lift.hung
    if (!faces) return [found({ check: 'grip', verdict: 'not-proven', reason: 'faces-unknown', detail: {} })]
    const limit = (grip.faces * grip[faces] * grip.least_N) / g_mps2 / plan.policy.trucks.gripShare
    const utilisation = shareOf(mass_kg.worst, limit)
    return [
      found({
        check: 'grip',
        verdict: byUse(utilisation, near_share),
        reason: 'friction',
        quantity: 'mass',
        measured: mass_kg.worst,
        nominal: mass_kg.nominal,
        limit,
        utilisation,
        detail: { faces },
      }),
    ]
  },
  heldBackBy: ['mass'],
  impliedBy: [],
  remedies: ['mass', 'split'],
}
