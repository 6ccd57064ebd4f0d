import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { prepareFootprint, Refusal, resultantAt } from '../src'
import { atSlew } from '../src/plane/point'
import { tippingOver } from '../src/statics/tipping-arc'
import { tippingAt } from '../src/statics/tipping-load'
import { runs } from './runs'

const between = (min: number, max: number) => fc.double({ min, max, noNaN: true })
const corner = fc.record({ x_m: between(1, 4), y_m: between(1, 4) })
const signs = [
  [1, 1],
  [-1, 1],
  [-1, -1],
  [1, -1],
] as const

/** Null where it falls by itself. */
function standing<T>(of: () => T): T | null {
  try {
    return of()
  } catch (e) {
    if (e instanceof Refusal && e.code === 'unstable-unloaded') return null
    throw e
  }
}

describe('the tipping load round an arc', () => {
  it('is the least of many slews, and is what holds at the slew it names', () => {
    let told = 0
    fc.assert(
      fc.property(
        fc.array(corner, { minLength: 4, maxLength: 4 }),
        fc.record({ force_N: between(1e5, 3e5), wx_Nm: between(-6e4, 6e4), wy_Nm: between(-6e4, 6e4) }),
        fc.record({ force_N: between(5e4, 1e5), along_Nm: between(-3e5, 3e5), across_Nm: between(-5e4, 5e4) }),
        between(1, 12),
        fc.integer({ min: -360, max: 360 }),
        fc.integer({ min: -360, max: 360 }),
        (feet, fixed, slewing, hook_m, from_deg, by_deg) => {
          const f = prepareFootprint(
            signs.map(([i, j], k) => ({ id: `${k}`, x_m: i * (feet[k]?.x_m ?? 1), y_m: j * (feet[k]?.y_m ?? 1) })),
          )
          const at = (deg: number) => tippingAt(f, resultantAt(fixed, slewing, deg), atSlew(hook_m, deg)).tippingLoad_kg
          const many = () => Array.from({ length: 721 }, (_, i) => at(from_deg + (by_deg * i) / 720) ?? Infinity)
          const said = standing(() => tippingOver(f, fixed, slewing, hook_m, { from_deg, to_deg: from_deg + by_deg }))
          if (!said) return
          const least = Math.min(...many())
          if (said.tippingLoad_kg === null) {
            expect(least).toBe(Infinity)
            return
          }
          told++
          expect(said.tippingLoad_kg).toBeLessThanOrEqual(least * (1 + 1e-9))
          expect(said.tippingLoad_kg).toBe(at(said.slew_deg))
          expect(said.slew_deg).toBeGreaterThanOrEqual(Math.min(from_deg, from_deg + by_deg))
          expect(said.slew_deg).toBeLessThanOrEqual(Math.max(from_deg, from_deg + by_deg))
        },
      ),
      { numRuns: runs(20_000, 200) },
    )
    expect(told).toBeGreaterThan(0)
  })

  it('finds a hook that leaves the footprint for less than a degree', () => {
    const f = prepareFootprint(signs.map(([i, j], k) => ({ id: `${k}`, x_m: 2 * i, y_m: 4 * j })))
    const fixed = { force_N: 2e5, wx_Nm: 0, wy_Nm: 0 }
    const slewing = { force_N: 1e5, along_Nm: 0, across_Nm: 0 }
    const hook_m = 2.00001
    const { tippingLoad_kg, slew_deg } = tippingOver(f, fixed, slewing, hook_m, { from_deg: -81.3, to_deg: 47.9 })
    expect(slew_deg).toBeCloseTo(0, 6)
    // By moments: what stands two metres inside over what hangs a hundredth of a millimetre outside.
    expect(tippingLoad_kg).toBeCloseTo(((3e5 / 9.80665) * 2) / (hook_m - 2), -4)
  })
})
