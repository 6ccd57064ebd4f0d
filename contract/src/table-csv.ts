import { type Axis, parseOrRefuse, type RatingTable, Refusal, ratingTable, unitOfAxis } from '@geolabe/core'
import Papa from 'papaparse'
import { fileFigure } from './figures'

/**
 * A table’s ratings for a spreadsheet: one row a row of each configuration, one column a column of the table, empty where
 * nothing is rated. Columns that only some configurations have stay empty in the others.
 */
export function tableToCsv(t: RatingTable): string {
  const { configurations, axes } = t
  const columns = [...new Set(configurations.flatMap((c) => c.columns))].sort((a, b) =>
    typeof a === 'number' && typeof b === 'number' ? a - b : 0,
  )
  const lines = configurations.flatMap((c) =>
    c.rows.map((row) => [c.id, row.at, ...columns.map((v) => row.ratings_kg[c.columns.indexOf(v)] ?? '')]),
  )
  return Papa.unparse([['configuration', axes.row.quantity, ...columns], ...lines], { newline: '\n' })
}

const wrong = (line: number, column: string, message: string) =>
  new Refusal('bad-csv', `Line ${line}, column “${column}”: ${message}`, `${line}.${column}`)

/** A figure of a cell. @throws Refusal naming line and column */
function figureAt(text: string, line: number, column: string): number {
  try {
    return fileFigure(text)
  } catch (e) {
    throw wrong(line, column, (e as Error).message)
  }
}

/**
 * Ratings from a spreadsheet into a table that says what they mean: its configurations, columns and everything else stay, its
 * rows are those of the file. All or nothing.
 *
 * @throws Refusal `bad-csv` naming line and column; and what the table’s own schema refuses.
 */
export function csvToTable(csv: string, into: RatingTable): RatingTable {
  const { row, column } = into.axes
  const parsed = Papa.parse<string[]>(csv.replace(/^\uFEFF/, ''), { skipEmptyLines: 'greedy' })
  const fault = parsed.errors.find((e) => e.type !== 'Delimiter')
  if (fault) throw wrong((fault.row ?? 0) + 1, '', fault.message)
  const [top, ...lines] = parsed.data
  if (top?.[0]?.trim() !== 'configuration') throw wrong(1, '1', 'The first column has to be “configuration”.')
  if (top[1]?.trim() !== row.quantity) throw wrong(1, '2', `The second column has to be “${row.quantity}”.`)
  const entry = (axis: Axis, text: string, line: number, at: string) =>
    unitOfAxis(axis) === 'name' ? text.trim() : figureAt(text, line, at)
  const columns = top.slice(2).map((c, j) => entry(column, c, 1, String(j + 3)))
  const copy = structuredClone(into)
  for (const c of copy.configurations) {
    const own = c.columns
    const missing = own.find((v) => !columns.includes(v))
    if (missing !== undefined)
      throw wrong(1, String(missing), `Configuration “${c.id}” has a column ${missing}, which the file lacks.`)
    c.rows = lines.flatMap((cells, i) => {
      const line = i + 2
      if (cells[0]?.trim() !== c.id) return []
      const head = cells[1]?.trim() ?? ''
      const at = entry(row, head, line, row.quantity)
      if (head === '') throw wrong(line, row.quantity, 'Give the row’s own figure.')
      const ratings_kg = own.map((v) => {
        const text = cells[columns.indexOf(v) + 2]?.trim() ?? ''
        if (text === '') return null
        const kg = figureAt(text, line, String(v))
        if (kg < 0) throw wrong(line, String(v), 'A rating is never negative; leave it empty where nothing is rated.')
        return kg
      })
      return [{ at, ratings_kg }]
    })
    if (c.rows.length === 0) throw wrong(2, 'configuration', `The file has no row for configuration “${c.id}”.`)
  }
  const known = new Set(into.configurations.map((c) => c.id))
  lines.forEach((cells, i) => {
    if (!known.has(cells[0]?.trim() ?? ''))
      throw wrong(
        i + 2,
        'configuration',
        `“${cells[0] ?? ''}” is no configuration of this table; it has: ${[...known].join(', ')}.`,
      )
  })
  return parseOrRefuse(ratingTable, copy)
}
