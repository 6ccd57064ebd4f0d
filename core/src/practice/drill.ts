import { g_mps2, rad } from '../physics'
import { after, axisAt, type DrivenAxis, into, onLever, tick_s } from '../swing/axis'
import { isStanding, type LiftOff, type OnRope, placeOf, stepOver, type Touch } from '../swing/ground'
import { letGo, type Wind } from '../swing/pendulum'
import { type Drive, driveOf, type Moving } from '../swing/tip'
import type { Vec } from '../swing/vector'
import { type Course, onCourse, type StartSwing } from './course'
import { blowing } from './course-wind'
import { boomLine, touches } from './obstacles'
import { asLegBegins, isInTheirWay, isOver, type OnFoot, placeOnFoot, type Walking, walked } from './on-foot'
import type { Rig } from './rig'
import { type OnDeck, placeOfRing } from './ring'

/** Why a run was ended before its last ring. */
export type Stopped =
  | 'touched'
  | 'person'
  | 'side-pull'
  | 'slack'
  | 'unlevel'
  | 'two-block'
  | 'rope-limit'
  | 'too-long'
  | 'not-valid'

/** What a tick left behind, for words, score and drawing. Along and across are the boom’s. */
export interface Sample {
  /** Each axis’ lever as it was held, −1 to 1, and how fast the motion then went. */
  levers: readonly number[]
  speeds: readonly number[]
  /** Radius, slew and rope of the moment. */
  radius_m: number
  slew_deg: number
  rope_m: number
  /** The tip’s own speed, the load against the tip, and its speed against it: [along, across]. */
  tip_mps: readonly [number, number]
  beside_m: readonly [number, number]
  beside_mps: readonly [number, number]
  load: Vec
  tip: Vec
  /** Out along a folding boom and up, where its hinge is. */
  elbow: readonly [number, number] | null
  /** The front end of what two hoists carry over its rear one. */
  apart_m: number
  standing: boolean
  /** Where somebody is who crosses the way of this leg, and whether they are on their way; nobody does: null. */
  onFoot: { at: OnDeck; walks: boolean } | null
}

/** A load set down for a ring: in it or not, and how. */
export interface Landed {
  tick: number
  off_m: number
  hard: boolean
  dragged: boolean
  /** One end came down well before the other. */
  tilted: boolean
}

/** At rest so long a load is landed, ticks. */
const rest_ticks = 60
const hard_mps = 0.3
/** Sideways over a deck faster than this is dragged. */
export const dragged_mps = 0.2
const sidePull_m = 0.5
/** Out of level by so many times of what it may be, a load slips in its slings. */
const slips = 2
const flattest_deg = 75
/** Twenty minutes. */
export const longest_ticks = 20 * 60 * 120
/** Nearer to the end of its travel than it needs to stop, a motion slows down whatever its lever says. */
const endGap = 1e-6

/** What a lever may still say where its motion comes to an end. */
function kept(axis: Rig['axes'][number], a: DrivenAxis, lever: number): number {
  const { down, greatest, dead_s } = axis.limits
  const speed = Math.max(Math.abs(a.speed), Math.abs(lever) * greatest)
  const needs = speed ** 2 / (2 * down) + speed * (dead_s + 2 * tick_s) + endGap
  if (lever > 0 && axis.most - a.at < needs) return 0
  if (lever < 0 && a.at - axis.least < needs) return 0
  return lever
}

/** A tick asks for its beginning, its middle and its end many times over: the last three answers are kept. */
function kept3(of: (t: number) => Drive): (t: number) => Drive {
  const [times, drives]: [number[], Drive[]] = [[], []]
  let next = 0
  return (t) => {
    const at = times.indexOf(t)
    const known = at < 0 ? undefined : drives[at]
    if (known) return known
    const d = of(t)
    times[next] = t
    drives[next] = d
    next = (next + 1) % 3
    return d
  }
}

/** The load against its tip, along the boom and across it. */
function beside(s: OnRope, d: Drive, slew_deg: number): Pick<Sample, 'tip_mps' | 'beside_m' | 'beside_mps' | 'load'> {
  const { p, v } = placeOf(s, d)
  const [c, n] = [Math.cos(slew_deg * rad), Math.sin(slew_deg * rad)]
  const turned = (x: number, y: number): readonly [number, number] => [x * c + y * n, y * c - x * n]
  return {
    tip_mps: turned(d.speed[0], d.speed[1]),
    beside_m: turned(p[0] - d.tip[0], p[1] - d.tip[1]),
    beside_mps: turned(v[0] - d.speed[0], v[1] - d.speed[1]),
    load: p,
  }
}

