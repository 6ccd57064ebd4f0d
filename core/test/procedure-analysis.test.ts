import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { type Condition, checkProcedures, type FindingCode, type ProcedureFile, procedureFile, stepsOfFile } from '../src'
import { influence, scopeOf } from '../src/procedure/compiled'
import { explore, foundMoves, lossMoves, stepMove } from '../src/procedure/explore'
import { demoMachine, demoMachines } from './demo'
import { runs } from './runs'

type When = Record<string, string>
const is = (when: When) =>
  Object.entries(when).map(([state, value]) => ({ id: state, if: { state, is: value }, because: 'So it is.' }))
const step = (id: string, needs: When, sets: When) => ({
  id,
  label: id,
  needs: is({ free: 'no', ...needs }),
  sets: Object.entries(sets).map(([state, to]) => ({ state, to })),
})
const begin: When = {
  seat: 'high',
  pin: 'in',
  safety: 'in',
  engine: 'on',
  pressure: 'on',
  valves: 'open',
  hoses: 'on',
  interlock: 'in',
  carriage: 'up',
  free: 'no',
}
const other: When = {
  seat: 'low',
  pin: 'out',
  safety: 'out',
  engine: 'off',
  pressure: 'off',
  valves: 'shut',
  hoses: 'off',
  interlock: 'out',
  carriage: 'down',
  free: 'yes',
}
const still: When = { seat: 'low', engine: 'off' }
/** A boom is taken off its truck. @param guards what keeps it from being lifted off its stand unpinned */
const boomOff = (guards: When): ProcedureFile =>
  procedureFile.parse({
    states: Object.entries(begin).map(([id, initial]) => ({
      id,
      label: id,
      initial,
      values: [initial, other[id]].map((v) => ({ id: v, label: v })),
    })),
    procedures: [
      {
        id: 'off',
        label: 'Boom off',
        station: 'setup',
        required: true,
        goal: [{ state: 'free', is: 'yes' }],
        steps: [
          step('seat', { engine: 'on', carriage: 'up' }, { seat: 'low', carriage: 'down' }),
          step('lift-off-seat', { engine: 'on', carriage: 'down', ...guards }, { seat: 'high', carriage: 'up' }),
          step('engine-off', { seat: 'low', engine: 'on' }, { engine: 'off' }),
          step('relieve', { engine: 'off', pressure: 'on' }, { pressure: 'off' }),
          step('valves-shut', { pressure: 'off', valves: 'open' }, { valves: 'shut' }),
          step('hoses-off', { engine: 'off', valves: 'shut', pressure: 'off', hoses: 'on' }, { hoses: 'off' }),
          step('interlock-out', { hoses: 'off', interlock: 'in' }, { interlock: 'out' }),
          step('safety-out', { ...still, safety: 'in' }, { safety: 'out' }),
          step('safety-in', { ...still, safety: 'out', pin: 'in' }, { safety: 'in' }),
          step('pin-out', { ...still, safety: 'out', pin: 'in' }, { pin: 'out' }),
          step('pin-in', { ...still, pin: 'out' }, { pin: 'in' }),
          step('engine-on', { engine: 'off' }, { engine: 'on', pressure: 'on' }),
          step('back-away', { pin: 'out', interlock: 'out', hoses: 'off', engine: 'on', seat: 'low' }, { free: 'yes' }),
        ],
      },
    ],
    invariants: [
      {
        id: 'held',
        never: {
          all: [
            {
              any: [
                { state: 'pin', is: 'out' },
                { state: 'safety', is: 'out' },
              ],
            },
            { no: { state: 'seat', is: 'low' } },
          ],
        },
        because: 'It would fall.',
      },
    ],
  })

const explored = (f: ProcedureFile) => {
  const steps = f.procedures.flatMap((p) => p.steps)
  const goal = f.procedures[0]?.goal ?? []
  const scope = scopeOf(f, influence(f, steps, [...goal, ...f.invariants.map((v) => v.never)]))
  const start = Uint8Array.from(scope.variables, (x) => x.values.indexOf(f.states.find((s) => s.id === x.id)?.initial ?? ''))
  const moves = steps.map((s) => stepMove(f, s, scope))
  return explore(scope, [start], moves, { goal, invariants: f.invariants })
}

