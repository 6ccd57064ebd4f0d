/** Where a truck stands: the middle of its front axle, metres; heading anticlockwise from x, radians. */
export interface TruckPose {
  x_m: number
  y_m: number
  heading_rad: number
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

/** How fast the middle of its front axle goes, along the truck: v; of a steered wheel that drives w·cos δ. */
export const alongOf = ({ speed_mps, steer_rad, axle }: TruckGoing): number =>
  axle === 'rear' ? speed_mps * Math.cos(steer_rad) : speed_mps

/**
 * How fast a truck that steers with its rear wheels turns, anticlockwise, radians a second, no side-slip: ψ̇ = −v·tan δ/wb; of a steered wheel that
 * drives −w·sin δ/wb, up to a right angle.
 */
export const yawRate = ({ speed_mps, steer_rad, axle }: TruckGoing, wheelbase_m: number): number =>
  (-speed_mps * (axle === 'rear' ? Math.sin(steer_rad) : Math.tan(steer_rad))) / wheelbase_m

/** How both change. */
export interface Changing {
  along_mps2: number
  yaw_rad_s2: number
}

/** How both change while its speed changes by `speed_mps2` and its wheels turn by `steer_rad_s`. */
export function changing(
  { speed_mps: v, steer_rad: d, axle }: TruckGoing,
  speed_mps2: number,
  steer_rad_s: number,
  wheelbase_m: number,
  to: Changing = { along_mps2: 0, yaw_rad_s2: 0 },
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
 * Where it is after so long, speed and steering changing evenly from what they are to what they become: classical Runge–Kutta of order four. The heading
 * first: what turns it does not depend on where it is, so Simpson's rule is Runge–Kutta's.
 *
 * @param seconds as long as the change takes
 * @param to written over; may be where it was
 * @returns the pose then
 * @example let p = { x_m: 0, y_m: 0, heading_rad: 0 }; p = drivenOn(p, 1.6, straight, straight, 2) // x 3 m at 1.5 m/s
 */
export function drivenOn(
  at: TruckPose,
  wheelbase_m: number,
  before: TruckGoing,
  then: TruckGoing,
  seconds: number,
  to: TruckPose = { x_m: 0, y_m: 0, heading_rad: 0 },
): TruckPose {
  const half = {
    speed_mps: (before.speed_mps + then.speed_mps) / 2,
    steer_rad: (before.steer_rad + then.steer_rad) / 2,
    axle: then.axle ?? 'front',
  }
  const v0 = alongOf(before)
  const v1 = alongOf(half)
  const v2 = alongOf(then)
  const w0 = yawRate(before, wheelbase_m)
  const w1 = yawRate(half, wheelbase_m)
  const w2 = yawRate(then, wheelbase_m)
  const h0 = at.heading_rad
  const h1 = h0 + (w0 * seconds) / 2
  const h2 = h0 + (w1 * seconds) / 2
  const h3 = h0 + w1 * seconds
  const part = seconds / 6
  to.x_m = at.x_m + part * (v0 * Math.cos(h0) + 2 * v1 * (Math.cos(h1) + Math.cos(h2)) + v2 * Math.cos(h3))
  to.y_m = at.y_m + part * (v0 * Math.sin(h0) + 2 * v1 * (Math.sin(h1) + Math.sin(h2)) + v2 * Math.sin(h3))
  to.heading_rad = h0 + part * (w0 + 4 * w1 + w2)
  return to
}
