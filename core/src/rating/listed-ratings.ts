import { z } from 'zod'
import { defineCalculator } from '../calculator/define'
import { sampleTableHead } from '../calculator/sample'
import { ratedFigure as rated, useOf, worseRating, worseUse } from '../calculator/use'
import { measuredNotNegative, measuredPositive, notNegative } from '../quantity/measured'
import { Refusal } from '../refusal'
import { type AxisQuantity, goBy } from './axes'
import { ratingAt } from './read'
import { type RatingTable, ratingTable } from './table'

/** A table that goes by these axes. */
const tableBy = (rows: AxisQuantity, columns: AxisQuantity, what: string) =>
  ratingTable.refine((t) => goBy(t.axes, rows, columns), { message: `Give a table by ${what}.`, path: ['axes'] })

/**
 * Sliding counterweight: only listed extensions and slabs are rated; between them nothing is. Among configurations of that
 * tool the one with the nearest load centre at or beyond the load's counts.
 */
export const counterweightRatingCalculator = defineCalculator({
  name: 'counterweight-rating',
  purpose: 'Rating of a forklift with sliding counterweight: slabs, extension, tool and load centre.',
  source: 'The machine’s own table, listed steps only.',
  cautions: [
    'Measure the extension; between listed steps nothing is rated.',
    'The counterweight is moved only without a load.',
    'The front wheels carry nearly everything: check the floor.',
  ],
  input: z.strictObject({
    table: tableBy('extension_m', 'slabs', 'extension and slabs'),
    slabs: z.int().min(0, 'At least none.'),
    extension_m: measuredNotNegative,
    tool: z.enum(['forks', 'boom', 'both']),
    loadCentre_m: measuredPositive,
    load_kg: measuredNotNegative,
  }),
  output: z.object({
    allowed_kg: rated,
    utilisation: z.number().nullable(),
    why: z.string().nullable(),
    configuration: z.string().nullable(),
    /** Listed extension with the least counterweight moved out that carries this load; null: none. */
    needs_extension_m: z.number().nullable(),
  }),
  worse: {
    allowed_kg: worseRating,
    utilisation: worseUse,
    why: { with: 'allowed_kg' },
    configuration: { with: 'allowed_kg' },
    needs_extension_m: { worse: 'high', nothing: 'worst' },
  },
  example: {
    table: {
      ...sampleTableHead,
      axes: {
        row: { quantity: 'extension_m', label: 'Extension', reading: 'listed', trend: 'rises' },
        column: { quantity: 'slabs', label: 'Slabs', reading: 'listed', trend: 'rises' },
      },
      configurations: [
        {
          id: 'forks-0.6',
          label: 'Forks, load centre 0.6 m',
          appliesTo: { tool: 'forks', loadCentre_m: 0.6 },
          columns: [0, 2, 4],
          rows: [
            { at: 0, ratings_kg: [12000, 15000, 18000] },
            { at: 0.5, ratings_kg: [14000, 17500, 21000] },
            { at: 1, ratings_kg: [16000, 20000, 24000] },
          ],
        },
      ],
    },
    slabs: 2,
    extension_m: 0.5,
    tool: 'forks',
    loadCentre_m: 0.6,
    load_kg: { value: 16500, tolerance: 400 },
  },
  compute: ({ table, slabs, extension_m, tool, loadCentre_m, load_kg }) => {
    const centre_m = (c: (typeof table.configurations)[number]) => c.appliesTo.loadCentre_m ?? 0
    const c = table.configurations
      .filter((k) => k.appliesTo.tool === tool && centre_m(k) >= loadCentre_m - 1e-9)
      .sort((a, b) => centre_m(a) - centre_m(b))[0]
    const rated_kg = (at_m: number) => (c ? ratingAt(table.axes, c, at_m, slabs, 'worse-row').gross_kg : 'not-rated')
    const allowed_kg = rated_kg(extension_m)
    const enough = c?.rows.find(({ at }) => {
      const kg = rated_kg(Number(at))
      return kg !== 'not-rated' && kg >= load_kg
    })
    return {
      allowed_kg,
      ...useOf(load_kg, allowed_kg),
      configuration: c?.id ?? null,
      needs_extension_m: enough ? Number(enough.at) : null,
    }
  },
})

