import { z } from 'zod'
import { rad } from '../physics'
import { awayFrom } from '../plane/ranges'
import { Refusal } from '../refusal'
import { driveOf } from '../swing/tip'
import type { Vec } from '../swing/vector'
import { type BlindSpot, blindSpotFor } from './blind-spot'
import { type CourseWind, windOf, windSet } from './course-wind'
import { boomLine, fromStart_m, type Obstacles, obstaclesFor } from './obstacles'
import { type OnFoot, peopleFor } from './on-foot'
import { catchSpeed, type Plane } from './planes'
import { randomFrom } from './random'
import { type Rig, restingAt } from './rig'
import { placeOfRing, type Ring, wayBetween } from './ring'

/** A swing that somebody gives the load before the word to begin. */
export interface StartSwing {
  plane: Plane
  amplitude_m: number
  /** Where in its swing it is let go: 0 at its top outward or to the left, 90 on its way back through the middle. */
  phase_deg: number
  /** One move takes it; otherwise it needs two. */
  inOne: boolean
}

const inPlane = z.strictObject({
  amplitude_deg: z.number().min(1, 'From 1 to 15 degrees.').max(15, 'From 1 to 15 degrees.'),
  phase_deg: z.number().min(0).lt(360),
})
/** What an assessor sets, instead of the course's own. */
export const loadSet = z
  .strictObject({
    /** A swing to begin with, in either plane or in both. */
    across: inPlane.optional(),
    along: inPlane.optional(),
    wind: windSet.optional(),
    /** Time is not shown; or it runs down, from so many seconds. It counts for nothing. */
    clock: z.union([z.literal('hidden'), z.int().min(30, 'From 30 to 600 s.').max(600, 'From 30 to 600 s.')]).optional(),
  })
  .refine((s) => Object.values(s).some((x) => x !== undefined), 'Set something, or leave it out.')
export type LoadSet = z.infer<typeof loadSet>
export interface Course {
  legs: readonly Ring[]
  /** What it begins with: at most one in a plane. */
  swings: readonly StartSwing[]
  /** Of two hoists one runs slower with its share of the load: which, and at what share of its speed. */
  slower: { motion: 'hoist' | 'rear'; share: number } | null
  /** Somebody has left the speed of the levers set to so much of full. */
  leverShare: number
  /** What stands on the deck. */
  obstacles: Obstacles
  /** Who crosses its ways, no more than one a leg. */
  people: readonly OnFoot[]
  wind: CourseWind | null
  /** Where one of its rings lies out of sight of whoever drives. */
  blind: BlindSpot | null
  /** As much swing, and as much hook beside load, gives half of what can be had for it. */
  allowed_m: number
}

const tries = 200
/** So far a load keeps from the machine that it hangs from. */
const overBody_m = 0.6
const legs = 3
/** Between the edges of two rings there is so much. */
const between_m = 0.5

/** From easy to hard, each figure of a course: straight between its ends. */
const between = (easy: number, hard: number, level: number) => easy + (hard - easy) * level

/** A ring that another motion beside the slew leads to, clear of those there are. */
function nextRing(rig: Rig, random: () => number, level: number, before: readonly Ring[]): Ring | null {
  const last = before.at(-1)
  if (!last) return null
  if (!rig.turns) return ringInLine(rig, random, level, last)
  const { least_m, most_m } = rig.radii
  const ring_m = Math.max(0.9, Math.min(0.22 * most_m, between(2.4, 0.9, level)))
  const radius_m = between(least_m, most_m, random())
  // As far round as keeps rings apart, and up to thirty degrees more.
  const least_deg = Math.max(15, (ring_m + last.ring_m + 0.7) / radius_m / rad)
  const slew_deg = last.slew_deg + (random() < 0.5 ? -1 : 1) * (least_deg + 30 * random())
  const ring: Ring = { slew_deg, radius_m, ring_m }

  if (Math.abs(slew_deg - (before[0]?.slew_deg ?? 0)) > 150 || Math.abs(radius_m - last.radius_m) < 0.15 * (most_m - least_m))
    return null
  const [x, y] = placeOfRing(ring)
  const clear = before.every((b) => {
    const [bx, by] = placeOfRing(b)
    return Math.max(Math.abs(x - bx), Math.abs(y - by)) > ring.ring_m + b.ring_m + between_m
  })
  return clear && isBeside(rig, last, ring) ? ring : null
}

