import type { Shift } from '@geolabe/contract'
import { type Crane, type HookPoint, type LiftPlan, nominal, type Place, type Step, type Tol } from '@geolabe/core'

export interface ProveDraft {
  lift: LiftPlan
  wind_mps: Tol | null
}

/** A first plan: a load that waits here, the middle boom, points to either side of where the machine can work. */
export function firstLift(machine: Crane, place: Place, shift: Shift): ProveDraft {
  const last = shift.lifts[shift.lifts.length - 1]
  if (last) return { lift: last.plan, wind_mps: null }
  const load = place.loads[0]
  return {
    lift: {
      format: 'geolabe.lift/2',
      hung: {
        load: load
          ? {
              name: load.label,
              mass_kg: load.mass_kg,
              massSource: load.massSource,
              windArea_m2: load.windArea_m2,
              dragCoefficient: load.dragCoefficient,
              ...(load.size ? { size: load.size } : {}),
            }
          : { name: '', mass_kg: null, massSource: null, windArea_m2: null, dragCoefficient: 1.2 },
        rigging: [],
      },
      steps: [
        {
          do: 'slew',
          laden: true,
          boom_m: machine.boom.lengths_m[Math.floor(machine.boom.lengths_m.length / 2)] as number,
          pickUp: { radius_m: 7, slew_deg: 250 },
          setDown: { radius_m: 9, slew_deg: 300 },
          slewDirection: 'anticlockwise',
          radiusBasis: null,
        },
      ],
    },
    wind_mps: null,
  }
}

/** The step that is drawn and worked on: the first one with the load on. */
export function stepOf({ steps }: LiftPlan): Step {
  return steps.find((s) => s.laden) ?? (steps[0] as Step)
}

/** The lift with that step changed. */
export function withStep(lift: LiftPlan, to: Partial<Step>): LiftPlan {
  const step = stepOf(lift)
  return { ...lift, steps: lift.steps.map((s) => (s === step ? { ...s, ...to } : s)) }
}

/** The lift with its load, or what hangs with it, changed. */
export const withHung = (lift: LiftPlan, to: Partial<LiftPlan['hung']>): LiftPlan => ({ ...lift, hung: { ...lift.hung, ...to } })

/** Is a draft that was kept on the device of today's shape? */
export const isLiftDraft = (d: Partial<ProveDraft>): boolean => d.lift?.format === 'geolabe.lift/2'

/** Moves a point without losing what is said about its measurement. */
export function movedTo(p: HookPoint, to: { radius_m: number; slew_deg: number }): HookPoint {
  return { slew_deg: to.slew_deg, radius_m: typeof p.radius_m === 'number' ? to.radius_m : { ...p.radius_m, value: to.radius_m } }
}

export const plainPoint = (p: HookPoint) => ({ radius_m: nominal(p.radius_m), slew_deg: p.slew_deg })
