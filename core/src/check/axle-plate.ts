import { byUse, type Finding, found, shareOf } from '../finding/finding'

/** What one axle carries, kg, with its plate; where, and whether that is with nothing on. */
interface OnAxle {
  id: string
  label: string
  measured_kg: number
  nominal_kg?: number
  rating_kg: number
  empty: boolean
  at?: NonNullable<Finding['at']>
}

/** An axle against its own plate: whatever stands on it, drives on it or is towed with it. */
export function axlePlate(
  { id, label, measured_kg, nominal_kg = measured_kg, rating_kg, empty, at }: OnAxle,
  near_share: number,
): Finding {
  const utilisation = shareOf(Math.max(0, measured_kg), rating_kg)
  return found({
    check: 'axle',
    subject: id,
    verdict: byUse(utilisation, near_share),
    reason: 'rating',
    quantity: 'mass',
    measured: measured_kg,
    nominal: nominal_kg,
    limit: rating_kg,
    utilisation,
    ...(at && { at }),
    detail: { label, empty },
  })
}
