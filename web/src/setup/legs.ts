import { type Crane, outriggers, type SetupPlan, type Verdict } from '@geolabe/core'
import type { DialLeg } from '../instruments/dial'

/** The legs of a plan as the dial draws them: what presses on the ground at its true size. */
export function dialLegs(
  machine: Crane,
  plan: SetupPlan,
  tell: (id: string) => { verdict: Verdict | null; note: string },
): DialLeg[] {
  return outriggers(machine.legs)
    .contactsOf(plan.legs)
    .map((foot) => {
      const leg = machine.legs.find((l) => l.id === foot.id)
      const mat = plan.legs.find((l) => l.id === foot.id)?.mat
      return {
        id: foot.id,
        label: leg?.label ?? foot.id,
        x_m: foot.x_m,
        y_m: foot.y_m,
        length_m: mat?.length_m ?? leg?.pad.length_m ?? 0.5,
        width_m: mat?.width_m ?? leg?.pad.width_m ?? 0.5,
        ...tell(foot.id),
      }
    })
}
