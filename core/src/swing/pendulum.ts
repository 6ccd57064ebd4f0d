import { g_mps2, rad } from '../physics'
import type { Drive } from './tip'
import { across, add, dot, size, times, type Vec } from './vector'

/** What hangs: its mass, its drag coefficient times its sail, and what bearing and rope take of its swing each second. */
export interface RopeLoad {
  mass_kg: number
  cA_m2: number
  loss_per_s: number
}

interface Common {
  time_s: number
  /** What rope and air have done to the load so far, and what a tightening rope has taken, joules. */
  work_J: number
  lost_J: number
}
/** On a taut rope: the direction from the sheave to the load's centre, and how it turns, 1/s. */
export interface Taut extends Common {
  slack: false
  q: Vec
  rate: Vec
}
/** On a slack rope the load flies. */
export interface Slack extends Common {
  slack: true
  p: Vec
  v: Vec
}
export type Swinging = Taut | Slack

/** Wind over the ground at a time, metres a second. */
export type Wind = (time_s: number) => Vec
const calm: Wind = () => [0, 0, 0]
const gravity: Vec = [0, 0, -g_mps2]
const air_kgpm3 = 1.25
/** The moments at which a rope goes slack and tightens again, to this. */
const moment_s = 1e-9
/** A load this far inside its rope's length flies, metres; what is nearer is on it but for rounding. */
const inside_m = 1e-12
/** In so many parts of a tick a rope is looked for that has gone slack and tightens again within it. */
const parts = 16

/** A load hanging still under the tip, moving with it. */
export const hangingStill = (): Taut => ({ time_s: 0, slack: false, q: [0, 0, -1], rate: [0, 0, 0], work_J: 0, lost_J: 0 })

/** A load let go from an angle in a plane through the plumb line, `towards_deg` in plan. */
export function letGo(angle_deg: number, towards_deg: number): Taut {
  const [s, c] = [Math.sin(angle_deg * rad), Math.cos(angle_deg * rad)]
  return { ...hangingStill(), q: [s * Math.cos(towards_deg * rad), s * Math.sin(towards_deg * rad), -c] }
}

/** Where the load is and how fast, in the frame that stands still. */
export function loadOf(s: Swinging, d: Drive): { p: Vec; v: Vec } {
  if (s.slack) return { p: s.p, v: s.v }
  return { p: add(d.tip, s.q, d.rope_m), v: add(add(d.speed, s.q, d.payOut_mps), s.rate, d.rope_m) }
}

/** Kinetic and potential energy of the load, joules; potential nothing at z = 0. */
export function energy_J(s: Swinging, d: Drive, mass_kg: number): number {
  const { p, v } = loadOf(s, d)
  return 0.5 * mass_kg * dot(v, v) + mass_kg * g_mps2 * p[2]
}

/** Angle of the rope from plumb, degrees; of a slack one the line from sheave to load. */
export function swingAngle_deg(s: Swinging, d: Drive): number {
  const r = add(loadOf(s, d).p, d.tip, -1)
  return Math.atan2(Math.hypot(r[0], r[1]), -r[2]) / rad
}

/** Force of the air on a load of that speed over the ground, newtons. */
export function airOn(v: Vec, wind: Vec, cA_m2: number): Vec {
  const past = add(wind, v, -1)
  return times(past, 0.5 * air_kgpm3 * cA_m2 * size(past))
}

interface Rates {
  turning: Vec
  pull_N: number
  power_W: number
}

/** L·q̈ = P·(g − a + f/m) − L·|q̇|²·q − 2·L̇·q̇, and the pull T = m·[(g − a + f/m)·q − L̈ + L·|q̇|²]. */
function ratesOf(q: Vec, rate: Vec, d: Drive, wind: Vec, hung: RopeLoad): Rates {
  const L = d.rope_m
  const v = add(add(d.speed, q, d.payOut_mps), rate, L)
  // Bearing and rope lose by what turns against the tip, the air by what moves over the ground.
  const f = add(airOn(v, wind, hung.cA_m2), rate, -hung.mass_kg * hung.loss_per_s * L)
  const pushed = add(add(gravity, d.acceleration, -1), f, 1 / hung.mass_kg)
  const spin = dot(rate, rate)
  const turning = add(add(times(across(pushed, q), 1 / L), q, -spin), rate, (-2 * d.payOut_mps) / L)
  const pull_N = hung.mass_kg * (dot(pushed, q) - d.payOut_mps2 + L * spin)
  return { turning, pull_N, power_W: dot(add(f, q, -pull_N), v) }
}

