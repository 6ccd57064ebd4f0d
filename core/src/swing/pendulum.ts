import { g_mps2, rad } from '../physics'
import type { Drive, Moment } from './tip'
import { apart, dot, put, putSum, scale, size, squareTo, type Vec, type Written } from './vector'

/** What hangs: its mass, its drag coefficient times its sail, and what bearing and rope take of its swing each second. */
export interface RopeLoad {
  mass_kg: number
  cA_m2: number
  loss_per_s: number
}

/**
 * A load at the end of its rope, written over as it goes. On a taut rope `at` is the direction from the sheave to the load's centre and `going` how that
 * turns, 1/s; on a slack one it flies, and where it stands it stands or slides: place and speed.
 */
export interface Swinging {
  rope: 'taut' | 'slack' | 'stands'
  time_s: number
  readonly at: Written
  readonly going: Written
  /** What rope and air have done to the load so far, and what a tightening rope or the ground has taken, joules. */
  work_J: number
  lost_J: number
}

/** Wind over the ground at a moment, metres a second. */
export type Wind = (at: Moment) => Vec

/** What a load hangs in. */
export interface Under {
  hung: RopeLoad
  /** Tip and rope at a moment; may be written over once three others have been asked for. */
  driveAt: (at: Moment) => Drive
  wind: Wind
}

const air_kgpm3 = 1.25
/** The moments at which a rope goes slack and tightens again, to this. */
const moment_s = 1e-9
/** A load this far inside its rope's length flies, metres; what is nearer is on it but for rounding. */
const inside_m = 1e-12
/** In so many parts of a tick a rope is looked for that has gone slack and tightens again within it. */
const parts = 16

/** A load hanging still under the tip, moving with it. */
export const hangingStill = (): Swinging => ({
  rope: 'taut',
  time_s: 0,
  at: [0, 0, -1],
  going: [0, 0, 0],
  work_J: 0,
  lost_J: 0,
})

/** A load let go from an angle in a plane through the plumb line, `towards_deg` in plan. */
export function letGo(angle_deg: number, towards_deg: number): Swinging {
  const [s, c] = [Math.sin(angle_deg * rad), Math.cos(angle_deg * rad)]
  return { ...hangingStill(), at: [s * Math.cos(towards_deg * rad), s * Math.sin(towards_deg * rad), -c] }
}

/** One load's state made another's. */
export function putLoad(to: Swinging, from: Swinging): void {
  to.rope = from.rope
  to.time_s = from.time_s
  put(to.at, from.at)
  put(to.going, from.going)
  to.work_J = from.work_J
  to.lost_J = from.lost_J
}

/** A load's state to be kept while it goes on. */
export const keptLoad = (s: Swinging): Swinging => ({ ...s, at: [...s.at], going: [...s.going] })

/** Where a load is and how fast, in the frame that stands still. */
export interface PlaceAndSpeed {
  readonly p: Written
  readonly v: Written
}
export const noPlace = (): PlaceAndSpeed => ({ p: [0, 0, 0], v: [0, 0, 0] })

/** Where the load is and how fast, in the frame that stands still. */
export function loadOf(s: Swinging, d: Drive, to: PlaceAndSpeed = noPlace()): PlaceAndSpeed {
  const { p, v } = to
  if (s.rope === 'taut') {
    const { tip, speed, rope_m, payOut_mps } = d
    const { at, going } = s
    p[0] = tip[0] + rope_m * at[0]
    p[1] = tip[1] + rope_m * at[1]
    p[2] = tip[2] + rope_m * at[2]
    v[0] = speed[0] + payOut_mps * at[0] + rope_m * going[0]
    v[1] = speed[1] + payOut_mps * at[1] + rope_m * going[1]
    v[2] = speed[2] + payOut_mps * at[2] + rope_m * going[2]
  } else {
    put(p, s.at)
    put(v, s.going)
  }
  return to
}

/** Energy of a load, joules, potential nothing at z = 0, less what rope and air did, plus what was lost: it stays as it was. */
export interface Account {
  account_J: number
}

