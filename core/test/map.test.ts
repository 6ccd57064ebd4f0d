import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  calculatorNamed,
  capacityMap,
  chartReading,
  emptyMap,
  fillMap,
  groundPressure,
  type MapInput,
  modelOf,
  NOT_RATED,
  outwardShift_m,
  poseAtRadius,
  prepareMap,
  rowFigures,
  stopNamed,
  supportReactions,
  telescopicBoom,
  tippingLoad,
  upperMasses,
  useAt,
  workingAreaZones,
} from '../src'
import { tern, ternTable } from './demo'

const outrigger = (id: string) => tern.outriggers.find((l) => l.id === id) as (typeof tern.outriggers)[number]
const footprint = (['FL', 'FR', 'RL', 'RR'] as const).map((id) => {
  const { x_m, y_m } = stopNamed(outrigger(id), 'fullyExtended')
  return { id, x_m, y_m }
})
const mat = {
  length_m: 1.2,
  width_m: 1.2,
  thickness_m: 0.1,
  allowableBending_MPa: 12,
  allowableShear_MPa: 1.5,
  mass_kg: 110,
  spreads: 'two-way' as const,
}
const base: MapInput = {
  machine: tern,
  tables: [ternTable],
  configuration: 'full-heavy',
  counterweight: 'heavy',
  boom_m: 19.4,
  footprint,
  ground: footprint.map(({ id }) => ({ id, pad: outrigger(id).float, mat, allowable_kPa: 180 })),
  load: { mass_kg: 3000, deductions: [{ name: 'block', mass_kg: 220, on: 'hook' }], sailArea_m2: 3, dragCoefficient: 1.2 },
  policy: { readingRule: 'worse-row', legLoads: 'upper', dynamicFactor: 1.1 },
  wind_mps: 5,
  tilt_deg: 0.3,
  radii_m: [4, 5.5, 7, 8.3, 10, 12, 15, 18],
  slew_deg: Array.from({ length: 36 }, (_, i) => i * 10),
}

/** One layer of a map. */
const layer = (m: ReturnType<typeof capacityMap>, id: string): Float64Array => {
  const found = m.layers.find((l) => l.id === id)
  if (!found) throw new Error(`no layer ${id}`)
  return found.use
}

