import { z } from 'zod'
import { finite, measuredPositive, notNegative, positive } from '../../quantity/measured'

const hookPoint = z.strictObject({ radius_m: measuredPositive, slew_deg: finite })
export type HookPoint = z.infer<typeof hookPoint>

/**
 * Heights above the ground that the machine stands on: what the load is picked up from and set down on, and the top of what it is
 * carried over. Null: not measured; left out: none of them is asked about.
 */
export const stepHeights = z
  .strictObject({ pickUp_m: finite.nullable(), setDown_m: finite.nullable(), over_m: finite.nullable() })
  .optional()

/**
 * How the radius is known: measured with the load hanging, or worked out with the boom's outward bend given. Null: worked
 * out without it; a boom bends outwards under load, so the rating is then not proven.
 */
export const stepRadiusBasis = z
  .union([z.literal('measured-under-load'), z.strictObject({ deflection_m: notNegative })])
  .nullable()

/** Turning the superstructure with the boom at one length, from one point to another, raising or lowering the boom on the way. */
export const slewStep = z.strictObject({
  do: z.literal('slew'),
  /** False: before the load is taken, or after it is let go. */
  laden: z.boolean().default(true),
  boom_m: positive,
  pickUp: hookPoint,
  setDown: hookPoint,
  heights: stepHeights,
  slewDirection: z.enum(['anticlockwise', 'clockwise']),
  radiusBasis: stepRadiusBasis,
})
export type SlewStep = z.infer<typeof slewStep>

/** The heights of a step; null while one of them is not measured. */
export function heightsOf({
  heights,
}: Pick<SlewStep, 'heights'>): { pickUp_m: number; setDown_m: number; over_m: number } | null {
  if (!heights) return null
  const { pickUp_m, setDown_m, over_m } = heights
  return pickUp_m === null || setDown_m === null || over_m === null ? null : { pickUp_m, setDown_m, over_m }
}
