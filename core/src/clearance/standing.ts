import { nth } from '../list'
import { distanceToSegment, type Point } from '../plane/point'
import { type Point3, segmentDistance } from '../plane/segment3'

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

/** Where a straight line in space passes a height, as a share of it, 0 to 1; both ends on one side: at the nearer of them. */
function shareAtHeight(from: Point3, to: Point3, z: number): number {
  const share = (z - from.z) / (to.z - from.z)
  return Number.isFinite(share) ? Math.min(1, Math.max(0, share)) : from.z <= z ? 1 : 0
}

const along = (from: Point3, to: Point3, t: number): Point3 => ({
  x: from.x + t * (to.x - from.x),
  y: from.y + t * (to.y - from.y),
  z: from.z + t * (to.z - from.z),
})
const upon = ({ x_m: x, y_m: y }: Point): Point3 => ({ x, y, z: 0 })
const onGround = ({ x, y }: Point3): Point3 => ({ x, y, z: 0 })

/**
 * Least distance from a straight line in space to something that stands from the ground up to a height, metres; 0 where they meet. What of
 * the line is no higher than it is as far as in plan; what is higher, as far as from its top edge.
 */
export function lineToStanding(from: Point3, to: Point3, o: Outline, top_m: number): number {
  let least = Infinity
  for (const p of [from, to]) if (within(o, flat(p))) least = Math.min(least, Math.max(0, p.z - top_m))
  const [lower, upper] = from.z <= to.z ? [from, to] : [to, from]
  const cut = along(lower, upper, shareAtHeight(lower, upper, top_m))
  const [below, above] = [lower.z <= top_m, upper.z > top_m]
  const [low, end] = [onGround(lower), onGround(cut)]
  for (const [a, b] of sidesOf(o)) {
    if (below) least = Math.min(least, segmentDistance(low, end, upon(a), upon(b)))
    if (above) {
      const edge = [a, b].map(({ x_m: x, y_m: y }) => ({ x, y, z: top_m })) as [Point3, Point3]
      least = Math.min(least, segmentDistance(cut, upper, ...edge))
    }
  }
  return least
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
  const [ours, theirs] = [a, b].map((o) => sidesOf(o).map(([p, q]) => [upon(p), upon(q)] as const))
  let least = Infinity
  for (const [p, q] of ours ?? []) for (const [r, s] of theirs ?? []) least = Math.min(least, segmentDistance(p, q, r, s))
  return least
}
