import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { z } from 'zod'
import {
  assess,
  calculatorNamed,
  checks,
  g_mps2,
  hoursPerDay,
  isClosed,
  isRefusal,
  judge,
  levelling,
  limitsOf,
  mapOfCase,
  modelOf,
  oddCells,
  outriggersIn,
  parseOrRefuse,
  plateFault,
  queryReading,
  Refusal,
  ratingTable,
  type Walkround,
  walkroundTemplate,
  wearKinds,
  wearRules,
  wearsTowards,
  withBounds,
  writtenOut,
} from '../src'
import { tiltOf } from '../src/levelling/levelling'
import { measuredPositive } from '../src/quantity/measured'
import { legForces } from '../src/rigging/sling-tension'
import { rootBetween } from '../src/search'
import { demoMachine, demoMachines, demoTable, northQuay, openField, tern, ternLift, ternSetup, ternTable } from './demo'

// Where a limit, a list or a search ends: what random changes to the core were not noticed by.
const run = (name: string, input: unknown) => calculatorNamed(name)?.run(input) as Record<string, never>
const refusalOf = (work: () => unknown) => {
  try {
    work()
  } catch (e) {
    if (e instanceof Refusal) return e
    throw e
  }
  throw new Error('not refused')
}
const unit = fc.double({ min: -1, max: 1, noNaN: true })

describe('the forces of three legs', () => {
  it('add up to the weight and lie along the legs; a hook that two legs cannot hold is none', () => {
    const corner = fc.record({ r: fc.double({ min: 0.5, max: 3, noNaN: true }), turn: unit })
    fc.assert(
      fc.property(
        fc.array(corner, { minLength: 3, maxLength: 3 }),
        fc.double({ min: 2, max: 6, noNaN: true }),
        (corners, z_m) => {
          const lifts = corners.map(({ r, turn }, i) => {
            const a = ((i * 120 + 25 * turn) * Math.PI) / 180
            return { x_m: r * Math.cos(a), y_m: r * Math.sin(a), z_m: 0 }
          })
          const hook = { x_m: 0.1, y_m: -0.1, z_m }
          const t = legForces(hook, lifts, 9000)
          if (!t) throw new Error('the hook stands inside the triangle')
          const sum = [0, 0, 0]
          lifts.forEach((l, i) => {
            const d = [hook.x_m - l.x_m, hook.y_m - l.y_m, hook.z_m - l.z_m]
            const length = Math.hypot(...d)
            for (const k of [0, 1, 2]) sum[k] = (sum[k] as number) + ((t[i] as number) * (d[k] as number)) / length
          })
          expect(sum[0]).toBeCloseTo(0, 5)
          expect(sum[1]).toBeCloseTo(0, 5)
          expect(sum[2]).toBeCloseTo(9000, 5)
          for (const f of t) expect(f).toBeGreaterThanOrEqual(0)
        },
      ),
    )
    const two = [
      { x_m: -1, y_m: 0, z_m: 0 },
      { x_m: 1, y_m: 0, z_m: 0 },
    ]
    const along = legForces({ x_m: 0, y_m: 0, z_m: 2 }, two, 1000)
    expect(along?.[0]).toBeCloseTo((1000 / 2) * (Math.hypot(1, 2) / 2), 9)
    expect(legForces({ x_m: 0, y_m: 0.3, z_m: 2 }, two, 1000)).toBeNull()
    expect(legForces({ x_m: 0, y_m: 1e-3, z_m: 2 }, two, 1000)).toBeNull()
    // Outside the triangle one leg would have to push.
    const three = [...two, { x_m: 0, y_m: 2, z_m: 0 }]
    expect(legForces({ x_m: 0, y_m: -0.2, z_m: 2 }, three, 1000)).toBeNull()
    // Two legs at one point are none of their own.
    expect(legForces({ x_m: 0, y_m: 0, z_m: 2 }, [...two, { x_m: 1, y_m: 0, z_m: 0 }], 1000)).toBeNull()
  })
})

