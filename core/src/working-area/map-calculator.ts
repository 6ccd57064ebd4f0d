import { z } from 'zod'
import { defineCalculator } from '../calculator/define'
import { sampleBoomAxes, sampleTableHead } from '../calculator/sample'
import { worseUse } from '../calculator/use'
import { NOT_RATED, UNREACHABLE } from '../check/area'
import { soil } from '../ground/soil'
import { known } from '../list'
import { isSlewing, machineModel } from '../machine/model'
import { finite, measuredNotNegative, notNegative, positive } from '../quantity/measured'
import { deductionInput } from '../rating/chart-reading'
import { ratingTable } from '../rating/table'
import { Refusal } from '../refusal'
import { stabilityRule } from '../statics/tipping-load'
import { capacityMap, useAt } from './capacity-map'

const most_cells = 50_000
const layer = z.array(z.number().nullable())
const side = z.strictObject({ length_m: positive, width_m: positive })

const outriggers = [
  { id: 'FL', x_m: 2.6, y_m: 2.7 },
  { id: 'FR', x_m: 2.6, y_m: -2.7 },
  { id: 'RR', x_m: -2.8, y_m: -2.7 },
  { id: 'RL', x_m: -2.8, y_m: 2.7 },
]

/** Layers as this calculator calls them. */
const layerWords = (id: string) =>
  id === 'rating' ? 'table' : id === 'overturning' || id === 'boom-limits' ? 'stability' : id.replace(':', ' ')

