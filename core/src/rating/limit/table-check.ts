import { z } from 'zod'
import { defineCalculator } from '../../calculator/define'
import { sampleTableHead } from '../../calculator/sample'
import { nth } from '../../list'
import { type MachineModel, machineModel } from '../../machine/model'
import { Refusal } from '../../refusal'
import { type Trend, unitOfAxis } from '../axes'
import { type RatingConfiguration as Grid, type RatingTable, ratingTable } from '../table'
import { cellLimit } from './limit'

export const oddKinds = ['above-physics', 'decimal-slip', 'swapped-columns', 'out-of-step', 'rises'] as const

export interface OddCell {
  configuration: string
  /** Row and column by their place, from nothing on, and by their figures. */
  row: number
  column: number
  rowValue: number | string
  columnValue: number | string
  kind: (typeof oddKinds)[number]
  rating_kg: number
  /** What physics allows here; null where this finding is not about it. */
  limit_kg: number | null
  message: string
}

/** Rounding up of a rating by its maker that is not worth a word. */
const rounding_share = 0.005
/** A figure this many times its neighbours looks like a slipped decimal point. */
const slip_times = 5
const kg = (v: number) => `${Math.round(v).toLocaleString('en-GB')} kg`

type At = { i: number; j: number }

/**
 * A table against physics and against itself: ratings above what tipping, line or cylinder allow; rows that rise where they
 * should fall; values like a slipped decimal; swapped columns; columns out of step with their neighbours. One finding a cell,
 * the most telling first. What it finds is a question to whoever holds the maker's book, never a rating.
 */
export function oddCells(
  machine: MachineModel,
  table: RatingTable,
): { findings: OddCell[]; limits: { configuration: string; kg: (number | null)[][] }[] } {
  const { row, column } = table.axes
  const limits: { configuration: string; kg: (number | null)[][] }[] = []
  const findings = table.configurations.flatMap((g) => {
    const limit = cellLimit(machine, table, g.id)
    // Where nothing could tip there is no limit to compare with.
    const known = (v: number | null) => (v === Infinity ? null : v)
    const allowed = g.rows.map((r) => g.columns.map((c) => known(limit(r.at, c))))
    limits.push({ configuration: g.id, kg: allowed })
    const found = new Map<string, OddCell>()
    const say = (kind: OddCell['kind'], { i, j }: At, message: string, limit_kg: number | null = null) => {
      const key = `${i},${j}`
      if (found.has(key)) return
      found.set(key, {
        configuration: g.id,
        row: i,
        column: j,
        rowValue: g.rows[i]?.at ?? '',
        columnValue: g.columns[j] ?? '',
        kind,
        rating_kg: at(g, i, j) ?? 0,
        limit_kg,
        message,
      })
    }
    slips(g, unitOfAxis(row) === 'name', say)
    swapped(g, column.trend, say)
    shifted(g, allowed, say)
    trending(g, row.trend, column.trend, say)
    g.rows.forEach(({ ratings_kg }, i) => {
      ratings_kg.forEach((rating, j) => {
        const most = allowed[i]?.[j] ?? null
        if (rating === null || most === null || rating <= most * (1 + rounding_share)) return
        say(
          'above-physics',
          { i, j },
          most === 0
            ? 'Rated where the machine does not reach or would not stand.'
            : `${kg(rating)} is more than the ${kg(most)} that physics allows here.`,
          most,
        )
      })
    })
    return [...found.values()].sort(
      (a, b) => oddKinds.indexOf(a.kind) - oddKinds.indexOf(b.kind) || a.row - b.row || a.column - b.column,
    )
  })
  return { findings, limits }
}

type Say = (kind: OddCell['kind'], at: At, message: string, limit_kg?: number | null) => void
const at = (g: Grid, i: number, j: number) => g.rows[i]?.ratings_kg[j] ?? null
const median = (v: number[]) => {
  const s = [...v].sort((a, b) => a - b)
  return s.length % 2 ? nth(s, (s.length - 1) / 2) : (nth(s, s.length / 2 - 1) + nth(s, s.length / 2)) / 2
}

