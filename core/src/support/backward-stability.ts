import { z } from 'zod'
import { defineCalculator } from '../calculator/define'
import { measuredNotNegative, positive } from '../calculator/measured'
import { insideLine, marginInside } from '../plane/hull'
import { atSlew } from '../plane/point'
import { Refusal } from '../refusal'
import { leastOn } from '../search'
import { prepareFootprint, type Support } from './footprint'
import { resultantAt, sumFixed, sumSlewing } from './resultant'
import { footingInput, type Mass, type Moments, type SlewingMass, slewingInput } from './schema'

/** Crawlers: the centre of gravity stands no further back than this share of the backward tipping distance. */
const crawlerLimit_share = 0.7

/**
 * Stability without a load at the least radius, all the way round, wind from the front. The share is how far the centre of
 * gravity stands from the slew centre on the way to the edge, without wind.
 *
 * @throws Refusal as `support-reactions`; `centre-outside` when the slew centre is not inside the footprint.
 * Source: SAE J1289, ASME B30.5 (70 % for crawlers), EN 13000.
 */
export function backwardStability(
  input: {
    supports: readonly Support[]
    masses: readonly Mass[]
    slewing: readonly SlewingMass[]
    wind_N?: number | undefined
    windHeight_m?: number | undefined
    crawler: boolean
    step_deg?: number | undefined
  } & Moments,
) {
  const f = prepareFootprint(input.supports)
  const fixed = sumFixed(input.masses, input)
  const slewing = sumSlewing(input.slewing)
  const push_Nm = (input.wind_N ?? 0) * (input.windHeight_m ?? 0)
  const calm = (deg: number) => resultantAt(fixed, slewing, deg)
  const blown = (deg: number) => {
    const r = calm(deg)
    const back = atSlew(push_Nm / r.force_N, deg)
    return { ...r, x_m: r.x_m - back.x_m, y_m: r.y_m - back.y_m }
  }
  const step = input.step_deg ?? 1
  if (360 / step > 100_000) throw new Refusal('too-many-steps', 'The step is too fine; use a larger step_deg.', 'step_deg')
  const least = leastOn((deg) => marginInside(f.hull, blown(deg)).margin_m, 0, 360, step)
  const { edge } = marginInside(f.hull, blown(least.x))
  const centre = { x_m: 0, y_m: 0 }
  const edges = f.hull.map((b, i) => [f.hull[(i + f.hull.length - 1) % f.hull.length] as Support, b] as const)
  const held = edges.map(([a, b]) => insideLine(a, b, centre))
  if (held.some((d) => d <= 0)) {
    throw new Refusal('centre-outside', 'The slew centre stands outside the supports; check their positions.', 'supports')
  }
  const shareAt = (deg: number) => {
    const r = calm(deg)
    return Math.max(...edges.map(([a, b], i) => 1 - insideLine(a, b, r) / (held[i] as number)))
  }
  const share = leastOn((deg) => -shareAt(deg), 0, 360, step)
  const stable = least.y > f.least_m
  return {
    stable,
    least_m: least.y,
    at_deg: least.x,
    edge: [edge[0].id, edge[1].id] as [string, string],
    backwardShare: -share.y,
    backwardAt_deg: share.x,
    ok: stable && (!input.crawler || -share.y <= crawlerLimit_share),
  }
}

export const backwardStabilityCalculator = defineCalculator({
  name: 'backward-stability',
  purpose: 'Whether the machine could fall backwards without a load, boom up, wind from the front.',
  source: 'Statics; SAE J1289, ASME B30.5 (crawlers: 70 % of the backward tipping distance), EN 13000.',
  cautions: [
    'Take the boom at its least radius and the full counterweight: that is when it is worst.',
    'A load let go suddenly throws the boom back; that is not in here.',
  ],
  input: z.strictObject({
    ...footingInput,
    slewing: z.array(slewingInput).max(1000),
    wind_N: measuredNotNegative.optional(),
    windHeight_m: measuredNotNegative.optional(),
    crawler: z.boolean(),
    step_deg: positive.max(45, 'At most 45°.').optional(),
  }),
  output: z.object({
    stable: z.boolean(),
    least_m: z.number(),
    at_deg: z.number(),
    edge: z.tuple([z.string(), z.string()]),
    backwardShare: z.number(),
    backwardAt_deg: z.number(),
    ok: z.boolean(),
  }),
  example: {
    supports: [
      { id: 'front-left', x_m: 2.6, y_m: 2.1 },
      { id: 'front-right', x_m: 2.6, y_m: -2.1 },
      { id: 'rear-right', x_m: -2.6, y_m: -2.1 },
      { id: 'rear-left', x_m: -2.6, y_m: 2.1 },
    ],
    masses: [{ mass_kg: 22000, x_m: 0, y_m: 0 }],
    slewing: [
      { mass_kg: 14000, radius_m: -3.4 },
      { mass_kg: 6000, radius_m: 4.1 },
    ],
    wind_N: 3000,
    windHeight_m: 12,
    crawler: true,
  },
  compute: (input) => {
    if ((input.wind_N === undefined) !== (input.windHeight_m === undefined)) {
      throw new Refusal(
        'missing-field',
        'Give wind_N and windHeight_m together.',
        input.wind_N === undefined ? 'wind_N' : 'windHeight_m',
      )
    }
    return backwardStability(input)
  },
})
