import type { Point } from '../plane/point'
import { upperReactions } from './elastic'
import type { Footprint } from './footprint'

/** The most that one support can carry while the resultant moves along a line, and how far along it that is. */
export interface UpperAlong {
  id: string
  upper_N: number
  /** 0 at the beginning of the line, 1 at its end. */
  t: number
}

/**
 * The greatest upper bound of each support's load while the resultant moves straight from one point to another.
 *
 * The bound is concave and made of flat pieces that meet on the lines through two supports, so it is greatest at an end or where the way
 * crosses such a line: exact, also where it is greater between the ends than at both.
 *
 * @param from, to metres, both inside the footprint or on its edge
 * @param force_N the whole weight
 * @returns one entry a support, in their order
 * @example square ±1 m, 1000 N from (−0.4, 0) to (0.2, −0.6): front left 300 N and 200 N at the ends, 400 N a third of the way along
 */
export function upperAlong(f: Footprint, from: Point, to: Point, force_N: number): UpperAlong[] {
  const { supports } = f
  const best: UpperAlong[] = supports.map(({ id }) => ({ id, upper_N: -Infinity, t: 0 }))
  const carried = new Float64Array(supports.length)
  for (const t of [0, 1, ...crossings(supports, from, to)]) {
    upperReactions(f, from.x_m + t * (to.x_m - from.x_m), from.y_m + t * (to.y_m - from.y_m), force_N, carried)
    best.forEach((b, i) => {
      const upper_N = carried[i] ?? 0
      if (upper_N > b.upper_N) Object.assign(b, { upper_N, t })
    })
  }
  return best
}

/** Where a line crosses those through every two supports, as shares of its length. */
function crossings(supports: readonly Point[], from: Point, to: Point): number[] {
  const [dx, dy] = [to.x_m - from.x_m, to.y_m - from.y_m]
  return supports.flatMap((a, i) =>
    supports.slice(i + 1).flatMap((b) => {
      const [ex, ey] = [b.x_m - a.x_m, b.y_m - a.y_m]
      const across = dx * ey - dy * ex
      const t = ((a.x_m - from.x_m) * ey - (a.y_m - from.y_m) * ex) / across
      return t > 0 && t < 1 ? [t] : []
    }),
  )
}