describe('the exploration', () => {
  const guarded = boomOff({ pin: 'in', safety: 'in' })
  const bare = boomOff({})
  it('finds the worlds, moves and nearest goal of the check model, and nothing broken', () => {
    const e = explored(guarded)
    expect([e.worlds, e.moves, e.goalAfter, e.violations]).toEqual([41, 105, 10, []])
    expect(checkProcedures(guarded).filter((x) => x.code === 'violates')).toEqual([])
  })
  it('without its two guards finds the fall after five acts, and tells how', () => {
    const e = explored(bare)
    expect([e.worlds, e.moves]).toEqual([49, 123])
    expect(e.violations[0]?.story).toHaveLength(5)
    expect(checkProcedures(bare).find((x) => x.code === 'violates')?.words).toMatch(/lift-off-seat/)
  })
  it('counts several alike, and gives up with a word where there are too many worlds', () => {
    const legs = ['FL', 'FR', 'RL', 'RR']
    const turns = Array.from({ length: 12 }, (_, k) => String(k))
    const four = procedureFile.parse({
      states: legs.map((id) => ({
        id: `leg.${id}`,
        label: id,
        initial: '0',
        values: turns.map((v) => ({ id: v, label: v })),
        member: { of: 'legs', id, label: id, base: 'leg.$' },
      })),
      procedures: [
        {
          id: 'p',
          label: 'P',
          station: 'setup',
          goal: legs.map((id) => ({ state: `leg.${id}`, is: '11' })),
          steps: legs.flatMap((id) =>
            turns.slice(1).map((to, k) => ({
              id: `${id.toLowerCase()}:${to}`,
              label: `${id} ${to}`,
              needs: [{ id: 'n', if: { state: `leg.${id}`, is: String(k) }, because: 'In turn.' }],
              sets: [{ state: `leg.${id}`, to }],
            })),
          ),
        },
      ],
    })
    const scope = scopeOf(four, influence(four, four.procedures[0]?.steps ?? [], four.procedures[0]?.goal ?? []))
    const start = Uint8Array.from(scope.variables, () => 1)
    const moves = (four.procedures[0]?.steps ?? []).map((s) => stepMove(four, s, scope))
    // 12 conditions of four alike: 15 over 4, instead of 12 to the fourth.
    expect(explore(scope, [start], moves, {}).worlds).toBe(1365)
    expect(explore({ ...scope, groups: [] }, [start], moves, {}).worlds).toBe(20_736)
    expect(explore(scope, [start], moves, { most_worlds: 100 }).tooLarge).toBe(true)
  })
  it('has an adversary who presses stops, loses sight and finds things as they are', () => {
    const f = demoMachine('plover').procedures
    const scope = scopeOf(f, new Set(['diverter', 'people']))
    const loses = lossMoves(f, scope)
    expect(loses.map((m) => m.words)).toEqual(
      expect.arrayContaining(['Left and right stops pressed', 'lost: sight', 'lost: leaving']),
    )
    const at = scope.at.get('diverter') ?? 0
    const set = Uint8Array.from(scope.variables, () => 1)
    expect(loses.find((m) => m.words.includes('pressed'))?.does(set)[at]).toBe(0)
    expect(foundMoves(f, scope).some((m) => m.may(set))).toBe(false)
  })
})

