import { createHash, randomBytes } from 'node:crypto'
import { type Me, signInRequest } from '@geolabe/contract'
import { licence, type PersonRef, parseOrRefuse, role } from '@geolabe/core'
import { hash, verify } from '@node-rs/argon2'
import { parseCookie, stringifySetCookie } from 'cookie'
import type { NextFunction, Request, Response } from 'express'
import { RateLimiterPostgres, RateLimiterRes } from 'rate-limiter-flexible'
import { z } from 'zod'
import type { Database, Tx } from '../db/database'
import { type Signed, whoOf } from '../http/routes'
import { Problem } from '../problem/problem'

const lasts_ms = 14 * 3600 * 1000
const deviceLasts_s = 400 * 24 * 3600
/** Tries in a minute: from devices that this person has not used, from one that they have, and from one address. */
const [tries, ownTries, addressTries] = [5, 8, 40]
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

export interface SessionOptions {
  /** Behind TLS: cookies only over it, bound to this host by their names. */
  secure: boolean
  /** A session that nobody uses for so long ends. */
  idleHours: number
}

/**
 * @param door the database by the role that may look up who signs on; the application's own may not
 */
export function sessions(db: Database, door: Database, { secure, idleHours }: SessionOptions) {
  const limiter = (keyPrefix: string, points: number) =>
    new RateLimiterPostgres({
      storeClient: door.pool,
      storeType: 'pool',
      tableName: 'throttle',
      schemaName: 'geolabe',
      tableCreated: true,
      keyPrefix,
      points,
      duration: 60,
      clearExpiredByTimeout: false,
    })
  const perBadge = limiter('badge', tries)
  const perDevice = limiter('device', ownTries)
  const perAddress = limiter('address', addressTries)
  const idle = `${idleHours} hours`

  const named = (name: string) => (secure ? `__Host-${name}` : name)
  const cookie = (name: string, value: string, maxAge: number) =>
    stringifySetCookie({ name: named(name), value, httpOnly: true, sameSite: 'strict', secure, path: '/', maxAge })
  const cookieOf = (req: Request, name: string) => parseCookie(req.headers.cookie ?? '')[named(name)]

  /** Takes a try from each; the answer gives them back, to who was right. */
  async function take(spent: readonly { limiter: RateLimiterPostgres; key: string }[]): Promise<() => Promise<unknown>> {
    for (const k of spent) {
      try {
        await k.limiter.consume(k.key)
      } catch (e) {
        if (!(e instanceof RateLimiterRes)) throw e
        const wait_s = Math.max(1, Math.ceil(e.msBeforeNext / 1000))
        throw new Problem(429, 'wait', `Too many wrong tries. Wait ${wait_s} seconds.`, '', undefined, wait_s)
      }
    }
    return () => Promise.all(spent.map((k) => k.limiter.reward(k.key, 1)))
  }

  /**
   * Takes a try from every allowance before anything is looked up, so that many at once have no more than one after another. A
   * device that this person used before has an allowance of its own: strangers' wrong tries do not shut its owner out, nor do those
   * of others behind one address.
   */
  async function takeTry(req: Request, organisation: string, badge: string, device: string | null) {
    const known =
      device !== null &&
      ((await door.query<{ known: boolean }>('select device_known($1, $2, $3) as known', [organisation, badge, device])).rows[0]
        ?.known ??
        false)
    const spent = known
      ? [{ limiter: perDevice, key: `${organisation}/${badge}/${device}` }]
      : [
          { limiter: perBadge, key: `${organisation}/${badge}` },
          { limiter: perAddress, key: req.ip ?? '' },
        ]
    return take(spent)
  }

  /** Codes of six figures are not tried through: so many wrong ones a minute and person. */
  const perCode = limiter('code', tries)
  const takeCodeTry = (req: Request) => take([{ limiter: perCode, key: `${whoOf(req).org}/${whoOf(req).person}` }])

  /** Whoever has this badge and PIN in the organisation that is signed on: the second of two people. */
  async function whoIs(req: Request, badge: string, pin: string): Promise<PersonRef> {
    const { org } = whoOf(req)
    const giveBack = await takeTry(req, org, badge, null)
    const found = await door.query<{ person: string; pin_hash: string }>('select person, pin_hash from sign_in_lookup($1, $2)', [
      org,
      badge,
    ])
    const row = found.rows[0]
    if (!(await verify(row?.pin_hash ?? (await nobody), pin)) || !row)
      throw new Problem(403, 'needs-second', 'Badge and PIN of the second person do not belong together.', 'second.pin')
    await giveBack()
    const { name } = await db.as({ org, person: row.person }, readMe)
    return { id: row.person, name }
  }

  async function signIn(req: Request, res: Response) {
    const { organisation, badge, pin } = parseOrRefuse(signInRequest, req.body)
    const kept = cookieOf(req, 'geolabe-device')
    const giveBack = await takeTry(req, organisation, badge, kept ? digest(kept) : null)
    const found = await door.query<{ person: string; pin_hash: string }>('select person, pin_hash from sign_in_lookup($1, $2)', [
      organisation,
      badge,
    ])
    const row = found.rows[0]
    const right = await verify(row?.pin_hash ?? (await nobody), pin)
    if (!row || !right) throw new Problem(401, 'wrong', 'Yard, badge and PIN do not belong together.')
    await giveBack()
    const token = randomBytes(32).toString('base64url')
    const device = kept ?? randomBytes(32).toString('base64url')
    await door.query('select session_begin($1, $2, $3, $4, $5)', [
      digest(token),
      organisation,
      row.person,
      new Date(Date.now() + lasts_ms),
      digest(device),
    ])
    res.setHeader('Set-Cookie', [cookie('geolabe', token, lasts_ms / 1000), cookie('geolabe-device', device, deviceLasts_s)])
    res.json(
      await db.as({ org: organisation, person: row.person }, async (tx) => {
        await tx.journal('signed-in', row.person, {})
        return readMe(tx)
      }),
    )
  }

  async function signOut(req: Request, res: Response) {
    const token = cookieOf(req, 'geolabe')
    if (token) await db.query('select session_end($1)', [digest(token)])
    res.setHeader('Set-Cookie', cookie('geolabe', '', 0))
    res.json({})
  }

  async function guard(req: Request, _res: Response, next: NextFunction) {
    const token = cookieOf(req, 'geolabe')
    const session = token ? digest(token) : null
    const found = session
      ? await db.query<{ org: string; person: string }>('select org, person from session_find($1, $2)', [session, idle])
      : null
    const row = found?.rows[0]
    if (!row || !session) throw new Problem(401, 'signed-out', 'Sign on first.')
    const signed = req as Signed
    signed.who = { org: row.org, person: row.person }
    signed.session = session
    next()
  }

  return { signIn, signOut, guard, whoIs, takeCodeTry }
}
