import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { type Assessment, assess, type Case, type LiftPlan, type Step } from '../src'
import { curlewCase } from './curlew-case'
import { confirmedBut, demoMachine, demoPlace, demoTable } from './demo'
import { crawlerCase } from './kittiwake-case'
import { angleAt, massesAt, type RawModel, type RawTable, rad, ratedAt, raw, tipping } from './plain'
import { runs } from './runs'
import { towerCase } from './tower-case'

/**
 * The plain reckoning of the hoists and booms that came last: each from the demo's raw files, with nothing of `core/src` but what is judged.
 * Where the core finds a figure more favourable than this, the core is wrong.
 */
const g = 9.80665
const double = (min: number, max: number) => fc.double({ min, max, noNaN: true })
const findingOf = (a: Assessment, check: string, subject?: string) =>
  a.findings.find((f) => f.check === check && (subject === undefined || f.subject === subject))

/** A share that the core says is no less than this; where it says outside without one, it is. */
function noBetter(a: Assessment, check: string, share: number, subject?: string): void {
  const f = findingOf(a, check, subject)
  if (f?.utilisation == null) expect(f?.verdict, `${check} ${subject ?? ''}`).not.toMatch(/inside|near/)
  else expect(f.utilisation, `${check} ${subject ?? ''}`).toBeGreaterThan(share * (1 - 1e-9) - 1e-9)
}

/** Assessed, or refused: then there is nothing that could be too favourable. */
function judged(c: Case): Assessment | null {
  try {
    return assess(c)
  } catch (e) {
    if (e instanceof Error && 'code' in e) return null
    throw e
  }
}

interface Bare {
  id: string
  place: string
  standing: Case['setup']['standing']
  fitted?: Case['setup']['fitted']
  hung: Partial<LiftPlan['hung']> & Pick<LiftPlan['hung'], 'load'>
  steps: Step[]
}
function bare({ id, place: at, standing, fitted = {}, hung, steps }: Bare): Case {
  const place = demoPlace(at)
  const machine = demoMachine(id)
  return {
    machine,
    tables: machine.tables.map(demoTable),
    setup: {
      format: 'geolabe.setup/2',
      place: at,
      position: { x_m: 30, y_m: 30, heading_deg: 0 },
      standing,
      fitted,
      level: { pitch_deg: 0, roll_deg: 0, levelVerified: true },
      confirmed: confirmedBut(machine),
    },
    lift: { format: 'geolabe.lift/2', hung: { rigging: [], ...hung }, steps },
    conditions: { wind_mps: 0 },
    place: { ...place, features: [] },
    policy: place.policy,
  }
}
const load = (mass_kg: number, cg?: LiftPlan['hung']['load']['cg']): LiftPlan['hung']['load'] => ({
  name: 'load',
  mass_kg,
  massSource: 'weighed',
  windArea_m2: 0,
  dragCoefficient: 1,
  ...(cg && { cg }),
})

describe('a tower crane beside a plain reckoning', () => {
  const table: RawTable = raw('tables/cormorant-main.json')
  const { reevings } = raw('models/cormorant.json').hoist as { reevings: { parts: number; block: { mass_kg: number } }[] }
  const lift = fc.record({
    r0: double(4, 49),
    r1: double(4, 49),
    to: double(0, 359),
    kg: double(100, 9000),
    parts: fc.constantFrom(2, 4),
  })
  it('is nowhere more favourable', { timeout: 1_800_000 }, () => {
    fc.assert(
      fc.property(lift, ({ r0, r1, to, kg, parts }) => {
        const step = { pickUp: { radius_m: r0, slew_deg: 0 }, setDown: { radius_m: r1, slew_deg: to } }
        const a = judged(towerCase({ kg, parts, step, wind: 0, load: { windArea_m2: 0 } }))
        if (!a || findingOf(a, 'boom-limits')) return
        const total = kg + 90 + (reevings.find((r) => r.parts === parts)?.block.mass_kg ?? 0)
        for (let i = 0; i <= 10; i++) {
          const rated = ratedAt(table, 'jib-50', r0 + ((r1 - r0) * i) / 10, parts)
          noBetter(a, 'rating', rated === null ? Infinity : total / rated)
        }
      }),
      { numRuns: runs(20_000, 80) },
    )
  })
})

