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

/** A motion under way: its figure at the beginning of a tick, what the lever said in ticks that have not come through yet. */
export interface DrivenAxis extends Moving {
  waiting: readonly number[]
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
})

/** By how much the speed may change in a tick on its way to what is wanted: through nought it stops for one. */
function change(l: AxisLimits, speed: number, wanted: number, stopping: boolean): number {
  const turning = speed !== 0 && Math.sign(wanted) !== Math.sign(speed)
  const to = turning ? 0 : wanted
  const slows = Math.abs(to) < Math.abs(speed)
  const most = (slows ? (stopping ? (l.stop ?? 2 * l.down) : l.down) : l.up) * tick_s
  return Math.max(-most, Math.min(most, to - speed))
}

/**
 * The tick that a lever's word begins: acceleration is constant inside it. What the lever says now comes through after the dead time.
 *
 * @param lever from −1 to 1; beyond is taken as full
 * @param share of the greatest speed that the machine is set to
 * @param stopping the emergency stop is pressed: no dead time, its own brake
 * @example let a = axisAt(limits, 0); for (const u of levers) a = after(onLever(limits, a, u))
 */
export function onLever(l: AxisLimits, a: DrivenAxis, lever: number, { share = 1, stopping = false } = {}): DrivenAxis {
  const said = Math.max(-1, Math.min(1, lever))
  const queue = stopping ? a.waiting.map(() => 0) : [...a.waiting, said]
  const through = stopping ? 0 : (queue[0] ?? said)
  const speed_change = change(l, a.speed, through * l.greatest * share, stopping)
  return { at: a.at, speed: a.speed, acceleration: speed_change / tick_s, waiting: stopping ? queue : queue.slice(1) }
}

/** How far a motion is, so many seconds into its tick. */
export const into = (a: Moving, s: number): Moving => ({
  at: a.at + a.speed * s + (a.acceleration * s * s) / 2,
  speed: a.speed + a.acceleration * s,
  acceleration: a.acceleration,
})

/** The beginning of the next tick. */
export const after = (a: DrivenAxis): DrivenAxis => ({ ...into(a, tick_s), waiting: a.waiting })
