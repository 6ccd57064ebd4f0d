import { z } from 'zod'
import { defineCalculator } from '../../calculator/define'
import { rad } from '../../physics'
import { finite, measured, measuredNotNegative, measuredPositive } from '../../quantity/measured'
import { Refusal } from '../../refusal'

export interface FoldingBoom {
  inner_m: number
  /** Outer boom with its powered extension drawn. */
  outer_m: number
  pivot: { back_m: number; height_m: number }
}

export interface FoldingPose {
  angle_deg: number
  /** 0: straight on from the inner boom; positive: folded down. */
  fold_deg: number
}

/** Tip of a folding boom: inner∠α + outer∠(α − fold) from the boom foot. */
export function foldingTip(b: FoldingBoom, p: FoldingPose): { radius_m: number; height_m: number } {
  const a = p.angle_deg * rad
  const o = (p.angle_deg - p.fold_deg) * rad
  return {
    radius_m: b.inner_m * Math.cos(a) + b.outer_m * Math.cos(o) - b.pivot.back_m,
    height_m: b.pivot.height_m + b.inner_m * Math.sin(a) + b.outer_m * Math.sin(o),
  }
}

/** Both elbows that put the tip at a point: knuckle above the line to the tip (fold positive) first. Empty: out of reach. */
export function foldingPoses(b: FoldingBoom, tip: { radius_m: number; height_m: number }): FoldingPose[] {
  const x = tip.radius_m + b.pivot.back_m
  const z = tip.height_m - b.pivot.height_m
  const cosFold = (x * x + z * z - b.inner_m ** 2 - b.outer_m ** 2) / (2 * b.inner_m * b.outer_m)
  if (Math.abs(cosFold) > 1 + 1e-12) return []
  const fold = Math.acos(Math.max(-1, Math.min(1, cosFold)))
  return (fold < 1e-9 ? [0] : [fold, -fold]).map((f) => ({
    angle_deg: (Math.atan2(z, x) + Math.atan2(b.outer_m * Math.sin(f), b.inner_m + b.outer_m * Math.cos(f))) / rad,
    fold_deg: f / rad,
  }))
}

const pose = z.object({ elbow: z.enum(['up', 'down', 'straight']), angle_deg: z.number(), fold_deg: z.number() })

export const articulatedGeometryCalculator = defineCalculator({
  name: 'articulated-geometry',
  purpose: 'Where the tip of a folding boom stands for two angles, or which angles put it at a point.',
  source: 'Plane geometry of two hinged booms; both elbows.',
  cautions: ['Booms bend and pins have play: under load the tip stands lower and further out than this.'],
  input: z.strictObject({
    inner: z.strictObject({
      length_m: measuredPositive,
      angle_deg: measured.optional(),
      min_deg: finite.optional(),
      max_deg: finite.optional(),
    }),
    outer: z.strictObject({
      length_m: measuredPositive,
      extension_m: measuredNotNegative,
      fold_deg: measured.optional(),
      min_deg: finite.optional(),
      max_deg: finite.optional(),
    }),
    pivot: z.strictObject({ back_m: measured, height_m: measured }),
    tip: z.strictObject({ radius_m: measured, height_m: measured }).optional(),
  }),
  output: z.object({ radius_m: z.number(), height_m: z.number(), poses: z.array(pose) }),
  worse: {
    radius_m: 'high',
    height_m: 'either',
    poses: { rows: 'elbow' },
    'poses.*.elbow': 'given',
    'poses.*.angle_deg': 'either',
    'poses.*.fold_deg': 'either',
  },
  example: {
    inner: { length_m: 3.2, angle_deg: 60 },
    outer: { length_m: 2.8, extension_m: 4, fold_deg: 50 },
    pivot: { back_m: 0, height_m: 1.6 },
  },
  compute: ({ inner, outer, pivot, tip }) => {
    const within = (v: number, min = -Infinity, max = Infinity) => v >= min - 1e-9 && v <= max + 1e-9
    const b: FoldingBoom = { inner_m: inner.length_m, outer_m: outer.length_m + outer.extension_m, pivot }
    const elbow = (fold: number) => (Math.abs(fold) < 1e-9 ? 'straight' : fold > 0 ? 'up' : 'down') as 'up' | 'down' | 'straight'
    if (tip === undefined) {
      if (inner.angle_deg === undefined) throw new Refusal('angles-or-tip', 'Give both angles, or the tip.', 'inner.angle_deg')
      if (outer.fold_deg === undefined) throw new Refusal('angles-or-tip', 'Give both angles, or the tip.', 'outer.fold_deg')
      const at = { angle_deg: inner.angle_deg, fold_deg: outer.fold_deg }
      if (!within(at.angle_deg, inner.min_deg, inner.max_deg))
        throw new Refusal(
          'outside-angles',
          'The inner boom does not go to this angle; keep inside its limits.',
          'inner.angle_deg',
        )
      if (!within(at.fold_deg, outer.min_deg, outer.max_deg))
        throw new Refusal(
          'outside-angles',
          'The outer boom does not fold to this angle; keep inside its limits.',
          'outer.fold_deg',
        )
      return { ...foldingTip(b, at), poses: [{ elbow: elbow(at.fold_deg), ...at }] }
    }
    if (inner.angle_deg !== undefined || outer.fold_deg !== undefined) {
      throw new Refusal('angles-or-tip', 'Give either both angles or the tip, not both.', 'tip')
    }
    const all = foldingPoses(b, tip)
    if (all.length === 0) throw new Refusal('out-of-reach', 'The booms do not reach this point; extend or come closer.', 'tip')
    const poses = all
      .filter((p) => within(p.angle_deg, inner.min_deg, inner.max_deg) && within(p.fold_deg, outer.min_deg, outer.max_deg))
      .map((p) => ({ elbow: elbow(p.fold_deg), ...p }))
    if (poses.length === 0) {
      throw new Refusal('outside-angles', 'The booms reach this point only outside their angle limits.', 'tip')
    }
    return { ...tip, poses }
  },
})
