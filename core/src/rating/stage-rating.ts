import { z } from 'zod'
import { defineCalculator } from '../calculator/define'
import { sampleTableHead } from '../calculator/sample'
import { ratedFigure as rated, useOf, worseRating, worseUse } from '../calculator/use'
import { type FoldingBoom, foldingTip } from '../parts/booms/articulated-geometry'
import { measured, measuredNotNegative, measuredPositive } from '../quantity/measured'
import { Refusal } from '../refusal'
import { boundary, peakBetween } from '../search'
import { type Readable, type ReadingRule, readGross, readingRule } from './chart-reading'
import { boomTable } from './table'

const sectionTable = boomTable.refine((t) => t.shape === 'radius-section', {
  message: 'Give a table by radius and section.',
  path: ['shape'],
})
type SectionTable = z.infer<typeof boomTable>

function columnOf(table: SectionTable, configuration: string, section: string) {
  const c = table.configurations.find((x) => x.id === configuration)
  if (!c)
    throw new Refusal(
      'unknown-configuration',
      `This table has no such configuration; it has: ${table.configurations.map((x) => x.id).join(', ')}.`,
      'configuration',
    )
  const j = (c.sections ?? []).indexOf(section)
  if (j < 0) throw new Refusal('unknown-section', `No such section; it has: ${(c.sections ?? []).join(', ')}.`, 'section')
  return { c, boom_m: c.boom_m[j] as number }
}

const headExample: SectionTable = {
  ...sampleTableHead,
  shape: 'radius-section',
  linearPermitted: false,
  stabilityRule: '75%',
  wind: null,
  level_deg: 2,
  configurations: [
    {
      id: 'full',
      label: 'Legs out, all round',
      sections: ['pin 1', 'pin 2', 'pin 3'],
      footprint: [
        { id: 'FL', x_m: 1.9, y_m: 1.6 },
        { id: 'FR', x_m: 1.9, y_m: -1.6 },
        { id: 'RR', x_m: -1.9, y_m: -1.6 },
        { id: 'RL', x_m: -1.9, y_m: 1.6 },
      ],
      fullyExtended: true,
      counterweight_kg: 0,
      boom_m: [4.2, 5.4, 6.6],
      rows: [
        { radius_m: 2, ratings_kg: [1500, 1200, 900] },
        { radius_m: 3, ratings_kg: [950, 900, 800] },
        { radius_m: 4, ratings_kg: [600, 580, 560] },
        { radius_m: 5, ratings_kg: [null, 400, 390] },
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
    const table = input.table as SectionTable
    if (input.rule === 'linear' && !table.linearPermitted)
      throw new Refusal('linear-not-permitted', 'This table does not allow reading between rows in a straight line.', 'rule')
    const { c, boom_m } = columnOf(table, input.configuration, input.section)
    const allowed_kg = readGross(c, { radius_m: input.radius_m, boom_m, slew_deg: input.slew_deg }, input.rule).gross_kg
    const carries = c.rows.filter((r) => (r.ratings_kg[c.boom_m.indexOf(boom_m)] ?? -1) >= input.load_kg)
    return {
      allowed_kg,
      boom_m,
      ...useOf(input.load_kg, allowed_kg),
      furthest_m: carries[carries.length - 1]?.radius_m ?? null,
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
    const table = input.table as SectionTable
    if (input.rule === 'linear' && !table.linearPermitted)
      throw new Refusal('linear-not-permitted', 'This table does not allow reading between rows in a straight line.', 'rule')
    const { c, boom_m } = columnOf(table, input.configuration, input.section)
    const b: FoldingBoom = { inner_m: input.inner_m, outer_m: input.outer_m, pivot: input.pivot }
    const read = readerOf(b, c, { boom_m, slew_deg: input.slew_deg, rule: input.rule })
    const poses = input.path
    const first = poses[0] as (typeof poses)[number]
    let worst = { step: 0, read: read(first) }
    for (let step = 1; step < poses.length; step++) {
      const [p, q] = [poses[step - 1], poses[step]] as [(typeof poses)[number], (typeof poses)[number]]
      const at = (t: number) =>
        read({ angle_deg: p.angle_deg + t * (q.angle_deg - p.angle_deg), fold_deg: p.fold_deg + t * (q.fold_deg - p.fold_deg) })
      const rows_m = c.rows.map((r) => r.radius_m)
      const found = worstOnStretch(at, rows_m)
      if (isWorse(found.read, worst.read)) worst = { step: step - 1 + found.t, read: found.read }
    }
    const { allowed_kg, ...where } = worst.read
    const last = read(poses[poses.length - 1] as (typeof poses)[number])
    return {
      allowed_kg,
      ...useOf(input.load_kg, allowed_kg),
      worst: { step: worst.step, ...where },
      end: { radius_m: last.radius_m, height_m: last.height_m, allowed_kg: last.allowed_kg },
    }
  },
})

/** Reads the table where the tip of a folding boom stands. */
function readerOf(b: FoldingBoom, c: Readable, at: { boom_m: number; slew_deg: number | undefined; rule: ReadingRule }) {
  return (p: { angle_deg: number; fold_deg: number }): PoseRead => {
    const tip = foldingTip(b, p)
    const { gross_kg } = readGross(c, { radius_m: tip.radius_m, boom_m: at.boom_m, slew_deg: at.slew_deg }, at.rule)
    return { ...p, ...tip, allowed_kg: gross_kg }
  }
}
