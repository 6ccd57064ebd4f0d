import { randomUUID } from 'node:crypto'
import type { Exam, PracticeCertificate } from '@geolabe/contract'
import {
  type DriveRun,
  first_level,
  headOf,
  neverPractised,
  type Practised,
  practiceVersion,
  signalVersion,
  usualPolicy,
} from '@geolabe/core'
import fc from 'fast-check'
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { drivenBy, SteadyDriver } from '../../core/test/driver'
import { readMachineFile } from '../src/demo/files'
import { isGenuine } from '../src/key/signing'
import { refusalsToTake } from '../src/shift/taking'
import { type Person, type Running, start } from './helper'

let app: Running
let [ines, tomas, signe, wil] = [] as unknown as [Person, Person, Person, Person]
const [whimbrel, tern] = [readMachineFile('whimbrel'), readMachineFile('tern')]
const level = 0.2
/** Long enough after today that no clock of a test machine gets there. */
const until = new Date(Date.now() + 30 * 86_400_000).toISOString().slice(0, 10)

const clear = async () => {
  await app.owner.query(
    `alter table practice_certificate disable trigger user; alter table practice_note disable trigger user;
     delete from practice_certificate; delete from practice_note; delete from practice_so_far; delete from practice_try; delete from practice_exam;
     alter table practice_certificate enable trigger user; alter table practice_note enable trigger user;
     delete from practice_run; delete from practice_point`,
  )
}
beforeAll(async () => {
  app = await start()
  ines = await app.as('Ines Haldane')
  tomas = await app.as('Tomas Brekke')
  signe = await app.as('Signe Abara')
  wil = await app.as('Wilhelmina Osei')
})
afterAll(async () => {
  await clear()
  await app.stop()
})
beforeEach(clear)

const examBody = (over: object = {}) => ({
  id: randomUUID(),
  person: ines.id,
  machine: 'whimbrel',
  game: 'drive',
  level,
  tries: 2,
  until,
  ...over,
})
const code = (r: { body: { error?: { code: string } } }) => r.body.error?.code
async function anExam(over: object = {}): Promise<Exam> {
  const { status, body } = await signe.post('/practice/exams', examBody(over))
  if (status !== 200) throw new Error(JSON.stringify(body))
  return body
}
const begin = (p: Person, exam: string, id: string = randomUUID(), key?: string) =>
  p.post(`/practice/exams/${exam}/tries`, { id }, key)
const driven = new Map<number, DriveRun>()
/** A steady driver's run on the course that a try drew. */
function steady(seed: number, id: string): DriveRun {
  const run = driven.get(seed) ?? drivenBy(whimbrel, { seed, level }, (d) => new SteadyDriver(d)).run
  driven.set(seed, run)
  return { ...run, id }
}
const send = (p: Person, run: object) => p.post('/practice/runs', { run, score: 0 })
/** Sat and passed. */
async function passed(over: object = {}): Promise<Exam> {
  const exam = await anExam(over)
  const { id } = (await begin(ines, exam.id)).body
  // A course that the steady driver is known to pass, in place of the one drawn.
  const seed = 5
  await app.owner.query("update practice_try set seed = $2, begun_at = begun_at - interval '5 minutes' where id = $1", [id, seed])
  const kept = await send(ines, steady(seed, id))
  expect(kept.body).toMatchObject({ passed: true })
  return exam
}
const certify = (exam: string, p: Person = signe, id: string = randomUUID()) =>
  p.post('/practice/certificates', { id, exam, words: 'Quiet hands.' })

