import { g_mps2 } from '../../physics'
import { type CellLimit, type LimitOf, partOf } from './limit-of'

/** Trolley by its wheels, beam by its bending at midspan, hoist and hook by the chain's falls. */
export const runwayLimit: LimitOf = (m) => {
  const { wheels, perWheel_kg, beam, falls, perFall_kg } = partOf(m, 'runway', m.runway)
  const parts: Record<string, number> = {
    trolley: wheels * perWheel_kg,
    beam: (4 * beam.allowable_MPa * beam.modulus_cm3) / beam.span_m / g_mps2,
  }
  const limit: CellLimit = (part) => parts[part] ?? falls * perFall_kg
  return limit
}
