import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  assess,
  axleLoads,
  backwardStability,
  boomRaising,
  calculatorNamed,
  capacityMap,
  edgeSetback,
  g_mps2,
  groundPressure,
  groundUse,
  hookTravel,
  levelling,
  loadMass,
  Refusal,
  rad,
  reactionEnvelope,
  slingTension,
  studentT95,
  supportReactions,
  swing,
  thrownOut_m,
  wear,
  wearTrend,
  winchPull,
} from '../src'
import { openField, tern, ternLift, ternSetup, ternTable } from './demo'

const between = (min: number, max: number) => fc.double({ min, max, noNaN: true })
// biome-ignore lint/suspicious/noExplicitAny: answers are looked into, not typed, in tests
const run = (name: string, input: unknown) => calculatorNamed(name)?.run(input) as any
const example = (name: string) => structuredClone(calculatorNamed(name)?.example) as Record<string, never>

const rectangle = (front: number, rear: number, half: number) => [
  { id: 'FL', x_m: front, y_m: half },
  { id: 'FR', x_m: front, y_m: -half },
  { id: 'RR', x_m: -rear, y_m: -half },
  { id: 'RL', x_m: -rear, y_m: half },
]

describe('round the circle', () => {
  const turning = fc.record({
    front: between(1.5, 4),
    rear: between(1.5, 4),
    half: between(1.5, 4),
    load: between(500, 9000),
    radius: between(3, 12),
    back: between(500, 9000),
    from: between(0, 360),
    width: between(1, 360),
    step: fc.constantFrom(undefined, 0.7, 5, 45, 90),
  })
  it('no finer look finds more load, less load or less margin than the envelope says, whatever step is asked for', () => {
    fc.assert(
      fc.property(turning, (t) => {
        const supports = rectangle(t.front, t.rear, t.half)
        const masses = [{ mass_kg: 26_000, x_m: 0.2, y_m: 0.1 }]
        const slewing = [
          { mass_kg: t.load, radius_m: t.radius },
          { mass_kg: t.back, radius_m: -2.6 },
        ]
        const e = reactionEnvelope({
          supports,
          masses,
          slewing,
          from_deg: t.from,
          to_deg: (t.from + t.width) % 360,
          step_deg: t.step,
        })
        for (let i = 0; i <= 250; i++) {
          const deg = t.from + (t.width * i) / 250
          const at = (r: number) => ({ x_m: r * Math.cos(deg * rad), y_m: r * Math.sin(deg * rad) })
          const r = supportReactions({
            supports,
            masses: [...masses, ...slewing.map((s) => ({ mass_kg: s.mass_kg, ...at(s.radius_m) }))],
          })
          expect(r.margin_m).toBeGreaterThanOrEqual(e.margin.least_m - 1e-9)
          const inArc = (a: { from_deg: number; to_deg: number }) => deg >= a.from_deg - 1e-6 && deg <= a.to_deg + 1e-6
          if (!r.stable) expect(e.unstable.some(inArc), `falls at ${deg}`).toBe(true)
          r.reactions?.forEach((outrigger, k) => {
            expect(outrigger.reaction_N).toBeLessThanOrEqual((e.supports[k]?.max_N ?? 0) * (1 + 1e-9) + 1e-6)
            expect(outrigger.upper_N).toBeLessThanOrEqual((e.supports[k]?.upper_N ?? 0) * (1 + 1e-9) + 1e-6)
            expect(outrigger.reaction_N).toBeGreaterThanOrEqual((e.supports[k]?.min_N ?? 0) * (1 - 1e-9) - 1e-3)
            if (outrigger.reaction_N === 0)
              expect(
                e.lifted.some((l) => l.id === outrigger.id && inArc(l)),
                `${outrigger.id} up at ${deg}`,
              ).toBe(true)
          })
        }
      }),
      { numRuns: 40 },
    )
  })
  it('350 to 10 is twenty degrees, 0 to 360 all of it, equal angles a point', () => {
    const at = (from_deg: number, to_deg: number) =>
      reactionEnvelope({
        supports: rectangle(3, 3, 3),
        masses: [{ mass_kg: 30_000, x_m: 0, y_m: 0 }],
        slewing: [{ mass_kg: 5000, radius_m: 6 }],
        from_deg,
        to_deg,
      })
    const [a, b] = [at(350, 10), at(-10, 10)]
    a.supports.forEach((s, i) => {
      expect(s.max_N).toBeCloseTo(b.supports[i]?.max_N ?? 0, 3)
    })
    expect(at(10, 350).margin.least_m).toBeCloseTo(at(0, 360).margin.least_m, 6)
    expect(at(30, 30).supports[0]?.max_N).toBe(at(30, 30).supports[0]?.min_N)
  })
})

