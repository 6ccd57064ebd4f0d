import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { calculatorNamed, calculators, high, implausible, isRefusal, low, nominal } from '../src'
import { runs } from './runs'

const square = [
  { id: 'A', x_m: 3, y_m: 3 },
  { id: 'B', x_m: 3, y_m: -3 },
  { id: 'C', x_m: -3, y_m: -3 },
  { id: 'D', x_m: -3, y_m: 3 },
]

/** Every figure in an answer, however deep. */
function figuresOf(answer: unknown): number[] {
  const found: number[] = []
  JSON.stringify(answer, (_k, v) => {
    if (typeof v === 'number') found.push(v)
    return v
  })
  return found
}

const gone = Symbol('gone')
const damages = [-1, 0, 1e-300, 1e300, 1e9, Number.NaN, Infinity, -Infinity, null, 'seven', {}, [], true, gone] as const

/** A copy of an input with one of its nodes, figure or not, replaced or left out. */
function damaged(input: object, at: number, damage: (typeof damages)[number]): unknown {
  const copy = structuredClone(input)
  const places: [Record<string, unknown>, string][] = []
  const walk = (v: unknown) => {
    if (typeof v !== 'object' || v === null) return
    for (const [k, inner] of Object.entries(v)) {
      places.push([v as Record<string, unknown>, k])
      walk(inner)
    }
  }
  walk(copy)
  const [owner, key] = places[at % places.length] as [Record<string, unknown>, string]
  if (damage !== gone) owner[key] = damage
  else if (Array.isArray(owner)) owner.splice(Number(key), 1)
  else delete owner[key]
  return copy
}

describe('every calculator', () => {
  it('has a name of its own, a purpose, a source and cautions', () => {
    expect(new Set(calculators.map((c) => c.name)).size).toBe(calculators.length)
    for (const c of calculators) {
      expect(c.purpose.length).toBeGreaterThan(15)
      expect(c.source.length).toBeGreaterThan(5)
      expect(c.cautions.length).toBeGreaterThan(0)
    }
    expect(calculatorNamed('nothing')).toBeUndefined()
  })

  describe.each(calculators.map((c) => [c.name, c] as const))('%s', (_name, c) => {
    const input = c.example as Record<string, unknown>

    it('answers its worked example in the shape that it publishes', () => {
      const answer = c.run(input)
      expect(isRefusal(answer)).toBe(false)
      expect(c.output.safeParse(answer).error).toBeUndefined()
    })

    it('refuses every missing field it needs, by name', () => {
      const refused = Object.keys(input).filter((key) => {
        const { [key]: _left, ...rest } = input
        const answer = c.run(rest)
        if (!isRefusal(answer)) return false
        // Of two ways to say a thing one is needed; the refusal then names the pair.
        const named = answer.error.path.split('.')[0] === key || /-or-|^missing-field$/.test(answer.error.code)
        expect(named, `${key}: ${JSON.stringify(answer)}`).toBe(true)
        return true
      })
      expect(refused.length).toBeGreaterThanOrEqual(1)
    })

    it('refuses an unknown field by name', () => {
      expect(c.run({ ...input, moon: 3 })).toMatchObject({ error: { code: 'unknown-field', path: 'moon' } })
    })

    it('answers damaged inputs by the thousand without throwing and without NaN or Infinity', () => {
      let refused = 0
      fc.assert(
        fc.property(fc.nat(), fc.constantFrom(...damages), (at, damage) => {
          const copy = damaged(input, at, damage)
          const answer = c.run(copy)
          for (const n of figuresOf(answer)) if (!Number.isFinite(n)) throw new Error(`not finite: ${n}`)
          if (!isRefusal(answer)) return
          refused++
          if (!(answer.error.message.length > 5 && /^[a-z-]+$/.test(answer.error.code))) throw new Error(JSON.stringify(answer))
        }),
        { numRuns: runs(10_000) },
      )
      expect(refused).toBeGreaterThan(runs(10_000) / 10)
    })

    it('answers the same again, and leaves its input as it was', () => {
      const before = structuredClone(input)
      expect(c.run(input)).toEqual(c.run(input))
      expect(input).toEqual(before)
    })
  })
})

