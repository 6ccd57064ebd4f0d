import { outcomeRequest } from '@geolabe/contract'
import { Router } from 'express'
import type { Database } from '../db/database'
import { notFound, uuidParam, writes } from '../http/routes'
import { Problem } from '../problem/problem'
import { requireOrder } from '../shift/order'
import { ownOpenShift, readShift } from '../shift/read'
import { requireReady } from '../shift/ready'
import { record } from '../shift/record'

/** How a proven lift ended: done, or abandoned and why. */
export function liftRoutes(db: Database): Router {
  const router = Router()
  router.post(
    '/shifts/:id/lifts/:lift/outcome',
    writes(db, outcomeRequest, async (tx, b, req) => {
      const [id, lift] = [uuidParam(req), uuidParam(req, 'lift')]
      await ownOpenShift(tx, id)
      const r = await tx.query<{
        verdict: string
        done: boolean
        current: boolean
      }>(
        "select assessment->>'verdict' as verdict, outcome is not null as done, setup = (select u.id from setup u join shift s on s.org = u.org and s.id = u.shift where u.org = lift.org and u.shift = lift.shift and (s.moved_at is null or u.at > s.moved_at) order by u.at desc, u.id limit 1) as current from lift where id = $1 and shift = $2",
        [lift, id],
      )
      const row = r.rows[0]
      if (!row) throw notFound('This lift')
      if (row.done) throw new Problem(409, 'wrong-state', 'This lift is recorded already.')
      if (b.outcome === 'done') {
        const ready = await requireReady(tx, id, 'lift')
        if (row.current !== true)
          throw new Problem(409, 'set-up-changed', 'The machine has been set up anew since this lift was proved. Prove it again.')
        if (row.verdict !== 'inside' && row.verdict !== 'near') {
          throw new Problem(
            409,
            'not-inside',
            'This lift is not proven inside its limits; it can only be abandoned, or proved anew.',
          )
        }
        // What was lost since it was set up, as by leaving it for a while, is put right first.
        await requireOrder(tx, { id, ...ready }, ['setup', 'lift'])
      }
      await tx.query('update lift set outcome = $2 where id = $1', [lift, JSON.stringify({ ...b, at: new Date().toISOString() })])
      await record(tx, id, { kind: 'lift-outcome', lift, outcome: b }, { lift, ...b })
      return readShift(tx, id)
    }),
  )
  return router
}
