import { createHash } from 'node:crypto'
import type { JournalCheck } from '@geolabe/contract'
import type { Tx } from '../db/database'

interface Row {
  seq: string
  at: string
  actor: string | null
  kind: string
  subject: string
  body: string
  prev_hash: string
  hash: string
}

/**
 * Recomputes every entry's hash from what stands in the row, apart from the database's own function, and follows the chain
 * from the first entry to the last. Read in pages, so that a long journal needs little memory.
 */
export async function verifyJournal(tx: Pick<Tx, 'query'>): Promise<JournalCheck> {
  let expected = 'begin'
  let last = 0
  for (;;) {
    const r = await tx.query<Row>(
      `select seq, to_char(at at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.US"Z"') as at, actor, kind, subject, body::text as body, prev_hash, hash
       from journal where org = current_org() and seq > $1 order by seq limit 2000`,
      [last],
    )
    for (const e of r.rows) {
      const seq = Number(e.seq)
      const text = [e.prev_hash, e.seq, e.at, e.actor ?? '-', e.kind, e.subject, e.body].join('\n')
      const hash = createHash('sha256').update(text, 'utf8').digest('hex')
      if (seq !== last + 1 || e.prev_hash !== expected || hash !== e.hash)
        return { entries: last, intact: false, brokenAt: last + 1 }
      expected = e.hash
      last = seq
    }
    if (r.rows.length === 0) return { entries: last, intact: true, brokenAt: null }
  }
}
