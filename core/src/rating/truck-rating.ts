import { z } from 'zod'
import { defineCalculator } from '../calculator/define'
import { ratedFigure, useOf, worseRating, worseUse } from '../calculator/use'
import { measuredNotNegative, measuredPositive, notNegative, positive } from '../quantity/measured'
import { Refusal } from '../refusal'

export interface PlateRow {
  capacity_kg: number
  loadCentre_m: number
  liftHeight_m: number
  mast: 'vertical' | 'forward'
  attachment?: string | undefined
}

export interface TruckRatingInput {
  plate: readonly PlateRow[]
  attachment?:
    | { name: string; mass_kg: number; cgFromFace_m: number; thickness_m: number; capacity_kg?: number | undefined }
    | undefined
  faceToAxle_m?: number | undefined
  battery?: { mass_kg: number; min_kg: number; max_kg: number } | undefined
  load: { mass_kg: number; centre_m: number; height_m: number; mast: 'vertical' | 'forward' }
  policy: 'plate' | 'moment'
}

export interface TruckRating {
  allowed_kg: number | 'not-rated'
  row: PlateRow | null
  utilisation: number | null
  /** Why there is no share of a limit. */
  why: string | null
  estimate: boolean
  /** Battery outside the plate's limits: the plate does not hold for this truck as it stands. */
  proven: boolean
  warnings: string[]
}

const same = 1e-9

/**
 * What a forklift's plate allows for a load. Plate: among rows with that attachment, load centre D ≥ d, lift height H ≥ h and a
 * mast tilt no more favourable than the load's, the greatest. Moment, an estimate: Q(x + D)/(x + d) for d beyond D, never above
 * Q; with an attachment that is not on the plate [Q(x + D) − mₐ(x + cₐ)]/(x + t + d), capped by Q and by the attachment's own.
 * A plate often falls faster than moments do, so an estimate is never above what the plate itself gives for an easier load:
 * nearer, lower, or with the mast upright.
 *
 * @throws Refusal `needs-face-to-axle` when the moment rule lacks faceToAxle_m.
 * Source: ISO 22915 principles, ASME B56.1; the plate decides.
 */
export function truckRating(input: TruckRatingInput): TruckRating {
  const { plate, load, attachment, policy } = input
  const warnings: string[] = []
  const listed = plate.filter((r) => r.attachment === attachment?.name)
  const b = input.battery
  const proven = b === undefined || (b.mass_kg >= b.min_kg - same && b.mass_kg <= b.max_kg + same)
  if (!proven) warnings.push('The battery’s mass is outside the plate’s limits: with it the plate is not proven.')
  const end = (found: Found | null, estimate: boolean): TruckRating => {
    if (estimate) warnings.push('An estimate. It needs a new plate from the maker before anything is lifted by it.')
    const allowed_kg = found?.kg ?? 'not-rated'
    return { allowed_kg, row: found?.row ?? null, ...useOf(load.mass_kg, allowed_kg), estimate, proven, warnings }
  }
  const holds = (r: PlateRow) => isEnough(r, load) && r.loadCentre_m >= load.centre_m - same
  const direct = best(listed, (r) => (holds(r) ? r.capacity_kg : null))
  if (direct) return end(direct, false)
  if (attachment && listed.length === 0) warnings.push(`The plate says nothing about “${attachment.name}”.`)
  if (policy === 'plate') return end(null, false)
  const estimated = byMoments(input, listed)
  return end(estimated, estimated !== null)
}

type Load = TruckRatingInput['load']
interface Found {
  row: PlateRow
  kg: number
}

/** High enough for the load, and made for a mast that is tilted no more favourably. */
const isEnough = (r: PlateRow, load: Load) =>
  r.liftHeight_m >= load.height_m - same && (load.mast === 'vertical' || r.mast === 'forward')

function best(rows: readonly PlateRow[], worth: (r: PlateRow) => number | null): Found | null {
  let found: Found | null = null
  for (const row of rows) {
    const kg = worth(row)
    if (kg !== null && (found === null || kg > found.kg)) found = { row, kg }
  }
  return found
}

/** The plate's own word for the nearest, lowest and most upright load of each row that is no harder than this one: the least. */
function easier_kg(listed: readonly PlateRow[], load: Load): number {
  const given = (centre_m: number, height_m: number, forward: boolean) =>
    Math.max(
      ...listed
        .filter((r) => r.loadCentre_m >= centre_m && r.liftHeight_m >= height_m && (!forward || r.mast === 'forward'))
        .map((r) => r.capacity_kg),
    )
  return Math.min(
    ...listed.map((r) =>
      given(
        Math.min(r.loadCentre_m, load.centre_m),
        Math.min(r.liftHeight_m, load.height_m),
        r.mast === 'forward' && load.mast === 'forward',
      ),
    ),
  )
}

