import { randomUUID } from 'node:crypto'
import { expectedOnPlate, itemsOf, soundReading } from '@geolabe/core'
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { readMachineFile, readTableFile } from '../src/demo/files'
import {
  entryBody,
  items,
  liftBody,
  openBody,
  type Person,
  type Running,
  readyShift,
  setUp,
  setupBody,
  start,
  tern,
  useOverride,
} from './helper'

let app: Running
beforeAll(async () => {
  app = await start()
})
beforeEach(() => app.freeTern())
afterAll(() => app.stop())

const first = (items[0] as (typeof items)[number]).item
const takeTern = async (p: Person): Promise<string> => {
  const body = openBody()
  const r = await p.post('/shifts', body)
  expect(r.status).toBe(200)
  return body.id
}
/** Sends as a device whose clock is off would. */
const withClock = async (p: Person, path: string, body: object, clock: Date) =>
  fetch(`${app.base}/api${path}`, {
    method: 'POST',
    headers: {
      'x-geolabe': '1',
      'content-type': 'application/json',
      cookie: p.cookie,
      'idempotency-key': randomUUID(),
      'x-geolabe-clock': clock.toISOString(),
    },
    body: JSON.stringify(body),
  })

describe('the same round on two devices', () => {
  it('overwrites nothing unseen: the second is told what the first said, and says which stands', async () => {
    const ines = await app.as('Ines Haldane')
    const id = await takeTern(ines)
    const mark = (over: object) => ines.post(`/shifts/${id}/entries`, entryBody(id, first, over))
    expect((await mark({ device: 'phone', result: 'defect' })).status).toBe(200)
    expect((await mark({ device: 'phone', result: 'in-order' })).status).toBe(200)
    expect((await mark({ device: 'phone', result: 'defect' })).status).toBe(200)
    const other = await mark({ device: 'tablet' })
    expect(other.body.error).toMatchObject({ code: 'entered-elsewhere', path: 'item' })
    expect(other.body.error.message).toMatch(/entered as a defect on another device/)
    // The same answer from both is no conflict.
    expect((await mark({ device: 'tablet', result: 'defect' })).status).toBe(200)
    const now = (await ines.get(`/shifts/${id}`)).body.inspections[0].entries[0]
    expect((await mark({ device: 'phone', replaces: now.at })).status).toBe(200)
    expect((await ines.get(`/shifts/${id}`)).body.inspections[0].entries[0]).toMatchObject({
      result: 'in-order',
      device: 'phone',
    })
  })
})

describe('a clock that is wrong by a day', () => {
  it('is set right by when it was sent: order and distance stay, nothing ends up in the future', async () => {
    const ines = await app.as('Ines Haldane')
    const id = await takeTern(ines)
    const day = 86_400_000
    const device = new Date(Date.now() + day)
    const noted = new Date(device.getTime() - 600_000).toISOString()
    const r = await withClock(ines, `/shifts/${id}/entries`, entryBody(id, first, { at: noted }), device)
    expect(r.status).toBe(200)
    const at = Date.parse((await ines.get(`/shifts/${id}`)).body.inspections[0].entries[0].at)
    expect(Math.abs(Date.now() - 600_000 - at)).toBeLessThan(20_000)
    const entry = (await ines.get('/journal?kind=inspection-entry')).body.entries[0]
    expect(Math.abs(entry.body.clockOff_s - 86_400)).toBeLessThan(20)
    // A clock that is right, and an entry made an hour ago without a network.
    const second = (items[1] as (typeof items)[number]).item
    const hour = new Date(Date.now() - 3_600_000).toISOString()
    await withClock(ines, `/shifts/${id}/entries`, entryBody(id, second, { at: hour }), new Date())
    const marks = (await ines.get(`/shifts/${id}`)).body.inspections[0].entries
    expect(marks.find((m: { item: string }) => m.item === second.id).at).toBe(hour)
  })
})

