import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { z } from 'zod'
import { type Calculator, calculatorNamed, calculators, isRefusal, type Worse, withBounds } from '../src'

const run = (name: string, input: unknown) => {
  const answer = calculatorNamed(name)?.run(input)
  if (!answer || isRefusal(answer)) throw new Error(`${name}: ${JSON.stringify(answer)}`)
  // biome-ignore lint/suspicious/noExplicitAny: answers are looked into, not typed, in tests
  return answer as any
}

type Json = null | boolean | number | string | Json[] | { [k: string]: Json }

/** Every field of an answer’s schema, lists as `*`. */
function fieldsOf(schema: z.ZodType): { path: string; kind: string; nothing: boolean }[] {
  const json = z.toJSONSchema(schema, { unrepresentable: 'any' }) as unknown as Record<string, never>
  const out: { path: string; kind: string; nothing: boolean }[] = []
  const walk = (s: Record<string, never>, path: string, nothing: boolean) => {
    const options = (s.anyOf ?? s.oneOf) as Record<string, never>[] | undefined
    if (options) {
      const real = options.filter((o) => String(o.type) !== 'null' && String(o.const) !== 'not-rated')
      if (real.length === 1) return walk(real[0] as Record<string, never>, path, nothing || real.length < options.length)
      out.push({ path, kind: 'mixed', nothing })
      return
    }
    const below = (k: string) => (path === '' ? k : `${path}.${k}`)
    if (s.properties) for (const [k, v] of Object.entries(s.properties)) walk(v as never, below(k), nothing)
    else if (s.type === 'array' && s.items) {
      out.push({ path, kind: 'list', nothing })
      walk(s.items as never, below('*'), false)
    } else if (s.type === 'array') out.push({ path, kind: 'words', nothing })
    else {
      const types = [s.type].flat().map(String)
      const figure = types.some((t) => t === 'number' || t === 'integer')
      out.push({ path, kind: figure ? 'figure' : 'word', nothing: nothing || types.includes('null') })
    }
  }
  walk(json, '', false)
  return out
}

/** The rule of a field, or of one above it that takes it along whole. */
function ruleFor(c: Calculator, path: string): Worse | undefined {
  const parts = path.split('.')
  for (let n = parts.length; n > 0; n--) {
    const w = c.worse[parts.slice(0, n).join('.')]
    if (w === undefined) continue
    if (n === parts.length) return w
    if (w === 'given' || (typeof w === 'object' && ('with' in w || 'unite' in w || 'arcs' in w))) return w
  }
  return undefined
}

describe('which way is worse', () => {
  it.each(calculators.map((c) => [c.name, c] as const))('%s declares it for every field of its answer', (_n, c) => {
    const fields = fieldsOf(c.output)
    for (const f of fields) {
      const w = ruleFor(c, f.path)
      if (f.kind === 'list') continue
      expect(w, `${c.name}: ${f.path}`).toBeDefined()
      if (f.kind !== 'figure') expect(['high', 'low', 'either'], `${c.name}: ${f.path} is no figure`).not.toContain(w)
    }
    const paths = new Set(fields.flatMap((f) => f.path.split('.').map((_, i, all) => all.slice(0, i + 1).join('.'))))
    for (const path of Object.keys(c.worse)) expect(paths, `${c.name} declares ${path}, which it does not answer`).toContain(path)
    for (const w of Object.values(c.worse)) if (typeof w === 'object' && 'with' in w) expect(paths).toContain(w.with)
  })
})

/** Inputs that may carry a ±: plain numbers where the schema takes both. */
function tolerable(c: Calculator): string[][] {
  const found: string[][] = []
  const walk = (v: Json, path: string[]) => {
    if (typeof v === 'number') {
      const asTolerant = put(c.example as Json, path, { value: v, tolerance: 0 })
      if (c.input.safeParse(asTolerant).success) found.push(path)
    } else if (typeof v === 'object' && v !== null) {
      if ('value' in v && 'tolerance' in v) found.push(path)
      else for (const [k, x] of Object.entries(v)) walk(x, [...path, k])
    }
  }
  walk(c.example as Json, [])
  return found
}
const get = (v: Json, path: string[]): Json => path.reduce<Json>((x, k) => (x as Record<string, Json>)[k] as Json, v)
function put(v: Json, [key, ...rest]: string[], by: Json): Json {
  if (key === undefined) return by
  if (Array.isArray(v)) return v.map((x, i) => (String(i) === key ? put(x, rest, by) : x))
  const o = v as Record<string, Json>
  return { ...o, [key]: put(o[key] as Json, rest, by) }
}
const plainOf = (v: Json) => (typeof v === 'number' ? v : (v as { value: number }).value)

