import { z } from 'zod'
import { positive } from '../quantity/measured'
import { boomPart } from './booms/telescopic'
import { displayPart } from './display'
import { eyePart } from './eye'
import { hoistPart } from './hoists/rope'
import { runwayPart } from './runway'
import { chassisPart, upperPart } from './superstructure'
import { outrigger } from './supports/outriggers'
import { supportStates } from './supports/states'
import { wheelsPart } from './supports/wheels'
import { towPart } from './tow'
import { truckPart } from './truck'

/** The parts a machine may have. Rules ask which parts are there, never which kind it is. */
export const machineParts = {
  chassis: chassisPart.optional(),
  upper: upperPart.optional(),
  boom: boomPart.optional(),
  outriggers: z.array(outrigger).min(3).optional(),
  wheels: wheelsPart.optional(),
  supportStates: supportStates.optional(),
  hoist: hoistPart.optional(),
  truck: truckPart.optional(),
  tow: towPart.optional(),
  eye: eyePart.optional(),
  display: displayPart.optional(),
  tower: z.strictObject({ moment_kgm: positive, jib_m: positive }).optional(),
  gantry: z
    .strictObject({
      towers: z.int().min(2).max(16),
      working_kPa: positive,
      share: positive.max(1, 'At most 1.'),
      stages: z.array(z.strictObject({ upTo_m: positive, piston_m2: positive })).min(1),
    })
    .optional(),
  /** Several hoists on one frame. */
  hoists: z
    .strictObject({
      each: z
        .array(z.strictObject({ id: z.string().min(1), label: z.string().min(1), linePull_N: positive, parts: z.int().min(1) }))
        .min(1),
      sheaveEfficiency: positive.max(1, 'At most 1.'),
      /** Sheaves between drum and block; none where the rope falls straight from the drum. */
      leadSheaves: z.int().min(0),
      frame_kg: positive,
    })
    .optional(),
  runway: runwayPart.optional(),
}
