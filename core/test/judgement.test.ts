import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { distanceToFeature, feetOf, liftsOnOutriggers, outriggersIn, type Point, usualPolicy } from '../src'
import { limitsOf } from '../src/inspection/measure'
import { calibrationOf } from '../src/judgement/calibration'
import { type Item, itemsFrom, mistakes, mistakesOn, type Opinion, opinions } from '../src/judgement/item'
import { judgeLessons } from '../src/judgement/lessons'
import { isRight, type Judged, marksOf, type Sure, surenesses } from '../src/judgement/marks'
import { partFaultsOf, partLines } from '../src/judgement/part-item'
import { itemsARound, judgeRound, judgeVersion, markRound } from '../src/judgement/round'
import { isAtFoot, type StandItem, standFaults, standFaultsOf } from '../src/judgement/stand-item'
import { type Misreading, misreadings, misreadingsOf, type TableItem } from '../src/judgement/table-item'
import { wayFaults, wayFaultsOf } from '../src/judgement/way-item'
import { windFaults, windFaultsOf } from '../src/judgement/wind-item'
import { loadLessons } from '../src/practice/lessons'
import { dueIn_days, halfLifeAfter, type WeakPoint, weakPointAfter } from '../src/practice/weak-point'
import { isHung } from '../src/rating/axes'
import { ratingAt } from '../src/rating/read'
import { demoMachine, demoMachines, demoTable } from './demo'
import { runs } from './runs'

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
      fc.property(fc.array(answer, { minLength: 1, maxLength: 200, size: 'max' }), (all) => {
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
      fc.property(known, fc.array(fc.boolean(), { minLength: 1, maxLength: 12, size: 'max' }), (w, all) => {
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

const machines = demoMachines.map((id) => {
  const machine = demoMachine(id)
  return { id, machine, tables: machine.tables.map(demoTable) }
})
const some = machines
  .map((m) => ({ ...m, only: misreadingsOf(m.tables) }))
  .filter((m): m is typeof m & { only: [Misreading, ...Misreading[]] } => m.only.length > 0)

/** What somebody reads who makes this mistake: every figure that it could be. */
function misread(item: TableItem, tables: (typeof some)[number]['tables'], how: Misreading): number[] {
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
    const all = some.flatMap(({ id, machine, tables, only }, i) =>
      itemsFrom({ machine, tables }, { seed: 100 + i, level: (i % 3) / 2, only }, each).flatMap((item) =>
        item.of === 'table' ? [{ id, tables, item }] : [],
      ),
    )
    expect(all).toHaveLength(each * some.length)
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
    expect([...new Set(all.map((x) => x.item.wrong))].sort()).toEqual(['nothing', ...misreadings].sort())
  })
  it('answered well passes; everything called one thing, or drawn by lot, scores next to nothing', () => {
    const seen = fc.tuple(fc.constantFrom(...some.map((m) => m.id)), anySeed, level)
    const lots = fc.array(fc.constantFrom(...mistakes), { minLength: 20, maxLength: 20 })
    fc.assert(
      fc.property(seen, lots, fc.nat(3), ([id, seed, level], lot, foot) => {
        const m = some.find((x) => x.id === id)
        if (!m) throw new Error('none')
        const items = itemsFrom(m, { seed, level, only: mistakesOn(m) }, 20)
        const sure: Sure = 100
        const at = (item: Item) => (item.of === 'part' ? item.plate.places[foot] : m.machine.outriggers?.[foot]?.id)
        const marks = (of: (item: Item, i: number) => Omit<Judged, 'sure'>) =>
          marksOf(
            items,
            items.map((item, i) => ({ ...of(item, i), sure })),
          )
        expect(marks(rightly)).toMatchObject({ score: 100, passed: true, missed: 0 })
        for (const wrong of opinions) expect(marks((item) => ({ wrong, at: at(item) }))).toMatchObject({ passed: false })
        for (const wrong of opinions) expect(marks((item) => ({ wrong, at: at(item) })).score).toBeLessThanOrEqual(30)
        expect(marks((item, i) => ({ wrong: lot[i] ?? 'nothing', at: at(item) })).score).toBeLessThanOrEqual(30)
        expect(marksOf(items, []).score).toBeLessThanOrEqual(30)
      }),
      { numRuns: 20 },
    )
    expect(surenesses.length).toBe(6)
  })
})

/** What somebody says who sees everything. */
const rightly = (item: Item): { wrong: Opinion; at?: string } => ({
  wrong: item.wrong,
  ...('where' in item && item.where[0] ? { at: item.where[0] } : {}),
})

describe('a stand that is judged', () => {
  const stood = machines.filter((m) => standFaultsOf(m.machine, m.tables).length > 0)
  const items = stood.flatMap((m, i) =>
    itemsFrom(
      m,
      { seed: 40 + i, level: (i % 3) / 2, only: standFaultsOf(m.machine, m.tables) },
      Math.ceil(runs(5000, 360) / stood.length),
    ).flatMap((item) => (item.of === 'stand' ? [{ ...m, item }] : [])),
  )
  /** What the set-up station would say of it, with the boom once round. */
  const judged = ({ machine, tables, item }: (typeof items)[number]) => {
    if (!liftsOnOutriggers(machine)) throw new Error('no crane')
    const c = tables.flatMap((t) => t.configurations).find((x) => x.id === item.configuration)
    const feet = feetOf(machine.outriggers, outriggersIn(item.setup.standing))
    const out = (f: { id: string; x_m: number; y_m: number }) => {
      const asked = c?.appliesTo.standing?.footprint.find((x) => x.id === f.id)
      return asked !== undefined && [f.x_m / asked.x_m, f.y_m / asked.y_m].every((share) => share > 1 - 1e-6)
    }
    return { feet, short: feet.filter((f) => !out(f)).map((f) => f.id), tail_m: machine.upper.tailSwingRadius_m }
  }
  it('is offered for every machine that stands on outriggers by a sheet of its own, and for no other', () => {
    expect(stood.map((m) => m.id)).toEqual(['curlew', 'heron', 'petrel', 'plover', 'rush', 'sedge', 'tern', 'turnstone', 'wren'])
    for (const m of stood)
      expect(
        new Set(itemsFrom(m, { seed: 1, level: 0.3, only: standFaultsOf(m.machine, m.tables) }, 120).map((x) => x.wrong)),
        m.id,
      ).toEqual(new Set(['nothing', ...standFaultsOf(m.machine, m.tables)]))
    expect(new Set(stood.flatMap((m) => standFaultsOf(m.machine, m.tables)))).toEqual(new Set(standFaults))
  })
  it('has one thing wrong with it or none, seen by geometry alone, and by no other', () => {
    const whole = items.filter((x) => x.item.wrong === 'nothing').length / items.length
    expect(Math.abs(whole - 0.5)).toBeLessThan(Math.max(0.02, 1.3 / Math.sqrt(items.length)))
    for (const x of items) {
      const { item } = x
      const { feet, short, tail_m } = judged(x)
      const half = (item.place.mats[0]?.length_m ?? 0) / 2
      const [edge, cover, stack] = ['trench', 'cover', 'stack'].map((id) => item.place.features.find((f) => f.id === id))
      if (!edge || !cover) throw new Error('nothing drawn')
      const corners = (f: Point) => [-1, 1].flatMap((i) => [-1, 1].map((j) => ({ x_m: f.x_m + i * half, y_m: f.y_m + j * half })))
      const needed_m = (edge.drop_m ?? 0) * (edge.soil === 'firm' ? 1 : 2)
      const gapOf = (f: Point) => Math.min(...corners(f).map((p) => distanceToFeature(edge, p)))
      const near = feet.filter(
        (f) => gapOf(f) < needed_m || (gapOf(f) < 2 * (edge.drop_m ?? 0) && (item.feet_N[f.id] ?? 0) > 300_000),
      )
      const [[left, low], , [right, high]] = cover.geometry.points as [[number, number], unknown, [number, number]]
      const over = feet.filter((f) => f.x_m + half > left && f.x_m - half < right && f.y_m + half > low && f.y_m - half < high)
      const weak = outriggersIn(item.setup.standing).filter(
        (o) => (item.feet_N[o.id] ?? 0) / (2 * half) ** 2 > 1000 * (o.ground?.allowable_kPa ?? 0),
      )
      const tilt = Math.hypot(Number(item.setup.level.pitch_deg), Number(item.setup.level.roll_deg))
      const noRoom = stack !== undefined && distanceToFeature(stack, { x_m: 0, y_m: 0 }) - tail_m < 0.5
      const seen = {
        'leg-short': short,
        'over-cover': over.map((f) => f.id),
        'near-edge': near.map((f) => f.id),
        'weak-ground': weak.map((f) => f.id),
        'tail-room': noRoom ? ['tail'] : [],
        'out-of-level': tilt > item.level_deg ? ['level'] : [],
      }
      const wrong = standFaults.filter((f) => seen[f].length > 0)
      expect(wrong, `${x.id} ${JSON.stringify(item)}`).toEqual(item.wrong === 'nothing' ? [] : [item.wrong])
      if (isAtFoot(item.wrong))
        expect([...item.where].sort()).toEqual([...seen[item.wrong as StandItem['wrong'] & 'leg-short']].sort())
      else expect(item.where).toEqual([])
    }
  })
  it('is right only there: said of another foot it is missed and a false alarm, so that naming every foot does not pay', () => {
    const footed = items.find((x) => x.item.where.length === 1)
    const level = items.find((x) => x.item.wrong === 'out-of-level')
    const whole = items.find((x) => x.item.wrong === 'nothing')
    if (!footed || !level || !whole) throw new Error('none')
    const { wrong, where } = footed.item
    const other = judged(footed).feet.find((f) => !where.includes(f.id))?.id
    const said = (at: string | undefined, as: Opinion = wrong): Judged => ({ wrong: as, at, sure: 90 })
    const marks = (item: Item, a: Judged) => marksOf([item], [a])
    expect([
      isRight(footed.item, said(where[0])),
      isRight(footed.item, said(other)),
      isRight(footed.item, said(undefined)),
    ]).toEqual([true, false, false])
    expect(marks(footed.item, said(other))).toMatchObject({ missed: 1, falseAlarms: 1, misnamed: 0, right: 0 })
    const elseName = standFaults.find((f) => isAtFoot(f) && f !== wrong)
    expect(marks(footed.item, said(where[0], elseName))).toMatchObject({ missed: 0, falseAlarms: 0, misnamed: 1 })
    expect(marks(footed.item, said(undefined, 'out-of-level'))).toMatchObject({ missed: 1, falseAlarms: 1 })
    expect(marks(level.item, said(other, 'near-edge'))).toMatchObject({ missed: 1, falseAlarms: 1 })
    expect(marks(whole.item, said(other, 'near-edge'))).toMatchObject({ missed: 0, falseAlarms: 1 })
  })
  it('is the same for a seed on every device, and nearer to its limit the harder it is', () => {
    const tern = stood.find((m) => m.id === 'tern')
    if (!tern) throw new Error('none')
    const drawn = (level: number, seed = 9) => itemsFrom(tern, { seed, level, only: ['out-of-level'] }, 40)
    expect(JSON.stringify(drawn(0.4))).toBe(JSON.stringify(drawn(0.4)))
    const overs = (level: number) =>
      drawn(level).flatMap((x) =>
        x.of === 'stand' && x.wrong !== 'nothing'
          ? [Math.hypot(Number(x.setup.level.pitch_deg), Number(x.setup.level.roll_deg)) / x.level_deg]
          : [],
      )
    expect(Math.max(...overs(1))).toBeLessThan(1.5)
    expect(Math.max(...overs(0))).toBeGreaterThan(2)
    for (const over of [...overs(0), ...overs(1)]) expect(over).toBeGreaterThan(1.24)
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
    parts: partLines(tern),
    seed: 3,
    level: 0.1,
    only: mistakesOn({ machine: tern, tables }),
    answers: Array.from({ length: itemsARound }, () => ({ wrong: 'nothing', sure: 90 })),
  })
  it('is marked from its answers alone, and shows what was missed, and how sure', () => {
    const marks = markRound({ machine: tern, tables }, round)
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
        markRound({ machine: tern, tables: of }, { ...round, ...more })
      } catch (e) {
        return (e as { code: string; path: string }).code + (e as { path: string }).path
      }
      return 'kept'
    }
    expect(code({})).toBe('kept')
    expect(code({ version: 2 })).toBe('version-unknownversion')
    expect(code({ machine: { id: 'tern', revision: 99 } })).toBe('machine-changedmachine.revision')
    expect(code({ parts: [] })).toBe('machine-changedparts')
    expect(code({ tables: [] })).toBe('machine-changedtables')
    expect(code({}, [...tables, ...machines.flatMap((m) => (m.id === 'heron' ? m.tables : []))])).toBe('machine-changedtables')
    expect(judgeRound.safeParse({ ...round, answers: round.answers.slice(1) }).success).toBe(false)
    expect(judgeRound.safeParse({ ...round, answers: round.answers.map((a) => ({ ...a, sure: 55 })) }).success).toBe(false)
  })
})

