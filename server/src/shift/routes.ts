import { noteSumRequest, openShiftRequest } from '@geolabe/contract'
import { barsTo, calculatorNamed, isRefusal } from '@geolabe/core'
import { Router } from 'express'
import type { z } from 'zod'
import type { Database, Tx } from '../db/database'
import { Problem } from '../http/problem'
import { notFound, reads, uuidParam, writes } from '../http/routes'
import { readMe } from '../session/session'
import { machineNamed, placeNamed, readMachine } from '../yard/yard'
import { requireAll } from './confirmed'
import { listShifts, ownOpenShift, readShift } from './read'

const isoToday = () => new Date().toISOString().slice(0, 10)

async function open(tx: Tx, b: z.output<typeof openShiftRequest>) {
  const machine = await machineNamed(tx, b.machine)
  await placeNamed(tx, b.place)
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
  const bars = barsTo(me, machine, isoToday())
  if (bars.length > 0) throw new Problem(403, 'may-not-operate', `${me.name} may not operate ${machine.name} today.`, '', bars)
  requireAll(machine.wear, b.wear, 'wear')
  requireAll(machine.papers, b.papers, 'papers')
  await tx.query(
    'insert into shift (org, id, machine, machine_revision, place, operator, sign_on) values ($1, $2, $3, $4, $5, $6, $7)',
    [tx.who.org, b.id, b.machine, machine.revision, b.place, tx.who.person, JSON.stringify({ wear: b.wear, papers: b.papers })],
  )
  await tx.journal('shift-opened', b.id, { machine: b.machine, place: b.place, wear: b.wear, papers: b.papers })
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
    '/shifts/:id/sums',
    writes(db, noteSumRequest, async (tx, b, req) => {
      const id = uuidParam(req)
      await ownOpenShift(tx, id)
      const calculator = calculatorNamed(b.calculator)
      if (!calculator) throw notFound('This calculator')
      // Worked out here again: the record holds what the figures say, not what a screen said.
      const output = calculator.run(b.input)
      if (isRefusal(output)) throw new Problem(422, output.error.code, output.error.message, `input.${output.error.path}`)
      await tx.journal('sum-noted', id, { calculator: b.calculator, input: b.input, output })
      return { calculator: b.calculator }
    }),
  )
  return router
}
