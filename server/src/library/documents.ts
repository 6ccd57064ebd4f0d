import { LRUCache } from 'lru-cache'
import type { Tx } from '../db/database'
import { notFound } from '../http/routes'

/** What is kept in memory of a row: its document, and the transaction that wrote it, which the database counts up for ever. */
interface Kept {
  version: string
  document: object
}

/** Nobody changes what others read too. */
function frozen<T>(value: T): T {
  if (typeof value === 'object' && value !== null && !Object.isFrozen(value)) {
    Object.freeze(value)
    for (const v of Object.values(value)) frozen(v)
  }
  return value
}

const kept = new LRUCache<string, Kept>({ max: 400 })

/**
 * A machine's or a place's document as it stands, with the revision that a record names. The database is asked every time,
 * so that nobody reads what is no longer so or what is not theirs; it sends the document only when it has changed since.
 *
 * @param what as the refusal names it: This machine
 * @throws Problem 404
 */
export async function documentOf<T extends object>(
  tx: Tx,
  table: 'machine' | 'place',
  id: string,
  what: string,
): Promise<{ document: T; revision: number }> {
  const key = JSON.stringify([tx.who.org, table, id])
  const known = kept.get(key)
  const r = await tx.query<{ revision: number; version: string; document: T | null }>(
    `select revision, xmin::text as version, case when xmin::text = $2 then null else document end as document from ${table} where id = $1`,
    [id, known?.version ?? ''],
  )
  const row = r.rows[0]
  if (!row) throw notFound(what)
  if (row.document === null) return { document: known?.document as T, revision: row.revision }
  const document = frozen(row.document)
  kept.set(key, { version: row.version, document })
  return { document, revision: row.revision }
}

/** A kept revision of a machine or place. @throws Problem 404 */
export async function revisionOf<T>(tx: Tx, table: 'machine_revision' | 'place_revision', id: string, at: number): Promise<T> {
  const r = await tx.query<{ document: T }>(`select document from ${table} where id = $1 and revision = $2`, [id, at])
  if (!r.rows[0]) throw notFound(`Revision ${at} of ${id}`)
  return r.rows[0].document
}
