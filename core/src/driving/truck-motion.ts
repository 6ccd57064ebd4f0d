import { g_mps2 } from '../physics'
import { tick_s } from '../swing/axis'
import { type Balance, brakedShare } from '../truck/balance'
import { insideSides, pressesAt, type TruckStands } from '../truck/stability-triangle'
import { type DrivenTruck, outwardOf, overEdge, type TruckEdge } from './driven-truck'
import { alongOf, type Changing, changing, type DrivenAxle, drivenOn, type TruckPose, yawRate } from './pose'
import { type Slope, standingOn } from './slope'
import { isOver, type Leaning, leaningOn } from './tipping'

/** Room to each edge, metres; negative: a wheel lifts. */
export type EdgeRoom = Record<TruckEdge, number>

/** What the driver does: each −1 to 1. */
export interface DriverSays {
  /** Forward. */
  travel: number
  /** Left. */
  steer: number
  /** Up. */
  forks: number
  /** Back. */
  tilt: number
  /** The carriage to the left. */
  shift: number
}

/** What it drives on. */
export interface Underfoot {
  slope: Slope | null
  friction: number
}

const clamp = (v: number, low: number, high: number) => Math.max(low, Math.min(high, v))
const upright: Leaning = { angle_rad: 0, rate_rad_s: 0 }
const noShift = { most_m: 0, mps: 0 }

/** How it goes, written over. */
interface Going {
  speed_mps: number
  steer_rad: number
  axle: DrivenAxle
}

const noRoom = (): EdgeRoom => ({ front: 0, left: 0, right: 0 })

/**
 * A truck under its driver, a hundred and twenty ticks a second; everything follows from what was said at each. Its states are written over: a tick in
 * which no wheel lifts and no fork moves makes nothing new.
 */
export class TruckMotion {
  readonly pose: TruckPose
  /** Speed of its driven axle, forks first, and its rear wheels to the left. */
  readonly going: Going
  height_m = 0
  tilt_deg = 0
  /** Of the carriage, to the left. */
  shift_m: number
  /** How it stands, and what its centre of gravity feels: to the left, and towards its nose while braking. */
  readonly stands: TruckStands = { pitch_rad: 0, roll_rad: 0, lateral_mps2: 0, braking_mps2: 0 }
  balance: Balance
  readonly room: EdgeRoom = noRoom()
  /** Room with everything at rest on level ground, the forks as they are. */
  readonly roomAtRest: EdgeRoom = noRoom()
  /** Turning over an edge, as long as it does. */
  lean: Leaning & { edge: TruckEdge | null } = { ...upright, edge: null }
  over = false
  /** Of the last tick. */
  acceleration_mps2 = 0
  /** Where its weight presses on the ground between its wheels, in its own frame. */
  readonly presses = { x_m: 0, y_m: 0 }
  private readonly waiting: number[]
  private next = 0
  private readonly before: Going
  private readonly sides = { left_m: 0, right_m: 0 }
  private readonly change: Changing = { along_mps2: 0, yaw_rad_s2: 0 }
  private readonly braking = { pitch_rad: 0, braking_mps2: 0 }

  constructor(
    readonly truck: DrivenTruck,
    at: TruckPose,
    shift_m = 0,
  ) {
    this.pose = { ...at }
    this.going = { speed_mps: 0, steer_rad: 0, axle: truck.axle }
    this.before = { ...this.going }
    this.shift_m = shift_m
    this.balance = truck.balance({ height_m: 0, tilt_deg: 0, shift_m })
    this.waiting = Array.from({ length: Math.round(truck.travel.dead_s / tick_s) }, () => 0)
    this.roomOf(this.balance, this.roomAtRest)
    Object.assign(this.room, this.roomAtRest)
    Object.assign(this.presses, { x_m: this.balance.x_m, y_m: this.balance.y_m })
  }

  get speed_mps(): number {
    return this.going.speed_mps
  }

  get steer_rad(): number {
    return this.going.steer_rad
  }

  get pitch_rad(): number {
    return this.stands.pitch_rad
  }

  get roll_rad(): number {
    return this.stands.roll_rad
  }

  /** As it stands now, to be driven on from here without what comes of it. */
  copy(): TruckMotion {
    const twin = new TruckMotion(this.truck, this.pose, this.shift_m)
    const { height_m, tilt_deg, acceleration_mps2, balance, next } = this
    Object.assign(twin, { height_m, tilt_deg, acceleration_mps2, balance, next })
    Object.assign(twin.going, this.going)
    Object.assign(twin.stands, this.stands)
    Object.assign(twin.room, this.room)
    Object.assign(twin.roomAtRest, this.roomAtRest)
    for (const [i, u] of this.waiting.entries()) twin.waiting[i] = u
    return twin
  }

  /** Room where its weight presses there; the give of mast and tyres counts towards the front. */
  private roomOf(at: { x_m: number; y_m: number }, to: EdgeRoom): void {
    const { balance: b, truck, sides } = this
    insideSides(truck.triangle, at, sides)
    to.front = -(at.x_m + b.xFront_m - b.x_m)
    to.left = sides.left_m
    to.right = sides.right_m
  }

  /** What the pedal says after its dead time. */
  private through(said: number): number {
    const before = this.waiting[this.next]
    if (before === undefined) return said
    this.waiting[this.next] = said
    this.next = (this.next + 1) % this.waiting.length
    return before
  }

  /** What the slope takes along the way of what drives it. */
  private get uphill_mps2(): number {
    const along = g_mps2 * Math.sin(this.pitch_rad)
    if (this.truck.axle === 'front') return along
    return along * Math.cos(this.steer_rad) + g_mps2 * Math.sin(this.roll_rad) * Math.sin(this.steer_rad)
  }