describe('what an assessor sets beside', () => {
  const swing = { amplitude_deg: 5, phase_deg: 90 }
  const settings = { across: swing, wind: { mean_mps: 6, gust_mps: 4 }, clock: 120 }
  const lowered = (id: string, seed: number, more: object = {}) => ({
    format: 'geolabe.practice/1',
    id,
    game: 'load',
    version: practiceVersion,
    machine: { id: 'tern', revision: tern.revision },
    seed,
    level,
    inputs: [],
    stops: [],
    ticks: 10,
    keys: [],
    ...more,
  })
  const backdated = (id: string) =>
    app.owner.query("update practice_try set begun_at = begun_at - interval '5 minutes' where id = $1", [id])

  it('is a swing to begin with: of load control alone, within what a rope may stand, of the try and of nothing else', async () => {
    for (const [over, at] of [
      [{ settings }, 'settings'],
      [{ machine: 'tern', game: 'load', settings: {} }, 'settings'],
      [{ machine: 'tern', game: 'load', settings: { across: { ...swing, amplitude_deg: 16 } } }, 'settings.across.amplitude_deg'],
      [{ machine: 'tern', game: 'load', settings: { along: { ...swing, phase_deg: 360 } } }, 'settings.along.phase_deg'],
      [{ machine: 'tern', game: 'load', settings: { wind: { mean_mps: 15, gust_mps: 0 } } }, 'settings.wind.mean_mps'],
      [{ machine: 'wren', game: 'load', settings: { across: swing } }, 'settings.across'],
    ] as const) {
      const { status, body } = await signe.post('/practice/exams', examBody(over))
      expect([status, body.error.code, body.error.path]).toEqual([422, 'bad-input', at])
    }
    const exam = await anExam({ machine: 'tern', game: 'load', settings })
    expect(exam.settings).toEqual(settings)
    const { id, seed, settings: set } = (await begin(ines, exam.id)).body
    expect(set).toEqual(settings)
    await backdated(id)
    for (const more of [{}, { settings: { ...settings, clock: 'hidden' } }, { settings: { across: swing } }])
      expect((await send(ines, lowered(id, seed, more))).body.error).toMatchObject({ code: 'exam-differs', path: 'run.settings' })
    // Nobody sets it for themselves, by whatever way.
    expect((await send(ines, lowered(randomUUID(), 5, { settings }))).body.error).toMatchObject({
      code: 'exam-differs',
      path: 'run.settings',
    })
    expect((await send(ines, lowered(id, seed, { settings }))).status).toBe(200)
    const { made } = (await signe.get(`/practice/exams/${exam.id}`)).body as Exam
    expect(made[0]?.result).toMatchObject({ game: 'load', passed: false })
  })
  it('is the word: given once, by the assessor; before it nothing counts', async () => {
    const exam = await anExam({ word: true })
    const { id } = (await begin(ines, exam.id)).body
    await app.owner.query("update practice_try set seed = 5, begun_at = begun_at - interval '5 minutes' where id = $1", [id])
    const word = (p: Person, of = exam.id) => p.post(`/practice/exams/${of}/tries/${id}/word`, {})
    expect((await send(ines, steady(5, id))).body.error).toMatchObject({ code: 'exam-differs', path: 'run.id' })
    expect(code(await word(ines))).toBe('not-your-part')
    expect((await word(tomas)).status).toBe(404)
    const other = await anExam()
    expect((await word(signe, other.id)).status).toBe(404)
    const given = await word(signe)
    expect(given.status).toBe(200)
    expect((await word(signe)).body.made[0].wordAt).toBe(given.body.made[0].wordAt)
    // Time begins with it: nobody drives a course in no time.
    expect((await send(ines, steady(5, id))).body.error).toMatchObject({ code: 'exam-differs', path: 'run.inputs' })
    await app.owner.query(
      "alter table practice_try disable trigger user; update practice_try set word_at = word_at - interval '4 minutes'; alter table practice_try enable trigger user",
    )
    expect((await send(ines, steady(5, id))).body).toMatchObject({ passed: true })
    const quiet = (await begin(ines, other.id)).body
    expect(code(await signe.post(`/practice/exams/${other.id}/tries/${quiet.id}/word`, {}))).toBe('wrong-state')
  })
})

