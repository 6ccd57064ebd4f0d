import { z } from 'zod'
import { defineCalculator } from '../calculator/define'
import { sampleBoomAxes, sampleLegs, sampleTableHead } from '../calculator/sample'
import { worseRating, worseUse } from '../calculator/use'
import { normalDegrees } from '../physics'
import { measured, measuredPositive } from '../quantity/measured'
import { chartReading, type Deduction, deductionInput } from './chart-reading'
import { configurationNamed, ratedAtSlew, readingRule } from './read'
import { type RatingConfiguration, type RatingTable, ratingTable } from './table'

interface Way {
  from: { radius_m: number; slew_deg: number }
  to: { radius_m: number; slew_deg: number }
  direction: 'clockwise' | 'anticlockwise'
}

interface SupportChoiceInput {
  chart: RatingTable
  /** Configurations of the table, the least work first. */
  states: readonly string[]
  load_kg: number
  deductions: readonly Deduction[]
  boom_m: number
  way: Way
  rule: 'worse-row' | 'linear'
}

/** Slews at which a configuration may begin or end to hold, on the way: its own ends, and borders of its sectors that are crossed. */
function slewsOn({ appliesTo }: RatingConfiguration, { from, to, direction }: Way): number[] {
  const ahead = normalDegrees(to.slew_deg - from.slew_deg)
  const by = direction === 'anticlockwise' ? ahead : ahead === 0 ? 0 : ahead - 360
  const borders = [appliesTo.sector, ...(appliesTo.forbidden ?? [])].flatMap((s) => (s ? [s.from_deg, s.to_deg] : []))
  const crossed = borders
    .map((b) => {
      const into = normalDegrees(b - from.slew_deg)
      return by >= 0 ? into : into === 0 ? 0 : into - 360
    })
    .filter((into) => Math.abs(into) <= Math.abs(by))
  const ends = [...new Set([0, by, ...crossed])].sort((a, b) => a - b)
  // A sector holds or does not from one border to the next: the middle says which.
  const middles = ends.slice(1).map((e, i) => (e + (ends[i] ?? e)) / 2)
  return [...ends, ...middles].map((into) => normalDegrees(from.slew_deg + into))
}

/** Radii at which a table may read otherwise, on the way: its own ends, rows that are passed, and the middle of each gap. */
function radiiOn({ rows }: RatingConfiguration, { from, to }: Way): number[] {
  const [least, most] = [Math.min(from.radius_m, to.radius_m), Math.max(from.radius_m, to.radius_m)]
  const passed = rows.map((r) => Number(r.at)).filter((at) => at > least && at < most)
  const ends = [...new Set([least, ...passed, most])].sort((a, b) => a - b)
  return [...ends, ...ends.slice(1).map((e, i) => (e + (ends[i] ?? e)) / 2)]
}

/**
 * Ways of standing, the least work first, and what each rates net at the worst point of a way; the first of them that takes the load.
 *
 * @returns `first`: its place among them, from 1; null: none takes it
 * @throws Refusal `unknown-configuration`, `missing-field`, `linear-not-permitted`
 * @example supportRatings({ … states: ['wheels', 'legs'], load_kg: 6000 … }).first // 2
 */
export function supportRatings(input: SupportChoiceInput) {
  const { chart, load_kg, deductions, boom_m, way, rule } = input
  const options = input.states.map((state) => {
    const c = configurationNamed(chart, state)
    const holds = slewsOn(c, way).every((slew_deg) => ratedAtSlew(c, slew_deg))
    // Where it holds all the way, the slew that it is read at makes no difference; where not, it rates nothing anyhow.
    const { slew_deg } = way.from
    const reads = radiiOn(c, way).map((radius_m) =>
      chartReading({ chart, configuration: state, radius_m, boom_m, slew_deg, rule, load_kg, deductions }),
    )
    let net_kg: number | null = Infinity
    let utilisation: number | null = 0
    for (const read of reads) {
      net_kg = !holds || net_kg === null || read.net_kg === 'not-rated' ? null : Math.min(net_kg, read.net_kg)
      utilisation = !holds || utilisation === null || read.utilisation === null ? null : Math.max(utilisation, read.utilisation)
    }
    return { state, net_kg, utilisation, takes: net_kg !== null && utilisation !== null && net_kg >= load_kg }
  })
  const first = options.findIndex((o) => o.takes)
  return { options, first: first < 0 ? null : first + 1 }
}

const point = z.strictObject({ radius_m: measuredPositive, slew_deg: measured })
const footprint = [...sampleLegs]
const standing = (fullyExtended: boolean) => ({ footprint, counterweight_kg: 0, fullyExtended })

export const supportChoiceCalculator = defineCalculator({
  name: 'support-choice',
  purpose: 'Which way of standing does a lift need: the first, by work, that rates it all along its way.',
  source: 'The machine’s own table, read at every row and sector border that the way crosses.',
  cautions: [
    'Only the table is asked. What stands, presses or tips is looked at once the machine stands so.',
    'A table for wheels holds for the tyres, pressures and floor that it names.',
    'What a way of standing needs besides, braces, props, a locked axle, is in the maker’s book.',
  ],
  input: z.strictObject({
    chart: ratingTable,
    states: z
      .array(z.string().min(1))
      .min(1)
      .max(12)
      .refine((all) => new Set(all).size === all.length, 'Name each way of standing once.'),
    load_kg: measuredPositive,
    deductions: z.array(deductionInput).max(50),
    boom_m: measuredPositive,
    way: z.strictObject({ from: point, to: point, direction: z.enum(['clockwise', 'anticlockwise']) }),
    rule: readingRule,
  }),
  output: z.object({
    options: z.array(
      z.object({
        state: z.string(),
        net_kg: z.number().nullable(),
        utilisation: z.number().nullable(),
        takes: z.boolean(),
      }),
    ),
    first: z.number().nullable(),
  }),
  worse: {
    options: { rows: 'state' },
    'options.*.state': 'given',
    'options.*.net_kg': worseRating,
    'options.*.utilisation': worseUse,
    'options.*.takes': false,
    first: { worse: 'high', nothing: 'worst' },
  },
  example: {
    chart: {
      ...sampleTableHead,
      axes: sampleBoomAxes,
      stabilityRule: '75%',
      level_deg: 1,
      configurations: [
        {
          id: 'wheels',
          label: 'On wheels, over the rear',
          appliesTo: { standing: standing(false), sector: { from_deg: 170, to_deg: 190 } },
          columns: [9, 12],
          rows: [
            { at: 4, ratings_kg: [3600, 3100] },
            { at: 6, ratings_kg: [2900, 2600] },
            { at: 8, ratings_kg: [2100, 1900] },
          ],
        },
        {
          id: 'legs',
          label: 'Legs out, all round',
          appliesTo: { standing: standing(true) },
          columns: [9, 12],
          rows: [
            { at: 4, ratings_kg: [15200, 11800] },
            { at: 6, ratings_kg: [9100, 8600] },
            { at: 8, ratings_kg: [6000, 5700] },
          ],
        },
      ],
    },
    states: ['wheels', 'legs'],
    load_kg: { value: 4200, tolerance: 150 },
    deductions: [{ name: 'hook block', mass_kg: 90, on: 'hook' }],
    boom_m: 9,
    way: { from: { radius_m: 5.2, slew_deg: 180 }, to: { radius_m: 7.1, slew_deg: 240 }, direction: 'anticlockwise' },
    rule: 'worse-row',
  },
  compute: supportRatings,
})
