import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  type Assessment,
  assess,
  type Case,
  checks,
  isRefusal,
  nearestRemedies,
  Refusal,
  type Step,
  supportChoice,
  sweptTowing,
  TowContext,
} from '../src'
import { runs } from './runs'
import { caseOf, deck, place, type Tow } from './tow-case'

const found = (a: Assessment, id: string) => a.findings.find((f) => f.id === id)
const means = { mats: place.mats, canStand: () => true }

describe('a vehicle behind Plover', () => {
  it('loads both axles by moments: the golden case', () => {
    const at = (lifted_kg: number) => new TowContext(caseOf({ lifted_kg }), 0)
    expect(at(0).unladen.front_kg).toBeCloseTo(7542.093, 4)
    for (const [kg, rear_kg] of [
      [1200, 11133.488],
      [2000, 12417.209],
      [2500, 13219.535],
    ] as const)
      expect(at(kg).axles({ lifted_kg: kg, overhang_m: 2.6 }, 0).rear_kg).toBeCloseTo(rear_kg, 3)
    const most = 2363.1884
    expect(at(most).axles({ lifted_kg: most, overhang_m: 2.6 }, 0).rear_kg).toBeCloseTo(13000, 3)
  })
  it.each([
    ['inside', 1200, 'axle:rear', 0.856],
    ['near', 2000, 'axle:rear', 0.955],
    ['outside', 2500, 'axle:rear', 1.017],
  ] as const)('%s: %d kg', (verdict, lifted_kg, id, share) => {
    const a = assess(caseOf({ lifted_kg }))
    expect([a.verdict, a.governing?.id]).toEqual([verdict, id])
    expect(a.governing?.utilisation).toBeCloseTo(share, 3)
    expect(a.hookLoad_kg).toBe(lifted_kg)
  })
  it('is not proven where what is lifted is not known, though the vehicle’s mass is', () => {
    const a = assess(caseOf({ lifted_kg: null }))
    expect([a.verdict, a.governing?.check]).toEqual(['not-proven', 'mass'])
  })
  it('offers less on the arm, and the arm drawn in, each proved', () => {
    const c = caseOf({ lifted_kg: 2500 })
    const a = assess(c)
    const offers = a.governing ? nearestRemedies(c, a.governing, means) : []
    const less = offers.find((o) => o.change.kind === 'lifted')
    expect(less?.change).toMatchObject({ mass_kg: 1550 })
    expect(less?.assessment?.verdict).toBe('inside')
    expect(less?.changedCase && assess({ ...c, ...less.changedCase }).verdict).toBe('inside')
    // Drawn in whole, 2.5 t stays near its limit: no arm makes it inside.
    expect(offers.some((o) => o.change.kind === 'arm')).toBe(false)
    expect(found(assess(caseOf({ lifted_kg: 2500, overhang_m: 2.2 })), 'axle:rear')?.utilisation).toBeCloseTo(0.999, 3)
    const nearer = caseOf({ lifted_kg: 1600, overhang_m: 2.6 })
    const near = assess(nearer).governing
    const drawn = near ? nearestRemedies(nearer, near, means).find((o) => o.change.kind === 'arm') : undefined
    expect(drawn?.assessment?.verdict).toBe('inside')
  })
  it('is held to the arm by how far it is out', () => {
    const at = (overhang_m: Tow['overhang_m'], lifted_kg = 2100) =>
      found(assess(caseOf({ overhang_m, lifted_kg })), 'structure:arm')
    expect(at(2.8)?.limit).toBe(3000)
    expect(at(3)?.limit).toBe(2200)
    // At the worse end of what was measured.
    expect(at({ value: 2.75, tolerance: 0.1 })?.limit).toBe(2200)
    for (const out_m of [2.1, 3.7]) expect(() => at(out_m)).toThrow(Refusal)
  })
  it('needs its own set-up, its own confirmations and a known vehicle', () => {
    expect(found(assess(caseOf({}, { without: ['strapped'] })), 'evidence')?.verdict).toBe('not-proven')
    expect(found(assess(caseOf({}, { mass_kg: null })), 'traction:0')?.verdict).toBe('not-proven')
    const c = caseOf()
    const standing = { on: 'outriggers', state: 'legs', outriggers: [] } as const
    expect(() => assess({ ...c, setup: { ...c.setup, standing: { ...standing, outriggers: [] } } })).toThrow(Refusal)
    const untyred = { ...c.setup, standing: { ...c.setup.standing, tyres: null } as Case['setup']['standing'] }
    expect(found(assess({ ...c, setup: untyred }), 'wheel')?.verdict).toBe('not-proven')
    expect(supportChoice(c, means).map((s) => s.id)).toEqual(['legs'])
  })
  it('follows wider the longer it is, and not at all round too tight a turn', () => {
    const ctx = new TowContext(caseOf(), 0)
    const swept = (toAxle_m: number) => sweptTowing(ctx, 9, { overhang_m: 2.6, toAxle_m, halfWidth_m: 1 })
    // By the rule: outer corner √((9+1.25)² + (4.3+1.4)²), inner side √(81 + 6.76 − 10.24) − 1.
    expect(swept(3.2)).toBeCloseTo(Math.hypot(10.25, 5.7) - Math.min(Math.sqrt(77.52) - 1, 7.75), 9)
    expect(swept(6)).toBeGreaterThan(swept(3.2) ?? 0)
    expect(swept(9.5)).toBeNull()
    const turn = { kind: 'turn', radius_m: 9, width_m: 6 } as const
    expect(found(assess(caseOf({}, { way: turn })), 'way:0-aisle')).toBeDefined()
    expect(found(assess(caseOf({ toAxle_m: null }, { way: turn })), 'way:0')?.verdict).toBe('not-proven')
    expect(found(assess(caseOf({ speed_mps: null }, { way: turn })), 'travel:0')?.verdict).toBe('not-proven')
    expect(found(assess(caseOf({ toAxle_m: 12 }, { way: turn })), 'way:0-aisle')?.verdict).toBe('outside')
  })
  it('is held to what a plate carries in all, and a turn without a radius is not proven', () => {
    const plate = deck && { ...deck, total_N: 17_000 * 9.80665 }
    const on = found(assess(caseOf({}, { way: { floor: plate } })), 'floor:0-total')
    expect(on?.verdict).toBe('outside')
    expect(on?.measured).toBeCloseTo((16_750 + 1200) * 9.80665, 3)
    expect(found(assess(caseOf({}, { way: { kind: 'turn', width_m: 6 } })), 'way:0')?.reason).toBe('no-radius')
  })
  it('never passes with a check switched off', () => {
    const c = caseOf()
    expect(assess(c).verdict).toBe('inside')
    for (const off of ['mass', 'structure', 'axle', 'wheel', 'floor', 'way', 'travel', 'traction', 'motion', 'evidence']) {
      const { verdict } = assess(c, { checks: checks.filter((x) => x.id !== off) })
      // What is known of the mass another check says too.
      if (off !== 'mass') expect(['not-proven', 'outside'], off).toContain(verdict)
    }
  })
  it('is no better with more of anything that is worse', () => {
    const order = ['inside', 'near', 'not-proven', 'outside']
    const worst = (a: Assessment, id: string) => found(a, id)?.utilisation ?? Infinity
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 3200, noNaN: true }),
        fc.double({ min: 2.2, max: 3.6, noNaN: true }),
        fc.double({ min: 0, max: 12, noNaN: true }),
        fc.double({ min: 0, max: 300, noNaN: true }),
        (lifted_kg, overhang_m, grade_pct, more) => {
          const a = assess(caseOf({ lifted_kg, overhang_m }))
          const heavier = assess(caseOf({ lifted_kg: lifted_kg + more, overhang_m }))
          const doubtful = assess(caseOf({ lifted_kg: { value: lifted_kg + 300, tolerance: more }, overhang_m }))
          const uphill = assess(caseOf({ lifted_kg, overhang_m }, { way: { grade_pct } }))
          for (const id of ['axle:rear', 'axle:steered', 'structure:arm'])
            expect(worst(heavier, id)).toBeGreaterThanOrEqual(worst(a, id) - 1e-12)
          expect(worst(doubtful, 'axle:rear')).toBeGreaterThanOrEqual(
            worst(assess(caseOf({ lifted_kg: lifted_kg + 300, overhang_m })), 'axle:rear') - 1e-12,
          )
          expect(worst(uphill, 'axle:steered')).toBeGreaterThanOrEqual(worst(a, 'axle:steered') - 1e-12)
          expect(order.indexOf(uphill.verdict)).toBeGreaterThanOrEqual(order.indexOf(a.verdict))
          const { front_kg, rear_kg } = new TowContext(caseOf({ lifted_kg, overhang_m }), 0).axles(
            { lifted_kg, overhang_m },
            grade_pct,
          )
          expect(front_kg + rear_kg).toBeCloseTo(16750 + lifted_kg, 6)
        },
      ),
      { numRuns: runs(3000, 150) },
    )
  })
  it('at its greatest by the front axle keeps exactly what has to stay', () => {
    const ctx = new TowContext(caseOf(), 0)
    const lifted_kg = ((1 - 0.6) * ctx.unladen.front_kg * 4.3) / 2.6
    expect(ctx.axles({ lifted_kg, overhang_m: 2.6 }, 0).front_kg / ctx.unladen.front_kg).toBeCloseTo(0.6, 12)
  })
  it('is a plan of its own, and no crane lift is made in its set-up', () => {
    const c = caseOf()
    const slew: Step = {
      do: 'slew',
      laden: true,
      boom_m: 8.5,
      pickUp: { radius_m: 5, slew_deg: 180 },
      setDown: { radius_m: 5, slew_deg: 190 },
      slewDirection: 'anticlockwise',
      radiusBasis: 'measured-under-load',
    }
    expect(() => assess({ ...c, lift: { ...c.lift, steps: [...c.lift.steps, slew] } })).toThrow(/plan of its own/)
    const lifted = assess({ ...c, lift: { ...c.lift, steps: [slew] } })
    expect(found(lifted, 'motion')?.verdict).toBe('outside')
    expect(isRefusal(lifted)).toBe(false)
  })
})
