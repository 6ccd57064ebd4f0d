import { walkMark } from '@geolabe/contract'
import { itemsOf, judge } from '@geolabe/core'
import { Router } from 'express'
import { z } from 'zod'
import type { Database, Tx } from '../db/database'
import { Problem } from '../http/problem'
import { uuidParam, writes } from '../http/routes'
import { ownOpenShift, readShift } from '../shift/read'
import { machineNamed } from '../yard/yard'

async function mark(tx: Tx, m: z.output<typeof walkMark>, shift: string) {
  const { machine } = await ownOpenShift(tx, shift)
  const known = itemsOf((await machineNamed(tx, machine)).walkround).find((x) => x.item.id === m.item)
  if (!known) throw new Problem(422, 'unknown-item', 'This machine’s walk-round has no such item.', 'item')
  if (m.result === 'not-fitted' && !known.item.mayBeMissing) {
    throw new Problem(422, 'always-fitted', `“${known.item.label}” is always fitted on this machine.`, 'result')
  }
  if (m.result === 'in-order' && known.item.measure && m.reading === null) {
    throw new Problem(422, 'no-reading', `“${known.item.label}” needs its reading.`, 'reading')
  }
  if (
    m.reading !== null &&
    known.item.measure &&
    judge(known.item.measure, m.reading).verdict === 'discard' &&
    m.result === 'in-order'
  ) {
    throw new Problem(
      422,
      'reading-discards',
      `${known.item.measure.label}: ${m.reading} ${known.item.measure.unit} is beyond its limit; enter it as a defect.`,
      'reading',
    )
  }
  await tx.query(
    `insert into walk_mark (org, shift, item, result, reading, at) values ($1, $2, $3, $4, $5, $6)
     on conflict (org, shift, item) do update set result = excluded.result, reading = excluded.reading, at = excluded.at`,
    [tx.who.org, shift, m.item, m.result, m.reading, m.at],
  )
  await tx.journal('walk-item', shift, { ...m })
  return { saved: m.item }
}

async function finishWalk(tx: Tx, shift: string) {
  const { machine } = await ownOpenShift(tx, shift)
  const all = itemsOf((await machineNamed(tx, machine)).walkround)
  const marked = await tx.query<{ item: string }>('select item from walk_mark where shift = $1', [shift])
  const done = new Set(marked.rows.map((r) => r.item))
  const open = all.find((x) => !done.has(x.item.id))
  if (open) throw new Problem(422, 'not-walked', `Not looked at yet: ${open.item.label} (${open.zone.label}).`, 'items')
  const bare = await tx.query<{ item: string }>(
    "select w.item from walk_mark w where w.shift = $1 and w.result = 'defect' and not exists (select from defect d where d.org = w.org and d.shift = w.shift and d.item = w.item)",
    [shift],
  )
  const unsaid = all.find((x) => x.item.id === bare.rows[0]?.item)
  if (unsaid) throw new Problem(422, 'defect-not-said', `Say what is wrong with “${unsaid.item.label}” first.`, 'items')
  await tx.query('update shift set walk_finished_at = now() where id = $1', [shift])
  await tx.journal('walk-finished', shift, { items: done.size })
  return readShift(tx, shift)
}

/** One mark an item, saved as it is tapped. */
export function walkroundRoutes(db: Database): Router {
  const router = Router()
  router.post(
    '/shifts/:id/walk-items',
    writes(db, walkMark, (tx, m, req) => mark(tx, m, uuidParam(req))),
  )
  router.post(
    '/shifts/:id/walk-finish',
    writes(db, z.strictObject({}), (tx, _b, req) => finishWalk(tx, uuidParam(req))),
  )
  return router
}
