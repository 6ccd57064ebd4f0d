import fc from 'fast-check'
// quadprog ships no types; its one function is declared where it is used.
// @types: solveQP(D, d, A, b, meq) with one-based arrays.
import quadprog from 'quadprog'
import { describe, expect, it } from 'vitest'
import {
  calculatorNamed,
  convexHull,
  g_mps2,
  isRefusal,
  marginInside,
  reactionEnvelope,
  supportReactions,
  tippingLoad,
} from '../src'
import { prepareFootprint } from '../src/statics/footprint'
import { reactionsAt } from '../src/statics/support-reactions'
import { upperAlong } from '../src/statics/upper-along'
import { runs } from './runs'

/** Centimetres, so that no two supports are a hair apart. */
const coordinate = fc.integer({ min: -800, max: 800 }).map((cm) => cm / 100)
const supportsOf = (n: [number, number]) =>
  fc
    .array(fc.record({ x_m: coordinate, y_m: coordinate, stiffness_N_per_m: fc.double({ min: 1e6, max: 2e7, noNaN: true }) }), {
      minLength: n[0],
      maxLength: n[1],
    })
    .map((list) => list.map((s, i) => ({ id: `S${i}`, ...s })))
    .filter((list) => {
      if (new Set(list.map((p) => `${p.x_m} ${p.y_m}`)).size < list.length) return false
      const hull = convexHull(list)
      if (hull.length < 3) return false
      const c = { x_m: hull.reduce((s, p) => s + p.x_m, 0) / hull.length, y_m: hull.reduce((s, p) => s + p.y_m, 0) / hull.length }
      return marginInside(hull, c).margin_m > 0.2
    })

/** A point well inside the supports' hull: a weighted mean of its corners, all weights above nothing. */
const loadedCase = supportsOf([4, 6]).chain((supports) => {
  const hull = convexHull(supports)
  return fc.array(fc.double({ min: 0.02, max: 1, noNaN: true }), { minLength: hull.length, maxLength: hull.length }).map((w) => {
    const sum = w.reduce((a, b) => a + b, 0)
    return {
      supports,
      mass: {
        mass_kg: 40_000,
        x_m: hull.reduce((s, p, i) => s + (w[i] as number) * p.x_m, 0) / sum,
        y_m: hull.reduce((s, p, i) => s + (w[i] as number) * p.y_m, 0) / sum,
      },
    }
  })
})

function byQuadraticProgramme(
  supports: { x_m: number; y_m: number; stiffness_N_per_m: number }[],
  at: { x_m: number; y_m: number },
): number[] {
  const n = supports.length
  const one = <T>(list: T[]) => [undefined as unknown as T, ...list]
  const k0 = supports[0]?.stiffness_N_per_m ?? 1
  const D = one(supports.map((s, i) => one(supports.map((_, j) => (i === j ? k0 / s.stiffness_N_per_m : 0)))))
  const zero = one(supports.map(() => 0))
  const A = one(supports.map((s, i) => one([1, s.x_m, s.y_m, ...supports.map((_, j) => (i === j ? 1 : 0))])))
  const b = one([1, at.x_m, at.y_m, ...supports.map(() => 0)])
  const { solution, message } = quadprog.solveQP(D, zero, A, b, 3)
  if (message) throw new Error(message)
  return Array.from({ length: n }, (_, i) => solution[i + 1] as number)
}

const square = (half: number) => [
  { id: 'A', x_m: half, y_m: half },
  { id: 'B', x_m: half, y_m: -half },
  { id: 'C', x_m: -half, y_m: -half },
  { id: 'D', x_m: -half, y_m: half },
]

