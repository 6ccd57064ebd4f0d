import { randomFrom } from '../practice/random'
import { type Axis, entriesFor, isHung } from '../rating/axes'
import { ratingAt } from '../rating/read'
import type { RatingConfiguration, RatingTable } from '../rating/table'
import { type Random, shuffled } from './lots'

/** What can be wrong with a figure that somebody read from a table. */
export const misreadings = ['wrong-sheet', 'wrong-row', 'wrong-column', 'between-rows', 'headline', 'deductions'] as const
export type Misreading = (typeof misreadings)[number]

/** Somebody read a table for a machine as it stands, and says what may be lifted: what is wrong with it? */
export interface TableItem {
  of: 'table'
  table: string
  configuration: string
  row: number | string
  column: number | string
  /** What hangs above the load, kg. */
  taken: readonly { what: Above; mass_kg: number }[]
  /** What they say may be lifted, kg. */
  said_kg: number
  /** What may be lifted, kg. */
  right_kg: number
  wrong: Misreading | 'nothing'
}

/** What hangs above a load. */
export const above = ['hook-block', 'slings', 'spreader'] as const
export type Above = (typeof above)[number]

/** Figures closer than this share are one figure to a reader. */
const apart_share = 0.02
/** So many cells at most are looked at for one item, however large the tables; and to see whether a mistake can be made at all. */
const [most_cells, most_seen] = [2000, 200]

type Entry = number | string
/** What was read with a mistake, or with none. */
type Reading = Misreading | 'nothing'
const isApart = (a: number, b: number) => Math.abs(a - b) > apart_share * Math.max(a, b)

interface Question {
  table: RatingTable
  c: RatingConfiguration
  row: Entry
  column: Entry
  taken: TableItem['taken']
}

/** The greatest figure of a sheet, kg. */
const greatestOf = (c: RatingConfiguration) => Math.max(...c.rows.flatMap((r) => r.ratings_kg.map((kg) => kg ?? 0)))

/** What is read there, kg, by each mistake and by none; a mistake can read several figures. */
function readings({ table, c, row, column, taken }: Question): Record<Reading, () => number[]> {
  const { axes } = table
  const taken_kg = taken.reduce((sum, t) => sum + t.mass_kg, 0)
  const read = (of: RatingConfiguration, r: Entry, k: Entry) => ratingAt(axes, of, r, k, 'worse-row').gross_kg
  const less = (of: readonly (number | 'not-rated' | null)[]) =>
    of.flatMap((kg) => (typeof kg === 'number' ? [Math.round(kg - taken_kg)] : []))
  const between = () => {
    if (typeof row !== 'number') return []
    const [one, other] = (entriesFor(axes.row, c.rows.length, (i) => c.rows[i]?.at ?? Number.NaN, row) ?? []).map((i) =>
      Number(c.rows[i]?.at),
    )
    if (one === undefined || other === undefined) return []
    const [a, b] = [read(c, one, column), read(c, other, column)]
    return a === 'not-rated' || b === 'not-rated' ? [] : [a + ((b - a) * (row - one)) / (other - one)]
  }
  return {
    nothing: () => less([read(c, row, column)]),
    'wrong-sheet': () => less(table.configurations.filter((x) => x !== c).map((x) => read(x, row, column))),
    'wrong-row': () => less(c.rows.map((r) => read(c, r.at, column))),
    'wrong-column': () => less(c.columns.map((k) => read(c, row, k))),
    'between-rows': () => less(between()),
    headline: () => less([greatestOf(c)]),
    deductions: () => (taken_kg > 0 ? less([read(c, row, column)]).map((kg) => kg + taken_kg) : []),
  }
}

