import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { type AssemblyInput, answer, assemblyInput, assemblyPlan } from '../src'
import { demoMachine } from './demo'

const task = (id: string, likely: number, people: number, needs: string[] = [], more: object = {}) => ({
  id,
  label: id,
  needs,
  people,
  minutes: { low: likely * 0.8, likely, high: likely * 1.5 },
  ...more,
})
/** A lattice boom put together with an assist crane. */
const tasks = [
  task('base', 90, 2),
  task('weights', 60, 2, ['base']),
  task('mast', 45, 2, ['base']),
  task('laid', 120, 2, ['mast']),
  task('pendants', 40, 2, ['laid']),
  task('reeve', 35, 1, ['mast']),
  task('foot', 25, 3, ['laid', 'weights']),
  task('electrics', 30, 1, ['foot']),
  task('look', 25, 2, ['pendants', 'reeve', 'electrics']),
  task('raise', 20, 3, ['look']),
]
const crew = (n: number, from_min = 0, to_min = 2000) =>
  Array.from({ length: n }, (_, i) => ({ id: `p${i}`, roles: [] as string[], from_min, to_min }))
const plan = (over: object) => assemblyPlan(assemblyInput.parse({ tasks, ...over }))
const refused = (over: object) => {
  const a = answer(() => plan(over))
  return 'error' in a ? a.error : null
}

