import { nth } from '../list'
import type { Surface, WayPart } from '../parts/truck-steps'
import { rad } from '../physics'
import type { Feature, GroundKind, Place } from '../place/place'
import { distanceToFeature, groundAt, inPolygon } from '../place/standing'
import { nearestOnSegment, type Point } from '../plane/point'

/** A point of a place, in its own metres. */
export type Xy = readonly [number, number]

/** A way as it is drawn over a place: what is driven over and through, piece by piece, and where the middle of each piece lies. */
export interface Routed {
  way: WayPart[]
  at: Xy[]
}

const here = { x_m: 0, y_m: 0, heading_deg: 0 }
const pointOf = ([x_m, y_m]: Xy): Point => ({ x_m, y_m })
const between = (a: Xy, b: Xy, t: number): Xy => [a[0] + (b[0] - a[0]) * t, a[1] + (b[1] - a[1]) * t]
const apart_m = (a: Xy, b: Xy) => Math.hypot(b[0] - a[0], b[1] - a[1])

/** A door counts so far before and behind its opening, metres. */
const threshold_m = 0.5
/** Wider than this a way is wide enough for anything, metres. */
const widest_m = 12
/** Less than so much is no corner, degrees. */
const straight_deg = 12
/** Corners are rounded no wider and no tighter than that unless there is no room, metres. */
const round_m = { most: 6, least: 0.5 } as const
/** So near to a wall a door is in it, metres. */
const inWall_m = 0.25
/** So far from the middle of an aisle it is still driven along it, metres. */
const inAisle_m = 0.3

/** The sides of a feature, each from point to point. */
function sidesOf({ geometry: { type, points } }: Feature): [Xy, Xy][] {
  return points.flatMap((b, i): [Xy, Xy][] =>
    i === 0 && type === 'LineString' ? [] : [[nth(points, (i + points.length - 1) % points.length), b]],
  )
}

/** Where along a → b it crosses c → d, 0 to 1; null: it does not. */
function crossing(a: Xy, b: Xy, [c, d]: readonly [Xy, Xy]): number | null {
  const [rx, ry, sx, sy] = [b[0] - a[0], b[1] - a[1], d[0] - c[0], d[1] - c[1]]
  const det = rx * sy - ry * sx
  if (Math.abs(det) < 1e-12) return null
  const t = ((c[0] - a[0]) * sy - (c[1] - a[1]) * sx) / det
  const u = ((c[0] - a[0]) * ry - (c[1] - a[1]) * rx) / det
  return t >= 0 && t <= 1 && u >= 0 && u <= 1 ? t : null
}

const crossingsOf = (a: Xy, b: Xy, sides: readonly (readonly [Xy, Xy])[]): number[] =>
  sides.flatMap((side) => {
    const t = crossing(a, b, side)
    return t === null ? [] : [t]
  })
const crossings = (a: Xy, b: Xy, f: Feature): number[] => crossingsOf(a, b, sidesOf(f))

const nearestOn = (a: Xy, b: Xy, p: Xy): Xy => {
  const { x_m, y_m } = nearestOnSegment(pointOf(p), pointOf(a), pointOf(b))
  return [x_m, y_m]
}

const covers = (f: Feature, p: Xy) => f.geometry.type === 'Polygon' && inPolygon(f.geometry.points, pointOf(p))

/**
 * The nearest point of an aisle, or of the middle of a door, that a finger may have meant; the point itself where none is so near.
 *
 * @param within_m how far off a finger may be
 * @example snapped(place, [4.2, 8.1], 1.5) // [4.2, 8.5]: on the aisle
 */
export function snapped(place: Place, p: Xy, within_m: number): Xy {
  const ends = place.features.flatMap((f): Xy[] => {
    const [a, b] = [f.geometry.points[0], f.geometry.points.at(-1)]
    if (f.kind === 'door' && a && b) return [between(a, b, 0.5)]
    if (f.kind !== 'aisle') return []
    return sidesOf(f).map(([c, d]) => nearestOn(c, d, p))
  })
  const near = ends.filter((e) => apart_m(e, p) <= within_m).sort((x, y) => apart_m(x, p) - apart_m(y, p))
  return near[0] ?? p
}