describe('raising a boom', () => {
  it('is judged over the whole way from where it lies: one angle below level needs what level needs', () => {
    const e = example('boom-raising')
    expect(run('boom-raising', { ...e, angles_deg: [-10] }).counterweightNeeded_kg).toBeCloseTo(8238, 0)
    expect(run('boom-raising', e).counterweightNeeded_kg).toBeCloseTo(8238, 0)
  })
  it('no angle on the way has less margin or more pull than is said, and it stands only with the margin kept', () => {
    fc.assert(
      fc.property(between(-10, 40), between(1, 45), between(10_000, 60_000), between(0, 0.8), (from, by, cw, keep) => {
        const input = { ...(example('boom-raising') as unknown as Parameters<typeof boomRaising>[0]), keepMargin_m: keep }
        const all = { ...input, counterweight: { mass_kg: cw, x_m: -4.6 }, angles_deg: [from, from + by] }
        const r = boomRaising(all)
        const steps = boomRaising({ ...all, angles_deg: Array.from({ length: 200 }, (_, i) => from + (by * i) / 199) })
        for (const a of steps.angles) {
          expect(a.frontMargin_m).toBeGreaterThanOrEqual(r.leastFrontMargin_m - 1e-6)
          expect(a.backMargin_m).toBeGreaterThanOrEqual(r.leastBackMargin_m - 1e-6)
          expect(a.pendant_N).toBeLessThanOrEqual(r.greatestPendant_N * (1 + 1e-6))
          if (a.frontMargin_m < keep - 1e-6) expect(r.stands).toBe(false)
        }
        // With exactly what is needed the margin is exactly kept.
        if (r.counterweightNeeded_kg > 0) {
          const just = boomRaising({ ...all, counterweight: { mass_kg: r.counterweightNeeded_kg, x_m: -4.6 } })
          expect(just.leastFrontMargin_m).toBeCloseTo(keep, 5)
        }
      }),
      { numRuns: 60 },
    )
  })
  it('refuses a counterweight that stands on the line it should hold', () => {
    const e = example('boom-raising') as unknown as { counterweight: object }
    for (const x_m of [2.8, 2.7999999, 3])
      expect(run('boom-raising', { ...e, counterweight: { ...e.counterweight, x_m } }).error.code).toBe('counterweight-ahead')
  })
  it('the pendant’s arm is the distance of its line from the boom foot', () => {
    fc.assert(
      fc.property(between(0, 70), between(20, 50), between(-8, -3), between(8, 14), (angle, at_m, mast_x_m, mast_height_m) => {
        const input = example('boom-raising') as unknown as Parameters<typeof boomRaising>[0]
        const foot = { x_m: 1.2, height_m: 1.8 }
        const r = boomRaising({ ...input, foot, pendant: { at_m, mast_x_m, mast_height_m }, angles_deg: [angle] }).angles[0]
        const p = [foot.x_m + at_m * Math.cos(angle * rad), foot.height_m + at_m * Math.sin(angle * rad)] as const
        const twice = Math.abs(
          (p[0] - mast_x_m) * (mast_height_m - foot.height_m) - (mast_x_m - foot.x_m) * (p[1] - mast_height_m),
        )
        const area2 = Math.abs((mast_x_m - p[0]) * (foot.height_m - p[1]) - (foot.x_m - p[0]) * (mast_height_m - p[1]))
        expect(twice).toBeGreaterThan(0)
        expect(r?.pendantArm_m).toBeCloseTo(area2 / Math.hypot(p[0] - mast_x_m, p[1] - mast_height_m), 9)
        const boom = input.boom.reduce((s, m) => s + m.mass_kg * g_mps2 * m.at_m * Math.cos(angle * rad), 0)
        expect((r?.pendant_N ?? 0) * (r?.pendantArm_m ?? 0)).toBeCloseTo(boom, 3)
      }),
    )
  })
})

