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

/** Distance from p to the segment a-b. */
export function distanceToSegment(p: Point, a: Point, b: Point): number {
  const dx = b.x_m - a.x_m
  const dy = b.y_m - a.y_m
  const along = ((p.x_m - a.x_m) * dx + (p.y_m - a.y_m) * dy) / (dx * dx + dy * dy)
  const t = Math.min(1, Math.max(0, along))
  return Math.hypot(p.x_m - a.x_m - t * dx, p.y_m - a.y_m - t * dy)
}

/** The point at a radius and slew (anticlockwise from +x) about the origin. */
export function atSlew(radius_m: number, slew_deg: number): Point {
  const a = (slew_deg * Math.PI) / 180
  return { x_m: radius_m * Math.cos(a), y_m: radius_m * Math.sin(a) }
}
