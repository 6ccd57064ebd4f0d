import { g_mps2 } from '../physics'
import { tick_s } from '../swing/axis'
import { type Balance, type Traction, tractionOf } from '../truck/balance'
import { insideSides, pressesAt, type TruckStands } from '../truck/stability-triangle'
import { type DrivenTruck, outwardOf, overEdge, type TruckEdge } from './driven-truck'
import { type Changing, changing, Going, Pose, type TruckPose, type Turning, turningOf, Way } from './pose'
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

const upright: Leaning = { angle_rad: 0, rate_rad_s: 0 }
const noShift = { most_m: 0, mps: 0 }

// What a tick writes to, each of a class of its own, as `Motion` is of a load.
class Room implements EdgeRoom {
  front = Number.NaN
  left = Number.NaN
  right = Number.NaN
}
class Spot {
  x_m = Number.NaN
  y_m = Number.NaN
}
class Stands implements TruckStands {
  pitch_rad = Number.NaN
  roll_rad = Number.NaN
  lateral_mps2 = Number.NaN
  braking_mps2 = Number.NaN
}
/** What one part of a tick hands another. */
class Between implements Traction, Turning, Changing {
  /** What its pedal asks for. */
  wanted_mps = Number.NaN
  pitch_rad = Number.NaN
  braking_mps2 = Number.NaN
  needed = Number.NaN
  share = Number.NaN
  /** How its speed and its wheels change. */
  speed_mps2 = Number.NaN
  steer_rad_s = Number.NaN
  along_mps = Number.NaN
  yaw_rad_s = Number.NaN
  along_mps2 = Number.NaN
  yaw_rad_s2 = Number.NaN
  left_m = Number.NaN
  right_m = Number.NaN
}

/**
 * A truck under its driver, a hundred and twenty ticks a second; everything follows from what was said at each. Its states are written over, and what
 * one part of a tick hands another lies in them: a tick in which no wheel lifts makes nothing new, not so much as a number.
 */
export class TruckMotion {
  readonly pose: Pose
  /** Speed of its driven axle, forks first, and its rear wheels to the left. */
  readonly going: Going
  height_m = Number.NaN
  tilt_deg = Number.NaN
  /** Of the carriage, to the left. */
  shift_m = Number.NaN
  /** How it stands, and what its centre of gravity feels: to the left, and towards its nose while braking. */
  readonly stands: TruckStands = Object.assign(new Stands(), { pitch_rad: 0, roll_rad: 0, lateral_mps2: 0, braking_mps2: 0 })
  readonly balance: Balance
  readonly room: EdgeRoom = new Room()
  /** Room with everything at rest on level ground, the forks as they are. */
  readonly roomAtRest: EdgeRoom = new Room()
  /** Turning over an edge, as long as it does. */
  lean: Leaning & { edge: TruckEdge | null } = { ...upright, edge: null }
  over = false
  /** Of the last tick. */
  acceleration_mps2 = Number.NaN
  /** Where its weight presses on the ground between its wheels, in its own frame. */
  readonly presses = new Spot()
  private readonly waiting: Float64Array
  private next = 0
  private readonly before: Going
  private readonly between = new Between()
  private readonly way: Way

  constructor(
    readonly truck: DrivenTruck,
    at: TruckPose,
    shift_m = 0,
  ) {
    this.pose = new Pose(at)
    this.going = new Going(truck.axle)
    this.before = new Going(truck.axle)
    this.height_m = this.tilt_deg = this.acceleration_mps2 = 0
    this.shift_m = shift_m
    this.balance = truck.balance({ height_m: 0, tilt_deg: 0, shift_m })
    this.waiting = new Float64Array(Math.round(truck.travel.dead_s / tick_s))
    this.way = new Way(truck.chassis, truck.axle)
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
    const { height_m, tilt_deg, acceleration_mps2, next } = this
    Object.assign(twin, { height_m, tilt_deg, acceleration_mps2, next })
    Object.assign(twin.balance, this.balance)
    Object.assign(twin.going, this.going)
    Object.assign(twin.stands, this.stands)
    Object.assign(twin.room, this.room)
    Object.assign(twin.roomAtRest, this.roomAtRest)
    twin.waiting.set(this.waiting)
    return twin
  }

  /** Room where its weight presses there; the give of mast and tyres counts towards the front. */
  private roomOf(at: { x_m: number; y_m: number }, to: EdgeRoom): void {
    const { balance: b, truck, between } = this
    insideSides(truck.triangle, at, between)
    to.front = -(at.x_m + b.xFront_m - b.x_m)
    to.left = between.left_m
    to.right = between.right_m
  }

  /** What the pedal asks for after its dead time, no faster than its platform lets it go. */
  private want({ travel }: DriverSays, stopping: boolean): void {
    const { truck, waiting } = this
    let said = stopping ? 0 : Math.max(-1, Math.min(1, travel))
    if (waiting.length > 0) {
      const before = waiting[this.next] ?? 0
      waiting[this.next] = said
      this.next = (this.next + 1) % waiting.length
      said = before
    }
    const { platform } = truck.driving
    let most = truck.travel.greatest
    if (platform && this.height_m > platform.above_m)
      most = this.height_m > platform.most_m ? 0 : Math.min(most, platform.slow_mps)
    this.between.wanted_mps = stopping ? 0 : truck.faces * Math.max(-most, Math.min(most, said * truck.travel.greatest))
  }

