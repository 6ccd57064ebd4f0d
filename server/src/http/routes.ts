import { createHash } from 'node:crypto'
import { inFieldOrder } from '@geolabe/contract'
import { parseOrRefuse } from '@geolabe/core'
import type { Request, Response } from 'express'
import type { z } from 'zod'
import type { Database, Tx, Who } from '../db/database'
import { Problem } from '../problem/problem'

/** What the session guard leaves on a request. */
export interface Signed extends Request {
  who: Who
  /** Hash of the session's token. */
  session: string
}

export const whoOf = (req: Request): Who => (req as Signed).who

/** A handler that reads: signed on, in a transaction of the person's organisation. */
export const reads =
  <T>(db: Database, work: (tx: Tx, req: Request) => Promise<T>) =>
  async (req: Request, res: Response) => {
    res.json(await db.as(whoOf(req), (tx) => work(tx, req)))
  }

const uuid = /^[0-9a-f]{8}-[0-9a-f]{4}-[1-9a-f][0-9a-f]{3}-[0-9a-f]{4}-[0-9a-f]{12}$/i

/** A few figures of a PIN could be found again from a digest: none goes into one. */
const withoutPins = (key: string, value: unknown) => (key === 'pin' ? undefined : value)

/** What a write is recognised by: who sent it, where to, and every figure and word of it but PINs, in whatever order its fields come. */
export function fingerprintOf(person: string, request: string, body: unknown): string {
  return createHash('sha256')
    .update(JSON.stringify([person, request, inFieldOrder(body)], withoutPins))
    .digest('hex')
}

/**
 * The id that the client made for a write. What takes long before its write asks for it first.
 * @throws Problem `no-key`
 */
export function keyOf(req: Request): string {
  const id = req.get('idempotency-key') ?? ''
  if (uuid.test(id)) return id
  throw new Problem(400, 'no-key', 'A write needs an Idempotency-Key: a UUID made by the client.', 'Idempotency-Key')
}

/**
 * A handler that writes. The client makes an id for every write (header Idempotency-Key) and may send it as often as it
 * needs to: what was answered the first time is answered again, and nothing is done twice. The answer is stored in the
 * same transaction as what it tells of. The same id with anything else, or from anybody else, is refused: it would vanish.
 */
export const writes =
  <S extends z.ZodType, T>(db: Database, schema: S, work: (tx: Tx, body: z.output<S>, req: Request) => Promise<T>) =>
  async (req: Request, res: Response) => {
    const id = keyOf(req)
    const body = parseOrRefuse(schema, req.body ?? {})
    const request = `${req.method} ${req.originalUrl}`
    const answer = await db.as(whoOf(req), async (tx) => {
      const fingerprint = fingerprintOf(tx.who.person, request, req.body ?? {})
      const first = await tx.query(
        'insert into applied (org, id, request, fingerprint) values ($1, $2, $3, $4) on conflict do nothing',
        [tx.who.org, id, request, fingerprint],
      )
      if (first.rowCount === 0) {
        const before = await tx.query<{ fingerprint: string; answer: unknown }>(
          'select fingerprint, answer from applied where org = $1 and id = $2',
          [tx.who.org, id],
        )
        if (before.rows[0]?.fingerprint !== fingerprint)
          throw new Problem(
            409,
            'key-used',
            'This Idempotency-Key belongs to another write, or to somebody else’s. Nothing was recorded; send it again under a new one.',
            'Idempotency-Key',
          )
        return before.rows[0].answer
      }
      const done = (await work(tx, body, req)) ?? {}
      await tx.query('update applied set answer = $3, status = 200 where org = $1 and id = $2', [
        tx.who.org,
        id,
        JSON.stringify(done),
      ])
      return done
    })
    res.json(answer)
  }

/** A device's clock that is off by less than this is taken as it is. */
const clockSlack_ms = 5 * 60_000

/**
 * A moment that a device noted, set right by how far its clock was off when it sent it (header X-Geolabe-Clock): what was
 * entered hours ago without a network keeps its order and its distance, also where the clock is wrong by a day. Nothing
 * ends up in the future.
 */
export function trueMoment(req: Request, noted: string, now = Date.now()): { at: string; off_s: number } {
  const device = Date.parse(req.get('x-geolabe-clock') ?? '')
  const off = Number.isFinite(device) ? now - device : 0
  const shift_ms = Math.abs(off) > clockSlack_ms ? off : 0
  const at = Math.min(Date.parse(noted) + shift_ms, now)
  return { at: new Date(at).toISOString(), off_s: Math.round(-shift_ms / 1000) }
}

/** A path parameter that has to be a UUID; anything else does not exist. */
export function uuidParam(req: Request, name = 'id'): string {
  const v = String(req.params[name] ?? '')
  if (!uuid.test(v)) throw notFound()
  return v
}

export const notFound = (what = 'This') => new Problem(404, 'not-found', `${what} does not exist here.`)

export async function requireAnyRole(tx: Tx, roles: readonly string[], message: string): Promise<void> {
  const r = await tx.query<{ ok: boolean }>('select bool_or(has_role(x)) as ok from unnest($1::text[]) x', [roles])
  if (!r.rows[0]?.ok) throw new Problem(403, 'not-your-part', message)
}

export async function requireRole(tx: Tx, role: string, message: string): Promise<void> {
  const r = await tx.query<{ ok: boolean }>('select has_role($1) as ok', [role])
  if (!r.rows[0]?.ok) throw new Problem(403, 'not-your-part', message)
}
