import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  axleLoads,
  backwardStability,
  beaufort,
  boomRaising,
  bubbleCheck,
  calculatorNamed,
  edgeSetback,
  g_mps2,
  gustAtHeight_mps,
  levelEffect,
  rad,
  stabilityTriangle,
  swing,
  swingPeriod_s,
  tailSwing,
  trackPressure,
  wear,
  wearTrend,
  windForce_N,
  windLoad,
} from '../src'

const between = (min: number, max: number) => fc.double({ min, max, noNaN: true })
const run = (name: string, input: unknown) => calculatorNamed(name)?.run(input) as { error?: { code: string; path: string } }

describe('tracks', () => {
  const track = { length_m: 6, width_m: 0.8, gauge_m: 4 }
  it('carry the whole force, and the pressure under each adds up to its share', () => {
    fc.assert(
      fc.property(between(-2.8, 2.8), between(-1.8, 1.8), (long, lat) => {
        const { tracks } = trackPressure({ force_N: 500_000, eccentricityLong_m: long, eccentricityLat_m: lat, track })
        expect(tracks[0]?.force_N ?? 0).toBeCloseTo(500_000 * (0.5 + lat / 4), 4)
        for (const t of tracks) {
          expect(((t.max_kPa + t.min_kPa) / 2) * 1000 * track.width_m * t.contact_m).toBeCloseTo(t.force_N, 3)
        }
      }),
    )
  })
  it('meet at a sixth of the length: both formulas say the same there', () => {
    const at = (e: number) => trackPressure({ force_N: 1e5, eccentricityLong_m: e, eccentricityLat_m: 0, track }).tracks[0]
    expect(at(1 - 1e-9)?.max_kPa).toBeCloseTo(at(1 + 1e-9)?.max_kPa ?? 0, 4)
    expect(at(1)?.min_kPa).toBeCloseTo(0, 9)
  })
})

describe('edges, bubbles and tilt', () => {
  it('keep one depth from a firm edge, two from loose or wet, the site’s figure if greater', () => {
    expect(edgeSetback({ padEdgeToToe_m: 1.5, depth_m: 1.5, soil: 'firm' })).toMatchObject({
      required_m: 1.5,
      ok: true,
      short_m: 0,
    })
    expect(edgeSetback({ padEdgeToToe_m: 2, depth_m: 1.5, soil: 'wet' })).toMatchObject({ required_m: 3, ok: false, short_m: 1 })
    expect(edgeSetback({ padEdgeToToe_m: 2, depth_m: 0.5, soil: 'firm', siteMinimum_m: 4 }).required_m).toBe(4)
    expect(edgeSetback({ padEdgeToToe_m: 90, depth_m: 1, soil: 'firm', structure: 'culvert' })).toMatchObject({
      ok: null,
      engineer: true,
    })
  })
  it('find a level’s own error whatever the slope', () => {
    fc.assert(
      fc.property(between(-5, 5), between(-1, 1), between(-1, 1), (slope, error, fixed) => {
        const c = bubbleCheck({
          first_deg: slope + error,
          turned_deg: -slope + error,
          fixed_deg: slope + fixed,
          surface: 'slewing ring',
        })
        expect(c.true_deg).toBeCloseTo(slope, 12)
        expect(c.error_deg).toBeCloseTo(error, 12)
        expect(c.fixedError_deg).toBeCloseTo(fixed, 12)
      }),
    )
  })
  it('tilt along the boom changes the radius, tilt across it the side load; turned half round both change sign', () => {
    const e = levelEffect({ height_m: 20, pitch_deg: 1, roll_deg: 0, slew_deg: 0 })
    expect(e.radiusChange_m).toBeCloseTo(-20 * Math.tan(rad), 12)
    expect(e.sideLoadShare).toBeCloseTo(0, 12)
    fc.assert(
      fc.property(between(-3, 3), between(-3, 3), between(0, 360), (pitch_deg, roll_deg, slew_deg) => {
        const a = levelEffect({ height_m: 20, pitch_deg, roll_deg, slew_deg })
        const b = levelEffect({ height_m: 20, pitch_deg, roll_deg, slew_deg: slew_deg + 180 })
        expect(a.radiusChange_m).toBeCloseTo(-b.radiusChange_m, 9)
        expect(a.sideLoadShare).toBeCloseTo(b.sideLoadShare, 9)
        expect(Math.hypot(a.radiusChange_m, a.side_m)).toBeCloseTo(
          20 * Math.hypot(Math.tan(pitch_deg * rad), Math.tan(roll_deg * rad)),
          9,
        )
      }),
    )
  })
})

