import type { Shift } from '@geolabe/contract'
import { type Crane, liftsOnOutriggers, type Machine, outriggerSupport, type Place, type Step } from '@geolabe/core'

/** The shift that is open, with its machine and place: what a calculator can take its figures from. */
export interface Mine {
  machine: Machine
  place: Place
  shift: Shift
}

/** The machine with its set-up and the last lift planned in it, where it stands on outriggers; else null. */
export function standing({ machine, shift }: Mine) {
  const setup = shift.setups.at(-1)?.plan
  if (!liftsOnOutriggers(machine) || !setup) return null
  return { machine, setup, lift: shift.lifts.at(-1) ?? null }
}

/** Where it bears on the ground, metres from the slew centre. */
export function supportsOf(mine: Mine): { id: string; x_m: number; y_m: number }[] | null {
  const at = standing(mine)
  return at && outriggerSupport(at.machine.outriggers).contactsOf(at.setup.standing.outriggers)
}

/** The step with the load on of the last lift that was planned. */
export const stepPlanned = ({ shift }: Mine): Step | null => shift.lifts.at(-1)?.plan.steps.find((s) => s.laden) ?? null

/** Its boom, at the length of the last lift, else at its middle one. */
export function boomOf(mine: Mine): { boom: Crane['boom']; boom_m: number } | null {
  const { machine } = mine
  if (!liftsOnOutriggers(machine)) return null
  const { boom } = machine
  return { boom, boom_m: stepPlanned(mine)?.boom_m ?? boom.lengths_m[Math.floor(boom.lengths_m.length / 2)] ?? 0 }
}
