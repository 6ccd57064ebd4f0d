import { readdirSync, readFileSync } from 'node:fs'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  calculatorNamed,
  changesBetween,
  chartReading,
  lineLimit_kg,
  type MachineModel,
  machineModel,
  modelOf,
  oddCells,
  type PlateRow,
  type RatingTable,
  Refusal,
  ratingTable,
  truckRating,
  withCell,
} from '../src'
import { type Axis, axisUnits, entriesFor } from '../src/rating/axes'
import { demoMachine } from './demo'

const demo = new URL('../../demo/', import.meta.url)
const read = (path: string) => JSON.parse(readFileSync(new URL(path, demo), 'utf8'))
const tables = readdirSync(new URL('tables/', demo)).map((f) => ratingTable.parse(read(`tables/${f}`)))
const models = readdirSync(new URL('models/', demo))
function modelFor(t: RatingTable): MachineModel {
  return models.includes(`${t.machine}.json`)
    ? machineModel.parse(read(`models/${t.machine}.json`))
    : modelOf(demoMachine(t.machine))
}
const tableOf = (machine: string) => tables.find((t) => t.machine === machine) as RatingTable
const run = (name: string, input: unknown) =>
  calculatorNamed(name)?.run(input) as Record<string, unknown> & { error?: { code: string; path: string } }

describe('the demo world’s tables', () => {
  it('go by every quantity that an axis can count', () => {
    expect(new Set(tables.flatMap((t) => [t.axes.row.quantity, t.axes.column.quantity]))).toEqual(new Set(Object.keys(axisUnits)))
  })
  it.each(tables.map((t) => [t.id, t] as const))('%s agrees with physics and with itself', (_id, t) => {
    expect(oddCells(modelFor(t), t).findings).toEqual([])
  })
  it.each(tables.map((t) => [t.id, t] as const))('%s: a slipped decimal point is flagged in its row', (_id, t) => {
    const grids = t.configurations
    for (const g of [grids[0], grids[grids.length - 1]]) {
      if (!g || g.rows.length * g.columns.length < 3) continue
      for (const row of [0, Math.floor(g.rows.length / 2), g.rows.length - 1]) {
        const column = g.rows[row]?.ratings_kg.findIndex((kg) => kg !== null) as number
        const wrong = withCell(t, { configuration: g.id, row, column }, (g.rows[row]?.ratings_kg[column] as number) * 10)
        const flagged = oddCells(modelFor(t), wrong).findings.filter((f) => f.configuration === g.id)
        expect(flagged.some((f) => f.row === row && f.column === column)).toBe(true)
        expect(flagged[0]).toMatchObject({ row, column, rowValue: g.rows[row]?.at })
      }
    }
  })
  it.each(tables.map((t) => [t.id, t] as const))('%s: a rating above physics or out of order is flagged in its row', (_id, t) => {
    const model = modelFor(t)
    const { limits } = oddCells(model, t)
    for (const g of t.configurations) {
      const allowed = limits.find((l) => l.configuration === g.id)?.kg
      g.rows.forEach(({ ratings_kg: cells }, row) => {
        const column = cells.findIndex((kg) => kg !== null)
        const limit = allowed?.[row]?.[column] ?? null
        if (row % 4 !== 1 || limit === null || limit > 1e9) return
        const kg = Math.max(limit * 1.02, (cells[column] as number) * 1.02)
        const flagged = oddCells(model, withCell(t, { configuration: g.id, row, column }, kg)).findings
        expect(flagged.some((f) => f.row === row && f.column === column && f.configuration === g.id)).toBe(true)
      })
    }
  })
  it('exchanged columns are flagged where order along the row is known', () => {
    for (const machine of ['tern', 'kittiwake', 'heron', 'cormorant', 'turnstone', 'godwit', 'whimbrel', 'bittern']) {
      const t = structuredClone(tableOf(machine))
      const c = t.configurations[0] as { rows: { ratings_kg: (number | null)[] }[] }
      const differ = (j: number) =>
        c.rows.filter((r) => r.ratings_kg[j] != null && r.ratings_kg[j + 1] != null && r.ratings_kg[j] !== r.ratings_kg[j + 1])
          .length
      const j = [0, 1, 2].find((k) => differ(k) >= 2) as number
      for (const r of c.rows) [r.ratings_kg[j], r.ratings_kg[j + 1]] = [r.ratings_kg[j + 1] ?? null, r.ratings_kg[j] ?? null]
      const flagged = oddCells(modelFor(t), t).findings
      expect(
        flagged.map((f) => f.kind),
        machine,
      ).toContain('swapped-columns')
    }
  })
  it('a column entered a row too high is flagged as out of step, or above physics', () => {
    const t = structuredClone(tableOf('tern'))
    const rows = (t.configurations[0] as { rows: { ratings_kg: (number | null)[] }[] }).rows
    const column = rows.map((r) => r.ratings_kg[2] ?? null)
    rows.forEach((r, i) => {
      r.ratings_kg[2] = r.ratings_kg[2] === null ? null : (column[i + 1] ?? column[i] ?? null)
    })
    expect(oddCells(modelFor(t), t).findings.some((f) => f.kind === 'out-of-step' && f.column === 2)).toBe(true)
  })
  it('a table for another machine, or a model without the parts it is judged by, is refused', () => {
    expect(run('table-check', { machine: modelFor(tableOf('wren')), table: tableOf('heron') }).error?.code).toBe('other-machine')
    expect(() => oddCells({ ...modelFor(tableOf('wren')), id: 'puffin' }, tableOf('puffin'))).toThrow(Refusal)
  })
})

