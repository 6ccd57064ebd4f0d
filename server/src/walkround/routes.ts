import {
  entryIn,
  finishInspectionRequest,
  handsOnRequest,
  inspectionEntryRequest,
  openInspectionRequest,
} from '@geolabe/contract'
import { isRaised, itemsOf, judge, type Machine, measureLabel, measureUnit, type Occasion, readingsDue } from '@geolabe/core'
import { type Request, Router } from 'express'
import type { z } from 'zod'
import type { Database, Tx } from '../db/database'
import { notFound, trueMoment, uuidParam, writes } from '../http/routes'
import { machineNamed } from '../library/machine'
import { checkPlate } from '../library/plate'
import { readingsOf } from '../library/readings'
import { Problem } from '../problem/problem'
import { ownOpenShift, readShift } from '../shift/read'
import { requireReady } from '../shift/ready'
import { record } from '../shift/record'

async function inspectionOf(
  tx: Tx,
  shift: string,
  id: string,
): Promise<{ id: string; occasion: Occasion; finished: boolean; raised: boolean }> {
  const r = await tx.query<{ occasion: Occasion; finished: boolean; raised: boolean }>(
    'select occasion, finished_at is not null as finished, raised_at is not null as raised from inspection where id = $1 and shift = $2',
    [id, shift],
  )
  if (!r.rows[0]) throw notFound('This walk-round')
  return { id, ...r.rows[0] }
}

/** Whether an item is measured in this shift, by what was on record before it. */
async function isDue(tx: Tx, shift: string, id: string, machine: Machine, occasion: Occasion, item: string): Promise<boolean> {
  const r = await tx.query<{ opened_at: Date }>('select opened_at from shift where id = $1', [shift])
  const opened = r.rows[0]?.opened_at.toISOString() ?? ''
  const before = Object.fromEntries(
    Object.entries(await readingsOf(tx, id)).map(([k, list]) => [k, list.filter((x) => x.at < opened)]),
  )
  return readingsDue(itemsOf(machine.walkround, occasion), before, opened.slice(0, 10)).some((d) => d.item === item)
}

async function enter(tx: Tx, m: z.output<typeof inspectionEntryRequest>, shift: string, req: Request) {
  const s = await ownOpenShift(tx, shift)
  const inspection = await inspectionOf(tx, shift, m.inspection)
  const machine = await machineNamed(tx, s.machine)
  const known = itemsOf(machine.walkround, inspection.occasion).find((x) => x.item.id === m.item)
  if (!known) throw new Problem(422, 'unknown-item', 'This machine’s walk-round has no such item.', 'item')
  const { item } = known
  if (inspection.finished && (inspection.occasion !== 'pre-use' || !isRaised(known)))
    throw new Problem(409, 'wrong-state', 'This walk-round is finished; what you see now is a new defect.', 'item')
  if (m.result === 'not-fitted' && !item.mayBeMissing) {
    throw new Problem(422, 'always-fitted', `“${item.label}” is always fitted on this machine.`, 'result')
  }
  if (isRaised(known) && inspection.occasion === 'pre-use') await requireReady(tx, shift, 'raise')
  if (
    m.result === 'in-order' &&
    item.measure &&
    m.reading === null &&
    (await isDue(tx, shift, s.machine, machine, inspection.occasion, item.id))
  ) {
    throw new Problem(422, 'no-reading', `“${item.label}” needs its reading.`, 'reading')
  }
  if (m.reading !== null && item.measure && judge(item.measure, m.reading).verdict === 'discard' && m.result === 'in-order') {
    throw new Problem(
      422,
      'reading-discards',
      `${measureLabel(item.measure)}: ${m.reading} ${measureUnit(item.measure)} is beyond its limit; enter it as a defect.`,
      'reading',
    )
  }
  if (item.plate && m.result === 'in-order') await checkPlate(tx, machine, m.plate)
  const before = await tx.query<{ result: string; reading: number | null; at: Date; device: string }>(
    'select result, reading, at, device from inspection_entry where inspection = $1 and item = $2 for update',
    [inspection.id, m.item],
  )
  const other = before.rows[0]
  if (
    other &&
    other.device !== m.device &&
    (other.result !== m.result || other.reading !== m.reading) &&
    m.replaces !== other.at.toISOString()
  ) {
    throw new Problem(
      409,
      'entered-elsewhere',
      `“${item.label}” was entered as ${other.result === 'defect' ? 'a defect' : other.result.replace('-', ' ')} on another device. Look again and say which stands.`,
      'item',
    )
  }
  const { at, off_s } = trueMoment(req, m.at)
  await tx.query(
    `insert into inspection_entry (org, shift, inspection, machine, item, result, reading, at, device, because) values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10)
     on conflict (org, inspection, item) do update set result = excluded.result, reading = excluded.reading, at = excluded.at,
       device = excluded.device, because = excluded.because`,
    [tx.who.org, shift, inspection.id, s.machine, m.item, m.result, m.reading, at, m.device, m.because],
  )
  const entry = { ...entryIn(m), at }
  await record(
    tx,
    shift,
    { kind: 'inspection-entry', inspection: inspection.id, entry },
    { ...entry, inspection: inspection.id, ...(off_s === 0 ? {} : { clockOff_s: off_s }) },
  )
  return { saved: m.item, at }
}

