import { randomUUID } from 'node:crypto'
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import {
  inOrder,
  liftBody,
  openBody,
  type Person,
  proveRaised,
  type Running,
  readyShift,
  setUp,
  setupBody,
  siteBody,
  start,
  tern,
  useOverride,
} from './helper'

let app: Running
let ines: Person
let wil: Person
let rafiq: Person
beforeAll(async () => {
  app = await start()
  ines = await app.as('Ines Haldane')
  wil = await app.as('Wilhelmina Osei')
  rafiq = await app.as('Rafiq Dunmore')
})
beforeEach(() => app.freeTern())
afterAll(() => app.stop())

const code = (r: { body: { error?: { code: string } } }) => r.body.error?.code

describe('every station asks for the same', () => {
  it('nothing is set up without the walk-round and the site, nor while the machine is stopped', async () => {
    const body = openBody()
    await ines.post('/shifts', body)
    expect(code(await ines.post(`/shifts/${body.id}/setups`, setupBody()))).toBe('not-walked')
    await ines.post(`/shifts/${body.id}/site`, siteBody())
    expect(code(await ines.post(`/shifts/${body.id}/setups`, setupBody()))).toBe('not-walked')
    await app.freeTern()
    const id = await readyShift(ines)
    await wil.post('/defects', {
      id: randomUUID(),
      machine: 'tern',
      shift: null,
      item: null,
      where: 'x',
      words: 'x',
      grade: 'damage',
    })
    expect(code(await setUp(ines, id, setupBody()))).toBe('machine-stopped')
  })
  it('a move clears site, set-up and what was proved raised; a lift that waits is ended first', async () => {
    const id = await readyShift(ines)
    const setup = setupBody()
    await setUp(ines, id, setup)
    await proveRaised(ines, id)
    const lift = liftBody(setup.id)
    await ines.post(`/shifts/${id}/lifts`, lift)
    const move = () => ines.post(`/shifts/${id}/moves`, { id: randomUUID(), place: 'north-quay', words: 'Ten metres on' })
    expect(code(await move())).toBe('lift-waiting')
    await ines.post(`/shifts/${id}/lifts/${lift.id}/outcome`, { outcome: 'abandoned', reason: 'moved' })
    const moved = await move()
    expect(moved.body).toMatchObject({ site: null, inspections: [{ raisedAt: null }] })
    expect(moved.body.inspections[0].finishedAt).not.toBeNull()
    expect(code(await ines.post(`/shifts/${id}/lifts`, liftBody(setup.id)))).toBe('site-not-fit')
    await ines.post(`/shifts/${id}/site`, siteBody())
    expect(code(await ines.post(`/shifts/${id}/lifts`, liftBody(setup.id)))).toBe('set-up-changed')
    const anew = setupBody()
    await setUp(ines, id, anew)
    const again = liftBody(anew.id)
    expect((await ines.post(`/shifts/${id}/lifts`, again)).status).toBe(200)
    const done = { outcome: 'done', reason: '' }
    expect(code(await ines.post(`/shifts/${id}/lifts/${again.id}/outcome`, done))).toBe('not-proved-raised')
    await proveRaised(ines, id)
    await inOrder(ines, id, 'lift')
    expect((await ines.post(`/shifts/${id}/lifts/${again.id}/outcome`, done)).status).toBe(200)
  })
  it('what must follow an override holds the next lift until whose part it is has done it, another than who used it', async () => {
    const id = await readyShift(ines)
    const setup = setupBody()
    await setUp(ines, id, setup)
    const used = await useOverride(ines, id, 'limiter', { words: 'Stowed' })
    const use = used.body.overrides[0]
    expect(use.role).toBe('fitter')
    expect(code(await ines.post(`/shifts/${id}/lifts`, liftBody(setup.id)))).toBe('follow-up-open')
    for (const p of [ines, wil]) expect(code(await p.post(`/overrides/${use.id}/followed`))).toBe('not-your-part')
    expect((await rafiq.post(`/overrides/${use.id}/followed`)).status).toBe(200)
    expect((await ines.post(`/shifts/${id}/lifts`, liftBody(setup.id))).status).toBe(200)
  })
})

