import {
  goBy,
  hasOrder,
  impedimentsTo,
  liftsOnOutriggers,
  type Outrigger,
  outriggersShortOf,
  ratingTable,
  type StandingConfiguration,
  saysStanding,
  stepsOfFile,
  stopsOf,
  supportOf,
} from '@geolabe/core'
import { afterAll, beforeAll, describe, expect, inject, it } from 'vitest'
import { migrate, type Owner } from '../src/db/migrate'
import { readHistories, readMachineFile, readOrganisations, readPlaceFile, readTableFile } from '../src/demo/files'
import { seedHistory } from '../src/demo/history'
import { seed } from '../src/demo/seed'
import { workedOn } from '../src/demo/worked'
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
    const [app_, door] = ['databaseUrl', 'doorUrl'].map((k) => new URL(inject(k as 'doorUrl')).password)
    await migrate(owner, 'unit', { app: app_ as string, door: door as string })
    expect(await seed(owner, 'unit')).toBe(false)
    expect(await count()).toEqual(before)
  })

  it('has history to show: handovers, a watched defect, a rope that thins', async () => {
    const ines = await app.as('Ines Haldane')
    const file = (await ines.get('/machines/tern')).body
    expect(file.watched.length).toBeGreaterThanOrEqual(1)
    // Of the weeks before: shifts of other tests end today.
    const left = await app.owner.query(
      "select handover->>'words' as words from shift where org = 'skarrow-haven' and closed_at < now() - interval '1 day' order by closed_at desc limit 20",
    )
    expect(left.rows).toHaveLength(20)
    expect(left.rows.filter((r) => /\w/.test(r.words)).length).toBeGreaterThanOrEqual(3)
    const rope = await app.owner.query(
      "select reading from inspection_entry where machine = 'tern' and item = 'rope' and reading is not null order by at limit 3",
    )
    const readings = rope.rows.map((r) => r.reading)
    expect([...readings].sort((a, b) => b - a)).toEqual(readings)
  })

  it('has a history by people, machines, places, items and duties that there are, each told as its events make it', async () => {
    for (const { organisation, shifts, defects, duties, plates } of readHistories()) {
      const org = readOrganisations().find((o) => o.id === organisation)
      const people = new Set(org?.people.map((p) => p.id))
      for (const x of [...shifts, ...defects, ...duties]) expect(org?.machines).toContain(x.machine)
      for (const s of shifts) {
        expect(people).toContain(s.operator)
        expect(org?.places).toContain(s.place)
        expect(s.from < s.to).toBe(true)
      }
      for (const d of [...defects, ...duties]) expect(people).toContain(d.by)
      for (const [id, fields] of Object.entries(plates))
        expect(Object.keys(fields).sort()).toEqual(
          readMachineFile(id)
            .plateFields.map((f) => f.id)
            .sort(),
        )
      const told = await app.owner.query(
        `select count(*) from shift s where s.org = $1 and s.closed_at < current_date and (select count(*) from shift_event e where e.org = s.org and e.shift = s.id and e.kind <> 'order') = (select count(*) from inspection_entry i where i.org = s.org and i.shift = s.id) + 5 + 2 * (select count(*) from setup u where u.org = s.org and u.shift = s.id) + 2 * (select count(*) from lift l where l.org = s.org and l.shift = s.id)`,
        [organisation],
      )
      expect(Number(told.rows[0].count)).toBe(shifts.length)
    }
  })

  it('has six weeks of lifts and moves at the places of their machines, each proved inside and done', async () => {
    const [history] = readHistories()
    if (!history) throw new Error('no history')
    const done = await app.owner.query<{ machine: string; place: string; lifts: string; open: string; weeks: string }>(
      `select s.machine, s.place, count(*) as lifts, count(distinct date_trunc('week', l.at)) as weeks,
         count(*) filter (where l.assessment->>'verdict' not in ('inside', 'near') or l.outcome->>'outcome' <> 'done' or l.plan->'steps' is null) as open
       from lift l join shift s on s.org = l.org and s.id = l.shift
       where l.org = $1 and s.closed_at < current_date group by 1, 2`,
      [history.organisation],
    )
    expect(done.rows.map((r) => r.machine).sort()).toEqual(
      Object.keys(history.work)
        .filter((m) => history.shifts.some((s) => s.machine === m))
        .sort(),
    )
    for (const r of done.rows) {
      expect(r.place).toBe(history.work[r.machine]?.setup.place)
      expect(Number(r.open)).toBe(0)
    }
    expect(Math.max(...done.rows.map((r) => Number(r.weeks)))).toBeGreaterThanOrEqual(5)
  })

  it('has a card of every past lift, and a plan of whatever a boom lifted', async () => {
    const past = await app.owner.query<{ shift: string; lift: string; machine: string; drawn: boolean }>(
      `select distinct on (s.machine, l.plan->'steps'->0->>'do') s.id as shift, l.id as lift, s.machine,
         l.plan->'steps'->0->>'do' in ('slew', 'pose') as drawn
       from lift l join shift s on s.org = l.org and s.id = l.shift where s.closed_at < current_date`,
    )
    expect(past.rows.length).toBeGreaterThan(12)
    const ines = await app.as('Ines Haldane')
    for (const { shift, lift, machine, drawn } of past.rows) {
      const card = await ines.get(`/shifts/${shift}/card.pdf`)
      expect([machine, card.status]).toEqual([machine, 200])
      const plan = await ines.get(`/shifts/${shift}/lifts/${lift}/plan.svg`)
      expect([machine, plan.status]).toEqual([machine, drawn ? 200 : 409])
    }
  })

  it('refuses a history in which something was lifted that is not inside its limits', () => {
    const [history] = readHistories()
    const tern = history?.work.tern
    const first = history?.shifts.find((s) => s.machine === 'tern')
    if (!history || !tern || !first) throw new Error('no history of Tern')
    const [lift] = tern.lifts
    if (!lift) throw new Error('no lift')
    const heavy = { ...lift, plan: { ...lift.plan, hung: { ...lift.plan.hung, load: { ...lift.plan.hung.load, mass_kg: 9e4 } } } }
    const bold = { ...history, work: { tern: { ...tern, lifts: [heavy] } } }
    const ids = (...parts: (string | number)[]) => parts.join()
    const on = (h: typeof history) => () => workedOn(h, first, readMachineFile('tern'), new Date(), 'Tomas Brekke', ids)
    expect(on(bold)).toThrow(/Tern: .* is outside/)
    expect(on(history)).not.toThrow()
  })

  it('refuses a history that speaks of what a machine has not, by its field', async () => {
    const [history] = readHistories()
    if (!history) throw new Error('no history')
    const [first] = history.shifts
    if (!first) throw new Error('no shift')
    const with_ = (over: object) => ({ ...history, shifts: [{ ...first, ...over }], defects: [], duties: [], plates: {} })
    const refused = (h: typeof history) => expect(seedHistory(app.owner as never, h)).rejects
    await refused(with_({ readings: { wings: 3 } })).toMatchObject({ code: 'unknown-item', path: 'shifts.0.readings' })
    await refused(with_({ notFitted: ['wings'] })).toMatchObject({ code: 'unknown-item', path: 'shifts.0.notFitted' })
    const duties = [{ machine: 'tern', duty: 'paint', daysAgo: 3, hours: null, by: 'ines-haldane' }]
    await refused({ ...history, shifts: [], defects: [], duties, plates: {} }).toMatchObject({
      code: 'unknown-duty',
      path: 'duties.0.duty',
    })
  })

  it('has its people as the story says: one operator whose licence ran out last month, the others in date', async () => {
    const people = (
      await app.owner.query(
        'select p.name, p.roles, p.licences, p.trained, (select array_agg(a.machine) from authorisation a where a.org = p.org and a.person = p.id) as authorised from person p where p.org = $1',
        ['skarrow-haven'],
      )
    ).rows
    const today = new Date().toISOString().slice(0, 10)
    const tern = readMachineFile('tern')
    const impediments = Object.fromEntries(
      people.filter((p) => p.roles.includes('operator')).map((p) => [p.name, impedimentsTo(p, tern, today).map((b) => b.code)]),
    )
    expect(impediments).toEqual({ 'Ines Haldane': [], 'Tomas Brekke': [], 'Callum Petrosyan': ['licence-expired'] })
  })

  it('gives every badge of a yard once, every PIN to nobody in clear', async () => {
    const rows = (await app.owner.query('select org, badge, pin_hash from person')).rows
    expect(new Set(rows.map((r) => `${r.org} ${r.badge}`)).size).toBe(rows.length)
    for (const r of rows) expect(r.pin_hash).toMatch(/^\$argon2id\$/)
  })
})

