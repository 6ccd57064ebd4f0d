import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { editFigure, fileFigure, readFigure } from '../src'

const locales = [
  'en-GB',
  'en-US',
  'de-DE',
  'de-CH',
  'fr-FR',
  'nb-NO',
  'en-IN',
  'pl-PL',
  'pt-BR',
  'es-ES',
  'sv-SE',
  'ar-EG',
  'hi-IN',
]

describe('figures', () => {
  it('are read as they are shown, in every locale', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...locales),
        fc.integer({ min: -99_999_999, max: 99_999_999 }),
        fc.integer({ min: 0, max: 3 }),
        (locale, n, digits) => {
          const value = n / 10 ** digits
          const shown = value.toLocaleString(locale, { minimumFractionDigits: digits, maximumFractionDigits: digits })
          expect(readFigure(shown, locale).value, `${shown} in ${locale}`).toBeCloseTo(value, 9)
          const edited = editFigure(value, locale, digits)
          expect(readFigure(edited, locale), `${edited} in ${locale}`).toEqual({ value: expect.closeTo(value, 9), either: null })
        },
      ),
    )
  })
  it('never lose a thousand without a question', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...locales),
        fc.integer({ min: 1, max: 999 }),
        fc.integer({ min: 0, max: 999 }),
        (locale, a, b) => {
          for (const sign of [',', '.']) {
            const text = `${a}${sign}${String(b).padStart(3, '0')}`
            const read = readFigure(text, locale)
            const two = [a * 1000 + b, a + b / 1000].sort((x, y) => x - y)
            if (read.either) expect([...read.either].sort((x, y) => x - y)).toEqual(two.map((v) => expect.closeTo(v, 9)))
            else expect(two.some((v) => Math.abs(v - (read.value ?? Number.NaN)) < 1e-9)).toBe(true)
          }
        },
      ),
    )
    expect(readFigure('12,500', 'en-GB')).toEqual({ value: 12_500, either: [12_500, 12.5] })
    expect(readFigure('12,500', 'de-DE')).toEqual({ value: 12.5, either: [12.5, 12_500] })
    expect(readFigure('12,5', 'en-GB')).toEqual({ value: 12.5, either: null })
    expect(readFigure('1,234.5', 'de-DE').value).toBe(1234.5)
    expect(readFigure('0,125', 'de-DE')).toEqual({ value: 0.125, either: null })
  })
  it('that are none are not read', () => {
    for (const text of ['', ' ', '-', '1e9', '0x10', 'Infinity', 'NaN', '1.2.3', '12,50,0', '--3', '1,2,3', '½', '3 m', '.', ','])
      for (const locale of locales) expect(readFigure(text, locale).value, `“${text}” in ${locale}`).toBeNull()
  })
  it('in a file are plain, and refused where they could be two', () => {
    for (const [text, value] of [
      ['14000', 14_000],
      ['1.234', 1.234],
      ['2,5', 2.5],
      ['14 000', 14_000],
      ['1,234,567', 1_234_567],
      ['-0.5', -0.5],
    ] as const)
      expect(fileFigure(text)).toBe(value)
    for (const text of ['14,000', 'x', '', '1e5']) expect(() => fileFigure(text)).toThrow(RangeError)
  })
})
