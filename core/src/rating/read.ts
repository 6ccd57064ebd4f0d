import { z } from 'zod'
import { inSector } from '../plane/sector'
import { Refusal } from '../refusal'
import { entriesFor, type TableAxes } from './axes'
import type { RatingConfiguration, RatingTable } from './table'

export const readingRule = z.enum(['worse-row', 'linear'])
export type ReadingRule = z.infer<typeof readingRule>

export const ratingBasisRead = z.enum(['structural', 'stability', 'unknown'])
export type Basis = z.infer<typeof ratingBasisRead>

const entry = z.union([z.number(), z.string()])
/** A cell that a figure was read from: its row and column by their own figures. */
export const readCell = z.object({ row: entry, column: entry, rating_kg: z.number().nullable() })
export type ReadCell = z.infer<typeof readCell>

export interface GrossReading {
  gross_kg: number | 'not-rated'
  basis: Basis
  /** The cells the figure was read from. */
  cells: ReadCell[]
}

/** As much of a table as reading it needs. */
export type Readable = Pick<RatingConfiguration, 'rows' | 'columns'>

function readColumn(c: Readable, column: number, at: readonly number[], row: number, rule: ReadingRule, cells: ReadCell[]) {
  let least: { kg: number; basis: Basis; at: number } | null = null
  let other: { kg: number; at: number } | null = null
  let open = false
  for (const i of at) {
    const r = c.rows[i]
    const kg = r?.ratings_kg[column] ?? null
    if (!r) continue
    cells.push({ row: r.at, column: c.columns[column] ?? '', rating_kg: kg })
    if (kg === null) open = true
    else if (least === null || kg < least.kg) {
      if (least) other = least
      least = { kg, basis: r.basis?.[column] ?? 'unknown', at: Number(r.at) }
    } else other = { kg, at: Number(r.at) }
  }
  if (open || least === null) return null
  if (rule === 'worse-row' || other === null) return least
  const share = (row - least.at) / (other.at - least.at)
  return { ...least, kg: least.kg + share * (other.kg - least.kg) }
}

/**
 * The rating of a configuration at a row and a column, each read as its axis says; the least of all cells that are read. A
 * configuration is read as it stands: who reads one by sectors asks `ratedAtSlew` as well.
 *
 * @param row what the row axis counts, in its unit
 * @param rule `linear` reads a straight line between two rows instead of the worse; whether it may is the table's to say
 * @example ratingAt(table.axes, table.configurations[0], 9, 19.4, 'worse-row') // { gross_kg: 4900, … }
 */
export function ratingAt(
  axes: TableAxes,
  c: Readable,
  row: number | string,
  column: number | string,
  rule: ReadingRule,
): GrossReading {
  const cells: ReadCell[] = []
  const none: GrossReading = { gross_kg: 'not-rated', basis: 'unknown', cells }
  const columns = entriesFor(axes.column, c.columns.length, (j) => c.columns[j] ?? Number.NaN, column)
  const rows = entriesFor(axes.row, c.rows.length, (i) => c.rows[i]?.at ?? Number.NaN, row)
  let least: { kg: number; basis: Basis } | null = null
  let open = false
  for (const j of columns ?? []) {
    const found = readColumn(c, j, rows ?? [], Number(row), rule, cells)
    if (found === null) open = true
    else if (least === null || found.kg < least.kg) least = found
  }
  return open || least === null ? none : { gross_kg: least.kg, basis: least.basis, cells }
}

/**
 * Does a configuration rate anything over this slew?
 *
 * @throws Refusal `missing-field` where it holds only in part of the circle and no slew is given
 */
export function ratedAtSlew({ appliesTo }: RatingConfiguration, slew_deg: number | undefined): boolean {
  const shut = appliesTo.forbidden ?? []
  if (appliesTo.sector === undefined && shut.length === 0) return true
  if (slew_deg === undefined) {
    throw new Refusal('missing-field', 'This rating holds only in part of the circle; give slew_deg.', 'slew_deg')
  }
  return inSector(appliesTo, slew_deg) && !shut.some((sector) => inSector({ sector }, slew_deg))
}

/** @throws Refusal `unknown-configuration` naming those there are */
export function configurationNamed(t: RatingTable, id: string): RatingConfiguration {
  const c = t.configurations.find((x) => x.id === id)
  if (c) return c
  const known = t.configurations.map((x) => x.id).join(', ')
  throw new Refusal('unknown-configuration', `This table has no such configuration; it has: ${known}.`, 'configuration')
}

/** @throws Refusal `linear-not-permitted` where a straight line is asked for and the table does not allow one */
export function permitRule(t: RatingTable, rule: ReadingRule): void {
  if (rule === 'linear' && !t.linearPermitted)
    throw new Refusal('linear-not-permitted', 'This table does not allow reading between rows in a straight line.', 'rule')
}
