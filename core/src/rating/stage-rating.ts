import { z } from 'zod'
import { defineCalculator } from '../calculator/define'
import { measured, measuredNotNegative, measuredPositive } from '../calculator/measured'
import { sampleTableHead } from '../calculator/sample'
import { readGross, readingRule } from '../chart/chart-reading'
import { boomTable } from '../chart/table'
import { type FoldingBoom, foldingTip } from '../geometry/articulated-geometry'
import { Refusal } from '../refusal'

const rated = z.union([z.number(), z.literal('not-rated')])
const sectionTable = boomTable.refine((t) => t.shape === 'radius-section', {
  message: 'Give a table by radius and section.',
  path: ['shape'],
})
type SectionTable = z.infer<typeof boomTable>
const useOf = (load_kg: number, allowed: number | 'not-rated') =>
  allowed === 'not-rated' ? null : allowed > 0 ? load_kg / allowed : Number.MAX_VALUE

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
    furthest_m: z.number().nullable(),
  }),
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
      utilisation: useOf(input.load_kg, allowed_kg),
      furthest_m: carries[carries.length - 1]?.radius_m ?? null,
    }
  },
})

/** Samples along an unfolding path, each refined to where the radius is greatest. */
const samples = 60

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
  }),
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
    const at = (p: { angle_deg: number; fold_deg: number }) => {
      const tip = foldingTip(b, p)
      return { ...p, ...tip, allowed_kg: readGross(c, { radius_m: tip.radius_m, boom_m }, input.rule).gross_kg }
    }
    const worth = (kg: number | 'not-rated') => (kg === 'not-rated' ? -1 : kg)
    const poses = input.path
    let worst = { step: 0, ...at(poses[0] as (typeof poses)[number]) }
    for (let step = 1; step < poses.length; step++) {
      const [p, q] = [poses[step - 1], poses[step]] as [(typeof poses)[number], (typeof poses)[number]]
      for (let i = 1; i <= samples; i++) {
        const t = i / samples
        const here = at({
          angle_deg: p.angle_deg + t * (q.angle_deg - p.angle_deg),
          fold_deg: p.fold_deg + t * (q.fold_deg - p.fold_deg),
        })
        const further =
          worth(here.allowed_kg) < worth(worst.allowed_kg) ||
          (worth(here.allowed_kg) === worth(worst.allowed_kg) && here.radius_m > worst.radius_m)
        if (further) worst = { step: step - 1 + t, ...here }
      }
    }
    const { allowed_kg, ...where } = worst
    const last = at(poses[poses.length - 1] as (typeof poses)[number])
    return {
      allowed_kg,
      utilisation: useOf(input.load_kg, allowed_kg),
      worst: where,
      end: { radius_m: last.radius_m, height_m: last.height_m, allowed_kg: last.allowed_kg },
    }
  },
})
