import type { Feature, Place } from './place'
import { distanceToFeature, type MachinePosition } from './standing'

/** Less room than this between a turning tail and something fixed crushes a person (ISO 13854: body, 0.5 m). */
export const crushGap_m = 0.5

export interface TailGap {
  feature: Feature
  /** Negative: the tail strikes it. */
  gap_m: number
}

/**
 * The solid thing nearest to the circle that the tail sweeps, when it is near enough to strike or to crush; null: none is.
 * The whole circle counts, since nobody fixes which way the boom is turned.
 */
export function tailGap(place: Place, position: MachinePosition, tailSwingRadius_m: number): TailGap | null {
  let least: TailGap | null = null
  for (const feature of place.features) {
    if (feature.kind !== 'solid') continue
    const gap_m = distanceToFeature(feature, position) - tailSwingRadius_m
    if (gap_m < crushGap_m && (least === null || gap_m < least.gap_m)) least = { feature, gap_m }
  }
  return least
}