/** Every answer inside a ± is inside the bounds: figures between them, words no worse than what is said. */
function contained(c: Calculator, one: Json, bounded: Record<string, Json>, path = '', at: string[] = []): void {
  const w = ruleFor(c, path)
  if (w === 'given' || (typeof w === 'object' && ('with' in w || 'unite' in w || 'arcs' in w))) return
  const ends = [bounded.low, bounded.high].map((end) =>
    at.reduce<Json | undefined>((x, k) => (x as Record<string, Json> | undefined)?.[k], end as Json),
  )
  if (typeof one === 'number') {
    const [lo, hi] = ends
    const slack = 1e-6 * Math.max(1, Math.abs(one))
    if (typeof lo === 'number') expect(one, `${c.name} ${path}`).toBeGreaterThanOrEqual(lo - slack)
    if (typeof hi === 'number') expect(one, `${c.name} ${path}`).toBeLessThanOrEqual(hi + slack)
  } else if (typeof w === 'boolean') {
    if (one === w) for (const e of ends) expect(e, `${c.name} ${path}`).toBe(w)
  } else if (typeof w === 'object' && 'words' in w) {
    for (const e of ends)
      expect(w.words.indexOf(e as never), `${c.name} ${path}`).toBeGreaterThanOrEqual(w.words.indexOf(one as never))
  } else if (Array.isArray(one)) {
    const key = typeof w === 'object' && 'rows' in w ? w.rows : null
    one.forEach((row, i) => {
      const list = ends.map((e) => (Array.isArray(e) ? e : []))
      const places = list.map((l) => (key === null ? i : l.findIndex((x) => (x as never)[key] === (row as never)[key])))
      if (places[0] !== places[1] || (places[0] ?? -1) < 0) return
      contained(c, row, bounded, path === '' ? '*' : `${path}.*`, [...at, String(places[0])])
    })
  } else if (typeof one === 'object' && one !== null)
    for (const [k, v] of Object.entries(one)) contained(c, v, bounded, path === '' ? k : `${path}.${k}`, [...at, k])
}

/** What one answer costs milliseconds. */
const dear = new Set([
  'reaction-envelope',
  'capacity-map',
  'clearance',
  'backward-stability',
  'boom-raising',
  'articulated-rating',
])

