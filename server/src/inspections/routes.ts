import {
  type InspectionFile,
  type InspectionPage,
  type InspectionReport,
  type InspectionSummary,
  inspectionsToCsv,
} from '@geolabe/contract'
import { itemsOf, measureUnit, memoryPatterns, type Occasion } from '@geolabe/core'
import { type Request, Router } from 'express'
import { z } from 'zod'
import type { Database, Tx } from '../db/database'
import { notFound, reads, requireRole, uuidParam, whoOf } from '../http/routes'
import { machineNamed } from '../library/machine'
import { Problem } from '../problem/problem'
import { readShift } from '../shift/read'

const pageSize = 50
const exportLimit = 20_000

interface Row {
  id: string
  shift: string
  machine: string
  machine_name: string
  occasion: Occasion
  by: string
  by_name: string
  opened_at: Date
  finished_at: Date | null
  items: number | null
  defects: number | null
  duration_s: number | null
}

const summary = (r: Row): InspectionSummary => ({
  id: r.id,
  shift: r.shift,
  machine: { id: r.machine, name: r.machine_name },
  occasion: r.occasion,
  by: { id: r.by, name: r.by_name },
  openedAt: r.opened_at.toISOString(),
  finishedAt: r.finished_at?.toISOString() ?? null,
  items: r.items,
  defects: r.defects,
  duration_s: r.duration_s,
})

/** Rounds by a condition over `i`, newest first. */
async function inspectionsWhere(tx: Tx, where: string, values: unknown[], limit: number): Promise<InspectionSummary[]> {
  const r = await tx.query<Row>(
    `select i.*, m.document->>'name' as machine_name, p.name as by_name
     from (select * from inspection i where ${where} order by i.opened_at desc, i.id limit ${limit}) i
     join machine m on m.org = i.org and m.id = i.machine join person p on p.org = i.org and p.id = i.by
     order by i.opened_at desc, i.id`,
    values,
  )
  return r.rows.map(summary)
}

/** A page of rounds, newest first. */
export async function readInspections(tx: Tx, req: Pick<Request, 'query'>): Promise<InspectionPage> {
  const before = z.iso.datetime({ offset: true }).optional().safeParse(req.query.before)
  if (!before.success) throw new Problem(422, 'bad-input', 'Give a moment as the last page did.', 'before')
  const machine = z.string().max(80).optional().parse(req.query.machine)
  const found = await inspectionsWhere(
    tx,
    `${before.data ? 'i.opened_at < $1' : '$1::timestamptz is null'} and ${machine ? 'i.machine = $2' : '$2::text is null'}`,
    [before.data ?? null, machine ?? null],
    pageSize + 1,
  )
  const page = found.slice(0, pageSize)
  return { inspections: page, next: found.length > pageSize ? (page[page.length - 1]?.openedAt ?? null) : null }
}

async function file(tx: Tx, id: string): Promise<InspectionFile> {
  const one = (await inspectionsWhere(tx, 'i.id = $1', [id], 1))[0]
  if (!one) throw notFound('This walk-round')
  const machine = await machineNamed(tx, one.machine.id)
  const shift = await readShift(tx, one.shift)
  const { entries } = shift.inspections.find((i) => i.id === id) ?? { entries: [] }
  const known = itemsOf(machine.walkround, one.occasion)
  return {
    format: 'geolabe.inspection/1',
    exportedAt: new Date().toISOString(),
    organisation: tx.who.org,
    inspection: {
      ...one,
      entries: entries.map((m) => {
        const x = known.find((k) => k.item.id === m.item)
        return {
          ...m,
          label: x?.item.label ?? m.item,
          zone: x?.zone.label ?? '',
          unit: x?.item.measure ? measureUnit(x.item.measure) : null,
        }
      }),
    },
    walkround: machine.walkround,
  }
}

/** How complete the rounds are, week by week, and what looks as if it were filled in from memory. */
async function report(tx: Tx): Promise<InspectionReport> {
  await requireRole(tx, 'person-in-charge', 'This is for the person in charge.')
  const weeks = await tx.query<{ week: string; shifts: number; finished: number }>(
    `select to_char(date_trunc('week', i.opened_at), 'YYYY-MM-DD') as week, count(*)::int as shifts, count(i.finished_at)::int as finished
     from inspection i where i.occasion = 'pre-use' and i.opened_at > now() - interval '12 weeks' group by 1 order by 1`,
  )
  const rounds = await tx.query<{
    id: string
    machine: string
    machine_name: string
    by: string
    by_name: string
    at: Date
    items: number
    duration_s: number
    defects: number
  }>(
    `select i.id, i.machine, m.document->>'name' as machine_name, i.by, p.name as by_name, i.finished_at as at, i.items, i.duration_s, i.defects
     from inspection i join machine m on m.org = i.org and m.id = i.machine join person p on p.org = i.org and p.id = i.by
     where i.occasion = 'pre-use' and i.finished_at is not null and i.items is not null and i.opened_at > now() - interval '100 days'
     order by i.opened_at limit 20000`,
  )
  const names = new Map(
    rounds.rows.flatMap((r) => [[`m ${r.machine}`, r.machine_name] as const, [`p ${r.by}`, r.by_name] as const]),
  )
  const patterns = memoryPatterns(
    rounds.rows.map((r) => ({ ...r, at: r.at.toISOString() })),
    new Date().toISOString(),
  )
  return {
    weeks: weeks.rows,
    patterns: patterns.map((p) => ({
      ...p,
      rounds: p.rounds.slice(-20),
      machine: { id: p.machine, name: names.get(`m ${p.machine}`) ?? p.machine },
      by: { id: p.by, name: names.get(`p ${p.by}`) ?? p.by },
    })),
  }
}

/** Rounds as they were walked: listed, exported, and looked at together. */
export function inspectionRoutes(db: Database): Router {
  const router = Router()
  router.get('/inspections', reads(db, readInspections))
  router.get('/inspections/report', reads(db, report))
  router.get(
    '/inspections/:id/export',
    reads(db, (tx, req) => file(tx, uuidParam(req))),
  )
  router.get('/exports/inspections.csv', async (req, res) => {
    const rows = await db.as(whoOf(req), (tx) =>
      tx.query<{
        id: string
        machine: string
        occasion: string
        by: string
        at: Date
        item: string
        result: string
        reading: number | null
      }>(
        `select i.id, i.machine, i.occasion, p.name as by, w.at, w.item, w.result, w.reading from inspection_entry w
         join inspection i on i.org = w.org and i.id = w.inspection join person p on p.org = i.org and p.id = i.by
         where ($1::text is null or w.machine = $1) order by w.at desc limit ${exportLimit}`,
        [
          z
            .string()
            .max(80)
            .nullable()
            .parse(req.query.machine ?? null),
        ],
      ),
    )
    res.setHeader('Content-Disposition', 'attachment; filename="inspections.csv"')
    res.type('text/csv').send(inspectionsToCsv(rows.rows.map((r) => ({ ...r, at: r.at.toISOString() }))))
  })
  return router
}
