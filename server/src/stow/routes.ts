import { handOverRequest } from '@geolabe/contract'
import { itemsOf, type Machine } from '@geolabe/core'
import { Router } from 'express'
import type { Database, Tx } from '../db/database'
import { Problem } from '../http/problem'
import { uuidParam, writes } from '../http/routes'
import { requireProcedure } from '../shift/confirmed'
import { ownOpenShift, readShift } from '../shift/read'
import { machineNamed, readMachine } from '../yard/yard'

/** Stow and hand over: the steps in order, the hours, words for the next person. Closes the shift. */
export function stowRoutes(db: Database): Router {
  const router = Router()
  router.post(
    '/shifts/:id/hand-over',
    writes(db, handOverRequest, async (tx, b, req) => {
      const id = uuidParam(req)
      const s = await ownOpenShift(tx, id)
      const waiting = await tx.query('select from lift where shift = $1 and outcome is null limit 1', [id])
      if (waiting.rowCount) throw new Problem(409, 'lift-waiting', 'A proven lift waits for how it ended. Record that first.')
      const machine = await machineNamed(tx, s.machine)
      requireProcedure(machine.procedures.stow, b.steps, 'steps')
      if (itemsOf(machine.walkround, 'end').length > 0) {
        const round = await tx.query("select from inspection where shift = $1 and time = 'end' and finished_at is not null", [id])
        if (!round.rowCount) throw new Problem(409, 'not-walked', 'Walk round once more before you hand over.')
      }
      if (machine.hours) await requireHours(tx, s.machine, machine, b.hours)
      await tx.query('update shift set closed_at = now(), hand_over = $2 where id = $1', [
        id,
        JSON.stringify({ ...b, at: new Date().toISOString() }),
      ])
      await tx.query('update inspection set hands_on_at = null where shift = $1', [id])
      await tx.journal('shift-closed', id, { machine: s.machine, ...b })
      return readShift(tx, id)
    }),
  )
  return router
}

async function requireHours(tx: Tx, id: string, machine: Machine, hours: number | null) {
  if (hours === null) throw new Problem(422, 'no-hours', `Read the ${machine.hours?.label.toLowerCase()}.`, 'hours')
  const last = (await readMachine(tx, id)).state.hours
  if (last !== null && hours < last)
    throw new Problem(422, 'hours-fell', `The last reading was ${last}; hours never go back. Read the meter again.`, 'hours')
  if (last !== null && hours > last + 72)
    throw new Problem(
      422,
      'hours-leapt',
      `${hours} is more than three days past the last reading of ${last}. Read the meter again.`,
      'hours',
    )
}
