import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  AxisFigures,
  type AxisLimits,
  afterTick,
  atRest,
  axisAt,
  BoomFigures,
  boomTip,
  catchInOne,
  type Drive,
  driveOf,
  energyError_J,
  foldingTip,
  g_mps2,
  hangingStill,
  hingedTip,
  into,
  keptLoad,
  letGo,
  loadOf,
  type Motion,
  type Moving,
  onLever,
  Pendulum,
  pull_N,
  quietTravel,
  type RopeLoad,
  rad,
  type Swinging,
  stillMotion,
  swingAngle_deg,
  swingPeriod_s,
  tick_s,
  ticks_per_s,
  type Wind,
} from '../src'
import { runs } from './runs'

const hung: RopeLoad = { mass_kg: 1500, cA_m2: 0, loss_per_s: 0 }
const still = (rope_m: number, radius_m = 12) => stillMotion({ slew_deg: 0, radius_m, height_m: 40, rope_m })

/** A motion at a time; `of` says in which of its phases: acceleration is constant within a step. */
type Moves = (t: number, of: number) => Motion

/** Every tick of a run, split where a phase ends; energy and work held together: within a millionth of a swing to 45°. */
function run(
  seconds: number,
  motion: Moves,
  start: Swinging,
  {
    load = hung,
    wind = () => [0, 0, 0],
    breaks = [],
    tick = tick_s,
  }: { load?: RopeLoad; wind?: Wind; breaks?: number[]; tick?: number } = {},
) {
  const allowed_J = 1e-6 * load.mass_kg * g_mps2 * motion(0, 0).rope_m * (1 - Math.SQRT1_2)
  const ends = Array.from({ length: Math.floor(seconds / tick + 1e-9) }, (_, i) => (i + 1) * tick)
  const moments = [...ends, ...breaks, seconds].sort((x, y) => x - y).filter((x, i, all) => x - (all[i - 1] ?? 0) > 1e-9)
  const all: { s: Swinging; d: Drive }[] = [{ s: start, d: driveOf(motion(0, 0)) }]
  const s = keptLoad(start)
  let [from_s, of] = [0, 0]
  const pendulum = new Pendulum({ hung: load, driveAt: ({ time_s }) => driveOf(motion(time_s, of)), wind })
  for (const to_s of moments) {
    of = (from_s + to_s) / 2
    pendulum.step(s, to_s - from_s)
    s.time_s = to_s
    all.push({ s: keptLoad(s), d: driveOf(motion(to_s, of)) })
    from_s = to_s
  }
  const [from, to] = [all[0], all.at(-1)]
  if (!from || !to) throw new Error('no run')
  if (tick === tick_s) expect(Math.abs(energyError_J(from, to, load.mass_kg))).toBeLessThan(allowed_J)
  return all
}
/** Place and speed of the load against its tip, along and across a boom at that slew. */
function against({ s, d }: { s: Swinging; d: Drive }, slew_deg: number) {
  const { p, v } = loadOf(s, d)
  const [c, n] = [Math.cos(slew_deg * rad), Math.sin(slew_deg * rad)]
  const turned = (a: readonly number[], b: readonly number[]) => {
    const [x, y] = [(a[0] ?? 0) - (b[0] ?? 0), (a[1] ?? 0) - (b[1] ?? 0)]
    return [x * c + y * n, y * c - x * n] as const
  }
  const [at, speed] = [turned(p, d.tip), turned(v, d.speed)]
  return { along: at[0], across: at[1], alongSpeed: speed[0], acrossSpeed: speed[1] }
}
const left = (x: number, speed: number, rope_m: number) => Math.hypot(x, speed / Math.sqrt(g_mps2 / rope_m))
const offset = (x: { s: Swinging; d: Drive }) => {
  const a = against(x, 0)
  return Math.hypot(a.along, a.across)
}
/** The largest of a smooth run of figures, between its ticks. */
function largest(of: readonly number[]): number {
  const i = of.reduce((best, x, k) => (x > (of[best] ?? 0) ? k : best), 0)
  const [a, b, c] = [of[i - 1], of[i] ?? 0, of[i + 1]]
  if (a === undefined || c === undefined) return b
  const bend = a - 2 * b + c
  return bend === 0 ? b : b - (a - c) ** 2 / (8 * bend)
}
/** A motion that speeds up, goes on and slows down: where it is at a time. */
function trapezium(t: number, of: number, top: number, ramp_s: number, cruise_s: number) {
  const a = top / ramp_s
  if (of <= 0) return { at: 0, speed: 0, acceleration: 0 }
  if (of < ramp_s) return { at: (a * t * t) / 2, speed: a * t, acceleration: a }
  const gone = (top * ramp_s) / 2
  const [u, w] = [t - ramp_s, t - ramp_s - cruise_s]
  if (of - ramp_s - cruise_s < 0) return { at: gone + top * u, speed: top, acceleration: 0 }
  if (of - ramp_s - cruise_s < ramp_s)
    return { at: gone + top * cruise_s + top * w - (a * w * w) / 2, speed: top - a * w, acceleration: -a }
  return { at: 2 * gone + top * cruise_s, speed: 0, acceleration: 0 }
}
const half_s = swingPeriod_s(12) / 2
/** Slewed sixty degrees at four a second; shaped: twice at half height, half a period apart. */
const slewed =
  (shaped: boolean): Moves =>
  (t, of) => {
    const one = trapezium(t, of, shaped ? 2 : 4, 2, 13)
    const two = shaped ? trapezium(t - half_s, of - half_s, 2, 2, 13) : { at: 0, speed: 0, acceleration: 0 }
    return {
      ...still(12, 14),
      slew_deg: one.at + two.at,
      slew_deg_s: one.speed + two.speed,
      slew_deg_s2: one.acceleration + two.acceleration,
    }
  }
