import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { assess, boomRaising, nearestRemedies, straightBoom, sumSlewing, trackPressure } from '../src'
import { LiftContext } from '../src/check/context'
import { trackUses } from '../src/check/tracks'
import { judgedBy } from './demo'
import { type CrawlerJob, crawlerCase, kittiwake, tracks } from './kittiwake-case'
import { runs } from './runs'

const judged = (job: CrawlerJob) => judgedBy(crawlerCase(job))
const finding = (job: CrawlerJob, id: string) => assess(crawlerCase(job)).findings.find((f) => f.id === id)
const at28 = (slew_deg: number, to_deg = slew_deg) => ({
  pickUp: { radius_m: 28, slew_deg },
  setDown: { radius_m: 28, slew_deg: to_deg },
})

describe('a lattice crawler', () => {
  it('presses on its tracks by its slew: worst neither ahead nor across', () => {
    const most = (from: number, to = from) => {
      const ctx = new LiftContext(crawlerCase({ kg: 31000, dynamic: 1, step: at28(from, to) }))
      return Math.max(...trackUses(ctx, tracks).map((u) => u.most_kPa))
    }
    expect(most(0)).toBeCloseTo(363.82844, 4)
    expect(most(90)).toBeCloseTo(215.40406, 4)
    expect(most(0, 359.9)).toBeCloseTo(414.62886, 3)
    const ctx = new LiftContext(crawlerCase({ kg: 31000, dynamic: 1, step: at28(0, 60) }))
    const worst = trackUses(ctx, tracks).reduce((a, b) => (b.most_kPa > a.most_kPa ? b : a))
    expect(worst.at.slew_deg).toBeCloseTo(26.9635, 2)
  })
  it('reads its jobs by the table of its mode; derrick or a nearer radius brings it inside', () => {
    expect(judged({ kg: 31000 })).toEqual(['inside', 'rating', 0.859])
    expect(judged({ kg: 34500 })).toEqual(['near', 'rating', 0.95])
    expect(judged({ kg: 37500 })).toEqual(['outside', 'rating', 1.029])
    const pressure = (kg: number) =>
      Math.max(...['left', 'right'].map((s) => finding({ kg, step: at28(0, 359.9) }, `ground:${s}`)?.measured ?? 0))
    expect(pressure(31000)).toBeCloseTo(486, 0)
    expect(pressure(34500)).toBeCloseTo(597, 0)
    expect(pressure(37500)).toBeCloseTo(733, 0)
    const c = crawlerCase({ kg: 37500 })
    const { governing } = assess(c)
    const changes = governing ? nearestRemedies(c, governing, { mats: [], canStand: () => true }) : []
    const derrick = changes.find((x) => x.change.kind === 'counterweight')
    expect(derrick?.assessment?.findings.find((f) => f.check === 'rating')?.utilisation).toBeCloseTo(39400 / 59300, 9)
    const nearer = changes.find((x) => x.change.kind === 'radius')
    expect(nearer?.change).toMatchObject({ radius_m: 24 })
    expect(nearer?.assessment?.findings.find((f) => f.check === 'rating')?.utilisation).toBeCloseTo(39400 / 47600, 9)
  })
  it('counts suspended ballast only while boom and lightest load hold it off the ground, and it was looked at', () => {
    const hangs = (job: CrawlerJob) => new LiftContext(crawlerCase({ counterweight: 'derrick', ...job })).ballastHangs
    expect(hangs({ kg: 37500, step: at28(300) })).toBe(true)
    expect(hangs({ kg: 5000, step: at28(300) })).toBe(false)
    expect(hangs({ kg: 37500, step: at28(300), load: { lightest_kg: 5000 } })).toBe(false)
    expect(judged({ kg: 5000, counterweight: 'derrick', step: at28(300) }).slice(0, 2)).toEqual(['outside', 'motion'])
    expect(judged({ kg: 37500, counterweight: 'derrick', without: ['ballast-clear'], step: at28(300) }).slice(0, 2)).toEqual([
      'not-proven',
      'evidence',
    ])
    // Without a ballast to hang, nobody asks whether it does.
    expect(judged({ kg: 31000, without: ['ballast-clear'] })[0]).toBe('inside')
    const boom = straightBoom(kittiwake.boom)
    const { angle_deg } = boom.poseAtRadius(48, 28)
    const own = boom.massesAt(48, angle_deg).reduce((s, m) => s + m.mass_kg * (m.radius_m - 1.3), 0)
    expect(own / 1000).toBeCloseTo(300, -1)
  })
  it('stands unladen within seven tenths of the way to the edge behind it, never with ballast hung', () => {
    const back = finding({ kg: 31000 }, 'backward')
    expect(back?.measured).toBeCloseTo(0.57, 2)
    expect(back?.limit).toBe(0.7)
    expect(finding({ kg: 37500, counterweight: 'derrick', step: at28(300) }, 'backward')?.measured).toBeCloseTo(
      back?.measured ?? 0,
      9,
    )
  })
  it('raises its boom from the ground within what its pendants hold', () => {
    const pulled = finding({ kg: 31000 }, 'structure:pendants')
    expect((pulled?.measured ?? 0) / 1000).toBeCloseTo(524, 0)
    expect(finding({ kg: 31000 }, 'structure:raising')?.measured).toBeCloseTo(4.5, 1)
    const plain = boomRaising({
      boom: [
        { mass_kg: 19000, at_m: 0.47 * 48 },
        { mass_kg: 2600, at_m: 48 },
      ],
      foot: { x_m: 1.3, height_m: 2.1 },
      pendant: { at_m: 48, mast_x_m: -4.5, mast_height_m: 14 },
      base: { mass_kg: 142000, x_m: (46 * -2) / 142 },
      counterweight: { mass_kg: 90000, x_m: -6 },
      front_m: 4.3,
      back_m: 4.3,
      keepMargin_m: 0.5,
      angles_deg: [0, 83],
    })
    expect(pulled?.measured).toBeCloseTo(plain.greatestPendant_N, 6)
  })
  it('weighs more the longer its boom is', () => {
    const boom = straightBoom(kittiwake.boom)
    const weighs = (m: number) => sumSlewing(boom.massesAt(m, 60)).force_N
    expect(weighs(60) - weighs(48)).toBeCloseTo(280 * 12 * 9.80665, 6)
  })
  it('keeps its tracks from the chamber, and is not proven with anything left out', () => {
    const c = crawlerCase({ kg: 31000 })
    const near = { ...c, setup: { ...c.setup, position: { x_m: 24.5, y_m: 12.5, heading_deg: 0 } } }
    expect(assess(near).findings.some((f) => f.check === 'edge' && f.verdict === 'outside')).toBe(true)
    const over = { ...c, setup: { ...c.setup, position: { x_m: 27, y_m: 6, heading_deg: 0 } } }
    expect(assess(over).findings.some((f) => f.check === 'edge' && f.reason === 'over-void')).toBe(true)
    expect(judged({ kg: null })[0]).toBe('not-proven')
    expect(judged({ kg: 31000, ground: null }).slice(0, 2)).toEqual(['not-proven', 'ground'])
    expect(judged({ kg: 31000, level: null })[0]).toBe('not-proven')
    // A lattice boom is as long as it was built.
    const built = (boom_m: number) =>
      assess({ ...c, setup: { ...c.setup, fitted: { ...c.setup.fitted, boom_m } } }).findings.some(
        (f) => f.reason === 'other-boom',
      )
    expect([48, 60].map(built)).toEqual([false, true])
    for (const e of kittiwake.evidence)
      if (e.id !== 'ballast-clear' && e.id !== 'bubble') expect(judged({ kg: 31000, without: [e.id] })[0]).toBe('not-proven')
  })
})

