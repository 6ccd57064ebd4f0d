import { nth } from '../list'
import { convexHull, marginInside, sizeOf } from '../plane/hull'
import type { Point } from '../plane/point'
import { Refusal } from '../refusal'

/** A support that can push up and cannot pull down. */
export interface Support extends Point {
  id: string
  /** Omitted: all alike. */
  stiffness_N_per_m?: number | undefined
}

/**
 * The supports made ready for repeated solving: hull, triangles and scaled coordinates are the same at every slew.
 * Prepared once and used thousands of times by the envelope and the map.
 */
export interface Footprint {
  supports: readonly Support[]
  hull: readonly Support[]
  /** Each hull edge from the point before to this one: a unit normal inwards, so that nx·x + ny·y + c is the distance inside. */
  edges: readonly { a: Support; b: Support; nx: number; ny: number; c: number }[]
  size_m: number
  /** Below this margin the machine is not called stable, metres. */
  least_m: number
  /** Centre that coordinates are taken from when solving, so that far-off origins cost no precision. */
  centre: Point
  /** Coordinates from the centre in units of the footprint's size, and stiffness relative to the first. */
  scaled: readonly { x: number; y: number; k: number }[]
  /**
   * All that the solver’s inner loop needs, side by side in memory: centre x, y; one over the size; inverse of the frame’s
   * stiffness with every support in contact (00, 01, 02, 11, 12, 22); then x, y, k of each support, scaled.
   */
  packed: readonly number[]
  /** With every support in contact, each one’s share of the weight is c₀ + c₁·x + c₂·y of the resultant, metres: three figures each. */
  whole: readonly number[]
  /**
   * Every triangle of supports with area, twelve figures each: its three supports’ places, then of each the share of the weight
   * that statics gives it, c₀ + c₁·x + c₂·y.
   */
  triangles: readonly number[]
}

/** @throws Refusal `too-few-supports`, `duplicate-support`, `collinear-supports`, `unequal-stiffness`. */
export function prepareFootprint(supports: readonly Support[]): Footprint {
  if (supports.length < 3) {
    throw new Refusal('too-few-supports', 'Give at least three supports; fewer cannot hold a machine up.', 'supports')
  }
  const ids = new Set(supports.map((s) => s.id))
  if (ids.size < supports.length) {
    throw new Refusal('duplicate-support', 'Two supports have the same id; give each its own.', 'supports')
  }
  const stiff = supports.filter((s) => s.stiffness_N_per_m !== undefined).length
  if (stiff !== 0 && stiff !== supports.length) {
    throw new Refusal('missing-stiffness', 'Give stiffness_N_per_m for every support or for none.', 'supports')
  }
  const size_m = sizeOf(supports)
  const hull = convexHull(supports)
  const thin = hull.length < 3 || area2(hull) <= 1e-9 * size_m * size_m
  if (thin) {
    throw new Refusal('collinear-supports', 'The supports stand in one line; move at least one out of the line.', 'supports')
  }
  const centre = {
    x_m: supports.reduce((s, p) => s + p.x_m, 0) / supports.length,
    y_m: supports.reduce((s, p) => s + p.y_m, 0) / supports.length,
  }
  const k0 = supports[0]?.stiffness_N_per_m ?? 1
  const scaled = supports.map((s) => ({
    x: (s.x_m - centre.x_m) / size_m,
    y: (s.y_m - centre.y_m) / size_m,
    k: (s.stiffness_N_per_m ?? 1) / k0,
  }))
  const each = scaled.flatMap((s) => [s.x, s.y, s.k])
  const packed = [centre.x_m, centre.y_m, 1 / size_m, ...inverseOf(scaled), ...each]
  return {
    supports,
    hull,
    edges: edgesOf(hull),
    size_m,
    least_m: 1e-9 * size_m,
    centre,
    scaled,
    packed,
    whole: wholeOf(packed),
    triangles: trianglesOf(supports, size_m),
  }
}

