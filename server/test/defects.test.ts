import { randomUUID } from 'node:crypto'
import sharp from 'sharp'
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { liftBody, openBody, type Running, readyShift, setUp, setupBody, start } from './helper'

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
  words: 'Pin will not seat',
  grade: 'hazard',
  ...over,
})
const isTern = (m: { id: string }) => m.id === 'tern'
const repair = { words: 'New pin and clip', parts: 'pin 40 mm', hours: 1.5 }

describe('a defect that stops', () => {
  it('stops the machine for everyone at once, also in a shift under way', async () => {
    const [ines, tomas] = [await app.as('Ines Haldane'), await app.as('Tomas Brekke')]
    const id = await readyShift(ines)
    const setup = setupBody()
    await setUp(ines, id, setup)
    await tomas.post('/defects', defect({ grade: 'damage' }))
    expect((await ines.post(`/shifts/${id}/lifts`, liftBody(setup.id))).body.error.code).toBe('machine-stopped')
    expect((await ines.get('/yard')).body.machines.find(isTern)).toMatchObject({
      state: 'stopped',
      stoppedBy: { words: 'Pin will not seat' },
    })
    await app.owner.query('update shift set closed_at = now() where closed_at is null')
    const refused = await tomas.post('/shifts', openBody())
    expect(refused.body.error).toMatchObject({ code: 'machine-stopped' })
    expect(refused.body.error.message).toMatch(/Pin will not seat/)
  })

  it('goes back only through fitter and person in charge, each their own part', async () => {
    const [ines, wil, rafiq] = [await app.as('Ines Haldane'), await app.as('Wilhelmina Osei'), await app.as('Rafiq Dunmore')]
    const d = defect()
    await ines.post('/defects', d)
    expect((await wil.post(`/defects/${d.id}/return`, { words: 'looks fine' })).body.error.code).toBe('no-repair')
    expect((await wil.post(`/defects/${d.id}/repair`, repair)).body.error.code).toBe('not-your-part')
    expect((await ines.post(`/defects/${d.id}/acknowledge`)).body.error.code).toBe('not-your-part')
    expect((await wil.post(`/defects/${d.id}/acknowledge`)).body.state).toBe('acknowledged')
    expect((await rafiq.post(`/defects/${d.id}/repair`, { ...repair, words: ' ' })).body.error.path).toBe('words')
    expect((await rafiq.post(`/defects/${d.id}/repair`, repair)).body.state).toBe('repaired')
    expect((await ines.get('/yard')).body.machines.find(isTern).state).toBe('stopped')
    expect((await rafiq.post(`/defects/${d.id}/return`, { words: 'done' })).body.error.code).toBe('not-your-part')
    expect((await wil.post(`/defects/${d.id}/return`, { words: 'fine' })).body.error.code).toBe('not-verified')
    expect((await rafiq.post(`/defects/${d.id}/verify`, { inOrder: true, words: 'mine' })).body.error.code).toBe('own-repair')
    expect((await wil.post(`/defects/${d.id}/verify`, { inOrder: false, words: 'Clip is missing' })).body.state).toBe(
      'acknowledged',
    )
    await rafiq.post(`/defects/${d.id}/repair`, repair)
    expect((await wil.post(`/defects/${d.id}/verify`, { inOrder: true, words: 'Pin and clip in' })).body.state).toBe('verified')
    expect((await ines.get('/yard')).body.machines.find(isTern).state).toBe('stopped')
    const back = await wil.post(`/defects/${d.id}/return`, { words: 'Pin seats, clip in' })
    expect(back.body).toMatchObject({
      state: 'returned',
      repair: { by: { name: 'Rafiq Dunmore' } },
      returned: { by: { name: 'Wilhelmina Osei' } },
    })
    expect((await ines.get('/yard')).body.machines.find(isTern).state).toBe('ready')
    expect((await rafiq.post(`/defects/${d.id}/repair`, repair)).body.error.code).toBe('wrong-state')
  })

  it('is not returned by the one who repaired it, whatever roles they hold: the database refuses', async () => {
    const [ines, wil] = [await app.as('Ines Haldane'), await app.as('Wilhelmina Osei')]
    await app.owner.query("update person set roles = roles || '{fitter}' where id = 'wilhelmina-osei'")
    try {
      const d = defect()
      await ines.post('/defects', d)
      await wil.post(`/defects/${d.id}/repair`, repair)
      expect((await wil.post(`/defects/${d.id}/verify`, { inOrder: true, words: 'mine' })).body.error.code).toBe('own-repair')
      const rafiq = await app.as('Rafiq Dunmore')
      await rafiq.post(`/defects/${d.id}/verify`, { inOrder: true, words: 'Looked at' })
      expect((await wil.post(`/defects/${d.id}/return`, { words: 'mine' })).body.error.code).toBe('own-repair')
    } finally {
      await app.owner.query("update person set roles = '{person-in-charge}' where id = 'wilhelmina-osei'")
    }
  })

  it('is never rewritten or skipped ahead, even by a query of the application itself', async () => {
    const ines = await app.as('Ines Haldane')
    const d = defect()
    await ines.post('/defects', d)
    const who = { org: 'skarrow-haven', person: 'ines-haldane' }
    await expect(app.db.as(who, (tx) => tx.query("update defect set words = 'nothing' where id = $1", [d.id]))).rejects.toThrow(
      /permission denied/,
    )
    await expect(app.db.as(who, (tx) => tx.query("update defect set state = 'returned' where id = $1", [d.id]))).rejects.toThrow(
      /permission denied/,
    )
    await expect(app.db.as(who, (tx) => tx.query("select defect_move($1, 'return', 'x', '{}')", [d.id]))).rejects.toThrow(
      /part of person-in-charge/,
    )
    await expect(app.db.as(who, (tx) => tx.query('delete from defect where id = $1', [d.id]))).rejects.toThrow(
      /permission denied/,
    )
  })
})

