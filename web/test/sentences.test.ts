import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { english, pluralMessage } from '@geolabe/core'
import fc from 'fast-check'
import { createElement } from 'react'
import ts from 'typescript'
import { beforeAll, describe, expect, it } from 'vitest'
import { asCatalogue, catalogueFile, sentences } from '../../scripts/sentences'
import { Catalogue } from '../src/language/catalogue'
import { stretched } from '../src/language/stretched'

let all: string[] = []
let madeUp: Catalogue
beforeAll(() => {
  all = sentences()
  madeUp = new Catalogue('en-GB', Object.fromEntries(all.map((s) => [s, s])), stretched)
}, 60_000)

const valuesOf = (message: string) => 1 + Math.max(-1, ...[...message.matchAll(/\{(\d+)/g)].map((m) => Number(m[1])))
/** Figures that stand in no sentence by themselves. */
const figure = fc.integer({ min: 10_000, max: 99_999 })

describe('the catalogue', () => {
  it('has every sentence of the code, and no other', () => {
    expect(readFileSync(catalogueFile, 'utf8') === asCatalogue(all), 'npm run catalogue brings it up to date').toBe(true)
  })

  it('says each in the made-up language: in brackets, marked, longer, with all its figures', () => {
    const form = fc.nat().map((k) => all[k % all.length] ?? '')
    fc.assert(
      fc.property(form, fc.array(figure, { minLength: 12, maxLength: 12 }), (message, figures) => {
        const values = figures.slice(0, valuesOf(message))
        const said = madeUp.words(message, values)
        expect(said).toMatch(/^⟦.*⟧$/su)
        const plain = message.replace(/\{\d+\}/g, '')
        if (/[aeiou]/.test(plain.replace(/\{\d+, plural/, ''))) expect(said).toMatch(/[áéíóúý]/i)
        for (const v of values.slice(message.includes('plural') ? 1 : 0)) expect(said).toContain(String(v))
      }),
      { numRuns: 3000 },
    )
  })

  it('knows a sentence again with its figures in, and says them where they belong', () => {
    const withFigures = all.filter((s) => /\{\d+\}/.test(s) && !s.includes('plural') && s.replace(/\P{L}/gu, '').length >= 12)
    expect(withFigures.length).toBeGreaterThan(300)
    for (const message of withFigures) {
      const values = Array.from({ length: valuesOf(message) }, (_, i) => 31_000 + i * 11)
      const inEnglish = message.replace(/\{(\d+)\}/g, (_, k: string) => String(values[Number(k)]))
      const said = madeUp.told(inEnglish)
      expect(said, inEnglish).not.toBe(inEnglish)
      for (const v of values) expect(said, inEnglish).toContain(String(v))
    }
  })

  it('leaves alone what nobody wrote as a sentence', () => {
    for (const name of ['Quay fender', 'Ines Haldane', '', '12.4 t']) expect(madeUp.told(name)).toBe(name)
  })
})

describe('a screen', () => {
  /** What is read or read out and stands in the code unmarked: text between tags, and the attributes that are shown. */
  const shownIn = /^(label|title|hint|aria-label|placeholder|why|alt|below|legend|note|empty|aria-valuetext)$/
  const unmarked = (path: string): string[] => {
    const tree = ts.createSourceFile(path, readFileSync(path, 'utf8'), ts.ScriptTarget.Latest, true, ts.ScriptKind.TSX)
    const found: string[] = []
    const visit = (n: ts.Node): void => {
      const words = (s: string) => /\p{L}{2}/u.test(s.replace('Geolabe', ''))
      if (ts.isJsxText(n) && words(n.text)) found.push(n.text.trim())
      if (ts.isJsxAttribute(n) && shownIn.test(n.name.getText()) && n.initializer) {
        const given = ts.isJsxExpression(n.initializer) ? n.initializer.expression : n.initializer
        if (given && ts.isStringLiteralLike(given) && words(given.text)) found.push(given.text)
        if (given && ts.isTemplateExpression(given) && / [a-z]{3}/.test(given.getText().replace(/\$\{[^}]*\}/g, '')))
          found.push(given.getText())
      }
      ts.forEachChild(n, visit)
    }
    visit(tree)
    return found.map((s) => `${path.slice(path.indexOf('web/'))}: ${s}`)
  }
  it('says nothing that is not marked as a sentence', () => {
    const src = fileURLToPath(new URL('../src/', import.meta.url))
    const files = readdirSync(src, { recursive: true, encoding: 'utf8' }).filter((f) => f.endsWith('.tsx'))
    expect(files.length).toBeGreaterThan(90)
    expect(files.flatMap((f) => unmarked(join(src, f)))).toEqual([])
  })
})

describe('several', () => {
  const steps = { one: '# step to confirm.', other: '# steps to confirm.' }
  it('is one for one and another for more, in English as written', () => {
    fc.assert(
      fc.property(fc.nat(2_000_000), (n) => {
        expect(english.plural(n, steps)).toBe(
          n === 1 ? '1 step to confirm.' : `${new Intl.NumberFormat('en-GB').format(n)} steps to confirm.`,
        )
      }),
    )
    expect(english.plural(2, { one: '{1}, in # day', other: '{1}, in # days' }, 'Friday')).toBe('Friday, in 2 days')
  })

  it('has as many forms as the language has', () => {
    const polish = new Catalogue('pl', {
      [pluralMessage(steps)]: '{0, plural, one {# krok} few {# kroki} many {# kroków} other {# kroku}}',
    })
    const say = (n: number) => polish.words(pluralMessage(steps), [n])
    expect([1, 3, 5, 22, 1.5].map(say)).toEqual(['1 krok', '3 kroki', '5 kroków', '22 kroki', '1,5 kroku'])
  })

  it('puts figures where another language has them, parts that are drawn too', () => {
    const other = new Catalogue('de', { '{0} of {1} confirmed': 'Von {1} sind {0} bestätigt' })
    expect(other.words('{0} of {1} confirmed', [2, 7])).toBe('Von 7 sind 2 bestätigt')
    const [two, seven] = [createElement('b', null, 2), createElement('b', null, 7)]
    expect(other.parts('{0} of {1} confirmed', [two, seven])).toEqual(['Von ', seven, ' sind ', two, ' bestätigt'])
  })
})
