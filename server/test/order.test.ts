import { constants, createPublicKey, publicEncrypt, randomUUID } from 'node:crypto'
import { readFileSync } from 'node:fs'
import { type OrderEvent, orderOf, reckonedBy, type Shift, stepsOfFile, walkThrough } from '@geolabe/core'
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { readMachineFile } from '../src/demo/files'
import { fingerprintOf } from '../src/http/routes'
import { inOrder, openBody, type Person, people, type Running, readyShift, setUp, setupBody, start, tern } from './helper'

let app: Running
let ines: Person
beforeAll(async () => {
  app = await start()
  ines = await app.as('Ines Haldane')
})
afterAll(() => app.stop())
beforeEach(() => app.freeTern())

const told = (s = 0) => ({
  id: randomUUID(),
  at: new Date(Date.now() - 60_000 + s * 1000).toISOString(),
  by: { id: 'x', name: '' },
  device: 't',
})
const sourceOf = (id: string) => JSON.parse(readFileSync(new URL(`../../demo/${id}.json`, import.meta.url), 'utf8'))
const confirm = (step: string, s = 0) => ({ do: 'confirm', step, ...told(s) })
const send = (shift: string, events: object[], more: object = {}, p = ines) =>
  p.post(`/shifts/${shift}/procedure-events`, { events, ...more })

/** A shift of a machine that two people put together, up to where the next step waits for the second of them. */
async function waitingForSecond() {
  const kittiwake = readMachineFile('kittiwake')
  const { holder } = (await ines.get('/machines/kittiwake')).body.state
  const body = {
    ...openBody(),
    machine: 'kittiwake',
    ppe: kittiwake.ppe.map((w) => w.id),
    documents: kittiwake.documents.map((p) => p.id),
  }
  if (!holder) expect((await ines.post('/shifts', body)).status).toBe(200)
  const shift: string = holder?.shift ?? body.id
  const kept: Shift = (await ines.get(`/shifts/${shift}`)).body
  const by = { id: ines.id, name: '' }
  const setup = { standing: { on: 'tracks' }, fitted: { counterweight: 'base', boom_m: 48 } }
  const rigged: OrderEvent = {
    do: 'plan',
    id: randomUUID(),
    at: new Date(Date.now() - 700_000).toISOString(),
    by,
    device: '',
    plan: { setup },
  }
  const { file, world } = orderOf(kittiwake, { ...kept, order: [...kept.order, rigged] })
  const steps = walkThrough(file, world, 'setup', {
    by,
    from_ms: Date.now() - 600_000,
    id: () => randomUUID(),
    computed: reckonedBy(kittiwake).computed,
  })
  const events = [rigged, ...steps]
  const at = events.findIndex((e) => e.do === 'second')
  const second = events[at]
  if (second?.do !== 'second') throw new Error('no step of two people')
  expect((await send(shift, events.slice(0, at))).status).toBe(200)
  return { shift, step: second.step, second }
}

