import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { type Assessment, assess, type Case } from '../src'
import { northQuay, openField, tern, ternLift, ternSetup, ternTable } from './demo'
import { caseOf, type Job, worksBy } from './jobs'
import {
  along,
  angleAt,
  feet,
  massesAt,
  mostOn,
  type RawModel,
  type RawTable,
  rad,
  ratedAt,
  raw,
  type Stood,
  tipping,
  weightOf,
} from './plain'
import { runs } from './runs'

/**
 * A second, plain reckoning of rating and overturning: from the demo's raw files, with nothing of `core/src` but what is judged. Every
 * figure at the places it looks at; where the core finds a figure more favourable than this, the core is wrong.
 */
const level = { pitch_deg: 0, roll_deg: 0, levelVerified: true }

/** A lift on an open field, level and without wind: only the machine, its table and the load are in it. */
const onOpenField = (base: Case, kg: number, steps: Case['lift']['steps'], configuration: string): Case => ({
  ...base,
  place: openField,
  setup: { ...base.setup, level },
  lift: {
    ...base.lift,
    hung: { ...base.lift.hung, load: { ...base.lift.hung.load, mass_kg: kg, windArea_m2: 0 } },
    steps,
    configuration,
  },
  conditions: { wind_mps: 0 },
})

const outriggersOf = ({ setup: { standing } }: Case) => (standing.on === 'outriggers' ? standing.outriggers : [])

/** As it stands at its work, with nothing on its hook. */
function baseOf(id: string): Case {
  if (id === 'tern') {
    const setup = ternSetup({ counterweight: 'light' })
    const lift = ternLift({ rigging: [] })
    return {
      machine: tern,
      tables: [ternTable],
      setup,
      lift,
      conditions: { wind_mps: 0 },
      place: northQuay,
      policy: northQuay.policy,
    }
  }
  const work = worksBy(id)
  const job: Job = { ...(work.jobs[0] as Job), rigging_kg: 0, wind_mps: 0, partsOfLine: id === 'turnstone' ? 4 : 2 }
  return caseOf(work, id === 'petrel' ? { ...job, state: 'legs' } : job)
}

const machines = [
  {
    id: 'tern',
    configuration: 'full-light',
    share: 0.75,
    hook: 220,
    far: 26,
    near: 3,
    booms: [9.8, 14.6, 19.4, 24.2, 29],
    byAngle: false,
  },
  { id: 'wren', configuration: 'legs', share: 0.75, hook: 14, far: 5.4, near: 1.6, booms: [3.4, 4.2, 5, 5.8], byAngle: false },
  { id: 'plover', configuration: 'legs', share: 0.85, hook: 60, far: 10, near: 2.6, booms: [6, 8.5, 11], byAngle: false },
  { id: 'petrel', configuration: 'legs', share: 0.75, hook: 60, far: 13, near: 3.1, booms: [7, 9.5, 12, 14.5], byAngle: false },
  {
    id: 'turnstone',
    configuration: 'wide',
    share: 0.75,
    hook: 20,
    far: 8,
    near: 1,
    booms: [2.6, 4.1, 5.6, 7.1, 8.6],
    byAngle: true,
  },
] as const

interface Reckoned {
  c: Case
  a: Assessment
  model: RawModel
  table: RawTable
  configuration: string
  share: number
  /** What hangs, block and all. */
  total: number
  stand: { x: number; y: number }[]
}
const findingOf = ({ a }: Reckoned, check: string, subject?: string) =>
  a.findings.find((f) => f.check === check && (subject === undefined || f.subject === subject))

/** The table, read at one place. */
function ratedNoBetter(r: Reckoned, row: number, column: number) {
  const rated = ratedAt(r.table, r.configuration, row, column)
  const rating = findingOf(r, 'rating')
  if (rated === null) expect(rating?.verdict, `not rated at ${row}`).toBe('outside')
  else if (rating?.utilisation != null) expect(rating.utilisation).toBeGreaterThan(r.total / rated - 1e-9)
}

