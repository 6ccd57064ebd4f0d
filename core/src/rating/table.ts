import { z } from 'zod'
import { finite, notNegative, positive } from '../quantity/measured'
import { stabilityRule } from '../statics/tipping-load'
import { type AxisQuantity, axisUnits, goBy, type TableAxes, tableAxes } from './axes'

const ratingBasis = z.enum(['structural', 'stability'])
const sector = z.strictObject({ from_deg: finite, to_deg: finite })

/** What a machine has to be for a configuration to be its own. Only what it depends on is said. */
const appliesTo = z.strictObject({
  /** A slewing machine's bearing points and counterweight: only where it stands at least as wide. */
  standing: z
    .strictObject({
      footprint: z.array(z.strictObject({ id: z.string(), x_m: finite, y_m: finite })).min(3),
      counterweight_kg: notNegative,
      /** Every outrigger out in full, which the 85 % rule asks for; omitted: not. */
      fullyExtended: z.boolean().optional(),
    })
    .optional(),
  /** Anticlockwise from–to; `dependsOn`: the outriggers that have to be out for it, all of them unless stated. */
  sector: sector.extend({ dependsOn: z.array(z.string()).min(1).optional() }).optional(),
  /** Parts of the circle in which nothing is rated. */
  forbidden: z.array(sector).optional(),
  /** Lattice cranes: with the derrick mast and its counterweight, or without. */
  derrick: z.boolean().optional(),
  /** Tower cranes: length of the jib. */
  jib_m: positive.optional(),
  attachment: z.string().min(1).optional(),
  tool: z.string().min(1).optional(),
  tool_kg: notNegative.optional(),
  mast: z.enum(['vertical', 'forward']).optional(),
  stabilisers: z.enum(['up', 'down', 'none']).optional(),
  /** From where reach is counted to the edge it would tip over, metres ahead. */
  edgeAhead_m: finite.optional(),
  loadCentre_m: positive.optional(),
  /** How far a load may stand to one side of the track's middle. */
  sideShift_m: notNegative.optional(),
})

const row = z.strictObject({
  /** The row's own figure, or its name. */
  at: z.union([finite, z.string().min(1)]),
  /** One rating a column, kg; null where the maker rates nothing. */
  ratings_kg: z.array(notNegative.nullable()).min(1),
  basis: z.array(ratingBasis.nullable()).optional(),
})

/** One group of columns of a table: what it applies to, and its ratings. */
const configuration = z.strictObject({
  id: z.string().min(1),
  label: z.string().min(1),
  appliesTo,
  columns: z.array(z.union([finite, z.string().min(1)])).min(1),
  /** What is said over each column besides its figure: a section that is drawn out, a pin position. */
  columnNames: z.array(z.string().min(1)).optional(),
  rows: z.array(row).min(1),
})
export type RatingConfiguration = z.infer<typeof configuration>

/** What a table by these axes is of no use without. */
const needed: readonly [rows: string, columns: string, readonly (keyof z.infer<typeof appliesTo>)[]][] = [
  ['radius_m', 'boom_m', ['standing']],
  ['angle_deg', 'boom_m', ['standing', 'forbidden']],
  ['radius_m', 'parts', ['jib_m']],
  ['height_m', 'reach_m', ['attachment', 'stabilisers', 'edgeAhead_m']],
  ['liftHeight_m', 'loadCentre_m', ['mast']],
  ['extension_m', 'slabs', ['tool', 'loadCentre_m']],
  ['height_m', 'per', ['sideShift_m']],
  ['reach_m', 'per', ['tool', 'tool_kg']],
]

/** Entries of one axis: of its kind, and rising. */
function axisIssue(entries: readonly (number | string)[], quantity: keyof typeof axisUnits): [number, string] | null {
  const named = axisUnits[quantity] === 'name'
  const odd = entries.findIndex((v) => (typeof v === 'string') !== named)
  if (odd >= 0) return [odd, named ? `${quantity} is a name.` : `${quantity} is a figure.`]
  const still = entries.findIndex((v, i) => i > 0 && (named ? entries.indexOf(v) < i : Number(v) <= Number(entries[i - 1])))
  if (still > 0) return [still, named ? 'Two have this name.' : 'Entries must rise from each to the next.']
  return null
}

