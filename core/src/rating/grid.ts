import { Refusal } from '../refusal'
import type { RatingTable, TableShape } from './rating-table'

/** How ratings must go as an axis rises; null: either way. */
export type Trend = 'falls' | 'rises' | null

interface Axis {
  field: string
  label: string
  /** What the figures are; a name is no figure. */
  unit: 'm' | '°' | 'count' | 'name'
  trend: Trend
}

/** Every shape is ratings over two axes. What the axes are, and which way ratings go along them, is data. */
export const tableAxes: Record<TableShape, { label: string; row: Axis; column: Axis }> = {
  'boom-radius': shape('Boom length and radius', ['radius_m', 'Radius', 'm', 'falls'], ['boom_m', 'Boom', 'm', null]),
  lattice: shape('Lattice boom and radius', ['radius_m', 'Radius', 'm', 'falls'], ['boom_m', 'Boom', 'm', null]),
  'radius-section': shape('Radius and section drawn', ['radius_m', 'Radius', 'm', 'falls'], ['boom_m', 'Drawn to', 'm', null]),
  'radius-reeving': shape('Radius and parts of line', ['radius_m', 'Radius', 'm', 'falls'], ['parts', 'Parts', 'count', 'rises']),
  'angle-stage': shape('Boom angle and stages', ['angle_deg', 'Angle', '°', 'rises'], ['boom_m', 'Boom', 'm', 'falls']),
  'height-reach': shape('Height and reach', ['height_m', 'Height', 'm', 'falls'], ['reach_m', 'Reach', 'm', 'falls']),
  plate: shape('Rating plate', ['liftHeight_m', 'Lift height', 'm', 'falls'], ['loadCentre_m', 'Load centre', 'm', 'falls']),
  'slabs-extension': shape('Counterweight', ['extension_m', 'Extension', 'm', 'rises'], ['slabs', 'Slabs', 'count', 'rises']),
  'height-stage': shape('Height stage', ['height_m', 'Up to', 'm', 'falls'], ['per', 'Per', 'name', null]),
  hoists: shape('Each hoist and all', ['hoist', 'Hoist', 'name', null], ['per', 'Per', 'name', null]),
  'tool-reach': shape('Tool and reach', ['reach_m', 'Reach', 'm', 'falls'], ['per', 'Per', 'name', null]),
  marks: shape('Marks', ['part', 'Marked on', 'name', null], ['per', 'Per', 'name', null]),
}

type AxisRow = [field: string, label: string, unit: Axis['unit'], trend: Trend]
function shape(label: string, [rf, rl, ru, rt]: AxisRow, [cf, cl, cu, ct]: AxisRow) {
  return {
    label,
    row: { field: rf, label: rl, unit: ru, trend: rt },
    column: { field: cf, label: cl, unit: cu, trend: ct },
  }
}

export interface Grid {
  /** Configuration. */
  id: string
  label: string
  rows: readonly (number | string)[]
  columns: readonly (number | string)[]
  /** Said over each column where it has a name besides its figure. */
  columnNames: readonly string[] | null
  /** Row by row, kg; null where nothing is rated. */
  cells: readonly (readonly (number | null)[])[]
}

type AnyConfiguration = { id: string; label: string; sections?: string[]; rows: { ratings_kg: (number | null)[] }[] } & Record<
  string,
  unknown
>

/** A table as plain grids, one a configuration: what is drawn, edited, compared and checked. */
export function gridsOf(t: RatingTable): Grid[] {
  const { row, column } = tableAxes[t.shape]
  return (t.configurations as unknown as AnyConfiguration[]).map((c) => ({
    id: c.id,
    label: c.label,
    rows: c.rows.map((r) => (r as unknown as Record<string, number | string>)[row.field] as number | string),
    columns: c[column.field] as (number | string)[],
    columnNames: c.sections ?? null,
    cells: c.rows.map((r) => r.ratings_kg),
  }))
}

/** The table with one rating changed. @throws Refusal `unknown-cell`. */
export function withCell(
  t: RatingTable,
  at: { configuration: string; row: number; column: number },
  kg: number | null,
): RatingTable {
  const copy = structuredClone(t)
  const c = (copy.configurations as unknown as AnyConfiguration[]).find((x) => x.id === at.configuration)
  const row = c?.rows[at.row]
  if (!row || at.column < 0 || at.column >= row.ratings_kg.length) {
    throw new Refusal('unknown-cell', 'This table has no such cell.', 'at')
  }
  row.ratings_kg[at.column] = kg
  return copy
}

export interface CellChange {
  configuration: string
  row: number | string
  column: number | string
  from_kg: number | null
  to_kg: number | null
}

/** What changed between two revisions of a table, cell by cell; a cell that one of them lacks counts as not rated. */
export function changesBetween(before: RatingTable, after: RatingTable): CellChange[] {
  const cellsOf = (t: RatingTable) =>
    new Map(
      gridsOf(t).flatMap((g) =>
        g.rows.flatMap((row, i) =>
          g.columns.map(
            (column, j) =>
              [`${g.id}|${row}|${column}`, { configuration: g.id, row, column, kg: g.cells[i]?.[j] ?? null }] as const,
          ),
        ),
      ),
    )
  const [a, b] = [cellsOf(before), cellsOf(after)]
  return [...new Set([...a.keys(), ...b.keys()])].flatMap((key) => {
    const [was, now] = [a.get(key), b.get(key)]
    const at = now ?? was
    if (!at || (was?.kg ?? null) === (now?.kg ?? null)) return []
    return [{ configuration: at.configuration, row: at.row, column: at.column, from_kg: was?.kg ?? null, to_kg: now?.kg ?? null }]
  })
}