describe('a way that is judged', () => {
  const trucks = machines.filter((m) => wayFaultsOf(m.machine).length > 0)
  const items = trucks.flatMap((m, i) => {
    const only = wayFaultsOf(m.machine)
    return itemsFrom(m, { seed: 70 + i, level: (i % 3) / 2, only }, Math.ceil(runs(5000, 400) / trucks.length)).flatMap((item) =>
      item.of === 'way' ? [{ ...m, item }] : [],
    )
  })
  it('is offered for every truck whose file says how it drives', () => {
    expect(trucks.map((m) => m.id)).toEqual(['avocet', 'bittern', 'dunlin', 'godwit', 'puffin', 'sandpiper', 'whimbrel'])
    for (const m of trucks) {
      const only = wayFaultsOf(m.machine)
      expect(new Set(itemsFrom(m, { seed: 1, level: 0.3, only }, 120).map((x) => x.wrong)), m.id).toEqual(
        new Set(['nothing', ...only]),
      )
    }
    expect(new Set(trucks.flatMap((m) => wayFaultsOf(m.machine)))).toEqual(new Set(wayFaults))
  })
  it('has one thing wrong with it or none, by figures alone, and half have nothing', () => {
    const whole = items.filter((x) => x.item.wrong === 'nothing').length / items.length
    expect(Math.abs(whole - 0.5)).toBeLessThan(Math.max(0.02, 1.3 / Math.sqrt(items.length)))
    for (const { id, machine, item } of items) {
      const { truck } = machine
      if (!truck?.chassis || !truck.driving) throw new Error('no truck')
      const { chassis, driving } = truck
      const { part, load } = item
      const { trucks: site } = usualPolicy
      const wide_m = Math.max(chassis.width_m, load.width_m)
      const drawn_m = Math.max(...machine.outline.side.flatMap((p) => p.points.map(([, z]) => z)))
      const high_m = Math.max(
        chassis.mastLow_m ?? drawn_m,
        item.height_m + load.height_m,
        item.height_m + (chassis.guardAbove_m ?? 0),
      )
      const seen = {
        'forks-raised': item.height_m > site.travelFork_m,
        'too-steep': Math.abs(part.grade_pct) > chassis.grades.along_pct,
        'across-slope': Math.abs(part.cross_pct) > chassis.grades.cross_pct,
        'too-low': part.height_m !== null && part.height_m - high_m < site.headGap_m,
      }
      for (const [fault, is] of Object.entries(seen))
        expect(item.wrong === fault, `${id} ${fault} ${JSON.stringify(item)}`).toBe(is)
      // In a bend the tail needs more than the load is wide.
      if (part.kind !== 'turn') expect(item.wrong === 'too-narrow', id).toBe((part.width_m ?? 0) - wide_m < 2 * site.sideGap_m)
      else if (item.wrong !== 'too-narrow') expect(part.width_m ?? 0, id).toBeGreaterThan(wide_m + 2 * site.sideGap_m)
      // Loads are driven uphill, and nothing faster than it goes.
      expect(item.facing, id).toBe(part.grade_pct < 0 ? 'load-last' : 'load-first')
      expect(item.speed_mps, id).toBeLessThanOrEqual(driving.travel.greatest)
      expect(item.findings.length > 0, id).toBe(item.wrong !== 'nothing')
      if (item.wrong === 'slippery') expect(part.surface, id).not.toBe('dry')
      if (item.wrong === 'turned-fast') expect(item.speed_mps ** 2 / (part.radius_m ?? 0), id).toBeGreaterThan(0.5)
    }
  })
})

