import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  calculatorNamed,
  chartReading,
  groundPressure,
  judge,
  levelling,
  lineApproach,
  lineLimit_kg,
  type Mat,
  matReach,
  outriggersShortOf,
  poseAtAngle,
  poseAtRadius,
  type RatingTable,
  rad,
  ratingAt,
  saysStanding,
  tiltOf,
  windLimit,
} from '../src'
import { ternTable } from './demo'

const run = (name: string, input: unknown) => calculatorNamed(name)?.run(input)

describe('telescopic-geometry', () => {
  const pivot = { back_m: 1.3, height_m: 2.35 }
  it('comes back to the angle it started from', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 8, max: 40, noNaN: true }),
        fc.double({ min: 10, max: 82, noNaN: true }),
        fc.double({ min: 0, max: 0.6, noNaN: true }),
        fc.double({ min: 0, max: 12, noNaN: true }),
        fc.double({ min: 0, max: 30, noNaN: true }),
        fc.double({ min: 0, max: 0.5, noNaN: true }),
        (boom_m, angle_deg, headOffset_m, length_m, offset_deg, deflection_m) => {
          const b = { boom_m, pivot, headOffset_m, jib: { length_m, offset_deg }, deflection_m }
          const there = poseAtAngle(b, angle_deg)
          const back = poseAtRadius(b, there.radius_m)
          // Two angles can share a radius when the head offset leans past upright; the raised one is returned.
          fc.pre(back.angle_deg - angle_deg < 1e-3 || angle_deg < 70)
          expect(back.radius_m).toBeCloseTo(there.radius_m, 9)
        },
      ),
    )
  })
  it('is plain trigonometry for a bare boom', () => {
    const p = poseAtAngle({ boom_m: 20, pivot }, 60)
    expect(p.radius_m).toBeCloseTo(10 - 1.3, 12)
    expect(p.tip_height_m).toBeCloseTo(2.35 + 20 * Math.sin(Math.PI / 3), 12)
  })
  it('refuses what the boom cannot reach, and angle with radius', () => {
    expect(run('telescopic-geometry', { boom_m: 10, radius_m: 20, pivot })).toMatchObject({
      error: { code: 'out-of-reach', path: 'radius_m' },
    })
    expect(run('telescopic-geometry', { boom_m: 10, radius_m: 5, angle_deg: 40, pivot })).toMatchObject({
      error: { code: 'angle-or-radius' },
    })
    expect(run('telescopic-geometry', { boom_m: 10, pivot })).toMatchObject({ error: { code: 'angle-or-radius' } })
  })
})

