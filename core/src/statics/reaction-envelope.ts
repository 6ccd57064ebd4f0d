import { z } from 'zod'
import { defineCalculator } from '../calculator/define'
import { sampleLegs } from '../calculator/sample'
import { nth } from '../list'
import { normalDegrees } from '../physics'
import { finite, positive } from '../quantity/measured'
import { Refusal } from '../refusal'
import { boundary, peakBetween } from '../search'
import { elasticReactions } from './elastic'
import { type ElasticOver, elasticOver } from './elastic-arc'
import { type Footprint, marginOf, prepareFootprint, type Support } from './footprint'
import { type FixedSums, type Resultant, resultantAt, type SlewingSums, sumFixed, sumSlewing } from './resultant'
import { footingInput, type Mass, type Moments, type SlewingMass, slewingInput } from './schema'
import { upperOver } from './upper-arc'

export interface Arc {
  from_deg: number
  to_deg: number
}

export interface ContactEnvelope {
  id: string
  max_N: number
  max_at_deg: number
  min_N: number
  min_at_deg: number
  upper_N: number
  upper_at_deg: number
}

export interface ReactionEnvelope {
  /** Over the part of the arc where the machine stands; empty when it stands nowhere. */
  supports: ContactEnvelope[]
  margin: { least_m: number; at_deg: number }
  /** Where a leg carries nothing. */
  lifted: (Arc & { id: string })[]
  unstable: Arc[]
}

/** Least refinement of an angle, degrees. The value of a smooth extreme is then good to about the square of it. */
const angleTolerance_deg = 1e-7

/**
 * Extremes of every leg's load while the superstructure slews over an arc, anticlockwise: `from_deg` is not above `to_deg`.
 * The upper bound is had in closed form, and the elastic load where every support stays down. Where one lifts, every peak between samples
 * that could be the greatest is refined by golden section, and ends of lifted and unstable arcs by bisection; a support that lifts, or a
 * fall, between two samples is found at its own extreme.
 *
 * @param step_deg samples along the arc; what is finer than that and no peak of its own is not seen
 */
export function envelopeOver(
  f: Footprint,
  fixed: FixedSums,
  slewing: SlewingSums,
  arc: Arc,
  step_deg: number,
  refine_deg = angleTolerance_deg,
): ReactionEnvelope {
  const seen = scanned(f, fixed, slewing, arc, step_deg, refine_deg)
  const { along, samples, margin, elastic } = seen
  const { at, standing, stands } = along
  const margins = samples.map((s) => s.margin_m)
  const places = samples.map((_, i) => at(i))
  const least = leastOfSamples(margins, at, margin, refine_deg)
  const deep_m = Math.max(...margins.slice(1).map((m, i) => Math.abs(m - nth(margins, i))), 0)
  const falls = dipsOf(along, (i) => nth(margins, i), margin, deep_m)
  return {
    supports: contactsOver(f, fixed, slewing, arc, step_deg, refine_deg, () => seen),
    margin: { least_m: least.y, at_deg: least.x },
    lifted: f.supports.flatMap(({ id }, outrigger) => {
      const load = (i: number) => (standing[i] ? nth(nth(samples, i).elastic, outrigger) : Infinity)
      const loadAt = elastic(outrigger)
      const steps = places.slice(1).map((_, i) => (standing[i] && standing[i + 1] ? Math.abs(load(i + 1) - load(i)) : 0))
      const dips = dipsOf(along, load, loadAt, Math.max(0, ...steps))
      return arcsWhere((d) => stands(d) && loadAt(d) === 0, [...places, ...dips]).map((a) => ({ id, ...a }))
    }),
    unstable: arcsWhere((d) => !stands(d), [...places, ...falls]),
  }
}

/** An arc looked at from place to place, with what is carried at each. */
function scanned(f: Footprint, fixed: FixedSums, slewing: SlewingSums, arc: Arc, step_deg: number, refine_deg: number) {
  const { count, at } = stepsOver(arc, step_deg)
  const scratch = new Float64Array(f.supports.length)
  const where = (deg: number) => resultantAt(fixed, slewing, deg)
  const margin = (deg: number) => marginOf(f, where(deg))
  const stands = (deg: number) => margin(deg) > f.least_m
  const elastic = (outrigger: number) => (deg: number) => {
    const r = where(deg)
    elasticReactions(f, r.x_m, r.y_m, r.force_N, scratch)
    return nth(scratch, outrigger)
  }
  const samples = Array.from({ length: count + 1 }, (_, i) => sampled(f, where(at(i))))
  const standing = samples.map((s) => s.margin_m > f.least_m)
  const along: ArcSamples = { count, at, standing, stands, refine_deg }
  return { along, samples, margin, elastic }
}

/**
 * The extremes of each support's load over an arc, as `envelopeOver` has them, and nothing besides.
 *
 * @param seen the arc looked at from place to place, where that is done already
 * @returns one entry a support; none where the machine stands nowhere on the arc
 */
