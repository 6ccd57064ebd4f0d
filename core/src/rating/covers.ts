import { contains, convexHull, sizeOf } from '../plane/hull'
import type { Point } from '../plane/point'
import type { StandingConfiguration } from './table'

/**
 * Outriggers that are not out as far as a configuration requires. Empty: the configuration covers this footprint. A table made
 * for a footprint covers only footprints that hold it whole; one that states its outriggers asks only for those.
 */
export function outriggersShortOf({ appliesTo }: StandingConfiguration, actual: readonly (Point & { id: string })[]): string[] {
  const needed = appliesTo.sector?.dependsOn
  const { footprint } = appliesTo.standing
  const tolerance_m = 1e-6 * sizeOf(footprint)
  const short = footprint
    .filter((outrigger) => !needed || needed.includes(outrigger.id))
    .filter((outrigger) => {
      const stands = actual.find((a) => a.id === outrigger.id)
      return !stands || !outAsFar(stands.x_m, outrigger.x_m, tolerance_m) || !outAsFar(stands.y_m, outrigger.y_m, tolerance_m)
    })
    .map((outrigger) => outrigger.id)
  if (short.length > 0 || needed) return short
  const hull = convexHull(actual)
  return footprint.filter((outrigger) => !contains(hull, outrigger, tolerance_m)).map((outrigger) => outrigger.id)
}

const outAsFar = (stands_m: number, asked_m: number, tolerance_m: number) =>
  Math.sign(asked_m) * stands_m >= Math.abs(asked_m) - tolerance_m