describe('the order of work', () => {
  it('keeps nothing that a PIN could be found from', () => {
    const of = (pin: string, badge = '41') => fingerprintOf('p', 'POST /x', { events: [], second: { badge, pin } })
    expect(of('1234')).toBe(of('9876'))
    expect(of('1234')).not.toBe(of('1234', '42'))
  })
  it('is judged again by the server: a step whose need is not true is refused with what would break', async () => {
    const id = await readyShift(ines)
    const early = await send(id, [confirm('boom-up')])
    expect(early.body.error).toMatchObject({ code: 'not-permitted', message: expect.stringContaining('goes over') })
    expect(early.status).toBe(409)
    expect((await send(id, [confirm('no-such-step')])).body.error.code).toBe('unknown-step')
    expect((await send(id, [])).body.error).toMatchObject({ code: 'bad-input', path: 'events' })
    // What a machine's own day tells, no device tells: it would make two unlike lifts alike.
    const begun = { do: 'begin', station: 'lift', alike: true, ...told() }
    expect((await send(id, [begun])).body.error).toMatchObject({ code: 'bad-input', path: 'events.0.do' })
  })
  it('a device that was away is shown both worlds where its act is refused, and none that knew all', async () => {
    const id = await readyShift(ines)
    const [first, away] = [confirm('brake-on'), confirm('chocked', 9)]
    expect((await send(id, [first], { after: null })).status).toBe(200)
    // Meanwhile, on another device of the same operator, the step is done and a stop pressed.
    const pressed = { do: 'stop-pressed', stop: 'cab', ...told(5) }
    const other = await send(id, [confirm('chocked', 2), pressed], { after: first.id })
    expect(other.status).toBe(200)
    const stale = (await send(id, [away, confirm('boom-up', 12)], { after: first.id })).body.error
    expect(stale).toMatchObject({
      code: 'stale-world',
      path: 'after',
      message: expect.stringContaining('did not know of: 2.'),
    })
    const { states } = orderOf(readMachineFile('tern'), other.body).file
    for (const { code, why } of stale.impediments) {
      expect(why).toMatch(/ on this device, .* in the records\.$/)
      expect(why).toContain(states.find((x) => x.id === code)?.label)
    }
    expect(stale.impediments.map((x: { why: string }) => x.why).join(' ')).toMatch(/not known on this device, \S+ in the records/)
    // Nothing of a refused request is kept; what knew all is told plainly why, and so is what names an act that nobody has.
    for (const after of [pressed.id, randomUUID(), `${randomUUID()}:begin`, undefined])
      expect((await send(id, [confirm('boom-up', 12)], { after })).body.error.code).toBe('not-permitted')
    expect(((await ines.get(`/shifts/${id}`)).body as Shift).order.some((e) => e.id === away.id)).toBe(false)
    // What may be done is done, behind or not.
    expect((await send(id, [{ do: 'reset', stop: 'cab', ...told(20) }], { after: first.id })).status).toBe(200)
  })
  it('counts an act once, however often it is told, says whose it was, and is the same world for everybody', async () => {
    const id = await readyShift(ines)
    const act = confirm('brake-on')
    const first = await send(id, [act])
    expect((await send(id, [act, confirm('chocked', 2)])).status).toBe(200)
    const shift = (await ines.get(`/shifts/${id}`)).body as Shift
    expect(shift.order.map((e) => ('step' in e ? e.step : e.do))).toEqual(['brake-on', 'chocked'])
    expect(shift.order[0]?.by).toEqual(first.body.operator)
    const { world } = orderOf(readMachineFile('tern'), shift)
    expect((await ines.get(`/shifts/${id}/world`)).body.states.chocks).toEqual(world.states.chocks)
    expect((await ines.get(`/shifts/${id}/next?procedure=setup`)).body).toMatchObject({ step: 'gear-neutral' })
    expect((await ines.get(`/shifts/${id}/next?procedure=nothing`)).status).toBe(404)
  })
  it('belongs to who has the machine; the second of two is believed with badge and PIN alone', async () => {
    const id = await readyShift(ines)
    const tomas = await app.as('Tomas Brekke')
    expect((await send(id, [confirm('brake-on')], {}, tomas)).body.error.code).toBe('not-your-shift')
    const second = { do: 'second', step: 'brake-on', ...told() }
    expect((await send(id, [second])).body.error.code).toBe('needs-second')
    const of = people.find((p) => p.name === 'Tomas Brekke')
    const wrong = { second: { badge: of?.badge, pin: '0000000' } }
    expect((await send(id, [second], wrong)).body.error).toMatchObject({ code: 'needs-second', path: 'second.pin' })
  })
  it('two people, two devices: the code is of one step and one moment, of another person, and not tried through', async () => {
    const { shift, step } = await waitingForSecond()
    const tomas = await app.as('Tomas Brekke')
    expect((await tomas.post(`/shifts/${shift}/second-codes`)).body.error.code).toBe('not-your-shift')
    const { code } = (await ines.post(`/shifts/${shift}/second-codes`)).body
    expect(code).toMatch(/^\d{6}$/)
    const enter = (p: Person, figures: string) => p.post(`/shifts/${shift}/second-codes/${figures}`)
    const wrong = code === '000000' ? '000001' : '000000'
    expect((await enter(tomas, wrong)).body.error).toMatchObject({ code: 'needs-second', path: 'code' })
    expect((await enter(ines, code)).body.error.code).toBe('same-person')
    const done = await enter(tomas, code)
    expect(done.body.order.at(-1)).toMatchObject({ do: 'second', step, by: { name: 'Tomas Brekke' } })
    // It was for that step: nothing waits now, and what waits next has another.
    expect((await enter(tomas, code)).body.error.code).toBe('not-permitted')
    for (let n = 0; n < 5; n++) await enter(tomas, wrong)
    expect((await enter(tomas, wrong)).status).toBe(429)
  })
  it('the database takes nothing else into somebody else’s shift', async () => {
    const { shift, second } = await waitingForSecond()
    const of = (name: string) => people.find((p) => p.name === name)
    const [tomas, org] = [of('Tomas Brekke'), of('Tomas Brekke')?.organisation ?? '']
    const told = (event: object) =>
      app.db.as({ org, person: tomas?.id ?? '' }, (tx) =>
        tx.query("insert into shift_event (org, shift, actor, kind, body) values ($1, $2, $3, 'order', $4)", [
          org,
          shift,
          tomas?.id,
          JSON.stringify(event),
        ]),
      )
    const own = { ...second, id: randomUUID(), by: { id: tomas?.id, name: '' } }
    for (const events of [
      [{ ...own, do: 'confirm' }],
      [own, own],
      [{ ...own, by: { id: ines.id, name: '' } }],
      [{ do: 'second' }],
      [],
    ])
      await expect(told({ events })).rejects.toMatchObject({ code: 'GL003' })
    await told({ events: [own] })
  })
  it('a PIN that a device kept is opened for that act alone', async () => {
    const { shift, step, second } = await waitingForSecond()
    const of = people.find((p) => p.name === 'Tomas Brekke')
    const { sealKey } = (await ines.get('/installation')).body
    const key = createPublicKey({ key: Buffer.from(sealKey, 'base64'), format: 'der', type: 'spki' })
    const seal = (event: string) =>
      publicEncrypt(
        { key, padding: constants.RSA_PKCS1_OAEP_PADDING, oaepHash: 'sha256' },
        Buffer.from(JSON.stringify({ badge: of?.badge, pin: of?.demoPin, event })),
      ).toString('base64')
    for (const sealed of [seal(randomUUID()), 'AAAA', 'not sealed at all'])
      expect((await send(shift, [second], { second: { sealed } })).body.error).toMatchObject({
        code: 'needs-second',
        path: 'second',
      })
    const told = await send(shift, [second], { second: { sealed: seal(second.id) } })
    expect(told.body.order.at(-1)).toMatchObject({ do: 'second', step, by: { name: 'Tomas Brekke' } })
  })
  it('an order that somebody has written is looked through, and nothing of it is kept', async () => {
    const [file, pieces] = [sourceOf('procedures/tern'), sourceOf('pieces/procedures')]
    const check = (f: object, more: object = { pieces }) => ines.post('/machines/tern/procedures/check', { file: f, ...more })
    const good = await check(file)
    expect(good.body).toMatchObject({ findings: [], steps: stepsOfFile(readMachineFile('tern').procedures).length })
    // Pins may be drawn with nothing that holds what they hold.
    const unguarded = structuredClone(file)
    const pin = unguarded.procedures.flatMap((p: { steps: { hazards?: string[] }[] }) => p.steps)
    for (const s of pin) if (s.hazards?.includes('drop')) s.needs = []
    const found = (await check(unguarded)).body.findings
    expect(found.map((f: { code: string }) => f.code)).toContain('drop-unguarded')
    expect((await check({ ...file, machine: 'heron' })).body.error).toMatchObject({ code: 'bad-input', path: 'file.machine' })
    expect((await check(file, {})).body.error.code).toBe('unknown-piece')
    expect((await check({ ...file, procedures: [] })).body.error).toMatchObject({ code: 'bad-input', path: 'file.procedures' })
    expect((await ines.get('/machines/tern')).body.definition.procedures.procedures.length).toBeGreaterThan(0)
  })
  it('an order is printed for reading, of this machine and no other', async () => {
    const paper = await ines.get('/machines/heron/order.pdf')
    expect(paper.status).toBe(200)
    expect(paper.body.subarray(0, 5).toString()).toBe('%PDF-')
    expect((await ines.get('/machines/nobody/order.pdf')).status).toBe(404)
  })
  it('a stop holds every step until it is reset; an emergency stops the machine, whatever the world, and opens nothing again', async () => {
    const id = await readyShift(ines)
    const setup = setupBody()
    await setUp(ines, id, setup)
    expect((await send(id, [{ do: 'stop-pressed', stop: 'cab', ...told() }])).status).toBe(200)
    expect((await send(id, [confirm('tie-off')])).body.error.message).toMatch(/Cab stop is pressed/)
    expect((await send(id, [{ do: 'reset', stop: 'cab', ...told() }, confirm('tie-off', 1)])).status).toBe(200)
    expect((await send(id, [{ do: 'emergency', card: 'Fire', ...told(2) }])).status).toBe(200)
    expect((await send(id, [confirm('boom-up', 3)])).body.error.code).toBe('machine-stopped')
    expect((await inOrder(ines, id, 'stow').catch((e) => e)).message).toMatch(/no way on/)
    const state = (await ines.get('/machines/tern')).body
    expect(state.stopping[0]).toMatchObject({ where: 'Emergency' })
    expect(tern.procedures.stops.length).toBeGreaterThan(0)
  })
  it('an override is journalled with how everything stood before and after; the third in a shift is told to the person in charge', async () => {
    const id = await readyShift(ines)
    await setUp(ines, id, setupBody())
    const watched = async () =>
      (await ines.get('/defects?machine=tern')).body.defects.filter((d: { where: string }) => d.where === 'Overrides')
    const use = (s: number) => [
      { do: 'override-begin', override: 'limiter', ...told(s) },
      { do: 'lost', why: 'sight', ...told(s + 1) },
      { do: 'override-end', words: 'Boom in', ...told(s + 3) },
    ]
    for (const n of [1, 2]) expect((await send(id, use(n * 5))).status).toBe(200)
    expect(await watched()).toEqual([])
    expect((await send(id, use(15))).status).toBe(200)
    expect(await watched()).toMatchObject([
      { grade: 'watch', words: expect.stringMatching(/^3 in one shift: Limiter override, /) },
    ])
    // Told once, and nothing is stopped by it.
    expect((await send(id, use(20))).status).toBe(200)
    expect(await watched()).toHaveLength(1)
    const { rows } = await app.owner.query(
      "select body from geolabe.journal where kind = 'override-used' order by seq desc limit 1",
    )
    const { stood } = rows[0].body
    expect(Object.keys(stood.before)).toEqual(Object.keys(stood.after))
    expect(stood.before.brake).toBe('on')
    expect(stood.after.people).toBe('unknown')
  })
})
