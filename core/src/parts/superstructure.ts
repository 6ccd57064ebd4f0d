import { z } from 'zod'
import { finite, notNegative, positive } from '../quantity/measured'
import { Refusal } from '../refusal'
import type { Mass, SlewingMass } from '../statics/schema'

/** What does not turn: the carrier and what is fixed to it, metres from the slew centre. */
export const chassisPart = z.strictObject({
  masses: z.array(z.strictObject({ name: z.string().min(1), mass_kg: positive, x_m: finite, y_m: finite })).min(1),
})
export type ChassisPart = { masses: readonly Mass[] }

/** What turns, but for the boom. */
export const upperPart = z.strictObject({
  /** Radius along the boom's direction; behind the slew centre negative. */
  masses: z.array(z.strictObject({ name: z.string().min(1), mass_kg: positive, radius_m: finite })),
  counterweights: z
    .array(
      z.strictObject({
        id: z.string().min(1),
        label: z.string().min(1),
        mass_kg: notNegative,
        radius_m: finite,
        /** The part of it that stands on the ground until a load lifts it; what is confirmed before it counts. */
        suspended: z.strictObject({ mass_kg: positive, radius_m: finite, evidence: z.string().min(1) }).optional(),
      }),
    )
    .min(1),
  tailSwingRadius_m: positive,
  /** How high the tail's underside is; left out: it passes over nothing. */
  tailAbove_m: positive.optional(),
})
export type UpperPart = z.infer<typeof upperPart>
export type Counterweight = UpperPart['counterweights'][number]

/** @throws Refusal `unknown-counterweight` naming those there are */
export function counterweightNamed(name: string, upper: UpperPart, id: string | undefined): Counterweight {
  const c = upper.counterweights.find((w) => w.id === id)
  if (c) return c
  const known = upper.counterweights.map((w) => w.id).join(', ')
  throw new Refusal('unknown-counterweight', `${name} has no such counterweight; it has: ${known}.`, 'setup.fitted.counterweight')
}

/** A counterweight with what is suspended still on the ground: what is left of it. */
export function standing({ mass_kg, radius_m, suspended }: Counterweight): { mass_kg: number; radius_m: number } {
  if (!suspended) return { mass_kg, radius_m }
  const left_kg = mass_kg - suspended.mass_kg
  return { mass_kg: left_kg, radius_m: left_kg > 0 ? (mass_kg * radius_m - suspended.mass_kg * suspended.radius_m) / left_kg : 0 }
}

/** Masses that turn with the superstructure whatever the boom does. */
export function upperMasses(upper: UpperPart, counterweight: { mass_kg: number; radius_m: number }): SlewingMass[] {
  return [
    ...upper.masses.map(({ mass_kg, radius_m }) => ({ mass_kg, radius_m })),
    { mass_kg: counterweight.mass_kg, radius_m: counterweight.radius_m },
  ]
}
