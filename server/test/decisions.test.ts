import { randomUUID } from 'node:crypto'
import {
  type DefectAction,
  type DefectState,
  defectActions,
  defectMoves,
  defectState,
  type Grade,
  grade as grades,
  project,
  whyNot,
} from '@geolabe/core'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { entryBody, items, liftBody, type Person, type Running, readyShift, setUp, setupBody, start } from './helper'

let app: Running
const org = 'skarrow-haven'
const names = {
  ines: 'Ines Haldane',
  wil: 'Wilhelmina Osei',
  rafiq: 'Rafiq Dunmore',
  callum: 'Callum Petrosyan',
  mirela: 'Mirela Quist',
} as const
type Name = keyof typeof names
const people = {} as Record<Name, Person>
beforeAll(async () => {
  app = await start()
  await app.freeTern()
  for (const k of Object.keys(names) as Name[]) people[k] = await app.as(names[k])
})
afterAll(() => app.stop())

/** A defect put into any state by its owner, past every rule. */
async function standing(state: DefectState, grade: Grade, pending: boolean, repairedBy: string | null) {
  const id = randomUUID()
  await app.owner.query('alter table defect disable trigger user')
  await app.owner.query(
    `insert into defect (org, id, machine, place_on_machine, words, grade, raised_grade, raised_by, state, pending, repaired_by, repaired_at, repair, verified_by)
     values ($1, $2, 'heron', 'x', 'x', $3, $3, 'ines-haldane', $4, $5, $6, case when $6::text is null then null else now() end, '{"words": "w", "parts": "", "hours": 1}', $7)`,
    [org, id, grade, state, pending, repairedBy, state === 'verified' || state === 'returned' ? 'wilhelmina-osei' : null],
  )
  await app.owner.query('alter table defect enable trigger user')
  return id
}

const request: Record<DefectAction, { path: string; body: (g: Grade) => object }> = {
  acknowledge: { path: 'acknowledge', body: () => ({}) },
  grade: { path: 'grade', body: (grade) => ({ grade, words: 'g' }) },
  repair: { path: 'repair', body: () => ({ words: 'w', parts: '', hours: 1 }) },
  verify: { path: 'verify', body: () => ({ inOrder: true, words: 'w' }) },
  'send-back': { path: 'verify', body: () => ({ inOrder: false, words: 'w' }) },
  watch: { path: 'watch', body: () => ({ untilDate: '2030-01-01', untilHours: null, words: 'w' }) },
  accept: { path: 'accept', body: () => ({ words: 'w' }) },
  return: { path: 'return', body: () => ({ words: 'w' }) },
  worsen: { path: 'notes', body: (grade) => ({ id: randomUUID(), words: 'w', worsened: true, grade }) },
}
const codes = {
  part: 'not-your-part',
  'own-repair': 'own-repair',
  stops: 'stops-machine',
  milder: 'milder',
  state: null,
} as const

