import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  atSlew,
  boundary,
  contains,
  convexHull,
  distanceToSegment,
  insideLine,
  marginInside,
  normalDegrees,
  type Point,
  peakBetween,
  sizeOf,
  turn,
} from '../src'

const point = fc.record({
  x_m: fc.integer({ min: -500, max: 500 }).map((v) => v / 50),
  y_m: fc.integer({ min: -500, max: 500 }).map((v) => v / 50),
})
const cloud = fc.array(point, { minLength: 3, maxLength: 14 }).filter((ps) => convexHull(ps).length >= 3)

describe('the hull', () => {
  it('holds every point, turns left at every corner, and is its own hull', () => {
    fc.assert(
      fc.property(cloud, (points) => {
        const hull = convexHull(points)
        for (const p of points) expect(contains(hull, p, 1e-9)).toBe(true)
        hull.forEach((b, i) => {
          const a = hull[(i + hull.length - 1) % hull.length] as Point
          const c = hull[(i + 1) % hull.length] as Point
          expect(turn(a, b, c)).toBeGreaterThan(0)
        })
        expect(new Set(convexHull(hull))).toEqual(new Set(hull))
      }),
    )
  })

  it('does not care in which order the points come', () => {
    fc.assert(
      fc.property(cloud, fc.integer(), (points, seed) => {
        const shuffled = [...points].sort((a, b) => Math.sin(seed + a.x_m * 7 + a.y_m) - Math.sin(seed + b.x_m * 7 + b.y_m))
        const key = (h: readonly Point[]) => h.map((p) => `${p.x_m} ${p.y_m}`).sort()
        expect(key(convexHull(shuffled))).toEqual(key(convexHull(points)))
      }),
    )
  })

  it('measures inside positive and outside negative, to the nearest edge', () => {
    const square = convexHull([
      { x_m: 2, y_m: 2 },
      { x_m: -2, y_m: 2 },
      { x_m: -2, y_m: -2 },
      { x_m: 2, y_m: -2 },
    ])
    expect(marginInside(square, { x_m: 0.5, y_m: 0 }).margin_m).toBeCloseTo(1.5, 12)
    expect(marginInside(square, { x_m: 2, y_m: 0 }).margin_m).toBeCloseTo(0, 12)
    // Past a corner the nearest point of the edge is the corner itself.
    expect(marginInside(square, { x_m: 5, y_m: 6 }).margin_m).toBeCloseTo(-5, 12)
    expect(sizeOf(square)).toBeCloseTo(4 * Math.SQRT2, 12)
  })

  it('changes its margin by no more than the point moves', () => {
    fc.assert(
      fc.property(cloud, point, point, (points, p, q) => {
        const hull = convexHull(points)
        const moved = Math.hypot(p.x_m - q.x_m, p.y_m - q.y_m)
        expect(Math.abs(marginInside(hull, p).margin_m - marginInside(hull, q).margin_m)).toBeLessThanOrEqual(moved + 1e-9)
      }),
    )
  })
})

describe('distances and angles', () => {
  it('to a segment is never less than to its line, and equal between the ends', () => {
    fc.assert(
      fc.property(point, point, point, (p, a, b) => {
        fc.pre(a.x_m !== b.x_m || a.y_m !== b.y_m)
        const toLine = Math.abs(insideLine(a, b, p))
        expect(distanceToSegment(p, a, b)).toBeGreaterThanOrEqual(toLine - 1e-9)
        const middle = { x_m: (a.x_m + b.x_m) / 2, y_m: (a.y_m + b.y_m) / 2 }
        expect(distanceToSegment(middle, a, b)).toBeCloseTo(0, 9)
      }),
    )
  })
  it('brings every angle into one turn', () => {
    fc.assert(
      fc.property(fc.double({ min: -1e5, max: 1e5, noNaN: true }), (deg) => {
        const n = normalDegrees(deg)
        expect(n).toBeGreaterThanOrEqual(0)
        expect(n).toBeLessThanOrEqual(360)
        const [a, b] = [atSlew(1, deg), atSlew(1, n)]
        expect(a.x_m).toBeCloseTo(b.x_m, 8)
        expect(a.y_m).toBeCloseTo(b.y_m, 8)
      }),
    )
  })
})

describe('searching', () => {
  it('finds the top of a parabola and the edge of a step', () => {
    fc.assert(
      fc.property(fc.double({ min: -5, max: 5, noNaN: true }), (top) => {
        expect(peakBetween((x) => -((x - top) ** 2), -6, 6, 1e-8).x).toBeCloseTo(top, 6)
        const edge = boundary((x) => x <= top, -6, 6, 1e-9)
        expect(edge).toBeCloseTo(top, 8)
        // The side that holds is returned, never the one that fails.
        expect(edge).toBeLessThanOrEqual(top)
      }),
    )
  })
})