describe('bounds', () => {
  it('keep each row with its own, in whatever order an answer lists them', () => {
    // Two rows change places with the input; each one's word stands at its own worst, not at its neighbour's.
    const verdictOf = (v: number) => (v > 10 ? 'outside' : v > 8 ? 'near' : 'inside')
    const compute = (x: unknown) => {
      const { a_m } = x as { a_m: number }
      const rows = [
        { id: 'rising', use: a_m },
        { id: 'falling', use: 12 - a_m },
        { id: 'still', use: 1 },
      ].map((r) => ({ ...r, verdict: verdictOf(r.use) }))
      return { rows: rows.sort((p, q) => q.use - p.use) }
    }
    const worse = {
      rows: { rows: 'id' },
      'rows.*.id': 'given',
      'rows.*.use': 'high',
      'rows.*.verdict': { words: ['inside', 'near', 'outside'] },
    } as const
    for (const value of [5, 7]) {
      const b = withBounds({ a_m: { value, tolerance: 2 } }, compute, { worse }) as unknown as Record<
        'low' | 'high' | 'rows',
        { id: string; use: number; verdict: string }[]
      > & { low: { rows: { id: string; use: number }[] }; high: { rows: { id: string; use: number }[] } }
      const row = (list: readonly { id: string }[], id: string) =>
        list.find((r) => r.id === id) as never as { use: number; verdict: string }
      expect(row(b.rows, 'rising')).toEqual({ id: 'rising', use: value, verdict: verdictOf(value + 2) })
      expect(row(b.rows, 'falling')).toEqual({ id: 'falling', use: 12 - value, verdict: verdictOf(14 - value) })
      expect(row(b.rows, 'still')).toEqual({ id: 'still', use: 1, verdict: 'inside' })
      expect([row(b.low.rows, 'rising').use, row(b.high.rows, 'rising').use]).toEqual([value - 2, value + 2])
      expect([row(b.low.rows, 'falling').use, row(b.high.rows, 'falling').use]).toEqual([10 - value, 14 - value])
    }
  })
  it('find a hill that stands askew to every input, wherever its top is', () => {
    fc.assert(
      fc.property(unit, unit, unit, fc.double({ min: -0.4, max: 0.4, noNaN: true }), (p, q, r, skew) => {
        const top = { a: 3 * p, b: 3 * q, c: 3 * r }
        const hill = ({ a, b, c }: { a: number; b: number; c: number }) => {
          const [x, y, z] = [a - top.a, b - top.b, c - top.c]
          return { y: 7 - (x * x + y * y + z * z + 2 * skew * (x * y + y * z)) }
        }
        const wide = { value: 0.3, tolerance: 4 }
        const b = withBounds({ a: wide, b: wide, c: wide }, (x) => hill(x as never), { worse: { y: 'either' } }) as unknown as {
          low: { y: number }
          high: { y: number }
        }
        expect(b.high.y).toBeGreaterThan(7 - 0.02)
        expect(b.high.y).toBeLessThanOrEqual(7 + 1e-9)
        const ends = [-3.7, 4.3]
        const least = Math.min(...ends.flatMap((x) => ends.flatMap((y) => ends.map((z) => hill({ a: x, b: y, c: z }).y))))
        expect(b.low.y).toBeCloseTo(least, 9)
      }),
      { numRuns: 40 },
    )
  })
})

