import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  assess,
  calculatorNamed,
  g_mps2,
  inSector,
  normalDegrees,
  outwardShift_m,
  pathOf,
  poseMachine,
  prepareFootprint,
  type RatingTable,
  resultantAt,
  type StandingConfiguration,
  saysStanding,
  telescopicBoom,
  tippingLoad,
  upperMasses,
} from '../src'
import { candidatesFor, chooseTable, ratedAtEnds, sectorHolds, worstOnPath } from '../src/check/choose-table'
import { polygonStability } from '../src/parts/stability/polygon'
import { reactionsAt } from '../src/statics/support-reactions'
import { demoTable, northQuay, onlyStep, openField, tern, ternFeet, ternLift, ternSetup, ternTable } from './demo'
import { runs } from './runs'

const config = (id: string): StandingConfiguration => {
  const c = ternTable.configurations.find((x) => x.id === id)
  if (!c || !saysStanding(c)) throw new Error(id)
  return c
}
const withBoom = { boom: telescopicBoom(tern.boom), boom_m: 19.4, deflection_m: 0 }
const policy = { readingRule: 'worse-row' as const, near_share: 0.9 }
const feet = (left: 'retracted' | 'intermediate' | 'fullyExtended', right: 'retracted' | 'intermediate' | 'fullyExtended') =>
  ternFeet(ternSetup({ left, right }))

describe('which tables cover a set-up', () => {
  it('those of its counterweight, each with the legs that are short of it', () => {
    const all = candidatesFor([ternTable], 6400, feet('intermediate', 'fullyExtended'), null)
    expect(Object.fromEntries(all.map((c) => [c.configuration.id, c.short]))).toEqual({
      'full-heavy': ['FL', 'RL'],
      'middle-heavy': [],
      'in-heavy': [],
      'full-right-heavy': [],
      'full-left-heavy': ['FL', 'RL'],
    })
    expect(
      candidatesFor([ternTable], 3200, feet('fullyExtended', 'fullyExtended'), null).every(
        (c) => c.configuration.appliesTo.standing.counterweight_kg === 3200,
      ),
    ).toBe(true)
    expect(candidatesFor([demoTable('turnstone-main')], 6400, feet('fullyExtended', 'fullyExtended'), null)).toEqual([])
  })

  it('a wider footprint is never covered by fewer of them', () => {
    const widths = ['retracted', 'intermediate', 'fullyExtended'] as const
    const covered = (l: number, r: number) =>
      candidatesFor([ternTable], 6400, feet(widths[l] as 'retracted', widths[r] as 'retracted'), null)
        .filter((c) => c.short.length === 0)
        .map((c) => c.configuration.id)
    for (const [l, r] of [
      [0, 0],
      [0, 1],
      [1, 0],
      [1, 1],
      [1, 2],
      [2, 1],
    ] as const) {
      const now = covered(l, r)
      for (const more of [covered(Math.min(2, l + 1), r), covered(l, Math.min(2, r + 1))])
        for (const id of now) expect(more).toContain(id)
    }
  })
})

describe('sectors', () => {
  it('hold an arc only when they hold every angle of it, whichever way it is turned', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 360, noNaN: true }),
        fc.double({ min: -359, max: 359, noNaN: true }),
        fc.constantFrom('full-right-heavy', 'full-left-heavy', 'full-heavy'),
        (from_deg, by, id) => {
          const c = config(id)
          const arc = { from_deg, to_deg: from_deg + by }
          const every = Array.from({ length: 721 }, (_, i) =>
            inSector(c.appliesTo, normalDegrees(from_deg + (by * i) / 720)),
          ).every(Boolean)
          expect(sectorHolds(c, arc)).toBe(every)
        },
      ),
      { numRuns: 400 },
    )
  })
})

