import { randomUUID, timingSafeEqual } from 'node:crypto'
import type { SecondCode } from '@geolabe/contract'
import type { World } from '@geolabe/core'
import { type Request, Router } from 'express'
import { z } from 'zod'
import type { Database, Tx } from '../db/database'
import { uuidParam, whoOf, writes } from '../http/routes'
import type { Sealing } from '../key/sealing'
import { machineNamed } from '../library/machine'
import { Problem } from '../problem/problem'
import { readMe } from '../session/session'
import { standing, takeIn } from './order'
import { openShift, ownOpenShift } from './read'

/** The step that waits for its second person, and what its code is made of: of this one act, at this moment. */
function waitingIn(shift: string, world: World) {
  const { waiting } = world
  if (!waiting) throw new Problem(409, 'not-permitted', 'No step waits for a second person now.')
  return { step: waiting.step, of: `${shift}/${waiting.step}/${waiting.at_ms}/${waiting.by.id}` }
}

const same = (a: string, b: string) => a.length === b.length && timingSafeEqual(Buffer.from(a), Buffer.from(b))

/**
 * Two people, two devices: who acts shows six figures, who watches enters them on their own device, under their own name. The figures are of one step
 * and one moment, and are worth nothing for another.
 */
export function secondCodeRoutes(
  db: Database,
  sealing: Sealing,
  takeTry: (req: Request) => Promise<() => Promise<unknown>>,
): Router {
  const router = Router()
  const worldOf = async (tx: Tx, id: string, s: { machine: string; place: string }) =>
    standing(tx, id, await machineNamed(tx, s.machine), s.place)
  router.post('/shifts/:id/second-codes', async (req, res) => {
    const id = uuidParam(req)
    const answer = await db.as(whoOf(req), async (tx): Promise<SecondCode> => {
      const { world } = await worldOf(tx, id, await ownOpenShift(tx, id))
      const { step, of } = waitingIn(id, world)
      return { step, code: sealing.code(of) }
    })
    res.json(answer)
  })
  router.post(
    '/shifts/:id/second-codes/:code',
    writes(db, z.strictObject({}), async (tx, _b, req) => {
      const giveBack = await takeTry(req)
      const id = uuidParam(req)
      const s = await openShift(tx, id)
      const stood = await worldOf(tx, id, s)
      const { step, of } = waitingIn(id, stood.world)
      if (!same(sealing.code(of), String(req.params.code)))
        throw new Problem(
          403,
          'needs-second',
          'That is not the code of the step that waits. Read it again at the machine.',
          'code',
        )
      await giveBack()
      const { id: person, name } = await readMe(tx)
      const at = new Date().toISOString()
      return takeIn(tx, id, s.machine, stood, [
        { do: 'second', step, id: randomUUID(), at, by: { id: person, name }, device: '' },
      ])
    }),
  )
  return router
}