describe('a watched defect', () => {
  it('stops nothing and is shown to whoever follows', async () => {
    const ines = await app.as('Ines Haldane')
    await ines.post('/defects', defect({ grade: 'watch', words: 'Mirror glass chipped' }))
    const file = (await ines.get('/machines/tern')).body
    expect(file.state.state).toBe('ready')
    expect(file.watched.map((d: { words: string }) => d.words)).toContain('Mirror glass chipped')
  })
})

describe('photos', () => {
  it('are decoded, bounded and stripped of metadata; the same one twice is one', async () => {
    const ines = await app.as('Ines Haldane')
    const d = defect({ grade: 'watch' })
    await ines.post('/defects', d)
    const picture = await sharp({ create: { width: 2400, height: 1200, channels: 3, background: '#886644' } })
      .withExif({ IFD0: { Copyright: 'somebody' } })
      .jpeg()
      .toBuffer()
    const form = () => {
      const f = new FormData()
      f.append('photo', new Blob([new Uint8Array(picture)], { type: 'image/jpeg' }), 'p.jpg')
      return f
    }
    const id = randomUUID()
    expect((await ines.put(`/defects/${d.id}/photos/${id}`, form())).status).toBe(200)
    expect((await ines.put(`/defects/${d.id}/photos/${id}`, form())).status).toBe(200)
    expect((await ines.get(`/defects/${d.id}`)).body.photos).toEqual([id])
    const kept = await sharp((await ines.get(`/photos/${id}`)).body).metadata()
    expect(kept).toMatchObject({ width: 1600, height: 800 })
    expect(kept.exif).toBeUndefined()
  })

  it('that cannot be read are refused with what to do; the defect stays', async () => {
    const ines = await app.as('Ines Haldane')
    const d = defect({ grade: 'watch' })
    await ines.post('/defects', d)
    const form = new FormData()
    form.append('photo', new Blob(['not a picture'], { type: 'image/jpeg' }), 'p.jpg')
    const r = await ines.put(`/defects/${d.id}/photos/${randomUUID()}`, form)
    expect(r.status).toBe(422)
    expect(r.body.error).toMatchObject({ code: 'unreadable-photo', path: 'photo' })
    const big = new FormData()
    big.append('photo', new Blob([new Uint8Array(5 * 1024 * 1024)]), 'p.jpg')
    expect((await ines.put(`/defects/${d.id}/photos/${randomUUID()}`, big)).status).toBe(413)
    expect((await ines.get(`/defects/${d.id}`)).status).toBe(200)
  })
})
