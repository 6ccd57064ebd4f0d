import { z } from 'zod'
import { boomPart } from './booms/telescopic'
import { displayPart } from './display'
import { drivesPart } from './drives'
import { eyePart } from './eye'
import { gantryPart } from './gantry'
import { hoistPart } from './hoists/rope'
import { hoistsPart } from './hoists/straddle'
import { runwayPart } from './runway'
import { chassisPart, upperPart } from './superstructure'
import { outrigger } from './supports/outriggers'
import { supportStates } from './supports/states'
import { tracksPart } from './supports/tracks'
import { wheelsPart } from './supports/wheels'
import { towPart } from './tow'
import { towerPart } from './tower'
import { truckPart } from './truck'

/** The parts a machine may have. Rules ask which parts are there, never which kind it is. */
export const machineParts = {
  chassis: chassisPart.optional(),
  upper: upperPart.optional(),
  boom: boomPart.optional(),
  outriggers: z.array(outrigger).min(3).optional(),
  wheels: wheelsPart.optional(),
  tracks: tracksPart.optional(),
  supportStates: supportStates.optional(),
  hoist: hoistPart.optional(),
  truck: truckPart.optional(),
  tow: towPart.optional(),
  drives: drivesPart.optional(),
  eye: eyePart.optional(),
  display: displayPart.optional(),
  tower: towerPart.optional(),
  gantry: gantryPart.optional(),
  hoists: hoistsPart.optional(),
  runway: runwayPart.optional(),
}
