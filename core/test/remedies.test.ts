import { describe, expect, it } from 'vitest'
import {
  assess,
  type Case,
  type Finding,
  type LiftPlan,
  nearestRemedies,
  nearShareOf,
  type RemedyKind,
  type SetupPlan,
  uncertaintyOf,
  uncertaintyWords,
} from '../src'
import { northQuay, onlyStep, openField, tern, ternLift, ternSetup, ternTable, withLoad } from './demo'

const means = { mats: northQuay.mats, canStand: () => true }
const caseOf = (setup: SetupPlan, lift: LiftPlan, wind_mps: number | null = 4): Case => ({
  machine: tern,
  tables: [ternTable],
  setup,
  lift,
  conditions: { wind_mps },
  place: openField,
  policy: northQuay.policy,
})
const load = (mass_kg: number) => ({ name: '', mass_kg, massSource: 'weighed' as const, windArea_m2: 2, dragCoefficient: 1.2 })
const failing = (c: Case, check: Finding['check']) =>
  assess(c).findings.find((f) => f.check === check && f.verdict === 'outside') as Finding
const kinds = (c: Case, check: Finding['check']): RemedyKind['kind'][] =>
  nearestRemedies(c, failing(c, check), means).map((o) => o.change.kind)

describe('changes for a lift that leaves its sector', () => {
  const c = caseOf(
    ternSetup({ left: 'intermediate' }),
    ternLift({
      pickUp: { radius_m: 7, slew_deg: 230 },
      setDown: { radius_m: 8, slew_deg: 310 },
      slewDirection: 'clockwise',
      configuration: 'full-right-heavy',
    }),
  )
  it('are turning the other way round, proven by a fresh assessment', () => {
    expect(failing(c, 'rating').reason).toBe('outside-sector')
    const turn = nearestRemedies(c, failing(c, 'rating'), means).find((o) => o.change.kind === 'slew-direction')
    expect(turn?.changedCase && onlyStep(turn.changedCase.lift).slewDirection).toBe('anticlockwise')
    expect(turn?.assessment?.verdict).toBe('inside')
  })
})

describe('changes for a set-down in a sector that the legs are short for', () => {
  it('are another place to set down, no further round than needed', () => {
    const c = caseOf(
      ternSetup({ left: 'intermediate' }),
      ternLift({
        pickUp: { radius_m: 7, slew_deg: 260 },
        setDown: { radius_m: 8, slew_deg: 330 },
        configuration: 'full-right-heavy',
      }),
    )
    const offer = nearestRemedies(c, failing(c, 'rating'), means).find((o) => o.change.kind === 'set-down-slew')
    expect(offer?.change).toMatchObject({ kind: 'set-down-slew', slew_deg: 315, by_deg: -15 })
  })
})

describe('other single changes', () => {
  it('a heavier counterweight where the light one is too little, and one that rates it', () => {
    const offered = [2000, 2500, 3000, 3500, 4000, 4500, 5000, 5500, 6000].flatMap((kg) => {
      const c = caseOf(
        ternSetup({ counterweight: 'light' }),
        ternLift({
          load: load(kg),
          pickUp: { radius_m: 8, slew_deg: 20 },
          setDown: { radius_m: 11, slew_deg: 60 },
          slewDirection: 'anticlockwise',
        }),
      )
      const rating = assess(c).findings.find((f) => f.check === 'rating') as Finding
      if (rating.verdict !== 'outside') return []
      expect(kinds(c, 'rating')).toContain('radius')
      expect(kinds(c, 'rating')).toContain('mass')
      const heavier = nearestRemedies(c, rating, means).find((o) => o.change.kind === 'counterweight')
      if (!heavier) return []
      expect(assess({ ...c, ...(heavier.changedCase as object) }).rated_kg as number).toBeGreaterThan(rating.limit as number)
      return [kg]
    })
    expect(offered.length).toBeGreaterThan(0)
  })
  it('another boom length where this one does not reach', () => {
    const c = caseOf(ternSetup(), ternLift({ boom_m: 9.8, setDown: { radius_m: 11, slew_deg: 300 } }))
    const offers = nearestRemedies(c, failing(c, 'boom-limits'), means)
    expect(offers.find((o) => o.change.kind === 'boom')?.change).toEqual({ kind: 'boom', boom_m: 14.6 })
  })
  it('nothing at all where nothing single is enough, rather than something untrue', () => {
    const c = caseOf(
      ternSetup({ left: 'retracted', right: 'retracted', partsOfLine: 8 }),
      ternLift({
        boom_m: 29,
        load: load(24_000),
        pickUp: { radius_m: 24, slew_deg: 80 },
        setDown: { radius_m: 25, slew_deg: 100 },
      }),
    )
    const f = assess(c).findings.find((x) => x.verdict === 'outside') as Finding
    expect(nearestRemedies(c, f, { mats: [], canStand: () => false }).map((o) => o.change)).toEqual([])
  })
})

