import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  assess,
  beamOf,
  bendingAt,
  type Case,
  farSupport_N,
  g_mps2,
  isRunway,
  type MarksRead,
  nearestRemedies,
  runwayBeamCalculator,
  type TraverseStep,
  worstBending,
} from '../src'
import { checkNamed, checks } from '../src/check/checks'
import { confirmedBut, demoMachine, demoPlace, demoTable, judgedBy } from './demo'
import { runs } from './runs'

const dipper = demoMachine('dipper')
if (!isRunway(dipper)) throw new RangeError('Dipper hangs under no beam')
const beam = { ...beamOf(dipper.runway), modulus_cm3: dipper.runway.beam.modulus_cm3 }
const all: MarksRead = { hoist: 2100, trolley: 2500, beam: 2500, hook: 2100 }
interface Job {
  kg: number
  marks?: MarksRead
  step?: Partial<TraverseStep>
  without?: string[]
}
const caseOf = ({ kg, marks = all, step, without = [] }: Job): Case => {
  const place = demoPlace('boatyard')
  return {
    machine: dipper,
    tables: [demoTable('dipper-main')],
    setup: {
      format: 'geolabe.setup/2',
      place: place.id,
      position: { x_m: 49, y_m: 27, heading_deg: 0 },
      standing: { on: 'runway', beam: 'wsh-1' },
      fitted: { marks },
      level: { pitch_deg: null, roll_deg: null, levelVerified: false },
      confirmed: confirmedBut(dipper, without),
    },
    lift: {
      format: 'geolabe.lift/2',
      hung: {
        load: { name: 'gearbox', mass_kg: kg, massSource: 'marked', windArea_m2: null, dragCoefficient: 1.2 },
        rigging: [{ name: 'sling', mass_kg: 12, on: 'hook' }],
      },
      steps: [{ do: 'traverse', laden: true, from_m: 1, to_m: 5, ...step }],
    },
    conditions: { wind_mps: null },
    place,
    policy: place.policy,
  }
}
const judged = (job: Job) => judgedBy(caseOf(job))

describe('a hoist under a beam', () => {
  it('reads its jobs by the least mark, and the change offered is what it says', () => {
    expect(judged({ kg: 1400 })).toEqual(['inside', 'rating', 0.672])
    expect(judged({ kg: 1950 })).toEqual(['near', 'rating', 0.934])
    expect(judged({ kg: 2200 })).toEqual(['outside', 'rating', 1.053])
    const c = caseOf({ kg: 2200 })
    const { governing } = assess(c)
    const [change] = governing ? nearestRemedies(c, governing, { mats: [], canStand: () => true }) : []
    expect(change?.change).toMatchObject({ kind: 'mass', mass_kg: 1850 })
    expect(assess({ ...c, ...change?.changedCase }).verdict).toBe('inside')
  })
  it('is not proven with a mark that is not there, evidence that is not confirmed, a mass that nobody knows', () => {
    for (const part of ['hoist', 'trolley', 'beam', 'hook'] as const)
      expect(judged({ kg: 1400, marks: { ...all, [part]: null } })).toEqual(['not-proven', 'rating', null])
    for (const e of dipper.evidence) expect(judged({ kg: 1400, without: [e.id] }).slice(0, 2)).toEqual(['not-proven', 'evidence'])
    const c = caseOf({ kg: 1400 })
    const { hung } = c.lift
    const unknown = { ...c, lift: { ...c.lift, hung: { ...hung, load: { ...hung.load, mass_kg: null, massSource: null } } } }
    expect(assess(unknown).verdict).toBe('not-proven')
    expect(assess({ ...c, tables: [] }).verdict).toBe('not-proven')
  })
  it('counts a mark that was read lower than the one on file, and takes hoist and trolley off the beam’s', () => {
    expect(judged({ kg: 1400, marks: { ...all, hook: 1500 } })).toEqual(['near', 'rating', 0.941])
    // 1,600 on the beam leave 1,505 for what hangs on the hook.
    expect(judged({ kg: 1400, marks: { ...all, beam: 1600 } })).toEqual(['near', 'rating', 0.938])
  })
  it('pulls the far support up from the overhang, which its bolts have to hold', () => {
    const over = { from_m: 3, to_m: 6.8 }
    const far = (job: Job) => assess(caseOf(job)).findings.find((f) => f.subject === 'support')
    expect(far({ kg: 1400 })).toBeUndefined()
    expect(far({ kg: 1400, step: over })?.reason).toBe('held-down')
    expect(far({ kg: 1400, step: over, without: ['bolts'] })).toMatchObject({ reason: 'pulled-up', verdict: 'not-proven' })
  })
  it('refuses a place beyond its stops, another beam and a step that it does not make', () => {
    expect(() => assess(caseOf({ kg: 1400, step: { to_m: 6.9 } }))).toThrow(/end stops let it travel from 0.3 to 6.8 m/)
    const c = caseOf({ kg: 1400 })
    expect(() => assess({ ...c, setup: { ...c.setup, standing: { on: 'runway', beam: 'other' } } })).toThrow(/wsh-1/)
    const stack: Case['lift']['steps'] = [{ do: 'mast', laden: true, waypoints: [{ height_m: 1, tilt_deg: 0, sideShift_m: 0 }] }]
    expect(() => assess({ ...c, lift: { ...c.lift, steps: stack } })).toThrow(/does not stack/)
  })
  it('is not bettered by any check left out', () => {
    const c = caseOf({ kg: 1400, step: { to_m: 6.8 } })
    for (const left of checks.filter((x) => x.runway))
      expect(assess(c, { checks: checks.filter((x) => x !== left) }).verdict).toBe(
        checkNamed(left.id).impliedBy.length > 0 ? 'inside' : 'not-proven',
      )
  })
})

