import { readFileSync } from 'node:fs'
import {
  answer,
  assess,
  conditions,
  isRefusal,
  liftPlan,
  machineDefinition,
  parseOrRefuse,
  placeDefinition,
  ratingTable,
  setupPlan,
  sitePolicy,
} from '@geolabe/core'
import { z } from 'zod'

/** `npm run -s assess -- plan.json`: a plan with all it rests on, in one file; the assessment on standard output. */
const plan = z.strictObject({
  format: z.literal('geolabe.plan/1'),
  machine: machineDefinition,
  tables: z.array(ratingTable),
  setup: setupPlan,
  lift: liftPlan,
  conditions,
  place: placeDefinition,
  policy: sitePolicy,
})

const path = process.argv[2]
const said = answer(() => {
  return assess(parseOrRefuse(plan, path ? JSON.parse(readFileSync(path, 'utf8')) : undefined))
})
console.log(JSON.stringify(said, null, 1))
process.exitCode = isRefusal(said) ? 2 : 0
