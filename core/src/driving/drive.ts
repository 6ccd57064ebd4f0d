import { g_mps2, rad } from '../physics'
import { usualTravelFork_m } from '../place/place'
import { distance, type Point } from '../plane/point'
import { tick_s } from '../swing/axis'
import { tractionOf } from '../truck/balance'
import { alongWay, type Crossing, type DriveCourse, type Pick, setsOut_m, steady_share, wayLength } from './course'
import { type DrivenTruck, overallLength, type TruckEdge, truckEdges } from './driven-truck'
import { besideTruck, inSight, onGround, touches } from './footprint'
import { drivenOn, type TruckPose } from './pose'
import {
  byAmount,
  type DriveRule,
  driveRules,
  type Held,
  hornBefore,
  leftWell,
  lookedBack,
  type RuleMark,
  worseMark,
} from './rules'
import { stoppingDistance } from './stopping'
import { type DriverSays, TruckMotion, type Underfoot } from './truck-motion'

/** What ends a drive before its load is set down. */
export type DriveStop = 'tipped' | 'struck' | 'touched' | 'too-long'

/** What the driver does at a tick. */
export interface DriverActs extends DriverSays {
  horn: boolean
  look: boolean
  /** The parking brake is on; the key is out. */
  brake: boolean
  key: boolean
  stop: boolean
}

/** Somebody on foot as they walk. */
export interface Walker {
  crossing: Crossing
  at: Point
  /** Metres walked; null: they have not set out. */
  walked_m: number | null
  heardAt: number | null
}

const ticksOf = (s: number) => Math.round(s / tick_s)
/** Its way is kept so often. */
const keptEvery_ticks = 6
/** Raising, tilting and setting down take so long besides driving. */
const handling_s = 20
/** Whoever takes longer than so many times a steady driver has not finished. */
const longest_times = 3
/** Picked where the truck stands no further off, its platform no further from the shelf, for so long. */
export const picked_m = { along: 0.3, high: 0.15 } as const
const picks_s = 2
/** Its platform goes up and down again for each, besides. */
const eachPick_s = 12
/** Side shift no further off than this is in the middle. */
export const centred_m = 0.01
/** It moves, for a rule that counts while it does. */
const moving_mps = 0.3
/** Below this it stands. */
const rolls_mps = 0.05
const reaction_s = 0.75
/** A load that stands: at rest so long. The truck is left within so long of that, or it was not left. */
const [stands_s, leaves_s] = [0.5, 20]
/** Leaning back no further than this its forks lie flat, degrees. */
const flat_deg = 0.5
const near_m = { struck: 0.3, stand: 0.5, tooNear: 1 } as const
const hears_m = 8
/** On the way across, where somebody who minds a truck still stands outside the lane. */
const kerb_m = { from: 0.4, until: 0.6 } as const
const hearsFor_s = 4
/** Less than this share of the room at rest is too little. */
export const leastRoom_share = 1 / 3

/** What is counted on the way, ticks or metres. */
interface Counted {
  high: number
  unleant: number
  aside: number
  tight: number
  lifted: boolean
  blind_m: number
  downhill_m: number
  turned: number
  ramped: boolean
}

/** A load taken along a course, tick by tick. */
export class TruckDrive {
  readonly motion: TruckMotion
  readonly walkers: Walker[]
  /** Where it was, to be drawn again. */
  readonly track: TruckPose[] = []
  readonly steady_s: number
  stopped: DriveStop | null = null
  finished = false
  ticks = 0
  /** The least of what room there was to an edge, as a share of the room at rest, and which edge. */
  least: { edge: TruckEdge; share: number } = { edge: 'front', share: 1 }
  horns: Held[] = []
  looks: Held[] = []
  private readonly long_m: number
  private readonly setsOut_m: number
  private readonly counted: Counted = {
    high: 0,
    unleant: 0,
    aside: 0,
    tight: 0,
    lifted: false,
    blind_m: 0,
    downhill_m: 0,
    turned: 0,
    ramped: false,
  }
  private people: RuleMark | null = null
  private readonly reversals: number[] = []
  private reversing = false
  private cornered: number | null = null
  private through: number | null = null
  private moved_m = 0
  /** How many have been picked, and how long the next has been stood at. */
  picked = 0
  private picking = 0
  private down = 0
  private brakeAt: number | null = null
  private keyAt: number | null = null