function edgesOf(hull: readonly Support[]): Footprint['edges'] {
  return hull.map((b, i) => {
    const a = nth(hull, (i + hull.length - 1) % hull.length)
    const l = Math.hypot(b.x_m - a.x_m, b.y_m - a.y_m)
    const [nx, ny] = [-(b.y_m - a.y_m) / l, (b.x_m - a.x_m) / l]
    return { a, b, nx, ny, c: -(nx * a.x_m + ny * a.y_m) }
  })
}

/** Signed distance from a point to the footprint’s nearest edge, metres, inside positive. */
export function marginOf(f: Footprint, p: Point): number {
  let least = Infinity
  for (const e of f.edges) {
    const inside = e.nx * p.x_m + e.ny * p.y_m + e.c
    if (inside < least) least = inside
  }
  // Inside a convex polygon the nearest line is the nearest edge; outside it an edge’s end may be nearer.
  return least > 0 ? least : marginInside(f.hull, p).margin_m
}

function inverseOf(p: Footprint['scaled']): number[] {
  let [m00, m01, m02, m11, m12, m22] = [0, 0, 0, 0, 0, 0]
  for (const s of p) {
    m00 += s.k
    m01 += s.k * s.x
    m02 += s.k * s.y
    m11 += s.k * s.x * s.x
    m12 += s.k * s.x * s.y
    m22 += s.k * s.y * s.y
  }
  const c00 = m11 * m22 - m12 * m12
  const c01 = m02 * m12 - m01 * m22
  const c02 = m01 * m12 - m02 * m11
  const det = m00 * c00 + m01 * c01 + m02 * c02
  return [c00, c01, c02, m00 * m22 - m02 * m02, m01 * m02 - m00 * m12, m00 * m11 - m01 * m01].map((v) => v / det)
}

function area2(hull: readonly Point[]): number {
  let sum = 0
  let a = nth(hull, hull.length - 1)
  for (const b of hull) {
    sum += a.x_m * b.y_m - b.x_m * a.y_m
    a = b
  }
  return sum
}

/** The full-contact answer as one affine function of the resultant for each support. */
function wholeOf(p: readonly number[]): number[] {
  const [cx, cy, per, v00, v01] = [nth(p, 0), nth(p, 1), nth(p, 2), nth(p, 3), nth(p, 4)]
  const [v02, v11, v12, v22] = [nth(p, 5), nth(p, 6), nth(p, 7), nth(p, 8)]
  const out: number[] = []
  for (let i = 9; i < p.length; i += 3) {
    const [x, y, k] = [nth(p, i), nth(p, i + 1), nth(p, i + 2)]
    const c0 = k * (v00 + v01 * x + v02 * y)
    const c1 = k * (v01 + v11 * x + v12 * y) * per
    const c2 = k * (v02 + v12 * x + v22 * y) * per
    out.push(c0 - c1 * cx - c2 * cy, c1, c2)
  }
  return out
}

function trianglesOf(p: readonly Support[], size_m: number): number[] {
  const out: number[] = []
  for (let i = 0; i < p.length; i++) {
    for (let j = i + 1; j < p.length; j++) {
      for (let k = j + 1; k < p.length; k++) {
        const [a, b, c] = [nth(p, i), nth(p, j), nth(p, k)]
        const twice = (b.x_m - a.x_m) * (c.y_m - a.y_m) - (b.y_m - a.y_m) * (c.x_m - a.x_m)
        if (Math.abs(twice) <= 1e-9 * size_m * size_m) continue
        const share = (u: Support, v: Support) => [
          (u.x_m * v.y_m - v.x_m * u.y_m) / twice,
          (u.y_m - v.y_m) / twice,
          (v.x_m - u.x_m) / twice,
        ]
        out.push(i, j, k, ...share(b, c), ...share(c, a), ...share(a, b))
      }
    }
  }
  return out
}
