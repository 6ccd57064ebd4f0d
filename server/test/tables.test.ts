import { tableToCsv } from '@geolabe/contract'
import { calculators as every, type RatingTable, withCell } from '@geolabe/core'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { type Person, type Running, start } from './helper'

let app: Running
let wilhelmina: Person
let mirela: Person
let ines: Person
beforeAll(async () => {
  app = await start()
  wilhelmina = await app.as('Wilhelmina Osei')
  mirela = await app.as('Mirela Quist')
  ines = await app.as('Ines Haldane')
})
afterAll(async () => {
  // The tests beside this one count on the tables as they were laid out.
  await app.owner.query('delete from rating_table where revision > 1')
  await app.stop()
})

const tableOf = async (id: string) => (await ines.get(`/tables/${id}`)).body
const changed = (t: RatingTable, kg: number) => {
  const g = t.configurations[0]
  if (!g) throw new Error('no grid')
  return withCell(t, { configuration: g.id, row: 0, column: 0 }, kg)
}

describe('tables', () => {
  it('of every machine of the yard are listed and read, each with the geometry it is checked against', async () => {
    const { tables } = (await ines.get('/tables')).body
    expect(tables.length).toBe(19)
    for (const t of tables) {
      const file = await tableOf(t.id)
      expect(file.table.shape).toBe(t.shape)
      expect(file.model.id).toBe(t.machine)
      expect(file.revisions.length).toBeGreaterThan(0)
    }
    expect((await ines.get('/tables/no-such')).status).toBe(404)
    const aud = await app.as('Aud Lindqvane')
    expect((await aud.get('/tables/tern-main')).status).toBe(404)
  })

  it('are revised by those who may, one revision after another, and count once somebody else has checked them', async () => {
    const { table, inUse } = await tableOf('tern-main')
    const body = { from: table.revision, table: changed(table, 24_000), why: 'Sheet 3 read again' }
    expect((await ines.post('/tables/tern-main/revisions', body)).status).toBe(403)
    const done = await mirela.post('/tables/tern-main/revisions', body)
    expect(done.status).toBe(200)
    expect(done.body.table).toMatchObject({ revision: table.revision + 1, enteredBy: 'Mirela Quist', checkedBy: null })
    expect(done.body.inUse).toBe(inUse)
    expect(done.body.before.revision).toBe(table.revision)
    // Lifts are still proved with what was checked.
    expect((await ines.get('/machines/tern')).body.tables[0].revision).toBe(inUse)
    // Somebody who worked from the old revision is told.
    const late = await wilhelmina.post('/tables/tern-main/revisions', body)
    expect(late).toMatchObject({ status: 409, body: { error: { code: 'revised-meanwhile' } } })
    expect((await mirela.post('/tables/tern-main/check', { revision: table.revision + 1 })).status).toBe(403)
    const checked = await wilhelmina.post('/tables/tern-main/check', { revision: table.revision + 1 })
    expect(checked.body.inUse).toBe(table.revision + 1)
    expect(checked.body.revisions[0]).toMatchObject({
      enteredBy: 'Mirela Quist',
      checkedBy: 'Wilhelmina Osei',
      why: 'Sheet 3 read again',
    })
    expect((await ines.get('/machines/tern')).body.tables[0].revision).toBe(table.revision + 1)
    const kinds = (await ines.get('/journal')).body.entries.map((e: { kind: string }) => e.kind)
    expect(kinds).toEqual(expect.arrayContaining(['table-revised', 'table-checked']))
  })

  it('are not checked by who entered them, nor rewritten, below the server', async () => {
    const { table } = await tableOf('heron-main')
    await wilhelmina.post('/tables/heron-main/revisions', {
      from: table.revision,
      table: changed(table, 5000),
      why: 'Plate read again',
    })
    const own = await wilhelmina.post('/tables/heron-main/check', { revision: table.revision + 1 })
    expect(own.status).toBe(403)
    const who = { org: 'skarrow-haven', person: 'wilhelmina-osei' }
    await expect(app.db.as(who, (tx) => tx.query("update rating_table set document = '{}'"))).rejects.toThrow(/permission denied/)
    await expect(app.owner.query("update rating_table set document = '{}' where id = 'heron-main'")).rejects.toThrow(
      /not rewritten/,
    )
    await expect(
      app.db.as(who, (tx) =>
        tx.query(
          "insert into rating_table (org, id, revision, machine, document) values ('skarrow-haven', 'heron-main', 9, 'heron', '{}')",
        ),
      ),
    ).rejects.toThrow(/not the one after/)
    const enter = (columns: string, values: string) => (person: string) =>
      app.db.as({ org: 'skarrow-haven', person }, (tx) =>
        tx.query(
          `insert into rating_table (org, id, revision, machine, document${columns}) values ('skarrow-haven', 'heron-main', ${table.revision + 2}, 'heron', '{}'${values})`,
        ),
      )
    await expect(enter('', '')('ines-haldane')).rejects.toThrow(/person in charge or an administrator/)
    // Without a reason, in another's name, or checked already it would count at once.
    for (const [columns, values] of [
      ['', ''],
      [', why, entered_by', ", 'x', 'mirela-quist'"],
      [', why, entered_by, checked_by', ", 'x', 'wilhelmina-osei', 'mirela-quist'"],
    ] as const)
      await expect(enter(columns, values)('wilhelmina-osei')).rejects.toThrow(/own name, says why/)
    const check = (person: string, by: string) =>
      app.db.as({ org: 'skarrow-haven', person }, (tx) =>
        tx.query('update rating_table set checked_by = $1 where id = $2 and revision = $3', [
          by,
          'heron-main',
          table.revision + 1,
        ]),
      )
    await expect(check('mirela-quist', 'mirela-quist')).rejects.toThrow(/the person in charge checks/)
    await expect(check('ines-haldane', 'mirela-quist')).rejects.toThrow(/somebody else checks it, in their own name/)
  })

  it('that are not tables are refused with the place of the fault, and nothing is entered', async () => {
    const { table } = await tableOf('puffin-main')
    const broken = structuredClone(table)
    broken.configurations[0].rows[1].ratings_kg.pop()
    const r = await mirela.post('/tables/puffin-main/revisions', { from: table.revision, table: broken, why: 'x' })
    expect(r.status).toBe(422)
    expect(r.body.error.path).toContain('configurations.0.rows.1')
    const other = await mirela.post('/tables/puffin-main/revisions', {
      from: table.revision,
      table: { ...table, machine: 'tern' },
      why: 'x',
    })
    expect(other.body.error.code).toBe('other-table')
    expect((await mirela.post('/tables/puffin-main/revisions', { from: table.revision, table, why: '' })).status).toBe(422)
    expect((await tableOf('puffin-main')).table.revision).toBe(table.revision)
    expect(tableToCsv(table)).toContain('configuration,liftHeight_m,0.5,0.6,0.7')
  })

  it('sent twice are entered once', async () => {
    const { table } = await tableOf('dipper-main')
    const key = crypto.randomUUID()
    const body = { from: table.revision, table: changed(table, 1900), why: 'Mark read again' }
    const first = await mirela.post('/tables/dipper-main/revisions', body, key)
    const second = await mirela.post('/tables/dipper-main/revisions', body, key)
    expect(second.body).toEqual(first.body)
    expect((await tableOf('dipper-main')).revisions.length).toBe(2)
  })
})

