import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { assess, type Case, sweptTowing, type TowPart } from '../src'
import { openField } from './demo'
import { caseOf, worksBy } from './jobs'
import { along, angleAt, feet, mostOn, type Pt, type RawModel, type RawTable, rad, ratedAt, raw, weightOf } from './plain'
import { runs } from './runs'
import { place, caseOf as towing } from './tow-case'

/**
 * A second, plain reckoning of what is neither a lift on legs nor a stack: a vehicle towed by its lifted end, and a boom on its props.
 * From the demo's raw files, with nothing of `core/src` but what is judged.
 */
const g = 9.80665

interface RawTower extends RawModel {
  wheels: { axles: { id: string; x_m: number; halfTrack_m: number; rating_kg: number; wheels: number; tyre_kg: number }[] }
  tow: TowPart
}

describe('plover with a vehicle behind it, beside a plain reckoning', () => {
  const model: RawTower = raw('models/plover.json')
  const asked = fc.record({
    lifted: fc.double({ min: 0, max: 4000, noNaN: true }),
    whole: fc.double({ min: 500, max: 9000, noNaN: true }),
    out: fc.double({ min: 2.2, max: 3.6, noNaN: true }),
    grade: fc.double({ min: -12, max: 12, noNaN: true }),
    cross: fc.double({ min: -6, max: 6, noNaN: true }),
    wide: fc.double({ min: 2.3, max: 5, noNaN: true }),
    radius: fc.option(fc.double({ min: 8, max: 60, noNaN: true })),
    speed: fc.double({ min: 0.2, max: 12, noNaN: true }),
  })
  it('is nowhere more favourable', { timeout: 1_800_000 }, () => {
    const seen = { inside: 0 }
    fc.assert(
      fc.property(asked, ({ lifted, whole, out, grade, cross, wide, radius, speed }) => {
        const c = towing(
          { lifted_kg: lifted, overhang_m: out, speed_mps: speed },
          {
            mass_kg: whole,
            way: {
              kind: radius === null ? 'straight' : 'turn',
              grade_pct: grade,
              cross_pct: cross,
              width_m: wide,
              ...(radius !== null && { radius_m: radius }),
            },
          },
        )
        const a = assess(c)
        const used = (check: string, subject: string) =>
          a.findings.find((f) => f.check === check && f.subject === subject)?.utilisation ?? Infinity
        if (a.verdict === 'inside') seen.inside++

        // Everything as it lies stowed, boom ahead and level, about the rear axle.
        const [front, rear] = ['front', 'rear'].map((id) => model.wheels.axles.find((x) => x.id === id))
        if (!front || !rear) throw new Error('two axles')
        const { boom, tow: arm } = model
        const L = arm.stowed.boom_m
        const own: [number, number][] = [
          ...model.chassis.masses.map((m): [number, number] => [m.mass_kg, m.x_m]),
          ...model.upper.masses.map((m): [number, number] => [m.mass_kg, m.radius_m]),
          ...boom.masses.map((m): [number, number] => [m.mass_kg, m.at_m + m.share * L - boom.pivot.back_m]),
        ]
        const kg = own.reduce((sum, [m]) => sum + m, 0)
        const about = own.reduce((sum, [m, x]) => sum + m * (x - rear.x_m), 0)
        const base = front.x_m - rear.x_m
        const slip = Math.sin(Math.atan(grade / 100)) * arm.cgHeight_m
        const [F0, F] = [about / base, (about - lifted * out - slip * (kg + lifted)) / base]
        const flat = (about - lifted * out) / base
        for (const f of [F, flat]) {
          const r = kg + lifted - f
          expect(used('axle', 'rear')).toBeGreaterThan(r / rear.rating_kg - 1e-9)
          expect(used('axle', 'front')).toBeGreaterThan(f / front.rating_kg - 1e-9)
          expect(used('wheel', 'rear')).toBeGreaterThan(r / (2 * rear.wheels) / rear.tyre_kg - 1e-9)
          if (f > 0) expect(used('axle', 'steered')).toBeGreaterThan((arm.leastFrontShare * F0) / f - 1e-9)
        }
        const rated = arm.arm.ratings.find((x) => out <= x.to_m + 1e-9)?.rating_kg ?? 0
        expect(used('structure', 'arm')).toBeGreaterThan(lifted / rated - 1e-9)

        // Its own tyres hold all of it back, those of what it tows nothing.
        const p = Math.atan(grade / 100)
        const behind = Math.max(0, whole - lifted)
        const force = (kg + lifted + behind) * (arm.braking_mps2 - g * Math.sin(p))
        const pressed = (kg + lifted) * g * Math.cos(p)
        expect(used('traction', '0')).toBeGreaterThan(force / pressed / place.policy.trucks.friction.dry - 1e-9)

        const half = Math.min(front.halfTrack_m, rear.halfTrack_m)
        const aside = arm.cgHeight_m * (Math.abs(cross) / 100 + (radius === null ? 0 : speed ** 2 / (g * radius)))
        expect(used('travel', '0')).toBeGreaterThan(aside / half / place.policy.trucks.stabilityShare - 1e-9)
        const left = wide - Math.max(2 * arm.halfWidth_m, 2)
        if (radius === null && left > 0)
          expect(used('way', '0-width')).toBeGreaterThan((2 * place.policy.trucks.sideGap_m) / left - 1e-9)
      }),
      { numRuns: runs(25_000, 150) },
    )
    expect(seen.inside).toBeGreaterThan(0)
  })
  it('follows round a turn as it does when it is pulled round it in small steps', () => {
    const turn = fc.record({
      radius: fc.double({ min: 8, max: 40, noNaN: true }),
      over: fc.double({ min: 2.2, max: 3.6, noNaN: true }),
      back: fc.double({ min: 2, max: 6, noNaN: true }),
    })
    fc.assert(
      fc.property(turn, ({ radius, over, back }) => {
        // What tows goes round a circle by its rear axle; its arm's end is dragged along, the axle behind follows where it points.
        const end = (a: number) => ({
          x: radius * Math.cos(a) + over * Math.sin(a),
          y: radius * Math.sin(a) - over * Math.cos(a),
        })
        let axle = { x: end(0).x, y: end(0).y - back }
        const step = 0.002
        for (let a = step; a < 12; a += step) {
          const e = end(a)
          const d = Math.hypot(e.x - axle.x, e.y - axle.y)
          axle = { x: e.x + ((axle.x - e.x) * back) / d, y: e.y + ((axle.y - e.y) * back) / d }
        }
        const half = model.tow.halfWidth_m
        const front = model.wheels.axles.reduce((most, x) => Math.max(most, x.x_m), -Infinity)
        const rear = model.wheels.axles.reduce((least, x) => Math.min(least, x.x_m), Infinity)
        const outer = Math.hypot(radius + half, front - rear + model.tow.frontOverhang_m)
        const inner = Math.min(radius, Math.hypot(axle.x, axle.y)) - half
        const arm = { wheelbase_m: front - rear, tow: model.tow }
        const said = sweptTowing(arm, radius, { overhang_m: over, toAxle_m: back, halfWidth_m: half })
        expect(said ?? Infinity).toBeGreaterThan(outer - inner - 0.02)
      }),
      { numRuns: runs(200, 20) },
    )
  })
})

