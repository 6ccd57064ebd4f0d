import { z } from 'zod'
import { defineCalculator } from '../calculator/define'
import { sampleLegs, sampleTableHead } from '../calculator/sample'
import { worseRating, worseUse } from '../calculator/use'
import { lineLimit_kg, type Reeving } from '../parts/hoists/rope'
import { inSector } from '../plane/sector'
import { measured, measuredNotNegative, measuredPositive, notNegative, positive } from '../quantity/measured'
import { Refusal } from '../refusal'
import { type RatingTable, ratingTable } from './rating-table'
import type { ChartConfiguration } from './table'

export const readingRule = z.enum(['worse-row', 'linear'])
export type ReadingRule = z.infer<typeof readingRule>

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

export type Basis = 'structural' | 'stability' | 'unknown'

export interface ChartCell {
  boom_m: number
  radius_m: number
  rating_kg: number | null
}

export interface GrossReading {
  gross_kg: number | 'not-rated'
  basis: Basis
  /** The cells the figure was read from. */
  rows: ChartCell[]
}

export interface ChartReading extends GrossReading {
  rule: ReadingRule
  net_kg: number | 'not-rated'
  /** (load + deductions) / gross of whichever governs; null without a load, where nothing is rated, or a limit is nothing. */
  utilisation: number | null
  /** Why a load has no share of a limit. */
  why: string | null
  governs: 'chart' | 'line' | 'hook'
}

const same = (a: number, b: number) => Math.abs(a - b) <= 1e-9 * Math.max(1, Math.abs(b))

/** Indices of the entries that bracket a value: one where it stands in the list, none outside it. */
function bracket(values: readonly number[], value: number): number[] {
  for (let i = 0; i < values.length; i++) {
    const v = values[i] as number
    if (same(value, v)) return [i]
    if (value < v) return i === 0 ? [] : [i - 1, i]
  }
  return []
}

function readColumn(c: Readable, column: number, radius_m: number, rule: ReadingRule, cells: ChartCell[]) {
  const rows = bracket(
    c.rows.map((r) => r.radius_m),
    radius_m,
  )
  const found = rows.map((i) => {
    const row = c.rows[i] as ChartConfiguration['rows'][number]
    const rating_kg = row.ratings_kg[column] ?? null
    cells.push({ boom_m: c.boom_m[column] as number, radius_m: row.radius_m, rating_kg })
    return { radius_m: row.radius_m, rating_kg, basis: row.basis?.[column] ?? ('unknown' as const) }
  })
  const [a, b] = found
  if (!a || found.some((f) => f.rating_kg === null)) return null
  if (!b) return { kg: a.rating_kg as number, basis: a.basis as Basis }
  const [ka, kb] = [a.rating_kg as number, b.rating_kg as number]
  const worse = ka <= kb ? a : b
  if (rule === 'worse-row') return { kg: worse.rating_kg as number, basis: worse.basis as Basis }
  const share = (radius_m - a.radius_m) / (b.radius_m - a.radius_m)
  return { kg: ka + share * (kb - ka), basis: worse.basis as Basis }
}

/** @throws Refusal `missing-field` where a rating holds only in part of the circle and no slew is given. */
export function requireSlew(bySector: boolean, slew_deg: number | undefined): void {
  if (bySector && slew_deg === undefined) {
    throw new Refusal('missing-field', 'This rating holds only in part of the circle; give slew_deg.', 'slew_deg')
  }
}

/** As much of a configuration as reading it needs. */
export type Readable = Pick<ChartConfiguration, 'rows' | 'boom_m'> & Pick<Partial<ChartConfiguration>, 'sector'>

/**
 * Rating of a configuration at a radius and boom length, by a reading rule; outside the rows, columns or sector: not-rated.
 * A configuration that has no `sector` in it is read as it stands; who reads one by sectors says the slew.
 *
 * @throws Refusal `missing-field` for a sector without a slew, or several boom lengths without boom_m.
 */
