import { createHash } from 'node:crypto'
import type { JournalCheck } from '@geolabe/contract'
import type { Tx } from '../db/database'

interface Row {
  seq: string
  chain: string
  n: string
  at: string
  actor: string | null
  kind: string
  subject: string
  body: string
  prev_hash: string
  hash: string
}

/**
 * Recomputes every entry's hash from what stands in the row, apart from the database's own function, and follows each chain
 * from its first entry to the last that was ever counted. Read in pages, so that a long journal needs little memory.
 */
export async function verifyJournal(tx: Pick<Tx, 'query'>): Promise<JournalCheck> {
  const heads = new Map(
    (await tx.query<{ chain: string; n: string; hash: string }>('select chain, n, hash from journal_heads()')).rows.map((h) => [
      h.chain,
      h,
    ]),
  )
  let [chain, n, expected, entries] = ['', 0, 'begin', 0]
  const short = () => {
    const head = heads.get(chain)
    heads.delete(chain)
    return chain !== '' && (head === undefined || Number(head.n) !== n || head.hash !== expected)
  }
  let lastSeq = 0
  for (;;) {
    const r = await tx.query<Row>(
      `select seq, chain, n, to_char(at at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.US"Z"') as at, actor, kind, subject, body::text as body, prev_hash, hash
       from journal where org = current_org() and (chain, n) > ($1, $2) order by chain, n limit 2000`,
      [chain, n],
    )
    for (const e of r.rows) {
      if (e.chain !== chain) {
        if (short()) return { entries, intact: false, brokenAt: lastSeq }
        ;[chain, n, expected] = [e.chain, 0, 'begin']
      }
      const text = [e.prev_hash, e.chain, e.n, e.seq, e.at, e.actor ?? '-', e.kind, e.subject, e.body].join('\n')
      const hash = createHash('sha256').update(text, 'utf8').digest('hex')
      if (Number(e.n) !== n + 1 || e.prev_hash !== expected || hash !== e.hash)
        return { entries, intact: false, brokenAt: Number(e.seq) }
      expected = e.hash
      n += 1
      entries += 1
      lastSeq = Number(e.seq)
    }
    if (r.rows.length === 0) break
  }
  // Chains whose newest entries, or all of them, are gone.
  if (short() || heads.size > 0) return { entries, intact: false, brokenAt: lastSeq }
  return { entries, intact: true, brokenAt: null }
}