describe('putting a machine together', () => {
  it('takes as long as its critical path, with as many people as are wanted', () => {
    const p = plan({})
    expect([p.unlimited_min.likely, p.finish_min.likely]).toEqual([355, 355])
    expect(p.critical).toEqual(['base', 'mast', 'laid', 'foot', 'electrics', 'look', 'raise'])
    const float = Object.fromEntries(p.tasks.map((t) => [t.id, t.float_min]))
    expect(float).toMatchObject({ weights: 105, pendants: 15, reeve: 140, base: 0 })
    expect(p.unlimited_min.low).toBeCloseTo(284, 9)
    expect(p.unlimited_min.high).toBeCloseTo(532.5, 9)
  })
  it('takes longer with three people, and no longer with five', () => {
    expect([3, 5].map((n) => plan({ people: crew(n) }).finish_min.likely)).toEqual([425, 355])
  })
  it('is planned for the demo’s lattice crane, from its file', () => {
    const { assembly } = demoMachine('kittiwake').procedures
    const assist = { available: true, rated_kg: 9000, from_min: 0 }
    const by = (id: string, n: number) => {
      const tasks = assembly.find((v) => v.id === id)?.tasks ?? []
      return assemblyPlan({ tasks, people: crew(n), assist: id === 'assist' ? assist : null }).finish_min.likely
    }
    expect([by('assist', 3), by('assist', 5)]).toEqual([425, 355])
    expect(by('self', 5)).toBeGreaterThan(by('assist', 5))
  })
  it('keeps one assist crane, one task at a place, roles and breaks', () => {
    const by = (t: object[], more: object) => assemblyPlan(assemblyInput.parse({ tasks: t, ...more })).finish_min.likely
    const assist = { available: true, rated_kg: 9000 }
    const lifted = { resource: 'assist' as const }
    expect(by([task('a', 30, 1, [], lifted), task('b', 40, 1, [], lifted)], { assist })).toBe(70)
    expect(by([task('a', 30, 1, [], lifted)], { assist: { ...assist, from_min: 60 } })).toBe(90)
    expect(by([task('a', 30, 1, [], { space: 'x' }), task('b', 40, 1, [], { space: 'x' })], {})).toBe(70)
    // The one rigger is wanted twice; anybody else will do for the rest.
    const rigger = { roles: ['rigger'] }
    const two = [{ ...crew(2)[0], roles: ['rigger'] }, crew(2)[1]]
    expect(by([task('a', 30, 1, [], rigger), task('b', 40, 1, [], rigger), task('c', 60, 1)], { people: two })).toBe(70)
    // Nobody works through a break: it begins after, whole.
    const broken = [...crew(1, 0, 50), ...crew(1, 80, 400)]
    expect(by([task('a', 30, 1), task('b', 30, 1, ['a'])], { people: broken })).toBe(110)
  })
  it('keeps what is done as it went, and moves the rest', () => {
    const late = tasks.map((t) => (t.id === 'base' ? { ...t, done: { from_min: 0, to_min: 120 } } : t))
    expect(plan({ tasks: late }).finish_min.likely).toBe(385)
  })
  it('refuses what cannot be, naming the task', () => {
    const bad = (t: object[], more: object = {}) => refused({ tasks: t, ...more })
    expect(bad([task('a', 1, 1, ['b'])])).toMatchObject({ code: 'unknown-task', path: 'tasks.0.needs' })
    expect(bad([task('a', 1, 1, ['b']), task('b', 1, 1, ['a'])])).toMatchObject({ code: 'circle' })
    expect(bad([task('a', 1, 1), task('a', 1, 1)])).toMatchObject({ code: 'same-id', path: 'tasks.1.id' })
    expect(bad([task('a', 1, 3)], { people: crew(2) })).toMatchObject({ code: 'not-enough-people', path: 'tasks.0.people' })
    expect(bad([task('a', 90, 1)], { people: crew(1, 0, 60) })).toMatchObject({ code: 'never-free' })
    expect(bad([task('a', 1, 1, [], { resource: 'assist' })])).toMatchObject({ code: 'no-assist' })
    const heavy = task('a', 1, 1, [], { resource: 'assist', lifted_kg: 9500 })
    expect(bad([heavy], { assist: { available: true, rated_kg: 9000 } })).toMatchObject({ code: 'assist-too-small' })
    expect(bad([{ ...task('a', 1, 1), minutes: { low: 2, likely: 1, high: 3 } }])).toMatchObject({ path: 'tasks.0.minutes' })
  })
  it('never begins anything too soon, or with somebody who is elsewhere, whatever the work', () => {
    const work = fc
      .array(
        fc.record({
          minutes: fc.integer({ min: 0, max: 90 }),
          people: fc.integer({ min: 1, max: 3 }),
          back: fc.array(fc.nat(8), { maxLength: 3 }),
          space: fc.constantFrom(undefined, 'x'),
        }),
        { minLength: 1, maxLength: 12 },
      )
      .map((rows) =>
        rows.map((r, i) => {
          const needs = [...new Set(r.back.filter((b) => b < i).map((b) => `t${b}`))]
          return task(`t${i}`, r.minutes, r.people, needs, r.space ? { space: r.space } : {})
        }),
      )
    fc.assert(
      fc.property(work, fc.integer({ min: 3, max: 5 }), (all, n) => {
        const input: AssemblyInput = assemblyInput.parse({ tasks: all, people: crew(n) })
        const p = assemblyPlan(input)
        const at = new Map(p.tasks.map((t) => [t.id, t]))
        for (const t of input.tasks) {
          const run = at.get(t.id)
          expect(run?.people.length).toBe(t.people)
          for (const need of t.needs) expect(at.get(need)?.finish_min).toBeLessThanOrEqual(run?.start_min ?? -1)
        }
        const overlap = (a: { start_min: number; finish_min: number }, b: typeof a) =>
          a.start_min < b.finish_min && b.start_min < a.finish_min
        for (const a of p.tasks)
          for (const b of p.tasks)
            if (a.id < b.id && overlap(a, b)) {
              expect(a.people.filter((x) => b.people.includes(x))).toEqual([])
              const places = [a, b].map((x) => input.tasks.find((t) => t.id === x.id)?.space)
              expect(places[0] === undefined || places[0] !== places[1]).toBe(true)
            }
        // More people are never asked to take longer than the work laid end to end, nor less than its critical path.
        const whole = input.tasks.reduce((sum, t) => sum + t.minutes.likely, 0)
        expect(p.finish_min.likely).toBeGreaterThanOrEqual(p.unlimited_min.likely - 1e-9)
        expect(p.finish_min.likely).toBeLessThanOrEqual(whole + 1e-9)
      }),
      { numRuns: 200 },
    )
  })
})
