import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { figureOf, parseIn, typedFault } from '../src/units/units'

const locales = ['en-GB', 'en-US', 'de-DE', 'de-CH', 'fr-FR', 'nb-NO', 'en-IN', 'pl-PL']
const quantities = ['mass', 'length', 'area', 'pressure', 'force', 'speed', 'angle', 'share'] as const

describe('a typed figure', () => {
  it('is what was shown, in every locale, unit and quantity', () => {
    fc.assert(
      fc.property(
        fc.constantFrom('metric' as const, 'us' as const),
        fc.constantFrom(...quantities),
        fc.constantFrom(...locales),
        fc.double({ min: -5e6, max: 5e6, noNaN: true }),
        (system, quantity, locale, value) => {
          const shown = figureOf(system, quantity, value, 2, locale)
          const back = parseIn(system, quantity, shown, locale) ?? Number.NaN
          expect(figureOf(system, quantity, back, 2, locale)).toBe(shown)
        },
      ),
    )
  })
  it('that could be a thousand times another is asked about, and nothing else is', () => {
    for (const locale of locales) {
      expect(typedFault('12,500', locale)).toMatch(/12500 or 12.5|12.5 or 12500/)
      for (const text of ['12500', '12,5', '12.5', '0,125', '']) expect(typedFault(text, locale)).toBeNull()
      expect(typedFault('twelve', locale)).toMatch(/Not a figure/)
    }
  })
})
