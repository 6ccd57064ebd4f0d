import { byUse, found, shareOf } from '../finding/finding'
import type { Crane } from '../machine/crane'
import { upperMasses } from '../parts/superstructure'
import { normalDegrees } from '../physics'
import { backwardStability, crawlerLimit_share } from '../statics/backward-stability'
import type { Check } from './check'
import type { LiftContext } from './context'

type Backward = ReturnType<typeof backwardStability>

/** It depends on the machine, how it stands and the boom's length, not on the lift: worked out once for each. */
const known = new WeakMap<Crane, WeakMap<object, Map<string, Backward>>>()

function backwardOf(ctx: LiftContext): Backward {
  const { machine, boom, unladenCounterweight, contacts, plan, step, support } = ctx
  const sector = ctx.choice.chosen?.configuration.appliesTo.sector
  const setups = known.get(machine) ?? new WeakMap<object, Map<string, Backward>>()
  const answers = setups.get(plan.setup) ?? new Map<string, Backward>()
  known.set(machine, setups)
  setups.set(plan.setup, answers)
  const key = `${step.boom_m} ${sector?.from_deg} ${sector?.to_deg}`
  const answer =
    answers.get(key) ??
    backwardStability({
      supports: contacts,
      masses: machine.chassis.masses,
      slewing: [...upperMasses(machine.upper, unladenCounterweight), ...boom.steepest(step.boom_m).masses],
      crawler: support.on === 'tracks',
      notRated: sector ? [{ from_deg: sector.to_deg, to_deg: sector.from_deg }] : [],
      step_deg: 2,
    })
  answers.set(key, answer)
  return answer
}

/**
 * With the hook empty and the boom as high as it goes: enough of the weight stays on the side or end under the boom, all the way round
 * (15 %, 10 % where the table rates nothing; SAE J1289, ASME B30.5). Wind from the front is listed as not checked: the machine's data give
 * the boom no area.
 */
export const backwardCheck: Check<'backward'> = {
  id: 'backward',
  since: 1,
  run: (ctx) => {
    if (ctx.support.on === 'base') return []
    const { boom, near_share, step } = ctx
    const b = backwardOf(ctx)
    const { radius_m } = boom.steepest(step.boom_m)
    if (!b.stable) {
      const at = { radius_m, slew_deg: normalDegrees(b.at_deg) }
      return [found({ check: 'backward', verdict: 'outside', reason: 'falls-back', at, detail: {} })]
    }
    if (ctx.support.on === 'tracks') {
      const utilisation = shareOf(b.backwardShare, crawlerLimit_share)
      const figures = { quantity: 'share', measured: b.backwardShare, limit: crawlerLimit_share, utilisation } as const
      const at = { radius_m, slew_deg: normalDegrees(b.backwardAt_deg) }
      return [found({ check: 'backward', verdict: byUse(utilisation, near_share), reason: 'behind', ...figures, at, detail: {} })]
    }
    return [
      found({
        check: 'backward',
        verdict: byUse(b.utilisation, near_share),
        reason: 'under-boom',
        quantity: 'share',
        measured: b.underBoomShare,
        limit: b.utilisation === null ? null : b.utilisation * b.underBoomShare,
        utilisation: b.utilisation,
        at: { radius_m, slew_deg: normalDegrees(b.underBoomAt_deg) },
        detail: {},
      }),
    ]
  },
  heldBackBy: [],
  impliedBy: [],
  remedies: ['extension'],
}