describe('backwards', () => {
  const machine = { supports: rectangle(2.4, 2.6, 2.2), masses: [{ mass_kg: 20_000, x_m: 0, y_m: 0 }] }
  it('keeps on the end under the boom what moments about the far end say', () => {
    fc.assert(
      fc.property(between(2000, 14_000), between(1, 3.5), (cw, back) => {
        const b = backwardStability({ ...machine, slewing: [{ mass_kg: cw, radius_m: -back }], crawler: false })
        const all = 20_000 + cw
        // Boom over the front, the rear, a side: the weight's distance from the far edge over the depth.
        const ends = [(2.6 - (cw * back) / all) / 5, (2.4 - (cw * back) / all) / 5, (2.2 - (cw * back) / all) / 4.4]
        expect(b.underBoomShare).toBeLessThanOrEqual(Math.min(...ends) + 1e-9)
        expect(b.ok).toBe(b.stable && b.underBoomShare >= 0.15 - 1e-12)
        const eased = backwardStability({
          ...machine,
          slewing: [{ mass_kg: cw, radius_m: -back }],
          crawler: false,
          notRated: [{ from_deg: 0, to_deg: 359.999 }],
        })
        expect(eased.ok).toBe(eased.stable && eased.underBoomShare >= 0.1 - 1e-12)
      }),
      { numRuns: 60 },
    )
  })
  it('wind from the front never betters it, and counts for crawlers, too', () => {
    fc.assert(
      fc.property(between(0, 20_000), fc.boolean(), (wind_N, crawler) => {
        const base = { ...machine, slewing: [{ mass_kg: 6000, radius_m: -2.5 }], crawler }
        const calm = backwardStability(base)
        const blown = backwardStability({ ...base, wind_N, windHeight_m: 10 })
        expect(blown.least_m).toBeLessThanOrEqual(calm.least_m + 1e-9)
        expect(blown.underBoomShare).toBeLessThanOrEqual(calm.underBoomShare + 1e-9)
        expect(blown.backwardShare).toBeGreaterThanOrEqual(calm.backwardShare - 1e-9)
      }),
      { numRuns: 40 },
    )
  })
})

describe('wear', () => {
  it('discards at the limit, not beyond it, and never for nothing at all', () => {
    const at = (kind: Parameters<typeof wear>[0]['kind'], measured: number, o: object = {}) =>
      wear({ kind, measured, ...o }).verdict
    expect(at('broken-wires-6d', 4, { makerLimit: 4 })).toBe('discard')
    expect(at('broken-wires-6d', 3, { makerLimit: 4 })).toBe('watch')
    expect(at('fork-angle', 93)).toBe('discard')
    expect(at('fork-tips', 36, { nominal: 1200 })).toBe('discard')
    expect(at('hook-twist', 10)).toBe('discard')
    expect(at('tyre-tread', 2, { makerLimit: 2 })).toBe('discard')
    expect(at('battery-play', 12, { makerLimit: 12 })).toBe('discard')
    expect(at('wheel-studs', 0)).toBe('ok')
    expect(at('wheel-studs', 1)).toBe('discard')
  })
  it('asks about a chain that came shorter or a rope that came thicker, and about a tyre at both ends', () => {
    for (const [kind, nominal, measured] of [
      ['hoist-chain', 300, 296],
      ['rope-steel-core', 16, 16.4],
      ['fork-heel', 45, 45.5],
    ] as const) {
      const w = wear({ kind, nominal, measured })
      expect(w.verdict).toBe('watch')
      expect(w.query).toMatch(/measure again/)
    }
    expect(wear({ kind: 'hoist-chain', nominal: 300, measured: 301 }).query).toBeNull()
    for (const [measured, verdict] of [
      [800, 'ok'],
      [720, 'discard'],
      [880, 'discard'],
      [865, 'watch'],
    ] as const)
      expect(wear({ kind: 'tyre-pressure', nominal: 800, measured }).verdict).toBe(verdict)
  })
  it('holds the six millimetres of a hook whatever unit it was measured in', () => {
    fc.assert(
      fc.property(between(125, 400), between(0, 12), fc.constantFrom('mm', 'cm', 'm', 'in' as const), (nominal, grown, unit) => {
        const per = { mm: 1, cm: 10, m: 1000, in: 25.4 }[unit]
        const w = wear({ kind: 'hook-throat', nominal: nominal / per, measured: (nominal + grown) / per, unit })
        if (Math.abs(grown - 6) > 1e-6) expect(w.verdict === 'discard').toBe(grown > 6)
      }),
    )
    expect(() => wear({ kind: 'hook-throat', nominal: 0.2, measured: 0.206 })).toThrow(/millimetres/)
    expect(() => wear({ kind: 'fork-angle', measured: 91, unit: 'mm' })).toThrow(Refusal)
  })
})