export function contactsOver(
  f: Footprint,
  fixed: FixedSums,
  slewing: SlewingSums,
  arc: Arc,
  step_deg: number,
  refine_deg = angleTolerance_deg,
  seen = () => scanned(f, fixed, slewing, arc, step_deg, refine_deg),
): ContactEnvelope[] {
  const upper = upperOver(f, fixed, slewing, arc)
  if (upper.length === 0) return []
  const elastic = elasticOver(f, fixed, slewing, rising(arc)) ?? elasticLooked(f, seen())
  return upper.map(({ id, upper_N, upper_at_deg }, i) => {
    const e = nth(elastic, i)
    return { id, ...e, upper_N: Math.max(upper_N, e.max_N), upper_at_deg }
  })
}

/** The same for the elastic load where a support lifts on the way, or the machine does not stand all the way. */
function elasticLooked(f: Footprint, { along, samples, elastic }: ReturnType<typeof scanned>): ElasticOver[] {
  return f.supports.map((_, i) => {
    const sample = (k: number) => nth(nth(samples, k).elastic, i)
    const max = extremeOf(along, 1, sample, elastic(i))
    const min = extremeOf(along, -1, sample, elastic(i))
    return { max_N: max.value, max_at_deg: max.at_deg, min_N: min.value, min_at_deg: min.at_deg }
  })
}

/** What is known at one place of the arc; no reactions where the machine does not stand. */
interface Sample {
  margin_m: number
  elastic: Float64Array
}

function sampled(f: Footprint, r: Resultant): Sample {
  const s = { margin_m: marginOf(f, r), elastic: new Float64Array(f.supports.length) }
  if (s.margin_m > f.least_m) elasticReactions(f, r.x_m, r.y_m, r.force_N, s.elastic)
  return s
}

/** Where a leg is least loaded or the margin smallest between samples: what happens there and nowhere near is still seen. */
function dipsOf(
  { count, at, refine_deg }: ArcSamples,
  sample: (i: number) => number,
  exact: (deg: number) => number,
  deep: number,
) {
  return Array.from({ length: count + 1 }, (_, i) => i).flatMap((i) => {
    const v = sample(i)
    const [a, b] = [Math.max(0, i - 1), Math.min(count, i + 1)]
    if (v > deep || v > sample(a) || v > sample(b)) return []
    return [peakBetween((deg) => -exact(deg), at(a), at(b), refine_deg).x]
  })
}

/** The same arc from its lesser angle to its greater. */
const rising = ({ from_deg, to_deg }: Arc): Arc => ({ from_deg: Math.min(from_deg, to_deg), to_deg: Math.max(from_deg, to_deg) })

/** The angles at which an arc is looked at, whichever way it is given: `count` equal steps of at most `step_deg`. */
function stepsOver(arc: Arc, step_deg: number): Pick<ArcSamples, 'count' | 'at'> {
  const { from_deg, to_deg } = rising(arc)
  const count = Math.max(1, Math.ceil((to_deg - from_deg) / step_deg - 1e-9))
  return { count, at: (i) => from_deg + ((to_deg - from_deg) * i) / count }
}

/** An arc looked at from place to place, and where on it the machine stands. */
interface ArcSamples {
  count: number
  at: (i: number) => number
  standing: readonly boolean[]
  stands: (deg: number) => boolean
  refine_deg: number
}

/** Greatest of sign·value over the standing samples, every peak that could be it refined between its neighbours. */
function extremeOf(
  { count, at, standing, stands, refine_deg }: ArcSamples,
  sign: 1 | -1,
  sample: (i: number) => number,
  exact: (deg: number) => number,
): { at_deg: number; value: number } {
  let [x, y] = [Number.NaN, -Infinity]
  let widest = 0
  for (let i = 0; i <= count; i++) {
    if (!standing[i]) continue
    const v = sign * sample(i)
    if (v > y) [x, y] = [at(i), v]
    if (i > 0 && standing[i - 1]) widest = Math.max(widest, Math.abs(v - sign * sample(i - 1)))
  }
  if (sign < 0 && y === 0) return { at_deg: x, value: 0 }
  const least = y - widest
  const side = (i: number) => (standing[i] ? sign * sample(i) : -Infinity)
  for (let i = 0; i <= count; i++) {
    const v = side(i)
    if (v < least || v < side(Math.max(0, i - 1)) || v < side(Math.min(count, i + 1))) continue
    const [a, b] = [Math.max(0, i - 1), Math.min(count, i + 1)]
    // A peak between a standing and a fallen sample belongs to the standing side only.
    const left = standing[a] ? at(a) : boundary(stands, at(i), at(a), refine_deg)
    const right = standing[b] ? at(b) : boundary(stands, at(i), at(b), refine_deg)
    const p = peakBetween((deg) => sign * exact(deg), left, right, refine_deg)
    if (p.y > y) [x, y] = [p.x, p.y]
  }
  return { at_deg: x, value: sign * y }
}

