import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { assess, type Case, type Crew, type LiftPlan, placeDefinition, type Verdict } from '../src'
import { notCheckedIn } from '../src/assess/assessment'
import { inPolygon } from '../src/place/standing'
import { atSlew } from '../src/plane/point'
import { openField, tern, ternLift, ternSetup, ternTable } from './demo'
import { runs } from './runs'
import { caseOf, works } from './truck-jobs'

type Xy = [number, number]
const size = { length_m: 2, width_m: 1, height_m: 1 }
const load = { name: 'Tank', mass_kg: 900, massSource: 'weighed' as const, windArea_m2: 2, dragCoefficient: 1.2, size }
const turned = (radius_m: number, from_deg: number, to_deg: number): LiftPlan =>
  ternLift({
    load,
    boom_m: 29,
    pickUp: { radius_m, slew_deg: from_deg },
    setDown: { radius_m, slew_deg: to_deg },
    heights: { pickUp_m: 0, setDown_m: 0, over_m: 0 },
    rigging_height_m: 1,
  })
const wall = (points: Xy[], height_m?: number) => ({
  id: 'wall',
  label: 'Wall',
  kind: 'solid',
  geometry: { type: 'Polygon', points },
  height_m,
})
const box = (x: number, y: number, half: number): Xy[] => [
  [x - half, y - half],
  [x + half, y - half],
  [x + half, y + half],
  [x - half, y + half],
]
const seen = (features: object[], lift: LiftPlan, crew?: Crew, machine = tern): Case => ({
  machine,
  tables: [ternTable],
  setup: { ...ternSetup(), position: { x_m: 0, y_m: 0, heading_deg: 0 } },
  lift: { ...lift, ...(crew && { crew }) },
  conditions: { wind_mps: 2 },
  place: placeDefinition.parse({ ...openField, features }),
  policy: openField.policy,
})
const sight = (c: Case) => assess(c).findings.filter((f) => f.check === 'sight')
const said = (c: Case) => sight(c).map((f) => `${f.reason} ${f.verdict}`)
const signaller: Crew = { signaller: 'Wanda Rook', sightBy: 'signaller', signals: 'agreed' }
const eye = { x_m: 1, y_m: 0.8, z_m: 2.6 }