/** What is left of a walk-round; the raised part of the one before use by itself. */
async function finish(tx: Tx, b: z.output<typeof finishInspectionRequest>, shift: string) {
  const { machine } = await ownOpenShift(tx, shift)
  const inspection = await inspectionOf(tx, shift, b.inspection)
  const all = itemsOf((await machineNamed(tx, machine)).walkround, inspection.occasion)
  const split = inspection.occasion === 'pre-use'
  if (inspection.finished && b.part !== 'raised') throw new Problem(409, 'wrong-state', 'This walk-round is finished already.')
  if (inspection.raised && b.part === 'raised') throw new Problem(409, 'wrong-state', 'This part is finished already.')
  const wanted = all.filter((x) => !split || isRaised(x) === (b.part === 'raised'))
  const marked = await tx.query<{ item: string; result: string; at: Date }>(
    'select item, result, at from inspection_entry where inspection = $1',
    [inspection.id],
  )
  const done = new Set(marked.rows.map((r) => r.item))
  const open = wanted.find((x) => !done.has(x.item.id))
  if (open) throw new Problem(422, 'not-walked', `Not looked at yet: ${open.item.label} (${open.zone.label}).`, 'items')
  const bare = await tx.query<{ item: string }>(
    "select w.item from inspection_entry w where w.inspection = $1 and w.result = 'defect' and not exists (select from defect d where d.org = w.org and d.shift = w.shift and d.item = w.item)",
    [inspection.id],
  )
  const unexplained = all.find((x) => x.item.id === bare.rows[0]?.item)
  if (unexplained) throw new Problem(422, 'defect-not-said', `Say what is wrong with “${unexplained.item.label}” first.`, 'items')
  const own = marked.rows.filter((r) => wanted.some((x) => x.item.id === r.item))
  if (split && b.part === 'raised') {
    await tx.query('update inspection set raised_at = now() where id = $1', [inspection.id])
    const event = { kind: 'inspection-finished' as const, inspection: inspection.id, part: b.part }
    await record(tx, shift, event, { machine, part: 'raised', items: own.length })
    return readShift(tx, shift)
  }
  const times = own.map((r) => r.at.getTime())
  await tx.query(
    'update inspection set finished_at = now(), hands_on_at = null, items = $2, defects = $3, duration_s = $4 where id = $1',
    [
      inspection.id,
      own.length,
      own.filter((r) => r.result === 'defect').length,
      times.length > 0 ? (Math.max(...times) - Math.min(...times)) / 1000 : 0,
    ],
  )
  if (inspection.occasion === 'pre-use') await dailyDone(tx, machine, shift)
  const event = { kind: 'inspection-finished' as const, inspection: inspection.id, part: 'first' as const }
  await record(tx, shift, event, { machine, occasion: inspection.occasion, items: own.length })
  return readShift(tx, shift)
}

/** The walk-round before use is what a daily duty asks for. */
async function dailyDone(tx: Tx, id: string, shift: string): Promise<void> {
  for (const d of (await machineNamed(tx, id)).duties.filter((x) => x.kind === 'daily')) {
    await tx.query(
      'insert into duty_done (org, id, machine, duty, done_on, by, words) values ($1, gen_random_uuid(), $2, $3, now(), $4, $5)',
      [tx.who.org, id, d.id, tx.who.person, 'By the walk-round'],
    )
    await tx.journal('duty-done', shift, { machine: id, duty: d.label })
  }
}

/** One entry an item, saved as it is tapped. */
export function walkroundRoutes(db: Database): Router {
  const router = Router()
  router.post(
    '/shifts/:id/entries',
    writes(db, inspectionEntryRequest, (tx, m, req) => enter(tx, m, uuidParam(req), req)),
  )
  router.post(
    '/shifts/:id/inspections/finish',
    writes(db, finishInspectionRequest, (tx, b, req) => finish(tx, b, uuidParam(req))),
  )
  router.post(
    '/shifts/:id/inspections',
    writes(db, openInspectionRequest, async (tx, b, req) => {
      const id = uuidParam(req)
      const s = await ownOpenShift(tx, id)
      if (b.occasion === 'pre-use')
        throw new Problem(409, 'wrong-state', 'The walk-round before use belongs to the shift already.', 'occasion')
      const open = await tx.query('select from inspection where shift = $1 and occasion = $2 and finished_at is null', [
        id,
        b.occasion,
      ])
      if (open.rowCount) throw new Problem(409, 'wrong-state', 'Such a walk-round is under way already; finish it.', 'occasion')
      if (itemsOf((await machineNamed(tx, s.machine)).walkround, b.occasion).length === 0) {
        throw new Problem(422, 'no-items', 'This machine’s walk-round has nothing for this occasion.', 'occasion')
      }
      await tx.query('insert into inspection (org, id, shift, machine, occasion, by) values ($1, $2, $3, $4, $5, $6)', [
        tx.who.org,
        b.id,
        id,
        s.machine,
        b.occasion,
        tx.who.person,
      ])
      const event = { kind: 'inspection-opened' as const, inspection: b.id, occasion: b.occasion }
      await record(tx, id, event, { machine: s.machine, occasion: b.occasion })
      return readShift(tx, id)
    }),
  )
  router.post(
    '/shifts/:id/hands-on',
    writes(db, handsOnRequest, async (tx, b, req) => {
      const id = uuidParam(req)
      const s = await ownOpenShift(tx, id)
      const { id: inspection } = await inspectionOf(tx, id, b.inspection)
      await tx.query(`update inspection set hands_on_at = ${b.on ? 'coalesce(hands_on_at, now())' : 'null'} where id = $1`, [
        inspection,
      ])
      await record(tx, id, { kind: b.on ? 'hands-on' : 'hands-off', inspection }, { machine: s.machine })
      return readShift(tx, id)
    }),
  )
  return router
}
