/** A point in space, metres. */
export interface Point3 {
  x: number
  y: number
  z: number
}

/** Square of the sine between two directions under which rounding, not they, says where they cross. */
const nearlyParallel = 1e-10

const unit = (v: number) => (v < 0 ? 0 : v > 1 ? 1 : v)

/**
 * Least distance between two segments in space, metres; either may be a point.
 * Source: C. Ericson, Real-Time Collision Detection, 5.1.9.
 */
export function segmentDistance(p1: Point3, q1: Point3, p2: Point3, q2: Point3): number {
  // Asked for millions of times: written out, number by number: a pair taken apart makes an object of each.
  const ux = q1.x - p1.x
  const uy = q1.y - p1.y
  const uz = q1.z - p1.z
  const vx = q2.x - p2.x
  const vy = q2.y - p2.y
  const vz = q2.z - p2.z
  const rx = p1.x - p2.x
  const ry = p1.y - p2.y
  const rz = p1.z - p2.z
  const a = ux * ux + uy * uy + uz * uz
  const e = vx * vx + vy * vy + vz * vz
  const f = vx * rx + vy * ry + vz * rz
  const c = ux * rx + uy * ry + uz * rz
  const b = ux * vx + uy * vy + uz * vz
  const tiny = 1e-18
  let s = 0
  let t = 0
  let parallel = false
  if (a <= tiny && e <= tiny) t = 0
  else if (a <= tiny) t = unit(f / e)
  else if (e <= tiny) s = unit(-c / a)
  else {
    const across = a * e - b * b
    parallel = across <= nearlyParallel * a * e
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
  const x = rx + s * ux - t * vx
  const y = ry + s * uy - t * vy
  const z = rz + s * uz - t * vz
  const found = Math.sqrt(x * x + y * y + z * z)
  if (!parallel) return found
  // Rounding decides where such a pair is nearest; at an end of one of them it is as near, or nearer than what was found.
  const ends = [segmentDistance(p1, p1, p2, q2), segmentDistance(q1, q1, p2, q2)]
  return Math.min(found, ...ends, segmentDistance(p2, p2, p1, q1), segmentDistance(q2, q2, p1, q1))
}
