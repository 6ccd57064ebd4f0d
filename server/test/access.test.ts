import { randomUUID } from 'node:crypto'
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { openBody, type Running, send, start } from './helper'

let app: Running
beforeAll(async () => {
  app = await start()
})
beforeEach(() => app.freeTern())
afterAll(() => app.stop())

describe('signing on', () => {
  it('takes badge and PIN and keeps them to itself', async () => {
    const ines = await app.as('Ines Haldane')
    const me = await ines.get('/session')
    expect(me.body).toMatchObject({ name: 'Ines Haldane', roles: ['operator'], organisation: { name: 'Skarrow Haven Works' } })
    expect(JSON.stringify(me.body)).not.toMatch(/pin|argon/i)
  })

  it('says the same for a wrong PIN, a wrong badge and a wrong yard', async () => {
    const answers = await Promise.all(
      [
        { organisation: 'skarrow-haven', badge: '1041', pin: '0000' },
        { organisation: 'skarrow-haven', badge: '9999', pin: '2750' },
        { organisation: 'nowhere', badge: '1041', pin: '2750' },
        // The right PIN of the same badge in the other organisation.
        { organisation: 'ferrow-moss', badge: '1041', pin: '2750' },
      ].map((b) => send(app.base, 'POST', '/session', b)),
    )
    for (const a of answers) {
      expect(a.status).toBe(401)
      expect(a.body).toEqual(answers[0]?.body)
    }
  })

  it('throttles after five wrong tries, also for the right PIN, and says how long', async () => {
    const attempt = (pin: string) => send(app.base, 'POST', '/session', { organisation: 'skarrow-haven', badge: '3019', pin })
    for (let i = 0; i < 5; i++) expect((await attempt('1111')).status).toBe(401)
    const blocked = await attempt('5526')
    expect(blocked.status).toBe(429)
    expect(Number(blocked.headers.get('retry-after'))).toBeGreaterThan(0)
  })

  it('sets a cookie that scripts cannot read and other sites do not send, and ends with signing off', async () => {
    const r = await send(app.base, 'POST', '/session', { organisation: 'skarrow-haven', badge: '1041', pin: '2750' })
    const cookie = r.headers.get('set-cookie') ?? ''
    expect(cookie).toMatch(/HttpOnly/i)
    expect(cookie).toMatch(/SameSite=Strict/i)
    const mine = cookie.split(';')[0] ?? ''
    expect((await send(app.base, 'GET', '/yard', undefined, { cookie: mine })).status).toBe(200)
    await send(app.base, 'DELETE', '/session', undefined, { cookie: mine })
    expect((await send(app.base, 'GET', '/yard', undefined, { cookie: mine })).status).toBe(401)
  })

  it('refuses writes from other sites, without our header, and reads without a session', async () => {
    const ines = await app.as('Ines Haldane')
    const write = (headers: Record<string, string>) =>
      fetch(`${app.base}/api/shifts`, {
        method: 'POST',
        headers: { cookie: ines.cookie, 'content-type': 'application/json', 'idempotency-key': randomUUID(), ...headers },
        body: JSON.stringify(openBody()),
      })
    expect((await write({})).status).toBe(403)
    expect((await write({ 'x-geolabe': '1', origin: 'http://elsewhere.example' })).status).toBe(403)
    expect((await write({ 'x-geolabe': '1', 'sec-fetch-site': 'cross-site' })).status).toBe(403)
    expect((await send(app.base, 'GET', '/yard')).status).toBe(401)
  })

  it('sends a policy that runs no inline script', async () => {
    const r = await send(app.base, 'GET', '/demo')
    const csp = r.headers.get('content-security-policy') ?? ''
    expect(csp).toMatch(/script-src 'self'(;|$)/)
    expect(csp).toMatch(/frame-ancestors 'none'/)
  })
})

