import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { assess, type Case, isTruck, type LiftPlan, nearestRemedies, pointAt, poseFor, type Step } from '../src'
import { TruckContext } from '../src/check/truck-context'
import { ratingAt } from '../src/rating/read'
import { marginsOf } from '../src/truck/balance'
import { confirmedBut, demoMachine, demoPlace, demoTable, judgedBy, toolRead } from './demo'
import { runs } from './runs'

const godwit = demoMachine('godwit')
if (!isTruck(godwit) || !godwit.truck.reach) throw new RangeError('Godwit has no boom')
const { reach, faceToAxle_m: datum_m } = godwit.truck
const table = demoTable('godwit-main')
const place = demoPlace('net-loft-yard')
const ground = place.ground.find((g) => g.id === place.defaultGround) ?? null
type Waypoints = Extract<Step, { do: 'reach' }>['waypoints']
interface Job {
  kg: number | null
  waypoints?: Waypoints
  state?: string
  tool?: string
  shown?: string | undefined
  roll?: number | null
  cg?: LiftPlan['hung']['load']['cg']
  without?: string[]
  steps?: Step[]
}
/** Raised short, drawn out at the top: as it is done. */
const placing: Waypoints = [
  { boom_m: 4.2, angle_deg: 0 },
  { boom_m: 4.2, angle_deg: 51.554181 },
  { height_m: 8, reach_m: 3 },
]
const caseOf = (job: Job): Case => ({
  machine: godwit,
  tables: [table],
  setup: {
    format: 'geolabe.setup/2',
    place: place.id,
    position: { x_m: 12, y_m: 1.6, heading_deg: 0 },
    standing: { on: 'wheels', state: job.state ?? 'wheels', ground, tyres: null },
    fitted: toolRead(job.tool ?? 'forks', job),
    level: { pitch_deg: 0, roll_deg: job.roll === undefined ? 0 : job.roll, levelVerified: true },
    confirmed: confirmedBut(godwit, job.without),
  },
  lift: {
    format: 'geolabe.lift/2',
    hung: {
      load: {
        name: 'pallet',
        mass_kg: job.kg,
        massSource: 'marked',
        windArea_m2: 1.2,
        dragCoefficient: 1.2,
        size: { length_m: 1.2, width_m: 1, height_m: 1 },
        cg: job.cg ?? { x_m: 0.5, y_m: 0, z_m: 0.5 },
      },
      rigging: [],
    },
    steps: job.steps ?? [{ do: 'reach', laden: true, waypoints: job.waypoints ?? placing }],
  },
  conditions: { wind_mps: 2 },
  place,
  policy: place.policy,
})
const judged = (job: Job) => judgedBy(caseOf(job))
const rating = (job: Job) => assess(caseOf(job)).findings.find((f) => f.check === 'rating')