function energyOf(s: OnRope, d: Drive, mass_kg: number): number {
  const { p, v } = placeOf(s, d)
  return 0.5 * mass_kg * (v[0] ** 2 + v[1] ** 2 + v[2] ** 2) + mass_kg * g_mps2 * p[2] - s.work_J + s.lost_J
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
function startOf({ swings }: Course, { rope_m, slew_deg }: { rope_m: number; slew_deg: number }): OnRope {
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
  return { ...letGo(0, 0), q: [x, y, z], rate: [vx, vy, -(x * vx + y * vy) / z] }
}

const noLimits = { greatest: 0, up: 1, down: 1, dead_s: 0 }
/** A load that stands has to come so far off the deck before it can land again, metres. */
const offDeck_m = 0.05
/** Slack for so many ticks in the air is slack; a winch that starts lets it go for one. */
const slack_ticks = 2

/**
 * Load control as it runs: fed with levers tick by tick, it moves the machine and its load and keeps what happened. The same levers give the same
 * run.
 *
 * @example const d = new Drill(rig, course); while (!d.over) d.step(levers())
 */
export class Drill {
  readonly rig: Rig
  readonly samples: Sample[] = []
  readonly landed: Landed[] = []
  readonly touches: (Touch & { tick: number })[] = []
  readonly liftOffs: (LiftOff & { tick: number })[] = []
  /** Ticks at which the emergency stop was pressed. */
  readonly stops: number[] = []
  stopped: Stopped | null = null
  /** Energy and work have come apart by so much at most, as a share of a swing to 45°. */
  energyShare = 0
  private axes: DrivenAxis[]
  private s: OnRope
  private readonly slewAxis: number
  private readonly height_m: number
  private readonly allowed_J: number
  private readonly began_J: number
  private readonly wind: Wind
  private stopping = false
  private rests = 0
  private slackTicks = 0
  private hard = false
  private dragged = false
  private tilted = false
  private flown = true
  private walking: Walking | null = null

  constructor(
    whole: Rig,
    readonly course: Course,
  ) {
    const rig = onCourse(whole, course)
    this.rig = rig
    this.wind = course.wind ? blowing(course.wind) : () => [0, 0, 0]
    this.axes = rig.axes.map((a) => axisAt(a.limits, a.at))
    this.slewAxis = rig.axes.findIndex((a) => a.motion === 'slew')
    this.height_m = rig.deck_m + rig.load.half_m
    this.s = startOf(course, rig.motionOf(this.axes))
    const d = this.driveOf(this.axes)
    this.allowed_J = rig.load.mass_kg * g_mps2 * d.rope_m * (1 - Math.SQRT1_2)
    this.began_J = energyOf(this.s, d, rig.load.mass_kg)
  }

  get over(): boolean {
    return this.stopped !== null || this.landed.length >= this.course.legs.length
  }

  /** Who crosses the way of this leg. */
  get onFoot(): OnFoot | null {
    return this.course.people.find((p) => p.leg === this.landed.length) ?? null
  }

  private driveOf(moving: readonly Moving[]): Drive {
    return driveOf(this.rig.motionOf(moving))
  }

  /** One tick with the levers held so; pressed, the emergency stop brakes every motion until all stand, whatever the levers say. */
  step(levers: readonly number[], stop = false): void {
    if (this.over) return
    if (stop) this.stops.push(this.samples.length)
    this.stopping = stop || (this.stopping && this.axes.some((a) => a.speed !== 0))
    const moving = this.axes.map((a, i) => {
      const axis = this.rig.axes[i]
      const asked = axis ? kept(axis, a, levers[i] ?? 0) : 0
      return onLever(axis?.limits ?? noLimits, a, asked, { stopping: this.stopping })
    })
    const from_s = this.samples.length * tick_s
    const driveAt = kept3((t) => this.driveOf(moving.map((a) => into(a, t - from_s))))
    const next = stepOver({ ...this.s, time_s: from_s }, tick_s, {
      hung: this.rig.load,
      driveAt,
      height_m: this.height_m,
      wind: this.wind,
    })
    this.s = next.s
    const d = driveAt(from_s + tick_s)
    this.axes = moving.map(after)
    this.noted(d, levers)
    this.met(next.touch, next.liftOff)
    this.judged(d)
  }

  private noted(d: Drive, levers: readonly number[]) {
    const slew_deg = this.axes[this.slewAxis]?.at ?? this.rig.slew_deg
    const hung = beside(this.s, d, slew_deg)
    this.samples.push({
      levers: this.stopping ? levers.map(() => 0) : [...levers],
      speeds: this.axes.map((a) => a.speed),
      radius_m: Math.hypot(d.tip[0], d.tip[1]),
      slew_deg,
      rope_m: d.rope_m,
      tip: d.tip,
      elbow: this.rig.elbowAt?.(this.axes) ?? null,
      apart_m: this.rig.apartAt(this.axes),
      standing: isStanding(this.s),
      onFoot: this.onFootBy(hung.load),
      ...hung,
    })
  }

  /** Their step, with the load where it is. */
  private onFootBy([x, y]: Vec): Sample['onFoot'] {
    const who = this.onFoot
    if (!who) return null
    this.walking = walked(
      who,
      this.walking ?? asLegBegins(who),
      !isStanding(this.s) && isInTheirWay(who, [x, y], this.rig.load.radius_m),
    )
    return { at: placeOnFoot(who, this.walking), walks: this.walking.walks }
  }

  /** What it meant to come down, or to be taken up. */
  private met(touch: Touch | null, liftOff: LiftOff | null) {
    const tick = this.samples.length - 1
    if (touch) {
      this.touches.push({ ...touch, tick })
      this.hard ||= touch.down_mps > hard_mps
      this.dragged ||= touch.sideways_mps > dragged_mps
      this.tilted ||= this.unlevelBy() > 1
    }
    if (!liftOff) return
    this.liftOffs.push({ ...liftOff, tick })
    if (liftOff.aside_m > sidePull_m) this.stopped = 'side-pull'
  }

  private judged(d: Drive) {
    const standing = isStanding(this.s)
    const { p, v } = placeOf(this.s, d)
    const sideways_mps = Math.hypot(v[0], v[1])
    this.dragged ||= standing && sideways_mps > dragged_mps
    this.rests = standing && sideways_mps < 1e-3 ? this.rests + 1 : 0
    const someone = this.samples.at(-1)?.onFoot
    if (someone && !standing && isOver(someone.at, [p[0], p[1]], this.rig.load.radius_m)) this.stopped ??= 'person'
    if (this.rests >= rest_ticks && this.flown) this.land(p)
    this.flown ||= !standing && p[2] - this.height_m > offDeck_m
    this.slackTicks = !isStanding(this.s) && this.s.slack ? this.slackTicks + 1 : 0
    if (this.isTouching(d, p)) this.stopped ??= 'touched'
    this.stopped ??= this.endOf(d, Math.hypot(p[0] - d.tip[0], p[1] - d.tip[1]), standing)
    this.energyShare = Math.max(
      this.energyShare,
      Math.abs(energyOf(this.s, d, this.rig.load.mass_kg) - this.began_J) / this.allowed_J,
    )
    if (this.energyShare > (d.rope_m < 2 ? 1e-5 : 1e-6)) this.stopped ??= 'not-valid'
  }

  private isTouching(d: Drive, load: Vec): boolean {
    const { obstacles } = this.course
    if (obstacles.posts.length + obstacles.walls.length === 0) return false
    const now = this.samples.at(-1)
    return touches(this.rig, obstacles, load, d.tip, boomLine(this.rig, now?.slew_deg ?? 0, d.tip, now?.elbow ?? null))
  }

  private land(p: Vec) {
    const ring = this.course.legs[this.landed.length]
    const [x, y] = ring ? placeOfRing(ring) : [0, 0]
    const { hard, dragged, tilted } = this
    this.landed.push({ tick: this.samples.length, off_m: Math.hypot(p[0] - x, p[1] - y), hard, dragged, tilted })
    this.flown = false
    this.walking = null
    this.hard = false
    this.dragged = false
    this.tilted = false
  }

  /** How far what two hoists carry is out of level, as a share of what it may be. */
  private unlevelBy(): number {
    const { level, apartAt } = this.rig
    return level ? Math.abs(apartAt(this.axes)) / level.limit_m : 0
  }

  private endOf(d: Drive, aside_m: number, standing: boolean): Stopped | null {
    if (this.slackTicks > slack_ticks) return 'slack'
    if (!standing && this.unlevelBy() > slips) return 'unlevel'
    if (d.rope_m <= this.rig.twoBlock_m) return 'two-block'
    if (!standing && aside_m > d.rope_m * Math.sin(flattest_deg * rad)) return 'rope-limit'
    return this.samples.length >= longest_ticks ? 'too-long' : null
  }

  /** Where each axis stands, in its own unit. */
  axesAt(): number[] {
    return this.axes.map((a) => a.at)
  }

  /** Figures of the state, to compare with those of another device. */
  key(): number[] {
    const d = this.driveOf(this.axes)
    const { p, v } = placeOf(this.s, d)
    return [...p, ...v, d.rope_m, d.payOut_mps, ...d.tip, ...this.axesAt()]
  }
}