describe('chart-reading', () => {
  const open: RatingTable = { ...ternTable, linearPermitted: true }
  const config = 'full-heavy'
  const c = ternTable.configurations.find((x) => x.id === config)
  if (!c || !saysStanding(c)) throw new Error('no configuration')
  const base = { chart: open, configuration: config, deductions: [], boom_m: 19.4 }

  it('takes the row itself on a row, the worse neighbour between rows', () => {
    expect(chartReading({ ...base, radius_m: 9, rule: 'worse-row' }).gross_kg).toBe(9300)
    expect(chartReading({ ...base, radius_m: 9.01, rule: 'worse-row' }).gross_kg).toBe(7800)
  })

  it('orders worse row ≤ straight line ≤ greatest bounding row everywhere', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 3, max: 18, noNaN: true }),
        fc.constantFrom(14.6, 19.4),
        fc.constantFrom(...open.configurations.map((x) => x.id)),
        (radius_m, boom_m, configuration) => {
          const sector = open.configurations.find((c) => c.id === configuration)?.appliesTo.sector
          const slew_deg = sector && (sector.from_deg + ((sector.to_deg - sector.from_deg + 360) % 360) / 2) % 360
          const at = { ...base, configuration, boom_m, radius_m, slew_deg }
          const worse = chartReading({ ...at, rule: 'worse-row' })
          const linear = chartReading({ ...at, rule: 'linear' })
          if (worse.gross_kg === 'not-rated') {
            expect(linear.gross_kg).toBe('not-rated')
            return
          }
          const greatest = Math.max(...worse.rows.map((r) => r.rating_kg ?? 0))
          expect(worse.gross_kg).toBeLessThanOrEqual(linear.gross_kg as number)
          expect(linear.gross_kg as number).toBeLessThanOrEqual(greatest + 1e-9)
        },
      ),
    )
  })

  it('reads between boom lengths as the lesser of both neighbours', () => {
    const between = chartReading({ ...base, boom_m: 17, radius_m: 8, rule: 'worse-row' })
    expect(between.gross_kg).toBe(Math.min(11_400, 10_500))
    expect(between.rows).toHaveLength(2)
  })

  it('says not rated outside the rows, the columns, the sector and the blanks; never zero', () => {
    for (const at of [
      { radius_m: 2.9 },
      { radius_m: 26.01 },
      { radius_m: 19, boom_m: 19.4 },
      { radius_m: 9, boom_m: 9.8 },
      { radius_m: 9, boom_m: 31 },
    ]) {
      const r = chartReading({ ...base, ...at, rule: 'worse-row', load_kg: 100 })
      expect(r.gross_kg).toBe('not-rated')
      expect(r.net_kg).toBe('not-rated')
      expect(r.utilisation).toBeNull()
    }
    const sector = { ...base, configuration: 'full-right-heavy', radius_m: 9, rule: 'worse-row' as const }
    expect(chartReading({ ...sector, slew_deg: 270 }).gross_kg).toBe(9300)
    expect(chartReading({ ...sector, slew_deg: 90 }).gross_kg).toBe('not-rated')
    expect(chartReading({ ...sector, slew_deg: 225 }).gross_kg).toBe(9300)
    expect(() => chartReading(sector)).toThrow(/slew_deg/)
  })

  it('nets deductions and finds which limit governs', () => {
    const hoist = { linePull_N: 38_000, parts: 2, leadSheaves: 2, sheaveEfficiency: 0.98, hook_kg: 8000 }
    const r = chartReading({
      ...base,
      radius_m: 6,
      rule: 'worse-row',
      load_kg: 6000,
      deductions: [
        { name: 'block', mass_kg: 120, on: 'hook' },
        { name: 'stowed jib', mass_kg: 400, on: 'boom' },
      ],
      hoist,
    })
    const line = (38_000 * 0.98 ** 2 * (1 + 0.98)) / 9.80665
    expect(lineLimit_kg(hoist)).toBeCloseTo(line, 9)
    expect(r.governs).toBe('line')
    expect(r.net_kg as number).toBeCloseTo(line - 120, 9)
    expect(r.utilisation).toBeCloseTo(6120 / line, 12)
    expect(lineLimit_kg({ ...hoist, sheaveEfficiency: 1 })).toBeCloseTo((2 * 38_000) / 9.80665, 9)
  })

  it('refuses a straight line where the table does not allow it, and an unknown configuration', () => {
    const input = { chart: ternTable, configuration: config, radius_m: 9, boom_m: 19.4, deductions: [] }
    expect(run('chart-reading', { ...input, rule: 'linear' })).toMatchObject({ error: { code: 'linear-not-permitted' } })
    expect(run('chart-reading', { ...input, configuration: 'x', rule: 'worse-row' })).toMatchObject({
      error: { code: 'unknown-configuration' },
    })
  })

  it('does not cover a footprint that is short of a leg it depends on', () => {
    const short = c.appliesTo.standing.footprint.map((f) => (f.id === 'FL' ? { ...f, y_m: 2.15 } : f))
    expect(outriggersShortOf(c, short)).toEqual(['FL'])
    expect(outriggersShortOf(c, c.appliesTo.standing.footprint)).toEqual([])
    const right = ternTable.configurations.find((x) => x.id === 'full-right-heavy')
    expect(right && saysStanding(right) && outriggersShortOf(right, short)).toEqual([])
  })

  it('every rating of the demo falls with radius and stays a real number', () => {
    for (const conf of ternTable.configurations) {
      conf.columns.forEach((_, i) => {
        const column = conf.rows.map((r) => r.ratings_kg[i]).filter((k): k is number => k != null)
        expect([...column].sort((a, b) => b - a)).toEqual(column)
      })
    }
    expect(ratingAt(ternTable.axes, c, 3, 9.8, 'worse-row').gross_kg).toBe(25_000)
  })
})