describe('wear-trend', () => {
  const readings = (values: readonly number[], gap = 30) =>
    values.map((value, i) => ({ value, date: new Date(Date.UTC(2026, 0, 1 + i * gap)).toISOString().slice(0, 10) }))
  it('a limit that is passed reads as passed, on the last reading’s day, also when every reading is beyond it', () => {
    for (const values of [
      [42, 41, 40],
      [40, 39.5, 39],
      [40.2, 40.1, 39.9],
    ]) {
      const t = wearTrend({ readings: readings(values), limit: 40.5, direction: 'falling' })
      expect(t.passed).toBe(true)
      expect(t.reaches).toBe(readings(values)[2]?.date)
    }
    // Nobody said which way it goes: the readings have to show it clearly, or nothing is foretold.
    expect(wearTrend({ readings: readings([40, 39.5, 39]), limit: 40.5 }).passed).toBe(true)
    expect(wearTrend({ readings: readings([44, 44.3, 44.1]), limit: 40.5 })).toMatchObject({ passed: false, reaches: null })
    expect(wearTrend({ readings: readings([42, 41, 40]), limit: 40.5 }).passed).toBe(true)
    expect(wearTrend({ readings: readings([10]), limit: 8, direction: 'rising' }).passed).toBe(true)
  })
  it('looks ten years ahead, no less', () => {
    fc.assert(
      fc.property(between(100, 3600), (days) => {
        // Falls from 100 to nothing in so many days after the last reading.
        const slope = -100 / (days + 60)
        const t = wearTrend({ readings: readings([100, 100 + 30 * slope, 100 + 60 * slope]), limit: 0, direction: 'falling' })
        const ahead = (Date.parse(t.reaches ?? '') - Date.parse('2026-03-02')) / 86_400_000
        expect(Math.abs(ahead - days)).toBeLessThanOrEqual(1)
      }),
    )
    const never = wearTrend({ readings: readings([100, 99.99, 99.98]), limit: 0, direction: 'falling' })
    expect([never.passed, never.reaches]).toEqual([false, null])
  })
  it('takes Student’s t for its band', () => {
    for (const [freedom, t] of [
      [1, 12.7062],
      [2, 4.3027],
      [3, 3.1824],
      [5, 2.5706],
      [10, 2.2281],
      [30, 2.0423],
      [200, 1.9719],
    ] as const)
      expect(studentT95(freedom)).toBeCloseTo(t, 4)
  })
})

