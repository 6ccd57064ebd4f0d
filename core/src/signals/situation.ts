import type { SignalId } from '../hand-signals/hand-signal'
import { randomFrom } from '../practice/random'

/** A motion of the load as whoever signals sees it: across is to their right. */
export type Going = 'hoist' | 'lower' | 'right' | 'left'

/** What whoever signals sees as they face the operator; metres, across to their right. */
export interface Situation {
  /** Its lowest corner. */
  load: { across_m: number; height_m: number }
  /** Where it is set down. */
  place: { across_m: number; height_m: number }
  /** What stands on its way. */
  wall: { across_m: number; top_m: number } | null
  /** What the load does now; null: it hangs still. */
  going: Going | null
  /** Where somebody walks; null: nobody is near. */
  person_m: number | null
  /** The operator looks at whoever signals. */
  watching: boolean
  /** The load stands in its place, the rope hangs loose. */
  slack: boolean
}

/** So much is kept between a load and what it passes over, metres. */
export const over_m = 0.5
/** A load this near its place is over it. */
const above_m = 0.3
/** Nearer than this nobody is beside or under a load that moves. */
const near_m = 1.2

/** As high as it has to be before it goes across: over its place, and over what stands between. */
export function clear_m({ load, place, wall }: Situation): number {
  const between = wall && (wall.across_m - load.across_m) * (wall.across_m - place.across_m) < 0
  return over_m + Math.max(place.height_m, between ? wall.top_m : 0)
}

/**
 * The one signal that is next: nobody is hurt first, then what moves is stopped where it should stand, then the load goes up, across and down.
 *
 * @returns null where nothing has to be told: what moves goes as it should
 * @example nextSignal({ ...hanging, person_m: hanging.load.across_m, going: 'lower' }) // 'emergency'
 */
export function nextSignal(s: Situation): SignalId | null {
  const { load, place, going, person_m } = s
  if (going && person_m !== null && Math.abs(person_m - load.across_m) <= near_m) return 'emergency'
  if (s.slack) return 'end'
  if (!s.watching) return going ? null : 'attention'
  const off_m = place.across_m - load.across_m
  const isOver = Math.abs(off_m) <= above_m
  const high_m = clear_m(s)
  if (going === null) {
    if (isOver) return 'lower'
    if (load.height_m < high_m) return 'hoist'
    return off_m > 0 ? 'right' : 'left'
  }
  const goesOn: Record<Going, boolean> = {
    hoist: !isOver && load.height_m < high_m,
    lower: isOver && load.height_m > place.height_m,
    right: off_m > above_m && load.height_m >= high_m,
    left: off_m < -above_m && load.height_m >= high_m,
  }
  return goesOn[going] ? null : 'stop'
}

/** What is asked for in a course, in the order of a lot. */
const asked: readonly SignalId[] = [
  'attention',
  'hoist',
  'hoist',
  'left',
  'right',
  'left',
  'right',
  'lower',
  'lower',
  'stop',
  'stop',
  'stop',
  'emergency',
  'emergency',
  'end',
]

const goings: readonly Going[] = ['hoist', 'lower', 'right', 'left']

function anySituation(random: () => number, level: number): Situation {
  const between = (a: number, b: number) => a + (b - a) * random()
  const place = { across_m: between(-5, 5), height_m: random() < 0.5 ? 0 : between(0.6, 1.4) }
  const lands = random() < 0.35
  const load = {
    across_m: lands ? place.across_m + between(-0.15, 0.15) : between(-6, 6),
    height_m: between(0.2, 5.5),
  }
  const wall = random() < 0.3 + 0.5 * level ? { across_m: between(-4, 4), top_m: between(1, 2.6) } : null
  const slack = random() < 0.15
  const going = random() < 0.5 ? (goings[Math.floor(random() * goings.length)] ?? null) : null
  const person_m = random() < 0.35 ? load.across_m + between(-4, 4) : null
  return {
    load: slack ? { across_m: place.across_m, height_m: place.height_m } : load,
    place,
    wall,
    going: slack ? null : going,
    person_m,
    watching: random() < 0.85,
    slack,
  }
}

/** Whether nobody could see it otherwise: nothing lies near where another signal would be right. */
function isPlain(s: Situation): boolean {
  const { load, place, wall, person_m } = s
  const off_m = Math.abs(place.across_m - load.across_m)
  const person = person_m === null ? Infinity : Math.abs(person_m - load.across_m)
  // A load lies nowhere inside of what stands there.
  const clearOfWall = wall === null || Math.abs(wall.across_m - load.across_m) > 1.4
  const apart = wall === null || Math.abs(wall.across_m - place.across_m) > 1.6
  return (
    clearOfWall &&
    apart &&
    (off_m < 0.16 || off_m > 1.5) &&
    Math.abs(load.height_m - clear_m(s)) > 0.35 &&
    (person < 0.7 || person > 2.2) &&
    // Somebody under what hangs still is another matter: it is not asked here.
    !(s.going === null && !s.slack && person < 2.2) &&
    // Not yet down, or well above it.
    (s.slack || load.height_m - place.height_m > 0.15)
  )
}

const most_tries = 4000

/**
 * Situations in the order of a lot, the same for a seed everywhere, each with one signal that is right.
 *
 * @param level 0 to 1: more that stands in the way
 * @example situations(7, 0.5).map(nextSignal) // all fifteen that are asked for, none of them null
 */
export function situations(seed: number, level: number): Situation[] {
  const random = randomFrom(seed, 'situations')
  const order = asked
    .map((signal) => ({ signal, lot: random() }))
    .sort((a, b) => a.lot - b.lot)
    .map((x) => x.signal)
  return order.map((signal) => {
    for (let i = 0; i < most_tries; i++) {
      const s = anySituation(random, level)
      if (nextSignal(s) === signal && isPlain(s)) return s
    }
    throw new RangeError(`No situation asks for ${signal}.`)
  })
}