describe('support-reactions', () => {
  it('shares a centred load on a square in quarters, with half as the upper bound', () => {
    const W = 40_000 * g_mps2
    const r = supportReactions({ supports: square(3), masses: [{ mass_kg: 40_000, x_m: 0, y_m: 0 }] })
    expect(r.margin_m).toBeCloseTo(3, 12)
    for (const outrigger of r.reactions ?? []) {
      expect(outrigger.reaction_N / W).toBeCloseTo(0.25, 12)
      expect(outrigger.upper_N / W).toBeCloseTo(0.5, 12)
    }
  })

  it('solves three legs exactly by their lever arms', () => {
    const supports = [
      { id: 'A', x_m: 0, y_m: 0 },
      { id: 'B', x_m: 6, y_m: 0 },
      { id: 'C', x_m: 0, y_m: 4 },
    ]
    const r = supportReactions({ supports, masses: [{ mass_kg: 1000, x_m: 1.5, y_m: 1 }] })
    const share = (r.reactions ?? []).map((l) => l.reaction_N / (1000 * g_mps2))
    expect(share[0]).toBeCloseTo(0.5, 12)
    expect(share[1]).toBeCloseTo(0.25, 12)
    expect(share[2]).toBeCloseTo(0.25, 12)
  })

  it('agrees with a general quadratic programme case by case, in equilibrium, never pulling', () => {
    fc.assert(
      fc.property(loadedCase, ({ supports, mass }) => {
        const r = supportReactions({ supports, masses: [mass] })
        const W = mass.mass_kg * g_mps2
        if (!r.reactions) throw new Error('should stand')
        const expected = byQuadraticProgramme(supports, mass)
        r.reactions.forEach((outrigger, i) => {
          expect(Math.abs(outrigger.reaction_N / W - (expected[i] as number))).toBeLessThan(1e-6)
          expect(outrigger.reaction_N).toBeGreaterThanOrEqual(0)
          expect(outrigger.upper_N).toBeGreaterThanOrEqual(outrigger.reaction_N)
        })
        const sum = (f: (i: number) => number) =>
          r.reactions?.reduce((s, outrigger, i) => s + outrigger.reaction_N * f(i), 0) ?? 0
        expect(Math.abs(sum(() => 1) - W)).toBeLessThan(1e-9 * W)
        expect(Math.abs(sum((i) => supports[i]?.x_m ?? 0) - W * mass.x_m)).toBeLessThan(1e-8 * W)
        expect(Math.abs(sum((i) => supports[i]?.y_m ?? 0) - W * mass.y_m)).toBeLessThan(1e-8 * W)
      }),
      { numRuns: runs(10_000) },
    )
  })

  it('stands in equilibrium where the load hangs almost on the line between two legs and the rest barely touch', () => {
    const at: [number, number, number][] = [
      [7.04, 0.86, 1171957.805765648],
      [-6.15, -6.06, 4936431.429371495],
      [-0.56, 6.03, 1007824.2583214294],
      [0.51, 1.95, 7262387.56327617],
      [-0.76, 4.39, 8825808.047282564],
    ]
    const supports = at.map(([x_m, y_m, stiffness_N_per_m], i) => ({ id: `S${i}`, x_m, y_m, stiffness_N_per_m }))
    const mass = { mass_kg: 40_000, x_m: -0.6324631653140929, y_m: 5.435945300995657 }
    const W = mass.mass_kg * g_mps2
    const outriggers = supportReactions({ supports, masses: [mass] }).reactions ?? []
    const sum = (f: (i: number) => number) => outriggers.reduce((s, outrigger, i) => s + outrigger.reaction_N * f(i), 0)
    expect(Math.abs(sum(() => 1) - W)).toBeLessThan(1e-9 * W)
    expect(Math.abs(sum((i) => supports[i]?.x_m ?? 0) - W * mass.x_m)).toBeLessThan(1e-9 * W)
    expect(Math.abs(sum((i) => supports[i]?.y_m ?? 0) - W * mass.y_m)).toBeLessThan(1e-9 * W)
    byQuadraticProgramme(supports, mass).forEach((share, i) => {
      expect((outriggers[i]?.reaction_N ?? 0) / W).toBeCloseTo(share, 9)
    })
  })

  it('is mirrored by a mirrored machine and scales with the mass', () => {
    fc.assert(
      fc.property(loadedCase, fc.double({ min: 0.1, max: 20, noNaN: true }), ({ supports, mass }, factor) => {
        const a = supportReactions({ supports, masses: [mass] })
        const b = supportReactions({
          supports: supports.map((s) => ({ ...s, y_m: -s.y_m })),
          masses: [{ ...mass, y_m: -mass.y_m, mass_kg: mass.mass_kg * factor }],
        })
        a.reactions?.forEach((outrigger, i) => {
          expect(b.reactions?.[i]?.reaction_N).toBeCloseTo(outrigger.reaction_N * factor, 1)
        })
      }),
    )
  })

  it('adds right-hand moments to the weights', () => {
    const masses = [{ mass_kg: 10_000, x_m: 0, y_m: 0 }]
    const W = 10_000 * g_mps2
    const pitched = supportReactions({ supports: square(3), masses, moment_y_Nm: W * 0.5 })
    expect(pitched.resultant.x_m).toBeCloseTo(0.5, 12)
    const rolled = supportReactions({ supports: square(3), masses, moment_x_Nm: W * 0.5 })
    expect(rolled.resultant.y_m).toBeCloseTo(-0.5, 12)
  })

  it('has no reactions to give when the weight stands on or outside the edge', () => {
    for (const x_m of [3, 3.4]) {
      const r = supportReactions({ supports: square(3), masses: [{ mass_kg: 1, x_m, y_m: 0 }] })
      expect(r.stable).toBe(false)
      expect(r.reactions).toBeNull()
      expect(r.margin_m).toBeCloseTo(3 - x_m, 12)
    }
  })
})