  constructor(
    readonly truck: DrivenTruck,
    readonly course: DriveCourse,
  ) {
    const heading_rad = truck.faces > 0 ? 0 : Math.PI
    this.motion = new TruckMotion(truck, { x_m: 0, y_m: 0, heading_rad }, course.shift_m)
    this.walkers = course.people.map((crossing) => ({ crossing, at: crossing.from, walked_m: null, heardAt: null }))
    this.long_m = overallLength(truck)
    this.setsOut_m = setsOut_m(truck)
    const picks_s = course.picks.reduce((sum, p) => sum + eachPick_s + (2 * p.height_m) / truck.driving.forks_mps, 0)
    this.steady_s = wayLength(course.way) / (steady_share * truck.travel.greatest) + handling_s + picks_s
  }

  get over(): boolean {
    return this.finished || this.stopped !== null
  }

  get time_s(): number {
    return this.ticks * tick_s
  }

  /** As fast as it goes the way its driver faces. */
  private get forward_mps(): number {
    return this.truck.faces * this.motion.speed_mps
  }

  /** What is to be picked next; null: nothing more. */
  get nextPick(): Pick | null {
    return this.course.picks[this.picked] ?? null
  }

  /** The middle of the load on the ground. */
  get load(): Point {
    const { load } = this.truck
    return onGround(this.motion.pose, { x_m: (load.rear_m + load.front_m) / 2, y_m: this.motion.shift_m })
  }

  /** The end that goes first; where it stands, the one before its driver. */
  private get leading(): Point {
    const { load, body } = this.truck
    const way = this.motion.speed_mps || this.truck.faces
    return onGround(this.motion.pose, { x_m: way < 0 ? body.rear_m : load.front_m, y_m: 0 })
  }

  tick(acts: DriverActs): void {
    if (this.over) return
    const { motion } = this
    const on = this.underfoot
    this.brakeAt = acts.brake ? (this.brakeAt ?? this.ticks) : null
    this.keyAt = acts.key ? (this.keyAt ?? this.ticks) : null
    // Without its key nothing goes up or leans any more, and it brakes by itself.
    const dead = acts.key ? { forks: 0, tilt: 0, shift: 0 } : {}
    motion.tick({ ...acts, ...dead }, on, acts.stop || acts.brake || acts.key)
    this.hold(this.horns, acts.horn)
    // Eyes back while it goes forwards are no look behind it.
    this.hold(this.looks, acts.look && this.forward_mps < rolls_mps)
    if (this.ticks % keptEvery_ticks === 0) this.track.push({ ...motion.pose })
    this.ticks += 1
    this.walk(acts.horn)
    this.countRoom()
    this.countWay(on.slope !== null)
    this.pick()
    this.countPeople()
    this.end()
  }

  private hold(held: Held[], now: boolean) {
    if (!now) return
    const last = held.at(-1)
    if (last?.[1] === this.ticks) held[held.length - 1] = [last[0], this.ticks + 1]
    else held.push([this.ticks, this.ticks + 1])
  }

  /** What its front axle stands on. */
  get underfoot(): Underfoot {
    const { ramp, friction } = this.course
    const { x_m, y_m } = this.motion.pose
    if (!ramp) return { slope: null, friction }
    const [x0, x1, y0, y1] = ramp.box
    const on = x_m >= x0 && x_m <= x1 && y_m >= y0 && y_m <= y1
    return { slope: on ? ramp.slope : null, friction }
  }

  private get rolls(): boolean {
    return Math.abs(this.motion.speed_mps) > rolls_mps
  }

  private walk(horn: boolean) {
    const leads_m = alongWay(this.course.way, this.leading)
    for (const w of this.walkers) {
      const { crossing, walked_m } = w
      const before_m = crossing.at_m - leads_m
      if (walked_m === null) {
        if (before_m > this.setsOut_m) continue
        w.walked_m = 0
        this.people ??= 'kept'
      }
      if (horn && this.isHeard(w)) w.heardAt = this.ticks
      const all_m = distance(crossing.from, crossing.to)
      if (this.waits(w, before_m)) continue
      const on_m = Math.min(all_m, (w.walked_m ?? 0) + crossing.speed_mps * tick_s)
      const t = on_m / all_m
      const at = {
        x_m: crossing.from.x_m + t * (crossing.to.x_m - crossing.from.x_m),
        y_m: crossing.from.y_m + t * (crossing.to.y_m - crossing.from.y_m),
      }
      // Nobody walks into a truck that stands there.
      if (!this.rolls && besideTruck(this.truck, this.motion, at) < near_m.stand) continue
      w.walked_m = on_m
      w.at = at
    }
  }

