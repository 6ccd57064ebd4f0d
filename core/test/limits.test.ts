import { readFileSync } from 'node:fs'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  boundary,
  cellLimit,
  elasticReactions,
  g_mps2,
  leastOn,
  lineLimit_kg,
  type MachineModel,
  machineModel,
  marginInside,
  marginOf,
  peakBetween,
  poseAtRadius,
  prepareFootprint,
  type RatingTable,
  Refusal,
  ratingTable,
  saysStanding,
  telescopicBoom,
  tippingLoad,
  upperMasses,
  upperReactions,
} from '../src'

const read = (path: string) => JSON.parse(readFileSync(new URL(`../../demo/${path}`, import.meta.url), 'utf8'))
const modelOf = (id: string): MachineModel => machineModel.parse(read(`models/${id}.json`))
const tableOf = (id: string): RatingTable => ratingTable.parse(read(`tables/${id}-main.json`))
const limitOf = (id: string, configuration: string) => cellLimit(modelOf(id), tableOf(id), configuration)

describe('what physics allows, shape by shape, is its closed form', () => {
  it('plate: share·m·cg over the arm, longer with height, tilt and attachment', () => {
    const t = modelOf('puffin').truck as NonNullable<MachineModel['truck']>
    const arm = (centre: number, height: number) => t.faceToAxle_m + centre + t.give_share * height
    expect(limitOf('puffin', 'forks')(3, 0.5)).toBeCloseTo((t.share * t.mass_kg * t.cgBehindFront_m) / arm(0.5, 3), 6)
    expect(limitOf('puffin', 'forks-forward')(3, 0.5) ?? 0).toBeLessThan(limitOf('puffin', 'forks')(3, 0.5) ?? 0)
    expect(limitOf('puffin', 'clamp')(3, 0.5) ?? 0).toBeLessThan(limitOf('puffin', 'forks')(3, 0.5) ?? 0)
  })
  it('sliding counterweight: each slab adds its moment, more the further it is out', () => {
    const limit = limitOf('bittern', 'forks-0.9')
    const m = modelOf('bittern').truck
    const slab = m?.slab
    if (!m || !slab) throw new Error('no slab')
    const gain = (extension: number) => (limit(extension, 2) ?? 0) - (limit(extension, 0) ?? 0)
    expect(gain(1)).toBeCloseTo((m.share * 2 * slab.mass_kg * (slab.behindFront_m + 1)) / (m.faceToAxle_m + 0.9), 6)
    expect(gain(1)).toBeGreaterThan(gain(0))
  })
  it('telehandler: stabilisers move the edge, and less reach always allows more', () => {
    const [up, down] = [limitOf('godwit', 'forks-up'), limitOf('godwit', 'forks-down')]
    for (const reach of [2, 3, 4, 5, 6]) {
      expect(down(4, reach) ?? 0).toBeGreaterThan(up(4, reach) ?? 0)
      expect(up(4, reach) ?? 0).toBeGreaterThan(up(4, reach + 1) ?? 0)
      expect(up(2, reach) ?? 0).toBeGreaterThanOrEqual(up(8, reach) ?? 0)
    }
  })
  it('gantry: working pressure on the piston of the stage that holds the height', () => {
    const g = modelOf('fulmar').gantry as NonNullable<MachineModel['gantry']>
    const limit = limitOf('fulmar', 'centred')
    g.stages.forEach((s) => {
      expect(limit(s.upTo_m, 'tower')).toBeCloseTo((g.share * g.working_kPa * 1000 * s.piston_m2) / g_mps2, 6)
    })
    expect(limit((g.stages[0]?.upTo_m ?? 0) + 0.01, 'tower')).toBe(limit(g.stages[1]?.upTo_m ?? 0, 'tower'))
    expect(limit(99, 'tower')).toBe(0)
  })
  it('tower: moment over radius, or the line, and nothing beyond the jib', () => {
    const m = modelOf('cormorant')
    const limit = limitOf('cormorant', 'jib-40')
    expect(limit(30, 4)).toBeCloseTo((m.tower?.moment_kgm ?? 0) / 30, 6)
    const hoist = m.hoist as NonNullable<MachineModel['hoist']>
    expect(limit(3, 2)).toBeCloseTo(lineLimit_kg({ ...hoist, parts: 2 }), 6)
    expect(limit(40.5, 4)).toBe(0)
  })
  it('straddle hoist: each line, and together no more than both or the frame', () => {
    const limit = limitOf('gannet', 'all')
    const h = modelOf('gannet').hoists as NonNullable<MachineModel['hoists']>
    expect(limit('together', 'hoist') ?? 0).toBeLessThanOrEqual((limit('front', 'hoist') ?? 0) + (limit('rear', 'hoist') ?? 0))
    expect(limit('together', 'hoist') ?? 0).toBeLessThanOrEqual(h.frame_kg)
  })
  it('runway: chain by its falls, trolley by its wheels, beam in the middle of its span', () => {
    const r = modelOf('dipper').runway as NonNullable<MachineModel['runway']>
    const limit = limitOf('dipper', 'marks')
    expect(limit('hoist', 'mark')).toBe(r.falls * r.perFall_kg)
    expect(limit('trolley', 'mark')).toBe(r.wheels * r.perWheel_kg)
    // M = P·L/4 = σ·W
    expect(((limit('beam', 'mark') ?? 0) * g_mps2 * r.beam.span_m) / 4).toBeCloseTo(r.beam.allowable_MPa * r.beam.modulus_cm3, 6)
  })
  it('slewing crane: the least tipping load over its sector, by the table’s own rule, nothing where the boom does not reach', () => {
    const m = modelOf('plover')
    const t = tableOf('plover')
    if (!m.boom || !m.upper || !m.chassis) throw new Error('no crane')
    const c = t.configurations.find((x) => x.id === 'legs')
    if (!c || !saysStanding(c)) throw new Error('no legs')
    const limit = limitOf('plover', 'legs')
    const pose = poseAtRadius({ boom_m: 8.5, pivot: m.boom.pivot, headOffset_m: m.boom.headOffset_m }, 6)
    const cw = m.upper.counterweights[0] as { mass_kg: number; radius_m: number }
    const slewing = [...upperMasses(m.upper, cw), ...telescopicBoom(m.boom).massesAt(8.5, pose.angle_deg)]
    const at = (slew_deg: number) =>
      tippingLoad({
        supports: c.appliesTo.standing.footprint,
        masses: m.chassis?.masses ?? [],
        slewing,
        radius_m: 6,
        slew_deg,
        rule: '85%',
      }).ratedByStability_kg ?? Infinity
    const least = Math.min(...Array.from({ length: 360 }, (_, s) => at(s)))
    expect(limit(6, 8.5)).toBeCloseTo(least, 6)
    expect(limit(20, 8.5)).toBe(0)
  })
  it('a table that names a counterweight or configuration that is not there is refused by name', () => {
    const t = structuredClone(tableOf('kittiwake'))
    const c = t.configurations[0]
    if (!c || !saysStanding(c)) throw new Error('no configuration')
    c.appliesTo.standing.counterweight_kg = 12_345
    expect(() => cellLimit(modelOf('kittiwake'), t, 'base')(10, 48)).toThrow(/12345 kg/)
    expect(() => limitOf('kittiwake', 'nothing')).toThrow(Refusal)
  })
})

