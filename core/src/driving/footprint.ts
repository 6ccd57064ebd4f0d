import { type Box, boxesApart, boxOf, shapesMeet } from '../plane/meet'
import type { Point } from '../plane/point'
import type { DrivenTruck, PlanBox } from './driven-truck'
import type { TruckPose } from './pose'

/** A point of the ground in the truck’s own frame. */
export function seenFrom(at: TruckPose, p: Point): Point {
  const [c, s] = [Math.cos(at.heading_rad), Math.sin(at.heading_rad)]
  const [dx, dy] = [p.x_m - at.x_m, p.y_m - at.y_m]
  return { x_m: dx * c + dy * s, y_m: -dx * s + dy * c }
}

/** A point of the truck’s own frame on the ground. */
export function onGround(at: TruckPose, p: Point): Point {
  const [c, s] = [Math.cos(at.heading_rad), Math.sin(at.heading_rad)]
  return { x_m: at.x_m + p.x_m * c - p.y_m * s, y_m: at.y_m + p.x_m * s + p.y_m * c }
}

/** Where a truck stands, and how far its carriage is to the left of its middle. */
export interface Stands {
  pose: TruckPose
  shift_m: number
}

const cornersOf = ({ rear_m, front_m, half_m }: PlanBox, aside_m: number): Point[] => [
  { x_m: rear_m, y_m: aside_m - half_m },
  { x_m: front_m, y_m: aside_m - half_m },
  { x_m: front_m, y_m: aside_m + half_m },
  { x_m: rear_m, y_m: aside_m + half_m },
]

/** Its boxes, each with how far it is to the left; the load last. */
const placed = ({ boxes }: DrivenTruck, shift_m: number): [PlanBox, number][] => [
  [boxes.body, 0],
  ...boxes.carriage.map((box): [PlanBox, number] => [box, shift_m]),
]

/** Truck, forks or arm, and load, on the ground, each as a shape; the load last. */
export const footprint = (t: DrivenTruck, { pose, shift_m }: Stands): Point[][] =>
  placed(t, shift_m).map(([box, aside_m]) => cornersOf(box, aside_m).map((p) => onGround(pose, p)))

type Walls = readonly { box: Box; points: readonly Point[] }[]

/** Whether no wall stands between two points. */
export function inSight(a: Point, b: Point, walls: Walls): boolean {
  const box = boxOf([a, b])
  return !walls.some((w) => !boxesApart(box, w.box) && shapesMeet(w.points, [a, b], false))
}

/** Whether a truck or its load touches any of the walls. */
export function touches(t: DrivenTruck, at: Stands, walls: Walls): boolean {
  return footprint(t, at).some((shape) => {
    const box = boxOf(shape)
    return walls.some((w) => !boxesApart(box, w.box) && shapesMeet(shape, w.points, true))
  })
}

function besideBox({ rear_m, front_m, half_m }: PlanBox, aside_m: number, p: Point): number {
  const dx = Math.max(rear_m - p.x_m, p.x_m - front_m, 0)
  const dy = Math.max(Math.abs(p.y_m - aside_m) - half_m, 0)
  return Math.hypot(dx, dy)
}

/** How far somebody at a point stands from truck and load, metres; between them or under them nought. */
export function besideTruck(t: DrivenTruck, { pose, shift_m }: Stands, p: Point): number {
  const own = seenFrom(pose, p)
  return Math.min(...placed(t, shift_m).map(([box, aside_m]) => besideBox(box, aside_m, own)))
}
