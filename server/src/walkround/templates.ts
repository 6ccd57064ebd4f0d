import { reviseWalkroundRequest, type WalkroundFile, walkroundToCsv } from '@geolabe/contract'
import { parseOrRefuse, type Walkround, walkroundTemplate, writtenOut } from '@geolabe/core'
import { Router } from 'express'
import { z } from 'zod'
import type { Database, Tx } from '../db/database'
import { reads, requireAnyRole, whoOf, writes } from '../http/routes'
import { machineNamed } from '../library/machine'
import { Problem } from '../problem/problem'

interface RevisionRow {
  revision: number
  entered_by: string | null
  name: string | null
  entered_at: Date
  why: string
  document: Walkround
  counts: boolean
}

async function inUse(tx: Tx, id: string): Promise<WalkroundFile> {
  const machine = await machineNamed(tx, id)
  const r = await tx.query<RevisionRow>(
    `select w.revision, w.entered_by, p.name, w.entered_at, w.why, w.document, (not w.shorter or w.checked_by is not null) as counts
     from walkround_revision w left join person p on p.org = w.org and p.id = w.entered_by
     where w.machine = $1 order by w.revision desc limit 50`,
    [id],
  )
  const last = r.rows.find((x) => x.counts)
  const newest = r.rows[0]
  const by = (x: RevisionRow) => (x.entered_by ? { id: x.entered_by, name: x.name ?? x.entered_by } : null)
  return {
    machine: id,
    revision: last?.revision ?? 0,
    walkround: machine.walkround,
    enteredBy: last ? by(last) : null,
    enteredAt: last?.entered_at.toISOString() ?? null,
    why: last?.why ?? '',
    waiting:
      newest && !newest.counts
        ? {
            revision: newest.revision,
            enteredBy: by(newest),
            enteredAt: newest.entered_at.toISOString(),
            why: newest.why,
            walkround: newest.document,
          }
        : null,
  }
}

/** The walk-round in use as an open file, written out, so that it reads alone. */
const asTemplate = (machine: string, revision: number, w: Walkround) => ({
  format: 'geolabe.walkround/1',
  machine,
  revision: Math.max(1, revision),
  before: w.before,
  zones: w.zones,
})

/** Walk-rounds as files: out as JSON and CSV, in all or nothing with the place of each fault. */
export function walkroundTemplateRoutes(db: Database): Router {
  const router = Router()
  router.get(
    '/machines/:id/walkround',
    reads(db, (tx, req) => inUse(tx, String(req.params.id))),
  )
  router.get(
    '/machines/:id/walkround.json',
    reads(db, async (tx, req) => {
      const w = await inUse(tx, String(req.params.id))
      return asTemplate(w.machine, w.revision, w.walkround)
    }),
  )
  router.get('/machines/:id/walkround.csv', async (req, res) => {
    const w = await db.as(whoOf(req), (tx) => inUse(tx, String(req.params.id)))
    res.setHeader('Content-Disposition', `attachment; filename="walk-round-${w.machine}.csv"`)
    res.type('text/csv').send(walkroundToCsv(w.walkround))
  })
  router.post(
    '/machines/:id/walkround',
    writes(db, reviseWalkroundRequest, async (tx, b, req) => {
      const id = String(req.params.id)
      const machine = await machineNamed(tx, id)
      await requireAnyRole(
        tx,
        ['person-in-charge', 'administrator'],
        'The person in charge or an administrator changes a walk-round.',
      )
      const template = parseOrRefuse(walkroundTemplate, b.template)
      if (template.machine !== id) {
        throw new Problem(
          422,
          'other-machine',
          `This walk-round is for “${template.machine}”, not for ${machine.name}.`,
          'machine',
        )
      }
      const missing = machine.walkround.zones.find((z) => z.part === 'ground' && !template.zones.some((t) => t.id === z.id))
      if (missing) {
        throw new Problem(
          422,
          'missing-zone',
          `The zone “${missing.label}” (${missing.id}) is missing. Nothing of a machine is left out of its round; keep the zone, with at least one item.`,
          'zones',
        )
      }
      const open = await tx.query('select from shift where machine = $1 and closed_at is null', [id])
      if (open.rowCount)
        throw new Problem(409, 'machine-taken', 'A shift is under way on this machine. Change its round after the handover.')
      const document = writtenOut(template, [])
      const newest = await tx.query<{ revision: number | null }>(
        'select max(revision) as revision from walkround_revision where machine = $1',
        [id],
      )
      const revision = (newest.rows[0]?.revision ?? 0) + 1
      await tx.query(
        'insert into walkround_revision (org, machine, revision, document, why, entered_by) values ($1, $2, $3, $4, $5, $6)',
        [tx.who.org, id, revision, JSON.stringify(document), b.why, tx.who.person],
      )
      await tx.journal('walkround-revised', id, { machine: id, revision, why: b.why })
      return inUse(tx, id)
    }),
  )
  // One that asks for less is looked at by a second person before it counts.
  router.post(
    '/machines/:id/walkround/:revision/check',
    writes(db, z.strictObject({}), async (tx, _b, req) => {
      const id = String(req.params.id)
      await machineNamed(tx, id)
      await requireAnyRole(
        tx,
        ['person-in-charge'],
        'The person in charge checks a shorter walk-round, another than who entered it.',
      )
      const r = await tx.query(
        'update walkround_revision set checked_by = $3, checked_at = now() where machine = $1 and revision = $2 and shorter and checked_by is null',
        [id, z.coerce.number().int().parse(req.params.revision), tx.who.person],
      )
      if (!r.rowCount) throw new Problem(409, 'wrong-state', 'There is nothing to check here; look again.')
      await tx.journal('walkround-checked', id, { machine: id, revision: Number(req.params.revision) })
      return inUse(tx, id)
    }),
  )
  return router
}
