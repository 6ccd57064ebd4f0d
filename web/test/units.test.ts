import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { editIn, parseIn, sayIn } from '../src/units/units'

describe('units', () => {
  it('come back from the edge of the interface as they went, in either system', () => {
    fc.assert(
      fc.property(
        fc.constantFrom('metric' as const, 'us' as const),
        fc.constantFrom('mass' as const, 'length' as const, 'area' as const, 'speed' as const),
        fc.integer({ min: 0, max: 500_000 }),
        (system, q, n) => {
          const si = parseIn(system, q, String(n / 10)) ?? Number.NaN
          expect(parseIn(system, q, editIn(system, q, si))).toBeCloseTo(si, 9)
        },
      ),
    )
  })
  it('use exact factors', () => {
    expect(parseIn('us', 'mass', '100')).toBe(45.359237)
    expect(parseIn('us', 'length', '10')).toBeCloseTo(3.048, 12)
    expect(parseIn('us', 'area', '100')).toBeCloseTo(100 * 0.3048 ** 2, 12)
    expect(sayIn('us')('speed', 4.4704)).toBe('10 mph')
  })
  it('take a comma and refuse what is no number', () => {
    expect(parseIn('metric', 'length', '2,5')).toBe(2.5)
    for (const bad of ['', 'two', '1e999', '--3', '1.2.3']) expect(parseIn('metric', 'length', bad)).toBeNull()
  })
})