const phases = [2, 15, 17]

describe('the swinging load', () => {
  it('hangs still under a tip that does not move, its rope pulling its weight', () => {
    const end = run(5, () => still(10), hangingStill()).at(-1)
    if (end?.s.rope !== 'taut') throw new Error('slack')
    expect(swingAngle_deg(end.s, end.d)).toBeLessThan(1e-9)
    expect(pull_N(end.s, end.d, hung)).toBeCloseTo(hung.mass_kg * g_mps2, 6)
  })
  it('gives its printed figures let go: period, along, and along and across at once', () => {
    const crossings: number[] = []
    const all = run(12, () => still(6), letGo(5, 0))
    for (const [i, x] of all.entries()) {
      const [before, now] = [all[i - 1], against(x, 0)]
      const was = before && against(before, 0)
      if (!before || !was || !(was.along > 0 && now.along <= 0)) continue
      // Where it passes, by the cubic through both ends and their speeds.
      let [low, high] = [0, 1]
      const at = (k: number) =>
        (1 + 2 * k) * (1 - k) ** 2 * was.along +
        k * (1 - k) ** 2 * tick_s * was.alongSpeed +
        k * k * (3 - 2 * k) * now.along +
        k * k * (k - 1) * tick_s * now.alongSpeed
      for (let n = 0; n < 60; n++)
        if (at((low + high) / 2) > 0) low = (low + high) / 2
        else high = (low + high) / 2
      crossings.push(before.s.time_s + low * tick_s)
    }
    expect((crossings[1] ?? 0) - (crossings[0] ?? 0)).toBeCloseTo(4.91701921693, 6)

    const free = against(run(30, () => still(12), letGo(6, 0)).at(-1) as never, 0)
    expect(free.along).toBeCloseTo(-0.48695145, 6)
    expect(free.alongSpeed).toBeCloseTo(-1.045782001, 6)

    const start = letGo(8, 0)
    const round = against(run(20, () => still(10), { ...start, going: [0, 0.06, 0] }).at(-1) as never, 0)
    expect(round.along).toBeCloseTo(0.804416391, 6)
    expect(round.across).toBeCloseTo(0.534388793, 6)
  })
  it('gives its printed figures hoisted, slewed plain and shaped, and luffed', () => {
    const up: Moves = (t, of) => {
      const m = trapezium(t, of, 0.5, 2, 22)
      return { ...still(20), rope_m: 20 - m.at, payOut_mps: -m.speed, payOut_mps2: -m.acceleration }
    }
    const hoisted = against(run(26, up, letGo(3, 0)).at(-1) as never, 0)
    expect(left(hoisted.along, hoisted.alongSpeed, 8)).toBeCloseTo(0.84551933, 6)

    for (const [shaped, seconds, along, across, greatest] of [
      [false, 17, 0.749973, 0.719925, 1.009573],
      [true, 17 + half_s, 0.038646, 0.058478, 0.527093],
    ] as const) {
      const breaks = shaped ? [...phases, ...phases.map((x) => x + half_s), half_s] : phases
      const all = run(seconds, slewed(shaped), hangingStill(), { breaks: breaks.filter((x) => x < seconds) })
      const end = against(all.at(-1) as never, 60)
      expect(left(end.along, end.alongSpeed, 12), `${shaped}`).toBeCloseTo(along, 6)
      expect(left(end.across, end.acrossSpeed, 12), `${shaped}`).toBeCloseTo(across, 6)
      expect(largest(all.map(offset)), `${shaped}`).toBeCloseTo(greatest, 5)
    }

    const boom = new BoomFigures(1.3, 2, 0.35)
    const luff: Moves = (t, of) => {
      const m = trapezium(t, of, 1.2, 1, 4)
      const angle = { at: 60 + m.at, speed: m.speed, acceleration: m.acceleration }
      return { ...still(12), ...boomTip(boom, angle, { at: 24.2, speed: 0, acceleration: 0 }) }
    }
    expect(luff(0, 0).radius_m).toBeCloseTo(11.103109, 6)
    expect(luff(6, 6).radius_m).toBeCloseTo(8.862768, 6)
    const luffed = run(6, luff, hangingStill(), { breaks: [1, 5] })
    const end = against(luffed.at(-1) as never, 0)
    expect(left(end.along, end.alongSpeed, 12)).toBeCloseTo(0.746299, 6)
    expect(largest(luffed.map(offset))).toBeCloseTo(0.6638, 5)
  })
  it('follows the head of a folding boom, every joint moving at once, as its place is worked out and then its speed from that', () => {
    const pivot = { back_m: 0.1, height_m: 2.6 }
    const joint = (least: number, most: number) => {
      const figure = (a: number, b: number) => fc.double({ min: a, max: b, noNaN: true })
      return fc.record({ at: figure(least, most), speed: figure(-5, 5), acceleration: figure(-5, 5) })
    }
    fc.assert(
      fc.property(joint(-10, 80), joint(-165, 0), joint(3, 9), (inner, outer, drawn) => {
        const moved = (m: Moving, t: number): Moving => ({
          at: m.at + m.speed * t + (m.acceleration * t * t) / 2,
          speed: m.speed + m.acceleration * t,
          acceleration: m.acceleration,
        })
        const at = (t: number) =>
          hingedTip(
            { foot: new BoomFigures(0.1, 2.6, 0), inner_m: atRest(2.9), level_deg: atRest(0) },
            moved(inner, t),
            moved(outer, t),
            moved(drawn, t),
          )
        const now = at(0)
        const stands = foldingTip({ inner_m: 2.9, outer_m: drawn.at, pivot }, { angle_deg: inner.at, fold_deg: -outer.at })
        expect(now.radius_m).toBeCloseTo(stands.radius_m, 9)
        expect(now.height_m).toBeCloseTo(stands.height_m, 9)
        const h = 1e-4
        const [before, after] = [at(-h), at(h)]
        for (const [place, speed, change] of [
          ['radius_m', 'radius_mps', 'radius_mps2'],
          ['height_m', 'height_mps', 'height_mps2'],
        ] as const) {
          expect(now[speed]).toBeCloseTo((after[place] - before[place]) / (2 * h), 5)
          expect(now[change]).toBeCloseTo((after[speed] - before[speed]) / (2 * h), 5)
        }
      }),
      { numRuns: runs(2000, 100) },
    )
  })
  it('stands out in a steady wind where its weight holds it', () => {
    const load: RopeLoad = { mass_kg: 1500, cA_m2: 6, loss_per_s: 0.6 }
    const s = run(60, () => still(12), hangingStill(), { load, wind: () => [8, 0, 0] }).at(-1)
    expect(s && swingAngle_deg(s.s, s.d)).toBeCloseTo(0.934724, 5)
    expect(s && against(s, 0).along).toBeCloseTo(0.195759, 5)
  })
  it('errs by the fourth power of its tick', () => {
    const end = (tick: number) => {
      const last = run(17, slewed(false), hangingStill(), { tick }).at(-1)
      if (!last) throw new Error('no run')
      return loadOf(last.s, last.d).p
    }
    const truth = end(1 / 480)
    const off = (tick: number) => Math.hypot(...end(tick).map((x, i) => x - (truth[i] ?? 0)))
    const ratio = off(1 / 15) / off(1 / 30)
    expect(ratio).toBeGreaterThan(12)
    expect(ratio).toBeLessThan(20)
    expect(off(1 / 120)).toBeLessThan(2e-9)
  })
})

