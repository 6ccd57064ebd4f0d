import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { assess, type Case, type Crew, g_mps2, isGantry, type LiftPlan, nearestRemedies, type Standing, type Step } from '../src'
import { GantryContext } from '../src/check/gantry-context'
import { confirmedBut, demoMachine, demoPlace, demoTable, judgedBy } from './demo'
import { runs } from './runs'

const fulmar = demoMachine('fulmar')
if (!isGantry(fulmar)) throw new RangeError('Fulmar stands on no towers')
const place = demoPlace('boatyard')
const ground = place.ground.find((g) => g.id === 'slab') ?? null
type Towers = Extract<Standing, { on: 'towers' }>
type Cg = NonNullable<LiftPlan['hung']['load']['cg']>
interface Job {
  kg: number | null
  height_m?: number
  cg?: Cg
  standing?: Partial<Towers>
  without?: string[]
  steps?: Step[]
}
const at = (id: string, x_m: number, y_m: number) => ({ id, x_m, y_m, ground, plate: null })
const square = [at('A', 2, 2.2), at('B', 2, -2.2), at('C', -2, 2.2), at('D', -2, -2.2)]
const caseOf = ({ kg, height_m = 5, cg = { x_m: 0.3, y_m: 0.2, z_m: -1 }, standing, without = [], steps }: Job): Case => ({
  machine: fulmar,
  tables: [demoTable('fulmar-main')],
  setup: {
    format: 'geolabe.setup/2',
    place: place.id,
    position: { x_m: 30, y_m: 30, heading_deg: 0 },
    standing: {
      on: 'towers',
      towers: square,
      fall: { along_pct: 0, cross_pct: 0 },
      linkage: 'one-point-per-header',
      ...standing,
    },
    fitted: {},
    level: { pitch_deg: null, roll_deg: null, levelVerified: false },
    confirmed: confirmedBut(fulmar, without),
  },
  lift: {
    format: 'geolabe.lift/2',
    hung: {
      load: { name: 'engine', mass_kg: kg, massSource: 'document', windArea_m2: 9, dragCoefficient: 1.2, cg },
      rigging: [{ name: 'links', mass_kg: 400, on: 'hook' }],
    },
    steps: steps ?? [{ do: 'hoist', laden: true, from_m: 3, to_m: height_m, which: 'all' }],
  },
  conditions: { wind_mps: 2 },
  place,
  policy: place.policy,
})
const judged = (job: Job) => judgedBy(caseOf(job))
const onTower = (c: Case) => {
  const { shares, hung, header_kg } = new GantryContext(c, 0)
  return (shares ?? []).map((s) => s.most * (hung?.worst_kg ?? 0) + header_kg)
}

