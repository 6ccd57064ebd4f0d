import { z } from 'zod'
import { defineCalculator } from '../calculator/define'
import { nth } from '../list'
import { normalDegrees, rad } from '../physics'
import { insideLine, marginInside } from '../plane/hull'
import { atSlew } from '../plane/point'
import { inSector } from '../plane/sector'
import { finite, measuredNotNegative, positive } from '../quantity/measured'
import { Refusal } from '../refusal'
import { leastOn } from '../search'
import { prepareFootprint, type Support } from './footprint'
import { resultantAt, sumFixed, sumSlewing } from './resultant'
import { footingInput, type Mass, type Moments, type SlewingMass, slewingInput } from './schema'

/** Crawlers: the centre of gravity stands no further back than this share of the backward tipping distance. */
export const crawlerLimit_share = 0.7
/** On wheels or outriggers: at least so much of the weight stays on the side or end under the boom; where nothing is rated, less. */
const underBoom_share = { rated: 0.15, notRated: 0.1 } as const

export interface BackwardInput extends Moments {
  supports: readonly Support[]
  masses: readonly Mass[]
  slewing: readonly SlewingMass[]
  wind_N?: number | undefined
  windHeight_m?: number | undefined
  crawler: boolean
  notRated?: readonly { from_deg: number; to_deg: number }[] | undefined
  step_deg?: number | undefined
}

/**
 * Stability without a load at the least radius, all the way round, at the worse of no wind and wind from the front.
 *
 * `backwardShare` is how far the weight stands from the slew centre on the way to the edge behind it; `underBoomShare` how much of
 * the weight stays on the side or end under the boom. Crawlers are judged by the first (70 %), machines on wheels or outriggers by
 * the second (15 %, 10 % in the sectors of `notRated`).
 *
 * @throws Refusal as `support-reactions`; `centre-outside` when the slew centre is not inside the footprint.
 * Source: SAE J1289, ASME B30.5, ISO 4305, EN 13000.
 */
export function backwardStability(input: BackwardInput) {
  const f = prepareFootprint(input.supports)
  const sides = sidesOf(f.hull)
  const step = Math.min(2, input.step_deg ?? 1)
  if (360 / step > 20_000) throw new Refusal('too-many-steps', 'The step is too fine; use a larger step_deg.', 'step_deg')
  const fixed = sumFixed(input.masses, input)
  const slewing = sumSlewing(input.slewing)
  const push_Nm = (input.wind_N ?? 0) * (input.windHeight_m ?? 0)
  const calm = (deg: number) => resultantAt(fixed, slewing, deg)
  const blown = (deg: number) => {
    const r = calm(deg)
    const back = atSlew(push_Nm / r.force_N, deg)
    return { ...r, x_m: r.x_m - back.x_m, y_m: r.y_m - back.y_m }
  }
  const weather = push_Nm > 0 ? [calm, blown] : [calm]
  const margin = (deg: number) => Math.min(...weather.map((at) => marginInside(f.hull, at(deg)).margin_m))
  const shareBack = (deg: number) =>
    Math.max(...weather.flatMap((at) => sides.map((s) => 1 - insideLine(s.a, s.b, at(deg)) / s.held)))
  const shareUnder = (deg: number) => {
    const under = sideUnder(sides, deg)
    return Math.min(...weather.map((at) => 1 - insideLine(under.a, under.b, at(deg)) / under.depth))
  }
  const unrated = (deg: number) => (input.notRated ?? []).some((sector) => inSector({ sector }, deg))
  const needed = (deg: number) => (unrated(deg) ? underBoom_share.notRated : underBoom_share.rated)
  const least = leastOn(margin, 0, 360, step)
  const { edge } = marginInside(f.hull, push_Nm > 0 ? blown(least.x) : calm(least.x))
  const back = leastOn((deg) => -shareBack(deg), 0, 360, step)
  const underAt = leastByStepsAt((deg) => shareUnder(deg) / needed(deg), f.hull, step)
  const stable = least.y > f.least_m
  const backwardShare = -back.y
  const underBoomShare = shareUnder(underAt)
  const tipsOver: [string, string] = [edge[0].id, edge[1].id]
  return {
    stable,
    least_m: least.y,
    at_deg: least.x,
    edge: tipsOver,
    backwardShare,
    backwardAt_deg: back.x,
    underBoomShare,
    underBoomAt_deg: underAt,
    /** Share of the limit that is used: above 1 it is not kept. */
    utilisation: input.crawler
      ? backwardShare / crawlerLimit_share
      : underBoomShare > 1e-9
        ? needed(underAt) / underBoomShare
        : null,
    ok: stable && (input.crawler ? backwardShare <= crawlerLimit_share : underBoomShare >= needed(underAt) - 1e-12),
  }
}

