import { rad } from '../physics'
import { add, type Vec } from '../swing/vector'
import { awayFrom } from './carrier'
import type { Rig } from './rig'

/** A pole on the deck, metres from the slew centre. */
export interface Post {
  at: readonly [number, number]
  radius_m: number
  height_m: number
}
/** A low wall on the deck, to be lifted over. */
export interface Wall {
  from: readonly [number, number]
  to: readonly [number, number]
  height_m: number
}
export interface Obstacles {
  posts: readonly Post[]
  walls: readonly Wall[]
}
export const noObstacles: Obstacles = { posts: [], walls: [] }

/** A place by the way round and out, as rings are. */
interface Place {
  slew_deg: number
  radius_m: number
  /** Of a ring there. */
  ring_m: number
}

const post = { radius_m: 0.12, height_m: 2.6 }
/** Half of how thick a wall is, and half of how long. */
const wall = { half_m: 0.1, reach_m: 0.9 }
/** Half of how wide a boom is. */
const boom_m = 0.25
const tries = 60
const steps = 24
/** Where the load hangs as practice begins, nothing stands so near. */
const fromStart_m = 2
const fromRing_m = 0.4

const planOf = ({ slew_deg, radius_m }: Pick<Place, 'slew_deg' | 'radius_m'>): readonly [number, number] => [
  radius_m * Math.cos(slew_deg * rad),
  radius_m * Math.sin(slew_deg * rad),
]
const apart = (a: readonly [number, number], b: readonly [number, number]) => Math.hypot(a[0] - b[0], a[1] - b[1])

/** How near a place in plan is to a straight line between two, metres. */
function toLine(at: readonly [number, number], { from, to }: Pick<Wall, 'from' | 'to'>): number {
  const [dx, dy] = [to[0] - from[0], to[1] - from[1]]
  const along = ((at[0] - from[0]) * dx + (at[1] - from[1]) * dy) / (dx * dx + dy * dy || 1)
  const share = Math.max(0, Math.min(1, along))
  return apart(at, [from[0] + share * dx, from[1] + share * dy])
}

/** The shortest way from a line in space to an upright one from the ground, metres. */
function toUpright(a: Vec, b: Vec, [x, y]: readonly [number, number], from_m: number, to_m: number): number {
  // Along the line the distance to something upright falls and rises once: a search by thirds.
  const at = (share: number) => add(a, add(b, a, -1), share)
  const away = (share: number) => {
    const [px, py, pz] = at(share)
    return Math.hypot(px - x, py - y, Math.max(0, from_m - pz, pz - to_m))
  }
  let [low, high] = [0, 1]
  for (let i = 0; i < 40; i++) {
    const [left, right] = [low + (high - low) / 3, high - (high - low) / 3]
    if (away(left) < away(right)) high = right
    else low = left
  }
  return away((low + high) / 2)
}

/** Foot, hinge where there is one, and tip, in the frame that stands still; none of what has no boom. */
export function boomLine(rig: Rig, slew_deg: number, tip: Vec, elbow: readonly [number, number] | null): Vec[] {
  if (rig.under !== 'boom') return []
  const [c, s] = [Math.cos(slew_deg * rad), Math.sin(slew_deg * rad)]
  const at = (out_m: number, up_m: number): Vec => [out_m * c, out_m * s, up_m]
  const foot = at(-rig.foot.back_m, rig.foot.height_m)
  return elbow ? [foot, at(...elbow), tip] : [foot, tip]
}

/** Whether a line in space, so thick, comes upon a post; most lines pass it in plan already. */
function meets(p: Post, a: Vec, b: Vec, thick_m: number, deck_m: number): boolean {
  const near_m = p.radius_m + thick_m
  if (toLine(p.at, { from: [a[0], a[1]], to: [b[0], b[1]] }) > near_m) return false
  return toUpright(a, b, p.at, deck_m, deck_m + p.height_m) <= near_m
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
        meets(p, load, tip, 0, deck_m) ||
        boom.some((joint, i) => meets(p, boom[i - 1] ?? joint, joint, boom_m, deck_m)),
    ) || walls.some((w) => below_m < w.height_m && toLine(place, w) < hung.radius_m + wall.half_m)
  )
}

