import { z } from 'zod'
import { defineCalculator } from '../calculator/define'
import { g_mps2, rad } from '../physics'
import { measuredNotNegative, measuredPositive, notNegative, positive } from '../quantity/measured'
import { presumedAt_kPa, type Soil, soil, type WaterTable, waterTable } from './soil'

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
  /** On a spread layer: what presses on its top, and the share of what it carries that is used. */
  layer_kPa: number | null
  layerUtilisation: number | null
  /** What limits the spreading. */
  governs: 'pad' | 'mat-size' | 'bending' | 'shear'
  /** What could not be looked at with what was given. */
  notChecked: GroundNotChecked[]
}
export const groundNotChecked = ['mat-shear', 'layer-bearing'] as const
export type GroundNotChecked = (typeof groundNotChecked)[number]

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

export interface Layer {
  thickness_m: number
  spreadFromVertical_deg: number
  /** What the layer itself carries; without it its own bearing is not checked. */
  allowable_kPa?: number | undefined
}

export interface GroundInput {
  reaction_N: number
  pad: Pad
  mat?: Mat | undefined
  layer?: Layer | undefined
  allowable_kPa?: number | undefined
  soil?: Soil | undefined
  water?: WaterTable | undefined
}

interface Spread extends Pad {
  governs: GroundPressure['governs']
}

/** How long a stretch of a mat presses, along one of its sides, metres. */
function pressing_m(reaction_N: number, l_m: number, w_m: number, most_m: number, mat: Mat): number {
  return Math.min(most_m, l_m + 2 * Math.min(bendingReach_m(reaction_N, l_m, w_m, mat), shearReach_m(reaction_N, l_m, w_m, mat)))
}

/** What of a mat presses on what is under it. */
function spreadOf(reaction_N: number, onMat: Pad, mat: Mat): Spread {
  const along = matReach(reaction_N, onMat.length_m, onMat.width_m, mat)
  const length_m = pressing_m(reaction_N, onMat.length_m, onMat.width_m, mat.length_m, mat)
  let governs: Spread['governs'] = length_m < mat.length_m ? along.by : 'mat-size'
  if (mat.spreads === 'one-way') return { length_m, width_m: onMat.width_m, governs }
  const across = matReach(reaction_N, onMat.width_m, onMat.length_m, mat)
  const width_m = pressing_m(reaction_N, onMat.width_m, onMat.length_m, mat.width_m, mat)
  if (governs === 'mat-size' && width_m < mat.width_m) governs = across.by
  return { length_m, width_m, governs }
}

/**
 * Pressure under a pad or mat and what the ground allows: the figure given, else what may be presumed for the soil's name, the
 * narrower the pressed area the less. The layer's own weight is not included.
 *
 * @example groundPressure({ reaction_N: 200_000, pad: { length_m: 1, width_m: 1 }, allowable_kPa: 250 }).utilisation // 0.8
 */
export function groundPressure(input: GroundInput): GroundPressure {
  const { pad, mat, layer } = input
  const onMat = mat ? { length_m: Math.min(pad.length_m, mat.length_m), width_m: Math.min(pad.width_m, mat.width_m) } : pad
  const contact_kPa = input.reaction_N / (onMat.length_m * onMat.width_m) / 1000
  const { governs, ...effective } = mat ? spreadOf(input.reaction_N, onMat, mat) : { ...onMat, governs: 'pad' as const }
  const out_m = layer ? 2 * layer.thickness_m * Math.tan(layer.spreadFromVertical_deg * rad) : 0
  const force_N = input.reaction_N + (mat?.mass_kg ?? 0) * g_mps2
  const pressed = { length_m: effective.length_m + out_m, width_m: effective.width_m + out_m }
  const formation_kPa = force_N / (pressed.length_m * pressed.width_m) / 1000
  const { soil } = input
  const presumed = input.allowable_kPa === undefined && soil !== undefined
  const width_m = Math.min(pressed.length_m, pressed.width_m)
  const presumed_kPa = presumed ? presumedAt_kPa(soil, width_m, input.water) : null
  const allowable_kPa = input.allowable_kPa ?? presumed_kPa
  const onLayer_kPa = layer ? force_N / (effective.length_m * effective.width_m) / 1000 : null
  const layerUse = onLayer_kPa !== null && layer?.allowable_kPa !== undefined ? onLayer_kPa / layer.allowable_kPa : null
  const use = allowable_kPa === null ? null : formation_kPa / allowable_kPa
  const area = allowable_kPa === null ? null : areaFor_m2(force_N, input, allowable_kPa)
  const notChecked: GroundNotChecked[] = []
  if (mat && mat.allowableShear_MPa === undefined) notChecked.push('mat-shear')
  if (layer && layer.allowable_kPa === undefined) notChecked.push('layer-bearing')
  return {
    contact_kPa,
    effective,
    formation_kPa,
    allowable_kPa,
    presumed: presumed_kPa !== null,
    utilisation: use === null ? null : Math.max(use, layerUse ?? 0),
    requiredArea_m2: area,
    requiredSide_m: area === null ? null : Math.sqrt(area),
    layer_kPa: onLayer_kPa,
    layerUtilisation: layerUse,
    governs,
    notChecked,
  }
}