/** What hangs above a load in one item, as heavy as goes with what the sheet rates at most. */
function takenFrom(random: Random, c: RatingConfiguration): TableItem['taken'] {
  const fine_kg = greatestOf(c) / 1200
  const step_kg = fine_kg < 10 ? Math.max(1, Math.round(fine_kg)) : 10 * Math.round(fine_kg / 10)
  const steps: Record<Above, [least: number, more: number]> = { 'hook-block': [6, 8], slings: [1, 4], spreader: [4, 10] }
  return above.slice(0, 1 + Math.floor(random() * above.length)).map((what) => {
    const [least, more] = steps[what]
    return { what, mass_kg: step_kg * (least + Math.floor(random() * more)) }
  })
}

/** A cell of a table, and the gaps behind it. */
export interface Cell {
  table: RatingTable
  c: RatingConfiguration
  i: number
  j: number
}

export const cellsOf = (tables: readonly RatingTable[]): Cell[] =>
  tables.flatMap((table) =>
    table.configurations.flatMap((c) => c.rows.flatMap((_, i) => c.columns.map((_, j): Cell => ({ table, c, i, j })))),
  )

/** A place on an axis: between two entries where the axis is read so, else on one of them. */
function placeOn(random: Random, axis: Axis, from: Entry, to: Entry | undefined): Entry {
  if (axis.reading === 'listed' || typeof from !== 'number' || typeof to !== 'number') return from
  const at = from + (0.25 + 0.5 * random()) * (to - from)
  return Number(at.toFixed(to - from < 0.5 ? 2 : 1))
}

function questionAt(random: Random, { table, c, i, j }: Cell): Question | null {
  const { axes } = table
  const [row, column] = [c.rows[i]?.at, c.columns[j]]
  if (row === undefined || column === undefined) return null
  return {
    table,
    c,
    row: placeOn(random, axes.row, row, c.rows[i + 1]?.at),
    column: placeOn(random, axes.column, column, c.columns[j + 1]),
    taken: isHung(axes) ? takenFrom(random, c) : [],
  }
}

/**
 * A bold figure that only this mistake reads there: what another reads too, or what is no more than is right, tells nobody what went wrong. The
 * boldest at level 0, the one nearest to what is right at 1.
 */
function misread(read: Record<Reading, () => number[]>, truth: number, wrong: Misreading, level: number): number | null {
  const bold = read[wrong]().filter((kg) => kg > truth && isApart(kg, truth))
  if (bold.length === 0) return null
  const others = misreadings.flatMap((m) => (m === wrong ? [] : read[m]()))
  const told = bold.filter((kg) => others.every((o) => isApart(o, kg))).sort((a, b) => b - a)
  return told[Math.min(told.length - 1, Math.floor(level * told.length))] ?? null
}

/** An item of one mistake, or where one could have made it and nothing is wrong; null: no cell of the tables offers it. */
export function tableItem(
  random: Random,
  cells: readonly Cell[],
  { wrong, level, right }: { wrong: Misreading; level: number; right: boolean },
): TableItem | null {
  for (const cell of shuffled(random, cells).slice(0, most_cells)) {
    const q = questionAt(random, cell)
    const read = q && readings(q)
    const truth = read?.nothing()[0]
    if (!q || !read || truth === undefined || truth <= 0) continue
    // Where a straight line is allowed, who reads one makes no mistake.
    const kg = wrong === 'between-rows' && cell.table.linearPermitted ? null : misread(read, truth, wrong, level)
    if (kg === null) continue
    const { table, c, row, column, taken } = q
    const said = right ? { said_kg: truth, wrong: 'nothing' as const } : { said_kg: kg, wrong }
    return { of: 'table', table: table.id, configuration: c.id, row, column, taken, right_kg: truth, ...said }
  }
  return null
}

/** Which mistakes the tables of a machine can be misread by. */
export function misreadingsOf(tables: readonly RatingTable[]): Misreading[] {
  const cells = shuffled(randomFrom(0, 'cells'), cellsOf(tables)).slice(0, most_seen)
  return misreadings.filter((m) => tableItem(randomFrom(0, m), cells, { wrong: m, level: 0, right: false }) !== null)
}
