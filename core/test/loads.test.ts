import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  calculatorNamed,
  foldingPoses,
  foldingTip,
  g_mps2,
  hitchShare,
  hookTravel,
  hydraulicForce,
  legForces,
  loadMass,
  Refusal,
  rad,
  recovery,
  shareOfTwo,
  slingTension,
  winchPull,
} from '../src'

const run = (name: string, input: unknown) =>
  calculatorNamed(name)?.run(input) as Record<string, never> & { error?: { code: string; path: string } }
const origin = { x_m: 0, y_m: 0, z_m: 0 }
const between = (min: number, max: number) => fc.double({ min, max, noNaN: true })

describe('load-mass', () => {
  it('weighs simple solids as their closed forms say', () => {
    const one = (part: object) => loadMass({ parts: [{ at: origin, ...part } as never] }).mass_kg
    expect(one({ shape: 'box', length_m: 2, width_m: 3, height_m: 4, material: 'water' })).toBeCloseTo(24_000, 6)
    expect(one({ shape: 'sphere', diameter_m: 2, density_kg_m3: 1000 })).toBeCloseTo((4 / 3) * Math.PI * 1000, 6)
    expect(one({ shape: 'cone', diameter_m: 2, height_m: 3, density_kg_m3: 1000 })).toBeCloseTo(Math.PI * 1000, 6)
    expect(one({ shape: 'section', length_m: 6, width_m: 0.2, height_m: 0.2, axis: 'x', mass_kg_per_m: 42 })).toBe(252)
    expect(
      one({ shape: 'tank', length_m: 1, width_m: 1, height_m: 2, empty_kg: 300, filled_share: 0.5, material: 'water' }),
    ).toBeCloseTo(1300, 9)
  })
  it('holds a tube between nothing and the cylinder round it, and a wall of half the diameter is that cylinder', () => {
    fc.assert(
      fc.property(between(0.1, 3), between(0.01, 1), between(0.1, 5), (diameter_m, share, length_m) => {
        const shape = { diameter_m, length_m, axis: 'x' as const, density_kg_m3: 7850 }
        const tube = loadMass({ parts: [{ shape: 'tube', ...shape, at: origin, wall_m: (share * diameter_m) / 2 }] }).mass_kg
        const solid = loadMass({ parts: [{ shape: 'cylinder', ...shape, at: origin }] }).mass_kg
        expect(tube).toBeLessThanOrEqual(solid * (1 + 1e-12))
        expect(tube).toBeCloseTo(solid * (1 - (1 - share) ** 2), 5)
      }),
    )
  })
  it('moves its centre of gravity with its parts, and stays inside their box', () => {
    const place = fc.record({ x_m: between(-5, 5), y_m: between(-5, 5), z_m: between(0, 5) })
    fc.assert(
      fc.property(fc.array(fc.tuple(place, between(1, 5000)), { minLength: 1, maxLength: 6 }), place, (parts, by) => {
        const of = (shift: typeof by | null) =>
          loadMass({
            parts: parts.map(([at, mass_kg]) => ({
              shape: 'box' as const,
              length_m: 0.1,
              width_m: 0.1,
              height_m: 0.1,
              mass_kg,
              at: shift ? { x_m: at.x_m + shift.x_m, y_m: at.y_m + shift.y_m, z_m: at.z_m + shift.z_m } : at,
            })),
          })
        const [a, b] = [of(null), of(by)]
        expect(b.cg.x_m - a.cg.x_m).toBeCloseTo(by.x_m, 8)
        expect(b.cg.z_m - a.cg.z_m).toBeCloseTo(by.z_m, 8)
        expect(a.cg.x_m).toBeGreaterThanOrEqual(Math.min(...parts.map(([p]) => p.x_m)) - 1e-9)
        expect(a.cg.x_m).toBeLessThanOrEqual(Math.max(...parts.map(([p]) => p.x_m)) + 1e-9)
      }),
    )
  })
  it('asks for one of material, density or mass, and queries a load of forty thousand tonnes', () => {
    const box = { shape: 'box', length_m: 1, width_m: 1, height_m: 1, at: origin }
    expect(run('load-mass', { parts: [box] }).error?.path).toBe('parts.0.material')
    expect(run('load-mass', { parts: [{ ...box, material: 'steel', mass_kg: 3 }] }).error?.code).toBe('one-of-three')
    expect(run('load-mass', { parts: [{ ...box, mass_kg: 40_000_000 }] })).toMatchObject({
      warnings: [expect.stringContaining('units')],
    })
  })
})

