import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  byUrgency,
  type ControlMap,
  type ControlWay,
  controlMap,
  controlsAgainst,
  type DefectState,
  type Duty,
  defectMoves,
  defectState,
  energyPlan,
  follow,
  type Grade,
  gradeBy,
  handoverLines,
  hoursPerDay,
  impedimentsTo,
  isClosed,
  isEnd,
  isGraver,
  licenceExpiries,
  nextDue,
  type SymptomFigures,
  type SymptomPath,
  symptomPath,
  watchIsOver,
  whyNot,
} from '../src'
import { demoMachine, demoMachines, tern } from './demo'

const day = (n: number) => new Date(Date.UTC(2026, 0, 1 + n)).toISOString().slice(0, 10)
const duty = (over: Partial<Duty>): Duty => ({
  id: 'd',
  label: 'Service',
  kind: 'service',
  by: 'fitter',
  source: 'book',
  ...over,
})
const meter = (perDay: number, days: number, from = 1000) =>
  Array.from({ length: days + 1 }, (_, i) => ({ at: day(i), hours: from + i * perDay }))

describe('what falls due', () => {
  it('by date: the day it was done and the interval', () => {
    const d = duty({ every_days: 30 })
    expect(nextDue(d, { at: day(0), hours: null }, [], day(5))).toMatchObject({
      state: 'later',
      date: day(30),
      daysLeft: 25,
      by: 'date',
    })
    expect(nextDue(d, { at: day(0), hours: null }, [], day(20))).toMatchObject({ state: 'soon', daysLeft: 10 })
    expect(nextDue(d, { at: day(0), hours: null }, [], day(31))).toMatchObject({ state: 'overdue', daysLeft: -1 })
  })
  it('by use: the meter then, the interval, and the hours a day of now', () => {
    const readings = meter(4, 20)
    expect(hoursPerDay(readings)).toBeCloseTo(4, 12)
    const n = nextDue(duty({ every_hours: 250 }), { at: day(0), hours: 1000 }, readings, day(20))
    // 170 hours left at four a day, from the last reading.
    expect(n).toMatchObject({ hoursLeft: 170, atHours: 1250, date: day(62), by: 'use', state: 'later' })
    expect(nextDue(duty({ every_hours: 70 }), { at: day(0), hours: 1000 }, readings, day(20))).toMatchObject({ state: 'overdue' })
  })
  it('by the earlier of both, never later for more use, and not proven where nothing is on record', () => {
    const d = duty({ every_days: 60, every_hours: 250 })
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 12 }), fc.integer({ min: 0, max: 12 }), (a, b) => {
        const at = (perDay: number) => nextDue(d, { at: day(0), hours: 1000 }, meter(perDay, 10), day(10))
        const [less, more] = [at(Math.min(a, b)), at(Math.max(a, b))]
        expect((more.date ?? '9999') <= (less.date ?? '9999')).toBe(true)
        expect((more.date ?? '') <= day(60)).toBe(true)
      }),
    )
    expect(nextDue(d, null, meter(4, 10), day(10))).toMatchObject({ state: 'never', date: null })
  })
  it('says when use is not known well enough, and never counts a meter that went back', () => {
    expect(hoursPerDay([{ at: day(0), hours: 10 }])).toBeNull()
    expect(
      hoursPerDay([
        { at: day(0), hours: 10 },
        { at: day(3), hours: 4 },
      ]),
    ).toBeNull()
    const n = nextDue(duty({ every_hours: 100 }), { at: day(0), hours: 10 }, [{ at: day(0), hours: 20 }], day(1))
    expect(n).toMatchObject({ date: null, hoursLeft: 90, note: 'Use is not known well enough to say when.' })
  })
  it('is sorted with the most pressing first', () => {
    const made = (s: 'overdue' | 'never' | 'soon' | 'later', date: string | null) =>
      ({ duty: s, state: s, date, atHours: null, hoursLeft: null, daysLeft: null, by: null, note: null }) as const
    const order = [
      made('later', day(9)),
      made('soon', day(3)),
      made('never', null),
      made('overdue', day(1)),
      made('soon', day(2)),
    ]
    expect([...order].sort(byUrgency).map((d) => d.date ?? d.state)).toEqual([day(1), 'never', day(2), day(3), day(9)])
  })
})