describe('organisations', () => {
  it('see nothing of one another through any list or address', async () => {
    const [ines, aud] = [await app.as('Ines Haldane'), await app.as('Aud Lindqvane')]
    const names = (await aud.get('/yard')).body.machines.map((m: { id: string }) => m.id)
    expect(names).toEqual(['rush', 'sedge'])
    expect((await aud.get('/machines/tern')).status).toBe(404)
    expect((await aud.get('/shifts')).body.shifts).toEqual([])
    expect((await aud.get('/defects?all')).body.defects).toEqual([])
    const shift = (await ines.get('/shifts')).body.shifts[0].id
    for (const path of [`/shifts/${shift}`, `/shifts/${shift}/export`, `/shifts/${shift}/card.pdf`])
      expect((await aud.get(path)).status).toBe(404)
    const journal = (await aud.get('/journal')).body.entries
    expect(
      journal.every(
        (e: { subject: string; kind: string }) =>
          ['ferrow-moss', 'aud-lindqvane'].includes(e.subject) || e.kind === 'shift-imported',
      ),
    ).toBe(true)
  })

  it('keep what stands at a place: drawn by any of the yard, counted once a second person has checked it, each revision kept', async () => {
    const [ines, wil, aud, mirela] = [
      await app.as('Ines Haldane'),
      await app.as('Wilhelmina Osei'),
      await app.as('Aud Lindqvane'),
      await app.as('Mirela Quist'),
    ]
    const [path, drawing] = ['/places/north-quay/features', '/places/north-quay/drawing']
    const out = (await ines.get(`${path}.geojson`)).body
    expect((await aud.get(`${path}.geojson`)).status).toBe(404)
    expect((await aud.get(drawing)).status).toBe(404)
    const fewer = { ...out, features: out.features.slice(1) }
    expect((await wil.post(path, { ...fewer, frame: 'degrees' })).body.error).toMatchObject({ path: 'frame' })
    const drawn = await wil.post(path, fewer)
    expect(drawn.body.waiting).toMatchObject({ state: 'open', drawnBy: { id: 'wilhelmina-osei' } })
    const { waiting } = drawn.body
    // Nothing counts yet, and neither who drew it nor an operator makes it count.
    expect((await ines.get(`${path}.geojson`)).body.features).toHaveLength(out.features.length)
    const yes = { id: waiting.id, ok: true, words: '' }
    expect((await wil.post(`${drawing}/check`, yes)).body.error.code).toBe('own-drawing')
    expect((await ines.post(`${drawing}/check`, yes)).status).toBe(403)
    expect((await aud.post(`${drawing}/check`, yes)).status).toBe(404)
    expect((await mirela.post(`${drawing}/check`, { ...yes, ok: false })).body.error).toMatchObject({ path: 'words' })
    const checked = await mirela.post(`${drawing}/check`, yes)
    expect(checked.body).toMatchObject({ waiting: null, revision: waiting.from + 1 })
    expect((await ines.get(`${path}.geojson`)).body.features).toHaveLength(fewer.features.length)
    expect((await mirela.post(`${drawing}/check`, yes)).status).toBe(404)
    // Drawn over what it no longer is: refused, and nothing of it is lost on the device that drew it.
    const again = { features: checked.body.place.features, positions: checked.body.place.positions }
    const stale = { id: randomUUID(), from: waiting.from, why: 'again', drawing: again }
    expect((await ines.post(drawing, stale)).body.error.code).toBe('changed-meanwhile')
    const unnamed = { ...again, features: [{ ...again.features[0], ground: 'marble' }] }
    expect((await ines.post(drawing, { ...stale, from: waiting.from + 1, drawing: unnamed })).body.error.path).toMatch(
      /features\.0\.ground/,
    )
    expect((await ines.post(drawing, { ...stale, from: waiting.from + 1 })).body.waiting.why).toBe('again')
    expect((await wil.post(path, out)).body.before.map((b: { state: string }) => b.state)).toEqual(['replaced', 'taken'])
    const [open] = [(await wil.get(drawing)).body.waiting]
    expect((await mirela.post(`${drawing}/check`, { id: open.id, ok: true, words: 'walked round it' })).status).toBe(200)
    const kept = await app.owner.query("select revision from place_revision where id = 'north-quay' order by revision")
    expect(kept.rows.length).toBeGreaterThanOrEqual(3)
    const told = (await wil.get('/journal?kind=drawing-checked')).body.entries
    expect(told[0]).toMatchObject({ subject: 'north-quay', body: { revision: kept.rows.at(-1)?.revision } })
    // The database itself: no place changes but by a drawing that was checked.
    await expect(
      app.db.as({ org: 'skarrow-haven', person: 'wilhelmina-osei' }, (tx) =>
        tx.query("update place set document = jsonb_set(document, '{features}', '[]') where id = 'north-quay'"),
      ),
    ).rejects.toThrow(/second person/)
  })

  it('stay apart even when a query forgets its filter: the database decides', async () => {
    for (const table of [
      'person',
      'machine',
      'rating_table',
      'machine_model',
      'place',
      'place_drawing',
      'order_revision',
      'shift',
      'inspection_entry',
      'defect',
      'journal',
      'applied',
      'organisation',
    ]) {
      const columns = table === 'person' ? 'org' : '*'
      const seen = await app.db.as({ org: 'ferrow-moss', person: 'aud-lindqvane' }, (tx) =>
        tx.query(`select ${columns} from ${table}`),
      )
      expect(seen.rows.filter((r) => r.org !== 'ferrow-moss')).toEqual([])
      // With no organisation set there is nothing at all.
      const none = await app.db.pool.query(`select ${columns} from ${table}`)
      expect(none.rows).toEqual([])
    }
    const all = await app.owner.query('select distinct org from machine order by org')
    expect(all.rows.map((r) => r.org)).toEqual(['ferrow-moss', 'skarrow-haven'])
  })

  it('cannot write into one another, nor read a PIN, nor touch the journal', async () => {
    const aud = { org: 'ferrow-moss', person: 'aud-lindqvane' }
    await expect(
      app.db.as(aud, (tx) =>
        tx.query(
          "insert into defect (org, id, machine, place_on_machine, words, grade, raised_by) values ('skarrow-haven', gen_random_uuid(), 'tern', 'x', 'x', 'hazard', 'ines-haldane')",
        ),
      ),
    ).rejects.toThrow(/row-level security|one’s own name/)
    for (const sql of [
      'select pin_hash from person',
      'select * from session',
      "update journal set body = '{}'",
      'delete from journal',
      "insert into journal values ('ferrow-moss', 99, now(), null, 'x', 'x', '{}', 'x', 'x')",
    ]) {
      await expect(app.db.as(aud, (tx) => tx.query(sql))).rejects.toThrow(/permission denied/)
    }
    expect(
      (await app.owner.query('select rolsuper or rolbypassrls as strong from pg_roles where rolname = $1', ['geolabe_app']))
        .rows[0].strong,
    ).toBe(false)
    await expect(app.owner.query("update journal set body = '{}'")).rejects.toThrow(/only ever added to/)
  })
})
