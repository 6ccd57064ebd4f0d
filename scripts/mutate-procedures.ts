// `npm run mutate-procedures [machine …]`: each need of a step that could hurt is left out in turn; the check of the file should find it missing.
import { readdirSync } from 'node:fs'
import { checkProcedures, type ProcedureFile, stepsOfFile } from '@geolabe/core'
import { readMachineFile } from '../server/src/demo/files'

/** A file with one need of one step left out. */
const without = (f: ProcedureFile, step: string, need: string): ProcedureFile => ({
  ...f,
  procedures: f.procedures.map((p) => ({
    ...p,
    steps: p.steps.map((s) => (s.id === step ? { ...s, needs: s.needs.filter((n) => n.id !== need) } : s)),
  })),
})

const asked = process.argv.slice(2)
const all = readdirSync(new URL('../demo/procedures/', import.meta.url)).map((f) => f.replace('.json', ''))
let [caught, tried] = [0, 0]
for (const id of asked.length > 0 ? asked : all) {
  const file = readMachineFile(id).procedures
  const survivors: string[] = []
  let own = 0
  for (const s of stepsOfFile(file).filter((x) => x.hazards.length > 0))
    for (const n of s.needs) {
      own++
      // A need that is left out lets more be done, so nothing that could be put away before is stranded by it.
      if (checkProcedures(without(file, s.id, n.id), { waysBack: false }).length === 0) survivors.push(`${s.id} without ${n.id}`)
    }
  tried += own
  caught += own - survivors.length
  console.log(`${id}: ${own - survivors.length} of ${own} found`)
  for (const x of survivors) console.log(`  survives: ${x}`)
}
console.log(`${caught} of ${tried} needs of steps that could hurt are found missing when they are left out`)