describe('what is refused', () => {
  it('a figure that its ± brings to nothing is not more than nothing', () => {
    expect(measuredPositive.safeParse({ value: 1, tolerance: 1 }).success).toBe(false)
    expect(measuredPositive.safeParse({ value: 1, tolerance: 0.999 }).success).toBe(true)
  })
  it('of several shapes the one that came nearest is named', () => {
    const point = z.strictObject({ kind: z.literal('point'), at: z.strictObject({ x_m: z.number(), y_m: z.number() }) })
    const shape = z.union([z.number(), z.strictObject({ kind: z.literal('none') }), point, z.string()])
    const e = refusalOf(() => parseOrRefuse(z.strictObject({ shape }), { shape: { kind: 'point', at: { x_m: 1, y_m: 'far' } } }))
    expect(e.body.error.path).toBe('shape.at.y_m')
  })
  it('a mass that was not given reads otherwise than one given twice', () => {
    const box = { shape: 'box', length_m: 1, width_m: 1, height_m: 1, at: { x_m: 0, y_m: 0, z_m: 0 } }
    const of = (part: object) => run('load-mass', { parts: [part] }) as unknown as { error: { code: string; path: string } }
    expect(of(box).error).toMatchObject({ code: 'missing-field', path: 'parts.0.material' })
    expect(of({ ...box, material: 'steel', mass_kg: 3 }).error).toMatchObject({ code: 'one-of-three', path: 'parts.0.mass_kg' })
  })
  it('a jack at either of its ends stands inside them; a hair beyond it does not', () => {
    const with_ = (stroke_m: number) =>
      levelling({
        supports: [
          { id: 'A', x_m: 2, y_m: 2, stroke_m, min_m: 0.1, max_m: 0.5 },
          { id: 'B', x_m: 2, y_m: -2, stroke_m: 0.3, min_m: 0.1, max_m: 0.5 },
          { id: 'C', x_m: -2, y_m: -2, stroke_m: 0.3, min_m: 0.1, max_m: 0.5 },
          { id: 'D', x_m: -2, y_m: 2, stroke_m: 0.3, min_m: 0.1, max_m: 0.5 },
        ],
        pitch_deg: 0,
        roll_deg: 0,
        strategy: 'least-movement',
      })
    for (const end of [0.1, 0.5]) expect(with_(end)).toBeTruthy()
    for (const end of [0.1 - 1e-9, 0.5 + 1e-9]) {
      expect(refusalOf(() => with_(end)).body.error).toMatchObject({ code: 'stroke-outside', path: 'supports.0.stroke_m' })
    }
  })
  it('a reeving or a setting that is not there is answered with those that are', () => {
    const plan = {
      machine: tern,
      tables: [ternTable],
      lift: ternLift(),
      conditions: { wind_mps: 4 },
      place: openField,
      policy: northQuay.policy,
    }
    const reeving = refusalOf(() => assess({ ...plan, setup: ternSetup({ partsOfLine: 3 }) }))
    expect(reeving.body.error).toMatchObject({ code: 'unknown-reeving', path: 'setup.fitted.partsOfLine' })
    expect(reeving.message).toContain('2, 4, 8')
    const heavy = refusalOf(() => assess({ ...plan, setup: ternSetup({ counterweight: 'none' }), lift: ternLift() }))
    expect(heavy.body.error).toMatchObject({ code: 'unknown-counterweight', path: 'setup.fitted.counterweight' })
    for (const c of tern.upper.counterweights) expect(heavy.message).toContain(c.id)
    const chart = run('stage-rating', { ...calculatorNamed('stage-rating')?.example, configuration: 'nowhere' })
    if (!isRefusal(chart)) throw new Error('read a setting that is not there')
    const example = calculatorNamed('stage-rating')?.example as { table: { configurations: { id: string }[] } }
    for (const c of example.table.configurations) expect(chart.error.message).toContain(c.id)
  })
  it('a reading that no part can give, whatever it is judged by', () => {
    const source = 'Made up.'
    const measures = [
      { kind: 'wear', wear: 'fork-heel', nominal: 50 },
      { kind: 'range', label: 'Pressure', unit: 'kPa', least: 700, most: 900, source },
      { kind: 'loss', label: 'Lining', unit: 'mm', nominal: 10, limit_share: 0.5, watch_share: 0.4, source },
    ] as unknown as Parameters<typeof judge>[0][]
    for (const m of measures) {
      for (const reading of [-1, -1e-9, Number.NaN, Number.POSITIVE_INFINITY]) {
        expect(refusalOf(() => judge(m, reading)).body.error, `${m.kind} ${reading}`).toMatchObject({
          code: 'implausible',
          path: 'reading',
        })
      }
    }
    const range = measures[1] as (typeof measures)[number]
    expect(judge(range, 0).verdict).toBe('discard')
    expect([judge(range, 700), judge(range, 900)].map((j) => j.verdict)).toEqual(['ok', 'ok'])
    expect([judge(range, 699.9), judge(range, 900.1)].map((j) => [j.verdict, j.limit])).toEqual([
      ['discard', 700],
      ['discard', 900],
    ])
    expect(judge(range, 900 + 5 * 200).verdict).toBe('discard')
    refusalOf(() => judge(range, 900 + 5 * 200 + 1))
  })
})

describe('a table against physics', () => {
  it('has no limit where nothing can tip, and no finding about it', () => {
    const c = ternTable.configurations.find((x) => x.id === 'full-heavy')
    if (!c) throw new Error('no such configuration')
    const near = { ...c, rows: [{ at: 2.4, ratings_kg: c.columns.map((_, i) => (i === 0 ? 30_000 : null)) }] }
    const { limits, findings } = oddCells(modelOf(tern), { ...ternTable, configurations: [near] })
    expect(limits[0]?.kg[0]?.[0]).toBeNull()
    expect(findings.filter((f) => f.kind === 'above-physics' && f.column === 0)).toEqual([])
  })
})

describe('checks', () => {
  it('each offers only changes that it names, and what it offers is looked for', () => {
    const names = new Set(checks.flatMap((c) => c.remedies))
    expect(names.size).toBeGreaterThan(10)
    expect(new Set(checks.map((c) => c.id)).size).toBe(checks.length)
  })
  it('line and hook: the lead line’s force over parts and sheaves, and the block’s own mark', () => {
    for (const { parts, block } of tern.hoist.reevings) {
      const { linePull_N, sheaveEfficiency: e, leadSheaves } = tern.hoist
      const a = assess({
        machine: tern,
        tables: [ternTable],
        setup: ternSetup({ partsOfLine: parts }),
        lift: ternLift(),
        conditions: { wind_mps: 4 },
        place: openField,
        policy: northQuay.policy,
      })
      let sum = 0
      for (let i = 0; i < parts; i++) sum += e ** i
      expect(a.findings.find((f) => f.check === 'hoist-rope')?.limit).toBeCloseTo(
        (linePull_N * e ** leadSheaves * sum) / g_mps2,
        6,
      )
      expect(a.findings.find((f) => f.check === 'hook')?.limit).toBe(block.hook_kg)
    }
  })
})