describe('a rope', () => {
  it('goes slack when it is paid out faster than the load falls, and loses what it takes when it tightens', () => {
    // Paid out all at once by a metre and a half, then held.
    const until_s = Math.sqrt(1.5 / 12)
    const drop: Moves = (t, of) => ({
      ...still(10),
      rope_m: of < until_s ? 10 + 12 * t * t : 11.5,
      payOut_mps: of < until_s ? 24 * t : 0,
      payOut_mps2: of < until_s ? 24 : 0,
    })
    const all = run(4, drop, letGo(10, 0), { breaks: [until_s] })
    expect(all.some((x) => x.s.rope === 'slack')).toBe(true)
    const last = all.at(-1)
    expect(last?.s.rope).toBe('taut')
    expect(last?.s.lost_J).toBeGreaterThan(1000)
  })
  it('never pushes: a load swung over its sheave leaves the circle and falls inside it', () => {
    const all = run(6, () => still(8), { ...letGo(0, 0), going: [2.1, 0, 0] })
    expect(all.some((x) => x.s.rope === 'slack')).toBe(true)
    for (const { s, d } of all) {
      const { p } = loadOf(s, d)
      expect(Math.hypot(p[0] - d.tip[0], p[1] - d.tip[1], p[2] - d.tip[2])).toBeLessThan(8 + 1e-9)
      if (s.rope === 'taut') expect(pull_N(s, d, hung)).toBeGreaterThanOrEqual(-1e-6)
    }
  })
  const rate = fc.double({ min: -0.3, max: 0.3, noNaN: true })
  /** Every motion to and fro at once. */
  const allAtOnce = (slew: number, luff: number, lift: number, pay: number): Moves => {
    const wave = (amount: number, t: number) => ({
      at: amount * (1 - Math.cos(t)),
      speed: amount * Math.sin(t),
      acceleration: amount * Math.cos(t),
    })
    return (t) => {
      const [a, b, c, d] = [wave(10 * slew, t), wave(luff, t), wave(lift, t), wave(8 * pay, t)]
      return {
        slew_deg: a.at,
        slew_deg_s: a.speed,
        slew_deg_s2: a.acceleration,
        radius_m: 12 + b.at,
        radius_mps: b.speed,
        radius_mps2: b.acceleration,
        height_m: 25 + c.at,
        height_mps: c.speed,
        height_mps2: c.acceleration,
        rope_m: 10 + d.at,
        payOut_mps: d.speed,
        payOut_mps2: d.acceleration,
      }
    }
  }
  it('energy and work agree whatever is driven at once, in wind, with loss, slack or taut', () => {
    fc.assert(
      fc.property(rate, rate, rate, rate, fc.boolean(), (slew, luff, lift, pay, blown) => {
        const motion = allAtOnce(slew, luff, lift, pay)
        const load = { mass_kg: 1500, cA_m2: blown ? 6 : 0, loss_per_s: blown ? 0.04 : 0 }
        run(blown ? 20 : 12, motion, letGo(4, 50), {
          load,
          wind: ({ time_s }) => (blown ? [6 + 2 * Math.sin(time_s / 3), 1, 0] : [0, 0, 0]),
        })
      }),
      { numRuns: runs(100, 15) },
    )
  })
  it('and so they do at every tick of ten minutes', () => {
    fc.assert(
      fc.property(rate, rate, rate, rate, (slew, luff, lift, pay) => {
        const load = { mass_kg: 1500, cA_m2: 6, loss_per_s: 0.04 }
        run(600, allAtOnce(slew, luff, lift, pay), letGo(4, 50), {
          load,
          wind: ({ time_s }) => [6 + 2 * Math.sin(time_s / 3), 1, 0],
        })
      }),
      { numRuns: runs(100, 2) },
    )
  }, 900_000)
  it('a load that swings under a still tip keeps its turning about the plumb line, mirrored and turned it swings the same', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 2, max: 25, noNaN: true }),
        fc.double({ min: -0.1, max: 0.1, noNaN: true }),
        rate,
        (angle, spin, by) => {
          const turnedBy = by * 600
          const start = (towards: number, way: number): Swinging => {
            const s = letGo(angle, towards)
            return { ...s, going: [-way * spin * Math.sin(towards * rad), way * spin * Math.cos(towards * rad), 0] }
          }
          const moment = (x: { s: Swinging; d: Drive }) => {
            const { p, v } = loadOf(x.s, x.d)
            return (p[0] - x.d.tip[0]) * v[1] - (p[1] - x.d.tip[1]) * v[0]
          }
          const one = run(8, () => still(10), start(0, 1))
          const [from, to] = [one[0], one.at(-1)]
          if (!from || !to) throw new Error('no run')
          expect(moment(to)).toBeCloseTo(moment(from), 7)
          const turned = run(8, () => still(10), start(turnedBy, 1)).at(-1)
          const mirrored = run(8, () => still(10), start(0, -1)).at(-1)
          if (!turned || !mirrored) throw new Error('no run')
          const [a, b, c] = [against(to, 0), against(turned, turnedBy), against(mirrored, 0)]
          expect(b.along).toBeCloseTo(a.along, 9)
          expect(b.across).toBeCloseTo(a.across, 9)
          expect(c.along).toBeCloseTo(a.along, 9)
          expect(c.across).toBeCloseTo(-a.across, 9)
        },
      ),
      { numRuns: runs(100, 10) },
    )
  })
})

