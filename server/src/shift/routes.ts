import { moveRequest, noteCalculationRequest, openShiftRequest } from '@geolabe/contract'
import { calculatorNamed, isRefusal } from '@geolabe/core'
import { Router } from 'express'
import { z } from 'zod'
import type { Database, Tx } from '../db/database'
import { notFound, reads, requireRole, uuidParam, writes } from '../http/routes'
import { holdMachine, machineNamed } from '../library/machine'
import { placeNamed } from '../library/place'
import { practiceOf } from '../practice/practised'
import { Problem } from '../problem/problem'
import { readMe } from '../session/session'
import { readMachine } from '../yard/yard'
import { requireAll } from './confirmed'
import { listShifts, ownOpenShift, readShift } from './read'
import { record } from './record'
import { refusalsToTake } from './taking'

const isoToday = () => new Date().toISOString().slice(0, 10)

async function open(tx: Tx, b: z.output<typeof openShiftRequest>) {
  await holdMachine(tx, b.machine)
  const machine = await machineNamed(tx, b.machine)
  const place = await placeNamed(tx, b.place)
  const { policy } = place
  const me = await readMe(tx)
  const file = await readMachine(tx, b.machine)
  // Said with its reason; the database refuses the same, whoever comes at the same moment.
  const practice = await practiceOf(tx, machine)
  const [bar] = refusalsToTake({ machine, state: file.state, due: file.due, practice }, me, policy, isoToday())
  if (bar) throw new Problem(bar.status, bar.code, bar.why, '', bar.details)
  const others = await tx.query<{ name: string }>(
    "select m.document->>'name' as name from shift s join machine m on m.org = s.org and m.id = s.machine where s.operator = $1 and s.closed_at is null order by 1",
    [tx.who.person],
  )
  if (others.rows.length > 0 && policy.severalMachines === 'refuse') {
    throw new Problem(
      409,
      'has-another',
      `You have ${others.rows.map((o) => o.name).join(', ')} already. Hand over first; this site has one machine a person.`,
    )
  }
  requireAll(machine.ppe, b.ppe, 'ppe')
  requireAll(machine.documents, b.documents, 'documents')
  await tx.query(
    'insert into shift (org, id, machine, machine_revision, walkround_revision, order_revision, place, operator, sign_on) values ($1, $2, $3, $4, $5, $6, $7, $8, $9)',
    [
      tx.who.org,
      b.id,
      b.machine,
      machine.revision,
      file.walkroundRevision,
      file.orderRevision,
      b.place,
      tx.who.person,
      JSON.stringify({ ppe: b.ppe, documents: b.documents }),
    ],
  )
  await tx.query("insert into inspection (org, id, shift, machine, occasion, by) values ($1, $2, $2, $3, 'pre-use', $4)", [
    tx.who.org,
    b.id,
    b.machine,
    tx.who.person,
  ])
  const signOn = { ppe: b.ppe, documents: b.documents }
  const opened = {
    kind: 'shift-opened' as const,
    shift: b.id,
    machine: { id: machine.id, name: machine.name, revision: machine.revision },
    place: { id: place.id, name: place.name },
    signOn,
  }
  await record(tx, b.id, opened, { machine: b.machine, place: b.place, ...signOn })
  // The walk-round before use begins with the shift, and carries its id.
  const inspection = { kind: 'inspection-opened' as const, inspection: b.id, occasion: 'pre-use' as const }
  await record(tx, b.id, inspection, { machine: b.machine, occasion: 'pre-use' })
  return readShift(tx, b.id)
}

/** Shifts: a person, a machine, a place, a day. */
export function shiftRoutes(db: Database): Router {
  const router = Router()
  router.get('/shifts', reads(db, listShifts))
  router.get(
    '/shifts/:id',
    reads(db, (tx, req) => readShift(tx, uuidParam(req))),
  )
  router.post('/shifts', writes(db, openShiftRequest, open))
  router.post(
    '/shifts/:id/calculations',
    writes(db, noteCalculationRequest, async (tx, b, req) => {
      const id = uuidParam(req)
      await ownOpenShift(tx, id)
      const calculator = calculatorNamed(b.calculator)
      if (!calculator) throw notFound('This calculator')
      // Worked out here again: the record holds what the figures say, not what a screen said.
      const output = calculator.run(b.input)
      if (isRefusal(output)) throw new Problem(422, output.error.code, output.error.message, `input.${output.error.path}`)
      await tx.journal('calculation-noted', id, { calculator: b.calculator, input: b.input, output })
      return { calculator: b.calculator }
    }),
  )
  // It stands somewhere else now: site, set-up and what was proved raised are asked anew.
  router.post(
    '/shifts/:id/moves',
    writes(db, moveRequest, async (tx, b, req) => {
      const id = uuidParam(req)
      const s = await ownOpenShift(tx, id)
      const place = await placeNamed(tx, b.place)
      const waiting = await tx.query('select from lift where shift = $1 and outcome is null limit 1', [id])
      if (waiting.rowCount)
        throw new Problem(409, 'lift-waiting', 'A proven lift waits for how it ended. Record that before the machine moves.')
      await tx.query('update shift set place = $2, site = null, moved_at = now() where id = $1', [id, b.place])
      await tx.query('update inspection set raised_at = null where id = $1', [id])
      const moved = { kind: 'machine-moved' as const, place: { id: place.id, name: place.name }, words: b.words }
      await record(tx, id, moved, { machine: s.machine, from: s.place, to: b.place, words: b.words })
      return readShift(tx, id)
    }),
  )
  router.post(
    '/overrides/:id/followed',
    writes(db, z.strictObject({}), async (tx, _b, req) => {
      const id = uuidParam(req)
      const found = await tx.query<{ follow_role: string; by: string; done: boolean }>(
        'select follow_role, by, followed_at is not null as done from override_use where id = $1',
        [id],
      )
      const use = found.rows[0]
      if (!use) throw notFound('This override')
      if (use.done) throw new Problem(409, 'wrong-state', 'What had to follow is recorded already.')
      await requireRole(tx, use.follow_role, `What follows is the part of the ${use.follow_role.replaceAll('-', ' ')}.`)
      if (use.by === tx.who.person)
        throw new Problem(403, 'own-override', 'You used this override; somebody else says that what follows is done.')
      const r = await tx.query<{ shift: string; machine: string; after: string }>(
        'update override_use set followed_at = now(), followed_by = $2 where id = $1 returning shift, machine, after',
        [id, tx.who.person],
      )
      const row = r.rows[0] as { shift: string; machine: string; after: string }
      await record(tx, row.shift, { kind: 'override-followed', use: id }, { machine: row.machine, after: row.after })
      return { machine: row.machine }
    }),
  )
  return router
}
