import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  assess,
  assessSetup,
  type Case,
  type Feature,
  type Finding,
  g_mps2,
  type LiftPlan,
  nearestRemedies,
  placeDefinition,
  ratingAt,
} from '../src'
import { lineToStanding, lineToWire, type Outline, outlineDistance, planDistance } from '../src/clearance/standing'
import { leastOverSweep } from '../src/clearance/sweep'
import { atSlew } from '../src/plane/point'
import { type Point3, segmentDistance } from '../src/plane/segment3'
import { liftPoints } from '../src/rigging/slings'
import { swingPeriod_s, thrownOut_m } from '../src/swing/swing'
import { type LiftOver, northQuay, onlyStep, openField, tern, ternLift, ternSetup, ternTable, withSteps } from './demo'
import { runs } from './runs'

const size = { length_m: 2.4, width_m: 1.5, height_m: 1.7 }
const load = { name: '', mass_kg: 1500, massSource: 'weighed' as const, windArea_m2: 2, dragCoefficient: 1.2, size }
/** The machine at the place's origin, its nose along x. */
const setup = { ...ternSetup(), position: { x_m: 0, y_m: 0, heading_deg: 0 } }
const caseWith = (features: object[], lift: LiftPlan): Case => ({
  machine: tern,
  tables: [ternTable],
  setup,
  lift,
  conditions: { wind_mps: 3 },
  place: placeDefinition.parse({ ...openField, features }),
  policy: openField.policy,
})
const the = (c: Case, check: Finding['check']) => assess(c).findings.filter((f) => f.check === check)
const box = (x0: number, y0: number, x1: number, y1: number) => ({
  type: 'Polygon',
  points: [
    [x0, y0],
    [x1, y0],
    [x1, y1],
    [x0, y1],
  ],
})
const solid = (geometry: object, height_m?: number) => ({ id: 'shed', label: 'Shed', kind: 'solid', geometry, height_m })
const swingOf = (tip_m: number) => tip_m * Math.sin((openField.policy.quietSwing_deg * Math.PI) / 180)
const half_m = Math.hypot(size.length_m, size.width_m) / 2
/** Head of Tern's boom at a radius, by Pythagoras on foot, boom and head offset. */
function tipAt(boom_m: number, radius_m: number): number {
  const { back_m, height_m } = tern.boom.pivot
  return height_m + Math.sqrt(boom_m ** 2 + tern.boom.headOffset_m ** 2 - (radius_m + back_m) ** 2)
}
const turned = (over: LiftOver = {}) =>
  ternLift({ load, pickUp: { radius_m: 8, slew_deg: 60 }, setDown: { radius_m: 8, slew_deg: 120 }, ...over })

const metre = fc.double({ min: -20, max: 20, noNaN: true })
const point3: fc.Arbitrary<Point3> = fc.record({ x: metre, y: metre, z: fc.double({ min: 0, max: 20, noNaN: true }) })
const mix = (a: Point3, b: Point3, t: number): Point3 => ({
  x: a.x + t * (b.x - a.x),
  y: a.y + t * (b.y - a.y),
  z: a.z + t * (b.z - a.z),
})
/** A plan that bends inwards. */
const hook: Outline = {
  closed: true,
  points: [
    { x_m: 0, y_m: 0 },
    { x_m: 8, y_m: 0 },
    { x_m: 8, y_m: 3 },
    { x_m: 3, y_m: 3 },
    { x_m: 3, y_m: 9 },
    { x_m: 0, y_m: 9 },
  ],
}

