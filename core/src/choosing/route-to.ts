import { nth } from '../list'
import type { Place } from '../place/place'
import { openRuns, peopleWalk, type Xy } from '../truck/route'

/** Corners of a way stay so far from what stands there, besides half the truck, metres. */
const clear_m = 0.5
/** So far before and behind a door it is driven straight, metres. */
const straight_m = 1.5

const apart_m = (a: Xy, b: Xy) => Math.hypot(b[0] - a[0], b[1] - a[1])

/** Points that a way may turn at: along the aisles, before and behind doors, about the corners of what stands there. */
function turningPoints(place: Place, half_m: number): Xy[] {
  const off_m = half_m + clear_m
  return place.features.flatMap((f): Xy[] => {
    const { points, type } = f.geometry
    if (f.kind === 'aisle') return points.map(([x, y]): Xy => [x, y])
    if (f.kind === 'door') {
      const [a, b] = [nth(points, 0), nth(points, points.length - 1)]
      const long = apart_m(a, b)
      if (long === 0) return []
      const [nx, ny] = [(-(b[1] - a[1]) / long) * straight_m, ((b[0] - a[0]) / long) * straight_m]
      const middle: Xy = [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2]
      return [middle, [middle[0] + nx, middle[1] + ny], [middle[0] - nx, middle[1] - ny]]
    }
    if (f.axis) return f.axis.map(([x, y]): Xy => [x, y])
    if (!['solid', 'rack', 'void'].includes(f.kind) || type !== 'Polygon') return []
    const cx = points.reduce((s, p) => s + p[0], 0) / points.length
    const cy = points.reduce((s, p) => s + p[1], 0) / points.length
    // Diagonally out from each corner; inside a building its doors lead on.
    return points.map(([x, y]): Xy => [x + Math.sign(x - cx) * off_m, y + Math.sign(y - cy) * off_m])
  })
}

/** Of so many points that a way may turn at, those nearest to the straight line are tried. */
const most_turns = 400

/**
 * The shortest way for something of some width from one point of a place to another: along aisles, through doors, round corners, touching nothing. Where people
 * walk it counts twice as long.
 *
 * @param width_m of truck or load, the wider
 * @returns corners from the first to the last; null: none was found
 * @example routeTo(place, [0, 0], [10, 0], 1.2) // [[0, 0], [10, 0]] where nothing stands between
 */
export function routeTo(place: Place, from: Xy, to: Xy, width_m: number): Xy[] | null {
  const half_m = width_m / 2
  const round_m = (p: Xy) => apart_m(from, p) + apart_m(p, to)
  const turns = turningPoints(place, half_m).sort((a, b) => round_m(a) - round_m(b))
  const points: Xy[] = [from, to, ...turns.slice(0, most_turns)]
  const [opens, quiet] = [openRuns(place), openRuns(place, peopleWalk)]
  /** How long it is between two points as it is driven; null: something is in the way. */
  const leg = (i: number, j: number): number | null => {
    const [a, b] = [nth(points, i), nth(points, j)]
    // A load stands against a rack or a wall where it is put down: only the way between counts.
    const [c, d] = shortened(a, b, i < 2 ? half_m : 0, j < 2 ? half_m : 0)
    if (!opens(c, d, half_m)) return null
    return apart_m(a, b) * (quiet(a, b, half_m) ? 1 : 2)
  }
  const best = points.map(() => Infinity)
  const before = points.map(() => -1)
  const open = new Set(points.keys())
  best[0] = 0
  while (open.size > 0) {
    // The nearest by what is driven and what is left at least.
    const ahead = (i: number) => nth(best, i) + apart_m(nth(points, i), to)
    const here = [...open].reduce((a, b) => (ahead(b) < ahead(a) ? b : a))
    if (nth(best, here) === Infinity) return null
    if (here === 1) break
    open.delete(here)
    for (const there of open) {
      const least = nth(best, here) + apart_m(nth(points, here), nth(points, there))
      if (least >= nth(best, there)) continue
      const long = leg(here, there)
      if (long !== null && nth(best, here) + long < nth(best, there)) {
        best[there] = nth(best, here) + long
        before[there] = here
      }
    }
  }
  const way: Xy[] = []
  for (let at = 1; at >= 0; at = nth(before, at)) way.unshift(nth(points, at))
  return way
}

/** A leg without what lies within half a truck of its ends. */
function shortened(a: Xy, b: Xy, fromStart_m: number, fromEnd_m: number): [Xy, Xy] {
  const long = apart_m(a, b)
  if (long <= fromStart_m + fromEnd_m) return [a, b]
  const at = (m: number): Xy => [a[0] + ((b[0] - a[0]) * m) / long, a[1] + ((b[1] - a[1]) * m) / long]
  return [at(fromStart_m), at(long - fromEnd_m)]
}