/** What keeps a truck from driving there. */
const blocks = ({ kind }: Feature) => kind === 'solid' || kind === 'rack' || kind === 'void' || kind === 'edge'

/** What of a feature must not be touched: its sides; of a building that is gone into, its walls without the doors in them. */
function wallsOf(place: Place, f: Feature): [Xy, Xy][] {
  if (!f.hollow) return sidesOf(f)
  const doors = place.features.filter((x) => x.kind === 'door').flatMap(sidesOf)
  return sidesOf(f).flatMap(([a, b]): [Xy, Xy][] => {
    const long = apart_m(a, b)
    if (long === 0) return []
    const along = (p: Xy) => ((p[0] - a[0]) * (b[0] - a[0]) + (p[1] - a[1]) * (b[1] - a[1])) / long ** 2
    const gaps = doors
      .filter((door) => door.every((p) => apart_m(p, nearestOn(a, b, p)) < inWall_m))
      .map((door) => door.map(along).sort((x, y) => x - y))
      .sort((x, y) => nth(x, 0) - nth(y, 0))
    // From the end of one opening to the beginning of the next.
    const from = [0, ...gaps.map((g) => nth(g, 1))]
    const to = [...gaps.map((g) => nth(g, 0)), 1]
    return from.flatMap((t, i): [Xy, Xy][] => (nth(to, i) > t ? [[between(a, b, t), between(a, b, nth(to, i))]] : []))
  })
}
/** What a truck drives on to, the uppermost first. */
const driven = ['trailer', 'leveller', 'ramp'] as const

/** Room across the way, by rays to either side of it at three places: what is drawn there, and the sides of what is driven on. */
function roomAcross(place: Place, a: Xy, b: Xy, on: Feature | undefined): number {
  const long = apart_m(a, b)
  if (long === 0) return widest_m
  const side: Xy = [-(b[1] - a[1]) / long, (b[0] - a[0]) / long]
  const walls = [...place.features.filter(blocks).flatMap((f) => wallsOf(place, f)), ...(on ? sidesOf(on) : [])]
  const rays = [0.02, 0.5, 0.98].flatMap((t) => {
    const from = between(a, b, t)
    return [1, -1].map((way) => {
      const to: Xy = [from[0] + side[0] * way * (widest_m / 2), from[1] + side[1] * way * (widest_m / 2)]
      return Math.min(1, ...crossingsOf(from, to, walls)) * (widest_m / 2)
    })
  })
  return 2 * Math.min(...rays)
}

/** Along an aisle it is as wide as that. */
const aisleAlong = (place: Place, a: Xy, b: Xy): Feature | undefined =>
  place.features.find((f) => f.kind === 'aisle' && [a, b].every((p) => distanceToFeature(f, pointOf(p)) <= inAisle_m))

const down2 = (m: number) => Math.floor(m * 100 + 1e-6) / 100

/** One piece of a straight run, by what its middle lies on, in, and under. */
function pieceOf(place: Place, a: Xy, b: Xy, door: Feature | undefined, surface: Surface): WayPart {
  const middle = between(a, b, 0.5)
  // A door at the crest of a ramp is as steep as the ramp.
  const told = door ? [middle, between(a, b, 0.01), between(a, b, 0.99)] : [middle]
  const on = told.flatMap((p) => driven.flatMap((kind) => place.features.filter((f) => f.kind === kind && covers(f, p))))[0]
  const aisle = aisleAlong(place, a, b)
  const [slope, cross] = slopeOn(on, a, b)
  const floorId = on?.ground ?? groundAt(place, here, pointOf(middle))
  const ceilings = place.features
    .filter((f) => f.kind === 'ceiling' && told.some((p) => covers(f, p)))
    .map((f) => f.height_m ?? Infinity)
  const height_m = Math.min(...ceilings, aisle?.height_m ?? Infinity, door?.height_m ?? Infinity)
  const width_m = door ? openingOf(door, a, b) : Math.min(roomAcross(place, a, b, on), aisle?.width_m ?? Infinity)
  return {
    kind: door ? 'door' : on ? (on.kind as (typeof driven)[number]) : 'straight',
    label: (door ?? on ?? aisle)?.label ?? '',
    length_m: Math.max(0.01, apart_m(a, b)),
    grade_pct: slope,
    cross_pct: cross,
    width_m: Math.max(0.01, down2(width_m)),
    height_m: height_m === Infinity ? null : height_m,
    surface,
    ...(on?.kind === 'trailer' && { nose: null }),
    floor: groundOf(place, floorId),
  }
}

