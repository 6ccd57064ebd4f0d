import { nth } from '../list'
import type { Footprint } from './footprint'

/** Where the supports begin in a packed footprint, and how many figures each has there. */
const first_ = 9
const each_ = 3
/** Supports beyond this many do not fit the contact set's bits; they take the damped way at once. */
const most_bits = 30
/** Undamped steps after which the damped way is taken; four to six supports settle in one to four. */
const most_steps = 8

/**
 * Reactions of a rigid frame on springs that cannot pull, for a resultant inside the footprint.
 *
 * Minimises ½ΣRᵢ²/kᵢ under ΣRᵢ = W, ΣRᵢxᵢ = Wx̄, ΣRᵢyᵢ = Wȳ, Rᵢ ≥ 0 (Winkler supports). The dual is convex and
 * piecewise quadratic in the frame's sink and two tilts (a, b, c) with Rᵢ = kᵢ·max(0, a + b·xᵢ + c·yᵢ). The first guess
 * has every support in contact; while the contact set changes a Newton step is taken, damped where it does not settle.
 *
 * @param x_m resultant in the plan frame, metres; must lie inside the hull
 * @param force_N the resultant, newtons, downwards, positive
 * @param out reactions in newtons are written here, one per support, in order
 */
export function elasticReactions(f: Footprint, x_m: number, y_m: number, force_N: number, out: Float64Array): void {
  // Nearly always every support stays in contact, and that is the answer.
  if (allInContact(f, x_m, y_m, force_N, out)) return
  const p = f.packed
  const end = p.length
  const tx = (x_m - (p[0] ?? 0)) * (p[2] ?? 0)
  const ty = (y_m - (p[1] ?? 0)) * (p[2] ?? 0)
  const v01 = p[4] ?? 0
  const v02 = p[5] ?? 0
  const v12 = p[7] ?? 0
  let a = (p[3] ?? 0) + v01 * tx + v02 * ty
  let b = v01 + (p[6] ?? 0) * tx + v12 * ty
  let c = v02 + v12 * tx + (p[8] ?? 0) * ty
  // The contact set as bits: that of the last step, all in contact at first.
  let contact = (1 << ((end - first_) / each_)) - 1
  for (let step = end > first_ + each_ * most_bits ? most_steps : 0; step < most_steps; step++) {
    let now = 0
    let m00 = 0
    let m01 = 0
    let m02 = 0
    let m11 = 0
    let m12 = 0
    let m22 = 0
    for (let i = first_, l = 0; i < end; i += each_, l++) {
      const x = p[i] ?? 0
      const y = p[i + 1] ?? 0
      const lift = a + b * x + c * y
      if (lift > 0) {
        const k = p[i + 2] ?? 0
        out[l] = force_N * k * lift
        now |= 1 << l
        const kx = k * x
        const ky = k * y
        m00 += k
        m01 += kx
        m02 += ky
        m11 += kx * x
        m12 += kx * y
        m22 += ky * y
      } else out[l] = 0
    }
    if (now === contact) return
    contact = now
    const c00 = m11 * m22 - m12 * m12
    const c01 = m02 * m12 - m01 * m22
    const c02 = m01 * m12 - m02 * m11
    const det = m00 * c00 + m01 * c01 + m02 * c02
    if (!(det > 1e-14 * m00 * m00 * m00)) break
    const c12 = m01 * m02 - m00 * m12
    const by = 1 / det
    a = (c00 + c01 * tx + c02 * ty) * by
    b = (c01 + (m00 * m22 - m02 * m02) * tx + c12 * ty) * by
    c = (c02 + c12 * tx + (m00 * m11 - m01 * m01) * ty) * by
  }
  dampedReactions(f, tx, ty, force_N, out)
}

/** The answer with every support in contact; false where one of them would have to pull. */
function allInContact({ whole }: Footprint, x_m: number, y_m: number, force_N: number, out: Float64Array): boolean {
  let holds = true
  for (let i = 0, l = 0; i < whole.length; i += each_, l++) {
    const share = (whole[i] ?? 0) + (whole[i + 1] ?? 0) * x_m + (whole[i + 2] ?? 0) * y_m
    if (share <= 0) holds = false
    out[l] = force_N * share
  }
  return holds
}

/**
 * The slow and certain way: Newton steps from where the whole frame would stand, each halved while the dual does not fall.
 * Where the contact is on a line only, a touch of stiffness lets the step out of it; it pulls towards the present point, not
 * towards nothing, so that it has no part in the answer: the end is where the equilibrium holds.
 */
