import {
  assess,
  conditions,
  liftPlan,
  machineDefinition,
  parseOrRefuse,
  placeDefinition,
  ratingTable,
  setupPlan,
  sitePolicy,
} from '@geolabe/core'
import { z } from 'zod'
import { answerFile } from './from-file'

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

answerFile((content) => assess(parseOrRefuse(plan, content)))