/** How wide a door is to what goes through it: aslant, less than its opening. */
function openingOf({ geometry: { points } }: Feature, a: Xy, b: Xy): number {
  const [c, d] = [nth(points, 0), nth(points, points.length - 1)]
  return Math.abs((d[0] - c[0]) * (b[1] - a[1]) - (d[1] - c[1]) * (b[0] - a[0])) / apart_m(a, b)
}

const groundOf = (place: Place, id: string): GroundKind | null => place.ground.find((g) => g.id === id) ?? null

/** How a slope rises along a run, and across it, per cent. */
function slopeOn(on: Feature | undefined, a: Xy, b: Xy): [number, number] {
  if (!on?.axis || on.grade_pct === undefined) return [0, 0]
  const [foot, crest] = on.axis
  const up = Math.atan2(crest[1] - foot[1], crest[0] - foot[0])
  const to = Math.atan2(b[1] - a[1], b[0] - a[0])
  const round = (v: number) => Math.round(v * 1e6) / 1e6 + 0
  // What is driven uphill of its axis has its left side high where the axis points left of it.
  return [round(on.grade_pct * Math.cos(up - to)), round(on.grade_pct * Math.sin(up - to))]
}

/** A straight run, cut where it comes on to something else, under something else, or through a door. */
function run(place: Place, a: Xy, b: Xy, surface: Surface): { a: Xy; b: Xy; part: WayPart }[] {
  const long = apart_m(a, b)
  if (long < 1e-6) return []
  const doors = place.features
    .filter((f) => f.kind === 'door')
    .flatMap((door) => crossings(a, b, door).map((t) => ({ door, from: t - threshold_m / long, to: t + threshold_m / long })))
  const areas = place.features.filter((f) => ['ramp', 'leveller', 'trailer', 'ceiling', 'ground'].includes(f.kind))
  // A door is one piece, whatever changes under it or over it.
  const changes = areas.flatMap((f) => crossings(a, b, f)).filter((t) => doors.every((d) => t <= d.from || t >= d.to))
  const cuts = [0, 1, ...doors.flatMap((d) => [d.from, d.to]), ...changes]
    .map((t) => Math.min(1, Math.max(0, t)))
    .sort((x, y) => x - y)
  return cuts.slice(1).flatMap((to, i) => {
    const from = nth(cuts, i)
    if ((to - from) * long < 0.01) return []
    const middle = (from + to) / 2
    const door = doors.find((d) => middle > d.from && middle < d.to)?.door
    const [p, q] = [between(a, b, from), between(a, b, to)]
    return [{ a: p, b: q, part: pieceOf(place, p, q, door, surface) }]
  })
}

/** A corner as it is driven, and how much of both legs it takes; none where it is turned on the spot. */
interface Rounded {
  part: WayPart
  radius_m: number
  cut_m: number
}

/** A corner, rounded as wide as half of what comes before and after it allows. */
function corner(place: Place, a: Xy, b: Xy, c: Xy, surface: Surface): Rounded | null {
  const bend = Math.abs(turnAt(a, b, c))
  if (bend < straight_deg * rad) return null
  // Sharper than that it is turned round on the spot, as tightly as it goes.
  const sharp = bend > 120 * rad
  const tangent = Math.tan(bend / 2)
  const room_m = Math.min(apart_m(a, b), apart_m(b, c)) / 2
  const widest = Math.max(round_m.least, Math.min(round_m.most, room_m / tangent))
  const radius_m = sharp ? round_m.least : roundedAt(place, a, b, c, widest)
  const straight = pieceOf(place, between(b, a, 0.001), between(b, c, 0.001), undefined, surface)
  const wide = [roomAcross(place, between(b, a, 0.2), b, undefined), roomAcross(place, b, between(b, c, 0.2), undefined)]
  const part: WayPart = {
    ...straight,
    kind: 'turn',
    length_m: radius_m * bend,
    radius_m: Math.round(radius_m * 100) / 100,
    // The narrower of what it turns from and into.
    width_m: Math.max(0.01, down2(Math.min(...wide))),
    nose: undefined,
  }
  return { part, radius_m, cut_m: sharp ? 0 : Math.min(room_m, radius_m * tangent) }
}