describe('a lever', () => {
  const limits: AxisLimits = { greatest: 4, up: 2, down: 3, dead_s: 0.2 }
  const held = (l: AxisLimits, lever: (t: number) => number, seconds: number) => {
    const a = axisAt(l, 0)
    const its = new AxisFigures(l)
    const speeds: number[] = []
    for (let i = 0; i < Math.round(seconds * ticks_per_s); i++) {
      a.lever = lever(i * tick_s)
      afterTick(onLever(its, a))
      speeds.push(a.speed)
    }
    return { a, speeds }
  }
  it('moves what it moves after its dead time, by its limits, to the printed angle', () => {
    expect(held(limits, (t) => (t < 4 - 1e-9 ? 1 : 0), 8).a.at).toBeCloseTo(14.666667, 6)
    expect(held(limits, () => 1, 0.2).a.at).toBe(0)
  })
  it('never speeds up or brakes harder than it may, stops before it turns, and comes to rest', () => {
    fc.assert(
      fc.property(fc.array(fc.double({ min: -1, max: 1, noNaN: true }), { minLength: 1, maxLength: 12 }), (levers) => {
        const { speeds } = held(limits, (t) => levers[Math.floor(t / 0.4)] ?? 0, levers.length * 0.4 + 4)
        const wrong = speeds.filter((v, i) => {
          const before = speeds[i - 1] ?? 0
          const most = (Math.abs(v) < Math.abs(before) ? limits.down : limits.up) * tick_s + 1e-12
          return Math.abs(v - before) > most || v * before < -1e-12 || Math.abs(v) > limits.greatest
        })
        expect(wrong).toEqual([])
        expect(speeds.at(-1)).toBeCloseTo(0, 12)
      }),
      { numRuns: runs(1000, 100) },
    )
  })
  it('an emergency stop has no dead time and its own brake', () => {
    const going = held(limits, () => 1, 3).a
    const { at, speed } = going
    const its = new AxisFigures(limits)
    expect(into(onLever(its, going), { time_s: tick_s / 2 }).at).toBeCloseTo(at + (speed * tick_s) / 2, 12)
    afterTick(onLever(new AxisFigures({ ...limits, stop: 12 }), going, true))
    expect(speed - going.speed).toBeCloseTo(12 * tick_s, 12)
    // What the lever said before is not carried out afterwards.
    going.lever = 0
    const left = going.waiting.map(() => afterTick(onLever(its, going)).speed)
    expect(left.every((v, i) => v <= (left[i - 1] ?? speed))).toBe(true)
  })
})