export function accountOf(
  s: Swinging,
  { p, v }: PlaceAndSpeed,
  { mass_kg }: Pick<RopeLoad, 'mass_kg'>,
  to: Account = { account_J: Number.NaN },
): Account {
  const moves_J = 0.5 * mass_kg * (v[0] * v[0] + v[1] * v[1] + v[2] * v[2])
  to.account_J = moves_J + mass_kg * g_mps2 * p[2] - s.work_J + s.lost_J
  return to
}

/** Angle of the rope from plumb, degrees; of a slack one the line from sheave to load. */
export function swingAngle_deg(s: Swinging, d: Drive): number {
  const { p } = loadOf(s, d)
  return Math.atan2(Math.hypot(p[0] - d.tip[0], p[1] - d.tip[1]), d.tip[2] - p[2]) / rad
}

/** Force of the air on a load of that speed over the ground, newtons. */
export function airOn(v: Vec, wind: Vec, { cA_m2 }: RopeLoad, to: Written = [0, 0, 0]): Written {
  const x = wind[0] - v[0]
  const y = wind[1] - v[1]
  const z = wind[2] - v[2]
  const by = 0.5 * air_kgpm3 * cA_m2 * Math.sqrt(x * x + y * y + z * z)
  to[0] = by * x
  to[1] = by * y
  to[2] = by * z
  return to
}

/** What a second changes, of place or direction and of speed or rate; what the rope pulls with, and what rope and air do. */
interface Rates {
  readonly at: Written
  readonly going: Written
  pull_N: number
  power_W: number
  /** On the way there: the load's speed, and the force of the air. */
  readonly v: Written
  readonly f: Written
}
const noRates = (): Rates => ({
  at: [0, 0, 0],
  going: [0, 0, 0],
  pull_N: Number.NaN,
  power_W: Number.NaN,
  v: [0, 0, 0],
  f: [0, 0, 0],
})

/**
 * L·q̈ = P·(g − a + f/m) − L·|q̇|²·q − 2·L̇·q̇, and the pull T = m·[(g − a + f/m)·q − L̈ + L·|q̇|²]. Number by number: what is worked out here is
 * worked out five hundred times a second.
 */
function onRope({ at: q, going: rate }: Swinging, d: Drive, wind: Vec, hung: RopeLoad, to: Rates): void {
  const { rope_m: L, payOut_mps: out, acceleration: a } = d
  const { mass_kg: m } = hung
  const { v, f, going } = to
  v[0] = d.speed[0] + out * q[0] + L * rate[0]
  v[1] = d.speed[1] + out * q[1] + L * rate[1]
  v[2] = d.speed[2] + out * q[2] + L * rate[2]
  airOn(v, wind, hung, f)
  // Bearing and rope lose by what turns against the tip, the air by what moves over the ground.
  const lost = m * hung.loss_per_s * L
  f[0] -= lost * rate[0]
  f[1] -= lost * rate[1]
  f[2] -= lost * rate[2]
  // What pushes it against its tip: g − a + f/m; its part along the rope is the rope's.
  const x = f[0] / m - a[0]
  const y = f[1] / m - a[1]
  const z = f[2] / m - a[2] - g_mps2
  const along = x * q[0] + y * q[1] + z * q[2]
  const spin = rate[0] * rate[0] + rate[1] * rate[1] + rate[2] * rate[2]
  const byRope = along / L + spin
  const byRate = (2 * out) / L
  going[0] = x / L - byRope * q[0] - byRate * rate[0]
  going[1] = y / L - byRope * q[1] - byRate * rate[1]
  going[2] = z / L - byRope * q[2] - byRate * rate[2]
  put(to.at, rate)
  const pull = m * (along - d.payOut_mps2 + L * spin)
  to.pull_N = pull
  to.power_W = (f[0] - pull * q[0]) * v[0] + (f[1] - pull * q[1]) * v[1] + (f[2] - pull * q[2]) * v[2]
}

