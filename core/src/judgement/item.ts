import { randomFrom } from '../practice/random'
import { ratingAt } from '../rating/read'
import type { RatingConfiguration, RatingTable } from '../rating/table'
import { Refusal } from '../refusal'

/** What can be wrong with a figure that somebody read from a table. */
export const misreadings = ['nothing', 'wrong-sheet', 'wrong-row', 'between-rows', 'headline', 'deductions'] as const
export type Misreading = (typeof misreadings)[number]

/** Somebody read a table for a machine as it stands, and says what may hang: what is wrong with it? */
export interface Item {
  table: string
  configuration: string
  row: number
  column: number | string
  /** What hangs above the load, kg. */
  taken: readonly { name: string; mass_kg: number }[]
  /** What they say may be slung, kg. */
  said_kg: number
  /** What may be slung, kg. */
  right_kg: number
  wrong: Misreading
}

/** Figures closer than this share are one figure to a reader. */
const apart_share = 0.02
const most_tries = 400
/** At least so much of what is shown together is in order, and is not. */
const least_share = 0.3

/** The rows around a place that stands between two of them; null at their ends. */
function around(c: RatingConfiguration, row: number): [number, number] | null {
  const at = c.rows.map((r) => Number(r.at))
  const next = at.findIndex((a) => a > row)
  const [before, after] = [at[next - 1], at[next]]
  return next > 0 && before !== undefined && after !== undefined && before < row ? [before, after] : null
}

const figure = (x: number | 'not-rated') => (x === 'not-rated' ? null : x)

interface Question {
  table: RatingTable
  c: RatingConfiguration
  row: number
  column: number | string
  taken_kg: number
}

/** What each mistake reads there, kg; null: it comes to nothing. */
function readings({ table, c, row, column, taken_kg }: Question): Record<Misreading, number | null> {
  const { axes } = table
  const read = (of: RatingConfiguration, at: number) => figure(ratingAt(axes, of, at, column, 'worse-row').gross_kg)
  const less = (kg: number | null) => (kg === null ? null : Math.round(kg - taken_kg))
  const rows = around(c, row)
  const gross = read(c, row)
  const [one, other] = [rows && read(c, rows[0]), rows && read(c, rows[1])]
  const line = rows && one != null && other != null ? one + ((other - one) * (row - rows[0])) / (rows[1] - rows[0]) : null
  const sheets = table.configurations.filter((x) => x !== c).map((x) => read(x, row))
  const greatest = c.rows.flatMap((r) => r.ratings_kg.flatMap((kg) => (kg === null ? [] : [kg])))
  const best = (of: readonly (number | null | undefined)[]) => {
    const there = of.filter((x): x is number => x != null)
    return there.length > 0 ? Math.max(...there) : null
  }
  return {
    nothing: less(gross),
    'wrong-row': less(best([one, other])),
    'between-rows': table.linearPermitted ? null : less(line),
    'wrong-sheet': less(best(sheets)),
    headline: less(best(greatest)),
    deductions: gross === null ? null : Math.round(gross),
  }
}

const pick = <T>(random: () => number, of: readonly T[]): T | undefined => of[Math.floor(random() * of.length)]

const isApart = (a: number, b: number) => Math.abs(a - b) > apart_share * Math.max(a, b)

/** A place on a table that stands between two of its rows. */
function question(random: () => number, table: RatingTable, named: readonly string[]): Question | null {
  const c = pick(random, table.configurations)
  const row = c && Math.floor(random() * (c.rows.length - 1))
  const [from, to] = [c?.rows[row ?? 0]?.at, c?.rows[(row ?? 0) + 1]?.at]
  const column = c && pick(random, c.columns)
  if (!c || column === undefined || typeof from !== 'number' || typeof to !== 'number') return null
  const at = Math.round(10 * (from + (0.25 + 0.5 * random()) * (to - from))) / 10
  const taken_kg = named.length * (80 + 20 * Math.floor(random() * 12))
  return { table, c, row: at, column, taken_kg }
}

/** Whether a table's rows are figures between which somebody can stand. */
export const canBeMisread = ({ axes, configurations }: RatingTable): boolean =>
  axes.row.reading !== 'listed' && configurations.some((c) => c.rows.length > 2 && typeof c.rows[0]?.at === 'number')

/** What hangs above the load beside the block: its names by number. */
const above = ['hook block', 'slings', 'spreader']

/** One item drawn; null: nothing on it can be told apart, and another is drawn. */
function drawn(random: () => number, table: RatingTable, right: boolean): Item | null {
  const names = above.slice(0, 1 + Math.floor(random() * above.length))
  const q = question(random, table, names)
  if (!q) return null
  const read = readings(q)
  const truth = read.nothing
  if (truth === null || truth <= 0) return null
  const figures = misreadings.flatMap((m) => {
    const kg = read[m]
    return kg === null || kg <= 0 ? [] : [{ m, kg }]
  })
  // Each mistake that is offered reads another figure than any other and than what is right.
  const told = figures.filter(({ m, kg }) => figures.every((o) => o.m === m || isApart(o.kg, kg)))
  const wrong = pick(
    random,
    told.filter((x) => x.m !== 'nothing'),
  )
  const said = right ? told.find((x) => x.m === 'nothing') : wrong
  if (!said || !wrong) return null
  const { c, row, column, taken_kg } = q
  const each_kg = taken_kg / names.length
  return {
    table: table.id,
    configuration: c.id,
    row,
    column,
    taken: names.map((name) => ({ name, mass_kg: each_kg })),
    said_kg: said.kg,
    right_kg: truth,
    wrong: said.m,
  }
}

/**
 * Items of the tables of a machine, the same for a seed on every device; half of them have nothing wrong.
 *
 * @param tables those that `canBeMisread`
 * @throws Refusal `no-items` where they offer nothing that can be told apart
 * @example itemsFrom([ternTable], 1, 10)[0]?.wrong // 'nothing' or what is wrong
 */
export function itemsFrom(tables: readonly RatingTable[], seed: number, count: number): Item[] {
  const random = randomFrom(seed, 'judgement')
  const none = new Refusal('no-items', 'Its tables offer nothing to practise judgement on.', 'tables')
  const one = (right: boolean): Item => {
    for (let tries = 0; tries < most_tries; tries++) {
      const table = pick(random, tables)
      const item = table && drawn(random, table, right)
      if (item) return item
    }
    throw none
  }
  // Whether anything is wrong is drawn first: what is harder to find is looked for longer. Of each there is enough to tell a guess by.
  const draw = () => Array.from({ length: count }, () => random() < 0.5)
  const few = Math.floor(least_share * count)
  let right = draw()
  while (right.filter(Boolean).length < few || right.filter((x) => !x).length < few) right = draw()
  return right.map(one)
}

/** Whether tables offer items of both kinds. */
export function offersItems(tables: readonly RatingTable[]): boolean {
  try {
    return itemsFrom(tables.filter(canBeMisread), 0, 10).length > 0
  } catch (e) {
    if (e instanceof Refusal) return false
    throw e
  }
}