describe('what a very good operator would do', () => {
  const plain = { greatest_mps: 0.8, up_mps2: 1, down_mps2: 1, dead_s: 0 }
  it('gives its printed figures, and the slowest crane cannot', () => {
    expect(catchInOne(plain, 12, 1)).toMatchObject({
      hold_s: expect.closeTo(1.3621, 5),
      lead_s: expect.closeTo(1.08105, 5),
      travel_m: expect.closeTo(1.08968, 5),
    })
    const tern = { greatest_mps: 1.7435, up_mps2: 0.7749, down_mps2: 1.1624, dead_s: 0.25 }
    expect(catchInOne(tern, 12, 1)).toMatchObject({
      hold_s: expect.closeTo(1.295959, 6),
      lead_s: expect.closeTo(1.40431, 6),
      travel_m: expect.closeTo(1.084525, 6),
      greatest_mps: expect.closeTo(1.004239, 6),
    })
    // Half as fast it takes 0.8658 m at most.
    const slow = { ...plain, greatest_mps: 0.4, up_mps2: 0.5, down_mps2: 0.5 }
    expect(() => catchInOne(slow, 12, 0.8659)).toThrow(/0\.87 m at most/)
    expect(catchInOne(slow, 12, 0.8657).hold_s).toBeGreaterThan(0)
    expect(quietTravel({ greatest_mps: 0.98, up_mps2: 0.49, down_mps2: 0.49, dead_s: 0.2 }, 12, 14.66)).toEqual({
      how: 'twice',
      takes_s: expect.closeTo(20.634, 3),
      heedless_s: expect.closeTo(17.159, 3),
    })
  })
  it('catches a small swing under any lever: fed to the load itself, next to nothing is left; late, the law says what', () => {
    const figure = (min: number, max: number) => fc.double({ min, max, noNaN: true })
    fc.assert(
      fc.property(
        figure(4, 18),
        figure(0.5, 1.5),
        figure(0.4, 1.2),
        figure(0.4, 1.2),
        figure(0.1, 0.9),
        (rope, v, up, down, share) => {
          const m = { greatest_mps: v, up_mps2: up, down_mps2: down, dead_s: 0 }
          const small_m = share * 0.02 * rope
          const c = catchInOne(m, rope, small_m)
          const top_s = swingPeriod_s(rope)
          const [risen, begun] = [c.greatest_mps / up, top_s - c.lead_s]
          const ends = [begun, begun + risen, begun + c.hold_s, begun + c.hold_s + c.greatest_mps / down]
          const moves =
            (late_s: number): Moves =>
            (t, of) => {
              const [a0, a1, a2, a3] = ends.map((x) => x + late_s) as [number, number, number, number]
              const top = c.greatest_mps
              const at = (x: number, speed: number, acceleration: number) => ({
                ...still(rope),
                radius_m: 12 + x,
                radius_mps: speed,
                radius_mps2: acceleration,
              })
              if (of < a0) return at(0, 0, 0)
              if (of < a1) return at((up * (t - a0) ** 2) / 2, up * (t - a0), up)
              const first = (top * risen) / 2
              if (of < a2) return at(first + top * (t - a1), top, 0)
              const second = first + top * (a2 - a1)
              if (of < a3) return at(second + top * (t - a2) - (down * (t - a2) ** 2) / 2, top - down * (t - a2), -down)
              return at(second + top ** 2 / (2 * down), 0, 0)
            }
          const after = (late_s: number) => {
            const breaks = ends.map((x) => x + late_s)
            // The load is in front of its tip as it tops out.
            const start = letGo(Math.asin(small_m / rope) / rad, 0)
            const x = run((breaks[3] ?? 0) + 0.1, moves(late_s), start, { breaks }).at(-1)
            const end = against(x as never, 0)
            return left(end.along, end.alongSpeed, rope)
          }
          expect(after(0)).toBeLessThan(0.02 * small_m)
          const late_s = 0.06 * top_s
          const law = 2 * small_m * Math.sin((Math.PI * late_s) / top_s)
          expect(after(late_s) / law).toBeCloseTo(1, 1)
        },
      ),
      { numRuns: runs(200, 12) },
    )
  })
})