/** Area that brings the pressure to what is allowed; a presumed figure grows with a square's side up to a metre. */
function areaFor_m2(force_N: number, input: GroundInput, allowable_kPa: number): number {
  const plain = force_N / (allowable_kPa * 1000)
  if (input.allowable_kPa !== undefined || input.soil === undefined) return plain
  const whole_kPa = presumedAt_kPa(input.soil, 1, input.water)
  if (whole_kPa === null) return plain
  const side_m = Math.cbrt(force_N / (whole_kPa * 1000))
  return side_m < 1 ? side_m ** 2 : force_N / (whole_kPa * 1000)
}

/**
 * The share of what the ground allows as a function of the reaction, for where thousands of reactions are asked about. Null where
 * nothing says what the ground allows.
 */
export function groundUse(input: Omit<GroundInput, 'reaction_N'>): ((reaction_N: number) => number) | null {
  const per_N = groundPressure({ ...input, reaction_N: 1 }).utilisation
  if (per_N === null) return null
  const { mat, layer } = input
  // Under a bare pad the pressure goes with the reaction.
  if (!mat && !layer) return (reaction_N) => reaction_N * per_N
  if (!mat || layer) return (reaction_N) => groundPressure({ ...input, reaction_N }).utilisation ?? Infinity
  const { allowable_kPa, soil, water, pad } = input
  const own_N = (mat.mass_kg ?? 0) * g_mps2
  const [l_m, w_m] = [Math.min(pad.length_m, mat.length_m), Math.min(pad.width_m, mat.width_m)]
  const across = mat.spreads === 'two-way'
  return (reaction_N) => {
    const length_m = pressing_m(reaction_N, l_m, w_m, mat.length_m, mat)
    const width_m = across ? pressing_m(reaction_N, w_m, l_m, mat.width_m, mat) : w_m
    const allowed_kPa = allowable_kPa ?? (soil === undefined ? null : presumedAt_kPa(soil, Math.min(length_m, width_m), water))
    return allowed_kPa === null ? Infinity : (reaction_N + own_N) / (length_m * width_m) / 1000 / allowed_kPa
  }
}

const padInput = z.strictObject({ length_m: measuredPositive, width_m: measuredPositive })

export const groundPressureCalculator = defineCalculator({
  name: 'ground-pressure',
  purpose: 'Pressure under a pad or mat, what the ground allows, and how large the mat has to be.',
  source: 'Statics of a stiff pad on a bending mat; presumed bearing from BS 8004:1986, table 1 (low end).',
  cautions: [
    'A presumed figure is a guess by the soil’s name, for water well below; voids, services, old fill and water make it wrong.',
    'Without the mat’s shear strength its shear is not checked.',
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
      .strictObject({
        thickness_m: measuredNotNegative,
        spreadFromVertical_deg: notNegative.max(60, 'At most 60°.'),
        allowable_kPa: positive.optional(),
      })
      .optional(),
    allowable_kPa: measuredPositive.optional(),
    soil: soil.optional(),
    water: waterTable.optional(),
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
    layer_kPa: z.number().nullable(),
    layerUtilisation: z.number().nullable(),
    governs: z.enum(['pad', 'mat-size', 'bending', 'shear']),
    notChecked: z.array(z.enum(groundNotChecked)),
  }),
  worse: {
    contact_kPa: 'high',
    'effective.length_m': 'low',
    'effective.width_m': 'low',
    formation_kPa: 'high',
    allowable_kPa: { worse: 'low', nothing: 'unknown' },
    presumed: true,
    utilisation: { worse: 'high', nothing: 'unknown' },
    requiredArea_m2: { worse: 'high', nothing: 'unknown' },
    requiredSide_m: { worse: 'high', nothing: 'unknown' },
    layer_kPa: { worse: 'high', nothing: 'unknown' },
    layerUtilisation: { worse: 'high', nothing: 'unknown' },
    governs: { with: 'formation_kPa' },
    notChecked: { unite: true },
  },
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