describe('its beam', () => {
  const load_N = (1400 + 95) * g_mps2
  it('bends in the middle, hogs over its support and lifts at the far one as worked by hand', () => {
    expect(bendingAt(beam, load_N, 3, 3)).toBeCloseTo(23761.464, 3)
    expect(bendingAt(beam, load_N, 3, 3) / beam.modulus_cm3).toBeCloseTo(42.65972, 5)
    expect(-bendingAt(beam, load_N, 6.8, 6)).toBeCloseTo(11895.565, 3)
    expect(farSupport_N(beam, load_N, 6.8)).toBeCloseTo(-746.95619, 5)
    const weightless = { ...beam, mass_kg_per_m: 0, overhang_m: 0 }
    expect(worstBending(weightless, 1000, 0, 6)).toMatchObject({ moment_Nm: 1500, section_m: 3 })
    expect(worstBending({ ...weightless, overhang_m: 0.9 }, 1000, 6.5, 6.5).moment_Nm).toBeCloseTo(500, 9)
  })
  const m = (max: number) => fc.double({ min: 0, max, noNaN: true })
  it('is never bent more than is said, by any place of the load at any section, and somewhere exactly so', () => {
    fc.assert(
      fc.property(m(12), m(2), m(200), m(50_000), m(1), m(1), (span, overhang_m, mass_kg_per_m, N, a, b) => {
        const span_m = span + 0.5
        const own = { span_m, overhang_m, mass_kg_per_m }
        const end_m = span_m + overhang_m
        const [from, to] = [Math.min(a, b) * end_m, Math.max(a, b) * end_m]
        const worst = worstBending(own, N, from, to)
        expect(Math.abs(bendingAt(own, N, worst.at_m, worst.section_m))).toBeCloseTo(worst.moment_Nm, 6)
        for (let i = 0; i <= 24; i++)
          for (let k = 0; k <= 48; k++) {
            const bent = Math.abs(bendingAt(own, N, from + ((to - from) * i) / 24, (end_m * k) / 48))
            expect(bent).toBeLessThanOrEqual(worst.moment_Nm * (1 + 1e-9) + 1e-6)
          }
      }),
      { numRuns: runs(1000, 150) },
    )
  })
  it('as a calculator takes the worse end of each ±, and what it says may hang bends it just so far', () => {
    const asked = {
      span_m: beam.span_m,
      overhang_m: beam.overhang_m,
      beam_kg_per_m: beam.mass_kg_per_m,
      sectionModulus_cm3: beam.modulus_cm3,
      allowableStress_MPa: 70,
      hoistAndTrolley_kg: 95,
      onHook_kg: 1400,
      takenUpAt_m: 1,
      putDownAt_m: 5,
    }
    const run = (over: object) => runwayBeamCalculator.output.parse(runwayBeamCalculator.run({ ...asked, ...over }))
    expect(run({ takenUpAt_m: 3, putDownAt_m: 3 }).stress_MPa).toBeCloseTo(42.65972, 4)
    const doubted = runwayBeamCalculator.run({ ...asked, onHook_kg: { value: 1400, tolerance: 50 } })
    expect(doubted).toMatchObject({ high: { stress_MPa: expect.closeTo(run({ onHook_kg: 1450 }).stress_MPa, 9) } })
    fc.assert(
      // Right over a support a load bends nothing.
      fc.property(m(5.4), m(0.5), (from, beyond) => {
        const [takenUpAt_m, putDownAt_m] = [from + 0.3, 6.3 + beyond]
        const { most_kg } = run({ takenUpAt_m, putDownAt_m })
        expect(run({ takenUpAt_m, putDownAt_m, onHook_kg: most_kg }).utilisation).toBeCloseTo(1, 9)
      }),
      { numRuns: runs(2000, 100) },
    )
    expect(runwayBeamCalculator.run({ ...asked, putDownAt_m: 7 })).toMatchObject({
      error: { code: 'out-of-reach', path: 'putDownAt_m' },
    })
    expect(run({ beam_kg_per_m: 20_000 }).most_kg).toBe(0)
  })
  it('carries load and own weight on its two supports and nowhere else', () => {
    fc.assert(
      fc.property(m(6.9), m(30_000), (at_m, N) => {
        // Seen from the other end the moments about the far support are in balance too.
        const near = N + beam.mass_kg_per_m * g_mps2 * 6.9 - farSupport_N(beam, N, at_m)
        const moments = near * beam.span_m - N * at_m - (beam.mass_kg_per_m * g_mps2 * 6.9 ** 2) / 2
        expect(Math.abs(moments)).toBeLessThan(1e-6 * (1 + N))
      }),
      { numRuns: runs(2000, 100) },
    )
  })
})