const run = (name: string, input: unknown) => calculatorNamed(name)?.run(input) as Record<string, never>

describe('refusals', () => {
  it.each([
    [
      'legs in a line',
      { supports: [0, 1, 2].map((i) => ({ id: `${i}`, x_m: i, y_m: 2 * i })), masses: [{ mass_kg: 1, x_m: 0, y_m: 0 }] },
      'collinear-supports',
      'supports',
    ],
    ['two legs', { supports: square(1).slice(2), masses: [] }, 'too-few-supports', 'supports'],
    ['a negative mass', { supports: square(1), masses: [{ mass_kg: -5, x_m: 0, y_m: 0 }] }, 'bad-input', 'masses.0.mass_kg'],
    ['an unknown field', { supports: square(1), masses: [], wind: 3 }, 'unknown-field', 'wind'],
    ['a missing field', { supports: square(1) }, 'missing-field', 'masses'],
    ['nothing that weighs', { supports: square(1), masses: [] }, 'no-weight', 'masses'],
    ['infinity', { supports: square(1), masses: [{ mass_kg: Infinity, x_m: 0, y_m: 0 }] }, 'bad-input', 'masses.0.mass_kg'],
  ])('names the field for %s', (_what, input, code, path) => {
    expect(run('support-reactions', input)).toMatchObject({ error: { code, path } })
  })

  it('never throws and never answers NaN to malformed inputs', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(
          'support-reactions',
          'tipping-load',
          'levelling',
          'ground-pressure',
          'wind-limit',
          'chart-reading',
          'telescopic-geometry',
          'reaction-envelope',
        ),
        fc.object({ maxDepth: 3 }),
        (name, input) => {
          expect(isRefusal(run(name, input))).toBe(true)
        },
      ),
      { numRuns: runs(10_000) },
    )
  })
})

describe('tolerances', () => {
  it('carry low and high beside the nominal, at the corners', () => {
    const r = run('support-reactions', {
      supports: square(3),
      masses: [{ mass_kg: { value: 1000, tolerance: 100 }, x_m: { value: 0, tolerance: 0.3 }, y_m: 0 }],
    }) as unknown as {
      resultant: { force_N: number }
      low: { resultant: { force_N: number; x_m: number } }
      high: { resultant: { force_N: number; x_m: number } }
    }
    expect(r.resultant.force_N).toBeCloseTo(1000 * g_mps2, 9)
    expect(r.low.resultant.force_N).toBeCloseTo(900 * g_mps2, 9)
    expect(r.high.resultant.x_m).toBeCloseTo(0.3, 12)
  })
})