describe('pull, hang and weigh', () => {
  it('an anchor holds what the winch does not, never less than the two parts over one block', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 8 }), between(0.9, 1), between(0, 40), (parts, sheaveEfficiency, slope_deg) => {
        const base = { mass_kg: 9000, slope_deg, resistance_share: 0.2, parts, sheaveEfficiency }
        const w = winchPull(base)
        if (parts > 1) expect(w.anchor_N).toBeGreaterThanOrEqual(Math.max(w.pull_N - w.line_N, 2 * w.line_N) - 1e-6)
        expect(winchPull({ ...base, selfRecovery: true }).anchor_N).toBe(w.pull_N)
      }),
    )
  })
  it('no leg of four is said to carry less than any three of them would put on it', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(between(0.3, 2), between(-20, 20)), { minLength: 4, maxLength: 4 }),
        between(0, 0.6),
        (arms, up) => {
          const hook = { x_m: 0, y_m: 0, z_m: 4.5 }
          const lifts = arms.map(([r, off], i) => ({
            id: `${i}`,
            x_m: r * Math.cos((i * 90 + 45 + off) * rad),
            y_m: r * Math.sin((i * 90 + 45 + off) * rad),
            z_m: i === 0 ? up : 0,
          }))
          const at = (rule: 'two' | 'three') => {
            try {
              return slingTension({ mass_kg: 2000, hook, lifts, rule, limit_N: null }).legs
            } catch (e) {
              if (e instanceof Refusal) return null
              throw e
            }
          }
          const [two, three] = [at('two'), at('three')]
          three?.forEach((l, i) => {
            expect(two?.[i]?.tension_N ?? 0).toBeGreaterThanOrEqual(l.tension_N - 1e-6)
          })
        },
      ),
    )
  })
  it('refuses a load that can turn over, and says when its height was not given', () => {
    const e = example('sling-tension') as unknown as { cg: object }
    expect(run('sling-tension', { ...e, cg: { ...e.cg, z_m: 1 } }).error.code).toBe('top-heavy')
    expect(run('sling-tension', e).notChecked).toEqual(['centre-of-gravity-height'])
    expect(run('sling-tension', { ...e, cg: { ...e.cg, z_m: 0.5 } }).notChecked).toEqual([])
    expect(run('sling-tension', { ...e, hitch: 'basket' }).error.path).toBe('basketAngle_deg')
  })
  it('a tank’s shell stands in its own middle, its water below', () => {
    fc.assert(
      fc.property(between(0, 1), between(50, 900), (filled_share, empty_kg) => {
        const size = { length_m: 2, width_m: 1.5, height_m: 1.2 }
        const content = filled_share === 0 ? {} : { material: 'water' as const }
        const at = { x_m: 0, y_m: 0, z_m: 0.6 }
        const r = loadMass({ parts: [{ shape: 'tank', ...size, empty_kg, filled_share, ...content, at }] })
        const water = 2 * 1.5 * 1.2 * filled_share * 1000
        expect(r.cg.z_m).toBeCloseTo((empty_kg * 0.6 + (water * 1.2 * filled_share) / 2) / (empty_kg + water), 9)
      }),
    )
  })
  it('sums the faces of parts that stand apart along the wind, and not of those that touch', () => {
    const box = (x_m: number) => ({
      shape: 'box' as const,
      length_m: 1,
      width_m: 2,
      height_m: 1,
      mass_kg: 100,
      at: { x_m, y_m: 0, z_m: 0 },
    })
    expect(loadMass({ parts: [box(0), box(5)] }).sailArea_m2.x).toBeCloseTo(4, 12)
    expect(loadMass({ parts: [box(0), box(1)] }).sailArea_m2.x).toBeCloseTo(2, 12)
    expect(loadMass({ parts: [box(0), box(5)] }).sailArea_m2.y).toBeCloseTo(2, 12)
  })
})

describe('trucks', () => {
  const truck = { mass_kg: 4200, cgBehindFront_m: 1, wheelbase_m: 1.6 }
  it('tip over nose, tail and side exactly where the moments say', () => {
    fc.assert(
      fc.property(between(0, 9000), between(-0.5, 1.5), between(0, 0.6), (mass_kg, aheadOfFront_m, offset_m) => {
        const a = axleLoads({
          truck,
          load: { mass_kg, aheadOfFront_m, offset_m },
          frontWheels: 2,
          rearWheels: 2,
          frontTrack_m: 1,
        })
        const all = 4200 + mass_kg
        const behind = (4200 - mass_kg * aheadOfFront_m) / all
        const beside = (mass_kg * offset_m) / all
        // A triangle from the front wheels to the middle of the rear axle.
        const inside = behind > 0 && behind < 1.6 && beside < 0.5 * (1 - behind / 1.6)
        if (Math.abs(behind) > 1e-9 && Math.abs(beside - 0.5 * (1 - behind / 1.6)) > 1e-9) expect(a.tips).toBe(!inside)
        expect(a.front_N).toBeGreaterThanOrEqual(0)
        expect(a.rear_N).toBeGreaterThanOrEqual(0)
        expect(a.worstWheel_N).toBe(Math.max(a.frontWheel_N, a.rearWheel_N))
      }),
    )
  })
  it('three wheels: the single one carries its whole axle', () => {
    const a = axleLoads({ truck, load: { mass_kg: 0, aheadOfFront_m: 1 }, frontWheels: 2, rearWheels: 1, dynamicFactor: 1 })
    expect(a.rearWheel_N).toBeCloseTo(a.rear_N, 9)
    expect(run('axle-loads', { ...example('axle-loads'), frontWheels: 1, rearWheels: 1 }).error.code).toBe('too-few-wheels')
  })
})

