import { type Crane, type SetupPlan, supportOf } from '@geolabe/core'
import type { DialOutrigger } from '../instruments/dial'

/** What a machine stands on by its plan, as the dial draws it: what presses on the ground at its true size. */
export function dialFeet(machine: Crane, plan: SetupPlan): Omit<DialOutrigger, 'verdict' | 'note'>[] {
  const { contacts, points, settings } = supportOf(machine, plan.standing)
  // A base and tracks are drawn with the machine itself.
  if (points.length === 0) return []
  return contacts.map((foot) => {
    const point = points.find((l) => l.id === foot.id)
    const outrigger = machine.outriggers?.find((l) => l.id === foot.id)
    const on = settings.find((l) => l.id === foot.id)?.mat ?? point?.float
    const { x_m, y_m } = foot
    return {
      id: foot.id,
      label: point?.label ?? foot.id,
      x_m,
      y_m,
      // A wheel hangs on no beam; a leg swings from its hinge, or is let down from the frame; a beam slides across.
      from:
        plan.standing.on !== 'outriggers'
          ? null
          : (outrigger?.swing?.hinge ?? (outrigger?.drop ? { x_m: x_m * 0.3, y_m: y_m * 0.2 } : { x_m, y_m: 0 })),
      length_m: on?.length_m ?? 0.5,
      width_m: on?.width_m ?? 0.5,
    }
  })
}
