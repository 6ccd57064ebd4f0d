import { nth } from '../list'
import { distanceToSegment, type Point } from '../plane/point'
import { type Point3, segmentDistance } from '../plane/segment3'
import { peakBetween } from '../search'

/** Something that stands on the ground or lies across it, in the machine's frame. A polygon is solid inside. */
export interface Outline {
  points: readonly Point[]
  closed: boolean
}

/** The sides of an outline, each from one point to the next. */
function sidesOf({ points, closed }: Outline): [Point, Point][] {
  return points.flatMap((b, i): [Point, Point][] => {
    if (i === 0 && !closed) return []
    return [[nth(points, (i + points.length - 1) % points.length), b]]
  })
}

function within({ points, closed }: Outline, p: Point): boolean {
  if (!closed) return false
  let inside = false
  let a = nth(points, points.length - 1)
  for (const b of points) {
    if (a.y_m > p.y_m !== b.y_m > p.y_m && p.x_m < ((b.x_m - a.x_m) * (p.y_m - a.y_m)) / (b.y_m - a.y_m) + a.x_m) inside = !inside
    a = b
  }
  return inside
}

/** Least distance in plan from a point to an outline, metres; 0 inside. */
export function planDistance(o: Outline, p: Point): number {
  return within(o, p) ? 0 : Math.min(...sidesOf(o).map(([a, b]) => distanceToSegment(p, a, b)))
}

const flat = (p: Point3): Point => ({ x_m: p.x, y_m: p.y })

/** How near on a straight body, as a share of it, the nearest place to a wall is found. */
const tolerance_share = 1e-5

/** Least distance from a straight line in space to something that stands from the ground up to a height, metres; 0 where they meet. */
export function lineToStanding(from: Point3, to: Point3, o: Outline, top_m: number): number {
  const over = (z: number) => Math.max(0, z - top_m)
  const ends = [from, to].flatMap((p) => (within(o, flat(p)) ? [over(p.z)] : []))
  const at = (t: number): Point => ({ x_m: from.x + t * (to.x - from.x), y_m: from.y + t * (to.y - from.y) })
  // Each side is an upright wall; the distance from a straight line to it has one minimum.
  const walls = sidesOf(o).map(([a, b]) => {
    const f = (t: number) => Math.hypot(distanceToSegment(at(t), a, b), over(from.z + t * (to.z - from.z)))
    return Math.min(f(0), f(1), -peakBetween((t) => -f(t), 0, 1, tolerance_share).y)
  })
  return Math.min(...ends, ...walls)
}

/** Least distance from a straight line in space to a wire drawn in plan at one height, metres. */
export function lineToWire(from: Point3, to: Point3, wire: Outline, height_m: number): number {
  const z = height_m
  return Math.min(
    ...sidesOf(wire).map(([a, b]) => segmentDistance(from, to, { x: a.x_m, y: a.y_m, z }, { x: b.x_m, y: b.y_m, z })),
  )
}

/** Least distance between two outlines in plan, metres; 0 where they touch or one lies in the other. */
export function outlineDistance(a: Outline, b: Outline): number {
  if (a.points.some((p) => within(b, p)) || b.points.some((p) => within(a, p))) return 0
  const three = (p: Point): Point3 => ({ x: p.x_m, y: p.y_m, z: 0 })
  return Math.min(
    ...sidesOf(a).flatMap(([p, q]) => sidesOf(b).map(([r, s]) => segmentDistance(three(p), three(q), three(r), three(s)))),
  )
}