/** Hydraulic gantry: the stage that holds the height, per tower, against each tower's share of the load. */
export const heightRatingCalculator = defineCalculator({
  name: 'height-rating',
  purpose: 'Hydraulic gantry: rating of each tower at this height against its share of the load.',
  source: 'The machine’s own table by height stage (ASME B30.1); shares from load-sharing.',
  cautions: [
    'A stage ends at its height: above it the next, lower rating counts.',
    'Side shift moves the shares; give them with it.',
    'Track level and clear before anything is raised.',
  ],
  input: z.strictObject({
    table: tableBy('height_m', 'per', 'height stage'),
    height_m: measuredNotNegative,
    /** How far the load hangs beside the middle line; nothing only where it was measured to be nothing. */
    sideShift_m: measuredNotNegative,
    towers: z
      .array(z.strictObject({ id: z.string().min(1), load_kg: measuredNotNegative }))
      .min(2, 'At least two towers.')
      .max(16),
  }),
  output: z.object({
    perTower_kg: rated,
    stage_m: z.number().nullable(),
    towers: z.array(z.object({ id: z.string(), load_kg: z.number(), utilisation: z.number().nullable() })),
    governs: z.string().nullable(),
    utilisation: z.number().nullable(),
    why: z.string().nullable(),
  }),
  worse: {
    perTower_kg: worseRating,
    stage_m: { worse: 'high', nothing: 'worst' },
    towers: { rows: 'id' },
    'towers.*.id': 'given',
    'towers.*.load_kg': 'high',
    'towers.*.utilisation': worseUse,
    governs: { with: 'utilisation' },
    utilisation: worseUse,
    why: { with: 'perTower_kg' },
  },
  example: {
    table: {
      ...sampleTableHead,
      axes: {
        row: { quantity: 'height_m', label: 'Up to', reading: 'holds', trend: 'falls' },
        column: { quantity: 'per', label: 'Per', reading: 'listed', trend: null },
      },
      towers: 4,
      configurations: [
        {
          id: 'centred',
          label: 'Load on the middle line',
          appliesTo: { sideShift_m: 0 },
          columns: ['tower'],
          rows: [
            { at: 4, ratings_kg: [12500] },
            { at: 6.5, ratings_kg: [10000] },
            { at: 9, ratings_kg: [6500] },
          ],
        },
      ],
    },
    height_m: 5.2,
    sideShift_m: 0,
    towers: [
      { id: 'A', load_kg: 7800 },
      { id: 'B', load_kg: 8900 },
      { id: 'C', load_kg: 7200 },
      { id: 'D', load_kg: { value: 8100, tolerance: 300 } },
    ],
  },
  compute: ({ table, height_m, sideShift_m, towers }) => {
    const ids = new Set(towers.map((t) => t.id))
    if (ids.size < towers.length) {
      const twice = towers.findIndex((t, i) => towers.findIndex((x) => x.id === t.id) < i)
      throw new Refusal('duplicate-tower', 'Two shares have the same tower; give each its own id.', `towers.${twice}.id`)
    }
    if (towers.length !== table.towers) {
      throw new Refusal(
        'missing-tower',
        `This gantry has ${table.towers} towers; give the share of each, ${towers.length} were given.`,
        'towers',
      )
    }
    const c = [...table.configurations]
      .sort((a, b) => (a.appliesTo.sideShift_m ?? 0) - (b.appliesTo.sideShift_m ?? 0))
      .find((k) => (k.appliesTo.sideShift_m ?? 0) >= sideShift_m - 1e-9)
    const read = c && ratingAt(table.axes, c, height_m, 'tower', 'worse-row')
    const perTower_kg = read?.gross_kg ?? 'not-rated'
    const uses = towers.map((t) => ({ id: t.id, load_kg: t.load_kg, utilisation: useOf(t.load_kg, perTower_kg).utilisation }))
    const worst = uses.reduce((a, b) => ((b.utilisation ?? -1) > (a.utilisation ?? -1) ? b : a))
    return {
      perTower_kg,
      stage_m: read?.cells[0] ? Number(read.cells[0].row) : null,
      towers: uses,
      governs: worst.utilisation === null ? null : worst.id,
      utilisation: worst.utilisation,
      why: useOf(worst.load_kg, perTower_kg).why,
    }
  },
})