describe('an axis', () => {
  const entries = fc
    .uniqueArray(fc.integer({ min: 1, max: 400 }), { minLength: 1, maxLength: 8 })
    .map((list) => list.sort((a, b) => a - b).map((v) => v / 4))
  const read = (reading: Axis['reading'], list: readonly number[], value: number) =>
    entriesFor({ quantity: 'height_m', label: 'Height', reading, trend: 'falls' }, list.length, (i) => list[i] ?? 0, value)?.map(
      (i) => list[i],
    ) ?? null
  it('reads an entry by itself, whatever way values between are read', () => {
    fc.assert(
      fc.property(entries, fc.constantFrom('neighbours', 'up-to', 'holds', 'listed'), fc.nat(), (list, reading, n) => {
        const value = list[n % list.length] as number
        expect(read(reading as Axis['reading'], list, value)).toEqual([value])
      }),
    )
  })
  it('reads a value between, before and beyond its entries as its reading says', () => {
    fc.assert(
      fc.property(entries, fc.double({ min: 0.05, max: 101, noNaN: true }), (list, value) => {
        fc.pre(!list.some((v) => Math.abs(v - value) < 1e-3))
        const below = list.filter((v) => v < value).at(-1)
        const above = list.find((v) => v > value)
        const between = below !== undefined && above !== undefined ? [below, above] : null
        expect(read('neighbours', list, value)).toEqual(between)
        expect(read('up-to', list, value)).toEqual(between ?? (above === undefined ? null : [above]))
        expect(read('holds', list, value)).toEqual(above === undefined ? null : [above])
        expect(read('listed', list, value)).toBeNull()
      }),
    )
  })
  it('that counts names is read by name', () => {
    const named = { quantity: 'part', label: 'Marked on', reading: 'listed', trend: null } as const
    expect(entriesFor(named, 2, (i) => ['hoist', 'beam'][i] ?? '', 'beam')).toEqual([1])
    expect(entriesFor(named, 2, (i) => ['hoist', 'beam'][i] ?? '', 'hook')).toBeNull()
  })
  it('is refused where its entries are of another kind, or do not rise', () => {
    const t = tableOf('fulmar')
    const c = t.configurations[0] as (typeof t.configurations)[number]
    const fault = (rows: object[]) => ratingTable.safeParse({ ...t, configurations: [{ ...c, rows }] }).error?.issues[0]
    expect(fault([...c.rows].reverse())?.path).toEqual(['configurations', 0, 'rows', 1, 'at'])
    expect(fault([{ ...c.rows[0], at: 'low' }])?.message).toContain('figure')
  })
  it('of heights and reaches counts from nothing up to its first entry', () => {
    const t = tableOf('godwit')
    const c = t.configurations[0] as (typeof t.configurations)[number]
    const kg = (height_m: number, radius_m: number) =>
      chartReading({ chart: t, configuration: c.id, radius_m, height_m, rule: 'worse-row', deductions: [] }).gross_kg
    const [row, column] = [c.rows[0], c.columns[0]]
    expect(kg(Number(row?.at) / 3, Number(column) / 2)).toBe(row?.ratings_kg[0])
    expect(kg(Number(c.rows.at(-1)?.at) + 0.01, Number(column))).toBe('not-rated')
  })
})

