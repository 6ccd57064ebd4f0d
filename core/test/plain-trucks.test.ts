import { readFileSync } from 'node:fs'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { assess, type Case } from '../src'
import { runs } from './runs'
import { caseOf, type Job, works } from './truck-jobs'

/**
 * A second, plain reckoning of trucks that stack, by mast, by arm and with somebody riding up: plate, tipping forwards, room to the edges,
 * axles, wheels, floor and grip, from the demo's raw files, with nothing of `core/src` but what is judged. Where the core finds a figure
 * more favourable than this, the core is wrong.
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
  slab?: { mass_kg: number; behindFront_m: number }
  boom?: { mass_kg: number; share: number }
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
    operator?: { x_m: number; above_m: number }
    grip?: { least_N: number; faces: number; dry: number; wet: number }
  }
}
interface RawTable {
  axes: { row: { quantity: string } }
  configurations: {
    appliesTo: { mast?: string; attachment?: string; tool?: string; loadCentre_m?: number }
    columns: (number | string)[]
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
  /** Forks: none of those that are fitted. */
  tool: string
  slabs: number
  extension: number
  /** Who rides up, kg; none: 0. */
  rides: number
  faces: 'dry' | 'wet'
}

/** Every mass with its place: ahead of the front axle, to the left, up; and whether it moves out with the mast's give and lean. */
function masses(t: RawTruck, q: Asked, loaded: boolean) {
  const tool = t.attachments?.find((a) => a.id === q.tool)
  const face = t.faceToAxle_m + (tool?.ahead_m ?? 0)
  const armEnd = t.faceToAxle_m + q.centre
  const low = t.chassis.cgHeight_m
  const { operator } = t.chassis
  // What rises is part of the truck's own mass: its centre goes up by this much of it.
  const raised = t.chassis.rises.reduce((sum, r) => sum + r.mass_kg * r.share * q.height, 0) / t.mass_kg
  const fixed = { y: 0, mast: false }
  return [
    { m: t.mass_kg, x: -t.cgBehindFront_m, z: low + raised, ...fixed },
    ...(t.slab ? [{ m: q.slabs * t.slab.mass_kg, x: -(t.slab.behindFront_m + q.extension), z: low, ...fixed }] : []),
    ...(t.boom ? [{ m: t.boom.mass_kg, x: t.boom.share * armEnd, z: low + q.height / 2, ...fixed }] : []),
    ...(operator ? [{ m: q.rides, x: operator.x_m, z: q.height + operator.above_m, ...fixed }] : []),
    ...(tool ? [{ m: tool.mass_kg, x: t.boom ? armEnd : face, y: q.aside, z: q.height, mast: true }] : []),
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
  let [lo, hi] = [0, 400_000]
  for (let i = 0; i < 90; i++) {
    const mid = (lo + hi) / 2
    if (ahead(t, { ...q, kg: mid }, true).bent < 0) lo = mid
    else hi = mid
  }
  return lo
}

const most = (list: readonly (number | null)[]) =>
  list.reduce<number | null>((a, b) => (b === null ? a : Math.max(a ?? b, b)), null)

/** The best a plate gives for a load no easier than this one, by what it goes by; null: nothing. */
const plates: Record<string, (table: RawTable, q: Asked) => number | null> = {
  liftHeight_m: (table, q) =>
    most(
      table.configurations
        .filter((c) => (c.appliesTo.attachment ?? 'forks') === q.tool && (q.tilt <= 0 || c.appliesTo.mast === 'forward'))
        .flatMap((c) =>
          c.rows.filter((r) => r.at >= q.height - 1e-9).flatMap((r) => c.columns.map((at, j) => [at, r.ratings_kg[j]] as const)),
        )
        .flatMap(([at, kg]) => (Number(at) >= q.centre - 1e-9 ? [kg ?? null] : [])),
    ),
  // The next row further out, and the one nearer: the lesser.
  reach_m: (table, q) => {
    const rows = table.configurations.find((c) => c.appliesTo.tool === q.tool)?.rows ?? []
    const further = rows.find((r) => r.at >= q.centre - 1e-9)
    const nearer = [...rows].reverse().find((r) => r.at <= q.centre + 1e-9)
    const both = [further?.ratings_kg[0] ?? null, nearer?.ratings_kg[0] ?? null]
    return both.includes(null) ? null : Math.min(...both.map(Number))
  },
  // Only what is listed, and never for a nearer load.
  extension_m: (table, q) =>
    most(
      table.configurations
        .filter((c) => c.appliesTo.tool === q.tool && (c.appliesTo.loadCentre_m ?? 0) >= q.centre - 1e-9)
        .map((c) => c.rows.find((r) => r.at === q.extension)?.ratings_kg[c.columns.indexOf(q.slabs)] ?? null),
    ),
}

/** Room to the side line from a front wheel to the middle of the rear axle, by the area of a triangle. */
function roomAside({ chassis }: RawTruck, x: number, y: number): number {
  const [ax, ay, bx, by] = [0, chassis.frontHalfTrack_m, -chassis.wheelbase_m, 0]
  return ((bx - ax) * (Math.abs(y) - ay) - (by - ay) * (x - ax)) / Math.hypot(bx - ax, by - ay)
}

const trucks = [
  { id: 'puffin', high: 4.5, kg: 5000, centre: [0.2, 1.1], tools: ['forks', 'clamp'] },
  { id: 'whimbrel', high: 4, kg: 5000, centre: [0.2, 1.1], tools: ['forks'] },
  { id: 'dunlin', high: 4.2, kg: 5000, centre: [0.2, 1.1], tools: ['forks'] },
  { id: 'bittern', high: 3, kg: 40_000, centre: [0.3, 4.5], tools: ['forks', 'boom', 'both'] },
  { id: 'sandpiper', high: 9, kg: 1500, centre: [0.2, 0.9], tools: ['forks'] },
  { id: 'avocet', high: 3, kg: 5000, centre: [0.8, 4.3], tools: ['tyre-hand', 'fender-clamp'] },
] as const

describe.each(trucks)('$id beside a plain reckoning', ({ id, high, kg, centre, tools }) => {
  const truck: RawTruck = raw(`models/${id}.json`).truck
  const table: RawTable = raw(`tables/${id}-main.json`)
  const work = works.find((w) => w.machine === id)
  if (!work) throw new Error(`no work of ${id}`)
  const [job] = work.jobs as [Job]
  const base = caseOf(work, { ...job, stack_m: 1, drive: undefined })
  const asked: fc.Arbitrary<Asked> = fc.record({
    kg: fc.double({ min: 50, max: kg, noNaN: true }),
    centre: fc.double({ min: centre[0], max: centre[1], noNaN: true }),
    up: fc.double({ min: 0, max: 1.2, noNaN: true }),
    height: fc.double({ min: 0, max: high, noNaN: true }),
    tilt: fc.double({ min: -6, max: 6, noNaN: true }),
    aside: fc.double({ min: -0.1, max: 0.1, noNaN: true }),
    tool: fc.constantFrom(...tools),
    slabs: truck.slab ? fc.constantFrom(0, 2, 4, 6) : fc.constant(0),
    extension: truck.slab ? fc.constantFrom(0, 0.5, 1, 1.5) : fc.constant(0),
    rides: truck.chassis.operator ? fc.double({ min: 60, max: 130, noNaN: true }) : fc.constant(0),
    faces: fc.constantFrom('dry', 'wet'),
  })
  const floor = base.setup.standing.on === 'wheels' ? base.setup.standing.ground : null
  const seen = { rated: 0, inside: 0 }

  const planned = (q: Asked): Case => {
    const { fitted } = base.setup
    const { load } = base.lift.hung
    return {
      ...base,
      setup: {
        ...base.setup,
        fitted: {
          ...fitted,
          ...(q.tool !== 'forks' && { attachment: q.tool }),
          ...(truck.slab && { slabs: q.slabs, extension_m: q.extension }),
        },
      },
      lift: {
        ...base.lift,
        hung: {
          ...base.lift.hung,
          load: { ...load, mass_kg: q.kg, cg: { x_m: q.centre, y_m: 0, z_m: q.up } },
          ...(q.rides > 0 && { persons: [{ mass_kg: q.rides }] }),
          ...(truck.chassis.grip && { faces: q.faces }),
        },
        steps: [{ do: 'mast', laden: true, waypoints: [{ height_m: q.height, tilt_deg: q.tilt, sideShift_m: q.aside }] }],
      },
    }
  }

  it('is nowhere more favourable', { timeout: 1_800_000 }, () => {
    fc.assert(
      fc.property(asked, (q) => {
        const a = assess(planned(q))
        const of = (check: string, subject?: string) =>
          a.findings.find((f) => f.check === check && (subject === undefined ? !f.subject : f.subject === subject))
        const used = (check: string, subject?: string) => of(check, subject)?.utilisation ?? null

        const rating = of('rating')
        const plate = plates[table.axes.row.quantity]?.(table, q) ?? null
        if (plate === null) expect(rating?.verdict).not.toBe('inside')
        else if (rating?.utilisation != null) {
          seen.rated++
          expect(rating.utilisation).toBeGreaterThan((q.kg + q.rides) / plate - 1e-9)
        }

        const forward = used('overturning')
        const tips = tipsAt(truck, q)
        if (tips > 0 && tips < 399_999) expect(forward ?? Infinity).toBeGreaterThan(q.kg / (truck.share * tips) - 1e-6)

        // Slope of the platform that it was tried on, where it was; else the site's own, of which half the room may go.
        const loaded = ahead(truck, q, true)
        const { typeTest, grip } = truck.chassis
        const [along, across, part] = typeTest ? [0.04, 0.06, 1] : [0.02, 0.02, 0.5]
        const aside = Math.abs(loaded.y)
        const rooms = {
          front: [-loaded.bent, -(loaded.bent + loaded.z * along)],
          side: [roomAside(truck, loaded.x, aside), roomAside(truck, loaded.x, aside + loaded.z * across)],
        } as const
        for (const edge of ['front', 'side'] as const) {
          const [room, left] = rooms[edge]
          const said = of('overturning', edge)
          if (said?.verdict === 'inside') {
            seen.inside++
            expect(room, edge).toBeGreaterThan(0)
          }
          if (room > 0) expect(said?.utilisation ?? Infinity, edge).toBeGreaterThan((room - left) / room / part - 1e-6)
        }

        const { wheelbase_m: base_m, axles, frontWheels, floorFactor } = truck.chassis
        for (const on of [loaded, ahead(truck, q, false)]) {
          const front = (on.m * (base_m + on.bent)) / base_m
          const rear = on.m - (on.m * (base_m + on.x)) / base_m
          expect(used('axle', 'front') ?? Infinity).toBeGreaterThan(front / axles.front_kg - 1e-9)
          expect(used('axle', 'rear') ?? Infinity).toBeGreaterThan(rear / axles.rear_kg - 1e-9)
          const share = Math.max(
            floor?.axle_N ? (front * g) / floor.axle_N : 0,
            floor?.wheel_N ? ((front * g) / frontWheels / floor.wheel_N) * floorFactor : 0,
          )
          const floors = a.findings.filter((f) => f.check === 'floor').map((f) => f.utilisation ?? Infinity)
          if (share > 0) expect(Math.max(...floors)).toBeGreaterThan(share - 1e-9)
        }

        // Two pads hold by friction alone, with twice what is needed.
        if (grip) expect(used('grip')).toBeGreaterThan((2 * q.kg * g) / (grip.faces * grip[q.faces] * grip.least_N) - 1e-9)
      }),
      { numRuns: runs(25_000, 150) },
    )
    expect(seen.rated).toBeGreaterThan(0)
    expect(seen.inside).toBeGreaterThan(0)
  })
})
