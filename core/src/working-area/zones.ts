import { NOT_RATED } from '../check/area'
import { nth } from '../list'
import { boundary } from '../search'
import { type PreparedMap, slewBySlew } from './capacity-map'

/** How finely the edge of a zone is found, metres. */
const edge_m = 0.03

/** How far out this load may go at one slew: a stretch of radius in which no limit is passed, and what ends it. */
export interface Zone {
  slew_deg: number
  from_m: number
  to_m: number
  /** From here on a limit is near; beyond to_m: never near. */
  near_m: number
  /** What is used most just beyond, by its layer's id; null: the table ends, or something there is not proven. */
  endedBy: string | null
}

/**
 * The stretches of a map that are inside the limits, slew by slew, the first one from the middle outwards; a slew with none is
 * left out. Where a limit is crossed between two cells the crossing is searched for, and the side that holds is given. What lies beyond
 * the end of a stretch is not looked at.
 */
export function workingAreaZones(p: PreparedMap, near_share: number): (Zone | null)[] {
  const { radii_m, slew_deg } = p.input
  const cells = slewBySlew(p)
  const { useIn, useAtRadius } = cells
  const holds = (u: number, level: number) => u !== NOT_RATED && u <= level
  // The inner side of where a level is crossed between two cells.
  const crossing = (i: number, level: number) =>
    boundary((r) => holds(useAtRadius(r), level), nth(radii_m, i), nth(radii_m, i + 1), edge_m)
  return slew_deg.map((slew, j) => {
    cells.turnTo(j)
    const inside = (i: number) => holds(useIn(i), 1)
    let first = 0
    while (first < radii_m.length && !inside(first)) first++
    if (first === radii_m.length) return null
    let last = first
    while (last + 1 < radii_m.length && inside(last + 1)) last++
    const ends = last + 1 < radii_m.length
    let near_m = Infinity
    for (let i = first; i <= last && near_m === Infinity; i++) {
      if (useIn(i) >= near_share) near_m = i === first ? nth(radii_m, i) : crossing(i - 1, near_share)
    }
    return {
      slew_deg: slew,
      from_m: nth(radii_m, first),
      to_m: ends ? crossing(last, 1) : nth(radii_m, last),
      near_m: Math.min(near_m, ends && useIn(last) < near_share ? crossing(last, near_share) : Infinity),
      endedBy: ends && useIn(last + 1) !== NOT_RATED ? cells.governsIn(last + 1) : null,
    }
  })
}

/**
 * What may be painted between each slew and the next, given all round the circle: only what is inside at both, so that no corner of what
 * is painted is better than it is there.
 */
export function zonesBetween(zones: readonly (Zone | null)[]): (Zone | null)[] {
  const step_deg = 360 / zones.length
  return zones.map((a, j) => {
    const b = zones[(j + 1) % zones.length]
    if (!a || !b) return null
    const [from_m, to_m] = [Math.max(a.from_m, b.from_m), Math.min(a.to_m, b.to_m)]
    if (from_m > to_m) return null
    const near_m = Math.min(a.near_m, b.near_m)
    return { slew_deg: a.slew_deg + step_deg / 2, from_m, to_m, near_m, endedBy: (a.to_m <= b.to_m ? a : b).endedBy }
  })
}
