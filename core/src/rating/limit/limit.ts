import type { MachineModel } from '../../machine/model'
import { Refusal } from '../../refusal'
import { type AxisQuantity, goBy } from '../axes'
import { configurationNamed } from '../read'
import type { RatingTable } from '../table'
import { gantryLimit } from './gantry'
import { hoistsLimit } from './hoists'
import type { CellLimit, LimitOf } from './limit-of'
import { runwayLimit } from './runway'
import { slewingAngleLimit, slewingRadiusLimit } from './slewing'
import { towerLimit } from './tower'
import { counterweightLimit, plateLimit, reachLimit, toolLimit } from './truck'

/** By which part of the machine a table is checked, from what its rows and columns count. */
const limits: readonly [rows: AxisQuantity, columns: AxisQuantity, LimitOf][] = [
  ['radius_m', 'boom_m', slewingRadiusLimit],
  ['angle_deg', 'boom_m', slewingAngleLimit],
  ['radius_m', 'parts', towerLimit],
  ['height_m', 'reach_m', reachLimit],
  ['liftHeight_m', 'loadCentre_m', plateLimit],
  ['extension_m', 'slabs', counterweightLimit],
  ['reach_m', 'per', toolLimit],
  ['height_m', 'per', gantryLimit],
  ['hoist', 'per', hoistsLimit],
  ['part', 'per', runwayLimit],
]

/**
 * What the machine's own geometry and masses allow in each cell of a table's configuration. It never makes a rating: a table
 * is checked against it, and may be lower for reasons of strength that only the maker knows.
 *
 * @throws Refusal `no-model` when the model lacks the part that a table by these axes is judged by; `unknown-configuration`
 */
export function cellLimit(m: MachineModel, t: RatingTable, configuration: string): CellLimit {
  const c = configurationNamed(t, configuration)
  const found = limits.find(([rows, columns]) => goBy(t.axes, rows, columns))
  if (!found) throw new Refusal('no-model', 'Nothing here checks a table by these axes against physics.', 'table.axes')
  return found[2](m, c, t)
}
