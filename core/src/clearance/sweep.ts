import TinyQueue from 'tinyqueue'
import { rad } from '../physics'

/** Slews and boom angles that a boom may take in any order, degrees. */
export interface Sweep {
  slew_deg: readonly [number, number]
  angle_deg: readonly [number, number]
}

export interface Swept {
  /** Never more than the true least, and less by no more than two hundredths of it and two centimetres. */
  least_m: number
  /** The nearest pose that was looked at: never less than the true least. */
  found_m: number
  slew_deg: number
  angle_deg: number
}

interface Cell {
  /** Of two as near as each other, the earlier is looked at first. */
  order: number
  slew: readonly [number, number]
  angle: readonly [number, number]
  floor_m: number
}

/** Cells looked at after which what is known stands: the answer is then lower than it need be, never higher. */
const most_looks = 1000

/**
 * The least distance over a whole sweep: cells of slew and angle, each halved until nothing nearer than what is known can be in it.
 *
 * @param distanceAt metres, in one pose
 * @param reach_m how far the body that is looked at can move for each radian of slew, and of boom angle
 * @param enough_m what is further than this is looked at no closer: something nearer is known, or it does not matter
 */
export function leastOverSweep(
  distanceAt: (slew_deg: number, angle_deg: number) => number,
  reach_m: { slew: number; angle: number },
  sweep: Sweep,
  enough_m = Infinity,
): Swept {
  let best = { found_m: Infinity, slew_deg: sweep.slew_deg[0], angle_deg: sweep.angle_deg[0] }
  const half = ([a, b]: readonly [number, number], reach: number) => (Math.abs(b - a) / 2) * rad * reach
  let order = 0
  const cell = (slew: Cell['slew'], angle: Cell['angle']): Cell => {
    const [slew_deg, angle_deg] = [(slew[0] + slew[1]) / 2, (angle[0] + angle[1]) / 2]
    const d = distanceAt(slew_deg, angle_deg)
    if (d < best.found_m) best = { found_m: d, slew_deg, angle_deg }
    return { slew, angle, order: order++, floor_m: Math.max(0, d - half(slew, reach_m.slew) - half(angle, reach_m.angle)) }
  }
  const first = cell(sweep.slew_deg, sweep.angle_deg)
  const open = new TinyQueue([first], (a, b) => a.floor_m - b.floor_m || a.order - b.order)
  for (let looks = 0; ; looks++) {
    // There is always one: each that is taken is put back as two.
    const c = open.pop() ?? first
    const known_m = Math.min(best.found_m, enough_m)
    if (c.floor_m >= known_m - 0.02 - 0.02 * known_m || looks > most_looks) {
      return { ...best, least_m: Math.min(best.found_m, c.floor_m) }
    }
    const bySlew = half(c.slew, reach_m.slew) >= half(c.angle, reach_m.angle)
    const [a, b] = bySlew ? c.slew : c.angle
    const middle = (a + b) / 2
    for (const part of [[a, middle] as const, [middle, b] as const]) open.push(bySlew ? cell(part, c.angle) : cell(c.slew, part))
  }
}
