import { nth } from '../list'
import { type Point, turn } from './point'

/** Least and greatest x, least and greatest y, metres. */
export type Box = readonly [number, number, number, number]

export function boxOf(points: readonly Point[]): Box {
  let [x0, x1, y0, y1] = [Infinity, -Infinity, Infinity, -Infinity]
  for (const { x_m, y_m } of points) {
    if (x_m < x0) x0 = x_m
    if (x_m > x1) x1 = x_m
    if (y_m < y0) y0 = y_m
    if (y_m > y1) y1 = y_m
  }
  return [x0, x1, y0, y1]
}

export const boxesApart = (a: Box, b: Box): boolean => a[0] > b[1] || b[0] > a[1] || a[2] > b[3] || b[2] > a[3]

/** Is a point inside of a shape, by how often a line from it crosses the sides? */
export function insideShape(points: readonly Point[], p: Point): boolean {
  let inside = false
  let a = nth(points, points.length - 1)
  for (const b of points) {
    if (a.y_m > p.y_m !== b.y_m > p.y_m && p.x_m < ((b.x_m - a.x_m) * (p.y_m - a.y_m)) / (b.y_m - a.y_m) + a.x_m) inside = !inside
    a = b
  }
  return inside
}

/**
 * Do a closed shape and another, or a line, meet in plan: their sides cross or touch, or one lies in the other? Of sides on one line it may say
 * so where they only lie beyond each other.
 */
export function shapesMeet(a: readonly Point[], b: readonly Point[], closed: boolean): boolean {
  let p = nth(a, a.length - 1)
  for (const q of a) {
    for (let i = closed ? 0 : 1; i < b.length; i++) {
      const [c, d] = [nth(b, (i || b.length) - 1), nth(b, i)]
      if (turn(p, q, c) * turn(p, q, d) <= 0 && turn(c, d, p) * turn(c, d, q) <= 0) return true
    }
    p = q
  }
  return insideShape(a, nth(b, 0)) || (closed && insideShape(b, nth(a, 0)))
}
