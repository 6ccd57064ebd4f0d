import { g_mps2 } from '../physics'
import { boundary } from '../search'
import { hangingStill, loadOf, noPlace, Pendulum, putLoad, type Swinging, tighten, type Under } from './pendulum'
import { apart, put, putSum, scale, size } from './vector'

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

/** So long on the ground: friction slows what slides, and holds what stands. */
function slide(from: Swinging, h: number, mass_kg: number, to: Swinging): void {
  const speed = size(from.going)
  const left = Math.max(0, speed - friction * g_mps2 * h)
  const slides_s = Math.min(h, speed / (friction * g_mps2))
  putLoad(to, from)
  to.time_s = from.time_s + h
  if (speed === 0) return
  putSum(to.at, from.at, from.going, (((speed + left) / 2) * slides_s) / speed)
  to.lost_J = from.lost_J + (mass_kg / 2) * (speed * speed - left * left)
  scale(to.going, left / speed)
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

  constructor(
    private readonly under: Under,
    private readonly height_m: number,
  ) {
    this.pendulum = new Pendulum(under)
  }

  step(s: Swinging, dt_s: number): void {
    const end_s = s.time_s + dt_s
    this.touch = null
    this.liftOff = null
    this.part(s, dt_s)
    // What came down or was taken up within the tick does the rest of it in its new state.
    if (end_s - s.time_s >= none_s) this.part(s, end_s - s.time_s)
    if (end_s - s.time_s >= none_s && s.rope === 'stands') slide(s, end_s - s.time_s, this.under.hung.mass_kg, s)
    s.time_s = end_s
  }

  private part(s: Swinging, h: number): void {
    if (s.rope === 'stands') this.onGround(s, h)
    else this.aloft(s, h)
  }

  /** In the air until it stands, or for so long. */
  private aloft(s: Swinging, h: number): void {
    const { from, end } = this
    putLoad(from, s)
    this.pendulum.step(s, h)
    if (!this.isUnder(s)) return
    const after = (x: number): Swinging => {
      putLoad(end, from)
      if (x > 0) this.pendulum.step(end, x)
      return end
    }
    putLoad(s, after(boundary((x) => !this.isUnder(after(x)), 0, h, 1e-9)))
    this.setDown(s)
  }

  private isUnder(s: Swinging): boolean {
    return loadOf(s, this.under.driveAt(s), this.place).p[2] < this.height_m
  }

  /** Set down where it is: what led downwards is lost. */
  private setDown(s: Swinging): void {
    const { p, v } = loadOf(s, this.under.driveAt(s), this.place)
    this.touch ??= { time_s: s.time_s, down_mps: Math.max(0, -v[2]), sideways_mps: Math.hypot(v[0], v[1]) }
    s.lost_J += (this.under.hung.mass_kg / 2) * v[2] ** 2
    put(s.at, p)
    put(s.going, v)
    s.at[2] = this.height_m
    s.going[2] = 0
    s.rope = 'stands'
  }

  /** How far it stands beyond the end of its rope, metres. */
  private beyond(s: Swinging): number {
    const d = this.under.driveAt(s)
    return apart(s.at, d.tip) - d.rope_m
  }

  /** On the ground until its rope takes it up, or for so long. */
  private onGround(s: Swinging, h: number): void {
    const { end, under } = this
    const { mass_kg } = under.hung
    slide(s, h, mass_kg, end)
    if (this.beyond(end) <= clear_m) {
      putLoad(s, end)
      return
    }
    const isHeld = (x: number) => {
      slide(s, x, mass_kg, end)
      return this.beyond(end) <= 0
    }
    slide(s, this.beyond(s) > 0 ? 0 : boundary(isHeld, 0, h, 1e-9), mass_kg, s)
    const d = under.driveAt(s)
    this.liftOff ??= { time_s: s.time_s, aside_m: Math.hypot(s.at[0] - d.tip[0], s.at[1] - d.tip[1]) }
    tighten(s, d, mass_kg)
  }
}