/** What the rope pulls with, newtons; less than nought: it would have to push, and goes slack. */
export const pull_N = (s: Taut, d: Drive, hung: RopeLoad, wind: Vec = [0, 0, 0]): number =>
  ratesOf(s.q, s.rate, d, wind, hung).pull_N

interface Under {
  hung: RopeLoad
  driveAt: (time_s: number) => Drive
  wind: Wind
}

/** So long on a taut rope: Runge–Kutta of fourth order, then the direction brought back to length one and its rate square to it. */
function taut(s: Taut, h: number, { hung, driveAt, wind }: Under): Taut {
  const at = (time_s: number, q: Vec, rate: Vec) => ratesOf(q, rate, driveAt(time_s), wind(time_s), hung)
  const k1 = at(s.time_s, s.q, s.rate)
  const r2 = add(s.rate, k1.turning, h / 2)
  const k2 = at(s.time_s + h / 2, add(s.q, s.rate, h / 2), r2)
  const r3 = add(s.rate, k2.turning, h / 2)
  const k3 = at(s.time_s + h / 2, add(s.q, r2, h / 2), r3)
  const r4 = add(s.rate, k3.turning, h)
  const k4 = at(s.time_s + h, add(s.q, r3, h), r4)
  const mean = (a: Vec, b: Vec, c: Vec, d: Vec): Vec => times(add(add(a, add(b, c), 2), d), h / 6)
  const moved = add(s.q, mean(s.rate, r2, r3, r4))
  const q = times(moved, 1 / size(moved))
  const rate = across(add(s.rate, mean(k1.turning, k2.turning, k3.turning, k4.turning)), q)
  const work_J = s.work_J + (h / 6) * (k1.power_W + 2 * k2.power_W + 2 * k3.power_W + k4.power_W)
  return { time_s: s.time_s + h, slack: false, q, rate, work_J, lost_J: s.lost_J }
}

/** So long in flight, the air alone besides its weight. */
function flying(s: Slack, h: number, { hung, wind }: Under): Slack {
  const at = (time_s: number, v: Vec) => {
    const f = airOn(v, wind(time_s), hung.cA_m2)
    return { a: add(gravity, f, 1 / hung.mass_kg), power_W: dot(f, v) }
  }
  const k1 = at(s.time_s, s.v)
  const v2 = add(s.v, k1.a, h / 2)
  const k2 = at(s.time_s + h / 2, v2)
  const v3 = add(s.v, k2.a, h / 2)
  const k3 = at(s.time_s + h / 2, v3)
  const v4 = add(s.v, k3.a, h)
  const k4 = at(s.time_s + h, v4)
  const mean = (a: Vec, b: Vec, c: Vec, d: Vec): Vec => times(add(add(a, add(b, c), 2), d), h / 6)
  const work_J = s.work_J + (h / 6) * (k1.power_W + 2 * k2.power_W + 2 * k3.power_W + k4.power_W)
  const p = add(s.p, mean(s.v, v2, v3, v4))
  return { time_s: s.time_s + h, slack: true, p, v: add(s.v, mean(k1.a, k2.a, k3.a, k4.a)), work_J, lost_J: s.lost_J }
}

/** A rope that comes tight takes the speed that leads outward past the winch's, and what that took is lost. */
export function tightened(s: Slack, d: Drive, mass_kg: number): Taut {
  const r = add(s.p, d.tip, -1)
  const q = times(r, 1 / size(r))
  const out = Math.max(0, dot(add(s.v, d.speed, -1), q) - d.payOut_mps)
  const v = add(s.v, q, -out)
  const lost_J = s.lost_J + 0.5 * mass_kg * (dot(s.v, s.v) - dot(v, v))
  const rate = times(across(add(v, d.speed, -1), q), 1 / d.rope_m)
  return { time_s: s.time_s, slack: false, q, rate, work_J: s.work_J, lost_J }
}

