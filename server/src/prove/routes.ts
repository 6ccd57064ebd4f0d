import { proveRequest } from '@geolabe/contract'
import { Router } from 'express'
import type { Database } from '../db/database'
import { uuidParam, writes } from '../http/routes'
import { readShift } from '../shift/read'
import { requireReady } from '../shift/ready'
import { record } from '../shift/record'
import { assessOnServer } from './assess'

/** A planned lift and what its assessment said, saved whole. */
export function proveRoutes(db: Database): Router {
  const router = Router()
  router.post(
    '/shifts/:id/lifts',
    writes(db, proveRequest, async (tx, b, req) => {
      const id = uuidParam(req)
      const s = await requireReady(tx, id, 'prove')
      const proved = await assessOnServer(tx, { id, ...s }, b)
      await tx.query(
        'insert into lift (org, id, shift, setup, plan, conditions, policy, assessment, versions) values ($1, $2, $3, $4, $5, $6, $7, $8, $9)',
        [
          tx.who.org,
          b.id,
          id,
          b.setup,
          JSON.stringify(b.plan),
          JSON.stringify(b.conditions),
          JSON.stringify(proved.policy),
          JSON.stringify(proved.assessment),
          JSON.stringify(proved.versions),
        ],
      )
      await record(
        tx,
        id,
        { kind: 'lift-proved', lift: { ...b, ...proved } },
        {
          lift: b.id,
          plan: b.plan,
          conditions: b.conditions,
          verdict: proved.assessment.verdict,
          governing: proved.assessment.governing?.id ?? null,
        },
      )
      return readShift(tx, id)
    }),
  )
  return router
}