describe('sight of the load', () => {
  const between = [wall(box(5, 0, 1), 6)]
  it('is lost behind what is higher than the line to the load, and kept over what is lower', () => {
    expect(said(seen([], turned(10, 350, 10)))).toEqual(['seen inside'])
    expect(said(seen(between, turned(10, 350, 10)))).toEqual(['blind not-proven'])
    // From 2.6 m up, over 4 m of the 9 m to it, the line stands 1.4 m high where the wall begins and 0.8 where it ends.
    expect(said(seen([wall(box(5, 0, 1), 0.5)], turned(10, 350, 10)))).toEqual(['seen inside'])
    expect(said(seen([wall(box(5, 0, 1), 1.4)], turned(10, 350, 10)))).toEqual(['blind not-proven'])
    expect(said(seen(between, turned(10, 80, 120)))).toEqual(['seen inside'])
  })
  it('is kept of a load that is put down on what is low, at its own height, and lost of the same on the ground behind it', () => {
    const plinth = [wall(box(10, 0, 2), 1)]
    const on = (setDown_m: number, over_m: number) =>
      seen(
        plinth,
        ternLift({
          ...turned(10, 320, 0),
          load,
          boom_m: 29,
          pickUp: { radius_m: 10, slew_deg: 320 },
          setDown: { radius_m: 10, slew_deg: 0 },
          heights: { pickUp_m: 0, setDown_m, over_m },
          rigging_height_m: 1,
        }),
      )
    expect(said(on(1, 1))).toEqual(['seen inside'])
    expect(said(on(0, 1))).toEqual(['blind not-proven'])
  })
  it('is made good by a named signaller with agreed signals, by nothing less, and by a camera only where there is one', () => {
    const by = (crew: Crew) => said(seen(between, turned(10, 350, 10), crew))
    expect(by(signaller)).toEqual(['covered inside'])
    expect(by({ ...signaller, signaller: null })).toEqual(['no-signaller not-proven'])
    expect(by({ ...signaller, signals: null })).toEqual(['no-signals not-proven'])
    expect(by({ ...signaller, sightBy: 'camera' })).toEqual(['no-camera not-proven'])
    expect(by({ ...signaller, sightBy: 'operator' })).toEqual(['blind not-proven'])
    const filmed = { ...tern, eye: { on: 'upper' as const, ...eye, camera: true as const } }
    expect(said(seen(between, turned(10, 350, 10), { ...signaller, sightBy: 'camera' }, filmed))).toEqual(['covered inside'])
  })
  it('of an operator on foot is asked of where they stand, and of nobody while that is not said', () => {
    const onFoot = { ...tern, eye: { on: 'foot' as const, z_m: 1.6 } }
    const lift = turned(10, 350, 10)
    const posted = (...posts: Xy[]): Crew => ({
      signaller: null,
      sightBy: 'operator',
      signals: null,
      posts: posts.map(([x_m, y_m]) => ({ x_m, y_m })),
    })
    expect(assess(seen(between, lift, undefined, onFoot)).notChecked).toContain('sight')
    expect(sight(seen(between, lift, undefined, onFoot))).toEqual([])
    expect(said(seen(between, lift, posted([0, 0]), onFoot))).toEqual(['blind not-proven'])
    expect(said(seen(between, lift, posted([12, 4]), onFoot))).toEqual(['seen inside'])
    // What is hidden from one place is seen from the next.
    expect(said(seen(between, lift, posted([0, 0], [12, 4]), onFoot))).toEqual(['seen inside'])
  })
  it('is no use from further off than the remote works', () => {
    const onFoot = { ...tern, eye: { on: 'foot' as const, z_m: 1.6, range_m: 40 } }
    const at = (x_m: number): Crew => ({ signaller: null, sightBy: 'operator', signals: null, posts: [{ x_m, y_m: 0 }] })
    expect(said(seen([], turned(10, 350, 10), at(40), onFoot))).toEqual(['seen inside'])
    expect(said(seen([], turned(10, 350, 10), at(40.5), onFoot))).toEqual(['beyond-remote outside', 'seen inside'])
  })
  it('is worst with the load’s size unknown: what it may be hidden by is not proven', () => {
    const { size: _, ...unsized } = load
    const lift = ternLift({ ...turned(10, 80, 100), load: unsized, boom_m: 29, pickUp: { radius_m: 10, slew_deg: 0 } })
    const reasons = (features: object[]) => sight(seen(features, lift)).map((f) => f.reason)
    expect(reasons(between)).toEqual(['no-load-size'])
    expect(reasons([])).toEqual(['seen'])
  })
  it('of a signaller is asked of where they stand: what neither sees is not proven, nor hands that are not seen', () => {
    const lift = turned(10, 350, 10)
    const at = (stands: Crew['stands'], told?: Crew['told']) => said(seen(between, lift, { ...signaller, stands, told }))
    const stand = (x_m: number, y_m: number) => ({ role: 'signaller' as const, x_m, y_m })
    expect(at(undefined)).toEqual(['covered inside'])
    // To the side of the wall both are seen; close before it, with it between her and the load, only the hands are.
    expect(at([stand(8, 6)])).toEqual(['covered inside'])
    expect(at([stand(-6, 0)])).toEqual(['covered inside', 'signaller-blind not-proven'])
    // Beyond the load, with the wall between her and the cab, the load is seen, the hands are not: by radio that does not matter.
    expect(at([stand(14, 0)])).toEqual(['covered inside', 'signaller-unseen not-proven'])
    expect(at([stand(14, 0)], 'radio')).toEqual(['covered inside'])
    // Of two, one who is not seen cannot make good what the one who is seen does not see.
    expect(at([stand(14, 0), stand(-6, 0)])).toEqual(['covered inside', 'signaller-blind not-proven'])
    expect(at([stand(14, 0), stand(-6, 0)], 'radio')).toEqual(['covered inside'])
    // A slinger's place is not the signaller's.
    expect(at([{ role: 'slinger', x_m: -6, y_m: 0 }])).toEqual(['covered inside'])
  })
  const turn = fc.double({ min: 0, max: 360, noNaN: true })
  it('is never said where a ray to some of the load meets a wall, and never lost where all of them pass it well', () => {
    const place = fc.record({
      at: turn,
      out_m: fc.double({ min: 3, max: 12, noNaN: true }),
      half_m: fc.double({ min: 0.4, max: 1.5, noNaN: true }),
      top_m: fc.double({ min: 0.3, max: 5, noNaN: true }),
      radius_m: fc.double({ min: 6, max: 20, noNaN: true }),
      from: turn,
      by: fc.double({ min: 2, max: 90, noNaN: true }),
    })
    fc.assert(
      fc.property(place, ({ at, out_m, half_m, top_m, radius_m, from, by }) => {
        const { x_m, y_m } = atSlew(out_m, at)
        const corners = box(x_m, y_m, half_m)
        const grown = box(x_m, y_m, half_m + 0.25)
        const c = seen([wall(corners, top_m)], turned(radius_m, from, from + by))
        const blind = sight(c).some((f) => f.verdict === 'not-proven')
        const reach_m = Math.hypot(size.length_m, size.width_m) / 2
        const meets = (outline: Xy[], wide_m: number, high_m: number) =>
          Array.from({ length: 41 }, (_, i) => from + (by * i) / 40).some((s) => {
            const e = atSlew(Math.hypot(eye.x_m, eye.y_m), s + (Math.atan2(eye.y_m, eye.x_m) * 180) / Math.PI)
            const { x_m: cx, y_m: cy } = atSlew(radius_m, s)
            return Array.from({ length: 9 }, (_, k) => k * 45).some((a) => {
              const to = { x_m: cx + wide_m * Math.cos(a), y_m: cy + wide_m * Math.sin(a) }
              return Array.from({ length: 121 }, (_, k) => k / 120).some((t) => {
                const p = { x_m: e.x_m + t * (to.x_m - e.x_m), y_m: e.y_m + t * (to.y_m - e.y_m) }
                return eye.z_m * (1 - t) <= high_m && inPolygon(outline, p)
              })
            })
          })
        if (meets(corners, reach_m, top_m)) expect(blind).toBe(true)
        // A load that hangs over what is low is hidden at its near side, which no ray to its rim shows.
        const over = Array.from({ length: 41 }, (_, i) => atSlew(radius_m, from + (by * i) / 40)).some(
          (p) => Math.max(Math.abs(p.x_m - x_m), Math.abs(p.y_m - y_m)) < half_m + reach_m + 0.5,
        )
        // The load is taken for as wide as it is long each way, a square round its circle.
        if (!over && !meets(corners, reach_m, top_m) && !meets(grown, reach_m * Math.SQRT2 + 0.5, top_m + 0.15))
          expect(blind).toBe(false)
      }),
      { numRuns: runs(3000, 120) },
    )
  })
})

