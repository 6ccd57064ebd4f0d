import { nth } from '../list'
import { elasticReactions, upperReactions } from './elastic'
import { type Footprint, marginOf } from './footprint'
import { type FixedSums, resultantAt, type SlewingSums } from './resultant'
import { roundOver } from './round'

/** The most that a support may carry on an arc by its upper bound, where, and what it carries there on an even, elastic ground. */
export interface UpperOver {
  id: string
  upper_N: number
  upper_at_deg: number
  max_N: number
  max_at_deg: number
}

/** Directions of the normals to the lines through every two supports, and where each line lies, metres. */
function linesOf({ supports }: Footprint): { normal_rad: number; c_m: number }[] {
  return supports.flatMap((a, i) =>
    supports.slice(i + 1).map((b) => {
      const l = Math.hypot(b.x_m - a.x_m, b.y_m - a.y_m)
      const [nx, ny] = [-(b.y_m - a.y_m) / l, (b.x_m - a.x_m) / l]
      return { normal_rad: Math.atan2(ny, nx), c_m: nx * a.x_m + ny * a.y_m }
    }),
  )
}
const known = new WeakMap<Footprint, ReturnType<typeof linesOf>>()
function linesThrough(f: Footprint) {
  const lines = known.get(f) ?? linesOf(f)
  known.set(f, lines)
  return lines
}

/**
 * Slews at which the upper bound of a support's load can be greatest while the resultant goes round an arc: its ends, where it crosses a
 * line through two supports, and where it goes along one. Between them the bound is a + b·cos θ + c·sin θ with no extreme of its own.
 */
function candidates(f: Footprint, fixed: FixedSums, slewing: SlewingSums, arc: { from_deg: number; to_deg: number }): number[] {
  const { centre, radius_m, slewAt } = roundOver(fixed, slewing, arc)
  const directions = linesThrough(f).flatMap(({ normal_rad, c_m }) => {
    const off_m = c_m - centre.x_m * Math.cos(normal_rad) - centre.y_m * Math.sin(normal_rad)
    const share = off_m / radius_m
    const past = Math.abs(share) <= 1 ? Math.acos(share) : null
    return [normal_rad, normal_rad + Math.PI, ...(past === null ? [] : [normal_rad + past, normal_rad - past])]
  })
  return [arc.from_deg, arc.to_deg, ...directions.flatMap((d) => slewAt(d) ?? [])]
}

/** So near the edge of the footprint counts as on it, as a share of its size: an arc that leaves it is carried to there. */
const onEdge_share = 1e-9

/**
 * The greatest upper bound of each support's load over an arc, in closed form.
 *
 * @returns one entry a support where the machine stands anywhere on the arc, else none
 */
export function upperOver(
  f: Footprint,
  fixed: FixedSums,
  slewing: SlewingSums,
  arc: { from_deg: number; to_deg: number },
): UpperOver[] {
  const [from_deg, to_deg] = [Math.min(arc.from_deg, arc.to_deg), Math.max(arc.from_deg, arc.to_deg)]
  const at = candidates(f, fixed, slewing, { from_deg, to_deg }).sort((a, b) => a - b)
  const carried = new Float64Array(f.supports.length)
  const best = f.supports.map(({ id }) => ({ id, upper_N: -1, upper_at_deg: from_deg, max_N: 0, max_at_deg: from_deg }))
  let standing = false
  const edge_m = -onEdge_share * f.size_m
  for (const deg of at) {
    const r = resultantAt(fixed, slewing, deg)
    const margin_m = marginOf(f, r)
    if (margin_m > f.least_m) standing = true
    if (margin_m < edge_m) continue
    upperReactions(f, r.x_m, r.y_m, r.force_N, carried)
    for (let i = 0; i < best.length; i++) {
      const b = nth(best, i)
      const upper_N = carried[i] ?? 0
      if (upper_N > b.upper_N) Object.assign(b, { upper_N, upper_at_deg: deg })
    }
  }
  // Between two crossings of the edge it may stand without standing at either.
  const within = (i: number) => marginOf(f, resultantAt(fixed, slewing, (nth(at, i) + nth(at, i + 1)) / 2)) > f.least_m
  for (let i = 0; i + 1 < at.length && !standing; i++) standing = within(i)
  if (!standing) return []
  return best.map((b, i) => {
    const r = resultantAt(fixed, slewing, b.upper_at_deg)
    elasticReactions(f, r.x_m, r.y_m, r.force_N, carried)
    return { ...b, max_N: carried[i] ?? 0, max_at_deg: b.upper_at_deg }
  })
}