describe('the capacity map', () => {
  const map = capacityMap(base)
  it.each(['upper', 'elastic'] as const)('says in each cell what the single calculators say there (%s)', (legLoads) => {
    const m = capacityMap({ ...base, policy: { ...base.policy, legLoads } })
    const cw = tern.upper.counterweights.find((c) => c.id === 'heavy') as { mass_kg: number; radius_m: number }
    for (let j = 0; j < base.slew_deg.length; j += 5) {
      base.radii_m.forEach((radius_m, i) => {
        const at = j * base.radii_m.length + i
        const slew_deg = base.slew_deg[j] as number
        const read = chartReading({
          chart: ternTable,
          configuration: 'full-heavy',
          radius_m,
          boom_m: 19.4,
          rule: 'worse-row',
          load_kg: 3000,
          deductions: base.load.deductions,
        })
        expect(layer(m, 'rating')[at]).toBeCloseTo(read.utilisation ?? NOT_RATED, 9)
        const pose = poseAtRadius({ boom_m: 19.4, pivot: tern.boom.pivot, headOffset_m: tern.boom.headOffset_m }, radius_m)
        const out = radius_m + outwardShift_m(pose.tip_height_m, 3220, { tilt_deg: 0.3, wind_N: 0.5 * 1.25 * 25 * 1.2 * 3 })
        const slewing = [...upperMasses(tern.upper, cw), ...telescopicBoom(tern.boom).massesAt(19.4, pose.angle_deg)]
        const t = tippingLoad({ supports: footprint, masses: tern.chassis.masses, slewing, radius_m: out, slew_deg, rule: '75%' })
        expect(layer(m, 'overturning')[at]).toBeCloseTo(t.ratedByStability_kg === null ? 0 : 3220 / t.ratedByStability_kg, 9)
        const a = (slew_deg * Math.PI) / 180
        const hung = { mass_kg: 3220 * 1.1, x_m: out * Math.cos(a), y_m: out * Math.sin(a) }
        const turned = slewing.map((s) => ({ mass_kg: s.mass_kg, x_m: s.radius_m * Math.cos(a), y_m: s.radius_m * Math.sin(a) }))
        const r = supportReactions({ supports: footprint, masses: [...tern.chassis.masses, ...turned, hung] })
        const bare = supportReactions({ supports: footprint, masses: [...tern.chassis.masses, ...turned] })
        r.reactions?.forEach((x, k) => {
          // With the load on or with the hook empty, whichever presses harder.
          const of = (y: typeof x | undefined) => (legLoads === 'upper' ? y?.upper_N : y?.reaction_N) ?? 0
          const force = Math.max(of(x), of(bare.reactions?.[k]))
          const use = groundPressure({ ...(base.ground[k] as (typeof base.ground)[number]), reaction_N: force })
            .utilisation as number
          expect((layer(m, `ground:${x.id}`)[at] as number) / use).toBeCloseTo(1, 6)
        })
      })
    }
  })
  it('names the limit that is used most', () => {
    const rating = layer(map, 'rating')
    for (let at = 0; at < rating.length; at++) {
      const all = map.layers.map((l) => l.use[at] as number)
      if (rating[at] !== NOT_RATED) expect(all[map.governs[at] as number]).toBe(Math.max(...all))
    }
  })
  it('filled slew by slew is the map filled at once', () => {
    const p = prepareMap(base)
    const out = emptyMap(p)
    for (let j = 0; j < out.slews; j += 7) fillMap(p, out, j, Math.min(out.slews, j + 7))
    expect(out).toEqual(map)
  })
  it('leaves not rated what no table covers, whatever stability says', () => {
    const short = {
      ...base,
      configuration: undefined,
      footprint: footprint.map((f) => ({ ...f, y_m: f.id.endsWith('L') ? f.y_m * 0.3 : f.y_m })),
    }
    const m = capacityMap(short)
    const j = base.slew_deg.indexOf(90)
    const i = 2
    expect(layer(m, 'rating')[j * m.radii + i]).toBe(NOT_RATED)
    expect(useAt(m, j * m.radii + i)).toBe(NOT_RATED)
    expect(layer(capacityMap({ ...base, radii_m: [40] }), 'rating').every((v) => v === NOT_RATED)).toBe(true)
  })
  it('without a word on the ground is not proven there, and never a pass', () => {
    const m = capacityMap({ ...base, ground: base.ground.slice(1) })
    for (let at = 0; at < m.governs.length; at++) {
      const use = useAt(m, at)
      expect(use === NOT_RATED || use > 1).toBe(true)
    }
  })
  it('more load, wind or tilt never uses less anywhere', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 3000, noNaN: true }),
        fc.double({ min: 0, max: 10, noNaN: true }),
        fc.double({ min: 0, max: 2, noNaN: true }),
        (kg, wind, tilt) => {
          const more = capacityMap({
            ...base,
            load: { ...base.load, mass_kg: 3000 + kg },
            wind_mps: 5 + wind,
            tilt_deg: 0.3 + tilt,
          })
          for (const { id, use } of map.layers.filter((l) => l.id === 'rating' || l.id === 'overturning')) {
            const then = layer(more, id)
            const least = id === 'rating' || kg === 0 ? 1 - 1e-12 : 0.999
            use.forEach((was, at) => {
              expect(then[at] as number).toBeGreaterThanOrEqual(was < 0 ? was : was * least)
            })
          }
        },
      ),
      { numRuns: 30 },
    )
  })
  it('has zones that are inside at their edge and outside just beyond it, and say what ends them', () => {
    const radii_m = [
      ...new Set([...Array.from({ length: 100 }, (_, i) => 3 + i * 0.22), ...rowFigures([ternTable], 'radius_m')]),
    ].sort((a, b) => a - b)
    const slew_deg = Array.from({ length: 24 }, (_, i) => i * 15)
    const fine = { ...base, radii_m, slew_deg, ground: base.ground.map((g) => ({ ...g, allowable_kPa: 320 })) }
    const zones = workingAreaZones(prepareMap(fine), 0.9)
    for (const z of zones) {
      if (!z) throw new Error('nowhere')
      const at = (r: number) => useAt(capacityMap({ ...fine, radii_m: [r], slew_deg: [z.slew_deg] }), 0)
      expect(at(z.to_m)).toBeLessThanOrEqual(1 + 1e-9)
      const beyond = at(z.to_m + 0.25)
      expect(beyond > 1 || beyond === NOT_RATED).toBe(true)
      expect(z.near_m).toBeGreaterThanOrEqual(z.from_m)
      // Near a limit from there on: not a hand's width before, and already a little beyond.
      const listed = radii_m.filter((r) => r >= z.from_m && r <= z.to_m)
      const nears = listed.filter((r) => at(r) >= 0.9)
      if (z.near_m === Infinity) expect(nears).toEqual([])
      else {
        expect(z.near_m).toBeLessThanOrEqual(nears[0] ?? z.to_m)
        if (z.near_m > z.from_m) expect(at(z.near_m)).toBeLessThanOrEqual(0.9 + 1e-9)
        const beyondNear = at(z.near_m + 0.05)
        expect(beyondNear >= 0.9 - 0.02 || beyondNear === NOT_RATED).toBe(true)
      }
    }
    expect(zones.some((z) => z && z.near_m > z.from_m && z.near_m < z.to_m)).toBe(true)
    expect(new Set(zones.map((z) => z?.endedBy)).size).toBeGreaterThan(0)
  })
  it('answers as a calculator with the same figures, and refuses too many cells', () => {
    const { tables: _t, machine: _m, ...rest } = base
    const answer = calculatorNamed('capacity-map')?.run({ ...rest, machine: modelOf(tern), table: ternTable }) as {
      table: (number | null)[]
      stability: (number | null)[]
      ground: { id: string; utilisation: (number | null)[] }[]
      utilisation: (number | null)[]
      governs: (string | null)[]
      why: (string | null)[]
      error?: { code: string }
    }
    expect(answer.error).toBeUndefined()
    expect(answer.table.map((v) => v ?? NOT_RATED)).toEqual([...layer(map, 'rating')])
    const names = ['table', 'stability', ...base.ground.map((_, i) => `ground ${answer.ground[i]?.id}`)]
    answer.governs.forEach((g, i) => {
      const rated = answer.why[i] !== 'not-rated'
      expect(rated ? names.includes(g ?? '') : g === null, `${i}`).toBe(true)
      const use = answer.utilisation[i]
      if (use === null) return
      const parts: Record<string, number | null> = { table: answer.table[i] ?? null, stability: answer.stability[i] ?? null }
      for (const s of answer.ground) parts[`ground ${s.id}`] = s.utilisation[i] ?? null
      expect(parts[g as string]).toBeCloseTo(use as number, 9)
    })
    expect(answer.governs.some((g) => g !== null)).toBe(true)
    const many = calculatorNamed('capacity-map')?.run({
      ...rest,
      machine: modelOf(tern),
      table: ternTable,
      radii_m: Array.from({ length: 900 }, (_, i) => 4 + i / 100),
      slew_deg: Array.from({ length: 900 }, (_, i) => i / 3),
    })
    expect(many).toMatchObject({ error: { code: 'too-many-cells' } })
  })
})
