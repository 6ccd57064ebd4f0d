import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  assess,
  type Case,
  type Crew,
  g_mps2,
  isStraddle,
  type LiftPlan,
  nearestRemedies,
  type Standing,
  type Step,
} from '../src'
import { StraddleContext } from '../src/check/straddle-context'
import { prepareFootprint } from '../src/statics/footprint'
import { reactionsAt } from '../src/statics/support-reactions'
import { confirmedBut, demoMachine, demoPlace, demoTable, judgedBy } from './demo'
import { runs } from './runs'

const gannet = demoMachine('gannet')
if (!isStraddle(gannet)) throw new RangeError('Gannet stands astride nothing')
const place = demoPlace('boatyard')
const floor = (id: string) => place.ground.find((g) => g.id === id) ?? null
type Frame = Extract<Standing, { on: 'frame' }>
type Cg = NonNullable<LiftPlan['hung']['load']['cg']>
type Piece = Extract<Step, { do: 'drive' }>['way'][number]
interface Job {
  kg: number | null
  cg?: Cg
  standing?: Partial<Frame>
  belly?: LiftPlan['hung']['belly']
  without?: string[]
  steps?: Step[]
}
const up: Step = { do: 'hoist', laden: true, from_m: 0, to_m: 1.5, which: 'all' }
const driven = (to: Partial<Piece> = {}): Step => ({
  do: 'drive',
  laden: true,
  way: [
    {
      kind: 'straight',
      label: 'Along the dock',
      length_m: 18,
      grade_pct: 0,
      cross_pct: 0,
      width_m: 11,
      height_m: null,
      surface: 'dry',
      floor: floor('pier'),
      ...to,
    },
  ],
  height_m: 1.5,
  facing: 'load-first',
  speed_mps: 0.4,
})
const caseOf = ({
  kg,
  cg = { x_m: 0.6, y_m: 0.25, z_m: 1.2 },
  standing,
  belly,
  without = [],
  steps = [up, driven()],
}: Job): Case => ({
  machine: gannet,
  tables: [demoTable('gannet-main')],
  setup: {
    format: 'geolabe.setup/2',
    place: place.id,
    position: { x_m: 21, y_m: -9, heading_deg: 90 },
    standing: {
      on: 'frame',
      hoists: [
        { id: 'front', x_m: 3 },
        { id: 'rear', x_m: -3 },
      ],
      synchronised: 'aligned',
      ground: floor('pier'),
      fall: { along_pct: 0, cross_pct: 0 },
      ...standing,
    },
    fitted: {},
    level: { pitch_deg: null, roll_deg: null, levelVerified: false },
    confirmed: confirmedBut(gannet, without),
  },
  lift: {
    format: 'geolabe.lift/2',
    hung: {
      load: { name: 'boat', mass_kg: kg, massSource: 'weighed', windArea_m2: 26, dragCoefficient: 1.1, cg },
      rigging: [],
      belly: belly ?? { halfBreadth_m: 1.8, rise_m: 3.4, wll_kg: 20000 },
    },
    steps,
  },
  conditions: { wind_mps: 2 },
  place,
  policy: place.policy,
})
const judged = (job: Job) => judgedBy(caseOf(job), 'id')

