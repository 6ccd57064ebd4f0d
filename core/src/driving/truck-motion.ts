import { g_mps2 } from '../physics'
import { tick_s } from '../swing/axis'
import { type Balance, tractionOf } from '../truck/balance'
import { insideSides, pressesAt } from '../truck/stability-triangle'
import { type DrivenTruck, outwardOf, overEdge, type TruckEdge, truckEdges } from './driven-truck'
import { alongOf, changing, drivenOn, type TruckGoing, type TruckPose, yawRate } from './pose'
import { type Slope, standingOn } from './slope'
import { isOver, type Leaning, leaningOn } from './tipping'

/** Room to each edge, metres; negative: a wheel lifts. */
export type EdgeRoom = Readonly<Record<TruckEdge, number>>

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

/** A truck under its driver, a hundred and twenty ticks a second; everything follows from what was said at each. */
export class TruckMotion {
  pose: TruckPose
  /** Of its driven axle, forks first. */
  speed_mps = 0
  steer_rad = 0
  height_m = 0
  tilt_deg = 0
  /** Of the carriage, to the left. */
  shift_m: number
  pitch_rad = 0
  roll_rad = 0
  balance: Balance
  room: EdgeRoom
  /** Room with everything at rest on level ground, the forks as they are. */
  roomAtRest: EdgeRoom
  /** Turning over an edge, as long as it does. */
  lean: Leaning & { edge: TruckEdge | null } = { ...upright, edge: null }
  over = false
  /** Of the last tick. */
  acceleration_mps2 = 0
  /** What its centre of gravity feels: to the left, and towards its nose while braking. */
  felt = { lateral_mps2: 0, braking_mps2: 0 }
  /** Where its weight presses on the ground between its wheels, in its own frame. */
  presses: { x_m: number; y_m: number }
  private readonly waiting: number[]
  private next = 0

  constructor(
    readonly truck: DrivenTruck,
    at: TruckPose,
    shift_m = 0,
  ) {
    this.pose = at
    this.shift_m = shift_m
    this.balance = truck.balance({ height_m: 0, tilt_deg: 0, shift_m })
    this.roomAtRest = this.roomOf(this.balance)
    this.waiting = Array.from({ length: Math.round(truck.travel.dead_s / tick_s) }, () => 0)
    this.presses = this.balance
    this.room = this.roomAtRest
  }

  /** As it stands now, to be driven on from here without what comes of it. */
  copy(): TruckMotion {
    const twin = new TruckMotion(this.truck, this.pose, this.shift_m)
    const { speed_mps, steer_rad, height_m, tilt_deg, pitch_rad, roll_rad, acceleration_mps2, balance, room, roomAtRest, next } =
      this
    Object.assign(twin, {
      speed_mps,
      steer_rad,
      height_m,
      tilt_deg,
      pitch_rad,
      roll_rad,
      acceleration_mps2,
      balance,
      room,
      roomAtRest,
      next,
    })
    for (const [i, u] of this.waiting.entries()) twin.waiting[i] = u
    return twin
  }

  /** Room where its weight presses there; the give of mast and tyres counts towards the front. */
  private roomOf({ x_m, y_m }: { x_m: number; y_m: number }): EdgeRoom {
    const { balance: b, truck } = this
    const sides = insideSides(truck.triangle, { x_m, y_m })
    return { front: -(x_m + b.xFront_m - b.x_m), left: sides.left_m, right: sides.right_m }
  }

  /** What the pedal says after its dead time. */
  private through(said: number): number {
    const before = this.waiting[this.next]
    if (before === undefined) return said
    this.waiting[this.next] = said
    this.next = (this.next + 1) % this.waiting.length
    return before
  }

  /** How it goes now. */
  get going(): TruckGoing {
    return { speed_mps: this.speed_mps, steer_rad: this.steer_rad, axle: this.truck.axle }
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
    const { share } = tractionOf(truck, this.balance, { pitch_rad: this.pitch_rad, braking_mps2: -this.acceleration_mps2 })
    const grip = friction * g_mps2 * Math.max(0, share)
    return clamp(asked, -Math.min(most, grip), Math.min(most, grip))
  }

