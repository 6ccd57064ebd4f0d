import type { TruckDriving } from '../parts/truck'
import { rad } from '../physics'
import { type Box, boxOf } from '../plane/meet'
import { distance, nearestOnSegment, type Point } from '../plane/point'
import { randomFrom } from '../practice/random'
import { tailSwing } from '../truck/tail-swing'
import { type DrivenTruck, overallLength } from './driven-truck'
import type { DriveRule } from './rules'
import type { Slope } from './slope'
import { stoppingDistance } from './stopping'

/** Somebody on foot who crosses the way as a truck comes near. */
export interface Crossing {
  from: Point
  to: Point
  /** How far along the way. */
  at_m: number
  speed_mps: number
  /** Looks and waits for whoever drives; hears a horn, if they hear it; does neither. */
  minds: 'looks' | 'hears' | 'neither'
  hears: boolean
}

/** Something to be picked from a shelf beside the way: where the truck stands for it, and how high its platform is then. */
export interface Pick {
  at: Point
  /** How far along the way. */
  at_m: number
  height_m: number
  /** Which side it is on, seen along the way. */
  side: 'left' | 'right'
}

/** Where a truck is driven: from an open yard, along a lane, round a blind corner, to where its load is set down. */
export interface DriveCourse {
  /** Nothing drives through them. */
  walls: readonly { box: Box; points: readonly Point[] }[]
  ramp: { box: Box; slope: Slope } | null
  /** The middle of the way, from where it begins to where the load is set down. */
  way: readonly Point[]
  /** Where the lane ends at a corner that nobody sees round, metres along x. */
  corner_m: number
  yard_m: number
  /** Where the lane begins, behind strips that nobody sees through; null: it is open. */
  door: readonly [Point, Point] | null
  /** How far to the left the carriage was left by whoever drove before. */
  shift_m: number
  bay: Point & { ring_m: number }
  people: readonly Crossing[]
  /** In turn, of a truck whose driver rises with the load. */
  picks: readonly Pick[]
  tall: boolean
  wet: boolean
  friction: number
}

/** Rolling on concrete, dry and wet. */
const frictions = { dry: 0.6, wet: 0.35 } as const
const gap_m = 1.6
const wall_m = 0.3
/** Nobody walks faster or slower. */
const walks_mps = [1.0, 1.6] as const
/** A steady driver goes at this share of what the truck can, and answers within a second. */
export const steady_share = 0.4
const reaction_s = 1

interface Sizes {
  yard_m: number
  lane_m: number
  first_m: number
  second_m: number
  beyond_m: number
  long_m: number
}

/** What a course holds, before it is laid out. */
interface Drawn {
  side: 1 | -1
  tall: boolean
  ramp: 'up' | 'down' | null
  wet: boolean
  second: boolean
}

/** From a driver on a platform nothing hides the way, and it works on level floors. */
function drawn({ platform }: TruckDriving, seed: number, level: number): Drawn & { stretch: number } {
  const random = randomFrom(seed, 'drive')
  const side = random() < 0.5 ? 1 : -1
  const tall = random() < 0.2 + 0.4 * level && !platform
  const sloping = random() < 0.25 + 0.5 * level && !platform
  // What cannot be seen over goes backwards, and so only down.
  const ramp = sloping ? (tall || random() < 0.5 ? 'down' : 'up') : null
  return { side, tall, ramp, wet: random() < 0.5 * level, second: random() < level, stretch: random() }
}

/** Whether the lane of a course begins with a door. */
const hasDoor = (seed: number, level: number): boolean => randomFrom(seed, 'door')() < 0.3 + 0.4 * level

/** How far off its middle a carriage was left: now and then not at all. */
function leftAside(t: DrivenTruck, seed: number): number {
  const most_m = t.driving.shift?.most_m ?? 0
  const random = randomFrom(seed, 'shift')
  const [lot, way] = [random(), random() < 0.5 ? -1 : 1]
  return lot < 0.3 ? 0 : way * most_m * lot
}

/** Whether the load of a course hides the way: known before a truck is made ready. */
export const isTall = (of: TruckDriving, seed: number, level: number): boolean => drawn(of, seed, level).tall

/** What a course asks of its driver besides what every course does: known before a truck is made ready. */
export function comesUp(of: TruckDriving, seed: number, level: number): readonly DriveRule[] {
  const { tall, ramp } = drawn(of, seed, level)
  const door = hasDoor(seed, level)
  const backwards = tall || ramp === 'down'
  return [
    ...(door ? ['door-horn' as const] : []),
    ...(tall ? ['view-blocked' as const] : []),
    ...(ramp ? ['load-uphill' as const] : []),
    ...(backwards ? ['look-back' as const] : []),
  ]
}

