import { g_mps2 } from '../physics'
import { boundary } from '../search'
import { hangingStill, loadOf, noPlace, Pendulum, putLoad, type RopeLoad, type Swinging, tighten, type Under } from './pendulum'
import type { Drive, Moment } from './tip'
import { put } from './vector'

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

const friction = 0.5
/** A load this far over the ground has left it, metres. */
const clear_m = 1e-9
/** Less than this of a tick is none. */
const none_s = 1e-8

/** On the ground to a moment: friction slows what slides, and holds what stands. */
function slide(from: Swinging, until: Moment, { mass_kg }: RopeLoad, to: Swinging): void {
  const x = from.going[0]
  const y = from.going[1]
  const speed = Math.sqrt(x * x + y * y)
  const h = until.time_s - from.time_s
  const left = Math.max(0, speed - friction * g_mps2 * h)
  const slides_s = Math.min(h, speed / (friction * g_mps2))
  putLoad(to, from)
  to.time_s = until.time_s
  if (speed === 0) return
  const by_s = (((speed + left) / 2) * slides_s) / speed
  to.at[0] += by_s * x
  to.at[1] += by_s * y
  to.lost_J += (mass_kg / 2) * (speed * speed - left * left)
  to.going[0] *= left / speed
  to.going[1] *= left / speed
}

/**
 * A load that may hang, swing, come down, stand, slide and be taken up again, moved tick by tick. Friction of one half holds it on the ground; a rope
 * that is not plumb as it takes the load up starts it swinging. A tick in which it neither comes down nor is taken up makes nothing new.
 *
 * @param height_m of the load's centre over the ground when it stands, metres
 * @example const o = new OverGround({ hung, driveAt, wind }, 0.5); const s = hangingStill(); o.step(s, tick_s); o.touch // null
 */
export class OverGround {
  /** How it came down in the last tick, and how it was taken up; null: it was not. */
  touch: Touch | null = null
  liftOff: LiftOff | null = null
  private readonly pendulum: Pendulum
  private readonly end = hangingStill()
  private readonly from = hangingStill()
  private readonly place = noPlace()
  private readonly until = { time_s: Number.NaN }

  constructor(
    private readonly under: Under,
    private readonly height_m: number,
  ) {
    this.pendulum = new Pendulum(under)
  }

  step(s: Swinging, dt_s: number): void {
    const { until } = this
    until.time_s = s.time_s + dt_s
    this.touch = null
    this.liftOff = null
    this.part(s)
    // What came down or was taken up within the tick does the rest of it in its new state.
    if (until.time_s - s.time_s >= none_s) this.part(s)
    if (until.time_s - s.time_s >= none_s && s.rope === 'stands') slide(s, until, this.under.hung, s)
    s.time_s = until.time_s
  }

  private part(s: Swinging): void {
    if (s.rope === 'stands') this.onGround(s)
    else this.aloft(s)
  }

  /** In the air until it stands, or to the end of the tick. */
  private aloft(s: Swinging): void {
    putLoad(this.from, s)
    this.pendulum.stepTo(s, this.until)
    if (this.isUnder(s)) this.comeDown(s)
  }

  private isUnder(s: Swinging): boolean {
    return loadOf(s, this.under.driveAt(s), this.place).p[2] < this.height_m
  }

  /** It came down on its way here: when, and what led downwards is lost. */
  private comeDown(s: Swinging): void {
    const { from, end, until } = this
    const after = (x: number): Swinging => {
      putLoad(end, from)
      if (x > 0) this.pendulum.step(end, x)
      return end
    }
    putLoad(s, after(boundary((x) => !this.isUnder(after(x)), 0, until.time_s - from.time_s, 1e-9)))
    const { p, v } = loadOf(s, this.under.driveAt(s), this.place)
    this.touch ??= { time_s: s.time_s, down_mps: Math.max(0, -v[2]), sideways_mps: Math.hypot(v[0], v[1]) }
    s.lost_J += (this.under.hung.mass_kg / 2) * v[2] ** 2
    put(s.at, p)
    put(s.going, v)
    s.at[2] = this.height_m
    s.going[2] = 0
    s.rope = 'stands'
  }

  /** It stands further than this beyond the end of its rope. */
  private isBeyond({ at }: Swinging, { tip, rope_m }: Drive, more_m: number): boolean {
    const x = at[0] - tip[0]
    const y = at[1] - tip[1]
    const z = at[2] - tip[2]
    return Math.sqrt(x * x + y * y + z * z) - rope_m > more_m
  }

  /** On the ground until its rope takes it up, or to the end of the tick. */
  private onGround(s: Swinging): void {
    const { end, under, until } = this
    slide(s, until, under.hung, end)
    if (this.isBeyond(end, under.driveAt(end), clear_m)) this.takeUp(s)
    else putLoad(s, end)
  }

  /** Its rope takes it up on its way here: when, and what of its speed the rope takes. */
  private takeUp(s: Swinging): void {
    const { end, under, until } = this
    const { hung, driveAt } = under
    const begins_s = s.time_s
    const isHeld = (x: number) => {
      slide(s, { time_s: begins_s + x }, hung, end)
      return !this.isBeyond(end, driveAt(end), 0)
    }
    const after_s = this.isBeyond(s, driveAt(s), 0) ? 0 : boundary(isHeld, 0, until.time_s - begins_s, 1e-9)
    slide(s, { time_s: begins_s + after_s }, hung, s)
    const d = driveAt(s)
    this.liftOff ??= { time_s: s.time_s, aside_m: Math.hypot(s.at[0] - d.tip[0], s.at[1] - d.tip[1]) }
    tighten(s, d, hung.mass_kg)
  }
}
