import { z } from 'zod'
import { finite, notNegative, positive } from '../quantity/measured'
import { boomTable, distinctIds, tableHead } from './table'

const ratings = z.array(notNegative.nullable()).min(1)
const head = { id: z.string().min(1), label: z.string().min(1) }
const foot = z.array(z.strictObject({ id: z.string(), x_m: finite, y_m: finite })).min(3)

type Rows = { ratings_kg: (number | null)[] }[]

/** Rows as long as there are columns, and both axes rising. */
function grid(rowField: string, columnField: string) {
  return (c: object, ctx: z.RefinementCtx) => {
    const values = c as Record<string, unknown>
    const rows = values.rows as Rows
    const columns = values[columnField] as unknown[]
    const falls = (list: unknown[]) => list.findIndex((v, i) => typeof v === 'number' && i > 0 && v <= (list[i - 1] as number))
    const at = falls(columns)
    if (at > 0) ctx.addIssue({ code: 'custom', path: [columnField, at], message: 'Columns must rise from each to the next.' })
    const row = falls(rows.map((r) => (r as unknown as Record<string, unknown>)[rowField]))
    if (row > 0) ctx.addIssue({ code: 'custom', path: ['rows', row, rowField], message: 'Rows must rise from each to the next.' })
    rows.forEach((r, i) => {
      if (r.ratings_kg.length !== columns.length) {
        ctx.addIssue({
          code: 'custom',
          path: ['rows', i, 'ratings_kg'],
          message: `Row ${i + 1} has ${r.ratings_kg.length} ratings for ${columns.length} columns; give one each, null where not rated.`,
        })
      }
    })
  }
}

/** Tower crane: rating by radius and parts of line, a configuration a jib. */
export const towerTable = z
  .strictObject({
    ...tableHead,
    shape: z.literal('radius-reeving'),
    linearPermitted: z.boolean(),
    configurations: z
      .array(
        z
          .strictObject({
            ...head,
            jib_m: positive,
            parts: z.array(z.int().min(1)).min(1),
            rows: z.array(z.strictObject({ radius_m: positive, ratings_kg: ratings })).min(1),
          })
          .superRefine(grid('radius_m', 'parts')),
      )
      .min(1),
  })
  .superRefine(distinctIds)

/** Mini crawler: rating by boom angle and stages drawn, per leg position; sectors it may not work in. */
export const angleTable = z
  .strictObject({
    ...tableHead,
    shape: z.literal('angle-stage'),
    linearPermitted: z.boolean(),
    configurations: z
      .array(
        z
          .strictObject({
            ...head,
            footprint: foot,
            counterweight_kg: notNegative,
            forbidden: z.array(z.strictObject({ from_deg: finite, to_deg: finite })),
            boom_m: z.array(positive).min(1),
            rows: z.array(z.strictObject({ angle_deg: finite, ratings_kg: ratings })).min(1),
          })
          .superRefine(grid('angle_deg', 'boom_m')),
      )
      .min(1),
  })
  .superRefine(distinctIds)

/** Telehandlers: rating by height and reach, per attachment and state of the stabilisers. */
export const reachTable = z
  .strictObject({
    ...tableHead,
    shape: z.literal('height-reach'),
    linearPermitted: z.boolean(),
    configurations: z
      .array(
        z
          .strictObject({
            ...head,
            attachment: z.string().min(1),
            stabilisers: z.enum(['up', 'down', 'none']),
            /** From where reach is counted to the edge it would tip over, metres ahead. */
            edgeAhead_m: finite,
            sector: z.strictObject({ from_deg: finite, to_deg: finite }).optional(),
            reach_m: z.array(positive).min(1),
            rows: z.array(z.strictObject({ height_m: notNegative, ratings_kg: ratings })).min(1),
          })
          .superRefine(grid('height_m', 'reach_m')),
      )
      .min(1),
  })
  .superRefine(distinctIds)

