import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  assess,
  type Case,
  capacityMap,
  type Finding,
  mapOfCase,
  NOT_RATED,
  nearShareOf,
  placeDefinition,
  prepareMap,
  useAt,
  workingAreaZones,
  zonesBetween,
} from '../src'
import { deck, northQuay, openField, tern, ternLift, ternSetup, ternTable, withOutriggers } from './demo'
import { caseOf, type Job, worksBy } from './jobs'
import { runs } from './runs'

const size = { length_m: 2.4, width_m: 1.5, height_m: 1.7 }
/** A yard with something of everything, the machine in the middle of it. */
const yard = placeDefinition.parse({
  ...openField,
  features: [
    { id: 'shed', label: 'Shed', kind: 'solid', height_m: 3, geometry: polygon(6, 5, 11, 9) },
    { id: 'wall', label: 'Wall', kind: 'solid', geometry: polygon(-30, -13, 30, -12) },
    { id: 'post', label: 'Post', kind: 'solid', height_m: 9, geometry: polygon(-5.4, 3, -5, 3.4) },
    {
      id: 'pit',
      label: 'Pit',
      kind: 'edge',
      drop_m: 2,
      soil: 'firm',
      geometry: {
        type: 'LineString',
        points: [
          [-20, -6.2],
          [20, -6.2],
        ],
      },
    },
    {
      id: 'line',
      label: 'Line',
      kind: 'overhead',
      height_m: 9,
      voltage_kV: 11,
      sag_m: 0.4,
      blowOut_m: 0.6,
      geometry: {
        type: 'LineString',
        points: [
          [-60, 16],
          [60, 19],
        ],
      },
    },
  ],
})
function polygon(x0: number, y0: number, x1: number, y1: number) {
  return {
    type: 'Polygon',
    points: [
      [x0, y0],
      [x1, y0],
      [x1, y1],
      [x0, y1],
    ],
  }
}
const firm = deck && { ...deck, allowable_kPa: 180 }
const drawn = fc.record({
  mass_kg: fc.integer({ min: 300, max: 5000 }),
  left: fc.constantFrom('intermediate' as const, 'fullyExtended' as const),
  boom_m: fc.constantFrom(14.6, 19.4),
  legLoads: fc.constantFrom('upper' as const, 'elastic' as const),
  over_m: fc.constantFrom(null, 1, 4),
  place: fc.constantFrom(yard, northQuay),
  mats: fc.boolean(),
  known: fc.constantFrom(true, true, false),
})
type Drawn = typeof drawn extends fc.Arbitrary<infer T> ? T : never

function caseAt({ mass_kg, left, boom_m, legLoads, over_m, place, mats, known }: Drawn, radius_m = 8, slew_deg = 0): Case {
  const point = { radius_m, slew_deg }
  const setup = withOutriggers(ternSetup({ left }), (o) => ({ ...o, ground: known ? firm : null, mat: mats ? o.mat : null }))
  return {
    machine: tern,
    tables: [ternTable],
    setup: place === yard ? { ...setup, position: { x_m: 0, y_m: 0, heading_deg: 0 } } : setup,
    lift: ternLift({
      load: { name: '', mass_kg, massSource: 'weighed', windArea_m2: 3, dragCoefficient: 1.2, size },
      boom_m,
      pickUp: point,
      setDown: point,
      rigging_height_m: 2,
      ...(over_m === null ? {} : { heights: { pickUp_m: 0, setDown_m: 0, over_m } }),
    }),
    conditions: { wind_mps: 4 },
    place,
    policy: { ...place.policy, legLoads },
  }
}
/** Checks that say something else from cell to cell. */
const layered = new Set<Finding['check']>([
  'table',
  'rating',
  'boom-limits',
  'overturning',
  'outrigger',
  'ground',
  'edge',
  'clearance',
  'overhead-line',
  'hook-height',
])
const worstThere = (c: Case): 'inside' | 'outside' | 'not-proven' => {
  const verdicts = assess(c)
    .findings.filter((f) => layered.has(f.check))
    .map((f) => f.verdict)
  return verdicts.includes('outside') ? 'outside' : verdicts.includes('not-proven') ? 'not-proven' : 'inside'
}

