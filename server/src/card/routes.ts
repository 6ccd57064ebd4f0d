import { Router } from 'express'
import { z } from 'zod'
import type { CalcPool } from '../calc/pool'
import type { Database } from '../db/database'
import { reads, uuidParam, whoOf, writes } from '../http/routes'
import { machineNamed } from '../library/machine'
import { readMe } from '../session/session'
import { readShift } from '../shift/read'
import { liftCard } from './card'
import { exportShift, importShift, listImported, readImported } from './file'
import type { SigningKey } from './signing'

export function cardRoutes(db: Database, key: SigningKey, pool: CalcPool): Router {
  const router = Router()
  router.get('/shifts/:id/card.pdf', async (req, res) => {
    const { shift, machine, organisation } = await db.as(whoOf(req), async (tx) => {
      const found = await readShift(tx, uuidParam(req))
      return {
        shift: found,
        machine: await machineNamed(tx, found.machine.id),
        organisation: (await readMe(tx)).organisation.name,
      }
    })
    res.type('application/pdf').setHeader('Content-Disposition', `inline; filename="lift-card-${shift.machine.id}.pdf"`)
    liftCard(shift, machine, organisation).pipe(res)
  })
  router.get(
    '/shifts/:id/export',
    reads(db, (tx, req) => exportShift(tx, uuidParam(req), key)),
  )
  router.post(
    '/shift-files',
    writes(db, z.unknown(), (tx, body) => importShift(tx, body, pool)),
  )
  router.get(
    '/imported-shifts',
    reads(db, (tx, req) => listImported(tx, req, key)),
  )
  router.get(
    '/imported-shifts/:id',
    reads(db, (tx, req) => readImported(tx, uuidParam(req))),
  )
  return router
}