describe('what wears', () => {
  it('goes one way, by its rule, and beyond its limit only that way', () => {
    const source = 'Made up.'
    const change = { label: 'Lining', unit: 'mm', nominal: 10, limit_share: 0.4, watch_share: 0.3, source }
    expect(wearsTowards({ kind: 'loss', ...change })).toBe('down')
    expect(wearsTowards({ kind: 'growth', ...change })).toBe('up')
    expect(wearsTowards({ kind: 'range', label: 'Oil', unit: 'kPa', least: 1, most: 2, source })).toBe('either')
    for (const wear of wearKinds) {
      const rule = wearRules[wear]
      const m = { kind: 'wear', wear, nominal: 20, makerLimit: 3 } as const
      const towards = wearsTowards(m)
      const { least, most } = limitsOf(m)
      // A part that only wears down has no upper limit, one that only grows no lower one.
      expect([least === null, most === null], wear).toEqual([towards === 'up', towards === 'down'])
      if (rule.by === 'maker') expect(towards).toBe(rule.direction === 'least' ? 'down' : 'up')
    }
  })
  it('is asked about when more than half of what was left went at once, and not at the limit itself', () => {
    const m = { kind: 'loss', label: 'Lining', unit: 'mm', nominal: 10, limit_share: 0.4, watch_share: 0.3, source: 'x' } as const
    const from = fc.double({ min: 6.2, max: 10, noNaN: true })
    fc.assert(
      fc.property(from, fc.double({ min: 0, max: 1.2, noNaN: true }), (value, share) => {
        const left = value - 6
        const reading = value - share * left
        fc.pre(Math.abs(share - 0.5) > 1e-6 && Math.abs(share * left - 0.01 * value) > 1e-6)
        const asked = queryReading(m, reading, { at: '2026-03-02', value })
        // What two careful readings may differ by is never asked about.
        if (share > 0.5 && share * left > 0.01 * value) expect(asked).toMatch(/more than half of what was left/)
        else expect(asked).toBeNull()
      }),
    )
    expect(queryReading(m, 5.9, { at: '2026-03-02', value: 6 })).toBeNull()
    expect(queryReading(m, 4, { at: '2026-03-02', value: 6 })).toBeNull()
  })
})

describe('lists', () => {
  it('what is said besides of a piece is said at its first item, and only where there is something to say', () => {
    const pieces = [
      {
        id: 'hose',
        label: 'Hose',
        items: [
          { id: 'skin', label: 'Skin', look: 'Whole, dry.' },
          { id: 'ends', label: 'Ends', look: 'Tight.' },
        ],
      },
    ]
    const zone = {
      id: 'front',
      label: 'Front',
      items: [{ piece: 'hose', id: 'left-hose', label: 'Left hose', also: 'clear of the wheel' }],
    }
    const bare = { ...zone, id: 'rear', items: [{ piece: 'hose', id: 'right-hose', label: 'Right hose' }] }
    const { items: _, ...head } = demoMachine('tern').walkround.zones[0] as Walkround['zones'][number]
    const template = walkroundTemplate.parse({
      format: 'geolabe.walkround/1',
      machine: 'x',
      revision: 1,
      before: [],
      zones: [zone, bare].map((z) => ({ ...head, ...z })),
    })
    const made = writtenOut(template, pieces)
    expect(made.zones.flatMap((z) => z.items.map((i) => [i.id, i.look]))).toEqual([
      ['left-hose', 'Whole, dry.; clear of the wheel'],
      ['left-hose-ends', 'Tight.'],
      ['right-hose', 'Whole, dry.'],
      ['right-hose-ends', 'Tight.'],
    ])
  })
  it('a defect is closed when the machine was returned or it was accepted, and at no other time', () => {
    const states = ['open', 'repaired', 'verified', 'returned', 'accepted', 'watched'] as const
    expect(states.filter((s) => isClosed(s as never))).toEqual(['returned', 'accepted'])
  })
  it('rows of a table rise from each to the next', () => {
    const table = (radii: number[]) => {
      const c = ternTable.configurations[0] as (typeof ternTable.configurations)[number]
      const rows = radii.map((at) => ({ at, ratings_kg: c.columns.map(() => 1000) }))
      return ratingTable.safeParse({ ...ternTable, configurations: [{ ...c, rows }] })
    }
    expect(table([3, 4, 5]).success).toBe(true)
    for (const radii of [
      [3, 5, 4],
      [3, 3, 4],
    ]) {
      const wrong = table(radii)
      expect(wrong.success).toBe(false)
      expect(wrong.error?.issues[0]?.path.slice(0, 3)).toEqual(['configurations', 0, 'rows'])
    }
  })
})