describe('a lattice crawler beside a plain reckoning', () => {
  const model: RawModel & { tracks: { length_m: number; gauge_m: number } } = raw('models/kittiwake.json')
  const table: RawTable = raw('tables/kittiwake-main.json')
  const block = (raw('models/kittiwake.json').hoist.reevings as { parts: number; block: { mass_kg: number } }[]).find(
    (r) => r.parts === 4,
  )
  const { length_m, gauge_m } = model.tracks
  const stand = [1, -1].flatMap((i) => [1, -1].map((j) => ({ x: (i * length_m) / 2, y: (j * gauge_m) / 2 })))
  /** A lattice boom's mass grows with it. */
  const withBoom = (boom_m: number): RawModel => ({
    ...model,
    boom: {
      ...model.boom,
      masses: model.boom.masses.map((m) => ({
        ...m,
        mass_kg: m.mass_kg + ('perMetre_kg' in m ? Number(m.perMetre_kg) * boom_m : 0),
      })),
    },
  })
  const lift = fc.record({
    boom_m: fc.constantFrom(36, 48, 60, 72),
    r0: double(10, 40),
    r1: double(10, 40),
    to: double(0, 200),
    kg: double(500, 60_000),
  })
  it('is nowhere more favourable', { timeout: 1_800_000 }, () => {
    fc.assert(
      fc.property(lift, ({ boom_m, r0, r1, to, kg }) => {
        const step = {
          boom_m,
          pickUp: { radius_m: r0, slew_deg: 180 },
          setDown: { radius_m: r1, slew_deg: 180 + to },
          heights: undefined,
        }
        const c = crawlerCase({ kg, step, dynamic: 1 })
        const a = judged({ ...c, place: { ...c.place, features: [] }, conditions: { wind_mps: 0 } })
        if (!a || findingOf(a, 'boom-limits')) return
        const total = kg + 400 + (block?.block.mass_kg ?? 0)
        const own = withBoom(boom_m)
        for (let i = 0; i <= 8; i++) {
          const rated = ratedAt(table, 'base', r0 + ((r1 - r0) * i) / 8, boom_m)
          noBetter(a, 'rating', rated === null ? Infinity : total / rated)
          for (const radius of [r0, r1]) {
            const tips = 0.75 * tipping(stand, massesAt(own, boom_m, radius, 180 + (to * i) / 8))
            const over = findingOf(a, 'overturning')
            if (tips < Infinity && over?.utilisation != null) expect(over.utilisation).toBeGreaterThan(total / tips - 1e-6)
          }
        }
      }),
      { numRuns: runs(15_000, 40) },
    )
  })
})

/** Of a table that counts up to heights and reaches: the cell that holds it, and every neighbour that a point on its border has; beyond them nothing. */
function upTo(table: RawTable, id: string, height: number, reach: number): number | null {
  const c = table.configurations.find((x) => x.id === id)
  if (!c) throw new Error(id)
  // Within a thousandth of a millimetre of a border either cell is right.
  const row = c.rows.findIndex((r) => r.at >= height - 1e-6)
  const column = c.columns.findIndex((x) => x >= reach - 1e-6)
  return row < 0 || column < 0 ? null : (c.rows[row]?.ratings_kg[column] ?? null)
}

describe('a rotating telehandler beside a plain reckoning', () => {
  const model: RawModel = raw('models/curlew.json')
  const pin_m: number = raw('models/curlew.json').boom.pivot.height_m
  const table: RawTable = raw('tables/curlew-main.json')
  const block = raw('models/curlew.json').hoist.reevings[0].block.mass_kg as number
  const lift = fc.record({
    boom_m: fc.integer({ min: 5, max: 17 }),
    r0: double(2, 16),
    r1: double(2, 16),
    to: double(0, 200),
    kg: double(100, 5000),
  })
  it('is nowhere more favourable', { timeout: 1_800_000 }, () => {
    fc.assert(
      fc.property(lift, ({ boom_m, r0, r1, to, kg }) => {
        const step = { boom_m, pickUp: { radius_m: r0, slew_deg: 0 }, setDown: { radius_m: r1, slew_deg: to } }
        const a = judged(curlewCase({ kg, step, rigging_kg: 0, wind: 0 }))
        if (!a || findingOf(a, 'boom-limits')) return
        for (let i = 0; i <= 10; i++) {
          const out = r0 + ((r1 - r0) * i) / 10
          const height = pin_m + boom_m * Math.sin(angleAt(model.boom, boom_m, out) * rad)
          const rated = upTo(table, 'hook-full', height, out)
          noBetter(a, 'rating', rated === null ? Infinity : (kg + block) / rated)
        }
      }),
      { numRuns: runs(15_000, 40) },
    )
  })
})

