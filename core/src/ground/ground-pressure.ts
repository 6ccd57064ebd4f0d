import { z } from 'zod'
import { defineCalculator } from '../calculator/define'
import { measuredNotNegative, measuredPositive, notNegative, positive } from '../calculator/measured'
import { g_mps2, rad } from '../physics'
import { presumedBearing_kPa, type Soil, soil } from './soil'

export interface Pad {
  length_m: number
  width_m: number
}

export interface Mat extends Pad {
  thickness_m: number
  allowableBending_MPa: number
  allowableShear_MPa?: number | undefined
  mass_kg?: number | undefined
  /** A timber mat spreads along its length only; a plate or a cross-laid mat both ways. */
  spreads: 'one-way' | 'two-way'
}

export interface GroundPressure {
  /** Between pad and mat (or pad and ground), kPa. */
  contact_kPa: number
  /** What of the mat presses on the layer or ground, metres. */
  effective: Pad
  formation_kPa: number
  /** Null: none given and none may be presumed for this soil; the ground is then not proven. */
  allowable_kPa: number | null
  /** True when the allowable pressure was taken from a soil description. */
  presumed: boolean
  utilisation: number | null
  requiredArea_m2: number | null
  requiredSide_m: number | null
  /** What limits the spreading. */
  governs: 'pad' | 'mat-size' | 'bending' | 'shear'
}

/** Bending: R·c²/(2(l+2c)) = f·w·t²/6, so κ = f·w·t²/(3R), c = κ + √(κ² + κ·l). Infinite without a load. */
function bendingReach_m(reaction_N: number, l_m: number, w_m: number, mat: Mat): number {
  if (reaction_N <= 0) return Infinity
  const k = (mat.allowableBending_MPa * 1e6 * w_m * mat.thickness_m * mat.thickness_m) / (3 * reaction_N)
  return k + Math.sqrt(k * k + k * l_m)
}

/** Shear at the pad's edge: 1.5·R·c/((l+2c)·w·t) = f_v. Infinite where nothing says what the mat may be sheared with. */
function shearReach_m(reaction_N: number, l_m: number, w_m: number, mat: Mat): number {
  if (reaction_N <= 0 || mat.allowableShear_MPa === undefined) return Infinity
  const capacity_N = mat.allowableShear_MPa * 1e6 * w_m * mat.thickness_m
  const spare = 1.5 * reaction_N - 2 * capacity_N
  return spare <= 0 ? Infinity : (capacity_N * l_m) / spare
}

/**
 * How far a mat reaches beyond the pad before it is bent or sheared beyond what it can take.
 *
 * @param l_m pad's length along the span, @param w_m pad's width, metres; @returns c in metres and what limits it
 */
export function matReach(reaction_N: number, l_m: number, w_m: number, mat: Mat): { c_m: number; by: 'bending' | 'shear' } {
  const bending = bendingReach_m(reaction_N, l_m, w_m, mat)
  const shear = shearReach_m(reaction_N, l_m, w_m, mat)
  return shear < bending ? { c_m: shear, by: 'shear' } : { c_m: bending, by: 'bending' }
}

export interface GroundInput {
  reaction_N: number
  pad: Pad
  mat?: Mat | undefined
  layer?: { thickness_m: number; spreadFromVertical_deg: number } | undefined
  allowable_kPa?: number | undefined
  soil?: Soil | undefined
}

/** What the ground allows: the figure given, else what may be presumed for the soil's name; null: neither. */
export function allowableOf(input: Pick<GroundInput, 'allowable_kPa' | 'soil'>) {
  const presumedFor = input.allowable_kPa === undefined && input.soil !== undefined ? presumedBearing_kPa[input.soil] : null
  return { allowable_kPa: input.allowable_kPa ?? presumedFor, presumedFor }
}

/** Pressure under a pad or mat and what the ground allows. The layer's own weight is not included. */
export function groundPressure(input: GroundInput): GroundPressure {
  const { pad, mat, layer } = input
  const onMat = mat ? { length_m: Math.min(pad.length_m, mat.length_m), width_m: Math.min(pad.width_m, mat.width_m) } : pad
  const contact_kPa = input.reaction_N / (onMat.length_m * onMat.width_m) / 1000
  let effective = onMat
  let governs: GroundPressure['governs'] = 'pad'
  if (mat) {
    const along = matReach(input.reaction_N, onMat.length_m, onMat.width_m, mat)
    const length_m = Math.min(mat.length_m, onMat.length_m + 2 * along.c_m)
    governs = length_m < mat.length_m ? along.by : 'mat-size'
    let width_m = onMat.width_m
    if (mat.spreads === 'two-way') {
      const across = matReach(input.reaction_N, onMat.width_m, onMat.length_m, mat)
      width_m = Math.min(mat.width_m, onMat.width_m + 2 * across.c_m)
      if (governs === 'mat-size' && width_m < mat.width_m) governs = across.by
    }
    effective = { length_m, width_m }
  }
  const out_m = layer ? 2 * layer.thickness_m * Math.tan(layer.spreadFromVertical_deg * rad) : 0
  const force_N = input.reaction_N + (mat?.mass_kg ?? 0) * g_mps2
  const formation_kPa = force_N / ((effective.length_m + out_m) * (effective.width_m + out_m)) / 1000
  const { allowable_kPa, presumedFor } = allowableOf(input)
  const area = allowable_kPa === null ? null : force_N / (allowable_kPa * 1000)
  return {
    contact_kPa,
    effective,
    formation_kPa,
    allowable_kPa,
    presumed: presumedFor !== null,
    utilisation: allowable_kPa === null ? null : formation_kPa / allowable_kPa,
    requiredArea_m2: area,
    requiredSide_m: area === null ? null : Math.sqrt(area),
    governs,
  }
}

