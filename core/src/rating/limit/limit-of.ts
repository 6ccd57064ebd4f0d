import type { MachineModel } from '../../machine/model'
import { Refusal } from '../../refusal'
import type { RatingConfiguration, RatingTable } from '../table'

/** What physics allows in a cell: kg, nothing at all (0, out of reach), or null where this model cannot say. */
export type CellLimit = (row: number | string, column: number | string) => number | null

/** Works out the limits of a configuration from one part of a machine. @throws Refusal `no-model` where the part is missing */
export type LimitOf = (m: MachineModel, c: RatingConfiguration, t: RatingTable) => CellLimit

/** A part of a machine that its table is checked against. @throws Refusal `no-model` where the model lacks it */
export function partOf<P>(m: MachineModel, part: string, found: P | undefined): P {
  if (found !== undefined) return found
  throw new Refusal('no-model', `${m.name}’s geometry has no ${part}, which this table is checked against.`, `machine.${part}`)
}