describe('distances', () => {
  const samples = Array.from({ length: 201 }, (_, i) => i / 200)
  it('between segments are the least of any two of their points, and one of them', () => {
    fc.assert(
      fc.property(point3, point3, point3, point3, (a, b, c, d) => {
        const said = segmentDistance(a, b, c, d)
        const apart = samples.map((t) => segmentDistance(mix(a, b, t), mix(a, b, t), c, d))
        expect(said).toBeLessThanOrEqual(Math.min(...apart) + 1e-6)
        expect(said).toBeGreaterThanOrEqual(Math.min(...apart) - Math.hypot(a.x - b.x, a.y - b.y, a.z - b.z) / 400)
        expect(segmentDistance(c, d, a, b)).toBeCloseTo(said, 9)
        expect(segmentDistance(a, a, b, b)).toBeCloseTo(Math.hypot(a.x - b.x, a.y - b.y, a.z - b.z), 9)
      }),
      { numRuns: runs(5000, 300) },
    )
  })
  it('between segments that are all but parallel are the same from both sides, and touch where they touch', () => {
    const slight = fc.double({ min: -1e-5, max: 1e-5, noNaN: true })
    fc.assert(
      fc.property(point3, point3, slight, slight, fc.double({ min: -1, max: 2, noNaN: true }), (a, b, dx, dy, along) => {
        fc.pre(Math.hypot(a.x - b.x, a.y - b.y, a.z - b.z) > 1e-3)
        const on = mix(a, b, along)
        const c = { x: on.x + dx, y: on.y + dy, z: on.z }
        const d = { x: c.x + b.x - a.x + dy, y: c.y + b.y - a.y + dx, z: c.z + b.z - a.z }
        const said = segmentDistance(a, b, c, d)
        expect(segmentDistance(c, d, a, b)).toBeCloseTo(said, 9)
        // From an end nothing is nearer than it says; and both may share one.
        for (const p of [a, b]) expect(said).toBeLessThanOrEqual(segmentDistance(p, p, c, d) + 1e-10)
        expect(segmentDistance(a, b, b, d)).toBeLessThan(2e-9)
      }),
      { numRuns: runs(20_000, 500) },
    )
  })
  it('from a boom to what stands are the least of any of its points, over a plan that bends inwards too', () => {
    fc.assert(
      fc.property(point3, point3, fc.double({ min: 1, max: 10, noNaN: true }), (a, b, top_m) => {
        const said = lineToStanding(a, b, hook, top_m)
        const apart = samples.map((t) => {
          const p = mix(a, b, t)
          return Math.hypot(planDistance(hook, { x_m: p.x, y_m: p.y }), Math.max(0, p.z - top_m))
        })
        expect(said).toBeLessThanOrEqual(Math.min(...apart) + 1e-4)
        expect(said).toBeGreaterThanOrEqual(Math.min(...apart) - Math.hypot(a.x - b.x, a.y - b.y, a.z - b.z) / 400 - 1e-4)
      }),
      { numRuns: runs(3000, 200) },
    )
  })
  it('to a wire count all its stretches; between outlines nothing where one lies in the other', () => {
    const wire: Outline = {
      closed: false,
      points: [
        { x_m: 0, y_m: 5 },
        { x_m: 10, y_m: 5 },
        { x_m: 10, y_m: 20 },
      ],
    }
    expect(lineToWire({ x: 12, y: 15, z: 9 }, { x: 14, y: 15, z: 9 }, wire, 9)).toBeCloseTo(2, 12)
    expect(lineToWire({ x: 3, y: 5, z: 0 }, { x: 3, y: 5, z: 6 }, wire, 9)).toBeCloseTo(3, 12)
    const square = (x: number, by: number): Outline => ({
      closed: true,
      points: [
        { x_m: x, y_m: 0 },
        { x_m: x + by, y_m: 0 },
        { x_m: x + by, y_m: by },
        { x_m: x, y_m: by },
      ],
    })
    expect(outlineDistance(square(0, 10), square(4, 1))).toBe(0)
    expect(outlineDistance(square(4, 1), square(0, 10))).toBe(0)
    expect(outlineDistance(square(0, 1), square(4, 1))).toBeCloseTo(3, 12)
    // Long strips laid across each other at any angle: no corner of either lies in the other.
    const strip = (angle: number): Outline => {
      const corners = [
        [-60, -0.1],
        [60, -0.1],
        [60, 0.1],
        [-60, 0.1],
      ] as const
      const [c, s] = [Math.cos(angle), Math.sin(angle)]
      return { points: corners.map(([u, v]) => ({ x_m: u * c - v * s, y_m: u * s + v * c })), closed: true }
    }
    const turned = fc.double({ min: 0.2, max: 2.9, noNaN: true })
    fc.assert(
      fc.property(turned, turned, (from, by) => {
        expect(outlineDistance(strip(from), strip(from + by))).toBe(0)
      }),
      { numRuns: runs(2000, 200) },
    )
    expect(planDistance(hook, { x_m: 5, y_m: 5 })).toBeCloseTo(2, 12)
    expect(planDistance(hook, { x_m: 1, y_m: 5 })).toBe(0)
  })
  it('over a sweep are never more than in any one pose of it, and hardly less than in the worst', () => {
    const angle = fc.double({ min: 0, max: 80, noNaN: true })
    fc.assert(
      fc.property(
        metre,
        metre,
        fc.integer({ min: 0, max: 359 }),
        fc.integer({ min: 0, max: 180 }),
        angle,
        angle,
        (x, y, from, by, a, b) => {
          const [long, reach] = [15, { slew: 15, angle: 15 }]
          const at = (slew: number, raised: number) => {
            const p = atSlew(long * Math.cos((raised * Math.PI) / 180), slew)
            return Math.hypot(p.x_m - x, p.y_m - y)
          }
          const sweep = { slew_deg: [from, from + by] as const, angle_deg: [Math.min(a, b), Math.max(a, b)] as const }
          const said = leastOverSweep(at, reach, sweep)
          let least = Infinity
          for (let i = 0; i <= 60; i++)
            for (let j = 0; j <= 60; j++) least = Math.min(least, at(from + (by * i) / 60, a + ((b - a) * j) / 60))
          expect(said.least_m).toBeLessThanOrEqual(least + 1e-9)
          expect(said.least_m).toBeGreaterThanOrEqual(0.98 * least - 0.03 - (15 * (by + Math.abs(a - b)) * Math.PI) / 180 / 60)
        },
      ),
      { numRuns: runs(1000, 60) },
    )
  })
})