describe('cells', () => {
  it('give back what they were made from, and changes between revisions name each cell', () => {
    for (const t of tables) {
      const g = t.configurations[0]
      if (!g) throw new Error('no grid')
      const same = withCell(t, { configuration: g.id, row: 0, column: 0 }, g.rows[0]?.ratings_kg[0] ?? null)
      expect(same).toEqual(t)
      expect(changesBetween(t, same)).toEqual([])
      const other = withCell(t, { configuration: g.id, row: 0, column: 0 }, 7)
      expect(changesBetween(t, other)).toEqual([
        { configuration: g.id, row: g.rows[0]?.at, column: g.columns[0], from_kg: g.rows[0]?.ratings_kg[0] ?? null, to_kg: 7 },
      ])
    }
    expect(() => withCell(tableOf('tern'), { configuration: 'nothing', row: 0, column: 0 }, 1)).toThrow(Refusal)
  })
})

describe('chart-reading of each shape', () => {
  const base = { rule: 'worse-row' as const, deductions: [] }
  it('takes a tower’s column from the parts of line, and a reeving not listed is not rated', () => {
    const at = (parts: number, radius_m: number) =>
      chartReading({
        ...base,
        chart: tableOf('cormorant'),
        configuration: 'jib-50',
        radius_m,
        hoist: { linePull_N: 1e6, parts, sheaveEfficiency: 0.98 },
      }).gross_kg
    expect([at(2, 10), at(4, 10), at(3, 10), at(4, 51)]).toEqual([5200, 10_000, 'not-rated', 'not-rated'])
  })
  it('takes a mini crawler’s row from the angle, worse of both neighbours, and nothing in a forbidden sector', () => {
    const at = (angle_deg: number, slew_deg: number) =>
      chartReading({
        ...base,
        chart: tableOf('turnstone'),
        configuration: 'narrow',
        radius_m: 3,
        boom_m: 4.1,
        angle_deg,
        slew_deg,
      }).gross_kg
    expect([at(30, 0), at(40, 0), at(30, 270)]).toEqual([2080, 2080, 'not-rated'])
  })
  it('takes a telehandler’s row from the height, and is never optimistic between cells', () => {
    const t = tableOf('godwit')
    const at = (height_m: number, radius_m: number) => {
      const kg = chartReading({ ...base, chart: t, configuration: 'forks-down', radius_m, height_m }).gross_kg
      return kg === 'not-rated' ? -1 : kg
    }
    fc.assert(
      fc.property(fc.double({ min: 1, max: 6, noNaN: true }), fc.double({ min: 1, max: 6, noNaN: true }), (h, r) => {
        const heights = [1, 2, 4, 6]
        const up = heights.find((x) => x >= h - 1e-9) as number
        const out = Math.ceil(r - 1e-9)
        expect(at(h, r)).toBeLessThanOrEqual(at(up, out))
        expect(at(h, r)).toBe(at(up, out))
      }),
    )
  })
  it('refuses a plate, and says what a shape still needs', () => {
    expect(run('chart-reading', { ...base, chart: tableOf('puffin'), configuration: 'forks', radius_m: 1 }).error?.code).toBe(
      'other-axes',
    )
    expect(run('chart-reading', { ...base, chart: tableOf('turnstone'), configuration: 'wide', radius_m: 1 }).error?.path).toBe(
      'angle_deg',
    )
    expect(run('chart-reading', { ...base, chart: tableOf('godwit'), configuration: 'forks-up', radius_m: 1 }).error?.path).toBe(
      'height_m',
    )
    expect(
      run('chart-reading', { ...base, chart: tableOf('cormorant'), configuration: 'jib-50', radius_m: 20 }).error?.path,
    ).toBe('hoist')
  })
  it('worse-row ≤ linear ≤ greatest bounding row, where the table allows a straight line', () => {
    const t = tableOf('cormorant')
    fc.assert(
      fc.property(fc.double({ min: 10, max: 50, noNaN: true }), fc.constantFrom(2, 4), (radius_m, parts) => {
        const kg = (rule: 'worse-row' | 'linear') =>
          chartReading({
            rule,
            deductions: [],
            chart: t,
            configuration: 'jib-50',
            radius_m,
            hoist: { linePull_N: 1e6, parts, sheaveEfficiency: 0.98 },
          })
        const [worse, linear] = [kg('worse-row'), kg('linear')]
        expect(worse.gross_kg as number).toBeLessThanOrEqual((linear.gross_kg as number) + 1e-9)
        expect(linear.gross_kg as number).toBeLessThanOrEqual(Math.max(...linear.rows.map((r) => r.rating_kg ?? 0)) + 1e-9)
      }),
    )
  })
})