describe('wind that is judged', () => {
  const cranes = machines.filter((m) => windFaultsOf(m.machine, m.tables).length > 0)
  const items = cranes.flatMap((m, i) => {
    const only = windFaultsOf(m.machine, m.tables)
    return itemsFrom(m, { seed: 90 + i, level: (i % 3) / 2, only }, Math.ceil(5000 / cranes.length)).flatMap((item) =>
      item.of === 'wind' ? [{ ...m, item }] : [],
    )
  })
  it('is offered for every crane whose table says what wind it allows; height only where a tip stands high', () => {
    expect(cranes.map((m) => m.id)).toEqual([
      'cormorant',
      'curlew',
      'heron',
      'kittiwake',
      'petrel',
      'plover',
      'rush',
      'sedge',
      'tern',
      'turnstone',
      'wren',
    ])
    for (const m of cranes) {
      const only = windFaultsOf(m.machine, m.tables)
      expect(new Set(itemsFrom(m, { seed: 1, level: 0.3, only }, 120).map((x) => x.wrong)), m.id).toEqual(
        new Set(['nothing', ...only]),
      )
    }
    const high = cranes.filter((m) => windFaultsOf(m.machine, m.tables).includes('height-left-out')).map((m) => m.id)
    expect(high).toEqual(expect.arrayContaining(['cormorant', 'kittiwake', 'tern']))
    expect(high).not.toContain('wren')
  })
  it('looks as if it might be lifted: with one thing left out it may not be, and that one alone comes to what was said', () => {
    const whole = items.filter((x) => x.item.wrong === 'nothing').length / items.length
    expect(Math.abs(whole - 0.5)).toBeLessThan(0.02)
    for (const { id, tables, item } of items) {
      const { load, chart, mean_mps, height_m, said, right } = item
      expect(chart, id).toEqual(tables.find((t) => t.id === item.table)?.wind)
      const area_m2 = load.dragCoefficient * load.width_m * load.height_m
      const counted_m2 = (chart.referenceArea_m2_per_t * load.mass_kg) / 1000
      const limit = chart.limit_mps * Math.min(1, Math.sqrt(counted_m2 / area_m2))
      const gust = mean_mps * ((Math.max(10, height_m) / 10) ** 0.14 + 0.4)
      expect(right.limit_mps, id).toBeCloseTo(limit, 1)
      expect(right.gust_mps, id).toBeCloseTo(gust, 1)
      expect(said.gust_mps, id).toBeLessThanOrEqual(said.limit_mps)
      const by = {
        'sail-left-out': [gust, chart.limit_mps],
        'mean-for-gusts': [mean_mps, limit],
        'height-left-out': [1.4 * mean_mps, limit],
      } as const
      if (item.wrong === 'nothing') {
        expect(said, id).toEqual(right)
        continue
      }
      expect(right.gust_mps, id).toBeGreaterThan(right.limit_mps)
      const fits = windFaults.filter(
        (f) => Math.abs(by[f][0] - said.gust_mps) <= 0.051 && Math.abs(by[f][1] - said.limit_mps) <= 0.051,
      )
      expect(fits, `${id} ${JSON.stringify(item)}`).toEqual([item.wrong])
    }
  })
})

