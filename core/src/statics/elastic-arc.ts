import { nth } from '../list'
import type { Footprint } from './footprint'
import { type FixedSums, resultantAt, type SlewingSums } from './resultant'
import { roundOver } from './round'

/** What one support carries at most and at least round an arc on an even, elastic ground, newtons, and where. */
export interface ElasticOver {
  max_N: number
  max_at_deg: number
  min_N: number
  min_at_deg: number
}

/**
 * The extremes of each support's elastic load round an arc on which every support stays down: its share is then one plane over the
 * resultant's place, so that it is greatest and least at the arc's ends and where the resultant stands straight up and down that plane.
 *
 * @returns one entry a support, in their order; null where one of them lifts somewhere on the arc
 */
export function elasticOver(
  { whole, supports }: Footprint,
  fixed: FixedSums,
  slewing: SlewingSums,
  arc: { from_deg: number; to_deg: number },
): ElasticOver[] | null {
  const { force_N, slewAt } = roundOver(fixed, slewing, arc)
  const out: ElasticOver[] = []
  for (let i = 0; i < supports.length; i++) {
    const [c0, c1, c2] = [nth(whole, 3 * i), nth(whole, 3 * i + 1), nth(whole, 3 * i + 2)]
    const up_rad = Math.atan2(c2, c1)
    const e: ElasticOver = { max_N: -Infinity, max_at_deg: arc.from_deg, min_N: Infinity, min_at_deg: arc.from_deg }
    for (const deg of [arc.from_deg, slewAt(up_rad), slewAt(up_rad + Math.PI), arc.to_deg]) {
      if (deg === null) continue
      const { x_m, y_m } = resultantAt(fixed, slewing, deg)
      const carried_N = force_N * (c0 + c1 * x_m + c2 * y_m)
      if (carried_N > e.max_N) Object.assign(e, { max_N: carried_N, max_at_deg: deg })
      if (carried_N < e.min_N) Object.assign(e, { min_N: carried_N, min_at_deg: deg })
    }
    if (!(e.min_N > 0)) return null
    out.push(e)
  }
  return out
}
