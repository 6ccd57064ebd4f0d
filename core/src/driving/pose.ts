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

/** How both change while its speed changes by so much a second and its wheels turn so fast. */
export function changing(
  { speed_mps: v, steer_rad: d, axle }: TruckGoing,
  by: { speed_mps2: number; steer_rad_s: number },
  wheelbase_m: number,
): { along_mps2: number; yaw_rad_s2: number } {
  const [a, turning] = [by.speed_mps2, by.steer_rad_s]
  if (axle === 'rear')
    return {
      along_mps2: a * Math.cos(d) - v * Math.sin(d) * turning,
      yaw_rad_s2: -(a * Math.sin(d) + v * Math.cos(d) * turning) / wheelbase_m,
    }
  return { along_mps2: a, yaw_rad_s2: -(a * Math.tan(d) + (v * turning) / Math.cos(d) ** 2) / wheelbase_m }
}

/**
 * Where it is after so long, speed and steering changing evenly from what they are to what they become: classical Runge–Kutta of order four.
 *
 * @param seconds as long as the change takes
 * @returns the pose then
 * @example let p = { x_m: 0, y_m: 0, heading_rad: 0 }; p = drivenOn(p, 1.6, straight, straight, 2) // x 3 m at 1.5 m/s
 */
export function drivenOn(at: TruckPose, wheelbase_m: number, before: TruckGoing, then: TruckGoing, seconds: number): TruckPose {
  const half: TruckGoing = {
    speed_mps: (before.speed_mps + then.speed_mps) / 2,
    steer_rad: (before.steer_rad + then.steer_rad) / 2,
    ...(then.axle && { axle: then.axle }),
  }
  const [v0, v1, v2] = [alongOf(before), alongOf(half), alongOf(then)]
  // The heading first: what turns it does not depend on where it is, so Simpson's rule is Runge–Kutta's.
  const [w0, w1, w2] = [yawRate(before, wheelbase_m), yawRate(half, wheelbase_m), yawRate(then, wheelbase_m)]
  const [h0, h1, h2, h3] = [
    at.heading_rad,
    at.heading_rad + (w0 * seconds) / 2,
    at.heading_rad + (w1 * seconds) / 2,
    at.heading_rad + w1 * seconds,
  ]
  const sum = (of: (heading: number) => number) => (seconds / 6) * (v0 * of(h0) + 2 * v1 * of(h1) + 2 * v1 * of(h2) + v2 * of(h3))
  return {
    x_m: at.x_m + sum(Math.cos),
    y_m: at.y_m + sum(Math.sin),
    heading_rad: at.heading_rad + (seconds / 6) * (w0 + 4 * w1 + w2),
  }
}