describe('petrel on its props, beside a plain reckoning', () => {
  const model: RawModel & { supportStates: { id: string; props?: { at_m: number; capacity_N: number; footPull_N: number } }[] } =
    raw('models/petrel.json')
  const table: RawTable = raw('tables/petrel-main.json')
  const stand = feet(model)
  const props = model.supportStates.find((s) => s.id === 'props')?.props
  const work = worksBy('petrel')
  const job = work.jobs.find((j) => j.state === 'props')
  if (!props || !job) throw new Error('no props')
  const base = caseOf(work, { ...job, propsOnUnknown: undefined, wind_mps: 0, rigging_kg: 0, without: [] })
  const L = 9.5
  it('is nowhere more favourable', { timeout: 1_800_000 }, () => {
    const asked = fc.record({
      kg: fc.double({ min: 200, max: 20_000, noNaN: true }),
      radius: fc.double({ min: 4.5, max: 8.4, noNaN: true }),
    })
    const seen = { pulls: 0, rated: 0 }
    fc.assert(
      fc.property(asked, ({ kg, radius }) => {
        const step = base.lift.steps[0]
        if (step?.do !== 'slew') throw new Error('no slew')
        const point = { radius_m: radius, slew_deg: 180 }
        const c: Case = {
          ...base,
          place: openField,
          setup: { ...base.setup, level: { pitch_deg: 0, roll_deg: 0, levelVerified: true } },
          lift: {
            ...base.lift,
            hung: { ...base.lift.hung, load: { ...base.lift.hung.load, mass_kg: kg, windArea_m2: 0 } },
            steps: [{ ...step, boom_m: L, pickUp: point, setDown: point, heights: undefined }],
            configuration: 'props',
          },
          conditions: { wind_mps: 0 },
        }
        const a = assess(c)
        const of = (check: string, subject?: string) =>
          a.findings.find((f) => f.check === check && (subject === undefined || f.subject === subject))
        const hung =
          kg +
          (raw('models/petrel.json').hoist.reevings.find((r: { parts: number }) => r.parts === job.partsOfLine).block
            .mass_kg as number)

        const rated = ratedAt(table, 'props', radius, L)
        const rating = of('rating')
        if (rated === null) expect(rating?.verdict).not.toBe('inside')
        else if (rating?.utilisation != null) {
          seen.rated++
          expect(rating.utilisation).toBeGreaterThan(hung / rated - 1e-9)
        }

        const back = model.boom.pivot.back_m
        const angle = angleAt(model.boom, L, radius)
        for (const on of [hung * c.policy.dynamicFactor, 0]) {
          // The boom alone: what turns it about its foot is what the props hold up; its foot carries the rest, or pulls.
          const boom = model.boom.masses.map((m) => [m.mass_kg, (m.at_m + m.share * L) * Math.cos(angle * rad)] as const)
          const turning = on * (radius + back) + boom.reduce((sum, [m, x]) => sum + m * x, 0)
          const pair = turning / (props.at_m + back)
          const foot = on + boom.reduce((sum, [m]) => sum + m, 0) - pair
          for (const id of ['PL', 'PR']) {
            expect(of('outrigger', id)?.measured ?? Infinity, id).toBeGreaterThan(((pair * g) / 2) * (1 - 1e-9))
            expect(of('outrigger', id)?.utilisation ?? Infinity, id).toBeGreaterThan((pair * g) / 2 / props.capacity_N - 1e-9)
          }
          if (foot < 0 && on > 0) {
            seen.pulls++
            // The pull as it is, without a jerk.
            const still =
              hung +
              boom.reduce((sum, [m]) => sum + m, 0) -
              (hung * (radius + back) + boom.reduce((s, [m, x]) => s + m * x, 0)) / (props.at_m + back)
            if (still < 0)
              expect(of('structure', 'foot')?.utilisation ?? Infinity).toBeGreaterThan((-still * g) / props.footPull_N - 1e-9)
          }
          const points: Pt[] = [
            ...model.chassis.masses.map((m) => ({ m: m.mass_kg, x: m.x_m, y: m.y_m })),
            ...model.upper.masses.map((m) => along(m.mass_kg, m.radius_m, 180)),
            ...model.upper.counterweights.slice(0, 1).map((m) => along(m.mass_kg, m.radius_m, 180)),
          ]
          const whole = weightOf({ points, hook: along(1, -back, 180) }, foot)
          for (const [n, leg] of model.outriggers.entries())
            expect(of('outrigger', leg.id)?.measured ?? Infinity, leg.id).toBeGreaterThan(
              mostOn(stand, whole, n) * (1 - 1e-9) - 1e-6,
            )
        }
      }),
      { numRuns: runs(25_000, 150) },
    )
    expect(seen.rated).toBeGreaterThan(0)
    expect(seen.pulls).toBeGreaterThan(0)
  })
})
