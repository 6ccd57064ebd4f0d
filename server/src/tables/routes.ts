import { checkTableRequest, reviseRequest, type TableFile, type TableList } from '@geolabe/contract'
import { type Machine, type MachineModel, modelOf, type RatingTable, sameAxes } from '@geolabe/core'
import { Router } from 'express'
import type { Database, Tx } from '../db/database'
import { notFound, reads, requireRole, writes } from '../http/routes'
import { revisionInUse } from '../library/table'
import { Problem } from '../problem/problem'

interface Row {
  id: string
  machine: string
  revision: number
  in_use: number
  document: RatingTable
  checked_by_name: string | null
  machine_document: Machine | null
  model: MachineModel | null
}

const select = `select t.id, t.machine, t.revision, t.document, c.name as checked_by_name, m.document as machine_document, mm.document as model,
    u.revision as in_use
  from (select distinct on (id) * from rating_table order by id, revision desc) t
  join (${revisionInUse}) u on u.id = t.id
  left join person c on c.org = t.org and c.id = t.checked_by
  left join machine m on m.org = t.org and m.id = t.machine
  left join machine_model mm on mm.org = t.org and mm.id = t.machine`

const modelIn = (r: Row): MachineModel | null => (r.machine_document ? modelOf(r.machine_document) : r.model)

async function list(tx: Tx): Promise<TableList> {
  const r = await tx.query<Row>(`${select} order by t.machine, t.id limit 500`)
  return {
    tables: r.rows.map((x) => {
      const model = x.machine_document ?? x.model
      return {
        id: x.id,
        machine: x.machine,
        machineName: model?.name ?? x.machine,
        kind: model?.kind.label ?? '',
        title: x.document.title,
        axes: x.document.axes,
        revision: x.revision,
        inUse: x.in_use,
        checkedBy: x.checked_by_name ?? x.document.checkedBy,
        document: x.document.document,
      }
    }),
  }
}

async function one(tx: Tx, id: string): Promise<TableFile> {
  const r = await tx.query<Row>(`${select} where t.id = $1`, [id])
  const row = r.rows[0]
  if (!row) throw notFound('This table')
  const all = await tx.query<{
    revision: number
    document: RatingTable
    entered_at: Date
    why: string
    entered_by_name: string | null
    checked_by_name: string | null
  }>(
    `select t.revision, t.document, t.entered_at, t.why, e.name as entered_by_name, c.name as checked_by_name from rating_table t
     left join person e on e.org = t.org and e.id = t.entered_by left join person c on c.org = t.org and c.id = t.checked_by
     where t.id = $1 order by t.revision desc limit 50`,
    [id],
  )
  return {
    table: row.document,
    before: all.rows[1]?.document ?? null,
    model: modelIn(row),
    inUse: row.in_use,
    revisions: all.rows.map((x) => ({
      revision: x.revision,
      enteredBy: x.entered_by_name ?? x.document.enteredBy,
      enteredAt: x.entered_at.toISOString(),
      checkedBy: x.checked_by_name ?? x.document.checkedBy,
      why: x.why,
    })),
  }
}

const nameOf = async (tx: Tx) =>
  (await tx.query<{ name: string }>('select name from person where id = $1', [tx.who.person])).rows[0]?.name ?? tx.who.person

/** Rating tables: read by all, revised by the person in charge or an administrator, checked by somebody else. */
export function tableRoutes(db: Database): Router {
  const router = Router()
  router.get('/tables', reads(db, list))
  router.get(
    '/tables/:id',
    reads(db, (tx, req) => one(tx, String(req.params.id))),
  )
  router.post(
    '/tables/:id/revisions',
    writes(db, reviseRequest, async (tx, b, req) => {
      const id = String(req.params.id)
      const now = await one(tx, id)
      if (now.table.revision !== b.from) {
        throw new Problem(
          409,
          'revised-meanwhile',
          `Somebody has entered revision ${now.table.revision} meanwhile. Compare with it and enter yours again.`,
          'from',
        )
      }
      if (b.table.id !== id || b.table.machine !== now.table.machine || !sameAxes(b.table.axes, now.table.axes)) {
        throw new Problem(422, 'other-table', 'A revision keeps the table’s id, machine and axes.', 'table.id')
      }
      const document: RatingTable = { ...b.table, revision: b.from + 1, enteredBy: await nameOf(tx), checkedBy: null }
      await tx.query(
        'insert into rating_table (org, id, revision, machine, document, entered_by, why) values ($1, $2, $3, $4, $5, $6, $7)',
        [tx.who.org, id, document.revision, document.machine, JSON.stringify(document), tx.who.person, b.why],
      )
      await tx.journal('table-revised', id, { revision: document.revision, why: b.why, document })
      return one(tx, id)
    }),
  )
  router.post(
    '/tables/:id/check',
    writes(db, checkTableRequest, async (tx, b, req) => {
      const id = String(req.params.id)
      await requireRole(tx, 'person-in-charge', 'A table is checked by the person in charge.')
      const done = await tx.query('update rating_table set checked_by = $3, checked_at = now() where id = $1 and revision = $2', [
        id,
        b.revision,
        tx.who.person,
      ])
      if (done.rowCount === 0) throw notFound('This revision')
      await tx.journal('table-checked', id, { revision: b.revision })
      return one(tx, id)
    }),
  )
  return router
}
