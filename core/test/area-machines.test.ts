import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { assess, type Case, capacityMap, checks, mapOfCase, NOT_RATED, useAt } from '../src'
import { curlewCase } from './curlew-case'
import { caseOf, type Job, worksBy } from './jobs'
import { crawlerCase } from './kittiwake-case'
import { runs } from './runs'
import { towerCase, yard } from './tower-case'

/** Checks that differ from place to place; the others say the same wherever the load goes. */
const byPlace = new Set(checks.filter((c) => c.field).map((c) => c.id))
const byWork = (id: string, state?: string): Case => {
  const work = worksBy(id)
  return caseOf(work, { ...(work.jobs[0] as Job), ...(state && { state }) })
}
/** One job a machine and way of standing; of each the map of where its load can go is held against proofs of lifts that stay there. */
const stood = [
  ['wren', undefined, byWork('wren')],
  ['plover', undefined, byWork('plover')],
  ['turnstone', undefined, byWork('turnstone')],
  ['petrel', 'wheels', byWork('petrel', 'wheels')],
  ['petrel', 'legs', byWork('petrel', 'legs')],
  ['petrel', 'braces', byWork('petrel', 'braces')],
  ['cormorant', 'base', towerCase({ kg: 1990, place: yard })],
  ['kittiwake', 'tracks', crawlerCase({ kg: 31000 })],
  ['curlew', 'legs', curlewCase({ kg: 2300 })],
] as const

describe.each(stood)('the working area of %s, %s', (_id, state, base) => {
  const [step] = base.lift.steps
  if (step?.do !== 'slew') throw new Error('no slew')
  const staying = (kg: number, radius_m: number, slew_deg: number): Case => ({
    ...base,
    lift: {
      ...base.lift,
      hung: { ...base.lift.hung, load: { ...base.lift.hung.load, mass_kg: kg } },
      steps: [{ ...step, heights: undefined, pickUp: { radius_m, slew_deg }, setDown: { radius_m, slew_deg } }],
    },
  })
  const most_m = base.machine.boom?.lengths_m.at(-1) ?? 10
  const cell = fc.record({
    kg: fc.double({ min: 50, max: 9000, noNaN: true }),
    radius_m: fc.double({ min: 1, max: most_m, noNaN: true }),
    slew_deg:
      state === 'wheels' || state === 'braces'
        ? fc.double({ min: 170, max: 190, noNaN: true })
        : fc.double({ min: 0, max: 359, noNaN: true }),
  })
  const seen = { inside: 0, beyond: 0 }
  it('is nowhere more favourable than the proof of a lift that stays there, and reads the same where both speak', () => {
    fc.assert(
      fc.property(cell, ({ kg, radius_m, slew_deg }) => {
        const c = staying(kg, radius_m, slew_deg)
        const input = mapOfCase(c, [radius_m], [slew_deg])
        if (!input) throw new Error('no map')
        const map = capacityMap(input)
        const use = useAt(map, 0)
        const a = assess(c)
        if (use === NOT_RATED || use > 1) {
          seen.beyond++
          return
        }
        seen.inside++
        const worse = a.findings.filter((f) => byPlace.has(f.check) && (f.verdict === 'outside' || f.verdict === 'not-proven'))
        expect(worse.map((f) => `${f.id} ${f.reason} ${f.utilisation}`)).toEqual([])
        for (const { id: layer, use: shares } of map.layers) {
          const own = a.findings.filter(
            (f) => f.id === layer || (layer.startsWith('wheel:') && f.id.startsWith(`wheel:${layer.slice(6, 7).toUpperCase()}`)),
          )
          const most = Math.max(...own.map((f) => f.utilisation ?? -1))
          // Further than matters, each says no more than that it is further.
          const { near_share } = c.policy
          const least = layer === 'clearance' ? near_share / 1.1 : 0
          if (own.length > 0 && most >= 0) expect(Math.max(least, shares[0] ?? 0), layer).toBeCloseTo(Math.max(least, most), 6)
        }
      }),
      { numRuns: runs(3000, 60) },
    )
    expect(seen.inside).toBeGreaterThan(0)
    expect(seen.beyond).toBeGreaterThan(0)
  })
})
