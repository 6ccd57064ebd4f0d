import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { calibrationOf } from '../src/judgement/calibration'
import { canBeMisread, itemsFrom, misreadings } from '../src/judgement/item'
import { marksOf, type Sure, surenesses } from '../src/judgement/mark'
import { dueIn_days, halfLifeAfter } from '../src/judgement/weak-point'
import { ratingAt } from '../src/rating/read'
import { demoMachine, demoMachines, demoTable } from './demo'

const answered = [0.5, 0.6, 0.8, 0.9, 1, 0.8, 0.6, 0.9, 0.8, 1].map((sure, i) => ({ sure, right: ![1, 5, 9].includes(i) }))

describe('how sure against how right', () => {
  it('is what the squares of it come to', () => {
    const c = calibrationOf(answered)
    for (const [is, wanted] of [
      [c?.brier, 0.251],
      [c?.reliability, 0.084333],
      [c?.resolution, 0.043333],
      [c?.uncertainty, 0.21],
      [c?.bias, 0.09],
    ] as const)
      expect(is).toBeCloseTo(wanted, 6)
    expect(calibrationOf([])).toBeNull()
  })
  it('has parts that add up, whatever was answered', () => {
    const answer = fc.record({ sure: fc.constantFrom(0.5, 0.6, 0.7, 0.8, 0.9, 1), right: fc.boolean() })
    fc.assert(
      fc.property(fc.array(answer, { minLength: 1, maxLength: 200 }), (all) => {
        const c = calibrationOf(all)
        if (!c) throw new Error('none')
        expect(Math.abs(c.brier - (c.reliability - c.resolution + c.uncertainty))).toBeLessThan(1e-12)
      }),
    )
  })
})

describe('a weak point', () => {
  it('lasts the longer the less was left of it, and comes again soon where it was wrong', () => {
    const told: [days: number, right: boolean, after: number][] = [
      [1, true, 5.963697],
      [2, true, 9.237159],
      [5, false, 3.694863],
      [1, true, 5.561738],
    ]
    let h = 4
    for (const [days, right, after] of told) {
      h = halfLifeAfter(h, days, right)
      expect(h).toBeCloseTo(after, 6)
    }
    expect(dueIn_days(h)).toBeCloseTo(1.304034, 6)
  })
  it('is never lengthened by answers one after the other, stays within its bounds, and is shorter for being wrong', () => {
    fc.assert(
      fc.property(fc.double({ min: 1, max: 180, noNaN: true }), fc.double({ min: 0, max: 400, noNaN: true }), (h, days) => {
        const [right, wrong] = [halfLifeAfter(h, days, true), halfLifeAfter(h, days, false)]
        expect(wrong).toBeLessThanOrEqual(Math.max(1, h))
        expect(right).toBeGreaterThanOrEqual(h - 1e-9)
        for (const x of [right, wrong]) {
          expect(x).toBeGreaterThanOrEqual(1)
          expect(x).toBeLessThanOrEqual(180)
        }
        if (days < 0.1 * h) expect(right).toBe(h)
      }),
    )
  })
})

describe('an item of judgement', () => {
  const machines = demoMachines.map((id) => ({ id, tables: demoMachine(id).tables.map(demoTable).filter(canBeMisread) }))
  const some = machines.filter((m) => m.tables.length > 0)
  it('has one answer, the core’s own, and half have nothing wrong', () => {
    console.log(
      some.map((m) => m.id).join(' '),
      '| none:',
      machines
        .filter((m) => m.tables.length === 0)
        .map((m) => m.id)
        .join(' '),
    )
    const each = Math.ceil(5000 / some.length)
    const all = some.flatMap(({ id, tables }, i) => {
      try {
        return itemsFrom(tables, 100 + i, each).map((item) => ({ id, tables, item }))
      } catch (e) {
        console.log(id, String(e))
        return []
      }
    })
    for (const { id, tables, item } of all) {
      const table = tables.find((t) => t.id === item.table)
      const c = table?.configurations.find((x) => x.id === item.configuration)
      if (!table || !c) throw new Error(`${id}: no such table`)
      const taken_kg = item.taken.reduce((sum, t) => sum + t.mass_kg, 0)
      const { gross_kg } = ratingAt(table.axes, c, item.row, item.column, 'worse-row')
      expect(item.right_kg, id).toBe(Math.round(Number(gross_kg) - taken_kg))
      if (item.wrong === 'nothing') expect(item.said_kg).toBe(item.right_kg)
      else expect(Math.abs(item.said_kg - item.right_kg)).toBeGreaterThan(0.01 * item.right_kg)
    }
    const whole = all.filter((x) => x.item.wrong === 'nothing').length / all.length
    expect(Math.abs(whole - 0.5)).toBeLessThan(0.02)
    const seen = new Set(all.map((x) => x.item.wrong))
    expect([...seen].sort()).toEqual([...misreadings].sort())
    console.log(misreadings.map((m) => `${m} ${all.filter((x) => x.item.wrong === m).length}`).join(', '))
  })
  it('answered well passes; everything called wrong, everything in order, or anything at random scores next to nothing', () => {
    const [m] = some
    if (!m) throw new Error('no tables')
    const sure: Sure = 100
    for (let seed = 1; seed <= 60; seed++) {
      const items = itemsFrom(m.tables, seed, 20)
      expect(
        marksOf(
          items,
          items.map(({ wrong }) => ({ wrong, sure })),
        ),
      ).toMatchObject({ score: 100, passed: true, missed: 0 })
      for (const wrong of misreadings) {
        const marks = marksOf(
          items,
          items.map(() => ({ wrong, sure })),
        )
        expect(marks.score, `${seed} ${wrong}`).toBeLessThanOrEqual(30)
        expect(marks.passed).toBe(false)
      }
      expect(marksOf(items, []).score).toBeLessThanOrEqual(30)
    }
    expect(surenesses.length).toBe(6)
  })
})
