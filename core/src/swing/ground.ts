import { g_mps2 } from '../physics'
import { boundary } from '../search'
import { loadOf, type RopeLoad, type Swinging, stepSwing, type Taut, tightened, type Wind } from './pendulum'
import type { Drive } from './tip'
import { add, size, type Vec } from './vector'

/** A load that stands or slides on the ground, its rope slack or just tight. */
export interface Standing {
  standing: true
  time_s: number
  p: Vec
  /** Level. */
  v: Vec
  work_J: number
  lost_J: number
}
export type OnRope = Swinging | Standing

export const isStanding = (s: OnRope): s is Standing => 'standing' in s

/** How a load came down: how fast downwards and sideways, metres a second. */
export interface Touch {
  time_s: number
  down_mps: number
  sideways_mps: number
}
/** How a load came off the ground: how far its sheave stood beside it, metres. */
export interface LiftOff {
  time_s: number
  aside_m: number
}
export interface Stepped {
  s: OnRope
  touch: Touch | null
  liftOff: LiftOff | null
}

const friction = 0.5
/** A load this far over the ground has left it, metres. */
const clear_m = 1e-9

/** Where the load's centre is, and how fast it goes. */
export const placeOf = (s: OnRope, d: Drive) => (isStanding(s) ? { p: s.p, v: s.v } : loadOf(s, d))

/** So long on the ground: friction slows what slides, and holds what stands. */
function slid(s: Standing, h: number, mass_kg: number): Standing {
  const speed = size(s.v)
  const left = Math.max(0, speed - friction * g_mps2 * h)
  const slides_s = Math.min(h, speed / (friction * g_mps2))
  const share = speed === 0 ? 0 : (((speed + left) / 2) * slides_s) / speed
  const lost_J = s.lost_J + (mass_kg / 2) * (speed ** 2 - left ** 2)
  const v = speed === 0 ? s.v : add([0, 0, 0], s.v, left / speed)
  return { ...s, time_s: s.time_s + h, p: add(s.p, s.v, share), v, lost_J }
}

/** Set down where it is: what led downwards is lost. */
function setDown(s: Swinging, d: Drive, mass_kg: number, height_m: number): { s: Standing; touch: Touch } {
  const { p, v } = loadOf(s, d)
  const standing: Standing = {
    standing: true,
    time_s: s.time_s,
    p: [p[0], p[1], height_m],
    v: [v[0], v[1], 0],
    work_J: s.work_J,
    lost_J: s.lost_J + (mass_kg / 2) * v[2] ** 2,
  }
  return { s: standing, touch: { time_s: s.time_s, down_mps: Math.max(0, -v[2]), sideways_mps: Math.hypot(v[0], v[1]) } }
}

interface Over {
  hung: RopeLoad
  driveAt: (time_s: number) => Drive
  /** The load's centre over the ground when it stands. */
  height_m: number
  wind: Wind
}

/** In the air until it stands, or for so long. */
function aloft(s: Swinging, h: number, { hung, driveAt, height_m, wind }: Over): Stepped {
  const after = (x: number) => (x === 0 ? s : stepSwing(s, hung, driveAt, x, wind))
  const under = (x: Swinging) => loadOf(x, driveAt(x.time_s)).p[2] < height_m
  const end = after(h)
  if (!under(end)) return { s: end, touch: null, liftOff: null }
  const there = after(boundary((x) => !under(after(x)), 0, h, 1e-9))
  const down = setDown(there, driveAt(there.time_s), hung.mass_kg, height_m)
  return { ...down, liftOff: null }
}

/** On the ground until its rope takes it up, or for so long. */
function onGround(s: Standing, h: number, { hung, driveAt }: Over): Stepped {
  const beyond = (x: Standing) => {
    const d = driveAt(x.time_s)
    return size(add(x.p, d.tip, -1)) - d.rope_m
  }
  const end = slid(s, h, hung.mass_kg)
  if (beyond(end) <= clear_m) return { s: end, touch: null, liftOff: null }
  const at_s = beyond(s) > 0 ? 0 : boundary((x) => beyond(slid(s, x, hung.mass_kg)) <= 0, 0, h, 1e-9)
  const there = slid(s, at_s, hung.mass_kg)
  const d = driveAt(there.time_s)
  const up: Taut = tightened({ ...there, slack: true }, d, hung.mass_kg)
  const aside_m = Math.hypot(there.p[0] - d.tip[0], there.p[1] - d.tip[1])
  return { s: up, touch: null, liftOff: { time_s: there.time_s, aside_m } }
}

/**
 * One tick of a load that may hang, swing, come down, stand, slide and be taken up again. Friction of one half holds it on the ground; a rope that
 * is not plumb as it takes the load up starts it swinging.
 *
 * @param over.height_m of the load's centre over the ground when it stands, metres
 * @example stepOver(hangingStill(), tick_s, { hung, driveAt, height_m: 0.5, wind })
 */
export function stepOver(s: OnRope, dt_s: number, over: Over): Stepped {
  const end_s = s.time_s + dt_s
  const first = isStanding(s) ? onGround(s, dt_s, over) : aloft(s, dt_s, over)
  const left_s = end_s - first.s.time_s
  if (left_s < 1e-8) return first
  // What came down or was taken up within the tick does the rest of it in its new state.
  const rest = isStanding(first.s) ? onGround(first.s, left_s, over) : aloft(first.s, left_s, over)
  const s2 = rest.s.time_s < end_s - 1e-8 && isStanding(rest.s) ? slid(rest.s, end_s - rest.s.time_s, over.hung.mass_kg) : rest.s
  return { s: { ...s2, time_s: end_s }, touch: first.touch ?? rest.touch, liftOff: first.liftOff ?? rest.liftOff }
}