  /** As fast as it goes with its platform where it is. */
  private get greatest_mps(): number {
    const { travel, driving } = this.truck
    const { platform } = driving
    if (!platform || this.height_m <= platform.above_m) return travel.greatest
    return this.height_m > platform.most_m ? 0 : Math.min(travel.greatest, platform.slow_mps)
  }

  /** What drive or brake does along the way, as far as the tyres hold; what the slope takes is not in it yet. */
  private driven(wanted_mps: number, friction: number, stopping: boolean): number {
    const { travel, truck } = this.truck
    const uphill = this.uphill_mps2
    const turning = this.speed_mps !== 0 && Math.sign(wanted_mps) !== Math.sign(this.speed_mps)
    const asked = ((turning ? 0 : wanted_mps) - this.speed_mps) / tick_s + uphill
    const way = Math.sign(this.speed_mps) || Math.sign(wanted_mps)
    const brakes = stopping ? (travel.stop ?? travel.down) : travel.down
    const most = asked * way > 0 ? travel.up : brakes
    this.braking.pitch_rad = this.pitch_rad
    this.braking.braking_mps2 = -this.acceleration_mps2
    const grip = friction * g_mps2 * Math.max(0, brakedShare(truck, this.balance, this.braking))
    return clamp(asked, -Math.min(most, grip), Math.min(most, grip))
  }

  /** One tick on. */
  tick(says: DriverSays, on: Underfoot, stopping = false): void {
    const { truck, going, before, pose } = this
    before.speed_mps = going.speed_mps
    before.steer_rad = going.steer_rad
    const steer_rad = clamp(
      before.steer_rad - truck.faces * clamp(says.steer, -1, 1) * truck.steer_rad_s * tick_s,
      -truck.steer_rad,
      truck.steer_rad,
    )
    const said = this.through(stopping ? 0 : clamp(says.travel, -1, 1))
    this.standOn(on)
    const wanted_mps = stopping ? 0 : truck.faces * clamp(said * truck.travel.greatest, -this.greatest_mps, this.greatest_mps)
    const along = this.driven(wanted_mps, on.friction, stopping) - this.uphill_mps2
    const speed_mps = before.speed_mps + along * tick_s
    // Through nought it stands for a tick.
    const turns = before.speed_mps !== 0 && Math.sign(speed_mps) !== Math.sign(before.speed_mps)
    going.speed_mps = turns ? 0 : speed_mps
    going.steer_rad = steer_rad
    this.acceleration_mps2 = (going.speed_mps - before.speed_mps) / tick_s
    drivenOn(pose, truck.chassis.wheelbase_m, before, going, tick_s, pose)
    this.moveForks(says)
    this.standOn(on)
    this.feel((steer_rad - before.steer_rad) / tick_s)
    this.topple()
  }

  private standOn({ slope }: Underfoot) {
    const { stands, pose } = this
    if (slope) standingOn(slope, pose.heading_rad, stands)
    else stands.pitch_rad = stands.roll_rad = 0
  }

  private moveForks({ forks, tilt, shift }: DriverSays) {
    const { driving, chassis, tilt_deg } = this.truck
    const height = this.height_m
    const lean = this.tilt_deg
    const aside = this.shift_m
    this.height_m = clamp(height + clamp(forks, -1, 1) * driving.forks_mps * tick_s, 0, chassis.greatestHeight_m)
    this.tilt_deg = clamp(lean + clamp(tilt, -1, 1) * (driving.tilt_deg_s ?? 0) * tick_s, -tilt_deg.forward, tilt_deg.back)
    const { most_m, mps } = driving.shift ?? noShift
    this.shift_m = clamp(aside + clamp(shift, -1, 1) * mps * tick_s, -most_m, most_m)
    if (this.height_m === height && this.tilt_deg === lean && this.shift_m === aside) return
    this.balance = this.truck.balance(this)
    this.roomOf(this.balance, this.roomAtRest)
  }

  /** What the centre of gravity feels, which is not where the front axle is. */
  private feel(steer_rad_s: number) {
    const { wheelbase_m } = this.truck.chassis
    const { balance: b, going, change, stands } = this
    const yaw = yawRate(going, wheelbase_m)
    changing(going, this.acceleration_mps2, steer_rad_s, wheelbase_m, change)
    stands.lateral_mps2 = alongOf(going) * yaw + change.yaw_rad_s2 * b.x_m - yaw * yaw * b.y_m
    stands.braking_mps2 = -change.along_mps2 + yaw * yaw * b.x_m + change.yaw_rad_s2 * b.y_m
    pressesAt(b, stands, this.presses)
    this.roomOf(this.presses, this.room)
  }

  private get nearestEdge(): TruckEdge {
    const { front, left, right } = this.room
    if (front <= left && front <= right) return 'front'
    return left <= right ? 'left' : 'right'
  }

  /** A wheel that lifts comes down again, or the truck goes over. */
  private topple() {
    const nearest = this.nearestEdge
    const edge = this.lean.edge ?? (this.room[nearest] < 0 ? nearest : null)
    if (!edge) return
    const { stands } = this
    const [nx, ny] = outwardOf(this.truck, edge)
    const outward =
      nx * (stands.braking_mps2 - g_mps2 * Math.sin(this.pitch_rad)) +
      ny * (-stands.lateral_mps2 - g_mps2 * Math.sin(this.roll_rad))
    const on = overEdge(this.truck, this.balance, edge)
    const leaning = leaningOn(on, this.lean, outward, tick_s)
    this.over ||= isOver(on, leaning)
    this.lean = { ...leaning, edge: leaning.angle_rad > 0 ? edge : null }
  }
}
