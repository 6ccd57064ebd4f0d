import type { Exam, PracticeCertificate } from '@geolabe/contract'
import { certificateSays, type LoadRun, practiceVersion, tick_s } from '@geolabe/core'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { drivenBy, SteadyDriver } from '../../core/test/driver'
import { readMachineFile } from '../../server/src/demo/files'
import { freshKey } from '../../server/src/key/signing'
import { againOf, watchedOf } from '../src/practice/again'
import { drawDrive, drawTriangle } from '../src/practice/drive-scene'
import { standing, triesLeft } from '../src/practice/exam-words'
import { checkCertificate } from '../src/practice/genuine'
import type { Paints, Sheet } from '../src/practice/scene'

const [tern, whimbrel] = [readMachineFile('tern'), readMachineFile('whimbrel')]

/** A sheet that notes all that is drawn on it. */
function noted(): { sheet: Sheet; drawn: () => string } {
  const log: unknown[] = []
  const ctx = new Proxy(
    {},
    {
      get: (_t, name) =>
        name === 'measureText' ? () => ({ width: 10 }) : (...args: unknown[]) => void log.push([String(name), ...args]),
      set: (_t, name, value) => log.push([String(name), value]) > 0,
    },
  )
  const paint = new Proxy({}, { get: (_t, name) => String(name) }) as Paints
  return { sheet: { ctx: ctx as CanvasRenderingContext2D, width: 600, height: 400, paint }, drawn: () => JSON.stringify(log) }
}
function pictureOf(draw: (above: Sheet, beside: Sheet) => void): string {
  const [a, b] = [noted(), noted()]
  draw(a.sheet, b.sheet)
  return a.drawn() + b.drawn()
}

describe('a run seen again', () => {
  const lowered: LoadRun = {
    format: 'geolabe.practice/1',
    id: 'b4b8f1f6-6d0e-4a8e-9a6b-1f1c5c2f9b01',
    game: 'load',
    version: practiceVersion,
    machine: { id: 'tern', revision: tern.revision },
    seed: 5,
    level: 0.1,
    inputs: [
      [10, 0, 60],
      [200, 0, 0],
      [260, 3, -40],
    ],
    stops: [],
    ticks: 900,
    keys: [],
  }
  const { run, drive } = drivenBy(whimbrel, { seed: 5, level: 0.2 }, (d) => new SteadyDriver(d))

  it('shows the same at a moment however one comes to it', () => {
    for (const [m, r] of [
      [tern, lowered],
      [whimbrel, run],
    ] as const) {
      const went = againOf(m, r)
      if (!went) throw new Error('nothing to see')
      fc.assert(
        fc.property(fc.array(fc.integer({ min: 1, max: went.ticks }), { minLength: 2, maxLength: 4 }), (moments) => {
          for (const tick of moments) went.to(tick)
          const fresh = againOf(m, r)
          fresh?.to(moments.at(-1) ?? 1)
          expect(went.tick).toBe(moments.at(-1))
          expect(pictureOf((a, b) => went.draw(a, b))).toBe(pictureOf((a, b) => fresh?.draw(a, b)))
        }),
        { numRuns: 6 },
      )
    }
  })
  it('watched piece by piece as it goes is what it is seen again', () => {
    for (const [m, r, last] of [
      [tern, lowered, lowered.ticks],
      [whimbrel, run, drive.ticks],
    ] as const) {
      const until = (ticks: number) => ({
        ticks,
        run: {
          ...r,
          inputs: r.inputs.filter(([tick]) => tick < ticks),
          ...(r.game === 'drive' ? { notes: r.notes.filter(([tick]) => tick < ticks) } : { ticks }),
        } as typeof r,
      })
      fc.assert(
        fc.property(fc.uniqueArray(fc.integer({ min: 1, max: last }), { minLength: 2, maxLength: 5 }), (told) => {
          const [first = 1, ...rest] = [...told].sort((a, b) => a - b)
          const watched = watchedOf(m, until(first))
          watched.to(first)
          for (const ticks of rest) {
            watched.more(until(ticks))
            watched.to(ticks)
          }
          // What comes late, or of another run, changes nothing.
          const seen = pictureOf((a, b) => watched.draw(a, b))
          watched.more(until(first))
          watched.more({ ...until(last), run: { ...until(last).run, id: 'another' } })
          watched.to(last)
          const again = againOf(m, r)
          again?.to(rest.at(-1) ?? first)
          expect([watched.tick, pictureOf((a, b) => watched.draw(a, b))]).toEqual([again?.tick, seen])
          expect(pictureOf((a, b) => again?.draw(a, b))).toBe(seen)
        }),
        { numRuns: 6 },
      )
    }
  })
  it('ends as it ended, and goes nowhere beyond', () => {
    const again = againOf(whimbrel, run)
    again?.to(1e9)
    expect([again?.tick, again?.ticks]).toEqual([drive.ticks, drive.ticks])
    expect((again?.ticks ?? 0) * tick_s).toBeCloseTo(drive.time_s, 9)
    expect(pictureOf((a, b) => again?.draw(a, b))).toBe(
      pictureOf((a, b) => {
        drawDrive(a, drive, whimbrel.outline.plan)
        drawTriangle(b, drive)
      }),
    )
  })
})