/** The least of samples of a function, each dip that could be it refined between its neighbours. */
function leastOfSamples(samples: readonly number[], at: (i: number) => number, exact: (x: number) => number, tolerance: number) {
  const widest = Math.max(0, ...samples.slice(1).map((v, i) => Math.abs(v - nth(samples, i))))
  const first = samples.reduce((b, v, i) => (v < nth(samples, b) ? i : b), 0)
  let best = { x: at(first), y: nth(samples, first) }
  const deep = best.y + widest
  samples.forEach((v, i) => {
    const [a, b] = [Math.max(0, i - 1), Math.min(samples.length - 1, i + 1)]
    if (v > deep || v > nth(samples, a) || v > nth(samples, b)) return
    const p = peakBetween((x) => -exact(x), at(a), at(b), tolerance)
    if (-p.y < best.y) best = { x: p.x, y: -p.y }
  })
  return best
}

/** Stretches of the arc in which something holds, their ends found by bisection between the angles looked at. */
function arcsWhere(test: (deg: number) => boolean, angles: number[]): Arc[] {
  const sorted = angles.sort((a, b) => a - b)
  const arcs: Arc[] = []
  let from: number | null = null
  sorted.forEach((deg, i) => {
    const holds = test(deg)
    if (holds && from === null) from = i === 0 ? deg : boundary(test, deg, nth(sorted, i - 1), angleTolerance_deg)
    if (from === null || (holds && i < sorted.length - 1)) return
    arcs.push({ from_deg: from, to_deg: holds ? deg : boundary(test, nth(sorted, i - 1), deg, angleTolerance_deg) })
    from = null
  })
  return arcs
}

/** Degrees between samples where nobody asks for fewer, and at the most. */
const [usualStep_deg, coarsestStep_deg] = [1, 2]

/**
 * Leg loads while slewing anticlockwise from one angle to another: 350 to 10 is twenty degrees, 0 to 360 the whole circle, equal
 * angles a point. A coarser step than 2° is not taken.
 *
 * @throws Refusal as `support-reactions`, and `too-many-steps`.
 */
export function reactionEnvelope(
  input: {
    supports: readonly Support[]
    masses: readonly Mass[]
    slewing: readonly SlewingMass[]
    from_deg: number
    to_deg: number
    step_deg?: number | undefined
  } & Moments,
): ReactionEnvelope {
  const f = prepareFootprint(input.supports)
  const step_deg = Math.min(coarsestStep_deg, input.step_deg ?? usualStep_deg)
  const ahead = normalDegrees(input.to_deg - input.from_deg)
  const width = ahead === 0 && input.to_deg !== input.from_deg ? 360 : ahead
  if (width / step_deg > 20_000) {
    throw new Refusal('too-many-steps', 'The step is too fine for this arc; use a larger step_deg.', 'step_deg')
  }
  const arc = { from_deg: input.from_deg, to_deg: input.from_deg + width }
  return envelopeOver(f, sumFixed(input.masses, input), sumSlewing(input.slewing), arc, step_deg)
}

export const reactionEnvelopeCalculator = defineCalculator({
  name: 'reaction-envelope',
  purpose: 'Greatest and least load on each leg as the boom goes round, and where.',
  source: 'Statics; rigid frame on Winkler supports that cannot pull; extremes refined by search.',
  cautions: ['A leg that lightens is a warning before it is a fall: stop and think when one comes loose.'],
  input: z.strictObject({
    ...footingInput,
    slewing: z.array(slewingInput).max(1000),
    from_deg: finite,
    to_deg: finite,
    step_deg: positive.optional(),
  }),
  output: z.object({
    supports: z.array(
      z.object({
        id: z.string(),
        max_N: z.number(),
        max_at_deg: z.number(),
        min_N: z.number(),
        min_at_deg: z.number(),
        upper_N: z.number(),
        upper_at_deg: z.number(),
      }),
    ),
    margin: z.object({ least_m: z.number(), at_deg: z.number() }),
    lifted: z.array(z.object({ id: z.string(), from_deg: z.number(), to_deg: z.number() })),
    unstable: z.array(z.object({ from_deg: z.number(), to_deg: z.number() })),
  }),
  worse: {
    supports: { rows: 'id' },
    'supports.*.id': 'given',
    'supports.*.max_N': 'high',
    'supports.*.max_at_deg': 'either',
    'supports.*.min_N': 'low',
    'supports.*.min_at_deg': 'either',
    'supports.*.upper_N': 'high',
    'supports.*.upper_at_deg': 'either',
    'margin.least_m': 'low',
    'margin.at_deg': 'either',
    lifted: { arcs: 'id' },
    unstable: { arcs: null },
  },
  effort: 150,
  example: {
    supports: sampleLegs,
    masses: [{ mass_kg: 24000, x_m: -0.2, y_m: 0 }],
    slewing: [
      { mass_kg: 8000, radius_m: -2 },
      { mass_kg: 4000, radius_m: 8 },
    ],
    from_deg: 0,
    to_deg: 360,
    step_deg: 5,
  },
  compute: (input) => reactionEnvelope(input),
})