/**
 * The share of what the ground allows as a function of the reaction, for where thousands of reactions are asked about; the same
 * formulas as `groundPressure`. Null where nothing says what the ground allows.
 */
export function groundUse(input: Omit<GroundInput, 'reaction_N'>): ((reaction_N: number) => number) | null {
  const { pad, mat, layer } = input
  const { allowable_kPa } = allowableOf(input)
  if (allowable_kPa === null) return null
  const out_m = layer ? 2 * layer.thickness_m * Math.tan(layer.spreadFromVertical_deg * rad) : 0
  if (!mat) {
    const per_N = 1 / ((pad.length_m + out_m) * (pad.width_m + out_m) * 1000 * allowable_kPa)
    return (reaction_N) => reaction_N * per_N
  }
  const l_m = Math.min(pad.length_m, mat.length_m)
  const w_m = Math.min(pad.width_m, mat.width_m)
  const own_N = (mat.mass_kg ?? 0) * g_mps2
  const both = mat.spreads === 'two-way'
  return (reaction_N) => {
    const along = Math.min(bendingReach_m(reaction_N, l_m, w_m, mat), shearReach_m(reaction_N, l_m, w_m, mat))
    const length_m = Math.min(mat.length_m, l_m + 2 * along)
    const across = both ? Math.min(bendingReach_m(reaction_N, w_m, l_m, mat), shearReach_m(reaction_N, w_m, l_m, mat)) : 0
    const width_m = both ? Math.min(mat.width_m, w_m + 2 * across) : w_m
    return (reaction_N + own_N) / ((length_m + out_m) * (width_m + out_m) * 1000 * allowable_kPa)
  }
}

const padInput = z.strictObject({ length_m: measuredPositive, width_m: measuredPositive })

export const groundPressureCalculator = defineCalculator({
  name: 'ground-pressure',
  purpose: 'Pressure under a pad or mat, what the ground allows, and how large the mat has to be.',
  source: 'Statics of a stiff pad on a bending mat; presumed bearing from BS 8004:1986, table 1 (low end).',
  cautions: [
    'A presumed figure is a guess by the soil’s name; voids, services, old fill and water make it wrong.',
    'Mats near each other add up; that is not in here.',
  ],
  input: z.strictObject({
    reaction_N: measuredNotNegative,
    pad: padInput,
    mat: z
      .strictObject({
        length_m: measuredPositive,
        width_m: measuredPositive,
        thickness_m: measuredPositive,
        allowableBending_MPa: positive,
        allowableShear_MPa: positive.optional(),
        mass_kg: notNegative.optional(),
        spreads: z.enum(['one-way', 'two-way']),
      })
      .optional(),
    layer: z
      .strictObject({ thickness_m: measuredNotNegative, spreadFromVertical_deg: notNegative.max(60, 'At most 60°.') })
      .optional(),
    allowable_kPa: measuredPositive.optional(),
    soil: soil.optional(),
  }),
  output: z.object({
    contact_kPa: z.number(),
    effective: z.object({ length_m: z.number(), width_m: z.number() }),
    formation_kPa: z.number(),
    allowable_kPa: z.number().nullable(),
    presumed: z.boolean(),
    utilisation: z.number().nullable(),
    requiredArea_m2: z.number().nullable(),
    requiredSide_m: z.number().nullable(),
    governs: z.enum(['pad', 'mat-size', 'bending', 'shear']),
  }),
  example: {
    reaction_N: { value: 210000, tolerance: 10000 },
    pad: { length_m: 0.5, width_m: 0.5 },
    mat: {
      length_m: 1.5,
      width_m: 1.5,
      thickness_m: 0.12,
      allowableBending_MPa: 12,
      allowableShear_MPa: 1.5,
      mass_kg: 190,
      spreads: 'two-way',
    },
    allowable_kPa: 150,
  },
  compute: (input) => groundPressure(input),
})