describe('what a display is set to', () => {
  const work = works.find((w) => w.machine === 'avocet')
  const job = work?.jobs[0]
  if (!work || !job) throw new RangeError('Avocet has no job')
  const set = (selected: Case['setup']['fitted']['selected']): Case => {
    const c = caseOf(work, job)
    return { ...c, setup: { ...c.setup, fitted: { ...c.setup.fitted, selected } } }
  }
  const judged = (c: Case): [Verdict, string[]] => {
    const { verdict, findings } = assess(c)
    return [verdict, findings.filter((f) => f.check === 'selection').map((f) => f.reason)]
  }
  it('is read off it: the same is inside, another outside, not read not proven', () => {
    expect(judged(set({ attachment: 'tyre-hand' }))).toEqual(['inside', ['agrees']])
    expect(judged(set({ attachment: 'fender-clamp' }))).toEqual(['outside', ['differs']])
    expect(judged(set(undefined))).toEqual(['not-proven', ['not-entered']])
    expect(judged(set({}))).toEqual(['not-proven', ['not-entered']])
  })
  it('is compared wherever it was read, each thing by itself, also with the table in use', () => {
    const read = (selected: Case['setup']['fitted']['selected']) => {
      const c = seen([], turned(10, 350, 10))
      const setup = { ...c.setup, fitted: { ...c.setup.fitted, selected } }
      return assess({ ...c, setup }).findings.filter((f) => f.check === 'selection')
    }
    const { counterweight } = ternSetup().fitted
    expect(read(undefined)).toEqual([])
    expect(read({ counterweight, boom_m: 29 }).map((f) => f.verdict)).toEqual(['inside', 'inside'])
    expect(read({ boom_m: 24.2 }).map((f) => `${f.subject} ${f.verdict}`)).toEqual(['boom_m outside'])
    expect(read({ configuration: 'none-such' }).map((f) => f.verdict)).toEqual(['outside'])
  })
})

