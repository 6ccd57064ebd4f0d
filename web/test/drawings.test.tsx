import 'fake-indexeddb/auto'
import { calculatorNamed, calculators, type Finding, isRefusal, type MapZone } from '@geolabe/core'
import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import fc from 'fast-check'
import { renderToStaticMarkup } from 'react-dom/server'
import { describe, expect, it } from 'vitest'
import { Editor } from '../src/calculators/form'
import { presentationOf } from '../src/calculators/presentations'
import { isObj, isTol, type Json, type Obj, plainOf, schemaOf } from '../src/calculators/schema'
import { ZoneLegend, Zones, zoneEnds } from '../src/instruments/zones'
import { UncertaintyPanel } from '../src/prove/uncertainty-panel'
import { Standing } from '../src/setup/standing'
import { unitIn } from '../src/units/field-names'
import { sayIn } from '../src/units/units'

const say = sayIn('metric')
const bad = /NaN|Infinity|undefined|null/

/** An input with every figure that has a unit made a little larger or smaller, readings among them; counts stay whole. */
function scaled(value: Json | undefined, by: number, name = ''): Json | undefined {
  if (typeof value === 'number') return unitIn(name) || name === 'measured' || name === 'value' ? value * by : value
  if (isTol(value)) return { value: value.value * by, tolerance: value.tolerance * by }
  if (Array.isArray(value)) return value.map((v) => scaled(v, by, name) as Json)
  if (isObj(value)) return Object.fromEntries(Object.entries(value).map(([k, v]) => [k, scaled(v, by, k)]))
  return value
}

describe.each(calculators.map((c) => [c.name, c] as const))('the drawing of %s', (name, c) => {
  it('says what it shows, is made of figures only, and stands still for the same figures', async () => {
    const p = (await presentationOf(name))?.presentation
    if (!p) throw new Error('no presentation')
    const draw = (input: Obj) => renderToStaticMarkup(<p.Drawing input={plainOf(input)} output={c.run(input)} say={say} />)
    const markup = draw(c.example as Obj)
    expect(markup).toMatch(/^<svg[^>]*role="img"/)
    expect(/aria-label="([^"]+)"/.exec(markup)?.[1]?.length ?? 0).toBeGreaterThan(10)
    expect(markup).not.toMatch(bad)
    expect(draw(structuredClone(c.example) as Obj)).toBe(markup)
  })
  it('moves with the numbers, and never shows what is no figure', async () => {
    const p = (await presentationOf(name))?.presentation
    if (!p) throw new Error('no presentation')
    const first = renderToStaticMarkup(<p.Drawing input={plainOf(c.example as Obj)} output={c.run(c.example)} say={say} />)
    let [drawn, moved] = [0, 0]
    for (const by of [0.7, 0.85, 0.97, 1.04, 1.2, 1.6]) {
      const input = scaled(c.example as Obj, by) as Obj
      const output = c.run(input)
      if (isRefusal(output)) continue
      drawn++
      const markup = renderToStaticMarkup(<p.Drawing input={plainOf(input)} output={output} say={say} />)
      expect(markup).not.toMatch(bad)
      if (markup !== first) moved++
    }
    // A wear or a table may be refused when scaled; what is drawn has to differ.
    if (drawn > 0) expect(moved).toBeGreaterThan(0)
  })
})

