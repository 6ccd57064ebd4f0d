import { randomUUID } from 'node:crypto'
import {
  driveMarks,
  driveVersion,
  type Item,
  itemsOfRound,
  type JudgeRound,
  judgeVersion,
  keep,
  type LoadRun,
  mistakesOn,
  partLines,
  playRun,
  practiceVersion,
  SequenceDrill,
  type SequenceRun,
  sequenceCourse,
  sequenceVersion,
  signalVersion,
} from '@geolabe/core'
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { drivenBy, SteadyDriver } from '../../core/test/driver'
import { readMachineFile, readTableFile } from '../src/demo/files'
import { type Person, type Running, start } from './helper'

let app: Running
let [ines, tomas] = [] as unknown as [Person, Person]
const tern = readMachineFile('tern')
const dunlin = readMachineFile('dunlin')
const puffin = readMachineFile('puffin')
beforeAll(async () => {
  app = await start()
  ines = await app.as('Ines Haldane')
  tomas = await app.as('Tomas Brekke')
})
const clear = () => app.owner.query('delete from practice_run; delete from practice_point')
afterAll(async () => {
  await clear()
  await app.stop()
})
beforeEach(clear)

/** Lowered as it hangs, at less than half of the lever. */
const lowered = (more: Partial<LoadRun> = {}): LoadRun => ({
  format: 'geolabe.practice/1',
  id: randomUUID(),
  game: 'load',
  version: practiceVersion,
  machine: { id: 'tern', revision: tern.revision },
  seed: 5,
  level: 0.1,
  inputs: [[10, 3, -40]],
  stops: [],
  ticks: 2400,
  keys: [],
  ...more,
})
const path = '/practice/runs'
const own = async (p: Person) => (await p.get(path)).body

describe('a practice run', () => {
  it('is played again here before it is kept, and is its maker’s alone', async () => {
    const run = lowered()
    const { result } = playRun(tern, run)
    const { status, body } = await ines.post(path, { run, score: result.score })
    expect(status).toBe(200)
    expect(body).toMatchObject({ id: run.id, score: result.score, claimed: null, same: true })
    const kept = await own(ines)
    expect(kept.runs).toEqual([
      expect.objectContaining({ id: run.id, machine: 'tern', machineName: 'Tern', level: 0.1, seed: 5 }),
    ])
    expect(kept.runs[0].legs).toEqual(JSON.parse(JSON.stringify(result.legs)))
    expect(await own(tomas)).toEqual({ runs: [], next: null })
  })
  it('another score than its inputs come to is not believed: both are kept', async () => {
    const { body } = await ines.post(path, { run: lowered(), score: 100 })
    expect(body.score).toBeLessThan(50)
    expect(body.claimed).toBe(100)
    expect((await own(ines)).runs[0]).toMatchObject({ score: body.score, claimed: 100 })
  })
  it('sent twice it is kept once; under another’s name its id is refused', async () => {
    const run = lowered()
    const key = randomUUID()
    for (let i = 0; i < 2; i++) expect((await ines.post(path, { run, score: 0 }, key)).status).toBe(200)
    expect((await own(ines)).runs).toHaveLength(1)
    const stolen = await tomas.post(path, { run, score: 0 })
    expect(stolen.status).toBeGreaterThanOrEqual(400)
    expect(stolen.status).toBeLessThan(500)
    expect((await own(tomas)).runs).toHaveLength(0)
  })
  it('is refused with what is wrong of it, and nothing is kept', async () => {
    for (const [more, code, at] of [
      [{ version: 99 }, 'version-unknown', 'run.version'],
      [{ machine: { id: 'tern', revision: 99 } }, 'machine-changed', 'run.machine.revision'],
      [{ inputs: [[5, 7, 1]] }, 'axis-unknown', 'run.inputs.0'],
      [
        {
          inputs: [
            [9, 0, 1],
            [5, 0, 1],
          ],
        },
        'inputs-order',
        'run.inputs.1',
      ],
      [{ seed: -1 }, 'bad-input', 'run.seed'],
      [{ ticks: 1e9 }, 'bad-input', 'run.ticks'],
    ] as const) {
      const { status, body } = await ines.post(path, { run: { ...lowered(), ...more }, score: 0 })
      expect([status, body.error.code, body.error.path]).toEqual([422, code, at])
    }
    const puffin = readMachineFile('puffin')
    const { body } = await ines.post(path, { run: lowered({ machine: { id: 'puffin', revision: puffin.revision } }), score: 0 })
    expect(body.error.code).toBe('no-drives')
    expect((await ines.post(path, { run: lowered({ machine: { id: 'nobody', revision: 1 } }), score: 0 })).status).toBe(404)
    expect((await own(ines)).runs).toHaveLength(0)
  })
  it('is read in pages, each run once', async () => {
    const ids = Array.from({ length: 53 }, () => randomUUID())
    await app.owner.query(
      `insert into practice_run (org, id, person, machine, machine_revision, game, run, result, score)
       select 'skarrow-haven', x::uuid, 'ines-haldane', 'tern', 1, 'load', $2, '{}', 0 from unnest($1::text[]) x`,
      [ids, JSON.stringify(lowered())],
    )
    const first = await own(ines)
    expect(first.runs).toHaveLength(50)
    const second = (await ines.get(`${path}?before=${encodeURIComponent(first.next)}`)).body
    expect(second.next).toBeNull()
    expect([...first.runs, ...second.runs].map((r: { id: string }) => r.id).sort()).toEqual([...ids].sort())
    expect((await ines.get(`${path}?before=nonsense`)).status).toBe(422)
  })
})

