import { byUse, type Finding, found, shareOf } from '../finding/finding'
import { g_mps2 } from '../physics'
import { endsOf, high } from '../quantity/measured'
import { Refusal } from '../refusal'
import { hitchShare } from '../rigging/hitch'
import { slingTension } from '../rigging/sling-tension'
import { lengthsOf, liftPoints, type Slings } from '../rigging/slings'
import type { Check } from './check'
import type { LiftContext } from './context'
import { gantryStructure } from './gantry'
import { boomRaised } from './raising'
import { runwayStructure } from './runway'
import { straddleSlings } from './straddle'
import { towArm } from './towing'

type Lengths = NonNullable<ReturnType<typeof lengthsOf>>

/** Every figure at each of its ends: tension is worst at one of the corners, the legs at their shortest and widest. */
function corners({ length_m, along_m, across_m }: Lengths) {
  return endsOf(length_m).flatMap((length) =>
    endsOf(along_m).flatMap((along) =>
      endsOf(across_m).map((across) => ({ length_m: length, along_m: along, across_m: across })),
    ),
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

/** As much of a step as its slings ask for. */
type Hooked = Pick<LiftContext, 'plan' | 'near_share'> & { hook: { load_kg: number } | null; step: { laden: boolean } }

/** What each leg of the slings is pulled with against what it is marked with in this hitch. */
function slingsOf({ plan, hook, step, near_share }: Hooked): Finding[] {
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
}

/** On props: what the boom's foot pulls the frame up with. */
function footOf({ support, stands, near_share }: LiftContext): Finding[] {
  const props = support.state?.props
  const feet_kg = stands.flatMap((s) => (s.propped ? [s.propped.foot_kg] : []))
  if (!props || feet_kg.length === 0) return []
  const pull_N = -Math.min(...feet_kg) * g_mps2
  const base = { check: 'structure', subject: 'foot' } as const
  if (pull_N <= 0) return [found({ ...base, verdict: 'inside', reason: 'foot-bears', detail: {} })]
  const utilisation = shareOf(pull_N, props.footPull_N)
  const figures = { quantity: 'force', measured: pull_N, nominal: pull_N, limit: props.footPull_N, utilisation } as const
  return [found({ ...base, verdict: byUse(utilisation, near_share), reason: 'foot-pull', ...figures, detail: {} })]
}

/** Slings by their marks, the foot of a propped boom, an arm that lifts behind: what is neither rope, hook nor ground. */
export const structureCheck: Check<'structure'> = {
  id: 'structure',
  since: 1,
  run: (ctx) => [...slingsOf(ctx), ...footOf(ctx), ...boomRaised(ctx)],
  tow: towArm,
  runway: (ctx) => [...slingsOf({ ...ctx, hook: ctx.hung && { load_kg: ctx.hung.worst_kg } }), ...runwayStructure(ctx)],
  gantry: gantryStructure,
  straddle: straddleSlings,
  heldBackBy: ['mass', 'boom-limits'],
  impliedBy: [],
  remedies: ['slings', 'mass', 'split', 'arm', 'lifted'],
}

const basketAt = ({ basketAngle_deg }: Slings) => (basketAngle_deg === undefined ? undefined : high(basketAngle_deg))