describe('decisions about a defect', () => {
  it('are the same list in the core and in the database', async () => {
    const rules = await app.owner.query(
      'select action, from_state as "from", to_state as "to", part, only_watch as "onlyWatch" from defect_rule',
    )
    const key = (m: { action: string; from: string }) => `${m.action} ${m.from}`
    const sorted = <T extends { action: string; from: string }>(list: readonly T[]) =>
      [...list].sort((a, b) => (key(a) < key(b) ? -1 : 1))
    expect(sorted(rules.rows)).toEqual(sorted(defectMoves))
  })
  it('are taken or refused alike by core, routes and database, in every state, at every step, for every role', async () => {
    const roles = await app.owner.query<{ id: string; roles: string[] }>('select id, roles from person where org = $1', [org])
    const contacts = await app.owner.query<{ person: string; stand_in: string }>(
      'select person, stand_in from defect_contact where org = $1',
      [org],
    )
    const told = contacts.rows.flatMap((c) => [c.person, c.stand_in])
    let taken = 0
    for (const state of defectState.options)
      for (const [grade, pending] of [
        ['hazard', false],
        ['watch', false],
        ['watch', true],
      ] as const)
        for (const action of (state === 'watched' || state === 'accepted') && (grade !== 'watch' || pending) ? [] : defectActions)
          for (const p of Object.values(people)) {
            const repaired = ['repaired', 'verified', 'returned'].includes(state)
            // Repaired by whoever asks every other time, so that one's own repair is met by each role.
            const repairedBy = repaired ? (taken % 2 === 0 && p.id !== 'wilhelmina-osei' ? p.id : 'rafiq-dunmore') : null
            const id = await standing(state, grade, pending, repairedBy)
            const to: Grade = action === 'grade' || action === 'worsen' ? (grades.options[taken % 3] as Grade) : grade
            const actor = { id: p.id, roles: roles.rows.find((r) => r.id === p.id)?.roles ?? [], contact: told.includes(p.id) }
            const expected = whyNot(action, { state, grade, pending, repairedBy }, actor, to)
            const r = await p.post(`/defects/${id}/${request[action].path}`, request[action].body(to))
            const what = `${action} of a ${state} ${grade}${pending ? ' (pending)' : ''} by ${p.id}: ${JSON.stringify(r.body?.error ?? r.body?.state)}`
            if (expected === null) {
              expect(r.status, what).toBe(200)
              expect(r.body.state, what).toBe(defectMoves.find((m) => m.action === action && m.from === state)?.to)
              expect(r.body.steps.at(-1), what).toMatchObject({ action, by: { id: p.id } })
            } else {
              expect(r.status, what).toBeGreaterThanOrEqual(400)
              if (codes[expected]) expect(r.body.error.code, what).toBe(codes[expected])
              const kept = await app.owner.query('select state, grade from defect where id = $1', [id])
              expect(kept.rows[0], what).toEqual({ state, grade })
            }
            taken++
          }
    await app.owner.query(
      "alter table defect disable trigger user; alter table defect_step disable trigger user; delete from defect_step s using defect d where d.id = s.defect and d.machine = 'heron' and d.words = 'x'; delete from defect where machine = 'heron' and words = 'x'; alter table defect_step enable trigger user; alter table defect enable trigger user",
    )
  }, 240_000)
  it('are written once: the same again is refused, and who did it stays', async () => {
    const id = await standing('raised', 'damage', false, null)
    await people.wil.post(`/defects/${id}/acknowledge`)
    expect((await people.wil.post(`/defects/${id}/acknowledge`)).body.error.code).toBe('wrong-state')
    await people.rafiq.post(`/defects/${id}/repair`, request.repair.body('damage'))
    expect((await people.rafiq.post(`/defects/${id}/repair`, request.repair.body('damage'))).status).toBe(409)
    await people.wil.post(`/defects/${id}/verify`, { inOrder: true, words: 'tried' })
    await people.wil.post(`/defects/${id}/return`, { words: 'back' })
    const again = await people.wil.post(`/defects/${id}/return`, { words: 'rewritten' })
    expect(again.body.error.code).toBe('wrong-state')
    const d = (await people.wil.get(`/defects/${id}`)).body
    expect(d.returned.words).toBe('back')
    expect(d.steps.map((s: { action: string }) => s.action)).toEqual(['acknowledge', 'repair', 'verify', 'return'])
  })
  it('that were overtaken are told as steps, and no longer stand as the repair', async () => {
    const id = await standing('acknowledged', 'hazard', false, null)
    await people.rafiq.post(`/defects/${id}/repair`, { words: 'first try', parts: '', hours: 1 })
    await people.wil.post(`/defects/${id}/verify`, { inOrder: false, words: 'still leaks' })
    const d = (await people.wil.get(`/defects/${id}`)).body
    expect([d.state, d.repair, d.verified]).toEqual(['acknowledged', null, null])
    expect(d.steps.map((s: { words: string }) => s.words)).toEqual(['first try', 'still leaks'])
    // Nobody but who may judge a repair throws a verified one back.
    await people.rafiq.post(`/defects/${id}/repair`, { words: 'second try', parts: '', hours: 1 })
    await people.wil.post(`/defects/${id}/verify`, { inOrder: true, words: 'dry' })
    const thrown = await people.callum.post(`/defects/${id}/notes`, {
      id: randomUUID(),
      words: 'looks wet',
      worsened: true,
      grade: null,
    })
    expect(thrown.status).toBe(409)
    expect((await people.callum.post(`/defects/${id}/verify`, { inOrder: false, words: 'no' })).body.error.code).toBe(
      'not-your-part',
    )
    expect((await people.wil.get(`/defects/${id}`)).body.state).toBe('verified')
  })
})