describe('ground-pressure', () => {
  const mat: Mat = { length_m: 2.4, width_m: 1, thickness_m: 0.15, allowableBending_MPa: 12, spreads: 'one-way' }
  it('is force over area on a bare pad', () => {
    const r = groundPressure({ reaction_N: 100_000, pad: { length_m: 0.5, width_m: 0.5 }, allowable_kPa: 200 })
    expect(r).toMatchObject({ contact_kPa: 400, formation_kPa: 400, utilisation: 2, presumed: false, governs: 'pad' })
    expect(r.requiredSide_m).toBeCloseTo(Math.sqrt(0.5), 12)
  })
  it('reaches as far as bending lets it: the stress there is the allowable', () => {
    fc.assert(
      fc.property(fc.double({ min: 2e4, max: 6e5, noNaN: true }), fc.double({ min: 0.3, max: 0.8, noNaN: true }), (R, l) => {
        const { c_m } = matReach(R, l, 0.5, mat)
        const q = R / (0.5 * (l + 2 * c_m))
        const stress = (q * 0.5 * c_m ** 2) / 2 / ((0.5 * mat.thickness_m ** 2) / 6) / 1e6
        expect(stress / mat.allowableBending_MPa).toBeCloseTo(1, 9)
      }),
    )
  })
  it('shear, where given, may hold the reach back to where its stress is the allowable', () => {
    const { c_m, by } = matReach(400_000, 0.5, 0.5, { ...mat, allowableShear_MPa: 1.5 })
    expect(by).toBe('shear')
    const shear = (400_000 * c_m) / (0.5 + 2 * c_m)
    expect((1.5 * shear) / (0.5 * 0.15) / 1e6).toBeCloseTo(1.5, 9)
  })
  it('never spreads beyond the mat, and a layer below widens it by its slope', () => {
    const small = groundPressure({
      reaction_N: 50_000,
      pad: { length_m: 0.5, width_m: 0.5 },
      mat: { ...mat, length_m: 0.8, spreads: 'two-way' },
    })
    expect(small.effective.length_m).toBe(0.8)
    const layered = groundPressure({
      reaction_N: 90_000,
      pad: { length_m: 0.5, width_m: 0.5 },
      layer: { thickness_m: 0.5, spreadFromVertical_deg: 45 },
    })
    expect(layered.formation_kPa).toBeCloseTo(90 / 1.5 ** 2, 9)
  })
  it('presumes a figure for a soil but none for made ground or peat', () => {
    const on = (soil: 'sand-dense' | 'made-ground' | 'peat') =>
      groundPressure({ reaction_N: 1000, pad: { length_m: 1, width_m: 1 }, soil })
    expect(on('sand-dense')).toMatchObject({ allowable_kPa: 300, presumed: true })
    for (const s of ['made-ground', 'peat'] as const)
      expect(on(s)).toMatchObject({ allowable_kPa: null, presumed: false, utilisation: null, requiredArea_m2: null })
  })
})

