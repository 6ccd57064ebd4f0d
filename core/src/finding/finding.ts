import { z } from 'zod'
import { type CheckName, type Said, said } from './reasons'

/** Never fewer than four. */
export const verdict = z.enum(['inside', 'near', 'outside', 'not-proven'])
export type Verdict = z.infer<typeof verdict>

export const quantity = z.enum(['mass', 'length', 'area', 'pressure', 'force', 'speed', 'angle', 'share'])
export type Quantity = z.infer<typeof quantity>

/** One thing looked at: what, measured, limit, by which rule. Words are made from it in one place (`wording/`). */
export const finding = z.intersection(
  z.object({
    /** Check and subject: one finding each. */
    id: z.string(),
    /** The leg, or the end of the path, it is about. */
    subject: z.string().nullable(),
    verdict,
    quantity: quantity.nullable(),
    /** At the worse end of every doubt, SI. */
    measured: z.number().nullable(),
    /** With every doubt left out. */
    nominal: z.number().nullable(),
    limit: z.number().nullable(),
    utilisation: z.number().nullable(),
    at: z.object({ radius_m: z.number(), slew_deg: z.number() }).nullable(),
    /** In which step of the lift, counted from nought; how far along it, in poses from its first, and in which pose. */
    where: z
      .object({
        step: z.int(),
        t: z.number().optional(),
        pose: z.object({ inner_deg: z.number(), fold_deg: z.number(), extension_m: z.number(), slew_deg: z.number() }).optional(),
      })
      .optional(),
  }),
  said,
)
export type Finding = z.infer<typeof finding>
/** A finding of one check. */
export type FindingOf<C extends CheckName> = Extract<Finding, { check: C }>

const rank: Record<Verdict, number> = { inside: 0, near: 1, 'not-proven': 2, outside: 3 }

/** Which of two verdicts is worse: outside before not proven, before near, before inside. */
export function worseVerdict(a: Verdict, b: Verdict): Verdict {
  return rank[a] >= rank[b] ? a : b
}
/** The worst of several verdicts; null: there is none. */
export function worstVerdict(verdicts: readonly (Verdict | null)[]): Verdict | null {
  return verdicts.reduce((a, b) => (a && b ? worseVerdict(a, b) : (a ?? b)), null)
}
export function isWorse(a: Verdict, b: Verdict): boolean {
  return rank[a] > rank[b]
}

/** A limit of nothing is fuller than any; what has no figure comes last. */
const fullness = (f: Finding) => f.utilisation ?? (f.limit !== null && f.limit <= 0 ? Infinity : -1)

/** The one that decides: worst verdict first, then the fullest use of its limit. */
export function governingOf(findings: readonly Finding[]): Finding | null {
  let worst: Finding | null = null
  for (const f of findings) {
    if (worst === null || isWorse(f.verdict, worst.verdict) || (f.verdict === worst.verdict && fullness(f) > fullness(worst))) {
      worst = f
    }
  }
  return worst
}

/** Inside, near or outside by the share of a limit that is used. */
export function byUse(utilisation: number | null, near_share: number): Verdict {
  // Written so that what cannot be compared (NaN, a limit of nothing) is outside, never a pass.
  if (utilisation === null || !(utilisation <= 1 + 1e-12)) return 'outside'
  return utilisation >= near_share ? 'near' : 'inside'
}

/** Share of a limit that is used; null: the limit is nothing, or so little that the share is no figure. */
export function shareOf(measured: number, limit: number): number | null {
  const share = limit > 0 ? measured / limit : Infinity
  return share < mostShare ? share : null
}
const mostShare = 1e9

type Figures = Pick<Finding, 'subject' | 'quantity' | 'measured' | 'nominal' | 'limit' | 'utilisation' | 'at'>

/** A finding with everything that is left out empty. */
export function found(f: Said & { verdict: Verdict } & Partial<Figures>): Finding {
  return {
    subject: null,
    quantity: null,
    measured: null,
    nominal: null,
    limit: null,
    utilisation: null,
    at: null,
    ...f,
    id: f.subject ? `${f.check}:${f.subject}` : f.check,
  }
}
