import { calculators, isRefusal } from '@geolabe/core'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { measuredNow, type Typed, withMeasured } from '../src/calculators/as-measured'
import type { At } from '../src/calculators/drawings/at'
import { presentationOf } from '../src/calculators/presentations'
import { isObj, type Json, moved, type Obj, plainOf } from '../src/calculators/schema'
import { sayIn } from '../src/units/units'

const say = sayIn('metric')

/** Each calculator with points to drag, at its example. */
const dragged = (
  await Promise.all(calculators.map(async (c) => ({ c, grips: (await presentationOf(c.name))?.presentation.grips })))
).flatMap(({ c, grips }) => (grips ? [{ name: c.name, c, grips }] : []))
const gripsOf = ({ c, grips }: (typeof dragged)[number], input: Obj) => {
  const answer = c.run(input)
  return isRefusal(answer) ? null : grips(plainOf(input), answer, say)
}
const figures = (v: unknown): number[] =>
  typeof v === 'number' ? [v] : typeof v === 'object' && v !== null ? Object.values(v).flatMap(figures) : []

describe('what is dragged in a drawing of a calculator', () => {
  it('is most of what is a place, a length or an angle', () => {
    expect(dragged.length).toBeGreaterThanOrEqual(25)
  })
  it.each(dragged)('$name: a point left where it is changes nothing', (d) => {
    const example = plainOf(d.c.example as Obj) as Obj
    const grips = gripsOf(d, example) ?? []
    expect(grips.length).toBeGreaterThan(0)
    expect(new Set(grips.map((g) => g.label)).size).toBe(grips.length)
    for (const g of grips) {
      const next = moved(example, g.to(g.at) as Json)
      const [was, is] = [figures(example), figures(next)]
      expect(is.length, g.label).toBe(was.length)
      for (const [i, v] of is.entries()) expect(v, g.label).toBeCloseTo(was[i] ?? Number.NaN, 6)
    }
  })
  it.each(dragged)('$name: a point stays under the finger, or is not moved', (d) => {
    const example = plainOf(d.c.example as Obj) as Obj
    const share = fc.double({ min: -0.4, max: 0.4, noNaN: true })
    let followed = 0
    fc.assert(
      fc.property(fc.nat(), share, share, (pick, dx, dy) => {
        const grips = gripsOf(d, example) ?? []
        const g = grips[pick % grips.length]
        if (!g) return
        const far = Math.max(1, Math.abs(g.at[0]), Math.abs(g.at[1]))
        const to: At = [g.at[0] + dx * far, g.at[1] + dy * far]
        const part = g.to(to)
        const next = moved(example, part as Json)
        const now = isObj(next) && gripsOf(d, next)?.find((x) => x.label === g.label)
        if (!now) return
        followed++
        // Where it stands now says the same of the input as the finger did.
        const [said, says] = [figures(part), figures(now.to(now.at))]
        for (const [i, v] of says.entries()) {
          const off = Math.abs(v - (said[i] ?? Number.NaN))
          expect(Math.min(off, Math.abs(off - 360)), `${g.label} ${to}`).toBeLessThan(1e-6)
        }
      }),
      { numRuns: 60, seed: 20260502 },
    )
    expect(followed).toBeGreaterThan(0)
  })
})

describe('what people measure instead', () => {
  const measured = async (name: string) => {
    const p = await presentationOf(name)
    if (!p?.presentation.asMeasured) throw new Error(`${name} has nothing measured`)
    return { example: plainOf(p.calculator.example as Obj) as Obj, ...p.presentation.asMeasured }
  }
  it('says of what follows from it what it was', async () => {
    const names = (await Promise.all(calculators.map(async (c) => ({ c, p: await presentationOf(c.name) })))).filter(
      ({ p }) => p?.presentation.asMeasured,
    )
    expect(names.length).toBeGreaterThanOrEqual(8)
    for (const { c } of names) {
      const { example, figures, to } = await measured(c.name)
      const now = Object.fromEntries(Object.entries(figures).map(([k, of]) => [k, of(example)]))
      for (const k of Object.keys(now)) {
        const more = { ...now, [k]: (now[k] ?? 0) * 1.1 }
        const next = moved(example, JSON.parse(JSON.stringify(to(more, example))))
        for (const [name, of] of Object.entries(figures)) expect(of(next), `${c.name} ${name}`).toBeCloseTo(more[name] ?? 0, 9)
      }
    }
  })
  it('comes back from a nought on the way, and from what cannot be', async () => {
    for (const name of ['tipping-load', 'sling-tension', 'truck-rating']) {
      const { example, ...rest } = await measured(name)
      for (const [figure, of] of Object.entries(rest.figures)) {
        const wanted = of(example) * 0.9
        const typing = [0, undefined, wanted].reduce<{ input: Obj; typed: Typed | null }>(
          ({ input, typed }, v) => {
            const next = withMeasured(rest, input, typed, figure, v)
            return { input: next.made, typed: next }
          },
          { input: example, typed: null },
        )
        expect(of(typing.input), `${name} ${figure}`).toBeCloseTo(wanted, 9)
        expect(measuredNow(rest, typing.input, typing.typed)[figure]).toBe(wanted)
        // What somebody else changes since counts from there.
        const other = { ...typing.input }
        expect(measuredNow(rest, other, typing.typed)[figure]).toBeCloseTo(wanted, 4)
      }
    }
  })
  it('hangs the hook where the sling that goes furthest out lets it', async () => {
    const { example, to } = await measured('sling-tension')
    const part = to({ slingLength_m: 2.5, spreadAlong_m: 2.4, spreadAcross_m: 1.4 }, { ...example, cg: { x_m: 0, y_m: 0 } })
    expect(moved(example, part as Json)).toMatchObject({ hook: { z_m: 0.9 + Math.sqrt(2.5 ** 2 - 1.2 ** 2 - 0.7 ** 2) } })
  })
})

describe('an input with a part of it moved', () => {
  it('keeps its ± and every other entry', () => {
    const was = { a_m: { value: 2, tolerance: 0.1 }, list: [{ x_m: 1 }, { x_m: 2, y_m: 3 }], kind: 'b' }
    expect(moved(was, { a_m: 2.5, list: { 1: { x_m: 4 } } })).toEqual({
      a_m: { value: 2.5, tolerance: 0.1 },
      list: [{ x_m: 1 }, { x_m: 4, y_m: 3 }],
      kind: 'b',
    })
  })
})
