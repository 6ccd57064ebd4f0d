import type { Machine, Walkround } from '@geolabe/core'
import type { Tx } from '../db/database'
import { documentOf } from './documents'

/** A machine as it stands in the records, with the walk-round now in use. */
export async function withWalkround(tx: Tx, document: Machine): Promise<{ definition: Machine; revision: number }> {
  const r = await tx.query<{ revision: number; document: Walkround }>(
    'select revision, document from walkround_revision where machine = $1 and (not shorter or checked_by is not null) order by revision desc limit 1',
    [document.id],
  )
  const own = r.rows[0]
  return { definition: own ? { ...document, walkround: own.document } : document, revision: own?.revision ?? 0 }
}

/** A machine in the revision that a record names, with the walk-round now in use. @throws Problem 404 */
export async function machineNamed(tx: Tx, id: string): Promise<Machine> {
  const { document, revision } = await documentOf<Machine>(tx, 'machine', id, 'This machine')
  // The records count revisions; a file may have been changed without saying so.
  return { ...(await withWalkround(tx, document)).definition, revision }
}