/** The stop of an outrigger that comes nearest to a configuration's foot. */
function nearestStop(o: Outrigger, c: StandingConfiguration): string {
  const foot = c.appliesTo.standing.footprint.find((f) => f.id === o.id)
  const away = (s: { x_m: number; y_m: number }) => (foot ? Math.hypot(s.x_m - foot.x_m, s.y_m - foot.y_m) : 0)
  return [...stopsOf(o)].sort((a, b) => away(a) - away(b))[0]?.id ?? ''
}

describe('its machines and tables', () => {
  for (const org of readOrganisations()) {
    for (const id of org.machines) {
      const m = readMachineFile(id)
      if (liftsOnOutriggers(m)) {
        it(`${id}: every table setting can be reached by its legs and stands on one of its counterweights`, () => {
          for (const table of m.tables.map(readTableFile)) {
            expect(ratingTable.parse(table).machine).toBe(id)
            for (const c of table.configurations.filter(saysStanding)) {
              expect(m.upper.counterweights.map((w) => w.mass_kg)).toContain(c.appliesTo.standing.counterweight_kg)
              // A way of standing may be for one boom only.
              const booms = m.supportStates?.find((x) => x.configurations?.includes(c.id))?.boom_m
              // Of a grid the columns are reaches, whatever the boom is drawn out to.
              if (goBy(table.axes, 'height_m', 'reach_m')) expect(c.appliesTo.attachment).toBeDefined()
              else expect(c.columns).toEqual(booms ?? m.boom.lengths_m)
              // In some way of standing: on the wheels, or each outrigger at its stop nearest to what the table asks for.
              const ways = (m.supportStates ?? [null]).map((state) =>
                supportOf(
                  m,
                  state?.on === 'wheels'
                    ? { on: 'wheels', state: state.id, ground: null, tyres: null }
                    : {
                        on: 'outriggers',
                        ...(state && { state: state.id }),
                        outriggers: [
                          ...m.outriggers.map((l) => ({ id: l.id, at: { stop: nearestStop(l, c) } })),
                          ...(state?.props?.legs ?? []).map((l) => ({ id: l.id, at: { stop: 'set' } })),
                        ].map((o) => ({ ...o, mat: null, ground: null, stroke_m: 0.1 })),
                      },
                ),
              )
              expect(ways.some((w) => outriggersShortOf(c, w.contacts).length === 0)).toBe(true)
            }
          }
          expect([...stepsOfFile(m.procedures).map((s) => s.proves), ...m.evidence.map((e) => e.id)]).toContain('bubble')
        })
      }
      it(`${id}: has its table, a way through every station, and somebody in date who may drive it`, () => {
        for (const t of m.tables) expect(readTableFile(t).machine).toBe(id)
        for (const station of ['lift', 'stow'] as const) expect(hasOrder(m, station), station).toBe(true)
        const today = new Date().toISOString().slice(0, 10)
        const until = (v: string | { daysFromToday: number }) =>
          typeof v === 'string' ? v : new Date(Date.now() + v.daysFromToday * 86_400_000).toISOString().slice(0, 10)
        const may = org.people.filter(
          (p) =>
            impedimentsTo(
              {
                ...p,
                licences: p.licences.map((l) => ({ ...l, validUntil: until(l.validUntil) })),
                authorised: p.authorised === 'all' ? org.machines : (p.authorised ?? []),
              },
              m,
              today,
            ).length === 0,
        )
        expect(may.length).toBeGreaterThan(0)
      })
    }
    for (const id of org.places) {
      it(`${id}: every stand has ground under it, and every hazard a control to begin with`, () => {
        const p = readPlaceFile(id)
        expect(p.positions.length).toBeGreaterThan(0)
        for (const h of p.hazards) expect(h.control.length).toBeGreaterThan(10)
        for (const l of p.loads) expect((l.mass_kg === null) === (l.massSource === null)).toBe(true)
      })
    }
  }
})