describe('backward stability and raising', () => {
  const supports = [
    [3, 2],
    [3, -2],
    [-3, -2],
    [-3, 2],
  ].map(([x, y], i) => ({ id: `${i}`, x_m: x as number, y_m: y as number }))
  it('of a plain counterweight is worst straight across the nearest edge', () => {
    const b = backwardStability({
      supports,
      masses: [{ mass_kg: 10_000, x_m: 0, y_m: 0 }],
      slewing: [{ mass_kg: 10_000, radius_m: -2 }],
      crawler: true,
    })
    // The resultant circles at 1 m; the side edges stand 2 m away.
    expect(b.least_m).toBeCloseTo(1, 6)
    expect(b.backwardShare).toBeCloseTo(0.5, 6)
    expect(b.ok).toBe(true)
  })
  it('wind from the front never helps', () => {
    fc.assert(
      fc.property(between(0, 20_000), (wind_N) => {
        const at = (n: number) =>
          backwardStability({
            supports,
            masses: [{ mass_kg: 20_000, x_m: 0.2, y_m: 0 }],
            slewing: [{ mass_kg: 6000, radius_m: -3 }],
            crawler: false,
            wind_N: n,
            windHeight_m: 10,
            step_deg: 5,
          }).least_m
        expect(at(wind_N)).toBeLessThanOrEqual(at(0) + 1e-9)
      }),
      { numRuns: 40 },
    )
  })
  it('a crawler’s centre of gravity stands at most seven tenths of the way back', () => {
    const with_ = (radius_m: number) =>
      backwardStability({
        supports,
        masses: [{ mass_kg: 10_000, x_m: 0, y_m: 0 }],
        slewing: [{ mass_kg: 10_000, radius_m }],
        crawler: true,
      }).ok
    expect([with_(-2.79), with_(-2.81)]).toEqual([true, false])
  })
  it('the pendant holds the boom’s moment about its foot, and the counterweight asked for is just enough', () => {
    const base = calculatorNamed('boom-raising')?.example as Parameters<typeof boomRaising>[0]
    const r = boomRaising(base)
    const moment = base.boom.reduce((s, m) => s + m.mass_kg * m.at_m, 0) * g_mps2
    for (const a of r.angles) expect(a.pendant_N * a.pendantArm_m).toBeCloseTo(moment * Math.cos(a.angle_deg * rad), 2)
    const enough = boomRaising({ ...base, counterweight: { ...base.counterweight, mass_kg: r.counterweightNeeded_kg } })
    expect(Math.min(...enough.angles.map((a) => a.frontMargin_m))).toBeCloseTo(base.keepMargin_m, 9)
  })
})

