import { checkProcedures, type ProcedureFile, type ProcedureFinding } from '@geolabe/core'
import { expose } from 'comlink'

/** Looks an order through while it is being written: it takes seconds, beside the screen. */
const looker = { findings: (f: ProcedureFile): ProcedureFinding[] => checkProcedures(f) }
export type Looker = typeof looker
expose(looker)
