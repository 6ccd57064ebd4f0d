import { type PracticeRun, recompute, type ShiftFile } from '@geolabe/contract'
import {
  type Asked,
  type AtWork,
  calculatorNamed,
  checkProcedures,
  type Machine,
  markDrive,
  markRound,
  markSequence,
  markSignals,
  type Offered,
  type ProcedureFile,
  playRun,
  type RatingTable,
  Refusal,
  spacesOf,
  together,
  whichMachine,
  whichPosition,
} from '@geolabe/core'

/** One calculation, every lift of a file from elsewhere worked out again, which machine and where, what is wrong with an order of work, how near machines come to one another, or what a practice run comes to. */
export type CalcJob =
  | { name: string; input: unknown }
  | { file: ShiftFile }
  | { which: { yard: Offered[]; asked: Asked } }
  | { where: { one: Offered; asked: Asked; near: { x_m: number; y_m: number } } }
  | { order: ProcedureFile }
  | { practice: PracticeJob }
  | { together: { all: AtWork[]; gap_m: number } }

interface PracticeJob {
  machine: Machine
  tables: RatingTable[]
  run: PracticeRun
}

/** Nothing to do: the worker has loaded. Null: a fault of ours; what it was stands in the log. */
export default function work(job: { input: CalcJob } | null): object | null {
  if (job === null) return null
  const { input } = job
  try {
    if ('file' in input) return recompute(input.file)
    if ('which' in input) return whichMachine(input.which.yard, input.which.asked)
    if ('where' in input) return whichPosition(input.where.one, input.where.asked, input.where.near)
    if ('order' in input) return checkProcedures(input.order)
    if ('together' in input) {
      const { all, gap_m } = input.together
      const taken = all.map((m) => ({ id: m.id, ...spacesOf(m) }))
      return { spaces: taken.map((m) => m.spaces), meetings: together(taken, gap_m) }
    }
    if ('practice' in input) return practised(input.practice)
    return calculatorNamed(input.name)?.run(input.input) ?? null
  } catch (e) {
    console.error(e)
    return null
  }
}

function resultOf(machine: Machine, tables: RatingTable[], run: PracticeRun): object {
  switch (run.game) {
    case 'load':
      return playRun(machine, run).result
    case 'judge':
      return markRound({ machine, tables }, run)
    case 'signal':
      return markSignals(machine, run)
    case 'drive':
      return markDrive(machine, run)
    case 'sequence':
      return markSequence(machine, run)
  }
}

/** What a run comes to; what refuses it is told as it is. */
function practised({ machine, tables, run }: PracticeJob): object {
  try {
    return { result: { game: run.game, ...resultOf(machine, tables, run) } }
  } catch (e) {
    if (e instanceof Refusal) return { refused: { code: e.code, message: e.message, path: e.path } }
    throw e
  }
}