describe('forklifts and floors', () => {
  const truck = { mass_kg: 4000, cgBehindFront_m: 1, wheelbase_m: 1.6 }
  it('axle loads carry the truck and its load, and the moment about the front axle holds', () => {
    fc.assert(
      fc.property(between(0, 3000), between(0.3, 1), (mass_kg, aheadOfFront_m) => {
        const a = axleLoads({ truck, load: { mass_kg, aheadOfFront_m }, frontWheels: 2, rearWheels: 2 })
        expect(a.front_N + a.rear_N).toBeCloseTo((4000 + mass_kg) * g_mps2, 5)
        if (!a.tips) expect(a.rear_N * 1.6).toBeCloseTo((4000 * 1 - mass_kg * aheadOfFront_m) * g_mps2, 4)
        // Half the front axle or half the rear one, twice on solid tyres.
        expect(a.worstWheel_N).toBeCloseTo(Math.max(a.front_N, a.rear_N), 5)
      }),
    )
  })
  it('an offset loads one side and asks for the track', () => {
    const input = { truck, load: { mass_kg: 1000, aheadOfFront_m: 0.8, offset_m: 0.2 }, frontWheels: 2, rearWheels: 2 }
    expect(run('axle-loads', input).error?.path).toBe('frontTrack_m')
    expect(axleLoads({ ...input, frontTrack_m: 1 }).worstWheel_N).toBeGreaterThan(
      axleLoads({ truck, load: { mass_kg: 1000, aheadOfFront_m: 0.8 }, frontWheels: 2, rearWheels: 2 }).worstWheel_N,
    )
  })
  const still = {
    masses: [{ mass_kg: 4000, x_m: -0.8, y_m: 0, z_m: 0.8 }],
    frontHalfTrack_m: 0.5,
    wheelbase_m: 1.6,
    rear: 'pivot' as const,
    pitch_deg: 0,
    roll_deg: 0,
    speed_mps: 0,
    braking_mps2: 0,
  }
  it('stands in the middle of its triangle, alike to both sides', () => {
    const s = stabilityTriangle(still)
    expect(s.margins.left_m).toBeCloseTo(s.margins.right_m, 12)
    expect(s.margins.front_m).toBeCloseTo(0.8, 12)
    expect(s.tipSpeed_mps).toBeNull()
  })
  it('at its tip speed has just no margin left, and the permitted speed uses half of it', () => {
    fc.assert(
      fc.property(between(2, 12), between(0, 5), fc.boolean(), (r, roll, left) => {
        const turn = { ...still, roll_deg: left ? roll : -roll, turnRadius_m: left ? r : -r }
        const s = stabilityTriangle(turn)
        const outer = (speed_mps: number) => {
          const m = stabilityTriangle({ ...turn, speed_mps }).margins
          return left ? m.right_m : m.left_m
        }
        expect(outer(s.tipSpeed_mps ?? 0)).toBeCloseTo(0, 9)
        expect(outer(s.permittedSpeed_mps ?? 0)).toBeCloseTo(outer(0) / 2, 9)
      }),
    )
  })
  it('a rear axle with a track never tips sooner than a pivot', () => {
    const wide = stabilityTriangle({ ...still, rear: { halfTrack_m: 0.4 }, turnRadius_m: 3 })
    expect(wide.tipSpeed_mps ?? 0).toBeGreaterThan(stabilityTriangle({ ...still, turnRadius_m: 3 }).tipSpeed_mps ?? 0)
  })
  it('turns about a point on the front axle’s line; sharper steering needs a narrower aisle for the tail', () => {
    const t = {
      wheelbase_m: 1.6,
      halfWidth_m: 0.55,
      tailOverhang_m: 0.4,
      load: { faceAhead_m: 0.4, length_m: 1, width_m: 0.8 },
      clearance_m: 0.2,
    }
    const a = tailSwing({ ...t, steer_deg: 45 })
    expect(a.turnCentre_m).toBeCloseTo(1.6, 12)
    expect(a.tailRadius_m).toBeCloseTo(Math.hypot(2, 2.15), 12)
    expect(tailSwing({ ...t, steer_deg: 75 }).tailRadius_m).toBeLessThan(a.tailRadius_m)
  })
})