describe('left as it stands', () => {
  it('closes the shift with no step confirmed, abandons what was proved, and stops the machine with a tag', async () => {
    const id = await readyShift(ines)
    const setup = setupBody()
    await setUp(ines, id, setup)
    await ines.post(`/shifts/${id}/lifts`, liftBody(setup.id))
    const hand = { hours: null, fuel_share: null, standsAt: 'Deck', words: '' }
    expect(code(await ines.post(`/shifts/${id}/handover`, hand))).toBe('lift-waiting')
    const left = {
      how: 'Outriggers out, boom up, nothing on the hook.',
      madeSafe: 'Cones round it, key out.',
      takenBackBy: 'Rafiq Dunmore',
    }
    expect(
      (await ines.post(`/shifts/${id}/handover`, { ...hand, leftAsItStands: { ...left, madeSafe: ' ' } })).body.error.path,
    ).toBe('leftAsItStands.madeSafe')
    const closed = await ines.post(`/shifts/${id}/handover`, { ...hand, leftAsItStands: left })
    expect(closed.body).toMatchObject({
      handover: { leftAsItStands: left },
      lifts: [{ outcome: { outcome: 'abandoned' } }],
    })
    const file = (await ines.get('/machines/tern')).body
    expect(file.state.state).toBe('stopped')
    expect(file.stopping[0].words).toContain('Outriggers out')
    const tag = await ines.get(`/defects/${file.stopping[0].id}/tag.pdf`)
    expect(tag.body.subarray(0, 5).toString()).toBe('%PDF-')
    expect(code(await ines.post('/shifts', openBody()))).toBe('machine-stopped')
  })
})

describe('taking a machine', () => {
  const policy = (field: string, value: string) =>
    app.owner.query(
      `update place set document = jsonb_set(document, '{policy,${field}}', '"${value}"') where org = 'skarrow-haven' and id = 'north-quay'`,
    )
  it('whose thorough examination is overdue is refused, unless the site only tells', async () => {
    const exam = tern.duties.find((d) => d.kind === 'examination')
    if (!exam) throw new Error('no examination')
    await app.owner.query('begin; create temporary table were as select * from duty_done where machine = $$tern$$; commit')
    await app.owner.query("delete from duty_done where machine = 'tern' and duty = $1", [exam.id])
    await app.owner.query(
      "insert into duty_done (org, id, machine, duty, done_on, by) values ('skarrow-haven', gen_random_uuid(), 'tern', $1, now() - interval '3 years', 'wilhelmina-osei')",
      [exam.id],
    )
    try {
      const refused = await ines.post('/shifts', openBody())
      expect([refused.status, code(refused)]).toEqual([409, 'examination-overdue'])
      expect(refused.body.error.message).toContain(exam.label)
      await policy('overdueExamination', 'tell')
      expect((await ines.post('/shifts', openBody())).status).toBe(200)
    } finally {
      await policy('overdueExamination', 'bar')
      await app.owner.query("delete from duty_done where machine = 'tern' and duty = $1", [exam.id])
      await app.owner.query(
        "insert into duty_done (org, id, machine, duty, done_on, by) values ('skarrow-haven', gen_random_uuid(), 'tern', $1, now(), 'wilhelmina-osei')",
        [exam.id],
      )
    }
  })
  it('by somebody who has one already is told, or refused where the site wants it so', async () => {
    const dipper = (await ines.get('/machines/dipper')).body.definition
    const second = () => ({
      ...openBody(),
      machine: 'dipper',
      ppe: dipper.ppe.map((w: { id: string }) => w.id),
      documents: dipper.documents.map((p: { id: string }) => p.id),
    })
    await ines.post('/shifts', openBody())
    await policy('severalMachines', 'refuse')
    try {
      const refused = await ines.post('/shifts', second())
      expect(code(refused)).toBe('has-another')
      expect(refused.body.error.message).toContain('Tern')
    } finally {
      await policy('severalMachines', 'tell')
    }
    expect((await ines.post('/shifts', second())).status).toBe(200)
    await app.freeTern()
  })
})
