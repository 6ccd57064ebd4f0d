import { setupRequest } from '@geolabe/contract'
import { liftsOnHook, type Machine, partOfPlan, Refusal, type SetupPlan, supportOf } from '@geolabe/core'
import { Router } from 'express'
import type { Database } from '../db/database'
import { uuidParam, writes } from '../http/routes'
import { Problem } from '../problem/problem'
import { requireOrder } from '../shift/order'
import { readShift } from '../shift/read'
import { requireReady } from '../shift/ready'
import { record } from '../shift/record'

/** A set-up on what this machine has not would be a record of nothing, and no screen could draw it. */
function requireStand(machine: Machine, standing: SetupPlan['standing']): void {
  if (!liftsOnHook(machine)) return
  try {
    supportOf(machine, standing)
  } catch (e) {
    if (e instanceof Refusal && e.body.error.code === 'unknown-state')
      throw new Problem(422, e.body.error.code, e.body.error.message, 'plan.standing.on')
  }
}

/** How the machine stands, recorded once the order of setting up has come to its goal. */
export function setupRoutes(db: Database): Router {
  const router = Router()
  router.post(
    '/shifts/:id/setups',
    writes(db, setupRequest, async (tx, b, req) => {
      const id = uuidParam(req)
      const s = await requireReady(tx, id, 'set-up')
      if (b.plan.place !== s.place)
        throw new Problem(422, 'other-place', 'This set-up is for another place than the shift’s.', 'plan.place')
      requireStand(s.definition, b.plan.standing)
      await requireOrder(tx, { id, ...s }, ['setup'], partOfPlan(b.plan))
      await tx.query('insert into setup (org, id, shift, plan) values ($1, $2, $3, $4)', [
        tx.who.org,
        b.id,
        id,
        JSON.stringify(b.plan),
      ])
      await record(tx, id, { kind: 'setup-recorded', setup: b }, { setup: b.id, plan: b.plan })
      return readShift(tx, id)
    }),
  )
  return router
}