describe('any weight on two tracks', () => {
  const some = (min: number, max: number) => fc.double({ min, max, noNaN: true })
  it('is found at its worst slew: never less than at any slew of the way', () => {
    fc.assert(
      fc.property(some(5000, 36000), some(20, 36), some(0, 359), some(0, 200), some(0, 1), (kg, radius_m, from, by, share) => {
        const step = { pickUp: { radius_m, slew_deg: from }, setDown: { radius_m, slew_deg: from + by } }
        const c = crawlerCase({ kg, step })
        const ctx = new LiftContext(c)
        if (ctx.reached) return
        const uses = trackUses(ctx, tracks)
        const there = trackUses(
          new LiftContext(
            crawlerCase({
              kg,
              step: { pickUp: { radius_m, slew_deg: from + by * share }, setDown: { radius_m, slew_deg: from + by * share } },
            }),
          ),
          tracks,
        )
        for (const [i, u] of there.entries()) expect((uses[i]?.most_kPa ?? 0) * (1 + 1e-6)).toBeGreaterThanOrEqual(u.most_kPa)
      }),
      { numRuns: runs(600, 150) },
    )
  })
  it('centred it is N/(2bL) everywhere; a sixth of the length off, nothing at one end', () => {
    fc.assert(
      fc.property(some(1e5, 5e6), some(2, 10), some(0.3, 1.5), some(2, 8), (force_N, length_m, width_m, gauge_m) => {
        const track = { length_m, width_m, gauge_m }
        const still = trackPressure({ force_N, eccentricityLong_m: 0, eccentricityLat_m: 0, track }).tracks
        for (const t of still) expect(t.max_kPa).toBeCloseTo(force_N / (2 * width_m * length_m) / 1000, 6)
        for (const t of trackPressure({ force_N, eccentricityLong_m: length_m / 6, eccentricityLat_m: 0, track }).tracks)
          expect(t.min_kPa / t.max_kPa).toBeCloseTo(0, 9)
      }),
      { numRuns: runs(300) },
    )
  })
})
