import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  assess,
  assessSetup,
  type Case,
  type Finding,
  findingWords,
  isWorse,
  type LiftPlan,
  nearestRemedies,
  notCheckedWords,
  outriggersIn,
  pathOf,
  type SetupPlan,
  type SlewStep,
  sayMetric,
  verdictWords,
} from '../src'
import {
  type LiftOver,
  northQuay,
  onlyStep,
  openField,
  tern,
  ternFeet,
  ternLift,
  ternSetup,
  ternTable,
  withOutriggers,
  withSteps,
} from './demo'
import { runs } from './runs'

const calm = { wind_mps: 4 }
const policy = northQuay.policy
const prove = (setup: SetupPlan = ternSetup(), lift: LiftPlan = ternLift(), conditions: { wind_mps: number | null } = calm) =>
  assess({ machine: tern, tables: [ternTable], setup, lift, conditions, place: openField, policy })
const the = (a: { findings: Finding[] }, id: string) => a.findings.find((f) => f.id === id)
const caseOf = (setup: SetupPlan, lift: LiftPlan, wind_mps: number | null = 4): Case => ({
  machine: tern,
  tables: [ternTable],
  setup,
  lift,
  conditions: { wind_mps },
  place: openField,
  policy,
})
const means = { mats: northQuay.mats, canStand: () => true }