describe('reaction-envelope', () => {
  const slewing = [
    { mass_kg: 8000, radius_m: 9 },
    { mass_kg: 5000, radius_m: -2.5 },
  ]
  const masses = [{ mass_kg: 24_000, x_m: 0.8, y_m: 0 }]

  it('holds every single angle between its extremes', () => {
    const e = reactionEnvelope({ supports: square(3.5), masses, slewing, from_deg: 0, to_deg: 360, step_deg: 5 })
    fc.assert(
      fc.property(fc.double({ min: 0, max: 360, noNaN: true }), (deg) => {
        const a = (deg * Math.PI) / 180
        const r = supportReactions({
          supports: square(3.5),
          masses: [
            ...masses,
            ...slewing.map((s) => ({ mass_kg: s.mass_kg, x_m: s.radius_m * Math.cos(a), y_m: s.radius_m * Math.sin(a) })),
          ],
        })
        r.reactions?.forEach((outrigger, i) => {
          const env = e.supports[i]
          if (!env) throw new Error('missing leg')
          expect(outrigger.reaction_N).toBeLessThanOrEqual(env.max_N * (1 + 1e-9))
          expect(outrigger.reaction_N).toBeGreaterThanOrEqual(env.min_N * (1 - 1e-9) - 1e-6)
          expect(outrigger.upper_N).toBeLessThanOrEqual(env.upper_N * (1 + 1e-9))
        })
        expect(r.margin_m).toBeGreaterThanOrEqual(e.margin.least_m - 1e-9)
      }),
    )
  })

  it('finds the peak over a leg to its closed form, off the samples', () => {
    // All four in contact: R over a corner = W/4 + M(cos+sin)/(4·half); greatest at 45°, which a 40° step misses.
    const e = reactionEnvelope({
      supports: square(4),
      masses: [{ mass_kg: 40_000, x_m: 0, y_m: 0 }],
      slewing: [{ mass_kg: 2000, radius_m: 6 }],
      from_deg: 0,
      to_deg: 360,
      step_deg: 40,
    })
    const expected = (g_mps2 * 42_000) / 4 + (g_mps2 * 2000 * 6 * Math.SQRT2) / (4 * 4)
    expect(e.supports[0]?.max_N).toBeCloseTo(expected, 3)
    expect(e.supports[0]?.max_at_deg).toBeCloseTo(45, 2)
  })

  it('names the arcs in which a leg is off the ground and the machine falls', () => {
    const e = reactionEnvelope({
      supports: square(2),
      masses: [{ mass_kg: 10_000, x_m: 0, y_m: 0 }],
      slewing: [{ mass_kg: 4000, radius_m: 7.4 }],
      from_deg: 0,
      to_deg: 360,
      step_deg: 3,
    })
    // Resultant radius 4·7.4/14 = 2.114 m: outside the square of half 2 about each axis direction, by acos(2/2.114).
    const off = (Math.acos(2 / ((4000 * 7.4) / 14_000)) * 180) / Math.PI
    expect(e.unstable).toHaveLength(5)
    expect(e.unstable[1]?.from_deg).toBeCloseTo(90 - off, 4)
    expect(e.unstable[1]?.to_deg).toBeCloseTo(90 + off, 4)
    expect(e.lifted.some((l) => l.id === 'C')).toBe(true)
  })
})