describe('truck-rating', () => {
  const plate: PlateRow[] = [
    { capacity_kg: 2500, loadCentre_m: 0.5, liftHeight_m: 3, mast: 'vertical' },
    { capacity_kg: 2000, loadCentre_m: 0.5, liftHeight_m: 4.5, mast: 'vertical' },
    { capacity_kg: 1800, loadCentre_m: 0.5, liftHeight_m: 4.5, mast: 'forward' },
  ]
  const load = { mass_kg: 1000, centre_m: 0.5, height_m: 3, mast: 'vertical' as const }
  const allowed = (o: Partial<Parameters<typeof truckRating>[0]> = {}) =>
    truckRating({ plate, load, policy: 'plate', ...o }).allowed_kg
  it('reads the greatest row that is at least as hard', () => {
    expect(allowed()).toBe(2500)
    expect(allowed({ load: { ...load, height_m: 3.01 } })).toBe(2000)
    expect(allowed({ load: { ...load, mast: 'forward' } })).toBe(1800)
    expect(allowed({ load: { ...load, centre_m: 0.51 } })).toBe('not-rated')
    expect(allowed({ load: { ...load, height_m: 4.6 } })).toBe('not-rated')
  })
  it('a harder load is never allowed more, whatever the plate says and whichever rule is used', () => {
    const row = fc.record({
      capacity_kg: fc.integer({ min: 200, max: 5000 }),
      loadCentre_m: fc.constantFrom(0.4, 0.5, 0.6, 0.8),
      liftHeight_m: fc.constantFrom(3, 4, 5),
      mast: fc.constantFrom('vertical' as const, 'forward' as const),
    })
    const one = fc.record({
      centre_m: fc.double({ min: 0.3, max: 1, noNaN: true }),
      height_m: fc.double({ min: 2, max: 5.5, noNaN: true }),
    })
    fc.assert(
      fc.property(fc.array(row, { minLength: 1, maxLength: 6 }), one, one, fc.boolean(), fc.boolean(), (rows, a, b, va, vb) => {
        const at = (centre_m: number, height_m: number, forward: boolean) =>
          truckRating({
            plate: rows,
            load: { mass_kg: 1000, centre_m, height_m, mast: forward ? 'forward' : 'vertical' },
            policy: 'moment',
            faceToAxle_m: 0.42,
          }).allowed_kg
        const easy = at(Math.min(a.centre_m, b.centre_m), Math.min(a.height_m, b.height_m), va && vb)
        const hard = at(Math.max(a.centre_m, b.centre_m), Math.max(a.height_m, b.height_m), va || vb)
        if (easy === 'not-rated') expect(hard).toBe('not-rated')
        else if (hard !== 'not-rated') expect(hard).toBeLessThanOrEqual(easy)
      }),
      { numRuns: 2000 },
    )
  })
  it('by moments is Q(x + D)/(x + d), never above Q, and always an estimate', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.51, max: 2, noNaN: true }), (centre_m) => {
        const r = truckRating({ plate, load: { ...load, centre_m }, policy: 'moment', faceToAxle_m: 0.4 })
        expect(r.allowed_kg).toBeCloseTo((2500 * 0.9) / (0.4 + centre_m), 6)
        expect(r.estimate).toBe(true)
        expect(r.warnings.join()).toContain('new plate')
      }),
    )
    expect(run('truck-rating', { plate, load: { ...load, centre_m: 0.7 }, policy: 'moment' }).error?.path).toBe('faceToAxle_m')
  })
  it('with an attachment that the plate does not know takes its moment off, capped by its own rating', () => {
    const attachment = { name: 'clamp', mass_kg: 400, cgFromFace_m: 0.2, thickness_m: 0.15 }
    const r = truckRating({ plate, load, policy: 'moment', faceToAxle_m: 0.4, attachment })
    expect(r.allowed_kg).toBeCloseTo((2500 * 0.9 - 400 * 0.6) / 1.05, 9)
    expect(
      truckRating({ plate, load, policy: 'moment', faceToAxle_m: 0.4, attachment: { ...attachment, capacity_kg: 900 } })
        .allowed_kg,
    ).toBe(900)
    expect(truckRating({ plate, load, policy: 'plate', attachment }).allowed_kg).toBe('not-rated')
  })
  it('with a battery outside the plate’s limits is not proven', () => {
    expect(truckRating({ plate, load, policy: 'plate', battery: { mass_kg: 500, min_kg: 600, max_kg: 800 } }).proven).toBe(false)
    expect(truckRating({ plate, load, policy: 'plate', battery: { mass_kg: 700, min_kg: 600, max_kg: 800 } }).proven).toBe(true)
  })
})

