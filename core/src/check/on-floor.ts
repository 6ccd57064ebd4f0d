import { byUse, type Finding, found, shareOf } from '../finding/finding'
import { floorLimits } from '../ground/floor'
import type { WayPart } from '../parts/truck-steps'
import type { GroundKind } from '../place/place'

/** One axle on a floor, standing, newtons. */
export interface AxleOn {
  id: string
  label: string
  axle_N: number
  /** Under one of its wheels, with its factor where the floor is asked for it. */
  wheel_N: number
}

/** A trailer's floor and a leveller have a plate, which says what stands on it as it stands: a wheel has no factor there. */
export const hasPlate = ({ kind }: WayPart): boolean => kind === 'trailer' || kind === 'leveller'

/**
 * Each axle, a wheel of each, and all of it against what a floor carries (EN 1991-1-1); *not proven* where it is not named or has no figure.
 *
 * @param of whose findings they are, where there are several floors; omitted: there is one
 */
export function onFloor(
  ground: GroundKind | null,
  axles: readonly AxleOn[],
  total_N: number,
  near_share: number,
  of?: string,
): Finding[] {
  const named = (id: string) => (of === undefined ? id : `${of}-${id}`)
  const whole = of === undefined ? {} : { subject: of }
  if (!ground) return [found({ check: 'floor', ...whole, verdict: 'not-proven', reason: 'unknown', detail: {} })]
  const { label: floor, source } = ground
  const limits = floorLimits(ground)
  if (!limits) return [found({ check: 'floor', ...whole, verdict: 'not-proven', reason: 'no-figure', detail: { floor } })]
  const judged = (id: string, reason: 'axle' | 'wheel' | 'total', label: string, measured: number, limit: number | null) => {
    if (limit === null) return []
    const utilisation = shareOf(Math.max(0, measured), limit)
    const figures = { quantity: 'force', measured, nominal: measured, limit, utilisation } as const
    const verdict = byUse(utilisation, near_share)
    return [found({ check: 'floor', subject: named(id), verdict, reason, ...figures, detail: { label, floor, source } })]
  }
  return [
    ...axles.flatMap(({ id, label, axle_N, wheel_N }) => [
      ...judged(id, 'axle', label, axle_N, limits.axle_N),
      ...judged(`${id}-wheel`, 'wheel', label, wheel_N, limits.wheel_N),
    ]),
    ...judged('total', 'total', 'machine and load', total_N, limits.total_N),
  ]
}
