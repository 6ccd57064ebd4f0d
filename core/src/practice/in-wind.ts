import { g_mps2, rad } from '../physics'
import { tick_s } from '../swing/axis'
import { airOn } from '../swing/pendulum'
import type { Vec } from '../swing/vector'
import { blowing } from './course-wind'
import type { Drill, Sample } from './drill'

/** How far a load is beside its hook, along and across the boom, and how fast. */
export type Sway = Pick<Sample, 'beside_m' | 'beside_mps'>

/**
 * What the wind alone makes of a load that nobody moves, tick by tick, for small swings; nobody's mistake. It begins plumb, and anew where the load
 * stands.
 *
 * @returns one a tick; null: there is no wind
 */
export function swayInWind({
  rig: { load },
  samples,
  course,
}: Pick<Drill, 'rig' | 'samples' | 'course'>): readonly Sway[] | null {
  if (!course.wind) return null
  const wind = blowing(course.wind)
  let [x, y, vx, vy] = [0, 0, 0, 0]
  return samples.map(({ rope_m, slew_deg, standing }, tick): Sway => {
    const v: Vec = [vx, vy, 0]
    const [fx, fy] = airOn(v, wind({ time_s: tick * tick_s }), load)
    const back = g_mps2 / rope_m
    vx += (fx / load.mass_kg - back * x - load.loss_per_s * vx) * tick_s
    vy += (fy / load.mass_kg - back * y - load.loss_per_s * vy) * tick_s
    x += vx * tick_s
    y += vy * tick_s
    if (standing) [x, y, vx, vy] = [0, 0, 0, 0]
    const [c, s] = [Math.cos(slew_deg * rad), Math.sin(slew_deg * rad)]
    return { beside_m: [x * c + y * s, y * c - x * s], beside_mps: [vx * c + vy * s, vy * c - vx * s] }
  })
}
