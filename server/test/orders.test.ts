import { randomUUID } from 'node:crypto'
import type { ProcedureFile } from '@geolabe/core'
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { readMachineFile } from '../src/demo/files'
import { openBody, type Person, people, type Running, start } from './helper'

let app: Running
let [mirela, wilhelmina, ines, rafiq] = [] as unknown as [Person, Person, Person, Person]
const machine = 'dipper'
const own = readMachineFile(machine)
beforeAll(async () => {
  app = await start()
  mirela = await app.as('Mirela Quist')
  wilhelmina = await app.as('Wilhelmina Osei')
  ines = await app.as('Ines Haldane')
  rafiq = await app.as('Rafiq Dunmore')
})
const clear = async () => {
  await app.owner.query('update shift set closed_at = now() where closed_at is null')
  await app.owner.query('delete from order_revision')
}
afterAll(async () => {
  await clear()
  await app.stop()
})
beforeEach(clear)

/** Its order with something else in it, as an open file. */
const changed = (by: (f: ProcedureFile) => void) => {
  const f = structuredClone(own.procedures)
  by(f)
  return { format: 'geolabe.procedure/1', machine, ...f }
}
const careful = (words = 'Count to ten first.') =>
  changed((f) => {
    const [s] = f.procedures[0]?.steps ?? []
    if (s) s.caution = words
  })
const unguarded = () =>
  changed((f) => {
    for (const s of f.procedures.flatMap((p) => p.steps)) if (s.hazards.includes('drop')) s.needs = []
  })
const path = `/machines/${machine}/procedures`
const write = (file: object, more: object = {}, p = mirela) =>
  p.post(path, { id: randomUUID(), from: 0, why: 'After the last drill', file, ...more })
const check = (id: string, more: object = { ok: true }, p = wilhelmina) => p.post(`${path}/written`, { id, words: '', ...more })
const inForce = async () => (await ines.get(`/machines/${machine}`)).body