describe('what was not checked', () => {
  const of = (steps: object[]) => notCheckedIn(tern, { ...turned(10, 350, 10), steps } as LiftPlan)
  it('is what there is to check where that is done: a hook’s of a hook, a way’s of a way', () => {
    const way = ['way-past', 'way-over'] as const
    const [turn] = turned(10, 350, 10).steps
    expect(of([turn ?? {}])).toEqual(expect.arrayContaining(['slings', 'drum', 'buried']))
    for (const n of way) expect(of([turn ?? {}])).not.toContain(n)
    expect(of([{ do: 'tow', laden: true }])).toEqual(['buried', 'condition', 'people', ...way])
    expect(of([{ do: 'mast', laden: true }])).toEqual(['buried', 'condition', 'people', ...way])
    expect(of([{ do: 'traverse', laden: true }])).toEqual(['slings', 'condition', 'people'])
  })
})

describe('where people stand while the load is up', () => {
  const lift = turned(10, 350, 10)
  const half_m = Math.hypot(size.length_m, size.width_m) / 2
  const people = (x_m: number, y_m: number, from = lift) => {
    const crew: Crew = { signaller: null, sightBy: 'operator', signals: null, stands: [{ role: 'slinger', x_m, y_m }] }
    const found = assess(seen([], from, crew)).findings.filter((f) => f.check === 'people' && f.subject === 'stand-1')
    expect(found).toHaveLength(1)
    return found[0]
  }
  it('nobody stands under it, with its swing, nor inside the circle of the tail where that comes round', () => {
    expect(people(10, 0)).toMatchObject({ verdict: 'outside', reason: 'stands-under', measured: 0, limit: 0.5 })
    expect(people(-2, 0)).toMatchObject({ verdict: 'outside', reason: 'stands-by-tail', measured: 0 })
    // Ahead, beside the boom, its tail never comes.
    expect(people(0, 30)).toMatchObject({ verdict: 'inside', reason: 'stands-clear' })
    expect(people(0, -30)?.measured).toBeGreaterThan(15)
  })
  it('nobody stands in line with a rope whose book says that it flies back: measured to every slew it goes through, both ways', () => {
    const whips = { ...tern, hoist: { ...tern.hoist, recoil_m: 2 } }
    const at = (r: number, slew_deg: number, from = lift, machine: typeof tern = whips) => {
      const stands = [{ role: 'slinger' as const, ...atSlew(r, slew_deg) }]
      const crew: Crew = { signaller: null, sightBy: 'operator', signals: null, stands }
      return assess(seen([], from, crew, machine)).findings.find((f) => f.subject === 'stand-1')
    }
    fc.assert(
      fc.property(
        fc.double({ min: 15, max: 60, noNaN: true }),
        fc.double({ min: 0, max: 360, noNaN: true }),
        fc.double({ min: 0, max: 350, noNaN: true }),
        fc.double({ min: 1, max: 170, noNaN: true }),
        (r, bearing, from_deg, by_deg) => {
          const arc = turned(10, from_deg, from_deg + by_deg)
          const f = at(r, bearing, arc)
          const slews = Array.from({ length: 1001 }, (_, i) => ((from_deg + (by_deg * i) / 1000 - bearing) * Math.PI) / 180)
          const plain_m = r > 10 + 29 ? Infinity : Math.min(...slews.map((a) => r * Math.abs(Math.sin(a))))
          const isOff = f?.reason === 'stands-in-line' || f?.reason === 'stands-off-line'
          // A thousandth of the way round is the most that the plain reckoning misses.
          if (isOff) expect(Math.abs((f?.measured ?? 0) - plain_m)).toBeLessThan((r * by_deg * Math.PI) / 180 / 1000)
          else expect((f?.measured ?? 0) / 0.5).toBeLessThanOrEqual(plain_m / 2 + 1e-6)
          if (plain_m < 1.9) expect(f?.verdict).toBe('outside')
        },
      ),
      { numRuns: runs(400, 60) },
    )
    // Behind the machine it flies back as well; where the book says nothing of it, nobody is held to it.
    expect(at(16, 180)).toMatchObject({ verdict: 'outside', reason: 'stands-in-line', measured: 0, limit: 2 })
    expect(at(16, 180, lift, tern)).toMatchObject({ verdict: 'inside', reason: 'stands-clear' })
  })
  it('a tail that goes round overhead crushes nobody; the load still comes down', () => {
    const high = { ...tern, upper: { ...tern.upper, tailAbove_m: 38.5 } }
    const at = (x_m: number) => {
      const crew: Crew = { signaller: null, sightBy: 'operator', signals: null, stands: [{ role: 'spotter', x_m, y_m: 0 }] }
      return assess(seen([], lift, crew, high)).findings.find((f) => f.subject === 'stand-1')
    }
    expect(at(-2)).toMatchObject({ verdict: 'inside', reason: 'stands-clear' })
    expect(at(10)).toMatchObject({ verdict: 'outside', reason: 'stands-under' })
  })
  it('is as near to it as the plain reckoning says: arcs of its own radius, widened by half its size and its swing', () => {
    fc.assert(
      fc.property(fc.double({ min: 12.5, max: 60, noNaN: true }), fc.double({ min: -9, max: 9, noNaN: true }), (r, slew_deg) => {
        // Straight out, over the arc: the nearest is the load at that slew, its swing unknown but no more than its rope's length allows.
        const at = atSlew(r, slew_deg)
        const f = people(at.x_m, at.y_m)
        const plain_m = r - 10 - half_m
        expect(f?.measured ?? 0).toBeLessThanOrEqual(plain_m + 1e-6)
        expect(f?.measured ?? 0).toBeGreaterThanOrEqual(plain_m - 3)
        expect(f?.verdict === 'outside').toBe((f?.measured ?? 0) < 0.5)
      }),
      { numRuns: runs(400, 60) },
    )
  })
  it('with the size of the load unknown is not proven within its reach, and said where it is beyond that', () => {
    const { size: _, ...unsized } = load
    const by = { ...lift, hung: { ...lift.hung, load: unsized } }
    expect(people(10, 3, by)).toMatchObject({ verdict: 'not-proven', reason: 'stands-unsized' })
    expect(people(40, 3, by)).toMatchObject({ verdict: 'inside', reason: 'stands-clear' })
  })
})
