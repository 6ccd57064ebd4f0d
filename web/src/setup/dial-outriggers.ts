import { type Crane, outriggerSupport, type SetupPlan, type Verdict } from '@geolabe/core'
import type { DialOutrigger } from '../instruments/dial'

/** The legs of a plan as the dial draws them: what presses on the ground at its true size. */
export function dialOutriggers(
  machine: Crane,
  plan: SetupPlan,
  tell: (id: string) => { verdict: Verdict | null; note: string },
): DialOutrigger[] {
  return outriggerSupport(machine.outriggers)
    .contactsOf(plan.standing.outriggers)
    .map((foot) => {
      const outrigger = machine.outriggers.find((l) => l.id === foot.id)
      const mat = plan.standing.outriggers.find((l) => l.id === foot.id)?.mat
      return {
        id: foot.id,
        label: outrigger?.label ?? foot.id,
        x_m: foot.x_m,
        y_m: foot.y_m,
        length_m: mat?.length_m ?? outrigger?.float.length_m ?? 0.5,
        width_m: mat?.width_m ?? outrigger?.float.width_m ?? 0.5,
        ...tell(foot.id),
      }
    })
}