describe('a load that can be taken apart', () => {
  it('is offered in as few equal lifts as will do, proven, and never taken for people', () => {
    for (const [kg, lifts] of [
      [10_000, 3],
      [14_000, 4],
    ] as const) {
      const c = caseOf(ternSetup({ partsOfLine: 8 }), ternLift({ load: load(kg), setDown: { radius_m: 8, slew_deg: 300 } }))
      const f = assess(c).findings.find((x) => x.verdict === 'outside') as Finding
      const offer = nearestRemedies(c, f, means).find((o) => o.change.kind === 'split')
      if (offer?.change.kind !== 'split') throw new Error(`no split for ${kg}`)
      expect(offer.change.lifts).toBeLessThanOrEqual(lifts)
      expect(offer.change.mass_kg).toBeCloseTo(kg / offer.change.lifts, 9)
      expect(offer.changedCase).toBeNull()
      expect(offer.assessment?.findings.find((x) => x.id === f.id)?.verdict).toBe('inside')
      const one = assess({ ...c, lift: withLoad(c.lift, load(kg / (offer.change.lifts - 1))) })
      expect(one.findings.find((x) => x.id === f.id)?.verdict).not.toBe('inside')
    }
  })
})

describe('near', () => {
  it('is the same rule for what is offered: wind at a site that begins later than the machine’s own alarm', () => {
    const c = caseOf(ternSetup(), ternLift())
    const gusty = { ...c, conditions: { wind_mps: 12 }, policy: { ...c.policy, near_share: 0.95 } }
    const f = failing(gusty, 'wind')
    const [offer] = nearestRemedies(gusty, f, means)
    expect(offer?.assessment?.findings.find((x) => x.check === 'wind')?.verdict).toBe('inside')
    expect(nearShareOf(gusty)).toBe(tern.approachAlarm_share)
  })
})

describe('doubt', () => {
  const doubtful = (tolerance: number, radius = 0.3): Case => ({
    ...caseOf(ternSetup(), ternLift()),
    lift: ternLift({
      load: { name: '', mass_kg: { value: 4000, tolerance }, massSource: 'weighed', windArea_m2: 3, dragCoefficient: 1.2 },
      setDown: { radius_m: { value: 9, tolerance: radius }, slew_deg: 300 },
    }),
  })
  it('holds the nominal between its ends, and names every ± with what it is answerable for', () => {
    const d = uncertaintyOf(doubtful(200))
    if (!d) throw new Error('no doubt')
    expect(d.low).toBeLessThanOrEqual(d.nominal)
    expect(d.nominal).toBeLessThanOrEqual(d.high)
    expect(d.inputs.map((i) => i.id).sort()).toEqual(['lift.hung.load.mass_kg', 'lift.steps.0.setDown.radius_m'])
    expect(d.inputs[0]?.share ?? 0).toBeGreaterThanOrEqual(d.inputs[1]?.share ?? 0)
    expect(d.high).toBeCloseTo(assess(doubtful(200)).governing?.utilisation ?? 0, 12)
  })
  it('grows with the ±, and a wider ± never gives a better verdict', () => {
    const rank = { inside: 0, near: 1, 'not-proven': 2, outside: 3 }
    let [before, worst] = [0, 0]
    for (const tolerance of [50, 200, 500, 1500, 3000]) {
      const d = uncertaintyOf(doubtful(tolerance))
      const verdict = rank[assess(doubtful(tolerance)).verdict]
      expect(d?.high ?? 0).toBeGreaterThanOrEqual(before)
      expect(verdict).toBeGreaterThanOrEqual(worst)
      before = d?.high ?? 0
      worst = verdict
    }
  })
  it('is none where nothing has a ±', () => {
    expect(uncertaintyOf(caseOf(ternSetup(), ternLift()))).toBeNull()
    expect(uncertaintyOf(doubtful(0, 0))).toBeNull()
    const named = [
      'lift.hung.load.mass_kg',
      'conditions.wind_mps',
      'lift.hung.rigging.0.mass_kg',
      'lift.steps.0.setDown.radius_m',
      'setup.level.roll_deg',
    ]
    expect(new Set(named.map(uncertaintyWords)).size).toBe(named.length)
    expect(named.map(uncertaintyWords)).not.toContain(uncertaintyWords('nowhere'))
  })
})