describe('as the application’s own role', () => {
  const asApp = (person: string | null, text: string, values: unknown[] = []) =>
    app.db.as({ org, person: person ?? '' }, (tx) => tx.query(text, values))
  it('nothing is decided, signed, rewritten or taken past the rules, with or without a person', async () => {
    const danger = await standing('acknowledged', 'hazard', false, null)
    const shift = await readyShift(people.ines)
    const closed = await app.owner.query<{ id: string; round: string }>(
      'select s.id, i.id as round from shift s join inspection i on i.shift = s.id where s.closed_at is not null and i.finished_at is not null and s.org = $1 limit 1',
      [org],
    )
    const old = closed.rows[0] as { id: string; round: string }
    const attempts: [string, string | null, string, unknown[]][] = [
      ['returns a danger', 'wilhelmina-osei', "update defect set state = 'returned' where id = $1", [danger]],
      ['rewrites return words', 'wilhelmina-osei', "update defect set return_words = 'x'", []],
      ['decides without a person', null, "select defect_move($1, 'repair', 'x', '{}')", [danger]],
      ['decides as somebody who is not there', 'nobody-at-all', "select defect_move($1, 'worsen', 'x', '{}')", [danger]],
      [
        'raises in another’s name',
        'ines-haldane',
        "insert into defect (org, id, machine, place_on_machine, words, grade, raised_grade, raised_by) values ('skarrow-haven', gen_random_uuid(), 'tern', 'x', 'x', 'damage', 'damage', 'tomas-brekke')",
        [],
      ],
      [
        'raises with nobody set',
        null,
        "insert into defect (org, id, machine, place_on_machine, words, grade, raised_grade, raised_by) values ('skarrow-haven', gen_random_uuid(), 'tern', 'x', 'x', 'damage', 'damage', 'tomas-brekke')",
        [],
      ],
      [
        'begins a session',
        'ines-haldane',
        "select session_begin('h', 'skarrow-haven', 'wilhelmina-osei', now() + interval '1 day', 'd')",
        [],
      ],
      ['reads PIN hashes', 'ines-haldane', "select * from sign_in_lookup('skarrow-haven', '1001')", []],
      ['reads PIN hashes from the table', 'ines-haldane', 'select pin_hash from person', []],
      ['clears the throttle', 'ines-haldane', 'delete from throttle', []],
      [
        'rewrites a finished mark',
        'ines-haldane',
        "update inspection_entry set result = 'in-order', at = now() where round = $1",
        [old.round],
      ],
      [
        'adds a mark to a closed shift',
        'ines-haldane',
        "insert into inspection_entry (org, shift, round, machine, item, result, at) select org, shift, id, machine, 'forged', 'in-order', now() from inspection where id = $1",
        [old.round],
      ],
      [
        'finishes a finished round again',
        'ines-haldane',
        'update inspection set items = 3, finished_at = now() where id = $1',
        [old.round],
      ],
      ['reopens a closed shift', 'ines-haldane', 'update shift set closed_at = null where id = $1', [old.id]],
      ['rewrites a handover', 'ines-haldane', "update shift set handover = '{}' where id = $1", [old.id]],
      [
        'enters in another’s shift',
        'tomas-brekke',
        "insert into setup (org, id, shift, plan) values ('skarrow-haven', gen_random_uuid(), $1, '{}')",
        [shift],
      ],
      [
        'gives a key with nobody set',
        null,
        "insert into authorisation (org, person, machine) values ('skarrow-haven', 'callum-petrosyan', 'tern')",
        [],
      ],
      [
        'enters a table with nobody set',
        null,
        "insert into rating_table (org, id, revision, machine, document, why) select org, 'new', 1, machine, document, 'x' from rating_table limit 1",
        [],
      ],
      [
        'enters a walk-round with nobody set',
        null,
        "insert into walkround_revision (org, machine, revision, document, why) select 'skarrow-haven', id, 99, document->'walkround', 'x' from machine limit 1",
        [],
      ],
      ['changes a machine', 'wilhelmina-osei', 'update machine set revision = 99', []],
      ['writes the journal by hand', 'ines-haldane', 'delete from journal', []],
      ['forges a journal head', 'ines-haldane', 'update journal_head set n = 0', []],
      [
        'forges an imported shift',
        'ines-haldane',
        "insert into imported_shift (org, id, digest, file, machine_name, place_name, operator_name, opened_at, lifts, from_organisation, from_installation, exported_at, recomputes, imported_by) values ('skarrow-haven', gen_random_uuid(), 'x', '{}', 'm', 'p', 'o', now(), 0, 'f', 'i', now(), true, 'ines-haldane')",
        [],
      ],
      ['rewrites an answer', 'ines-haldane', "update applied set answer = '{}' where answer is not null", []],
    ]
    for (const [what, person, text, values] of attempts) {
      const r = await asApp(person, text, values).then(
        (done) => `${done.rowCount} rows`,
        (e: Error) => e,
      )
      // Refused, or nothing was there to be seen.
      expect(r instanceof Error || r === '0 rows', `${what}: ${r instanceof Error ? r.message : r}`).toBe(true)
    }
    expect((await app.owner.query('select state from defect where id = $1', [danger])).rows[0].state).toBe('acknowledged')
    await app.freeTern()
  })
})