describe('thrown out', () => {
  it('stands where tan φ = ω²(r + L·sin φ)/g, further than L·r·ω²/g says', () => {
    fc.assert(
      fc.property(between(1, 40), between(1, 30), between(0.1, 40), (L, r, rate) => {
        const out = thrownOut_m(L, r, rate)
        const s = out / L
        const w2 = (rate * rad) ** 2
        expect(s / Math.sqrt(1 - s * s)).toBeCloseTo((w2 * (r + out)) / g_mps2, 5)
        const t = swing({ ropeLength_m: L, startAmplitude_deg: 2, slew: { radius_m: r, rate_deg_s: rate } })
        expect(t.extraRadius_m).toBeCloseTo(2 * out + L * Math.sin(2 * rad), 9)
      }),
    )
    expect(run('swing', { ropeLength_m: 5, startAmplitude_deg: 90 }).error.path).toBe('startAmplitude_deg')
  })
  it('block to head is said, and how much gap is left', () => {
    const h = { parts: 2, lineOut_m: 0, gap_m: 1, boomAngle_deg: 40 }
    expect(hookTravel({ ...h, boomExtension_m: 2.5 })).toMatchObject({ twoBlocks: true, gapLeft_m: 0 })
    expect(hookTravel({ ...h, boomExtension_m: 1 })).toMatchObject({ twoBlocks: false, gapLeft_m: 0.5 })
  })
})

describe('ground', () => {
  const on = (side: number, o: object = {}) =>
    groundPressure({ reaction_N: 50_000, pad: { length_m: side, width_m: side }, soil: 'sand-dense', ...o })
  it('presumes in proportion less under less than a metre, and nothing with water standing high', () => {
    expect(on(0.5).allowable_kPa).toBe(150)
    expect(on(1).allowable_kPa).toBe(300)
    expect(on(2).allowable_kPa).toBe(300)
    expect(on(2, { water: 'high' })).toMatchObject({ allowable_kPa: null, utilisation: null })
    expect(on(0.5, { water: 'high', allowable_kPa: 120 }).allowable_kPa).toBe(120)
  })
  it('the side that is asked for carries the load exactly', () => {
    fc.assert(
      fc.property(
        between(5_000, 600_000),
        fc.constantFrom('sand-dense', 'clay-firm', 'gravel-loose' as const),
        (reaction_N, soil) => {
          const side = groundPressure({ reaction_N, pad: { length_m: 0.4, width_m: 0.4 }, soil }).requiredSide_m ?? 0
          expect(groundPressure({ reaction_N, pad: { length_m: side, width_m: side }, soil }).utilisation).toBeCloseTo(1, 9)
        },
      ),
    )
  })
  it('says which of shear and layer it could not check, and takes a layer’s own bearing', () => {
    const mat = { length_m: 1.5, width_m: 1.5, thickness_m: 0.1, allowableBending_MPa: 12, spreads: 'two-way' as const }
    expect(on(0.5, { mat }).notChecked).toEqual(['mat-shear'])
    expect(on(0.5, { layer: { thickness_m: 0.3, spreadFromVertical_deg: 30 } }).notChecked).toEqual(['layer-bearing'])
    const weak = on(0.5, { allowable_kPa: 300, layer: { thickness_m: 2, spreadFromVertical_deg: 45, allowable_kPa: 100 } })
    expect(weak.utilisation).toBeCloseTo(200 / 100, 9)
  })
  it('as a function of the reaction it is the same, mat, layer and soil by name included', () => {
    fc.assert(
      fc.property(between(1000, 500_000), fc.boolean(), fc.boolean(), (reaction_N, matted, layered) => {
        const input = {
          pad: { length_m: 0.5, width_m: 0.5 },
          soil: 'gravel-dense' as const,
          ...(matted
            ? {
                mat: {
                  length_m: 1.2,
                  width_m: 1,
                  thickness_m: 0.08,
                  allowableBending_MPa: 10,
                  mass_kg: 90,
                  spreads: 'one-way' as const,
                },
              }
            : {}),
          ...(layered ? { layer: { thickness_m: 0.2, spreadFromVertical_deg: 30, allowable_kPa: 400 } } : {}),
        }
        expect(groundUse(input)?.(reaction_N)).toBeCloseTo(groundPressure({ ...input, reaction_N }).utilisation as number, 9)
      }),
    )
  })
  it('keeps off the crest as well as the toe, and sends a heavy leg beside a slope to an engineer', () => {
    const far = { padEdgeToToe_m: 6, depth_m: 2, soil: 'firm' as const }
    expect(edgeSetback({ ...far, padEdgeToCrest_m: 0.5 })).toMatchObject({ ok: false, short_m: 0.5 })
    expect(edgeSetback({ ...far, padEdgeToCrest_m: 1.2, padWidth_m: 1.5 })).toMatchObject({ ok: false, crestRequired_m: 1.5 })
    expect(edgeSetback({ ...far, padEdgeToCrest_m: 1.5, reaction_N: 900_000 })).toMatchObject({ ok: true, engineer: false })
    expect(edgeSetback({ ...far, padEdgeToToe_m: 3, reaction_N: 900_000 })).toMatchObject({ ok: null, engineer: true })
  })
})

