import type { Block } from '../parts/hoists/hoist'
import type { SlewStep } from '../parts/stability/slew'
import { high, low, nominal } from '../quantity/measured'
import type { Deduction } from '../rating/chart-reading'
import type { Hung } from './plan'

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

/**
 * What hangs on the hook, each at its heaviest; null while the load's mass is unknown.
 * @param laden false: the load is not on it, or no longer
 */
export function onHook(block: Block, { load, rigging, persons = [] }: Hung, laden = true): OnHook | null {
  const m = laden ? load.mass_kg : 0
  if (m === null || (laden && load.massSource === null)) return null
  const deductions: Deduction[] = [
    { name: block.name, mass_kg: block.mass_kg, on: 'hook' },
    ...rigging.map((r) => ({ name: r.name, mass_kg: high(r.mass_kg), on: r.on, at_m: r.at_m })),
    ...persons.map((p) => ({ name: 'person', mass_kg: high(p.mass_kg), on: 'hook' as const })),
  ]
  const hung = deductions.filter((d) => d.on === 'hook').reduce((s, d) => s + d.mass_kg, 0)
  const riding = persons.reduce((s, p) => s + nominal(p.mass_kg), 0)
  const hungNominal = riding + block.mass_kg + rigging.filter((r) => r.on === 'hook').reduce((s, r) => s + nominal(r.mass_kg), 0)
  return {
    load_kg: high(m),
    loadNominal_kg: nominal(m),
    loadLightest_kg: Math.max(0, laden ? low(load.lightest_kg ?? m) : 0),
    deductions,
    total_kg: high(m) + hung,
    totalNominal_kg: nominal(m) + hungNominal,
  }
}

/** Outward deflection of the boom where it is given; a radius measured under load has it in it already. */
export function deflectionOf({ radiusBasis }: Pick<SlewStep, 'radiusBasis'>): number {
  return radiusBasis !== null && typeof radiusBasis === 'object' ? radiusBasis.deflection_m : 0
}
