import { z } from 'zod'
import { defineCalculator } from '../calculator/define'
import { sampleBoomAxes, sampleTableHead } from '../calculator/sample'
import { ratedFigure as rated, useOf, worseRating, worseUse } from '../calculator/use'
import { nth } from '../list'
import { type FoldingBoom, foldingTip } from '../parts/booms/articulated-geometry'
import { measured, measuredNotNegative, measuredPositive } from '../quantity/measured'
import { Refusal } from '../refusal'
import { boundary, peakBetween } from '../search'
import { goBy } from './axes'
import { configurationNamed, permitRule, ratedAtSlew, ratingAt, readingRule } from './read'
import { type RatingTable, ratingTable } from './table'

const sectionTable = ratingTable.refine(
  (t) => goBy(t.axes, 'radius_m', 'boom_m') && t.configurations.every((c) => c.columnNames !== undefined),
  { message: 'Give a table by radius and section, each column with its name.', path: ['axes'] },
)

/** The column of a section. @throws Refusal `unknown-configuration`, `unknown-section` */
function columnOf(table: RatingTable, configuration: string, section: string) {
  const c = configurationNamed(table, configuration)
  const names = c.columnNames ?? []
  const j = names.indexOf(section)
  const column = c.columns[j]
  if (column === undefined) throw new Refusal('unknown-section', `No such section; it has: ${names.join(', ')}.`, 'section')
  return { c, j, boom_m: Number(column) }
}

const headExample: RatingTable = {
  ...sampleTableHead,
  axes: { ...sampleBoomAxes, column: { ...sampleBoomAxes.column, label: 'Drawn to' } },
  stabilityRule: '75%',
  level_deg: 2,
  configurations: [
    {
      id: 'full',
      label: 'Legs out, all round',
      columnNames: ['pin 1', 'pin 2', 'pin 3'],
      appliesTo: {
        standing: {
          footprint: [
            { id: 'FL', x_m: 1.9, y_m: 1.6 },
            { id: 'FR', x_m: 1.9, y_m: -1.6 },
            { id: 'RR', x_m: -1.9, y_m: -1.6 },
            { id: 'RL', x_m: -1.9, y_m: 1.6 },
          ],
          fullyExtended: true,
          counterweight_kg: 0,
        },
      },
      columns: [4.2, 5.4, 6.6],
      rows: [
        { at: 2, ratings_kg: [1500, 1200, 900] },
        { at: 3, ratings_kg: [950, 900, 800] },
        { at: 4, ratings_kg: [600, 580, 560] },
        { at: 5, ratings_kg: [null, 400, 390] },
      ],
    },
  ],
}

/** Hand-drawn and pinned sections: a pin position is rated or it is not; nothing is read between two of them. */
export const stageRatingCalculator = defineCalculator({
  name: 'stage-rating',
  purpose: 'Rating of a crane with hand-drawn or pinned sections: by pin position, radius and sector.',
  source: 'The machine’s own table; worse row between radii unless the table allows a straight line.',
  cautions: [
    'Unload and level the boom before a pin is drawn: the section slides.',
    'Check that the pin is through and clipped at the position you read.',
  ],
  input: z.strictObject({
    table: sectionTable,
    configuration: z.string(),
    section: z.string().min(1),
    radius_m: measuredPositive,
    slew_deg: measured.optional(),
    rule: readingRule,
    load_kg: measuredNotNegative,
  }),
  output: z.object({
    allowed_kg: rated,
    boom_m: z.number(),
    utilisation: z.number().nullable(),
    why: z.string().nullable(),
    furthest_m: z.number().nullable(),
  }),
  worse: {
    allowed_kg: worseRating,
    boom_m: 'given',
    utilisation: worseUse,
    why: { with: 'allowed_kg' },
    furthest_m: { worse: 'low', nothing: 'worst' },
  },
  example: {
    table: headExample,
    configuration: 'full',
    section: 'pin 2',
    radius_m: { value: 3.4, tolerance: 0.1 },
    rule: 'worse-row',
    load_kg: 480,
  },
  compute: (input) => {
    permitRule(input.table, input.rule)
    const { c, j, boom_m } = columnOf(input.table, input.configuration, input.section)
    const allowed_kg = ratedAtSlew(c, input.slew_deg)
      ? ratingAt(input.table.axes, c, input.radius_m, boom_m, input.rule).gross_kg
      : 'not-rated'
    const carries = c.rows.filter((r) => (r.ratings_kg[j] ?? -1) >= input.load_kg)
    const furthest = carries.at(-1)
    return {
      allowed_kg,
      boom_m,
      ...useOf(input.load_kg, allowed_kg),
      furthest_m: furthest ? Number(furthest.at) : null,
    }
  },
})

interface PoseRead {
  angle_deg: number
  fold_deg: number
  radius_m: number
  height_m: number
  allowed_kg: number | 'not-rated'
}

/** Samples along one stretch of an unfolding path; between them every row of the table that is crossed is found by bisection. */
const samples = 60

/** Worth less the less is allowed; not rated is worth least. */
const worth = (kg: number | 'not-rated') => (kg === 'not-rated' ? -1 : kg)
const isWorse = (a: PoseRead, b: PoseRead) =>
  worth(a.allowed_kg) < worth(b.allowed_kg) || (worth(a.allowed_kg) === worth(b.allowed_kg) && a.radius_m > b.radius_m)