describe('parts of a walk-round that are judged', () => {
  const walked = machines.filter((m) => partFaultsOf(m.machine).length > 0)
  const items = walked.flatMap((m, i) => {
    const only = partFaultsOf(m.machine)
    return itemsFrom(m, { seed: 400 + i, level: (i % 3) / 2, only }, Math.ceil(5000 / walked.length)).flatMap((item) =>
      item.of === 'part' ? [{ ...m, item }] : [],
    )
  })
  it('is offered for every machine whose walk-round has a fork, a chain, a wheel, a hook, a rope, a leg or pins', () => {
    const without = machines.filter((m) => !walked.includes(m)).map((m) => m.id)
    expect(without).toEqual(['rush', 'sedge'])
    for (const m of walked) {
      const only = partFaultsOf(m.machine)
      expect(new Set(itemsFrom(m, { seed: 2, level: 0.4, only }, 160).map((x) => x.wrong)), m.id).toEqual(
        new Set(['nothing', ...only]),
      )
    }
  })
  it('half of them are in order, and each is an item of that machine’s own walk-round with its own limit', () => {
    expect(items.length).toBeGreaterThanOrEqual(5000)
    const whole = items.filter((x) => x.item.wrong === 'nothing').length / items.length
    expect(Math.abs(whole - 0.5)).toBeLessThan(0.02)
    for (const { id, machine, item } of items) {
      const own = machine.walkround.zones.flatMap((z) => z.items).find((x) => x.id === item.item)
      expect(own?.label, id).toBe(item.label)
      if (item.read) expect(own?.measure, id).toEqual(item.read.measure)
      if (item.read) expect(item.plate.places, id).toContain(item.read.at)
    }
  })
  it('one thing is wrong with it, and the reading says so by the limit alone: a tenth of a heel, three hundredths of a chain', () => {
    for (const { id, item } of items) {
      const at = `${id} ${JSON.stringify(item)}`
      const { read, seen, wrong, where } = item
      // What share of its limit is used, by figures alone.
      const { least, most } = read ? limitsOf(read.measure) : { least: null, most: null }
      const over = read
        ? (most !== null && read.reading >= most - 1e-9) || (least !== null && read.reading <= least + 1e-9)
        : false
      expect(over, at).toBe(wrong === 'part-worn')
      expect(seen === null, at).toBe(wrong === 'nothing' || wrong === 'part-near' || wrong === 'part-worn')
      if (seen) expect([seen.fault, [seen.at]], at).toEqual([wrong, where])
      if (wrong === 'nothing') expect(where, at).toEqual([])
      if (wrong === 'part-near' || wrong === 'part-worn') expect(where, at).toEqual([read?.at])
      if (read?.measure.wear === 'fork-heel' && !read.measure.makerLimit) {
        const gone = 1 - read.reading / (read.measure.nominal ?? 0)
        expect(gone >= 0.1 - 1e-9, at).toBe(wrong === 'part-worn')
        expect(gone >= 0.07 - 1e-9 && gone < 0.1 - 1e-9, at).toBe(wrong === 'part-near')
      }
    }
  })
  it('the right place is asked for: the right word for another place is missed and a false alarm', () => {
    const of = items.find((x) => x.item.wrong === 'part-missing' && x.item.plate.places.length > 2)
    if (!of) throw new Error('nothing is missing anywhere')
    const { item } = of
    const elsewhere = item.plate.places.find((p) => !item.where.includes(p))
    const said = (at: string | undefined) => marksOf([item], [{ wrong: item.wrong, at, sure: 90 }])
    expect(said(item.where[0])).toMatchObject({ missed: 0, falseAlarms: 0, right: 1 })
    expect(said(elsewhere)).toMatchObject({ missed: 1, falseAlarms: 1, right: 0 })
    expect(said(undefined)).toMatchObject({ missed: 1, right: 0 })
  })
})