describe('limits of their own', () => {
  it('a folding boom gives only the elbows that its angles allow, and refuses where none is left', () => {
    const arm = (min_deg: number, max_deg: number) => ({
      inner: { length_m: 5, min_deg: -180, max_deg: 180 },
      outer: { length_m: 4, extension_m: 1, min_deg, max_deg },
      pivot: { back_m: 0.5, height_m: 2 },
      tip: { radius_m: 5, height_m: 5 },
    })
    const folds = (min: number, max: number) =>
      (run('articulated-geometry', arm(min, max)) as unknown as { poses?: { fold_deg: number }[] }).poses?.map((p) => p.fold_deg)
    const both = folds(-180, 180) as number[]
    expect(both).toHaveLength(2)
    const [down, up] = [...both].sort((a, b) => a - b) as [number, number]
    expect(down).toBeCloseTo(-up, 9)
    expect(folds(0, 180)).toEqual([up])
    expect(folds(-180, 0)).toEqual([down])
    expect(folds(up, 180)).toEqual([up])
    expect(run('articulated-geometry', arm(-1, 1))).toMatchObject({ error: { code: 'outside-angles', path: 'tip' } })
  })
  it('a battery at either end of what the plate names proves it; lighter or heavier does not', () => {
    const example = calculatorNamed('truck-rating')?.example as object
    const proven = (mass_kg: number) =>
      (run('truck-rating', { ...example, battery: { mass_kg, min_kg: 680, max_kg: 820 } }) as unknown as { proven: boolean })
        .proven
    expect([680, 750, 820].map(proven)).toEqual([true, true, true])
    expect([679.9, 820.1].map(proven)).toEqual([false, false])
  })
  it('a slope of 40° is still computed; a steeper one is a slip', () => {
    const example = calculatorNamed('stability-triangle')?.example as object
    for (const axis of ['pitch_deg', 'roll_deg']) {
      for (const sign of [1, -1]) {
        const at = (deg: number) => run('stability-triangle', { ...example, [axis]: sign * deg })
        expect(isRefusal(at(40))).toBe(false)
        expect(at(40.01)).toMatchObject({ error: { code: 'too-steep', path: axis } })
      }
    }
  })
  it('a lift point without a piston has a share and no pressure', () => {
    const points = [
      { id: 'A', x_m: -1, y_m: -1 },
      { id: 'B', x_m: 1, y_m: -1, piston_m2: 0.01 },
      { id: 'C', x_m: 0, y_m: 1 },
    ]
    const r = run('load-sharing', { mass_kg: 3000, several: { points, cg: { x_m: 0, y_m: -1 / 3 } } }) as unknown as {
      hooks: { id: string; load_kg: number; pressure_kPa: number | null }[]
    }
    expect(r.hooks.map((h) => h.pressure_kPa === null)).toEqual([true, false, true])
    for (const h of r.hooks) expect(h.load_kg).toBeCloseTo(1000, 6)
    expect(r.hooks[1]?.pressure_kPa).toBeCloseTo((1000 * g_mps2) / 0.01 / 1000, 6)
  })
  it('what is fixed to the boom comes off the table and not off line and hook', () => {
    const example = calculatorNamed('chart-reading')?.example as object
    const deductions = [
      { name: 'block', mass_kg: 200, on: 'hook' },
      { name: 'jib', mass_kg: 300, on: 'boom' },
      { name: 'drum', mass_kg: 100, on: 'boom' },
    ]
    const read = run('chart-reading', { ...example, deductions, load_kg: undefined, hoist: undefined }) as unknown as {
      gross_kg: number
      net_kg: number
    }
    expect(read.net_kg).toBe(read.gross_kg - 600)
  })
  it('a boom that may not be lowered so far is too flat there, and one at its angle is not', () => {
    const prove = (minAngle_deg: number) =>
      assess({
        machine: { ...tern, boom: { ...tern.boom, minAngle_deg } },
        tables: [ternTable],
        setup: ternSetup(),
        lift: ternLift(),
        conditions: { wind_mps: 4 },
        place: openField,
        policy: northQuay.policy,
      })
    const flattest = prove(-2).tip?.angle_set_deg as number
    expect(prove(flattest - 1e-9).findings.some((f) => f.check === 'boom-limits')).toBe(false)
    const reach = prove(flattest + 0.01).findings.find((f) => f.check === 'boom-limits')
    expect(reach).toMatchObject({ reason: 'too-flat', verdict: 'outside', at: { radius_m: 9 } })
  })
})

