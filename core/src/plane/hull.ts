import { nth } from '../list'
import { distanceToSegment, type Point, turn } from './point'

/** Convex hull by monotone chain, anticlockwise, without points that lie on an edge between two others. */
export function convexHull<P extends Point>(points: readonly P[]): P[] {
  const sorted = [...points].sort((a, b) => a.x_m - b.x_m || a.y_m - b.y_m)
  const half = (from: P[]): P[] => {
    const out: P[] = []
    for (const p of from) {
      for (;;) {
        const b = out[out.length - 1]
        const a = out[out.length - 2]
        if (!a || !b || turn(a, b, p) > 0) break
        out.pop()
      }
      out.push(p)
    }
    return out.slice(0, -1)
  }
  return [...half(sorted), ...half(sorted.reverse())]
}

/** The diagonal of the box around the points: the size that tolerances are taken from, metres. */
export function sizeOf(points: readonly Point[]): number {
  let [x0, x1, y0, y1] = [Infinity, -Infinity, Infinity, -Infinity]
  for (const p of points) {
    x0 = Math.min(x0, p.x_m)
    x1 = Math.max(x1, p.x_m)
    y0 = Math.min(y0, p.y_m)
    y1 = Math.max(y1, p.y_m)
  }
  return Math.hypot(x1 - x0, y1 - y0)
}

export interface EdgeDistance<P extends Point> {
  /** Signed distance to the nearest edge, metres: inside positive. */
  margin_m: number
  edge: [P, P]
}

/** Signed distance from a point to the nearest edge of an anticlockwise convex polygon. */
export function marginInside<P extends Point>(hull: readonly P[], p: Point): EdgeDistance<P> {
  let least = Infinity
  let inside = true
  let a = nth(hull, hull.length - 1)
  let edge: [P, P] = [a, a]
  for (const b of hull) {
    if (turn(a, b, p) < 0) inside = false
    const d = distanceToSegment(p, a, b)
    if (d < least) {
      least = d
      edge = [a, b]
    }
    a = b
  }
  return { margin_m: inside ? least : -least, edge }
}

/** Signed distance from a point to the line of an anticlockwise hull's edge a→b, metres: inside positive. */
export function insideLine(a: Point, b: Point, p: Point): number {
  return turn(a, b, p) / Math.hypot(b.x_m - a.x_m, b.y_m - a.y_m)
}

/** Does the anticlockwise convex polygon contain the point, to within a tolerance in metres? */
export function contains(hull: readonly Point[], p: Point, tolerance_m: number): boolean {
  return marginInside(hull, p).margin_m >= -tolerance_m
}