describe('a gantry on four towers', () => {
  it('says what each tower carries as the load is taken: all of it together, a moment about every edge, and nothing with four links', () => {
    const offset = fc.double({ min: -1.2, max: 1.2, noNaN: true })
    fc.assert(
      fc.property(fc.integer({ min: 2000, max: 26000 }), offset, offset, (kg, x_m, y_m) => {
        const { carries } = assess(caseOf({ kg, cg: { x_m, y_m, z_m: -1 } }))
        const { header_kg } = fulmar.gantry.stand
        const of = (id: string) => carries.find((c) => c.id === id)?.kg ?? Number.NaN
        expect(carries.reduce((sum, c) => sum + c.kg, 0)).toBeCloseTo(kg + 400 + 2 * header_kg, 6)
        // Half of a header on each; the rest hangs where it hangs.
        expect((of('A') + of('B') - header_kg) * 2 - (of('C') + of('D') - header_kg) * 2).toBeCloseTo((kg + 400) * x_m, 4)
        const [stage] = fulmar.gantry.stages
        for (const c of carries) expect(c.kPa_per_kg).toBeCloseTo(g_mps2 / (stage?.piston_m2 ?? 0) / 1000, 12)
      }),
      { numRuns: 40 },
    )
    expect(assess(caseOf({ kg: 20000, standing: { linkage: 'four-links' } })).carries).toEqual([])
    expect(assess(caseOf({ kg: null })).carries).toEqual([])
  })
  it('shares a load by moments from one point a header, by its upper bound from four links', () => {
    const order = [6848.1818, 5781.8182, 4390.9091, 5179.0909]
    for (const [i, kg] of onTower(caseOf({ kg: 20000 })).entries()) expect(kg).toBeCloseTo(order[i] ?? 0, 3)
    const upper = [11577.273, 9722.7273, 9120, 9120]
    for (const [i, kg] of onTower(caseOf({ kg: 20000, standing: { linkage: 'four-links' } })).entries())
      expect(kg).toBeCloseTo(upper[i] ?? 0, 2)
  })
  it('gives the high end more of what hangs below its lift points', () => {
    const tilted = caseOf({ kg: 20000, standing: { fall: { along_pct: 0.75, cross_pct: 0 } } })
    const front = new GantryContext(tilted, 0).shares?.slice(0, 2).reduce((sum, s) => sum + s.most, 0)
    expect(front).toBeCloseTo(0.576875, 6)
    const above = caseOf({ kg: 20000, cg: { x_m: 0.3, y_m: 0.2, z_m: 1 }, standing: { fall: { along_pct: 0.75, cross_pct: 0 } } })
    expect(new GantryContext(above, 0).shares?.slice(0, 2).reduce((sum, s) => sum + s.least, 0)).toBeCloseTo(0.573125, 6)
  })
  it('reads its jobs by the stage that holds the height, and the changes offered are what they say', () => {
    expect(judged({ kg: 20000 })).toEqual(['inside', 'rating', 0.825])
    expect(judged({ kg: 23500 })).toEqual(['near', 'rating', 0.957])
    expect(judged({ kg: 23500, height_m: 6.5 })).toEqual(['outside', 'rating', 1.324])
    expect(judged({ kg: 20000, standing: { linkage: 'four-links' } })).toEqual(['outside', 'rating', 1.395])
    expect(judged({ kg: 20000, standing: { fall: { along_pct: null, cross_pct: 0 } } }).slice(0, 2)).toEqual([
      'not-proven',
      'level',
    ])
    const c = caseOf({ kg: 23500, height_m: 6.5 })
    const { governing } = assess(c)
    const changes = governing ? nearestRemedies(c, governing, { mats: [], canStand: () => true }) : []
    const stage = changes.find((x) => x.change.kind === 'stage')
    expect(stage?.change).toMatchObject({ height_m: 6.2 })
    expect(stage?.assessment?.verdict).toBe('near')
    expect(changes.map((x) => x.change.kind)).toContain('mass')
    for (const { changedCase, assessment } of changes)
      if (changedCase) expect(assess({ ...c, ...changedCase }).verdict).toBe(assessment?.verdict)
    const links = caseOf({ kg: 20000, standing: { linkage: 'four-links' } })
    const worst = assess(links).governing
    expect(worst && nearestRemedies(links, worst, { mats: [], canStand: () => true }).map((x) => x.change.kind)).toContain(
      'linkage',
    )
  })
  it('counts as on the middle line only with the whole of its doubt there', () => {
    const kg = (y_m: Cg['y_m']) => assess(caseOf({ kg: 20000, cg: { x_m: 0, y_m, z_m: -1 } })).rated_kg
    expect(kg(0)).toBe(10400)
    expect(kg({ value: 0, tolerance: 0.02 })).toBe(8300)
    expect(kg(0.3)).toBe(8300)
    expect(judged({ kg: 20000, cg: { x_m: 0, y_m: 0.31, z_m: -1 } })).toEqual(['outside', 'rating', null])
  })
  it('counts side shift from the middle of its own towers', () => {
    const aside = square.map((t) => ({ ...t, y_m: Number(t.y_m) + 0.25 }))
    const job = { kg: 20000, standing: { towers: aside } }
    expect(assess(caseOf({ ...job, cg: { x_m: 0, y_m: 0.25, z_m: -1 } })).rated_kg).toBe(10400)
    expect(assess(caseOf({ ...job, cg: { x_m: 0, y_m: 0, z_m: -1 } })).rated_kg).toBe(8300)
  })
  it('takes a load that is shifted on its headers where it is shifted to, and travels as high as it was raised', () => {
    const raised: Step = { do: 'hoist', laden: true, from_m: 3, to_m: 5, which: 'all' }
    const shifted: Step = { do: 'traverse', laden: true, of: 'load', from_m: 0, to_m: 0.3 }
    const f = assess(caseOf({ kg: 20000, cg: { x_m: 0, y_m: -0.15, z_m: -1 }, steps: [raised, shifted] })).findings
    // Before: right towers most; after: the left ones as much.
    const [a, b] = ['rating:A', 'rating:B'].map((id) => f.find((x) => x.id === id)?.utilisation ?? 0)
    expect(a).toBeCloseTo(b ?? 0, 9)
    expect(() =>
      assess(caseOf({ kg: 20000, steps: [{ do: 'traverse', laden: true, of: 'frame', from_m: 0, to_m: 4 }] })),
    ).toThrow('begin with raising')
    expect(() =>
      assess(caseOf({ kg: 20000, steps: [raised, { do: 'traverse', laden: true, of: 'frame', from_m: 0, to_m: 13 }] })),
    ).toThrow('12 m long')
  })
  it('refuses towers that enclose nothing, a centre beside them, a height beyond its stages; each by its field', () => {
    const field = (job: Job) => {
      try {
        assess(caseOf(job))
        return null
      } catch (e) {
        return e instanceof Error && 'path' in e ? e.path : e
      }
    }
    expect(field({ kg: 9000, height_m: 9 })).toBe('lift.steps.0.to_m')
    const one: Step = { do: 'hoist', laden: true, from_m: 3, to_m: 4, which: ['A'] }
    expect(field({ kg: 9000, steps: [one] })).toBe('lift.steps.0.which')
    expect(field({ kg: 9000, cg: { x_m: 2.1, y_m: 0, z_m: 0 } })).toBe('lift.hung.load.cg')
    expect(field({ kg: 9000, standing: { towers: square.slice(1) } })).toBe('setup.standing.towers')
    expect(field({ kg: 9000, standing: { towers: square.map((t) => ({ ...t, x_m: 0 })) } })).toBe('setup.standing.towers')
    expect(field({ kg: 9000, standing: { towers: square.map((t) => ({ ...t, id: 'A' })) } })).toBe('setup.standing.towers.1.id')
  })
  it('is not proven with anything left out, and outside beside its track or in the wind', () => {
    for (const e of fulmar.evidence) expect(judged({ kg: 20000, without: [e.id] })[0]).toBe('not-proven')
    expect(judged({ kg: null })[0]).toBe('not-proven')
    const c = caseOf({ kg: 20000 })
    expect(assess({ ...c, conditions: { wind_mps: null } }).verdict).toBe('not-proven')
    expect(assess({ ...c, conditions: { wind_mps: 8.5 } }).governing?.check).toBe('wind')
    expect(assess({ ...c, tables: [] }).verdict).toBe('not-proven')
    expect(judged({ kg: 20000, standing: { fall: { along_pct: 0.25, cross_pct: 0 } } }).slice(0, 2)).toEqual(['outside', 'level'])
    const soft = square.map((t) => ({ ...t, ground: null }))
    expect(judged({ kg: 20000, standing: { towers: soft } }).slice(0, 2)).toEqual(['not-proven', 'ground'])
  })
})