describe('what stands on the line', () => {
  it('hours a day are those of the last six weeks, the 42nd day among them', () => {
    const read = (at: string, hours: number) => ({ at, hours })
    const day = (n: number) => new Date(Date.UTC(2026, 2, 1 + n)).toISOString().slice(0, 10)
    fc.assert(
      fc.property(fc.integer({ min: 43, max: 400 }), fc.integer({ min: 1, max: 41 }), (old, young) => {
        const used = [read(day(400 - old), 100), read(day(400 - young), 900), read(day(400), 900 + young)]
        expect(hoursPerDay(used)).toBeCloseTo(1, 12)
      }),
    )
    expect(hoursPerDay([read(day(0), 0), read(day(42), 84)])).toBe(2)
    expect(hoursPerDay([read(day(0), 0), read(day(43), 86)])).toBeNull()
  })
  it('a share of what may be lost: in order, watched, done', () => {
    const { limit_share } = wearRules['fork-heel']
    const heel = (lost: number) =>
      run('wear', { kind: 'fork-heel', nominal: 50, measured: 50 * (1 - lost) }) as unknown as { verdict: string }
    expect([0, 0.5 * limit_share, 0.99 * limit_share, limit_share, 1.2 * limit_share].map((x) => heel(x).verdict)).toEqual([
      'ok',
      'ok',
      'watch',
      'discard',
      'discard',
    ])
  })
  it('a load hung below its centre of gravity by its lowest point is refused, however high the others are', () => {
    const example = calculatorNamed('sling-tension')?.example as {
      lifts: { x_m: number; y_m: number; z_m: number }[]
      cg: object
    }
    const level = example.lifts.map((l) => ({ ...l, z_m: 1 }))
    const at = (z_m: number, lifts: object[]) => run('sling-tension', { ...example, cg: { ...example.cg, z_m }, lifts })
    expect(isRefusal(at(1, level))).toBe(false)
    expect(at(1.01, level)).toMatchObject({ error: { code: 'top-heavy', path: 'cg.z_m' } })
    const low = level.map((l, i) => (i === 0 ? { ...l, z_m: 0.5 } : l))
    expect(at(0.7, low)).toMatchObject({ error: { code: 'top-heavy' } })
    expect(isRefusal(at(0.5, low))).toBe(false)
  })
  it('the working area takes each outrigger’s own float, mat and ground', () => {
    const outriggers = tern.outriggers.map((l, i) => ({ ...l, float: { length_m: 0.4 + i / 10, width_m: 0.5 } }))
    const setup = ternSetup()
    const own = outriggersIn(setup.standing).map((l, i) => ({
      ...l,
      mat: i === 1 ? null : l.mat,
      ground: i === 2 ? null : l.ground,
    }))
    const plan = {
      machine: { ...tern, outriggers },
      tables: [ternTable],
      conditions: { wind_mps: 3 },
      place: openField,
      policy: northQuay.policy,
    }
    const map = mapOfCase(
      { ...plan, setup: { ...setup, standing: { on: 'outriggers', outriggers: own } }, lift: ternLift() },
      [5],
      [0],
    )
    expect(map?.ground.map((g) => [g.id, g.pad.length_m, g.mat])).toEqual(
      own.filter((l) => l.ground).map((l) => [l.id, outriggers.find((x) => x.id === l.id)?.float.length_m, l.mat ?? undefined]),
    )
    expect(map?.ground).toHaveLength(3)
  })
  it('a plate agrees with its table to the figure and no further', () => {
    const fields = [{ id: 'capacity', label: 'Capacity', quantity: 'mass', expected: 2500 }] as const
    const fault = (now: number) => plateFault(fields, null, { capacity: now }, [])?.kind ?? null
    expect([2500, 2500.002].map(fault)).toEqual([null, null])
    expect([2500.01, 2499.99, 2501, 250].map(fault)).toEqual(['other-table', 'other-table', 'other-table', 'other-table'])
    const small = [{ id: 'centre', label: 'Load centre', quantity: 'none', expected: 0.5 }] as const
    expect(plateFault(small, null, { centre: 0.500_000_5 }, [])).toBeNull()
    expect(plateFault(small, null, { centre: 0.5001 }, [])?.kind).toBe('other-table')
  })
})