/** Between a moment at which something is not so and a later one at which it is: when it begins. */
function firstMoment(not_s: number, so_s: number, so: (s: number) => boolean): number {
  let [low, high] = [not_s, so_s]
  while (high - low > moment_s) {
    const middle = (low + high) / 2
    if (so(middle)) high = middle
    else low = middle
  }
  return high
}

/** What follows in a tick, and how much of it that is. */
interface Turn {
  s: Swinging
  /** The rope only grazes its length: for the rest of the tick it is taut. */
  grazes: boolean
}

/** A load in flight until its rope tightens, or for so long. */
function flight(from: Slack, left_s: number, under: Under): Turn {
  const beyond = (s: number) => {
    const x = flying(from, s, under)
    const d = under.driveAt(x.time_s)
    return size(add(x.p, d.tip, -1)) - d.rope_m
  }
  if (beyond(left_s) < -inside_m) return { s: flying(from, left_s, under), grazes: false }
  const within = Array.from({ length: parts }, (_, i) => (i * left_s) / parts).find((s) => beyond(s) < -inside_m)
  const h = within === undefined ? 0 : firstMoment(within, left_s, (s) => beyond(s) >= 0)
  const there = h === 0 ? from : flying(from, h, under)
  const d = under.driveAt(there.time_s)
  return { s: tightened(there, d, under.hung.mass_kg), grazes: within === undefined }
}

/** A load on a taut rope until that would have to push, or for so long. */
function swung(from: Taut, left_s: number, under: Under): Turn {
  const { hung, driveAt, wind } = under
  const pulls = (x: Taut) => pull_N(x, driveAt(x.time_s), hung, wind(x.time_s)) >= 0
  const end = taut(from, left_s, under)
  if (pulls(end)) return { s: end, grazes: false }
  const h = pulls(from) ? firstMoment(0, left_s, (s) => !pulls(taut(from, s, under))) : 0
  const there = h === 0 ? from : taut(from, h, under)
  const { p, v } = loadOf(there, driveAt(there.time_s))
  return { s: { time_s: there.time_s, slack: true, p, v, work_J: there.work_J, lost_J: there.lost_J }, grazes: false }
}

/**
 * One tick of a load under a moving tip, on a rope of changing length, in the wind. It can hang, swing, stand out at any angle, go slack and tighten
 * again; the moments of that are found inside the tick. Against a truth of small steps it errs by the fourth power of the tick.
 *
 * @param dt_s at most a hundredth of the swing's period or so
 * @example let s: Swinging = letGo(5, 0); for (…) s = stepSwing(s, hung, driveAt, tick_s)
 */
export function stepSwing(
  s: Swinging,
  hung: RopeLoad,
  driveAt: (time_s: number) => Drive,
  dt_s: number,
  wind: Wind = calm,
): Swinging {
  const under: Under = { hung, driveAt, wind }
  const end_s = s.time_s + dt_s
  let now = s
  while (now.time_s < end_s - moment_s) {
    const left_s = end_s - now.time_s
    const next = now.slack ? flight(now, left_s, under) : swung(now, left_s, under)
    if (next.grazes && !next.s.slack) return taut(next.s, end_s - next.s.time_s, under)
    now = next.s
  }
  return now
}

/**
 * How far energy and work have come apart since a beginning, joules: the change of energy less what rope and air did, plus what
 * tightening took. Nothing but the step's error; a run checks it at every tick.
 */
export function energyError_J(from: { s: Swinging; d: Drive }, to: { s: Swinging; d: Drive }, mass_kg: number): number {
  const changed = energy_J(to.s, to.d, mass_kg) - energy_J(from.s, from.d, mass_kg)
  return changed - (to.s.work_J - from.s.work_J) + (to.s.lost_J - from.s.lost_J)
}