/** Tipping, each leg with the load on and its jerk and with the hook empty, and what its mat or float presses with. */
function standsNoBetter(r: Reckoned, at: Stood) {
  const rule = r.share * tipping(r.stand, at)
  const over = findingOf(r, 'overturning')
  if (rule === Infinity || over?.utilisation === null) return
  if (over?.utilisation !== undefined) expect(over.utilisation).toBeGreaterThan(r.total / rule - 1e-6)
  // With the jerk it would fall here: outside by that, and of its legs nothing is said.
  if (r.total * r.c.policy.dynamicFactor >= (rule / r.share) * (1 - 1e-6)) return
  for (const [n, leg] of r.model.outriggers.entries()) {
    const carries = Math.max(...[r.total * r.c.policy.dynamicFactor, 0].map((kg) => mostOn(r.stand, weightOf(at, kg), n)))
    const said = findingOf(r, 'outrigger', leg.id)
    if (said?.measured != null) expect(said.measured, leg.id).toBeGreaterThan(carries * (1 - 1e-6) - 1e-6)
    const under = findingOf(r, 'ground', leg.id)
    const m = outriggersOf(r.c)[n]?.mat
    if (under?.measured != null && m)
      expect(under.measured, leg.id).toBeGreaterThan((carries / (m.length_m * m.width_m) / 1000) * (1 - 1e-6) - 1e-6)
  }
}

describe.each(machines)('$id beside a plain reckoning', ({ id, configuration, share, hook, far, near, booms, byAngle }) => {
  const model: RawModel = raw(id === 'tern' ? 'machines/tern.json' : `models/${id}.json`)
  const table: RawTable = raw(`tables/${id}-main.json`)
  const stand = feet(model)
  const base = baseOf(id)
  const lift = fc.record({
    boom: fc.constantFrom(...booms),
    r0: fc.double({ min: near, max: far, noNaN: true }),
    r1: fc.double({ min: near, max: far, noNaN: true }),
    from: fc.integer({ min: 0, max: 359 }),
    by: fc.integer({ min: 0, max: 200 }),
    kg: fc.double({ min: 50, max: id === 'tern' ? 20_000 : 6000, noNaN: true }),
  })
  it('is nowhere more favourable', { timeout: 1_800_000 }, () => {
    fc.assert(
      fc.property(lift, ({ boom, r0, r1, from, by, kg }) => {
        const step = base.lift.steps[0]
        if (step?.do !== 'slew') throw new Error('no slew')
        const points = { pickUp: { radius_m: r0, slew_deg: from }, setDown: { radius_m: r1, slew_deg: from + by } }
        const plan = onOpenField(base, kg, [{ ...step, boom_m: boom, ...points, heights: undefined }], configuration)
        const a = assess(plan)
        const r: Reckoned = { c: plan, a, model, table, configuration, share, total: kg + hook, stand }
        // What the boom does not reach is outside already.
        if (findingOf(r, 'boom-limits')) return
        for (let i = 0; i <= 6; i++) {
          const out = r0 + ((r1 - r0) * i) / 6
          ratedNoBetter(r, byAngle ? angleAt(model.boom, boom, out) : out, boom)
        }
        for (const out of [r0, r1])
          for (let i = 0; i <= 8; i++) standsNoBetter(r, massesAt(model, boom, out, from + (by * i) / 8))
      }),
      { numRuns: runs(25_000, 60) },
    )
  })
})

interface RawFolding extends RawModel {
  boom: RawModel['boom'] & {
    articulated: {
      inner_m: number
      outer_m: number
      stage_m: number
      masses: Record<'inner' | 'outer' | 'stages', { mass_kg: number; at_m: number; share?: number }>
    }
  }
}
interface Pose {
  inner_deg: number
  fold_deg: number
  extension_m: number
  slew_deg: number
}

