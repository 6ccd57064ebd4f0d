import { randomUUID } from 'node:crypto'
import { csvToWalkround } from '@geolabe/contract'
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { journalQuery } from '../src/journal/routes'
import { openBody, type Running, start } from './helper'

let app: Running
beforeAll(async () => {
  app = await start()
})
beforeEach(() => app.freeTern())
afterAll(() => app.stop())

const defect = (over: object = {}) => ({
  id: randomUUID(),
  machine: 'tern',
  shift: null,
  item: null,
  where: 'Front left leg',
  words: 'Paint chipped at the pad',
  grade: 'watch',
  ...over,
})
const state = async (p: Awaited<ReturnType<Running['as']>>, id: string) =>
  (await p.get('/yard')).body.machines.find((m: { id: string }) => m.id === id)

describe('a defect that only needs watching', () => {
  it('is kept watched until a date or hours, or accepted with a reason, by the person in charge', async () => {
    const [ines, wil] = [await app.as('Ines Haldane'), await app.as('Wilhelmina Osei')]
    const d = defect()
    await ines.post('/defects', d)
    const keep = { untilDate: '2030-01-01', untilHours: null, words: 'Look every morning' }
    expect((await wil.post(`/defects/${d.id}/watch`, keep)).body.error.code).toBe('wrong-state')
    await wil.post(`/defects/${d.id}/acknowledge`)
    expect((await ines.post(`/defects/${d.id}/watch`, keep)).body.error.code).toBe('not-your-part')
    expect((await wil.post(`/defects/${d.id}/watch`, { ...keep, untilDate: null })).body.error.path).toBe('untilDate')
    expect((await wil.post(`/defects/${d.id}/watch`, keep)).body).toMatchObject({ state: 'watched', watched: { over: false } })
    expect((await wil.post(`/defects/${d.id}/watch`, { ...keep, untilHours: 1 })).body.watched).toMatchObject({ over: true })
    expect((await ines.get('/machines/tern')).body.watched.map((x: { id: string }) => x.id)).toContain(d.id)
    expect((await wil.post(`/defects/${d.id}/accept`, { words: 'Paint only' })).body.state).toBe('accepted')
    expect((await ines.get('/machines/tern')).body.watched.map((x: { id: string }) => x.id)).not.toContain(d.id)
    expect((await ines.get(`/defects/${d.id}`)).body.accepted.words).toBe('Paint only')
  })

  it('escalates when it grows: graver for all at once, never milder; what stops is never accepted away', async () => {
    const [ines, tomas, wil] = [await app.as('Ines Haldane'), await app.as('Tomas Brekke'), await app.as('Wilhelmina Osei')]
    const d = defect()
    await ines.post('/defects', d)
    const note = (over: object) =>
      tomas.post(`/defects/${d.id}/notes`, { id: randomUUID(), words: 'Crack now', worsened: true, grade: null, ...over })
    expect((await note({ grade: 'damage' })).body).toMatchObject({
      grade: 'damage',
      raisedGrade: 'watch',
      steps: [{ action: 'worsen' }],
    })
    expect((await state(ines, 'tern')).state).toBe('stopped')
    expect((await note({ grade: 'watch' })).body.error.code).toBe('milder')
    await wil.post(`/defects/${d.id}/acknowledge`)
    expect((await wil.post(`/defects/${d.id}/accept`, { words: 'fine' })).body.error.code).toBe('stops-machine')
    const who = { org: 'skarrow-haven', person: 'wilhelmina-osei' }
    // Below the server, too.
    await expect(
      app.db.as(who, (tx) =>
        tx.query("update defect set state = 'accepted', accepted_by = 'wilhelmina-osei' where id = $1", [d.id]),
      ),
    ).rejects.toThrow(/permission denied/)
    await expect(app.db.as(who, (tx) => tx.query("update defect set grade = 'watch' where id = $1", [d.id]))).rejects.toThrow(
      /permission denied/,
    )
  })

  it('on a forklift stops it until the person in charge has graded it', async () => {
    const [ines, wil] = [await app.as('Ines Haldane'), await app.as('Wilhelmina Osei')]
    const d = defect({ machine: 'dunlin', where: 'Left fork' })
    expect((await ines.post('/defects', d)).body.pending).toBe(true)
    expect((await state(ines, 'dunlin')).state).toBe('stopped')
    expect((await ines.post(`/defects/${d.id}/grade`, { grade: 'watch', words: '' })).body.error.code).toBe('not-your-part')
    expect((await wil.post(`/defects/${d.id}/grade`, { grade: 'watch', words: 'Scratch only' })).body).toMatchObject({
      pending: false,
      grade: 'watch',
    })
    expect((await state(ines, 'dunlin')).state).toBe('ready')
  })

  it('is acknowledged by the named contact, or by who stands in', async () => {
    const [ines, mirela] = [await app.as('Ines Haldane'), await app.as('Mirela Quist')]
    const d = defect()
    const told = (await ines.post('/defects', d)).body.contacts
    expect(told).toEqual([
      { person: { id: 'wilhelmina-osei', name: 'Wilhelmina Osei' }, standIn: { id: 'mirela-quist', name: 'Mirela Quist' } },
    ])
    expect((await ines.post(`/defects/${d.id}/acknowledge`)).body.error.code).toBe('not-your-part')
    expect((await mirela.post(`/defects/${d.id}/acknowledge`)).body).toMatchObject({
      state: 'acknowledged',
      acknowledged: { by: { name: 'Mirela Quist' } },
    })
  })

  it('never disappears, and its stop tag prints', async () => {
    const ines = await app.as('Ines Haldane')
    const d = defect({ grade: 'hazard', spot: { view: 'plan', at: [2.75, 3] } })
    await ines.post('/defects', d)
    await expect(app.owner.query('delete from defect where id = $1', [d.id])).rejects.toThrow(/no defect disappears/)
    const tag = await ines.get(`/defects/${d.id}/tag.pdf`)
    expect(tag.body.subarray(0, 5).toString()).toBe('%PDF-')
    expect((await ines.get(`/defects/${d.id}`)).body.spot).toEqual({ view: 'plan', at: [2.75, 3] })
    const csv = (await ines.get('/exports/defects.csv')).body.toString()
    expect(csv).toContain(d.id)
    expect((await ines.get('/exports/defects.json')).body.format).toBe('geolabe.defects/1')
  })
})

