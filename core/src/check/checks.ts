import type { CheckName } from '../finding/reasons'
import { aloftCheck } from './aloft'
import { axleCheck } from './axle'
import { backwardCheck } from './backward'
import { boomLimitsCheck } from './boom-limits'
import type { Check } from './check'
import { clearanceCheck } from './clearance'
import { edgeCheck } from './edge'
import { evidenceCheck } from './evidence'
import { floorCheck } from './floor'
import { gripCheck } from './grip'
import { groundCheck } from './ground'
import { guardCheck } from './guard'
import { hoistRopeCheck } from './hoist-rope'
import { hookCheck } from './hook'
import { hookHeightCheck, twoBlockCheck } from './hook-height'
import { levelCheck } from './level'
import { massCheck } from './mass'
import { motionCheck } from './motion'
import { outriggerCheck } from './outrigger'
import { overheadLineCheck } from './overhead-line'
import { overturningCheck } from './overturning'
import { peopleCheck } from './people'
import { ratingCheck } from './rating'
import { selectionCheck } from './selection'
import { shareCheck } from './share'
import { sightCheck } from './sight'
import { structureCheck } from './structure'
import { swingCheck } from './swing'
import { tableCheck } from './table'
import { tractionCheck } from './traction'
import { travelCheck } from './travel'
import { wayCheck } from './way'
import { wheelCheck } from './wheel'
import { windCheck } from './wind'

/** Every check, in the order in which they are run. */
export const checks: readonly Check[] = [
  massCheck,
  tableCheck,
  ratingCheck,
  shareCheck,
  selectionCheck,
  motionCheck,
  hoistRopeCheck,
  hookCheck,
  boomLimitsCheck,
  levelCheck,
  windCheck,
  overturningCheck,
  outriggerCheck,
  groundCheck,
  axleCheck,
  wheelCheck,
  floorCheck,
  wayCheck,
  travelCheck,
  tractionCheck,
  gripCheck,
  guardCheck,
  aloftCheck,
  backwardCheck,
  edgeCheck,
  clearanceCheck,
  overheadLineCheck,
  peopleCheck,
  sightCheck,
  hookHeightCheck,
  twoBlockCheck,
  structureCheck,
  swingCheck,
  evidenceCheck,
]

const byName = new Map(checks.map((c) => [c.id, c]))
export const checkNamed = (id: CheckName): Check => byName.get(id) as Check