describe('a telehandler', () => {
  it('knows length and angle for a place, and what lowering at that length comes to', () => {
    const pose = poseFor(reach, datum_m, { height_m: 8, reach_m: 3 })
    expect(pose.boom_m).toBeCloseTo(8.3631633, 6)
    expect(pose.angle_deg).toBeCloseTo(51.554181, 5)
    const low = pointAt(reach, datum_m, { ...pose, angle_deg: 0 })
    expect(low.height_m).toBeCloseTo(1.45, 9)
    expect(low.reach_m).toBeCloseTo(6.1631633, 6)
    expect(pointAt(reach, datum_m, { boom_m: 4.2, angle_deg: 0 }).reach_m).toBeCloseTo(2, 9)
    // Placed it is rated 2,200 kg; lowered as it is drawn out, 800.
    expect(rating({ kg: 700, waypoints: [pose] })?.limit).toBe(2200)
    expect(rating({ kg: 700, waypoints: [pose, { ...pose, angle_deg: 0 }] })?.limit).toBe(800)
  })
  it('reads its jobs along the whole way; stabilisers down bring the heaviest inside', () => {
    const inside = assess(caseOf({ kg: 1400 }))
    expect([inside.verdict, rating({ kg: 1400 })?.utilisation]).toEqual(['inside', 1400 / 2200])
    expect(judged({ kg: 2050 })).toEqual(['near', 'rating', 0.932])
    expect(judged({ kg: 2300 })).toEqual(['outside', 'rating', 1.045])
    expect(judged({ kg: 1400, roll: null }).slice(0, 2)).toEqual(['not-proven', 'level'])
    const c = caseOf({ kg: 2300 })
    const { governing } = assess(c)
    const changes = governing ? nearestRemedies(c, governing, { mats: [], canStand: () => true }) : []
    const feet = changes.find((x) => x.change.kind === 'support')
    expect(feet?.assessment?.verdict).toBe('inside')
    expect(feet?.assessment?.findings.find((f) => f.check === 'rating')?.limit).toBe(4000)
  })
  it('is brought inside by drawing in first, where only the way is too far out', () => {
    const pose = poseFor(reach, datum_m, { height_m: 8, reach_m: 3 })
    const c = caseOf({ kg: 1400, waypoints: [pose, { boom_m: pose.boom_m, angle_deg: 0 }, { boom_m: 4.2, angle_deg: 0 }] })
    const lowered = assess(c).findings.find((f) => f.check === 'rating')
    expect([lowered?.verdict, lowered?.limit]).toEqual(['outside', 800])
    expect(lowered?.where?.t).toBeGreaterThan(0.7)
    const short = caseOf({ kg: 1800, waypoints: [pose, { boom_m: 4.2, angle_deg: 0 }] })
    const offered =
      assess(short).verdict === 'outside'
        ? nearestRemedies(
            short,
            assess(short).governing ??
              (() => {
                throw new RangeError()
              })(),
            { mats: [], canStand: () => true },
          )
        : []
    expect(offered.map((o) => o.change.kind)).toContain('retract-first')
    for (const o of offered) if (o.changedCase) expect(assess({ ...short, ...o.changedCase }).verdict).toBe(o.assessment?.verdict)
  })
  it('stands on a longer and narrower triangle with its feet down', () => {
    const at4 = (state: string) => {
      const ctx = new TruckContext(
        caseOf({ kg: 1400, state, cg: { x_m: 0.5, y_m: 0.058, z_m: 0 }, waypoints: [{ height_m: 1.45, reach_m: 4 }] }),
        0,
      )
      const [pose] = ctx.poses
      const [load] = ctx.loads
      if (!pose || !load) throw new RangeError('no pose')
      return marginsOf(ctx.truck, ctx.balance(load, pose))
    }
    const [up, down] = [at4('wheels'), at4('stabilisers')]
    expect(down.front_m - up.front_m).toBeCloseTo(0.95, 9)
    expect(up.side_m).toBeCloseTo(0.789, 2)
    expect(down.side_m).toBeCloseTo(0.701, 2)
  })
  it('is not proven, or refused, with anything left out', () => {
    for (const e of godwit.evidence) expect(judged({ kg: 1400, without: [e.id] }).slice(0, 2)).toEqual(['not-proven', 'evidence'])
    expect(judged({ kg: null })[0]).toBe('not-proven')
    expect(judged({ kg: 1400, shown: undefined }).slice(0, 2)).toEqual(['not-proven', 'selection'])
    expect(judged({ kg: 1400, shown: 'bucket' }).slice(0, 2)).toEqual(['outside', 'selection'])
    // The hook has a grid with stabilisers down only.
    expect(judged({ kg: 1400, tool: 'jib' }).slice(0, 2)).toEqual(['not-proven', 'rating'])
    const field = (job: Job) => {
      try {
        assess(caseOf(job))
        return null
      } catch (e) {
        return e instanceof Error && 'path' in e ? e.path : e
      }
    }
    expect(field({ kg: 900, waypoints: [{ boom_m: 10, angle_deg: 20 }] })).toBe('lift.steps.0.waypoints.0')
    expect(field({ kg: 900, waypoints: [{ boom_m: 5, angle_deg: 70 }] })).toBe('lift.steps.0.waypoints.0')
    expect(field({ kg: 900, state: 'legs' })).toBe('setup.standing.state')
    expect(
      field({ kg: 900, steps: [{ do: 'mast', laden: true, waypoints: [{ height_m: 1, tilt_deg: 0, sideShift_m: 0 }] }] }),
    ).toBe('lift.steps.0.do')
    expect(rating({ kg: 900, waypoints: [{ boom_m: 9.8, angle_deg: 0 }] })).toMatchObject({
      verdict: 'outside',
      reason: 'off-grid',
    })
  })
  it('does not drive with its feet down', () => {
    const drive: Step = {
      do: 'drive',
      laden: true,
      way: [
        {
          kind: 'straight',
          label: '',
          length_m: 10,
          grade_pct: 0,
          cross_pct: 0,
          width_m: 6,
          height_m: null,
          surface: 'dry',
          floor: ground,
        },
      ],
      height_m: 0.15,
      facing: 'load-first',
      speed_mps: 1,
    }
    expect(
      assess(caseOf({ kg: 900, state: 'stabilisers', steps: [drive] })).findings.find((f) => f.check === 'motion')?.verdict,
    ).toBe('outside')
    expect(judged({ kg: 900, steps: [drive] })[0]).toBe('inside')
  })
})