describe('levelling by the least movement', () => {
  it('is what trying every height finds, with no jack below its end', () => {
    const jack = fc.record({ stroke: between(0, 0.3) })
    fc.assert(
      fc.property(
        fc.array(jack, { minLength: 4, maxLength: 4 }),
        between(-2, 2),
        between(-2, 2),
        (jacks, pitch_deg, roll_deg) => {
          const supports = rectangle(2.5, 2.5, 2.2).map((s, i) => ({
            ...s,
            stroke_m: jacks[i]?.stroke ?? 0,
            min_m: 0,
            max_m: 0.9,
          }))
          const l = levelling({ supports, pitch_deg, roll_deg, strategy: 'least-movement' })
          expect(l.feasible).toBe(true)
          const heights = supports.map((s) => s.x_m * Math.sin(pitch_deg * rad) + s.y_m * Math.sin(roll_deg * rad))
          let best = Infinity
          for (let c = -0.5; c < 1.2; c += 0.0005) {
            const rises = heights.map((h) => c - h)
            if (rises.some((r, i) => (supports[i]?.stroke_m ?? 0) + r < -1e-9)) continue
            best = Math.min(best, Math.max(...rises.map(Math.abs)))
          }
          const most = Math.max(...l.jacks.map((j) => Math.abs(j.change_m + j.packing_m)))
          expect(most).toBeLessThanOrEqual(best + 6e-4)
          l.jacks.forEach((j, i) => {
            expect((supports[i]?.stroke_m ?? 0) + j.change_m).toBeGreaterThanOrEqual(-1e-9)
          })
        },
      ),
      { numRuns: 40 },
    )
  })
})

describe('masses on the boom', () => {
  const setup = ternSetup()
  const lift = ternLift()
  const conditions = { wind_mps: 4 }
  const { policy } = openField
  const at = (rigging: { name: string; mass_kg: number; on: 'boom'; at_m?: number }[]) =>
    assess({
      machine: tern,
      tables: [ternTable],
      setup,
      lift: { ...lift, hung: { ...lift.hung, rigging } },
      conditions,
      place: openField,
      policy,
    })
  it('weigh on tipping, legs and ground, most at the head', () => {
    const [none, middle, head] = [
      at([]),
      at([{ name: 'jib', mass_kg: 600, on: 'boom', at_m: 12 }]),
      at([{ name: 'jib', mass_kg: 600, on: 'boom' }]),
    ]
    const limit = (a: ReturnType<typeof at>) => a.findings.find((f) => f.check === 'overturning')?.limit ?? Infinity
    expect(limit(middle)).toBeLessThan(limit(none))
    expect(limit(head)).toBeLessThan(limit(middle))
    const most = (a: ReturnType<typeof at>) => Math.max(...a.outriggers.map((l) => l.upper_N))
    expect(most(head)).toBeGreaterThan(most(none))
    // At the head it is as if it hung there: what the hook may tip with is less by just its mass.
    expect(limit(none) - limit(head)).toBeCloseTo(0.75 * 600, -1)
  })
})