describe('bounds', () => {
  const wide = calculators.filter((c) => !['wear-trend', 'table-check'].includes(c.name))
  it.each(wide.map((c) => [c.name, c] as const))('of %s hold every answer inside the ±', (_n, c) => {
    const places = tolerable(c)
    expect(places.length).toBeGreaterThan(0)
    let compared = 0
    fc.assert(
      fc.property(
        fc.array(fc.nat(places.length - 1), { minLength: 1, maxLength: 3 }),
        fc.double({ min: 0.01, max: 0.6, noNaN: true }),
        fc.array(fc.array(fc.double({ min: -1, max: 1, noNaN: true }), { minLength: 3, maxLength: 3 }), {
          minLength: 8,
          maxLength: 8,
        }),
        (picked, share, points) => {
          const paths = [...new Set(picked)].map((i) => places[i] as string[])
          // Everything else as stated, so that only these have a ±.
          const flat = places.reduce<Json>((v, p) => put(v, p, plainOf(get(v, p))), c.example as Json)
          const width = paths.map((p) => share * Math.max(0.05, Math.abs(plainOf(get(flat, p)))))
          const around = paths.reduce<Json>(
            (v, p, k) => put(v, p, { value: plainOf(get(flat, p)), tolerance: width[k] as number }),
            flat,
          )
          const bounded = c.run(around)
          if (isRefusal(bounded)) return
          for (const at of points) {
            const inside = paths.reduce<Json>(
              (v, p, k) => put(v, p, plainOf(get(flat, p)) + (at[k] as number) * (width[k] as number)),
              flat,
            )
            const one = c.run(inside)
            if (isRefusal(one)) continue
            const { implausible: _i, ...figures } = one as Record<string, Json>
            contained(c, figures, bounded as Record<string, Json>)
            compared++
          }
        },
      ),
      { numRuns: dear.has(c.name) ? 4 : 25 },
    )
    expect(compared).toBeGreaterThan(8)
  })

  it('are the true extremes of a function that turns inside the ±', () => {
    const turned = run('level-effect', { height_m: 20, pitch_deg: 1, roll_deg: 0, slew_deg: { value: 0, tolerance: 90 } })
    expect(turned.low.radiusChange_m).toBeCloseTo(-20 * Math.tan(Math.PI / 180), 9)
    expect(turned.high.radiusChange_m).toBeCloseTo(0, 9)
    fc.assert(
      fc.property(fc.double({ min: -50, max: 50, noNaN: true }), fc.double({ min: 0.5, max: 3, noNaN: true }), (centre, half) => {
        const f = (x: { a_m: number; b_m: number }) => ({ y: Math.sin(x.a_m) + 0.3 * Math.cos(2 * x.b_m) })
        const input = { a_m: { value: centre, tolerance: half }, b_m: { value: centre / 3, tolerance: half } }
        const b = withBounds(input, (x: unknown) => f(x as never), { worse: { y: 'either' } }) as unknown as {
          low: { y: number }
          high: { y: number }
        }
        for (let i = 0; i <= 60; i++)
          for (let j = 0; j <= 60; j++) {
            const { y } = f({ a_m: centre + half * (i / 30 - 1), b_m: centre / 3 + half * (j / 30 - 1) })
            expect(y).toBeGreaterThanOrEqual(b.low.y - 1e-9)
            expect(y).toBeLessThanOrEqual(b.high.y + 1e-9)
          }
      }),
      { numRuns: 20 },
    )
  })

  it('see every row of a table that stands inside the ±', () => {
    const example = structuredClone(calculatorNamed('chart-reading')?.example) as Record<string, unknown>
    const chart = example.chart as { configurations: { columns: number[]; rows: unknown[] }[] }
    ;(chart.configurations[0] as { columns: number[] }).columns = [20]
    ;(chart.configurations[0] as { rows: unknown[] }).rows = [
      [6, 5000],
      [7, 3000],
      [8, 6000],
      [9, 2000],
      [10, 4000],
    ].map(([at, kg]) => ({ at, ratings_kg: [kg] }))
    const r = run('chart-reading', { ...example, boom_m: 20, radius_m: { value: 8, tolerance: 2 }, load_kg: 1500 })
    expect(r.low.gross_kg).toBe(2000)
    expect(r.high.gross_kg).toBe(6000)
    const beyond = run('chart-reading', { ...example, boom_m: 20, radius_m: { value: 9.5, tolerance: 1 }, load_kg: 1500 })
    expect(beyond.low.gross_kg).toBe('not-rated')
    // Whole rows of the table go together.
    for (const row of r.low.rows)
      expect([
        [6, 5000],
        [7, 3000],
        [8, 6000],
        [9, 2000],
        [10, 4000],
      ]).toContainEqual([row.row, row.rating_kg])
  })

  it('put what decides at its worse end everywhere, and unite lists of different length', () => {
    const worn = run('wear', { kind: 'fork-heel', nominal: 50, measured: { value: 49, tolerance: 5 } })
    expect([worn.verdict, worn.low.verdict, worn.high.verdict]).toEqual(['discard', 'discard', 'discard'])
    const truck = run('axle-loads', {
      truck: { mass_kg: 4200, cgBehindFront_m: 1, wheelbase_m: 1.6 },
      load: { mass_kg: { value: 4000, tolerance: 600 }, aheadOfFront_m: 1 },
      frontWheels: 2,
    })
    expect([truck.tips, truck.low.tips, truck.high.tips]).toEqual([true, true, true])
    const round = run('reaction-envelope', {
      supports: [
        { id: 'A', x_m: 2, y_m: 2 },
        { id: 'B', x_m: 2, y_m: -2 },
        { id: 'C', x_m: -2, y_m: -2 },
        { id: 'D', x_m: -2, y_m: 2 },
      ],
      masses: [{ mass_kg: { value: 14_000, tolerance: 6000 }, x_m: 0, y_m: 0 }],
      slewing: [{ mass_kg: 4000, radius_m: 8 }],
      from_deg: 0,
      to_deg: 360,
      step_deg: 2,
    })
    expect(round.low.margin.least_m).toBeLessThan(0)
    expect(round.unstable.length).toBeGreaterThan(0)
    expect(round.lifted.length).toBeGreaterThan(0)
  })
})
