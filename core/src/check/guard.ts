import { byUse, found, shareOf } from '../finding/finding'
import { high, nominal } from '../quantity/measured'
import type { Check } from './check'

/** Loose tiers lean against the load guard: it has to stand as high as the middle of the topmost. What is wrapped holds itself. */
export const guardCheck: Check<'guard'> = {
  id: 'guard',
  since: 1,
  run: () => [],
  truck: ({ truck, plan, step, near_share }) => {
    const tiers = plan.lift.hung.load.tiers_m ?? []
    const top = tiers.at(-1)
    if (!step.laden || top === undefined) return []
    const check = 'guard'
    const limit = truck.chassis.guardAbove_m
    if (limit === undefined) return [found({ check, verdict: 'not-proven', reason: 'no-figure', detail: {} })]
    // What stands below the topmost at its highest; of the topmost itself half.
    const needed = (of: typeof high) => tiers.reduce<number>((sum, t) => sum + of(t), 0) - of(top) / 2
    const measured = needed(high)
    const utilisation = shareOf(measured, limit)
    const figures = { quantity: 'length', measured, nominal: needed(nominal), limit, utilisation } as const
    const detail = { tiers: tiers.length }
    return [found({ check, verdict: byUse(utilisation, near_share), reason: 'height', ...figures, detail })]
  },
  heldBackBy: [],
  impliedBy: [],
  remedies: [],
}
