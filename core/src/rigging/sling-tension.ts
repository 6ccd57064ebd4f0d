import { z } from 'zod'
import { defineCalculator } from '../calculator/define'
import { nth } from '../list'
import { g_mps2, rad } from '../physics'
import { finite, measured, measuredNotNegative, measuredPositive, positive } from '../quantity/measured'
import { Refusal } from '../refusal'
import { hitches, hitchShare } from './hitch'

interface At {
  x_m: number
  y_m: number
  z_m: number
}

/** Sling legs flatter than this from the vertical are refused. */
const flattest_deg = 60

/**
 * Forces in n legs from one hook that hold a weight, exact: Σ T·u = W·ẑ, by least squares; null where no such forces exist
 * or one would have to push.
 */
export function legForces(hook: At, lifts: readonly At[], weight_N: number): number[] | null {
  const u = lifts.map((l) => {
    const [x, y, z] = [hook.x_m - l.x_m, hook.y_m - l.y_m, hook.z_m - l.z_m]
    const length = Math.hypot(x, y, z)
    return [x / length, y / length, z / length] as const
  })
  const n = u.length
  // Normal equations, at most three unknowns; they are positive definite or singular, so that no rows need be changed about.
  const a = u.map((p) => [...u.map((q) => p[0] * q[0] + p[1] * q[1] + p[2] * q[2]), p[2] * weight_N])
  for (let i = 0; i < n; i++) {
    const row = nth(a, i)
    if (Math.abs(nth(row, i)) < 1e-12) return null
    for (let r = 0; r < n; r++) {
      if (r === i) continue
      const other = nth(a, r)
      const by = nth(other, i) / nth(row, i)
      for (let c = i; c <= n; c++) other[c] = nth(other, c) - by * nth(row, c)
    }
  }
  const t = a.map((row, i) => nth(row, n) / nth(row, i))
  const left = [0, 1, 2].map((k) => t.reduce((s, f, i) => s + f * (u[i]?.[k] ?? 0), 0) - (k === 2 ? weight_N : 0))
  if (Math.hypot(...left) > 1e-6 * weight_N || t.some((f) => f < -1e-9 * weight_N)) return null
  return t.map((f) => Math.max(0, f))
}

const angleOf = (hook: At, l: At) => Math.atan2(Math.hypot(hook.x_m - l.x_m, hook.y_m - l.y_m), hook.z_m - l.z_m) / rad

/** Each three of four legs that could be left carrying everything: the greatest tension of each leg. Null: none can. */
function worstTriples(hook: At, lifts: readonly At[], weight_N: number): number[] | null {
  const worst = lifts.map(() => 0)
  let any = false
  for (const [skip] of lifts.entries()) {
    const set = lifts.map((_, i) => i).filter((i) => i !== skip)
    const forces = legForces(
      hook,
      set.map((i) => nth(lifts, i)),
      weight_N,
    )
    if (!forces) continue
    any = true
    set.forEach((i, k) => {
      worst[i] = Math.max(nth(worst, i), nth(forces, k))
    })
  }
  return any ? worst : null
}

/** Four legs, two carrying: the pairs across. Each end takes the larger share along its diagonal, over its own angle. */
function acrossPairs(hook: At, lifts: readonly At[], weight_N: number): number[] {
  const around = lifts
    .map((l, i) => ({ i, a: Math.atan2(l.y_m - hook.y_m, l.x_m - hook.x_m) }))
    .sort((a, b) => a.a - b.a)
    .map((x) => x.i)
  const out = lifts.map(() => 0)
  for (const first of [0, 1]) {
    const [i, j] = [nth(around, first), nth(around, first + 2)]
    const [a, b] = [nth(lifts, i), nth(lifts, j)]
    const [dx, dy] = [b.x_m - a.x_m, b.y_m - a.y_m]
    const s = ((hook.x_m - a.x_m) * dx + (hook.y_m - a.y_m) * dy) / (dx * dx + dy * dy)
    const share = Math.max(s, 1 - s)
    for (const k of [i, j]) out[k] = (share * weight_N) / Math.cos(angleOf(hook, nth(lifts, k)) * rad)
  }
  return out
}