/** What moments about the front axle make of the plate where it is silent. @throws Refusal `needs-face-to-axle` */
function byMoments({ plate, load, attachment, faceToAxle_m: x }: TruckRatingInput, listed: readonly PlateRow[]): Found | null {
  if (x === undefined) {
    throw new Refusal(
      'needs-face-to-axle',
      'To reckon by moments the distance from fork face to front axle is needed.',
      'faceToAxle_m',
    )
  }
  if (listed.length > 0) {
    const found = best(listed, (r) =>
      isEnough(r, load) ? Math.min(r.capacity_kg, (r.capacity_kg * (x + r.loadCentre_m)) / (x + load.centre_m)) : null,
    )
    return found && { ...found, kg: Math.min(found.kg, easier_kg(listed, load)) }
  }
  if (!attachment) return null
  const bare = plate.filter((r) => r.attachment === undefined)
  return best(bare, (r) => {
    if (!isEnough(r, load)) return null
    const left = r.capacity_kg * (x + r.loadCentre_m) - attachment.mass_kg * (x + attachment.cgFromFace_m)
    const kg = left / (x + attachment.thickness_m + load.centre_m)
    return Math.max(0, Math.min(kg, r.capacity_kg, attachment.capacity_kg ?? Infinity))
  })
}

const mast = z.enum(['vertical', 'forward'])
const plateRow = z.strictObject({
  capacity_kg: notNegative,
  loadCentre_m: positive,
  liftHeight_m: positive,
  mast,
  attachment: z.string().min(1).optional(),
})

export const truckRatingCalculator = defineCalculator({
  name: 'truck-rating',
  purpose: 'What a forklift may lift with this load centre, height, mast tilt and attachment.',
  source: 'The truck’s own plate; by moments where the plate is silent (ISO 22915, ASME B56.1), always an estimate.',
  cautions: [
    'The plate is the rating. A figure by moments is an estimate and needs a new plate.',
    'The load centre is to the load’s centre of gravity, from the face of the forks, not half its length by habit.',
    'Lower again to travel: the rating at height is for stacking, standing still.',
  ],
  input: z.strictObject({
    plate: z.array(plateRow).min(1, 'Give at least one row of the plate.').max(200),
    attachment: z
      .strictObject({
        name: z.string().min(1),
        mass_kg: measuredNotNegative,
        cgFromFace_m: measuredNotNegative,
        thickness_m: measuredNotNegative,
        capacity_kg: positive.optional(),
      })
      .optional(),
    faceToAxle_m: measuredPositive.optional(),
    battery: z.strictObject({ mass_kg: measuredPositive, min_kg: positive, max_kg: positive }).optional(),
    load: z.strictObject({ mass_kg: measuredPositive, centre_m: measuredPositive, height_m: measuredNotNegative, mast }),
    policy: z.enum(['plate', 'moment']),
  }),
  output: z.object({
    allowed_kg: ratedFigure,
    row: plateRow.nullable(),
    utilisation: z.number().nullable(),
    why: z.string().nullable(),
    estimate: z.boolean(),
    proven: z.boolean(),
    warnings: z.array(z.string()),
  }),
  worse: {
    allowed_kg: worseRating,
    row: { with: 'allowed_kg' },
    utilisation: worseUse,
    why: { with: 'allowed_kg' },
    estimate: true,
    proven: false,
    warnings: { unite: true },
  },
  example: {
    plate: [
      { capacity_kg: 2500, loadCentre_m: 0.5, liftHeight_m: 3.3, mast: 'vertical' },
      { capacity_kg: 2250, loadCentre_m: 0.6, liftHeight_m: 3.3, mast: 'vertical' },
      { capacity_kg: 1900, loadCentre_m: 0.6, liftHeight_m: 4.5, mast: 'vertical' },
    ],
    faceToAxle_m: 0.42,
    load: { mass_kg: { value: 1700, tolerance: 50 }, centre_m: 0.7, height_m: 3, mast: 'vertical' },
    policy: 'moment',
  },
  compute: (input) => {
    if (input.battery && input.battery.min_kg > input.battery.max_kg) {
      throw new Refusal('bad-input', 'The least battery mass is above the greatest.', 'battery.min_kg')
    }
    return truckRating(input)
  },
})
