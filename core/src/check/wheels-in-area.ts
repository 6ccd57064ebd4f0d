import type { Axle } from '../parts/supports/wheels'
import { g_mps2, rad } from '../physics'
import { elasticReactions } from '../statics/elastic'
import { sumFixed } from '../statics/resultant'
import type { Area, Cell } from './area'

/** What axles and corners carry in one cell, newtons: the more of loaded and empty. */
export interface Carried {
  /** Standing, by moments; in the order of the machine's axles. */
  axle_N: readonly number[]
  /** The most loaded corner of each axle, on springs, with the jerk of lifting. */
  corner_N: readonly number[]
}

/** Axles and corners of a machine on its wheels over a working area; null: it does not stand on wheels. */
export function wheelsIn({ f, lift, total_kg }: Area): { axles: readonly Axle[]; at: (cell: Cell) => Carried | null } | null {
  if (lift?.support.on !== 'wheels' || !lift.machine.wheels) return null
  const { axles } = lift.machine.wheels
  const fixed = sumFixed(lift.machine.chassis.masses, {})
  const corner = new Float64Array(f.supports.length)
  const hung_N = total_kg * g_mps2
  let known: { ring: Cell['ring']; slew_deg: number; carried: Carried | null } | null = null
  const work = ({ ring, slew_deg, falls }: Cell): Carried | null => {
    if (!ring.reaches || falls) return null
    const [c, s] = [Math.cos(slew_deg * rad), Math.sin(slew_deg * rad)]
    const { unloaded } = ring
    const standing = { force_N: unloaded.force_N + hung_N, along_Nm: unloaded.along_Nm + hung_N * ring.hook_m }
    const x_m = ({ force_N, along_Nm }: typeof unloaded) => (fixed.wx_Nm + along_Nm * c) / force_N
    const axle_N = axles.map((axle) => {
      const other = axles.find((o) => o !== axle) ?? axle
      const on = (turning: typeof unloaded) => (turning.force_N * (x_m(turning) - other.x_m)) / (axle.x_m - other.x_m)
      return Math.max(on(standing), on(unloaded))
    })
    const corner_N = axles.map(() => 0)
    for (const turning of [ring.loaded, unloaded]) {
      elasticReactions(f, x_m(turning), (fixed.wy_Nm + turning.along_Nm * s) / turning.force_N, turning.force_N, corner)
      for (const [k, axle] of axles.entries())
        for (const [i, { id }] of f.supports.entries())
          if (id.startsWith(axle.id === 'front' ? 'F' : 'R')) corner_N[k] = Math.max(corner_N[k] ?? 0, corner[i] ?? 0)
    }
    return { axle_N, corner_N }
  }
  return {
    axles,
    at: (cell) => {
      if (known?.ring !== cell.ring || known.slew_deg !== cell.slew_deg)
        known = { ring: cell.ring, slew_deg: cell.slew_deg, carried: work(cell) }
      return known.carried
    },
  }
}