function sizesOf(t: DrivenTruck, level: number, d: Drawn & { stretch: number }): Sizes {
  const long_m = overallLength(t)
  const { aisle_m } = tailSwing({
    wheelbase_m: t.chassis.wheelbase_m,
    steer_deg: t.chassis.steer_deg,
    halfWidth_m: t.body.half_m,
    tailOverhang_m: -t.body.rear_m - t.chassis.wheelbase_m,
    load: { faceAhead_m: t.load.rear_m, length_m: t.load.front_m - t.load.rear_m, width_m: 2 * t.load.half_m },
    clearance_m: 0.2,
  })
  const lane_m = aisle_m * (1.5 - 0.35 * level)
  return {
    long_m,
    lane_m,
    yard_m: 1.2 * long_m + 2,
    first_m: 1.2 * long_m + (t.driving.platform ? 8 : 4) + 3 * d.stretch,
    second_m: (d.ramp ? 3.4 : 1.8) * long_m + 3,
    beyond_m: long_m + 2,
  }
}

/** Walls as boxes, the corner on the left; turned to the other side where it is on the right. */
function wallsOf(s: Sizes, crossings: { first: number; second: number | null }): Box[] {
  const { yard_m: y, lane_m, first_m, second_m, beyond_m } = s
  const half = lane_m / 2
  const corner = y + first_m
  const [far, end] = [corner + lane_m, half + second_m + beyond_m]
  const along = (x0: number, x1: number, at: number): Box => [x0, x1, Math.min(at, at + wall_m), Math.max(at, at + wall_m)]
  const up = (y0: number, y1: number, at: number): Box => [at, at + wall_m, y0, y1]
  const { first, second } = crossings
  const [g0, g1] = [first - gap_m / 2, first + gap_m / 2]
  const across: Box[] =
    second === null
      ? [up(half, end, corner - wall_m), up(-half - wall_m, end, far)]
      : [
          up(half, second - gap_m / 2, corner - wall_m),
          up(second + gap_m / 2, end, corner - wall_m),
          up(-half - wall_m, second - gap_m / 2, far),
          up(second + gap_m / 2, end, far),
        ]
  return [
    up(-y - wall_m, y + wall_m, -y - wall_m),
    along(-y, y + wall_m, y),
    along(-y, y + wall_m, -y - wall_m),
    up(half, y, y),
    up(-y, -half, y),
    along(y, g0, half),
    along(g1, corner, half),
    along(y, g0, -half - wall_m),
    along(g1, far, -half - wall_m),
    ...across,
    along(corner - wall_m, far + wall_m, end),
  ]
}

/** How far along a way the point of it is that lies nearest. */
export function alongWay(way: readonly Point[], p: Point): number {
  let [best, at, run] = [Infinity, 0, 0]
  let a = way[0]
  for (const b of way.slice(1)) {
    if (!a) break
    const near = nearestOnSegment(p, a, b)
    const away = distance(near, p)
    if (away < best) {
      best = away
      at = run + distance(a, near)
    }
    run += distance(a, b)
    a = b
  }
  return at
}

/** The point of a way so far along it; its end where that is beyond. */
export function pointOnWay(way: readonly Point[], along_m: number): Point {
  let left_m = along_m
  let a = way[0]
  for (const b of way.slice(1)) {
    if (!a) break
    const long_m = distance(a, b)
    if (left_m <= long_m) {
      const t = Math.max(0, left_m) / long_m
      return { x_m: a.x_m + t * (b.x_m - a.x_m), y_m: a.y_m + t * (b.y_m - a.y_m) }
    }
    left_m -= long_m
    a = b
  }
  return a ?? { x_m: 0, y_m: 0 }
}

/** From end to end, metres. */
export const wayLength = (way: readonly Point[]): number => way.slice(1).reduce((sum, p, i) => sum + distance(way[i] ?? p, p), 0)

/** How near a truck is to where somebody crosses as they set out, metres: a steady driver who looks can stop. */
export function setsOut_m(t: DrivenTruck): number {
  const speed_mps = steady_share * t.travel.greatest
  return (stoppingDistance({ speed_mps, reaction_s, braking_mps2: t.travel.down }) ?? 0) + 2.5
}

