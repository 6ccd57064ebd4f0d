import { z } from 'zod'
import { defineCalculator } from '../calculator/define'
import { sampleBoomAxes, sampleLegs, sampleTableHead } from '../calculator/sample'
import { worseRating, worseUse } from '../calculator/use'
import { lineLimit_kg, type Reeving } from '../parts/hoists/rope'
import { measured, measuredNotNegative, measuredPositive, notNegative, positive } from '../quantity/measured'
import { Refusal } from '../refusal'
import { type Axis, type AxisQuantity, axesTitle, goBy, type TableAxes } from './axes'
import {
  configurationNamed,
  type GrossReading,
  permitRule,
  type ReadingRule,
  ratedAtSlew,
  ratingAt,
  ratingBasisRead,
  readCell,
  readingRule,
} from './read'
import { type RatingTable, ratingTable } from './table'

export interface Deduction {
  name: string
  mass_kg: number
  /** On the hook it also loads the line; on the boom (a stowed jib, a cable) not. */
  on: 'hook' | 'boom'
  /** On the boom: how far from its foot its centre is, metres; omitted: at the head, where it weighs most. */
  at_m?: number | undefined
}

export interface HoistReeving extends Reeving {
  /** Rating of the hook block, kg. */
  hook_kg?: number | undefined
}

export interface ChartReading extends Omit<GrossReading, 'cells'> {
  /** The cells the figure was read from. */
  rows: GrossReading['cells']
  rule: ReadingRule
  net_kg: number | 'not-rated'
  /** (load + deductions) / gross of whichever governs; null without a load, where nothing is rated, or a limit is nothing. */
  utilisation: number | null
  /** Why a load has no share of a limit. */
  why: string | null
  governs: 'chart' | 'line' | 'hook'
}

export interface ReadingInput {
  chart: RatingTable
  configuration: string
  radius_m: number
  boom_m?: number | undefined
  angle_deg?: number | undefined
  height_m?: number | undefined
  slew_deg?: number | undefined
  rule: ReadingRule
  load_kg?: number | undefined
  deductions: readonly Deduction[]
  hoist?: HoistReeving | undefined
}

/** How far ahead of the slew centre a boom's foot and its head's offset may put the hook, metres, at the most. */
const footAhead_m = 1

/** Which figures of the question each axis is read with. */
const askedBy: Partial<Record<AxisQuantity, [field: string, valueIn: (input: ReadingInput) => number | undefined]>> = {
  radius_m: ['radius_m', (i) => i.radius_m],
  reach_m: ['radius_m', (i) => i.radius_m],
  boom_m: ['boom_m', (i) => i.boom_m],
  angle_deg: ['angle_deg', (i) => i.angle_deg],
  height_m: ['height_m', (i) => i.height_m],
  parts: ['hoist', (i) => i.hoist?.parts],
}

/** Can a table by these axes be read by radius, boom, angle, height or parts of line? */
export const isReadByChart = ({ row, column }: TableAxes): boolean =>
  askedBy[row.quantity] !== undefined && askedBy[column.quantity] !== undefined

/** Where a question stands on the axes of its table, as far as it says. */
export const chartPlace = (input: ReadingInput) => ({
  row: askedBy[input.chart.axes.row.quantity]?.[1](input),
  column: askedBy[input.chart.axes.column.quantity]?.[1](input),
})

/** Where on an axis the question stands; where the axis has one entry only, that. @throws Refusal `missing-field` */
function valueOn({ quantity, label }: Axis, input: ReadingInput, entries: readonly (number | string)[]): number | string {
  const [field, valueIn] = askedBy[quantity] ?? [quantity, () => undefined]
  const value = valueIn(input) ?? (entries.length === 1 ? entries[0] : undefined)
  if (value === undefined) throw new Refusal('missing-field', `This table goes by ${label.toLowerCase()}; give ${field}.`, field)
  return value
}

/**
 * Rated capacity and what is left of it for the load. Each axis of the table takes what it counts from the question: the parts of
 * line, the boom angle, the height; of a telehandler the radius is the reach.
 *
 * net = min(chart − all deductions, line limit − deductions on the hook, hook limit − deductions on the hook).
 * @throws Refusal `unknown-configuration`, `linear-not-permitted`, `missing-field`, `other-axes`.
 */
export function chartReading(input: ReadingInput): ChartReading {
  const { axes } = input.chart
  if (!isReadByChart(axes))
    throw new Refusal('other-axes', `A table by ${axesTitle(axes).toLowerCase()} has a calculator of its own.`, 'chart.axes')
  const c = configurationNamed(input.chart, input.configuration)
  const row = valueOn(
    axes.row,
    input,
    c.rows.map((r) => r.at),
  )
  const column = valueOn(axes.column, input, c.columns)
  const rated = ratedAtSlew(c, input.slew_deg)
  permitRule(input.chart, input.rule)
  const none: GrossReading = { gross_kg: 'not-rated', basis: 'unknown', cells: [] }
  // A boom does not reach further from its foot than it is long, wherever the foot stands on a machine of this size.
  const reaches = !goBy(axes, 'radius_m', 'boom_m') || Number(row) <= Number(column) + footAhead_m
  const read = rated && reaches ? ratingAt(axes, c, row, column, input.rule) : none
  return withDeductions(read, input.rule, input.deductions, input.load_kg, input.hoist)
}

