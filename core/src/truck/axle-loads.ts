import { z } from 'zod'
import { defineCalculator } from '../calculator/define'
import { measured, measuredNotNegative, measuredPositive, positive } from '../calculator/measured'
import { g_mps2 } from '../physics'
import { Refusal } from '../refusal'

/** What wheels press more than they weigh while driving: EN 1991-1-1 for forklifts. */
export const wheelDynamicFactor = { pneumatic: 1.4, solid: 2 } as const

/**
 * Axle and wheel loads of a truck with a load ahead of its front axle; counterweight position and slabs are in
 * cgBehindFront_m. Only the worst wheel, pressure and plate carry the dynamic factor; axle loads are at rest.
 */
export function axleLoads(input: {
  truck: { mass_kg: number; cgBehindFront_m: number; wheelbase_m: number }
  load: { mass_kg: number; aheadOfFront_m: number; offset_m?: number | undefined }
  frontWheels: number
  frontTrack_m?: number | undefined
  tyres?: keyof typeof wheelDynamicFactor | undefined
  dynamicFactor?: number | undefined
  contact_m2?: number | undefined
  floor_kPa?: number | undefined
}) {
  const { truck, load } = input
  const total_N = (truck.mass_kg + load.mass_kg) * g_mps2
  const behind_N = ((truck.mass_kg * truck.cgBehindFront_m - load.mass_kg * load.aheadOfFront_m) * g_mps2) / truck.wheelbase_m
  const rear_N = Math.max(0, behind_N)
  const front_N = total_N - rear_N
  const aside_N =
    input.frontTrack_m === undefined ? 0 : (load.mass_kg * g_mps2 * Math.abs(load.offset_m ?? 0)) / input.frontTrack_m
  const side_N = Math.min(front_N, front_N / 2 + aside_N)
  const wheel_N = input.frontWheels === 1 ? front_N : side_N / (input.frontWheels / 2)
  const dynamicFactor = input.dynamicFactor ?? wheelDynamicFactor[input.tyres ?? 'solid']
  const worstWheel_N = wheel_N * dynamicFactor
  return {
    front_N,
    rear_N,
    dynamicFactor,
    worstWheel_N,
    frontShare: front_N / total_N,
    tips: behind_N <= 0,
    pressure_kPa: input.contact_m2 === undefined ? null : worstWheel_N / input.contact_m2 / 1000,
    plateSide_m: input.floor_kPa === undefined ? null : Math.sqrt(worstWheel_N / (input.floor_kPa * 1000)),
  }
}

export const axleLoadsCalculator = defineCalculator({
  name: 'axle-loads',
  purpose: 'What a loaded forklift puts on its axles, its worst wheel and the floor.',
  source: 'Statics; dynamic factor 1.4 on pneumatic, 2.0 on solid tyres (EN 1991-1-1).',
  cautions: [
    'A floor’s figure comes from whoever answers for the building; a wheel may stand on a cover or a joint.',
    'Braking moves more onto the front wheels.',
  ],
  input: z.strictObject({
    truck: z.strictObject({ mass_kg: measuredPositive, cgBehindFront_m: measured, wheelbase_m: measuredPositive }),
    load: z.strictObject({ mass_kg: measuredNotNegative, aheadOfFront_m: measured, offset_m: measured.optional() }),
    frontWheels: z.int().min(1, 'At least one.').max(16, 'At most sixteen.'),
    frontTrack_m: measuredPositive.optional(),
    tyres: z.enum(['pneumatic', 'solid']).optional(),
    dynamicFactor: positive.min(1, 'At least 1.').max(4, 'At most 4.').optional(),
    contact_m2: measuredPositive.optional(),
    floor_kPa: measuredPositive.optional(),
  }),
  output: z.object({
    front_N: z.number(),
    rear_N: z.number(),
    dynamicFactor: z.number(),
    worstWheel_N: z.number(),
    frontShare: z.number(),
    tips: z.boolean(),
    pressure_kPa: z.number().nullable(),
    plateSide_m: z.number().nullable(),
  }),
  example: {
    truck: { mass_kg: 4200, cgBehindFront_m: 1.02, wheelbase_m: 1.6 },
    load: { mass_kg: 1800, aheadOfFront_m: 0.95, offset_m: 0.05 },
    frontWheels: 2,
    frontTrack_m: 0.96,
    tyres: 'solid',
    contact_m2: 0.03,
    floor_kPa: 400,
  },
  compute: (input) => {
    if (input.load.offset_m !== undefined && input.frontTrack_m === undefined) {
      throw new Refusal(
        'missing-field',
        'A sideways offset needs frontTrack_m, the distance between the front wheels.',
        'frontTrack_m',
      )
    }
    return axleLoads(input)
  },
})