describe('one boom length or several', () => {
  it('a table by angle is read without its boom length only where it has one', () => {
    const table = demoMachines.map((id) => demoTable(`${id}-main`)).find((t) => t.axes.row.quantity === 'angle_deg')
    if (!table) throw new Error('no table by angle')
    const c = table.configurations[0] as (typeof table.configurations)[number]
    const row = c.rows[0] as (typeof c.rows)[number]
    const read = (configuration: typeof c, boom_m?: number | string) =>
      run('chart-reading', {
        chart: { ...table, configurations: [configuration] },
        configuration: c.id,
        radius_m: 5,
        angle_deg: Number(row.at),
        slew_deg: 0,
        rule: 'worse-row',
        deductions: [],
        ...(boom_m === undefined ? {} : { boom_m }),
      }) as unknown as { error?: { code: string; path: string }; gross_kg?: unknown }
    expect(c.columns.length).toBeGreaterThan(1)
    expect(read(c).error).toMatchObject({ code: 'missing-field', path: 'boom_m' })
    const single = {
      ...c,
      columns: c.columns.slice(0, 1),
      rows: c.rows.map((r) => ({ ...r, ratings_kg: [r.ratings_kg[0] ?? null] })),
    }
    expect(read(single).error).toBeUndefined()
    expect(read(single).gross_kg).toEqual(read(c, c.columns[0]).gross_kg)
  })
  it('a radius further out than the boom is long is not rated, whatever the table says there', () => {
    const c = ternTable.configurations[1] as (typeof ternTable.configurations)[number]
    const far = { ...c, columns: [10], rows: [5, 40].map((at) => ({ at, ratings_kg: [1000] })) }
    const gross = (radius_m: number) =>
      (
        run('chart-reading', {
          chart: { ...ternTable, configurations: [far] },
          configuration: c.id,
          radius_m,
          rule: 'worse-row',
          deductions: [],
        }) as unknown as { gross_kg: unknown }
      ).gross_kg
    // The foot of a boom stands ahead of the slew centre on some machines, by no more than a metre.
    expect([5, 10, 10.9].map(gross)).toEqual([1000, 1000, 1000])
    expect([11.1, 39].map(gross)).toEqual(['not-rated', 'not-rated'])
  })
})

describe('searches and slips', () => {
  it('a hill of one input is climbed to its top, also when that stands close to an end of the ±', () => {
    const place = fc.oneof(fc.double({ min: 0, max: 1, noNaN: true }), fc.double({ min: 0, max: 0.02, noNaN: true }))
    fc.assert(
      fc.property(place, fc.boolean(), fc.double({ min: 0.1, max: 50, noNaN: true }), (share, turned, steep) => {
        const top = -2 + 4 * (turned ? 1 - share : share)
        const b = withBounds({ a: { value: 0, tolerance: 2 } }, (x) => ({ y: -steep * ((x as { a: number }).a - top) ** 2 }), {
          worse: { y: 'either' },
        }) as unknown as { high: { y: number }; low: { y: number } }
        expect(b.high.y).toBeGreaterThan(-1e-6 * steep)
        expect(b.low.y).toBeCloseTo(-steep * (2 + Math.abs(top)) ** 2, 6)
      }),
      { numRuns: 200 },
    )
  })
  it('a root is found from either side, of straight and of crooked functions', () => {
    const nowhere = fc.double({ min: -0.98, max: 0.98, noNaN: true })
    fc.assert(
      fc.property(nowhere, fc.constantFrom(1, 3, 5), fc.boolean(), (root, power, falls) => {
        const f = (x: number) => (falls ? -1 : 1) * (x - root + 0.3 * ((x - root) ** power + (x - root) ** 3))
        let looks = 0
        const counted = (v: number) => {
          looks++
          return f(v)
        }
        const x = rootBetween(counted, -1, 1, 1e-9)
        expect(Math.abs(x - root)).toBeLessThan(1e-7)
        expect(looks).toBeLessThan(25)
      }),
    )
    expect(rootBetween((x) => x - 2, 2, 5, 1e-9)).toBe(2)
    expect(rootBetween((x) => x - 5, 2, 5, 1e-9)).toBe(5)
  })
  it('ten turns are a path; more are a slip', () => {
    const example = calculatorNamed('clearance')?.example as { path: { slew_deg: number }[] }
    const turned = (slew_deg: number) => run('clearance', { ...example, path: [{ ...example.path[0], slew_deg }] })
    for (const sign of [1, -1]) {
      expect(isRefusal(turned(sign * 3600))).toBe(false)
      expect(turned(sign * 3601)).toMatchObject({ error: { code: 'out-of-range', path: 'path.0.slew_deg' } })
    }
  })
  it('a line beyond the table of voltages has a distance only where the site gives one', () => {
    const line = (siteMinimum_m?: number) =>
      run('line-approach', { voltage_kV: 5000, distance_m: 30, ...(siteMinimum_m === undefined ? {} : { siteMinimum_m }) })
    expect(line()).toMatchObject({ required_m: null, ok: null })
    expect(line(25)).toMatchObject({ required_m: 25, ok: true, short_m: 0 })
    expect(line(33)).toMatchObject({ required_m: 33, ok: false, short_m: 3 })
  })
  it('there is no working area of a load that nobody knows', () => {
    const plan = {
      machine: tern,
      tables: [ternTable],
      setup: ternSetup(),
      conditions: { wind_mps: 3 },
      place: openField,
      policy: northQuay.policy,
    }
    const load = { name: '', mass_kg: null, massSource: null, windArea_m2: 1, dragCoefficient: 1.2 } as const
    expect(mapOfCase({ ...plan, lift: ternLift({ load }) }, [5], [0])).toBeNull()
    expect(mapOfCase({ ...plan, lift: ternLift() }, [5], [0])).not.toBeNull()
  })
})