describe('nothing enormous and nothing by default', () => {
  it('a table that allows nothing gives no share and says why', () => {
    const e = example('chart-reading') as unknown as {
      chart: { configurations: { rows: { ratings_kg: (number | null)[] }[] }[] }
    }
    for (const row of e.chart.configurations[0]?.rows ?? []) row.ratings_kg = row.ratings_kg.map((k) => (k === null ? null : 0))
    expect(run('chart-reading', e)).toMatchObject({ utilisation: null, why: expect.stringContaining('0 kg') })
    const plate = example('truck-rating') as unknown as { plate: { capacity_kg: number }[] }
    for (const row of plate.plate) row.capacity_kg = 0
    expect(run('truck-rating', plate)).toMatchObject({ utilisation: null, why: expect.stringContaining('0 kg') })
  })
  it('what flatters when it is left out is asked for by name', () => {
    const map = example('capacity-map') as unknown as { load: Record<string, unknown> }
    for (const key of ['sailArea_m2', 'dragCoefficient']) {
      const load = { ...map.load }
      delete load[key]
      expect(run('capacity-map', { ...map, load }).error.path).toBe(`load.${key}`)
    }
    for (const key of ['tilt_deg', 'wind_mps']) {
      const left: Record<string, unknown> = { ...map }
      delete left[key]
      expect(run('capacity-map', left).error.path).toBe(key)
    }
    expect(run('load-mass', { parts: [{ shape: 'sphere', diameter_m: 1, material: 'steel' }] }).error.path).toBe('parts.0.at')
    const height: Record<string, unknown> = example('height-rating')
    delete height.sideShift_m
    expect(run('height-rating', height).error.path).toBe('sideShift_m')
  })
  it('one lead sheave unless another number is given', () => {
    const e = example('chart-reading') as unknown as { hoist: object }
    const one = run('chart-reading', { ...e, hoist: { ...e.hoist, leadSheaves: 1, linePull_N: 9000 } })
    expect(run('chart-reading', { ...e, hoist: { ...e.hoist, linePull_N: 9000 } }).net_kg).toBe(one.net_kg)
    expect(run('chart-reading', { ...e, hoist: { ...e.hoist, leadSheaves: 0, linePull_N: 9000 } }).net_kg).toBeGreaterThan(
      one.net_kg,
    )
  })
  it('a rating by sector without a slew is refused, in every reader', () => {
    type Sectored = { table: { configurations: { appliesTo: object }[] } }
    const withSector = (c: { appliesTo: object }) => ({
      ...c,
      appliesTo: { ...c.appliesTo, sector: { from_deg: 200, to_deg: 340 } },
    })
    const stage = example('stage-rating') as unknown as Sectored
    const sectored = structuredClone(stage)
    sectored.table.configurations = sectored.table.configurations.map(withSector)
    expect(run('stage-rating', sectored).error.path).toBe('slew_deg')
    expect(run('stage-rating', { ...sectored, slew_deg: 270 }).allowed_kg).toBeGreaterThan(0)
    expect(run('stage-rating', { ...sectored, slew_deg: 90 }).allowed_kg).toBe('not-rated')
    const folding = example('articulated-rating') as unknown as Sectored
    folding.table.configurations = folding.table.configurations.map(withSector)
    expect(run('articulated-rating', folding).error.path).toBe('slew_deg')
  })
  it('a folding path is read at every row that it crosses, however briefly', () => {
    const e = example('articulated-rating') as unknown as { table: { configurations: { rows: object[] }[] } }
    const rows = (e.table.configurations[0] as { rows: { at: number; ratings_kg: number[] }[] }).rows
    // A thin band, narrower than a sixtieth of the way, in which hardly anything is rated.
    rows.splice(
      2,
      0,
      { at: 3.3, ratings_kg: [940, 890, 790] },
      { at: 3.301, ratings_kg: [10, 10, 10] },
      { at: 3.302, ratings_kg: [930, 880, 780] },
    )
    expect(run('articulated-rating', e).allowed_kg).toBe(10)
  })
  it('a map’s cell that would fall has no figure and says so', () => {
    const e = example('capacity-map') as unknown as { load: object }
    const heavy = run('capacity-map', { ...e, load: { ...e.load, mass_kg: 90_000 } })
    expect(heavy.why).toContain('would-fall')
    heavy.why.forEach((why: string | null, i: number) => {
      expect(heavy.utilisation[i] === null).toBe(why !== null)
    })
    expect(capacityMap).toBeTypeOf('function')
  })
})
