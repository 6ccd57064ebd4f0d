import { rad } from '../physics'
import type { LiftOff, Touch } from '../swing/ground'
import type { Drive } from '../swing/tip'
import type { Vec } from '../swing/vector'
import { type Course, onCourse } from './course'
import { LoadMotion } from './load-motion'
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
/** Of two in plan, how far along a boom at that slew and across it. */
function alongAndAcross(x: number, y: number, slew_deg: number): readonly [number, number] {
  const [c, n] = [Math.cos(slew_deg * rad), Math.sin(slew_deg * rad)]
  return [x * c + y * n, y * c - x * n]
}

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
  private readonly motion: LoadMotion
  private readonly slewAxis: number
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
    this.motion = new LoadMotion(rig, course)
    this.slewAxis = rig.axes.findIndex((a) => a.motion === 'slew')
  }

  /** Energy and work have come apart by so much at most, as a share of a swing to 45°. */
  get energyShare(): number {
    return this.motion.energyShare
  }

  get over(): boolean {
    return this.stopped !== null || this.landed.length >= this.course.legs.length
  }

  /** Who crosses the way of this leg. */
  get onFoot(): OnFoot | null {
    return this.course.people.find((p) => p.leg === this.landed.length) ?? null
  }

  /** One tick with the levers held so; pressed, the emergency stop brakes every motion until all stand, whatever the levers say. */
  step(levers: readonly number[], stop = false): void {
    if (this.over) return
    if (stop) this.stops.push(this.samples.length)
    this.stopping = stop || (this.stopping && this.motion.axes.some((a) => a.speed !== 0))
    this.motion.tick(levers, this.stopping)
    this.noted(levers)
    this.met()
    this.judged()
  }

  private noted(levers: readonly number[]) {
    const { d, load, s, axes } = this.motion
    const { p, v } = load
    const slew_deg = axes[this.slewAxis]?.at ?? this.rig.slew_deg
    this.samples.push({
      levers: this.stopping ? levers.map(() => 0) : [...levers],
      speeds: axes.map((a) => a.speed),
      radius_m: Math.hypot(d.tip[0], d.tip[1]),
      slew_deg,
      rope_m: d.rope_m,
      tip_mps: alongAndAcross(d.speed[0], d.speed[1], slew_deg),
      beside_m: alongAndAcross(p[0] - d.tip[0], p[1] - d.tip[1], slew_deg),
      beside_mps: alongAndAcross(v[0] - d.speed[0], v[1] - d.speed[1], slew_deg),
      load: [...p],
      tip: [...d.tip],
      elbow: this.rig.elbowAt?.(axes) ?? null,
      apart_m: this.rig.apartAt(axes),
      standing: s.rope === 'stands',
      onFoot: this.onFootBy(p),
    })
  }

  /** Their step, with the load where it is. */
  private onFootBy([x, y]: Vec): Sample['onFoot'] {
    const who = this.onFoot
    if (!who) return null
    this.walking = walked(
      who,
      this.walking ?? asLegBegins(who),
      this.motion.s.rope !== 'stands' && isInTheirWay(who, [x, y], this.rig.load.radius_m),
    )
    return { at: placeOnFoot(who, this.walking), walks: this.walking.walks }
  }

  /** What it meant to come down, or to be taken up. */
  private met() {
    const { touch, liftOff } = this.motion.ground
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

  private judged() {
    const { d, load } = this.motion
    const { p, v } = load
    const standing = this.motion.s.rope === 'stands'
    const sideways_mps = Math.hypot(v[0], v[1])
    this.dragged ||= standing && sideways_mps > dragged_mps
    this.rests = standing && sideways_mps < 1e-3 ? this.rests + 1 : 0
    const someone = this.samples.at(-1)?.onFoot
    if (someone && !standing && isOver(someone.at, [p[0], p[1]], this.rig.load.radius_m)) this.stopped ??= 'person'
    if (this.rests >= rest_ticks && this.flown) this.land(p)
    this.flown ||= !standing && p[2] - this.motion.height_m > offDeck_m
    this.slackTicks = this.motion.s.rope === 'slack' ? this.slackTicks + 1 : 0
    if (this.isTouching(d, p)) this.stopped ??= 'touched'
    this.stopped ??= this.endOf(d, Math.hypot(p[0] - d.tip[0], p[1] - d.tip[1]), standing)
    if (!(this.energyShare <= (d.rope_m < 2 ? 1e-5 : 1e-6))) this.stopped ??= 'not-valid'
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
    return level ? Math.abs(apartAt(this.motion.axes)) / level.limit_m : 0
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
    return this.motion.axes.map((a) => a.at)
  }

  /** Figures of the state, to compare with those of another device. */
  key(): number[] {
    const { d, load } = this.motion
    return [...load.p, ...load.v, d.rope_m, d.payOut_mps, ...d.tip, ...this.axesAt()]
  }
}
