import { readdirSync, readFileSync } from 'node:fs'
import { Refusal, ratingTable } from '@geolabe/core'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { csvToTable, tableToCsv } from '../src'

const demo = new URL('../../demo/tables/', import.meta.url)
const tables = readdirSync(demo).map((f) => ratingTable.parse(JSON.parse(readFileSync(new URL(f, demo), 'utf8'))))
const puffin = tables.find((t) => t.id === 'puffin-main') as (typeof tables)[number]

/** Where a file is refused: line and column as a person counts them. */
function refusedAt(csv: string): string {
  try {
    csvToTable(csv, puffin)
  } catch (e) {
    if (e instanceof Refusal) return e.message
    throw e
  }
  throw new Error('it was taken')
}

describe('a table as CSV', () => {
  it.each(tables.map((t) => [t.id, t] as const))('%s comes back as it was, save what is not in a spreadsheet', (_id, t) => {
    const back = csvToTable(tableToCsv(t), t)
    const bare = (x: typeof t) => ({
      ...x,
      configurations: (x.configurations as { rows: object[] }[]).map((c) => ({
        ...c,
        rows: c.rows.map(({ ...r }) => ({ ...r, basis: undefined })),
      })),
    })
    expect(bare(back)).toEqual(bare(t))
  })
  it('made by a spreadsheet is read: semicolons, decimal commas, a byte order mark, an empty line at the end', () => {
    const semi = tableToCsv(puffin)
      .split('\n')
      .map((l) =>
        l
          .split(',')
          .map((c) => c.replace('.', ','))
          .join(';'),
      )
      .join('\r\n')
    expect(csvToTable(`\uFEFF${semi}\r\n\r\n`, puffin)).toEqual(csvToTable(tableToCsv(puffin), puffin))
  })
  it('names line and column of what is wrong, and takes nothing', () => {
    const lines = tableToCsv(puffin).split('\n')
    const at = (n: number, from: string | RegExp, to: string) =>
      lines.map((l, i) => (i === n ? l.replace(from, to) : l)).join('\n')
    expect(refusedAt(at(0, 'configuration', 'setting'))).toMatch(/Line 1, column “1”/)
    expect(refusedAt(at(0, '0.6', 'half'))).toMatch(/Line 1, column “4”.*“half”/)
    expect(refusedAt(at(2, '2350', 'two'))).toMatch(/Line 3, column “0.6”: “two” is no figure/)
    expect(refusedAt(at(2, '2350', '-1'))).toMatch(/Line 3, column “0.6”.*never negative/)
    expect(refusedAt(at(3, 'forks', 'spoons'))).toMatch(/Line 4, column “configuration”.*“spoons”/)
    expect(refusedAt(at(2, /,3\.7/, ',high'))).toMatch(/Line 3, column “liftHeight_m”/)
    expect(refusedAt(at(2, /,3\.7/, ',2.5'))).toMatch(/rise/)
    expect(refusedAt(lines.filter((l) => !l.startsWith('clamp')).join('\n'))).toMatch(/no row for configuration “clamp”/)
  })
})

describe('any text at all', () => {
  const cell = fc.constantFrom(
    'configuration',
    'forks',
    'clamp',
    'liftHeight_m',
    '0.5',
    '0,6',
    '3.0',
    '2350',
    '-1',
    '',
    'x',
    '"',
    '1e400',
    'NaN',
    '\u00a0',
  )
  it('is a table or is refused in words, never anything else', () => {
    fc.assert(
      fc.property(fc.array(fc.array(cell, { maxLength: 6 }), { maxLength: 8 }), fc.constantFrom(',', ';', '\t'), (lines, by) => {
        const text = lines.map((l) => l.join(by)).join('\n')
        try {
          expect(ratingTable.safeParse(csvToTable(text, puffin)).success).toBe(true)
        } catch (e) {
          if (!(e instanceof Refusal)) throw e
          expect(e.message.length).toBeGreaterThan(8)
        }
      }),
      { numRuns: 500 },
    )
  })
  it('with one cell spoiled is refused at that line, or means what it says', () => {
    const lines = tableToCsv(puffin)
      .split('\n')
      .map((l) => l.split(','))
    fc.assert(
      fc.property(fc.nat(), fc.nat(), (i, j) => {
        const line = 1 + (i % (lines.length - 1))
        const row = lines[line] as string[]
        const column = 2 + (j % (row.length - 2))
        const spoiled = lines.map((l, k) => (k === line ? l.map((c, m) => (m === column ? 'about 7' : c)) : l))
        const inTable = csvHas(line, column)
        const read = () => csvToTable(spoiled.map((l) => l.join(',')).join('\n'), puffin)
        if (inTable) expect(read).toThrow(new RegExp(`^Line ${line + 1}, column`))
        else expect(read()).toEqual(csvToTable(tableToCsv(puffin), puffin))
      }),
    )
    /** Columns that a configuration lacks are not read for it. */
    function csvHas(line: number, column: number): boolean {
      const c = puffin.configurations.find((x) => x.id === lines[line]?.[0])
      return Boolean(c?.columns.includes(Number(lines[0]?.[column])))
    }
  })
})
