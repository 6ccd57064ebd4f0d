import { readFileSync } from 'node:fs'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { assess, type Case } from '../src'
import { runs } from './runs'
import { caseOf, type Job, works } from './truck-jobs'

/**
 * A second, plain reckoning of trucks that stack: plate, tipping forwards, room to the edges, axles, wheels and floor, from the demo's raw
 * files, with nothing of `core/src` but what is judged. Where the core finds a figure more favourable than this, the core is wrong.
 */
const raw = (path: string) => JSON.parse(readFileSync(new URL(`../../demo/${path}`, import.meta.url), 'utf8'))
const g = 9.80665

interface RawTruck {
  mass_kg: number
  cgBehindFront_m: number
  faceToAxle_m: number
  share: number
  give_share: number
  attachments?: { id: string; mass_kg: number; ahead_m: number }[]
  chassis: {
    wheelbase_m: number
    frontHalfTrack_m: number
    cgHeight_m: number
    rises: { mass_kg: number; share: number }[]
    frontWheels: number
    rearWheels: number
    floorFactor: number
    axles: { front_kg: number; rear_kg: number }
    typeTest?: boolean
  }
}
interface RawTable {
  configurations: {
    appliesTo: { mast: string; attachment?: string }
    columns: number[]
    rows: { at: number; ratings_kg: (number | null)[] }[]
  }[]
}

interface Asked {
  kg: number
  centre: number
  up: number
  height: number
  tilt: number
  aside: number
  tool: boolean
}

/** Every mass with its place: ahead of the front axle, to the left, up; and whether the mast carries it. */
function masses(t: RawTruck, q: Asked, loaded: boolean) {
  const tool = q.tool ? t.attachments?.[0] : undefined
  const face = t.faceToAxle_m + (tool?.ahead_m ?? 0)
  // What rises is part of the truck's own mass: its centre goes up by this much of it.
  const raised = t.chassis.rises.reduce((sum, r) => sum + r.mass_kg * r.share * q.height, 0) / t.mass_kg
  return [
    { m: t.mass_kg, x: -t.cgBehindFront_m, y: 0, z: t.chassis.cgHeight_m + raised, mast: false },
    ...(tool ? [{ m: tool.mass_kg, x: face, y: q.aside, z: q.height, mast: true }] : []),
    ...(loaded ? [{ m: q.kg, x: face + q.centre, y: q.aside, z: q.height + q.up, mast: true }] : []),
  ]
}

const sum = (list: readonly number[]) => list.reduce((a, b) => a + b, 0)

/** Moments about the front axle, with the mast's give and lean for what it carries. */
function ahead(t: RawTruck, q: Asked, loaded: boolean): { m: number; x: number; bent: number; y: number; z: number } {
  const all = masses(t, q, loaded)
  const m = sum(all.map((p) => p.m))
  const bend = t.give_share * q.height + Math.sin((Math.max(0, q.tilt) * Math.PI) / 180) * q.height
  return {
    m,
    x: sum(all.map((p) => p.m * p.x)) / m,
    bent: sum(all.map((p) => p.m * (p.x + (p.mast ? bend : 0)))) / m,
    y: sum(all.map((p) => p.m * p.y)) / m,
    z: sum(all.map((p) => p.m * p.z)) / m,
  }
}

/** The mass on the forks at which the rear axle carries nothing, by halving. */
function tipsAt(t: RawTruck, q: Asked): number {
  let [lo, hi] = [0, 200_000]
  for (let i = 0; i < 90; i++) {
    const mid = (lo + hi) / 2
    if (ahead(t, { ...q, kg: mid }, true).bent < 0) lo = mid
    else hi = mid
  }
  return lo
}

/** The best the plate gives for a load no easier than this one; null: nothing. */
function plateFor(table: RawTable, q: Asked): number | null {
  const rows = table.configurations
    .filter((c) => (c.appliesTo.attachment !== undefined) === q.tool && (q.tilt <= 0 || c.appliesTo.mast === 'forward'))
    .flatMap((c) =>
      c.rows
        .filter((r) => r.at >= q.height - 1e-9)
        .flatMap((r) => c.columns.map((at, j) => ({ at, kg: r.ratings_kg[j] ?? null })))
        .filter((x) => x.at >= q.centre - 1e-9),
    )
  const kg = rows.flatMap((r) => (r.kg === null ? [] : [r.kg]))
  return kg.length === 0 ? null : Math.max(...kg)
}

/** Room to the side line from a front wheel to the middle of the rear axle, by the area of a triangle. */
function roomAside({ chassis }: RawTruck, x: number, y: number): number {
  const [ax, ay, bx, by] = [0, chassis.frontHalfTrack_m, -chassis.wheelbase_m, 0]
  return ((bx - ax) * (Math.abs(y) - ay) - (by - ay) * (x - ax)) / Math.hypot(bx - ax, by - ay)
}

