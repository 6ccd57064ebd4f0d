import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  type Drive,
  driveOf,
  energy_J,
  energyError_J,
  g_mps2,
  hangingStill,
  letGo,
  type Motion,
  pull_N,
  rad,
  stepSwing,
  stillMotion,
  swing,
  swingAngle_deg,
  swingPeriod_s,
} from '../src'

const mass_kg = 1500
const dt = 0.005
const still = (rope_m: number) => stillMotion({ slew_deg: 30, radius_m: 12, height_m: 25, rope_m })

/** Runs for a time, checking at every step that work and energy agree. */
function runFor(seconds: number, motionAt: (t: number) => Motion, start = hangingStill(driveOf(motionAt(0)))) {
  const driveAt = (t: number): Drive => driveOf(motionAt(t))
  const scale = mass_kg * g_mps2 * motionAt(0).rope_m
  let s = start
  let widest = 0
  const angles: number[] = []
  for (let i = 0; i < seconds / dt; i++) {
    const next = stepSwing(s, mass_kg, driveAt, dt)
    expect(Math.abs(energyError_J(s, next, mass_kg))).toBeLessThan(1e-6 * scale)
    s = next
    const angle = swingAngle_deg(s, driveAt(s.time_s))
    angles.push(angle)
    widest = Math.max(widest, angle)
  }
  return { s, widest, angles }
}

describe('the swinging load', () => {
  it('hangs still under a tip that does not move, its rope pulling its weight', () => {
    const { s, widest } = runFor(5, () => still(10))
    expect(widest).toBeLessThan(1e-9)
    expect(pull_N(s.p, s.v, driveOf(still(10)), mass_kg)).toBeCloseTo(mass_kg * g_mps2, 6)
  })
  it('swings with the period that the formula gives, and keeps its energy', () => {
    for (const [rope, angle] of [
      [6, 5],
      [14, 20],
      [9, 40],
    ] as const) {
      const d = driveOf(still(rope))
      const start = letGo(d, angle, 75)
      let s = start
      const crossings: number[] = []
      let before = 1
      for (let i = 0; i < 4000; i++) {
        s = stepSwing(s, mass_kg, () => d, dt)
        const side = (s.p[0] - d.tip[0]) * Math.cos(75 * rad) + (s.p[1] - d.tip[1]) * Math.sin(75 * rad)
        if (side < 0 && before >= 0) crossings.push(s.time_s - (dt * side) / (side - before))
        before = side
      }
      const period = (crossings[1] as number) - (crossings[0] as number)
      expect(period / swingPeriod_s(rope, angle)).toBeCloseTo(1, 3)
      expect(energy_J(s, mass_kg)).toBeCloseTo(energy_J(start, mass_kg), 0)
    }
  })
  it('a tip speeding up for one period leaves it hanging still; for half a period it swings as foretold', () => {
    const rope = 10
    const T = swingPeriod_s(rope)
    const a = 0.08
    const luff =
      (tau: number) =>
      (t: number): Motion => {
        const r = Math.min(t, tau)
        return {
          ...still(rope),
          radius_mps2: t < tau ? a : 0,
          radius_mps: a * r,
          radius_m: 12 + 0.5 * a * r * r + (t > tau ? a * tau * (t - tau) : 0),
        }
      }
    const after = (tau: number) => {
      const { angles } = runFor(tau + T, luff(tau))
      return Math.max(...angles.slice(Math.ceil(tau / dt) + 1))
    }
    expect(after(T)).toBeLessThan(0.02)
    const half = swing({ ropeLength_m: rope, ramp: { acceleration_mps2: a, time_s: T / 2 } })
    expect(after(T / 2)).toBeCloseTo(half.residualAmplitude_deg, 1)
  })
  it('is thrown outwards by steady slewing as rω²/g says', () => {
    const w = 4
    const ramp = 12
    const round = (t: number): Motion => ({
      ...still(8),
      slew_deg_s2: t < ramp ? w / ramp : 0,
      slew_deg_s: w * Math.min(1, t / ramp),
      slew_deg: t < ramp ? (w * t * t) / (2 * ramp) : (w * ramp) / 2 + w * (t - ramp),
    })
    const { angles } = runFor(40, round)
    const late = angles.slice(-Math.round(swingPeriod_s(8) / dt))
    const mean = late.reduce((s, x) => s + x, 0) / late.length
    expect(mean).toBeCloseTo(((12 * (w * rad) ** 2) / g_mps2 / rad) * 1, 0)
  })
  it('work and energy agree whatever is driven at once: slew, radius, height and rope', () => {
    const rate = fc.double({ min: -0.3, max: 0.3, noNaN: true })
    fc.assert(
      fc.property(rate, rate, rate, rate, (slew, luff, lift, pay) => {
        const wave = (amount: number, t: number) => ({
          at: amount * (1 - Math.cos(t)),
          speed: amount * Math.sin(t),
          acceleration: amount * Math.cos(t),
        })
        runFor(3, (t) => {
          const [a, b, c, d] = [wave(10 * slew, t), wave(luff, t), wave(lift, t), wave(pay, t)]
          return {
            slew_deg: 30 + a.at,
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
        })
      }),
      { numRuns: 20 },
    )
  })
  it('winching in a swinging load does work and widens its swing', () => {
    const hoist = (t: number): Motion => ({ ...still(10), rope_m: 10 - 0.25 * t, payOut_mps: -0.25 })
    const { s, angles } = runFor(16, hoist, letGo(driveOf(hoist(0)), 6, 0))
    expect(s.work_J).toBeGreaterThan(mass_kg * g_mps2 * 0.25 * 16 * 0.99)
    expect(Math.max(...angles.slice(-600))).toBeGreaterThan(6.5)
  })
  it('air takes from the swing what it takes from the energy', () => {
    const d = driveOf(still(10))
    let s = letGo(d, 20, 0)
    const start = s
    for (let i = 0; i < 4000; i++) s = stepSwing(s, mass_kg, () => d, dt, 0.05)
    expect(s.lost_J).toBeGreaterThan(0)
    expect(energyError_J(start, s, mass_kg)).toBeLessThan(1e-4 * mass_kg * g_mps2 * 10)
    expect(swingAngle_deg(s, d)).toBeLessThan(14)
  })
})
