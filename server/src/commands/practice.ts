import { type Machine, parseOrRefuse, playRun, practiceRun, Refusal } from '@geolabe/core'
import { readMachineFile, readOrganisations } from '../demo/files'
import { answerFile } from './from-file'

/** `npm run -s practice -- run.json`: a run played again from its inputs, on a machine of the demo world; result and last state on standard output. */
answerFile((content) => {
  const run = parseOrRefuse(practiceRun, content)
  if (!readOrganisations().some((o) => o.machines.includes(run.machine.id)))
    throw new Refusal('no-machine', `No machine of the demo world is called “${run.machine.id}”.`, 'machine.id')
  const machine: Machine = readMachineFile(run.machine.id)
  const { drill, result } = playRun(machine, run)
  return { ...result, key: drill.key() }
})
