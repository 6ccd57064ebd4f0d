import { byUse, type Finding, found, shareOf } from '../finding/finding'
import { g_mps2 } from '../physics'
import { high, low, type Tol } from '../quantity/measured'
import { Refusal } from '../refusal'
import { hitchShare } from '../rigging/hitch'
import { slingTension } from '../rigging/sling-tension'
import { lengthsOf, liftPoints, type Slings } from '../rigging/slings'
import type { Check } from './check'

type Lengths = NonNullable<ReturnType<typeof lengthsOf>>

/** Every figure at each of its ends: tension is worst at one of the corners, the legs at their shortest and widest. */
function corners({ length_m, along_m, across_m }: Lengths) {
  const ends = (t: Tol) => [...new Set([low(t), high(t)])]
  return ends(length_m).flatMap((length) =>
    ends(along_m).flatMap((along) => ends(across_m).map((across) => ({ length_m: length, along_m: along, across_m: across }))),
  )
}

/** The hardest that any leg is pulled, newtons, and its angle; null: the legs are too short or hang too flat. */
function hardest({ legs }: Slings, lengths: Lengths, mass_kg: number): { tension_N: number; angle_deg: number } | null {
  const pulled = corners(lengths).map((c) => {
    const { lifts, hook_m } = liftPoints({ legs, ...c })
    if (hook_m === null) return null
    try {
      return slingTension({ mass_kg, hook: { x_m: 0, y_m: 0, z_m: hook_m }, lifts, rule: 'two', limit_N: null }).legs
    } catch (e) {
      if (e instanceof Refusal) return null
      throw e
    }
  })
  if (pulled.some((each) => each === null)) return null
  return pulled.flatMap((each) => each ?? []).reduce((a, b) => (b.tension_N > a.tension_N ? b : a))
}

/** What each leg of the slings is pulled with against what it is marked with in this hitch. */
export const structureCheck: Check<'structure'> = {
  id: 'structure',
  since: 1,
  run: ({ plan, hook, step, near_share }) => {
    const { slings } = plan.lift.hung
    if (!slings || !hook || !step.laden) return []
    const base = { check: 'structure', subject: 'slings' } as const
    const lengths = lengthsOf(slings)
    if (!lengths) return [found({ ...base, verdict: 'not-proven', reason: 'no-lengths', detail: {} })]
    const worst = hardest(slings, lengths, hook.load_kg)
    if (!worst) return [found({ ...base, verdict: 'outside', reason: 'sling-flat', detail: {} })]
    const { tension_N, angle_deg } = worst
    const detail = { legs: slings.legs, angle_deg }
    if (slings.wll_kg === null) return [found({ ...base, verdict: 'not-proven', reason: 'no-mark', detail })]
    const share = hitchShare(slings.hitch, { ...slings, basketAngle_deg: basketAt(slings) })
    const limit = slings.wll_kg * share * g_mps2
    const utilisation = shareOf(tension_N, limit)
    const finding: Finding = found({
      ...base,
      verdict: byUse(utilisation, near_share),
      reason: 'sling',
      quantity: 'force',
      measured: tension_N,
      nominal: tension_N,
      limit,
      utilisation,
      detail,
    })
    return [finding]
  },
  heldBackBy: ['mass'],
  impliedBy: [],
  remedies: ['slings', 'mass', 'split'],
}

const basketAt = ({ basketAngle_deg }: Slings) => (basketAngle_deg === undefined ? undefined : high(basketAngle_deg))