describe('people', () => {
  const walk = (geometry: object) => ({ id: 'path', label: 'Footpath', kind: 'people', geometry })
  it('under the load’s way are found wherever it passes over them, and are no matter where they are closed', () => {
    const at = fc.record({
      x: fc.double({ min: -14, max: 14, noNaN: true }),
      y: fc.double({ min: -14, max: 14, noNaN: true }),
      wide: fc.double({ min: 0.5, max: 4, noNaN: true }),
      from: fc.integer({ min: 0, max: 359 }),
      by: fc.integer({ min: 1, max: 180 }),
      r0: fc.double({ min: 5, max: 9, noNaN: true }),
      r1: fc.double({ min: 5, max: 9, noNaN: true }),
    })
    const seen = { over: 0, clear: 0 }
    fc.assert(
      fc.property(at, ({ x, y, wide, from, by, r0, r1 }) => {
        const lift = turned({
          pickUp: { radius_m: r0, slew_deg: from },
          setDown: { radius_m: r1, slew_deg: from + by },
          slewDirection: 'anticlockwise',
        })
        const features = [walk(box(x, y, x + wide, y + wide))]
        const [f] = the(caseWith(features, lift), 'people')
        const outside = half_m + swingOf(tipAt(19.4, Math.min(r0, r1)))
        let least = Infinity
        for (let i = 0; i <= 40; i++)
          for (let j = 0; j <= 10; j++) {
            const p = atSlew(r0 + ((r1 - r0) * j) / 10, from + (by * i) / 40)
            const [dx, dy] = [Math.max(x - p.x_m, 0, p.x_m - x - wide), Math.max(y - p.y_m, 0, p.y_m - y - wide)]
            least = Math.min(least, Math.hypot(dx, dy) - outside)
          }
        if (least <= 0) {
          seen.over++
          expect(f).toMatchObject({ verdict: 'outside', reason: 'over', subject: 'path' })
        }
        // Between the places looked at it comes nearer by less than half a step.
        if (least > 0.5) {
          seen.clear++
          expect(f).toMatchObject({ verdict: 'inside', reason: 'clear' })
          expect(f?.measured).toBeLessThan(least + 1e-9)
        }
        const [closed] = the(caseWith(features, { ...lift, closes: ['path'] }), 'people')
        expect(closed?.verdict).toBe('inside')
      }),
      { numRuns: runs(1000, 60) },
    )
    expect(seen.over).toBeGreaterThan(0)
    expect(seen.clear).toBeGreaterThan(0)
  })
  it('are not asked after with the hook empty; where the load’s size is missing nothing is proven; the change offered closes them', () => {
    const features = [walk(box(-2, 7, 2, 9))]
    const { size: _, ...unsized } = load
    expect(the(caseWith([], turned()), 'people')).toMatchObject([{ verdict: 'inside', reason: 'none-drawn' }])
    expect(the(caseWith(features, turned({ load: unsized })), 'people')[0]).toMatchObject({
      verdict: 'not-proven',
      reason: 'no-load-size',
    })
    expect(() => assess(caseWith(features, { ...turned(), closes: ['gate'] }))).toThrow(/drawn are: path/)
    const c = caseWith(features, turned())
    expect(the({ ...c, lift: withSteps(c.lift, { laden: false }) }, 'people')).toEqual([])
    const over = the(c, 'people')[0]
    expect(over?.verdict).toBe('outside')
    const offered = over ? nearestRemedies(c, over, { mats: [], canStand: () => true }) : []
    const made = offered.find((o) => o.change.kind === 'close')
    expect(made?.change).toEqual({ kind: 'close', feature: 'path', label: 'Footpath' })
    expect(made?.changedCase && the({ ...c, ...made.changedCase }, 'people')[0]?.verdict).toBe('inside')
  })
})