  /** Near, in sight, and minded. */
  private isHeard({ crossing: { minds, hears }, at }: Walker): boolean {
    const { pose } = this.motion
    return minds === 'hears' && hears && distance(at, pose) <= hears_m && inSight(at, pose, this.course.walls)
  }

  /** At the edge of the lane: whoever looks waits for a truck that moves, whoever heard it for a while. */
  private waits(w: Walker, before_m: number): boolean {
    const { minds } = w.crossing
    const walked_m = w.walked_m ?? 0
    if (walked_m < kerb_m.from || walked_m > kerb_m.until) return false
    const comes = before_m < this.setsOut_m && before_m > -this.long_m - 1
    if (minds === 'looks') return comes && this.rolls
    return minds === 'hears' && w.heardAt !== null && comes && this.ticks - w.heardAt < ticksOf(hearsFor_s)
  }

  private countRoom() {
    const { motion, counted } = this
    let tight = false
    for (const edge of truckEdges) {
      const share = motion.room[edge] / Math.max(1e-6, motion.roomAtRest[edge])
      if (share < this.least.share) this.least = { edge, share }
      if (share < leastRoom_share) tight = true
    }
    if (tight) counted.tight += 1
    if (motion.lean.edge !== null) counted.lifted = true
  }

  private countWay(ramp: boolean) {
    const { motion, counted, course, truck } = this
    const [v, step_m] = [motion.speed_mps, Math.abs(motion.speed_mps) * tick_s]
    this.moved_m += step_m
    if (Math.abs(v) > moving_mps) {
      if (!this.atTravelHeight) counted.high += 1
      if (motion.tilt_deg < 1) counted.unleant += 1
      if (Math.abs(motion.shift_m) > centred_m) counted.aside += 1
    }
    const at_m = alongWay(course.way, motion.pose)
    const inLane = at_m > course.yard_m && at_m < wayLength(course.way) - 1.2 * this.long_m
    if (truck.tall && inLane && v > 0.05) counted.blind_m += step_m
    if (ramp) {
      counted.ramped = true
      if (motion.pitch_rad < 0) counted.downhill_m += step_m
      if (Math.abs(motion.steer_rad) > 15 * rad && Math.abs(v) > 0.1) counted.turned += 1
    }
    if (this.cornered === null && this.leading.x_m >= course.corner_m) this.cornered = this.ticks
    if (this.through === null && course.door && this.leading.x_m >= course.yard_m) this.through = this.ticks
    const ahead = this.forward_mps
    if (ahead < -0.1 && !this.reversing) this.reversals.push(this.ticks)
    if (ahead < -0.1) this.reversing = true
    else if (ahead >= -0.02) this.reversing = false
  }

  /** Just off the ground; of a platform low enough that it may go as fast as it can. */
  private get atTravelHeight(): boolean {
    const { height_m } = this.motion
    const { platform } = this.truck.driving
    if (platform) return height_m <= platform.above_m
    return height_m <= usualTravelFork_m + 1e-9 && height_m >= 0.02
  }

  /** Whether it is at the mark of what is picked next. */
  get isBesidePick(): boolean {
    const next = this.nextPick
    return next !== null && distance(this.motion.pose, next.at) <= picked_m.along
  }

  /** Whether it stands where the next is picked, its platform at its shelf. */
  get standsAtPick(): boolean {
    const { speed_mps, height_m } = this.motion
    if (!this.isBesidePick || Math.abs(speed_mps) >= 0.02) return false
    return Math.abs(height_m - (this.nextPick?.height_m ?? 0)) <= picked_m.high
  }

  private pick() {
    this.picking = this.standsAtPick ? this.picking + 1 : 0
    if (this.picking < ticksOf(picks_s)) return
    this.picking = 0
    this.picked += 1
  }