function slips(g: Grid, named: boolean, say: Say) {
  g.rows.forEach(({ ratings_kg }, i) => {
    ratings_kg.forEach((rating, j) => {
      if (rating === null || rating <= 0) return
      const near = (named ? g.rows.map((_, k) => k).filter((k) => k !== i) : [i - 2, i - 1, i + 1, i + 2]).map((k) => at(g, k, j))
      const along = near.filter((v): v is number => v !== null && v > 0)
      const across = [j - 1, j + 1].map((k) => at(g, i, k)).filter((v): v is number => v !== null && v > 0)
      const all = along.length >= 2 ? along : [...along, ...across]
      if (all.length < 2) return
      const times = rating / Math.exp(median(all.map(Math.log)))
      if (times >= slip_times || times <= 1 / slip_times)
        say(
          'decimal-slip',
          { i, j },
          `${kg(rating)} stands ${times > 1 ? times.toFixed(0) : (1 / times).toFixed(0)} times ${times > 1 ? 'above' : 'below'} its neighbours: a slipped decimal point?`,
        )
    })
  })
}

/** Pairs of neighbouring columns that stand the wrong way round in most of the rows both rate. */
function swapped(g: Grid, trend: Trend, say: Say) {
  for (let j = 1; j < g.columns.length; j++) {
    const shared = g.rows.flatMap((_, i) => {
      const [a, b] = [at(g, i, j - 1), at(g, i, j)]
      return a === null || b === null ? [] : [{ i, a, b }]
    })
    if (shared.length < 2) continue
    const top = (k: number) => Math.max(...g.rows.map((_, i) => at(g, i, k) ?? 0))
    const wrong = shared.filter(({ a, b }) => (trend === 'falls' ? b > a * 1.001 : trend === 'rises' ? b < a * 0.999 : false))
    // Along a boom ratings go either way, but no longer boom has a greater greatest rating.
    const most = trend === null && typeof g.columns[j] === 'number' && top(j) > top(j - 1) * 1.02
    const right = shared.filter(({ a, b }) => (trend === 'falls' ? b < a * 0.999 : b > a * 1.001))
    if ((wrong.length < 2 || wrong.length < 2.3 * right.length) && !most) continue
    const i = most ? g.rows.findIndex((_, r) => at(g, r, j) === top(j)) : nth(wrong, 0).i
    say(
      'swapped-columns',
      { i, j },
      `Columns ${g.columns[j - 1]} and ${g.columns[j]} look exchanged: in most rows they stand the wrong way round.`,
    )
  }
}

/**
 * A column that fits physics better when moved by one row, in rows where a neighbouring column is as good as at its limit:
 * there strength does not hide the shape, and a column entered a row too high or too low shows.
 */
function shifted(g: Grid, allowed: readonly (readonly (number | null)[])[], say: Say) {
  const share = (i: number, j: number, by = 0) => {
    const [rating, limit] = [at(g, i + by, j), allowed[i]?.[j] ?? null]
    return rating !== null && limit !== null && rating > 0 && limit > 0 && limit < 1e9 ? rating / limit : null
  }
  for (let j = 0; j < g.columns.length; j++) {
    const rows = g.rows
      .map((_, i) => i)
      .filter((i) => share(i, j) !== null && [j - 1, j + 1].some((k) => (share(i, k) ?? 0) > 0.9))
    const off = (by: number) => {
      const list = rows.map((i) => share(i, j, by)).filter((v): v is number => v !== null)
      return list.length < 4 ? null : median(list.map((v) => Math.abs(Math.log(v))))
    }
    const now = off(0)
    if (now === null || now < 0.05 || ![1, -1].some((by) => (off(by) ?? Infinity) < now * 0.4)) continue
    say('out-of-step', { i: nth(rows, 0), j }, `Column ${g.columns[j]} fits better moved by one row: entered in the wrong rows?`)
  }
}