describe('charging and refuelling', () => {
  const e = { kind: 'battery' as const, label: 'Charge left', perHour_share: 0.1, refill_h: 8 }
  it('goes when low, or today where a day of use takes it below; after every shift only where the battery’s book says so', () => {
    expect(energyPlan(e, 0.25, 2)).toMatchObject({ action: 'refill-now', refill_h: 6 })
    expect(energyPlan(e, 0.45, 2)).toMatchObject({ action: 'refill-today' })
    expect(energyPlan(e, 0.9, 2)).toMatchObject({ action: 'nothing', hoursLeft: 9 })
    expect(energyPlan({ ...e, book: 'every-shift-end' }, 0.9, 2)).toMatchObject({ action: 'refill-today' })
    expect(energyPlan(e, null, 2)).toMatchObject({ action: 'read-it', share: null })
  })
})

/** Whether somebody, not the one who repaired it, could take it from one state to another. */
const mayBecome = (from: DefectState, to: DefectState, grade: Grade) =>
  defectMoves.some(
    (m) =>
      m.from === from &&
      m.to === to &&
      whyNot(
        m.action,
        { state: from, grade, pending: false, repairedBy: 'x' },
        { id: 'y', roles: ['fitter', 'person-in-charge'], contact: true },
      ) === null,
  )

describe('the life of a defect', () => {
  it('takes not knowing for yes: nobody has to guess that it will hold', () => {
    expect(gradeBy('yes', 'no')).toBe('hazard')
    expect(gradeBy('unsure', 'no')).toBe('hazard')
    expect(gradeBy('no', 'yes')).toBe('damage')
    expect(gradeBy('no', 'unsure')).toBe('damage')
    expect(gradeBy('no', 'no')).toBe('watch')
  })
  it('has no way to the end for what stops a machine but repaired, looked at by another, returned', () => {
    for (const grade of ['hazard', 'damage'] as const) {
      const ways: DefectState[][] = [['raised']]
      const ended: DefectState[][] = []
      while (ways.length > 0) {
        const way = ways.pop() as DefectState[]
        const at = way.at(-1) as DefectState
        if (isClosed(at)) ended.push(way)
        for (const to of defectState.options) if (mayBecome(at, to, grade) && !way.includes(to)) ways.push([...way, to])
      }
      expect(ended.length).toBeGreaterThan(0)
      for (const way of ended) expect(way.slice(-3)).toEqual(['repaired', 'verified', 'returned'])
    }
    expect(mayBecome('acknowledged', 'accepted', 'watch')).toBe(true)
    expect(defectMoves.filter((m) => m.to === 'verified').every((m) => m.part === 'inspector')).toBe(true)
    expect(new Set(defectMoves.map((m) => `${m.action} ${m.from}`)).size).toBe(defectMoves.length)
  })
  it('is graded graver only, and its watch is over by date or by hours', () => {
    expect(isGraver('hazard', 'damage') && isGraver('damage', 'watch')).toBe(true)
    expect(isGraver('watch', 'damage') || isGraver('damage', 'damage')).toBe(false)
    expect(watchIsOver({ date: day(5), hours: null }, day(5), null)).toBe(false)
    expect(watchIsOver({ date: day(5), hours: null }, day(6), null)).toBe(true)
    expect(watchIsOver({ date: null, hours: 100 }, day(6), 100)).toBe(true)
    expect(watchIsOver({ date: null, hours: 100 }, day(6), null)).toBe(false)
  })
})