describe('an exam', () => {
  it('is set by an assessor for somebody else, on a machine that offers it', async () => {
    expect((await ines.post('/practice/exams', examBody({ person: tomas.id }))).status).toBe(403)
    for (const [over, status, why, at] of [
      [{ person: signe.id }, 403, 'own-exam', 'person'],
      [{ person: 'nobody' }, 404, 'not-found', ''],
      [{ machine: 'nothing' }, 404, 'not-found', ''],
      [{ machine: 'tern' }, 422, 'no-drives', 'game'],
      [{ until: '2020-01-01' }, 422, 'bad-input', 'until'],
      [{ tries: 0 }, 422, 'bad-input', 'tries'],
      [{ level: 2 }, 422, 'bad-input', 'level'],
      [{ level: first_level / 2 }, 422, 'bad-input', 'level'],
      [{ id: 'x' }, 422, 'bad-input', 'id'],
    ] as const) {
      const { body, status: got } = await signe.post('/practice/exams', examBody(over))
      expect([got, body.error.code, body.error.path]).toEqual([status, why, at])
    }
    expect((await signe.get('/practice/exams')).body.exams).toEqual([])
  })
  it('is known to who sits it and to who set it, and its seed to nobody before a try begins', async () => {
    const exam = await anExam()
    for (const p of [ines, signe]) {
      expect((await p.get('/practice/exams')).body.exams).toEqual([expect.objectContaining({ id: exam.id, made: [] })])
      expect(JSON.stringify((await p.get(`/practice/exams/${exam.id}`)).body)).not.toContain('seed')
    }
    for (const p of [tomas, wil]) {
      expect((await p.get('/practice/exams')).body.exams).toEqual([])
      expect((await p.get(`/practice/exams/${exam.id}`)).status).toBe(404)
      expect((await begin(p, exam.id)).status).toBe(404)
    }
    expect(code(await begin(signe, exam.id))).toBe('not-your-part')
  })
  it('has so many tries and no more, begun or kept, each with a course of its own', async () => {
    const exam = await anExam()
    const [id, key] = [randomUUID(), randomUUID()]
    const first = await begin(ines, exam.id, id, key)
    // Asked again under the same key, it is the same try.
    expect((await begin(ines, exam.id, id, key)).body).toEqual(first.body)
    const second = await begin(ines, exam.id)
    expect(second.body.seed).not.toBe(first.body.seed)
    expect(code(await begin(ines, exam.id))).toBe('exam-over')
    const { made } = (await ines.get(`/practice/exams/${exam.id}`)).body as Exam
    expect(made.map((t) => [t.number, t.result])).toEqual([
      [1, null],
      [2, null],
    ])
  })
  it('tried by two devices at once has no try more for it', async () => {
    const exam = await anExam({ tries: 3 })
    const all = await Promise.all(Array.from({ length: 12 }, () => begin(ines, exam.id)))
    const begun = all.filter((r) => r.status === 200)
    expect(begun.length).toBeLessThanOrEqual(3)
    expect(all.every((r) => r.status < 500)).toBe(true)
    const made = ((await ines.get(`/practice/exams/${exam.id}`)).body as Exam).made.length
    expect(made).toBe(begun.length)
  })
  it('is over once its day has passed, and not sat on a machine that has changed', async () => {
    const exam = await anExam()
    await app.owner.query('update practice_exam set until = current_date - 1 where id = $1', [exam.id])
    expect(code(await begin(ines, exam.id))).toBe('exam-over')
    await app.owner.query("update practice_exam set until = current_date, practised_on = 'another' where id = $1", [exam.id])
    expect(code(await begin(ines, exam.id))).toBe('machine-changed')
  })
  it('keeps no run that is another than its try, whoever sends it', async () => {
    const exam = await anExam()
    const { id } = (await begin(ines, exam.id)).body
    const seed = 5
    await app.owner.query('update practice_try set seed = $2 where id = $1', [id, seed])
    const run = steady(seed, id)
    for (const [over, at] of [
      [{ seed: seed + 1 }, 'run.seed'],
      [{ level: 0 }, 'run.level'],
    ] as const) {
      const { body } = await send(ines, { ...run, ...over })
      expect([body.error.code, body.error.path]).toEqual(['exam-differs', at])
    }
    // Who knows nothing of the exam does not take the place of its run either.
    const taken = await send(tomas, run)
    expect([taken.status, code(taken)]).toEqual([422, 'exam-differs'])
    // Nor past the server: below it the same.
    const put = (as: string, seeded: number) =>
      app.owner.query(
        `insert into practice_run (org, id, person, machine, machine_revision, game, run, result, score)
         values ('skarrow-haven', $1, $2, 'whimbrel', $3, 'drive', $4, '{}', 0)`,
        [id, as, run.machine.revision, JSON.stringify({ seed: seeded, level })],
      )
    await expect(put(ines.id, seed + 1)).rejects.toMatchObject({ code: 'GL010' })
    await expect(put(tomas.id, seed)).rejects.toMatchObject({ code: 'GL010' })
    // Nobody drives a minute in a second.
    const reckoned = await send(ines, run)
    expect([code(reckoned), reckoned.body.error.path]).toEqual(['exam-differs', 'run.inputs'])
    await app.owner.query("update practice_try set begun_at = begun_at - interval '5 minutes' where id = $1", [id])
    expect((await send(ines, run)).body).toMatchObject({ passed: true })
    expect((await send(ines, run)).status).toBe(409)
  })
  it('of signals has them answered: signals given are no try of it', async () => {
    const exam = await anExam({ machine: 'tern', game: 'signal' })
    const { id, seed } = (await begin(ines, exam.id)).body
    const run = {
      ...headOf(tern, { seed, level }, id),
      game: 'signal',
      version: signalVersion,
      inputs: [],
      stops: [],
      latency_s: 0,
    }
    const given = await send(ines, { ...run, gave: [[60, 'stop']] })
    expect([code(given), given.body.error.path]).toEqual(['exam-differs', 'run.gave'])
  })
  it('takes no run that was over before the try began for the try, whatever id it is given', async () => {
    const exam = await anExam()
    const own = steady(5, randomUUID())
    expect((await send(ines, own)).body).toMatchObject({ passed: true })
    const taken = await begin(ines, exam.id, own.id)
    expect([taken.status, code(taken)]).toEqual([422, 'exam-differs'])
    // Nor where both came at the same moment, and neither saw the other.
    await app.owner.query('alter table practice_try disable trigger user')
    await app.owner.query('insert into practice_try (org, id, exam, number, seed) values ($1, $2, $3, 1, 5)', [
      'skarrow-haven',
      own.id,
      exam.id,
    ])
    await app.owner.query('alter table practice_try enable trigger user')
    const [t] = ((await signe.get(`/practice/exams/${exam.id}`)).body as Exam).made
    expect(t).toMatchObject({ id: own.id, result: null })
    expect(code(await certify(exam.id))).toBe('not-passed')
  })
  it('shows its assessor every try with all that was done in it; nobody’s other runs', async () => {
    const exam = await passed()
    const own = { ...steady(5, randomUUID()) }
    await send(ines, own)
    const seen = (await signe.get(`/practice/exams/${exam.id}`)).body as Exam
    const [t] = seen.made
    expect(t?.result).toMatchObject({ game: 'drive', passed: true })
    expect(t?.lasted_s).toBeGreaterThan(10)
    const { run } = (await signe.get(`/practice/exams/${exam.id}/tries/${t?.id}`)).body
    expect(run).toEqual(JSON.parse(JSON.stringify(steady(t?.seed ?? 0, t?.id ?? ''))))
    expect((await signe.get(`/practice/exams/${exam.id}/tries/${own.id}`)).status).toBe(404)
    expect((await tomas.get(`/practice/exams/${exam.id}/tries/${t?.id}`)).status).toBe(404)
    expect((await signe.get('/practice/runs')).body.runs).toEqual([])
  })
  it('is watched by its assessor while it is under way, forward only, until its run is kept', async () => {
    const exam = await anExam({ word: true })
    const { id } = (await begin(ines, exam.id)).body
    const to = `/practice/exams/${exam.id}/tries/${id}`
    const whole = steady(5, id)
    await app.owner.query("update practice_try set seed = 5, begun_at = begun_at - interval '5 minutes' where id = $1", [id])
    const until = (ticks: number) => ({
      ticks,
      run: {
        ...whole,
        inputs: whole.inputs.filter(([tick]) => tick < ticks),
        notes: whole.notes.filter(([tick]) => tick < ticks),
      },
    })
    const tell = (p: Person, ticks: number, over: object = {}) =>
      p.post(`${to}/so-far`, { ...until(ticks), run: { ...until(ticks).run, ...over } })
    const seen = async (p: Person) => (await p.get(`${to}/so-far`)).body
    expect((await tell(ines, 120)).body.error).toMatchObject({ code: 'exam-differs', path: 'run.id' })
    await signe.post(`${to}/word`, {})
    await app.owner.query(
      "alter table practice_try disable trigger user; update practice_try set word_at = word_at - interval '4 minutes'; alter table practice_try enable trigger user",
    )
    expect(await seen(signe)).toEqual({ soFar: null })
    expect((await tell(ines, 240)).status).toBe(200)
    expect(await seen(signe)).toEqual({ soFar: JSON.parse(JSON.stringify(until(240))) })
    // What comes late changes nothing; what goes on does.
    for (const ticks of [120, 480]) await tell(ines, ticks)
    expect((await seen(signe)).soFar.ticks).toBe(480)
    for (const [ticks, over, at] of [
      [600, { seed: 6 }, 'run.seed'],
      [600, { id: randomUUID() }, 'run.id'],
      [100_000, {}, 'run.inputs'],
      [600, { inputs: [[600, 0, 127]] }, 'inputs.0'],
    ] as const)
      expect((await tell(ines, ticks, over)).body.error.path).toBe(at)
    expect((await tell(ines, 0)).body.error.path).toBe('ticks')
    // Nobody else says how it goes, nobody else watches.
    expect((await tell(signe, 600)).status).toBe(422)
    expect((await tell(tomas, 600)).status).toBe(404)
    expect((await tomas.get(`${to}/so-far`)).status).toBe(404)
    expect((await seen(signe)).soFar.ticks).toBe(480)
    // Noted as it goes.
    const note = { id: randomUUID(), at_s: 3.5, score: null, words: 'Looked late' }
    expect((await signe.post(`${to}/notes`, note)).status).toBe(200)
    expect((await send(ines, whole)).body).toMatchObject({ passed: true })
    expect(await seen(signe)).toEqual({ soFar: null })
    // One that was still on its way brings it back no more.
    expect((await tell(ines, 600)).status).toBe(200)
    expect(await seen(signe)).toEqual({ soFar: null })
    const kept = ((await signe.get(`/practice/exams/${exam.id}`)).body as Exam).made[0]
    expect([kept?.notes.length, kept?.result?.passed]).toEqual([1, true])
  })
  it('is noted by its assessor, whose score stands beside the computed one and changes nothing of it', async () => {
    const exam = await passed()
    const [t] = ((await signe.get(`/practice/exams/${exam.id}`)).body as Exam).made
    const to = `/practice/exams/${exam.id}/tries/${t?.id}/notes`
    const note = (over: object = {}) => ({ id: randomUUID(), at_s: 12.5, score: 61, words: 'Looked late', ...over })
    expect((await signe.post(to, note())).status).toBe(200)
    expect((await signe.post(to, note({ at_s: null, score: null, words: '' }))).body.error.path).toBe('words')
    expect((await signe.post(to, note({ score: 101 }))).body.error.path).toBe('score')
    expect(code(await ines.post(to, note()))).toBe('not-your-part')
    const seen = ((await ines.get(`/practice/exams/${exam.id}`)).body as Exam).made[0]
    expect(seen?.notes).toEqual([expect.objectContaining({ at_s: 12.5, score: 61, words: 'Looked late' })])
    expect(seen?.result?.score).toBe(t?.result?.score)
  })
})

