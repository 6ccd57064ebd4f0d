import { type Outline, outlineDistance } from '../clearance/standing'
import type { Verdict } from '../finding/finding'
import type { Point } from '../plane/point'
import type { Part, Space, Spaces, When } from './spaces'

/** Who can wait, and how: with the load where it is picked up, or where it is set down, while the other works. */
export interface Waiting {
  waits: string
  at: 'start' | 'end'
  works: string
}

/** How near two machines come to one another over all that both do. */
export interface Meeting {
  a: string
  b: string
  /** Inside: both may work at once. Outside: they would come nearer than the site allows. Not proven: what one of them does is not known. */
  verdict: Verdict
  /** Never more than it is, metres; null: nothing is known of one of them. */
  gap_m: number | null
  between: { a: Part; b: Part } | null
  /** Near where that is, in the place's metres. */
  at: Point | null
  /** What of which of them nobody can say. */
  unknown: { who: string; what: NonNullable<Spaces['unknown']> }[]
  /** Ways in which one of them works while the other waits; none where both have to stand off. */
  waiting: Waiting[]
}

interface Ball {
  x_m: number
  y_m: number
  r_m: number
}
const balls = new WeakMap<Outline, Ball>()
/** A circle round an outline. */
function ballOf(o: Outline): Ball {
  const known = balls.get(o)
  if (known) return known
  const xs = o.points.map((p) => p.x_m)
  const ys = o.points.map((p) => p.y_m)
  const [x_m, y_m] = [(Math.min(...xs) + Math.max(...xs)) / 2, (Math.min(...ys) + Math.max(...ys)) / 2]
  const ball = { x_m, y_m, r_m: Math.max(...o.points.map((p) => Math.hypot(p.x_m - x_m, p.y_m - y_m))) }
  balls.set(o, ball)
  return ball
}

/** Room between two spaces, metres; 0 where they meet. */
function gapBetween(a: Space, b: Space, worth_m: number): number {
  const up_m = Math.max(0, a.from_m - b.to_m, b.from_m - a.to_m)
  if (up_m >= worth_m) return up_m
  const wide_m = a.radius_m + b.radius_m
  const [p, q] = [ballOf(a.outline), ballOf(b.outline)]
  const least_m = Math.hypot(p.x_m - q.x_m, p.y_m - q.y_m) - p.r_m - q.r_m - wide_m
  const known_m = Math.hypot(Math.max(0, least_m), up_m)
  if (known_m >= worth_m) return known_m
  return Math.hypot(Math.max(0, outlineDistance(a.outline, b.outline) - wide_m), up_m)
}

interface Nearest {
  gap_m: number
  a: Space
  b: Space
}
function nearestOf(as: readonly Space[], bs: readonly Space[]): Nearest | null {
  let best: Nearest | null = null
  for (const a of as)
    for (const b of bs) {
      const gap_m = gapBetween(a, b, best?.gap_m ?? Infinity)
      if (best === null || gap_m < best.gap_m) best = { gap_m, a, b }
      if (best.gap_m === 0) return best
    }
  return best
}

const still = (when: When) => (s: Space) => s.when === 'always' || s.when === when

const middleOf = (s: Space): Point => {
  const { x_m, y_m } = ballOf(s.outline)
  return { x_m, y_m }
}

/**
 * How near machines at one place come to one another, pair by pair, the nearest first: arcs, tails, masts and ways in space, whatever the order in which
 * they move. Where two of them would meet: which of them can wait with its load where it is, while the other works.
 *
 * @param all each machine with the room that it takes up
 * @param gap_m what the site wants kept free between them
 * @example together([tern, heron].map((m) => ({ id: m.id, ...spacesOf(m) })), 0.3)[0].verdict // 'outside': their booms cross
 */
export function together(all: readonly (Spaces & { id: string })[], gap_m: number): Meeting[] {
  const pairs = all.flatMap((a, i) => all.slice(i + 1).map((b) => [a, b] as const))
  return pairs
    .map(([a, b]): Meeting => {
      const nearest = nearestOf(a.spaces, b.spaces)
      const unknown = [a, b].flatMap((m) => (m.unknown === null ? [] : [{ who: m.id, what: m.unknown }]))
      const free = nearest === null ? null : nearest.gap_m
      const meets = free !== null && free < gap_m
      const ways = [
        [a, b],
        [b, a],
      ].flatMap(([works, waits]) =>
        (['start', 'end'] as const).flatMap((at): Waiting[] => {
          if (!works || !waits?.spaces.some((s) => s.when === at)) return []
          const near = nearestOf(works.spaces, waits.spaces.filter(still(at)))
          return near === null || near.gap_m >= gap_m ? [{ waits: waits.id, at, works: works.id }] : []
        }),
      )
      return {
        a: a.id,
        b: b.id,
        verdict: meets ? 'outside' : unknown.length > 0 || free === null ? 'not-proven' : 'inside',
        gap_m: free,
        between: nearest && { a: nearest.a.part, b: nearest.b.part },
        at: nearest && middleOf(nearest.a),
        unknown,
        // What nobody knows of one of them may stand in the other's way.
        waiting: meets && unknown.length === 0 ? ways : [],
      }
    })
    .sort((x, y) => (x.gap_m ?? Infinity) - (y.gap_m ?? Infinity))
}