function configurationIssues(c: RatingConfiguration, { row, column }: TableAxes): [path: (string | number)[], message: string][] {
  const issues: [(string | number)[], string][] = []
  const columns = axisIssue(c.columns, column.quantity)
  if (columns) issues.push([['columns', columns[0]], columns[1]])
  const rows = axisIssue(
    c.rows.map((r) => r.at),
    row.quantity,
  )
  if (rows) issues.push([['rows', rows[0], 'at'], rows[1]])
  if (c.columnNames && c.columnNames.length !== c.columns.length)
    issues.push([['columnNames'], `Name every column: ${c.columns.length} columns, ${c.columnNames.length} names.`])
  c.rows.forEach((r, i) => {
    if (r.ratings_kg.length !== c.columns.length)
      issues.push([
        ['rows', i, 'ratings_kg'],
        `Row ${i + 1} has ${r.ratings_kg.length} ratings for ${c.columns.length} columns; give one each, null where not rated.`,
      ])
  })
  for (const [byRow, byColumn, fields] of needed) {
    if (row.quantity !== byRow || column.quantity !== byColumn) continue
    for (const field of fields)
      if (c.appliesTo[field] === undefined)
        issues.push([['appliesTo', field], `A table by ${byRow} and ${byColumn} needs ${field}.`])
  }
  return issues
}

/**
 * A rating table or plate of any machine. It says its own axes: what rows and columns are, how a value between them is read, which
 * way ratings go; each configuration says what it applies to. What it does not say (wind, level) is not proven, never skipped.
 */
export const ratingTable = z
  .strictObject({
    format: z.literal('geolabe.table/1'),
    id: z.string().min(1),
    machine: z.string().min(1),
    title: z.string().min(1),
    revision: z.int().min(1),
    /** From which document, who entered it and who checked it. */
    enteredBy: z.string().min(1),
    document: z.string().min(1),
    checkedBy: z.string().min(1).nullable(),
    axes: tableAxes,
    /** Whether the maker allows straight-line reading between rows; omitted: no. */
    linearPermitted: z.boolean().optional(),
    stabilityRule: stabilityRule.optional(),
    /** Wind the ratings hold in, and the load area they assume; without it a load with sail cannot be proven. */
    wind: z.strictObject({ limit_mps: positive, referenceArea_m2_per_t: positive }).optional(),
    /** Greatest tilt the ratings allow, degrees. */
    level_deg: positive.optional(),
    /** A truck's battery, which its ratings assume. */
    battery: z.strictObject({ min_kg: positive, max_kg: positive, voltage_V: positive }).optional(),
    /** A gantry's towers, among which the load is shared. */
    towers: z.int().min(2).max(16).optional(),
    configurations: z.array(configuration).min(1),
  })
  .superRefine((t, ctx) => {
    if (goBy(t.axes, 'height_m', 'per') && t.towers === undefined)
      ctx.addIssue({ code: 'custom', path: ['towers'], message: 'Say how many towers share the load.' })
    t.configurations.forEach((c, i) => {
      const add = (path: (string | number)[], message: string) =>
        ctx.addIssue({ code: 'custom', path: ['configurations', i, ...path], message })
      if (t.configurations.findIndex((x) => x.id === c.id) < i) add(['id'], 'Two configurations have this id.')
      for (const [path, message] of configurationIssues(c, t.axes)) add(path, message)
    })
  })
export type RatingTable = z.infer<typeof ratingTable>

/** A configuration of a slewing machine: it says how the machine stands. */
export type StandingConfiguration = RatingConfiguration & {
  appliesTo: { standing: NonNullable<RatingConfiguration['appliesTo']['standing']> }
}
export const saysStanding = (c: RatingConfiguration): c is StandingConfiguration => c.appliesTo.standing !== undefined

/** Every figure over the columns of tables, once each and rising. */
export function columnFigures(tables: readonly RatingTable[]): number[] {
  const columns = tables.flatMap((t) => t.configurations.flatMap((c) => c.columns.map(Number)))
  return [...new Set(columns)].sort((a, b) => a - b)
}

/** Every figure in the rows of those tables that go by a quantity, once each and rising: where their reading changes. */
export function rowFigures(tables: readonly RatingTable[], quantity: AxisQuantity): number[] {
  const rows = tables
    .filter((t) => t.axes.row.quantity === quantity)
    .flatMap((t) => t.configurations.flatMap((c) => c.rows.map((r) => Number(r.at))))
  return [...new Set(rows)].sort((a, b) => a - b)
}