export interface SlingLeg {
  id: string
  angle_deg: number
  tension_N: number
  utilisation: number | null
}

/** What each leg carries by the rule; null: the load cannot hang so. */
function balanced(hook: At, lifts: readonly At[], weight_N: number, rule: 'two' | 'three'): number[] | null {
  if (lifts.length === 1) return [weight_N]
  if (lifts.length <= 3) return legForces(hook, lifts, weight_N)
  // Balanced on some three of them, or it cannot hang so at all. Three that carry may load a leg more than two across do.
  const three = worstTriples(hook, lifts, weight_N)
  if (three === null || rule === 'three') return three
  const two = acrossPairs(hook, lifts, weight_N)
  return three.map((t, i) => Math.max(t, nth(two, i)))
}

/**
 * Tension in each sling leg of a load that hangs from one hook over its centre of gravity.
 *
 * Two and three legs are exact. Four: by default each leg at the greater of two across carrying everything (max(s, 1−s)·W/cos β)
 * and the worst three; `"three"` by policy: the worst three alone. @throws Refusal for legs flatter than 60° from the vertical, or a
 * hook not over the centre of gravity.
 */
export function slingTension(input: {
  mass_kg: number
  hook: At
  lifts: readonly (At & { id: string })[]
  rule: 'two' | 'three'
  limit_N: number | null
}): { legs: SlingLeg[]; headroom_m: number } {
  const { hook, lifts } = input
  const weight_N = input.mass_kg * g_mps2
  const angles = lifts.map((l) => angleOf(hook, l))
  angles.forEach((a, i) => {
    if (!(a <= flattest_deg + 1e-9)) {
      throw new Refusal(
        'sling-too-flat',
        `Sling ${lifts[i]?.id} hangs ${a.toFixed(0)}° from the vertical; more than ${flattest_deg}° is refused. Use longer slings or a spreader.`,
        `lifts.${i}`,
      )
    }
  })
  const forces = balanced(hook, lifts, weight_N, input.rule)
  if (!forces) {
    throw new Refusal(
      'not-in-balance',
      'With these lift points the load cannot hang still under the hook: its centre of gravity lies outside them or beside their line.',
      'lifts',
    )
  }
  return {
    legs: lifts.map((l, i) => ({
      id: l.id,
      angle_deg: nth(angles, i),
      tension_N: nth(forces, i),
      utilisation: input.limit_N === null ? null : nth(forces, i) / input.limit_N,
    })),
    headroom_m: hook.z_m - Math.min(...lifts.map((l) => l.z_m)),
  }
}