/**
 * The worst reading on a stretch of a path: at samples, at the greatest and least radius between them, and on both sides of every
 * row of the table that the radius crosses, so that no row is passed over between two samples.
 */
function worstOnStretch(at: (t: number) => PoseRead, rows_m: readonly number[]): { t: number; read: PoseRead } {
  let worst = { t: 0, read: at(0) }
  const look = (t: number) => {
    const read = at(t)
    if (isWorse(read, worst.read)) worst = { t, read }
    return read
  }
  let before = worst.read
  for (let i = 1; i <= samples; i++) {
    const [t0, t1] = [(i - 1) / samples, i / samples]
    const here = look(t1)
    // The tip turned in or out between the last three samples: how far it went is looked at.
    const back = i < 2 ? before : at(t0 - 1 / samples)
    const turn = Math.sign(before.radius_m - back.radius_m) - Math.sign(here.radius_m - before.radius_m)
    if (turn !== 0 && i > 1) look(peakBetween((t) => turn * at(t).radius_m, t0 - 1 / samples, t1, 1e-10).x)
    for (const row of rows_m) {
      if (row < before.radius_m === row < here.radius_m) continue
      const rising = here.radius_m > before.radius_m
      const within = boundary((t) => (rising ? at(t).radius_m <= row : at(t).radius_m >= row), t0, t1, 1e-12)
      look(within)
      look(Math.min(1, within + 1e-9))
    }
    before = here
  }
  return worst
}

/**
 * Folding boom: rating at the end and the worst over the whole unfolding path. On the way a load may stand further out than at
 * either end, and nothing may be lifted through a radius that its table does not rate.
 */
export const articulatedRatingCalculator = defineCalculator({
  name: 'articulated-rating',
  purpose: 'Folding boom: rating along the whole path of unfolding, at its worst point.',
  source: 'The machine’s own table by radius and extension (EN 12999, ASME B30.22); plane geometry of both booms.',
  cautions: [
    'Inner boom up first: moving the outer first strikes what lies under it.',
    'Extension during the path is not in here: draw out in steps and check each.',
  ],
  input: z.strictObject({
    table: sectionTable,
    configuration: z.string(),
    section: z.string().min(1),
    inner_m: measuredPositive,
    outer_m: measuredPositive,
    pivot: z.strictObject({ back_m: measured, height_m: measured }),
    path: z
      .array(z.strictObject({ angle_deg: measured, fold_deg: measured }))
      .min(1, 'Give at least one pose.')
      .max(50),
    /** Which way the boom unfolds; needed where the rating holds only in part of the circle. */
    slew_deg: measured.optional(),
    rule: readingRule,
    load_kg: measuredNotNegative,
  }),
  output: z.object({
    allowed_kg: rated,
    utilisation: z.number().nullable(),
    worst: z.object({
      step: z.number(),
      angle_deg: z.number(),
      fold_deg: z.number(),
      radius_m: z.number(),
      height_m: z.number(),
    }),
    end: z.object({ radius_m: z.number(), height_m: z.number(), allowed_kg: rated }),
    why: z.string().nullable(),
  }),
  worse: {
    allowed_kg: worseRating,
    utilisation: worseUse,
    worst: { with: 'allowed_kg' },
    'end.radius_m': 'high',
    'end.height_m': 'either',
    'end.allowed_kg': worseRating,
    why: { with: 'allowed_kg' },
  },
  effort: 400,
  example: {
    table: headExample,
    configuration: 'full',
    section: 'pin 2',
    inner_m: 2.6,
    outer_m: 2.8,
    pivot: { back_m: 0.1, height_m: 1.4 },
    path: [
      { angle_deg: 75, fold_deg: 120 },
      { angle_deg: 75, fold_deg: 40 },
      { angle_deg: 50, fold_deg: 30 },
    ],
    rule: 'worse-row',
    load_kg: 380,
  },
  compute: (input) => {
    const { table, rule } = input
    permitRule(table, rule)
    const { c, boom_m } = columnOf(table, input.configuration, input.section)
    const b: FoldingBoom = { inner_m: input.inner_m, outer_m: input.outer_m, pivot: input.pivot }
    const rated = ratedAtSlew(c, input.slew_deg)
    const read = (p: { angle_deg: number; fold_deg: number }): PoseRead => {
      const tip = foldingTip(b, p)
      const allowed_kg = rated ? ratingAt(table.axes, c, tip.radius_m, boom_m, rule).gross_kg : 'not-rated'
      return { ...p, ...tip, allowed_kg }
    }
    const poses = input.path
    const first = nth(poses, 0)
    let worst = { step: 0, read: read(first) }
    for (let step = 1; step < poses.length; step++) {
      const [p, q] = [nth(poses, step - 1), nth(poses, step)]
      const at = (t: number) =>
        read({ angle_deg: p.angle_deg + t * (q.angle_deg - p.angle_deg), fold_deg: p.fold_deg + t * (q.fold_deg - p.fold_deg) })
      const rows_m = c.rows.map((r) => Number(r.at))
      const found = worstOnStretch(at, rows_m)
      if (isWorse(found.read, worst.read)) worst = { step: step - 1 + found.t, read: found.read }
    }
    const { allowed_kg, ...where } = worst.read
    const last = read(nth(poses, poses.length - 1))
    return {
      allowed_kg,
      ...useOf(input.load_kg, allowed_kg),
      worst: { step: worst.step, ...where },
      end: { radius_m: last.radius_m, height_m: last.height_m, allowed_kg: last.allowed_kg },
    }
  },
})