const tables = tern.tables.map(readTableFile)
const offered = mistakesOn({ machine: tern, tables })
/** A round of judgement on Tern, answered as somebody does. */
function judged(of: (item: Item, i: number) => JudgeRound['answers'][number], more: Partial<JudgeRound> = {}): JudgeRound {
  const how = { seed: 7, level: 0.1, only: offered, ...more }
  return {
    format: 'geolabe.practice/1',
    id: randomUUID(),
    game: 'judge',
    version: judgeVersion,
    machine: { id: 'tern', revision: tern.revision },
    tables: tables.map(({ id, revision }) => ({ id, revision })),
    parts: partLines(tern),
    answers: itemsOfRound({ machine: tern, tables }, how).map(of),
    ...how,
    ...more,
  }
}
const rightly = (item: Item) => ({
  wrong: item.wrong,
  ...('where' in item && item.where[0] ? { at: item.where[0] } : {}),
  sure: 80 as const,
})
const blindly = () => ({ wrong: 'nothing' as const, sure: 100 as const })
const points = async (p: Person) => (await p.get('/practice/points')).body

describe('a round of judgement', () => {
  it('is marked here from its answers, kept, and teaches what comes again: at once where somebody was sure', async () => {
    const { status, body } = await ines.post(path, { run: judged(blindly), score: 100 })
    expect(status).toBe(200)
    expect(body).toMatchObject({ game: 'judge', falseAlarms: 0, passed: false, claimed: 100 })
    expect(body.missed).toBeGreaterThan(2)
    expect((await own(ines)).runs[0]).toMatchObject({ game: 'judge', machine: 'tern', score: body.score, seed: 7 })
    const due = await points(ines)
    const missed = new Set(body.answers.flatMap((a: { wrong: string }) => (a.wrong === 'nothing' ? [] : [a.wrong])))
    expect(new Set(due.points.map((p: { point: string }) => p.point))).toEqual(missed)
    for (const p of due.points) {
      expect(p).toMatchObject({ kind: tern.kind.label, machine: 'tern', machineName: 'Tern', game: 'judge' })
      expect(Date.parse(p.dueAt)).toBeLessThanOrEqual(Date.now())
    }
    expect(due.calibration).toBeNull()
    expect(await points(tomas)).toEqual({ points: [], calibration: null })
  })
  it('right ten times in one evening puts nothing further off than the first time did; the next day it does', async () => {
    await ines.post(path, { run: judged(blindly), score: 0 })
    for (let i = 0; i < 10; i++) await ines.post(path, { run: judged(rightly), score: 100 })
    const [first] = (await points(ines)).points
    const inHours = (at: string) => (Date.parse(at) - Date.now()) / 3_600_000
    expect(inHours(first.dueAt)).toBeLessThan(6)
    expect(inHours(first.dueAt)).toBeGreaterThan(5)
    await app.owner.query(
      "update practice_point set answered_at = answered_at - interval '1 day', due_at = due_at - interval '1 day'",
    )
    await ines.post(path, { run: judged(rightly), score: 100 })
    const [later] = (await points(ines)).points
    // 1 · (1.3 + 1.2 · 0.5) days, due at 85 %.
    expect(inHours(later.dueAt)).toBeCloseTo(24 * 0.2344652536 * 1.9, 1)
    expect(later.recall_share).toBeGreaterThan(0.99)
    const { calibration } = await points(ines)
    expect(calibration).toMatchObject({ count: 120 })
    expect(calibration.brier).toBeCloseTo(calibration.reliability - calibration.resolution + calibration.uncertainty, 9)
  })
  it('is refused where what it was read from is another now, and nothing of it is kept', async () => {
    const anew = tables.map(({ id }) => ({ id, revision: 99 }))
    for (const [more, code, at] of [
      [{ tables: anew }, 'machine-changed', 'run.tables'],
      [{ machine: { id: 'tern', revision: 99 } }, 'machine-changed', 'run.machine.revision'],
      [{ version: 99 }, 'version-unknown', 'run.version'],
      [{ answers: [] }, 'bad-input', 'run.answers'],
      [{ only: [] }, 'bad-input', 'run.only'],
      [{ seed: -1 }, 'bad-input', 'run.seed'],
      [{ game: 'cards' }, 'bad-input', 'run.game'],
    ] as const) {
      const { status, body } = await ines.post(path, { run: { ...judged(rightly), ...more }, score: 0 })
      expect([status, body.error.code, body.error.path]).toEqual([422, code, at])
    }
    expect((await own(ines)).runs).toHaveLength(0)
    expect((await points(ines)).points).toHaveLength(0)
  })
  it('is offered for each machine by its own tables and drives', async () => {
    const { machines } = (await ines.get('/practice/games')).body
    const of = (id: string) => machines.find((m: { machine: string }) => m.machine === id)
    expect(of('tern')).toEqual({
      machine: 'tern',
      load: ['along', 'across'],
      sequence: true,
      signal: true,
      drive: false,
      judge: offered,
    })
    expect(of('dunlin').load).toEqual([])
    // Nothing slews a trailer crane or a hoist under its beam.
    expect([of('wren').load, of('dipper').load]).toEqual([['along'], ['along']])
    expect(of('dunlin').judge.length).toBeGreaterThan(0)
    expect(of('sandpiper')).toMatchObject({ load: [], sequence: true, signal: false, drive: true })
    // Its plate cannot be misread; its way can be.
    expect(of('sandpiper').judge).toContain('too-low')
    expect(of('sandpiper').judge).not.toContain('wrong-row')
  })
})

