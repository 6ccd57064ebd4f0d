import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { type ArticulatedPose, assess, type Case, foldingOf, foldingStretches, isRefusal, jointsOf, type PoseStep } from '../src'
import { caseOf, heron, type Job, worksBy } from './jobs'
import { runs } from './runs'

const folding = foldingOf(heron.boom)
if (!folding) throw new Error('Heron does not fold')
const pose = (inner_deg: number, fold_deg: number, stage = 1, slew_deg = 60): ArticulatedPose => ({
  inner_deg,
  fold_deg,
  extension_m: stage * 1.9,
  slew_deg,
})
const way = (mode: PoseStep['mode'], ...waypoints: ArticulatedPose[]) => ({ waypoints, mode })

/** A second, plain reckoning of where the head is: two arms, by hand. */
function headAt(p: ArticulatedPose): number {
  const d = Math.PI / 180
  return 2.9 * Math.cos(p.inner_deg * d) + (3.0 + p.extension_m) * Math.cos((p.inner_deg - p.fold_deg) * d) - 0.1
}
const mixed = (a: ArticulatedPose, b: ArticulatedPose, t: number): ArticulatedPose => ({
  inner_deg: a.inner_deg + (b.inner_deg - a.inner_deg) * t,
  fold_deg: a.fold_deg + (b.fold_deg - a.fold_deg) * t,
  extension_m: a.extension_m + (b.extension_m - a.extension_m) * t,
  slew_deg: a.slew_deg + (b.slew_deg - a.slew_deg) * t,
})

describe('a folding boom on its way', () => {
  const stretches = foldingStretches(folding, way('together', pose(75, 120), pose(60, 15)), 'step')
  it('bulges out between two poses, further than at either', () => {
    const far = stretches.flatMap((s) => s.ends).reduce((a, b) => (b.radius_m > a.radius_m ? b : a))
    expect(far.t).toBeCloseTo(0.55772507, 7)
    expect(far.radius_m).toBeCloseTo(5.9300139, 7)
    expect(stretches[0]?.ends[0].radius_m).toBeCloseTo(4.1153985, 7)
    expect(stretches.at(-1)?.ends[1].radius_m).toBeCloseTo(4.8148232, 7)
  })
  const angle = { inner: fc.double({ min: 20, max: 80, noNaN: true }), fold: fc.double({ min: 0, max: 110, noNaN: true }) }
  const poses = fc.record({ inner: angle.inner, fold: angle.fold, stage: fc.integer({ min: 0, max: 3 }) })
  const mode = fc.constantFrom('together' as const, 'one-after-another' as const)
  it('is nowhere further out or nearer in than its stretches say, and is where they say at each radius', () => {
    fc.assert(
      fc.property(poses, poses, mode, (a, b, by) => {
        const [p, q] = [pose(a.inner, a.fold, a.stage, 0), pose(b.inner, b.fold, b.stage, 40)]
        if (Math.min(jointsOf(folding, p).head.height_m, jointsOf(folding, q).head.height_m) < 0) return
        const found = foldingStretches(folding, way(by, p, q), 'step')
        const radii = found.flatMap((s) => s.ends.map((e) => e.radius_m))
        const [least, most] = [Math.min(...radii), Math.max(...radii)]
        if (by === 'together')
          for (let i = 0; i <= 500; i++) {
            const r = headAt(mixed(p, q, i / 500))
            expect(r).toBeGreaterThan(least - 1e-9)
            expect(r).toBeLessThan(most + 1e-9)
          }
        for (const s of found) {
          const [from, to] = s.ends.map((e) => e.radius_m) as [number, number]
          for (const share of [0, 0.3, 0.8, 1]) {
            const r = from + (to - from) * share
            expect(headAt(s.poseAt(r))).toBeCloseTo(r, 6)
            expect(s.boom.poseAtRadius(s.boom_m, r).radius_m).toBeCloseTo(r, 6)
          }
        }
      }),
      { numRuns: runs(2000, 60) },
    )
  })
  it('unfolded is a straight boom of the same length', () => {
    for (const stage of [0, 1, 2, 3])
      for (const inner of [10, 35, 70]) {
        const { head } = jointsOf(folding, pose(inner, 0, stage))
        expect(head.out_m).toBeCloseTo((5.9 + 1.9 * stage) * Math.cos((inner * Math.PI) / 180) - 0.1, 12)
        expect(head.height_m).toBeCloseTo(2.6 + (5.9 + 1.9 * stage) * Math.sin((inner * Math.PI) / 180), 12)
      }
  })
  it.each([
    ['a fold beyond its limits', pose(60, 170), 'fold_deg'],
    ['an inner boom beyond its limits', pose(81, 20), 'inner_deg'],
    ['a stage half out', { ...pose(60, 20), extension_m: 1 }, 'extension_m'],
    ['a boom in the ground', pose(-10, 120, 3), 'inner_deg'],
  ])('refuses %s, naming the joint', (_, p, field) => {
    try {
      foldingStretches(folding, way('together', pose(60, 20), p), 'lift.steps.0')
      expect.unreachable()
    } catch (e) {
      expect(isRefusal({ error: (e as { body: { error: object } }).body.error })).toBe(true)
      expect(e).toMatchObject({ path: `lift.steps.0.waypoints.1.${field}` })
    }
  })
})

describe('a lift through poses', () => {
  const work = worksBy('heron')
  const job = work.jobs[0] as Job
  const along = (mode: PoseStep['mode'], waypoints: ArticulatedPose[], kg = 900): Case => {
    const c = caseOf(work, { ...job, load: { mass_kg: kg } })
    const step: PoseStep = { do: 'pose', laden: true, waypoints, mode, radiusBasis: 'measured-under-load' }
    return { ...c, lift: { ...c.lift, steps: [step] } }
  }
  it('is rated at the bulge, not at its ends', () => {
    const a = assess(along('together', [pose(75, 120), pose(60, 15)]))
    const rating = a.findings.find((f) => f.check === 'rating')
    expect(rating?.limit).toBe(2220)
    expect(rating?.at?.radius_m).toBeGreaterThan(5)
    expect(a.rated_kg).toBe(2220)
    const ends = [pose(75, 120), pose(60, 15)].map(
      (p) => assess(along('together', [p, { ...p, slew_deg: p.slew_deg + 1 }])).rated_kg,
    )
    expect(ends).toEqual([2680, 2680])
  })
  it('is nowhere rated more, nor tipped by more, than standing still in any pose of the way', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 30, max: 78, noNaN: true }),
        fc.double({ min: 5, max: 100, noNaN: true }),
        fc.double({ min: 30, max: 78, noNaN: true }),
        fc.double({ min: 5, max: 100, noNaN: true }),
        fc.double({ min: 0.05, max: 0.95, noNaN: true }),
        (i0, f0, i1, f1, t) => {
          const [p, q] = [pose(i0, f0, 1, 60), pose(i1, f1, 1, 80)]
          if ([p, q].some((x) => jointsOf(folding, x).head.height_m < 0)) return
          const whole = assess(along('together', [p, q], 600))
          const there = mixed(p, q, t)
          const still = assess(along('together', [there, { ...there }], 600))
          const use = (a: typeof whole, id: string) => a.findings.find((f) => f.id === id)?.utilisation ?? Infinity
          // Between the radii that are looked at a figure can be more by the square of their distance, no further.
          for (const id of ['rating', 'overturning', 'outrigger:FL', 'outrigger:RR'])
            expect(use(whole, id), id).toBeGreaterThanOrEqual(use(still, id) * (1 - 2e-3) - 1e-6)
        },
      ),
      { numRuns: runs(600, 25) },
    )
  })
})
