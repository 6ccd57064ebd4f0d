import { practiceRun } from '@geolabe/contract'
import { markDrive, markRound, markSequence, markSignals, parseOrRefuse, playRun, Refusal } from '@geolabe/core'
import { readMachineFile, readOrganisations, readTableFile } from '../demo/files'
import { answerFile } from './from-file'

/**
 * `npm run -s practice -- run.json`: a run worked out again from what was done, on a machine of the demo world: what it came to, and of load control
 * the last state, on standard output.
 */
answerFile((content) => {
  const run = parseOrRefuse(practiceRun, content)
  if (!readOrganisations().some((o) => o.machines.includes(run.machine.id)))
    throw new Refusal('no-machine', `No machine of the demo world is called “${run.machine.id}”.`, 'machine.id')
  const machine = readMachineFile(run.machine.id)
  if (run.game === 'judge') return markRound({ machine, tables: machine.tables.map(readTableFile) }, run)
  if (run.game === 'signal') return markSignals(machine, run)
  if (run.game === 'drive') return markDrive(machine, run)
  if (run.game === 'sequence') return markSequence(machine, run)
  const { drill, result } = playRun(machine, run)
  return { ...result, key: drill.key() }
})
