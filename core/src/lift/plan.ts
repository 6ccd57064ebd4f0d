import { z } from 'zod'
import { extension } from '../parts/supports/outriggers'
import { groundKind, massSource, matKind } from '../place/place'
import { finite, measured, measuredNotNegative, measuredPositive, notNegative, positive } from '../quantity/measured'

const outriggerSetting = z.strictObject({
  id: z.string().min(1),
  extension,
  /** Null: the leg's own pad stands on the ground. */
  mat: matKind.nullable(),
  /** Null: nobody has said what it stands on; its ground is then not proven. */
  ground: groundKind.nullable(),
  stroke_m: notNegative,
})
export type OutriggerSetting = z.infer<typeof outriggerSetting>

/** How the machine stands: everything that was chosen or measured before a load is thought of. */
export const setupPlan = z.strictObject({
  place: z.string().min(1),
  position: z.strictObject({ x_m: finite, y_m: finite, heading_deg: finite }),
  counterweight: z.string().min(1),
  outriggers: z.array(outriggerSetting),
  level: z.strictObject({
    pitch_deg: measured.nullable(),
    roll_deg: measured.nullable(),
    /** The bubble itself was turned end for end and compared. */
    levelVerified: z.boolean(),
  }),
})
export type SetupPlan = z.infer<typeof setupPlan>

const hookPoint = z.strictObject({ radius_m: measuredPositive, slew_deg: finite })
export type HookPoint = z.infer<typeof hookPoint>

export const liftPlan = z.strictObject({
  load: z.strictObject({
    name: z.string(),
    mass_kg: measuredPositive.nullable(),
    /** Null: nobody knows it; then there is no lift. */
    massSource: massSource.nullable(),
    windArea_m2: measuredNotNegative.nullable(),
    dragCoefficient: positive,
  }),
  rigging: z.array(
    z.strictObject({
      name: z.string().min(1),
      mass_kg: measuredNotNegative,
      on: z.enum(['hook', 'boom']),
      at_m: notNegative.optional(),
    }),
  ),
  parts: z.int().min(1),
  boom_m: positive,
  pickUp: hookPoint,
  setDown: hookPoint,
  slewDirection: z.enum(['anticlockwise', 'clockwise']),
  /**
   * How the radius is known: measured with the load hanging, or worked out with the boom's outward bend given. Null: worked
   * out without it; a boom bends outwards under load, so the rating is then not proven.
   */
  radiusBasis: z.union([z.literal('measured-under-load'), z.strictObject({ deflection_m: notNegative })]).nullable(),
  /** The table the machine's own computer is set to; omitted: the best that covers this set-up is proposed. */
  configuration: z.string().optional(),
})
export type LiftPlan = z.infer<typeof liftPlan>

export const conditions = z.strictObject({
  /** Gust at the boom tip, m/s; null: not read. */
  wind_mps: measuredNotNegative.nullable(),
})
export type Conditions = z.infer<typeof conditions>