describe('clearance', () => {
  it('of a load turned past a wall is the wall less radius, half its diagonal and its swing', () => {
    const tip_m = tipAt(19.4, 8)
    for (const wall of [9.6, 10.2, 11]) {
      const [f] = the(caseWith([solid(box(-40, wall, 40, wall + 2))], turned()), 'clearance')
      const gap_m = wall - 8 - half_m - swingOf(tip_m)
      expect(f?.detail).toEqual({ label: 'Shed', body: 'load' })
      expect(f?.measured).toBeLessThanOrEqual(Math.max(0, gap_m) + 1e-9)
      expect(f?.measured).toBeGreaterThanOrEqual(0.97 * Math.max(0, gap_m) - 0.05)
      expect(f?.verdict).toBe(gap_m < 0.3 ? 'outside' : gap_m < 0.4 ? 'near' : 'inside')
      expect(f?.limit).toBe(0.3)
    }
  })
  it('counts a boom over something tall in the middle of the circle, whatever the load misses', () => {
    const post = (height_m: number) => solid(box(-0.2, 3.9, 0.2, 4.3), height_m)
    // From the foot, 1.3 m behind and 2.35 m up, the boom's middle line passes (0, 4) at a height by its angle.
    const heights = { pickUp_m: 0, setDown_m: 0, over_m: 0 }
    const gapAt = (height_m: number) => the(caseWith([post(height_m)], turned({ heights })), 'clearance')[0]
    const low = gapAt(2)
    expect(low?.verdict).toBe('inside')
    const high = gapAt(12)
    expect(high).toMatchObject({ verdict: 'outside', measured: 0, detail: { body: 'boom' } })
    // The load's way round lies 8 m out and never comes near it.
    expect(gapAt(10)?.measured).toBeLessThan(low?.measured as number)
  })
  it('asks for the load’s size and for heights where something stands in the way, and for nothing in an open field', () => {
    const { size: _, ...unsized } = load
    expect(the(caseWith([], turned({ load: unsized })), 'clearance')[0]).toMatchObject({
      verdict: 'inside',
      reason: 'nothing-near',
    })
    const wall = solid(box(-40, 12, 40, 14), 3)
    for (const side of ['length_m', 'width_m'] as const)
      expect(the(caseWith([wall], turned({ load: { ...load, size: { ...size, [side]: null } } })), 'clearance')[0]?.reason).toBe(
        'no-load-size',
      )
    expect(the(caseWith([wall], turned({ load: unsized })), 'clearance')[0]).toMatchObject({
      verdict: 'not-proven',
      reason: 'no-load-size',
    })
    const over = solid(box(-1, 6, 1, 12), 3)
    expect(the(caseWith([over], turned()), 'clearance')[0]).toMatchObject({ verdict: 'not-proven', reason: 'no-heights' })
    const carried = turned({ heights: { pickUp_m: 0, setDown_m: 0, over_m: 3 }, rigging_height_m: 2 })
    expect(the(caseWith([over], carried), 'clearance')[0]?.verdict).toBe('inside')
    const { halfWidth_m: __, ...boom } = tern.boom
    const thin = { ...caseWith([over], turned()), machine: { ...tern, boom } }
    expect(assess(thin).findings.find((f) => f.check === 'clearance')).toMatchObject({
      verdict: 'not-proven',
      reason: 'no-boom-size',
    })
  })
  it('sees the tail: what the boom turns away from', () => {
    const behind = (y: number) => the(caseWith([solid(box(-5, -y - 1, 5, -y))], turned()), 'clearance')[0]
    expect(behind(tern.upper.tailSwingRadius_m + 0.2)).toMatchObject({ verdict: 'outside', detail: { body: 'tail' } })
    expect(behind(tern.upper.tailSwingRadius_m + 0.2)?.measured).toBeCloseTo(0.2, 1)
    expect(behind(tern.upper.tailSwingRadius_m + 1)?.verdict).toBe('inside')
  })
  it('is no more than that of the boom in any pose of the way, high or low', () => {
    const xy = fc.double({ min: -12, max: 12, noNaN: true })
    const radius = fc.double({ min: 4, max: 14, noNaN: true })
    const poses = [xy, xy, fc.double({ min: 1, max: 16, noNaN: true }), radius, radius, fc.integer({ min: 1, max: 120 })] as const
    const { back_m, height_m } = tern.boom.pivot
    fc.assert(
      fc.property(...poses, (x, y, top_m, a, b, by) => {
        const ends = { pickUp: { radius_m: a, slew_deg: 10 }, setDown: { radius_m: b, slew_deg: 10 + by } }
        const heights = { pickUp_m: 16, setDown_m: 16, over_m: 16 }
        const [f] = the(caseWith([solid(box(x, y, x + 1.5, y + 1.5), top_m)], turned({ ...ends, heights })), 'clearance')
        const shed: Outline = {
          closed: true,
          points: [
            { x_m: x, y_m: y },
            { x_m: x + 1.5, y_m: y },
            { x_m: x + 1.5, y_m: y + 1.5 },
            { x_m: x, y_m: y + 1.5 },
          ],
        }
        for (let i = 0; i <= 30; i++)
          for (let j = 0; j <= 10; j++) {
            const [r, slew] = [a + ((b - a) * j) / 10, 10 + (by * i) / 30]
            const [foot, head] = [atSlew(-back_m, slew), atSlew(r, slew)]
            const from = { x: foot.x_m, y: foot.y_m, z: height_m }
            const d = lineToStanding(from, { x: head.x_m, y: head.y_m, z: tipAt(19.4, r) }, shed, top_m) - 0.4
            expect(f?.measured ?? 3).toBeLessThanOrEqual(Math.max(0, d) + 3 * Number(f?.measured === null) + 1e-6)
          }
      }),
      { numRuns: runs(600, 40) },
    )
  })
  it('of many things is that of the nearest of them by itself', () => {
    const xy = fc.double({ min: -16, max: 16, noNaN: true })
    fc.assert(
      fc.property(fc.array(fc.tuple(xy, xy), { minLength: 2, maxLength: 5 }), fc.integer({ min: 1, max: 200 }), (at, by) => {
        const things = at.map(([x, y], i) => ({ ...solid(box(x, y, x + 1, y + 1)), id: `s${i}`, label: `Shed ${i}` }))
        const lift = turned({ pickUp: { radius_m: 6, slew_deg: 20 }, setDown: { radius_m: 9, slew_deg: 20 + by } })
        const gap = (features: object[]) => the(caseWith(features, lift), 'clearance')[0]?.measured ?? Infinity
        const single = Math.min(...things.map((t) => gap([t])))
        const all = gap(things)
        if (single > 3) return
        expect(all).toBeLessThanOrEqual(single * 1.03 + 0.05)
        expect(all).toBeGreaterThanOrEqual(single * 0.97 - 0.05)
      }),
      { numRuns: runs(400, 30) },
    )
  })
  it('of a plan drawn finer than can be looked at is not proven, and a place drawn finer still is refused', () => {
    const round = (n: number, i: number) => ({
      type: 'Polygon',
      points: Array.from({ length: n }, (_, k) => [9 + i + Math.cos((k / n) * 6.28), 9 + Math.sin((k / n) * 6.28)]),
    })
    const fine = (count: number) => Array.from({ length: count }, (_, i) => ({ ...solid(round(199, i * 0.01)), id: `s${i}` }))
    expect(the(caseWith(fine(11), turned()), 'clearance')[0]).toMatchObject({ verdict: 'not-proven', reason: 'too-many' })
    const refused = placeDefinition.safeParse({ ...openField, features: fine(30) })
    expect(refused.error?.issues[0]).toMatchObject({ path: ['features'], message: expect.stringMatching(/5000 corners/) })
  })
  it('is never better with more of it: a longer way round, another thing, a larger load', () => {
    const xy = fc.double({ min: -14, max: 14, noNaN: true })
    fc.assert(
      fc.property(xy, xy, fc.integer({ min: 0, max: 300 }), fc.integer({ min: 1, max: 60 }), xy, (x, y, from, by, z) => {
        const things = [solid(box(x, y, x + 1, y + 1), 5)]
        const lift = (to: number, over: LiftOver = {}) =>
          turned({ pickUp: { radius_m: 8, slew_deg: from }, setDown: { radius_m: 8, slew_deg: to % 360 }, ...over })
        const use = (features: object[], l: LiftPlan) => {
          const [f] = the(caseWith(features, l), 'clearance')
          return f?.verdict === 'outside' ? Infinity : f?.reason === 'no-heights' ? 2 : (f?.utilisation ?? 0)
        }
        const one = use(things, lift(from + by))
        expect(use(things, lift(from + 2 * by))).toBeGreaterThanOrEqual(0.93 * one - 0.05)
        expect(use([...things, { ...solid(box(z, y, z + 1, y + 1), 5), id: 'b' }], lift(from + by))).toBeGreaterThanOrEqual(one)
        const larger = { ...load, size: { ...size, length_m: 5 } }
        expect(use(things, lift(from + by, { load: larger }))).toBeGreaterThanOrEqual(0.93 * one - 0.05)
      }),
      { numRuns: runs(300, 25) },
    )
  })
})

