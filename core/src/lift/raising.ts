import type { Crane } from '../machine/crane'
import { straightBoom } from '../parts/booms/boom-model'
import { standing as asItStands, counterweightNamed } from '../parts/superstructure'
import { supportOf } from '../parts/supports/states'
import { boomRaising } from '../statics/boom-raising'
import { footLift } from '../statics/foot-lift'
import type { Standing } from './plan'

interface Stands {
  /** Its feet, or the ends of its tracks, from the slew centre. */
  contacts: readonly { x_m: number }[]
  counterweight: { mass_kg: number; radius_m: number }
}

/** A machine's boom, as it lies ahead of its foot. */
function lyingBoom({ boom }: Crane, boom_m: number) {
  const foot_m = -boom.pivot.back_m
  return straightBoom(boom)
    .massesAt(boom_m, 0)
    .map((m) => ({ mass_kg: m.mass_kg, at_m: m.radius_m - foot_m }))
}

/**
 * Raising a machine's own boom from the ground, over the front; what does not move with it is the base.
 *
 * @param angles_deg those asked for by name; the extremes are those of the whole way between them
 * @returns null where its boom is not raised by pendants
 * @throws Refusal as `boomRaising`
 */
export function machineRaising(
  machine: Crane,
  boom_m: number,
  { contacts, counterweight }: Stands,
  angles_deg: readonly number[],
) {
  const { raising, pivot } = machine.boom
  if (!raising) return null
  const fixed = [
    ...machine.chassis.masses.map((m) => ({ mass_kg: m.mass_kg, x_m: m.x_m })),
    ...machine.upper.masses.map((m) => ({ mass_kg: m.mass_kg, x_m: m.radius_m })),
  ]
  const base_kg = fixed.reduce((s, m) => s + m.mass_kg, 0)
  return boomRaising({
    boom: lyingBoom(machine, boom_m),
    foot: { x_m: -pivot.back_m, height_m: pivot.height_m },
    pendant: { at_m: boom_m, mast_x_m: raising.mast.x_m, mast_height_m: raising.mast.height_m },
    base: { mass_kg: base_kg, x_m: fixed.reduce((s, m) => s + m.mass_kg * m.x_m, 0) / base_kg },
    counterweight: { mass_kg: counterweight.mass_kg, x_m: counterweight.radius_m },
    front_m: Math.max(...contacts.map((c) => c.x_m)),
    back_m: -Math.min(...contacts.map((c) => c.x_m)),
    keepMargin_m: raising.keepMargin_m,
    angles_deg,
  })
}

/** A boom's way from the ground to its steepest, a degree at a time, against what its book allows. */
export interface RaisingWay extends NonNullable<ReturnType<typeof machineRaising>> {
  limits: { pendant_N: number; keepMargin_m: number }
  /** It may: pendants and both margins within their limits all the way. */
  may: boolean
}

/**
 * The whole way of a machine's boom from the ground to its steepest angle.
 *
 * @param counterweight by its id; nothing of it may be suspended, which another mast raises by the maker's plan
 * @returns null where its boom is not raised by pendants, or something is suspended
 * @example raisingWay(kittiwake, { on: 'tracks' }, 48, 'base')?.greatestPendant_N // 523,549
 */
export function raisingWay(machine: Crane, standing: Standing, boom_m: number, counterweight: string): RaisingWay | null {
  const fitted = counterweightNamed(machine.name, machine.upper, counterweight)
  const { raising, maxAngle_deg } = machine.boom
  if (!raising || fitted.suspended) return null
  const angles = [...Array.from({ length: Math.ceil(maxAngle_deg) }, (_, i) => i), maxAngle_deg]
  const stands = { contacts: supportOf(machine, standing).contacts, counterweight: asItStands(fitted) }
  const way = machineRaising(machine, boom_m, stands, angles)
  if (!way) return null
  const { pendant_N, keepMargin_m } = raising
  return { ...way, limits: { pendant_N, keepMargin_m }, may: way.stands && way.greatestPendant_N <= pendant_N }
}

/** The same boom as it lies with its foot beside its hinge. */
export function footLiftInput(machine: Crane, boom_m: number) {
  const boom = lyingBoom(machine, boom_m)
  const mass_kg = boom.reduce((s, m) => s + m.mass_kg, 0)
  const cgFromFoot_m = boom.reduce((s, m) => s + m.mass_kg * m.at_m, 0) / mass_kg
  const { back_m, height_m } = machine.boom.pivot
  return { boom_m, mass_kg, cgFromFoot_m, hinge: { x_m: -back_m, height_m } }
}

/**
 * Its foot lifted to its hinge, its head on the ground.
 *
 * @param slingFromFoot_m where the sling is, metres from the foot along the boom
 * @throws Refusal as the calculator `foot-lift`
 */
export function machineFootLift(machine: Crane, boom_m: number, slingFromFoot_m: number) {
  const lies = footLiftInput(machine, boom_m)
  return { mass_kg: lies.mass_kg, ...footLift({ ...lies, slingFromFoot_m }) }
}
