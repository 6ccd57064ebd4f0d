import type { Shift } from '@geolabe/contract'
import {
  type Crane,
  counterweightNamed,
  liftsOnOutriggers,
  type Machine,
  nominal,
  type Place,
  Refusal,
  type Step,
  straightBoom,
  supportOf,
  upperMasses,
} from '@geolabe/core'

/** The shift that is open, with its machine and place: what a calculator can take its figures from. */
export interface Mine {
  machine: Machine
  place: Place
  shift: Shift
}

/** What the shift knows; nothing while something that it rests on, its counterweight say, is not said. */
export function knownBy<Known>(mine: (at: Mine) => Known | null, at: Mine): Known | null {
  try {
    return mine(at)
  } catch (e) {
    if (e instanceof Refusal) return null
    throw e
  }
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
  return at && [...supportOf(at.machine, at.setup.standing).contacts]
}

/** The step with the load on of the last lift that was planned. */
export const stepPlanned = ({ shift }: Mine): Step | null => shift.lifts.at(-1)?.plan.steps.find((s) => s.laden) ?? null

/** Its boom, at the length of the last lift, else at its middle one. */
export function boomOf(mine: Mine): { boom: Crane['boom']; boom_m: number } | null {
  const { machine } = mine
  if (!liftsOnOutriggers(machine)) return null
  const { boom } = machine
  const planned = stepPlanned(mine)
  return {
    boom,
    boom_m: (planned?.do === 'slew' ? planned.boom_m : undefined) ?? boom.lengths_m[Math.floor(boom.lengths_m.length / 2)] ?? 0,
  }
}

/** Where it stands and what it weighs, unladen: feet at the stops they are set to, what does not turn, and what turns with its boom. */
export function weighing(mine: Mine) {
  const at = standing(mine)
  const supports = supportsOf(mine)
  const own = boomOf(mine)
  if (!at || !supports || !own) return null
  const { name, chassis, upper } = at.machine
  const counterweight = counterweightNamed(name, upper, at.setup.fitted.counterweight)
  const planned = stepPlanned(mine)
  const boom = straightBoom(own.boom)
  const radius_m = planned?.do === 'slew' ? nominal(planned.setDown.radius_m) : null
  const angle_deg = radius_m === null ? own.boom.maxAngle_deg : boom.poseAtRadius(own.boom_m, radius_m).angle_deg
  const masses = chassis.masses.map(({ mass_kg, x_m, y_m }) => ({ mass_kg, x_m, y_m }))
  const turning = [...upperMasses(upper, counterweight), ...boom.massesAt(own.boom_m, angle_deg)]
  return { supports, masses, slewing: turning.filter((m) => m.mass_kg > 0), radius_m }
}