describe('levelling', () => {
  const jacks = [
    { id: 'FL', x_m: 2.75, y_m: 3, stroke_m: 0.1, min_m: 0.05, max_m: 0.55 },
    { id: 'FR', x_m: 2.75, y_m: -3, stroke_m: 0.1, min_m: 0.05, max_m: 0.55 },
    { id: 'RL', x_m: -3.05, y_m: 3, stroke_m: 0.1, min_m: 0.05, max_m: 0.55 },
    { id: 'RR', x_m: -3.05, y_m: -3, stroke_m: 0.1, min_m: 0.05, max_m: 0.55 },
  ]
  const tilt = fc.double({ min: -6, max: 6, noNaN: true })
  it('leaves the frame level, the least rise nothing, packing only where a stroke runs out', () => {
    fc.assert(
      fc.property(tilt, tilt, (pitch_deg, roll_deg) => {
        const r = levelling({ supports: jacks, pitch_deg, roll_deg, strategy: 'raise-only' })
        const rises = r.jacks.map((j) => j.change_m + j.packing_m)
        expect(Math.min(...rises)).toBeCloseTo(0, 9)
        const left = tiltOf(
          jacks.map((j, i) => ({
            ...j,
            rise_m:
              j.x_m * Math.sin((pitch_deg * Math.PI) / 180) + j.y_m * Math.sin((roll_deg * Math.PI) / 180) + (rises[i] as number),
          })),
        )
        expect(left.pitch_deg).toBeCloseTo(0, 9)
        expect(left.roll_deg).toBeCloseTo(0, 9)
        for (const [i, j] of r.jacks.entries()) {
          expect(j.packing_m === 0 || Math.abs(j.change_m - 0.45) < 1e-9).toBe(true)
          expect((jacks[i]?.stroke_m ?? 0) + j.change_m).toBeLessThanOrEqual(0.55 + 1e-12)
        }
        expect(r.feasible).toBe(true)
      }),
    )
  })
  it('least movement halves the greatest movement of raising only, and raises everything where a jack cannot come down', () => {
    const up = levelling({ supports: jacks, pitch_deg: 0.4, roll_deg: 0, strategy: 'raise-only' })
    const half = levelling({ supports: jacks, pitch_deg: 0.4, roll_deg: 0, strategy: 'least-movement' })
    const most = (l: typeof up) => Math.max(...l.jacks.map((j) => Math.abs(j.change_m)))
    expect(most(half)).toBeCloseTo(most(up) / 2, 12)
    const steep = levelling({ supports: jacks, pitch_deg: 3, roll_deg: 0, strategy: 'least-movement' })
    expect(steep.feasible).toBe(true)
    steep.jacks.forEach((j, i) => {
      const jack = jacks[i] as (typeof jacks)[number]
      expect(jack.stroke_m + j.change_m).toBeGreaterThanOrEqual(jack.min_m - 1e-12)
      expect(jack.stroke_m + j.change_m).toBeLessThanOrEqual(jack.max_m + 1e-12)
    })
    const level = tiltOf(
      jacks.map((s, i) => {
        const j = steep.jacks[i] as (typeof steep.jacks)[number]
        return { x_m: s.x_m, y_m: s.y_m, rise_m: s.x_m * Math.sin(3 * rad) + j.change_m + j.packing_m }
      }),
    )
    expect(level.pitch_deg).toBeCloseTo(0, 9)
  })
  it('works the rear first when the front stands high, in rounds that keep the tilt inside its limit', () => {
    const r = levelling({ supports: jacks, pitch_deg: 1, roll_deg: 0.2, strategy: 'raise-only', limit_deg: 1 })
    expect(r.order.slice(0, 2).sort()).toEqual(['RL', 'RR'])
    const loose = levelling({ supports: jacks, pitch_deg: 2, roll_deg: 0, strategy: 'raise-only', limit_deg: 2 })
    const tight = levelling({ supports: jacks, pitch_deg: 2, roll_deg: 0, strategy: 'raise-only', limit_deg: 0.1 })
    expect(tight.rounds).toBeGreaterThanOrEqual(loose.rounds)
  })
  it('refuses a jack outside its ends and a slope that is no set-up', () => {
    expect(
      run('levelling', {
        supports: jacks.map((j) => ({ ...j, stroke_m: 0.6 })),
        pitch_deg: 0,
        roll_deg: 0,
        strategy: 'raise-only',
      }),
    ).toMatchObject({ error: { code: 'stroke-outside', path: 'supports.0.stroke_m' } })
    expect(run('levelling', { supports: jacks, pitch_deg: 20, roll_deg: 0, strategy: 'raise-only' })).toMatchObject({
      error: { code: 'too-steep' },
    })
  })
})

