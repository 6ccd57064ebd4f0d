import { nth } from '../list'
import { rad } from '../physics'
import type { Point } from '../plane/point'
import { distanceToSegment } from '../plane/point'
import type { Feature, Place } from './place'

/** Where a machine stands in a place: its slew centre, and where its nose points, anticlockwise from the place's x. */
export interface MachinePosition {
  x_m: number
  y_m: number
  heading_deg: number
}

export function toPlace(s: MachinePosition, p: Point): Point {
  const [c, n] = [Math.cos(s.heading_deg * rad), Math.sin(s.heading_deg * rad)]
  return { x_m: s.x_m + p.x_m * c - p.y_m * n, y_m: s.y_m + p.x_m * n + p.y_m * c }
}

export function toMachine(s: MachinePosition, p: Point): Point {
  const [c, n] = [Math.cos(s.heading_deg * rad), Math.sin(s.heading_deg * rad)]
  const [dx, dy] = [p.x_m - s.x_m, p.y_m - s.y_m]
  return { x_m: dx * c + dy * n, y_m: -dx * n + dy * c }
}

/** Even-odd test of a point in a polygon given as pairs. */
export function inPolygon(points: readonly (readonly [number, number])[], p: Point): boolean {
  let inside = false
  let [ax, ay] = nth(points, points.length - 1)
  for (const [bx, by] of points) {
    if (ay > p.y_m !== by > p.y_m && p.x_m < ((bx - ax) * (p.y_m - ay)) / (by - ay) + ax) inside = !inside
    ;[ax, ay] = [bx, by]
  }
  return inside
}

/** Least distance from a point in the place to a feature, metres; 0 inside a polygon. */
export function distanceToFeature(f: Feature, p: Point): number {
  const pts = f.geometry.points
  if (f.geometry.type === 'Polygon' && inPolygon(pts, p)) return 0
  const closed = f.geometry.type === 'Polygon'
  let least = Infinity
  for (let i = closed ? 0 : 1; i < pts.length; i++) {
    const a = nth(pts, (i + pts.length - 1) % pts.length)
    const b = nth(pts, i)
    least = Math.min(least, distanceToSegment(p, { x_m: a[0], y_m: a[1] }, { x_m: b[0], y_m: b[1] }))
  }
  return least
}

/** What keeps a foot of this half-size from standing at a point of the machine's frame: the first solid or void it would touch. */
export function inTheWay(place: Place, position: MachinePosition, foot: Point, halfSize_m: number): Feature | undefined {
  const p = toPlace(position, foot)
  return place.features.find((f) => (f.kind === 'solid' || f.kind === 'void') && distanceToFeature(f, p) < halfSize_m)
}

/** The id of the ground underfoot at a point of the machine's frame. Later features lie on top of earlier ones. */
export function groundAt(place: Place, position: MachinePosition, foot: Point): string {
  const p = toPlace(position, foot)
  const found = place.features.filter(
    (f) => f.kind === 'ground' && f.geometry.type === 'Polygon' && inPolygon(f.geometry.points, p),
  )
  return found[found.length - 1]?.ground ?? place.defaultGround
}

/** Of what lies under a length and width about the machine's middle the weakest; null: nothing is named there. */
export function weakestUnder(
  place: Place,
  position: MachinePosition,
  { length_m, width_m }: { length_m: number; width_m: number },
) {
  const ids = [0, 1, -1].flatMap((i) =>
    [1, -1].map((j) => groundAt(place, position, { x_m: (i * length_m) / 2, y_m: (j * width_m) / 2 })),
  )
  const kinds = place.ground.filter((g) => ids.includes(g.id))
  return [...kinds].sort((a, b) => (a.allowable_kPa ?? 0) - (b.allowable_kPa ?? 0))[0] ?? null
}
