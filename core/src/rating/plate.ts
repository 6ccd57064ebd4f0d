import type { PlateField, PlateValue } from '../machine/plate'
import type { RatingTable } from './table'

/**
 * What a field of the plate must read by the tables in use.
 * @returns kg, m or V; null where nothing gives it
 */
export function expectedOnPlate(field: PlateField, tables: readonly RatingTable[]): number | null {
  if (field.expected !== undefined) return field.expected
  const { cell } = field
  if (!cell) return null
  for (const c of tables.flatMap((t) => t.configurations)) {
    if (c.id !== cell.configuration) continue
    const row = c.rows.find((r) => r.at === cell.row)
    const j = c.columns.indexOf(cell.column)
    if (row && j >= 0) return row.ratings_kg[j] ?? null
  }
  return null
}

const plain = (s: string) => s.replace(/\s+/g, ' ').trim().toLowerCase()
/** Figures that are one figure: the plate and the table are both written to the kilogram, centimetre or volt. */
const same = (a: number, b: number) => Math.abs(a - b) <= 1e-6 * Math.max(1, Math.abs(a), Math.abs(b))

export type PlateFault =
  | { kind: 'missing'; field: PlateField }
  | { kind: 'no-figure'; field: PlateField }
  | { kind: 'changed'; field: PlateField; was: PlateValue; now: PlateValue }
  | { kind: 'other-table'; field: PlateField; expected: number; now: number }

/**
 * The first thing that is wrong with a plate as it reads now: something missing at the first entry, something that reads
 * otherwise than it was entered, a figure that the table in use does not give. A plate that differs from the table means that
 * one of them belongs to another machine: either way nothing is lifted by it.
 *
 * @param known as it was entered; null: not yet
 * @param given as it reads now; fields left out were not read
 */
export function plateFault(
  fields: readonly PlateField[],
  known: Readonly<Record<string, PlateValue>> | null,
  given: Readonly<Record<string, PlateValue>> | null,
  tables: readonly RatingTable[],
): PlateFault | null {
  for (const field of fields) {
    const was = known?.[field.id]
    const now = given?.[field.id]
    const empty = now === undefined || (typeof now === 'string' && now.trim() === '')
    if (empty && known === null) return { kind: 'missing', field }
    const reads = empty ? was : now
    if (reads === undefined) continue
    if (field.quantity === undefined) {
      if (!empty && was !== undefined && plain(String(now)) !== plain(String(was))) return { kind: 'changed', field, was, now }
      continue
    }
    const figure = Number(reads)
    if (!Number.isFinite(figure) || String(reads).trim() === '') return { kind: 'no-figure', field }
    if (!empty && was !== undefined && !same(Number(was), figure)) return { kind: 'changed', field, was, now }
    const expected = expectedOnPlate(field, tables)
    if (expected !== null && !same(expected, figure)) return { kind: 'other-table', field, expected, now: figure }
  }
  return null
}