describe('wind and swing', () => {
  it('force grows with the square of the wind; half of ρ·v² on a square metre', () => {
    expect(windForce_N(10, 1, 1)).toBeCloseTo(62.5, 12)
    fc.assert(
      fc.property(between(0, 40), (v) => {
        expect(windForce_N(2 * v, 1.2, 3)).toBeCloseTo(4 * windForce_N(v, 1.2, 3), 6)
      }),
    )
  })
  it('a gust at ten metres is 1.4 times the mean, lower down no less, higher up more', () => {
    expect(gustAtHeight_mps(10, 10)).toBeCloseTo(14, 12)
    expect(gustAtHeight_mps(10, 2)).toBeCloseTo(14, 12)
    expect(gustAtHeight_mps(10, 60)).toBeGreaterThan(14)
    expect(run('wind-at-height', { speed_mps: 11, height_m: 60, read: 'gust-at-tip' })).toMatchObject({ gust_mps: 11, factor: 1 })
  })
  it('the drift given is never less than a rope at that angle has', () => {
    const w = windLoad({ speed_mps: 12, sailArea_m2: 8, dragCoefficient: 1.2, mass_kg: 900, ropeLength_m: 10 })
    expect(w.drift_m).toBeGreaterThanOrEqual(10 * Math.sin(w.angle_deg * rad))
  })
  it('forces and speeds of the Beaufort scale give each other back, by the upper end', () => {
    for (let force = 0; force < 12; force++) {
      const step = beaufort(force)
      expect(run('beaufort', { speed_mps: step.to_mps })).toMatchObject({ force })
      expect(beaufort(force + 1).from_mps).toBe(step.to_mps)
    }
    expect(run('beaufort', { speed_mps: 80 })).toMatchObject({ force: 12, to_mps: null })
    expect(run('beaufort', {}).error?.code).toBe('force-or-speed')
  })
  it('a pendulum of a quarter of the length swings twice as fast; a wide swing is slower', () => {
    expect(swingPeriod_s(3)).toBeCloseTo(swingPeriod_s(12) / 2, 12)
    expect(swingPeriod_s(12, 30)).toBeGreaterThan(swingPeriod_s(12))
  })
  it('a ramp of one period leaves nothing, of half a period the most', () => {
    const left = (share: number) =>
      swing({ ropeLength_m: 10, ramp: { acceleration_mps2: 0.3, time_s: share * swingPeriod_s(10) } })
    expect(left(1).residualAmplitude_deg).toBeCloseTo(0, 9)
    expect(left(0.5).residualAmplitude_deg).toBeCloseTo((2 * (0.3 / g_mps2)) / rad, 9)
    fc.assert(fc.property(between(0, 3), (s) => left(s).peakAngle_deg >= left(s).residualAmplitude_deg - 1e-12))
  })
})

describe('wear', () => {
  it('discards at the limit, watches from seven tenths of it', () => {
    const heel = (measured: number) => wear({ kind: 'fork-heel', nominal: 50, measured }).verdict
    expect([heel(50), heel(46.6), heel(46), heel(45.001), heel(45)]).toEqual(['ok', 'ok', 'watch', 'watch', 'discard'])
  })
  it('takes the lesser of five per cent and six millimetres for a throat, and the maker’s limit over both', () => {
    expect(wear({ kind: 'hook-throat', nominal: 200, measured: 206.1 }).verdict).toBe('discard')
    expect(wear({ kind: 'hook-throat', nominal: 60, measured: 63.1 }).verdict).toBe('discard')
    expect(wear({ kind: 'hook-throat', nominal: 60, measured: 63.1, makerLimit: 0.08 }).verdict).not.toBe('discard')
  })
  it('never gets better as a part wears on', () => {
    const rank = { ok: 0, watch: 1, discard: 2 }
    fc.assert(
      fc.property(between(60, 100), between(0, 10), (at, more) => {
        const v = (m: number) => rank[wear({ kind: 'rope-steel-core', nominal: 100, measured: m }).verdict]
        expect(v(Math.max(76, at - more))).toBeGreaterThanOrEqual(v(Math.max(76, at)))
      }),
    )
  })
  it('asks for what only the maker can say', () => {
    expect(run('wear', { kind: 'tyre-tread', measured: 4 }).error?.path).toBe('makerLimit')
    expect(run('wear', { kind: 'fork-heel', measured: 4 }).error?.path).toBe('nominal')
  })
  it('of readings on a straight line meets the limit on the day it must, and says when there are too few', () => {
    const day = (n: number) => new Date(Date.UTC(2026, 0, 1 + n)).toISOString().slice(0, 10)
    const readings = [0, 10, 20, 30].map((n) => ({ date: day(n), value: 50 - 0.05 * n }))
    const t = wearTrend({ readings, limit: 45 })
    expect(t.perDay).toBeCloseTo(-0.05, 9)
    expect(t.reaches).toBe(day(100))
    expect(t.earliest).toBe(t.latest)
    expect(wearTrend({ readings: readings.slice(0, 2), limit: 45 })).toMatchObject({ enough: false, reaches: null })
    expect(wearTrend({ readings: readings.map((r) => ({ ...r, value: 50 })), limit: 45 }).reaches).toBeNull()
  })
  it('of scattered readings puts the line’s day inside its band', () => {
    const day = (n: number) => new Date(Date.UTC(2026, 0, 1 + n)).toISOString().slice(0, 10)
    fc.assert(
      fc.property(fc.array(between(-0.2, 0.2), { minLength: 5, maxLength: 9 }), (noise) => {
        const t = wearTrend({ readings: noise.map((e, i) => ({ date: day(i * 12), value: 50 - i * 0.6 + e })), limit: 40 })
        if (t.reaches && t.earliest) expect(t.earliest <= t.reaches).toBe(true)
        if (t.reaches && t.latest) expect(t.latest >= t.reaches).toBe(true)
      }),
    )
  })
})