function dampedReactions(f: Footprint, tx: number, ty: number, force_N: number, out: Float64Array): void {
  const p = f.scaled
  const n = p.length
  // Unit load; scaled to newtons at the end.
  let [a, b, c] = [1, 0, 0]
  for (let step = 0; step < 200; step++) {
    let [m00, m01, m02, m11, m12, m22] = [0, 0, 0, 0, 0, 0]
    for (let i = 0; i < n; i++) {
      const s = nth(p, i)
      // The first step takes every support as in contact.
      if (step > 0 && a + b * s.x + c * s.y <= 0) continue
      m00 += s.k
      m01 += s.k * s.x
      m02 += s.k * s.y
      m11 += s.k * s.x * s.x
      m12 += s.k * s.x * s.y
      m22 += s.k * s.y * s.y
    }
    // What is still missing of force and moments.
    const g0 = 1 - (m00 * a + m01 * b + m02 * c)
    const g1 = tx - (m01 * a + m11 * b + m12 * c)
    const g2 = ty - (m02 * a + m12 * b + m22 * c)
    if (step > 0 && Math.max(Math.abs(g0), Math.abs(g1), Math.abs(g2)) < 1e-14) break
    let c00 = m11 * m22 - m12 * m12
    let det = m00 * c00 - m01 * (m01 * m22 - m12 * m02) + m02 * (m01 * m12 - m11 * m02)
    if (!(det > 1e-14 * m00 * m00 * m00)) {
      const e = 1e-7 * (m00 || 1)
      m00 += e
      m11 += e
      m22 += e
      c00 = m11 * m22 - m12 * m12
      det = m00 * c00 - m01 * (m01 * m22 - m12 * m02) + m02 * (m01 * m12 - m11 * m02)
    }
    const c01 = m02 * m12 - m01 * m22
    const c02 = m01 * m12 - m02 * m11
    const c11 = m00 * m22 - m02 * m02
    const c12 = m01 * m02 - m00 * m12
    const c22 = m00 * m11 - m01 * m01
    const da = (c00 * g0 + c01 * g1 + c02 * g2) / det
    const db = (c01 * g0 + c11 * g1 + c12 * g2) / det
    const dc = (c02 * g0 + c12 * g1 + c22 * g2) / det
    let changes = step === 0
    for (let i = 0; i < n && !changes; i++) {
      const s = nth(p, i)
      const was = a + b * s.x + c * s.y
      changes = was > 0 !== was + da + db * s.x + dc * s.y > 0
    }
    const t = changes && step > 0 ? falling(f, [a, b, c], [da, db, dc], tx, ty) : 1
    a += t * da
    b += t * db
    c += t * dc
  }
  for (let i = 0; i < n; i++) {
    const s = nth(p, i)
    const lift = a + b * s.x + c * s.y
    out[i] = lift > 0 ? force_N * s.k * lift : 0
  }
}

/** The greatest of a whole step, half of it, a quarter … at which the dual falls. Convexity makes this end. */
function falling(
  f: Footprint,
  [a, b, c]: readonly [number, number, number],
  [da, db, dc]: readonly [number, number, number],
  tx: number,
  ty: number,
): number {
  const here = dual(f, a, b, c, tx, ty)
  let t = 1
  for (let halvings = 0; halvings < 50; halvings++) {
    if (dual(f, a + t * da, b + t * db, c + t * dc, tx, ty) < here) break
    t /= 2
  }
  return t
}

function dual(f: Footprint, a: number, b: number, c: number, tx: number, ty: number): number {
  let sum = -(a + b * tx + c * ty)
  for (const s of f.scaled) {
    const lift = a + b * s.x + c * s.y
    if (lift > 0) sum += 0.5 * s.k * lift * lift
  }
  return sum
}

/**
 * The greatest each leg can carry whatever the stiffnesses and settlements: over all triangles of supports that contain
 * the resultant. A centred load on a square gives W/4 elastic and W/2 here.
 */
export function upperReactions(f: Footprint, x_m: number, y_m: number, force_N: number, out: Float64Array): void {
  const t = f.triangles
  out.fill(0)
  for (let i = 0; i < t.length; i += 12) {
    const a = (t[i + 3] ?? 0) + (t[i + 4] ?? 0) * x_m + (t[i + 5] ?? 0) * y_m
    const b = (t[i + 6] ?? 0) + (t[i + 7] ?? 0) * x_m + (t[i + 8] ?? 0) * y_m
    const c = 1 - a - b
    if (a < -1e-9 || b < -1e-9 || c < -1e-9) continue
    const la = t[i] ?? 0
    const lb = t[i + 1] ?? 0
    const lc = t[i + 2] ?? 0
    if (a * force_N > (out[la] ?? 0)) out[la] = a * force_N
    if (b * force_N > (out[lb] ?? 0)) out[lb] = b * force_N
    if (c * force_N > (out[lc] ?? 0)) out[lc] = c * force_N
  }
}