describe('reading a path', () => {
  it('is the least of any single reading on it', () => {
    fc.assert(
      fc.property(fc.double({ min: 3.5, max: 17, noNaN: true }), fc.double({ min: 3.5, max: 17, noNaN: true }), (a, b) => {
        const path = pathOf(
          onlyStep(ternLift({ pickUp: { radius_m: a, slew_deg: 250 }, setDown: { radius_m: b, slew_deg: 260 } })),
        )
        const stretch = { step: 0, path, ...withBoom }
        const worst = worstOnPath({ table: ternTable, configuration: config('full-heavy') }, stretch, 'worse-row').read.gross_kg
        const single = Array.from({ length: 60 }, (_, i) => {
          const r = a + ((b - a) * i) / 59
          return worstOnPath(
            { table: ternTable, configuration: config('full-heavy') },
            { ...stretch, path: { ...path, radii_m: [r], least_m: r, greatest_m: r } },
            'worse-row',
          ).read.gross_kg as number
        })
        expect(worst).toBe(Math.min(...single))
      }),
      { numRuns: 60 },
    )
  })
  it('reads both ends at the worse end of what was paced', () => {
    const lift = ternLift({
      pickUp: { radius_m: { value: 6.9, tolerance: 0.2 }, slew_deg: 250 },
      setDown: { radius_m: 9, slew_deg: 300 },
    })
    expect(ratedAtEnds({ table: ternTable, configuration: config('full-heavy') }, onlyStep(lift), withBoom, policy)).toEqual({
      pick_kg: 10_500,
      set_kg: 9300,
    })
  })
  it('follows a site’s straight line only where the table permits it', () => {
    const at = (table: RatingTable, readingRule: 'linear' | 'worse-row') => {
      const lift = ternLift({
        pickUp: { radius_m: 9.5, slew_deg: 260 },
        setDown: { radius_m: 9.5, slew_deg: 270 },
        configuration: 'full-heavy',
      })
      const plan = { machine: tern, tables: [table], setup: ternSetup(), lift, policy: { ...northQuay.policy, readingRule } }
      const stretch = { step: 0, path: pathOf(onlyStep(lift)), ...withBoom }
      return chooseTable(plan, [stretch], 6400, { contacts: feet('fullyExtended', 'fullyExtended'), state: null }, null).reading
        ?.gross_kg
    }
    expect(at(ternTable, 'linear')).toBe(7800)
    expect(at({ ...ternTable, linearPermitted: true }, 'linear')).toBeCloseTo(8550, 9)
    expect(at({ ...ternTable, linearPermitted: true }, 'worse-row')).toBe(7800)
  })
})

describe('standing', () => {
  it('shifts the load outwards by tilt and wind: closed form', () => {
    expect(outwardShift_m(20, 1000, { tilt_deg: 0, wind_N: 0 })).toBe(0)
    expect(outwardShift_m(20, 1000, { tilt_deg: 1, wind_N: 0 })).toBeCloseTo(20 * Math.tan(Math.PI / 180), 12)
    expect(outwardShift_m(20, 1000, { tilt_deg: 0, wind_N: g_mps2 * 10 })).toBeCloseTo(0.2, 12)
    expect(outwardShift_m(20, 0, { tilt_deg: 0, wind_N: 50 })).toBe(0)
  })
  it('finds on the arc what the tipping-load calculator finds at its worst slew', () => {
    const setup = ternSetup()
    const supports = ternFeet(setup)
    const counterweight = { mass_kg: 6400, radius_m: -2.65 }
    const { tipping } = polygonStability(tern, counterweight, prepareFootprint(supports)).standingAt({
      boom_m: 19.4,
      deflection_m: 0,
      arc: { from_deg: 200, to_deg: 330 },
      radius_m: 12,
      load: { total_kg: 3000, dynamicFactor: 1, outward: { tilt_deg: 0, wind_N: 0 }, onBoom: [] },
      rules: ['75%'],
      loads: 'upper',
    })
    const at = tipping()
    const { angle_deg } = poseMachine(tern, counterweight, telescopicBoom(tern.boom), { boom_m: 19.4, radius_m: 12 }).pose
    const one = (slew_deg: number) =>
      tippingLoad({
        supports,
        masses: tern.chassis.masses,
        slewing: [...upperMasses(tern.upper, counterweight), ...telescopicBoom(tern.boom).massesAt(19.4, angle_deg)],
        radius_m: 12,
        slew_deg,
        rule: '75%',
      }).ratedByStability_kg as number
    const least = Math.min(...Array.from({ length: 1301 }, (_, i) => one(200 + i / 10)))
    expect(at.rated_kg).toBeCloseTo(one(at.slew_deg), 6)
    expect(at.rated_kg as number).toBeLessThanOrEqual(least * (1 + 1e-6))
  })
})