function trending(g: Grid, down: Trend, across: Trend, say: Say) {
  const look = (line: At[], trend: Trend, words: string) => {
    if (trend === null) return
    const cells = line.filter(({ i, j }) => at(g, i, j) !== null)
    const v = (n: number) => {
      const c = cells[n]
      return c ? at(g, c.i, c.j) : null
    }
    const wrongWay = (a: number | null, b: number | null) =>
      a !== null && b !== null && (trend === 'falls' ? b > a * (1 + 1e-9) : b < a * (1 - 1e-9))
    for (let n = 1; n < cells.length; n++) {
      if (!wrongWay(v(n - 1), v(n))) continue
      // Which of the two is out of line: the earlier one, when the next but one agrees with the later, or the later one.
      const before = !wrongWay(v(n - 2), v(n)) && wrongWay(v(n - 1), v(n + 1))
      const cell = nth(cells, before ? n - 1 : n)
      say(
        'rises',
        cell,
        `${kg(at(g, cell.i, cell.j) ?? 0)} breaks the order: ratings must ${trend === 'falls' ? 'fall' : 'rise'} ${words}.`,
      )
    }
  }
  g.columns.forEach((_, j) => {
    look(
      g.rows.map((_r, i) => ({ i, j })),
      down,
      'down the column',
    )
  })
  g.rows.forEach((_, i) => {
    look(
      g.columns.map((_c, j) => ({ i, j })),
      across,
      'along the row',
    )
  })
}

const place = z.union([z.number(), z.string()])

export const tableCheckCalculator = defineCalculator({
  name: 'table-check',
  purpose: 'A rating table against physics and against itself: which cells cannot be right.',
  source: 'Forward tipping, tipping over every edge with moving boom mass, line, cylinder and beam; order of rows and columns.',
  cautions: [
    'A clean check is no proof of the table; the maker’s book is.',
    'What is flagged is a question, never a reason to correct a rating by yourself.',
    'Strength is not checked: a maker’s figure may be far lower than this limit.',
  ],
  input: z.strictObject({ machine: machineModel, table: ratingTable }),
  output: z.object({
    findings: z.array(
      z.object({
        configuration: z.string(),
        row: z.number(),
        column: z.number(),
        rowValue: place,
        columnValue: place,
        kind: z.enum(oddKinds),
        rating_kg: z.number(),
        limit_kg: z.number().nullable(),
        message: z.string(),
      }),
    ),
    limits: z.array(z.object({ configuration: z.string(), kg: z.array(z.array(z.number().nullable())) })),
  }),
  // No field of a table or a model takes a ±.
  worse: {
    findings: { unite: true },
    'findings.*': 'given',
    limits: 'given',
  },
  example: {
    machine: {
      format: 'geolabe.model/1',
      id: 'example',
      name: 'Example',
      kind: { id: 'forklift', label: 'counterbalance forklift' },
      note: 'Made up, for this example',
      truck: { mass_kg: 4200, cgBehindFront_m: 1.02, faceToAxle_m: 0.42, share: 0.7, give_share: 0.02 },
    },
    table: {
      ...sampleTableHead,
      axes: {
        row: { quantity: 'liftHeight_m', label: 'Lift height', reading: 'holds', trend: 'falls' },
        column: { quantity: 'loadCentre_m', label: 'Load centre', reading: 'holds', trend: 'falls' },
      },
      configurations: [
        {
          id: 'forks',
          label: 'Forks, mast vertical',
          appliesTo: { mast: 'vertical' },
          columns: [0.5, 0.6],
          rows: [
            { at: 3, ratings_kg: [2500, 2300] },
            { at: 4, ratings_kg: [2400, 22000] },
            { at: 4.5, ratings_kg: [2300, 2100] },
          ],
        },
      ],
    },
  },
  compute: (input) => {
    const { machine, table } = input
    if (table.machine !== machine.id)
      throw new Refusal('other-machine', `This table is for ${table.machine}, not for ${machine.id}.`, 'table.machine')
    return oddCells(machine, table)
  },
})
