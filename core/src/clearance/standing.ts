import { nth } from '../list'
import { insideShape } from '../plane/meet'
import type { Point } from '../plane/point'
import { type Point3, segmentDistance } from '../plane/segment3'

/** Something that stands on the ground or lies across it, in the machine's frame. A polygon is solid inside. */
export interface Outline {
  points: readonly Point[]
  closed: boolean
}

/** A side of an outline, lying in the plan. */
type Side = readonly [Point3, Point3]

/** An outline is asked about thousands of times and does not change: its sides are drawn up once. */
const drawnUp = new WeakMap<Outline, readonly Side[]>()

/** The sides of an outline, each from one point to the next, at height nought. */
function sidesOf(o: Outline): readonly Side[] {
  const known = drawnUp.get(o)
  if (known) return known
  const corners = o.points.map(({ x_m: x, y_m: y }): Point3 => ({ x, y, z: 0 }))
  const sides = corners.flatMap((b, i): Side[] =>
    i === 0 && !o.closed ? [] : [[nth(corners, (i + corners.length - 1) % corners.length), b]],
  )
  drawnUp.set(o, sides)
  return sides
}

/** A line in space against the sides of an outline as if they lay at a height. */
function lineToSides(from: Point3, to: Point3, o: Outline, height_m: number): number {
  const [a, b] = [lowered(from, height_m), lowered(to, height_m)]
  let least = Infinity
  for (const side of sidesOf(o)) least = Math.min(least, segmentDistance(a, b, side[0], side[1]))
  return least
}

const lowered = (p: Point3, by_m: number): Point3 => ({ x: p.x, y: p.y, z: p.z - by_m })

const within = ({ points, closed }: Outline, p: Point): boolean => closed && insideShape(points, p)

/** Least distance in plan from a point to an outline, metres; 0 inside. */
export function planDistance(o: Outline, p: Point): number {
  if (within(o, p)) return 0
  const at = { x: p.x_m, y: p.y_m, z: 0 }
  return lineToSides(at, at, o, 0)
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
  if (below) least = Math.min(least, lineToSides(onGround(lower), onGround(cut), o, 0))
  if (above) least = Math.min(least, lineToSides(cut, upper, o, top_m))
  return least
}

/** Least distance from a straight line in space to a wire drawn in plan at one height, metres. */
export const lineToWire = (from: Point3, to: Point3, wire: Outline, height_m: number): number =>
  lineToSides(from, to, wire, height_m)

/** Nearer than this two sides touch, metres. */
const touching_m = 1e-7

/** Least distance between two outlines in plan, metres; 0 where they touch or one lies in the other. */
export function outlineDistance(a: Outline, b: Outline): number {
  if (a.points.some((p) => within(b, p)) || b.points.some((p) => within(a, p))) return 0
  let least = Infinity
  for (const [p, q] of sidesOf(a)) least = Math.min(least, lineToSides(p, q, b, 0))
  // Where sides cross they touch, whatever rounding makes of it.
  return least < touching_m ? 0 : least
}