describe('an overhead line', () => {
  const line = (y: number, over: object = {}) => ({
    id: 'line',
    label: '11 kV line',
    kind: 'overhead',
    height_m: 9,
    voltage_kV: 11,
    sag_m: 0.4,
    blowOut_m: 0.6,
    geometry: {
      type: 'LineString',
      points: [
        [-60, y],
        [60, y],
      ],
    },
    ...over,
  })
  it('keeps its distance by voltage, its sag and blow-out taken off, from boom, rope and load', () => {
    // Straight ahead the load's column stands y − 8 − half − swing from the wire in plan.
    for (const y of [14, 15.2, 18]) {
      const [f] = the(caseWith([line(y)], turned()), 'overhead-line')
      const actual = y - 8 - half_m - swingOf(tipAt(19.4, 8)) - 1
      expect(f?.limit).toBe(3.05)
      expect(f?.measured).toBeLessThanOrEqual(actual + 1e-9)
      expect(f?.measured).toBeGreaterThanOrEqual(0.97 * actual - 0.1)
      expect(f?.verdict).toBe(actual < 3.05 ? 'outside' : actual * 0.9 < 3.05 ? 'near' : 'inside')
    }
  })
  it('is not proven where height, voltage’s figure or movement are not known, unless it is far', () => {
    const reason = (over: object, y = 14) => the(caseWith([line(y, over)], turned()), 'overhead-line')[0]?.reason
    expect(reason({ height_m: undefined })).toBe('no-height')
    expect(reason({ sag_m: undefined })).toBe('no-movement')
    expect(reason({ blowOut_m: undefined })).toBe('no-movement')
    expect(reason({ voltage_kV: 1200 })).toBe('no-figure')
    expect(reason({ sag_m: undefined }, 45)).toBe('distance')
    expect(the(caseWith([line(27.5, { voltage_kV: undefined })], turned()), 'overhead-line')[0]).toMatchObject({
      limit: 15.24,
      verdict: 'near',
    })
    expect(the(caseWith([], turned()), 'overhead-line')[0]).toMatchObject({ verdict: 'inside', reason: 'none-drawn' })
  })
})

