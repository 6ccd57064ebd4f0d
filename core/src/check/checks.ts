import type { CheckName } from '../finding/reasons'
import { backwardCheck } from './backward'
import type { Check } from './check'
import { groundCheck } from './ground'
import { hookCheck } from './hook'
import { legCheck } from './leg'
import { levelCheck } from './level'
import { lineCheck } from './line'
import { massCheck } from './mass'
import { ratingCheck } from './rating'
import { reachCheck } from './reach'
import { stabilityCheck } from './stability'
import { tableCheck } from './table'
import { windCheck } from './wind'

/** Every check, in the order in which they are run. */
export const checks: readonly Check[] = [
  massCheck,
  tableCheck,
  ratingCheck,
  lineCheck,
  hookCheck,
  reachCheck,
  levelCheck,
  windCheck,
  stabilityCheck,
  legCheck,
  groundCheck,
  backwardCheck,
]

const byName = new Map(checks.map((c) => [c.id, c]))
export const checkNamed = (id: CheckName): Check => byName.get(id) as Check
