import { z } from 'zod'
import { defineCalculator } from '../calculator/define'
import { nth } from '../list'
import { rad } from '../physics'
import type { Point } from '../plane/point'
import { finite, measured, notNegative, positive } from '../quantity/measured'
import { Refusal } from '../refusal'
import { prepareFootprint } from '../statics/footprint'

export interface Jack extends Point {
  id: string
  /** Where the jack stands now, between its ends, metres. */
  stroke_m: number
  min_m: number
  max_m: number
}

export interface JackMove {
  id: string
  /** What the jack itself moves, metres: up positive. */
  change_m: number
  /** What has to be packed under its foot because the stroke runs out, metres. */
  packing_m: number
}

export interface Levelling {
  jacks: JackMove[]
  /** In which order to work them: greatest movement first. */
  order: string[]
  residual: { pitch_deg: number; roll_deg: number }
  /** False when a jack would have to come down further than it can. */
  feasible: boolean
  /** Shares of the whole movement to go through in turn so that the tilt never passes limit_deg; null: not with jacks alone. */
  rounds: number
}

/** The plane through given rises that fits them best, as a pitch and roll in degrees. */
export function tiltOf(points: readonly (Point & { rise_m: number })[]): { pitch_deg: number; roll_deg: number } {
  const n = points.length
  const mx = points.reduce((s, p) => s + p.x_m, 0) / n
  const my = points.reduce((s, p) => s + p.y_m, 0) / n
  let [xx, xy, yy, xz, yz] = [0, 0, 0, 0, 0]
  for (const p of points) {
    const [x, y] = [p.x_m - mx, p.y_m - my]
    xx += x * x
    xy += x * y
    yy += y * y
    xz += x * p.rise_m
    yz += y * p.rise_m
  }
  const det = xx * yy - xy * xy
  return {
    pitch_deg: Math.asin(clamp((xz * yy - yz * xy) / det)) / rad,
    roll_deg: Math.asin(clamp((yz * xx - xz * xy) / det)) / rad,
  }
}
const clamp = (v: number) => Math.max(-1, Math.min(1, v))

/**
 * What each jack has to do to level the machine: rise −(x·sin p + y·sin r) + c. Raise-only: the least rise is 0.
 * Least-movement: the greatest movement is as small as the strokes let it be, half up and half down where nothing is in the way.
 *
 * Working several jacks in turn tilts the machine on the way; `rounds` is how many equal shares to split the movement
 * into so that the tilt stays within limit_deg (or within what it was at the start, if that was more).
 *
 * @throws Refusal for supports in a line, or a jack that stands outside its own ends.
 */
export function levelling(input: {
  supports: readonly Jack[]
  pitch_deg: number
  roll_deg: number
  strategy: 'raise-only' | 'least-movement'
  limit_deg?: number | undefined
}): Levelling {
  prepareFootprint(input.supports)
  input.supports.forEach((s, i) => {
    if (s.stroke_m < s.min_m - 1e-12 || s.stroke_m > s.max_m + 1e-12) {
      throw new Refusal(
        'stroke-outside',
        `Jack ${s.id} stands outside its own ends; correct stroke_m, min_m or max_m.`,
        `supports.${i}.stroke_m`,
      )
    }
  })
  const heights = input.supports.map((s) => s.x_m * Math.sin(input.pitch_deg * rad) + s.y_m * Math.sin(input.roll_deg * rad))
  const top = Math.max(...heights)
  const bottom = Math.min(...heights)
  // No jack comes down further than it can: everything is raised until none has to. Where it can be had, packing is spared.
  const least = Math.max(...input.supports.map((s, i) => nth(heights, i) + s.min_m - s.stroke_m))
  const most = Math.min(...input.supports.map((s, i) => nth(heights, i) + s.max_m - s.stroke_m))
  const wished = input.strategy === 'raise-only' ? top : Math.min((top + bottom) / 2, most)
  const c = Math.max(wished, least)
  let feasible = true
  const jacks = input.supports.map((s, i) => {
    const rise = c - nth(heights, i)
    const change_m = Math.min(s.max_m - s.stroke_m, Math.max(s.min_m - s.stroke_m, rise))
    const left = rise - change_m
    if (left < -1e-9) feasible = false
    return { id: s.id, change_m, packing_m: left > 1e-9 ? left : 0 }
  })
  const after = (share: number, upTo: number) =>
    tiltOf(
      input.supports.map((s, i) => {
        const j = nth(jacks, i)
        const moved = (j.change_m + j.packing_m) * (i <= upTo ? share : 0)
        return { x_m: s.x_m, y_m: s.y_m, rise_m: nth(heights, i) + moved }
      }),
    )
  const order = jacks
    .map((j) => ({ id: j.id, by: Math.abs(j.change_m + j.packing_m) }))
    .filter((j) => j.by > 1e-6)
    .sort((a, b) => b.by - a.by)
    .map((j) => j.id)
  const residual = feasible && order.length > 0 ? { pitch_deg: 0, roll_deg: 0 } : after(1, jacks.length)
  return {
    jacks,
    order,
    residual: feasible ? { pitch_deg: 0, roll_deg: 0 } : residual,
    feasible,
    rounds: roundsWithin(input, jacks, heights, order),
  }
}