const trucks = [
  { id: 'puffin', high: 4.5, tool: true },
  { id: 'whimbrel', high: 4, tool: false },
  { id: 'dunlin', high: 4.2, tool: false },
] as const

describe.each(trucks)('$id beside a plain reckoning', ({ id, high, tool }) => {
  const truck: RawTruck = raw(`models/${id}.json`).truck
  const table: RawTable = raw(`tables/${id}-main.json`)
  const work = works.find((w) => w.machine === id)
  if (!work) throw new Error(`no work of ${id}`)
  const [job] = work.jobs as [Job]
  const base = caseOf(work, { ...job, stack_m: 1, drive: undefined })
  const asked: fc.Arbitrary<Asked> = fc.record({
    kg: fc.double({ min: 50, max: 5000, noNaN: true }),
    centre: fc.double({ min: 0.2, max: 1.1, noNaN: true }),
    up: fc.double({ min: 0, max: 1.2, noNaN: true }),
    height: fc.double({ min: 0, max: high, noNaN: true }),
    tilt: fc.double({ min: -6, max: 6, noNaN: true }),
    aside: fc.double({ min: -0.1, max: 0.1, noNaN: true }),
    tool: tool ? fc.boolean() : fc.constant(false),
  })
  const floor = base.setup.standing.on === 'wheels' ? base.setup.standing.ground : null
  const seen = { rated: 0, inside: 0 }
  it('is nowhere more favourable', { timeout: 300_000 }, () => {
    fc.assert(
      fc.property(asked, (q) => {
        const { load } = base.lift.hung
        const c: Case = {
          ...base,
          setup: { ...base.setup, fitted: { ...base.setup.fitted, ...(q.tool && { attachment: truck.attachments?.[0]?.id }) } },
          lift: {
            ...base.lift,
            hung: { ...base.lift.hung, load: { ...load, mass_kg: q.kg, cg: { x_m: q.centre, y_m: 0, z_m: q.up } } },
            steps: [
              {
                do: 'mast',
                laden: true,
                waypoints: [{ height_m: q.height, tilt_deg: q.tilt, sideShift_m: q.aside }],
              },
            ],
          },
        }
        const a = assess(c)
        const of = (check: string, subject?: string) =>
          a.findings.find((f) => f.check === check && (subject === undefined ? !f.subject : f.subject === subject))
        const used = (check: string, subject?: string) => of(check, subject)?.utilisation ?? null

        const rating = of('rating')
        const plate = plateFor(table, q)
        if (plate === null) expect(rating?.verdict).not.toBe('inside')
        else if (rating?.utilisation != null) {
          seen.rated++
          expect(rating.utilisation).toBeGreaterThan(q.kg / plate - 1e-9)
        }

        const forward = used('overturning')
        const tips = tipsAt(truck, q)
        if (tips > 0 && tips < 199_999) expect(forward ?? Infinity).toBeGreaterThan(q.kg / (truck.share * tips) - 1e-6)

        const loaded = ahead(truck, q, true)
        if (of('overturning', 'front')?.verdict === 'inside') {
          seen.inside++
          // On the platform's slope, as a truck that passed its test stood on it.
          expect(loaded.bent + loaded.z * 0.04).toBeLessThan(0)
          expect(roomAside(truck, loaded.x, loaded.y)).toBeGreaterThan(0)
        }
        if (of('overturning', 'side')?.verdict === 'inside')
          expect(roomAside(truck, loaded.x, Math.abs(loaded.y) + loaded.z * 0.06)).toBeGreaterThan(0)

        const { wheelbase_m: base_m, axles, frontWheels, floorFactor } = truck.chassis
        for (const on of [loaded, ahead(truck, q, false)]) {
          const front = (on.m * (base_m + on.bent)) / base_m
          const rear = on.m - (on.m * (base_m + on.x)) / base_m
          expect(used('axle', 'front') ?? Infinity).toBeGreaterThan(front / axles.front_kg - 1e-9)
          expect(used('axle', 'rear') ?? Infinity).toBeGreaterThan(rear / axles.rear_kg - 1e-9)
          const most = Math.max(
            floor?.axle_N ? (front * g) / floor.axle_N : 0,
            floor?.wheel_N ? ((front * g) / frontWheels / floor.wheel_N) * floorFactor : 0,
          )
          const floors = a.findings.filter((f) => f.check === 'floor').map((f) => f.utilisation ?? Infinity)
          if (most > 0) expect(Math.max(...floors)).toBeGreaterThan(most - 1e-9)
        }
      }),
      { numRuns: runs(25_000, 150) },
    )
    expect(seen.rated).toBeGreaterThan(0)
    expect(seen.inside).toBeGreaterThan(0)
  })
})