describe('sling-tension', () => {
  const two = (x1: number, x2: number, h: number, mass_kg = 1000) =>
    slingTension({
      mass_kg,
      hook: { x_m: 0, y_m: 0, z_m: h },
      lifts: [
        { id: '1', x_m: x1, y_m: 0, z_m: 0 },
        { id: '2', x_m: -x2, y_m: 0, z_m: 0 },
      ],
      rule: 'two',
      limit_N: null,
    })
  it('of two legs is W·sin β₂/sin(β₁ + β₂)', () => {
    fc.assert(
      fc.property(between(0.2, 2), between(0.2, 2), between(2, 6), (a, b, h) => {
        const [b1, b2] = [Math.atan2(a, h), Math.atan2(b, h)]
        const { legs } = two(a, b, h)
        const W = 1000 * g_mps2
        expect(legs[0]?.tension_N).toBeCloseTo((W * Math.sin(b2)) / Math.sin(b1 + b2), 5)
        expect(legs[1]?.tension_N).toBeCloseTo((W * Math.sin(b1)) / Math.sin(b1 + b2), 5)
      }),
    )
  })
  it('of three legs holds the weight up and nothing sideways', () => {
    fc.assert(
      fc.property(between(0.3, 1.5), between(0.3, 1.5), between(0.3, 1.5), between(2.7, 6), (a, b, c, h) => {
        const at = [0, 120, 240].map((d, i) => {
          const r = [a, b, c][i] as number
          return { x_m: r * Math.cos(d * rad), y_m: r * Math.sin(d * rad), z_m: 0 }
        })
        const hook = { x_m: 0, y_m: 0, z_m: h }
        const t = legForces(hook, at, 5000) as number[]
        const sum = [0, 0, 0]
        at.forEach((p, i) => {
          const d = [hook.x_m - p.x_m, hook.y_m - p.y_m, hook.z_m - p.z_m]
          const l = Math.hypot(...d)
          d.forEach((v, k) => {
            sum[k] = (sum[k] as number) + ((t[i] as number) * v) / l
          })
        })
        expect(Math.hypot(sum[0] as number, sum[1] as number, (sum[2] as number) - 5000)).toBeLessThan(1e-6)
      }),
    )
  })
  it('of four legs: two across carry half each over their angle, never less than the three-leg policy says', () => {
    const four = (rule: 'two' | 'three') =>
      slingTension({
        mass_kg: 2000,
        hook: { x_m: 0, y_m: 0, z_m: 2 },
        lifts: [
          [1, 1],
          [1, -1],
          [-1, -1],
          [-1, 1],
        ].map(([x, y], i) => ({ id: `${i}`, x_m: x as number, y_m: y as number, z_m: 0 })),
        rule,
        limit_N: 20_000,
      }).legs
    const cos = 2 / Math.hypot(Math.SQRT2, 2)
    for (const l of four('two')) expect(l.tension_N).toBeCloseTo((2000 * g_mps2) / 2 / cos, 6)
    four('three').forEach((l, i) => {
      expect(l.tension_N).toBeLessThanOrEqual((four('two')[i]?.tension_N ?? 0) + 1e-6)
    })
  })
  it('refuses flatter than 60°, and a hook beside the centre of gravity', () => {
    expect(() => two(3.5, 3.5, 2)).toThrow(Refusal)
    const input = calculatorNamed('sling-tension')?.example as Record<string, object>
    expect(run('sling-tension', { ...input, hook: { z_m: 3.2, x_m: 0.4, y_m: 0 } }).error?.code).toBe('hook-beside')
    expect(run('sling-tension', { ...input, hook: { z_m: 1 } }).error?.code).toBe('sling-too-flat')
    expect(run('sling-tension', { ...input, hitch: 'choker' }).error?.path).toBe('chokerAngle_deg')
  })
  it('loses strength in a choker, the more the sharper', () => {
    const shares = [150, 100, 70, 45, 10].map((a) => hitchShare('choker', { chokerAngle_deg: a }))
    expect(shares[0]).toBe(0.75)
    shares.slice(1).forEach((s, i) => {
      expect(s).toBeLessThan(shares[i] as number)
    })
    expect(hitchShare('basket', { basketAngle_deg: 0, bendRatio: 25 })).toBe(2)
    expect(hitchShare('basket', { basketAngle_deg: 60, bendRatio: 30 })).toBeCloseTo(1, 12)
    expect(hitchShare('basket', { basketAngle_deg: 0, bendRatio: 4 })).toBeCloseTo(1.5, 12)
    expect(() => hitchShare('basket', { basketAngle_deg: 10 })).toThrow(/bend/)
    expect(() => hitchShare('basket', { bendRatio: 25 })).toThrow(/angle/)
    expect(() => hitchShare('basket', { basketAngle_deg: 61, bendRatio: 25 })).toThrow(Refusal)
  })
})