describe('a frame astride its load', () => {
  it('shares a boat by moments: the low end gains what lies above its slings, the high end what hangs below', () => {
    const first = (job: Job) => {
      const ctx = new StraddleContext(caseOf(job), 0)
      return (ctx.shares?.[0]?.most ?? 0) * (ctx.hung?.worst_kg ?? 0)
    }
    expect(first({ kg: 38000, standing: {} })).toBeCloseTo(22800, 6)
    const bowLow = { fall: { along_pct: -3, cross_pct: 0 } }
    expect(first({ kg: 40000, cg: { x_m: 0.8, y_m: 0, z_m: 1.2 }, standing: bowLow })).toBeCloseTo(25573.33, 1)
    expect(
      new StraddleContext(caseOf({ kg: 40000, cg: { x_m: 0.8, y_m: 0, z_m: -1.2 }, standing: bowLow }), 0).shares?.[0]?.least,
    ).toBeCloseTo((3.8 - 0.036) / 6, 9)
  })
  it('tilts a boat whose one hoist moves alone, and her share with her', () => {
    const alone: Step = { do: 'hoist', laden: true, from_m: 0, to_m: 0.6, which: ['front'] }
    const share = (step: Step) => new StraddleContext(caseOf({ kg: 38000, steps: [step] }), 0).shares?.[0]
    // Bow up by 0.6 m over 6 m: what lies 1.2 m above its slings goes 0.12 m aft.
    expect(share(alone)?.least).toBeCloseTo((3.6 - 0.12) / 6, 9)
    expect(share(alone)?.most).toBeCloseTo(3.6 / 6, 9)
    expect(share({ ...alone, which: ['rear'] })?.most).toBeCloseTo((3.6 + 0.12) / 6, 9)
  })
  it('stands on four wheels: elastic by its book, else by the upper bound', () => {
    const still = { along: 0, cross: 0, braking_mps2: 0, wind_N: 0 }
    const elastic = [162.9, 151.2, 126.4, 138.0]
    const c = caseOf({ kg: 38000 })
    for (const [i, w] of (new StraddleContext(c, 0).wheels_N([still]) ?? []).entries())
      expect(w.most_N / 1000).toBeCloseTo(elastic[i] ?? 0, 1)
    const rigid = { ...gannet, hoists: { ...gannet.hoists, straddle: { ...gannet.hoists.straddle, twist: undefined } } }
    const upper = [300941.57, 277650.78, 264452.66, 264452.66]
    for (const [i, w] of (new StraddleContext({ ...c, machine: rigid }, 0).wheels_N([still]) ?? []).entries())
      expect(w.most_N).toBeCloseTo(upper[i] ?? 0, 1)
  })
  it('reads its jobs by the marks of its hoists, and the change offered is what it says', () => {
    const inside = assess(caseOf({ kg: 38000 }))
    expect([inside.verdict, (inside.governing?.utilisation ?? 1) < 0.9]).toEqual(['inside', true])
    expect(inside.findings.find((f) => f.id === 'rating:front')?.utilisation).toBeCloseTo(0.7015, 4)
    expect(judged({ kg: 44000, cg: { x_m: 1, y_m: 0.25, z_m: 1.2 } })).toEqual(['near', 'rating:front', 0.903])
    const job = { kg: 46000, cg: { x_m: 1.4, y_m: 0.25, z_m: 1.2 } }
    expect(judged(job)).toEqual(['outside', 'rating:front', 1.038])
    const c = caseOf(job)
    const { governing } = assess(c)
    const changes = governing ? nearestRemedies(c, governing, { mats: [], canStand: () => true }) : []
    const moved = changes.find((x) => x.change.kind === 'centre')
    expect(moved?.change).toMatchObject({ axis: 'along', towards: 'rear' })
    expect(moved?.change.kind === 'centre' && moved.change.by_m).toBeCloseTo(0.59, 9)
    expect(moved?.assessment?.findings.find((f) => f.id === 'rating:together')?.utilisation).toBeCloseTo(0.92, 9)
    expect(moved?.assessment?.verdict).toBe('near')
    const unknown = caseOf({ kg: 40000 })
    unknown.lift.hung.load.massSource = null
    expect(assess(unknown).verdict).toBe('not-proven')
  })
  it('pulls its slings by the angle they rise at', () => {
    const c = caseOf({
      kg: 20000,
      cg: { x_m: 2.9, y_m: 0, z_m: 1 },
      standing: {
        hoists: [
          { id: 'front', x_m: 3 },
          { id: 'rear', x_m: -3 },
        ],
      },
    })
    const sling = assess(c).findings.find((f) => f.id === 'structure:slings')
    expect((sling?.measured ?? 0) / (5.9 / 6)).toBeCloseTo((10000 * g_mps2) / Math.cos(Math.atan(0.5)), 0)
    expect(judged({ kg: 38000, belly: { halfBreadth_m: null, rise_m: 3.4, wll_kg: 20000 } }).slice(0, 2)).toEqual([
      'not-proven',
      'structure:slings',
    ])
    expect(judged({ kg: 38000, belly: { halfBreadth_m: 1.8, rise_m: 3.4, wll_kg: 12000 } }).slice(0, 2)).toEqual([
      'outside',
      'structure:slings',
    ])
  })
  it('lifts with both hoists only aligned, and one at a time in any state', () => {
    for (const synchronised of ['separate', 'selected', 'aligning'] as const)
      expect(judged({ kg: 38000, standing: { synchronised } }).slice(0, 2)).toEqual(['outside', 'motion'])
    expect(judged({ kg: 38000, standing: { synchronised: null } }).slice(0, 2)).toEqual(['not-proven', 'motion'])
    expect(judged({ kg: 38000, standing: { synchronised: null }, steps: [{ ...up, which: ['front'] } as Step] })[0]).toBe(
      'inside',
    )
  })
  it('is stopped by a floor, a door, a slope, wind, a wheel; not proven with anything left out', () => {
    const drive = (to: Partial<Piece>) => judged({ kg: 38000, steps: [up, driven(to)] }).slice(0, 2)
    expect(drive({ width_m: 9.2 })).toEqual(['outside', 'way:0-width'])
    expect(drive({ height_m: 7.9 })).toEqual(['outside', 'way:0-height'])
    expect(drive({ grade_pct: 3.5 })).toEqual(['outside', 'way:0-grade'])
    expect(drive({ floor: null })).toEqual(['not-proven', 'floor'])
    expect(drive({ width_m: null })).toEqual(['not-proven', 'way:0'])
    const weak = {
      ...floor('pier'),
      id: 'lid',
      label: 'Pit lid',
      source: 'Its plate',
      allowable_kPa: 100,
      axle_N: 200000,
      wheel_N: 150000,
    }
    expect(drive({ floor: weak })[0]).toBe('outside')
    for (const e of gannet.evidence)
      expect(judged({ kg: 38000, without: [e.id] }).slice(0, 2)).toEqual(['not-proven', 'evidence'])
    expect(judged({ kg: 38000, standing: { fall: { along_pct: null, cross_pct: 0 } } }).slice(0, 2)).toEqual([
      'not-proven',
      'level',
    ])
    const c = caseOf({ kg: 38000 })
    expect(assess({ ...c, conditions: { wind_mps: 13 } }).governing?.id).toBe('wind')
    expect(assess({ ...c, conditions: { wind_mps: null } }).verdict).toBe('not-proven')
    // The job near its limit drives on the pier with 1.4 times its heaviest wheel.
    const near = assess(caseOf({ kg: 44000, cg: { x_m: 1, y_m: 0.25, z_m: 1.2 } }))
    const wheel = near.findings.find((f) => f.id === 'wheel:FL')?.measured ?? 0
    expect(wheel / 1000).toBeGreaterThan(190)
    expect(near.findings.find((f) => f.id === 'floor:pier-front-wheel')?.measured).toBeCloseTo(wheel * 1.4, 6)
  })
  it('refuses slings too near or beyond the beams, a centre outside them, a hoist that is not there; each by its field', () => {
    const field = (job: Job) => {
      try {
        assess(caseOf(job))
        return null
      } catch (e) {
        return e instanceof Error && 'path' in e ? e.path : e
      }
    }
    const at = (front: number, rear: number) => ({
      hoists: [
        { id: 'front', x_m: front },
        { id: 'rear', x_m: rear },
      ],
    })
    expect(field({ kg: 9000, standing: at(1, -0.9) })).toBe('setup.standing.hoists')
    expect(field({ kg: 9000, standing: at(4.3, -3) })).toBe('setup.standing.hoists.0.x_m')
    expect(field({ kg: 9000, standing: at(0.5, -3) })).toBe('lift.hung.load.cg.x_m')
    expect(field({ kg: 9000, standing: { hoists: [{ id: 'front', x_m: 3 }] } })).toBe('setup.standing.hoists')
    expect(field({ kg: 9000, steps: [{ ...up, which: ['middle'] } as Step] })).toBe('lift.steps.0.which.0')
  })
})