/** One side of a footprint: how far inside it the slew centre stands, and how deep the footprint is from it, metres. */
interface Side {
  a: Support
  b: Support
  held: number
  depth: number
}

/** @throws Refusal `centre-outside` where the slew centre is not inside every side */
function sidesOf(hull: readonly Support[]): Side[] {
  const sides = hull.map((b, i) => {
    const a = nth(hull, (i + hull.length - 1) % hull.length)
    const depth = Math.max(...hull.map((p) => insideLine(a, b, p)))
    return { a, b, held: insideLine(a, b, { x_m: 0, y_m: 0 }), depth }
  })
  if (sides.some((s) => s.held <= 0)) {
    throw new Refusal('centre-outside', 'The slew centre stands outside the supports; check their positions.', 'supports')
  }
  return sides
}

/** The side that a line from the slew centre along the boom runs out over: its distance along that line is the least. */
function sideUnder(sides: readonly Side[], slew_deg: number): Side {
  const ahead = atSlew(1, slew_deg)
  const out = (s: Side) => s.held - insideLine(s.a, s.b, ahead)
  return sides.filter((s) => out(s) > 1e-12).reduce((m, s) => (s.held / out(s) < m.held / out(m) ? s : m))
}

/** Where a share is least that changes by steps at sides and sectors: every step and both sides of each corner are looked at. */
function leastByStepsAt(share: (deg: number) => number, hull: readonly Support[], step_deg: number): number {
  const angles = [...Array.from({ length: Math.ceil(360 / step_deg) + 1 }, (_, i) => i * step_deg), ...cornersOf(hull)]
  const worst = angles.reduce((m, deg) => (share(deg) < share(m) ? deg : m), 0)
  const near = leastOn(share, worst - step_deg, worst + step_deg, step_deg / 8)
  return near.y < share(worst) ? near.x : worst
}

/** Bearings of a footprint's corners from the slew centre, a hair to either side. */
const cornersOf = (hull: readonly Support[]) =>
  hull.flatMap((p) => {
    const deg = normalDegrees(Math.atan2(p.y_m, p.x_m) / rad)
    return [deg - 1e-6, deg + 1e-6]
  })

export const backwardStabilityCalculator = defineCalculator({
  name: 'backward-stability',
  purpose: 'Whether the machine could fall backwards without a load, boom up, wind from the front.',
  source:
    'Statics; crawlers 70 % of the backward tipping distance (ISO 4305, SAE J1289), else 15 % of the weight under the boom, 10 % where nothing is rated (ASME B30.5).',
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
    /** Sectors in which the table rates nothing, anticlockwise from–to. */
    notRated: z
      .array(z.strictObject({ from_deg: finite, to_deg: finite }))
      .max(20)
      .optional(),
    step_deg: positive.max(45, 'At most 45°.').optional(),
  }),
  output: z.object({
    stable: z.boolean(),
    least_m: z.number(),
    at_deg: z.number(),
    edge: z.tuple([z.string(), z.string()]),
    backwardShare: z.number(),
    backwardAt_deg: z.number(),
    underBoomShare: z.number(),
    underBoomAt_deg: z.number(),
    utilisation: z.number().nullable(),
    ok: z.boolean(),
  }),
  worse: {
    stable: false,
    least_m: 'low',
    at_deg: 'either',
    edge: { with: 'least_m' },
    backwardShare: 'high',
    backwardAt_deg: 'either',
    underBoomShare: 'low',
    underBoomAt_deg: 'either',
    utilisation: { worse: 'high', nothing: 'worst' },
    ok: false,
  },
  effort: 80,
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
