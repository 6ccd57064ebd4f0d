import { g_mps2, rad } from '../physics'
import { AxisFigures, afterTick, allInto, axisAt, type DrivenAxis, onLever, tick_s } from '../swing/axis'
import { OverGround } from '../swing/ground'
import { type Account, accountOf, hangingStill, loadOf, noPlace, type PlaceAndSpeed, type Swinging } from '../swing/pendulum'
import { atRest, Drive, driveOf, type Moment, Motion } from '../swing/tip'
import { put, type Vec, type Written } from '../swing/vector'
import type { Course, StartSwing } from './course'
import { blowing } from './course-wind'
import type { Rig } from './rig'

const noWind: Vec = [0, 0, 0]
/** Nearer to the end of its travel than it needs to stop, a motion slows down whatever its lever says. */
const endGap = 1e-6

/** Where its motion comes to an end, a lever says nothing more. */
function keepBetweenEnds({ down, greatest, dead_s, least, most }: AxisFigures, a: DrivenAxis): void {
  const speed = Math.max(Math.abs(a.speed), Math.abs(a.lever) * greatest)
  const needs = (speed * speed) / (2 * down) + speed * (dead_s + 2 * tick_s) + endGap
  if (a.lever > 0 && most - a.at < needs) a.lever = 0
  if (a.lever < 0 && a.at - least < needs) a.lever = 0
}

/**
 * Tip and rope within a tick, from where every axis then is. A tick asks for its beginning, its middle and its end many times over: the last three
 * answers are kept, and written over.
 */
class DriveInTick {
  private readonly kept = [new Drive(), new Drive(), new Drive()] as const
  private readonly times: Written = [Number.NaN, Number.NaN, Number.NaN]
  private next: 0 | 1 | 2 = 0
  private readonly from = { time_s: 0 }
  private readonly since = { time_s: 0 }
  private readonly inTick
  private readonly motion = new Motion()

  constructor(
    private readonly rig: Rig,
    private readonly moving: readonly DrivenAxis[],
  ) {
    this.inTick = moving.map((a) => atRest(a.at))
  }

  /** A tick begins: what was kept is of another. */
  begin(from: Moment): void {
    const { times } = this
    this.from.time_s = from.time_s
    times[0] = times[1] = times[2] = Number.NaN
  }

  readonly at = ({ time_s }: Moment): Drive => {
    const { times, kept } = this
    if (times[0] === time_s) return kept[0]
    if (times[1] === time_s) return kept[1]
    if (times[2] === time_s) return kept[2]
    const to = this.next
    this.next = to === 0 ? 1 : to === 1 ? 2 : 0
    times[to] = time_s
    this.since.time_s = time_s - this.from.time_s
    allInto(this.moving, this.since, this.inTick)
    return driveOf(this.rig.motionOf(this.inTick, this.motion), kept[to])
  }
}

/** Where in its plane a load is let go, and how fast it goes there, as shares of its rope. */
function letGoIn({ amplitude_m, phase_deg }: StartSwing, rope_m: number): { out: number; rate_per_s: number } {
  const [whole, phase] = [Math.asin(Math.min(1, amplitude_m / rope_m)), phase_deg * rad]
  const angle = whole * Math.cos(phase)
  // Of a pendulum: as much as it has come down since its top.
  const rate = -Math.sign(Math.sin(phase)) * Math.sqrt(Math.max(0, (2 * g_mps2 * (Math.cos(angle) - Math.cos(whole))) / rope_m))
  return { out: Math.sin(angle), rate_per_s: rate * Math.cos(angle) }
}

