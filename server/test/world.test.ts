import { barsTo, boomTable, isBoomTable, isCrane, legsShortOf } from '@geolabe/core'
import { afterAll, beforeAll, describe, expect, inject, it } from 'vitest'
import { migrate, type Owner } from '../src/db/migrate'
import { readMachineFile, readOrganisations, readPlaceFile, readTableFile } from '../src/demo/files'
import { seed } from '../src/demo/seed'
import { type Running, start } from './helper'

let app: Running
let owner: Owner
beforeAll(async () => {
  app = await start()
  await app.freeTern()
  const url = new URL(inject('ownerUrl'))
  owner = { host: url.hostname, port: Number(url.port), user: url.username, password: url.password }
})
afterAll(() => app.stop())

describe('the demo world', () => {
  it('is laid out once: a second start changes nothing', async () => {
    const count = async () =>
      (
        await app.owner.query(
          'select (select count(*) from person) as people, (select count(*) from shift) as shifts, (select count(*) from journal) as entries',
        )
      ).rows[0]
    const before = await count()
    await migrate(owner, 'unit', new URL(inject('databaseUrl')).password)
    expect(await seed(owner, 'unit')).toBe(false)
    expect(await count()).toEqual(before)
  })

  it('has history to show: hand-overs, a watched defect, a rope that thins', async () => {
    const ines = await app.as('Ines Haldane')
    const file = (await ines.get('/machines/tern')).body
    expect(file.watched.length).toBeGreaterThanOrEqual(1)
    expect(file.handOver.words).toMatch(/\w/)
    const rope = await app.owner.query(
      "select reading from walk_mark where item = 'rope' and reading is not null order by at limit 3",
    )
    const readings = rope.rows.map((r) => r.reading)
    expect([...readings].sort((a, b) => b - a)).toEqual(readings)
  })

  it('has its people as the story says: one operator whose licence ran out last month, the others in date', async () => {
    const people = (await app.owner.query('select name, roles, licences, trained from person where org = $1', ['skarrow-haven']))
      .rows
    const today = new Date().toISOString().slice(0, 10)
    const tern = readMachineFile('tern')
    const bars = Object.fromEntries(
      people.filter((p) => p.roles.includes('operator')).map((p) => [p.name, barsTo(p, tern, today).map((b) => b.code)]),
    )
    expect(bars).toEqual({ 'Ines Haldane': [], 'Tomas Brekke': [], 'Callum Petrosyan': ['licence-expired'] })
  })

  it('gives every badge of a yard once, every PIN to nobody in clear', async () => {
    const rows = (await app.owner.query('select org, badge, pin_hash from person')).rows
    expect(new Set(rows.map((r) => `${r.org} ${r.badge}`)).size).toBe(rows.length)
    for (const r of rows) expect(r.pin_hash).toMatch(/^\$argon2id\$/)
  })
})

describe('its machines and tables', () => {
  for (const org of readOrganisations()) {
    for (const id of org.machines) {
      it(`${id}: every table setting can be reached by its legs and stands on one of its counterweights`, () => {
        const m = readMachineFile(id)
        if (!isCrane(m)) throw new Error(`${id} is no crane`)
        for (const table of m.tables.map(readTableFile).filter(isBoomTable)) {
          expect(boomTable.parse(table).machine).toBe(id)
          for (const c of table.configurations) {
            expect(m.upper.counterweights.map((w) => w.mass_kg)).toContain(c.counterweight_kg)
            expect(c.boom_m).toEqual(m.boom.lengths_m)
            const full = m.legs.map((l) => ({ id: l.id, ...l.positions.full }))
            expect(legsShortOf(c, full)).toEqual([])
          }
        }
      })
      it(`${id}: names only steps and items of its own, each once, and walks round once in one direction`, () => {
        const m = readMachineFile(id)
        const ids = m.walkround.zones.flatMap((z) => z.items.map((i) => i.id))
        expect(new Set(ids).size).toBe(ids.length)
        const parts = m.walkround.zones.map((z) => ['ground', 'cab', 'functions'].indexOf(z.part))
        expect([...parts].sort()).toEqual(parts)
        expect(m.procedures.setup.some((s) => s.proves === 'bubble')).toBe(true)
      })
    }
    for (const id of org.places) {
      it(`${id}: every stand has ground under it, and every hazard a control to begin with`, () => {
        const p = readPlaceFile(id)
        expect(p.stands.length).toBeGreaterThan(0)
        for (const h of p.hazards) expect(h.control.length).toBeGreaterThan(10)
        for (const l of p.loads) expect((l.mass_kg === null) === (l.massSource === null)).toBe(true)
      })
    }
  }
})
