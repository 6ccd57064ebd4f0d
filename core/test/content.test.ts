import {
  expectedOnPlate,
  gradesFrom,
  isGraver,
  isRaised,
  itemsOf,
  type Machine,
  type PlateField,
  plateFault,
  type RatingTable,
  shownPath,
  symptomPath,
  symptomsOf,
} from '@geolabe/core'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { demoMachine, demoMachines, demoTable } from './demo'

const yard = demoMachines.filter((id) => !['rush', 'sedge'].includes(id))
const each = <T>(of: (m: Machine) => T): [string, T][] => yard.map((id) => [id, of(demoMachine(id))])
const moving = ['running', 'travel', 'raised']

describe('every walk-round of the yard', () => {
  it('proves the stops before anything is driven or raised', () => {
    for (const [id, m] of each((m) => m)) {
      const order = itemsOf(m.walkround)
      const stops = order.findIndex((x) => x.item.piece === 'stops')
      expect(stops, id).toBeGreaterThanOrEqual(0)
      order.forEach((x, i) => {
        if (isRaised(x) || ['brakes', 'steering'].includes(x.item.piece ?? ''))
          expect(i, `${id}: ${x.item.label}`).toBeGreaterThan(stops)
      })
    }
  })

  it('looks all round and warns before the first movement', () => {
    for (const [id, m] of each((m) => m)) {
      const first = m.walkround.zones.find((z) => moving.includes(z.part))
      const said = (first?.before ?? []).join(' ')
      expect(said, id).toMatch(/look (all )?round/i)
      expect(said, id).toMatch(/sound the|call out/i)
    }
  })

  it('is a walk once round again at the end: every zone on the ground and the cab, not one thing', () => {
    for (const [id, m] of each((m) => m)) {
      const end = itemsOf(m.walkround, 'end-of-shift')
      expect(end.length, id).toBeGreaterThanOrEqual(6)
      for (const z of m.walkround.zones.filter((x) => x.part === 'ground' || x.part === 'cab')) {
        expect(
          end.some((x) => x.zone.id === z.id),
          `${id}: ${z.label}`,
        ).toBe(true)
      }
      // At the end nothing is switched on again.
      expect(end.filter((x) => moving.includes(x.zone.part)).map((x) => `${id} ${x.item.id}`)).toEqual([])
    }
  })

  it('gives what one machine calls low charge one figure, and passes no battery that the plate does not', () => {
    for (const id of ['dunlin', 'sandpiper']) {
      const charge = itemsOf(demoMachine(id).walkround).find((x) => x.item.id === 'charge')?.item.measure
      expect(charge).toMatchObject({ least: 30 })
    }
    const battery = itemsOf(demoMachine('dunlin').walkround).find((x) => x.item.id === 'battery-mass')?.item.measure
    expect(battery).toMatchObject({ least: 680, most: 820 })
  })
})

describe('the plate', () => {
  const tables = (m: Machine): RatingTable[] => m.tables.map(demoTable)

  it('has maker, model, serial and year, and at least one rating that a table in use gives', () => {
    for (const [id, m] of each((m) => m)) {
      expect(m.plateFields.slice(0, 4).map((f) => f.id)).toEqual(['maker', 'model', 'serial', 'year'])
      for (const f of m.plateFields.filter((x) => x.cell)) {
        expect(expectedOnPlate(f, tables(m)), `${id}: ${f.label}`).toBeGreaterThan(0)
      }
      expect(m.plateFields.filter((x) => x.cell).length, id).toBeGreaterThanOrEqual(1)
    }
  })

  it('is in order only as the tables give it: any other figure in any field is found', () => {
    for (const [, m] of each((m) => m)) {
      const read = Object.fromEntries(
        m.plateFields.map((f) => [f.id, f.quantity ? (expectedOnPlate(f, tables(m)) ?? 2011) : 'as read']),
      )
      expect(plateFault(m.plateFields, null, read, tables(m))).toBeNull()
      expect(plateFault(m.plateFields, read, null, tables(m))).toBeNull()
      fc.assert(
        fc.property(
          fc.constantFrom(...m.plateFields.filter((f) => f.cell)),
          fc.integer({ min: 1, max: 5000 }),
          fc.boolean(),
          (f, by, up) => {
            const now = (expectedOnPlate(f, tables(m)) ?? 0) + (up ? by : -by)
            const first = plateFault(m.plateFields, null, { ...read, [f.id]: now }, tables(m))
            expect(first).toMatchObject({ kind: 'other-table', field: { id: f.id } })
            const later = plateFault(m.plateFields, read, { [f.id]: now }, tables(m))
            expect(later).toMatchObject({ kind: 'changed', field: { id: f.id } })
            // Entered right, and the table revised since: not in order either.
            expect(plateFault(m.plateFields, { ...read, [f.id]: now }, null, tables(m))?.kind).toBe('other-table')
          },
        ),
        { numRuns: 10 },
      )
    }
  })

  it('asks for what is missing and for figures where figures belong', () => {
    const fields: PlateField[] = [
      { id: 'serial', label: 'Serial number' },
      { id: 'height', label: 'Lift height', quantity: 'length', expected: 4.5 },
    ]
    expect(plateFault(fields, null, null, [])).toMatchObject({ kind: 'missing', field: { id: 'serial' } })
    expect(plateFault(fields, null, { serial: ' ', height: 4.5 }, [])).toMatchObject({ kind: 'missing' })
    expect(plateFault(fields, null, { serial: 'A', height: 'high' }, [])).toMatchObject({ kind: 'no-figure' })
    expect(plateFault(fields, null, { serial: 'A', height: 4.4 }, [])).toMatchObject({ kind: 'other-table', expected: 4.5 })
    expect(plateFault(fields, { serial: 'A b', height: 4.5 }, { serial: ' a  B ' }, [])).toBeNull()
    expect(plateFault(fields, { serial: 'A', height: 4.5 }, { serial: 'B' }, [])).toMatchObject({ kind: 'changed', was: 'A' })
  })
})

describe('lamps and codes', () => {
  it('lead each to its answer, and whatever is not listed to a stop', () => {
    for (const [id, m] of each((m) => m)) {
      expect(symptomsOf(m)).toHaveLength(m.symptoms.length + (m.shows.length > 0 ? 1 : 0))
      const path = shownPath(m.shows)
      if (!path) continue
      expect(() => symptomPath.parse(path), id).not.toThrow()
      const [which, ...ends] = path.nodes
      if (!which || !('answers' in which)) throw new Error('no question')
      expect(which.answers).toHaveLength(m.shows.length + 1)
      expect(ends.map((e) => ('end' in e ? e.end : null))).toEqual([...m.shows.map((s) => s.end), 'stop'])
    }
    expect(each((m) => m.shows.length > 0).filter(([, has]) => has).length).toBeGreaterThanOrEqual(6)
    expect(shownPath([])).toBeNull()
  })
})

describe('the mildest grade of a fault', () => {
  it('leaves that grade and every graver one', () => {
    expect(gradesFrom(undefined)).toEqual(['hazard', 'damage', 'watch'])
    for (const least of ['hazard', 'damage', 'watch'] as const) {
      const left = gradesFrom(least)
      expect(left).toContain(least)
      for (const g of gradesFrom(undefined)) expect(left.includes(g)).toBe(g === least || isGraver(g, least))
    }
    const barred = itemsOf(demoMachine('gannet').walkround).filter((x) => x.item.leastGrade)
    expect(barred.map((x) => x.item.id)).toEqual(['panel', 'alarm'])
  })
})