/** Points of an arc that is driven round a corner, from one leg to the other. */
function arcAt(a: Xy, b: Xy, c: Xy, radius_m: number): Xy[] {
  const bend = turnAt(a, b, c)
  const cut_m = radius_m * Math.tan(Math.abs(bend) / 2)
  const start = between(b, a, cut_m / apart_m(b, a))
  const heading = Math.atan2(b[1] - a[1], b[0] - a[0])
  const n = 8
  return Array.from({ length: n + 1 }, (_, i): Xy => {
    const turned = (Math.abs(bend) * i) / n
    const [ahead, aside] = [radius_m * Math.sin(turned), Math.sign(bend) * radius_m * (1 - Math.cos(turned))]
    return [
      start[0] + ahead * Math.cos(heading) - aside * Math.sin(heading),
      start[1] + ahead * Math.sin(heading) + aside * Math.cos(heading),
    ]
  })
}

/** As wide as a corner can be rounded without coming nearer to anything than the line itself does, or than matters. */
function roundedAt(place: Place, a: Xy, b: Xy, c: Xy, widest: number): number {
  const kept = place.features.filter((f) => blocks(f) || f.kind === 'people')
  const tight = (radius_m: number) =>
    kept.every((f) => {
      const arc_m = nearestTo(place, arcAt(a, b, c, radius_m), f).gap_m
      return arc_m > widest_m / 2 || arc_m >= nearestTo(place, [a, b, c], f).gap_m - 1e-9
    })
  for (let radius_m = widest; radius_m > round_m.least; radius_m *= 0.8) if (tight(radius_m)) return radius_m
  return round_m.least
}

function turnAt(a: Xy, b: Xy, c: Xy): number {
  const d = Math.atan2(c[1] - b[1], c[0] - b[0]) - Math.atan2(b[1] - a[1], b[0] - a[0])
  return Math.atan2(Math.sin(d), Math.cos(d))
}

/**
 * A line over a place as a way: straight runs, corners, doors, ramps, levellers and trailers in the order they are driven, each as wide and
 * as high as the place's plan has it, on the floor that lies there. What the plan does not show is not in it.
 *
 * @param drawn corners in the place's own metres
 * @example wayAlong(place, [[-20, 8.5], [4, 8.5]]).way.map((p) => p.kind) // ['straight', 'ramp', 'door', 'straight']
 */
export function wayAlong(place: Place, drawn: readonly Xy[], surface: Surface = 'dry'): Routed {
  const out: Routed = { way: [], at: [] }
  const route = drawn.filter((p, i) => i === 0 || apart_m(p, nth(drawn, i - 1)) > 0.01)
  let from = route[0]
  if (!from) return out
  const take = (part: WayPart, at: Xy) => {
    out.way.push(part)
    out.at.push(at)
  }
  for (const [i, to] of route.slice(1).entries()) {
    const after = route[i + 2]
    const before = nth(route, i)
    const bend = after ? corner(place, before, to, after, surface) : null
    const end = bend ? between(to, before, bend.cut_m / apart_m(to, before)) : to
    for (const piece of run(place, from, end, surface)) take(piece.part, between(piece.a, piece.b, 0.5))
    if (bend && after) {
      take(bend.part, to)
      from = between(to, after, bend.cut_m / apart_m(to, after))
    } else from = to
  }
  return out
}

/** A line over a place as it is driven: corners rounded as `wayAlong` rounds them, each point told whether it lies in a turn. */
export function drivenLine(place: Place, drawn: readonly Xy[]): { at: Xy; turning: boolean }[] {
  const route = drawn.filter((p, i) => i === 0 || apart_m(p, nth(drawn, i - 1)) > 0.01)
  return route.flatMap((at, i): { at: Xy; turning: boolean }[] => {
    const [before, after] = [route[i - 1], route[i + 1]]
    const bend = before && after ? corner(place, before, at, after, 'dry') : null
    if (!before || !after || !bend) return [{ at, turning: false }]
    const arc = bend.cut_m === 0 ? [at] : arcAt(before, at, after, bend.radius_m)
    return arc.map((p) => ({ at: p, turning: true }))
  })
}