describe('load-sharing', () => {
  it('of two hooks adds up to the load and balances about the centre of gravity', () => {
    fc.assert(
      fc.property(between(0.5, 5), between(0.5, 5), between(0, 1), between(-5, 5), (a_m, b_m, h_m, tilt_deg) => {
        const s = shareOfTwo({ mass_kg: 1, a_m, b_m, h_m, tilt_deg })
        expect(s.first + s.second).toBeCloseTo(1, 12)
        // Moments about the centre of gravity, its depth carrying it towards the lower hook.
        const x = h_m * Math.tan(tilt_deg * rad)
        expect(s.first * (a_m - x)).toBeCloseTo(s.second * (b_m + x), 10)
      }),
    )
  })
  it('gives the higher hook more when the centre of gravity hangs below', () => {
    const level = shareOfTwo({ mass_kg: 1, a_m: 2, b_m: 2, h_m: 1, tilt_deg: 0 })
    expect(shareOfTwo({ mass_kg: 1, a_m: 2, b_m: 2, h_m: 1, tilt_deg: 5 }).first).toBeGreaterThan(level.first)
  })
  it('of four towers compares each pressure with its own computed share', () => {
    const points = [
      ['A', 2, 1],
      ['B', 2, -1],
      ['C', -2, -1],
      ['D', -2, 1],
    ].map(([id, x_m, y_m]) => ({ id, x_m, y_m, capacity_kg: 10_000, piston_m2: 0.02 }))
    const load = { mass_kg: 20_000, several: { cg: { x_m: 0.5, y_m: 0 }, points } }
    const { hooks } = run('load-sharing', load) as unknown as {
      hooks: { id: string; load_kg: number; upper_kg: number; pressure_kPa: number }[]
    }
    expect(hooks.reduce((s, h) => s + h.load_kg, 0)).toBeCloseTo(20_000, 6)
    expect(hooks[0]?.load_kg).toBeCloseTo(6250, 6)
    for (const h of hooks) {
      expect(h.upper_kg).toBeGreaterThanOrEqual(h.load_kg - 1e-9)
      expect(h.pressure_kPa).toBeCloseTo((h.load_kg * g_mps2) / 0.02 / 1000, 6)
    }
    const read = {
      ...load,
      several: { ...load.several, points: points.map((p, i) => ({ ...p, measured_kPa: (hooks[i]?.pressure_kPa ?? 0) * 1.2 })) },
    }
    for (const h of (run('load-sharing', read) as unknown as { hooks: { pressureRatio: number }[] }).hooks)
      expect(h.pressureRatio).toBeCloseTo(1.2, 9)
  })
  it('refuses a centre of gravity outside the lift points and a hook that would hang slack', () => {
    const points = [0, 120, 240].map((d) => ({ id: `${d}`, x_m: Math.cos(d * rad), y_m: Math.sin(d * rad) }))
    expect(run('load-sharing', { mass_kg: 1, several: { cg: { x_m: 2, y_m: 0 }, points } }).error?.code).toBe('outside-points')
    expect(run('load-sharing', { mass_kg: 1, two: { a_m: 1, b_m: 1, h_m: 3, tilt_deg: 40 } }).error?.code).toBe('hook-slack')
  })
})

