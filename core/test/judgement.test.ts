import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { calibrationOf } from '../src/judgement/calibration'
import { type Item, itemsFrom, type Misreading, misreadings, misreadingsOf, opinions } from '../src/judgement/item'
import { judgeLessons } from '../src/judgement/lessons'
import { marksOf, type Sure, surenesses } from '../src/judgement/marks'
import { itemsARound, judgeRound, judgeVersion, markRound } from '../src/judgement/round'
import { loadLessons } from '../src/practice/lessons'
import { dueIn_days, halfLifeAfter, type WeakPoint, weakPointAfter } from '../src/practice/weak-point'
import { isHung } from '../src/rating/axes'
import { ratingAt } from '../src/rating/read'
import { demoMachine, demoMachines, demoTable } from './demo'

const answered = [0.5, 0.6, 0.8, 0.9, 1, 0.8, 0.6, 0.9, 0.8, 1].map((sure, i) => ({ sure, right: ![1, 5, 9].includes(i) }))
const level = fc.double({ min: 0, max: 1, noNaN: true })
const anySeed = fc.integer({ min: 0, max: 2 ** 32 - 1 })

describe('how sure against how right', () => {
  it('is what the squares of it come to', () => {
    const c = calibrationOf(answered)
    for (const [is, wanted] of [
      [c?.brier, 0.251],
      [c?.reliability, 0.084333],
      [c?.resolution, 0.043333],
      [c?.uncertainty, 0.21],
      [c?.bias, 0.09],
    ] as const)
      expect(is).toBeCloseTo(wanted, 6)
    expect(calibrationOf([])).toBeNull()
  })
  it('has parts that add up, whatever was answered', () => {
    const answer = fc.record({ sure: fc.constantFrom(0.5, 0.6, 0.7, 0.8, 0.9, 1), right: fc.boolean() })
    fc.assert(
      fc.property(fc.array(answer, { minLength: 1, maxLength: 200 }), (all) => {
        const c = calibrationOf(all)
        if (!c) throw new Error('none')
        expect(Math.abs(c.brier - (c.reliability - c.resolution + c.uncertainty))).toBeLessThan(1e-12)
      }),
    )
  })
})

