import { z } from 'zod'
import { defineCalculator } from '../calculator/define'
import { measured, measuredNotNegative, measuredPositive, type Nominal, notNegative } from '../quantity/measured'
import { Refusal } from '../refusal'
import { densities_kg_m3, materials } from './materials'
import { solidOf } from './shape'

const placed = {
  name: z.string().max(100).optional(),
  count: z.int().min(1, 'At least one.').max(10_000, 'At most 10,000.').optional(),
  at: z.strictObject({ x_m: measured, y_m: measured, z_m: measured }),
}
const of = {
  /** One of these three says what it is made of, or what it weighs. */
  material: z.enum(materials).optional(),
  density_kg_m3: measuredPositive.optional(),
  mass_kg: measuredPositive.optional(),
}
const axis = z.enum(['x', 'y', 'z'])
const sizes = { length_m: measuredPositive, width_m: measuredPositive, height_m: measuredPositive }

export const loadPart = z.discriminatedUnion('shape', [
  z.strictObject({ shape: z.enum(['box', 'plate']), ...sizes, ...of, ...placed }),
  z.strictObject({
    shape: z.literal('cylinder'),
    diameter_m: measuredPositive,
    length_m: measuredPositive,
    axis,
    ...of,
    ...placed,
  }),
  z.strictObject({
    shape: z.literal('tube'),
    diameter_m: measuredPositive,
    wall_m: measuredPositive,
    length_m: measuredPositive,
    axis,
    ...of,
    ...placed,
  }),
  z.strictObject({ shape: z.literal('cone'), diameter_m: measuredPositive, height_m: measuredPositive, ...of, ...placed }),
  z.strictObject({ shape: z.literal('sphere'), diameter_m: measuredPositive, ...of, ...placed }),
  z.strictObject({
    shape: z.literal('section'),
    ...sizes,
    axis,
    /** From the maker's list or stamped on it. */
    mass_kg_per_m: measuredPositive,
    ...placed,
  }),
  z.strictObject({
    shape: z.literal('tank'),
    ...sizes,
    empty_kg: measuredNotNegative,
    filled_share: notNegative.max(1, 'At most 1.'),
    ...of,
    ...placed,
  }),
])
export type LoadPart = z.infer<typeof loadPart>
type Part = Nominal<LoadPart> & { name?: string }

/** Mass of one part, and of a tank's shell apart from what is in it: they do not stand at one height. */
function massOf(p: Part, volume_m3: number, i: number): { shell_kg: number; content_kg: number } {
  if (p.shape === 'section') return { shell_kg: 0, content_kg: p.mass_kg_per_m * p.length_m }
  const given = [p.material, p.density_kg_m3, p.mass_kg].filter((x) => x !== undefined).length
  const what = p.shape === 'tank' && p.filled_share === 0 ? 0 : 1
  if (given !== what && !(what === 0 && given === 1)) {
    throw new Refusal(
      given === 0 ? 'missing-field' : 'one-of-three',
      'Give one of material, density_kg_m3 or mass_kg.',
      `parts.${i}.${given === 0 ? 'material' : 'mass_kg'}`,
    )
  }
  const shell_kg = p.shape === 'tank' ? p.empty_kg : 0
  if (p.mass_kg !== undefined) return { shell_kg, content_kg: p.mass_kg }
  const { material } = p
  const density_kg_m3 = p.density_kg_m3 ?? (material === undefined ? 0 : densities_kg_m3[material])
  return { shell_kg, content_kg: volume_m3 * density_kg_m3 }
}

interface PlacedFace {
  /** From and to along the wind and across it, metres. */
  along: [number, number]
  across: [number, number]
  up: [number, number]
  area_m2: number
  /** Counted parts stand somewhere beside each other; nobody says where. */
  single: boolean
}

/**
 * Wind area of parts seen along one axis. Parts that touch or overlap along the wind shelter each other at best as far as the face
 * of the box round them; parts that stand apart are each hit.
 */
function windArea_m2(faces: readonly PlacedFace[]): number {
  const sorted = [...faces].sort((a, b) => a.along[0] - b.along[0])
  const groups: PlacedFace[][] = []
  let reach = -Infinity
  for (const f of sorted) {
    if (f.along[0] > reach + 1e-9) groups.push([])
    groups[groups.length - 1]?.push(f)
    reach = Math.max(reach, f.along[1])
  }
  const span = (list: readonly PlacedFace[], pickUp: (f: PlacedFace) => [number, number]) =>
    Math.max(...list.map((f) => pickUp(f)[1])) - Math.min(...list.map((f) => pickUp(f)[0]))
  return groups.reduce((sum, list) => {
    const all = list.reduce((s, f) => s + f.area_m2, 0)
    const box = span(list, (f) => f.across) * span(list, (f) => f.up)
    return sum + (list.every((f) => f.single) ? Math.min(all, box) : all)
  }, 0)
}

/** Above this a load is more likely a slip of the unit than a load, kg. */
const implausible_kg = 5_000_000

