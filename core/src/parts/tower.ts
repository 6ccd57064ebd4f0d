import { z } from 'zod'
import { notNegative, positive } from '../quantity/measured'

/** What a tower stands on, and what keeps it there: without it only its moment is known. */
const basePart = z.strictObject({
  /** Half a side of its base, where it bears. */
  half_m: positive,
  /** What is confirmed where statics does not say that it stands: the papers of its base. */
  papersEvidence: z.string().min(1),
  /** Wind as its book steps it: up to so much, loads of no more than so much sail; without a sail any. */
  windSteps: z.array(z.strictObject({ upTo_mps: positive, windArea_m2: notNegative.optional() })).min(1),
})

export const towerPart = z.strictObject({ moment_kgm: positive, jib_m: positive, base: basePart.optional() })
export type TowerPart = z.infer<typeof towerPart>