describe('a weak point', () => {
  const lesson = (right: boolean, sure: number | null = null) => ({ point: 'late', right, sure })
  const later = (w: WeakPoint, days: number): WeakPoint => ({
    ...w,
    ago_days: w.ago_days + days,
    dueIn_days: w.dueIn_days - days,
  })
  it('lasts the longer the less was left of it, and comes again soon where it was wrong', () => {
    const told: [days: number, right: boolean, after: number][] = [
      [1, true, 5.963697],
      [2, true, 9.237159],
      [5, false, 3.694863],
      [1, true, 5.561738],
    ]
    let w: WeakPoint = { halfLife_days: 4, ago_days: 0, dueIn_days: dueIn_days(4) }
    for (const [days, right, after] of told) {
      w = weakPointAfter(later(w, days), lesson(right)) ?? w
      expect(w.halfLife_days).toBeCloseTo(after, 6)
    }
    expect(w.dueIn_days).toBeCloseTo(1.304034, 6)
  })
  it('stays within its bounds, and is no longer for being wrong', () => {
    fc.assert(
      fc.property(fc.double({ min: 1, max: 180, noNaN: true }), fc.double({ min: 0, max: 400, noNaN: true }), (h, days) => {
        const [right, wrong] = [halfLifeAfter(h, days, true), halfLifeAfter(h, days, false)]
        expect(wrong).toBeLessThanOrEqual(Math.max(1, h))
        expect(right).toBeGreaterThanOrEqual(h - 1e-9)
        for (const x of [right, wrong]) {
          expect(x).toBeGreaterThanOrEqual(1)
          expect(x).toBeLessThanOrEqual(180)
        }
      }),
    )
  })
  it('whatever is done in one evening, and in whatever order, puts nothing off further than its first answer did', () => {
    const known = fc.record({
      halfLife_days: fc.double({ min: 1, max: 180, noNaN: true }),
      ago_days: fc.constant(0),
      dueIn_days: fc.constant(0),
    })
    fc.assert(
      fc.property(known, fc.array(fc.boolean(), { minLength: 1, maxLength: 12 }), (w, all) => {
        const begun = { ...w, dueIn_days: dueIn_days(w.halfLife_days) }
        let now: WeakPoint = begun
        for (const right of all) now = weakPointAfter(later(now, 0.001), lesson(right)) ?? now
        expect(now.halfLife_days).toBeLessThanOrEqual(begun.halfLife_days)
        expect(now.dueIn_days).toBeLessThanOrEqual(begun.dueIn_days)
      }),
    )
  })
  it('begins with a mistake, and comes again at once where somebody was sure of it', () => {
    expect(weakPointAfter(null, lesson(true))).toBeNull()
    expect(weakPointAfter(null, lesson(false, 80))?.dueIn_days).toBeCloseTo(dueIn_days(1), 9)
    expect(weakPointAfter(null, lesson(false, 90))?.dueIn_days).toBe(0)
  })
  it('is told by what a run showed: one mistake makes it wrong, and nothing is right that nobody tried', () => {
    const late = {
      attempts: [{ word: 'late' as const }, { word: 'caught-in-one' as const }],
      faults: [],
      legs: [],
      passed: false,
    }
    const told = loadLessons(late)
    expect(told.filter((l) => !l.right).map((l) => l.point)).toEqual(['late'])
    expect(told.filter((l) => l.right).map((l) => l.point)).toContain('early')
    expect(told.map((l) => l.point)).not.toContain('chased')
    expect(loadLessons({ attempts: [], faults: [], legs: [], passed: false })).toEqual([])
    const fast = loadLessons({ attempts: [], faults: [{ word: 'too-fast' }], legs: [{ greatestApart_m: 0 }], passed: true })
    expect(fast.map((l) => [l.point, l.right]).sort()).toEqual([
      ['chased', true],
      ['too-fast', false],
    ])
    // Whoever kept two hoists level has shown that too; nobody else has.
    const level = loadLessons({ attempts: [], faults: [], legs: [{ greatestApart_m: 0.05 }], passed: true })
    expect(level.map((l) => [l.point, l.right])).toContainEqual(['unlevel', true])
  })
})

const machines = demoMachines.map((id) => ({ id, tables: demoMachine(id).tables.map(demoTable) }))
const some = machines
  .map((m) => ({ ...m, only: misreadingsOf(m.tables) }))
  .filter((m): m is typeof m & { only: [Misreading, ...Misreading[]] } => m.only.length > 0)

/** What somebody reads who makes this mistake: every figure that it could be. */
function misread(item: Item, tables: (typeof some)[number]['tables'], how: Misreading): number[] {
  const table = tables.find((t) => t.id === item.table)
  const c = table?.configurations.find((x) => x.id === item.configuration)
  if (!table || !c) throw new Error('no such table')
  const off_kg = item.taken.reduce((sum, t) => sum + t.mass_kg, 0)
  const at = (of: typeof c, row: number | string, column: number | string) => {
    const { gross_kg } = ratingAt(table.axes, of, row, column, 'worse-row')
    return gross_kg === 'not-rated' ? [] : [Math.round(gross_kg - off_kg)]
  }
  switch (how) {
    case 'wrong-sheet':
      return table.configurations.filter((x) => x !== c).flatMap((x) => at(x, item.row, item.column))
    case 'wrong-row':
      return c.rows.flatMap((r) => at(c, r.at, item.column))
    case 'wrong-column':
      return c.columns.flatMap((k) => at(c, item.row, k))
    case 'headline':
      return [Math.max(...c.rows.flatMap((r) => r.ratings_kg.map((kg) => kg ?? 0))) - off_kg]
    case 'deductions':
      return at(c, item.row, item.column).map((kg) => kg + off_kg)
    case 'between-rows': {
      const rows = c.rows.map((r) => Number(r.at))
      const k = rows.findIndex((r) => r > Number(item.row))
      const [from, to] = [rows[k - 1] ?? Number.NaN, rows[k] ?? Number.NaN]
      const [one, other] = [at(c, from, item.column)[0], at(c, to, item.column)[0]]
      if (one === undefined || other === undefined) return []
      return [one + ((other - one) * (Number(item.row) - from)) / (to - from)]
    }
  }
}