describe('a telehandler beside a plain reckoning', () => {
  const { reach, faceToAxle_m } = raw('models/godwit.json').truck as {
    faceToAxle_m: number
    reach: { pin: { x_m: number; height_m: number }; head: { ahead_m: number; below_m: number }; loadCentre_m: number }
  }
  const table: RawTable = raw('tables/godwit-main.json')
  const place = demoPlace('net-loft-yard')
  const ground = place.ground.find((k) => k.id === place.defaultGround) ?? null
  const pose = fc.record({ boom_m: double(4.2, 9.8), angle_deg: double(-3, 68) })
  const asked = fc.record({ from: pose, to: pose, kg: double(100, 3500), state: fc.constantFrom('wheels', 'stabilisers') })
  it('is nowhere more favourable', { timeout: 1_800_000 }, () => {
    fc.assert(
      fc.property(asked, ({ from, to, kg, state }) => {
        const a = judged(
          bare({
            id: 'godwit',
            place: 'net-loft-yard',
            standing: { on: 'wheels', state, ground, tyres: 'checked' },
            fitted: { attachment: 'forks', selected: { attachment: 'forks' } },
            hung: { load: load(kg, { x_m: 0.5, y_m: 0, z_m: 0.5 }) },
            steps: [{ do: 'reach', laden: true, waypoints: [from, to] }],
          }),
        )
        if (!a) return
        for (let i = 0; i <= 24; i++) {
          const run = (key: 'boom_m' | 'angle_deg') => from[key] + ((to[key] - from[key]) * i) / 24
          const [L, angle] = [run('boom_m'), run('angle_deg') * rad]
          const height = reach.pin.height_m + L * Math.sin(angle) - reach.head.below_m
          const out = reach.pin.x_m + L * Math.cos(angle) + reach.head.ahead_m + reach.loadCentre_m - faceToAxle_m
          const rated = upTo(table, state === 'wheels' ? 'forks-up' : 'forks-down', height, out)
          noBetter(a, 'rating', rated === null ? Infinity : kg / rated)
        }
      }),
      { numRuns: runs(15_000, 60) },
    )
  })
})

describe('towers beside a plain reckoning', () => {
  const table: RawTable = raw('tables/fulmar-main.json')
  const { header_kg } = raw('models/fulmar.json').gantry.stand as { header_kg: number }
  const asked = fc.record({
    apart: double(2, 6),
    wide: double(2, 6),
    x: double(-0.8, 0.8),
    y: double(-0.2, 0.2),
    z: double(-2, 0.5),
    kg: double(1000, 40_000),
    up: double(3.1, 8.5),
  })
  it('are nowhere more favourable', { timeout: 1_800_000 }, () => {
    fc.assert(
      fc.property(asked, ({ apart, wide, x, y, z, kg, up }) => {
        const place = demoPlace('boatyard')
        const ground = place.ground.find((k) => k.id === 'slab') ?? null
        const towers = [
          ['A', 1, 1],
          ['B', 1, -1],
          ['C', -1, 1],
          ['D', -1, -1],
        ] as const
        const a = judged(
          bare({
            id: 'fulmar',
            place: 'boatyard',
            standing: {
              on: 'towers',
              towers: towers.map(([id, i, j]) => ({ id, x_m: (i * apart) / 2, y_m: (j * wide) / 2, ground, plate: null })),
              fall: { along_pct: 0, cross_pct: 0 },
              linkage: 'one-point-per-header',
            },
            hung: { load: load(kg, { x_m: x, y_m: y, z_m: z }) },
            steps: [{ do: 'hoist', laden: true, from_m: 3, to_m: up, which: 'all' }],
          }),
        )
        if (!a) return
        const stage = table.configurations.find((c) => c.id === 'centred')?.rows.find((r) => r.at >= up - 1e-9)
        for (const [id, i, j] of towers) {
          const share = (0.5 + (i * x) / apart) * (0.5 + (j * y) / wide)
          noBetter(a, 'rating', (kg * share + header_kg / 2) / (stage?.ratings_kg[0] ?? 0), id)
        }
      }),
      { numRuns: runs(10_000, 80) },
    )
  })
})