  private countPeople() {
    const { motion, truck } = this
    for (const w of this.walkers) {
      const all_m = distance(w.crossing.from, w.crossing.to)
      const walking = w.walked_m !== null && w.walked_m > kerb_m.until && w.walked_m < all_m - kerb_m.until
      if (!walking) continue
      const away = besideTruck(truck, motion, w.at)
      if (!this.rolls) continue
      if (away < near_m.struck) this.stopped ??= 'struck'
      if (away < near_m.tooNear && Math.abs(motion.speed_mps) > moving_mps) this.people = 'missed'
      else if (this.inCarpet(w.at)) this.people = worseMark(this.people ?? 'kept', 'late')
    }
  }

  /** How far it goes until it stands, if it brakes once somebody is seen; null: it will not stop here. */
  stopping_m(): number | null {
    const { motion, truck, course } = this
    const uphill_rad = motion.pitch_rad * (Math.sign(motion.speed_mps) || 1)
    const { share } = tractionOf(truck.truck, motion.balance, { pitch_rad: motion.pitch_rad, braking_mps2: 0 })
    return stoppingDistance({
      speed_mps: Math.abs(motion.speed_mps),
      reaction_s,
      braking_mps2: truck.travel.down,
      uphill_rad,
      grip_mps2: course.friction * g_mps2 * Math.max(0, share),
    })
  }

  /** Whether somebody stands in what is driven over until it stands, the wheel held as it is. */
  private inCarpet(p: Point): boolean {
    const { motion, truck } = this
    const long_m = this.stopping_m() ?? 30
    if (distance(p, motion.pose) > long_m + this.long_m + 2) return false
    const way = Math.sign(motion.speed_mps)
    const going = { ...motion.going, speed_mps: way }
    let pose = motion.pose
    for (let run = 0; run <= long_m; run += 0.4) {
      if (besideTruck(truck, { pose, shift_m: motion.shift_m }, p) < near_m.struck) return true
      pose = drivenOn(pose, truck.chassis.wheelbase_m, going, going, 0.4)
    }
    return false
  }

  private end() {
    const { motion, course } = this
    if (motion.over) this.stopped ??= 'tipped'
    if (touches(this.truck, motion, course.walls)) this.stopped ??= 'touched'
    const set =
      motion.height_m <= 0.01 && Math.abs(motion.speed_mps) < 0.02 && distance(this.load, course.bay) <= course.bay.ring_m
    this.down = set ? this.down + 1 : 0
    const left = this.brakeAt !== null && this.keyAt !== null
    if (this.isSetDown && (left || this.down >= ticksOf(leaves_s)) && !this.stopped) this.finished = true
    if (this.time_s > longest_times * this.steady_s && !this.finished) this.stopped ??= 'too-long'
  }

  /** Its load stands in its place: what is left to do is to leave the truck. */
  get isSetDown(): boolean {
    return this.down >= ticksOf(stands_s) && this.moved_m > 1
  }

  /** What was asked of the driver and how it was done; what never came up is left out. */
  rules(): { rule: DriveRule; mark: RuleMark }[] {
    const { counted: c, course, truck } = this
    const s = (n: number) => n * tick_s
    const turned = byAmount(s(c.turned), 0.5, 1.5)
    const all: Record<DriveRule, RuleMark | null> = {
      people: this.people,
      'edge-room': c.lifted ? 'missed' : byAmount(s(c.tight), 0.5, 1.5),
      'load-uphill': c.ramped && course.ramp ? worseMark(byAmount(c.downhill_m, 0.2, 0.6), turned) : null,
      'view-blocked': course.tall ? byAmount(c.blind_m, 0.5, 2) : null,
      'corner-horn': hornBefore(this.horns, this.cornered),
      'door-horn': hornBefore(this.horns, this.through),
      'look-back': this.reversals.reduce<RuleMark | null>((a, t) => worseMark(a ?? 'kept', lookedBack(this.looks, t)), null),
      'travel-height': byAmount(s(c.high), 0.5, 2),
      'mast-back': truck.driving.tilt_deg_s ? byAmount(s(c.unleant), 0.5, 2) : null,
      'shift-centred': truck.driving.shift ? byAmount(s(c.aside), 0.5, 2) : null,
      picking: course.picks.length > 0 ? (this.nextPick ? 'missed' : 'kept') : null,
      leaving: this.finished
        ? leftWell({ brake: this.brakeAt, key: this.keyAt, upright: this.motion.tilt_deg <= flat_deg })
        : null,
    }
    return driveRules.flatMap((rule) => {
      const mark = all[rule]
      return mark === null ? [] : [{ rule, mark }]
    })
  }
}
