import { isDrawn, liftsOnHook, planDrawing, svgOf } from '@geolabe/core'
import { Router } from 'express'
import { z } from 'zod'
import type { CalcPool } from '../calc/pool'
import type { Database } from '../db/database'
import { reads, uuidParam, whoOf, writes } from '../http/routes'
import type { SigningKey } from '../key/signing'
import { machineNamed } from '../library/machine'
import { Problem } from '../problem/problem'
import { readMe } from '../session/session'
import { readShift } from '../shift/read'
import { liftCard } from './card'
import { exportShift, importShift, listImported, readImported } from './file'
import { dxfOf, planPage } from './plan'
import { liftTaken } from './taken'

const formats = z.enum(['svg', 'dxf', 'pdf'])

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
  router.get('/shifts/:id/lifts/:lift/plan.:format', async (req, res) => {
    const format = formats.safeParse(req.params.format).data
    if (!format) throw new Problem(404, 'not-found', 'A plan comes as svg, dxf or pdf.', 'format')
    const taken = await db.as(whoOf(req), (tx) => liftTaken(tx, uuidParam(req), uuidParam(req, 'lift')))
    const { machine, place, lift } = taken
    if (!liftsOnHook(machine) || !isDrawn(lift))
      throw new Problem(409, 'not-drawn', `${machine.name} is not drawn as a plan yet.`, 'machine')
    const title = `${machine.name} at ${place.name}: ${lift.hung.load.name || 'the load'}`
    const drawing = planDrawing({ ...taken, machine, title })
    res.setHeader('Content-Disposition', `attachment; filename="plan-${machine.id}.${format}"`)
    if (format === 'pdf') planPage(drawing).pipe(res.type('application/pdf'))
    else if (format === 'dxf') res.type('image/vnd.dxf').send(dxfOf(drawing))
    else res.type('image/svg+xml').send(svgOf(drawing))
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
