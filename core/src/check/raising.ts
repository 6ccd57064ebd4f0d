import { byUse, type Finding, found, shareOf } from '../finding/finding'
import type { BoomPart } from '../parts/booms/telescopic'
import { boomRaising } from '../statics/boom-raising'
import type { LiftContext } from './context'

type Raised = ReturnType<typeof boomRaising>

/** It depends on machine, boom and counterweight, not on the lift. */
const known = new WeakMap<BoomPart, Map<string, Raised>>()

function raisingOf({ machine, step: { boom_m }, unladenCounterweight: cw, contacts, boom }: LiftContext): Raised | null {
  const { raising, pivot } = machine.boom
  if (!raising) return null
  const answers = known.get(machine.boom) ?? new Map<string, Raised>()
  known.set(machine.boom, answers)
  const key = `${boom_m} ${cw.mass_kg} ${cw.radius_m}`
  const before = answers.get(key)
  if (before) return before
  const foot_m = -pivot.back_m
  // The boom lies ahead over the front; what does not move with it is the base.
  const fixed = [
    ...machine.chassis.masses.map((m) => ({ mass_kg: m.mass_kg, x_m: m.x_m })),
    ...machine.upper.masses.map((m) => ({ mass_kg: m.mass_kg, x_m: m.radius_m })),
  ]
  const base_kg = fixed.reduce((s, m) => s + m.mass_kg, 0)
  const answer = boomRaising({
    boom: boom.massesAt(boom_m, 0).map((m) => ({ mass_kg: m.mass_kg, at_m: m.radius_m - foot_m })),
    foot: { x_m: foot_m, height_m: pivot.height_m },
    pendant: { at_m: boom_m, mast_x_m: raising.mast.x_m, mast_height_m: raising.mast.height_m },
    base: { mass_kg: base_kg, x_m: fixed.reduce((s, m) => s + m.mass_kg * m.x_m, 0) / base_kg },
    counterweight: { mass_kg: cw.mass_kg, x_m: cw.radius_m },
    front_m: Math.max(...contacts.map((c) => c.x_m)),
    back_m: -Math.min(...contacts.map((c) => c.x_m)),
    keepMargin_m: raising.keepMargin_m,
    angles_deg: [0, machine.boom.maxAngle_deg],
  })
  answers.set(key, answer)
  return answer
}

/** Could this length of boom be raised from the ground as it stands: what its pendants pull, and how near it comes to its front edge. */
export function boomRaised(ctx: LiftContext): Finding[] {
  const { machine, near_share, step } = ctx
  const raised = raisingOf(ctx)
  const { raising } = machine.boom
  // With what is suspended a mast of its own raises it, by the maker's plan.
  if (!raised || !raising || ctx.plan.setup.fitted.counterweight !== machine.upper.counterweights[0]?.id) return []
  const base = { check: 'structure' } as const
  const { boom_m } = step
  const pull = shareOf(raised.greatestPendant_N, raising.pendant_N)
  const left = shareOf(raising.keepMargin_m, raised.leastFrontMargin_m)
  const [N, m] = [raised.greatestPendant_N, raised.leastFrontMargin_m]
  return [
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
