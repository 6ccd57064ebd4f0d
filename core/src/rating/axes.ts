import { z } from 'zod'

/** How ratings must go as an axis rises; null: either way. */
const trend = z.enum(['falls', 'rises']).nullable()
export type Trend = z.infer<typeof trend>

/** What figures are; a name is no figure. */
export type AxisUnit = 'm' | '°' | 'count' | 'name'

/** What an axis can count, and in which unit. The field that carries it elsewhere has the same name. */
export const axisUnits = {
  radius_m: 'm',
  boom_m: 'm',
  angle_deg: '°',
  height_m: 'm',
  reach_m: 'm',
  liftHeight_m: 'm',
  loadCentre_m: 'm',
  extension_m: 'm',
  parts: 'count',
  slabs: 'count',
  hoist: 'name',
  part: 'name',
  per: 'name',
} as const satisfies Record<string, AxisUnit>
export type AxisQuantity = keyof typeof axisUnits

/**
 * How a value between two entries is read. `neighbours`: the worse of the two; before the first and beyond the last nothing is
 * rated. `up-to`: entries mean *up to*: the worse of the two, before the first the first counts, beyond the last nothing.
 * `holds`: the first entry that is not less. `listed`: only what is listed is rated.
 */
const axisReading = z.enum(['neighbours', 'up-to', 'holds', 'listed'])

const axis = z.strictObject({
  quantity: z.enum(Object.keys(axisUnits) as [AxisQuantity, ...AxisQuantity[]]),
  label: z.string().min(1),
  reading: axisReading,
  trend,
})
export type Axis = z.infer<typeof axis>

/** What the rows and columns of a table are. */
export const tableAxes = z.strictObject({ row: axis, column: axis })
export type TableAxes = z.infer<typeof tableAxes>

export const unitOfAxis = (a: Axis): AxisUnit => axisUnits[a.quantity]
/** “Radius and boom”. */
export const axesTitle = ({ row, column }: TableAxes): string => `${row.label} and ${column.label.toLowerCase()}`

/** Do these axes go by this row and column? */
export const goBy = ({ row, column }: TableAxes, rows: AxisQuantity, columns: AxisQuantity): boolean =>
  row.quantity === rows && column.quantity === columns

/** Rated by radius or by the boom's angle, a load hangs from a hook, and what hangs above it is taken off the rating. */
export const isHung = ({ row }: TableAxes): boolean => row.quantity === 'radius_m' || row.quantity === 'angle_deg'

/** Do two tables go by the same rows and columns? */
export const sameAxes = (a: TableAxes, b: TableAxes): boolean => goBy(a, b.row.quantity, b.column.quantity)

/** Two figures that are one: a listed step is set by hand, others are computed. */
const same = (a: number, b: number, reading: Axis['reading']) =>
  Math.abs(a - b) <= (reading === 'listed' ? 1e-6 : 1e-9 * Math.max(1, Math.abs(a), Math.abs(b)))

/**
 * Which of an axis's entries a value is read from: one, or the two that it stands between.
 *
 * @param count how many entries there are
 * @param entryAt the entry by its place; figures rise
 * @returns places of the entries; null where nothing is rated
 */
export function entriesFor(
  { reading }: Axis,
  count: number,
  entryAt: (i: number) => number | string,
  value: number | string,
): readonly [number] | readonly [number, number] | null {
  if (typeof value === 'string') {
    for (let i = 0; i < count; i++) if (entryAt(i) === value) return [i]
    return null
  }
  for (let i = 0; i < count; i++) {
    const entry = Number(entryAt(i))
    if (same(value, entry, reading)) return [i]
    if (value > entry) continue
    if (reading === 'listed') return null
    if (reading === 'holds') return [i]
    if (i > 0) return [i - 1, i]
    return reading === 'up-to' ? [0] : null
  }
  return null
}
