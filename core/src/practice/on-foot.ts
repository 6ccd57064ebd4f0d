import { distance, distanceToSegment, type Point } from '../plane/point'
import { awayFrom } from '../plane/ranges'
import { tick_s } from '../swing/axis'
import type { Obstacles } from './obstacles'
import type { Rig } from './rig'
import { asideOf, type OnDeck, placeOfRing, type Ring, wayBetween } from './ring'

/** Somebody who crosses the way to a ring, and comes back, for as long as the load is on its way there. */
export interface OnFoot {
  /** Number of the ring, from nought. */
  leg: number
  from: OnDeck
  to: OnDeck
  speed_mps: number
  /** After the leg has begun, and once they are over, so long they stand before they want to cross. */
  first_s: number
  stands_s: number
}

/** Where somebody on foot is: how far along their line, which way they go next, whether they walk or how long they still stand. */
export interface Walking {
  at_m: number
  sense: 1 | -1
  walks: boolean
  stands_s: number
}

/** The edge of a load keeps so far from people, in plan, however high it hangs. */
export const fromPeople_m = 1
/** They do not step off while a load is so near to that. */
const looks_m = 0.6
/** So far from the middle of the way they stand before they cross. */
const stands_m = 1.3
/** They walk round a ring, and round what stands in it. */
const roundRing_m = 0.5
const from_level = 0.5
const two_level = 0.75
const tries = 60
const steps = 24
const along = 8

const pointOf = ([x_m, y_m]: OnDeck): Point => ({ x_m, y_m })
const lengthOf = ({ from, to }: OnFoot) => distance(pointOf(from), pointOf(to))
const toLine = (at: OnDeck, { from, to }: Pick<OnFoot, 'from' | 'to'>) =>
  distanceToSegment(pointOf(at), pointOf(from), pointOf(to))
const between = (a: OnDeck, b: OnDeck, share: number): OnDeck => [a[0] + (b[0] - a[0]) * share, a[1] + (b[1] - a[1]) * share]

/** As a leg begins they stand where they come from. */
export const asLegBegins = ({ first_s }: OnFoot): Walking => ({ at_m: 0, sense: 1, walks: false, stands_s: first_s })

export const placeOnFoot = (who: OnFoot, w: Walking): OnDeck => between(who.from, who.to, w.at_m / lengthOf(who))

/** Whether a load in the air is so near to their line that nobody steps off: they look once, then they walk on and mind nothing. */
export const isInTheirWay = (who: OnFoot, load: OnDeck, radius_m: number): boolean =>
  toLine(load, who) < radius_m + fromPeople_m + looks_m

/** One tick of somebody on foot. */
export function walked(who: OnFoot, w: Walking, isInWay: boolean): Walking {
  const length_m = lengthOf(who)
  if (!w.walks) {
    const stands_s = w.stands_s - tick_s
    return { ...w, stands_s, walks: stands_s <= 0 && !isInWay }
  }
  const at_m = Math.max(0, Math.min(length_m, w.at_m + w.sense * who.speed_mps * tick_s))
  const over = at_m === (w.sense === 1 ? length_m : 0)
  return over ? { at_m, sense: w.sense === 1 ? -1 : 1, walks: false, stands_s: who.stands_s } : { ...w, at_m }
}

/** Whether the load hangs nearer to somebody than it may. */
export const isOver = (someone: OnDeck, load: OnDeck, radius_m: number): boolean =>
  distance(pointOf(someone), pointOf(load)) < radius_m + fromPeople_m

/** A line across a way, clear of every ring, of what stands on the deck and of the machine. */
function lineAcross(rig: Rig, rings: readonly Ring[], leg: number, at: number, side: 1 | -1): Pick<OnFoot, 'from' | 'to'> | null {
  const [a, b] = [rings[leg], rings[leg + 1]]
  if (!a || !b) return null
  const way = wayBetween(a, b, steps)
  const out_m = rig.load.radius_m + fromPeople_m + stands_m
  const [from, to] = [asideOf(way, at, side * out_m), asideOf(way, at, -side * out_m)]
  if (!from || !to) return null
  const clear = rings.every((r) => toLine(placeOfRing(r), { from, to }) > r.ring_m + roundRing_m)
  return clear ? { from, to } : null
}

function isFree({ body }: Rig, { posts, walls }: Obstacles, line: Pick<OnFoot, 'from' | 'to'>): boolean {
  const places = Array.from({ length: along + 1 }, (_, i) => between(line.from, line.to, i / along))
  return (
    posts.every((p) => toLine(p.at, line) > p.radius_m + 0.4) &&
    walls.every((w) => places.every((at) => distanceToSegment(pointOf(at), pointOf(w.from), pointOf(w.to)) > 0.5)) &&
    (!body || places.every((at) => awayFrom(body, at) > 0.5))
  )
}

/**
 * Who crosses the ways of a course: nobody on easy ones, and nobody on the way to the first ring, where a swing is caught. Whoever leaves the load on
 * the deck until they are over never has it over them.
 *
 * @param rings where the load hangs first, then each ring
 */
export function peopleFor(rig: Rig, rings: readonly Ring[], obstacles: Obstacles, random: () => number, level: number): OnFoot[] {
  // Between the legs of a frame that stands astride its load nobody walks at all.
  if (level < from_level || rig.level) return []
  const wanted = level < two_level ? 1 : 2
  const people: OnFoot[] = []
  for (let i = 0; i < tries && people.length < wanted; i++) {
    const leg = 1 + Math.floor(random() * (rings.length - 2))
    const at = Math.round(steps * (0.3 + 0.4 * random()))
    const line = lineAcross(rig, rings, leg, at, random() < 0.5 ? 1 : -1)
    const [speed_mps, first_s, stands_s] = [1 + 0.6 * random(), 2 + 8 * random(), 8 + 8 * random()]
    if (!line || people.some((p) => p.leg === leg) || !isFree(rig, obstacles, line)) continue
    people.push({ leg, ...line, speed_mps, first_s, stands_s })
  }
  return people
}

/** So long a leg goes on before they next begin to cross, and so long until they are over, where the load stands out of their way; seconds. */
export function nextCrossing(who: OnFoot, from_s: number): { begins_s: number; over_s: number } {
  const takes_s = lengthOf(who) / who.speed_mps
  let begins_s = who.first_s
  while (begins_s + takes_s < from_s) begins_s += takes_s + who.stands_s
  return { begins_s, over_s: begins_s + takes_s }
}
