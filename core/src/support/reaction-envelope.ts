import { z } from 'zod'
import { defineCalculator } from '../calculator/define'
import { finite, positive } from '../calculator/measured'
import { sampleLegs } from '../calculator/sample'
import { Refusal } from '../refusal'
import { boundary, peakBetween } from '../search'
import { elasticReactions, upperReactions } from './elastic'
import { type Footprint, marginOf, prepareFootprint, type Support } from './footprint'
import { type FixedSums, resultantAt, type SlewingSums, sumFixed, sumSlewing } from './resultant'
import { footingInput, type Mass, type Moments, type SlewingMass, slewingInput } from './schema'

export interface Arc {
  from_deg: number
  to_deg: number
}

export interface LegEnvelope {
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
  supports: LegEnvelope[]
  margin: { least_m: number; at_deg: number }
  /** Where a leg carries nothing. */
  lifted: (Arc & { id: string })[]
  unstable: Arc[]
}

/** Least refinement of an angle, degrees. The value of a smooth extreme is then good to about the square of it. */
const angleTolerance_deg = 1e-7

/**
 * Extremes of every leg's load while the superstructure slews from one angle to another. Angles between samples are
 * refined: extremes by golden section about the best sample, ends of lifted and unstable arcs by bisection.
 */
export function envelopeOver(
  f: Footprint,
  fixed: FixedSums,
  slewing: SlewingSums,
  arc: Arc,
  step_deg: number,
  refine_deg = angleTolerance_deg,
): ReactionEnvelope {
  const { from_deg, to_deg } = arc
  const count = Math.max(1, Math.ceil(Math.abs(to_deg - from_deg) / step_deg - 1e-9))
  const at = (i: number) => from_deg + ((to_deg - from_deg) * i) / count
  const n = f.supports.length
  const scratch = new Float64Array(n)
  const where = (deg: number) => resultantAt(fixed, slewing, deg)
  const margin = (deg: number) => marginOf(f, where(deg))
  const solve = (kind: typeof elasticReactions, deg: number, leg: number) => {
    const r = where(deg)
    kind(f, r.x_m, r.y_m, r.force_N, scratch)
    return scratch[leg] as number
  }
  const stands = (deg: number) => margin(deg) > f.least_m

  const margins: number[] = []
  const elastic: Float64Array[] = []
  const upper: Float64Array[] = []
  for (let i = 0; i <= count; i++) {
    const r = where(at(i))
    const e = new Float64Array(n)
    const u = new Float64Array(n)
    margins.push(marginOf(f, r))
    if ((margins[i] as number) > f.least_m) {
      elasticReactions(f, r.x_m, r.y_m, r.force_N, e)
      upperReactions(f, r.x_m, r.y_m, r.force_N, u)
    }
    elastic.push(e)
    upper.push(u)
  }
  const standing = margins.map((m) => m > f.least_m)

  /** Greatest of sign·value over the standing samples, refined between the neighbours of the best one. */
  const extreme = (sign: 1 | -1, sample: (i: number) => number, exact: (deg: number) => number) => {
    let best = -1
    for (let i = 0; i <= count; i++) {
      if (standing[i] && (best < 0 || sign * sample(i) > sign * sample(best))) best = i
    }
    let [x, y] = [at(best), sample(best)]
    const a = Math.max(0, best - 1)
    const b = Math.min(count, best + 1)
    if (sign < 0 && y === 0) return { at_deg: x, value: 0 }
    // A peak between a standing and a fallen sample belongs to the standing side only.
    const left = standing[a] ? at(a) : boundary(stands, x, at(a), refine_deg)
    const right = standing[b] ? at(b) : boundary(stands, x, at(b), refine_deg)
    const p = peakBetween((deg) => sign * exact(deg), Math.min(left, right), Math.max(left, right), refine_deg)
    if (sign * y < p.y) [x, y] = [p.x, sign * p.y]
    return { at_deg: x, value: y }
  }

  let leastAt = 0
  margins.forEach((m, i) => {
    if (m < (margins[leastAt] as number)) leastAt = i
  })
  const around = [at(Math.max(0, leastAt - 1)), at(Math.min(count, leastAt + 1))].sort((a, b) => a - b) as [number, number]
  const refined = peakBetween((deg) => -margin(deg), around[0], around[1], refine_deg)
  const sampled = margins[leastAt] as number
  const least = -refined.y < sampled ? { least_m: -refined.y, at_deg: refined.x } : { least_m: sampled, at_deg: at(leastAt) }

  return {
    supports: standing.some(Boolean)
      ? f.supports.map((s, leg) => {
          const max = extreme(
            1,
            (i) => elastic[i]?.[leg] as number,
            (d) => solve(elasticReactions, d, leg),
          )
          const min = extreme(
            -1,
            (i) => elastic[i]?.[leg] as number,
            (d) => solve(elasticReactions, d, leg),
          )
          const up = extreme(
            1,
            (i) => upper[i]?.[leg] as number,
            (d) => solve(upperReactions, d, leg),
          )
          return {
            id: s.id,
            max_N: max.value,
            max_at_deg: max.at_deg,
            min_N: min.value,
            min_at_deg: min.at_deg,
            upper_N: Math.max(up.value, max.value),
            upper_at_deg: up.at_deg,
          }
        })
      : [],
    margin: least,
    lifted: f.supports.flatMap((s, leg) =>
      arcsWhere(
        (i) => standing[i] === true && elastic[i]?.[leg] === 0,
        (d) => stands(d) && solve(elasticReactions, d, leg) === 0,
        at,
        count,
      ).map((arc) => ({
        id: s.id,
        ...arc,
      })),
    ),
    unstable: arcsWhere(
      (i) => standing[i] === false,
      (d) => !stands(d),
      at,
      count,
    ),
  }
}

/** Stretches of the arc in which something holds, their ends found by bisection. */
function arcsWhere(
  sample: (i: number) => boolean,
  test: (deg: number) => boolean,
  at: (i: number) => number,
  count: number,
): Arc[] {
  const arcs: Arc[] = []
  let from: number | null = null
  for (let i = 0; i <= count; i++) {
    if (sample(i) && from === null) from = i === 0 ? at(0) : boundary(test, at(i), at(i - 1), angleTolerance_deg)
    if (from !== null && (!sample(i) || i === count)) {
      arcs.push({
        from_deg: from,
        to_deg: sample(i) ? at(i) : boundary(test, at(i - 1), at(i), angleTolerance_deg),
      })
      from = null
    }
  }
  return arcs
}

/** Leg loads while slewing. @throws Refusal as `support-reactions`, and `too-many-steps`. */
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
  const step_deg = input.step_deg ?? 1
  if (Math.abs(input.to_deg - input.from_deg) / step_deg > 100_000) {
    throw new Refusal('too-many-steps', 'The step is too fine for this arc; use a larger step_deg.', 'step_deg')
  }
  return envelopeOver(f, sumFixed(input.masses, input), sumSlewing(input.slewing), input, step_deg)
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