/** Where nothing turns it, out and back along its line: narrower where the line is short, and clear of the ring that the load stands in. */
function ringInLine(rig: Rig, random: () => number, level: number, last: Ring): Ring | null {
  const { least_m, most_m } = rig.radii
  const room_m = (0.8 * (most_m - least_m) - between_m) / 2
  const wide_m = Math.min(2.4, room_m, 0.22 * most_m)
  const ring_m = between(wide_m, Math.min(0.9, 0.8 * wide_m), level)
  const ring: Ring = { slew_deg: rig.slew_deg, radius_m: between(least_m, most_m, random()), ring_m }
  return Math.abs(ring.radius_m - last.radius_m) > ring_m + last.ring_m + between_m ? ring : null
}

/** The way from one ring to the next never leads over the machine itself. */
function isBeside({ body }: Rig, from: Ring, to: Ring): boolean {
  if (!body) return true
  const clear = wayBetween(from, to, 12).map((at) => awayFrom(body, at))
  return clear.every((m) => m > overBody_m) && awayFrom(body, placeOfRing(to)) > to.ring_m + 0.3
}

/** Less swing than this is none to be caught. */
const leastStart_m = 0.25

/** A swing that one move catches, with as much again to spare, in one plane or the other; none where the machine is too slow in both. */
function startOf(rig: Rig, random: () => number, level: number, at: Ring, rope_m: number): StartSwing | null {
  const most_m = (plane: Plane) => Math.min(catchSpeed(rig, plane, at.radius_m).most_m(rope_m) / 2, rope_m * Math.sin(6 * rad))
  const planes = (['across', 'along'] as const).filter((p) => most_m(p) >= leastStart_m)
  const plane = planes[Math.floor(random() * planes.length)]
  if (!plane) return null
  return { plane, amplitude_m: Math.max(leastStart_m, between(0.4, 0.9, level) * most_m(plane)), phase_deg: 0, inOne: true }
}

/** The same as it is set, however wide. */
function swingsSet(rig: Rig, set: LoadSet, at: Ring, rope_m: number): StartSwing[] {
  return (['across', 'along'] as const).flatMap((plane) => {
    const swing = set[plane]
    if (!swing) return []
    const { axis, most_m } = catchSpeed(rig, plane, at.radius_m)
    if (axis < 0) throw new Refusal('no-course', 'Nothing on this machine moves its load across; set a swing along.', plane)
    const amplitude_m = rope_m * Math.sin(swing.amplitude_deg * rad)
    return [{ plane, amplitude_m, phase_deg: swing.phase_deg, inOne: amplitude_m <= most_m(rope_m) }]
  })
}

/** The tip that catches a swing moves about as far as it is wide, and somewhat further where it takes several moves. */
const caught_shares = [-1.5, -1, -0.5, 0, 0.5, 1, 1.5]

/** Where the load may hang once a swing as wide as set is caught. */
function caughtAt(rig: Rig, at: Ring, swings: readonly StartSwing[]): Ring[] {
  const wide = (plane: Plane) => swings.find((s) => s.plane === plane)?.amplitude_m ?? 0
  const shares = (plane: Plane) => (wide(plane) > 0 ? caught_shares : [0])
  const { least_m, most_m } = rig.radii
  return shares('across').flatMap((a) =>
    shares('along').map((b) => ({
      ...at,
      slew_deg: at.slew_deg + (a * wide('across')) / at.radius_m / rad,
      radius_m: Math.max(least_m, Math.min(most_m, at.radius_m + b * wide('along'))),
    })),
  )
}

/** More of the load on one of two hoists makes that one slower: the harder, the more. */
function slowerOf({ level: of }: Rig, seed: number, level: number): Course['slower'] {
  if (!of) return null
  const random = randomFrom(seed, 'hoists')
  return { motion: random() < 0.5 ? 'hoist' : 'rear', share: 1 - between(0.04, 0.16, level) * (0.7 + 0.6 * random()) }
}