describe('rounds at other times', () => {
  it('after an absence keep lifting from going on until they are finished', async () => {
    const ines = await app.as('Ines Haldane')
    const id = await readyShift(ines)
    const setup = setupBody()
    await setUp(ines, id, setup)
    const round = randomUUID()
    expect((await ines.post(`/shifts/${id}/inspections`, { id: round, occasion: 'after-absence' })).status).toBe(200)
    expect((await ines.post(`/shifts/${id}/inspections`, { id: randomUUID(), occasion: 'after-absence' })).body.error.code).toBe(
      'wrong-state',
    )
    expect((await ines.post(`/shifts/${id}/lifts`, liftBody(setup.id))).body.error.message).toMatch(/round after the absence/)
    const absence = itemsOf(tern.walkround, 'after-absence')
    expect(absence.length).toBeLessThan(items.length / 2)
    for (const { item } of absence) await ines.post(`/shifts/${id}/entries`, entryBody(id, item, { inspection: round }))
    const finished = await ines.post(`/shifts/${id}/inspections/finish`, { inspection: round })
    expect(finished.body.inspections[1]).toMatchObject({ occasion: 'after-absence', finishedAt: expect.any(String) })
    expect((await ines.post(`/shifts/${id}/lifts`, liftBody(setup.id))).status).toBe(200)
  })

  it('raised functions wait for the site and the set-up', async () => {
    const ines = await app.as('Ines Haldane')
    const id = await takeTern(ines)
    const raised = itemsOf(tern.walkround).find((x) => x.zone.part === 'raised')?.item
    if (!raised) throw new Error('nothing raised')
    expect((await ines.post(`/shifts/${id}/entries`, entryBody(id, raised))).body.error.code).toBe('not-walked')
    await app.owner.query('update shift set closed_at = now() where closed_at is null')
    const ready = await readyShift(ines)
    expect((await ines.post(`/shifts/${ready}/entries`, entryBody(ready, raised))).body.error.code).toBe('not-set-up')
    await setUp(ines, ready, setupBody())
    expect((await ines.post(`/shifts/${ready}/entries`, entryBody(ready, raised))).status).toBe(200)
  })
})

describe('hands on', () => {
  it('is shown to everyone from the beginning of the round to its end', async () => {
    const [ines, tomas] = [await app.as('Ines Haldane'), await app.as('Tomas Brekke')]
    const id = await takeTern(ines)
    const seen = async () =>
      (await tomas.get('/yard')).body.machines.find((m: { id: string }) => m.id === 'tern').handsOn?.person.name ?? null
    expect(await seen()).toBeNull()
    await ines.post(`/shifts/${id}/hands-on`, { inspection: id, on: true })
    expect(await seen()).toBe('Ines Haldane')
    for (const { item } of items) await ines.post(`/shifts/${id}/entries`, entryBody(id, item))
    await ines.post(`/shifts/${id}/inspections/finish`, { inspection: id })
    expect(await seen()).toBeNull()
  })
})

describe('the rating plate', () => {
  it('is entered once, field by field, and compared ever after; what reads otherwise is a defect', async () => {
    const wren = readMachineFile('wren')
    const ines = await app.as('Ines Haldane')
    const body = { ...openBody(), machine: 'wren', ppe: wren.ppe.map((w) => w.id), documents: wren.documents.map((p) => p.id) }
    expect((await ines.post('/shifts', body)).status).toBe(200)
    const item = itemsOf(wren.walkround).find((x) => x.item.plate)?.item
    if (!item) throw new Error('no plate')
    const mark = (plate: Record<string, string | number> | null) =>
      ines.post(`/shifts/${body.id}/entries`, entryBody(body.id, item, { plate }))
    const tables = wren.tables.map(readTableFile)
    const plate: Record<string, string | number> = Object.fromEntries(
      wren.plateFields.map((f) => [f.id, f.quantity ? (expectedOnPlate(f, tables) ?? 2011) : `${f.label} 7`]),
    )
    const rated = wren.plateFields.find((f) => f.cell)?.id ?? ''
    expect((await mark(null)).body.error).toMatchObject({ code: 'plate-not-read', path: 'plate.maker' })
    expect((await mark({ ...plate, year: ' ' })).body.error.path).toBe('plate.year')
    expect((await mark({ ...plate, year: 'unreadable' })).body.error).toMatchObject({
      code: 'plate-no-figure',
      path: 'plate.year',
    })
    // The plate of another machine: neither it nor the table is believed.
    expect((await mark({ ...plate, [rated]: 1000 })).body.error).toMatchObject({
      code: 'plate-not-the-table',
      path: `plate.${rated}`,
    })
    expect((await mark(plate)).status).toBe(200)
    expect((await ines.get('/machines/wren')).body.plate).toEqual(plate)
    expect((await mark(null)).status).toBe(200)
    expect((await mark({ ...plate, serial: `  ${String(plate.serial).toUpperCase()} ` })).status).toBe(200)
    const other = await mark({ ...plate, [rated]: 2000 })
    expect(other.body.error).toMatchObject({ code: 'plate-differs', path: `plate.${rated}` })
  })
})

