import 'fake-indexeddb/auto'
import { itemsOf, type Measure, readingTrend } from '@geolabe/core'
import { renderToStaticMarkup } from 'react-dom/server'
import { describe, expect, it } from 'vitest'
import { readMachineFile, readOrganisations } from '../../server/src/demo/files'
import type { Waiting } from '../src/api/outbox'
import { SpotOn } from '../src/instruments/spot'
import { Trend } from '../src/instruments/trend'
import { stopsFromHere } from '../src/shift/frame'
import { nextStation, stationsOf } from '../src/shift/route-line'
import { judgedWords, readText } from '../src/walkround/reading'
import { ZonePlan, ZoneSide } from '../src/walkround/zone-plan'

const ids = readOrganisations().flatMap((o) => o.machines)
const machine = readMachineFile
const noHole = (svg: string) => {
  expect(svg).not.toMatch(/NaN|Infinity|undefined/)
  return svg
}

describe('the machine with its zones', () => {
  it.each(ids)('%s: is drawn from above and from its left, every zone once, inside the picture', (id) => {
    const m = machine(id)
    const items = itemsOf(m.walkround)
    const zones = new Set(items.map((x) => x.zone.id))
    const plan = noHole(
      renderToStaticMarkup(<ZonePlan machine={m} items={items} entries={new Map()} here={null} onZone={() => {}} />),
    )
    expect(plan.match(/aria-label="Zone \d+,/g)).toHaveLength(zones.size)
    const [x, y, w, h] = (plan.match(/viewBox="([^"]+)"/)?.[1] ?? '').split(' ').map(Number) as [number, number, number, number]
    for (const c of plan.matchAll(/<circle class="ring[^>]*cx="([^"]+)" cy="([^"]+)" r="([^"]+)"/g)) {
      const [cx, cy, r] = [Number(c[1]), Number(c[2]), Number(c[3])]
      expect(cx - r).toBeGreaterThanOrEqual(x)
      expect(cx + r).toBeLessThanOrEqual(x + w)
      expect(cy - r).toBeGreaterThanOrEqual(y)
      expect(cy + r).toBeLessThanOrEqual(y + h)
    }
    for (const zone of m.walkround.zones) noHole(renderToStaticMarkup(<ZoneSide machine={m} zone={zone} number={1} />))
    noHole(renderToStaticMarkup(<SpotOn machine={m} spot={{ view: 'plan', at: [0, 0] }} onSpot={null} view="plan" />))
  })
})

describe('a route', () => {
  it.each(ids)('%s: has a way from sign-on to handover, and its next station is always one of its own', (id) => {
    const m = machine(id)
    const own = stationsOf(m)
    expect(own[0]).toBe('sign-on')
    expect(own.at(-1)).toBe('stow')
    const at = '2026-01-01T07:00:00Z'
    const fresh = {
      inspections: [
        { id: 'i', occasion: 'pre-use', openedAt: at, entries: [], finishedAt: null, raisedAt: null, handsOnAt: null },
      ],
      site: null,
      setups: [],
      lifts: [],
      order: [],
    } as unknown as Parameters<typeof nextStation>[0]
    const inspected = (s: typeof fresh, by: object) => ({ ...s, inspections: s.inspections.map((i) => ({ ...i, ...by })) })
    const walked = inspected(fresh, { finishedAt: at })
    const looked = { ...walked, site: { controls: [], more: [], team: ['I'], fit: true, at } }
    const stood = {
      ...looked,
      setups: [{}] as never,
    }
    const raised = inspected(stood, { raisedAt: at })
    for (const s of [fresh, walked, looked, stood, raised]) expect(own).toContain(nextStation(s, m))
    expect(nextStation(fresh, m)).toBe('walk-round')
    expect(['prove', 'lift']).toContain(nextStation(raised, m))
  })
})

describe('a reading as it is typed', () => {
  const fork: Measure = { kind: 'wear', wear: 'fork-heel', nominal: 40 }
  const item = { id: 'f', label: 'Fork', look: 'x', measure: fork }
  const last = [{ at: '2026-01-01T07:00:00Z', value: 37, replaced: false }]
  it('is judged, refused or asked about at once, with a comma as well as a point', () => {
    expect(readText(item, '', last)).toEqual({ reading: null, judgement: null, wrong: null, query: null })
    expect(readText(item, '36,8', last)).toMatchObject({ reading: 36.8, judgement: { verdict: 'watch' }, query: null })
    expect(readText(item, '35.9', last).judgement?.verdict).toBe('discard')
    expect(readText(item, '39', last).query).toMatch(/cannot have grown/)
    expect(readText(item, '400', last).wrong).toMatch(/does not belong to a part of 40 mm/)
    expect(readText(item, 'thirty', last).wrong).toBe('Not a figure. Use digits, with a comma or point.')
    expect(readText(item, '-3', last).wrong).toMatch(/zero or more/)
    const judged = readText(item, '36.8', last).judgement
    expect(judged && judgedWords(fork, judged)).toBe('In order, close to its limit: not under 36 mm. Watch it.')
  })
  it('is drawn beside the earlier ones with its limit, also when there is but one, or all are alike', () => {
    const at = (i: number) => new Date(Date.UTC(2026, 0, 1 + i)).toISOString()
    for (const values of [[37], [37, 37, 37], [39, 38, 37], [30, 45]]) {
      const readings = values.map((value, i) => ({ at: at(i), value }))
      const svg = noHole(
        renderToStaticMarkup(<Trend measure={fork} readings={readings} trend={readingTrend(fork, readings)} now={36.5} />),
      )
      expect(svg).toContain('limit 36')
    }
  })
})

describe('a defect that stops and is still on this device', () => {
  const waiting = (machine: string, grade: string, what = 'raise-defect') =>
    [{ what, body: { machine, grade } }] as unknown as Waiting[]
  it('stops whoever entered it, on that machine, by its grade or where every defect stops', () => {
    expect(stopsFromHere(waiting('tern', 'hazard'), 'tern', 'operator-grades')).toBeDefined()
    expect(stopsFromHere(waiting('tern', 'damage'), 'tern', undefined)).toBeDefined()
    expect(stopsFromHere(waiting('tern', 'watch'), 'tern', 'operator-grades')).toBeUndefined()
    expect(stopsFromHere(waiting('dunlin', 'watch'), 'dunlin', 'stops-until-graded')).toBeDefined()
    expect(stopsFromHere(waiting('puffin', 'hazard'), 'tern', 'operator-grades')).toBeUndefined()
    expect(stopsFromHere(waiting('tern', 'hazard', 'enter-item'), 'tern', 'operator-grades')).toBeUndefined()
  })
})
