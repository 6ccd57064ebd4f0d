import { z } from 'zod'
import { rad } from '../../physics'
import { finite, positive } from '../../quantity/measured'
import { Refusal } from '../../refusal'
import { boundary, peakBetween } from '../../search'

/** A boom that is drawn out and raised ahead of a truck; from the front axle, metres. */
export const reachPart = z.strictObject({
  pin: z.strictObject({ x_m: finite, height_m: positive }),
  /** From the boom's end to where the forks, or the hook, are. */
  head: z.strictObject({ ahead_m: finite, below_m: finite }),
  lengths: z.strictObject({ least_m: positive, most_m: positive }),
  angles: z.strictObject({ least_deg: finite, most_deg: finite }),
  /** From the face of its tool to the load centre that reach is counted to. */
  loadCentre_m: positive,
})
export type ReachPart = z.infer<typeof reachPart>

/** How far the boom is drawn out and raised. */
export interface ReachPose {
  boom_m: number
  angle_deg: number
}
/** Where its tool then is: height of the forks, and reach from the front of the tyres to the load centre. */
export interface ReachPoint {
  height_m: number
  reach_m: number
}

const jointed = z.strictObject({ boom_m: positive, angle_deg: finite })
const placed = z.strictObject({ height_m: finite, reach_m: finite })
export const reachWaypoint = z.union([jointed, placed])
export type ReachWaypoint = z.infer<typeof reachWaypoint>

/** @param datum_m the front of the tyres, ahead of the front axle */
export function pointAt({ pin, head, loadCentre_m }: ReachPart, datum_m: number, { boom_m, angle_deg }: ReachPose): ReachPoint {
  return {
    height_m: pin.height_m + boom_m * Math.sin(angle_deg * rad) - head.below_m,
    reach_m: pin.x_m + boom_m * Math.cos(angle_deg * rad) + head.ahead_m + loadCentre_m - datum_m,
  }
}

/**
 * The one length and angle that put the tool there.
 *
 * @throws Refusal `out-of-reach`, `joint-outside` naming what it would take
 * @example poseFor(part, 0.65, { height_m: 8, reach_m: 3 }) // { boom_m: 8.363, angle_deg: 51.55 }
 */
export function poseFor(part: ReachPart, datum_m: number, at: ReachWaypoint, path = ''): ReachPose {
  const { lengths, angles } = part
  const pose = jointsFor(part, datum_m, at)
  const { boom_m, angle_deg } = pose
  if (boom_m < lengths.least_m - 1e-6 || boom_m > lengths.most_m + 1e-6)
    throw new Refusal(
      'out-of-reach',
      `That takes a boom of ${boom_m.toFixed(2)} m; it goes from ${lengths.least_m} to ${lengths.most_m} m.`,
      path,
    )
  if (angle_deg < angles.least_deg - 1e-6 || angle_deg > angles.most_deg + 1e-6)
    throw new Refusal(
      'joint-outside',
      `That takes a boom angle of ${angle_deg.toFixed(1)}°; it goes from ${angles.least_deg} to ${angles.most_deg}°.`,
      path,
    )
  return pose
}

/** The same, whether the boom gets there or not. */
export function jointsFor({ pin, head, loadCentre_m }: ReachPart, datum_m: number, at: ReachWaypoint): ReachPose {
  if ('boom_m' in at) return at
  const [u, v] = [at.reach_m + datum_m - loadCentre_m - head.ahead_m - pin.x_m, at.height_m - pin.height_m + head.below_m]
  return { boom_m: Math.hypot(u, v), angle_deg: Math.atan2(v, u) / rad }
}

/** A pose on its way, and how far along: in waypoints from the first. */
export interface OnReach extends ReachPoint {
  t: number
}

/** Points of a piece that are looked at before what turns between them is refined. */
const scan = 40

/**
 * A way through poses, joints running evenly from each to the next: its ends, points between, where reach or height turn, and both sides and the middle of
 * every crossing of a row or column, so that a reading by steps is exact.
 *
 * @param rows, columns heights and reaches at which a reading changes
 */
export function alongReach(
  part: ReachPart,
  datum_m: number,
  poses: readonly ReachPose[],
  rows: readonly number[],
  columns: readonly number[],
): OnReach[] {
  const [first] = poses
  if (poses.length === 1 && first) return [{ t: 0, ...pointAt(part, datum_m, first) }]
  return poses.slice(1).flatMap((to, i) => {
    const from = poses[i]
    if (!from) return []
    const at = (t: number): OnReach => {
      const pose = {
        boom_m: from.boom_m + (to.boom_m - from.boom_m) * t,
        angle_deg: from.angle_deg + (to.angle_deg - from.angle_deg) * t,
      }
      return { t: i + t, ...pointAt(part, datum_m, pose) }
    }
    const marks = Array.from({ length: scan + 1 }, (_, k) => k / scan)
    const turns = (['reach_m', 'height_m'] as const).flatMap((what) =>
      [1, -1].flatMap((sign) =>
        marks.slice(1, -1).flatMap((m, k) => {
          const f = (t: number) => sign * at(t)[what]
          const [before, after] = [marks[k] ?? 0, marks[k + 2] ?? 1]
          return f(m) >= f(before) && f(m) >= f(after) ? [peakBetween(f, before, after, 1e-9).x] : []
        }),
      ),
    )
    const steps = [...new Set([...marks, ...turns])].sort((a, b) => a - b)
    const crossings = steps.slice(1).flatMap((end, k) => {
      const start = steps[k] ?? 0
      return (
        [
          ['height_m', rows],
          ['reach_m', columns],
        ] as const
      ).flatMap(([what, lines]) =>
        lines.flatMap((line) => {
          const [a, b] = [at(start)[what] - line, at(end)[what] - line]
          if (a * b > 0 || a === b) return []
          return [boundary((t) => (at(t)[what] - line) * a > 0, start, end, 1e-10)]
        }),
      )
    })
    const all = [...new Set([...steps, ...crossings])].sort((a, b) => a - b)
    const middles = all.slice(1).map((b, k) => (b + (all[k] ?? 0)) / 2)
    return [...all, ...middles].sort((a, b) => a - b).map(at)
  })
}
