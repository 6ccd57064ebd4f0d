/** A rectangle square to its axes: from where to where along each, metres. */
export interface Ranges {
  x: readonly [least: number, most: number]
  y: readonly [least: number, most: number]
}

/**
 * How far a place is from a rectangle in plan, metres; within it nought.
 *
 * @example awayFrom({ x: [0, 2], y: [0, 1] }, [5, 5]) // 5
 */
export function awayFrom({ x, y }: Ranges, at: readonly [number, number]): number {
  const beyond = (v: number, [low, high]: readonly [number, number]) => Math.max(0, low - v, v - high)
  return Math.hypot(beyond(at[0], x), beyond(at[1], y))
}