describe('the plate of a machine file', () => {
  it('says what each field must read by the tables in use, and what was entered, as numbers', async () => {
    const ines = await app.as('Ines Haldane')
    for (const id of ['puffin', 'dunlin', 'tern', 'cormorant', 'wren']) {
      const m = readMachineFile(id)
      const tables = m.tables.map(readTableFile)
      const { plate, plateExpected } = (await ines.get(`/machines/${id}`)).body as {
        plate: Record<string, string | number> | null
        plateExpected: Record<string, number>
      }
      const expected = m.plateFields.flatMap((f) => {
        const v = expectedOnPlate(f, tables)
        return v === null ? [] : [[f.id, v] as const]
      })
      expect(plateExpected).toEqual(Object.fromEntries(expected))
      if (plate === null) continue
      for (const f of m.plateFields) expect(typeof plate[f.id], `${id} ${f.id}`).toBe(f.quantity ? 'number' : 'string')
      for (const [field, v] of expected) expect(plate[field]).toBe(v)
    }
  })
})

describe('readings', () => {
  it('are kept beside one another, with the day a part was replaced', async () => {
    const ines = await app.as('Ines Haldane')
    const before = (await ines.get('/machines/puffin')).body.readings['fork-l']
    expect(before.length).toBeGreaterThan(5)
    const puffin = readMachineFile('puffin')
    const fork = itemsOf(puffin.walkround).find((x) => x.item.id === 'fork-l')?.item
    if (!fork?.measure) throw new Error('no fork')
    const body = {
      ...openBody(),
      machine: 'puffin',
      ppe: puffin.ppe.map((w) => w.id),
      documents: puffin.documents.map((p) => p.id),
    }
    await ines.post('/shifts', body)
    await ines.post(
      `/shifts/${body.id}/entries`,
      entryBody(body.id, fork, { reading: soundReading(fork.measure), because: 'replaced' }),
    )
    const after = (await ines.get('/machines/puffin')).body
    expect(after.readings['fork-l'].at(-1)).toMatchObject({ value: 40, replaced: true })
    expect(after.readings['fork-l'].length).toBe(before.length + 1)
  })
})

describe('an override', () => {
  it('is one the machine has, with its reason and time, and what must follow stands until it is done', async () => {
    const ines = await app.as('Ines Haldane')
    const id = await takeTern(ines)
    expect((await useOverride(ines, id, 'anything')).body.error.code).toBe('unknown-step')
    // It is not for a load, and nobody has looked whether one hangs.
    expect((await useOverride(ines, id, 'hook-stop')).body.error.code).toBe('override-load')
    const found = [{ state: 'load', to: 'none' }]
    const answer = await useOverride(ines, id, 'hook-stop', { words: 'Hook tied', held_s: 30, found })
    const used = answer.body.overrides[0]
    expect(used.seconds).toBeGreaterThanOrEqual(30)
    expect(used).toMatchObject({ reason: 'Hook tied', after: 'Hook stop tried again before the next lift', followedAt: null })
    expect((await ines.get('/machines/tern')).body.openOverrides.map((o: { id: string }) => o.id)).toContain(used.id)
    expect((await ines.post(`/overrides/${used.id}/followed`)).body.error.code).toBe('not-your-part')
    const wil = await app.as('Wilhelmina Osei')
    expect((await wil.post(`/overrides/${used.id}/followed`)).status).toBe(200)
    expect((await ines.get('/machines/tern')).body.openOverrides.map((o: { id: string }) => o.id)).not.toContain(used.id)
    expect((await wil.post(`/overrides/${used.id}/followed`)).status).toBe(409)
  })
})