/** The boom as it stands with its tip over a ring. */
function boomOver(rig: Rig, { slew_deg, radius_m }: Ring): readonly Vec[] {
  const at = rig.axes.map((a) => (a.motion === 'slew' ? slew_deg : a.motion === rig.reach.motion ? rig.reach.at(radius_m) : a.at))
  const { tip } = driveOf(restingAt(rig, at))
  return boomLine(rig, slew_deg, tip, rig.elbowAt?.(at.map((x) => ({ at: x, speed: 0, acceleration: 0 }))) ?? null)
}

/** One of those that its levers can be set to. */
const leverShareOf = ({ leverShares }: Rig, seed: number): number =>
  leverShares[Math.floor(randomFrom(seed, 'lever share')() * leverShares.length)] ?? 1

/** Its axes at a share of their speed; they gather it and lose it as they did. */
const slowed = (rig: Rig, shareOf: (motion: Rig['axes'][number]['motion']) => number): Rig => ({
  ...rig,
  axes: rig.axes.map((a) => ({ ...a, limits: { ...a.limits, greatest: a.limits.greatest * shareOf(a.motion) } })),
})

/** A rig as its course has it: its levers set so, and of two hoists one slower. */
export const onCourse = (rig: Rig, { slower, leverShare }: Course): Rig =>
  slowed(rig, (motion) => leverShare * (motion === slower?.motion ? slower.share : 1))

/**
 * A course for a machine: rings one after another on its deck, each reached by slewing and by one motion more, or in a line where nothing turns it, and
 * a swing to begin with. The same seed gives the same course.
 *
 * @param level 0 easy to 1 hard
 * @param set what an assessor has set; of what is left out, the course's own
 * @throws Refusal `no-course` where no rings fit, or nothing catches a swing in the plane that is set
 * @example courseFor(rigOf(tern), 7, 0.2).legs.length // 3
 */
export function courseFor(whole: Rig, seed: number, level: number, set: LoadSet = {}): Course {
  const leverShare = leverShareOf(whole, seed)
  const rig = slowed(whole, () => leverShare)
  const random = randomFrom(seed, 'course')
  const hangs = restingAt(rig)
  const here: Ring = { slew_deg: hangs.slew_deg, radius_m: hangs.radius_m, ring_m: 0.5 }
  for (let t = 0; t < tries; t++) {
    const rings: Ring[] = [here]
    for (let i = 0; i < 60 && rings.length <= legs; i++) {
      const ring = nextRing(rig, random, level, rings)
      if (ring) rings.push(ring)
    }
    if (rings.length <= legs) continue
    const isSet = set.across !== undefined || set.along !== undefined
    const own = () => [startOf(rig, randomFrom(seed, 'start'), level, here, hangs.rope_m)].filter((x) => x !== null)
    const swings = isSet ? swingsSet(rig, set, here, hangs.rope_m) : own()
    // What is set may be wide, and the tip is moved as far to catch it.
    const clear_m = isSet ? Math.max(fromStart_m, 1 + 2 * swings.reduce((m, s) => m + s.amplitude_m, 0)) : fromStart_m
    // A long rope swings wide in as many degrees: what is allowed goes with it.
    const allowed_m = between(0.07, 0.035, level) * Math.min(18, hangs.rope_m + rig.hangs_m)
    const obstacles = obstaclesFor(rig, rings, randomFrom(seed, 'obstacles'), level, (r) => boomOver(rig, r), {
      start_m: clear_m,
      starts: isSet ? caughtAt(rig, here, swings) : [],
    })
    return {
      legs: rings.slice(1),
      swings,
      slower: slowerOf(rig, seed, level),
      leverShare,
      obstacles,
      people: peopleFor(rig, rings, obstacles, randomFrom(seed, 'people'), level),
      wind: windOf(seed, level, rig.deck_m + rig.hangs_m, set.wind),
      blind: blindSpotFor(rings.slice(1), randomFrom(seed, 'blind'), level),
      allowed_m: Math.max(0.25, allowed_m),
    }
  }
  throw new Refusal('no-course', 'No rings of this size fit within its reach; choose an easier level.', 'level')
}
