import { randomUUID } from 'node:crypto'
import { type MutationName, mutations, pathOf } from '@geolabe/contract'
import { stepsOfFile } from '@geolabe/core'
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import {
  endRound,
  entryBody,
  inOrder,
  items,
  liftBody,
  openBody,
  proveRaised,
  type Running,
  readyShift,
  setUp,
  setupBody,
  siteBody,
  start,
  tern,
} from './helper'

let app: Running
beforeAll(async () => {
  app = await start()
})
beforeEach(() => app.freeTern())
afterAll(() => app.stop())

const mark = (inspection: string, item: string, over: object = {}) => ({
  inspection,
  item,
  result: 'in-order',
  reading: null,
  at: new Date().toISOString(),
  ...over,
})

describe('taking a machine', () => {
  it('is refused to somebody whose licence ran out, with the reason and what puts it right', async () => {
    const callum = await app.as('Callum Petrosyan')
    const r = await callum.post('/shifts', openBody())
    expect(r.status).toBe(403)
    expect(r.body.error.impediments).toHaveLength(1)
    expect(r.body.error.impediments[0]).toMatchObject({ code: 'licence-expired' })
    expect(r.body.error.impediments[0].resolution).toMatch(/Renew/)
  })

  it('is refused to who is no operator, and until wear, papers and handover are confirmed', async () => {
    const rafiq = await app.as('Rafiq Dunmore')
    expect((await rafiq.post('/shifts', openBody())).body.error.impediments.map((b: { code: string }) => b.code)).toEqual([
      'role',
      'no-licence',
      'not-trained',
      'not-authorised',
    ])
    const ines = await app.as('Ines Haldane')
    expect((await ines.post('/shifts', { ...openBody(), ppe: ['boots'] })).body.error).toMatchObject({
      code: 'not-confirmed',
      path: 'ppe',
    })
    expect((await ines.post('/shifts', { ...openBody(), documents: [] })).body.error).toMatchObject({
      code: 'not-confirmed',
      path: 'documents',
    })
    expect((await ines.post('/shifts', { ...openBody(), readHandover: false })).body.error).toMatchObject({
      path: 'readHandover',
    })
    expect((await ines.post('/shifts', { ...openBody(), machine: 'kestrel' })).status).toBe(404)
  })

  it('gives it to one of two who ask at the same moment and tells the other', async () => {
    const [ines, tomas] = [await app.as('Ines Haldane'), await app.as('Tomas Brekke')]
    for (let round = 0; round < 5; round++) {
      await app.freeTern()
      const both = await Promise.all([ines.post('/shifts', openBody()), tomas.post('/shifts', openBody())])
      expect(both.map((b) => b.status).sort()).toEqual([200, 409])
      expect(both.find((b) => b.status === 409)?.body.error.code).toBe('machine-taken')
    }
    const late = await ines.post('/shifts', openBody())
    expect(late.body.error.message).toMatch(/has Tern at North Quay/)
  })
})

describe('every write that a device keeps', () => {
  it.each(Object.entries(mutations))('%s has its route, which asks for what it cannot do without', async (name, { method }) => {
    const params = {
      shift: randomUUID(),
      lift: randomUUID(),
      defect: randomUUID(),
      photo: randomUUID(),
      table: 'x',
      machine: 'x',
    }
    const path = pathOf(name as MutationName, { ...params, step: 'watch' })
    const ines = await app.as('Ines Haldane')
    const r = method === 'PUT' ? await ines.put(path, new FormData()) : await ines.post(path, {}, '')
    expect(r.body.error.code, path).toBe(method === 'PUT' ? 'no-photo' : 'no-key')
  })
})

