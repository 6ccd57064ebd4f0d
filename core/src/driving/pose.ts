/** Where a truck stands: the middle of its front axle, metres; heading anticlockwise from x, radians. */
export interface TruckPose {
  x_m: number
  y_m: number
  heading_rad: number
}

/** How it goes: the speed of the middle of its front axle, forwards positive, and its rear wheels, to the left positive. */
export interface TruckGoing {
  speed_mps: number
  steer_rad: number
}

/** How fast a truck that steers with its rear wheels turns, anticlockwise, radians a second: ψ̇ = −v·tan δ/wb, no side-slip. */
export const yawRate = ({ speed_mps, steer_rad }: TruckGoing, wheelbase_m: number): number =>
  (-speed_mps * Math.tan(steer_rad)) / wheelbase_m

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
  }
  // The heading first: what turns it does not depend on where it is, so Simpson's rule is Runge–Kutta's.
  const [w0, w1, w2] = [yawRate(before, wheelbase_m), yawRate(half, wheelbase_m), yawRate(then, wheelbase_m)]
  const [h0, h1, h2, h3] = [
    at.heading_rad,
    at.heading_rad + (w0 * seconds) / 2,
    at.heading_rad + (w1 * seconds) / 2,
    at.heading_rad + w1 * seconds,
  ]
  const sum = (of: (heading: number) => number) =>
    (seconds / 6) *
    (before.speed_mps * of(h0) + 2 * half.speed_mps * of(h1) + 2 * half.speed_mps * of(h2) + then.speed_mps * of(h3))
  return {
    x_m: at.x_m + sum(Math.cos),
    y_m: at.y_m + sum(Math.sin),
    heading_rad: at.heading_rad + (seconds / 6) * (w0 + 4 * w1 + w2),
  }
}