describe('what a second look at random changes showed', () => {
  it('a boom too short for a radius is said with its length and no angle', () => {
    const far = { radius_m: 25, slew_deg: 250 }
    const plan = {
      machine: tern,
      tables: [ternTable],
      setup: ternSetup(),
      conditions: { wind_mps: 4 },
      place: openField,
      policy: northQuay.policy,
    }
    const reach = assess({ ...plan, lift: ternLift({ boom_m: 14.6, pickUp: far, setDown: far }) }).findings.find(
      (f) => f.check === 'boom-limits',
    )
    expect(reach).toMatchObject({ verdict: 'outside', reason: 'out-of-reach', at: { radius_m: 25 } })
    expect(reach?.detail).toEqual({ boom_m: 14.6 })
  })
  it('growth is limited by its share or by millimetres, whichever comes first', () => {
    for (const wear of wearKinds) {
      const rule = wearRules[wear]
      if (rule.by !== 'growth') continue
      const most_mm = 'most_mm' in rule ? rule.most_mm : undefined
      for (const nominal of [5, 40, 200, 3000]) {
        const byShare = nominal * (1 + rule.limit_share)
        const { most } = limitsOf({ kind: 'wear', wear, nominal })
        expect(most, `${wear} ${nominal}`).toBeCloseTo(most_mm === undefined ? byShare : Math.min(byShare, nominal + most_mm), 9)
      }
    }
  })
  it('a leg leans by how far its lift point stands from the hook, whichever way', () => {
    const weight = fc.double({ min: 0.2, max: 1, noNaN: true })
    fc.assert(
      fc.property(fc.tuple(weight, weight, weight), (w) => {
        const lifts = [
          { id: 'A', x_m: -1.5, y_m: -1, z_m: 0 },
          { id: 'B', x_m: 1.5, y_m: -1, z_m: 0 },
          { id: 'C', x_m: 0, y_m: 1.5, z_m: 0 },
        ]
        const mean = (key: 'x_m' | 'y_m') => lifts.reduce((s, l, i) => s + l[key] * (w[i] ?? 0), 0) / (w[0] + w[1] + w[2])
        const [x_m, y_m] = [mean('x_m'), mean('y_m')]
        const r = run('sling-tension', {
          mass_kg: 1000,
          cg: { x_m, y_m },
          hook: { z_m: 3 },
          lifts,
          hitch: 'straight',
          rule: 'three',
        }) as unknown as {
          legs?: { angle_deg: number }[]
        }
        lifts.forEach((l, i) => {
          const out = Math.hypot(l.x_m - x_m, l.y_m - y_m)
          expect(r.legs?.[i]?.angle_deg).toBeCloseTo((Math.atan2(out, 3) * 180) / Math.PI, 9)
        })
      }),
    )
  })
  it('the plane through the feet is read back as it was laid, on any feet', () => {
    const angle = fc.double({ min: -8, max: 8, noNaN: true })
    const spread = fc.double({ min: 1, max: 4, noNaN: true })
    fc.assert(
      fc.property(angle, angle, unit, fc.tuple(spread, spread, spread, spread), (pitch_deg, roll_deg, up_m, [a, b, c, d]) => {
        const sin = (deg: number) => Math.sin((deg * Math.PI) / 180)
        const feet = [
          { x_m: a, y_m: b },
          { x_m: b, y_m: -c },
          { x_m: -c, y_m: -d },
          { x_m: -d, y_m: a },
        ]
        const laid = tiltOf(feet.map((p) => ({ ...p, rise_m: p.x_m * sin(pitch_deg) + p.y_m * sin(roll_deg) + up_m })))
        expect(laid.pitch_deg).toBeCloseTo(pitch_deg, 9)
        expect(laid.roll_deg).toBeCloseTo(roll_deg, 9)
      }),
    )
  })
})