  /** Drive or brake along its way, as far as the tyres hold, less what the slope takes; through nought it stands for a tick. */
  private drive({ friction }: Underfoot, stopping: boolean): void {
    const { balance, before, going, between, stands } = this
    const { wanted_mps } = between
    const { travel, truck, axle } = this.truck
    const { speed_mps: speed, steer_rad: steer } = before
    const climbs = g_mps2 * Math.sin(stands.pitch_rad)
    const aside = g_mps2 * Math.sin(stands.roll_rad)
    const uphill = axle === 'front' ? climbs : climbs * Math.cos(steer) + aside * Math.sin(steer)
    const turning = speed !== 0 && Math.sign(wanted_mps) !== Math.sign(speed)
    const asked = ((turning ? 0 : wanted_mps) - speed) / tick_s + uphill
    const way = speed === 0 ? wanted_mps : speed
    const brakes = stopping ? travel.stop : travel.down
    between.pitch_rad = stands.pitch_rad
    between.braking_mps2 = -this.acceleration_mps2
    tractionOf(truck, balance, between, between)
    const most = Math.min(asked * way > 0 ? travel.up : brakes, friction * g_mps2 * Math.max(0, between.share))
    const then = speed + (Math.max(-most, Math.min(most, asked)) - uphill) * tick_s
    going.speed_mps = speed !== 0 && Math.sign(then) !== Math.sign(speed) ? 0 : then
    between.speed_mps2 = (going.speed_mps - speed) / tick_s
    this.acceleration_mps2 = between.speed_mps2
  }

  /** One tick on. */
  tick(says: DriverSays, on: Underfoot, stopping = false): void {
    const { truck, going, before, pose, between } = this
    before.speed_mps = going.speed_mps
    before.steer_rad = going.steer_rad
    this.standOn(on)
    this.want(says, stopping)
    this.drive(on, stopping)
    const turned = before.steer_rad - truck.faces * Math.max(-1, Math.min(1, says.steer)) * truck.steer_rad_s * tick_s
    going.steer_rad = Math.max(-truck.steer_rad, Math.min(truck.steer_rad, turned))
    between.steer_rad_s = (going.steer_rad - before.steer_rad) / tick_s
    this.way.on(pose, before, going, tick_s, pose)
    this.moveForks(says)
    this.standOn(on)
    this.feel()
    this.topple()
  }

  private standOn({ slope }: Underfoot) {
    const { stands, pose } = this
    if (slope) standingOn(slope, pose, stands)
    else stands.pitch_rad = stands.roll_rad = 0
  }

  private moveForks({ forks, tilt, shift }: DriverSays) {
    const { driving, chassis, tilt_deg } = this.truck
    const height = this.height_m
    const lean = this.tilt_deg
    const aside = this.shift_m
    const up = height + Math.max(-1, Math.min(1, forks)) * driving.forks_mps * tick_s
    const back = lean + Math.max(-1, Math.min(1, tilt)) * (driving.tilt_deg_s ?? 0) * tick_s
    this.height_m = Math.max(0, Math.min(chassis.greatestHeight_m, up))
    this.tilt_deg = Math.max(-tilt_deg.forward, Math.min(tilt_deg.back, back))
    const { most_m, mps } = driving.shift ?? noShift
    this.shift_m = Math.max(-most_m, Math.min(most_m, aside + Math.max(-1, Math.min(1, shift)) * mps * tick_s))
    if (this.height_m === height && this.tilt_deg === lean && this.shift_m === aside) return
    this.truck.balance(this, this.balance)
    this.roomOf(this.balance, this.roomAtRest)
  }

  /** What the centre of gravity feels, which is not where the front axle is. */
  private feel() {
    const { chassis } = this.truck
    const { balance: b, going, stands, between } = this
    turningOf(going, chassis, between)
    changing(going, between, chassis, between)
    const { along_mps, along_mps2, yaw_rad_s: yaw, yaw_rad_s2 } = between
    stands.lateral_mps2 = along_mps * yaw + yaw_rad_s2 * b.x_m - yaw * yaw * b.y_m
    stands.braking_mps2 = -along_mps2 + yaw * yaw * b.x_m + yaw_rad_s2 * b.y_m
    pressesAt(b, stands, this.presses)
    this.roomOf(this.presses, this.room)
  }

  /** The edge over which a wheel lifts; null: none does. */
  private get liftsOver(): TruckEdge | null {
    const { front, left, right } = this.room
    if (front >= 0 && left >= 0 && right >= 0) return null
    if (front <= left && front <= right) return 'front'
    return left <= right ? 'left' : 'right'
  }

  /** A wheel that lifts comes down again, or the truck goes over. */
  private topple() {
    const edge = this.lean.edge ?? this.liftsOver
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
