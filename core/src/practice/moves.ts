import { tick_s } from '../swing/axis'
import type { Drill } from './drill'

/** One movement of one lever, from the tick it leaves its middle to the tick it is back. */
export interface Move {
  axis: number
  from: number
  to: number
  way: 1 | -1
}

const moved = 0.05
const joined_s = 0.15
const pumped = 0.3

/** The moves of one lever, gaps shorter than its dead time joined, pumping taken apart. */
export function movesOfLever(levers: readonly number[], axis: number, dead_s: number): Move[] {
  const gap = Math.round(Math.max(joined_s, dead_s) / tick_s)
  const moves: Move[] = []
  let [top, low, falling] = [0, 0, false]
  const begin = (tick: number, u: number) => {
    moves.push({ axis, from: tick, to: tick + 1, way: u > 0 ? 1 : -1 })
    top = Math.abs(u)
    falling = false
  }
  for (const [tick, u] of levers.entries()) {
    const size = Math.abs(u)
    if (size <= moved) continue
    const last = moves.at(-1)
    if (!last || tick - last.to >= gap || Math.sign(u) !== last.way) {
      begin(tick, u)
      continue
    }
    // Let down below half and up again: another move, though the lever was never let go.
    if (size < top / 2) {
      low = falling ? Math.min(low, size) : size
      falling = true
    }
    if (falling && size >= low + pumped) begin(tick, u)
    else last.to = tick + 1
    top = Math.max(top, size)
  }
  return moves
}

/** All moves of a run in the order they began. */
export const movesOf = (d: Pick<Drill, 'rig' | 'samples'>): Move[] =>
  d.rig.axes
    .flatMap((a, i) =>
      movesOfLever(
        d.samples.map((s) => s.levers[i] ?? 0),
        i,
        a.limits.dead_s,
      ),
    )
    .sort((a, b) => a.from - b.from || a.axis - b.axis)