export const slingTensionCalculator = defineCalculator({
  name: 'sling-tension',
  purpose: 'Angle and tension of each sling leg, and what is used of its limit.',
  source: 'Statics in space; ASME B30.9 (choker angles), four legs: two carry unless policy says three.',
  cautions: [
    'The hook stands plumb over the centre of gravity, or the load tilts until it does.',
    'Edges, bends and chokers take strength: protect them.',
    'Tags and certificates decide what a sling may carry.',
  ],
  input: z.strictObject({
    mass_kg: measuredPositive,
    /** Height of the hook in the lift points' frame; where it hangs, unless it is straight over the centre of gravity. */
    hook: z.strictObject({ z_m: measured, x_m: measured.optional(), y_m: measured.optional() }),
    cg: z.strictObject({ x_m: measured, y_m: measured, z_m: measured.optional() }),
    lifts: z
      .array(z.strictObject({ id: z.string().min(1), x_m: measured, y_m: measured, z_m: measured }))
      .min(1, 'Give at least one lift point.')
      .max(4, 'At most four legs.'),
    hitch: z.enum(hitches),
    chokerAngle_deg: finite.min(0, 'At least 0°.').max(180, 'At most 180°.').optional(),
    basketAngle_deg: measuredNotNegative.optional(),
    bendRatio: positive.optional(),
    rule: z.enum(['two', 'three']),
    wll_kg: positive.optional(),
    eye_share: positive.max(1, 'At most 1.').optional(),
    shackle_kg: positive.optional(),
  }),
  output: z.object({
    legs: z.array(z.object({ id: z.string(), angle_deg: z.number(), tension_N: z.number(), utilisation: z.number().nullable() })),
    headroom_m: z.number(),
    limit_kg: z.number().nullable(),
    governs: z.enum(['sling', 'shackle']).nullable(),
    /** What could not be looked at with what was given. */
    notChecked: z.array(z.enum(['centre-of-gravity-height'])),
  }),
  worse: {
    legs: { rows: 'id' },
    'legs.*.id': 'given',
    'legs.*.angle_deg': 'high',
    'legs.*.tension_N': 'high',
    'legs.*.utilisation': 'high',
    headroom_m: 'high',
    limit_kg: 'low',
    governs: { with: 'limit_kg' },
    notChecked: { unite: true },
  },
  example: {
    mass_kg: { value: 2400, tolerance: 100 },
    hook: { z_m: 3.2 },
    cg: { x_m: 0.1, y_m: 0 },
    lifts: [
      { id: '1', x_m: 1.4, y_m: 0.6, z_m: 0.9 },
      { id: '2', x_m: -1.4, y_m: 0.6, z_m: 0.9 },
      { id: '3', x_m: -1.4, y_m: -0.6, z_m: 0.9 },
      { id: '4', x_m: 1.4, y_m: -0.6, z_m: 0.9 },
    ],
    hitch: 'straight',
    rule: 'two',
    wll_kg: 2000,
    shackle_kg: 3250,
  },
  compute: (input) => {
    const share = hitchShare(input.hitch, input)
    const sling = input.wll_kg === undefined ? null : input.wll_kg * share * (input.eye_share ?? 1)
    const shackle = input.shackle_kg ?? null
    const limit_kg = sling === null ? shackle : shackle === null ? sling : Math.min(sling, shackle)
    const ids = new Set(input.lifts.map((l) => l.id))
    if (ids.size < input.lifts.length) throw new Refusal('duplicate-lift', 'Two lift points have the same id.', 'lifts')
    const off_m = Math.hypot((input.hook.x_m ?? input.cg.x_m) - input.cg.x_m, (input.hook.y_m ?? input.cg.y_m) - input.cg.y_m)
    if (off_m > 1e-6) {
      throw new Refusal(
        'hook-beside',
        `The hook stands ${off_m.toFixed(2)} m beside the centre of gravity: the load would swing under it and tilt. Move the hook over it.`,
        'hook',
      )
    }
    requireHangsBelow(input.cg, input.lifts)
    const governs = limit_kg === null ? null : limit_kg === sling ? ('sling' as const) : ('shackle' as const)
    const answer = slingTension({
      mass_kg: input.mass_kg,
      hook: { x_m: input.cg.x_m, y_m: input.cg.y_m, z_m: input.hook.z_m },
      lifts: input.lifts,
      rule: input.rule,
      limit_N: limit_kg === null ? null : limit_kg * g_mps2,
    })
    const notChecked = input.cg.z_m === undefined ? ['centre-of-gravity-height' as const] : []
    return { ...answer, limit_kg, governs, notChecked }
  },
})

/** A load whose centre of gravity stands above its lift points can turn over about them; the lowest of them counts. */
function requireHangsBelow(cg: { x_m: number; y_m: number; z_m?: number | undefined }, lifts: readonly At[]): void {
  if (cg.z_m === undefined) return
  const lowest = Math.min(...lifts.map((l) => l.z_m))
  if (cg.z_m > lowest + 1e-9) {
    throw new Refusal(
      'top-heavy',
      'The centre of gravity stands above a lift point: the load can turn over. Sling it from above its centre of gravity.',
      'cg.z_m',
    )
  }
}