describe('an item of judgement', () => {
  it('is offered for every machine whose tables can be misread', () => {
    const none = machines.filter((m) => !some.some((s) => s.id === m.id)).map((m) => m.id)
    // One sheet of names, one row of plates: there is nothing to read wrong that is not read another way too.
    expect(none).toEqual(['dipper', 'gannet', 'sandpiper'])
  })
  it('is looked for among so many cells at most, however large a table is', () => {
    const [table] = some.find((m) => m.id === 'kittiwake')?.tables ?? []
    const c = table?.configurations[0]
    if (!table || !c) throw new Error('no table')
    let looks = 0
    const ratings_kg = c.columns.map(() => 5000)
    // Every figure is one: nothing is read wrong but that nothing is taken off, and every cell would be looked at.
    const row = (i: number) => ({
      at: 3 + i / 10,
      get ratings_kg() {
        looks++
        return ratings_kg
      },
    })
    const rows = Array.from({ length: 300 }, (_, i) => row(i))
    const sheets = Array.from({ length: 40 }, (_, i) => ({ ...c, id: `s${i}`, rows }))
    expect(misreadingsOf([{ ...table, configurations: sheets }])).toEqual(['deductions'])
    // Two hundred cells, six mistakes, each reading every row, column and sheet of its own.
    expect(looks).toBeLessThan(200 * 6 * 4 * (300 + 40 + c.columns.length))
  })
  it('has one answer, the core’s own: bold, by one mistake and no other; and half have nothing wrong', () => {
    const each = Math.ceil(5000 / some.length)
    const all = some.flatMap(({ id, tables, only }, i) =>
      itemsFrom(tables, { seed: 100 + i, level: (i % 3) / 2, only }, each).map((item) => ({ id, tables, item })),
    )
    for (const { id, tables, item } of all) {
      const table = tables.find((t) => t.id === item.table)
      const c = table?.configurations.find((x) => x.id === item.configuration)
      if (!table || !c) throw new Error(`${id}: no such table`)
      const taken_kg = item.taken.reduce((sum, t) => sum + t.mass_kg, 0)
      expect(taken_kg > 0, id).toBe(isHung(table.axes))
      // As heavy as hangs on such a machine: no block of seven kilograms on a crane of five tonnes.
      const greatest_kg = Math.max(...c.rows.flatMap((r) => r.ratings_kg.map((kg) => kg ?? 0)))
      for (const { what, mass_kg } of item.taken) {
        const [least, most] = what === 'slings' ? [0.0004, 0.005] : [0.002, 0.02]
        expect(mass_kg / greatest_kg, `${id} ${what} ${mass_kg}`).toBeGreaterThan(least)
        expect(mass_kg / greatest_kg, `${id} ${what} ${mass_kg}`).toBeLessThan(most)
      }
      const { gross_kg } = ratingAt(table.axes, c, item.row, item.column, 'worse-row')
      expect(item.right_kg, id).toBe(Math.round(Number(gross_kg) - taken_kg))
      if (item.wrong === 'nothing') expect(item.said_kg).toBe(item.right_kg)
      else {
        expect(item.said_kg).toBeGreaterThan(1.019 * item.right_kg)
        const fits = misreadings.filter((m) => misread(item, tables, m).some((kg) => Math.abs(kg - item.said_kg) <= 1))
        expect(fits, `${id} ${JSON.stringify(item)}`).toEqual([item.wrong])
      }
    }
    const whole = all.filter((x) => x.item.wrong === 'nothing').length / all.length
    expect(Math.abs(whole - 0.5)).toBeLessThan(0.02)
    expect([...new Set(all.map((x) => x.item.wrong))].sort()).toEqual([...opinions].sort())
  })
  it('answered well passes; everything called one thing, or drawn by lot, scores next to nothing', () => {
    const seen = fc.tuple(fc.constantFrom(...some.map((m) => m.id)), anySeed, level)
    fc.assert(
      fc.property(seen, fc.array(fc.constantFrom(...misreadings), { minLength: 20, maxLength: 20 }), ([id, seed, level], lot) => {
        const m = some.find((x) => x.id === id)
        if (!m) throw new Error('none')
        const items = itemsFrom(m.tables, { seed, level, only: m.only }, 20)
        const sure: Sure = 100
        const marks = (of: (item: Item, i: number) => (typeof opinions)[number]) =>
          marksOf(
            items,
            items.map((item, i) => ({ wrong: of(item, i), sure })),
          )
        expect(marks((item) => item.wrong)).toMatchObject({ score: 100, passed: true, missed: 0 })
        for (const wrong of opinions) expect(marks(() => wrong)).toMatchObject({ passed: false })
        for (const wrong of opinions) expect(marks(() => wrong).score).toBeLessThanOrEqual(30)
        expect(marks((_, i) => lot[i] ?? 'nothing').score).toBeLessThanOrEqual(30)
        expect(marksOf(items, []).score).toBeLessThanOrEqual(30)
      }),
      { numRuns: 60 },
    )
    expect(surenesses.length).toBe(6)
  })
})