describe('any way of its boom', () => {
  const some = (min: number, max: number) => fc.double({ min, max, noNaN: true })
  const pose = fc.record({ boom_m: some(4.2, 9.8), angle_deg: some(-3, 68) })
  const up = table.configurations.find((c) => c.id === 'forks-up')
  it('is rated no more than at any point of it, read closely', () => {
    fc.assert(
      fc.property(pose, pose, some(0, 1), (from, to, t) => {
        const worst = rating({ kg: 100, waypoints: [from, to] })
        if (worst?.reason === 'off-grid' || !up) return
        const at = pointAt(reach, datum_m, {
          boom_m: from.boom_m + (to.boom_m - from.boom_m) * t,
          angle_deg: from.angle_deg + (to.angle_deg - from.angle_deg) * t,
        })
        const { gross_kg } = ratingAt(table.axes, up, Math.max(0, at.height_m), at.reach_m, 'worse-row')
        expect(gross_kg).not.toBe('not-rated')
        expect(worst?.limit ?? 0).toBeLessThanOrEqual(Number(gross_kg))
      }),
      { numRuns: runs(5000, 400) },
    )
  })
  it('reaches furthest, at one length, level with its pin', () => {
    fc.assert(
      fc.property(some(4.2, 9.8), some(-3, 68), (boom_m, angle_deg) => {
        const level = pointAt(reach, datum_m, { boom_m, angle_deg: 0 }).reach_m
        expect(pointAt(reach, datum_m, { boom_m, angle_deg }).reach_m).toBeLessThanOrEqual(level + 1e-12)
        const there = pointAt(reach, datum_m, { boom_m, angle_deg })
        const back = poseFor(reach, datum_m, there)
        expect(back.boom_m).toBeCloseTo(boom_m, 9)
        expect(back.angle_deg).toBeCloseTo(angle_deg, 7)
      }),
      { numRuns: runs(1000) },
    )
  })
  it('never gets better with more on it or a steeper stand', () => {
    const rank = { inside: 0, near: 1, 'not-proven': 2, outside: 3 }
    fc.assert(
      fc.property(some(200, 2500), some(1, 1.4), pose, some(0, 0.9), (kg, more, to, roll) => {
        const waypoints = [{ boom_m: 4.2, angle_deg: 0 }, to]
        const verdict = rank[assess(caseOf({ kg, waypoints, roll })).verdict]
        const fuller = caseOf({ kg: kg * more, waypoints, roll })
        fuller.lift.hung.load.lightest_kg = kg
        expect(rank[assess(fuller).verdict]).toBeGreaterThanOrEqual(verdict)
        expect(rank[assess(caseOf({ kg, waypoints, roll: roll * more })).verdict]).toBeGreaterThanOrEqual(verdict)
      }),
      { numRuns: runs(300, 120) },
    )
  })
})
