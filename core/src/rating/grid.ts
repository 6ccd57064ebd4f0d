import { Refusal } from '../refusal'
import type { RatingTable } from './table'

/** The table with one rating changed. @throws Refusal `unknown-cell`. */
export function withCell(
  t: RatingTable,
  at: { configuration: string; row: number; column: number },
  kg: number | null,
): RatingTable {
  const copy = structuredClone(t)
  const row = copy.configurations.find((x) => x.id === at.configuration)?.rows[at.row]
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
      t.configurations.flatMap((c) =>
        c.rows.flatMap((row) =>
          c.columns.map(
            (column, j) =>
              [
                `${c.id}|${row.at}|${column}`,
                { configuration: c.id, row: row.at, column, kg: row.ratings_kg[j] ?? null },
              ] as const,
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