/** From easy to hard, how many posts, and whether there is a wall. */
const wantedAt = (level: number) => ({ posts: level < 0.15 ? 0 : level < 0.45 ? 1 : level < 0.75 ? 2 : 3, wall: level >= 0.3 })

/** Straight from one place to another, round and out at once, as a load is carried. */
const wayBetween = (a: Place, b: Place): (readonly [number, number])[] =>
  Array.from({ length: steps + 1 }, (_, k) => {
    const by = (from: number, to: number) => from + ((to - from) * k) / steps
    return planOf({ slew_deg: by(a.slew_deg, b.slew_deg), radius_m: by(a.radius_m, b.radius_m) })
  })

/** Aside of the middle of a way, square to it. */
function asideOf(way: readonly (readonly [number, number])[], at: number, by_m: number): readonly [number, number] | null {
  const [a, p, b] = [way[at - 1], way[at], way[at + 1]]
  if (!a || !p || !b) return null
  const d = apart(a, b)
  return d === 0 ? null : [p[0] - (by_m * (b[1] - a[1])) / d, p[1] + (by_m * (b[0] - a[0])) / d]
}

/**
 * What stands on the deck of a course: posts beside the ways, near enough to be minded, and a wall across one that is no higher than the load is
 * carried. Whoever carries a load straight and as high as it began is clear of all of it.
 *
 * @param rings where the load hangs first, then each ring
 * @param boomAt the boom as it stands with its tip over a place
 */
export function obstaclesFor(
  rig: Rig,
  rings: readonly Place[],
  random: () => number,
  level: number,
  boomAt: (place: Place) => readonly Vec[],
): Obstacles {
  // Under a frame that stands astride its load nothing else stands.
  if (rig.level) return noObstacles
  const wanted = wantedAt(level)
  const ways = rings.slice(1).map((to, i) => wayBetween(rings[i] ?? to, to))
  const booms = rings.map(boomAt)
  const free_m = rig.load.radius_m + post.radius_m + 1.3 - 0.6 * level
  const isClear = (at: readonly [number, number], half_m: number) =>
    rings.every((r, i) => apart(at, planOf(r)) > (i === 0 ? fromStart_m : r.ring_m + fromRing_m) + half_m) &&
    (!rig.body || awayFrom(rig.body, at) > 0.5 + half_m)
  const posts: Post[] = []
  const walls: Wall[] = []
  for (let i = 0; i < tries && posts.length < wanted.posts; i++) {
    const way = ways[Math.floor(random() * ways.length)]
    const [at, side] = [1 + Math.floor(random() * (steps - 1)), random() < 0.5 ? -1 : 1]
    const place = way && asideOf(way, at, side * free_m * (1 + 0.3 * random()))
    if (!place || !isClear(place, post.radius_m)) continue
    const [beside, apartFrom] = [
      ways.flat().every((p) => apart(p, place) >= free_m - 1e-9),
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
    const clearOf = (r: Place, i: number) => toLine(planOf(r), w) > (i === 0 ? fromStart_m : r.ring_m + fromRing_m)
    if (rings.every(clearOf) && isClear(from, 0) && isClear(to, 0)) walls.push(w)
  }
  return { posts, walls }
}

/** A boom that stands well over a post. */
function isUnder(rig: Rig, p: Post, boom: readonly Vec[]): boolean {
  const top_m = rig.deck_m + p.height_m
  return boom.every((joint, i) => {
    const last = boom[i - 1]
    return !last || toUpright(last, joint, p.at, rig.deck_m, top_m) > p.radius_m + boom_m + 0.6
  })
}