describe('the same write sent again', () => {
  it('is answered again and recorded once, also when both arrive together', async () => {
    const ines = await app.as('Ines Haldane')
    const body = openBody()
    const key = randomUUID()
    const [a, b] = await Promise.all([ines.post('/shifts', body, key), ines.post('/shifts', body, key)])
    const again = await ines.post('/shifts', body, key)
    expect([a.status, b.status, again.status]).toEqual([200, 200, 200])
    expect(again.body).toEqual(a.body)
    const entries = (await ines.get('/journal')).body.entries.filter(
      (e: { kind: string; subject: string }) => e.kind === 'shift-opened' && e.subject === body.id,
    )
    expect(entries).toHaveLength(1)
  })

  it('needs a key, and one key is for one write', async () => {
    const ines = await app.as('Ines Haldane')
    expect((await ines.post('/shifts', openBody(), 'x')).body.error.code).toBe('no-key')
    const key = randomUUID()
    const body = openBody()
    await ines.post('/shifts', body, key)
    expect((await ines.post(`/shifts/${body.id}/entries`, mark(body.id, 'lean'), key)).body.error.code).toBe('key-used')
  })
})

describe('walk-round', () => {
  it('keeps each mark, corrects by a new one, and ends only when all is looked at', async () => {
    const ines = await app.as('Ines Haldane')
    const { id } = (await ines.post('/shifts', openBody())).body
    await ines.post(`/shifts/${id}/entries`, mark(id, 'lean'))
    await ines.post(`/shifts/${id}/entries`, mark(id, 'drips', { result: 'defect' }))
    await ines.post(`/shifts/${id}/entries`, mark(id, 'drips'))
    const marks = (await ines.get(`/shifts/${id}`)).body.inspections[0].entries
    expect(marks.map((m: { item: string; result: string }) => [m.item, m.result])).toEqual([
      ['lean', 'in-order'],
      ['drips', 'in-order'],
    ])
    expect((await ines.post(`/shifts/${id}/inspections/finish`, { inspection: id })).body.error).toMatchObject({
      code: 'not-walked',
    })
  })

  it('refuses an item the machine has not got, a missing reading, one beyond its limit or belief, and leaving out what is always there', async () => {
    const ines = await app.as('Ines Haldane')
    const { id } = (await ines.post('/shifts', openBody())).body
    // Whatever was measured before was so long ago that all falls due again.
    await app.owner.query("update inspection_entry set at = at - interval '400 days' where shift <> $1", [id])
    const code = async (m: object) => (await ines.post(`/shifts/${id}/entries`, m)).body.error?.code
    expect(await code(mark(id, 'mainsail'))).toBe('unknown-item')
    expect(await code(mark(id, 'rope'))).toBe('no-reading')
    expect(await code(mark(id, 'rope', { reading: 15.1 }))).toBe('reading-discards')
    expect(await code(mark(id, 'rope', { reading: 160 }))).toBe('implausible')
    expect(await code(mark(id, 'rope', { reading: 15.5 }))).toBeUndefined()
    expect(await code(mark(id, 'lean', { result: 'not-fitted' }))).toBe('always-fitted')
    expect(await code(mark(id, 'hook-tie', { result: 'not-fitted' }))).toBeUndefined()
  })

  it('does not end while a defect is marked but not said', async () => {
    const ines = await app.as('Ines Haldane')
    const { id } = (await ines.post('/shifts', openBody())).body
    for (const { item } of items) {
      await ines.post(`/shifts/${id}/entries`, entryBody(id, item, item.id === 'glass' ? { result: 'defect' } : {}))
    }
    expect((await ines.post(`/shifts/${id}/inspections/finish`, { inspection: id })).body.error).toMatchObject({
      code: 'defect-not-said',
    })
    await ines.post('/defects', {
      id: randomUUID(),
      machine: 'tern',
      shift: id,
      item: 'glass',
      where: 'Front · Screen',
      words: 'Left wiper blade torn',
      grade: 'watch',
    })
    expect((await ines.post(`/shifts/${id}/inspections/finish`, { inspection: id })).body.inspections[0].finishedAt).toBeTruthy()
  })

  it('belongs to whoever opened the shift', async () => {
    const [ines, tomas] = [await app.as('Ines Haldane'), await app.as('Tomas Brekke')]
    const { id } = (await ines.post('/shifts', openBody())).body
    expect((await tomas.post(`/shifts/${id}/entries`, mark(id, 'lean'))).status).toBe(403)
  })
})

