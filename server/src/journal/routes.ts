import type { JournalPage } from '@geolabe/contract'
import { Router } from 'express'
import type { Database } from '../db/database'
import { Problem } from '../http/problem'
import { reads } from '../http/routes'
import { verifyJournal } from './verify'

const pageSize = 100

export function journalRoutes(db: Database): Router {
  const router = Router()
  router.get(
    '/journal',
    reads(db, async (tx, req): Promise<JournalPage> => {
      const before = req.query.before === undefined ? null : Number(req.query.before)
      if (before !== null && !Number.isInteger(before)) throw new Problem(422, 'bad-input', 'Give an entry’s number.', 'before')
      const r = await tx.query<{
        seq: string
        at: Date
        actor: string | null
        name: string | null
        kind: string
        subject: string
        body: Record<string, unknown>
        hash: string
      }>(
        `select j.seq, j.at, j.actor, p.name, j.kind, j.subject, j.body, j.hash from journal j
         left join person p on p.org = j.org and p.id = j.actor
         where j.org = current_org() and ($1::bigint is null or j.seq < $1) order by j.seq desc limit ${pageSize + 1}`,
        [before],
      )
      const page = r.rows.slice(0, pageSize).map((e) => ({
        seq: Number(e.seq),
        at: e.at.toISOString(),
        actor: e.actor ? { id: e.actor, name: e.name ?? e.actor } : null,
        kind: e.kind,
        subject: e.subject,
        body: e.body,
        hash: e.hash,
      }))
      return { entries: page, next: r.rows.length > pageSize ? (page[page.length - 1]?.seq ?? null) : null }
    }),
  )
  router.get('/journal/check', reads(db, verifyJournal))
  return router
}
