import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { assess, type Case, nearestRemedies, placeDefinition, type Step, snapped, wayAlong, type Xy } from '../src'
import { demoPlace } from './demo'
import { runs } from './runs'
import { caseOf, type Job, works } from './truck-jobs'

const loft = demoPlace('net-loft-yard')
const ice = demoPlace('ice-store')
const at = (half: number) => fc.double({ min: -half, max: half, noNaN: true })
const lineIn = (x0: number, x1: number, y0: number, y1: number) =>
  fc.array(
    fc.tuple(fc.double({ min: x0, max: x1, noNaN: true }), fc.double({ min: y0, max: y1, noNaN: true })) as fc.Arbitrary<Xy>,
    { minLength: 2, maxLength: 6 },
  )
const apart = (a: Xy, b: Xy) => Math.hypot(b[0] - a[0], b[1] - a[1])
const legsOf = (route: readonly Xy[]) => route.slice(1).map((b, i) => apart(route[i] as Xy, b))

/** A truck's job, driven along a drawn way. */
function driving(machine: string, route: Xy[], more: Partial<Extract<Step, { do: 'drive' }>> = {}, closes?: string[]): Case {
  const work = works.find((w) => w.machine === machine)
  if (!work) throw new Error(machine)
  const base = caseOf(work, work.jobs[0] as Job)
  const { way } = wayAlong(base.place, route)
  const step: Step = {
    do: 'drive',
    laden: true,
    way: way.map((p) => (p.kind === 'trailer' ? { ...p, nose: 'coupled' as const } : p)),
    route: route.map(([x, y]): [number, number] => [x, y]),
    height_m: 0.15,
    facing: 'load-last',
    speed_mps: 0.8,
    ...more,
  }
  return { ...base, lift: { ...base.lift, steps: [step], ...(closes && { closes }) } }
}
const found = (c: Case, id: string) => assess(c).findings.find((f) => f.id === id)

describe('a way drawn over a place', () => {
  it('comes through yard, ramp and door in their order, each as its plan has it', () => {
    const { way } = wayAlong(ice, [
      [-20, 8.5],
      [4, 8.5],
    ])
    expect(way.map((p) => p.kind)).toEqual(['straight', 'ramp', 'door', 'straight'])
    expect(way.map((p) => p.grade_pct)).toEqual([0, 8, 8, 0])
    expect(way[1]).toMatchObject({ label: 'Ramp to the door', width_m: 3.6, height_m: null })
    expect(way[2]).toMatchObject({ width_m: 3, height_m: 4.2 })
    expect(way[3]).toMatchObject({ height_m: 6, floor: { id: 'floor' } })
  })
  it('is as long as it is drawn, but for what its corners cut', () => {
    fc.assert(
      fc.property(lineIn(-30, 40, -10, 30), (route) => {
        const { way, at: middles } = wayAlong(loft, route)
        expect(middles).toHaveLength(way.length)
        const long = way.reduce((sum, p) => sum + p.length_m, 0)
        const legs = legsOf(route)
        const whole = legs.reduce((sum, m) => sum + m, 0)
        // A corner that turns on the spot is driven round all the same.
        expect(long).toBeLessThan(whole * 1.01 + 0.5 * Math.PI * route.length + 0.1)
        expect(long).toBeGreaterThan(whole * 0.6 - 0.1 * route.length - 0.02)
      }),
      { numRuns: runs(3000, 100) },
    )
  })
  it('backwards rises where it fell, leans the other way, and is as wide and as high', () => {
    const straight = fc.tuple(
      fc.tuple(at(25), at(15)) as fc.Arbitrary<Xy>,
      fc.tuple(at(25), at(15)) as fc.Arbitrary<Xy>,
      fc.constantFrom(loft, ice),
    )
    fc.assert(
      fc.property(straight, ([a, b, place]) => {
        // Along the border of a floor neither side is meant.
        fc.pre(apart(a, b) > 1 && Math.abs(a[0] - b[0]) > 1e-6 && Math.abs(a[1] - b[1]) > 1e-6)
        const there = wayAlong(place, [a, b]).way
        const back = [...wayAlong(place, [b, a]).way].reverse()
        expect(back.map((p) => p.kind)).toEqual(there.map((p) => p.kind))
        for (const [i, p] of there.entries()) {
          const q = back[i]
          expect((q?.grade_pct ?? 9) + p.grade_pct).toBeCloseTo(0, 5)
          expect((q?.cross_pct ?? 9) + p.cross_pct).toBeCloseTo(0, 5)
          expect(Math.abs((q?.width_m ?? 99) - (p.width_m ?? -99))).toBeLessThan(0.02)
          expect(q?.height_m).toBe(p.height_m)
        }
      }),
      { numRuns: runs(3000, 150) },
    )
  })
  it('goes through a door aslant with less room, and never with more than its opening', () => {
    fc.assert(
      fc.property(fc.double({ min: -0.9, max: 0.9, noNaN: true }), (turned) => {
        // Through the middle of the door, turned from straight on.
        const [dx, dy] = [3 * Math.cos(turned), 3 * Math.sin(turned)]
        const { way } = wayAlong(ice, [
          [-0.2 - dx, 8.5 - dy],
          [-0.2 + dx, 8.5 + dy],
        ])
        const door = way.find((p) => p.kind === 'door')
        expect(Math.abs((door?.width_m ?? 9) - 3 * Math.cos(turned))).toBeLessThan(0.011)
      }),
      { numRuns: runs(1000, 60) },
    )
  })
  it('is never wider than what is drawn beside it, wherever it is measured', () => {
    fc.assert(
      fc.property(at(11), fc.double({ min: -0.5, max: 0.5, noNaN: true }), (x, off) => {
        // Along an aisle between racks, a little off its middle.
        const { way } = wayAlong(ice, [
          [18 + x * 0.3, 9.25 + off],
          [18 + x * 0.3 + 5, 9.25 + off],
        ])
        for (const p of way) expect(p.width_m).toBeLessThanOrEqual(4.1 - 2 * Math.abs(off) + 0.011)
      }),
      { numRuns: runs(2000, 100) },
    )
  })
  it('snaps to the aisle, or the door, that a finger meant, and to nothing further off', () => {
    fc.assert(
      fc.property(at(20), at(12), (x, y) => {
        const p: Xy = [x, y]
        const to = snapped(ice, p, 1.5)
        expect(apart(p, to)).toBeLessThanOrEqual(1.5)
        if (to !== p) expect(snapped(ice, to, 1e-6)).toEqual(to)
      }),
      { numRuns: runs(2000, 200) },
    )
    expect(snapped(ice, [12, 9.9], 1.5)).toEqual([12, 9.25])
    expect(snapped(ice, [12, 12], 1.5)).toEqual([12, 12])
  })
})