describe('who may', () => {
  it('is given and withdrawn by the person in charge, never to oneself; without the key no shift starts, below the server too', async () => {
    const [tomas, wil] = [await app.as('Tomas Brekke'), await app.as('Wilhelmina Osei')]
    const key = (p: typeof tomas, person: string, give: boolean, machine = 'tern') =>
      p.post(`/people/${person}/keys`, { machine, give })
    expect((await key(tomas, 'tomas-brekke', true)).body.error.code).toBe('not-your-part')
    expect((await key(wil, 'wilhelmina-osei', true)).body.error.code).toBe('own-key')
    const after = (await key(wil, 'tomas-brekke', false)).body.people.find((p: { id: string }) => p.id === 'tomas-brekke')
    expect(after.authorised).not.toContain('tern')
    const refused = await tomas.post('/shifts', openBody())
    expect(refused.body.error).toMatchObject({ code: 'may-not-operate', impediments: [{ code: 'not-authorised' }] })
    await expect(
      app.db.as({ org: 'skarrow-haven', person: 'tomas-brekke' }, (tx) =>
        tx.query(
          "insert into shift (org, id, machine, machine_revision, place, operator, sign_on) values ('skarrow-haven', gen_random_uuid(), 'tern', 2, 'north-quay', 'tomas-brekke', '{}')",
        ),
      ),
    ).rejects.toThrow(/not authorised/)
    await key(wil, 'tomas-brekke', true)
    expect((await tomas.post('/shifts', openBody())).status).toBe(200)
    const kinds = (await wil.get('/journal?machine=tern')).body.entries.map((e: { kind: string }) => e.kind)
    expect(kinds).toContain('key-given')
    expect(kinds).toContain('key-withdrawn')
  })
})

describe('what falls due', () => {
  it('is recorded by whose part it is, with the meter where it goes by hours, and moves on', async () => {
    const [ines, rafiq] = [await app.as('Ines Haldane'), await app.as('Rafiq Dunmore')]
    const line = async (duty: string) =>
      (await ines.get('/due')).body.due.find((d: { machine: string; duty: string }) => d.machine === 'tern' && d.duty === duty)
    const today = new Date().toISOString().slice(0, 10)
    const done = { id: randomUUID(), duty: 'service', on: today, hours: 3822, words: 'Oil and filters' }
    expect((await ines.post('/machines/tern/duties', done)).body.error.code).toBe('not-your-part')
    expect((await rafiq.post('/machines/tern/duties', { ...done, hours: null })).body.error.path).toBe('hours')
    expect((await rafiq.post('/machines/tern/duties', { ...done, on: '2199-01-01' })).body.error.code).toBe('in-the-future')
    expect((await rafiq.post('/machines/tern/duties', done)).status).toBe(200)
    expect(await line('service')).toMatchObject({
      atHours: 4072,
      last: { on: today, words: 'Oil and filters' },
    })
    const ics = (await ines.get('/exports/due.ics')).body.toString()
    expect(ics.match(/BEGIN:VEVENT/g)?.length).toBeGreaterThan(20)
    expect(ics).toMatch(/UID:tern\.service@skarrow-haven\.geolabe/)
  })
})

