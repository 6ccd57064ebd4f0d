import type { Moving } from './tip'

/** How one motion of a machine answers its lever, in the motion's own unit a second. */
export interface AxisLimits {
  /** At full lever. */
  greatest: number
  /** Its speed grows so fast, and falls so fast, a second. */
  up: number
  down: number
  /** From lever to motion. */
  dead_s: number
  /** An emergency stop brakes so fast; left out: twice `down`. */
  stop?: number
}

/**
 * A motion under way, written over tick by tick: its figure at the beginning of a tick, what the lever said in ticks that have not come through yet, in
 * a ring, and where in it the next comes through.
 */
export interface DrivenAxis extends Moving {
  readonly waiting: number[]
  next: number
}

/** Through so many ticks a second. */
export const ticks_per_s = 120
export const tick_s = 1 / ticks_per_s

/** A motion at rest. */
export const axisAt = (l: AxisLimits, at: number): DrivenAxis => ({
  at,
  speed: 0,
  acceleration: 0,
  waiting: Array.from({ length: Math.round(l.dead_s * ticks_per_s) }, () => 0),
  next: 0,
})

/** By how much the speed may change in a tick on its way to what is wanted: through nought it stops for one. */
function change(l: AxisLimits, speed: number, wanted: number, stopping: boolean): number {
  const turning = speed !== 0 && Math.sign(wanted) !== Math.sign(speed)
  const to = turning ? 0 : wanted
  const slows = Math.abs(to) < Math.abs(speed)
  const most = (slows ? (stopping ? (l.stop ?? 2 * l.down) : l.down) : l.up) * tick_s
  return Math.max(-most, Math.min(most, to - speed))
}

/** What the lever said a dead time ago; what it says now waits. */
function through(a: DrivenAxis, said: number): number {
  const before = a.waiting[a.next]
  if (before === undefined) return said
  a.waiting[a.next] = said
  a.next = (a.next + 1) % a.waiting.length
  return before
}

/**
 * The tick that a lever's word begins: acceleration is constant inside it. What the lever says now comes through after the dead time.
 *
 * @param a written over
 * @param lever from −1 to 1; beyond is taken as full
 * @param stopping the emergency stop is pressed: no dead time, its own brake; nothing waits any more
 * @returns the same motion
 * @example const a = axisAt(limits, 0); for (const u of levers) afterTick(onLever(limits, a, u))
 */
export function onLever(l: AxisLimits, a: DrivenAxis, lever: number, stopping = false): DrivenAxis {
  if (stopping) a.waiting.fill(0)
  const wanted = stopping ? 0 : through(a, Math.max(-1, Math.min(1, lever)))
  a.acceleration = change(l, a.speed, wanted * l.greatest, stopping) / tick_s
  return a
}

/** How far a motion is, so many seconds into its tick. */
export function into(a: Moving, s: number, to: Moving = { at: 0, speed: 0, acceleration: 0 }): Moving {
  to.at = a.at + a.speed * s + (a.acceleration * s * s) / 2
  to.speed = a.speed + a.acceleration * s
  to.acceleration = a.acceleration
  return to
}

/** The same of several at once. */
export function allInto(moving: readonly Moving[], s: number, to: readonly Moving[]): void {
  for (let i = 0; i < moving.length; i++) {
    const a = moving[i]
    if (a) into(a, s, to[i])
  }
}

/** On to the beginning of the next tick. */
export function afterTick(a: DrivenAxis): DrivenAxis {
  into(a, tick_s, a)
  return a
}