describe('assess', () => {
  it('finds a modest lift inside, by every check', () => {
    const a = prove()
    expect(a.verdict).toBe('inside')
    expect(a.findings.map((f) => f.check)).toEqual(
      expect.arrayContaining(['rating', 'hoist-rope', 'hook', 'overturning', 'outrigger', 'ground', 'wind', 'level']),
    )
    expect(a.configuration?.id).toBe('full-heavy')
    expect(a.rated_kg).toBe(9300)
    expect(the(a, 'rating')?.utilisation).toBeCloseTo((2850 + 60 + 220) / 9300, 9)
  })

  it('reads the worst row between the ends, not only the ends', () => {
    const a = prove(ternSetup(), ternLift({ pickUp: { radius_m: 5, slew_deg: 250 }, setDown: { radius_m: 11.5, slew_deg: 260 } }))
    expect(a.rated_kg).toBe(7000)
    expect(a.ratedAt).toEqual({ pick_kg: 13_200, set_kg: 7000 })
    expect(a.readFrom.map((c) => c.row)).toEqual([10, 12])
  })

  it.each<[string, SetupPlan, LiftOver, number | null, string]>([
    [
      'an unknown mass',
      ternSetup(),
      { load: { name: '', mass_kg: null, massSource: null, windArea_m2: 3, dragCoefficient: 1.2 } },
      4,
      'mass',
    ],
    [
      'a mass nobody vouches for',
      ternSetup(),
      { load: { name: '', mass_kg: 2000, massSource: null, windArea_m2: 3, dragCoefficient: 1.2 } },
      4,
      'mass',
    ],
    ['an unread wind', ternSetup(), {}, null, 'wind'],
    ['an unread level', ternSetup({ level: { pitch_deg: null, roll_deg: 0, levelVerified: true } }), {}, 4, 'level'],
    ['a bubble nobody proved', ternSetup({ level: { pitch_deg: 0, roll_deg: 0, levelVerified: false } }), {}, 4, 'level'],
    ['an unmeasured bend of the boom', ternSetup(), { radiusBasis: null }, 4, 'rating'],
    [
      'an unknown sail',
      ternSetup(),
      { load: { name: '', mass_kg: 2000, massSource: 'weighed', windArea_m2: null, dragCoefficient: 1.2 } },
      4,
      'wind',
    ],
  ])('does not prove %s', (_w, setup, lift, wind, id) => {
    const a = prove(setup, ternLift(lift), { wind_mps: wind })
    expect(the(a, id)?.verdict).toBe('not-proven')
    expect(a.verdict).toBe('not-proven')
  })

  it('does not prove ground that nothing may be presumed for, nor ground nobody chose', () => {
    const made = northQuay.ground.find((g) => g.id === 'made') ?? null
    for (const ground of [made, null]) {
      const a = prove(withOutriggers(ternSetup(), (l) => (l.id === 'RR' ? { ...l, ground } : l)))
      expect(the(a, 'ground:RR')?.verdict).toBe('not-proven')
      expect(the(a, 'ground:FR')?.verdict).not.toBe('not-proven')
    }
  })

  it('does not let a table made for full beams cover a side where they are short', () => {
    const short = ternSetup({ left: 'intermediate' })
    const over = (slew_deg: number, configuration?: string) =>
      prove(
        short,
        ternLift({
          pickUp: { radius_m: 7, slew_deg },
          setDown: { radius_m: 8, slew_deg: slew_deg + 10 },
          ...(configuration ? { configuration } : {}),
        }),
      )
    expect(over(260).configuration?.id).toBe('full-right-heavy')
    expect(over(90).configuration?.id).toBe('middle-heavy')
    expect(the(over(90, 'full-heavy'), 'table')).toMatchObject({ verdict: 'outside', reason: 'legs-short' })
    expect(the(over(80, 'full-right-heavy'), 'rating')).toMatchObject({ verdict: 'outside', reason: 'outside-sector' })
  })

  it('says not rated beyond the table, never zero', () => {
    const a = prove(ternSetup(), ternLift({ setDown: { radius_m: 18.5, slew_deg: 300 } }))
    expect(the(a, 'rating')).toMatchObject({ verdict: 'outside', reason: 'not-rated', limit: null, utilisation: null })
    expect(a.rated_kg).toBeNull()
  })

  it('sees the whole arc: a path that swings over the short side is worse than its ends', () => {
    const short = ternSetup({ left: 'retracted' })
    const ends = { pickUp: { radius_m: 9, slew_deg: 200 }, setDown: { radius_m: 9, slew_deg: 340 } }
    const right = prove(short, ternLift({ ...ends, slewDirection: 'anticlockwise' }))
    const left = prove(short, ternLift({ ...ends, slewDirection: 'clockwise' }))
    expect(the(left, 'overturning')?.limit as number).toBeLessThan(the(right, 'overturning')?.limit as number)
  })

  it('never gets a better verdict from more tolerance', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 500, max: 9000, noNaN: true }),
        fc.double({ min: 0, max: 400, noNaN: true }),
        fc.double({ min: 0, max: 400, noNaN: true }),
        (value, tolerance, more) => {
          const at = (t: number) =>
            prove(
              ternSetup(),
              ternLift({
                load: {
                  name: '',
                  mass_kg: { value, tolerance: t },
                  massSource: 'worked-out',
                  windArea_m2: 3,
                  dragCoefficient: 1.2,
                },
              }),
            )
          expect(isWorse(at(tolerance).verdict, at(tolerance + more).verdict)).toBe(false)
        },
      ),
      {
        numRuns: 60,
        // A mass that may be as good as nothing: its wind limit is nothing, too.
        examples: [
          [500, 100.00000000000027, 399.9999999999998],
          [500, 100, 400],
        ],
      },
    )
  })

  it('uses more of every limit with a heavier load', () => {
    fc.assert(
      fc.property(fc.double({ min: 500, max: 6000, noNaN: true }), fc.double({ min: 1, max: 2000, noNaN: true }), (kg, more) => {
        const at = (mass_kg: number) =>
          prove(
            ternSetup(),
            ternLift({ load: { name: '', mass_kg, massSource: 'weighed', windArea_m2: 0, dragCoefficient: 1.2 } }),
          )
        const [light, heavy] = [at(kg), at(kg + more)]
        for (const id of ['rating', 'hoist-rope', 'hook', 'overturning'])
          expect(the(heavy, id)?.utilisation as number).toBeGreaterThanOrEqual(the(light, id)?.utilisation as number)
      }),
      { numRuns: 40 },
    )
  })

  it('keeps every rating of the table inside what stability allows, where stability set it', () => {
    const stops: Record<string, string> = { full: 'fullyExtended', middle: 'intermediate', in: 'retracted' }
    for (const c of ternTable.configurations.filter((x) => x.appliesTo.standing?.counterweight_kg === 6400)) {
      const [left, right] = [
        c.id.startsWith('full-left')
          ? 'fullyExtended'
          : c.id.startsWith('full-right')
            ? 'retracted'
            : stops[c.id.split('-')[0] ?? ''],
        c.id.startsWith('full-right')
          ? 'fullyExtended'
          : c.id.startsWith('full-left')
            ? 'retracted'
            : stops[c.id.split('-')[0] ?? ''],
      ] as ['fullyExtended', 'fullyExtended']
      const slew = c.appliesTo.sector?.from_deg ?? 0
      const to = c.appliesTo.sector?.to_deg ?? 359
      for (const row of c.rows.filter((_, i) => i % 4 === 1)) {
        row.ratings_kg.forEach((kg, i) => {
          if (kg === null || kg < 900) return
          const a = assess({
            machine: tern,
            tables: [ternTable],
            setup: ternSetup({ left, right, level: { pitch_deg: 0, roll_deg: 0, levelVerified: true }, partsOfLine: 8 }),
            lift: ternLift({
              load: { name: '', mass_kg: kg - 360, massSource: 'marked', windArea_m2: 0, dragCoefficient: 1.2 },
              rigging: [],
              boom_m: Number(c.columns[i]),
              pickUp: { radius_m: Number(row.at), slew_deg: slew },
              setDown: { radius_m: Number(row.at), slew_deg: to },
              configuration: c.id,
            }),
            conditions: { wind_mps: 0 },
            place: openField,
            policy,
          })
          expect(the(a, 'overturning')?.verdict, `${c.id} ${Number(row.at)} ${c.columns[i]}`).not.toBe('outside')
          expect(the(a, 'rating')?.verdict).toBe('near')
        })
      }
    }
  })

  it('refuses a leg, a reeving or a counterweight the machine has not got', () => {
    const { standing, ...rest } = ternSetup()
    const without = { on: 'outriggers' as const, outriggers: outriggersIn(standing).slice(1) }
    expect(() => prove({ ...rest, standing: without })).toThrow(/front left leg/)
    expect(() => prove(ternSetup({ partsOfLine: 3 }))).toThrow(/3 parts/)
    expect(() => prove({ ...ternSetup(), fitted: { counterweight: 'heavy' } })).toThrow(/how many parts/)
    expect(() => prove(ternSetup({ counterweight: 'none' }))).toThrow(/counterweight/)
  })

  it('words every finding it can make, and never calls anything safe', () => {
    const seen = [
      prove(),
      prove(
        ternSetup({ left: 'retracted' }),
        ternLift({
          pickUp: { radius_m: 12, slew_deg: 60 },
          setDown: { radius_m: 14, slew_deg: 100 },
          load: { name: '', mass_kg: 9000, massSource: 'weighed', windArea_m2: 40, dragCoefficient: 1.4 },
        }),
        { wind_mps: 12 },
      ),
      prove(ternSetup(), ternLift({ radiusBasis: null })),
      prove(ternSetup(), ternLift({ setDown: { radius_m: 25, slew_deg: 300 } })),
    ].flatMap((a) => a.findings)
    for (const f of seen) {
      const w = findingWords(f, sayMetric)
      expect(w.what).not.toBe(f.reason)
      expect(`${w.title} ${w.what} ${w.todo}`).not.toMatch(/\bsafe|undefined|NaN/i)
    }
    expect(Object.values(verdictWords)).toHaveLength(4)
    for (const n of prove().notChecked) expect(notCheckedWords[n].length).toBeGreaterThan(10)
  })
})

