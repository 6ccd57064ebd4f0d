import { byUse, type Finding, found, shareOf } from '../finding/finding'
import { machineRaising } from '../lift/raising'
import type { BoomPart } from '../parts/booms/telescopic'
import type { LiftContext } from './context'

type Raised = NonNullable<ReturnType<typeof machineRaising>>

/** It depends on machine, boom and counterweight, not on the lift. */
const known = new WeakMap<BoomPart, Map<string, Raised | null>>()

function raisingOf({ machine, step: { boom_m }, unladenCounterweight: cw, contacts }: LiftContext): Raised | null {
  const answers = known.get(machine.boom) ?? new Map<string, Raised | null>()
  known.set(machine.boom, answers)
  const key = `${boom_m} ${cw.mass_kg} ${cw.radius_m}`
  const answer =
    answers.get(key) ?? machineRaising(machine, boom_m, { contacts, counterweight: cw }, [0, machine.boom.maxAngle_deg])
  answers.set(key, answer)
  return answer
}

/** A lattice boom is as long as it was built, whatever a lift counts with. */
function boomAsBuilt({ plan, step: { boom_m } }: LiftContext): Finding[] {
  const built_m = plan.setup.fitted.boom_m
  if (built_m === undefined || Math.abs(built_m - boom_m) < 1e-9) return []
  return [
    found({
      check: 'structure',
      subject: 'boom',
      verdict: 'outside',
      reason: 'other-boom',
      detail: {},
      quantity: 'length',
      measured: boom_m,
      nominal: boom_m,
      limit: built_m,
      utilisation: null,
    }),
  ]
}

/** Could this length of boom be raised from the ground as it stands: what its pendants pull, and how near it comes to its front edge. */
export function boomRaised(ctx: LiftContext): Finding[] {
  const { machine, near_share, step } = ctx
  const built = boomAsBuilt(ctx)
  const raised = raisingOf(ctx)
  const { raising } = machine.boom
  // With what is suspended a mast of its own raises it, by the maker's plan.
  if (!raised || !raising || ctx.plan.setup.fitted.counterweight !== machine.upper.counterweights[0]?.id) return built
  const base = { check: 'structure' } as const
  const { boom_m } = step
  const pull = shareOf(raised.greatestPendant_N, raising.pendant_N)
  const left = shareOf(raising.keepMargin_m, raised.leastFrontMargin_m)
  const [N, m] = [raised.greatestPendant_N, raised.leastFrontMargin_m]
  return [
    ...built,
    found({
      ...base,
      subject: 'pendants',
      verdict: byUse(pull, near_share),
      reason: 'pendants',
      quantity: 'force',
      measured: N,
      nominal: N,
      limit: raising.pendant_N,
      utilisation: pull,
      detail: { boom_m, at_deg: raised.greatestPendantAt_deg },
    }),
    found({
      ...base,
      subject: 'raising',
      verdict: byUse(left, near_share),
      reason: 'raising-front',
      quantity: 'length',
      measured: m,
      nominal: m,
      limit: raising.keepMargin_m,
      utilisation: left,
      detail: { boom_m },
    }),
  ]
}