describe('tolerances', () => {
  const run = (input: unknown) =>
    calculatorNamed('wind-limit')?.run(input) as { limit_mps: number; low?: { limit_mps: number }; high?: { limit_mps: number } }
  const base = { chartLimit_mps: 10, referenceArea_m2_per_t: 1.2, mass_kg: 2000, sailArea_m2: 5, dragCoefficient: 1.2 }

  it('hold the nominal between low and high, and every figure inside the range, too', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 900, noNaN: true }),
        fc.double({ min: -1, max: 1, noNaN: true }),
        (tolerance, share) => {
          const r = run({ ...base, mass_kg: { value: 2000, tolerance }, sailArea_m2: { value: 5, tolerance: 1 } })
          const one = run({ ...base, mass_kg: 2000 + share * tolerance, sailArea_m2: 5 + share }).limit_mps
          const [lo, hi] = [r.low?.limit_mps ?? Number.NaN, r.high?.limit_mps ?? Number.NaN]
          expect(one).toBeGreaterThanOrEqual(lo - 1e-12)
          expect(one).toBeLessThanOrEqual(hi + 1e-12)
          expect(r.limit_mps).toBeGreaterThanOrEqual(lo)
          expect(r.limit_mps).toBeLessThanOrEqual(hi)
        },
      ),
    )
  })
  it('of nothing leave the answer as it is for a plain figure', () => {
    expect(run({ ...base, mass_kg: { value: 2000, tolerance: 0 } })).toEqual(run(base))
  })
  it('may not reach below what the figure allows, and at most twelve at once', () => {
    expect(run({ ...base, mass_kg: { value: 10, tolerance: 20 } })).toMatchObject({ error: { path: 'mass_kg.tolerance' } })
    const many = Array.from({ length: 13 }, () => ({ mass_kg: { value: 1000, tolerance: 1 }, x_m: 0, y_m: 0 }))
    expect(calculatorNamed('support-reactions')?.run({ supports: square, masses: many })).toMatchObject({
      error: { code: 'too-many-tolerances' },
    })
  })
  it('read by their ends', () => {
    expect([low(5), nominal(5), high(5)]).toEqual([5, 5, 5])
    const t = { value: 5, tolerance: 2 }
    expect([low(t), nominal(t), high(t)]).toEqual([3, 5, 7])
  })
})

describe('a figure that no machine has', () => {
  const run = (name: string, input: unknown) =>
    calculatorNamed(name)?.run(input) as { implausible?: { path: string; message: string }[]; error?: object }
  it('is computed with, and said beside the answer with its place', () => {
    const good = calculatorNamed('wind-load')?.example as Record<string, number>
    expect(run('wind-load', good).implausible).toBeUndefined()
    const slipped = run('wind-load', { ...good, mass_kg: 40_000_000, ropeLength_m: { value: 14_000, tolerance: 1 } })
    expect(slipped.error).toBeUndefined()
    expect(slipped.implausible?.map((x) => x.path)).toEqual(['mass_kg', 'ropeLength_m.value'])
    expect(slipped.implausible?.[0]?.message).toContain('5,000 t')
  })
  it('is found however deep it stands, and nowhere in the examples', () => {
    for (const c of calculators) expect(implausible(c.example), c.name).toEqual([])
    expect(implausible({ a: [{ b: { c_N: 1e12 } }], list_m: [1, 5000] }).map((x) => x.path)).toEqual(['a.0.b.c_N', 'list_m.1'])
    expect(implausible({ text: 'x', none: null, yes: true, angle_deg: 1e9 })).toEqual([])
  })
})
