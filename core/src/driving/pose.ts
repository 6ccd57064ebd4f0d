/** Where a truck stands: the middle of its front axle, metres; heading anticlockwise from x, radians. */
export interface TruckPose {
  x_m: number
  y_m: number
  heading_rad: number
}

/** One that is written over. Of its own class, as all that a tick writes to: an engine keeps the numbers of a class in their places. */
export class Pose implements TruckPose {
  x_m = Number.NaN
  y_m = Number.NaN
  heading_rad = Number.NaN
  constructor(at: TruckPose) {
    Object.assign(this, at)
  }
}

/** Which axle drives it: its front wheels, which keep straight, or the wheels that steer. */
export type DrivenAxle = 'front' | 'rear'

/** How it goes: the speed of the middle of its driven axle, forks first positive, and its rear wheels, to the left positive. */
export interface TruckGoing {
  speed_mps: number
  steer_rad: number
  /** Left out: its front wheels. */
  axle?: DrivenAxle
}

/** What it steers about. */
interface Wheels {
  wheelbase_m: number
}

/** How fast the middle of its front axle goes along the truck, and how fast that turns, anticlockwise. */
export class Turning {
  along_mps = Number.NaN
  yaw_rad_s = Number.NaN
}

/**
 * How a truck that steers with its rear wheels goes and turns, no side-slip: v and ψ̇ = −v·tan δ/wb; of a steered wheel that drives w·cos δ and
 * −w·sin δ/wb, up to a right angle.
 */
export function turningOf({ speed_mps, steer_rad, axle }: TruckGoing, { wheelbase_m }: Wheels, to = new Turning()): Turning {
  const byRear = axle === 'rear'
  to.along_mps = byRear ? speed_mps * Math.cos(steer_rad) : speed_mps
  to.yaw_rad_s = (-speed_mps * (byRear ? Math.sin(steer_rad) : Math.tan(steer_rad))) / wheelbase_m
  return to
}

/** How both change. */
export class Changing {
  along_mps2 = Number.NaN
  yaw_rad_s2 = Number.NaN
}

/** How it goes, written over; standing as it begins. */
export class Going implements TruckGoing {
  speed_mps = Number.NaN
  steer_rad = Number.NaN
  constructor(readonly axle: DrivenAxle) {
    this.speed_mps = this.steer_rad = 0
  }
}

/** How both change as speed and steering do: its speed by so much a second, its wheels by so much. */
export function changing(
  { speed_mps: v, steer_rad: d, axle }: TruckGoing,
  { speed_mps2, steer_rad_s }: { speed_mps2: number; steer_rad_s: number },
  { wheelbase_m }: Wheels,
  to = new Changing(),
): Changing {
  const s = Math.sin(d)
  const c = Math.cos(d)
  if (axle === 'rear') {
    to.along_mps2 = speed_mps2 * c - v * s * steer_rad_s
    to.yaw_rad_s2 = -(speed_mps2 * s + v * c * steer_rad_s) / wheelbase_m
  } else {
    to.along_mps2 = speed_mps2
    to.yaw_rad_s2 = -((speed_mps2 * s) / c + (v * steer_rad_s) / (c * c)) / wheelbase_m
  }
  return to
}

/**
 * Moves a truck on while its speed and steering change evenly from what they are to what they become: classical Runge–Kutta of order four. The heading
 * first: what turns it does not depend on where it is, so Simpson's rule is Runge–Kutta's.
 *
 * @example new Way(chassis, 'front').on(pose, before, then, tick_s, pose) // written over
 */
export class Way {
  private readonly middle: Going
  private readonly first = new Turning()
  private readonly half = new Turning()
  private readonly last = new Turning()

  constructor(
    private readonly wheels: Wheels,
    axle: DrivenAxle,
  ) {
    this.middle = new Going(axle)
  }

  /** @param seconds as long as the change takes; `to` may be where it was */
  on(at: TruckPose, before: TruckGoing, then: TruckGoing, seconds: number, to: TruckPose): TruckPose {
    const { middle, first, half, last, wheels } = this
    middle.speed_mps = (before.speed_mps + then.speed_mps) / 2
    middle.steer_rad = (before.steer_rad + then.steer_rad) / 2
    turningOf(before, wheels, first)
    turningOf(middle, wheels, half)
    turningOf(then, wheels, last)
    const v1 = half.along_mps
    const h0 = at.heading_rad
    const h1 = h0 + (first.yaw_rad_s * seconds) / 2
    const h2 = h0 + (half.yaw_rad_s * seconds) / 2
    const h3 = h0 + half.yaw_rad_s * seconds
    const part = seconds / 6
    const forward = first.along_mps
    const after = last.along_mps
    to.x_m = at.x_m + part * (forward * Math.cos(h0) + 2 * v1 * (Math.cos(h1) + Math.cos(h2)) + after * Math.cos(h3))
    to.y_m = at.y_m + part * (forward * Math.sin(h0) + 2 * v1 * (Math.sin(h1) + Math.sin(h2)) + after * Math.sin(h3))
    to.heading_rad = h0 + part * (first.yaw_rad_s + 4 * half.yaw_rad_s + last.yaw_rad_s)
    return to
  }
}

/**
 * Where a truck is after so long.
 *
 * @example let p = { x_m: 0, y_m: 0, heading_rad: 0 }; p = drivenOn(p, 1.6, straight, straight, 2) // x 3 m at 1.5 m/s
 */
export const drivenOn = (at: TruckPose, wheelbase_m: number, before: TruckGoing, then: TruckGoing, seconds: number): TruckPose =>
  new Way({ wheelbase_m }, then.axle ?? 'front').on(at, before, then, seconds, new Pose(at))