/**
 * Mass, centre of gravity, extents and sail area of a load built from simple parts. A part's place is the middle of its box; a
 * tank's shell stands there, what is in it lower. Sail areas: see `windArea_m2`.
 */
export function loadMass(input: { parts: readonly Part[] }) {
  let [mass_kg, mx, my, mz] = [0, 0, 0, 0]
  const faces: Record<'x' | 'y', PlacedFace[]> = { x: [], y: [] }
  const low = { x: Infinity, y: Infinity, z: Infinity }
  const high = { x: -Infinity, y: -Infinity, z: -Infinity }
  const parts = input.parts.map((p, i) => {
    const s = solidOf(p)
    const count = p.count ?? 1
    const { shell_kg, content_kg } = massOf(p, s.volume_m3, i)
    const kg = (shell_kg + content_kg) * count
    const { at } = p
    mass_kg += kg
    mx += kg * at.x_m
    my += kg * at.y_m
    mz += count * (shell_kg * at.z_m + content_kg * (at.z_m + s.cgAbove_m))
    const ends = (c: number, k: 'x' | 'y' | 'z'): [number, number] => [c - s.box[k] / 2, c + s.box[k] / 2]
    const [ex, ey, up] = [ends(at.x_m, 'x'), ends(at.y_m, 'y'), ends(at.z_m, 'z')]
    const single = count === 1
    faces.x.push({ along: ex, across: ey, up, area_m2: s.sail_m2.x * count, single })
    faces.y.push({ along: ey, across: ex, up, area_m2: s.sail_m2.y * count, single })
    for (const [k, c] of [
      ['x', at.x_m],
      ['y', at.y_m],
      ['z', at.z_m],
    ] as const) {
      low[k] = Math.min(low[k], c - s.box[k] / 2)
      high[k] = Math.max(high[k], c + s.box[k] / 2)
    }
    return { name: p.name ?? p.shape, mass_kg: kg }
  })
  if (!(mass_kg > 0)) throw new Refusal('no-weight', 'These parts weigh nothing; give material or mass.', 'parts')
  const size = { x_m: high.x - low.x, y_m: high.y - low.y, z_m: high.z - low.z }
  return {
    mass_kg,
    cg: { x_m: mx / mass_kg, y_m: my / mass_kg, z_m: mz / mass_kg },
    extents: size,
    sailArea_m2: { x: windArea_m2(faces.x), y: windArea_m2(faces.y) },
    parts,
    warnings: mass_kg > implausible_kg ? ['This is more than 5,000 t: check the units of every size.'] : [],
  }
}

export const loadMassCalculator = defineCalculator({
  name: 'load-mass',
  purpose: 'Mass, centre of gravity and sail area of a load, built from simple shapes.',
  source: 'Volumes of simple solids × density; densities on the heavy side of what is usual.',
  cautions: [
    'A worked-out mass is an estimate: give ± and weigh what is near a limit.',
    'Water, ice, mud and what was left inside are not in the drawing.',
    'Parts counted more than once are taken at one place.',
  ],
  input: z.strictObject({ parts: z.array(loadPart).min(1, 'Give at least one part.').max(200) }),
  output: z.object({
    mass_kg: z.number(),
    cg: z.object({ x_m: z.number(), y_m: z.number(), z_m: z.number() }),
    extents: z.object({ x_m: z.number(), y_m: z.number(), z_m: z.number() }),
    sailArea_m2: z.object({ x: z.number(), y: z.number() }),
    parts: z.array(z.object({ name: z.string(), mass_kg: z.number() })),
    warnings: z.array(z.string()),
  }),
  worse: {
    mass_kg: 'high',
    'cg.x_m': 'either',
    'cg.y_m': 'either',
    'cg.z_m': 'high',
    'extents.x_m': 'high',
    'extents.y_m': 'high',
    'extents.z_m': 'high',
    'sailArea_m2.x': 'high',
    'sailArea_m2.y': 'high',
    'parts.*.name': 'given',
    'parts.*.mass_kg': 'high',
    warnings: { unite: true },
  },
  example: {
    parts: [
      {
        name: 'base plate',
        shape: 'plate',
        length_m: 2.4,
        width_m: 1.2,
        height_m: 0.03,
        material: 'steel',
        at: { x_m: 0, y_m: 0, z_m: 0.015 },
      },
      {
        name: 'pump',
        shape: 'cylinder',
        diameter_m: 0.6,
        length_m: 0.9,
        axis: 'x',
        density_kg_m3: { value: 3000, tolerance: 400 },
        at: { x_m: -0.5, y_m: 0, z_m: 0.4 },
      },
      {
        name: 'motor',
        shape: 'box',
        length_m: 0.7,
        width_m: 0.5,
        height_m: 0.5,
        mass_kg: 420,
        at: { x_m: 0.7, y_m: 0, z_m: 0.35 },
      },
    ],
  },
  transfers: { mass_kg: (o) => o.mass_kg, windArea_m2: (o) => o.sailArea_m2 && Math.max(o.sailArea_m2.x, o.sailArea_m2.y) },
  compute: loadMass,
})
