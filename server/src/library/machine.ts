import type { Machine, ProcedureFile, Walkround } from '@geolabe/core'
import type { Tx } from '../db/database'
import { notFound } from '../http/routes'
import { documentOf, revisionOf } from './documents'

/** A machine with what people made its own: its walk-round and its order of work, each in the revision that counts; 0: as it came. */
export interface InUse {
  definition: Machine
  walkroundRevision: number
  orderRevision: number
}

/** The walk-round and the order of work now in force of a row `m` of machine, as rows `w` and `o`; null: the machine's own. */
export const joinOwn = `
  left join lateral (select revision, document from walkround_revision where org = m.org and machine = m.id and (not shorter or checked_by is not null)
    order by revision desc limit 1) w on true
  left join lateral (select revision, document from order_revision where org = m.org and machine = m.id and revision is not null
    order by revision desc limit 1) o on true`

/** A machine as it stands in the records, with the walk-round and the order of work now in use. */
export async function withOwn(tx: Tx, document: Machine): Promise<InUse> {
  const r = await tx.query<{
    walkround: Walkround | null
    walkround_revision: number | null
    procedures: ProcedureFile | null
    order_revision: number | null
  }>(
    `select w.document as walkround, w.revision as walkround_revision, o.document as procedures, o.revision as order_revision
     from machine m ${joinOwn} where m.id = $1`,
    [document.id],
  )
  const own = r.rows[0]
  return {
    definition: {
      ...document,
      walkround: own?.walkround ?? document.walkround,
      procedures: own?.procedures ?? document.procedures,
    },
    walkroundRevision: own?.walkround_revision ?? 0,
    orderRevision: own?.order_revision ?? 0,
  }
}

/** A machine in the revision that a record names, with the walk-round and the order now in use. @throws Problem 404 */
export async function machineNamed(tx: Tx, id: string): Promise<Machine> {
  const { document, revision } = await documentOf<Machine>(tx, 'machine', id, 'This machine')
  // The records count revisions; a file may have been changed without saying so.
  return { ...(await withOwn(tx, document)).definition, revision }
}

/** The machine as a shift took it: its own revision, with the walk-round and the order that were in force. */
export async function machineTaken(tx: Tx, shift: string, machine: string): Promise<Machine> {
  const r = await tx.query<{ machine_revision: number; walkround: Walkround | null; procedures: ProcedureFile | null }>(
    `select s.machine_revision, w.document as walkround, o.document as procedures from shift s
     left join walkround_revision w on w.org = s.org and w.machine = s.machine and w.revision = s.walkround_revision
     left join order_revision o on o.org = s.org and o.machine = s.machine and o.revision = s.order_revision where s.id = $1`,
    [shift],
  )
  const taken = r.rows[0]
  if (!taken) throw notFound('This shift')
  const document = await revisionOf<Machine>(tx, 'machine_revision', machine, taken.machine_revision)
  return {
    ...document,
    walkround: taken.walkround ?? document.walkround,
    procedures: taken.procedures ?? document.procedures,
  }
}

/**
 * Nobody else takes this machine, or puts an order in force for it, until this transaction has ended: which order a shift is worked by is one or the
 * other, never the old one's number over the new one's steps.
 */
export async function holdMachine(tx: Tx, id: string): Promise<void> {
  await tx.query("select pg_advisory_xact_lock(hashtextextended('taken:' || current_org() || ':' || $1, 0))", [id])
}
