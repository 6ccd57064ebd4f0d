import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  type Answer,
  type Asked,
  assess,
  besideRoute,
  byMargin,
  inPolygon,
  type Offered,
  type Place,
  type Proved,
  routeTo,
  whichMachine,
  whichPosition,
  type Xy,
} from '../src'
import { demoMachine, demoMachines, demoPlace, demoTable } from './demo'

const offered = (id: string): Offered => {
  const machine = demoMachine(id)
  return { machine, tables: machine.tables.map(demoTable) }
}
const yard = demoMachines.map(offered)
const places = ['net-loft-yard', 'boatyard', 'north-quay', 'gatehouse-slip', 'lighthouse-terrace'].map(demoPlace)

const lead = (place: Place, mass_kg: number | null, from: Xy, to: Xy, heights: [number, number] = [0, 0]): Asked => ({
  wanted: {
    format: 'geolabe.wanted/1',
    hung: {
      load: {
        name: 'lead',
        mass_kg,
        massSource: mass_kg === null ? null : 'marked',
        windArea_m2: 0.5,
        dragCoefficient: 1.2,
        size: { length_m: 0.8, width_m: 0.8, height_m: 0.8 },
        cg: { x_m: 0.5, y_m: 0, z_m: 0.4 },
      },
      rigging: [],
      rigging_height_m: 0.8,
    },
    from: { x_m: from[0], y_m: from[1], height_m: heights[0] },
    to: { x_m: to[0], y_m: to[1], height_m: heights[1] },
    over_m: 0.5,
  },
  place,
  policy: place.policy,
  conditions: { wind_mps: 3 },
})

const asked = fc
  .record({
    place: fc.constantFrom(...places),
    mass_kg: fc.option(fc.double({ min: 50, max: 30_000, noNaN: true }), { nil: null, freq: 6 }),
    from: fc.tuple(fc.integer({ min: 0, max: 50 }), fc.integer({ min: 0, max: 30 })),
    to: fc.tuple(fc.integer({ min: 0, max: 50 }), fc.integer({ min: 0, max: 30 })),
    up: fc.constantFrom(0, 0, 1, 3, 6),
  })
  .map(({ place, mass_kg, from, to, up }) => lead(place, mass_kg, from, to, [0, up]))

const proofsOf = (a: Answer): Proved[] => (a.best ? [a.best, ...a.elsewhere] : [])
const again = ({ machine, tables }: Offered, { way }: Proved, { place, policy, conditions }: Asked) =>
  assess({ machine, tables, setup: way.setup, lift: way.lift, place, policy, conditions })
const offerOf = (a: Answer): Offered => {
  const one = yard.find((o) => o.machine.id === a.machine.id)
  if (!one) throw new RangeError(a.machine.id)
  return one
}

describe('Which machine of the yard', () => {
  it('leaves none out, says why where it cannot, and gives what a fresh proof of the same plan gives', () => {
    fc.assert(
      fc.property(asked, (ask) => {
        const answers = whichMachine(yard, ask)
        expect(answers.map((a) => a.machine.id).sort()).toEqual([...demoMachines].sort())
        for (const a of answers) {
          expect((a.best === null) !== (a.unable === null)).toBe(true)
          for (const p of proofsOf(a)) {
            const fresh = again(offerOf(a), p, ask)
            expect(fresh.verdict).toBe(p.assessment.verdict)
            expect(fresh.governing).toEqual(p.assessment.governing)
          }
        }
        const proved = answers.flatMap((a) => a.best ?? [])
        proved.slice(1).forEach((p, i) => {
          const before = proved[i]
          if (before) expect(byMargin(before, p)).toBeLessThanOrEqual(0)
        })
      }),
      { numRuns: 12 },
    )
  }, 240_000)

  it('never passes a load that nobody knows, nor one whose wind nobody read', () => {
    const place = demoPlace('net-loft-yard')
    const passed = (ask: Asked) =>
      whichMachine(yard, ask).filter((a) => ['inside', 'near'].includes(a.best?.assessment.verdict ?? ''))
    const known = lead(place, 900, [16, 6], [30, 6])
    expect(passed(known).length).toBeGreaterThan(2)
    expect(passed(lead(place, null, [16, 6], [30, 6]))).toEqual([])
    expect(passed({ ...known, conditions: { wind_mps: null } })).toEqual([])
  })

  it('takes as done only what it names: with none of it confirmed nothing passes that asks for any', () => {
    const ask = lead(demoPlace('net-loft-yard'), 900, [16, 6], [30, 6])
    for (const a of whichMachine(yard, ask)) {
      if (!a.best || a.best.assessment.verdict === 'outside') continue
      const { way } = a.best
      const named = way.assumed.filter((x) => x.what === 'confirmed').length
      expect(named).toBe(way.setup.confirmed.length)
      const bare = { ...a.best, way: { ...way, setup: { ...way.setup, confirmed: [] } } }
      if (named > 0) expect(again(offerOf(a), bare, ask).verdict).toBe('not-proven')
    }
  })

  it.each([
    ['dipper', demoPlace('boatyard'), 1000, [50, 27], [55, 27], 'inside'],
    ['dipper', demoPlace('boatyard'), 1000, [50, 28], [55, 27], null],
    ['cormorant', demoPlace('net-loft-yard'), 1900, [16, 6], [30, 6], 'inside'],
    ['cormorant', demoPlace('boatyard'), 1900, [16, 6], [30, 6], null],
    ['wren', demoPlace('net-loft-yard'), 5000, [34, 6], [36, 6], null],
  ] as const)('%s, whose place is one and not another', (id, place, kg, from, to, verdict) => {
    const [a] = whichMachine([offered(id)], lead(place, kg, from, to))
    expect(a?.best?.assessment.verdict ?? null).toBe(verdict)
  })
})

