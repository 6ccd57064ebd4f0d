import { readdirSync, readFileSync } from 'node:fs'
import { Refusal, shiftEvent } from '@geolabe/core'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { readMachineFile, readOrganisations } from '../../server/src/demo/files'
import { csvToWalkround, defectsToCsv, inspectionsToCsv, journalToCsv, kindWords, walkroundColumns, walkroundToCsv } from '../src'

const ids = readOrganisations().flatMap((o) => o.machines)
const roundOf = (id: string) => readMachineFile(id).walkround

const refusal = (csv: string) => {
  try {
    csvToWalkround(csv, 'puffin', 2, [])
    return null
  } catch (e) {
    if (e instanceof Refusal) return e
    throw e
  }
}
const csv = walkroundToCsv(roundOf('puffin'))
const lines = csv.split('\n')

describe('a walk-round as a spreadsheet', () => {
  it.each(ids)('%s: comes back with every zone, item and measure as it went out', (id) => {
    const w = roundOf(id)
    const back = csvToWalkround(walkroundToCsv(w), id, 3, w.before)
    expect(back.zones.map((z) => [z.id, z.label, z.part, z.at])).toEqual(w.zones.map((z) => [z.id, z.label, z.part, z.at]))
    const plain = (zones: { items: object[] }[]) =>
      zones.flatMap((z) =>
        z.items.map((i) => {
          const { piece: _p, plate: _l, occasions, measure, ...rest } = i as Record<string, unknown>
          const m = measure as { kind: string; label?: string; source?: string } | undefined
          // Written out, the standard’s own label stands in the file.
          const { label: _m, source: _s, ...figures } = m ?? {}
          return { ...rest, occasions: occasions ?? ['pre-use'], ...(m ? { measure: figures } : {}) }
        }),
      )
    expect(plain(back.zones)).toEqual(plain(w.zones))
  })

  it('reads what a spreadsheet does to it: a mark at its head, commas for points, empty lines at its end', () => {
    const back = csvToWalkround(`\uFEFF${csv.replaceAll('\n', '\r\n')}\r\n\r\n`, 'puffin', 2, [])
    expect(back.zones).toHaveLength(roundOf('puffin').zones.length)
  })

  it('names line and column of each fault', () => {
    const damaged = (line: number, column: (typeof walkroundColumns)[number], value: string) => {
      const cells = lines.map((l) => l)
      const parsed = (cells[line - 1] ?? '').match(/("([^"]|"")*"|[^,]*)(,|$)/g)?.map((c) => c.replace(/,$/, '')) ?? []
      parsed[walkroundColumns.indexOf(column)] = value
      cells[line - 1] = parsed.slice(0, walkroundColumns.length).join(',')
      return refusal(cells.join('\n'))
    }
    expect(damaged(4, 'zone', '')).toMatchObject({ code: 'bad-csv', path: '4.zone' })
    expect(damaged(4, 'may_be_missing', 'perhaps')).toMatchObject({ path: '4.may_be_missing' })
    expect(damaged(6, 'measure', 'tape')?.message).toMatch(/^Line 6, column “measure”: “tape” is no measure/)
    expect(damaged(6, 'nominal', 'forty')).toMatchObject({ path: '6.nominal' })
    expect(damaged(5, 'look', '')?.path).toMatch(/^5\./)
    expect(damaged(5, 'item', 'Upper Case')?.path).toMatch(/^5\./)
    expect(refusal(csv.replace('zone_label', 'zone_name'))).toMatchObject({ path: '1.zone_label' })
    expect(refusal(lines[0] ?? '')?.message).toMatch(/no item/)
    const torn = [...lines.slice(0, 4), lines[20], ...lines.slice(4)].join('\n')
    expect(refusal(torn)?.message).toMatch(/has ended already/)
  })

  it('never throws anything but a refusal, whatever the file', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: csv.length }), fc.string({ maxLength: 12 }), (at, put) => {
        const changed = csv.slice(0, at) + put + csv.slice(at + put.length)
        try {
          csvToWalkround(changed, 'puffin', 2, [])
        } catch (e) {
          expect(e).toBeInstanceOf(Refusal)
        }
      }),
      { numRuns: 300 },
    )
  })
})

describe('records as spreadsheets', () => {
  it('hold no formula that a spreadsheet would run', () => {
    const at = '2026-01-01T00:00:00Z'
    const wicked = '=HYPERLINK("x")'
    const entry = { seq: 1, at, actor: { id: 'a', name: wicked }, kind: 'inspection-entry', subject: 's', body: {}, hash: 'h' }
    for (const text of [
      journalToCsv([entry]),
      inspectionsToCsv([
        { id: 'i', machine: 'm', occasion: 'pre-use', by: wicked, at, item: 'x', result: 'in-order', reading: 4 },
      ]),
      defectsToCsv([
        {
          id: 'd',
          machine: { id: 'm', name: 'M' },
          item: null,
          where: wicked,
          words: 'w',
          grade: 'watch',
          raisedGrade: 'watch',
          pending: false,
          state: 'raised',
          spot: null,
          raised: { by: { id: 'a', name: 'A' }, at },
          acknowledged: null,
          repair: null,
          verified: null,
          returned: null,
          watched: null,
          accepted: null,
          worsenedAt: null,
          notes: [],
          steps: [],
          contacts: [],
          photos: [],
        },
      ]),
    ]) {
      expect(text).not.toMatch(/(^|,|")=HYPERLINK/m)
      expect(text.split('\n')).toHaveLength(2)
    }
  })
  it('have words for every kind of entry that the server writes', () => {
    const src = new URL('../../server/src/', import.meta.url)
    const files = readdirSync(src, { recursive: true, encoding: 'utf8' }).filter((f) => f.endsWith('.ts'))
    const written = files.flatMap((f) => [
      ...readFileSync(new URL(f, src), 'utf8').matchAll(/journal\(\s*(?:[^'")]*\?\s*)?'([a-z-]+)'(?:\s*:\s*'([a-z-]+)')?/g),
    ])
    const events = shiftEvent.options.map((o) => o.shape.kind.value)
    const kinds = new Set([...written.flatMap((m) => [m[1], m[2]]).filter((k) => k !== undefined), ...events])
    expect(kinds.size).toBeGreaterThan(20)
    for (const k of kinds) expect(Object.keys(kindWords)).toContain(k)
  })
})
