import { z } from 'zod'
import { finite, notNegative, positive } from '../quantity/measured'
import { stabilityRule } from '../statics/tipping-load'

const ratingBasis = z.enum(['structural', 'stability'])

const chartRow = z.strictObject({
  radius_m: positive,
  /** One rating per boom length, in their order; null where the maker rates nothing. */
  ratings_kg: z.array(notNegative.nullable()),
  basis: z.array(ratingBasis.nullable()).optional(),
})

/**
 * One column group of a rating table: a leg setting, a counterweight and a sector. It applies only where the actual
 * footprint is at least as wide as `footprint`, for the legs in `dependsOn` (all of them unless stated).
 */
const chartConfiguration = z
  .strictObject({
    id: z.string().min(1),
    label: z.string().min(1),
    /** Lattice cranes: rated with the derrick mast and its counterweight, or without. */
    derrick: z.boolean().optional(),
    /** Folding and trailer cranes: what is drawn out for each boom length (a powered stage, a pin position). */
    sections: z.array(z.string().min(1)).optional(),
    footprint: z.array(z.strictObject({ id: z.string(), x_m: finite, y_m: finite })).min(3),
    /** Legs fully extended: the condition for the 85 % rule. */
    fullyExtended: z.boolean(),
    counterweight_kg: notNegative,
    /** Anticlockwise from–to; omitted: the whole circle. */
    sector: z.strictObject({ from_deg: finite, to_deg: finite, dependsOn: z.array(z.string()).min(1).optional() }).optional(),
    boom_m: z.array(positive).min(1),
    rows: z.array(chartRow).min(1),
  })
  .superRefine((c, ctx) => {
    const ascending = (values: number[], path: (string | number)[], what: string) => {
      const at = values.findIndex((v, i) => i > 0 && v <= (values[i - 1] as number))
      if (at > 0) ctx.addIssue({ code: 'custom', path: [...path, at], message: `${what} must rise from each to the next.` })
    }
    ascending(c.boom_m, ['boom_m'], 'Boom lengths')
    ascending(
      c.rows.map((r) => r.radius_m),
      ['rows'],
      'Radii',
    )
    if (c.sections && c.sections.length !== c.boom_m.length) {
      ctx.addIssue({ code: 'custom', path: ['sections'], message: 'Name one section for each boom length.' })
    }
    c.rows.forEach((row, i) => {
      if (row.ratings_kg.length !== c.boom_m.length) {
        ctx.addIssue({
          code: 'custom',
          path: ['rows', i, 'ratings_kg'],
          message: `Row ${i + 1} has ${row.ratings_kg.length} ratings for ${c.boom_m.length} boom lengths; give one each, null where not rated.`,
        })
      }
    })
  })
export type ChartConfiguration = z.infer<typeof chartConfiguration>

/** What every table carries, whatever its shape: whose it is, from which document, who entered and who checked it. */
export const tableHead = {
  format: z.literal('geolabe.table/1'),
  id: z.string().min(1),
  machine: z.string().min(1),
  title: z.string().min(1),
  revision: z.int().min(1),
  enteredBy: z.string().min(1),
  document: z.string().min(1),
  checkedBy: z.string().min(1).nullable(),
}

/** @internal No two configurations with one id. */
export function distinctIds(t: { configurations: readonly { id: string }[] }, ctx: z.RefinementCtx) {
  const seen = new Set<string>()
  t.configurations.forEach((c, i) => {
    if (seen.has(c.id))
      ctx.addIssue({ code: 'custom', path: ['configurations', i, 'id'], message: 'Two configurations have this id.' })
    seen.add(c.id)
  })
}

/**
 * A rating table by boom length and radius, per leg setting, counterweight and sector. Three shapes of one kind:
 * `boom-radius` (telescopic), `lattice` (each configuration says whether the derrick mast is on), `radius-section` (each boom
 * length has the name of the section or pin position that gives it).
 */
export const boomTable = z
  .strictObject({
    ...tableHead,
    shape: z.enum(['boom-radius', 'lattice', 'radius-section']),
    /** Whether the maker allows straight-line reading between radii. */
    linearPermitted: z.boolean(),
    stabilityRule: stabilityRule,
    /** Wind the ratings hold in, and the load area they assume; without it a load with sail cannot be proven. */
    wind: z.strictObject({ limit_mps: positive, referenceArea_m2_per_t: positive }).nullable(),
    /** Greatest tilt the ratings allow, degrees. */
    level_deg: positive,
    configurations: z.array(chartConfiguration).min(1),
  })
  .superRefine(distinctIds)
  .superRefine((t, ctx) => {
    const needs = { 'boom-radius': null, lattice: 'derrick', 'radius-section': 'sections' } as const
    const field = needs[t.shape]
    t.configurations.forEach((c, i) => {
      if (field && c[field] === undefined)
        ctx.addIssue({ code: 'custom', path: ['configurations', i, field], message: `A ${t.shape} table needs ${field}.` })
    })
  })
export type BoomTable = z.infer<typeof boomTable>