describe('any gantry', () => {
  const tol = (value: number, tolerance: number) => ({ value, tolerance })
  const any = fc.record({
    kg: fc.double({ min: 2000, max: 26000, noNaN: true }),
    x_m: fc.double({ min: -1.2, max: 1.2, noNaN: true }),
    y_m: fc.double({ min: -0.3, max: 0.3, noNaN: true }),
    z_m: fc.double({ min: -2, max: 2, noNaN: true }),
    along: fc.double({ min: -0.2, max: 0.2, noNaN: true }),
    cross: fc.double({ min: -0.2, max: 0.2, noNaN: true }),
    off: fc.double({ min: 0, max: 0.2, noNaN: true }),
    linkage: fc.constantFrom('one-point-per-header' as const, 'four-links' as const),
    wide: fc.array(fc.double({ min: 1.6, max: 2.6, noNaN: true }), { minLength: 8, maxLength: 8 }),
    pull: fc.array(fc.double({ min: -1, max: 1, noNaN: true }), { minLength: 5, maxLength: 5 }),
  })
  const signs = [
    [1, 1],
    [1, -1],
    [-1, 1],
    [-1, -1],
  ] as const
  const standingOf = (wide: readonly number[]) =>
    ['A', 'B', 'C', 'D'].map((id, i) =>
      at(id, (signs[i]?.[0] ?? 1) * (wide[2 * i] ?? 2), (signs[i]?.[1] ?? 1) * (wide[2 * i + 1] ?? 2)),
    )
  it('shares out the whole of a load from one point a header, and never more than a quarter too little from four links', () => {
    fc.assert(
      fc.property(any, ({ kg, x_m, y_m, z_m, wide }) => {
        const cg = { x_m, y_m, z_m }
        const towers = standingOf(wide)
        const one = new GantryContext(caseOf({ kg, cg, standing: { towers } }), 0).shares ?? []
        expect(one.reduce((s, t) => s + t.most, 0)).toBeCloseTo(1, 9)
        const four = new GantryContext(caseOf({ kg, cg, standing: { towers, linkage: 'four-links' } }), 0).shares ?? []
        // Statics of any three that hold it is within the bound, so that together they carry it at least once.
        expect(four.reduce((s, t) => s + t.most, 0)).toBeGreaterThanOrEqual(1 - 1e-9)
      }),
      { numRuns: runs(1000) },
    )
  })
  it('finds no tower less used than anywhere inside the doubt', () => {
    fc.assert(
      fc.property(any, ({ kg, x_m, y_m, z_m, along, cross, off, linkage, wide, pull }) => {
        const towers = standingOf(wide)
        const [px = 0, py = 0, pz = 0, pa = 0, pc = 0] = pull
        const doubtful = caseOf({
          kg,
          cg: { x_m: tol(x_m, off), y_m: tol(y_m, off), z_m: tol(z_m, off) },
          standing: { towers, linkage, fall: { along_pct: tol(along, off), cross_pct: tol(cross, off) } },
        })
        const inside = caseOf({
          kg,
          cg: { x_m: x_m + px * off, y_m: y_m + py * off, z_m: z_m + pz * off },
          standing: { towers, linkage, fall: { along_pct: along + pa * off, cross_pct: cross + pc * off } },
        })
        const [worst, sample] = [onTower(doubtful), onTower(inside)]
        for (const [i, kg] of sample.entries()) expect(worst[i] ?? 0).toBeGreaterThanOrEqual(kg - 1e-6)
      }),
      { numRuns: runs(1000) },
    )
  })
  it('never gets better with more on it, more wind, or a steeper track', () => {
    const rank = { inside: 0, near: 1, 'not-proven': 2, outside: 3 }
    fc.assert(
      fc.property(any, fc.double({ min: 1, max: 1.5, noNaN: true }), ({ kg, x_m, y_m, z_m, along, linkage }, more) => {
        const cg = { x_m, y_m, z_m }
        const standing = { linkage, fall: { along_pct: along, cross_pct: 0 } }
        const c = caseOf({ kg, cg, standing })
        const worse = caseOf({ kg: kg * more, cg, standing })
        const lightest_kg = kg
        worse.lift.hung.load.lightest_kg = lightest_kg
        expect(rank[assess(worse).verdict]).toBeGreaterThanOrEqual(rank[assess(c).verdict])
        const windy = assess({ ...c, conditions: { wind_mps: 2 * more } })
        expect(rank[windy.verdict]).toBeGreaterThanOrEqual(rank[assess(c).verdict])
      }),
      { numRuns: runs(300) },
    )
  })
  it('presses each cylinder with what its tower carries', () => {
    const { findings } = assess(caseOf({ kg: 20000 }))
    const pressed = findings.find((f) => f.id === 'structure:pressure')
    expect(pressed?.measured).toBeCloseTo(((6398.1818 * 1.1 + 450) * g_mps2) / 0.0061 / 1000, 1)
  })
  it('whoever walks along stays outside the barriers round towers and load, wherever those may be within their doubt', () => {
    const [length_m, width_m, off_m] = [2.4, 1.2, fulmar.gantry.stand.barriers_m]
    fc.assert(
      fc.property(
        fc.record({
          x: fc.double({ min: -12, max: 12, noNaN: true }),
          y: fc.double({ min: -12, max: 12, noNaN: true }),
          doubt: fc.double({ min: 0, max: 0.2, noNaN: true }),
          centre: fc.double({ min: -1.2, max: 1.2, noNaN: true }),
          shifted: fc.double({ min: -0.3, max: 0.3, noNaN: true }),
        }),
        ({ x, y, doubt, centre, shifted }) => {
          const towers = square.map((t) => ({ ...t, x_m: { value: t.x_m, tolerance: doubt } }))
          const c = caseOf({
            kg: 9000,
            cg: { x_m: centre, y_m: 0, z_m: -1 },
            standing: { towers },
            steps: [
              { do: 'hoist', laden: true, from_m: 3, to_m: 3.5, which: 'all' },
              { do: 'traverse', laden: true, of: 'load', from_m: 0, to_m: shifted },
            ],
          })
          const { hung } = c.lift
          const sized = { ...hung, load: { ...hung.load, size: { length_m, width_m, height_m: 1 } } }
          const stands = [{ role: 'spotter' as const, x_m: x, y_m: y }]
          const crew: Crew = { signaller: null, sightBy: 'operator', signals: null, stands }
          const of = (lift: LiftPlan) =>
            assess({ ...c, lift }).findings.find((f) => f.check === 'people' && f.subject === 'stand-1')
          const f = of({ ...c.lift, crew, hung: sized })
          // As near as any place that a footing or the load may have.
          const near = (cx: number, cy: number, hx: number, hy: number) =>
            Math.hypot(Math.max(0, Math.abs(x - cx) - hx), Math.max(0, Math.abs(y - cy) - hy))
          const least = Math.min(
            ...square.flatMap((t) => [-doubt, doubt].map((d) => near(t.x_m + d, t.y_m, 0.45, 0.45))),
            ...[0, shifted].map((s) => near(centre, s, length_m, width_m)),
          )
          expect(f?.measured ?? 0).toBeLessThanOrEqual(least + 1e-9)
          if (least < off_m) expect(f).toMatchObject({ verdict: 'outside', reason: 'stands-inside-barriers', limit: off_m })
          if (Math.abs(x) > 3.7 + doubt + off_m || Math.abs(y) > 2.7 + off_m)
            expect(f).toMatchObject({ verdict: 'inside', reason: 'stands-outside-barriers' })
          expect(of({ ...c.lift, crew })).toMatchObject({ verdict: 'not-proven', reason: 'stands-unsized' })
        },
      ),
      { numRuns: runs(500, 80) },
    )
  })
})
