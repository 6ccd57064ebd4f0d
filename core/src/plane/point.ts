/** A point in the plan frame, metres: x forward along the chassis, y to the left, origin at the slew centre. */
export interface Point {
  x_m: number
  y_m: number
}

/** Twice the signed area of a-b-c: positive when c lies to the left of a→b. */
export function turn(a: Point, b: Point, c: Point): number {
  return (b.x_m - a.x_m) * (c.y_m - a.y_m) - (b.y_m - a.y_m) * (c.x_m - a.x_m)
}

export function distance(a: Point, b: Point): number {
  return Math.hypot(b.x_m - a.x_m, b.y_m - a.y_m)
}

/** How far along the segment a-b the point nearest to p is, 0 to 1; where both ends are one: 0. */
function alongSegment(p: Point, a: Point, dx: number, dy: number): number {
  const long = dx * dx + dy * dy
  return long === 0 ? 0 : Math.min(1, Math.max(0, ((p.x_m - a.x_m) * dx + (p.y_m - a.y_m) * dy) / long))
}

/** The point of the segment a-b that is nearest to p. */
export function nearestOnSegment(p: Point, a: Point, b: Point): Point {
  const [dx, dy] = [b.x_m - a.x_m, b.y_m - a.y_m]
  const t = alongSegment(p, a, dx, dy)
  return { x_m: a.x_m + t * dx, y_m: a.y_m + t * dy }
}

/** Distance from p to the segment a-b. */
export function distanceToSegment(p: Point, a: Point, b: Point): number {
  const [dx, dy] = [b.x_m - a.x_m, b.y_m - a.y_m]
  const t = alongSegment(p, a, dx, dy)
  return Math.hypot(p.x_m - a.x_m - t * dx, p.y_m - a.y_m - t * dy)
}

/** The point at a radius and slew (anticlockwise from +x) about the origin. */
export function atSlew(radius_m: number, slew_deg: number): Point {
  const a = (slew_deg * Math.PI) / 180
  return { x_m: radius_m * Math.cos(a), y_m: radius_m * Math.sin(a) }
}
