import { rad } from '../physics'
import type { Wind } from './pendulum'
import type { Written } from './vector'

/** A gust: the mean wind grows by so much and falls back, 1 − cos, over a length of time. */
export interface Gust {
  start_s: number
  /** Three to twelve seconds long. */
  length_s: number
  /** At its height, metres a second over the mean. */
  extra_mps: number
  /** It comes from another side by so much, degrees. */
  turn_deg: number
}

/**
 * Wind with gusts over the ground: a mean, and what each gust adds from its own side, half of its height times 1 − cos.
 *
 * @returns written over by the next time it is asked
 * @param mean_mps its mean speed, metres a second
 * @param towards_deg in plan, 0 along x, left positive
 * @example gusting(6, 0, [{ start_s: 0, length_s: 6, extra_mps: 5, turn_deg: 0 }])({ time_s: 3 }) // [11, 0, 0]
 */
export function gusting(mean_mps: number, towards_deg: number, gusts: readonly Gust[]): Wind {
  const mean = [mean_mps * Math.cos(towards_deg * rad), mean_mps * Math.sin(towards_deg * rad)] as const
  const at: Written = [...mean, 0]
  return ({ time_s }) => {
    at[0] = mean[0]
    at[1] = mean[1]
    for (const g of gusts) {
      const share = (time_s - g.start_s) / g.length_s
      if (share <= 0 || share >= 1) continue
      const more = (g.extra_mps / 2) * (1 - Math.cos(2 * Math.PI * share))
      at[0] += more * Math.cos((towards_deg + g.turn_deg) * rad)
      at[1] += more * Math.sin((towards_deg + g.turn_deg) * rad)
    }
    return at
  }
}
