import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { assess, type Case, type Finding, governingOf, type LiftPlan, liftPlan, type SlewStep, setupPlan } from '../src'
import { demoMachine, northQuay, onlyStep, openField, tern, ternLift, ternSetup, ternTable } from './demo'
import { runs } from './runs'

const caseOf = (lift: LiftPlan): Case => ({
  machine: tern,
  tables: [ternTable],
  setup: ternSetup(),
  lift,
  conditions: { wind_mps: 4 },
  place: openField,
  policy: northQuay.policy,
})
const load = (mass_kg: number) => ({
  name: '',
  mass_kg,
  massSource: 'weighed' as const,
  windArea_m2: 2,
  dragCoefficient: 1.2,
})
const point = fc.record({
  radius_m: fc.double({ min: 3.5, max: 17, noNaN: true }),
  slew_deg: fc.double({ min: 0, max: 359, noNaN: true }),
})
const step: fc.Arbitrary<SlewStep> = fc.record({
  do: fc.constant('slew' as const),
  laden: fc.constant(true),
  boom_m: fc.constantFrom(14.6, 19.4, 24.2),
  pickUp: point,
  setDown: point,
  slewDirection: fc.constantFrom('anticlockwise' as const, 'clockwise' as const),
  radiusBasis: fc.constant('measured-under-load' as const),
})
const configuration = 'full-heavy'
const withSteps = (steps: SlewStep[], mass_kg = 2000): LiftPlan => ({
  ...ternLift({ load: load(mass_kg), configuration }),
  steps,
})

describe('a lift of several steps', () => {
  it('finds of each thing the worst that any of its steps by itself finds', () => {
    fc.assert(
      fc.property(fc.array(step, { minLength: 2, maxLength: 4 }), fc.integer({ min: 300, max: 9000 }), (steps, kg) => {
        const whole = assess(caseOf(withSteps(steps, kg)))
        const single = steps.map((s) => assess(caseOf(withSteps([s], kg))))
        // Drawing the boom out under load is the one thing that only several steps do.
        const is = (id: string) => whole.findings.find((f) => f.id === id)
        expect(is('two-block') !== undefined).toBe(steps.some((s, i) => s.boom_m > (steps[i - 1]?.boom_m ?? Infinity)))
        const ids = new Set(single.flatMap((a) => a.findings.map((f) => f.id)))
        expect(new Set(whole.findings.map((f) => f.id).filter((id) => id !== 'two-block'))).toEqual(ids)
        for (const id of ids) {
          const own = single.flatMap((a) => a.findings.filter((f) => f.id === id))
          // Not rated at all is worse than any share of what is.
          const none = own.find((f) => f.verdict === 'outside' && f.utilisation === null && f.limit === null)
          const worst = none ?? (governingOf(own) as Finding)
          expect(is(id), id).toMatchObject({ verdict: worst.verdict, utilisation: worst.utilisation })
        }
        expect(whole.verdict).toBe(governingOf(whole.findings)?.verdict)
        for (const f of whole.findings) if (f.at) expect(f.where?.step).toBeLessThan(steps.length)
      }),
      { numRuns: runs(400, 25) },
    )
  })

  it('turns a step with the hook empty no heavier than the hook, whatever the load', () => {
    const out: SlewStep = {
      ...onlyStep(ternLift()),
      laden: false,
      pickUp: { radius_m: 14, slew_deg: 40 },
      setDown: { radius_m: 12, slew_deg: 90 },
    }
    const there = (kg: number) => assess(caseOf(withSteps([out], kg)))
    const { findings, ...light } = there(500)
    expect(there(20_000)).toEqual({ ...light, findings })
    expect(light.hookLoad_kg).toBe(220 + 60)
    // With the load it would not even be rated there.
    expect(assess(caseOf(withSteps([{ ...out, laden: true }], 20_000))).verdict).toBe('outside')
    const both = assess(caseOf(withSteps([onlyStep(ternLift()), out], 500)))
    expect(both.hookLoad_kg).toBe(500 + 220 + 60)
  })
})

describe('plans', () => {
  it('ask no machine for a step that its parts do not make', () => {
    const c = caseOf(ternLift())
    expect(() => assess({ ...c, machine: demoMachine('puffin') })).toThrow(
      expect.objectContaining({ code: 'step-not-possible', path: 'lift.steps.0.do' }),
    )
  })
  it('hold one step at least, twelve at most, each one that there is', () => {
    const lift = ternLift()
    const refuses = (steps: unknown[]) => !liftPlan.safeParse({ ...lift, steps }).success
    expect(refuses([])).toBe(true)
    expect(refuses(Array(12).fill(lift.steps[0]))).toBe(false)
    expect(refuses(Array(13).fill(lift.steps[0]))).toBe(true)
    expect(refuses([{ ...lift.steps[0], do: 'fly' }])).toBe(true)
    const { standing, ...setup } = ternSetup()
    expect(setupPlan.safeParse({ ...setup, standing: { ...standing, on: 'stilts' } }).success).toBe(false)
  })
})
