import { z } from 'zod'
import { ticks_per_s } from '../swing/axis'
import { type Gust, gusting } from '../swing/gust'
import type { Wind } from '../swing/pendulum'
import { randomFrom } from './random'

/** Wind over a course: a mean, and gusts that come again every so often. */
export interface CourseWind {
  mean_mps: number
  /** The most with its strongest gust. */
  most_mps: number
  /** In plan, nought ahead, left positive. */
  towards_deg: number
  gusts: readonly Gust[]
}

/** Wind as an assessor sets it, at the load: its mean, and what the strongest gust brings besides. */
export const windSet = z.strictObject({
  mean_mps: z.number().min(0, 'From 0 to 14 m/s.').max(14, 'From 0 to 14 m/s.'),
  gust_mps: z.number().min(0, 'From 0 to 10 m/s.').max(10, 'From 0 to 10 m/s.'),
})
export type WindSet = z.infer<typeof windSet>

/** Gusts come again after so long, seconds. */
const again_s = 120
const gusts = 8
/** Easier courses have none. */
const from_level = 0.4
/** Where the wind is said, metres up, and how it grows with height. */
const said_m = 10
const grows = 0.14

const onTick = (s: number) => Math.round(s * ticks_per_s) / ticks_per_s

/**
 * The wind of a course from its seed: the harder, the more; of easy ones none.
 *
 * @param height_m over the ground where the load is carried
 * @param set what an assessor has set instead, at any level; when gusts come, and from where it blows, the seed still says
 */
export function windOf(seed: number, level: number, height_m: number, set?: WindSet): CourseWind | null {
  if (level < from_level && !set) return null
  const random = randomFrom(seed, 'wind')
  const own_mps = (1.5 + 4.5 * random()) * (0.5 + 0.5 * level) * Math.max(1, height_m / said_m) ** grows
  const mean_mps = set?.mean_mps ?? own_mps
  const apart_s = again_s / gusts
  const each = Array.from({ length: gusts }, (_, i): Gust => {
    const length_s = onTick(3 + 9 * random())
    return {
      start_s: onTick(i * apart_s + (apart_s - length_s) * random()),
      length_s,
      extra_mps: (set ? 1 : mean_mps) * (0.2 + 0.5 * random()),
      turn_deg: 40 * random() - 20,
    }
  })
  const strongest = Math.max(...each.map((g) => g.extra_mps))
  const scale = set ? set.gust_mps / strongest : 1
  return {
    mean_mps,
    most_mps: mean_mps + scale * strongest,
    towards_deg: 360 * random(),
    gusts: each.map((g) => ({ ...g, extra_mps: g.extra_mps * scale })),
  }
}

/** As the load feels it. */
export function blowing({ mean_mps, towards_deg, gusts: each }: CourseWind): Wind {
  const at = gusting(mean_mps, towards_deg, each)
  const when = { time_s: Number.NaN }
  return ({ time_s }) => {
    when.time_s = time_s % again_s
    return at(when)
  }
}
