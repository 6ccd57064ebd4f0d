import { g_mps2 } from '../physics'
import { tick_s } from '../swing/axis'
import type { Drill, Landed, Stopped } from './drill'
import { type Move, movesOf } from './moves'

/** How one ring was done, each figure from 0 to 1, and what it was reckoned from. */
export interface LegScore {
  /** Its number in the course, from 1. */
  ring: number
  landed: boolean
  land: number
  swing: number
  offset: number
  corrections: number
  time: number
  score: number
  off_m: number
  hard: boolean
  dragged: boolean
  tilted: boolean
  greatestSwing_m: number
  greatestOffset_m: number
  /** How far what two hoists carry was out of level. */
  greatestApart_m: number
  moves: number
  takes_s: number
  from: number
  to: number
}

export interface RunScore {
  legs: LegScore[]
  score: number
  passed: boolean
  stopped: Stopped | null
}

const clamp = (x: number) => Math.max(0, Math.min(1, x))
/** Full marks at nothing, half at what is allowed, none at twice that. */
const share = (x: number, allowed: number) => clamp((2 * allowed - x) / allowed)
const settles_s = 1.5
const loses = 6

interface Leg {
  from: number
  to: number
  landed: Landed | null
  moves: Move[]
  stops: number
}

/** The legs of a run: each from its first lever to its load at rest. */
function legsIn(d: Drill): Leg[] {
  const moves = movesOf(d)
  let begin = 0
  return d.course.legs.map((_, i) => {
    const landed = d.landed[i] ?? null
    const end = landed?.tick ?? d.samples.length
    const own = moves.filter((m) => m.from >= begin && m.from < end)
    const stops = d.stops.filter((t) => t >= begin && t < end).length
    const leg = { from: own[0]?.from ?? begin, to: end, landed, moves: own, stops }
    begin = end
    return leg
  })
}

/** The greatest swing and the greatest of hook beside load from a tick on; what stands on the deck does not swing. */
function greatest(d: Drill, from: number, to: number) {
  let [swing_m, offset_m, apart_m] = [0, 0, 0]
  for (let k = from; k < to; k++) {
    const s = d.samples[k]
    if (!s) break
    offset_m = Math.max(offset_m, Math.hypot(...s.beside_m))
    if (s.standing) continue
    apart_m = Math.max(apart_m, Math.abs(s.apart_m))
    const w = Math.sqrt(g_mps2 / s.rope_m)
    swing_m = Math.max(swing_m, Math.hypot(...s.beside_m, s.beside_mps[0] / w, s.beside_mps[1] / w))
  }
  return { swing_m, offset_m, apart_m }
}

/** How near a load came to its ring: nothing where it is over its edge, came down hard or one end first, was dragged. */
function landShare(landed: Landed, ring_m: number, load_m: number): number {
  if (landed.off_m + load_m > ring_m || landed.hard || landed.dragged || landed.tilted) return 0
  return 1 - (0.5 * landed.off_m) / (ring_m - load_m)
}

/** From when a leg's swing counts: soon after its first move; where it began with a swing, two periods after that was set. */
const countsFrom = (d: Drill, leg: Leg, i: number) =>
  i === 0 && d.course.swings.length > 0
    ? Math.round((4 * Math.PI * Math.sqrt((d.samples[0]?.rope_m ?? 1) / g_mps2)) / tick_s)
    : leg.from + Math.round(settles_s / tick_s)

/** What the reference makes of a course, leg by leg: the bar that nobody has to be above. */
export interface Bar {
  takes_s: number
  greatestSwing_m: number
  greatestOffset_m: number
}

export function barOf(reference: Drill): Bar[] {
  return legsIn(reference).map((leg, i) => {
    const { swing_m, offset_m } = greatest(reference, countsFrom(reference, leg, i), leg.to)
    return { takes_s: (leg.to - leg.from) * tick_s, greatestSwing_m: swing_m, greatestOffset_m: offset_m }
  })
}

/** The moves that a leg takes: begun and ended of slew and reach, one to land, two for a swing to begin with; of two hoists each its own, and two to level. */
const wantedMoves = (d: Drill, i: number) =>
  (d.rig.turns ? 4 : 2) +
  (i > 0 ? 2 : 1) * (d.rig.level ? 2 : 1) +
  (d.rig.level ? 2 : 0) +
  (i === 0 ? d.course.swings.reduce((n, s) => n + (s.inOne ? 2 : 4), 0) : 0)

function legScore(d: Drill, leg: Leg, i: number, bar: Bar): LegScore {
  const { landed } = leg
  // An emergency stop that nothing called for is worth three corrections.
  const moves = leg.moves.length + 3 * leg.stops
  const ring = d.course.legs[i]
  const { swing_m, offset_m, apart_m } = greatest(d, countsFrom(d, leg, i), leg.to)
  const takes_s = (leg.to - leg.from) * tick_s
  const land = landed && ring && takes_s <= 4 * bar.takes_s ? landShare(landed, ring.ring_m, d.rig.load.radius_m) : 0
  const own = {
    swing: share(swing_m, Math.max(d.course.allowed_m, 1.1 * bar.greatestSwing_m)),
    // Kept level counts as its hook over the load does: the worse of the two.
    offset: Math.min(
      share(offset_m, Math.max(d.course.allowed_m, 1.1 * bar.greatestOffset_m)),
      d.rig.level ? share(apart_m, d.rig.level.limit_m) : 1,
    ),
    corrections: clamp(1 - Math.max(0, moves - wantedMoves(d, i)) / loses),
    time: takes_s > 0 ? Math.min(1, bar.takes_s / takes_s) : 0,
  }
  return {
    ring: i + 1,
    landed: landed !== null,
    land,
    ...own,
    score: land === 0 ? 0 : pointsOf({ land, ...own }),
    off_m: landed?.off_m ?? 0,
    hard: landed?.hard ?? false,
    dragged: landed?.dragged ?? false,
    tilted: landed?.tilted ?? false,
    greatestSwing_m: swing_m,
    greatestOffset_m: offset_m,
    greatestApart_m: apart_m,
    moves,
    takes_s,
    from: leg.from,
    to: leg.to,
  }
}

/** Out of a hundred: landing 30, swing 20, hook over the load 15, moves 15, time 20. */
export const pointsOf = (s: { land: number; swing: number; offset: number; corrections: number; time: number }): number =>
  100 * (0.3 * s.land + 0.2 * s.swing + 0.15 * s.offset + 0.15 * s.corrections + 0.2 * s.time)

/**
 * A run against its course and what the reference makes of it. A ring missed, hit hard or dragged into gives nothing for that ring, however quick; a
 * run that had to be stopped gives nothing at all.
 */
export function scoreOf(d: Drill, bars: readonly Bar[]): RunScore {
  const legs = legsIn(d).map((leg, i) => legScore(d, leg, i, bars[i] ?? { takes_s: 1, greatestSwing_m: 0, greatestOffset_m: 0 }))
  const score = d.stopped ? 0 : legs.reduce((sum, l) => sum + l.score, 0) / Math.max(1, legs.length)
  const passed = !d.stopped && legs.every((l) => l.landed && l.land > 0 && l.swing > 0)
  return { legs, score, passed, stopped: d.stopped }
}