describe('a walk-round made elsewhere', () => {
  it('comes in whole or not at all: a missing zone, another machine, a wrong role are refused by name', async () => {
    const [ines, wil] = [await app.as('Ines Haldane'), await app.as('Wilhelmina Osei')]
    const template = (await wil.get('/machines/heron/walkround.json')).body
    const bring = (p: typeof ines, t: object, why = 'Plainer words') => p.post('/machines/heron/walkround', { template: t, why })
    expect((await bring(ines, template)).body.error.code).toBe('not-your-part')
    expect((await bring(wil, { ...template, machine: 'tern' })).body.error.code).toBe('other-machine')
    const less = { ...template, zones: template.zones.slice(1) }
    expect((await bring(wil, less)).body.error).toMatchObject({ code: 'missing-zone', path: 'zones' })
    const damaged = structuredClone(template)
    damaged.zones[2].items[1].look = ''
    expect((await bring(wil, damaged)).body.error.path).toMatch(/^zones\.2\.items\.1/)
    expect((await bring(wil, template, ' ')).body.error.path).toBe('why')
    template.zones[0].items[0].look = 'No lean at all'
    expect((await bring(wil, template)).body).toMatchObject({ revision: 1, why: 'Plainer words' })
    const file = (await ines.get('/machines/heron')).body
    expect(file.walkroundRevision).toBe(1)
    expect(file.definition.walkround.zones[0].items[0].look).toBe('No lean at all')
    const csv = (await wil.get('/machines/heron/walkround.csv')).body.toString()
    expect(csvToWalkround(csv, 'heron', 2, []).zones).toHaveLength(template.zones.length)
  })
})

describe('the journal, searched', () => {
  it('finds by kind, person, machine, day and words, each by an index of its own', async () => {
    const ines = await app.as('Ines Haldane')
    await ines.post('/defects', defect({ words: 'Zebra stripe worn off' }))
    const found = (await ines.get('/journal?kind=defect-raised&words=zebra%20stripe')).body.entries
    expect(found).toHaveLength(1)
    expect(found[0].body.words).toBe('Zebra stripe worn off')
    expect((await ines.get('/journal?words=zebra&actor=tomas-brekke')).body.entries).toHaveLength(0)
    const today = new Date().toISOString().slice(0, 10)
    expect((await ines.get(`/journal?words=zebra&from=${today}&to=${today}`)).body.entries).toHaveLength(1)
    expect((await ines.get('/journal?from=yesterday')).body.error.path).toBe('from')
    const csv = (await ines.get('/exports/journal.csv?words=zebra')).body.toString()
    expect(csv.split('\n')).toHaveLength(2)
    expect(journalQuery({ kind: 'x', words: "'; drop table journal; --" }, 10).text).not.toContain('drop')
  })
})

describe('a machine’s life and its rounds', () => {
  it('hold shifts, defects, repairs and readings on one axis, and tell the person in charge what stands out', async () => {
    const [ines, wil] = [await app.as('Ines Haldane'), await app.as('Wilhelmina Osei')]
    const life = (await ines.get('/machines/gannet/life?days=60')).body
    expect(life.shifts.length).toBeGreaterThanOrEqual(4)
    expect(life.defects[0]).toMatchObject({ grade: 'hazard', state: 'returned' })
    expect(life.repairs[0].by.name).toBe('Rafiq Dunmore')
    expect((await ines.get('/inspections/report')).body.error.code).toBe('not-your-part')
    const report = (await wil.get('/inspections/report')).body
    expect(report.patterns).toContainEqual(
      expect.objectContaining({
        kind: 'too-quick',
        machine: { id: 'whimbrel', name: 'Whimbrel' },
        by: { id: 'tomas-brekke', name: 'Tomas Brekke' },
      }),
    )
    expect(report.weeks.length).toBeGreaterThan(3)
    const list = (await ines.get('/inspections?machine=gannet')).body.inspections
    const file = (await ines.get(`/inspections/${list[0].id}/export`)).body
    expect(file).toMatchObject({ format: 'geolabe.inspection/1', inspection: { machine: { id: 'gannet' } } })
    expect(file.inspection.entries.length).toBe(list[0].items)
    expect((await ines.get('/exports/inspections.csv?machine=gannet')).body.toString()).toContain('gannet')
  })
})