describe('how skills go', () => {
  it('is told of the last thirty runs and catches of each, oldest first', async () => {
    const result = {
      attempts: [
        { plane: 'across', inward: null, late_s: -0.3 },
        { plane: 'along', inward: true, late_s: 0.2 },
        { plane: 'along', inward: false, late_s: 0.6 },
      ],
    }
    await app.owner.query(
      `insert into practice_run (org, id, person, machine, machine_revision, game, run, result, score, at)
       select 'skarrow-haven', gen_random_uuid(), 'ines-haldane', 'tern', 1, 'load', '{}', $1, k, now() - (100 - k) * interval '1 hour'
       from generate_series(1, 40) k`,
      [JSON.stringify(result)],
    )
    const { skills } = (await ines.get('/practice/progress')).body
    expect(
      skills.map((s: { measure: string; plane: string | null; inward: boolean | null }) => [s.measure, s.plane, s.inward]),
    ).toEqual([
      ['score', null, null],
      ['off_s', 'across', null],
      ['off_s', 'along', true],
      ['off_s', 'along', false],
    ])
    expect(skills[0].values).toEqual(Array.from({ length: 30 }, (_, i) => 11 + i))
    expect(skills[1].values).toEqual(Array.from({ length: 30 }, () => 0.3))
  })
})