describe('from site to handover', () => {
  it('goes in its order: no lift before walk-round and site, no set-up step before its condition', async () => {
    const ines = await app.as('Ines Haldane')
    const early = (await ines.post('/shifts', openBody())).body.id
    expect((await setUp(ines, early, setupBody())).body.error.code).toBe('not-walked')
    await app.owner.query('update shift set closed_at = now() where closed_at is null')
    const id = await readyShift(ines)
    const setup = setupBody()
    expect((await ines.post(`/shifts/${id}/setups`, setup)).body.error.code).toBe('not-confirmed')
    const early_at = { id: randomUUID(), at: new Date().toISOString(), by: { id: ines.id, name: '' } }
    const last = stepsOfFile(tern.procedures).findLast((x) =>
      tern.procedures.procedures.some((q) => q.station === 'setup' && q.steps.includes(x)),
    )
    expect(
      (await ines.post(`/shifts/${id}/procedure-events`, { events: [{ do: 'confirm', ...early_at, step: last?.id }] })).body
        .error,
    ).toMatchObject({ code: 'not-permitted', message: expect.stringContaining('Not yet') })
    expect((await setUp(ines, id, setup)).status).toBe(200)
  })

  it('is not fit while a hazard has no control', async () => {
    const ines = await app.as('Ines Haldane')
    const { id } = (await ines.post('/shifts', openBody())).body
    const site = siteBody()
    expect((await ines.post(`/shifts/${id}/site`, { ...site, controls: site.controls.slice(1) })).body.error.code).toBe(
      'no-control',
    )
    expect((await ines.post(`/shifts/${id}/site`, { ...site, controls: [], fit: false })).status).toBe(200)
  })

  it('runs whole, proves on the server, prints, exports and imports again', async () => {
    const ines = await app.as('Ines Haldane')
    const id = await readyShift(ines)
    const setup = setupBody()
    await setUp(ines, id, setup)
    const lift = liftBody(setup.id)
    const proved = (await ines.post(`/shifts/${id}/lifts`, lift)).body.lifts[0]
    expect(proved.assessment.verdict).toBe('inside')
    expect(proved.versions).toMatchObject({
      machine: { id: 'tern', revision: expect.any(Number) },
      tables: [{ id: 'tern-main', revision: 1 }],
    })
    expect((await ines.post(`/shifts/${id}/lifts/${lift.id}/outcome`, { outcome: 'done', reason: '' })).body.error.code).toBe(
      'not-proved-raised',
    )
    await proveRaised(ines, id)
    expect((await ines.post(`/shifts/${id}/lifts/${lift.id}/outcome`, { outcome: 'done', reason: '' })).body.error.code).toBe(
      'not-confirmed',
    )
    expect(
      (await ines.post(`/shifts/${id}/lifts/${lift.id}/outcome`, { outcome: 'abandoned', reason: '' })).body.error.path,
    ).toBe('reason')
    await inOrder(ines, id, 'lift')
    expect((await ines.post(`/shifts/${id}/lifts/${lift.id}/outcome`, { outcome: 'done', reason: '' })).status).toBe(200)
    const hand = {
      hours: 3828,
      fuel_share: 0.6,
      standsAt: 'Beside the wall',
      words: 'All well.',
    }
    expect((await ines.post(`/shifts/${id}/handover`, hand)).body.error.code).toBe('not-confirmed')
    await inOrder(ines, id, 'stow')
    expect((await ines.post(`/shifts/${id}/handover`, hand)).body.error.code).toBe('not-walked')
    await endRound(ines, id)
    expect((await ines.post(`/shifts/${id}/handover`, { ...hand, hours: 12 })).body.error.code).toBe('hours-fell')
    expect((await ines.post(`/shifts/${id}/handover`, { ...hand, hours: 9000 })).body.error.code).toBe('hours-leapt')
    const closed = await ines.post(`/shifts/${id}/handover`, hand)
    expect(closed.body.closedAt).toBeTruthy()
    expect((await ines.post(`/shifts/${id}/site`, siteBody())).body.error.code).toBe('shift-closed')
    expect((await ines.get('/machines/tern')).body.handover).toMatchObject({ words: 'All well.', hours: 3828 })

    const card = await ines.get(`/shifts/${id}/card.pdf`)
    expect(card.body.subarray(0, 5).toString()).toBe('%PDF-')
    const plan = (format: string) => ines.get(`/shifts/${id}/lifts/${lift.id}/plan.${format}`)
    expect((await plan('pdf')).body.subarray(0, 5).toString()).toBe('%PDF-')
    for (const [format, says] of [
      ['svg', '<g id="LOAD">'],
      ['dxf', 'OUTRIGGERS'],
    ] as const)
      expect((await plan(format)).body.toString()).toContain(says)
    expect((await plan('exe')).status).toBe(404)
    expect((await ines.get(`/shifts/${id}/lifts/${id}/plan.dxf`)).status).toBe(404)

    const file = (await ines.get(`/shifts/${id}/export`)).body
    expect(file.format).toBe('geolabe.shift/1')
    const wil = await app.as('Wilhelmina Osei')
    expect((await wil.post('/shift-files', file)).body).toEqual({ id, added: true, recomputes: true })
    expect((await wil.post('/shift-files', file)).body).toEqual({ id, added: false, recomputes: true })
    const wrong = await wil.post('/shift-files', { ...file, shift: { ...file.shift, lifts: 3 } })
    expect(wrong.body.error).toMatchObject({ path: 'shift.lifts' })
    expect((await wil.post('/shift-files', { format: 'other' })).status).toBe(422)
  })

  it('proves only on a set-up of its own shift and place, and hands over no lift left hanging', async () => {
    const ines = await app.as('Ines Haldane')
    const before = await readyShift(ines)
    const old = setupBody()
    await setUp(ines, before, old)
    await app.owner.query('update shift set closed_at = now() where id = $1', [before])
    const id = await readyShift(ines)
    expect((await ines.post(`/shifts/${id}/lifts`, liftBody(old.id))).status).toBe(404)
    const own = setupBody()
    expect(
      (await ines.post(`/shifts/${id}/setups`, { ...own, plan: { ...own.plan, place: 'elsewhere' } })).body.error,
    ).toMatchObject({ code: 'other-place', path: 'plan.place' })
    // A truck crane stands on no tower's base: neither judged nor drawn.
    const standing = { on: 'base', certificate: null }
    expect((await ines.post(`/shifts/${id}/setups`, { ...own, plan: { ...own.plan, standing } })).body.error).toMatchObject({
      code: 'unknown-state',
      path: 'plan.standing.on',
    })
    await setUp(ines, id, own)
    await ines.post(`/shifts/${id}/lifts`, liftBody(own.id))
    const hand = { hours: 3829, fuel_share: null, standsAt: '', words: '' }
    expect((await ines.post(`/shifts/${id}/handover`, hand)).body.error.code).toBe('lift-waiting')
  })

  it('a place that is closed while the load is up is confirmed before the lift is called done', async () => {
    const ines = await app.as('Ines Haldane')
    const id = await readyShift(ines)
    const setup = setupBody()
    await setUp(ines, id, setup)
    await proveRaised(ines, id)
    const body = liftBody(setup.id)
    const closing = (closes: string[]) => ({ ...body, plan: { ...body.plan, closes } })
    expect((await ines.post(`/shifts/${id}/lifts`, closing(['gate']))).body.error).toMatchObject({
      code: 'unknown-area',
      path: expect.stringContaining('closes.0'),
    })
    expect((await ines.post(`/shifts/${id}/lifts`, closing(['walk']))).status).toBe(200)
    const done = () => ines.post(`/shifts/${id}/lifts/${body.id}/outcome`, { outcome: 'done', reason: '' })
    expect((await done()).body.error).toMatchObject({ code: 'not-confirmed', message: expect.stringContaining('closed') })
    await inOrder(ines, id, 'lift')
    expect((await done()).status).toBe(200)
  })

  it('calls no lift done while something of its set-up does not hold any more', async () => {
    const ines = await app.as('Ines Haldane')
    const id = await readyShift(ines)
    const setup = setupBody()
    await setUp(ines, id, setup)
    await proveRaised(ines, id)
    const body = liftBody(setup.id)
    await ines.post(`/shifts/${id}/lifts`, body)
    await inOrder(ines, id, 'lift')
    const told = { id: randomUUID(), at: new Date().toISOString(), by: { id: 'x', name: 'x' }, device: '' }
    const knock = {
      do: 'symptom',
      ...told,
      symptom: 'It was struck',
      answers: ['Nobody hurt'],
      end: 'continue',
      loses: ['impact'],
    }
    // Looked at again: its beams and feet are where they were.
    const seen = Object.entries({ beam: 'out', foot: 'bears' }).flatMap(([what, to]) =>
      ['FL', 'FR', 'RL', 'RR'].map((leg) => ({ do: 'found', ...told, id: randomUUID(), state: `${what}.${leg}`, to })),
    )
    expect((await ines.post(`/shifts/${id}/procedure-events`, { events: [knock, ...seen] })).status).toBe(200)
    const done = () => ines.post(`/shifts/${id}/lifts/${body.id}/outcome`, { outcome: 'done', reason: '' })
    expect(await done()).toMatchObject({ status: 422, body: { error: { code: 'not-confirmed' } } })
    await inOrder(ines, id, 'setup')
    await inOrder(ines, id, 'lift')
    expect((await done()).status).toBe(200)
  })

  it('keeps a lift that is not inside from being called done', async () => {
    const ines = await app.as('Ines Haldane')
    const id = await readyShift(ines)
    const setup = setupBody()
    await setUp(ines, id, setup)
    await proveRaised(ines, id)
    const lift = liftBody(setup.id, { setDown: { radius_m: 18, slew_deg: 300 } })
    expect((await ines.post(`/shifts/${id}/lifts`, lift)).body.lifts[0].assessment.verdict).toBe('outside')
    expect((await ines.post(`/shifts/${id}/lifts/${lift.id}/outcome`, { outcome: 'done', reason: '' })).body.error.code).toBe(
      'not-inside',
    )
    expect(
      (await ines.post(`/shifts/${id}/lifts/${lift.id}/outcome`, { outcome: 'abandoned', reason: 'Too far out' })).status,
    ).toBe(200)
  })
})

describe('a quick sum noted in a shift', () => {
  it('is worked out again and stands in the journal; one that is refused does not', async () => {
    const ines = await app.as('Ines Haldane')
    const body = openBody()
    await ines.post('/shifts', body)
    const good = await ines.post(`/shifts/${body.id}/calculations`, { calculator: 'beaufort', input: { force: 5 } })
    expect(good.status).toBe(200)
    const entry = (await ines.get('/journal')).body.entries.find((e: { kind: string }) => e.kind === 'calculation-noted')
    expect(entry).toMatchObject({ subject: body.id, body: { calculator: 'beaufort', output: { force: 5, to_mps: 10.7 } } })
    const bad = await ines.post(`/shifts/${body.id}/calculations`, { calculator: 'beaufort', input: { force: 50 } })
    expect(bad).toMatchObject({ status: 422, body: { error: { path: 'input.force' } } })
    expect((await ines.post(`/shifts/${body.id}/calculations`, { calculator: 'nothing', input: {} })).status).toBe(404)
    const tomas = await app.as('Tomas Brekke')
    expect(
      (await tomas.post(`/shifts/${body.id}/calculations`, { calculator: 'beaufort', input: { force: 5 } })).status,
    ).toBeGreaterThanOrEqual(403)
  })
})
