import type { OrderCheck } from '@geolabe/contract'
import {
  type ProcedureFinding,
  parseOrRefuse,
  procedureFile,
  procedurePieces,
  procedureSource,
  stepsOfFile,
  writtenFlat,
} from '@geolabe/core'
import { Router } from 'express'
import { z } from 'zod'
import type { SlowWork } from '../calc/pool'
import type { Database } from '../db/database'
import { whoOf } from '../http/routes'
import { machineNamed } from '../library/machine'
import { Problem } from '../problem/problem'
import { readMe } from '../session/session'
import { orderOnPaper } from './order-paper'

const checked = z.strictObject({ file: procedureSource, pieces: procedurePieces.optional() })
const none = { format: 'geolabe.procedure-pieces/1' as const, pieces: [] }

/**
 * An order of work as somebody has written it, looked through before it is taken in: every finding with its shortest story. Nothing is saved. A file
 * that does not read is refused with the place. And the order in force, on paper.
 */
export function orderFileRoutes(db: Database, work: SlowWork): Router {
  const router = Router()
  router.post('/machines/:id/procedures/check', async (req, res) => {
    const { file, pieces } = parseOrRefuse(checked, req.body ?? {})
    const machine = await db.as(whoOf(req), (tx) => machineNamed(tx, String(req.params.id)))
    if (file.machine !== machine.id)
      throw new Problem(422, 'bad-input', `This is the order of “${file.machine}”, not of ${machine.name}.`, 'file.machine')
    const flat = parseOrRefuse(procedureFile, writtenFlat(file, pieces ?? none))
    const findings = await work<ProcedureFinding[]>({ order: flat })
    if (!findings) throw new Error('Looking through an order failed; see the log.')
    const { states, invariants } = flat
    const answer: OrderCheck = { findings, steps: stepsOfFile(flat).length, states: states.length, nevers: invariants.length }
    res.json(answer)
  })
  router.get('/machines/:id/order.pdf', async (req, res) => {
    const { machine, organisation } = await db.as(whoOf(req), async (tx) => {
      const { organisation } = await readMe(tx)
      return { machine: await machineNamed(tx, String(req.params.id)), organisation: organisation.name }
    })
    res.type('application/pdf').setHeader('Content-Disposition', `inline; filename="order-${machine.id}.pdf"`)
    orderOnPaper(machine, organisation).pipe(res)
  })
  return router
}