describe('a walk-round', () => {
  it('that is finished stays finished, and what was entered in it as it was', async () => {
    await app.freeTern()
    const id = await readyShift(people.ines)
    const first = items[0] as (typeof items)[number]
    const late = await people.ines.post(`/shifts/${id}/entries`, entryBody(id, first.item, { result: 'defect', reading: null }))
    expect([late.status, late.body.error.code]).toEqual([409, 'wrong-state'])
    expect((await people.ines.post(`/shifts/${id}/inspections/finish`, { inspection: id })).body.error.code).toBe('wrong-state')
    await app.freeTern()
  })
  it('that asks for less counts once a second person has checked it; one that asks for more counts at once', async () => {
    const current = (await people.mirela.get('/machines/dipper/walkround.json')).body
    const fewer = structuredClone(current)
    const wide = fewer.zones.find((z: { items: unknown[] }) => z.items.length > 1)
    wide.items.pop()
    const cut = await people.mirela.post('/machines/dipper/walkround', { template: fewer, why: 'Too long' })
    expect(cut.status).toBe(200)
    const count = (w: { zones: { items: unknown[] }[] }) => w.zones.reduce((n, z) => n + z.items.length, 0)
    expect(count((await people.ines.get('/machines/dipper')).body.definition.walkround)).toBe(count(current))
    expect(cut.body.waiting).toMatchObject({ enteredBy: { id: 'mirela-quist' } })
    const revision = cut.body.waiting.revision
    expect((await people.mirela.post(`/machines/dipper/walkround/${revision}/check`)).status).toBe(403)
    expect((await people.ines.post(`/machines/dipper/walkround/${revision}/check`)).status).toBe(403)
    expect((await people.wil.post(`/machines/dipper/walkround/${revision}/check`)).status).toBe(200)
    expect(count((await people.ines.get('/machines/dipper')).body.definition.walkround)).toBe(count(current) - 1)
    const more = (await people.mirela.post('/machines/dipper/walkround', { template: current, why: 'Back as it was' })).body
    expect(more.waiting).toBeNull()
    expect(count((await people.ines.get('/machines/dipper')).body.definition.walkround)).toBe(count(current))
  })
})