describe('what a drawn way is proved for', () => {
  const inTheAisle: Xy[] = [
    [5, 9.25],
    [20, 9.25],
  ]
  it('is inside in the aisle, too near beside a rack, and outside through one', () => {
    expect(found(driving('dunlin', inTheAisle), 'way:beside')?.verdict).toBe('inside')
    const beside = driving('dunlin', [
      [9, 7.85],
      [20, 7.85],
    ])
    expect(found(beside, 'way:beside')?.verdict).not.toBe('inside')
    const through = driving('dunlin', [
      [9, 9],
      [20, 6.5],
    ])
    expect(found(through, 'way:beside')).toMatchObject({ verdict: 'outside', reason: 'through' })
  })
  it('goes into a building by its door alone', () => {
    const byDoor = driving('sandpiper', [
      [-2, 11],
      [-7.6, 11],
    ])
    expect(found(byDoor, 'way:beside')?.reason).not.toBe('through')
    const wall = driving('sandpiper', [
      [-2, 6],
      [-8, 6],
    ])
    expect(found(wall, 'way:beside')?.reason).toBe('through')
  })
  it('is as far from a building as from its walls, and goes in between the jambs of its doors alone', () => {
    const beside = (route: Xy[]) => found(driving('sandpiper', route, { laden: false }), 'way:beside')
    // Along the wall outside, half the truck and the gap off it: just wide enough; nearer it is not.
    const along = (off: number) =>
      beside([
        [-6 + off, 3],
        [-6 + off, 8],
      ])
    expect(along(0.58 + 0.17)?.verdict).not.toBe('outside')
    expect(along(0.58 + 0.1)?.verdict).toBe('outside')
    fc.assert(
      fc.property(fc.double({ min: 9.6, max: 12.4, noNaN: true }), (y) => {
        const through = beside([
          [-4, y],
          [-7.5, y],
        ])
        // Its door is from 9.5 to 12.5.
        const left = Math.min(y - 9.5, 12.5 - y) - 0.58
        expect(through?.reason === 'touches' ? 0 : (through?.measured ?? -1)).toBeCloseTo(Math.max(0, left), 6)
      }),
      { numRuns: runs(1000, 60) },
    )
  })
  it('rounds no corner nearer to anything than the line is that was drawn', () => {
    const corner = fc.record({
      x: fc.double({ min: 3, max: 7, noNaN: true }),
      y: fc.double({ min: 8.2, max: 10.4, noNaN: true }),
      back: fc.double({ min: 1.5, max: 9, noNaN: true }),
      on: fc.double({ min: 1.5, max: 14, noNaN: true }),
    })
    const boxes = ice.features
      .filter((f) => f.kind === 'solid' || f.kind === 'rack')
      .map(({ geometry: { points } }) => ({ x: points.map((p) => p[0]), y: points.map((p) => p[1]) }))
    const off = ([x, y]: Xy, box: { x: number[]; y: number[] }) =>
      Math.hypot(
        Math.max(0, Math.min(...box.x) - x, x - Math.max(...box.x)),
        Math.max(0, Math.min(...box.y) - y, y - Math.max(...box.y)),
      )
    const between = (n: number, at: (t: number) => Xy) => Array.from({ length: n + 1 }, (_, i) => at(i / n))
    const seen = { rounded: 0, tight: 0 }
    fc.assert(
      fc.property(corner, ({ x, y, back, on }) => {
        // Up the way before the racks, then in between two of them.
        const { way } = wayAlong(ice, [
          [x, y - back],
          [x, y],
          [x + on, y],
        ])
        const r = way.find((p) => p.kind === 'turn')?.radius_m ?? 0
        const room = Math.min(6, back / 2, on / 2)
        seen[r < room - 0.02 ? 'tight' : 'rounded']++
        const arc = between(60, (t) => [x + r * (1 - Math.cos((t * Math.PI) / 2)), y - r * (1 - Math.sin((t * Math.PI) / 2))])
        const line = [...between(60, (t): Xy => [x, y - back * t]), ...between(60, (t): Xy => [x + on * t, y])]
        if (r <= 0.5) return
        for (const box of boxes) {
          const [round, straight] = [arc, line].map((points) => Math.min(...points.map((p) => off(p, box))))
          if ((round ?? 0) < 6) expect(round).toBeGreaterThan((straight ?? 0) - 0.06)
        }
      }),
      { numRuns: runs(1000, 100) },
    )
    expect(Math.min(seen.rounded, seen.tight)).toBeGreaterThan(0)
  })
  it('says where a door is lower than the mast, and where a floor has no figure', () => {
    const low = placeDefinition.parse({
      ...ice,
      features: ice.features.map((f) => (f.id === 'door' ? { ...f, height_m: 2.2 } : f)),
      ground: ice.ground.map((g) => (g.id === 'yard' ? { id: 'yard', label: g.label, allowable_kPa: 200, source: g.source } : g)),
    })
    const route: Xy[] = [
      [-20, 8.5],
      [4, 8.5],
    ]
    const c = { ...driving('dunlin', route), place: low }
    const [step] = c.lift.steps
    if (step?.do !== 'drive') throw new Error('not driven')
    const lowCase: Case = { ...c, lift: { ...c.lift, steps: [{ ...step, way: wayAlong(low, route).way }] } }
    const findings = assess(lowCase).findings
    const door = wayAlong(low, route).way.findIndex((p) => p.kind === 'door')
    expect(findings.find((f) => f.id === `way:${door}-height`)?.verdict).toBe('outside')
    expect(findings.some((f) => f.check === 'floor' && f.verdict === 'not-proven')).toBe(true)
  })
  it('offers to drive up a ramp with the load last where its fork tips would strike it', () => {
    const up = driving(
      'whimbrel',
      [
        [34, 4],
        [10, 4],
      ],
      { facing: 'load-first' },
    )
    const tips = assess(up).findings.find((f) => f.id.endsWith('-tips'))
    expect(tips?.verdict).toBe('outside')
    if (!tips) return
    const offers = nearestRemedies(up, tips, { mats: up.place.mats, canStand: () => true })
    const turned = offers.find((o) => o.change.kind === 'facing')
    expect(turned?.changedCase && assess({ ...up, ...turned.changedCase }).findings.some((f) => f.id.endsWith('-tips'))).toBe(
      false,
    )
  })
  it('over a footpath only where it is closed meanwhile', () => {
    const route: Xy[] = [
      [30, 4],
      [30, 8],
      [14, 11],
    ]
    expect(found(driving('puffin', route), 'people:footpath')).toMatchObject({ verdict: 'outside', reason: 'across' })
    expect(found(driving('puffin', route, {}, ['footpath']), 'people:footpath')?.verdict).toBe('inside')
    const off = driving('puffin', [
      [30, 4],
      [30, 8],
    ])
    expect(found(off, 'people:footpath')?.verdict).toBe('inside')
    expect(assess(off).notChecked).not.toContain('way-past')
  })
  it('is nowhere better for a truck that is wider, or a way that is nearer', () => {
    fc.assert(
      fc.property(fc.double({ min: 7.9, max: 9.25, noNaN: true }), fc.double({ min: 0, max: 0.6, noNaN: true }), (y, by) => {
        const use = (to: number) => {
          const f = found(
            driving('dunlin', [
              [9, to],
              [20, to],
            ]),
            'way:beside',
          )
          return f?.verdict === 'outside' ? Infinity : (f?.utilisation ?? Infinity)
        }
        expect(use(y - by)).toBeGreaterThanOrEqual(use(y) - 1e-9)
      }),
      { numRuns: runs(500, 40) },
    )
  })
})