describe('a cell of the working area', () => {
  const seen: Record<string, number> = {}
  it('says of each check what the proof of a lift that stays there says', () => {
    const at = fc.record({
      radius_m: fc.double({ min: 3.5, max: 18, noNaN: true }),
      slew_deg: fc.double({ min: 0, max: 359, noNaN: true }),
    })
    fc.assert(
      fc.property(drawn, fc.array(at, { minLength: 10, maxLength: 10 }), (d, cells) => {
        const radii_m = cells.map((c) => c.radius_m)
        const slews_deg = cells.map((c) => c.slew_deg)
        const input = mapOfCase(caseAt(d), radii_m, slews_deg)
        if (!input) throw new Error('no map')
        const map = capacityMap(input)
        cells.forEach(({ radius_m, slew_deg }, k) => {
          const cell = k * map.radii + k
          const a = assess(caseAt(d, radius_m, slew_deg))
          const use = useAt(map, cell)
          const verdict = use === NOT_RATED ? 'not-proven' : use > 1 + 1e-12 ? 'outside' : 'inside'
          const proved = worstThere(caseAt(d, radius_m, slew_deg))
          seen[proved] = (seen[proved] ?? 0) + 1
          // Where the table rates nothing the map says so and leaves it at that; the proof calls it outside.
          const rated = a.findings.some((f) => f.check === 'rating' && f.utilisation !== null)
          if (!rated) {
            expect(use).toBe(NOT_RATED)
            return
          }
          expect(verdict, JSON.stringify([d.place.id, radius_m, slew_deg])).toBe(proved)
          for (const { id, use: layer } of map.layers) {
            const f = a.findings.find((x) => x.id === id)
            const u = layer[cell] as number
            if (f?.utilisation == null || u === Infinity) continue
            // What is far off is only known to be further than that.
            if (['clearance', 'overhead-line'].includes(f.check) && u <= nearShareOf(caseAt(d)) / 1.1)
              expect(u, id).toBeGreaterThan(f.utilisation * (1 - 1e-9))
            else expect(Math.abs(u / f.utilisation - 1), `${id} ${u} ${f.utilisation}`).toBeLessThan(1e-9)
          }
        })
      }),
      { numRuns: runs(1000, 25) },
    )
  }, 300_000)
  it('says no less of a gap after all the cells before it than by itself', { timeout: 300_000 }, () => {
    const folding = caseOf(worksBy('heron'), worksBy('heron').jobs[0] as Job)
    const inYard = { ...folding, place: yard, setup: { ...folding.setup, position: { x_m: 0, y_m: 0, heading_deg: 0 } } }
    const walk = fc.record({
      d: drawn,
      folds: fc.boolean(),
      from_m: fc.double({ min: 3.5, max: 8, noNaN: true }),
      step_m: fc.double({ min: 0.05, max: 0.6, noNaN: true }),
      from_deg: fc.integer({ min: 0, max: 300 }),
      step_deg: fc.constantFrom(0.5, 1, 3),
    })
    const [looked, bound] = [{ n: 0 }, { n: 0 }]
    fc.assert(
      fc.property(walk, ({ d, folds, from_m, step_m, from_deg, step_deg }) => {
        const c = folds ? inYard : caseAt(d)
        const radii_m = Array.from({ length: 12 }, (_, i) => from_m + i * step_m)
        const slews_deg = Array.from({ length: 15 }, (_, i) => from_deg + i * step_deg)
        const mapAt = (radii: number[], slews: number[]) => {
          const input = mapOfCase(c, radii, slews)
          if (!input) throw new Error('no map')
          return capacityMap(input)
        }
        const all = mapAt(radii_m, slews_deg)
        const near = nearShareOf(c) / 1.1
        for (const [j, slew_deg] of slews_deg.entries())
          for (const [i, radius_m] of radii_m.entries()) {
            if ((i + j) % 4 > 0) continue
            const alone = mapAt([radius_m], [slew_deg])
            for (const [l, { id, use }] of all.layers.entries()) {
              const [here, itself] = [use[j * radii_m.length + i] as number, alone.layers[l]?.use[0] as number]
              // A gap that is wide is only known to be no less; all else is the same.
              if (/^(clearance|overhead-line)/.test(id) && itself >= 0 && itself <= near) {
                expect(here, id).toBeGreaterThan(itself * (1 - 1e-9))
                expect(here, id).toBeLessThan(nearShareOf(c))
                bound.n++
              } else {
                expect(here, `${id} ${radius_m} ${slew_deg}`).toBe(itself)
                looked.n++
              }
            }
          }
      }),
      { numRuns: runs(2000, 25) },
    )
    expect(Math.min(looked.n, bound.n)).toBeGreaterThan(0)
  })
  it('of each kind was among them', () => {
    for (const verdict of ['inside', 'outside', 'not-proven']) expect(seen[verdict], verdict).toBeGreaterThan(0)
  })
})

describe('what is painted of it', () => {
  it('is nowhere at a corner more favourable than the proof of a lift that stays there', () => {
    const slews_deg = Array.from({ length: 120 }, (_, i) => i * 3)
    let corners = 0
    fc.assert(
      fc.property(drawn, (d) => {
        const radii_m = Array.from({ length: 60 }, (_, i) => 3.5 + i * 0.25)
        const c = caseAt(d)
        const input = mapOfCase(c, radii_m, slews_deg)
        if (!input) throw new Error('no map')
        const zones = zonesBetween(workingAreaZones(prepareMap(input), nearShareOf(c)))
        zones.forEach((z, i) => {
          if (!z || i % 5 > 0) return
          for (const radius_m of [z.from_m, z.to_m])
            for (const slew_deg of [z.slew_deg - 1.5, z.slew_deg + 1.5]) {
              corners++
              expect(worstThere(caseAt(d, radius_m, slew_deg)), JSON.stringify([d.place.id, radius_m, slew_deg, z])).toBe(
                'inside',
              )
            }
        })
      }),
      { numRuns: runs(120, 6) },
    )
    expect(corners).toBeGreaterThan(50)
  })
})