export function readGross(
  c: Readable,
  at: { radius_m: number; boom_m?: number | undefined; slew_deg?: number | undefined },
  rule: ReadingRule,
): GrossReading {
  const none: GrossReading = { gross_kg: 'not-rated', basis: 'unknown', rows: [] }
  requireSlew(c.sector !== undefined, at.slew_deg)
  if (at.slew_deg !== undefined && !inSector(c, at.slew_deg)) return none
  const boom_m = at.boom_m ?? (c.boom_m.length === 1 ? c.boom_m[0] : undefined)
  if (boom_m === undefined) throw new Refusal('missing-field', 'This table has several boom lengths; give boom_m.', 'boom_m')
  const rows: ChartCell[] = []
  const columns = bracket(c.boom_m, boom_m)
  const found = columns.map((i) => readColumn(c, i, at.radius_m, rule, rows))
  let least: { kg: number; basis: Basis } | null = null
  for (const f of found) {
    if (f === null) return { ...none, rows }
    if (least === null || f.kg < least.kg) least = f
  }
  return least === null ? { ...none, rows } : { gross_kg: least.kg, basis: least.basis, rows }
}

interface ReadingInput {
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

const needed = (field: string, why: string) => new Refusal('missing-field', `${why}; give ${field}.`, field)

/** How far ahead of the slew centre a boom's foot and its head's offset may put the hook, metres, at the most. */
const footAhead_m = 1

/** A shape's rows and columns as they are read, and where in them; null: nothing is rated there at all. */
function placeIn(input: ReadingInput): { c: Readable; at: Parameters<typeof readGross>[1] } | null {
  const { chart } = input
  const find = <C extends { id: string }>(list: readonly C[]): C => {
    const c = list.find((x) => x.id === input.configuration)
    if (c) return c
    const known = list.map((x) => x.id).join(', ')
    throw new Refusal('unknown-configuration', `This table has no such configuration; it has: ${known}.`, 'configuration')
  }
  const exact = (columns: readonly number[], value: number) => columns.findIndex((v) => same(v, value))
  switch (chart.shape) {
    case 'boom-radius':
    case 'lattice':
    case 'radius-section': {
      const c = find(chart.configurations)
      const boom_m = input.boom_m ?? (c.boom_m.length === 1 ? c.boom_m[0] : undefined)
      // A boom does not reach further from its foot than it is long, wherever the foot stands on a machine of this size.
      if (boom_m !== undefined && input.radius_m > boom_m + footAhead_m) return null
      return { c, at: input }
    }
    case 'radius-reeving': {
      const k = find(chart.configurations)
      if (!input.hoist) throw needed('hoist', 'This table goes by parts of line')
      const j = exact(k.parts, input.hoist.parts)
      if (j < 0) return null
      const rows = k.rows.map((r) => ({ radius_m: r.radius_m, ratings_kg: [r.ratings_kg[j] ?? null] }))
      return { c: { rows, boom_m: [k.jib_m] }, at: { radius_m: input.radius_m, boom_m: k.jib_m } }
    }
    case 'angle-stage': {
      const k = find(chart.configurations)
      if (input.angle_deg === undefined) throw needed('angle_deg', 'This table goes by boom angle')
      if (input.boom_m === undefined && k.boom_m.length > 1) throw needed('boom_m', 'This table has several boom lengths')
      const { slew_deg } = input
      requireSlew(k.forbidden.length > 0, slew_deg)
      if (slew_deg !== undefined && k.forbidden.some((sector) => inSector({ sector }, slew_deg))) return null
      const rows = k.rows.map((r) => ({ radius_m: r.angle_deg, ratings_kg: r.ratings_kg }))
      return { c: { rows, boom_m: k.boom_m }, at: { radius_m: input.angle_deg, boom_m: input.boom_m } }
    }
    case 'height-reach': {
      const k = find(chart.configurations)
      if (input.height_m === undefined) throw needed('height_m', 'This table goes by height and reach')
      requireSlew(k.sector !== undefined, input.slew_deg)
      if (input.slew_deg !== undefined && !inSector(k, input.slew_deg)) return null
      const rows = k.rows.map((r) => ({ radius_m: r.height_m, ratings_kg: r.ratings_kg }))
      return { c: { rows, boom_m: k.reach_m }, at: { radius_m: input.height_m, boom_m: input.radius_m } }
    }
    default:
      throw new Refusal(
        'other-shape',
        `A table of shape “${chart.shape}” is not read by radius; it has a calculator of its own.`,
        'chart.shape',
      )
  }
}

/**
 * Rated capacity and what is left of it for the load. A tower table takes its column from the parts of line, a mini crawler’s
 * its row from the boom angle, a telehandler’s its row from the height (radius is then the reach).
 *
 * net = min(chart − all deductions, line limit − deductions on the hook, hook limit − deductions on the hook).
 * @throws Refusal `unknown-configuration`, `linear-not-permitted`, `other-shape`.
 */
export function chartReading(input: ReadingInput): ChartReading {
  const permitted = 'linearPermitted' in input.chart && input.chart.linearPermitted
  const place = placeIn(input)
  if (input.rule === 'linear' && !permitted) {
    throw new Refusal('linear-not-permitted', 'This table does not allow reading between rows in a straight line.', 'rule')
  }
  const none: GrossReading = { gross_kg: 'not-rated', basis: 'unknown', rows: [] }
  const read = place ? readGross(place.c, place.at, input.rule) : none
  return withDeductions(read, input.rule, input.deductions, input.load_kg, input.hoist)
}

/** Nets a gross reading against deductions, line and hook. */
export function withDeductions(
  read: GrossReading,
  rule: ReadingRule,
  deductions: readonly Deduction[],
  load_kg: number | undefined,
  hoist: HoistReeving | undefined,
): ChartReading {
  let [onHook_kg, onBoom_kg] = [0, 0]
  for (const d of deductions) {
    if (d.on === 'hook') onHook_kg += d.mass_kg
    else onBoom_kg += d.mass_kg
  }
  if (read.gross_kg === 'not-rated') {
    return {
      ...read,
      rule,
      net_kg: 'not-rated',
      utilisation: null,
      why: 'Not rated: nothing may be lifted so.',
      governs: 'chart',
    }
  }
  const limits: { by: ChartReading['governs']; gross_kg: number; taken_kg: number }[] = [
    { by: 'chart', gross_kg: read.gross_kg, taken_kg: onHook_kg + onBoom_kg },
  ]
  if (hoist) limits.push({ by: 'line', gross_kg: lineLimit_kg(hoist), taken_kg: onHook_kg })
  if (hoist?.hook_kg !== undefined) limits.push({ by: 'hook', gross_kg: hoist.hook_kg, taken_kg: onHook_kg })
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
  return { ...read, rule, net_kg, utilisation: why === null ? used : null, why, governs }
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
    basis: z.enum(['structural', 'stability', 'unknown']),
    rows: z.array(z.object({ boom_m: z.number(), radius_m: z.number(), rating_kg: z.number().nullable() })),
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
      shape: 'boom-radius',
      linearPermitted: false,
      stabilityRule: '75%',
      wind: null,
      level_deg: 1,
      configurations: [
        {
          id: 'full',
          label: 'Legs full',
          footprint: sampleLegs,
          fullyExtended: true,
          counterweight_kg: 5000,
          boom_m: [12, 19.4],
          rows: [
            { radius_m: 6, ratings_kg: [11500, 9800] },
            { radius_m: 8, ratings_kg: [7600, 7100] },
            { radius_m: 10, ratings_kg: [null, 4900] },
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
  compute: (input) => chartReading(input as Parameters<typeof chartReading>[0]),
})