/** Who crosses, each from one side or the other: at a harder level fewer of them mind a truck. */
function peopleOn(
  way: readonly Point[],
  crossings: readonly (readonly [Point, Point])[],
  seed: number,
  level: number,
): Crossing[] {
  const random = randomFrom(seed, 'people')
  return crossings.map(([a, b]) => {
    const turned = random() < 0.5
    const lot = random()
    return {
      from: turned ? b : a,
      to: turned ? a : b,
      at_m: alongWay(way, { x_m: (a.x_m + b.x_m) / 2, y_m: (a.y_m + b.y_m) / 2 }),
      speed_mps: walks_mps[0] + (walks_mps[1] - walks_mps[0]) * random(),
      minds: lot < 0.4 - 0.2 * level ? 'looks' : lot < 0.75 - 0.15 * level ? 'hears' : 'neither',
      hears: random() < 0.7,
    }
  })
}

/** Picked at no lower a shelf, and no higher than this share of how high it goes. */
const [lowest_m, highest_share] = [1.5, 0.7]

/** What is picked on the way, one in each stretch: nobody crosses where the truck stands for it. */
function picksOn(t: DrivenTruck, way: readonly Point[], along: readonly number[], seed: number, level: number): Pick[] {
  if (!t.driving.platform) return []
  const random = randomFrom(seed, 'picks')
  const most_m = lowest_m + (t.chassis.greatestHeight_m * highest_share - lowest_m) * (0.4 + 0.6 * level)
  return along.map((at_m) => ({
    at: pointOnWay(way, at_m),
    at_m,
    height_m: Math.round(10 * (lowest_m + (most_m - lowest_m) * random())) / 10,
    side: random() < 0.5 ? 'left' : 'right',
  }))
}

const crossing = (x0: number, y0: number, x1: number, y1: number): [from: Point, to: Point] => [
  { x_m: x0, y_m: y0 },
  { x_m: x1, y_m: y1 },
]

/**
 * The course of a seed for a truck, the same everywhere: its lane as wide as the truck needs and a little more, somebody who crosses, a ramp, a load
 * that cannot be seen over, wet ground.
 *
 * @param level 0 to 1: a narrower lane, a smaller ring, more of the rest
 */
export function driveCourse(t: DrivenTruck, seed: number, level: number): DriveCourse {
  const d = drawn(t.driving, seed, level)
  const s = sizesOf(t, level, d)
  const { yard_m, lane_m, first_m, second_m, long_m } = s
  const flip = (p: Point): Point => ({ x_m: p.x_m, y_m: d.side * p.y_m })
  const [half, corner_m] = [lane_m / 2, yard_m + first_m]
  // Of its front axle the end that goes first, and the other, are so far off.
  const ahead_m = Math.max(-t.body.rear_m, t.load.front_m)
  const middle = corner_m + half
  const way = [
    { x_m: 0, y_m: 0 },
    { x_m: middle, y_m: 0 },
    { x_m: middle, y_m: half + second_m },
  ].map(flip)
  const first = yard_m + (t.driving.platform ? 0.45 : 0.55) * first_m
  const second = d.second ? half + 0.6 * long_m : null
  const away = half + 1
  const crossings = [
    crossing(first, -away, first, away),
    ...(second === null ? [] : [crossing(middle - away, second, middle + away, second)]),
  ]
  const rampFrom = half + 1.2 * long_m
  const steep = Math.atan(Math.min(0.1, (0.6 * t.chassis.grades.along_pct) / 100))
  const corners = (x0: number, x1: number, y0: number, y1: number): Point[] =>
    [
      { x_m: x0, y_m: y0 },
      { x_m: x1, y_m: y0 },
      { x_m: x1, y_m: y1 },
      { x_m: x0, y_m: y1 },
    ].map(flip)
  return {
    walls: wallsOf(s, { first, second }).map((b) => {
      const points = corners(...b)
      return { points, box: boxOf(points) }
    }),
    ramp: d.ramp && {
      box: boxOf(corners(corner_m, corner_m + lane_m, rampFrom, rampFrom + 1.2 * long_m)),
      slope: { grade_rad: steep, towards_rad: d.side * (d.ramp === 'up' ? 90 : -90) * rad },
    },
    way,
    corner_m,
    yard_m,
    door: hasDoor(seed, level) ? [flip({ x_m: yard_m, y_m: -half }), flip({ x_m: yard_m, y_m: half })] : null,
    shift_m: leftAside(t, seed),
    bay: { ...flip({ x_m: middle, y_m: half + second_m }), ring_m: Math.max(0.3, 0.08 * long_m) * (1.6 - 0.6 * level) },
    people: peopleOn(
      way,
      crossings.map(([a, b]) => [flip(a), flip(b)]),
      seed,
      level,
    ),
    picks: picksOn(t, way, [corner_m - ahead_m - 1, middle + half + 0.6 * long_m + ahead_m + 2], seed, level),
    tall: d.tall,
    wet: d.wet,
    friction: d.wet ? frictions.wet : frictions.dry,
  }
}
