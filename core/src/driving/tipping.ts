import { g_mps2 } from '../physics'

/** What stands on an edge: its centre of gravity inside it and above it, metres, and how its mass is spread about that (gyration). */
export interface OverEdge {
  inside_m: number
  height_m: number
  gyration_m: number
}

/** How far it has turned about the edge, radians, and how fast. */
export interface Leaning {
  angle_rad: number
  rate_rad_s: number
}

/** Outward acceleration at which it begins to turn over, m/s². */
export const tipsAt_mps2 = ({ inside_m, height_m }: OverEdge): number => (g_mps2 * inside_m) / height_m

/** Once it leans so far it goes over by itself. */
const pointOfNoReturn = ({ inside_m, height_m }: OverEdge) => Math.atan2(inside_m, height_m)

export const isOver = (of: OverEdge, { angle_rad }: Leaning): boolean => angle_rad >= pointOfNoReturn(of)

function quickening({ inside_m: b, height_m: h, gyration_m: k }: OverEdge, angle: number, outward_mps2: number): number {
  const [c, s] = [Math.cos(angle), Math.sin(angle)]
  return (outward_mps2 * (h * c + b * s) - g_mps2 * (b * c - h * s)) / (b * b + h * h + k * k)
}

/**
 * Turning about an edge for so long under a steady outward acceleration, as one rigid piece; it comes down on its wheels again and stays there.
 * Runge–Kutta of order four. Tyres and mast do not give: a truck goes over sooner.
 *
 * @param outward_mps2 across the edge, away from the truck, what a slope adds included
 */
export function leaningOn(of: OverEdge, { angle_rad, rate_rad_s }: Leaning, outward_mps2: number, seconds: number): Leaning {
  const at = (angle: number) => quickening(of, angle, outward_mps2)
  const half = seconds / 2
  const [v1, a1] = [rate_rad_s, at(angle_rad)]
  const [v2, a2] = [rate_rad_s + half * a1, at(angle_rad + half * v1)]
  const [v3, a3] = [rate_rad_s + half * a2, at(angle_rad + half * v2)]
  const [v4, a4] = [rate_rad_s + seconds * a3, at(angle_rad + seconds * v3)]
  const angle = angle_rad + (seconds / 6) * (v1 + 2 * v2 + 2 * v3 + v4)
  const rate = rate_rad_s + (seconds / 6) * (a1 + 2 * a2 + 2 * a3 + a4)
  return angle <= 0 ? { angle_rad: 0, rate_rad_s: 0 } : { angle_rad: angle, rate_rad_s: rate }
}

/**
 * When it goes over under a steady outward acceleration.
 *
 * @returns seconds; null: not within `within_s`
 * @example overAfter({ inside_m: 0.28, height_m: 0.95, gyration_m: 0.7 }, 3.4, 10) // 1.001875
 */
export function overAfter(of: OverEdge, outward_mps2: number, within_s: number): number | null {
  const step_s = 1 / 960
  let now: Leaning = { angle_rad: 0, rate_rad_s: 0 }
  for (let i = 0; i * step_s < within_s; i++) {
    const then = leaningOn(of, now, outward_mps2, step_s)
    if (isOver(of, then)) {
      // Within this step: found by halving it.
      let [low, high] = [0, step_s]
      while (high - low > 1e-10) {
        const middle = (low + high) / 2
        if (isOver(of, leaningOn(of, now, outward_mps2, middle))) high = middle
        else low = middle
      }
      return i * step_s + high
    }
    if (then.angle_rad === 0 && outward_mps2 <= tipsAt_mps2(of)) return null
    now = then
  }
  return null
}