describe('parts that are judged', () => {
  it('are those of the walk-round in force; a round of an earlier one says so', async () => {
    const wil = await app.as('Wilhelmina Osei')
    const template = (await wil.get('/machines/dunlin/walkround.json')).body
    const heels = template.zones.flatMap((z: { items: { measure?: { wear?: string; nominal?: number } }[] }) =>
      z.items.flatMap((i) => (i.measure?.wear === 'fork-heel' ? [i.measure] : [])),
    )
    expect(heels.length).toBeGreaterThan(0)
    for (const m of heels) m.nominal = 61
    expect((await wil.post('/machines/dunlin/walkround', { template, why: 'Other forks' })).status).toBe(200)
    const { definition } = (await tomas.get('/machines/dunlin')).body
    const of = dunlin.tables.map(readTableFile)
    const roundOn = (machine: typeof dunlin) => {
      const how = { seed: 5, level: 0.2, only: mistakesOn({ machine, tables: of }) }
      const items = itemsOfRound({ machine, tables: of }, how)
      return {
        ...judged(rightly),
        ...how,
        machine: { id: 'dunlin', revision: machine.revision },
        tables: of.map(({ id, revision }) => ({ id, revision })),
        parts: partLines(machine),
        answers: items.map(rightly),
      }
    }
    const { status, body } = await tomas.post(path, { run: roundOn(definition), score: 100 })
    expect({ status, ...body }).toMatchObject({ status: 200, score: 100, passed: true, claimed: null })
    const early = await tomas.post(path, { run: roundOn(dunlin), score: 100 })
    expect([early.status, early.body.error.code, early.body.error.path]).toEqual([422, 'machine-changed', 'run.parts'])
    await app.owner.query("delete from walkround_revision where machine = 'dunlin'")
  })
})