describe('ways from a symptom', () => {
  const way = (nodes: object[]) => symptomPath.safeParse({ id: 's', symptom: 'S', nodes }).error?.issues[0]?.message
  const ask = (id: string, ...to: string[]) => ({ id, ask: 'A?', answers: to.map((t, i) => ({ label: `a${i}`, to: t })) })
  const stop = { id: 'stop', end: 'stop', words: 'Stop.' }
  it('go only onward, to something there, and stop the machine where no cause is named', () => {
    expect(way([ask('q', 'stop', 'stop'), stop])).toBeUndefined()
    expect(way([ask('q', 'q', 'stop'), stop])).toMatch(/not a node after/)
    expect(way([ask('q', 'gone', 'stop'), stop])).toMatch(/not a node after/)
    expect(way([ask('q', 'go', 'stop'), { id: 'go', end: 'continue', words: 'Go on.' }, stop])).toMatch(/without a cause stops/)
  })
  it('answer themselves what is known of the lift', () => {
    const nodes = [
      { id: 'planned', figure: 'share', atMost: 1, yes: 'q', no: 'heavy', unknown: 'stop' },
      ask('q', 'stop', 'heavy'),
      { id: 'heavy', end: 'continue', words: 'Set it down.', cause: 'Too heavy here' },
      stop,
    ]
    const p = symptomPath.parse({ id: 's', symptom: 'S', nodes })
    const at = (share: number | null) => follow(p, [], { share }).id
    expect([at(0.4), at(1), at(1.0001), at(null)]).toEqual(['q', 'q', 'heavy', 'stop'])
    expect(way([{ ...nodes[0], no: 'planned' }, ...nodes.slice(1)])).toMatch(/not a node after/)
    expect(way([{ ...nodes[0], unknown: 'gone' }, ...nodes.slice(1)])).toMatch(/not a node after/)
  })
  it('of every machine end on every answer, at least once in a stop', () => {
    const walk = (p: SymptomPath, figures: SymptomFigures, answers: string[], ends: string[]): void => {
      const here = follow(p, answers, figures)
      if (isEnd(here)) ends.push(here.end)
      else for (const a of here.answers) walk(p, figures, [...answers, a.label], ends)
      expect(answers.length).toBeLessThan(8)
    }
    for (const id of demoMachines) {
      for (const p of demoMachine(id).symptoms) {
        const ends: string[] = []
        for (const share of [null, 0.5, 1, 1.001]) {
          const before = ends.length
          walk(p, { share }, [], ends)
          expect(ends.length, `${id} ${p.id}`).toBeGreaterThan(before)
        }
        expect(ends, `${id} ${p.id}`).toContain('stop')
      }
    }
  })
})

describe('the handover', () => {
  const facts = {
    defects: [
      { where: 'Leg', words: 'sweats', grade: 'watch' as const, worsened: false },
      { where: 'Belt', words: 'cut', grade: 'hazard' as const, worsened: false },
    ],
    nearLimit: [{ label: 'Rope', reading: 15.3, unit: 'mm', limit: 15.2, reaches: '2026-12-15' }],
    overrides: [{ label: 'Hook stop', reason: 'tied', after: 'try it', followed: false }],
    due: [
      { label: 'Service', state: 'overdue' as const, date: '2026-01-01' },
      { label: 'Belt', state: 'later' as const, date: null },
    ],
    hours: 3822,
    energy: { label: 'Fuel left', share: 0.4 },
    standsAt: 'the wall',
    leftAs: 'legs in',
    limitsOn: 'height 6 m',
  }
  it('says from the record what the next person must know, and what is grave so', () => {
    const lines = handoverLines(facts)
    const grave = lines.filter((l) => l.grave).map((l) => l.text)
    expect(grave).toEqual([
      'Danger to people: Belt: cut',
      'Hook stop was used: tied. Still to do: try it',
      'Service is overdue since 2026-01-01',
      'Limits left switched on: height 6 m',
    ])
    for (const word of ['sweats', '15.3 mm', '2026-12-15', 'legs in', '40 %', '3822 hours']) {
      expect(
        lines.some((l) => l.text.includes(word)),
        word,
      ).toBe(true)
    }
  })
})

