/** A point in space, metres. */
export interface Point3 {
  x: number
  y: number
  z: number
}

const sub = (a: Point3, b: Point3): Point3 => ({ x: a.x - b.x, y: a.y - b.y, z: a.z - b.z })
const dot = (a: Point3, b: Point3) => a.x * b.x + a.y * b.y + a.z * b.z
const unit = (v: number) => Math.min(1, Math.max(0, v))

/**
 * Least distance between two segments in space, metres; either may be a point.
 * Source: C. Ericson, Real-Time Collision Detection, 5.1.9.
 */
export function segmentDistance(p1: Point3, q1: Point3, p2: Point3, q2: Point3): number {
  const d1 = sub(q1, p1)
  const d2 = sub(q2, p2)
  const r = sub(p1, p2)
  const a = dot(d1, d1)
  const e = dot(d2, d2)
  const f = dot(d2, r)
  const c = dot(d1, r)
  const b = dot(d1, d2)
  const tiny = 1e-18
  let s = 0
  let t = 0
  if (a <= tiny && e <= tiny) t = 0
  else if (a <= tiny) t = unit(f / e)
  else if (e <= tiny) s = unit(-c / a)
  else {
    const across = a * e - b * b
    s = across > tiny * a * e ? unit((b * f - c * e) / across) : 0
    t = (b * s + f) / e
    if (t < 0) {
      t = 0
      s = unit(-c / a)
    } else if (t > 1) {
      t = 1
      s = unit((b - c) / a)
    }
  }
  return Math.hypot(r.x + s * d1.x - t * d2.x, r.y + s * d1.y - t * d2.y, r.z + s * d1.z - t * d2.z)
}
