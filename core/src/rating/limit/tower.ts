import { lineLimit_kg } from '../../parts/hoists/rope'
import { type LimitOf, partOf } from './limit-of'

/** Moment of the jib, and what this many parts of line hold. */
export const towerLimit: LimitOf = (m, c) => {
  const tower = partOf(m, 'tower', m.tower)
  const { linePull_N, leadSheaves, sheaveEfficiency } = partOf(m, 'hoist', m.hoist)
  const jib_m = Math.min(c.appliesTo.jib_m ?? Infinity, tower.jib_m)
  return (radius, parts) =>
    Number(radius) > jib_m + 1e-9
      ? 0
      : Math.min(
          tower.moment_kgm / Number(radius),
          lineLimit_kg({ linePull_N, leadSheaves, sheaveEfficiency, parts: Number(parts) }),
        )
}