describe('a certificate of practice', () => {
  it('is issued for what was passed, by who set the exam, once', async () => {
    const failed = await anExam()
    await begin(ines, failed.id)
    expect(code(await certify(failed.id))).toBe('not-passed')
    const exam = await passed()
    expect((await certify(exam.id, ines)).status).toBe(403)
    const { body } = await certify(exam.id)
    expect(body.error).toBeUndefined()
    const { file } = body as { file: PracticeCertificate }
    expect(file).toMatchObject({
      level,
      settings: null,
      game: 'drive',
      triesMade: 1,
      words: 'Quiet hands.',
      person: { name: 'Ines Haldane' },
    })
    expect(file.says).toContain('It is no licence')
    expect(file.runs).toHaveLength(1)
    expect(code(await certify(exam.id))).toBe('wrong-state')
    expect(code(await begin(ines, exam.id))).toBe('exam-over')
  })
  it('verifies as it was signed, and in no other way', async () => {
    const exam = await passed()
    await certify(exam.id)
    const [{ file }] = (await ines.get('/practice/certificates')).body.certificates
    expect(isGenuine(file)).toBe(true)
    const { publicKey } = (await ines.get('/installation')).body
    expect(file.signature.publicKey).toBe(publicKey)
    for (const other of [
      { ...file, level: 1 },
      { ...file, settings: { across: { amplitude_deg: 15, phase_deg: 0 } } },
      { ...file, person: { id: 'tomas-brekke', name: 'Tomas Brekke' } },
      { ...file, validUntil: '2099-01-01' },
      { ...file, runs: [{ ...file.runs[0], score: 100 }] },
      { ...file, signature: undefined },
    ])
      expect(isGenuine(other)).toBe(false)
    const json = await ines.get(`/practice/certificates/${file.id}/certificate.json`)
    expect(json.body).toEqual(file)
    const pdf = await ines.get(`/practice/certificates/${file.id}/certificate.pdf`)
    expect(pdf.body.subarray(0, 5).toString()).toBe('%PDF-')
  })
  it('is seen by who decides who works a machine, not how it came about; by others not at all', async () => {
    const exam = await passed()
    await certify(exam.id)
    expect((await wil.get('/practice/certificates')).body.certificates).toHaveLength(1)
    expect((await wil.get(`/practice/exams/${exam.id}`)).status).toBe(404)
    expect((await tomas.get('/practice/certificates')).body.certificates).toEqual([])
  })
  it('is out of date after its day, and for an earlier machine once levers or figures have changed', async () => {
    const exam = await passed()
    await certify(exam.id)
    const state = async () => (await ines.get('/practice/certificates')).body.certificates[0].state
    expect(await state()).toBe('in-date')
    await app.owner.query(
      "update machine set document = jsonb_set(document, '{cautions}', '[\"Another\"]') where id = 'whimbrel'",
    )
    expect(await state()).toBe('in-date')
    await app.owner.query(
      "update machine set document = jsonb_set(document, '{truck,driving,greatest_mps}', '1') where id = 'whimbrel'",
    )
    expect(await state()).toBe('earlier-machine')
    await app.owner.query('update machine set document = $1 where id = $2', [JSON.stringify(whimbrel), 'whimbrel'])
    await app.owner.query(
      'alter table practice_certificate disable trigger kept; update practice_certificate set valid_until = current_date - 1; alter table practice_certificate enable trigger kept',
    )
    expect(await state()).toBe('expired')
  })
  it('stands as it is, below the server too', async () => {
    const exam = await passed()
    const { file } = (await certify(exam.id)).body
    const client = await app.owner.connect()
    try {
      for (const sql of ['update practice_certificate set valid_until = valid_until + 1', 'delete from practice_certificate'])
        await expect(client.query(`${sql} where id = '${file.id}'`)).rejects.toThrow(/only ever added/)
    } finally {
      client.release()
    }
  })
})