/** The load as somebody lets it go: out along the boom, to its left, or both; where it is let go on its way, with the speed that it has there. */
function startOf({ swings }: Pick<Course, 'swings'>, { rope_m, slew_deg }: { rope_m: number; slew_deg: number }): Swinging {
  let [x, y, vx, vy] = [0, 0, 0, 0]
  for (const swing of swings) {
    const towards = (slew_deg + (swing.plane === 'along' ? 0 : 90)) * rad
    const { out, rate_per_s } = letGoIn(swing, rope_m)
    x += out * Math.cos(towards)
    y += out * Math.sin(towards)
    vx += rate_per_s * Math.cos(towards)
    vy += rate_per_s * Math.sin(towards)
  }
  const z = -Math.sqrt(1 - x * x - y * y)
  const s = hangingStill()
  put(s.at, [x, y, z])
  put(s.going, [vx, vy, -(x * vx + y * vy) / z])
  return s
}

/**
 * A machine under its levers and the load on its rope, a hundred and twenty ticks a second; everything follows from what was said at each. Its states
 * are written over: a tick in which the load neither comes down, is taken up nor goes slack makes nothing new.
 *
 * @param rig as its course has it
 * @example const m = new LoadMotion(rig, course); m.tick([0.5, 0, 0, 0], false); m.load.p // where the load then is
 */
export class LoadMotion {
  readonly axes: readonly DrivenAxis[]
  /** What they say in this tick. */
  private readonly levers: Float64Array
  readonly s: Swinging
  /** How it came down in the last tick, and how it was taken up. */
  readonly ground: OverGround
  /** Tip and rope, and the load's place and speed, after the last tick. */
  d: Drive
  readonly load: PlaceAndSpeed = noPlace()
  /** Of the load's centre where it stands. */
  readonly height_m: number
  private readonly drive: DriveInTick
  private readonly figures: readonly AxisFigures[]
  private readonly mass_kg: number
  /** Energy and work have come apart by so much at most since it began, as a share of a swing to 45°. */
  energyShare = 0
  private readonly allowed_J: number
  private readonly began: Account
  private readonly now: Account = { account_J: Number.NaN }
  private ticks = 0

  constructor(
    private readonly rig: Rig,
    course: Pick<Course, 'swings' | 'wind'>,
  ) {
    this.axes = rig.axes.map((a) => axisAt(a.limits, a.at))
    this.figures = rig.axes.map((a) => new AxisFigures(a.limits, a))
    this.levers = new Float64Array(rig.axes.length)
    this.height_m = rig.deck_m + rig.load.half_m
    this.mass_kg = rig.load.mass_kg
    this.s = startOf(course, rig.motionOf(this.axes))
    this.drive = new DriveInTick(rig, this.axes)
    const wind = course.wind ? blowing(course.wind) : () => noWind
    this.ground = new OverGround({ hung: rig.load, driveAt: this.drive.at, wind }, this.height_m)
    this.d = this.drive.at({ time_s: 0 })
    this.allowed_J = this.mass_kg * g_mps2 * this.d.rope_m * (1 - Math.SQRT1_2)
    this.began = accountOf(this.s, loadOf(this.s, this.d, this.load), rig.load)
  }

  /** One tick with its levers held so; a motion near its end slows down whatever its lever says. */
  tick(levers: readonly number[], stopping: boolean): void {
    const { axes, rig, s, drive, began, now } = this
    // What is not named is let go, what there is no axis for is nothing.
    this.levers.fill(0)
    this.levers.set(levers.length > axes.length ? levers.slice(0, axes.length) : levers)
    s.time_s = this.ticks * tick_s
    drive.begin(s)
    for (let i = 0; i < axes.length; i++) {
      const a = axes[i]
      const its = this.figures[i]
      if (!a || !its) continue
      a.lever = this.levers[i] ?? 0
      keepBetweenEnds(its, a)
      onLever(its, a, stopping)
    }
    this.ground.step(s, tick_s)
    this.d = drive.at(s)
    accountOf(s, loadOf(s, this.d, this.load), rig.load, now)
    const share = Math.abs(now.account_J - began.account_J) / this.allowed_J
    if (!(share <= this.energyShare)) this.energyShare = share
    for (let i = 0; i < axes.length; i++) {
      const a = axes[i]
      if (a) afterTick(a)
    }
    this.ticks += 1
  }
}
