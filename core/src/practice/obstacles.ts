import { rad } from '../physics'
import { distance, distanceToSegment, type Point } from '../plane/point'
import { awayFrom } from '../plane/ranges'
import { type Point3, segmentDistance } from '../plane/segment3'
import type { Vec } from '../swing/vector'
import type { Rig } from './rig'
import { asideOf, type OnDeck, placeOfRing, type Ring, stepsBetween, wayBetween } from './ring'

/** A pole on the deck, metres from the slew centre. */
export interface Post {
  at: OnDeck
  radius_m: number
  height_m: number
}
/** A low wall on the deck, to be lifted over. */
export interface Wall {
  from: OnDeck
  to: OnDeck
  height_m: number
}
export interface Obstacles {
  posts: readonly Post[]
  walls: readonly Wall[]
}
export const noObstacles: Obstacles = { posts: [], walls: [] }

const post = { radius_m: 0.12, height_m: 2.6 }
/** Half of how thick a wall is, and half of how long. */
const wall = { half_m: 0.1, reach_m: 0.9 }
/** Half of how wide a boom is. */
const boom_m = 0.25
const tries = 60
const steps = 24
/** Where the load hangs as practice begins, nothing stands so near. */
export const fromStart_m = 2
const fromRing_m = 0.4

const pointOf = ([x_m, y_m]: OnDeck): Point => ({ x_m, y_m })
const apart = (a: OnDeck, b: OnDeck) => distance(pointOf(a), pointOf(b))
const toWall = (at: OnDeck, { from, to }: Pick<Wall, 'from' | 'to'>) => distanceToSegment(pointOf(at), pointOf(from), pointOf(to))

/** Between a line in space and a post from deck to top, metres from the post's own middle. */
function toPost({ at: [x, y], height_m }: Post, a: Vec, b: Vec, deck_m: number): number {
  const inSpace = ([px, py, pz]: Vec): Point3 => ({ x: px, y: py, z: pz })
  return segmentDistance(inSpace(a), inSpace(b), { x, y, z: deck_m }, { x, y, z: deck_m + height_m })
}

/** Foot, hinge where there is one, and tip, in the frame that stands still; none of what has no boom. */
export function boomLine(rig: Rig, slew_deg: number, tip: Vec, elbow: readonly [number, number] | null): Vec[] {
  if (rig.under !== 'boom') return []
  const [c, s] = [Math.cos(slew_deg * rad), Math.sin(slew_deg * rad)]
  const at = (out_m: number, up_m: number): Vec => [out_m * c, out_m * s, up_m]
  const foot = at(-rig.foot.back_m, rig.foot.height_m)
  return elbow ? [foot, at(...elbow), tip] : [foot, tip]
}

/** Whether load, rope or boom touch what stands on the deck. */
export function touches(rig: Rig, { posts, walls }: Obstacles, load: Vec, tip: Vec, boom: readonly Vec[]): boolean {
  const { load: hung, deck_m } = rig
  const below_m = load[2] - hung.half_m - deck_m
  const place = [load[0], load[1]] as const
  return (
    posts.some(
      (p) =>
        (below_m < p.height_m && apart(place, p.at) < hung.radius_m + p.radius_m) ||
        toPost(p, load, tip, deck_m) <= p.radius_m ||
        boom.some((joint, i) => toPost(p, boom[i - 1] ?? joint, joint, deck_m) <= p.radius_m + boom_m),
    ) || walls.some((w) => below_m < w.height_m && toWall(place, w) < hung.radius_m + wall.half_m)
  )
}

/** From easy to hard, how many posts, and whether there is a wall. */
const wantedAt = (level: number) => ({ posts: level < 0.15 ? 0 : level < 0.45 ? 1 : level < 0.75 ? 2 : 3, wall: level >= 0.3 })

/**
 * What stands on the deck of a course: posts beside the ways, near enough to be minded, and a wall across one that is no higher than the load is
 * carried. Whoever carries a load straight and as high as it began is clear of all of it.
 *
 * @param rings where the load hangs first, then each ring
 * @param boomAt the boom as it stands with its tip over a place
 * @param begin so near to where the load begins nothing stands; and where else it may hang by then, which is as clear of its first ring
 */
export function obstaclesFor(
  rig: Rig,
  rings: readonly Ring[],
  random: () => number,
  level: number,
  boomAt: (ring: Ring) => readonly Vec[],
  { start_m = fromStart_m, starts = [] }: { start_m?: number; starts?: readonly Ring[] } = {},
): Obstacles {
  // Under a frame that stands astride its load nothing else stands.
  if (rig.level) return noObstacles
  const wanted = wantedAt(level)
  const ways = rings.slice(1).map((to, i) => wayBetween(rings[i] ?? to, to, steps))
  const [, first] = rings
  const fromStarts = first ? starts.map((s) => wayBetween(s, first, steps)) : []
  // A boom goes round over what stands lower than it, at every step and not only where it ends.
  const onWay = (to: Ring, from: Ring) => stepsBetween(from, to, steps).map(boomAt)
  const booms = [
    ...rings.slice(1).flatMap((to, i) => onWay(to, rings[i] ?? to)),
    ...(first ? starts.flatMap((s) => onWay(first, s)) : []),
  ]
  const free_m = rig.load.radius_m + post.radius_m + 1.3 - 0.6 * level
  const isClear = (at: OnDeck, half_m: number) =>
    rings.every((r, i) => apart(at, placeOfRing(r)) > (i === 0 ? start_m : r.ring_m + fromRing_m) + half_m) &&
    (!rig.body || awayFrom(rig.body, at) > 0.5 + half_m)
  const posts: Post[] = []
  const walls: Wall[] = []
  for (let i = 0; i < tries && posts.length < wanted.posts; i++) {
    const way = ways[Math.floor(random() * ways.length)]
    const [at, side] = [1 + Math.floor(random() * (steps - 1)), random() < 0.5 ? -1 : 1]
    const place = way && asideOf(way, at, side * free_m * (1 + 0.3 * random()))
    if (!place || !isClear(place, post.radius_m)) continue
    const [beside, apartFrom] = [
      [...ways, ...fromStarts].flat().every((p) => apart(p, place) >= free_m - 1e-9),
      posts.every((p) => apart(p.at, place) > 1),
    ]
    const p: Post = { at: place, ...post }
    if (beside && apartFrom && booms.every((b) => isUnder(rig, p, b))) posts.push(p)
  }
  const height_m = rig.hangs_m - 0.5
  for (let i = 0; i < tries && walls.length < (wanted.wall ? 1 : 0); i++) {
    const way = ways[Math.floor(random() * ways.length)]
    const at = Math.round(steps * (0.35 + 0.3 * random()))
    const [from, to] = way ? [asideOf(way, at, -wall.reach_m), asideOf(way, at, wall.reach_m)] : []
    if (!from || !to || height_m < 0.3) continue
    const w: Wall = { from, to, height_m }
    const clearOf = (r: Ring, i: number) => toWall(placeOfRing(r), w) > (i === 0 ? start_m : r.ring_m + fromRing_m)
    if (rings.every(clearOf) && isClear(from, 0) && isClear(to, 0)) walls.push(w)
  }
  return { posts, walls }
}

/** A boom that stands well over a post. */
const isUnder = (rig: Rig, p: Post, boom: readonly Vec[]): boolean =>
  boom.every((joint, i) => toPost(p, boom[i - 1] ?? joint, joint, rig.deck_m) > p.radius_m + boom_m + 0.6)
