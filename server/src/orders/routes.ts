import { checkOrderRequest, type OrderCheck, writeOrderRequest } from '@geolabe/contract'
import {
  type Machine,
  type ProcedureFile,
  type ProcedureFinding,
  type ProcedurePieces,
  type ProcedureSource,
  parseOrRefuse,
  procedurePieces,
  procedureSource,
  stepsOfFile,
  writtenFlat,
} from '@geolabe/core'
import { Router } from 'express'
import { z } from 'zod'
import type { SlowWork } from '../calc/pool'
import type { Database } from '../db/database'
import { keyOf, reads, requireRole, whoOf, writes } from '../http/routes'
import { machineNamed } from '../library/machine'
import { Problem } from '../problem/problem'
import { readMe } from '../session/session'
import { orderOnPaper } from './paper'
import { check, machineWith, readOrders, write } from './written'

const checked = z.strictObject({ file: procedureSource, pieces: procedurePieces.optional() })
const none = { format: 'geolabe.procedure-pieces/1' as const, pieces: [] }

/** An order as it is written, in one flat file, on the machine that it is for. @throws Problem where it is another machine’s, Refusal where it does not read */
function flatFor(machine: Machine, file: ProcedureSource, pieces: ProcedurePieces | undefined): ProcedureFile {
  if (file.machine !== machine.id)
    throw new Problem(422, 'bad-input', `This is the order of “${file.machine}”, not of ${machine.name}.`, 'file.machine')
  return machineWith(machine, writtenFlat(file, pieces ?? none)).procedures
}

/**
 * Orders of work as files: in force, on paper, looked through with every finding and its shortest story, written anew by an administrator and put in
 * force by the person in charge. One with a finding is not taken in; a file that does not read is refused with the place.
 */
export function orderFileRoutes(db: Database, work: SlowWork): Router {
  const router = Router()
  const lookedThrough = async (order: ProcedureFile) => {
    const findings = await work<ProcedureFinding[]>({ order })
    if (!findings) throw new Error('Looking through an order failed; see the log.')
    return findings
  }
  router.get(
    '/machines/:id/procedures',
    reads(db, (tx, req) => readOrders(tx, String(req.params.id))),
  )
  router.get('/machines/:id/procedures.json', async (req, res) => {
    const { machine, order } = await db.as(whoOf(req), (tx) => readOrders(tx, String(req.params.id)))
    res.setHeader('Content-Disposition', `attachment; filename="order-${machine}.json"`)
    res.json({ format: 'geolabe.procedure/1', machine, ...order })
  })
  router.post('/machines/:id/procedures/check', async (req, res) => {
    const { file, pieces } = parseOrRefuse(checked, req.body ?? {})
    const machine = await db.as(whoOf(req), (tx) => machineNamed(tx, String(req.params.id)))
    const flat = flatFor(machine, file, pieces)
    const findings = await lookedThrough(flat)
    const { states, invariants } = flat
    const answer: OrderCheck = { findings, steps: stepsOfFile(flat).length, states: states.length, nevers: invariants.length }
    res.json(answer)
  })
  router.post('/machines/:id/procedures', async (req, res) => {
    keyOf(req)
    // Looked through before anything is written: it takes seconds, and no transaction waits for it.
    const { file, pieces } = parseOrRefuse(writeOrderRequest, req.body ?? {})
    const machine = await db.as(whoOf(req), async (tx) => {
      await requireRole(tx, 'administrator', 'An administrator writes an order of work; the person in charge puts it in force.')
      return machineNamed(tx, String(req.params.id))
    })
    const order = flatFor(machine, file, pieces)
    const [found, ...more] = await lookedThrough(order)
    if (found) {
      const story = found.story.length > 0 ? ` It comes to it so: ${found.story.join(' → ')}.` : ''
      const others = more.length > 0 ? ` And ${more.length} more.` : ''
      throw new Problem(422, `file-refused:${found.code}`, `${found.words}${story}${others}`, `file.${found.path}`)
    }
    await writes(db, writeOrderRequest, (tx, { id, from, why }) => write(tx, machine.id, { id, from, why, order }))(req, res)
  })
  router.post(
    '/machines/:id/procedures/written',
    writes(db, checkOrderRequest, (tx, b, req) => check(tx, String(req.params.id), b)),
  )
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