describe('a licence that runs out, or a key that is withdrawn, during the shift', () => {
  it('ends lifting there and then, with the reason; stowing and handing over stay open', async () => {
    const ines = await app.as('Ines Haldane')
    const id = await readyShift(ines)
    const setup = setupBody()
    await setUp(ines, id, setup)
    const licences = (await app.owner.query("select licences from person where id = 'ines-haldane'")).rows[0].licences
    const yesterday = new Date(Date.now() - 86_400_000).toISOString().slice(0, 10)
    try {
      await app.owner.query("update person set licences = $1 where id = 'ines-haldane'", [
        JSON.stringify(licences.map((l: object) => ({ ...l, validUntil: yesterday }))),
      ])
      const r = await ines.post(`/shifts/${id}/lifts`, liftBody(setup.id))
      expect(r.status).toBe(403)
      expect(r.body.error).toMatchObject({ code: 'may-not-operate', impediments: [{ code: 'licence-expired' }] })
      expect((await ines.post(`/shifts/${id}/inspections`, { id: randomUUID(), occasion: 'end-of-shift' })).status).toBe(200)
    } finally {
      await app.owner.query("update person set licences = $1 where id = 'ines-haldane'", [JSON.stringify(licences)])
    }
  })
})

describe('an override that ends the machine’s day', () => {
  it('stops the machine by being recorded', async () => {
    const turnstone = readMachineFile('turnstone')
    const ines = await app.as('Ines Haldane')
    const body = {
      ...openBody(),
      machine: 'turnstone',
      ppe: turnstone.ppe.map((w) => w.id),
      documents: turnstone.documents.map((p) => p.id),
    }
    expect((await ines.post('/shifts', body)).status).toBe(200)
    const words = 'Hook stop dead, stowed'
    expect((await useOverride(ines, body.id, 'hook-stop-stow', { words, found: [{ state: 'load', to: 'none' }] })).status).toBe(
      200,
    )
    const file = (await ines.get('/machines/turnstone')).body
    expect(file.state.state).toBe('stopped')
    expect(file.stopping[0].words).toMatch(/Hook stop dead, stowed\. Out of service until/)
  })
})

describe('a daily duty', () => {
  it('is done by the round before the shift', async () => {
    const gannet = readMachineFile('gannet')
    const ines = await app.as('Ines Haldane')
    const body = {
      ...openBody(),
      machine: 'gannet',
      ppe: gannet.ppe.map((w) => w.id),
      documents: gannet.documents.map((p) => p.id),
    }
    await ines.post('/shifts', body)
    for (const { item } of itemsOf(gannet.walkround).filter((x) => x.zone.part !== 'raised')) {
      await ines.post(`/shifts/${body.id}/entries`, entryBody(body.id, item))
    }
    expect((await ines.post(`/shifts/${body.id}/inspections/finish`, { inspection: body.id })).status).toBe(200)
    const daily = (await ines.get('/machines/gannet')).body.due.find((d: { duty: string }) => d.duty === 'daily')
    expect(daily.last).toMatchObject({ on: new Date().toISOString().slice(0, 10), words: 'By the walk-round' })
  })
})

describe('a fault that impediments the machine', () => {
  it('is refused as milder than it is, by field and remedy, and taken as grave as it is or graver', async () => {
    const ines = await app.as('Ines Haldane')
    const raise = (item: string | null, grade: string) =>
      ines.post('/defects', {
        id: randomUUID(),
        machine: 'gannet',
        shift: null,
        item,
        where: 'Cab · Panel lamps',
        words: 'Overload lamp does not come on',
        grade,
      })
    const mild = await raise('panel', 'watch')
    expect(mild.status).toBe(422)
    expect(mild.body.error).toMatchObject({ code: 'too-mild', path: 'grade' })
    expect(mild.body.error.message).toMatch(/damage to the machine or graver/)
    expect((await raise('glass', 'watch')).status).toBe(200)
    expect((await raise(null, 'watch')).status).toBe(200)
    expect((await raise('panel', 'damage')).status).toBe(200)
    expect((await raise('alarm', 'hazard')).status).toBe(200)
    const yard = (await ines.get('/yard')).body.machines as { id: string; state: string }[]
    expect(yard.find((m) => m.id === 'gannet')?.state).toBe('stopped')
  })
})