describe('a round of judgement', () => {
  const tern = demoMachine('tern')
  const tables = tern.tables.map(demoTable)
  const round = judgeRound.parse({
    format: 'geolabe.practice/1',
    id: '6e6ad3c6-9d43-4c0c-9d4a-0a8d3a3b5c11',
    game: 'judge',
    version: judgeVersion,
    machine: { id: tern.id, revision: tern.revision },
    tables: tables.map(({ id, revision }) => ({ id, revision })),
    seed: 3,
    level: 0.1,
    only: misreadingsOf(tables),
    answers: Array.from({ length: itemsARound }, () => ({ wrong: 'nothing', sure: 90 })),
  })
  it('is marked from its answers alone, and shows what was missed, and how sure', () => {
    const marks = markRound(tern, tables, round)
    const amiss = marks.answers.filter((a) => a.wrong !== 'nothing')
    expect(marks).toMatchObject({ missed: amiss.length, falseAlarms: 0, passed: false, right: itemsARound - amiss.length })
    const lessons = judgeLessons(marks)
    expect(lessons.filter((l) => !l.right).map((l) => l.point)).toEqual([...new Set(amiss.map((a) => a.wrong))])
    expect(lessons.filter((l) => !l.right).every((l) => l.sure === 90)).toBe(true)
    expect(lessons.find((l) => l.point === 'false-alarm')).toEqual({ point: 'false-alarm', right: true, sure: null })
  })
  it('is refused where anything that it was read from has changed, or was of another version', () => {
    const code = (more: object, of = tables) => {
      try {
        markRound(tern, of, { ...round, ...more })
      } catch (e) {
        return (e as { code: string; path: string }).code + (e as { path: string }).path
      }
      return 'kept'
    }
    expect(code({})).toBe('kept')
    expect(code({ version: 2 })).toBe('version-unknownversion')
    expect(code({ machine: { id: 'tern', revision: 99 } })).toBe('machine-changedmachine.revision')
    expect(code({ tables: [] })).toBe('machine-changedtables')
    expect(code({}, [...tables, ...machines.flatMap((m) => (m.id === 'heron' ? m.tables : []))])).toBe('machine-changedtables')
    expect(judgeRound.safeParse({ ...round, answers: round.answers.slice(1) }).success).toBe(false)
    expect(judgeRound.safeParse({ ...round, answers: round.answers.map((a) => ({ ...a, sure: 55 })) }).success).toBe(false)
  })
})