describe('an order of work kept', () => {
  const run = (acts: SequenceRun['acts'], more: object = {}) => ({
    format: 'geolabe.practice/1',
    id: randomUUID(),
    game: 'sequence',
    version: sequenceVersion,
    machine: { id: 'dunlin', revision: dunlin.revision },
    seed: 12,
    level: 0.3,
    order: 0,
    acts,
    ...more,
  })
  const kept = (looks: boolean, seed = 12) =>
    keep(new SequenceDrill(dunlin, sequenceCourse(dunlin, seed, 0.3), seed), looks).map((a, i): SequenceRun['acts'][number] => [
      120 * i,
      a,
    ])

  it('is marked here from its acts, kept once, and what went wrong comes again', async () => {
    const good = run(kept(true))
    const { status, body } = await tomas.post(path, { run: good, score: 100 })
    expect(status).toBe(200)
    expect(body).toMatchObject({ game: 'sequence', score: 100, passed: true, claimed: null })
    const bad = run([[0, { do: 'step', step: 'nothing-like-it' }], ...kept(true).slice(0, 2)])
    expect((await tomas.post(path, { run: bad, score: 100 })).body).toMatchObject({
      score: 0,
      passed: false,
      ended: false,
      claimed: 100,
    })
    const all = (await own(tomas)).runs.filter((r: { game: string }) => r.game === 'sequence')
    expect(all).toHaveLength(2)
    expect(all.every((r: object) => !('acts' in r))).toBe(true)
    expect((await own(ines)).runs.some((r: { id: string }) => r.id === good.id)).toBe(false)
  })
  it('brings back what was taken on somebody’s word', async () => {
    const seed = Array.from({ length: 50 }, (_, i) => i).find((x) =>
      sequenceCourse(dunlin, x, 0.3).faults.some((f) => f.kind === 'untrue'),
    )
    const { body } = await tomas.post(path, { run: run(kept(false, seed), { seed }), score: 0 })
    expect(body).toMatchObject({ untold: true, passed: false })
    expect((await points(tomas)).points.map((p: { point: string }) => p.point)).toContain('trusted')
    expect((await points(ines)).points).toEqual([])
  })
  it('is marked by the order in force, not by the one that the machine came with; a run of an earlier one says so', async () => {
    const anew = structuredClone(dunlin.procedures)
    const { procedure } = sequenceCourse(dunlin, 12, 0.3)
    const named = (id: string) => JSON.stringify(anew).split(`"${id}"`).length - 1
    const step = anew.procedures.find((p) => p.id === procedure.id)?.steps.find((s) => named(s.id) === 1)
    if (!step) throw new Error('no step is named by itself alone')
    step.id = `${step.id}-anew`
    const [mirela, wil] = [await app.as('Mirela Quist'), await app.as('Wilhelmina Osei')]
    const order = '/machines/dunlin/procedures'
    const id = randomUUID()
    const file = { format: 'geolabe.procedure/1', machine: 'dunlin', ...anew }
    expect((await mirela.post(order, { id, from: 0, why: 'Plainer names', file })).status).toBe(200)
    expect((await wil.post(`${order}/written`, { id, ok: true, words: '' })).body).toEqual({ revision: 1 })
    const { definition, orderRevision } = (await tomas.get('/machines/dunlin')).body
    const acts = keep(new SequenceDrill(definition, sequenceCourse(definition, 12, 0.3), 12), true).map(
      (a, i): SequenceRun['acts'][number] => [120 * i, a],
    )
    expect(JSON.stringify(acts)).toContain(step.id)
    const { status, body } = await tomas.post(path, { run: run(acts, { order: orderRevision }), score: 100 })
    expect({ status, ...body }).toMatchObject({ status: 200, score: 100, passed: true, claimed: null })
    const early = await tomas.post(path, { run: run(kept(true)), score: 100 })
    expect([early.status, early.body.error.code, early.body.error.path]).toEqual([422, 'machine-changed', 'run.order'])
    await app.owner.query('delete from order_revision')
  })
  it('is refused with what is wrong of it', async () => {
    for (const [more, code, at] of [
      [
        {
          acts: [
            [5, { do: 'call' }],
            [4, { do: 'call' }],
          ],
        },
        'inputs-order',
        'run.acts.1',
      ],
      [{ acts: [[999_999, { do: 'call' }]] }, 'inputs-too-long', 'run.acts'],
      [{ acts: [[0, { do: 'pray' }]] }, 'bad-input', 'run.acts.0.1.do'],
      [{ version: 9 }, 'version-unknown', 'run.version'],
    ] as const) {
      const { status, body } = await tomas.post(path, { run: run([], more), score: 0 })
      expect({ status, code: body.error.code, path: body.error.path }).toEqual({ status: 422, code, path: at })
    }
  })
})