describe('rope, winch and cylinder', () => {
  it('extending closes the gap by ΔL/n; paying out the given line holds the hook’s height', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 12 }), between(0, 10), between(0, 85), (parts, extension, angle) => {
        const still = hookTravel({ parts, boomExtension_m: extension, lineOut_m: 0, gap_m: 20, boomAngle_deg: angle })
        expect(still.gapChange_m).toBeCloseTo(-extension / parts, 10)
        const held = hookTravel({
          parts,
          boomExtension_m: extension,
          lineOut_m: still.lineToHoldHeight_m,
          gap_m: 20,
          boomAngle_deg: angle,
        })
        // The head rises by ΔL·sin θ; the block has to drop below it by as much.
        expect(held.gapChange_m).toBeCloseTo(extension * Math.sin(angle * rad), 10)
      }),
    )
  })
  it('drawing the boom out by as much as is said brings block to head', () => {
    const h = { parts: 4, lineOut_m: 1, gap_m: 2, boomAngle_deg: 50 }
    const until = hookTravel({ ...h, boomExtension_m: 0 }).extensionUntilTwoBlock_m
    expect(h.gap_m + hookTravel({ ...h, boomExtension_m: until }).gapChange_m).toBeCloseTo(0, 12)
  })
  it('pulls m·g up a plumb slope, nothing on the level without resistance, half in each of two parts without friction', () => {
    const on = (slope_deg: number, resistance_share: number, parts = 1) =>
      winchPull({ mass_kg: 1000, slope_deg, resistance_share, parts, sheaveEfficiency: 1 })
    expect(on(90, 0.3).pull_N).toBeCloseTo(1000 * g_mps2, 6)
    expect(on(0, 0).pull_N).toBe(0)
    expect(on(20, 0.1, 2).line_N).toBeCloseTo(on(20, 0.1).pull_N / 2, 9)
  })
  it('leaves the front axle what the moment about the rear axle says', () => {
    const r = recovery({ frontAxle_N: 50_000, pull_N: 20_000, overhang_m: 2, wheelbase_m: 5, least_share: 0.5 })
    expect(r.frontLeft_N).toBeCloseTo(42_000, 9)
    expect(
      recovery({ frontAxle_N: 50_000, pull_N: r.greatestPull_N, overhang_m: 2, wheelbase_m: 5, least_share: 0.5 })
        .frontLeft_share,
    ).toBeCloseTo(0.5, 12)
  })
  it('pushes p·A on each side, friction either way', () => {
    const f = hydraulicForce({
      bore_m: 0.2,
      rod_m: 0.1,
      base_kPa: 10_000,
      rodSide_kPa: 1000,
      friction_N: 500,
      relief_kPa: 10_000,
    })
    expect(f.net_N).toBeCloseTo(Math.PI * 0.01 * 1e7 - Math.PI * (0.01 - 0.0025) * 1e6, 4)
    expect([f.raising_N, f.lowering_N]).toEqual([f.net_N - 500, f.net_N + 500])
    expect(f.atRelief).toBe(true)
  })
})

describe('folding boom', () => {
  const boom = { inner_m: 3.2, outer_m: 5.5, pivot: { back_m: 0.3, height_m: 1.7 } }
  it('inverse of its tip is its pose, by one elbow or the other', () => {
    fc.assert(
      fc.property(between(-20, 85), between(-170, 170), (angle_deg, fold_deg) => {
        const poses = foldingPoses(boom, foldingTip(boom, { angle_deg, fold_deg }))
        const off = (p: { angle_deg: number; fold_deg: number }) => {
          const t = foldingTip(boom, p)
          const o = foldingTip(boom, { angle_deg, fold_deg })
          return Math.hypot(t.radius_m - o.radius_m, t.height_m - o.height_m)
        }
        expect(poses.length).toBeGreaterThan(0)
        for (const p of poses) expect(off(p)).toBeLessThan(1e-6)
      }),
    )
  })
  it('refuses a tip beyond its reach and angles outside its limits', () => {
    const base = {
      inner: { length_m: 3, max_deg: 70 },
      outer: { length_m: 2, extension_m: 1 },
      pivot: { back_m: 0, height_m: 1 },
    }
    expect(run('articulated-geometry', { ...base, tip: { radius_m: 9, height_m: 1 } }).error?.code).toBe('out-of-reach')
    expect(run('articulated-geometry', { ...base, tip: { radius_m: 0.1, height_m: 6.9 } }).error?.code).toBe('outside-angles')
    expect(run('articulated-geometry', base).error?.code).toBe('angles-or-tip')
  })
})
