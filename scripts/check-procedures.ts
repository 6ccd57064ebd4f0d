// `npm run check-procedures [machine …]`: what is wrong with the orders of work of the demo's machines, each with its shortest story; fails on any.
import { readdirSync } from 'node:fs'
import { checkProcedures, stepsOfFile } from '@geolabe/core'
import { readMachineFile } from '../server/src/demo/files'

const asked = process.argv.slice(2)
const all = readdirSync(new URL('../demo/procedures/', import.meta.url)).map((f) => f.replace('.json', ''))
let wrong = 0
for (const id of asked.length > 0 ? asked : all) {
  const file = readMachineFile(id).procedures
  const begun = performance.now()
  const found = checkProcedures(file)
  wrong += found.length
  const counts = `${stepsOfFile(file).length} steps, ${file.states.length} states, ${file.invariants.length} nevers`
  console.log(`${id}: ${counts}; ${found.length} found, ${Math.round(performance.now() - begun)} ms`)
  for (const f of found)
    console.log(`  ${f.code} ${f.path}: ${f.words}${f.story.length > 0 ? `\n    ${f.story.join(' → ')}` : ''}`)
}
process.exit(wrong > 0 ? 1 : 0)
