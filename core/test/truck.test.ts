import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { axlesOf, balanceOf, forwardOf, isTruck, marginsOf, type Truck, tractionOf } from '../src'
import { demoMachine } from './demo'
import { runs } from './runs'

function truck(id: string): Truck {
  const m = demoMachine(id)
  if (!isTruck(m)) throw new Error(`${id} is no truck`)
  return m.truck
}
const bare = { tool: null, slabs: null }
const at = (height_m: number) => ({ height_m, tilt_deg: 0, sideShift_m: 0 })
const load = (mass_kg: number, x_m: number, z_m: number) => ({ mass_kg, x_m, y_m: 0, z_m })

describe('a truck on its triangle', () => {
  const puffin = truck('puffin')
  it('keeps what a load at full height leaves it, level and after the tilting platform’s slopes', () => {
    const b = balanceOf(puffin, bare, load(2300, 0.6, 0.55), at(4.5))
    const level = marginsOf(puffin, b)
    expect(level.front_m).toBeCloseTo(0.28884211, 8)
    expect(level.side_m).toBeCloseTo(0.37286059, 8)
    expect(marginsOf(puffin, b, 0.04).front_m).toBeCloseTo(0.1932, 8)
    expect(marginsOf(puffin, b, 0, 0.06).side_m).toBeCloseTo(0.23530839, 8)
  })
  it('loses most of it going down with the load first and braking', () => {
    const b = balanceOf(puffin, bare, load(1900, 0.6, 0.5), at(0.15))
    const [m0, m] = [marginsOf(puffin, b), marginsOf(puffin, b, forwardOf({ pitch_rad: -Math.atan(0.1), braking_mps2: 1.5 }))]
    expect(m0.front_m).toBeCloseTo(0.393, 3)
    expect(m.front_m).toBeCloseTo(0.221, 3)
    expect((m0.front_m - m.front_m) / m0.front_m / 0.5).toBeCloseTo(0.875, 3)
    // In reverse, with the load uphill, it gains.
    const uphill = forwardOf({ pitch_rad: Math.atan(0.1), braking_mps2: -1.5 })
    expect(marginsOf(puffin, b, uphill).front_m).toBeGreaterThan(m0.front_m)
  })
  it('puts on its axles what moments say', () => {
    const whimbrel = truck('whimbrel')
    const b = balanceOf(whimbrel, bare, load(2400, 0.6, 0.5), at(0))
    expect(axlesOf(whimbrel, b).front_kg).toBeCloseTo(6298.2051, 3)
    expect(axlesOf(whimbrel, b).rear_kg).toBeCloseTo(2451.7949, 3)
    const bittern = truck('bittern')
    const slabs = { mass_kg: 4 * 2400, behindFront_m: 3.9 }
    const heavy = balanceOf(bittern, { tool: null, slabs }, load(24_000, 0.9, 0.5), at(0))
    expect(axlesOf(bittern, heavy).front_kg).toBeCloseTo(45148.4375, 3)
    expect(axlesOf(bittern, heavy).rear_kg).toBeCloseTo(11951.5625, 3)
    const { rear_kg } = axlesOf(bittern, balanceOf(bittern, { tool: null, slabs }, null, at(0)))
    expect(rear_kg).toBeCloseTo(24_551.6, 0)
  })
  it('needs this friction on a ramp: load uphill in reverse, and empty the same way far more', () => {
    const dunlin = truck('dunlin')
    const down = { pitch_rad: Math.atan(0.08), braking_mps2: -1.5 }
    const laden = tractionOf(dunlin, balanceOf(dunlin, bare, load(1400, 0.6, 0.6), at(0.15)), down)
    expect(laden.share).toBeCloseTo(0.654, 2)
    expect(laden.needed).toBeCloseTo(0.356, 2)
    const empty = tractionOf(dunlin, balanceOf(dunlin, bare, null, at(0.15)), down)
    expect(empty.needed).toBeCloseTo(0.857, 2)
  })
  it('has less left with more mass, more height, more tilt, a centre further out or more slope', () => {
    const some = fc.record({
      kg: fc.double({ min: 100, max: 2500, noNaN: true }),
      x: fc.double({ min: 0.2, max: 0.9, noNaN: true }),
      z: fc.double({ min: 0.1, max: 1, noNaN: true }),
      h: fc.double({ min: 0, max: 4, noNaN: true }),
      more: fc.double({ min: 0.001, max: 0.5, noNaN: true }),
    })
    fc.assert(
      fc.property(some, ({ kg, x, z, h, more }) => {
        const front = (over: Partial<{ kg: number; x: number; h: number; tilt: number; slope: number }> = {}) => {
          const pose = { height_m: over.h ?? h, tilt_deg: over.tilt ?? 0, sideShift_m: 0 }
          const b = balanceOf(puffin, bare, load(over.kg ?? kg, over.x ?? x, z), pose)
          return marginsOf(puffin, b, over.slope ?? 0).front_m
        }
        const now = front()
        expect(front({ kg: kg * (1 + more) })).toBeLessThan(now)
        expect(front({ x: x + more })).toBeLessThan(now)
        expect(front({ h: h + more })).toBeLessThan(now)
        expect(front({ slope: more / 10 })).toBeLessThan(now)
        if (h > 0.5) expect(front({ tilt: 10 * more })).toBeLessThan(now)
        const axles = axlesOf(puffin, balanceOf(puffin, bare, load(kg, x, z), at(0)))
        expect(axles.front_kg + axles.rear_kg).toBeCloseTo(4350 + kg, 6)
      }),
      { numRuns: runs(2000, 100) },
    )
  })
})
