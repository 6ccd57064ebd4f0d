import {
  type MapZone,
  mapOfCase,
  nearShareOf,
  prepareMap,
  Refusal,
  rowFigures,
  workingAreaZones,
  zonesBetween,
} from '@geolabe/core'
import { expose } from 'comlink'
import type { Ground, Planned } from './case-parts'

const slews_deg = Array.from({ length: 360 }, (_, i) => i)
let ground: Ground | null = null

/** A hundred radii, and those at which a table steps: as far as it goes, or where it goes by reach, the boom. */
function radiiFor({ tables, machine }: Ground): number[] {
  const rows = rowFigures(tables, 'radius_m')
  const most_m = rows.at(-1) ?? Math.max(1, ...(machine.boom?.lengths_m ?? []))
  const even = Array.from({ length: 100 }, (_, i) => 1 + ((most_m - 1) * i) / 99)
  return [...new Set([...even, ...rows])].sort((a, b) => a - b)
}

/** The map round the machine, beside the page. */
const mapper = {
  stand(g: Ground): void {
    ground = g
  },
  /** Slew by slew where the load may go; null: its mass is not known, or the machine does not fit its plan. */
  zones(planned: Planned): (MapZone | null)[] | null {
    if (!ground) throw new Error('asked before it was told where')
    const c = { ...ground, ...planned }
    try {
      const radii_m = radiiFor(ground)
      const input = mapOfCase(c, radii_m, slews_deg)
      if (!input) return null
      return zonesBetween(workingAreaZones(prepareMap(input), nearShareOf(c)))
    } catch (e) {
      if (e instanceof Refusal) return null
      throw e
    }
  },
}
export type Mapper = typeof mapper
expose(mapper)