  /** One tick on. */
  tick(says: DriverSays, on: Underfoot, stopping = false): void {
    const { truck } = this
    const before = this.going
    const steer_rad = clamp(
      this.steer_rad - truck.faces * clamp(says.steer, -1, 1) * truck.steer_rad_s * tick_s,
      -truck.steer_rad,
      truck.steer_rad,
    )
    const said = this.through(stopping ? 0 : clamp(says.travel, -1, 1))
    this.standOn(on)
    const wanted_mps = stopping ? 0 : truck.faces * clamp(said * truck.travel.greatest, -this.greatest_mps, this.greatest_mps)
    const along = this.driven(wanted_mps, on.friction, stopping) - this.uphill_mps2
    let speed_mps = this.speed_mps + along * tick_s
    // Through nought it stands for a tick.
    if (this.speed_mps !== 0 && Math.sign(speed_mps) !== Math.sign(this.speed_mps)) speed_mps = 0
    this.acceleration_mps2 = (speed_mps - this.speed_mps) / tick_s
    this.pose = drivenOn(this.pose, truck.chassis.wheelbase_m, before, { speed_mps, steer_rad, axle: truck.axle }, tick_s)
    this.speed_mps = speed_mps
    const steer_rad_s = (steer_rad - this.steer_rad) / tick_s
    this.steer_rad = steer_rad
    this.moveForks(says)
    this.standOn(on)
    this.feel(steer_rad_s)
    this.topple()
  }

  private standOn({ slope }: Underfoot) {
    const { pitch_rad, roll_rad } = slope ? standingOn(slope, this.pose.heading_rad) : { pitch_rad: 0, roll_rad: 0 }
    this.pitch_rad = pitch_rad
    this.roll_rad = roll_rad
  }

  private moveForks({ forks, tilt, shift }: DriverSays) {
    const { driving, chassis, tilt_deg } = this.truck
    const [height, lean, aside] = [this.height_m, this.tilt_deg, this.shift_m]
    this.height_m = clamp(height + clamp(forks, -1, 1) * driving.forks_mps * tick_s, 0, chassis.greatestHeight_m)
    this.tilt_deg = clamp(lean + clamp(tilt, -1, 1) * (driving.tilt_deg_s ?? 0) * tick_s, -tilt_deg.forward, tilt_deg.back)
    const { most_m, mps } = driving.shift ?? { most_m: 0, mps: 0 }
    this.shift_m = clamp(aside + clamp(shift, -1, 1) * mps * tick_s, -most_m, most_m)
    if (this.height_m === height && this.tilt_deg === lean && this.shift_m === aside) return
    this.balance = this.truck.balance(this)
    this.roomAtRest = this.roomOf(this.balance)
  }

  /** What the centre of gravity feels, which is not where the front axle is. */
  private feel(steer_rad_s: number) {
    const { wheelbase_m } = this.truck.chassis
    const { balance: b, going } = this
    const yaw = yawRate(going, wheelbase_m)
    const change = changing(going, { speed_mps2: this.acceleration_mps2, steer_rad_s }, wheelbase_m)
    this.felt = {
      lateral_mps2: alongOf(going) * yaw + change.yaw_rad_s2 * b.x_m - yaw * yaw * b.y_m,
      braking_mps2: -change.along_mps2 + yaw * yaw * b.x_m + change.yaw_rad_s2 * b.y_m,
    }
    const { lateral_mps2, braking_mps2 } = this.felt
    this.presses = pressesAt(b, { pitch_rad: this.pitch_rad, roll_rad: this.roll_rad, lateral_mps2, braking_mps2 })
    this.room = this.roomOf(this.presses)
  }

  /** A wheel that lifts comes down again, or the truck goes over. */
  private topple() {
    const nearest = truckEdges.reduce<TruckEdge>((a, e) => (this.room[e] < this.room[a] ? e : a), 'front')
    const edge = this.lean.edge ?? (this.room[nearest] < 0 ? nearest : null)
    if (!edge) return
    const [nx, ny] = outwardOf(this.truck, edge)
    const outward =
      nx * (this.felt.braking_mps2 - g_mps2 * Math.sin(this.pitch_rad)) +
      ny * (-this.felt.lateral_mps2 - g_mps2 * Math.sin(this.roll_rad))
    const on = overEdge(this.truck, this.balance, edge)
    const leaning = leaningOn(on, this.lean, outward, tick_s)
    this.over ||= isOver(on, leaning)
    this.lean = { ...leaning, edge: leaning.angle_rad > 0 ? edge : null }
  }
}