describe('tipping-load', () => {
  const masses = [{ mass_kg: 30_000, x_m: 0, y_m: 0 }]
  it('balances about the edge: closed form over a side', () => {
    const t = tippingLoad({ supports: square(3), masses, slewing: [], radius_m: 10, slew_deg: 90, rule: '75%' })
    expect(t.tippingLoad_kg).toBeCloseTo((30_000 * 3) / 7, 6)
    expect(t.ratedByStability_kg).toBeCloseTo((0.75 * 30_000 * 3) / 7, 6)
    expect(t.edge).toEqual(['A', 'D'])
  })

  it('puts the resultant on the edge when exactly that load is hung', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 360, noNaN: true }),
        fc.double({ min: 5, max: 20, noNaN: true }),
        (slew_deg, radius_m) => {
          const t = tippingLoad({
            supports: square(3),
            masses,
            slewing: [{ mass_kg: 4000, radius_m: -2 }],
            radius_m,
            slew_deg,
            rule: '75%',
          })
          const a = (slew_deg * Math.PI) / 180
          const at = (r: number) => ({ x_m: r * Math.cos(a), y_m: r * Math.sin(a) })
          const r = supportReactions({
            supports: square(3),
            masses: [...masses, { mass_kg: 4000, ...at(-2) }, { mass_kg: t.tippingLoad_kg ?? 0, ...at(radius_m) }],
          })
          expect(Math.abs(r.margin_m)).toBeLessThan(1e-9)
        },
      ),
    )
  })

  it('never tips sooner on a wider footprint', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 360, noNaN: true }),
        fc.double({ min: 1.5, max: 3, noNaN: true }),
        fc.double({ min: 0, max: 2, noNaN: true }),
        (slew_deg, half, more) => {
          const load = (h: number) =>
            tippingLoad({ supports: square(h), masses, slewing: [], radius_m: 12, slew_deg, rule: '75%' }).tippingLoad_kg ??
            Infinity
          expect(load(half + more)).toBeGreaterThanOrEqual(load(half) * (1 - 1e-12))
        },
      ),
    )
  })

  it('reduces by the head mass with 1.25P + 0.1F, never below nothing', () => {
    const base = { supports: square(3), masses, slewing: [], radius_m: 10, slew_deg: 0, rule: '1.25P+0.1F' as const }
    const T = (30_000 * 3) / 7
    expect(tippingLoad({ ...base, boomHead_kg: 1000 }).ratedByStability_kg).toBeCloseTo((T - 100) / 1.25, 6)
    expect(tippingLoad({ ...base, boomHead_kg: 1e7 }).ratedByStability_kg).toBe(0)
  })

  it('has nothing to tip with the hook inside, and refuses a machine that falls unloaded', () => {
    const inside = tippingLoad({ supports: square(3), masses, slewing: [], radius_m: 2, slew_deg: 30, rule: '75%' })
    expect(inside).toEqual({ tippingLoad_kg: null, edge: null, ratedByStability_kg: null })
    expect(
      run('tipping-load', {
        supports: square(3),
        masses: [{ mass_kg: 1, x_m: 5, y_m: 0 }],
        slewing: [],
        radius_m: 2,
        slew_deg: 0,
        rule: '75%',
      }),
    ).toMatchObject({ error: { code: 'unstable-unloaded' } })
  })
})

describe('the upper bound along a line', () => {
  it('peaks where the way crosses a line through two supports: a square, closed form', () => {
    const square = prepareFootprint([
      { id: 'FL', x_m: 1, y_m: 1 },
      { id: 'FR', x_m: 1, y_m: -1 },
      { id: 'RR', x_m: -1, y_m: -1 },
      { id: 'RL', x_m: -1, y_m: 1 },
    ])
    const [fl] = upperAlong(square, { x_m: -0.4, y_m: 0 }, { x_m: 0.2, y_m: -0.6 }, 1000)
    expect(fl?.upper_N).toBeCloseTo(400, 9)
    expect(fl?.t).toBeCloseTo(1 / 3, 9)
  })
  it('is nowhere less than what any point on the way gives', () => {
    const inside = fc.double({ min: -1, max: 1, noNaN: true })
    const corner = fc.record({ x: fc.double({ min: 1.2, max: 3, noNaN: true }), y: fc.double({ min: 1.2, max: 3, noNaN: true }) })
    fc.assert(
      fc.property(fc.array(corner, { minLength: 4, maxLength: 4 }), fc.array(inside, { minLength: 4, maxLength: 4 }), (c, p) => {
        const supports = c.map(({ x, y }, i) => ({ id: `${i}`, x_m: i < 2 ? x : -x, y_m: i % 3 === 0 ? y : -y }))
        const f = prepareFootprint(supports)
        const [from, to] = [
          { x_m: p[0] as number, y_m: p[1] as number },
          { x_m: p[2] as number, y_m: p[3] as number },
        ]
        const best = upperAlong(f, from, to, 1)
        for (let k = 0; k <= 60; k++) {
          const at = (a: number, b: number) => a + (k / 60) * (b - a)
          const r = reactionsAt(f, { x_m: at(from.x_m, to.x_m), y_m: at(from.y_m, to.y_m), force_N: 1 })
          r.reactions?.forEach((x, i) => {
            expect(x.upper_N).toBeLessThanOrEqual((best[i]?.upper_N ?? 0) + 1e-9)
          })
        }
      }),
      { numRuns: runs(1000, 100) },
    )
  })
})
