import { createHash, randomBytes } from 'node:crypto'
import { type Me, signInRequest } from '@geolabe/contract'
import { licence, parseOrRefuse, role } from '@geolabe/core'
import { hash, verify } from '@node-rs/argon2'
import { parseCookie, stringifySetCookie } from 'cookie'
import type { NextFunction, Request, Response } from 'express'
import { RateLimiterPostgres } from 'rate-limiter-flexible'
import { z } from 'zod'
import type { Database, Tx } from '../db/database'
import { Problem } from '../http/problem'
import type { Signed } from '../http/routes'

const cookieName = 'geolabe'
const lasts_ms = 14 * 3600 * 1000
const digest = (token: string) => createHash('sha256').update(token).digest('hex')

/** Verified against when the badge does not exist, so that the answer takes as long and tells nothing. */
const nobody = hash('no such person')

export async function readMe(tx: Tx): Promise<Me> {
  const r = await tx.query<{
    id: string
    name: string
    badge: string
    roles: string[]
    licences: unknown
    trained: string[]
    authorised: string[]
    org_name: string
  }>(
    `select p.id, p.name, p.badge, p.roles, p.licences, p.trained, o.name as org_name,
      coalesce((select array_agg(a.machine order by a.machine) from authorisation a where a.org = p.org and a.person = p.id and a.withdrawn_at is null), '{}') as authorised
     from person p join organisation o using (org) where p.id = $1`,
    [tx.who.person],
  )
  const p = r.rows[0]
  if (!p) throw new Problem(401, 'signed-out', 'Sign on again.')
  return {
    id: p.id,
    name: p.name,
    badge: p.badge,
    roles: z.array(role).parse(p.roles),
    licences: z.array(licence).parse(p.licences),
    trained: p.trained,
    authorised: p.authorised,
    organisation: { id: tx.who.org, name: p.org_name },
  }
}

export function sessions(db: Database, secure: boolean) {
  // Wrong tries only: five a badge in a minute, forty an address.
  const limiter = (keyPrefix: string, points: number) =>
    new RateLimiterPostgres({
      storeClient: db.pool,
      storeType: 'pool',
      tableName: 'throttle',
      schemaName: 'geolabe',
      tableCreated: true,
      keyPrefix,
      points,
      duration: 60,
      clearExpiredByTimeout: false,
    })
  const perBadge = limiter('badge', 5)
  const perAddress = limiter('address', 40)

  const cookie = (value: string, maxAge: number) =>
    stringifySetCookie({ name: cookieName, value, httpOnly: true, sameSite: 'strict', secure, path: '/', maxAge })

  const tokenOf = (req: Request) => parseCookie(req.headers.cookie ?? '')[cookieName]

  async function signIn(req: Request, res: Response) {
    const { organisation, badge, pin } = parseOrRefuse(signInRequest, req.body)
    const keys = [
      { limiter: perBadge, key: `${organisation}/${badge}` },
      { limiter: perAddress, key: req.ip ?? '' },
    ]
    for (const k of keys) {
      const used = await k.limiter.get(k.key)
      if (used && used.consumedPoints >= k.limiter.points && used.msBeforeNext > 0) {
        const wait_s = Math.ceil(used.msBeforeNext / 1000)
        res.setHeader('Retry-After', String(wait_s))
        throw new Problem(429, 'wait', `Too many wrong tries. Wait ${wait_s} seconds.`)
      }
    }
    const found = await db.pool.query<{ person: string; pin_hash: string }>(
      'select person, pin_hash from sign_in_lookup($1, $2)',
      [organisation, badge],
    )
    const row = found.rows[0]
    const right = await verify(row?.pin_hash ?? (await nobody), pin)
    if (!row || !right) {
      await Promise.all(keys.map((k) => k.limiter.penalty(k.key, 1)))
      throw new Problem(401, 'wrong', 'Yard, badge and PIN do not belong together.')
    }
    await perBadge.delete(`${organisation}/${badge}`)
    const token = randomBytes(32).toString('base64url')
    await db.pool.query('select session_begin($1, $2, $3, $4)', [
      digest(token),
      organisation,
      row.person,
      new Date(Date.now() + lasts_ms),
    ])
    res.setHeader('Set-Cookie', cookie(token, lasts_ms / 1000))
    res.json(
      await db.as({ org: organisation, person: row.person }, async (tx) => {
        await tx.journal('signed-in', row.person, {})
        return readMe(tx)
      }),
    )
  }

  async function signOut(req: Request, res: Response) {
    const token = tokenOf(req)
    if (token) await db.pool.query('select session_end($1)', [digest(token)])
    res.setHeader('Set-Cookie', cookie('', 0))
    res.json({})
  }

  async function guard(req: Request, _res: Response, next: NextFunction) {
    const token = tokenOf(req)
    const found = token
      ? await db.pool.query<{ org: string; person: string }>('select org, person from session_find($1)', [digest(token)])
      : null
    const row = found?.rows[0]
    if (!row) throw new Problem(401, 'signed-out', 'Sign on first.')
    ;(req as Signed).who = { org: row.org, person: row.person }
    next()
  }

  return { signIn, signOut, guard }
}