describe('a certificate handed over', () => {
  const key = freshKey()
  const whole: PracticeCertificate = {
    format: 'geolabe.certificate/1',
    id: 'b4b8f1f6-6d0e-4a8e-9a6b-1f1c5c2f9b02',
    says: certificateSays,
    organisation: { id: 'skarrow-haven', name: 'Skarrow Haven' },
    person: { id: 'ines-haldane', name: 'Ines Haldane' },
    machine: { id: 'whimbrel', name: 'Whimbrel', kind: 'forklift', revision: 1 },
    game: 'drive',
    level: 0.2,
    settings: null,
    runs: [
      {
        id: 'b4b8f1f6-6d0e-4a8e-9a6b-1f1c5c2f9b03',
        seed: 5,
        at: '2026-05-02T10:00:00.000Z',
        score: 97.5,
        scoreByHand: null,
        errors: ['look-back'],
        sha256: 'ab',
      },
    ],
    triesMade: 2,
    assessor: { id: 'signe-abara', name: 'Signe Abara' },
    words: '',
    issuedOn: '2026-05-02',
    validUntil: '2026-10-29',
  }
  const signed = { ...whole, signature: key.sign(whole) }
  const is = async (file: unknown) => (await checkCertificate(JSON.stringify(file), key.publicKey)).is

  it('is genuine in whatever order its fields come, and altered by any other figure or word', async () => {
    expect(await is(signed)).toBe('genuine')
    expect(await is(Object.fromEntries(Object.entries(signed).reverse()))).toBe('genuine')
    for (const other of [
      { level: 0.9 },
      { person: { ...whole.person, name: 'Tomas Brekke' } },
      { validUntil: '2027-10-29' },
      { triesMade: 1 },
      { words: 'Excellent.' },
      { runs: [{ ...whole.runs[0], errors: [] }] },
      { signature: { ...signed.signature, value: 'no base64 §' } },
      { signature: { ...signed.signature, value: '' } },
    ])
      expect(await is({ ...signed, ...other }), JSON.stringify(other)).toBe('altered')
  })
  it('of another key is nobody’s here, and anything else is none', async () => {
    expect(await is({ ...whole, signature: freshKey().sign(whole) })).toBe('elsewhere')
    for (const other of [{}, [], null, whole, { ...signed, more: 1 }]) expect(await is(other)).toBe('none')
    expect((await checkCertificate('no file {', key.publicKey)).is).toBe('none')
  })
})

describe('an exam', () => {
  const today = new Date().toISOString().slice(0, 10)
  const exam = (over: Partial<Exam>) =>
    ({ tries: 2, until: today, machineChanged: false, certificate: null, made: [], ...over }) as unknown as Exam
  const made = (n: number, passed = false) =>
    Array.from({ length: n }, (_, i) => ({ number: i + 1, result: { passed } })) as unknown as Exam['made']

  it('has tries left until they are used, its day has passed, its machine has changed or it is certified', () => {
    expect(triesLeft(exam({}))).toBe(2)
    expect(triesLeft(exam({ made: made(1) }))).toBe(1)
    for (const over of [
      { made: made(2) },
      { made: made(5) },
      { until: '2020-01-01' },
      { machineChanged: true },
      { certificate: 'x' },
    ])
      expect(triesLeft(exam(over))).toBe(0)
  })
  it('says where it stands', () => {
    const said = [
      exam({}),
      exam({ made: made(1) }),
      exam({ made: made(2) }),
      exam({ made: made(1, true) }),
      exam({ until: '2020-01-01' }),
      exam({ machineChanged: true }),
      exam({ certificate: 'x', made: made(1, true) }),
    ].map(standing)
    expect(new Set(said).size).toBe(said.length)
  })
})