describe('an order of work written anew', () => {
  it('counts once the person in charge has put it in force, and for nobody before', async () => {
    const { status, body } = await write(careful())
    expect(status).toBe(200)
    expect((await inForce()).orderRevision).toBe(0)
    const page = (await ines.get(path)).body
    expect(page.waiting).toMatchObject({ id: body.id, from: 0, writtenBy: { name: 'Mirela Quist' } })
    expect(page.waiting.changes).toEqual([
      expect.objectContaining({
        what: 'changed',
        part: 'step',
        fields: [expect.objectContaining({ field: 'caution', is: 'Count to ten first.' })],
      }),
    ])
    for (const p of [ines, rafiq, mirela]) expect((await check(body.id, { ok: true }, p)).status).toBe(403)
    expect((await check(body.id)).body).toEqual({ revision: 1 })
    const now = await inForce()
    expect(now.orderRevision).toBe(1)
    expect(now.definition.procedures.procedures[0].steps[0].caution).toBe('Count to ten first.')
    expect((await check(body.id)).status).toBe(404)
    const out = await ines.get(`${path}.json`)
    expect(out.body).toMatchObject({ format: 'geolabe.procedure/1', machine, procedures: now.definition.procedures.procedures })
  })

  it('is refused whole with the story of what is wrong, and nothing of it is kept', async () => {
    const { status, body } = await write(unguarded())
    expect([status, body.error.code]).toEqual([422, 'file-refused:drop-unguarded'])
    expect(body.error.path).toMatch(/^file\.procedures\.\d+\.steps\.\d+$/)
    expect(body.error.message).toMatch(/could drop something|opens what holds/)
    expect((await ines.get(path)).body.waiting).toBeNull()
    const nowhere = changed((f) => Object.assign(f.procedures[0]?.steps[0] ?? {}, { sets: [{ state: 'nowhere', to: 'on' }] }))
    const bad = (await write(nowhere)).body.error
    expect(bad.code).toBe('bad-input')
    expect(bad.path).toContain('procedures.0.steps.0')
    expect((await write({ ...careful(), machine: 'heron' })).body.error.path).toBe('file.machine')
    expect((await write(changed(() => {}))).body.error).toMatchObject({ code: 'bad-input', path: 'file' })
  })

  it('is written by an administrator, and put in force by somebody else', async () => {
    for (const p of [ines, wilhelmina, rafiq]) expect((await write(careful(), {}, p)).status).toBe(403)
    const { id } = (await write(careful())).body
    // Whoever is both: the records themselves refuse it, whatever the server let through.
    const of = (name: string) => people.find((p) => p.name === name)
    const take = (name: string, revision = 1) =>
      app.db.as({ org: of(name)?.organisation ?? '', person: of(name)?.id ?? '' }, (tx) =>
        tx.query("update order_revision set state = 'taken', revision = $2, checked_by = $3 where id = $1", [
          id,
          revision,
          of(name)?.id,
        ]),
      )
    await expect(take('Mirela Quist')).rejects.toMatchObject({ code: 'GL003' })
    await expect(take('Ines Haldane')).rejects.toMatchObject({ code: 'GL003' })
    await expect(take('Wilhelmina Osei', 2)).rejects.toMatchObject({ code: 'GL004' })
    await app.owner.query("update person set roles = roles || '{person-in-charge}' where id = $1", [mirela.id])
    try {
      expect((await check(id, { ok: true }, mirela)).body.error.code).toBe('own-order')
      await expect(take('Mirela Quist')).rejects.toMatchObject({ code: 'GL003' })
    } finally {
      await app.owner.query("update person set roles = array_remove(roles, 'person-in-charge') where id = $1", [mirela.id])
    }
  })

  it('takes the place of one that waited; over one that counts no longer it is refused', async () => {
    const first = (await write(careful('First.'))).body.id
    const second = (await write(careful('Second.'))).body.id
    expect((await check(first)).status).toBe(404)
    expect((await check(second)).status).toBe(200)
    expect((await write(careful('Third.'))).body.error).toMatchObject({ code: 'changed-meanwhile', path: 'from' })
    const third = (await write(careful('Third.'), { from: 1 })).body.id
    expect((await check(third, { ok: false, words: '' })).body.error.path).toBe('words')
    expect((await check(third, { ok: false, words: 'Says nothing new.' })).body).toEqual({ revision: null })
    const page = (await ines.get(path)).body
    expect([page.revision, page.waiting]).toEqual([1, null])
    const before = page.before.map((b: { state: string; words: string }) => [b.state, b.words])
    expect(before).toEqual([
      ['returned', 'Says nothing new.'],
      ['taken', ''],
      ['replaced', ''],
    ])
  })

  it('is put in force between shifts; a shift keeps the one that it was worked by', async () => {
    const one = (await write(careful('One.'))).body.id
    await check(one)
    const two = (await write(careful('Two.'), { from: 1 })).body.id
    const body = {
      ...openBody(),
      machine,
      ppe: own.ppe.map((w) => w.id),
      documents: own.documents.map((d) => d.id),
    }
    expect((await ines.post('/shifts', body)).status).toBe(200)
    expect((await check(two)).body.error.code).toBe('machine-taken')
    await app.owner.query('update shift set closed_at = now() where id = $1', [body.id])
    expect((await check(two)).status).toBe(200)
    const shifts = await app.owner.query('select order_revision from shift where id = $1', [body.id])
    expect(shifts.rows).toEqual([{ order_revision: 1 }])
  })
  it('put in force in the very moment a shift begins: one of the two waits, and the shift notes the order it is worked by', async () => {
    for (let i = 0; i < 6; i++) {
      await clear()
      const { body } = await write(careful(`Count to ${i + 3} first.`))
      const shift = {
        ...openBody(),
        machine,
        ppe: own.ppe.map((w) => w.id),
        documents: own.documents.map((d) => d.id),
      }
      const [taken, opened] = await Promise.all([check(body.id), ines.post('/shifts', shift)])
      expect(opened.status).toBe(200)
      const kept = await app.owner.query('select order_revision from shift where id = $1', [shift.id])
      // Whoever was first: a shift that had begun keeps the order from changing under it.
      expect([taken.status, kept.rows[0].order_revision]).toEqual(taken.status === 200 ? [200, 1] : [409, 0])
    }
  })

  it('is written once, however often it is sent', async () => {
    const [key, body] = [randomUUID(), { id: randomUUID(), from: 0, why: 'Sent twice', file: careful() }]
    const answers = [await mirela.post(path, body, key), await mirela.post(path, body, key)]
    expect(answers.map((a) => a.body)).toEqual([{ id: body.id }, { id: body.id }])
    expect((await ines.get(path)).body.before).toEqual([])
    const why = { ...body, why: 'Something else' }
    expect((await mirela.post(path, why, key)).body.error.code).toBe('key-used')
  })
})