describe('Where it could stand', () => {
  const place = demoPlace('net-loft-yard')
  const ask = lead(place, 1900, [20, 6], [30, 6])
  const found = whichPosition(offered('tern'), ask, { x_m: 25, y_m: 2 })

  it('is answered nearest first, each proved afresh, and never in a wall or on a ramp', () => {
    expect(found.filter((f) => f.assessment.verdict === 'inside').length).toBeGreaterThan(3)
    const away = found.map((f) => f.away_m)
    expect([...away].sort((a, b) => a - b)).toEqual(away)
    for (const f of found) {
      expect(again(offered('tern'), f, ask).verdict).toBe(f.assessment.verdict)
      if (f.way.stand.id !== null) continue
      for (const x of place.features.filter((k) => ['solid', 'ramp', 'trailer'].includes(k.kind)))
        expect(inPolygon(x.geometry.points, f.way.stand)).toBe(false)
    }
  })
})

describe('A way round what stands there', () => {
  const walls = (gap: [number, number] | null): Place => ({
    ...places[0],
    ...demoPlace('net-loft-yard'),
    features: [
      {
        id: 'wall',
        label: 'Wall',
        kind: 'solid',
        height_m: 3,
        geometry: {
          type: 'Polygon',
          points: [
            [10, -20],
            [10.4, -20],
            [10.4, gap?.[0] ?? 20],
            [10, gap?.[0] ?? 20],
          ],
        },
      },
    ],
  })
  it('is straight where nothing stands between, and keeps half its width from everything where something does', () => {
    const at = fc.tuple(fc.double({ min: 0, max: 8, noNaN: true }), fc.double({ min: -15, max: 15, noNaN: true }))
    fc.assert(
      fc.property(
        at,
        at,
        fc.double({ min: 0.8, max: 3, noNaN: true }),
        fc.double({ min: -10, max: 15, noNaN: true }),
        (a, b, wide, end) => {
          const place = walls([end, end])
          const to: Xy = [b[0] + 13, b[1]]
          const way = routeTo(place, a, to, wide)
          expect(way?.[0]).toEqual(a)
          expect(way?.at(-1)).toEqual(to)
          const inner = way?.slice(1, -1) ?? []
          if (inner.length > 0)
            expect(besideRoute(place, inner.length > 1 ? inner : [...inner, ...inner])[0]?.gap_m).toBeGreaterThanOrEqual(wide / 2)
          const straight = Math.hypot(to[0] - a[0], to[1] - a[1])
          const long = (way ?? [])
            .slice(1)
            .reduce((s, [x, y], i) => s + Math.hypot(x - (way?.[i]?.[0] ?? 0), y - (way?.[i]?.[1] ?? 0)), 0)
          expect(long).toBeGreaterThanOrEqual(straight - 1e-9)
          expect(routeTo({ ...place, features: [] }, a, to, wide)).toEqual([a, to])
        },
      ),
      { numRuns: 60 },
    )
  })
})
