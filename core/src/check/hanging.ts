import type { Case } from '../lift/case'
import { high, low, nominal } from '../quantity/measured'

/** Load and rigging: at their heaviest, as they are said, and the load at its lightest, kg. */
export interface Hanging {
  worst_kg: number
  nominal_kg: number
  lightest_kg: number
}

/** What hangs from a machine without a hook block of its own; null: the load is not known. */
export function hangingOf({ lift: { hung } }: Case, laden: boolean): Hanging | null {
  const { mass_kg, massSource, lightest_kg } = hung.load
  const rigging = hung.rigging.reduce(
    (sum, r) => ({ worst_kg: sum.worst_kg + high(r.mass_kg), nominal_kg: sum.nominal_kg + nominal(r.mass_kg), lightest_kg: 0 }),
    { worst_kg: 0, nominal_kg: 0, lightest_kg: 0 },
  )
  if (!laden) return rigging
  if (mass_kg === null || massSource === null) return null
  return {
    worst_kg: rigging.worst_kg + high(mass_kg),
    nominal_kg: rigging.nominal_kg + nominal(mass_kg),
    lightest_kg: Math.max(0, low(lightest_kg ?? mass_kg)),
  }
}
