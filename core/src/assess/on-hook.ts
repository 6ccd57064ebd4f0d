import type { LiftPlan } from '../lift/plan'
import type { Crane } from '../machine/posed'
import { high, low, nominal } from '../quantity/measured'
import type { Deduction } from '../rating/chart-reading'
import { Refusal } from '../refusal'

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

export function reevingOf(machine: Crane, parts: number) {
  const reeving = machine.hoist.reevings.find((r) => r.parts === parts)
  if (!reeving) {
    const known = machine.hoist.reevings.map((r) => r.parts).join(', ')
    throw new Refusal('unknown-reeving', `${machine.name} is not reeved in ${parts} parts; it can be in ${known}.`, 'lift.parts')
  }
  return reeving
}

/** What hangs on the hook, each at its heaviest; null while the load's mass is unknown. */
export function onHook(machine: Crane, lift: LiftPlan): OnHook | null {
  const m = lift.load.mass_kg
  if (m === null || lift.load.massSource === null) return null
  const { block } = reevingOf(machine, lift.parts)
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