/** Nets a gross reading against deductions, line and hook. */
export function withDeductions(
  { cells: rows, ...read }: GrossReading,
  rule: ReadingRule,
  deductions: readonly Deduction[],
  load_kg: number | undefined,
  hoist: HoistReeving | undefined,
): ChartReading {
  let [hookLoad_kg, onBoom_kg] = [0, 0]
  for (const d of deductions) {
    if (d.on === 'hook') hookLoad_kg += d.mass_kg
    else onBoom_kg += d.mass_kg
  }
  if (read.gross_kg === 'not-rated') {
    return {
      ...read,
      rows,
      rule,
      net_kg: 'not-rated',
      utilisation: null,
      why: 'Not rated: nothing may be lifted so.',
      governs: 'chart',
    }
  }
  const limits: { by: ChartReading['governs']; gross_kg: number; taken_kg: number }[] = [
    { by: 'chart', gross_kg: read.gross_kg, taken_kg: hookLoad_kg + onBoom_kg },
  ]
  if (hoist) limits.push({ by: 'line', gross_kg: lineLimit_kg(hoist), taken_kg: hookLoad_kg })
  if (hoist?.hook_kg !== undefined) limits.push({ by: 'hook', gross_kg: hoist.hook_kg, taken_kg: hookLoad_kg })
  let governs: ChartReading['governs'] = 'chart'
  let net_kg = Infinity
  let used: number | null = null
  for (const l of limits) {
    const left = l.gross_kg - l.taken_kg
    if (load_kg === undefined) {
      if (left < net_kg) governs = l.by
    } else {
      // Of nothing nothing may be used: no share is greater.
      const share = l.gross_kg > 0 ? (load_kg + l.taken_kg) / l.gross_kg : Infinity
      if (used === null || share > used) {
        used = share
        governs = l.by
      }
    }
    net_kg = Math.min(net_kg, left)
  }
  const why = used === Infinity ? `The limit of the ${governs === 'chart' ? 'table' : governs} here is 0 kg.` : null
  return { ...read, rows, rule, net_kg, utilisation: why === null ? used : null, why, governs }
}

export const deductionInput = z.strictObject({
  name: z.string().min(1),
  mass_kg: measuredNotNegative,
  on: z.enum(['hook', 'boom']),
  at_m: notNegative.optional(),
})

export const chartReadingCalculator = defineCalculator({
  name: 'chart-reading',
  purpose: 'Rated capacity from the table for this configuration and radius, and what is left for the load.',
  source: 'The machine’s own table; line limit from sheave efficiency (ISO 4308, ASME B30.5).',
  cautions: [
    'Read the table for exactly this set-up: legs, counterweight, sector, parts of line.',
    'Between rows the worse row counts unless the maker allows otherwise.',
    'Hook block, slings and a stowed jib are load.',
  ],
  input: z.strictObject({
    chart: ratingTable,
    configuration: z.string(),
    radius_m: measuredPositive,
    boom_m: measuredPositive.optional(),
    angle_deg: measured.optional(),
    height_m: measured.optional(),
    slew_deg: measured.optional(),
    rule: readingRule,
    load_kg: measuredNotNegative.optional(),
    deductions: z.array(deductionInput).max(50),
    hoist: z
      .strictObject({
        linePull_N: positive,
        parts: z.int().min(1).max(32),
        leadSheaves: z.int().min(0).max(10).optional(),
        sheaveEfficiency: positive.max(1, 'At most 1.'),
        hook_kg: notNegative.optional(),
      })
      .optional(),
  }),
  output: z.object({
    gross_kg: z.union([z.number(), z.literal('not-rated')]),
    basis: ratingBasisRead,
    rows: z.array(readCell),
    rule: readingRule,
    net_kg: z.union([z.number(), z.literal('not-rated')]),
    utilisation: z.number().nullable(),
    why: z.string().nullable(),
    governs: z.enum(['chart', 'line', 'hook']),
  }),
  worse: {
    gross_kg: worseRating,
    basis: { with: 'gross_kg' },
    rows: { unite: true },
    rule: 'given',
    net_kg: worseRating,
    utilisation: worseUse,
    why: { with: 'net_kg' },
    governs: { with: 'net_kg' },
  },
  example: {
    chart: {
      ...sampleTableHead,
      axes: sampleBoomAxes,
      stabilityRule: '75%',
      level_deg: 1,
      configurations: [
        {
          id: 'full',
          label: 'Legs full',
          appliesTo: { standing: { footprint: sampleLegs, fullyExtended: true, counterweight_kg: 5000 } },
          columns: [12, 19.4],
          rows: [
            { at: 6, ratings_kg: [11500, 9800] },
            { at: 8, ratings_kg: [7600, 7100] },
            { at: 10, ratings_kg: [null, 4900] },
          ],
        },
      ],
    },
    configuration: 'full',
    radius_m: 9,
    boom_m: 19.4,
    rule: 'worse-row',
    load_kg: { value: 3200, tolerance: 150 },
    deductions: [{ name: 'hook block', mass_kg: 180, on: 'hook' }],
    hoist: { linePull_N: 30000, parts: 4, sheaveEfficiency: 0.98 },
  },
  compute: chartReading,
})