describe('an edge', () => {
  const edge = (y: number, over: object): object => ({
    id: 'quay',
    label: 'Quay edge',
    kind: 'edge',
    drop_m: 2,
    geometry: {
      type: 'LineString',
      points: [
        [-30, y],
        [30, y],
      ],
    },
    ...over,
  })
  // Right feet stand 3 m out on mats of 1.2 m.
  const gapAt = (y: number) => -y - 3 - 0.6
  const right = (c: Case) => the(c, 'edge').filter((f) => f.subject?.startsWith('FR'))
  it('is kept by the engineer’s own figure, measured from what lies on the ground', () => {
    const engineer = { least_m: 0.6, source: 'On file.' }
    for (const [y, verdict] of [
      [-3.9, 'outside'],
      [-4.25, 'near'],
      [-5, 'inside'],
    ] as const) {
      const [f] = right(caseWith([edge(y, { structure: 'wall', engineer })], turned()))
      expect(f).toMatchObject({ verdict, reason: 'engineer', limit: 0.6 })
      expect(f?.measured).toBeCloseTo(gapAt(y), 9)
    }
  })
  it('has no rule of thumb at a wall, only within two depths; by soil one depth or two elsewhere', () => {
    expect(right(caseWith([edge(-5, { structure: 'wall' })], turned()))[0]).toMatchObject({
      verdict: 'not-proven',
      reason: 'ask-engineer',
    })
    expect(the(caseWith([edge(-7.7, { structure: 'wall' })], turned()), 'edge')).toMatchObject([
      { verdict: 'inside', reason: 'none-near' },
    ])
    expect(right(caseWith([edge(-5, {})], turned()))[0]?.reason).toBe('ask-engineer')
    expect(right(caseWith([edge(-6.4, { soil: 'firm' })], turned()))[0]).toMatchObject({ verdict: 'inside', limit: 2 })
    expect(right(caseWith([edge(-6.4, { soil: 'loose' })], turned()))[0]).toMatchObject({ verdict: 'outside', limit: 4 })
  })
  it('is never stood over', () => {
    const basin = { id: 'basin', label: 'Basin', kind: 'void', geometry: box(-30, -20, 30, -3.5) }
    const over = the(caseWith([basin], turned()), 'edge')
    expect(over.map((f) => [f.subject, f.verdict, f.reason]).sort()).toEqual([
      ['FR-basin', 'outside', 'over-void'],
      ['RR-basin', 'outside', 'over-void'],
    ])
  })
  it('of the demo’s quay is kept where Tern stands', () => {
    const c = { ...caseWith([], turned()), place: northQuay, setup: ternSetup() }
    expect(the(c, 'edge').every((f) => f.verdict === 'inside' && f.reason === 'engineer')).toBe(true)
  })
  it('is judged as the machine is set up, before there is a lift', () => {
    const c = caseWith([edge(-5, { structure: 'wall' })], turned())
    const stood = assessSetup(c, { boom_m: 19.4, radius_m: 8, load_kg: 1840 })
    const edges = (list: readonly Finding[]) => list.filter((f) => f.check === 'edge').map((f) => [f.id, f.verdict, f.reason])
    expect(edges(stood.findings)).toEqual(edges(assess(c).findings))
    expect(stood.verdict).toBe('not-proven')
  })
  it('without a depth is no edge', () => {
    const { error } = placeDefinition.safeParse({ ...openField, features: [{ ...edge(-5, {}), drop_m: undefined }] })
    expect(error?.issues[0]).toMatchObject({ path: ['features', 0, 'drop_m'] })
  })
})