describe('a frame astride its load beside a plain reckoning', () => {
  const table: RawTable & { configurations: { rows: { at: string | number; ratings_kg: (number | null)[] }[] }[] } =
    raw('tables/gannet-main.json')
  const straddle = raw('models/gannet.json').hoists.straddle as { own_kg: number; tyre_N: number }
  const asked = fc.record({
    front: double(1.2, 4),
    rear: double(1.2, 4),
    x: double(-1, 1),
    y: double(-0.8, 0.8),
    kg: double(2000, 60_000),
  })
  it('is nowhere more favourable', { timeout: 1_800_000 }, () => {
    fc.assert(
      fc.property(asked, ({ front, rear, x, y, kg }) => {
        const place = demoPlace('boatyard')
        const a = judged(
          bare({
            id: 'gannet',
            place: 'boatyard',
            standing: {
              on: 'frame',
              hoists: [
                { id: 'front', x_m: front },
                { id: 'rear', x_m: -rear },
              ],
              synchronised: 'aligned',
              ground: place.ground.find((k) => k.id === 'pier') ?? null,
              fall: { along_pct: 0, cross_pct: 0 },
            },
            hung: { load: load(kg, { x_m: x, y_m: y, z_m: 1 }), belly: { halfBreadth_m: 1.8, rise_m: 3.4, wll_kg: 40_000 } },
            steps: [{ do: 'hoist', laden: true, from_m: 0, to_m: 1.5, which: 'all' }],
          }),
        )
        if (!a) return
        const mark = (at: string) => table.configurations[0]?.rows.find((r) => `${r.at}` === at)?.ratings_kg[0] ?? 0
        const share = (x + rear) / (front + rear)
        noBetter(a, 'rating', (kg * share) / mark('front'), 'front')
        noBetter(a, 'rating', (kg * (1 - share)) / mark('rear'), 'rear')
        noBetter(a, 'rating', kg / mark('together'), 'together')
        // Four wheels at (±4.5, ±4) carry all of it: the fullest no less than half of its fuller side, and of its fuller end.
        const most = 0.5 + Math.max(Math.abs(y) / 8, Math.abs(x) / 9)
        const least = ((straddle.own_kg / 2 + kg * most) * g) / 2
        const wheels = a.findings.filter((f) => f.check === 'wheel' && f.measured !== null)
        if (wheels.length > 0) expect(Math.max(...wheels.map((f) => f.measured ?? 0))).toBeGreaterThan(least * (1 - 1e-6))
      }),
      { numRuns: runs(10_000, 80) },
    )
  })
})

describe('a hoist under its beam beside a plain reckoning', () => {
  const { runway } = raw('models/dipper.json') as {
    runway: {
      falls: number
      perFall_kg: number
      beam: { span_m: number; modulus_cm3: number; allowable_MPa: number }
      travel: { overhang_m: number; mass_kg_per_m: number; own_kg: number }
    }
  }
  const { span_m: L, modulus_cm3, allowable_MPa } = runway.beam
  const { overhang_m, mass_kg_per_m, own_kg } = runway.travel
  const asked = fc.record({ from: double(0.3, 6.8), to: double(0.3, 6.8), kg: double(50, 3000) })
  it('is nowhere more favourable', { timeout: 1_800_000 }, () => {
    fc.assert(
      fc.property(asked, ({ from, to, kg }) => {
        const a = judged(
          bare({
            id: 'dipper',
            place: 'boatyard',
            standing: { on: 'runway', beam: 'wsh-1' },
            fitted: { marks: { hoist: 2100, trolley: 2500, beam: 2500, hook: 2100 } },
            hung: { load: load(kg) },
            steps: [{ do: 'traverse', laden: true, from_m: from, to_m: to }],
          }),
        )
        if (!a) return
        noBetter(a, 'rating', kg / Math.min(2100, 2500 - own_kg))
        noBetter(a, 'hoist-rope', kg / (runway.falls * runway.perFall_kg))
        const w = mass_kg_per_m * g
        // Reactions and moments of a beam with an overhang, by hand.
        const momentAt = (p: number, at: number): number => {
          const P = (kg + own_kg) * g
          const left = (P * (L - p) + (w * (L ** 2 - overhang_m ** 2)) / 2) / L
          const own = at <= L ? left * at - (w * at ** 2) / 2 - (p < at ? P * (at - p) : 0) : 0
          const over = (w * overhang_m ** 2) / 2 + (p > L ? P * (p - L) : 0)
          return Math.max(Math.abs(own), over)
        }
        for (let i = 0; i <= 10; i++) {
          const p = from + ((to - from) * i) / 10
          for (let k = 0; k <= 10; k++) {
            const stress = momentAt(p, (L * k) / 10) / modulus_cm3
            noBetter(a, 'structure', stress / allowable_MPa, 'beam')
          }
        }
      }),
      { numRuns: runs(15_000, 80) },
    )
  })
})