describe('a site that asks for practice', () => {
  const policy = (practice: object) =>
    app.owner.query(
      `update place set document = jsonb_set(document, '{policy,practice}', $1) where org = 'skarrow-haven' and id = 'lighthouse-terrace'`,
      [JSON.stringify({ ...usualPolicy.practice, ...practice })],
    )
  const take = () => ({
    id: randomUUID(),
    machine: 'whimbrel',
    place: 'lighthouse-terrace',
    ppe: whimbrel.ppe.map((w) => w.id),
    documents: whimbrel.documents.map((p) => p.id),
    readHandover: true,
  })
  // Everybody has been away for a while.
  const absence_days = 1e-6
  afterAll(async () => {
    await policy({})
    await app.owner.query("update shift set closed_at = now() where machine = 'whimbrel' and closed_at is null")
  })

  it('bars until it is shown, says what is asked, and opens nothing else', async () => {
    await policy({ before: 'certificate', absence_days })
    expect((await ines.post('/shifts', take())).body.error).toMatchObject({
      code: 'practice-asked',
      message: expect.stringContaining('certificate of practice'),
    })
    // A passed run is no certificate; where a passed run is asked for, one below where practice begins is none.
    await send(ines, steady(5, randomUUID()))
    expect(code(await ines.post('/shifts', take()))).toBe('practice-asked')
    await app.owner.query(`update practice_run set run = jsonb_set(run, '{level}', '${first_level / 2}')`)
    await policy({ before: 'passed', absence_days })
    expect(code(await ines.post('/shifts', take()))).toBe('practice-asked')
    await policy({ before: 'certificate', absence_days })
    await certify((await passed()).id)
    expect((await ines.post('/shifts', take())).status).toBe(200)
  })
  it('that only recommends it keeps nobody', async () => {
    await app.owner.query("update shift set closed_at = now() where machine = 'whimbrel' and closed_at is null")
    await policy({ before: 'recommended', absence_days })
    expect((await ines.get('/practice/practised')).body.kinds[whimbrel.kind.id].shift_days).toBeGreaterThanOrEqual(0)
    expect((await ines.post('/shifts', take())).status).toBe(200)
  })
  it('adds this one bar and lifts no other, whatever was practised', async () => {
    const me = (await ines.get('/session')).body
    const { state } = (await ines.get('/machines/whimbrel')).body
    const days = fc.option(fc.integer({ min: 0, max: 300 }), { nil: null })
    const byHand = fc.record({ levers: days, other: days })
    const known: fc.Arbitrary<Practised> = fc.record({ shift_days: days, passed_days: byHand, certificate_days: byHand })
    const states = fc.record({
      stoppedBy: fc.constantFrom(null, { id: 'x', where: 'Mast', words: 'Cracked', grade: 'hazard', state: 'raised' }),
      holder: fc.constantFrom(null, { person: { id: 'x', name: 'Tomas Brekke' }, since: '', place: '', shift: '' }),
    })
    fc.assert(
      fc.property(known, states, fc.constantFrom('certificate', 'passed', 'recommended'), (k, s, before) => {
        const on = (practised: Practised, how: string) =>
          refusalsToTake(
            { machine: whimbrel, state: { ...state, ...s }, due: [], practice: { known: practised, offer: 'levers' } },
            me,
            { ...usualPolicy, practice: { ...usualPolicy.practice, before: how as 'passed' } },
            '2026-05-02',
          ).map((b) => b.code)
        expect(on(k, before).filter((c) => c !== 'practice-asked')).toEqual(on(neverPractised, 'recommended'))
      }),
    )
  })
})
