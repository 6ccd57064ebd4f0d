import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { assess, isProvable, nearestRemedies, type SlewStep, straightBoom, windLimit } from '../src'
import { judgedBy } from './demo'
import { runs } from './runs'
import { cormorant, type TowerJob, towerCase, yard } from './tower-case'

const judged = (job: TowerJob) => judgedBy(towerCase(job))

describe('a tower crane', () => {
  it('is proved by the parts that it has', () => expect(isProvable(cormorant)).toBe(true))
  it('reads its jobs, and a nearer radius brings it inside', () => {
    expect(judged({ kg: 1990 })).toEqual(['inside', 'rating', 0.705])
    expect(judged({ kg: 2700 })).toEqual(['near', 'rating', 0.923])
    expect(judged({ kg: 3100 })).toEqual(['outside', 'rating', 1.046])
    expect(judged({ kg: 1990, until: '2026-05-31' }).slice(0, 2)).toEqual(['not-proven', 'overturning'])
    expect(judged({ kg: 1990, until: null }).slice(0, 2)).toEqual(['not-proven', 'overturning'])
    const c = towerCase({ kg: 3100 })
    const { governing } = assess(c)
    const changes = governing ? nearestRemedies(c, governing, { mats: [], canStand: () => true }) : []
    const nearer = changes.find((x) => x.change.kind === 'radius')
    expect(nearer?.change).toMatchObject({ radius_m: 28 })
    expect(nearer?.assessment?.verdict).toBe('inside')
    expect(nearer?.assessment?.findings.find((f) => f.check === 'rating')?.utilisation).toBeCloseTo(3400 / 4200, 9)
  })
  it('reads two parts and four from their own columns, and no other jib', () => {
    const at20 = { pickUp: { radius_m: 14, slew_deg: 0 }, setDown: { radius_m: 14, slew_deg: 30 } }
    expect(assess(towerCase({ kg: 3000, step: at20 })).rated_kg).toBe(5200)
    expect(assess(towerCase({ kg: 3000, step: at20, parts: 4 })).rated_kg).toBe(8400)
    expect(judged({ kg: 1990, step: { boom_m: 45 } }).slice(0, 2)).toEqual(['outside', 'rating'])
    expect(() => assess(towerCase({ kg: 1990, parts: 3 }))).toThrow('not reeved in 3')
  })
  it('is stopped by wind in steps, and sooner by the sail of a light load', () => {
    expect(assess(towerCase({ kg: 1990, load: { windArea_m2: 1.9 } })).windLimit_mps).toBe(14)
    expect(assess(towerCase({ kg: 1990, load: { windArea_m2: 2.6, dragCoefficient: 0.8 } })).windLimit_mps).toBe(10)
    const ring = { mass_kg: { value: 1900, tolerance: 90 }, windArea_m2: 6.4, dragCoefficient: 1.3 }
    expect(assess(towerCase({ kg: 1900, load: ring })).windLimit_mps).toBeCloseTo(5.11, 2)
    expect(judged({ kg: 1990, wind: 14.5 })[0]).toBe('outside')
    expect(judged({ kg: 1990, wind: null }).slice(0, 2)).toEqual(['not-proven', 'wind'])
  })
  it('sees what is under the jib: a house it lifts over, people it may not, room under the hook', () => {
    // From the path in front of the loft on to its roof.
    const over = {
      pickUp: { radius_m: 25, slew_deg: 175 },
      setDown: { radius_m: 25, slew_deg: 150 },
      slewDirection: 'clockwise' as const,
    }
    const byHouse = (heights: SlewStep['heights'], closes: string[] = []) => {
      const c = towerCase({ kg: 1500, place: yard, step: { ...over, ...(heights && { heights }) } })
      return assess({ ...c, lift: { ...c.lift, closes } }).findings
    }
    const people = byHouse({ pickUp_m: 0, over_m: 26, setDown_m: 0 }).find((f) => f.id === 'people:footpath')
    expect(people?.verdict).toBe('outside')
    expect(
      byHouse({ pickUp_m: 0, over_m: 26, setDown_m: 0 }, ['footpath']).find((f) => f.id === 'people:footpath')?.verdict,
    ).toBe('inside')
    // 40 m of jib, 2 of block, 3 of rigging, 0.6 of load: 34.4 are left.
    const room = (over_m: number) => byHouse({ pickUp_m: 0, over_m, setDown_m: 0 }).find((f) => f.check === 'hook-height')
    expect(room(34)?.measured).toBeCloseTo(0.4, 9)
    expect(room(34.3)?.verdict).toBe('outside')
    // Its counter-jib passes high above the loft.
    const away = { pickUp: { radius_m: 30, slew_deg: 300 }, setDown: { radius_m: 30, slew_deg: 330 } }
    const clear = assess(towerCase({ kg: 1500, place: yard, step: away })).findings.find((f) => f.check === 'clearance')
    expect(clear?.detail).not.toMatchObject({ body: 'tail' })
  })
  it('is not proven with anything left out', () => {
    for (const e of cormorant.evidence) expect(judged({ kg: 1990, without: [e.id] })[0]).toBe('not-proven')
    expect(judged({ kg: null })[0]).toBe('not-proven')
    expect(judged({ kg: 1990, load: { windArea_m2: null } }).slice(0, 2)).toEqual(['not-proven', 'wind'])
    const c = towerCase({ kg: 1990 })
    expect(assess({ ...c, tables: [] }).verdict).toBe('not-proven')
  })
  it('trolleys no further than its jib and no nearer than its mast', () => {
    expect(judged({ kg: 500, step: { setDown: { radius_m: 50.5, slew_deg: 40 } } })[0]).toBe('outside')
    expect(judged({ kg: 500, step: { pickUp: { radius_m: 2.5, slew_deg: 0 } } })[0]).toBe('outside')
    const jib = straightBoom(cormorant.boom)
    fc.assert(
      fc.property(fc.double({ min: 3.2, max: 50, noNaN: true }), (radius_m) => {
        const pose = jib.poseAtRadius(50, radius_m)
        const back = jib.poseAtAngle(50, pose.angle_deg)
        expect(back.radius_m).toBeCloseTo(radius_m, 9)
        expect(pose.tip_height_m).toBe(40)
        expect(pose.angle_deg).toBeLessThanOrEqual(jib.maxAngle_deg + 1e-9)
        expect(jib.lineAt(50, pose.angle_deg).at(-1)?.out_m).toBeCloseTo(radius_m, 9)
      }),
      { numRuns: runs(500) },
    )
  })
  it('never rates more further out, keeps its moment, and its line', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 10, max: 49, noNaN: true }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        fc.constantFrom(2, 4),
        (near, share, parts) => {
          const far = near + share * (50 - near)
          const rated = (radius_m: number) =>
            assess(
              towerCase({ kg: 800, parts, step: { pickUp: { radius_m, slew_deg: 0 }, setDown: { radius_m, slew_deg: 20 } } }),
            ).rated_kg ?? 0
          expect(rated(far)).toBeLessThanOrEqual(rated(near))
          expect(rated(near) * near).toBeLessThanOrEqual((cormorant.tower?.moment_kgm ?? 0) * (1 + 1e-9))
        },
      ),
      { numRuns: runs(300, 120) },
    )
  })
  it('takes the lesser of step and sail', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 200, max: 2500, noNaN: true }),
        fc.double({ min: 0.2, max: 12, noNaN: true }),
        (kg, windArea_m2) => {
          const limit = assess(towerCase({ kg, load: { windArea_m2, dragCoefficient: 1.2 } })).windLimit_mps ?? 0
          const sail = windLimit({
            chartLimit_mps: 10,
            referenceArea_m2_per_t: 1.2,
            mass_kg: kg,
            sailArea_m2: windArea_m2,
            dragCoefficient: 1.2,
          })
          expect(limit).toBeLessThanOrEqual(windArea_m2 <= 2.5 ? 14 : 10)
          if (sail.reducedByLoad) expect(limit).toBe(sail.limit_mps)
        },
      ),
      { numRuns: runs(500) },
    )
  })
})
