import { type BoomPose, type BoomShape, poseAtAngle, poseAtRadius } from '../parts/booms/telescopic-geometry'
import type { BoomPart, Extension, HoistPart, Leg } from '../parts/parts'
import { rad } from '../physics'
import { Refusal } from '../refusal'
import type { Support } from '../statics/footprint'
import { type FixedSums, type SlewingSums, sumFixed, sumSlewing } from '../statics/resultant'
import type { SlewingMass } from '../statics/schema'
import type { Machine } from './machine'

/** A machine that has everything a lift on legs needs. */
export type Crane = Machine & {
  boom: BoomPart
  legs: Leg[]
  hoist: HoistPart
  upper: NonNullable<Machine['upper']>
  chassis: NonNullable<Machine['chassis']>
}

/** What a slewing crane's stability is worked out from. */
export type SlewingModel = Pick<Crane, 'name' | 'boom' | 'upper' | 'chassis'>

export function isCrane(m: Machine): m is Crane {
  return Boolean(m.boom && m.legs && m.hoist && m.upper && m.chassis)
}

/** Where the feet stand for the extensions chosen. @throws Refusal `missing-leg` when a leg has no setting. */
export function footprintOf(machine: Pick<Crane, 'legs'>, legs: readonly { id: string; extension: Extension }[]): Support[] {
  return machine.legs.map((leg) => {
    const chosen = legs.find((l) => l.id === leg.id)
    if (!chosen) throw new Refusal('missing-leg', `Say how far ${leg.label} is out.`, 'setup.legs')
    return { id: leg.id, ...leg.positions[chosen.extension] }
  })
}

export function counterweightOf(machine: SlewingModel, setup: { counterweight: string }) {
  const c = machine.upper.counterweights.find((w) => w.id === setup.counterweight)
  if (!c) {
    const known = machine.upper.counterweights.map((w) => w.id).join(', ')
    throw new Refusal(
      'unknown-counterweight',
      `${machine.name} has no such counterweight; it has: ${known}.`,
      'setup.counterweight',
    )
  }
  return c
}

export function boomShape(machine: Pick<Crane, 'boom'>, boom_m: number, deflection_m = 0): BoomShape {
  return { boom_m, pivot: machine.boom.pivot, headOffset_m: machine.boom.headOffset_m, deflection_m }
}

/**
 * Masses that turn with the superstructure with the boom in a pose: the upper's own, the counterweight, each boom section
 * where the angle puts it. The boom's masses move with the boom; their outward bend is not added.
 */
export function slewingMasses(
  machine: Pick<Crane, 'boom' | 'upper'>,
  counterweight: { mass_kg: number; radius_m: number },
  boom_m: number,
  angle_deg: number,
): SlewingMass[] {
  const c = Math.cos(angle_deg * rad)
  return [
    ...machine.upper.masses.map(({ mass_kg, radius_m }) => ({ mass_kg, radius_m })),
    { mass_kg: counterweight.mass_kg, radius_m: counterweight.radius_m },
    ...machine.boom.masses.map((m) => ({
      mass_kg: m.mass_kg,
      radius_m: (m.at_m + m.share * boom_m) * c - machine.boom.pivot.back_m,
    })),
  ]
}

/** Something fixed to the boom that is no part of it: a stowed jib, a cable drum. */
export interface OnBoom {
  mass_kg: number
  /** From the boom foot, metres; omitted: at the head. */
  at_m?: number | undefined
}

/** Where what is fixed to the boom stands with the boom in a pose: it moves with the boom. */
export function onBoomMasses(
  machine: Pick<Crane, 'boom'>,
  boom_m: number,
  angle_deg: number,
  fixed: readonly OnBoom[],
): SlewingMass[] {
  const head_m = poseAtAngle(boomShape(machine, boom_m), angle_deg).radius_m
  const c = Math.cos(angle_deg * rad)
  return fixed.map(({ mass_kg, at_m }) => ({
    mass_kg,
    radius_m: at_m === undefined ? head_m : at_m * c - machine.boom.pivot.back_m,
  }))
}

/** Boom mass reduced to the head, Σm·s/L: F of the 1.25P + 0.1F rule. */
export function boomHeadMass_kg(machine: Pick<Crane, 'boom'>, boom_m: number, fixed: readonly OnBoom[] = []): number {
  const own = machine.boom.masses.reduce((s, m) => s + (m.mass_kg * (m.at_m + m.share * boom_m)) / boom_m, 0)
  return fixed.reduce((s, m) => s + (m.mass_kg * (m.at_m ?? boom_m)) / boom_m, own)
}

export interface Posed {
  pose: BoomPose
  fixed: FixedSums
  slewing: SlewingSums
}

/** The unloaded machine with the boom at a radius. @throws Refusal `out-of-reach`. */
export function poseMachine(
  machine: SlewingModel,
  setup: { counterweight: string },
  boom_m: number,
  radius_m: number,
  deflection_m = 0,
  fixed: readonly OnBoom[] = [],
): Posed {
  const pose = poseAtRadius(boomShape(machine, boom_m, deflection_m), radius_m)
  return {
    pose,
    fixed: sumFixed(machine.chassis.masses, {}),
    slewing: sumSlewing([
      ...slewingMasses(machine, counterweightOf(machine, setup), boom_m, pose.angle_deg),
      ...onBoomMasses(machine, boom_m, pose.angle_deg, fixed),
    ]),
  }
}