/** A forklift's or order picker's plate: rating by lift height and load centre, per attachment and tilt of the mast. */
export const plateTable = z
  .strictObject({
    ...tableHead,
    shape: z.literal('plate'),
    battery: z.strictObject({ min_kg: positive, max_kg: positive, voltage_V: positive }).optional(),
    configurations: z
      .array(
        z
          .strictObject({
            ...head,
            mast: z.enum(['vertical', 'forward']),
            attachment: z.string().min(1).optional(),
            loadCentre_m: z.array(positive).min(1),
            rows: z.array(z.strictObject({ liftHeight_m: positive, ratings_kg: ratings })).min(1),
          })
          .superRefine(grid('liftHeight_m', 'loadCentre_m')),
      )
      .min(1),
  })
  .superRefine(distinctIds)

/** Heavy forklift with a sliding counterweight: listed extensions and slabs only, per tool and load centre. */
export const counterweightTable = z
  .strictObject({
    ...tableHead,
    shape: z.literal('slabs-extension'),
    configurations: z
      .array(
        z
          .strictObject({
            ...head,
            tool: z.enum(['forks', 'boom', 'both']),
            loadCentre_m: positive,
            slabs: z.array(z.int().min(0)).min(1),
            rows: z.array(z.strictObject({ extension_m: notNegative, ratings_kg: ratings })).min(1),
          })
          .superRefine(grid('extension_m', 'slabs')),
      )
      .min(1),
  })
  .superRefine(distinctIds)

/** Hydraulic gantry: rating of one tower by height stage. */
export const heightTable = z
  .strictObject({
    ...tableHead,
    shape: z.literal('height-stage'),
    towers: z.int().min(2).max(16),
    configurations: z
      .array(
        z
          .strictObject({
            ...head,
            /** How far the load may stand to one side of the track's middle. */
            sideShift_m: notNegative,
            per: z.array(z.enum(['tower'])).length(1),
            rows: z.array(z.strictObject({ height_m: positive, ratings_kg: ratings })).min(1),
          })
          .superRefine(grid('height_m', 'per')),
      )
      .min(1),
  })
  .superRefine(distinctIds)

/** Straddle hoist: rating of each hoist, and of all together. */
export const hoistsTable = z
  .strictObject({
    ...tableHead,
    shape: z.literal('hoists'),
    configurations: z
      .array(
        z
          .strictObject({
            ...head,
            per: z.array(z.enum(['hoist'])).length(1),
            rows: z.array(z.strictObject({ hoist: z.string().min(1), ratings_kg: ratings })).min(2),
          })
          .superRefine(grid('hoist', 'per')),
      )
      .min(1),
  })
  .superRefine(distinctIds)

/** Tyre handler: rating by reach, a configuration a tool. */
export const toolTable = z
  .strictObject({
    ...tableHead,
    shape: z.literal('tool-reach'),
    configurations: z
      .array(
        z
          .strictObject({
            ...head,
            tool: z.string().min(1),
            tool_kg: notNegative,
            per: z.array(z.enum(['tool'])).length(1),
            rows: z.array(z.strictObject({ reach_m: positive, ratings_kg: ratings })).min(1),
          })
          .superRefine(grid('reach_m', 'per')),
      )
      .min(1),
  })
  .superRefine(distinctIds)

/** Chain hoist on a runway: what is marked on hoist, trolley, beam and hook. The least governs. */
export const marksTable = z
  .strictObject({
    ...tableHead,
    shape: z.literal('marks'),
    configurations: z
      .array(
        z
          .strictObject({
            ...head,
            per: z.array(z.enum(['mark'])).length(1),
            rows: z.array(z.strictObject({ part: z.enum(['hoist', 'trolley', 'beam', 'hook']), ratings_kg: ratings })).min(4),
          })
          .superRefine(grid('part', 'per')),
      )
      .length(1),
  })
  .superRefine(distinctIds)

/** A rating table or plate in any of the shapes that the kinds of machine need. */
export const ratingTable = z.discriminatedUnion('shape', [
  boomTable,
  towerTable,
  angleTable,
  reachTable,
  plateTable,
  counterweightTable,
  heightTable,
  hoistsTable,
  toolTable,
  marksTable,
])
export type RatingTable = z.infer<typeof ratingTable>
export type TableShape = RatingTable['shape']

export function isBoomTable(t: RatingTable): t is z.infer<typeof boomTable> {
  return t.shape === 'boom-radius' || t.shape === 'lattice' || t.shape === 'radius-section'
}
