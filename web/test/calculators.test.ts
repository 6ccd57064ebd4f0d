import {
  calculators,
  calculatorWords,
  loadMassCalculator,
  namesWithWords,
  recoveryCalculator,
  transferToLift,
} from '@geolabe/core'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { fromLink, toLink } from '../src/calculators/link'
import { presentationOf } from '../src/calculators/presentations'
import { blankOf, isObj, type Obj, plainOf, schemaOf } from '../src/calculators/schema'
import { withTransferred } from '../src/prove/transferred'
import { unitIn, wordsOf } from '../src/units/field-names'
import { sayIn } from '../src/units/units'

type Built = Parameters<NonNullable<NonNullable<typeof loadMassCalculator.transfers>['mass_kg']>>[0]

describe('quick sums', () => {
  it('have a name, words to find them by and a drawing each, and nothing else has', async () => {
    expect([...namesWithWords].sort()).toEqual(calculators.map((c) => c.name).sort())
    for (const c of calculators) expect(await presentationOf(c.name), c.name).not.toBeNull()
    expect(await presentationOf('nothing')).toBeNull()
    expect(new Set(calculators.map((c) => calculatorWords(c).title)).size).toBe(calculators.length)
  })
  it('say their answer and their formula from the example, in metric and US units, without a gap', async () => {
    for (const c of calculators) {
      const p = (await presentationOf(c.name))?.presentation
      const plain = plainOf(c.example) as Obj
      const output = c.run(c.example)
      for (const units of ['metric', 'us'] as const) {
        const heroes = p?.hero(plain, output, sayIn(units)) ?? []
        expect(heroes.length, c.name).toBeGreaterThan(0)
        for (const h of heroes) expect(`${h.label} ${h.value}`, c.name).not.toMatch(/NaN|undefined|Infinity|null/)
      }
      const steps = p?.steps(plain, output) ?? []
      expect(steps.length, c.name).toBeGreaterThan(0)
      for (const s of steps) expect(s, c.name).not.toMatch(/NaN|undefined|Infinity|null/)
    }
  })
  it('make a form of every input: each field has words, and a new row is what the calculator takes or names', () => {
    for (const c of calculators) {
      const schema = schemaOf(c.input)
      for (const [name, s] of Object.entries(schema.properties ?? {})) {
        expect(wordsOf(name).length).toBeGreaterThan(0)
        expect(blankOf(s)).toBeDefined()
      }
      const blank = blankOf(schema)
      expect(isObj(blank)).toBe(true)
      // Whatever an empty form gives, it is answered or refused in words.
      expect(JSON.stringify(c.run(blank)).length).toBeGreaterThan(2)
    }
  })
  it('go by link and come back as they were, whatever is in them', () => {
    fc.assert(
      fc.property(
        fc.dictionary(
          fc.string({ minLength: 1 }),
          fc.oneof(fc.string(), fc.double({ noNaN: true, noDefaultInfinity: true }), fc.boolean()),
        ),
        (input) => {
          const plain = JSON.parse(JSON.stringify(input)) as Obj
          expect(fromLink(`#${toLink(plain)}`)).toEqual(plain)
        },
      ),
    )
    for (const hash of ['', '#', '#in=', '#in=%%%', '#in=bm90anNvbg', '#other=1']) expect(fromLink(hash)).toBeNull()
  })
  it('know the unit of a field by its ending', () => {
    expect(unitIn('radius_m')).toEqual({ quantity: 'length' })
    expect(unitIn('moment_x_Nm')).toEqual({ unit: 'kNm', factor: 1000 })
    expect(unitIn('acceleration_mps2')).toEqual({ unit: 'm/s²' })
    expect(unitIn('parts')).toBeNull()
    expect(wordsOf('padEdgeToToe_m')).toBe('Pad edge to toe')
  })
  it('hand a built load on with its doubt, and leave everything else of the plan alone', () => {
    const out = loadMassCalculator.run(loadMassCalculator.example) as Parameters<typeof transferToLift<Built>>[1] & {
      low: Built
      high: Built
    }
    const h = transferToLift(loadMassCalculator, out)
    const t = h?.mass_kg as { value: number; tolerance: number }
    expect(t.value).toBe(out.mass_kg)
    expect(t.value + t.tolerance).toBeGreaterThanOrEqual(out.high.mass_kg - 1e-9)
    expect(t.value - t.tolerance).toBeLessThanOrEqual(out.low.mass_kg + 1e-9)
    const draft = {
      wind_mps: 4,
      lift: {
        format: 'geolabe.lift/2' as const,
        hung: {
          load: {
            name: 'x',
            mass_kg: 1,
            massSource: 'marked' as const,
            windArea_m2: 1,
            dragCoefficient: 1.3,
            size: { length_m: 1, width_m: 1, height_m: 1 },
          },
          rigging: [],
        },
        steps: [
          {
            do: 'slew' as const,
            laden: true,
            boom_m: 10,
            pickUp: { radius_m: 5, slew_deg: 0 },
            setDown: { radius_m: 6, slew_deg: 10 },
            slewDirection: 'clockwise' as const,
            radiusBasis: null,
          },
        ],
      },
    }
    const next = withTransferred(draft, h ?? {})
    expect(next.lift.hung.load).toMatchObject({ mass_kg: t, massSource: 'worked-out', dragCoefficient: 1.3 })
    expect(next.lift.steps).toEqual(draft.lift.steps)
    // The size of another load is not this one's.
    expect(next.lift.hung.load.size).toBeUndefined()
    expect(withTransferred(draft, { wind_mps: 9 })).toEqual({ ...draft, wind_mps: 9 })
    expect(recoveryCalculator.transfers).toBeUndefined()
  })
})