/** The least number of equal rounds that keeps every intermediate tilt within the limit, at most 50. */
function roundsWithin(
  input: { supports: readonly Jack[]; pitch_deg: number; roll_deg: number; limit_deg?: number | undefined },
  jacks: readonly JackMove[],
  heights: readonly number[],
  order: readonly string[],
): number {
  if (input.limit_deg === undefined || order.length === 0) return 1
  const start = Math.max(Math.abs(input.pitch_deg), Math.abs(input.roll_deg))
  const limit = Math.max(input.limit_deg, start) + 1e-9
  for (let rounds = 1; rounds < 50; rounds++) {
    const moved = jacks.map(() => 0)
    let worst = 0
    for (let round = 0; round < rounds; round++) {
      for (const id of order) {
        const i = jacks.findIndex((j) => j.id === id)
        const j = nth(jacks, i)
        moved[i] = nth(moved, i) + (j.change_m + j.packing_m) / rounds
        const t = tiltOf(input.supports.map((s, k) => ({ x_m: s.x_m, y_m: s.y_m, rise_m: nth(heights, k) + nth(moved, k) })))
        worst = Math.max(worst, Math.abs(t.pitch_deg), Math.abs(t.roll_deg))
      }
    }
    if (worst <= limit) return rounds
  }
  return 50
}

export const levellingCalculator = defineCalculator({
  name: 'levelling',
  purpose: 'What each jack has to do to bring the machine level, in which order, with packing where a stroke runs out.',
  source: 'Plane geometry: a point (x, y) stands x·sin(pitch) + y·sin(roll) above the origin.',
  cautions: ['The bubble has to be proved before it is trusted.', 'Never tighten or pack under a leg that carries.'],
  input: z.strictObject({
    supports: z
      .array(
        z.strictObject({
          id: z.string().min(1),
          x_m: finite,
          y_m: finite,
          stroke_m: notNegative,
          min_m: notNegative,
          max_m: notNegative,
        }),
      )
      .max(32),
    pitch_deg: measured,
    roll_deg: measured,
    strategy: z.enum(['raise-only', 'least-movement']),
    limit_deg: positive.optional(),
  }),
  output: z.object({
    jacks: z.array(z.object({ id: z.string(), change_m: z.number(), packing_m: z.number() })),
    order: z.array(z.string()),
    residual: z.object({ pitch_deg: z.number(), roll_deg: z.number() }),
    feasible: z.boolean(),
    rounds: z.number(),
  }),
  worse: {
    jacks: { rows: 'id' },
    'jacks.*.id': 'given',
    'jacks.*.change_m': 'either',
    'jacks.*.packing_m': 'high',
    order: { with: 'rounds' },
    'residual.pitch_deg': 'either',
    'residual.roll_deg': 'either',
    feasible: false,
    rounds: 'high',
  },
  example: {
    supports: [
      { id: 'front-left', x_m: 2.9, y_m: 2.8, stroke_m: 0.2, min_m: 0.05, max_m: 0.55 },
      { id: 'front-right', x_m: 2.9, y_m: -2.8, stroke_m: 0.2, min_m: 0.05, max_m: 0.55 },
      { id: 'rear-right', x_m: -2.7, y_m: -2.8, stroke_m: 0.2, min_m: 0.05, max_m: 0.55 },
      { id: 'rear-left', x_m: -2.7, y_m: 2.8, stroke_m: 0.2, min_m: 0.05, max_m: 0.55 },
    ],
    pitch_deg: 1.2,
    roll_deg: -0.6,
    strategy: 'raise-only',
    limit_deg: 1.5,
  },
  compute: (input) => {
    for (const axis of ['pitch_deg', 'roll_deg'] as const) {
      if (Math.abs(input[axis]) > 15)
        throw new Refusal('too-steep', 'More than 15° is no set-up; move the machine to flatter ground.', axis)
    }
    return levelling(input)
  },
})
