import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { assess, machineFootLift, raisingWay } from '../src'
import { crawlerCase, kittiwake } from './kittiwake-case'
import { runs } from './runs'

const g = 9.80665
const rad = Math.PI / 180
const standing = crawlerCase({ kg: 1000 }).setup.standing
const way = (boom_m: number, counterweight = 'base') => raisingWay(kittiwake, standing, boom_m, counterweight)
/** The lattice boom by its own data: mass and first moment about its foot. */
const own = (boom_m: number) => {
  const parts = kittiwake.boom.masses.map((m) => ({
    kg: m.mass_kg + (m.perMetre_kg ?? 0) * boom_m,
    at: m.at_m + m.share * boom_m,
  }))
  return { kg: parts.reduce((s, m) => s + m.kg, 0), kgm: parts.reduce((s, m) => s + m.kg * m.at, 0) }
}

describe('the boom of a machine leaving the ground', () => {
  it('gives its printed figures: 48 m may, 72 m may not from the short mast', () => {
    expect(way(48)).toMatchObject({
      greatestPendant_N: expect.closeTo(523_549, 0),
      greatestPendantAt_deg: 0,
      leastFrontMargin_m: expect.closeTo(4.499, 3),
      may: true,
    })
    expect(way(48)?.angles[0]?.pendantArm_m).toBeCloseTo(10.367, 3)
    expect(way(72)).toMatchObject({ greatestPendant_N: expect.closeTo(952_686, 0), may: false })
    expect((way(72)?.greatestPendant_N ?? 0) / (way(72)?.limits.pendant_N ?? 1)).toBeCloseTo(1.12, 2)
  })
  it('is held by its pendants at every angle, forces and moments, and stands where all its masses do', () => {
    fc.assert(
      fc.property(fc.constantFrom(...kittiwake.boom.lengths_m), fc.nat({ max: kittiwake.boom.maxAngle_deg }), (boom_m, i) => {
        const at = way(boom_m)?.angles[i]
        const { raising, pivot } = kittiwake.boom
        if (!at || !raising) throw new RangeError('no way up')
        const { kg, kgm } = own(boom_m)
        const head = [boom_m * Math.cos(at.angle_deg * rad), boom_m * Math.sin(at.angle_deg * rad)] as const
        const mast = [raising.mast.x_m + pivot.back_m, raising.mast.height_m - pivot.height_m] as const
        const long = Math.hypot(mast[0] - head[0], mast[1] - head[1])
        const pull = [(at.pendant_N * (mast[0] - head[0])) / long, (at.pendant_N * (mast[1] - head[1])) / long] as const
        // Moments about the foot: the pull at the head against the weight at its centre.
        const centre_m = (kgm / kg) * Math.cos(at.angle_deg * rad)
        const left = head[0] * pull[1] - head[1] * pull[0] - kg * g * centre_m
        expect(Math.abs(left)).toBeLessThan(1e-6 * kg * g * boom_m)
        // Both margins together are the length of what it stands on.
        expect(at.frontMargin_m + at.backMargin_m).toBeCloseTo(
          (way(boom_m)?.angles[0]?.frontMargin_m ?? 0) + (way(boom_m)?.angles[0]?.backMargin_m ?? 0),
          9,
        )
      }),
      { numRuns: runs(300, 60) },
    )
  })
  it('is what the proof of a lift finds of it, and is not answered for with something suspended', () => {
    const findings = assess(crawlerCase({ kg: 1000 })).findings
    const found = (subject: string) => findings.find((f) => f.subject === subject)?.measured
    expect(found('pendants')).toBeCloseTo(way(48)?.greatestPendant_N ?? 0, 3)
    expect(found('raising')).toBeCloseTo(way(48)?.leastFrontMargin_m ?? 0, 9)
    expect(way(48, 'derrick')).toBeNull()
    expect(() => way(48, 'none')).toThrow()
  })
  it('its foot lifted to the hinge: sling and head carry all of it, no moment is left', () => {
    for (const boom_m of kittiwake.boom.lengths_m)
      for (const sling_m of [0, 1.2, 4]) {
        const { kg, kgm } = own(boom_m)
        const f = machineFootLift(kittiwake, boom_m, sling_m)
        expect(f.mass_kg).toBeCloseTo(kg, 6)
        expect(f.lift_N + f.head_N).toBeCloseTo(kg * g, 3)
        expect(f.lift_N * sling_m + f.head_N * boom_m).toBeCloseTo(kgm * g, 2)
      }
    expect(() => machineFootLift(kittiwake, 36, 30)).toThrow('nearer to the foot')
  })
})