describe('hook height', () => {
  const heights = (over_m: number, setDown_m = 0) => ({ pickUp_m: 0, setDown_m, over_m })
  it('is head less block, rigging, load and what is crossed, at the greatest radius', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 4, max: 15, noNaN: true }),
        fc.double({ min: 0, max: 14, noNaN: true }),
        (radius_m, over_m) => {
          const lift = turned({ pickUp: { radius_m, slew_deg: 60 }, heights: heights(over_m), rigging_height_m: 2 })
          const [f] = the(caseWith([], lift), 'hook-height')
          const room = tipAt(19.4, Math.max(8, radius_m)) - 1.5 - 2 - 1.7 - over_m
          expect(f?.measured).toBeCloseTo(room, 9)
          expect(f?.verdict).toBe(room < 0.3 ? 'outside' : room < 0.3 / 0.9 ? 'near' : 'inside')
        },
      ),
      { numRuns: 60 },
    )
  })
  it('looks at where it is set down as well, and asks for sizes and block once heights are given', () => {
    const lift = turned({ heights: heights(1, 14), rigging_height_m: 2 })
    expect(the(caseWith([], lift), 'hook-height')[0]).toMatchObject({ verdict: 'outside', detail: { event: 'setDown' } })
    expect(the(caseWith([], turned({ heights: heights(1) })), 'hook-height')[0]).toMatchObject({
      reason: 'no-size',
      verdict: 'not-proven',
    })
    const open = turned({ heights: { ...heights(1), over_m: null }, rigging_height_m: 2 })
    expect(the(caseWith([], open), 'hook-height')[0]).toMatchObject({ reason: 'no-heights', verdict: 'not-proven' })
    const narrow = turned({ heights: heights(1), rigging_height_m: 2, load: { ...load, size: { ...size, height_m: null } } })
    expect(the(caseWith([], narrow), 'hook-height')[0]?.reason).toBe('no-size')
    expect(the(caseWith([], turned()), 'hook-height')).toEqual([])
    expect(assess(caseWith([], turned())).notChecked).toContain('hook-height')
    expect(assess(caseWith([], lift)).notChecked).not.toContain('hook-height')
    const reevings = tern.hoist.reevings.map((r) => ({ ...r, block: { ...r.block, leastDrop_m: undefined } }))
    const c = { ...caseWith([], lift), machine: { ...tern, hoist: { ...tern.hoist, reevings } } }
    expect(the(c, 'hook-height')[0]?.reason).toBe('no-block')
  })
  it('shrinks by the extension over the parts of line while the boom is drawn out under load', () => {
    const first = { ...onlyStep(turned({ heights: heights(4) })), boom_m: 14.6 }
    const out = { ...first, boom_m: 19.4, pickUp: first.setDown }
    const lift = { ...turned({ rigging_height_m: 2 }), steps: [first, out] }
    const gap = tipAt(14.6, 8) - (4 + 1.7 + 2) - (19.4 - 14.6) / 4
    const [f] = the(caseWith([], lift), 'two-block')
    expect(f?.measured).toBeCloseTo(gap, 9)
    expect(f?.limit).toBe(1.5)
    const low = { ...lift, steps: [{ ...first, heights: heights(7.5) }, out] }
    expect(the(caseWith([], low), 'two-block')[0]).toMatchObject({ verdict: 'outside', reason: 'gap' })
    const stalls = { ...caseWith([], low), machine: { ...tern, hoist: { ...tern.hoist, hookStop: 'stalls' as const } } }
    expect(the(stalls, 'two-block')[0]).toMatchObject({ verdict: 'near', reason: 'stalls' })
    const { heights: _, ...unsaid } = first
    expect(the(caseWith([], { ...lift, steps: [unsaid, out] }), 'two-block')[0]?.verdict).toBe('not-proven')
    expect(the(caseWith([], { ...lift, steps: [{ ...first, laden: false }, out] }), 'two-block')).toEqual([])
  })
})