/** A boom that folds: its hinge by the inner boom, its head by the outer one. */
function folded({ chassis, upper, boom }: RawFolding, p: Pose): Stood & { radius: number } {
  const { inner_m, outer_m, masses } = boom.articulated
  const [a, o] = [p.inner_deg * rad, (p.inner_deg - p.fold_deg) * rad]
  const hinge = inner_m * Math.cos(a) - boom.pivot.back_m
  const radius = hinge + (outer_m + p.extension_m) * Math.cos(o)
  const put = (m: number, out: number) => along(m, out, p.slew_deg)
  return {
    radius,
    hook: put(1, radius),
    points: [
      ...chassis.masses.map((m) => ({ m: m.mass_kg, x: m.x_m, y: m.y_m })),
      ...upper.masses.map((m) => put(m.mass_kg, m.radius_m)),
      put(masses.inner.mass_kg, masses.inner.at_m * Math.cos(a) - boom.pivot.back_m),
      put(masses.outer.mass_kg, hinge + masses.outer.at_m * Math.cos(o)),
      put(masses.stages.mass_kg, hinge + (masses.stages.at_m + (masses.stages.share ?? 0) * p.extension_m) * Math.cos(o)),
    ],
  }
}

describe('heron beside a plain reckoning', () => {
  const model: RawFolding = raw('models/heron.json')
  const table: RawTable = raw('tables/heron-main.json')
  const stand = feet(model)
  const work = worksBy('heron')
  const base = caseOf(work, { ...(work.jobs[0] as Job), rigging_kg: 0, wind_mps: 0 })
  const { inner_m, outer_m, stage_m } = model.boom.articulated
  const pose = fc.record({
    inner_deg: fc.double({ min: 20, max: 80, noNaN: true }),
    fold_deg: fc.double({ min: 0, max: 120, noNaN: true }),
    extension_m: fc.integer({ min: 0, max: 3 }).map((n) => n * stage_m),
    slew_deg: fc.integer({ min: 0, max: 359 }),
  })
  const asked = fc.record({
    from: pose,
    to: pose,
    by: fc.integer({ min: -120, max: 120 }),
    together: fc.boolean(),
    kg: fc.double({ min: 50, max: 5000, noNaN: true }),
  })
  /** Joint by joint: the inner boom, the outer one, what is drawn out, the slew. */
  const oneByOne = (a: Pose, b: Pose): Pose[] => [
    a,
    { ...a, inner_deg: b.inner_deg },
    { ...a, inner_deg: b.inner_deg, fold_deg: b.fold_deg },
    { ...b, slew_deg: a.slew_deg },
    b,
  ]
  const seen = { rated: 0 }
  it('is nowhere more favourable', { timeout: 1_800_000 }, () => {
    fc.assert(
      fc.property(asked, ({ from, to, by, together, kg }) => {
        const step = base.lift.steps[0]
        if (step?.do !== 'pose') throw new Error('no pose')
        const waypoints = [from, { ...to, slew_deg: from.slew_deg + by }]
        const c = onOpenField(base, kg, [{ ...step, waypoints, mode: together ? 'together' : 'one-after-another' }], 'full')
        let a: Assessment
        try {
          a = assess(c)
        } catch (e) {
          // Below its deck, or the head behind its own mast: no way to move at all.
          if (e instanceof Error && 'code' in e) return
          throw e
        }
        const r: Reckoned = { c, a, model, table, configuration: 'full', share: 0.75, total: kg + 38, stand }
        if (findingOf(r, 'boom-limits')) return
        if (findingOf(r, 'rating')?.utilisation != null) seen.rated++
        const [p, q] = waypoints as [Pose, Pose]
        const ends = together ? [p, q] : oneByOne(p, q)
        for (const [n, b] of ends.slice(1).entries())
          for (let i = 0; i <= 12; i++) {
            const a = ends[n] as Pose
            const run = (key: keyof Pose) => a[key] + ((b[key] - a[key]) * i) / 12
            const keys = ['inner_deg', 'fold_deg', 'extension_m', 'slew_deg'] as const
            const at = Object.fromEntries(keys.map((key) => [key, run(key)])) as unknown as Pose
            const stood = folded(model, at)
            ratedNoBetter(r, stood.radius, inner_m + outer_m + at.extension_m)
            standsNoBetter(r, stood)
          }
      }),
      { numRuns: runs(8_000, 40) },
    )
    expect(seen.rated).toBeGreaterThan(0)
  })
})