describe('the nearest change', () => {
  it('brings a load that is too far out inside by less radius, and a fresh assessment agrees', () => {
    const c = caseOf(
      ternSetup(),
      ternLift({
        load: { name: '', mass_kg: 7200, massSource: 'weighed', windArea_m2: 3, dragCoefficient: 1.2 },
        setDown: { radius_m: 13, slew_deg: 300 },
        pickUp: { radius_m: 6, slew_deg: 250 },
      }),
    )
    const failed = the(assess(c), 'rating')
    expect(failed?.verdict).toBe('outside')
    const offers = nearestRemedies(c, failed as Finding, means)
    const radius = offers.find((o) => o.change.kind === 'radius')
    for (const o of offers) {
      if (!o.changedCase) continue
      const again = assess({ ...c, ...o.changedCase })
      expect(again).toEqual(o.assessment)
      expect(again.findings.filter((f) => f.check === 'rating' || f.check === 'table').every((f) => f.verdict === 'inside')).toBe(
        true,
      )
    }
    // A little further out than offered is no longer inside: it is the nearest, to the table's step.
    if (radius?.change.kind !== 'radius') throw new Error('no radius offered')
    const offered = radius.change.radius_m
    const further = assess({ ...c, lift: withSteps(c.lift, { setDown: { radius_m: offered + 0.1, slew_deg: 300 } }) })
    expect(the(further, 'rating')?.verdict).not.toBe('inside')
  })

  it('offers legs further out, only where they can stand', () => {
    const c = caseOf(
      ternSetup({ left: 'retracted', right: 'intermediate' }),
      ternLift({
        load: { name: '', mass_kg: 6500, massSource: 'weighed', windArea_m2: 3, dragCoefficient: 1.2 },
        setDown: { radius_m: 10, slew_deg: 280 },
      }),
    )
    const failed = assess(c).governing as Finding
    const free = nearestRemedies(c, failed, means).find((o) => o.change.kind === 'extension')
    expect(free?.assessment?.verdict).toMatch(/inside|near/)
    expect(nearestRemedies(c, failed, { ...means, canStand: () => false }).some((o) => o.change.kind === 'extension')).toBe(false)
  })

  it('offers a mat, parts of line, and waiting for the wind', () => {
    const noMats = withOutriggers(ternSetup(), (l) => ({ ...l, mat: null }))
    const ground = caseOf(noMats, ternLift())
    const g = assess(ground).findings.find((f) => f.check === 'ground' && f.verdict === 'outside') as Finding
    expect(nearestRemedies(ground, g, means).map((o) => o.change.kind)).toContain('mat')
    const line = caseOf(
      ternSetup({ partsOfLine: 2 }),
      ternLift({
        load: { name: '', mass_kg: 7600, massSource: 'weighed', windArea_m2: 3, dragCoefficient: 1.2 },
        setDown: { radius_m: 7, slew_deg: 300 },
      }),
    )
    expect(nearestRemedies(line, the(assess(line), 'hoist-rope') as Finding, means)[0]?.change).toEqual({
      kind: 'parts-of-line',
      partsOfLine: 4,
    })
    const gusty = caseOf(ternSetup(), ternLift(), 12)
    const w = nearestRemedies(gusty, the(assess(gusty), 'wind') as Finding, means)
    expect(w[0]?.change.kind).toBe('wind')
    expect(w[0]?.assessment?.verdict).toBe('inside')
  })
})