/** One thing beside a way, or in it. */
export interface Beside {
  feature: Feature
  /** From the middle of the way, in plan, metres; 0: the way goes through it. */
  gap_m: number
  /** Where on the way that is. */
  at: Xy
}

/** Where a way comes nearest to a feature: where it goes into it, or between a corner of the one and a side of the other. */
function nearestTo(place: Place, route: readonly Xy[], feature: Feature): Beside {
  const legs = route.slice(1).map((b, i): [Xy, Xy] => [nth(route, i), b])
  const inside = feature.hollow ? undefined : route.find((p) => covers(feature, p))
  if (inside) return { feature, gap_m: 0, at: inside }
  const walls = wallsOf(place, feature)
  let best: Beside = { feature, gap_m: Infinity, at: nth(route, 0) }
  const see = (at: Xy, to: Xy) => {
    const gap_m = apart_m(at, to)
    if (gap_m < best.gap_m) best = { feature, gap_m, at }
  }
  for (const [a, b] of legs) {
    const [into] = crossingsOf(a, b, walls)
    if (into !== undefined) return { feature, gap_m: 0, at: between(a, b, into) }
    for (const [c, d] of walls) {
      for (const p of [a, b]) see(p, nearestOn(c, d, p))
      for (const p of [c, d]) see(nearestOn(a, b, p), p)
    }
  }
  return best
}

/** How near a way comes to everything it must not touch. A building is gone into by its doors alone, between their jambs. */
export const besideRoute = (place: Place, route: readonly Xy[]): Beside[] =>
  place.features.filter(blocks).map((feature) => nearestTo(place, route, feature))

/** Walls of one feature, with the box round them. */
interface Walled {
  feature: Feature
  walls: [Xy, Xy][]
  box: [number, number, number, number]
}

/** Where people walk. */
export const peopleWalk = ({ kind }: Feature) => kind === 'people'

/**
 * Whether a straight run keeps so far from some of what is drawn, asked many times of one place.
 *
 * @param from what it keeps from; left out: everything that a truck must not touch
 * @returns for a run and a distance: true where nothing comes nearer
 */
export function openRuns(place: Place, from: (f: Feature) => boolean = blocks): (a: Xy, b: Xy, keep_m: number) => boolean {
  const all = place.features.filter(from).map((feature): Walled => {
    const walls = wallsOf(place, feature)
    const [xs, ys] = [walls.flat().map(([x]) => x), walls.flat().map(([, y]) => y)]
    return { feature, walls, box: [Math.min(...xs), Math.min(...ys), Math.max(...xs), Math.max(...ys)] }
  })
  const near = ([x0, y0, x1, y1]: Walled['box'], a: Xy, b: Xy, keep_m: number) =>
    Math.max(a[0], b[0]) >= x0 - keep_m &&
    Math.min(a[0], b[0]) <= x1 + keep_m &&
    Math.max(a[1], b[1]) >= y0 - keep_m &&
    Math.min(a[1], b[1]) <= y1 + keep_m
  const touches = (a: Xy, b: Xy, [c, d]: [Xy, Xy], keep_m: number) =>
    crossing(a, b, [c, d]) !== null ||
    [a, b].some((p) => apart_m(p, nearestOn(c, d, p)) < keep_m) ||
    [c, d].some((p) => apart_m(p, nearestOn(a, b, p)) < keep_m)
  return (a, b, keep_m) =>
    all.every(
      ({ feature, walls, box }) =>
        !near(box, a, b, keep_m) ||
        (!(!feature.hollow && [a, b].some((p) => covers(feature, p))) && !walls.some((w) => touches(a, b, w, keep_m))),
    )
}

/** How near a way comes to each place where people walk, from its middle, metres. */
export const peopleBeside = (place: Place, route: readonly Xy[]): Beside[] =>
  place.features.filter((f) => f.kind === 'people').map((feature) => nearestTo(place, route, feature))
