import { z } from 'zod'
import { machineParts } from '../parts/parts'
import type { SlewingParts } from '../parts/stability/slewing'
import { nameId } from '../quantity/name-id'
import type { Machine } from './machine'

/**
 * Geometry and masses of a machine by themselves: what its tables are checked against. A whole machine holds one; a machine
 * whose walk-round is not written yet can already have its tables.
 */
export const machineModel = z.strictObject({
  format: z.literal('geolabe.model/1'),
  id: nameId,
  name: z.string().min(1),
  kind: z.strictObject({ id: z.string().min(1), label: z.string().min(1) }),
  note: z.string(),
  ...machineParts,
})
export type MachineModel = z.infer<typeof machineModel>

/** The model inside a whole machine. */
export function modelOf(m: Machine): MachineModel {
  return machineModel.strip().parse({ ...m, format: 'geolabe.model/1' })
}

export function isSlewing(m: MachineModel): m is MachineModel & SlewingParts {
  return Boolean(m.chassis && m.upper && m.boom)
}
