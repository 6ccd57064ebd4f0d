import { z } from 'zod'
import { finite, measuredNotNegative, measuredPositive, positive, type Tol } from '../quantity/measured'
import { hitches } from './hitch'

/**
 * Slings of a load as people have them: how many legs, how long they are, and how far apart their lift points stand, evenly about
 * the centre of gravity and level. Loads slung otherwise are worked out leg by leg (the sling tension calculator).
 */
export const slings = z
  .strictObject({
    legs: z.union([z.literal(1), z.literal(2), z.literal(4)]),
    /** Null, here and below: not measured. */
    length_m: measuredPositive.nullable(),
    /** Between lift points along the load; with two legs the only spread. */
    along_m: measuredNotNegative.nullable(),
    /** Between lift points across it; four legs only. */
    across_m: measuredNotNegative.nullable(),
    /** What one leg is marked with, straight, kg; null: its tag cannot be read. */
    wll_kg: positive.nullable(),
    hitch: z.enum(hitches),
    chokerAngle_deg: finite.min(0, 'At least 0°.').max(180, 'At most 180°.').optional(),
    basketAngle_deg: measuredNotNegative.optional(),
    bendRatio: positive.optional(),
  })
  .refine((s) => s.hitch !== 'choker' || s.chokerAngle_deg !== undefined, {
    path: ['chokerAngle_deg'],
    message: 'A choker needs its angle of choke.',
  })
  .refine((s) => s.hitch !== 'basket' || (s.basketAngle_deg !== undefined && s.bendRatio !== undefined), {
    path: ['basketAngle_deg'],
    message: 'A basket needs the angle of its parts from plumb, and the bend it lies round.',
  })
export type Slings = z.infer<typeof slings>

/** Slings under a hull, each from beam to beam: how broad it is where they lie, how far they rise, what one is marked with. Null: not measured. */
export const belly = z.strictObject({
  halfBreadth_m: measuredPositive.nullable(),
  rise_m: measuredPositive.nullable(),
  wll_kg: positive.nullable(),
})
export type Belly = z.infer<typeof belly>

/** Lengths that slings of so many legs have to say; null while one of them is not measured. */
export function lengthsOf({
  legs,
  length_m,
  along_m,
  across_m,
}: Slings): Record<'length_m' | 'along_m' | 'across_m', Tol> | null {
  const [length, along, across] = [length_m, legs > 1 ? along_m : 0, legs > 2 ? across_m : 0]
  return length === null || along === null || across === null ? null : { length_m: length, along_m: along, across_m: across }
}

/**
 * Where lift points stand about the centre of gravity, metres, and how high the hook is above them.
 *
 * @returns `hook_m` null where the legs are too short to meet over the load
 * @example liftPoints({ legs: 2, length_m: 3, along_m: 2, across_m: 0 }).hook_m // √8
 */
export function liftPoints(s: { legs: number; length_m: number; along_m: number; across_m: number }) {
  const [x, y] = [s.legs === 1 ? 0 : s.along_m / 2, s.legs === 4 ? s.across_m / 2 : 0]
  const corners: readonly (readonly [number, number])[] =
    s.legs === 1
      ? [[0, 0]]
      : s.legs === 2
        ? [
            [x, 0],
            [-x, 0],
          ]
        : [
            [x, y],
            [-x, y],
            [-x, -y],
            [x, -y],
          ]
  const high2 = s.length_m ** 2 - x ** 2 - y ** 2
  const lifts = corners.map(([x_m, y_m], i) => ({ id: String(i + 1), x_m, y_m, z_m: 0 }))
  return { lifts, hook_m: high2 > 0 ? Math.sqrt(high2) : null }
}
