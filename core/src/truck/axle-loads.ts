import { z } from 'zod'
import { defineCalculator } from '../calculator/define'
import { g_mps2 } from '../physics'
import { measured, measuredNotNegative, measuredPositive, positive } from '../quantity/measured'
import { Refusal } from '../refusal'

/** What wheels press more than they weigh while driving: EN 1991-1-1 for forklifts. */
export const wheelDynamicFactor = { pneumatic: 1.4, solid: 2 } as const

/** Where a truck goes over: nose down over the front wheels, back over the rear ones, to the side of an offset load. */
export type Tipping = 'front' | 'tail' | 'side'

interface AxleLoadsInput {
  truck: { mass_kg: number; cgBehindFront_m: number; wheelbase_m: number }
  load: { mass_kg: number; aheadOfFront_m: number; offset_m?: number | undefined }
  frontWheels: number
  rearWheels?: number | undefined
  frontTrack_m?: number | undefined
  rearTrack_m?: number | undefined
  tyres?: keyof typeof wheelDynamicFactor | undefined
  dynamicFactor?: number | undefined
  contact_m2?: number | undefined
  floor_kPa?: number | undefined
}

/** The most loaded wheel of an axle: half of it and what an offset load adds, shared among the wheels of that side. */
function wheelOf(axle_N: number, wheels: number, aside_N: number): number {
  return wheels === 1 ? axle_N : Math.min(axle_N, axle_N / 2 + aside_N) / Math.ceil(wheels / 2)
}

/**
 * Axle and wheel loads of a truck with a load ahead of its front axle; counterweight position and slabs are in cgBehindFront_m.
 * Only wheels, pressure and plate carry the dynamic factor; axle loads are at rest. A rear axle whose wheels are not given is taken
 * as one wheel. An offset load is held by the axle with two sides: the front one, or the rear one of a truck with one front wheel.
 */
export function axleLoads(input: AxleLoadsInput) {
  const { truck, load } = input
  const total_N = (truck.mass_kg + load.mass_kg) * g_mps2
  const behind_N = ((truck.mass_kg * truck.cgBehindFront_m - load.mass_kg * load.aheadOfFront_m) * g_mps2) / truck.wheelbase_m
  const rear_N = Math.min(total_N, Math.max(0, behind_N))
  const front_N = total_N - rear_N
  const overturning_Nm = load.mass_kg * g_mps2 * Math.abs(load.offset_m ?? 0)
  const rearHolds = input.frontWheels === 1
  const track_m = rearHolds ? input.rearTrack_m : input.frontTrack_m
  const aside_N = track_m === undefined ? 0 : overturning_Nm / track_m
  const held_N = rearHolds ? rear_N : front_N
  const frontWheel_N = wheelOf(front_N, input.frontWheels, rearHolds ? 0 : aside_N)
  const rearWheel_N = wheelOf(rear_N, input.rearWheels ?? 1, rearHolds ? aside_N : 0)
  const dynamicFactor = input.dynamicFactor ?? wheelDynamicFactor[input.tyres ?? 'solid']
  const worstWheel_N = Math.max(frontWheel_N, rearWheel_N) * dynamicFactor
  const over: Tipping | null =
    behind_N <= 0 ? 'front' : behind_N >= total_N ? 'tail' : aside_N > 0 && aside_N >= held_N / 2 ? 'side' : null
  return {
    front_N,
    rear_N,
    dynamicFactor,
    frontWheel_N: frontWheel_N * dynamicFactor,
    rearWheel_N: rearWheel_N * dynamicFactor,
    worstWheel_N,
    frontShare: front_N / total_N,
    tips: over !== null,
    over,
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
    rearWheels: z.int().min(1, 'At least one.').max(16, 'At most sixteen.').optional(),
    frontTrack_m: measuredPositive.optional(),
    rearTrack_m: measuredPositive.optional(),
    tyres: z.enum(['pneumatic', 'solid']).optional(),
    dynamicFactor: positive.min(1, 'At least 1.').max(4, 'At most 4.').optional(),
    contact_m2: measuredPositive.optional(),
    floor_kPa: measuredPositive.optional(),
  }),
  output: z.object({
    front_N: z.number(),
    rear_N: z.number(),
    dynamicFactor: z.number(),
    frontWheel_N: z.number(),
    rearWheel_N: z.number(),
    worstWheel_N: z.number(),
    frontShare: z.number(),
    tips: z.boolean(),
    over: z.enum(['front', 'tail', 'side']).nullable(),
    pressure_kPa: z.number().nullable(),
    plateSide_m: z.number().nullable(),
  }),
  worse: {
    front_N: 'high',
    rear_N: 'either',
    dynamicFactor: 'given',
    frontWheel_N: 'high',
    rearWheel_N: 'high',
    worstWheel_N: 'high',
    frontShare: 'high',
    tips: true,
    over: { words: [null, 'side', 'tail', 'front'] },
    pressure_kPa: 'high',
    plateSide_m: 'high',
  },
  example: {
    truck: { mass_kg: 4200, cgBehindFront_m: 1.02, wheelbase_m: 1.6 },
    load: { mass_kg: 1800, aheadOfFront_m: 0.95, offset_m: 0.05 },
    frontWheels: 2,
    rearWheels: 2,
    frontTrack_m: 0.96,
    tyres: 'solid',
    contact_m2: 0.03,
    floor_kPa: 400,
  },
  compute: (input) => {
    const { frontWheels, load } = input
    if (frontWheels === 1 && input.rearWheels === 1)
      throw new Refusal('too-few-wheels', 'Two wheels in line do not stand; give the wheels of each axle.', 'rearWheels')
    const track = frontWheels === 1 ? 'rearTrack_m' : 'frontTrack_m'
    if (load.offset_m !== undefined && load.offset_m !== 0 && input[track] === undefined) {
      throw new Refusal('missing-field', `A sideways offset needs ${track}, the distance between the wheels that hold it.`, track)
    }
    return axleLoads(input)
  },
})
