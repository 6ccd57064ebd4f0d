import { atRest, Figure, type Moment, type Moving } from './tip'

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

/** Where an axis comes to an end, and how it answers: read at every tick. */
export class AxisFigures implements AxisLimits {
  greatest = Number.NaN
  up = Number.NaN
  down = Number.NaN
  dead_s = Number.NaN
  stop = Number.NaN
  least = Number.NaN
  most = Number.NaN
  constructor(l: AxisLimits, { least, most }: { least: number; most: number } = { least: -Infinity, most: Infinity }) {
    this.greatest = l.greatest
    this.up = l.up
    this.down = l.down
    this.dead_s = l.dead_s
    this.stop = l.stop ?? 2 * l.down
    this.least = least
    this.most = most
  }
}

/**
 * A motion under way, written over tick by tick: its figure at the beginning of a tick, what its lever says, −1 to 1, what it said in ticks that have
 * not come through yet, in a ring, and where in it the next comes through.
 */
export class DrivenAxis extends Figure {
  lever = 0
  next = 0
  constructor(
    at: number,
    readonly waiting: Float64Array,
  ) {
    super(at)
  }
}

/** Through so many ticks a second. */
export const ticks_per_s = 120
export const tick_s = 1 / ticks_per_s

/** A motion at rest. */
export const axisAt = (l: AxisLimits, at: number): DrivenAxis =>
  new DrivenAxis(at, new Float64Array(Math.round(l.dead_s * ticks_per_s)))

/**
 * The tick that a lever's word begins: acceleration is constant inside it. What the lever says now comes through after the dead time; through nought a
 * motion stops for a tick.
 *
 * @param a written over; its lever beyond −1 and 1 is taken as full
 * @param stopping the emergency stop is pressed: no dead time, its own brake; nothing waits any more
 * @returns the same motion
 * @example const l = new AxisFigures(limits); const a = axisAt(l, 0); for (a.lever of levers) afterTick(onLever(l, a))
 */
export function onLever(l: AxisFigures, a: DrivenAxis, stopping = false): DrivenAxis {
  const { waiting, speed } = a
  let said = Math.max(-1, Math.min(1, a.lever))
  if (stopping) {
    waiting.fill(0)
    said = 0
  } else if (waiting.length > 0) {
    const before = waiting[a.next] ?? 0
    waiting[a.next] = said
    a.next = (a.next + 1) % waiting.length
    said = before
  }
  const wanted = said * l.greatest
  const to = speed !== 0 && Math.sign(wanted) !== Math.sign(speed) ? 0 : wanted
  const slows = Math.abs(to) < Math.abs(speed)
  const most = (slows ? (stopping ? l.stop : l.down) : l.up) * tick_s
  a.acceleration = Math.max(-most, Math.min(most, to - speed)) / tick_s
  return a
}

/** How far a motion is, so long into its tick. */
export function into(a: Moving, since: Moment, to: Moving = atRest(0)): Moving {
  const s = since.time_s
  to.at = a.at + a.speed * s + (a.acceleration * s * s) / 2
  to.speed = a.speed + a.acceleration * s
  to.acceleration = a.acceleration
  return to
}

/** The same of several at once. */
export function allInto(moving: readonly Moving[], since: Moment, to: readonly Moving[]): void {
  for (let i = 0; i < moving.length; i++) {
    const a = moving[i]
    if (a) into(a, since, to[i])
  }
}

const aTick: Moment = { time_s: tick_s }

/** On to the beginning of the next tick. */
export function afterTick(a: DrivenAxis): DrivenAxis {
  into(a, aTick, a)
  return a
}