describe('wind-limit', () => {
  it('is the chart’s own up to its reference area and falls with the square root beyond, never rising', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 100, max: 20_000, noNaN: true }),
        fc.double({ min: 0, max: 80, noNaN: true }),
        (mass_kg, sailArea_m2) => {
          const at = (a: number) =>
            windLimit({ chartLimit_mps: 9.8, referenceArea_m2_per_t: 1.2, mass_kg, sailArea_m2: a, dragCoefficient: 1.2 })
              .limit_mps
          expect(at(sailArea_m2)).toBeLessThanOrEqual(9.8)
          expect(at(sailArea_m2 + 1)).toBeLessThanOrEqual(at(sailArea_m2))
        },
      ),
    )
    expect(
      windLimit({ chartLimit_mps: 10, referenceArea_m2_per_t: 1.2, mass_kg: 1000, sailArea_m2: 4, dragCoefficient: 1.2 })
        .limit_mps,
    ).toBeCloseTo(5, 12)
  })
})

describe('line-approach', () => {
  it.each([
    [11, 3.05],
    [50, 3.05],
    [51, 4.572],
    [350, 6.1],
    [750, 10.67],
    [1000, 13.72],
  ])('%d kV needs %d m', (voltage_kV, required_m) => {
    expect(lineApproach({ voltage_kV, distance_m: 20 })).toEqual({ required_m, ok: true, short_m: 0 })
  })
  it('takes the wide distance for an unknown voltage and leaves above 1000 kV to the utility', () => {
    expect(lineApproach({ voltage_kV: null, distance_m: 10 })).toMatchObject({ required_m: 15.24, ok: false })
    expect(lineApproach({ voltage_kV: null, confirmedBelow350: true, distance_m: 10 })).toMatchObject({
      required_m: 6.1,
      ok: true,
    })
    expect(lineApproach({ voltage_kV: 1200, distance_m: 50 })).toEqual({ required_m: null, ok: null, short_m: null })
    expect(lineApproach({ voltage_kV: 11, distance_m: 5, sag_m: 1, blowOut_m: 1.5 }).short_m).toBeCloseTo(0.55, 12)
  })
})

describe('judging readings', () => {
  const rope = {
    kind: 'loss',
    label: 'Rope',
    unit: 'mm',
    nominal: 16,
    limit_share: 0.05,
    watch_share: 0.035,
    source: 's',
  } as const
  const tyre = { kind: 'range', label: 'Tyre', unit: 'kPa', least: 720, most: 860, watchWithin: 25, source: 's' } as const
  it.each([
    [rope, 16, 'ok'],
    [rope, 15.4, 'watch'],
    [rope, 15.2, 'discard'],
    [tyre, 800, 'ok'],
    [tyre, 730, 'watch'],
    [tyre, 719, 'discard'],
    [tyre, 861, 'discard'],
  ] as const)('%o at %d is %s', (measure, reading, verdict) => {
    expect(judge(measure, reading).verdict).toBe(verdict)
  })
  it('asks again for what no such part can read', () => {
    for (const reading of [-1, 25.4, 1.5, Number.NaN]) expect(() => judge(rope, reading)).toThrow(/Rope/)
    expect(() => judge(tyre, 7800)).toThrow(/Tyre/)
  })
})