describe('a shift from elsewhere', () => {
  async function lifted() {
    await app.freeTern()
    const id = await readyShift(people.ines)
    const setup = setupBody()
    await setUp(people.ines, id, setup)
    const lift = liftBody(setup.id)
    await people.ines.post(`/shifts/${id}/lifts`, lift)
    await people.ines.post(`/shifts/${id}/lifts`, { ...liftBody(setup.id), conditions: { wind_mps: null } })
    return id
  }
  it('recomputes to the same findings after machine, table and policy were revised, here and in an empty installation', async () => {
    const id = await lifted()
    await app.owner.query(
      `update machine set document = jsonb_set(document, '{boom,maxAngle_deg}', '79') where org = $1 and id = 'tern';
       `.replaceAll('$1', "'skarrow-haven'"),
    )
    await app.owner.query(
      "update place set document = jsonb_set(document, '{policy,near_share}', '0.5') where org = 'skarrow-haven' and id = 'north-quay'",
    )
    await app.owner.query(
      `insert into rating_table (org, id, revision, machine, document, why) select org, id, revision + 1, machine,
         jsonb_set(document, '{level_deg}', '0.1'), 'revised' from rating_table where org = 'skarrow-haven' and id = 'tern-main' order by revision desc limit 1`,
    )
    try {
      const file = (await people.ines.get(`/shifts/${id}/export`)).body
      const again = (await import('@geolabe/contract')).recompute(file)
      expect(again).toHaveLength(2)
      for (const r of again) expect(r, JSON.stringify(r)).toMatchObject({ equal: true })
      // The other yard has neither the machine nor the place.
      await app.owner.query("update person set roles = roles || '{person-in-charge}' where org = 'ferrow-moss'")
      const elsewhere = await app.as(await otherYard())
      const taken = await elsewhere.post('/shift-files', file)
      expect(taken.body).toEqual({ id, added: true, recomputes: true })
      const there = (await elsewhere.get(`/imported-shifts/${id}`)).body
      expect(there).toEqual(file)
      // From its events alone it is the same shift, there as here.
      expect(there.events.length).toBeGreaterThan(40)
      expect(project(there.events)).toEqual((await people.ines.get(`/shifts/${id}`)).body)
      expect((await elsewhere.get('/imported-shifts')).body.shifts[0]).toMatchObject({
        id,
        recomputes: true,
        from: { organisation: 'skarrow-haven', ours: true },
        importedBy: { id: elsewhere.id },
      })
      expect((await elsewhere.get('/shifts')).body.shifts.some((s: { id: string }) => s.id === id)).toBe(false)
      // A second export is the same record, whatever was revised in between.
      const { exportedAt: _a, signature: _b, ...first } = file
      const { exportedAt: _c, signature: _d, ...second } = (await people.ines.get(`/shifts/${id}/export`)).body
      expect(second).toEqual(first)
    } finally {
      await app.owner.query(
        "update machine set document = (select document from machine_revision r where r.org = machine.org and r.id = machine.id order by revision limit 1) where org = 'skarrow-haven' and id = 'tern'; update place set document = (select document from place_revision r where r.org = place.org and r.id = place.id order by revision limit 1) where org = 'skarrow-haven' and id = 'north-quay'; delete from rating_table where org = 'skarrow-haven' and id = 'tern-main' and why = 'revised'",
      )
      await app.freeTern()
    }
  })
  it('with lifts that take for ever to work out again is refused, and holds nobody up meanwhile', async () => {
    const id = await lifted()
    const { signature: _s, ...file } = (await people.ines.get(`/shifts/${id}/export`)).body
    // As many posts as may be looked at, all at the edge of what the lift sweeps.
    const post = (i: number) => ({
      id: `post-${i}`,
      label: 'Post',
      kind: 'solid',
      geometry: {
        type: 'Polygon',
        points: Array.from({ length: 49 }, (_, k) => [
          18 + 11.6 * Math.cos(i / 6.3) + 0.1 * Math.cos(k / 7.8),
          4.3 + 11.6 * Math.sin(i / 6.3) + 0.1 * Math.sin(k / 7.8),
        ]),
      },
    })
    for (const p of file.used.places) p.document.features = Array.from({ length: 40 }, (_, i) => post(i))
    const proved = file.events.find((e: { kind: string }) => e.kind === 'lift-proved')
    const { plan, assessment } = proved.lift
    // Said short, so that the file is no larger than may be sent.
    const short = { ...assessment, governing: null, findings: [], readFrom: [] }
    const wide = {
      ...plan,
      steps: Array(12).fill({ ...plan.steps[0], pickUp: { radius_m: 5, slew_deg: 0 }, setDown: { radius_m: 9, slew_deg: 350 } }),
    }
    const more = Array.from({ length: 150 }, () => ({
      ...proved,
      lift: { ...proved.lift, id: randomUUID(), plan: wide, assessment: short },
    }))
    file.events = [...file.events, ...more]
    file.shift = JSON.parse(JSON.stringify(project(file.events)))
    const { freshKey } = await import('../src/key/signing')
    let answered = false
    const answer = people.wil.post('/shift-files', { ...file, signature: freshKey().sign(file) }).finally(() => {
      answered = true
    })
    await new Promise((go) => setTimeout(go, 600))
    // By order, not by the clock: whoever asks meanwhile is answered while the file is still being worked out.
    for (let i = 0; i < 3; i++) expect((await people.ines.get('/yard')).status).toBe(200)
    expect(answered).toBe(false)
    expect((await answer).body.error).toMatchObject({ code: 'too-heavy', path: 'shift.lifts' })
    await app.freeTern()
  })
  it('altered, unsigned, dated ahead, or brought by just anybody is refused and leaves nothing', async () => {
    const id = await lifted()
    const file = (await people.ines.get(`/shifts/${id}/export`)).body
    const altered = structuredClone(file)
    altered.shift.operator.name = 'Wilhelmina Osei'
    expect((await people.wil.post('/shift-files', altered)).body.error.code).toBe('bad-signature')
    const { signature: _s, ...unsigned } = file
    expect((await people.wil.post('/shift-files', unsigned)).body.error.code).toBe('not-signed')
    const other = structuredClone(file)
    other.signature.publicKey = 'MCowBQYDK2VwAyEA0000000000000000000000000000000000000000000='
    expect((await people.wil.post('/shift-files', other)).body.error.code).toBe('bad-signature')
    expect((await people.ines.post('/shift-files', file)).body.error.code).toBe('not-your-part')
    const { freshKey } = await import('../src/key/signing')
    const forged = structuredClone(unsigned)
    forged.shift.openedAt = '2099-01-01T00:00:00Z'
    expect((await people.wil.post('/shift-files', { ...forged, signature: freshKey().sign(forged) })).body.error).toMatchObject({
      code: 'in-the-future',
      path: 'shift.openedAt',
    })
    // Signed anew by whoever altered it: a shift that is not what its own events make of it is no record.
    const unlike = structuredClone(unsigned)
    unlike.shift.lifts[0].plan.hung.load.mass_kg = 1
    expect((await people.wil.post('/shift-files', { ...unlike, signature: freshKey().sign(unlike) })).body.error.code).toBe(
      'not-its-events',
    )
    expect((await people.wil.get('/imported-shifts')).body.shifts.filter((s: { id: string }) => s.id === id)).toEqual([])
    const good = await people.wil.post('/shift-files', file)
    expect(good.body).toMatchObject({ added: true })
    expect((await people.wil.post('/shift-files', file)).body).toMatchObject({ added: false })
    await app.freeTern()
  })
})

async function otherYard(): Promise<string> {
  const r = await app.owner.query<{ name: string }>("select name from person where org = 'ferrow-moss' order by id limit 1")
  return r.rows[0]?.name ?? ''
}