describe('slings', () => {
  const slings = { legs: 2 as const, length_m: 3, along_m: 2, across_m: 0, wll_kg: 2000, hitch: 'straight' as const }
  const pulled = (over: object = {}) => the(caseWith([], turned({ slings: { ...slings, ...over } })), 'structure')[0]
  const weight = 1500 * g_mps2
  it('of two legs pull W/(2·cos β), of four no less than two across', () => {
    const cos = Math.sqrt(8) / 3
    expect(pulled()?.measured).toBeCloseTo(weight / 2 / cos, 6)
    expect(pulled()?.limit).toBeCloseTo(2000 * g_mps2, 9)
    const four = { legs: 4, along_m: 2, across_m: 1.5 }
    const cosFour = Math.sqrt(9 - 1 - 0.5625) / 3
    expect(pulled(four)?.measured).toBeCloseTo(weight / 2 / cosFour, 6)
    expect(pulled({ legs: 1 })?.measured).toBeCloseTo(weight, 6)
    expect(liftPoints({ legs: 2, length_m: 1, along_m: 2, across_m: 0 }).hook_m).toBeNull()
  })
  it('stand at the worse end of what was measured, in the hitch they are used in', () => {
    const off = pulled({ length_m: { value: 3, tolerance: 0.2 }, along_m: { value: 2, tolerance: 0.2 } })
    expect(off?.measured).toBeCloseTo(weight / 2 / (Math.sqrt(2.8 ** 2 - 1.1 ** 2) / 2.8), 6)
    expect(pulled({ hitch: 'choker', chokerAngle_deg: 130 })?.limit).toBeCloseTo(0.75 * 2000 * g_mps2, 6)
    expect(pulled({ length_m: 1.1 })).toMatchObject({ verdict: 'outside', reason: 'sling-flat' })
    expect(pulled({ wll_kg: null })).toMatchObject({ verdict: 'not-proven', reason: 'no-mark' })
    expect(pulled({ across_m: null })?.reason).toBe('sling')
    for (const missing of [{ length_m: null }, { along_m: null }, { legs: 4, across_m: null }])
      expect(pulled(missing)).toMatchObject({ verdict: 'not-proven', reason: 'no-lengths' })
    expect(assess(caseWith([], turned())).notChecked).toContain('slings')
    expect(assess(caseWith([], turned({ slings }))).notChecked).not.toContain('slings')
  })
})

describe('swing', () => {
  it('lets the load stand out no further than the table rates it, at the rate it names', () => {
    const radius = fc.double({ min: 4, max: 15, noNaN: true })
    fc.assert(
      fc.property(radius, fc.integer({ min: 300, max: 6000 }), (radius_m, mass_kg) => {
        const lift = turned({ load: { ...load, mass_kg }, pickUp: { radius_m, slew_deg: 60 }, configuration: 'full-heavy' })
        const c = caseWith([], lift)
        const [f] = the(c, 'swing')
        if (!f || !('rate_deg_s' in f.detail)) return
        const { rate_deg_s, out_m, quiet_s } = f.detail
        const greatest = Math.max(8, radius_m)
        const rope_m = tipAt(19.4, Math.min(8, radius_m))
        expect(quiet_s).toBeCloseTo(swingPeriod_s(rope_m), 9)
        if (rate_deg_s < 20) expect(thrownOut_m(rope_m, greatest, rate_deg_s)).toBeCloseTo(out_m, 6)
        const config = ternTable.configurations.find((x) => x.id === 'full-heavy')
        if (!config) throw new Error('no table')
        const rated = (r: number) => ratingAt(ternTable.axes, config, r, 19.4, 'worse-row').gross_kg
        const used = mass_kg + 60 + 220
        if (out_m > 0.01) expect(rated(greatest + out_m) as number).toBeGreaterThanOrEqual(used)
        // Where nothing is left by the next row, something may be by the straight line to it: then it is turned at a crawl.
        if (rate_deg_s >= 0.5) expect(f.verdict).toBe('inside')
        else expect(f.reason).toBe('no-room')
        const beyond = ratingAt(ternTable.axes, config, greatest + 0.05, 19.4, 'linear').gross_kg
        if (f.verdict === 'near') expect(beyond === 'not-rated' || beyond < used).toBe(true)
      }),
      { numRuns: 80 },
    )
  })
  it('has nothing to say of a load that is not turned', () => {
    const still = withSteps(turned(), { setDown: { radius_m: 7, slew_deg: 60 } })
    expect(the(caseWith([], still), 'swing')[0]?.reason).toBe('no-slew')
  })
})

const features: readonly Feature[] = northQuay.features
it('the demo’s quay has an edge, a wall and a line that say enough to be judged by', () => {
  expect(features.find((f) => f.kind === 'edge')?.engineer?.least_m).toBe(0.6)
  expect(features.find((f) => f.kind === 'overhead')).toMatchObject({ sag_m: 0.4, blowOut_m: 0.6 })
})
