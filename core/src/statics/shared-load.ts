import { nth } from '../list'

/** A point that carries, or stands: x ahead, y to the left, metres. */
export interface At {
  x_m: number
  y_m: number
}

/**
 * Where a hanging load's centre of gravity acts when what it hangs from tilts: a centre below the lift points goes to the high side, one above them
 * to the low side.
 *
 * @param z_m of its centre above the line of lift points, metres
 * @param along rise of the front, cross of the left side: shares of the length
 * @example actsAt({ x_m: 0.3, y_m: 0, z_m: -1 }, 0.0075, 0).x_m // 0.3075
 */
export const actsAt = (cg: At & { z_m: number }, along: number, cross: number): At => ({
  x_m: cg.x_m - cg.z_m * along,
  y_m: cg.y_m - cg.z_m * cross,
})

/** The share of the first of two points on a line, by moments; the rest is the other's. @example firstOfTwo(0.6, 3, -3) // 0.6 */
export const firstOfTwo = (at_m: number, first_m: number, second_m: number): number => (at_m - second_m) / (first_m - second_m)

/** Shares of a triangle's corners for a resultant inside it; null: it stands outside, or the triangle is none. */
function inTriangle(p: At, a: At, b: At, c: At): [number, number, number] | null {
  const det = (b.x_m - a.x_m) * (c.y_m - a.y_m) - (c.x_m - a.x_m) * (b.y_m - a.y_m)
  if (Math.abs(det) < 1e-12) return null
  const sb = ((p.x_m - a.x_m) * (c.y_m - a.y_m) - (c.x_m - a.x_m) * (p.y_m - a.y_m)) / det
  const sc = ((b.x_m - a.x_m) * (p.y_m - a.y_m) - (p.x_m - a.x_m) * (b.y_m - a.y_m)) / det
  const sa = 1 - sb - sc
  return Math.min(sa, sb, sc) < -1e-9 ? null : [sa, sb, sc]
}

/** Every three of four points in order round. */
const threes = [
  [0, 1, 2],
  [0, 1, 3],
  [0, 2, 3],
  [1, 2, 3],
] as const

/**
 * The greatest share that each of four points may have of a load hung from all of them: it may hang on any three that hold its centre.
 *
 * @param four in order round
 * @returns null where the centre stands outside all of them
 * @example upperOfFour({ x_m: 0, y_m: 0 }, square) // [0.5, 0.5, 0.5, 0.5]
 */
export function upperOfFour(p: At, four: readonly At[]): number[] | null {
  const most = [-1, -1, -1, -1]
  for (const three of threes) {
    const shares = inTriangle(p, ...(three.map((i) => nth(four, i)) as [At, At, At]))
    if (!shares) continue
    for (const [k, i] of three.entries()) most[i] = Math.max(nth(most, i), nth(shares, k))
  }
  return most.some((s) => s >= 0) ? most.map((s) => Math.max(0, s)) : null
}

/** Where the greatest share over a box of places of the resultant may be: its corners, and where its sides and its inside meet the diagonals. */
export function worstPlaces(box: { x: readonly [number, number]; y: readonly [number, number] }, four: readonly At[]): At[] {
  const [x0, x1] = box.x
  const [y0, y1] = box.y
  const corners = [x0, x1].flatMap((x_m) => [y0, y1].map((y_m): At => ({ x_m, y_m })))
  const inBox = ({ x_m, y_m }: At) => x_m >= x0 - 1e-12 && x_m <= x1 + 1e-12 && y_m >= y0 - 1e-12 && y_m <= y1 + 1e-12
  const [a, b, c, d] = [nth(four, 0), nth(four, 1), nth(four, 2), nth(four, 3)]
  const onLine = (p: At, q: At): At[] => {
    const [dx, dy] = [q.x_m - p.x_m, q.y_m - p.y_m]
    const atX = (x_m: number): At[] => (Math.abs(dx) < 1e-12 ? [] : [{ x_m, y_m: p.y_m + ((x_m - p.x_m) / dx) * dy }])
    const atY = (y_m: number): At[] => (Math.abs(dy) < 1e-12 ? [] : [{ x_m: p.x_m + ((y_m - p.y_m) / dy) * dx, y_m }])
    return [...atX(x0), ...atX(x1), ...atY(y0), ...atY(y1)]
  }
  const det = (c.x_m - a.x_m) * (d.y_m - b.y_m) - (c.y_m - a.y_m) * (d.x_m - b.x_m)
  const t = Math.abs(det) < 1e-12 ? null : ((b.x_m - a.x_m) * (d.y_m - b.y_m) - (b.y_m - a.y_m) * (d.x_m - b.x_m)) / det
  const meet = t === null ? [] : [{ x_m: a.x_m + t * (c.x_m - a.x_m), y_m: a.y_m + t * (c.y_m - a.y_m) }]
  return [...corners, ...[...onLine(a, c), ...onLine(b, d), ...meet].filter(inBox)]
}