describe('listed ratings', () => {
  it('a counterweight between its steps is not rated, and the least extension that carries the load is named', () => {
    const table = tableOf('bittern')
    const at = (extension_m: number, load_kg = 20_000, loadCentre_m = 0.9) =>
      run('counterweight-rating', { table, slabs: 2, extension_m, tool: 'forks', loadCentre_m, load_kg })
    expect(at(0.5).allowed_kg).toBe(25_600)
    expect(at(0.4).allowed_kg).toBe('not-rated')
    expect(at(0, 26_000).needs_extension_m).toBe(1)
    expect(at(0.5, 20_000, 1).configuration).toBe('forks-1.2')
    expect(at(0.5, 20_000, 3).allowed_kg).toBe('not-rated')
  })
  it('a gantry’s stage ends at its height, and the fullest tower governs', () => {
    const table = tableOf('fulmar')
    const at = (height_m: number, sideShift_m = 0) =>
      run('height-rating', {
        table,
        height_m,
        sideShift_m,
        towers: [
          { id: 'A', load_kg: 5000 },
          { id: 'B', load_kg: 6000 },
          { id: 'C', load_kg: 4000 },
          { id: 'D', load_kg: 4500 },
        ],
      })
    expect(at(4)).toMatchObject({ perTower_kg: 12_500, governs: 'B', utilisation: 6000 / 12_500 })
    expect(at(4.01).perTower_kg).toBe(10_400)
    expect(at(4, 0.2).perTower_kg).toBe(9500)
    expect([at(9).perTower_kg, at(4, 0.4).perTower_kg]).toEqual(['not-rated', 'not-rated'])
  })
  it('the least mark of hoist, trolley, beam and hook governs; a missing mark rates nothing', () => {
    const marks = { hoist_kg: 2000, trolley_kg: 2500, beam_kg: 2100, hook_kg: 2000, load_kg: 900 }
    expect(run('hoist-chain-rating', marks)).toMatchObject({ allowed_kg: 2000, governs: 'hoist', utilisation: 0.45 })
    expect(run('hoist-chain-rating', { ...marks, onBeam_kg: 300 })).toMatchObject({ allowed_kg: 1800, governs: 'beam' })
    expect(run('hoist-chain-rating', { ...marks, beam_kg: null })).toMatchObject({ allowed_kg: 'not-rated', missing: ['beam'] })
  })
  it('a pin position is rated or it is not, and the furthest radius that carries the load is named', () => {
    const table = tableOf('wren')
    const at = (o: object) =>
      run('stage-rating', {
        table,
        configuration: 'legs',
        section: 'pin 2',
        radius_m: 2.4,
        rule: 'worse-row',
        load_kg: 600,
        ...o,
      })
    expect(at({})).toMatchObject({ allowed_kg: 800, boom_m: 4.2, furthest_m: 3 })
    expect(at({ section: 'pin 9' }).error?.code).toBe('unknown-section')
    expect(at({ radius_m: 5 }).allowed_kg).toBe('not-rated')
  })
  it('an unfolding path is judged where it reaches furthest, never better than at its end', () => {
    const table = tableOf('heron')
    const input = {
      table,
      configuration: 'full',
      section: 'two drawn',
      inner_m: 3.2,
      outer_m: 6.5,
      pivot: { back_m: 0.1, height_m: 2.6 },
      path: [
        { angle_deg: 70, fold_deg: 110 },
        { angle_deg: 70, fold_deg: 60 },
        { angle_deg: 70, fold_deg: 5 },
      ],
      rule: 'worse-row',
      load_kg: 900,
    }
    const r = run('articulated-rating', input) as unknown as {
      allowed_kg: number
      worst: { radius_m: number }
      end: { radius_m: number; allowed_kg: number }
    }
    // Straight out when fold equals the inner's angle: there the outer boom lies level.
    expect(r.worst.radius_m).toBeCloseTo(3.2 * Math.cos((70 * Math.PI) / 180) + 6.5 - 0.1, 1)
    expect(r.allowed_kg).toBeLessThanOrEqual(r.end.allowed_kg)
  })
  it('line limits with more parts never fall', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 20 }), fc.double({ min: 0.9, max: 1, noNaN: true }), (parts, sheaveEfficiency) => {
        const at = (n: number) => lineLimit_kg({ linePull_N: 30_000, parts: n, sheaveEfficiency })
        expect(at(parts + 1)).toBeGreaterThan(at(parts))
      }),
    )
  })
})
