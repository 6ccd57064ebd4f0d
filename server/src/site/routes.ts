import { siteRecord } from '@geolabe/core'
import { Router } from 'express'
import type { Database } from '../db/database'
import { uuidParam, writes } from '../http/routes'
import { placeNamed } from '../library/place'
import { Problem } from '../problem/problem'
import { ownOpenShift, readShift } from '../shift/read'
import { record } from '../shift/record'

/** What the team found at the site: each hazard with its control, or not fit for the job. */
export function siteRoutes(db: Database): Router {
  const router = Router()
  router.post(
    '/shifts/:id/site',
    writes(db, siteRecord, async (tx, site, req) => {
      const id = uuidParam(req)
      const { place } = await ownOpenShift(tx, id)
      const hazards = (await placeNamed(tx, place)).hazards
      const uncontrolled = hazards.find((h) => !site.controls.some((c) => c.hazard === h.id))
      if (site.fit && uncontrolled)
        throw new Problem(422, 'no-control', `No control agreed for: ${uncontrolled.label}.`, 'controls')
      await tx.query('update shift set site = $2 where id = $1', [id, JSON.stringify({ ...site, at: new Date().toISOString() })])
      await record(tx, id, { kind: 'site-recorded', site }, site)
      return readShift(tx, id)
    }),
  )
  return router
}