/** Chain hoist on a runway: the least of hoist, trolley, beam and hook. */
export const hoistChainRatingCalculator = defineCalculator({
  name: 'hoist-chain-rating',
  purpose: 'Chain hoist on a runway: the least of what hoist, trolley, beam and hook are marked with.',
  source: 'Marks on the parts (ASME B30.16, B30.11); the least governs.',
  cautions: [
    'A part without a mark is not proven.',
    'Two hoists on one beam share its mark.',
    'Chain wear lowers nothing on paper: measure it.',
  ],
  input: z.strictObject({
    hoist_kg: notNegative.nullable(),
    trolley_kg: notNegative.nullable(),
    beam_kg: notNegative.nullable(),
    hook_kg: notNegative.nullable(),
    /** Everything that hangs on the beam besides the load: hoist, trolley, a second hoist with its load. */
    onBeam_kg: measuredNotNegative.optional(),
    load_kg: measuredNotNegative,
    rigging_kg: measuredNotNegative.optional(),
  }),
  output: z.object({
    allowed_kg: rated,
    governs: z.enum(['hoist', 'trolley', 'beam', 'hook']).nullable(),
    utilisation: z.number().nullable(),
    why: z.string().nullable(),
    missing: z.array(z.string()),
  }),
  worse: {
    allowed_kg: worseRating,
    governs: { with: 'allowed_kg' },
    utilisation: worseUse,
    why: { with: 'allowed_kg' },
    missing: { unite: true },
  },
  example: {
    hoist_kg: 2000,
    trolley_kg: 2500,
    beam_kg: 2400,
    hook_kg: 2000,
    onBeam_kg: 95,
    load_kg: { value: 1500, tolerance: 100 },
    rigging_kg: 25,
  },
  compute: (input) => {
    const onBeam = input.onBeam_kg ?? 0
    const marks = [
      ['hoist', input.hoist_kg],
      ['trolley', input.trolley_kg],
      ['beam', input.beam_kg === null ? null : Math.max(0, input.beam_kg - onBeam)],
      ['hook', input.hook_kg],
    ] as const
    const missing = marks.filter(([, kg]) => kg === null).map(([name]) => name)
    const least = marks.reduce<{ name: (typeof marks)[number][0]; kg: number } | null>(
      (a, [name, kg]) => (kg !== null && (a === null || kg < a.kg) ? { name, kg } : a),
      null,
    )
    if (missing.length > 0 || least === null)
      return {
        allowed_kg: 'not-rated' as const,
        governs: null,
        utilisation: null,
        why: `Not proven: no mark on ${missing.join(', ')}.`,
        missing,
      }
    return {
      allowed_kg: least.kg,
      governs: least.name,
      ...useOf(input.load_kg + (input.rigging_kg ?? 0), least.kg),
      missing,
    }
  },
})

/** Marks of a runway's table as the calculator's input. */
export function marksOf(table: RatingTable) {
  const mark = (part: string) => table.configurations[0]?.rows.find((r) => r.at === part)?.ratings_kg[0] ?? null
  return { hoist_kg: mark('hoist'), trolley_kg: mark('trolley'), beam_kg: mark('beam'), hook_kg: mark('hook') }
}