/** The air alone besides its weight. */
function inFlight({ going: v }: Swinging, wind: Vec, hung: RopeLoad, to: Rates): void {
  const { f, going } = to
  const { mass_kg: m } = hung
  airOn(v, wind, hung, f)
  put(to.at, v)
  going[0] = f[0] / m
  going[1] = f[1] / m
  going[2] = f[2] / m - g_mps2
  to.pull_N = 0
  to.power_W = f[0] * v[0] + f[1] * v[1] + f[2] * v[2]
}

/** What the rope pulls with, newtons; less than nought: it would have to push, and goes slack. */
export function pull_N(s: Swinging, d: Drive, hung: RopeLoad, wind: Vec = [0, 0, 0]): number {
  const k = noRates()
  onRope(s, d, wind, hung, k)
  return k.pull_N
}

/** A rope that comes tight takes the speed that leads outward past the winch's, and what that took is lost. */
export function tighten(s: Swinging, d: Drive, mass_kg: number): void {
  const before = dot(s.going, s.going)
  putSum(s.at, s.at, d.tip, -1)
  scale(s.at, 1 / size(s.at))
  const out = Math.max(0, dot(s.going, s.at) - dot(d.speed, s.at) - d.payOut_mps)
  putSum(s.going, s.going, s.at, -out)
  s.lost_J += 0.5 * mass_kg * (before - dot(s.going, s.going))
  putSum(s.going, s.going, d.speed, -1)
  squareTo(s.going, s.at)
  scale(s.going, 1 / d.rope_m)
  s.rope = 'taut'
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

/** What the four stages of a step say together, in the place of the first. */
function putMean(a: Written, b: Vec, c: Vec, d: Vec): void {
  a[0] = (a[0] + 2 * (b[0] + c[0]) + d[0]) / 6
  a[1] = (a[1] + 2 * (b[1] + c[1]) + d[1]) / 6
  a[2] = (a[2] + 2 * (b[2] + c[2]) + d[2]) / 6
}

/** A direction brought back to length one, and how it turns square to it. */
function straighten({ at, going }: Swinging): void {
  const by = 1 / Math.sqrt(at[0] * at[0] + at[1] * at[1] + at[2] * at[2])
  at[0] *= by
  at[1] *= by
  at[2] *= by
  const along = going[0] * at[0] + going[1] * at[1] + going[2] * at[2]
  going[0] -= along * at[0]
  going[1] -= along * at[1]
  going[2] -= along * at[2]
}

/**
 * A load under a moving tip, on a rope of changing length, in the wind, moved tick by tick. It can hang, swing, stand out at any angle, go slack and
 * tighten again; the moments of that are found inside the tick. Against a truth of small steps it errs by the fourth power of the tick. A tick in which
 * none of that happens makes nothing new, not so much as a number: states are written over, and what one part hands another lies in them.
 *
 * @example const p = new Pendulum({ hung, driveAt, wind }); const s = letGo(5, 0); for (…) p.step(s, tick_s)
 */
export class Pendulum {
  private readonly k1 = noRates()
  private readonly k2 = noRates()
  private readonly k3 = noRates()
  private readonly k4 = noRates()
  private readonly mid = hangingStill()
  private readonly end = hangingStill()
  private readonly place = noPlace()
  /** How long a move takes. */
  private h_s = Number.NaN
  private readonly until = { time_s: Number.NaN }

  constructor(readonly under: Under) {}

  private rates(s: Swinging, to: Rates): void {
    const { driveAt, wind, hung } = this.under
    if (s.rope === 'taut') onRope(s, driveAt(s), wind(s), hung, to)
    else inFlight(s, wind(s), hung, to)
  }

  /** from + h·k in its place and its speed, h that share of the move. */
  private leap(to: Swinging, from: Swinging, k: Rates, share: number): void {
    const h = share * this.h_s
    const { at, going } = to
    to.rope = from.rope
    to.time_s = from.time_s + h
    at[0] = from.at[0] + h * k.at[0]
    at[1] = from.at[1] + h * k.at[1]
    at[2] = from.at[2] + h * k.at[2]
    going[0] = from.going[0] + h * k.going[0]
    going[1] = from.going[1] + h * k.going[1]
    going[2] = from.going[2] + h * k.going[2]
  }

  /** So long as it is, taut or in flight: Runge–Kutta of fourth order. */
  private move(from: Swinging, to: Swinging): void {
    const { k1, k2, k3, k4, mid } = this
    this.rates(from, k1)
    this.leap(mid, from, k1, 0.5)
    this.rates(mid, k2)
    this.leap(mid, from, k2, 0.5)
    this.rates(mid, k3)
    this.leap(mid, from, k3, 1)
    this.rates(mid, k4)
    putMean(k1.at, k2.at, k3.at, k4.at)
    putMean(k1.going, k2.going, k3.going, k4.going)
    this.leap(to, from, k1, 1)
    to.work_J = from.work_J + (this.h_s / 6) * (k1.power_W + 2 * k2.power_W + 2 * k3.power_W + k4.power_W)
    to.lost_J = from.lost_J
    if (to.rope === 'taut') straighten(to)
  }

  private moveFor(h: number, from: Swinging, to: Swinging): void {
    this.h_s = h
    this.move(from, to)
  }

  /** One tick; `dt_s` at most a hundredth of the swing's period or so. */
  step(s: Swinging, dt_s: number): void {
    this.until.time_s = s.time_s + dt_s
    this.stepTo(s, this.until)
  }

  /** The same to a moment. */
  stepTo(s: Swinging, until: Moment): void {
    while (s.time_s < until.time_s - moment_s) {
      this.h_s = until.time_s - s.time_s
      if (s.rope === 'taut') this.swing(s)
      else this.fly(s)
    }
  }

  private pulls(s: Swinging): boolean {
    this.rates(s, this.k1)
    return this.k1.pull_N >= 0
  }

  /** A load on a taut rope until that would have to push, or for as long as a move. */
  private swing(s: Swinging): void {
    const { end } = this
    this.move(s, end)
    if (this.pulls(end)) putLoad(s, end)
    else this.slacken(s, this.h_s)
  }

  private slacken(s: Swinging, left_s: number): void {
    const { end, place, under } = this
    const pushes = (h: number) => {
      this.moveFor(h, s, end)
      return !this.pulls(end)
    }
    const h = this.pulls(s) ? firstMoment(0, left_s, pushes) : 0
    if (h > 0) this.moveFor(h, s, s)
    loadOf(s, under.driveAt(s), place)
    put(s.at, place.p)
    put(s.going, place.v)
    s.rope = 'slack'
  }

  /** A load in flight until its rope tightens, or for as long as a move. */
  private fly(s: Swinging): void {
    const { end, under, h_s: left_s } = this
    const beyond = (h: number) => {
      this.moveFor(h, s, end)
      const d = under.driveAt(end)
      return apart(end.at, d.tip) - d.rope_m
    }
    if (beyond(left_s) < -inside_m) {
      putLoad(s, end)
      return
    }
    const within = Array.from({ length: parts }, (_, i) => (i * left_s) / parts).find((h) => beyond(h) < -inside_m)
    const h = within === undefined ? 0 : firstMoment(within, left_s, (x) => beyond(x) >= 0)
    if (h > 0) this.moveFor(h, s, s)
    tighten(s, under.driveAt(s), under.hung.mass_kg)
    // The rope only grazed its length: for the rest of the tick it is taut.
    if (within === undefined) this.moveFor(left_s, s, s)
  }
}

/**
 * How far energy and work have come apart since a beginning, joules: the change of energy less what rope and air did, plus what
 * tightening took. Nothing but the step's error; a run checks it at every tick.
 */
export function energyError_J(from: { s: Swinging; d: Drive }, to: { s: Swinging; d: Drive }, mass_kg: number): number {
  const [then, now] = [from, to].map(({ s, d }) => accountOf(s, loadOf(s, d), { mass_kg }).account_J)
  return (now ?? 0) - (then ?? 0)
}
