import { moveRequest, noteCalculationRequest, openShiftRequest, overrideRequest, procedureRequest } from '@geolabe/contract'
import { calculatorNamed, impedimentsTo, isRefusal } from '@geolabe/core'
import { Router } from 'express'
import { z } from 'zod'
import type { Database, Tx } from '../db/database'
import { notFound, reads, requireRole, uuidParam, writes } from '../http/routes'
import { machineNamed } from '../library/machine'
import { placeNamed } from '../library/place'
import { Problem } from '../problem/problem'
import { readMe } from '../session/session'
import { readMachine } from '../yard/yard'
import { requireAll, requireProcedure } from './confirmed'
import { listShifts, ownOpenShift, readShift } from './read'
import { requireReady } from './ready'
import { record } from './record'

const isoToday = () => new Date().toISOString().slice(0, 10)

async function open(tx: Tx, b: z.output<typeof openShiftRequest>) {
  const machine = await machineNamed(tx, b.machine)
  const place = await placeNamed(tx, b.place)
  const { policy } = place
  const me = await readMe(tx)
  const file = await readMachine(tx, b.machine)
  // Said with its reason; the database refuses the same, whoever comes at the same moment.
  if (file.state.stoppedBy) {
    const d = file.state.stoppedBy
    throw new Problem(
      409,
      'machine-stopped',
      `${machine.name} is stopped: ${d.words} (${d.where}). The person in charge returns it to service after the repair.`,
    )
  }
  if (file.state.holder) {
    throw new Problem(
      409,
      'machine-taken',
      `${file.state.holder.person.name} has ${machine.name} at ${file.state.holder.place}. It is free when that shift is handed over.`,
    )
  }
  const impediments = impedimentsTo(me, machine, isoToday())
  if (impediments.length > 0)
    throw new Problem(403, 'may-not-operate', `${me.name} may not operate ${machine.name} today.`, '', impediments)
  const overdue = file.due.find((d) => d.kind === 'examination' && d.state === 'overdue')
  if (overdue && policy.overdueExamination !== 'tell') {
    throw new Problem(
      409,
      'examination-overdue',
      `${machine.name} is overdue for: ${overdue.label}${overdue.date ? `, due ${overdue.date}` : ''}. It is not taken until that is recorded under Due.`,
    )
  }
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
    'insert into shift (org, id, machine, machine_revision, walkround_revision, place, operator, sign_on) values ($1, $2, $3, $4, $5, $6, $7, $8)',
    [
      tx.who.org,
      b.id,
      b.machine,
      machine.revision,
      file.walkroundRevision,
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
  router.post(
    '/shifts/:id/procedures',
    writes(db, procedureRequest, async (tx, b, req) => {
      const id = uuidParam(req)
      const s = await requireReady(tx, id, b.procedure === 'lift' ? 'lift' : 'set-up')
      requireProcedure(s.definition.procedures[b.procedure], b.steps, 'steps')
      await tx.query('insert into procedure_done (org, id, shift, procedure, steps) values ($1, $2, $3, $4, $5)', [
        tx.who.org,
        b.id,
        id,
        b.procedure,
        b.steps,
      ])
      await record(tx, id, { kind: 'procedure-done', ...b }, { machine: s.machine, procedure: b.procedure, steps: b.steps })
      return readShift(tx, id)
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
    '/shifts/:id/overrides',
    writes(db, overrideRequest, async (tx, b, req) => {
      const id = uuidParam(req)
      const s = await ownOpenShift(tx, id)
      const known = (await machineNamed(tx, s.machine)).overrides.find((o) => o.id === b.override)
      if (!known) throw new Problem(422, 'unknown-override', 'This machine has no such override.', 'override')
      await tx.query(
        'insert into override_use (org, id, shift, machine, override, label, reason, seconds, after, follow_role, by) values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11)',
        [tx.who.org, b.id, id, s.machine, known.id, known.label, b.reason, b.seconds, known.after, known.by, tx.who.person],
      )
      const use = { ...b, label: known.label, after: known.after, role: known.by }
      await record(
        tx,
        id,
        { kind: 'override-used', use },
        {
          machine: s.machine,
          override: known.label,
          purpose: known.purpose,
          reason: b.reason,
          seconds: b.seconds,
          longer: b.seconds > known.most_s,
          after: known.after,
        },
      )
      // Some overrides end the machine's day by themselves.
      if (known.stops) {
        const words = `${known.label} was used: ${b.reason}. ${known.after}.`.slice(0, 2000)
        const d = await tx.query<{ id: string }>(
          "insert into defect (org, id, machine, shift, place_on_machine, words, grade, raised_grade, raised_by) values ($1, gen_random_uuid(), $2, $3, $4, $5, 'damage', 'damage', $6) returning id",
          [tx.who.org, s.machine, id, known.label, words, tx.who.person],
        )
        await tx.journal('defect-raised', d.rows[0]?.id ?? '', {
          machine: s.machine,
          where: known.label,
          words,
          grade: 'damage',
          stops: true,
        })
      }
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
