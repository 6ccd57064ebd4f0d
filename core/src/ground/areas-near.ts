import { nth } from '../list'
import type { Point } from '../plane/point'

/** What is pressed under one bearing point: a rectangle whose sides lie along and across the machine, either way about. */
export interface PressedArea extends Point {
  id: string
  length_m: number
  width_m: number
}

export interface NearAreas {
  ids: [string, string]
  /** Clear ground between the two at the worse way of laying them, metres; below nothing they overlap. */
  gap_m: number
  /** They overlap whichever way they are laid. */
  overlap: boolean
  /** From this gap on each presses by itself: the narrower side of the narrower one, metres. */
  needed_m: number
}

/** Clear distance between two rectangles along the axes, metres; negative: how deep they overlap. */
function gapBetween(a: PressedArea, b: PressedArea): number {
  const dx = Math.abs(a.x_m - b.x_m) - (a.length_m + b.length_m) / 2
  const dy = Math.abs(a.y_m - b.y_m) - (a.width_m + b.width_m) / 2
  return dx > 0 && dy > 0 ? Math.hypot(dx, dy) : Math.max(dx, dy)
}

const turned = (a: PressedArea): PressedArea => ({ ...a, length_m: a.width_m, width_m: a.length_m })

/**
 * Pairs of pressed areas that stand so near each other that what they press on adds up below them. Source: rule of practice, pressure
 * from two areas that are nearer than the narrower one's width meets within about that depth.
 *
 * @example areasNear([{ id: 'FL', x_m: 0, y_m: 1, length_m: 1, width_m: 1 }, { id: 'FR', x_m: 0, y_m: -1, length_m: 1, width_m: 1 }])
 */
export function areasNear(areas: readonly PressedArea[]): NearAreas[] {
  return areas.flatMap((a, i) =>
    areas.slice(i + 1).flatMap((b): NearAreas[] => {
      const ways = [a, turned(a)].flatMap((p) => [b, turned(b)].map((q) => gapBetween(p, q)))
      const gap_m = Math.min(...ways)
      const needed_m = Math.min(a.length_m, a.width_m, b.length_m, b.width_m)
      if (gap_m >= needed_m) return []
      return [
        {
          ids: [a.id, b.id],
          gap_m,
          overlap:
            nth(
              [...ways].sort((x, y) => y - x),
              0,
            ) < 0,
          needed_m,
        },
      ]
    }),
  )
}
