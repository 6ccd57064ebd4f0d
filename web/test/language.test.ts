import { afterEach, describe, expect, it } from 'vitest'
import { readDate } from '../src/look/date-field'
import { date } from '../src/look/when'
import { languages, loadLocale } from '../src/units/locale'
import { editIn, parseIn, sayIn, writeFiguresAs } from '../src/units/units'

const speak = async (language: string) => {
  await loadLocale(language)
  writeFiguresAs(language)
}
afterEach(() => speak('en-GB'))

describe('dates and figures', () => {
  it('are written as the language has them', async () => {
    const said = async (language: string) => {
      await speak(language)
      return [sayIn('metric')('mass', 12_345), sayIn('metric')('length', 1.5), date('2026-11-03')]
    }
    expect(await said('en-GB')).toEqual(['12,345 kg', '1.50 m', '03/11/2026'])
    expect(await said('en-US')).toEqual(['12,345 kg', '1.50 m', '11/03/2026'])
    expect(await said('de')).toEqual(['12.345 kg', '1,50 m', '03.11.2026'])
    expect((await said('fr')).map((x) => x.replace(/\s/g, ' '))).toEqual(['12 345 kg', '1,50 m', '03/11/2026'])
  })
  it('typed in any language on offer are read back as they were', async () => {
    for (const { value } of languages) {
      await speak(value)
      for (const day of ['2026-01-31', '2026-11-03', '2027-02-28']) expect(readDate(date(day)), `${value} ${day}`).toBe(day)
      for (const m of [0, 0.25, 7.85, 1234.5, 98_765.43])
        expect(parseIn('metric', 'length', editIn('metric', 'length', m)), `${value} ${m}`).toBeCloseTo(m, 9)
    }
  })
  it('of no language we know are written in British English; of one country of a language, in that language', async () => {
    await loadLocale('tlh')
    expect(date('2026-11-03')).toBe('03/11/2026')
    await loadLocale('de-AT')
    expect(date('2026-11-03')).toBe('03.11.2026')
  })
  it('a day that is none is none', () => {
    for (const wrong of ['', '31/02/2026', '2026-13-01', 'yesterday', '3.11']) expect(readDate(wrong)).toBeNull()
    expect(readDate('2026-11-03')).toBe('2026-11-03')
  })
})
