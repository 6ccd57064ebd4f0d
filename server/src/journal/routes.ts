import { type JournalEntry, type JournalPage, journalToCsv } from '@geolabe/contract'
import { type Request, Router } from 'express'
import { z } from 'zod'
import type { Database, Tx } from '../db/database'
import { reads, whoOf } from '../http/routes'
import { Problem } from '../problem/problem'
import { verifyJournal } from './verify'

const pageSize = 100
const exportLimit = 100_000

/** What the journal is searched by. */
const filter = z.object({
  before: z.coerce.number({ error: 'Give an entry’s number.' }).int().optional(),
  kind: z.string().max(60).optional(),
  actor: z.string().max(80).optional(),
  machine: z.string().max(80).optional(),
  from: z.iso.date('Give a date as YYYY-MM-DD.').optional(),
  to: z.iso.date('Give a date as YYYY-MM-DD.').optional(),
  words: z.string().trim().max(200).optional(),
})

function filterOf(req: Pick<Request, 'query'>): z.output<typeof filter> {
  const f = filter.safeParse(req.query)
  if (!f.success) {
    const issue = f.error.issues[0]
    throw new Problem(422, 'bad-input', issue?.message ?? 'This cannot be searched by.', issue?.path.join('.'))
  }
  return f.data
}

interface Row {
  seq: string
  at: Date
  actor: string | null
  name: string | null
  kind: string
  subject: string
  body: Record<string, unknown>
  hash: string
}

/** The query of a filtered page; shown to the database as plain conditions, so that each goes by its own index. */
export function journalQuery(f: z.output<typeof filter>, limit: number): { text: string; values: unknown[] } {
  const values: unknown[] = []
  const where = ['j.org = current_org()']
  const add = (condition: string, value: unknown) => {
    if (value === undefined || value === '') return
    values.push(value)
    where.push(condition.replace('?', `$${values.length}`))
  }
  add('j.seq < ?', f.before)
  add('j.kind = ?', f.kind)
  add('j.actor = ?', f.actor)
  add("j.body->>'machine' = ?", f.machine)
  add('j.at >= ?::date', f.from)
  add("j.at < ?::date + interval '1 day'", f.to)
  if (f.words) {
    // Alone, the newest matches are enough; beside other conditions every match is needed.
    const alone = !f.kind && !f.actor && !f.machine && !f.from && !f.to
    values.push(f.words, f.before ?? null, alone ? limit : null)
    const n = values.length
    where.push(`j.seq in (select journal_with_words($${n - 2}, $${n - 1}, $${n}))`)
  }
  const text = `select j.seq, j.at, j.actor, p.name, j.kind, j.subject, j.body, j.hash
    from (select * from journal j where ${where.join(' and ')} order by j.seq desc limit ${limit}) j
    left join person p on p.org = j.org and p.id = j.actor order by j.seq desc`
  return { text, values }
}

const entry = (e: Row): JournalEntry => ({
  seq: Number(e.seq),
  at: e.at.toISOString(),
  actor: e.actor ? { id: e.actor, name: e.name ?? e.actor } : null,
  kind: e.kind,
  subject: e.subject,
  body: e.body,
  hash: e.hash,
})

/** A page of the journal, newest first. */
export async function readJournal(tx: Tx, req: Pick<Request, 'query'>): Promise<JournalPage> {
  const q = journalQuery(filterOf(req), pageSize + 1)
  const r = await tx.query<Row>(q.text, q.values)
  const entries = r.rows.slice(0, pageSize).map(entry)
  return { entries, next: r.rows.length > pageSize ? (entries[entries.length - 1]?.seq ?? null) : null }
}

export function journalRoutes(db: Database): Router {
  const router = Router()
  router.get('/journal', reads(db, readJournal))
  router.get('/journal/check', reads(db, verifyJournal))
  const found = async (req: Request) => {
    const q = journalQuery(filterOf(req), exportLimit)
    return (await db.as(whoOf(req), (tx) => tx.query<Row>(q.text, q.values))).rows.map(entry)
  }
  router.get('/exports/journal.json', async (req, res) => {
    const entries = await found(req)
    res.setHeader('Content-Disposition', 'attachment; filename="journal.json"')
    res.json({ format: 'geolabe.journal/1', organisation: whoOf(req).org, exportedAt: new Date().toISOString(), entries })
  })
  router.get('/exports/journal.csv', async (req, res) => {
    const entries = await found(req)
    res.setHeader('Content-Disposition', 'attachment; filename="journal.csv"')
    res.type('text/csv').send(journalToCsv(entries))
  })
  return router
}