describe('a run of signals', () => {
  const run = (more: object = {}) => ({
    format: 'geolabe.practice/1',
    id: randomUUID(),
    game: 'signal',
    version: signalVersion,
    machine: { id: 'tern', revision: tern.revision },
    seed: 5,
    level: 0.2,
    inputs: [],
    stops: [],
    latency_s: 0.02,
    ...more,
  })
  it('is marked here from its levers, kept, and what went wrong comes again', async () => {
    const { status, body } = await ines.post(path, { run: run({ inputs: [[1, 3, 100]] }), score: 90 })
    expect(status).toBe(200)
    expect(body).toMatchObject({ game: 'signal', passed: false, claimed: 90 })
    expect(body.score).toBeLessThanOrEqual(30)
    expect((await own(ines)).runs[0]).toMatchObject({ game: 'signal', score: body.score })
    const skills = async (p: Person) => (await p.get('/practice/progress')).body.skills
    expect(await skills(ines)).toContainEqual({
      machine: 'tern',
      machineName: 'Tern',
      game: 'signal',
      measure: 'score',
      plane: null,
      inward: null,
      values: [body.score],
    })
    expect(await skills(tomas)).toEqual([])
    const due = (await points(ines)).points.map((p: { point: string }) => p.point)
    expect(due).toContain('late-stop')
    expect(due).toContain('without-signal')
  })
  it('is refused with what is wrong of it', async () => {
    for (const [more, code, at] of [
      [{ inputs: [[5, 7, 1]] }, 'axis-unknown', 'run.inputs.0'],
      [{ inputs: [[999_999, 0, 1]] }, 'inputs-order', 'run.inputs.0'],
      [{ latency_s: 0.5 }, 'bad-input', 'run.latency_s'],
      [{ version: 99 }, 'version-unknown', 'run.version'],
    ] as const) {
      const { status, body } = await ines.post(path, { run: run(more), score: 0 })
      expect([status, body.error.code, body.error.path]).toEqual([422, code, at])
    }
    expect((await own(ines)).runs).toHaveLength(0)
  })
})

describe('a load driven', () => {
  const run = (more: object = {}) => ({
    format: 'geolabe.practice/1',
    id: randomUUID(),
    game: 'drive',
    version: driveVersion,
    machine: { id: 'dunlin', revision: dunlin.revision },
    seed: 2,
    level: 0.2,
    inputs: [[10, 0, -60]],
    notes: [],
    ...more,
  })
  it('is driven again here from what was done, whatever the device made of it, and what went wrong comes again', async () => {
    const { status, body } = await ines.post(path, { run: run(), score: 88 })
    expect([status, body]).toEqual([200, expect.objectContaining({ stopped: 'touched', score: 0, passed: false, claimed: 88 })])
    expect((await points(ines)).points).toContainEqual(
      expect.objectContaining({ game: 'drive', point: 'touched', machine: 'dunlin' }),
    )
    const steady = drivenBy(dunlin, { seed: 2, level: 0.2 }, (d) => new SteadyDriver(d))
    const made = driveMarks(steady.drive)
    const kept = await ines.post(path, { run: { ...steady.run, id: randomUUID() }, score: made.score })
    expect(kept.body).toMatchObject({ passed: true, score: made.score, rules: made.rules, claimed: null })
    const [last] = (await own(ines)).runs
    expect(last).toMatchObject({ game: 'drive', score: made.score })
    expect((await own(tomas)).runs).toEqual([])
  })
  it('is offered for trucks whose data say how they drive, and refused with what is wrong of it', async () => {
    const { machines } = (await ines.get('/practice/games')).body
    const drives = machines.filter((m: { drive: boolean }) => m.drive).map((m: { machine: string }) => m.machine)
    expect(drives).toEqual(['avocet', 'bittern', 'dunlin', 'godwit', 'puffin', 'sandpiper', 'whimbrel'])
    for (const [more, code, at] of [
      [{ inputs: [[5, 5, 1]] }, 'axis-unknown', 'run.inputs.0'],
      // Its carriage does not go to the side.
      [{ machine: { id: 'puffin', revision: puffin.revision }, inputs: [[5, 4, 1]] }, 'axis-unknown', 'run.inputs.0'],
      [
        {
          notes: [
            [9, 'horn', true],
            [8, 'horn', false],
          ],
        },
        'inputs-order',
        'run.notes.1',
      ],
      [{ notes: [[9, 'lights', true]] }, 'bad-input', 'run.notes.0.1'],
      [{ version: 99 }, 'version-unknown', 'run.version'],
      [{ machine: { id: 'tern', revision: tern.revision } }, 'no-drives', 'run.machine'],
    ] as const) {
      const { status, body } = await ines.post(path, { run: run(more), score: 0 })
      expect([status, body.error.code, body.error.path]).toEqual([422, code, at])
    }
    expect((await own(ines)).runs).toEqual([])
  })
})
