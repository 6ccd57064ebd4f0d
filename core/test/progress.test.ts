import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { lastAttempts, progressOf } from '../src/practice/progress'

const figures = fc.array(fc.double({ min: -100, max: 100, noNaN: true }), { minLength: 1, maxLength: 60 })

describe('how a skill goes', () => {
  it('on a straight line is that line, with nothing to be out by', () => {
    fc.assert(
      fc.property(fc.double({ min: -5, max: 5, noNaN: true }), fc.integer({ min: 6, max: 30 }), (each, n) => {
        const p = progressOf(Array.from({ length: n }, (_, i) => 40 + each * i))
        expect(p?.slope?.each).toBeCloseTo(each, 9)
        expect(p?.slope?.within).toBeCloseTo(0, 6)
        expect(p?.median).toBeCloseTo(40 + (each * (n - 1)) / 2, 9)
      }),
    )
  })
  it('has half of its attempts within its spread, forgets what is long ago, and says nothing of where few go', () => {
    fc.assert(
      fc.property(figures, (all) => {
        const p = progressOf(all)
        if (!p) throw new Error('none')
        const last = all.slice(-lastAttempts)
        expect(p.count).toBe(last.length)
        expect(p.low).toBeLessThanOrEqual(p.median)
        expect(p.median).toBeLessThanOrEqual(p.high)
        expect(last.filter((v) => v >= p.low - 1e-9 && v <= p.high + 1e-9).length).toBeGreaterThanOrEqual(last.length / 2)
        expect(p.slope === null).toBe(last.length < 6)
        expect(progressOf([1e6, ...Array.from({ length: lastAttempts }, () => 5)])?.median).toBe(5)
        // What goes the other way goes as far the other way.
        const mirrored = progressOf(all.map((v) => -v))
        if (p.slope) expect(mirrored?.slope?.each).toBeCloseTo(-p.slope.each, 9)
      }),
    )
    expect(progressOf([])).toBeNull()
  })
  it('of attempts by chance seldom claims to go anywhere', () => {
    let claims = 0
    const lot = fc.sample(fc.array(fc.double({ min: 0, max: 100, noNaN: true }), { minLength: 30, maxLength: 30 }), {
      numRuns: 300,
      seed: 7,
    })
    for (const values of lot) {
      const slope = progressOf(values)?.slope
      if (slope && Math.abs(slope.each) > slope.within) claims++
    }
    expect(claims).toBeLessThan(0.12 * lot.length)
  })
})
