import {
  conditions,
  machineDefinition,
  parseOrRefuse,
  placeDefinition,
  ratingTable,
  sitePolicy,
  wantedLift,
  whichMachine,
} from '@geolabe/core'
import { z } from 'zod'
import { answerFile } from './from-file'

/** `npm run -s which -- choice.json`: machines with their tables, a place and a lift in one file; every answer on standard output. */
const choice = z.strictObject({
  format: z.literal('geolabe.choice/1'),
  yard: z
    .array(z.strictObject({ machine: machineDefinition, tables: z.array(ratingTable) }))
    .min(1)
    .max(200),
  wanted: wantedLift,
  conditions,
  place: placeDefinition,
  policy: sitePolicy,
})

answerFile((content) => {
  const { yard, wanted, place, policy, conditions: air } = parseOrRefuse(choice, content)
  return { answers: whichMachine(yard, { wanted, place, policy, conditions: air }) }
})