describe('outriggers between the ends of a lift', () => {
  let between = 0
  it('never carry more at any radius, at any slew, laden or with the hook empty, than the assessment says', () => {
    const length = fc.double({ min: 3.5, max: 14, noNaN: true })
    const lift = fc.record({ a: length, b: length, from: fc.integer({ min: 0, max: 359 }), by: fc.integer({ min: 0, max: 120 }) })
    fc.assert(
      fc.property(lift, fc.integer({ min: 200, max: 3500 }), ({ a, b, from, by }, mass_kg) => {
        const load = { name: '', mass_kg, massSource: 'weighed', windArea_m2: 0, dragCoefficient: 1.2 } as const
        const ends = { pickUp: { radius_m: a, slew_deg: from }, setDown: { radius_m: b, slew_deg: (from + by) % 360 } }
        const plan = {
          machine: tern,
          tables: [ternTable],
          conditions: { wind_mps: 0 },
          place: openField,
          policy: northQuay.policy,
        }
        const level = { pitch_deg: 0, roll_deg: 0, levelVerified: true }
        const setup = ternSetup({ level })
        const proved = assess({ ...plan, setup, lift: ternLift({ load, rigging: [], boom_m: 19.4, ...ends }) })
        if (proved.outriggers.length === 0) return
        const f = prepareFootprint(ternFeet(setup))
        const hung = (mass_kg + 220) * northQuay.policy.dynamicFactor
        const carried = (radius_m: number, slew_deg: number, kg: number) => {
          const { fixed, slewing } = poseMachine(tern, { mass_kg: 6400, radius_m: -2.65 }, telescopicBoom(tern.boom), {
            boom_m: 19.4,
            radius_m,
          })
          const force_N = slewing.force_N + kg * g_mps2
          const along_Nm = slewing.along_Nm + kg * g_mps2 * radius_m
          return reactionsAt(f, resultantAt(fixed, { force_N, along_Nm, across_Nm: slewing.across_Nm }, slew_deg)).reactions ?? []
        }
        for (let i = 0; i <= 12; i++)
          for (let j = 0; j <= 12; j++)
            for (const kg of [0, hung])
              for (const x of carried(a + (i / 12) * (b - a), from + (j / 12) * by, kg)) {
                const said = proved.outriggers.find((l) => l.id === x.id)?.upper_N ?? 0
                expect(x.upper_N).toBeLessThanOrEqual(said * (1 + 1e-6))
              }
        // And it carries that where the finding says, laden or empty.
        for (const x of proved.findings) {
          if (x.check !== 'outrigger' || !('empty' in x.detail) || x.at === null || x.measured === null) continue
          const there = carried(x.at.radius_m, x.at.slew_deg, x.detail.empty ? 0 : hung).find((r) => r.id === x.subject)
          expect(Math.abs((there?.upper_N ?? 0) / x.measured - 1)).toBeLessThan(1e-6)
          if (x.at.radius_m > Math.min(a, b) + 1e-6 && x.at.radius_m < Math.max(a, b) - 1e-6) between++
        }
      }),
      { numRuns: runs(2000, 60) },
    )
  })
  it('some of them most between the two radii', () => {
    expect(between).toBeGreaterThan(3)
  })
})

describe('backward', () => {
  it('is what the calculator says of the empty machine with its boom up, whatever is to be lifted', () => {
    for (const out of ['retracted', 'intermediate', 'fullyExtended'] as const)
      for (const { id, ...counterweight } of tern.upper.counterweights)
        for (const boom_m of tern.boom.lengths_m) {
          const plan = {
            machine: tern,
            tables: [ternTable],
            conditions: { wind_mps: 0 },
            place: openField,
            policy: northQuay.policy,
          }
          const setup = ternSetup({ left: out, right: out, counterweight: id })
          const near = { radius_m: 5, slew_deg: 90 }
          const f = assess({ ...plan, setup, lift: ternLift({ boom_m, pickUp: near, setDown: near }) }).findings.find(
            (x) => x.check === 'backward',
          )
          const r = calculatorNamed('backward-stability')?.run({
            supports: feet(out, out),
            masses: tern.chassis.masses.map(({ mass_kg, x_m, y_m }) => ({ mass_kg, x_m, y_m })),
            slewing: [
              ...upperMasses(tern.upper, counterweight),
              ...telescopicBoom(tern.boom).massesAt(boom_m, tern.boom.maxAngle_deg),
            ],
            crawler: false,
            notRated: [],
          }) as { underBoomShare: number; utilisation: number }
          expect(f?.measured).toBeCloseTo(r.underBoomShare, 6)
          expect(f?.utilisation).toBeCloseTo(r.utilisation, 6)
          expect(f?.limit).toBeCloseTo(0.15, 6)
        }
  })
  it('falls over with more counterweight than the machine is made for', () => {
    const heavy = {
      ...tern,
      upper: { ...tern.upper, counterweights: [{ id: 'huge', label: 'Huge', mass_kg: 120_000, radius_m: -6 }] },
    }
    const level = { pitch_deg: 0, roll_deg: 0, levelVerified: true }
    const plan = { machine: heavy, tables: [ternTable], conditions: { wind_mps: 0 }, place: openField, policy: northQuay.policy }
    const a = assess({ ...plan, setup: ternSetup({ counterweight: 'huge', level }), lift: ternLift() })
    expect(a.findings.find((x) => x.check === 'backward')).toMatchObject({ verdict: 'outside', reason: 'falls-back' })
  })
})