export const capacityMapCalculator = defineCalculator({
  name: 'capacity-map',
  purpose: 'Where round the machine this load can go: share used of table, stability and ground, cell by cell.',
  source:
    'The machine’s own table; tipping over every edge with moving boom masses; legs on springs that cannot pull; ground as in ground-pressure.',
  cautions: [
    'A map is not a path: boom, load and tail can strike what stands there.',
    'Where no table covers a sector nothing is rated, whatever stability says.',
    'Mats near each other add up; that is not in here.',
  ],
  input: z.strictObject({
    machine: machineModel,
    table: ratingTable,
    /** Omitted: at each slew the best configuration that covers the footprint. */
    configuration: z.string().optional(),
    counterweight: z.string().min(1),
    boom_m: positive,
    deflection_m: notNegative.optional(),
    footprint: z.array(z.strictObject({ id: z.string().min(1), x_m: finite, y_m: finite })).max(16),
    ground: z.array(
      z.strictObject({
        id: z.string().min(1),
        pad: side,
        mat: side
          .extend({
            thickness_m: positive,
            allowableBending_MPa: positive,
            allowableShear_MPa: positive.optional(),
            mass_kg: notNegative.optional(),
            spreads: z.enum(['one-way', 'two-way']),
          })
          .optional(),
        allowable_kPa: positive.optional(),
        soil: soil.optional(),
      }),
    ),
    load: z.strictObject({
      mass_kg: measuredNotNegative,
      deductions: z.array(deductionInput).max(50),
      sailArea_m2: measuredNotNegative,
      dragCoefficient: positive,
    }),
    policy: z.strictObject({
      readingRule: z.enum(['worse-row', 'linear']),
      legLoads: z.enum(['upper', 'elastic']),
      dynamicFactor: finite.min(1, 'At least 1.').max(2, 'At most 2.'),
    }),
    wind_mps: measuredNotNegative,
    tilt_deg: finite.min(0, 'Must not be negative.').max(15, 'More than 15° is no set-up; check the figure.'),
    radii_m: z.array(positive).min(1).max(1000),
    slew_deg: z.array(finite.min(-3600, 'Within ten turns.').max(3600, 'Within ten turns.')).min(1).max(3600),
  }),
  output: z.object({
    radii_m: z.array(z.number()),
    slew_deg: z.array(z.number()),
    /** Slew by slew, all radii of one after another; null: no figure, for the reason in `why`. */
    utilisation: layer,
    table: layer,
    stability: layer,
    ground: z.array(z.object({ id: z.string(), utilisation: layer })),
    governs: z.array(z.string().nullable()),
    /** Why a cell has no figure for the whole. */
    why: z.array(z.enum(['not-rated', 'would-fall', 'ground-not-proven']).nullable()),
  }),
  worse: {
    radii_m: 'given',
    'radii_m.*': 'given',
    slew_deg: 'given',
    'slew_deg.*': 'given',
    'utilisation.*': worseUse,
    'table.*': worseUse,
    'stability.*': worseUse,
    ground: { rows: 'id' },
    'ground.*.id': 'given',
    'ground.*.utilisation.*': worseUse,
    'governs.*': 'given',
    'why.*': 'given',
  },
  // Every share grows with each thing that can have a ±: mass, deductions, wind and what catches it.
  effort: 0,
  example: {
    machine: {
      format: 'geolabe.model/1',
      id: 'example',
      name: 'Example',
      kind: { id: 'telescopic-truck-crane', label: 'telescopic truck crane' },
      note: 'Made up, for this example',
      chassis: { masses: [{ name: 'carrier', mass_kg: 18000, x_m: 0.9, y_m: 0 }] },
      upper: {
        masses: [{ name: 'superstructure', mass_kg: 4500, radius_m: -0.5 }],
        counterweights: [{ id: 'fitted', label: 'Fitted, 5 t', mass_kg: 5000, radius_m: -2.6 }],
        tailSwingRadius_m: 3,
      },
      boom: {
        pivot: { back_m: 1.3, height_m: 2.4 },
        headOffset_m: 0.3,
        lengths_m: [14],
        minAngle_deg: 0,
        maxAngle_deg: 80,
        masses: [{ name: 'boom', mass_kg: 4800, at_m: 0, share: 0.42 }],
      },
    },
    table: {
      ...sampleTableHead,
      axes: sampleBoomAxes,
      stabilityRule: stabilityRule.enum['75%'],
      level_deg: 0.5,
      configurations: [
        {
          id: 'full',
          label: 'Legs full',
          appliesTo: { standing: { footprint: outriggers, fullyExtended: true, counterweight_kg: 5000 } },
          columns: [14],
          rows: [
            { at: 4, ratings_kg: [16000] },
            { at: 6, ratings_kg: [11000] },
            { at: 8, ratings_kg: [7200] },
            { at: 10, ratings_kg: [4800] },
          ],
        },
      ],
    },
    counterweight: 'fitted',
    boom_m: 14,
    footprint: outriggers,
    ground: outriggers.map(({ id }) => ({ id, pad: { length_m: 0.6, width_m: 0.6 }, soil: 'gravel-dense' as const })),
    load: {
      mass_kg: 5200,
      deductions: [{ name: 'hook block', mass_kg: 220, on: 'hook' as const }],
      sailArea_m2: 4,
      dragCoefficient: 1.2,
    },
    policy: { readingRule: 'worse-row' as const, legLoads: 'upper' as const, dynamicFactor: 1.1 },
    wind_mps: 5,
    tilt_deg: 0.3,
    radii_m: [4, 5, 6, 7, 8, 9, 10],
    slew_deg: Array.from({ length: 24 }, (_, i) => i * 15),
  },
  compute: (input) => {
    const { machine } = input
    if (!isSlewing(machine)) throw new Refusal('no-model', 'The geometry needs chassis, upper and boom.', 'machine')
    if (input.radii_m.length * input.slew_deg.length > most_cells)
      throw new Refusal('too-many-cells', `At most ${most_cells} cells at once; ask for fewer.`, 'radii_m')
    const { table, ...rest } = input
    const map = capacityMap({ ...rest, machine, tables: [table] })
    const said = (v: number) => (v === NOT_RATED || v === UNREACHABLE ? null : v)
    const plain = (l: Float64Array) => Array.from(l, said)
    const layerNamed = (id: string) => known(new Map(map.layers.map((l) => [l.id, l.use])), id)
    const [table_, overturning] = [layerNamed('rating'), layerNamed('overturning')]
    const names = map.layers.map(({ id }) => layerWords(id))
    return {
      radii_m: input.radii_m,
      slew_deg: input.slew_deg,
      utilisation: Array.from({ length: table_.length }, (_, i) => said(useAt(map, i))),
      table: plain(table_),
      stability: plain(overturning),
      ground: input.footprint.map(({ id }) => ({ id, utilisation: plain(layerNamed(`ground:${id}`)) })),
      governs: Array.from(map.governs, (g, i) => (table_[i] === NOT_RATED ? null : (names[g] ?? null))),
      why: Array.from(table_, (t, i) => {
        if (t === NOT_RATED) return 'not-rated' as const
        const use = useAt(map, i)
        return use === UNREACHABLE ? ('would-fall' as const) : use === NOT_RATED ? ('ground-not-proven' as const) : null
      }),
    }
  },
})