describe('two people at one table', () => {
  it('who revise at once: one revision is entered, the other is told', async () => {
    const { table } = await tableOf('plover-main')
    const body = { from: table.revision, table: changed(table, 7700), why: 'At once' }
    const both = await Promise.all([
      mirela.post('/tables/plover-main/revisions', body),
      wilhelmina.post('/tables/plover-main/revisions', body),
    ])
    expect(both.map((r) => r.status).sort()).toEqual([200, 409])
    expect((await tableOf('plover-main')).revisions.length).toBe(2)
  })
  it('a check is made once, of a revision that is there', async () => {
    const { table, revisions } = await tableOf('plover-main')
    const checker = revisions[0].enteredBy === 'Wilhelmina Osei' ? null : wilhelmina
    if (checker) {
      expect((await checker.post('/tables/plover-main/check', { revision: table.revision })).status).toBe(200)
      expect((await checker.post('/tables/plover-main/check', { revision: table.revision })).status).toBe(409)
    }
    expect((await wilhelmina.post('/tables/plover-main/check', { revision: 99 })).status).toBe(404)
    expect((await wilhelmina.post('/tables/plover-main/check', { revision: 0 })).status).toBe(422)
  })
})

describe('calculators over the wire', () => {
  const post = (name: string, body: string, type = 'application/json') =>
    fetch(`${app.base}/api/calc/${name}`, { method: 'POST', headers: { 'content-type': type }, body })
  it('answer any body with a refusal, never with a fault of the server', async () => {
    const bodies = [
      '',
      '{',
      'null',
      '[]',
      '7',
      '"x"',
      '{}',
      '{"a":{"b":[1,{"c":null}]}}',
      `{"mass_kg":${'9'.repeat(400)}}`,
      '{"__proto__":{"x":1}}',
      `[${'['.repeat(200)}${']'.repeat(200)}]`,
    ]
    for (const name of ['wind-load', 'chart-reading', 'capacity-map', 'load-mass', 'levelling']) {
      for (const body of bodies) {
        const r = await post(name, body)
        expect([400, 422], `${name} ${body.slice(0, 30)}`).toContain(r.status)
        const said = await r.json()
        expect(said.error.message.length).toBeGreaterThan(5)
        expect(said.error.code).toMatch(/^[a-z-]+$/)
      }
      expect((await post(name, 'mass=7', 'application/x-www-form-urlencoded')).status).toBe(422)
    }
    expect((await post('nothing', '{}')).status).toBe(404)
    expect((await post('wind-load', JSON.stringify({ x: 'y'.repeat(5_000_000) }))).status).toBe(413)
  })
  it('that take too long are ended and refused, and hold up nobody meanwhile', async () => {
    const example = (await (await fetch(`${app.base}/api/calc`)).json()).calculators.find(
      (c: { name: string }) => c.name === 'clearance',
    ).example
    const doubtful = (v: number) => ({ value: v, tolerance: 0.1 })
    const heavy = {
      ...example,
      path: Array.from({ length: 3 }, (_, i) => ({
        slew_deg: doubtful(i * 60),
        boom_m: doubtful(16),
        angle_deg: doubtful(50),
        drop_m: doubtful(6),
      })),
    }
    const long = post('clearance', JSON.stringify(heavy))
    const began = performance.now()
    await new Promise((r) => setTimeout(r, 300))
    // The records answer at once; the next sum waits its turn.
    expect((await ines.get('/yard')).status).toBe(200)
    const beside = performance.now() - began
    const next = post('beaufort', JSON.stringify({ force: 3 }))
    const ended = await long
    expect(ended.status).toBe(422)
    expect((await ended.json()).error.code).toBe('too-heavy')
    expect(performance.now() - began).toBeGreaterThan(beside)
    expect((await next).status).toBe(200)
  })
  it('publish their schemas, cautions and examples, and each example keeps to its schema', async () => {
    const { calculators } = await (await fetch(`${app.base}/api/calc`)).json()
    expect(calculators.map((c: { name: string }) => c.name).sort()).toEqual(every.map((c) => c.name).sort())
    for (const c of calculators) {
      expect(c.input.type).toBe('object')
      expect(c.input.additionalProperties).toBe(false)
      for (const key of c.input.required ?? []) expect(c.example, `${c.name}.${key}`).toHaveProperty(key)
      for (const key of Object.keys(c.example)) expect(c.input.properties, `${c.name}.${key}`).toHaveProperty(key)
      expect(c.cautions.length).toBeGreaterThan(0)
      const answer = await (await post(c.name, JSON.stringify(c.example))).json()
      for (const key of c.output.required ?? []) expect(answer, `${c.name}.${key}`).toHaveProperty(key)
    }
  })
  it('serve every format’s schema', async () => {
    for (const name of ['machine', 'model', 'table', 'place', 'person', 'organisation', 'shift']) {
      const r = await fetch(`${app.base}/api/schemas/${name}.json`)
      expect(r.status).toBe(200)
      expect((await r.json()).title).toBe(`Geolabe ${name}`)
    }
    expect((await fetch(`${app.base}/api/schemas/toString.json`)).status).toBe(404)
  })
})
