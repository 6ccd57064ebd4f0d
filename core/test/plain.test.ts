import { readFileSync } from 'node:fs'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { assess, type Case } from '../src'
import { openField } from './demo'
import { caseOf, type Job, worksBy } from './jobs'
import { runs } from './runs'

/**
 * A second, plain reckoning of rating and overturning: from the demo's raw files, with nothing of `core/src` but what is judged. Every
 * figure at the places it looks at; where the core finds a figure more favourable than this, the core is wrong.
 */
const raw = (path: string) => JSON.parse(readFileSync(new URL(`../../demo/${path}`, import.meta.url), 'utf8'))
const rad = Math.PI / 180

interface Xy {
  x_m: number
  y_m: number
}
/** As much of the raw files as is looked at. */
interface RawModel {
  chassis: { masses: ({ mass_kg: number } & Xy)[] }
  upper: { masses: { mass_kg: number; radius_m: number }[]; counterweights: { mass_kg: number; radius_m: number }[] }
  boom: {
    pivot: { back_m: number }
    headOffset_m: number
    masses: { mass_kg: number; at_m: number; share: number }[]
  }
  outriggers: {
    id: string
    drop?: Xy
    positions?: { fullyExtended: Xy }
    swing?: { hinge: Xy; stops: { section_m: number; angle_deg: number }[] }
  }[]
}
interface RawTable {
  configurations: { id: string; columns: number[]; rows: { at: number; ratings_kg: (number | null)[] }[] }[]
}

interface Pt {
  m: number
  x: number
  y: number
}

/** Where its feet stand, as far out as they go, worked out by hand. */
function feet({ outriggers }: RawModel): { x: number; y: number }[] {
  return outriggers.map(({ drop, positions, swing }) => {
    const at = drop ?? positions?.fullyExtended
    if (at) return { x: at.x_m, y: at.y_m }
    const stop = swing?.stops.at(-1)
    if (!swing || !stop) throw new Error('an outrigger that stands nowhere')
    const { hinge } = swing
    const { section_m, angle_deg } = stop
    return {
      x: hinge.x_m + Math.sign(hinge.x_m) * section_m * Math.cos(angle_deg * rad),
      y: hinge.y_m + Math.sign(hinge.y_m) * section_m * Math.sin(angle_deg * rad),
    }
  })
}

/** Angle of the boom with its head at a radius: by halving, the raised one. */
function angleAt(boom: RawModel['boom'], L: number, radius: number): number {
  let [lo, hi] = [0, 90]
  const at = (a: number) => L * Math.cos(a * rad) + boom.headOffset_m * Math.sin(a * rad) - boom.pivot.back_m
  // Radius falls as the boom is raised, past the angle of its head offset.
  lo = Math.atan2(boom.headOffset_m, L) / rad
  for (let i = 0; i < 80; i++) {
    const mid = (lo + hi) / 2
    if (at(mid) > radius) lo = mid
    else hi = mid
  }
  return lo
}

/** Every mass of the machine with its place in plan, and how far out along the boom something is. */
function massesAt(model: RawModel, L: number, radius: number, slew: number) {
  const a = angleAt(model.boom, L, radius)
  const [c, s] = [Math.cos(slew * rad), Math.sin(slew * rad)]
  const along = (m: number, r: number): Pt => ({ m, x: r * c, y: r * s })
  const points: Pt[] = [
    ...model.chassis.masses.map((m) => ({ m: m.mass_kg, x: m.x_m, y: m.y_m })),
    ...model.upper.masses.map((m) => along(m.mass_kg, m.radius_m)),
    ...model.upper.counterweights.slice(0, 1).map((m) => along(m.mass_kg, m.radius_m)),
    ...model.boom.masses.map((m) => along(m.mass_kg, (m.at_m + m.share * L) * Math.cos(a * rad) - model.boom.pivot.back_m)),
  ]
  return { points, hook: along(1, radius) }
}

/** All its weight together, with something on the hook. */
function weightOf({ points, hook }: ReturnType<typeof massesAt>, hung_kg: number): { N: number; x: number; y: number } {
  const all = [...points, { ...hook, m: hung_kg }]
  const m = all.reduce((sum, p) => sum + p.m, 0)
  const mean = (of: (p: Pt) => number) => all.reduce((sum, p) => sum + p.m * of(p), 0) / m
  return { N: m * 9.80665, x: mean((p) => p.x), y: mean((p) => p.y) }
}

/** The least mass on the hook that tips it over any edge, at one slew. */
function tipping(model: RawModel, stand: { x: number; y: number }[], L: number, radius: number, slew: number): number {
  const { points, hook } = massesAt(model, L, radius, slew)
  let least = Infinity
  for (const p of stand)
    for (const q of stand) {
      if (p === q) continue
      const inside = (t: { x: number; y: number }) => (q.x - p.x) * (t.y - p.y) - (q.y - p.y) * (t.x - p.x)
      if (stand.some((t) => inside(t) < -1e-9)) continue
      const holds = points.reduce((sum, t) => sum + t.m * inside(t), 0)
      const lifts = -inside(hook)
      if (lifts > 1e-12) least = Math.min(least, Math.max(0, holds) / lifts)
    }
  return least
}

