import type { RatingTable } from '@geolabe/core'
import type { Tx } from '../db/database'

/**
 * Revisions that lifts may be proved with: the newest that somebody else has checked; a table of which no revision was ever
 * checked counts as it was first entered, and says so.
 */
export const revisionInUse = `select distinct on (id) id, revision from rating_table
  where checked_by is not null or why = '' order by id, revision desc`

/** Every table of a machine, each in its revision in use. */
export async function tablesOf(tx: Tx, machine: string): Promise<RatingTable[]> {
  const r = await tx.query<{ document: RatingTable }>(
    `select t.document from rating_table t join (${revisionInUse}) u on u.id = t.id and u.revision = t.revision where t.machine = $1 order by t.id`,
    [machine],
  )
  return r.rows.map((x) => x.document)
}