describe('clearance', () => {
  const wall = (x: number) => ({
    kind: 'prism',
    id: 'wall',
    points: [
      [x, -20],
      [x + 1, -20],
      [x + 1, 20],
      [x, 20],
    ].map(([x_m, y_m]) => ({ x_m, y_m })),
    from_m: 0,
    to_m: 50,
  })
  const bodies = { boom: { pivot: { back_m: 0, height_m: 2 }, halfWidth_m: 0.5 } }
  it('of a boom slewing past a wall is the distance when it points at it', () => {
    fc.assert(
      fc.property(between(11, 20), between(20, 60), between(10, 60), (x, angle_deg, half) => {
        const path = [-half, half * 0.73].map((slew_deg) => ({ slew_deg, boom_m: 12, angle_deg, drop_m: 2 }))
        const c = run('clearance', { bodies, path, obstacles: [wall(x)] }) as unknown as {
          least_m: number
          at: { slew_deg: number }
        }
        const exact = Math.max(0, x - 12 * Math.cos(angle_deg * rad) - 0.5)
        expect(c.least_m).toBeLessThanOrEqual(exact + 1e-6)
        expect(c.least_m).toBeGreaterThanOrEqual(exact - 0.0101)
      }),
      { numRuns: 30 },
    )
  })
  it('lets nothing slip between: a thin mast in the middle of a long slew is struck', () => {
    const mast = {
      kind: 'cylinder',
      id: 'mast',
      x_m: 8 * Math.cos(0.3),
      y_m: 8 * Math.sin(0.3),
      radius_m: 0.02,
      from_m: 0,
      to_m: 30,
    }
    const path = [-170, 170].map((slew_deg) => ({ slew_deg, boom_m: 12, angle_deg: 30, drop_m: 2 }))
    expect(run('clearance', { bodies, path, obstacles: [mast] })).toMatchObject({ least_m: 0, obstacle: 'mast', body: 'boom' })
  })
  it('measures to a ceiling from the boom head', () => {
    const ceiling = { kind: 'plane', id: 'ceiling', normal: { x: 0, y: 0, z: 1 }, offset_m: 20 }
    const path = [{ slew_deg: 0, boom_m: 12, angle_deg: 60, drop_m: 1 }]
    const c = run('clearance', { bodies, path, obstacles: [ceiling] }) as unknown as { least_m: number }
    expect(c.least_m).toBeCloseTo(20 - 2 - 12 * Math.sin(60 * rad) - 0.5, 9)
  })
})