describe('a file', () => {
  it('with more worlds than can be looked at says so, and is not passed', () => {
    const f = structuredClone(boomOff({ pin: 'in', safety: 'in' }))
    const many = Array.from({ length: 16 }, (_, k) => `m${k}`)
    f.states.push(...many.map((id) => ({ ...(f.states[0] as (typeof f.states)[number]), id })))
    for (const v of f.invariants) v.never = { all: [v.never, { any: many.map((state) => ({ state, is: 'low' })) }] }
    expect(checkProcedures(f).map((x) => x.code)).toContain('too-large')
  })

  const boom = boomOff({ pin: 'in', safety: 'in' })
  const aboutDoing = (must: Condition[]): ProcedureFile['invariants'][number] => ({
    id: 'hands-in',
    doing: ['pin-out'],
    never: { no: { all: must } },
    because: 'A hand is in it.',
  })
  const wrong: [FindingCode, (f: ProcedureFile) => void][] = [
    ['violates', (f) => void f.procedures[0]?.steps.find((s) => s.id === 'lift-off-seat')?.needs.splice(3)],
    // About doing a step: what it needs says less than the rule, or what is computed may come out badly.
    ['violates', (f) => void f.invariants.push(aboutDoing(is({ engine: 'off', valves: 'shut' }).map((n) => n.if)))],
    ['violates', (f) => void f.invariants.push(aboutDoing([{ input: 'bar', atMost: 0 }]))],
    ['drop-unguarded', (f) => Object.assign(f.procedures[0]?.steps[0] ?? {}, { hazards: ['drop'], needs: [] })],
    [
      'drop-unguarded',
      (f) =>
        Object.assign(f.states.find((s) => s.id === 'pin') ?? {}, {
          holds: { open: 'out', part: 'the boom', instead: { state: 'carriage', is: 'up' } },
        }),
    ],
    [
      'never-set',
      (f) => {
        f.states.push({ ...(f.states[0] as (typeof f.states)[number]), id: 'mood', initial: 'unknown' })
        f.procedures[0]?.goal.push({ state: 'mood', is: 'low' })
      },
    ],
    ['never-read', (f) => void f.states.push({ ...(f.states[0] as (typeof f.states)[number]), id: 'mood' })],
    ['unreachable-step', (f) => f.procedures[0]?.steps[0]?.needs.push(...is({ engine: 'off' }))],
    ['no-way-to-goal', (f) => f.procedures[0]?.steps.splice(6, 1)],
    [
      'dead-end',
      (f) =>
        f.procedures[0]?.steps.push({
          ...(f.procedures[0].steps[0] as (typeof f.procedures)[0]['steps'][0]),
          id: 'throw-away',
          label: 'throw away',
          needs: [],
          sets: [{ state: 'interlock', to: 'unknown' }],
        }),
    ],
    [
      'two-person-one-badge',
      (f) => Object.assign(f.procedures[0]?.steps[0] ?? {}, { two: { acts: 'me', signals: 'me', engine: 'on', first: [] } }),
    ],
  ]
  const override = (waits: string[]): ProcedureFile['overrides'][number] => ({
    id: 'by-hand',
    label: 'By hand',
    purpose: 'Bring it back',
    needs: [],
    most_s: 60,
    waits,
    load: 'none',
    follow: { what: 'Looked at', by: 'fitter' },
    stops: false,
  })
  /** It is put away with its pin in, which nothing brings about once it has been driven off without. */
  const goesHome = (f: ProcedureFile) => {
    const [p] = f.procedures
    if (!p) return
    const look = { ...(p.steps[0] as (typeof p.steps)[0]), id: 'look', needs: [] }
    f.procedures.push({ ...p, id: 'home', label: 'Home', station: 'stow', goal: [{ state: 'pin', is: 'in' }], steps: [look] })
  }
  wrong.push(
    // What it passes is several needs, by one name.
    ['override-too-wide', (f) => void f.overrides.push(override(['pin']))],
    [
      'override-too-wide',
      (f) => {
        const guard = f.procedures[0]?.steps.find((s) => s.id === 'lift-off-seat')?.needs.find((n) => n.id === 'safety')
        if (guard) guard.id = 'guard'
        f.overrides.push(override(['guard']))
      },
    ],
    ['undo-breaks', (f) => Object.assign(f.procedures[0]?.steps[0] ?? {}, { undo: { how: 'steps', steps: ['engine-off'] } })],
    [
      'undo-breaks',
      (f) => Object.assign(f.procedures[0]?.steps[0] ?? {}, { undo: { how: 'steps', steps: ['lift-off-seat', 'safety-in'] } }),
    ],
    [
      'stop-without-reset',
      (f) => {
        f.states.push({ ...(f.states[0] as (typeof f.states)[number]), id: 'oil', label: 'Oil', initial: 'low' })
        f.stops.push({
          id: 'red',
          label: 'Red',
          kills: [],
          stillMoves: ['What hangs.'],
          unknownAfter: ['oil'],
          reset: ['Turn'],
          relink: false,
        })
      },
    ],
    ['blocks-emergency', (f) => void f.emergency.without.push('trapped')],
    // Its own card, and left out all the same.
    [
      'blocks-emergency',
      (f) => {
        f.emergency.without.push('wind')
        f.emergency.own.push({ id: 'wind', acts: ['Down', 'Away'] })
      },
    ],
    ['no-way-back', goesHome],
    // The same where it is done only as one of the ways that it may be planned to stand.
    [
      'no-way-back',
      (f) => {
        goesHome(f)
        f.states.push({
          ...(f.states[0] as (typeof f.states)[number]),
          id: 'way',
          initial: 'unknown',
          source: 'computed',
          plan: 'way',
        })
        Object.assign(f.procedures[0] ?? {}, { when: { state: 'way', is: 'low' } })
      },
    ],
  )
  it.each(wrong)('with %s is told so, and where', (code, change) => {
    const f = structuredClone(boom)
    change(f)
    const found = checkProcedures(f).find((x) => x.code === code)
    expect(found, JSON.stringify(checkProcedures(f))).toBeDefined()
    expect(found?.path).toMatch(/^((procedures|states|invariants|overrides|stops)\.\d+|emergency$)/)
    if (['dead-end', 'violates', 'no-way-back', 'undo-breaks'].includes(code)) expect(found?.story.length).toBeGreaterThan(0)
  })
  it('with a rule about doing a step that its needs keep is passed', () => {
    const f = structuredClone(boom)
    f.invariants.push(aboutDoing(is({ engine: 'off', seat: 'low' }).map((n) => n.if)))
    expect(checkProcedures(f)).toEqual([])
  })
  it('that names a state that is none, or a stop without its way back, is no file', () => {
    const refusal = (change: (f: ProcedureFile) => void) => {
      const f = structuredClone(boom)
      change(f)
      return procedureFile.safeParse(f).error?.issues.map((x) => `${x.path.join('.')}: ${x.message}`) ?? []
    }
    expect(refusal((f) => void f.procedures[0]?.goal.push({ state: 'mood', is: 'low' }))[0]).toBe(
      'procedures.0.goal.1: There is no state “mood” in this file.',
    )
    const stop = { id: 'red', label: 'Red', kills: [], stillMoves: ['What hangs.'], unknownAfter: [], reset: [], relink: false }
    expect(refusal((f) => void f.stops.push(stop))[0]).toMatch(/^stops\.0\.reset/)
  })
  it.each(demoMachines)('of %s passes, with something that must never be', (id) => {
    const f = demoMachine(id).procedures
    expect(checkProcedures(f)).toEqual([])
    expect(f.invariants.length).toBeGreaterThan(0)
    expect(f.stops.length).toBeGreaterThan(0)
  })
  // All of them in the hunt.
  it.each(demoMachines)('of %s has a rule for every need of a step that could hurt: left out, it is missed', (id) => {
    const f = demoMachine(id).procedures
    const needs = stepsOfFile(f).flatMap((s) => (s.hazards.length > 0 ? s.needs.map((n) => [s.id, n.id] as const) : []))
    fc.assert(
      fc.property(fc.constantFrom(...needs), ([step, need]) => {
        const less = structuredClone(f)
        for (const s of stepsOfFile(less)) if (s.id === step) s.needs = s.needs.filter((n) => n.id !== need)
        return checkProcedures(less, { waysBack: false }).length > 0
      }),
      { numRuns: runs(40, 1) },
    )
  })
})
