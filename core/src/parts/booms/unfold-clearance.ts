import { z } from 'zod'
import { defineCalculator } from '../../calculator/define'
import { rad } from '../../physics'
import { finite, measured, measuredNotNegative, measuredPositive } from '../../quantity/measured'

/** What lies under a folded boom: from where to where along its bearing, solid below its top. */
interface Box {
  x0_m: number
  x1_m: number
  top_m: number
}

export interface Unfolding {
  inner_m: number
  outer_m: number
  /** Half the depth of the outer boom with what hangs on it. */
  halfDepth_m: number
  pivot: { back_m: number; height_m: number }
  margin_m: number
  boxes: readonly Box[]
  foldFrom_deg: number
  foldTo_deg: number
  maxAngle_deg: number
}

type At = readonly [x_m: number, z_m: number]

/** How near a segment comes to a box that goes down for ever, metres; nothing: it is in it. */
function toBox(a: At, b: At, { x0_m, x1_m, top_m }: Box): number {
  const away = ([x, z]: At) => Math.hypot(Math.max(0, x0_m - x, x - x1_m), Math.max(0, z - top_m))
  const [dx, dz] = [b[0] - a[0], b[1] - a[1]]
  const length = dx * dx + dz * dz
  /** From a corner of its top to the nearest of the segment. */
  const toCorner = (x: number) => {
    const t = length > 0 ? Math.min(1, Math.max(0, ((x - a[0]) * dx + (top_m - a[1]) * dz) / length)) : 0
    return Math.hypot(a[0] + t * dx - x, a[1] + t * dz - top_m)
  }
  // Where it crosses one of its sides, or its top, it is in it.
  const heightAt = (x: number) => ((a[0] - x) * (b[0] - x) <= 0 && dx !== 0 ? a[1] + ((x - a[0]) / dx) * dz : Infinity)
  if (Math.min(heightAt(x0_m), heightAt(x1_m)) <= top_m) return 0
  return Math.min(away(a), away(b), toCorner(x0_m), toCorner(x1_m))
}

/** The least step towards a smaller angle, degrees: as closely as an answer is given. */
const least_deg = 0.002

/**
 * The least angle of the inner boom from which on, at every greater one, the outer boom clears what lies under it through every fold.
 * An angle that clears by c clears for another c/(inner + outer) radians: nothing is stepped over.
 *
 * @returns null where it does not clear even at its steepest; and what it then touches, or would just below
 * @example leastInner({ inner_m: 2.9, outer_m: 3, halfDepth_m: 0.25, … boxes: [{ x0_m: -2, x1_m: 4, top_m: 1.3 }] }).leastInner_deg // 50.88
 */
export function leastInner(u: Unfolding): { leastInner_deg: number | null; touches: { box: number; fold_deg: number } | null } {
  const [least, most] = [Math.min(u.foldFrom_deg, u.foldTo_deg), Math.max(u.foldFrom_deg, u.foldTo_deg)]
  const elbowAt = (angle_deg: number): At => [
    u.inner_m * Math.cos(angle_deg * rad) - u.pivot.back_m,
    u.pivot.height_m + u.inner_m * Math.sin(angle_deg * rad),
  ]
  const gapAt = (angle_deg: number, fold_deg: number, box: Box) => {
    const elbow = elbowAt(angle_deg)
    const out = (angle_deg - fold_deg) * rad
    const tip = [elbow[0] + u.outer_m * Math.cos(out), elbow[1] + u.outer_m * Math.sin(out)] as const
    return toBox(elbow, tip, box) - u.halfDepth_m - u.margin_m
  }
  /**
   * Folds where the outer boom can come nearest to a box: at both ends of its way, straight down and straight ahead or back, and pointing at a
   * corner. A point that goes round is nearest to a convex thing there and nowhere else; where it is in it, one of these is too.
   */
  const foldsNear = (angle_deg: number, box: Box): number[] => {
    const [ex, ez] = elbowAt(angle_deg)
    const corners = [box.x0_m, box.x1_m].map((x) => Math.atan2(box.top_m - ez, x - ex) / rad)
    return [least, most, ...[-90, 0, 180, ...corners].map((d) => (((angle_deg - d) % 360) + 360) % 360)].filter(
      (f) => f >= least && f <= most,
    )
  }
  const worstAt = (angle_deg: number) => {
    let worst = { gap_m: Infinity, box: 0, fold_deg: most }
    for (const [i, box] of u.boxes.entries())
      for (const fold_deg of foldsNear(angle_deg, box)) {
        const gap_m = gapAt(angle_deg, fold_deg, box)
        if (gap_m < worst.gap_m) worst = { gap_m, box: i, fold_deg }
      }
    return worst
  }
  let clears: number | null = null
  for (let angle_deg = u.maxAngle_deg; ; ) {
    const { gap_m, box, fold_deg } = worstAt(angle_deg)
    const further_deg = Math.max(least_deg, gap_m / (u.inner_m + u.outer_m) / rad)
    // Written so that what is no figure touches.
    if (!(gap_m >= 0 && further_deg < Infinity)) return { leastInner_deg: clears, touches: { box, fold_deg } }
    clears = angle_deg
    if (angle_deg <= 0) return { leastInner_deg: 0, touches: null }
    angle_deg = Math.max(0, angle_deg - further_deg)
  }
}

export const unfoldClearanceCalculator = defineCalculator({
  name: 'unfold-clearance',
  purpose: 'How far up the inner boom goes before the outer may be unfolded over what lies under it.',
  source: 'Plane geometry of both booms; the outer as deep as it is, swept through every fold.',
  cautions: [
    'Add what your inclinometer may be off by.',
    'Goods put on later are under it when it is stowed: work it out again before that.',
    'None: slew where it may be unfolded, take the cargo off, or do not.',
  ],
  input: z.strictObject({
    inner_m: measuredPositive,
    outer_m: measuredPositive,
    halfDepth_m: measuredNotNegative,
    pivot: z.strictObject({ back_m: measured, height_m: measured }),
    margin_m: measuredNotNegative,
    boxes: z
      .array(
        z
          .strictObject({ x0_m: finite, x1_m: finite, top_m: measured })
          .refine((b) => b.x0_m < b.x1_m, { message: 'Ends before it begins.', path: ['x1_m'] }),
      )
      .min(1, 'Give at least one.')
      .max(20, 'At most 20.'),
    foldFrom_deg: finite.min(0, 'At least 0°.').max(180, 'At most 180°.'),
    foldTo_deg: finite.min(0, 'At least 0°.').max(180, 'At most 180°.'),
    maxAngle_deg: finite.min(0, 'At least 0°.').max(100, 'At most 100°.'),
  }),
  output: z.object({
    leastInner_deg: z.number().nullable(),
    touches: z.object({ box: z.number(), fold_deg: z.number() }).nullable(),
  }),
  worse: { leastInner_deg: { worse: 'high', nothing: 'worst' }, touches: { with: 'leastInner_deg' } },
  example: {
    inner_m: 2.9,
    outer_m: 3,
    halfDepth_m: 0.25,
    pivot: { back_m: 0.1, height_m: 2.6 },
    margin_m: 0.3,
    boxes: [{ x0_m: -4, x1_m: 6, top_m: 1.3 }],
    foldFrom_deg: 165,
    foldTo_deg: 60,
    maxAngle_deg: 80,
  },
  effort: 400,
  compute: leastInner,
})