describe('searches', () => {
  const centre = fc.double({ min: -5, max: 5, noNaN: true })
  it('find a peak, a boundary and the least of several valleys', () => {
    fc.assert(
      fc.property(centre, (c) => {
        expect(peakBetween((x) => -((x - c) ** 2), -10, 10, 1e-9).x).toBeCloseTo(c, 6)
        expect(boundary((x) => x <= c, -10, 10, 1e-9)).toBeCloseTo(c, 8)
        expect(boundary((x) => x <= c, -10, 10, 1e-9)).toBeLessThanOrEqual(c)
        const f = (x: number) => Math.cos(3 * x) + 0.1 * (x - c) ** 2
        const best = leastOn(f, -10, 10, 0.05)
        for (let x = -10; x <= 10; x += 0.01) expect(best.y).toBeLessThanOrEqual(f(x) + 1e-9)
      }),
      { numRuns: 30 },
    )
  })
})

describe('the solver', () => {
  const ring = (n: number, r: number) =>
    Array.from({ length: n }, (_, i) => ({
      id: `${i}`,
      x_m: r * Math.cos((2 * Math.PI * i) / n),
      y_m: r * Math.sin((2 * Math.PI * i) / n),
    }))
  it.each([3, 4, 5, 6, 8, 16, 31, 40])(
    'of %i supports in a ring shares a centred weight alike, and balances an eccentric one',
    (n) => {
      const f = prepareFootprint(ring(n, 4))
      const out = new Float64Array(n)
      elasticReactions(f, 0, 0, 1000, out)
      for (const r of out) expect(r).toBeCloseTo(1000 / n, 6)
      fc.assert(
        fc.property(
          fc.double({ min: 0, max: 3.9 * Math.cos(Math.PI / n), noNaN: true }),
          fc.double({ min: 0, max: 2 * Math.PI, noNaN: true }),
          (r, a) => {
            const [x, y] = [r * Math.cos(a), r * Math.sin(a)]
            elasticReactions(f, x, y, 1000, out)
            const sum = (pickUp: (s: { x_m: number; y_m: number }) => number) =>
              f.supports.reduce((t, s, i) => t + (out[i] as number) * pickUp(s), 0)
            expect(Math.abs(sum(() => 1) - 1000)).toBeLessThan(1e-6)
            expect(Math.abs(sum((s) => s.x_m) - 1000 * x)).toBeLessThan(1e-5)
            expect(Math.abs(sum((s) => s.y_m) - 1000 * y)).toBeLessThan(1e-5)
            for (const v of out) expect(v).toBeGreaterThanOrEqual(0)
          },
        ),
        { numRuns: 60 },
      )
    },
  )
  it('turned and mirrored gives turned and mirrored loads', () => {
    const outriggers = [
      { id: 'a', x_m: 3, y_m: 2 },
      { id: 'b', x_m: 3, y_m: -2.4 },
      { id: 'c', x_m: -2, y_m: -2 },
      { id: 'd', x_m: -2.5, y_m: 1.8 },
    ]
    const solve = (turn: (p: { x_m: number; y_m: number }) => { x_m: number; y_m: number }, at: { x_m: number; y_m: number }) => {
      const f = prepareFootprint(outriggers.map((l) => ({ id: l.id, ...turn(l) })))
      const [e, u] = [new Float64Array(4), new Float64Array(4)]
      const p = turn(at)
      elasticReactions(f, p.x_m, p.y_m, 1, e)
      upperReactions(f, p.x_m, p.y_m, 1, u)
      return [...e, ...u]
    }
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 6.3, noNaN: true }),
        fc.double({ min: -1.4, max: 1.4, noNaN: true }),
        fc.double({ min: -1.4, max: 1.4, noNaN: true }),
        (a, x_m, y_m) => {
          const plain = solve((p) => p, { x_m, y_m })
          const turned = solve(
            (p) => ({ x_m: p.x_m * Math.cos(a) - p.y_m * Math.sin(a), y_m: p.x_m * Math.sin(a) + p.y_m * Math.cos(a) }),
            { x_m, y_m },
          )
          const mirrored = solve((p) => ({ x_m: p.x_m, y_m: -p.y_m }), { x_m, y_m })
          plain.forEach((v, i) => {
            expect(turned[i]).toBeCloseTo(v, 8)
            expect(mirrored[i]).toBeCloseTo(v, 8)
          })
        },
      ),
    )
  })
  it('the margin by lines is the margin by edges, inside and out', () => {
    const f = prepareFootprint(ring(5, 3))
    const at = fc.double({ min: -6, max: 6, noNaN: true })
    fc.assert(
      fc.property(at, at, (x_m, y_m) => {
        expect(marginOf(f, { x_m, y_m })).toBeCloseTo(marginInside(f.hull, { x_m, y_m }).margin_m, 9)
      }),
    )
  })
})