/** What one leg carries at the most, however the others settle: of every three that hold it up alone, newtons. */
function mostOn(stand: { x: number; y: number }[], w: { N: number; x: number; y: number }, leg: number): number {
  let most = 0
  for (let i = 0; i < stand.length; i++)
    for (let j = i + 1; j < stand.length; j++)
      for (let k = j + 1; k < stand.length; k++) {
        const at = [i, j, k].map((n) => stand[n] ?? { x: 0, y: 0 }) as [Xyz, Xyz, Xyz]
        const area = (a: Xyz, b: Xyz, c: Xyz) => (b.x - a.x) * (c.y - a.y) - (b.y - a.y) * (c.x - a.x)
        const whole = area(at[0], at[1], at[2])
        if (Math.abs(whole) < 1e-9) continue
        const shares = [area(w, at[1], at[2]), area(at[0], w, at[2]), area(at[0], at[1], w)].map((s) => s / whole)
        if (shares.some((s) => s < -1e-9)) continue
        const own = [i, j, k].indexOf(leg)
        if (own >= 0) most = Math.max(most, (shares[own] ?? 0) * w.N)
      }
  return most
}
type Xyz = { x: number; y: number }

/** The rating by hand: of both neighbours in row and column the least; null: nothing is rated. */
function ratedAt(table: RawTable, id: string, row: number, column: number): number | null {
  const c = table.configurations.find((x) => x.id === id)
  if (!c) throw new Error(`no ${id}`)
  const near = (list: number[], v: number): number[] => {
    const same = list.findIndex((x) => Math.abs(x - v) < 1e-9)
    if (same >= 0) return [same]
    const above = list.findIndex((x) => x > v)
    return above <= 0 ? [] : [above - 1, above]
  }
  const rows = near(
    c.rows.map((r) => r.at),
    row,
  )
  const columns = near(c.columns, column)
  const cells = rows.flatMap((i) => columns.map((j) => c.rows[i]?.ratings_kg[j] ?? null))
  return cells.length === 0 || cells.includes(null) ? null : Math.min(...(cells as number[]))
}

const outriggersOf = ({ setup: { standing } }: Case) => (standing.on === 'outriggers' ? standing.outriggers : [])

const machines = [
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

describe.each(machines)('$id beside a plain reckoning', ({ id, configuration, share, hook, far, near, booms, byAngle }) => {
  const model: RawModel = raw(`models/${id}.json`)
  const table: RawTable = raw(`tables/${id}-main.json`)
  const stand = feet(model)
  const work = worksBy(id)
  const job: Job = { ...(work.jobs[0] as Job), rigging_kg: 0, wind_mps: 0, partsOfLine: id === 'turnstone' ? 4 : 2 }
  const base = caseOf(work, id === 'petrel' ? { ...job, state: 'legs' } : job)
  const level = { pitch_deg: 0, roll_deg: 0, levelVerified: true }
  const lift = fc.record({
    boom: fc.constantFrom(...booms),
    r0: fc.double({ min: near, max: far, noNaN: true }),
    r1: fc.double({ min: near, max: far, noNaN: true }),
    from: fc.integer({ min: 0, max: 359 }),
    by: fc.integer({ min: 0, max: 200 }),
    kg: fc.double({ min: 50, max: 6000, noNaN: true }),
  })
  it('is nowhere more favourable', { timeout: 300_000 }, () => {
    fc.assert(
      fc.property(lift, ({ boom, r0, r1, from, by, kg }) => {
        const step = base.lift.steps[0]
        if (step?.do !== 'slew') throw new Error('no slew')
        const plan: Case = {
          ...base,
          place: openField,
          setup: { ...base.setup, level },
          lift: {
            ...base.lift,
            hung: { ...base.lift.hung, load: { ...base.lift.hung.load, mass_kg: kg, windArea_m2: 0 } },
            steps: [
              {
                ...step,
                boom_m: boom,
                pickUp: { radius_m: r0, slew_deg: from },
                setDown: { radius_m: r1, slew_deg: from + by },
                heights: undefined,
              },
            ],
            configuration,
          },
          conditions: { wind_mps: 0 },
        }
        const a = assess(plan)
        const of = (check: string) => a.findings.find((f) => f.check === check)
        // What the boom does not reach is outside already.
        if (of('boom-limits')) return
        const total = kg + hook
        const rating = of('rating')
        const over = of('overturning')
        for (let i = 0; i <= 6; i++) {
          const r = r0 + ((r1 - r0) * i) / 6
          const row = byAngle ? angleAt(model.boom, boom, r) : r
          const rated = ratedAt(table, configuration, row, boom)
          if (rated === null) expect(rating?.verdict, `not rated at ${r}`).toBe('outside')
          else if (rating?.utilisation !== null && rating?.utilisation !== undefined)
            expect(rating.utilisation).toBeGreaterThan(total / rated - 1e-9)
        }
        for (const r of [r0, r1])
          for (let i = 0; i <= 8; i++) {
            const rule = share * tipping(model, stand, boom, r, from + (by * i) / 8)
            if (rule === Infinity || over?.utilisation === null) continue
            if (over?.utilisation !== undefined) expect(over.utilisation).toBeGreaterThan(total / rule - 1e-6)
            // Each leg, with the load on and its jerk, and with the hook empty; and what its mat or float presses with.
            const at = massesAt(model, boom, r, from + (by * i) / 8)
            for (const [n, leg] of model.outriggers.entries()) {
              const carries = Math.max(...[total * base.policy.dynamicFactor, 0].map((kg) => mostOn(stand, weightOf(at, kg), n)))
              const said = a.findings.find((f) => f.check === 'outrigger' && f.subject === leg.id)
              if (said?.measured != null) expect(said.measured, leg.id).toBeGreaterThan(carries * (1 - 1e-9) - 1e-6)
              const under = a.findings.find((f) => f.check === 'ground' && f.subject === leg.id)
              const m = outriggersOf(plan)[n]?.mat
              if (under?.measured != null && m)
                expect(under.measured, leg.id).toBeGreaterThan(carries / (m.length_m * m.width_m) / 1000 - 1e-6)
            }
          }
      }),
      { numRuns: runs(25_000, 60) },
    )
  })
})