describe('the form of a sum', () => {
  const render = (name: string, fault: { path: string; message: string } | null = null) => {
    const c = calculatorNamed(name)
    if (!c) throw new Error(name)
    return renderToStaticMarkup(
      <QueryClientProvider client={new QueryClient()}>
        <Editor schema={schemaOf(c.input)} value={c.example as Obj} onChange={() => {}} path="" name="" fault={fault} />
      </QueryClientProvider>,
    )
  }
  it.each(calculators.map((c) => [c.name]))('%s: every input has a name of its own to be asked for by', (name) => {
    const markup = render(name)
    const ids = [...markup.matchAll(/<(?:input|select)[^>]*? id="([^"]+)"/g)].map((m) => m[1])
    expect(new Set(ids).size).toBe(ids.length)
    for (const id of ids) expect(markup).toContain(`for="${id}"`)
    // Those without an id carry their words themselves, or stand inside their label.
    for (const m of markup.matchAll(/<input(?![^>]*\bid=)[^>]*>/g)) expect(m[0]).toMatch(/aria-label="|type="checkbox"/)
    for (const b of markup.matchAll(/<button[^>]*>(.*?)<\/button>/g)) expect(b[0]).toMatch(/aria-label="[^"]+"|>[^<]*\w/)
    expect(markup).not.toMatch(/NaN|undefined/)
  })
  it('shows a refusal at the field it names', () => {
    const markup = render('ground-pressure', { path: 'mat.thickness_m', message: 'Must be more than zero.' })
    expect(markup).toContain('Must be more than zero.')
    expect(markup.match(/aria-invalid="true"/g)?.length).toBe(1)
    expect(render('ground-pressure')).not.toContain('aria-invalid="true"')
  })
})

describe('the zones on the dial', () => {
  const zone = fc.record({
    from_m: fc.double({ min: 1, max: 5, noNaN: true }),
    width_m: fc.double({ min: 0, max: 15, noNaN: true }),
    near: fc.double({ min: 0, max: 1, noNaN: true }),
    endedBy: fc.constantFrom(null, 'rating', 'overturning', 'ground:FL', 'outrigger:RR', 'clearance', 'overhead-line:line'),
  })
  it('are drawn for any list, with figures only, an edge for each run of one kind', () => {
    fc.assert(
      fc.property(fc.array(fc.option(zone, { nil: null }), { minLength: 8, maxLength: 72 }), (list) => {
        const zones = list.map((z, i): MapZone | null =>
          z
            ? {
                slew_deg: (i * 360) / list.length,
                from_m: z.from_m,
                to_m: z.from_m + z.width_m,
                near_m: z.from_m + z.near * z.width_m,
                endedBy: z.endedBy,
              }
            : null,
        )
        const markup = renderToStaticMarkup(
          <svg>
            <title>dial</title>
            <Zones zones={zones} thin={0.05} extent_m={20} />
          </svg>,
        )
        expect(markup).not.toMatch(bad)
        const kindOf = {
          rating: 'table',
          overturning: 'tipping',
          ground: 'foot',
          outrigger: 'foot',
          clearance: 'around',
        } as Record<string, string>
        const kinds = zones.map((z) => (z ? (z.endedBy ? (kindOf[z.endedBy.split(':')[0] ?? ''] ?? 'around') : 'table') : null))
        const runs = kinds.filter((k, i) => k !== null && kinds[i - 1] !== k).length
        expect(markup.match(/stroke-linejoin="round"/g)?.length ?? 0).toBe(runs)
      }),
      { numRuns: 60 },
    )
  })
  it('are explained in words, each edge with its own dashes', () => {
    const markup = renderToStaticMarkup(<ZoneLegend />)
    for (const e of zoneEnds) expect(markup).toContain(e.label)
    expect(new Set(zoneEnds.map((e) => e.dash.join(' '))).size).toBe(zoneEnds.length)
  })
})

describe('how sure a proof is', () => {
  const share = fc.double({ min: 0, max: 2, noNaN: true })
  it('is said by both ends and the measurement to better first', () => {
    fc.assert(
      fc.property(share, share, share, (a, b, c) => {
        const [low, nominal, high] = [a, b, c].sort((x, y) => x - y) as [number, number, number]
        const markup = renderToStaticMarkup(
          <UncertaintyPanel
            uncertainty={{ finding: 'rating', low, nominal, high, inputs: [{ id: 'lift.hung.load.mass_kg', share: 0.2 }] }}
          />,
        )
        for (const v of [low, nominal, high]) expect(markup).toContain(say('share', v))
        expect(markup).toContain('the load’s mass')
        expect(markup).not.toMatch(/NaN|-\d+(\.\d+)?%/)
      }),
    )
  })
  it('says so where no measurement would matter', () => {
    const markup = renderToStaticMarkup(
      <UncertaintyPanel
        uncertainty={{ finding: 'rating', low: 0.5, nominal: 0.5, high: 0.5, inputs: [{ id: 'conditions.wind_mps', share: 0 }] }}
      />,
    )
    expect(markup).toContain('No single ± makes a difference')
  })
})

describe('how a machine stands', () => {
  const figures = { subject: null, quantity: null, measured: null, nominal: null, limit: null, utilisation: null, at: null }
  const back: Finding = { ...figures, id: 'backward', check: 'backward', reason: 'falls-back', verdict: 'outside', detail: {} }
  it('is said where it concerns the whole machine and is not in order', () => {
    const markup = renderToStaticMarkup(<Standing findings={[back]} />)
    expect(markup).toContain('fall over backwards')
    expect(markup).toContain('Fit less counterweight')
    expect(markup).toMatch(/outside/i)
  })
  it('is not said twice: a leg, the level, and what is in order are said elsewhere or not at all', () => {
    const outrigger: Finding = {
      ...back,
      id: 'outrigger:FL',
      subject: 'FL',
      check: 'outrigger',
      reason: 'capacity',
      detail: { label: 'x', empty: false },
    }
    const level: Finding = { ...back, id: 'level', check: 'level', reason: 'unread', verdict: 'not-proven' }
    expect(renderToStaticMarkup(<Standing findings={[outrigger, level, { ...back, verdict: 'inside' }]} />)).toBe('')
  })
})
