import type { Shift } from '@geolabe/contract'
import type { LiftPlan, Place, Tower, TowStep } from '@geolabe/core'
import { oneKind } from '../prove/one-kind'
import { piece } from '../truck/draft'

export interface TowDraft {
  lift: LiftPlan
}

/** A first plan: nothing known of the vehicle, the arm as short as it goes, a level stretch of the place's own ground. */
export function firstTow(machine: Tower, place: Place, shift: Shift): TowDraft {
  const last = shift.lifts.at(-1)
  if (last && isTow({ lift: last.plan })) return { lift: last.plan }
  const load = { name: '', mass_kg: null, massSource: null, windArea_m2: null, dragCoefficient: 1.2 }
  const step: TowStep = {
    do: 'tow',
    laden: true,
    lifted_kg: null,
    overhang_m: machine.tow.arm.from_m,
    toAxle_m: null,
    speed_mps: null,
    way: [piece(place, place.defaultGround)],
  }
  return { lift: { format: 'geolabe.lift/2', hung: { load, rigging: [] }, steps: [step] } }
}

export const { is: isTow, of: towOf, with: withTow } = oneKind('tow')
