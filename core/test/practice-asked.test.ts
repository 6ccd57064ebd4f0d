import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { type ByHand, neverPractised, type Offer, type Practised, practiceAsked, practisedOn, usualPolicy } from '../src'
import { demoMachine } from './demo'

const whimbrel = demoMachine('whimbrel')
const days = fc.option(fc.double({ min: 0, max: 400, noNaN: true }), { nil: null })
const byHand: fc.Arbitrary<ByHand> = fc.record({ levers: days, other: days })
const practised: fc.Arbitrary<Practised> = fc.record({ shift_days: days, passed_days: byHand, certificate_days: byHand })
const offer = fc.constantFrom<Offer>('levers', 'other', 'nothing')
const asking = fc.record({
  before: fc.constantFrom('certificate' as const, 'passed' as const, 'recommended' as const),
  absence_days: fc.double({ min: 1, max: 365, noNaN: true }),
  counts_days: fc.double({ min: 1, max: 180, noNaN: true }),
})
const asked = (practice: typeof usualPolicy.practice, known: Practised, of: Offer) =>
  practiceAsked(whimbrel, { practice }, known, of)

describe('practice asked before a shift', () => {
  it('keeps nobody from a machine unless the site says so, nor where nothing can be practised', () => {
    fc.assert(
      fc.property(asking, practised, offer, (practice, known, of) => {
        expect(asked({ ...practice, before: 'recommended' }, known, of)?.must ?? false).toBe(false)
        expect(asked(practice, known, 'nothing')).toBeNull()
      }),
    )
    expect(practiceAsked(whimbrel, usualPolicy, neverPractised, 'levers')).toMatchObject({ must: false })
  })
  it('is asked before the first shift and after an absence only', () => {
    fc.assert(
      fc.property(asking, practised, offer, (practice, known, of) => {
        const away = known.shift_days === null || known.shift_days > practice.absence_days
        if (!away) expect(asked(practice, known, of)).toBeNull()
        if (away && of !== 'nothing')
          expect(asked(practice, { ...neverPractised, shift_days: known.shift_days }, of)?.must).toBe(
            practice.before !== 'recommended',
          )
      }),
    )
  })
  it('is never asked of somebody for having practised more, or more lately', () => {
    const fewer = (a: number | null, b: number | null) => (a === null ? b : b === null ? a : Math.min(a, b))
    const both = (a: ByHand, b: ByHand): ByHand => ({ levers: fewer(a.levers, b.levers), other: fewer(a.other, b.other) })
    fc.assert(
      fc.property(asking, practised, practised, offer, (practice, known, more, of) => {
        if (asked(practice, known, of)) return
        const with_ = {
          ...known,
          passed_days: both(known.passed_days, more.passed_days),
          certificate_days: both(known.certificate_days, more.certificate_days),
        }
        expect(asked(practice, with_, of)).toBeNull()
      }),
    )
  })
  it('of the levers is answered by the levers alone, and a certificate only by a certificate', () => {
    const today = { levers: null, other: 0 }
    const site = (before: 'certificate' | 'passed') => ({ ...usualPolicy.practice, before })
    expect(asked(site('passed'), { ...neverPractised, passed_days: today, certificate_days: today }, 'levers')?.must).toBe(true)
    expect(asked(site('passed'), { ...neverPractised, passed_days: today }, 'other')).toBeNull()
    const passed = { ...neverPractised, passed_days: { levers: 0, other: 0 } }
    expect(asked(site('certificate'), passed, 'levers')?.must).toBe(true)
    expect(asked(site('passed'), passed, 'levers')).toBeNull()
  })
})

describe('what of a machine was practised', () => {
  it('is its levers, drives and shape, and none of its words', () => {
    const was = JSON.stringify(practisedOn(whimbrel))
    const worded = {
      ...whimbrel,
      name: 'Other',
      cautions: ['Another'],
      revision: whimbrel.revision + 1,
      walkround: { zones: [] },
    }
    expect(JSON.stringify(practisedOn(worded as unknown as typeof whimbrel))).toBe(was)
    const driving = whimbrel.truck?.driving
    expect(driving).toBeDefined()
    for (const other of [
      { ...whimbrel, controls: { ...whimbrel.controls, controls: [] } },
      { ...whimbrel, truck: { ...whimbrel.truck, driving: { ...driving, greatest_mps: 1 } } },
      { ...whimbrel, tables: [] },
    ])
      expect(JSON.stringify(practisedOn(other as unknown as typeof whimbrel))).not.toBe(was)
  })
})
