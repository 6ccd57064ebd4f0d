import type { Block } from '../parts/hoists/hoist'
import { high, low, nominal } from '../quantity/measured'
import type { Deduction } from '../rating/chart-reading'
import type { LiftPlan } from './plan'

export interface OnHook {
  /** The load itself, heaviest and nominal, kg. */
  load_kg: number
  loadNominal_kg: number
  loadLightest_kg: number
  /** Block and rigging, at their heaviest. */
  deductions: Deduction[]
  /** Everything on the hook, at its heaviest. */
  total_kg: number
  totalNominal_kg: number
}

/** What hangs on the hook, each at its heaviest; null while the load's mass is unknown. */
export function onHook(block: Block, lift: LiftPlan): OnHook | null {
  const m = lift.load.mass_kg
  if (m === null || lift.load.massSource === null) return null
  const deductions: Deduction[] = [
    { name: block.name, mass_kg: block.mass_kg, on: 'hook' },
    ...lift.rigging.map((r) => ({ name: r.name, mass_kg: high(r.mass_kg), on: r.on, at_m: r.at_m })),
  ]
  const hung = deductions.filter((d) => d.on === 'hook').reduce((s, d) => s + d.mass_kg, 0)
  const hungNominal = block.mass_kg + lift.rigging.filter((r) => r.on === 'hook').reduce((s, r) => s + nominal(r.mass_kg), 0)
  return {
    load_kg: high(m),
    loadNominal_kg: nominal(m),
    loadLightest_kg: Math.max(0, low(m)),
    deductions,
    total_kg: high(m) + hung,
    totalNominal_kg: nominal(m) + hungNominal,
  }
}

/** Outward deflection of the boom where it is given; a radius measured under load has it in it already. */
export function deflectionOf(lift: LiftPlan): number {
  return lift.radiusBasis !== null && typeof lift.radiusBasis === 'object' ? lift.radiusBasis.deflection_m : 0
}