describe('a map of controls', () => {
  const withControls = demoMachines.map(demoMachine)
  const at = (label: string, way?: ControlWay) => ({ label, way })
  const mapOf = (does: Record<string, ReturnType<typeof at>>): ControlMap =>
    controlMap.parse({
      places: [{ id: 'cab', label: 'Cab' }],
      devices: [...new Set(Object.values(does).map((d) => d.label))].map((label, i) => ({
        id: label.toLowerCase().replaceAll(' ', '-'),
        label,
        kind: 'lever',
        place: 'cab',
        stands: i + 1,
      })),
      does: Object.entries(does).map(([name, { label, way }]) => ({
        does: name,
        device: label.toLowerCase().replaceAll(' ', '-'),
        ...(way && { way }),
      })),
    })
  it('marks what is done otherwise than on the machine last driven, what is the other way round, and what is new', () => {
    const own = mapOf({
      Hoist: at('Right lever', 'back'),
      'Slew left': at('Left lever', 'left'),
      Extend: at('Pedal'),
      'Boom up': at('Left lever', 'back'),
    })
    const last = mapOf({
      Hoist: at('Left lever', 'back'),
      'Slew left': at('Left lever', 'left'),
      ...{ 'Boom up': at('Left lever', 'forward') },
    })
    expect(controlsAgainst(own, last).map((c) => [c.was?.device ?? null, c.reversed, c.fresh])).toEqual([
      ['Left lever', false, false],
      [null, false, false],
      [null, false, true],
      ['Left lever', true, false],
    ])
    expect(controlsAgainst(own, null).every((c) => c.was === null && !c.fresh && !c.reversed)).toBe(true)
  })
  it('knows the left of two sticks for the left of two levers, not for the first of five', () => {
    const [ternMap, curlew, heron] = [tern.controls, demoMachine('curlew').controls, demoMachine('heron').controls]
    const marks = (own: ControlMap, does: string) =>
      controlsAgainst(own, ternMap).find((c) => c.does === does)?.was?.device ?? null
    expect(marks(curlew, 'Extend')).toBeNull()
    expect(marks(curlew, 'Slew left')).toBe('Left lever')
    expect(marks(heron, 'Slew left')).toBe('Left lever')
  })
  it.each(withControls)(
    'of $id has every device in its place and each motion both ways, one against the other',
    ({ controls }) => {
      const { places, devices, does } = controls
      expect(does.length).toBeGreaterThan(4)
      for (const p of places)
        expect(
          devices.some((d) => d.place === p.id),
          p.id,
        ).toBe(true)
      // Whatever is moved says what it does when it is let go.
      for (const d of devices) expect(d.returns !== undefined, d.id).toBe(d.kind !== 'lamp' && d.kind !== 'hand')
      for (const m of new Set(does.flatMap((c) => (c.moves ? [c.moves.motion] : [])))) {
        const [one, other, ...more] = does.filter((c) => c.moves?.motion === m)
        expect(more, m).toEqual([])
        expect((one?.moves?.sense ?? 0) + (other?.moves?.sense ?? 1), m).toBe(0)
        // On one device; or a device each: a pedal or a button pressed, a valve opened.
        if (one?.device !== other?.device)
          for (const way of [one?.way, other?.way]) expect(['pressed', 'turned-left'], m).toContain(way)
      }
      // Against itself nothing differs; against the same machine with one lever turned about, just that is the other way round.
      const own = { places, devices, does }
      expect(controlsAgainst(own, own).some((c) => c.was || c.fresh)).toBe(false)
      const [turned] = devices.filter((d) => d.kind === 'lever' && does.some((c) => c.device === d.id && c.way === 'forward'))
      const about = does.map((c) =>
        c.device === turned?.id && (c.way === 'forward' || c.way === 'back')
          ? { ...c, way: c.way === 'back' ? ('forward' as const) : ('back' as const) }
          : c,
      )
      const marked = controlsAgainst(own, { ...own, does: about }).filter((c) => c.reversed)
      expect(marked.map((c) => c.does)).toEqual(
        does.filter((c) => c.device === turned?.id && (c.way === 'forward' || c.way === 'back')).map((c) => c.does),
      )
    },
  )
  it('names what stands twice, is nowhere, or does nothing', () => {
    const good = tern.controls
    const first = good.devices[0]
    if (!first) throw new Error('no device')
    const says = (to: Partial<ControlMap>) => {
      const read = controlMap.safeParse({ ...good, ...to })
      return read.success ? '' : read.error.issues.map((i) => i.message).join(' ')
    }
    expect(says({})).toBe('')
    expect(says({ devices: [...good.devices, { ...first, id: 'again' }] })).toMatch(
      /twice: “cab 1”.*Nothing says what “Left lever” does/,
    )
    expect(says({ places: [] })).toContain('There is no place “cab” among the controls.')
    expect(says({ devices: [] })).toContain('There is no device “right” among the controls.')
    expect(says({ does: [...good.does, ...good.does.slice(0, 1)] })).toContain('twice: “Boom up”')
  })
})

describe('who may', () => {
  const person = {
    name: 'Ines',
    roles: ['operator' as const],
    licences: [
      { class: 'mobile-crane', grade: 'A', validUntil: day(20) },
      { class: 'mobile-crane', grade: 'A', validUntil: day(90) },
      { class: 'forklift', grade: 'A', validUntil: day(-1) },
    ],
    trained: [tern.kind.id],
    authorised: [] as string[],
  }
  it('needs the key besides licence and training', () => {
    expect(impedimentsTo(person, tern, day(0)).map((b) => b.code)).toEqual(['not-authorised'])
    expect(impedimentsTo({ ...person, authorised: ['tern'] }, tern, day(0))).toEqual([])
  })
  it('is warned ahead of expiry, by the later of two cards of a class', () => {
    expect(licenceExpiries(person, day(0)).map((x) => [x.class, x.state, x.daysLeft])).toEqual([
      ['forklift', 'expired', -1],
      ['mobile-crane', 'in-date', 90],
    ])
    expect(licenceExpiries(person, day(40)).find((x) => x.class === 'mobile-crane')?.state).toBe('soon')
  })
})