describe('any boat in its slings', () => {
  const some = (min: number, max: number) => fc.double({ min, max, noNaN: true })
  const any = fc.record({
    kg: some(4000, 60000),
    x_m: some(-2, 2),
    y_m: some(-0.5, 0.5),
    z_m: some(-1, 2.5),
    along: some(-0.9, 0.9),
    cross: some(-0.9, 0.9),
    off: some(0, 0.3),
    wind: some(0, 10),
    pull: fc.array(some(-1, 1), { minLength: 6, maxLength: 6 }),
  })
  const rank = { inside: 0, near: 1, 'not-proven': 2, outside: 3 }
  it('is shared out whole between two hoists, and its wheels carry it all', () => {
    fc.assert(
      fc.property(any, ({ kg, x_m, y_m, z_m, along, cross }) => {
        const ctx = new StraddleContext(
          caseOf({ kg, cg: { x_m, y_m, z_m }, standing: { fall: { along_pct: along, cross_pct: cross } } }),
          0,
        )
        expect((ctx.shares ?? []).reduce((s, h) => s + h.most, 0)).toBeGreaterThanOrEqual(1 - 1e-9)
        const moment = ctx.moments[0]?.all[0]
        const wheels = moment ? ctx.wheels_N([moment]) : null
        if (wheels) expect(wheels.reduce((s, w) => s + w.most_N, 0)).toBeGreaterThanOrEqual((kg + 21000) * g_mps2 * (1 - 1e-9))
      }),
      { numRuns: runs(1000) },
    )
  })
  it('finds nothing less used than anywhere inside the doubt', () => {
    fc.assert(
      fc.property(any, ({ kg, x_m, y_m, z_m, along, cross, off, wind, pull }) => {
        const tol = (value: number) => ({ value, tolerance: off })
        const [p = 0, q = 0, r = 0, s = 0, t = 0, u = 0] = pull
        const whole = caseOf({
          kg,
          cg: { x_m: tol(x_m), y_m: tol(y_m), z_m: tol(z_m) },
          standing: {
            fall: { along_pct: tol(along), cross_pct: tol(cross) },
            hoists: [
              { id: 'front', x_m: tol(3) },
              { id: 'rear', x_m: -3 },
            ],
          },
        })
        const one = caseOf({
          kg,
          cg: { x_m: x_m + p * off, y_m: y_m + q * off, z_m: z_m + r * off },
          standing: {
            fall: { along_pct: along + s * off, cross_pct: cross + t * off },
            hoists: [
              { id: 'front', x_m: 3 + u * off },
              { id: 'rear', x_m: -3 },
            ],
          },
        })
        const conditions = { wind_mps: wind }
        const worst = new Map(assess({ ...whole, conditions }).findings.map((f) => [f.id, f]))
        for (const f of assess({ ...one, conditions }).findings) {
          const w = worst.get(f.id)
          if (
            f.utilisation === null ||
            f.check === 'level' ||
            f.check === 'travel' ||
            f.check === 'overturning' ||
            w?.utilisation == null
          )
            continue
          expect([f.id, w.utilisation >= f.utilisation - 1e-9]).toEqual([f.id, true])
        }
      }),
      { numRuns: runs(600) },
    )
  })
  it('never gets better with more in her, more wind, a steeper way', () => {
    fc.assert(
      fc.property(any, some(1, 1.4), ({ kg, x_m, y_m, z_m, along, wind }, more) => {
        const cg = { x_m, y_m, z_m }
        const c = caseOf({ kg, cg, steps: [up, driven({ grade_pct: along })] })
        const verdict = rank[assess({ ...c, conditions: { wind_mps: wind } }).verdict]
        const fuller = caseOf({ kg: kg * more, cg, steps: [up, driven({ grade_pct: along })] })
        fuller.lift.hung.load.lightest_kg = kg
        expect(rank[assess({ ...fuller, conditions: { wind_mps: wind } }).verdict]).toBeGreaterThanOrEqual(verdict)
        expect(rank[assess({ ...c, conditions: { wind_mps: wind * more } }).verdict]).toBeGreaterThanOrEqual(verdict)
      }),
      { numRuns: runs(400) },
    )
  })
  it('agrees with reactions of the same frame worked out apart', () => {
    fc.assert(
      fc.property(any, ({ kg, x_m, y_m, z_m }) => {
        const ctx = new StraddleContext(caseOf({ kg, cg: { x_m, y_m, z_m } }), 0)
        const total = kg + 21000
        const footprint = prepareFootprint(gannet.hoists.straddle.wheels)
        const plain = reactionsAt(footprint, { force_N: total * g_mps2, x_m: (kg * x_m) / total, y_m: (kg * y_m) / total })
        const still = ctx.wheels_N([{ along: 0, cross: 0, braking_mps2: 0, wind_N: 0 }])
        expect((still ?? []).map((w) => w.most_N)).toEqual((plain.reactions ?? []).map((r) => r.reaction_N))
      }),
      { numRuns: runs(300) },
    )
  })
  describe('and who stands by it', () => {
    const size = { length_m: 9, width_m: 3, height_m: 3 }
    const radiused = (radius_m: number): Step => driven({ kind: 'turn', radius_m })
    const standing = (x_m: number, y_m: number, steps: Step[], over: Partial<Crew> = {}) => {
      const c = caseOf({ kg: 38000, cg: { x_m: 0, y_m: 0, z_m: 1.2 }, steps })
      c.lift.hung.load.size = size
      c.lift.crew = { signaller: null, sightBy: 'operator', signals: null, stands: [{ role: 'slinger', x_m, y_m }], ...over }
      const found = assess(c).findings.filter((f) => f.check === 'people')
      expect(found).toHaveLength(1)
      return found[0]
    }
    it('is clear of all the room that a hull may take, whose middle nobody measured, and of where wheels roll, turns and all', () => {
      const beside = (x_m: number, y_m: number, steps: Step[]) => standing(x_m, y_m, steps, { told: 'radio' })
      // Slings three metres ahead and astern under nine metres of hull: it may reach six from the middle either way.
      expect(beside(6.4, 0, [up])).toMatchObject({ reason: 'stands-under', verdict: 'outside' })
      expect(beside(6.4, 0, [up])?.measured).toBeCloseTo(0.4, 9)
      expect(beside(7.5, 0, [up])).toMatchObject({ reason: 'stands-clear', verdict: 'inside' })
      expect(beside(7.5, 0, [up])?.measured).toBeCloseTo(1.5, 9)
      // Braked from the beams' height it swings out ahead of that.
      const { straddle } = gannet.hoists
      const swings_m = (straddle.beams.height_m * straddle.braking_mps2) / g_mps2
      expect(beside(7.5, 0, [driven()])?.measured).toBeCloseTo(1.5 - swings_m, 9)
      // In line with its wheels, whether before or behind them.
      expect(beside(9, 4.3, [up])).toMatchObject({ reason: 'stands-clear' })
      expect(beside(9, 4.3, [driven()])).toMatchObject({ reason: 'stands-by-wheel', verdict: 'outside' })
      expect(beside(9, 5.5, [driven()])).toMatchObject({ reason: 'stands-clear' })
      const [base_m, radius_m] = [9, 40]
      const half_m = straddle.tyreWidth_m / 2
      expect(beside(9, 6.5, [radiused(radius_m)])?.measured).toBeCloseTo(2.5 - half_m - base_m ** 2 / (2 * radius_m), 9)
    })
    it('is seen from its cab past the boat, or speaks by radio; without her size it is not proven', () => {
      // The cab is on the left: behind her on the right nobody sees anybody.
      expect(standing(0, 5.5, [up])).toMatchObject({ reason: 'stands-clear' })
      expect(standing(0, -5.5, [up])).toMatchObject({ reason: 'stands-unseen', verdict: 'outside' })
      expect(standing(0, -5.5, [up], { told: 'radio' })).toMatchObject({ reason: 'stands-clear' })
      const c = caseOf({ kg: 38000, steps: [up] })
      c.lift.crew = { signaller: null, sightBy: 'operator', signals: null, stands: [{ role: 'slinger', x_m: 8, y_m: 0 }] }
      expect(assess(c).findings.find((f) => f.check === 'people')).toMatchObject({
        reason: 'stands-unsized',
        verdict: 'not-proven',
      })
    })
    it('is never found better nearer to her, and is seen wherever the straight line misses her', () => {
      const at = fc.record({
        x_m: fc.double({ min: -15, max: 15, noNaN: true }),
        y_m: fc.double({ min: -8, max: 8, noNaN: true }),
      })
      fc.assert(
        fc.property(at, fc.boolean(), ({ x_m, y_m }, moves) => {
          const f = standing(x_m, y_m, [moves ? driven() : up])
          const nearer = standing(x_m * 0.9, y_m, [moves ? driven() : up])
          if (f?.reason === 'stands-under') expect(nearer?.verdict).toBe('outside')
          // On her own side of the boat whoever is clear of her is in sight.
          if (y_m > 2.1) expect(f?.reason).not.toBe('stands-unseen')
          if (f?.reason === 'stands-unseen') expect(y_m).toBeLessThan(2.1)
        }),
        { numRuns: runs(1000, 200) },
      )
    })
  })
})