describe('path and circle', () => {
  it('turns the way it is told', () => {
    const arc = (turn: SlewStep['slewDirection'], from: number, to: number) =>
      pathOf(
        onlyStep(
          ternLift({ slewDirection: turn, pickUp: { radius_m: 5, slew_deg: from }, setDown: { radius_m: 5, slew_deg: to } }),
        ),
      ).arc
    expect(arc('anticlockwise', 350, 20)).toEqual({ from_deg: 350, to_deg: 380 })
    expect(arc('clockwise', 350, 20)).toEqual({ from_deg: 350, to_deg: 20 })
    expect(arc('clockwise', 90, 90)).toEqual({ from_deg: 90, to_deg: 90 })
  })
  it('names the leg that lightens first: opposite the boom', () => {
    const plan = { machine: tern, tables: [ternTable], setup: ternSetup(), place: openField, policy }
    const c = assessSetup(plan, { boom_m: 19.4, radius_m: 9, load_kg: 3000 })
    expect(c.laden).toHaveLength(4)
    const foot = ternFeet(ternSetup()).find((l) => l.id === c.lightens?.id)
    const bearing = (Math.atan2(foot?.y_m ?? 0, foot?.x_m ?? 0) * 180) / Math.PI
    const away = Math.abs((((((c.lightens?.at_deg ?? 0) - bearing) % 360) + 540) % 360) - 180)
    expect(away).toBeGreaterThan(120)
    expect(assessSetup(plan, { boom_m: 19.4, radius_m: 9, load_kg: null }).laden).toBeNull()
    expect(() => assessSetup(plan, { boom_m: 9.8, radius_m: 19, load_kg: null })).toThrow(/does not get to this radius/)
  })
})

describe('set up and prove', () => {
  it('judge one outrigger alike: same load, same radius, same slews', () => {
    const share = fc.double({ min: 0, max: 1, noNaN: true })
    const drawn = fc.record({
      radius_m: fc.double({ min: 4, max: 15, noNaN: true }),
      from_deg: fc.integer({ min: 0, max: 359 }),
      by_deg: fc.integer({ min: 1, max: 200 }),
      mass_kg: fc.integer({ min: 300, max: 4000 }),
      pitch_deg: share,
      legLoads: fc.constantFrom('upper' as const, 'elastic' as const),
      out: fc.constantFrom('intermediate' as const, 'fullyExtended' as const),
    })
    fc.assert(
      fc.property(drawn, ({ radius_m, from_deg, by_deg, mass_kg, pitch_deg, legLoads, out }) => {
        const level = { pitch_deg: pitch_deg / 3, roll_deg: 0, levelVerified: true }
        const plan = {
          machine: tern,
          tables: [ternTable],
          setup: ternSetup({ left: out, level }),
          place: openField,
          policy: { ...policy, legLoads },
        }
        const load = { name: '', mass_kg, massSource: 'weighed', windArea_m2: 0, dragCoefficient: 1.2 } as const
        const lift = ternLift({
          load,
          rigging: [],
          pickUp: { radius_m, slew_deg: from_deg },
          setDown: { radius_m, slew_deg: (from_deg + by_deg) % 360 },
        })
        const proved = assess({ ...plan, lift, conditions: { wind_mps: 0 } }, { points: 180 })
        if (proved.hookLoad_kg === null || proved.outriggers.length === 0) return
        const arc = { from_deg, to_deg: from_deg + by_deg }
        const setUp = assessSetup(plan, { boom_m: onlyStep(lift).boom_m, radius_m, load_kg: proved.hookLoad_kg, arc })
        const outriggers = (list: readonly Finding[]) =>
          list.filter((f) => f.check === 'outrigger' || f.check === 'ground').map(({ where: _, ...f }) => f)
        expect(outriggers(setUp.findings).length).toBeGreaterThan(4)
        expect(outriggers(setUp.findings)).toEqual(outriggers(proved.findings))
      }),
      { numRuns: runs(1000, 100) },
    )
  })
})
