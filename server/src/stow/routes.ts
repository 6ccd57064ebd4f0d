import { handover, itemsOf, leftReason, type Machine } from '@geolabe/core'
import { Router } from 'express'
import type { z } from 'zod'
import type { Database, Tx } from '../db/database'
import { uuidParam, writes } from '../http/routes'
import { machineNamed } from '../library/machine'
import { Problem } from '../problem/problem'
import { requireOrder } from '../shift/order'
import { ownOpenShift, readShift } from '../shift/read'
import { record } from '../shift/record'
import { stopMachine } from '../shift/stop-machine'
import { readMachine } from '../yard/yard'

/** Stow and hand over: the order at its goal, the hours, words for the next person. Closes the shift. */
export function stowRoutes(db: Database): Router {
  const router = Router()
  router.post(
    '/shifts/:id/handover',
    writes(db, handover, async (tx, b, req) => {
      const id = uuidParam(req)
      const s = await ownOpenShift(tx, id)
      const machine = await machineNamed(tx, s.machine)
      if (b.leftAsItStands) await leaveAsItStands(tx, id, s.machine, b.leftAsItStands)
      else await requireStowed(tx, { id, place: s.place, definition: machine })
      if (machine.hours && !(b.leftAsItStands && b.hours === null)) await requireHours(tx, s.machine, machine, b.hours)
      await tx.query('update inspection set hands_on_at = null where shift = $1', [id])
      await record(tx, id, { kind: 'shift-closed', handover: b }, { machine: s.machine, ...b })
      await tx.query('update shift set closed_at = now(), handover = $2 where id = $1', [
        id,
        JSON.stringify({ ...b, at: new Date().toISOString() }),
      ])
      return readShift(tx, id)
    }),
  )
  return router
}

async function requireStowed(tx: Tx, shift: { id: string; place: string; definition: Machine }) {
  const waiting = await tx.query('select from lift where shift = $1 and outcome is null limit 1', [shift.id])
  if (waiting.rowCount) throw new Problem(409, 'lift-waiting', 'A proven lift waits for how it ended. Record that first.')
  await requireOrder(tx, shift, ['stow'])
  if (itemsOf(shift.definition.walkround, 'end-of-shift').length === 0) return
  const inspection = await tx.query(
    "select from inspection where shift = $1 and occasion = 'end-of-shift' and finished_at is not null",
    [shift.id],
  )
  if (!inspection.rowCount) throw new Problem(409, 'not-walked', 'Walk round once more before you hand over.')
}

type Left = NonNullable<z.output<typeof handover>['leftAsItStands']>

/**
 * Nothing is confirmed that was not done. Proven lifts that were not made are abandoned for that reason, and the machine is stopped
 * with a tag, unless a defect stops it already, until somebody has taken it back.
 */
async function leaveAsItStands(tx: Tx, shift: string, machine: string, left: Left) {
  await tx.query(
    "update lift set outcome = jsonb_build_object('outcome', 'abandoned', 'reason', $2::text, 'at', $3::text) where shift = $1 and outcome is null",
    [shift, leftReason(left.how), new Date().toISOString()],
  )
  const words = `Left as it stands. ${left.how} Made safe: ${left.madeSafe} Taken back by: ${left.takenBackBy}`
  await stopMachine(tx, machine, shift, 'Left as it stands', words)
  await tx.journal('left-as-it-stands', shift, { machine, ...left })
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
