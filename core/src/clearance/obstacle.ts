import { z } from 'zod'
import { nth } from '../list'
import { convexHull } from '../plane/hull'
import { distanceToSegment, type Point, turn } from '../plane/point'
import { finite, positive } from '../quantity/measured'
import { peakBetween } from '../search'
import type { Body } from './body'

const id = z.string().min(1)

/** What stands in the way. Plane: everything on the far side of it, n·p ≥ offset, n a unit vector away from the machine. */
export const obstacle = z.discriminatedUnion('kind', [
  z.strictObject({
    kind: z.literal('prism'),
    id,
    points: z
      .array(z.strictObject({ x_m: finite, y_m: finite }))
      .min(3, 'At least three corners.')
      .max(64),
    from_m: finite,
    to_m: finite,
  }),
  z.strictObject({ kind: z.literal('cylinder'), id, x_m: finite, y_m: finite, radius_m: positive, from_m: finite, to_m: finite }),
  z.strictObject({ kind: z.literal('plane'), id, normal: z.strictObject({ x: finite, y: finite, z: finite }), offset_m: finite }),
])
export type Obstacle = z.infer<typeof obstacle>

/** True when every corner of a prism is one of its hull: prisms have to be convex. */
export function isConvex(points: readonly Point[]): boolean {
  return convexHull(points).length === points.length
}

/** Obstacles with their plan made anticlockwise, so that inside is always to the left. */
export function readied(o: Obstacle): Obstacle {
  return o.kind === 'prism' ? { ...o, points: convexHull(o.points) } : o
}

function planDistance(points: readonly Point[], p: Point): number {
  let inside = true
  let least = Infinity
  let a = nth(points, points.length - 1)
  for (const b of points) {
    if (turn(a, b, p) < 0) inside = false
    least = Math.min(least, distanceToSegment(p, a, b))
    a = b
  }
  return inside ? 0 : least
}
const beyond = (z0: number, z1: number, from: number, to: number) => Math.max(0, from - z1, z0 - to)

/** Shortest distance from a body to an obstacle, metres; 0 where they touch. Convex on convex, so one minimum. */
export function distanceTo(body: Body, o: Obstacle): number {
  const at = (t: number) => ({ x_m: body.a.x + t * (body.b.x - body.a.x), y_m: body.a.y + t * (body.b.y - body.a.y) })
  const zAt = (t: number) => (body.kind === 'rod' ? body.a.z + t * (body.b.z - body.a.z) : 0)
  if (o.kind === 'plane') {
    const n = o.normal
    const ends = [0, 1].map((t) => {
      const p = at(t)
      const flat = n.x * p.x_m + n.y * p.y_m
      if (body.kind === 'rod') return o.offset_m - flat - n.z * zAt(t) - body.radius_m
      return o.offset_m - flat - Math.max(n.z * body.from_m, n.z * body.to_m) - body.radius_m * Math.hypot(n.x, n.y)
    })
    return Math.max(0, Math.min(...ends))
  }
  const plan = (p: Point) =>
    o.kind === 'prism' ? planDistance(o.points, p) : Math.max(0, Math.hypot(p.x_m - o.x_m, p.y_m - o.y_m) - o.radius_m)
  const f = (t: number) => (body.kind === 'rod' ? Math.hypot(plan(at(t)), beyond(zAt(t), zAt(t), o.from_m, o.to_m)) : plan(at(t)))
  const still = body.kind === 'upright' && body.a.x === body.b.x && body.a.y === body.b.y
  const least = Math.min(f(0), f(1), still ? Infinity : -peakBetween((t) => -f(t), 0, 1, 1e-6).y)
  if (body.kind === 'rod') return Math.max(0, least - body.radius_m)
  return Math.hypot(Math.max(0, least - body.radius_m), beyond(body.from_m, body.to_m, o.from_m, o.to_m))
}
