import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  type InspectionFacts,
  isRaised,
  itemsOf,
  judge,
  limitsOf,
  type Measure,
  memoryPatterns,
  nearLimits,
  type Piece,
  queryReading,
  Refusal,
  readingTrend,
  soundReading,
  type Walkround,
  walkPart,
  walkround,
  walkroundTemplate,
  wearKinds,
  wearRules,
  wearsTowards,
  writtenOut,
} from '../src'
import { demoMachine, demoMachines } from './demo'

const positive = fc.double({ min: 5, max: 900, noNaN: true })
/** A measure of every kind that there is. */
const measures = fc.oneof(
  fc.tuple(positive, positive).map(
    ([a, b]): Measure => ({
      kind: 'range',
      label: 'Level',
      unit: 'mm',
      least: a,
      most: a + b,
      watchWithin: b / 8,
      source: 'book',
    }),
  ),
  fc.tuple(fc.constantFrom('loss' as const, 'growth' as const), positive).map(
    ([kind, nominal]): Measure => ({
      kind,
      label: 'Part',
      unit: 'mm',
      nominal,
      limit_share: 0.1,
      watch_share: 0.07,
      source: 'book',
    }),
  ),
  fc.tuple(fc.constantFrom(...wearKinds), positive, fc.boolean()).map(([wear, nominal, maker]): Measure => {
    const rule = wearRules[wear]
    const makerLimit = rule.by === 'maker' ? 4 : rule.by === 'range' ? 2 : maker ? 0.08 : undefined
    return {
      kind: 'wear',
      wear,
      ...(rule.by === 'maker' || rule.by === 'range' ? {} : { nominal }),
      ...(makerLimit === undefined ? {} : { makerLimit }),
    }
  }),
)
const verdict = (m: Measure, v: number) => {
  try {
    return judge(m, v).verdict
  } catch (e) {
    if (e instanceof Refusal) return e.code
    throw e
  }
}

describe('readings', () => {
  it('are beyond their limit exactly where the limits drawn for them say so, whatever is measured', () => {
    fc.assert(
      fc.property(measures, fc.double({ min: 0.001, max: 0.2, noNaN: true }), (m, off) => {
        const { least, most } = limitsOf(m)
        expect(least !== null || most !== null).toBe(true)
        const size = Math.max(1, least ?? 0, most ?? 0) * off
        const bad = ['discard', 'implausible']
        if (least !== null && least - size >= 0) expect(bad).toContain(verdict(m, least - size))
        if (most !== null) expect(bad).toContain(verdict(m, most + size))
        const sound = soundReading(m)
        if (least !== null) expect(sound).toBeGreaterThanOrEqual(least)
        if (most !== null) expect(sound).toBeLessThanOrEqual(most)
        expect(['ok', 'watch']).toContain(verdict(m, sound))
      }),
      { numRuns: 2000 },
    )
  })

  it('are judged with a source, the maker’s before the standard’s', () => {
    const standard = judge({ kind: 'wear', wear: 'fork-heel', nominal: 50 }, 46)
    expect(standard).toMatchObject({ verdict: 'watch', limit: 0.1, source: 'ISO 5057: 10 %' })
    const maker = judge({ kind: 'wear', wear: 'fork-heel', nominal: 50, makerLimit: 0.06 }, 46)
    expect(maker).toMatchObject({ verdict: 'discard', limit: 0.06, source: 'The maker’s limit' })
    expect(judge({ kind: 'wear', wear: 'battery-play', makerLimit: 9, source: 'Truck handbook' }, 3).source).toBe(
      'Truck handbook',
    )
  })

  it('on a worn part are asked about when it has come back by itself, and never when nothing changed', () => {
    fc.assert(
      fc.property(measures, fc.double({ min: 0.02, max: 0.3, noNaN: true }), (m, by) => {
        const sound = Math.max(soundReading(m), 1)
        const last = { at: '2026-05-01', value: sound }
        expect(queryReading(m, sound, undefined)).toBeNull()
        expect(queryReading(m, sound, last)).toBeNull()
        const towards = wearsTowards(m)
        if (towards === 'down') expect(queryReading(m, sound * (1 + by), last)).toMatch(/cannot have grown/)
        if (towards === 'up') expect(queryReading(m, sound * (1 - by), last)).toMatch(/cannot have shrunk/)
      }),
      { numRuns: 500 },
    )
  })

  it('that leap half the way to the limit are asked about: a fork that lost in a day what takes a year', () => {
    const fork: Measure = { kind: 'wear', wear: 'fork-heel', nominal: 50 }
    expect(queryReading(fork, 47.5, { at: '2026-05-01', value: 50 })).toBeNull()
    expect(queryReading(fork, 46.9, { at: '2026-05-01', value: 50 })).toMatch(/more than half/)
    expect(queryReading(fork, 51.2, { at: '2026-05-01', value: 50 })).toMatch(/cannot have grown/)
  })

  it('in a line reach their limit on the day the line does; a part replaced begins anew', () => {
    const rope: Measure = {
      kind: 'loss',
      label: 'Rope',
      unit: 'mm',
      nominal: 16,
      limit_share: 0.05,
      watch_share: 0.03,
      source: 'x',
    }
    const at = (day: number) => new Date(Date.UTC(2026, 0, 1 + day)).toISOString()
    const wearing = Array.from({ length: 5 }, (_, i) => ({ at: at(i * 10), value: 16 - 0.1 * i }))
    // A tenth of a millimetre in ten days: the limit of 15.2 is eight of them from 16.
    const t = readingTrend(rope, wearing)
    expect(t.limit).toBeCloseTo(15.2, 9)
    expect(t.reaches).toBe(at(80).slice(0, 10))
    expect(readingTrend(rope, [...wearing, { at: at(50), value: 16, replaced: true }])).toMatchObject({ enough: false })
    const level: Measure = { kind: 'range', label: 'Oil', unit: 'mm', least: 20, most: 80, source: 'x' }
    expect(
      readingTrend(
        level,
        [30, 29, 28].map((value, i) => ({ at: at(i), value })),
      ).limit,
    ).toBe(20)
    expect(
      readingTrend(
        level,
        [70, 71, 72].map((value, i) => ({ at: at(i), value })),
      ).limit,
    ).toBe(80)
  })
})

describe('what is near its limit', () => {
  const fork: Measure = { kind: 'wear', wear: 'fork-heel', nominal: 40 }
  const w = walkround.parse({
    before: [],
    zones: [{ id: 'z', label: 'Z', part: 'ground', at: [0, 0], items: [{ id: 'f', label: 'Fork', look: 'x', measure: fork }] }],
  })
  const at = '2026-01-01T07:00:00Z'
  it('is the last reading, or this round’s own, where it is watched', () => {
    expect(nearLimits(w, { f: [{ at, value: 39 }] })).toEqual([])
    expect(nearLimits(w, { f: [{ at, value: 37 }] })).toMatchObject([
      { label: expect.stringMatching(/^Fork,/), reading: 37, limit: 36 },
    ])
    expect(nearLimits(w, { f: [{ at, value: 37 }] }, { f: 36.5 })).toMatchObject([{ reading: 36.5 }])
    expect(nearLimits(w, { f: [{ at, value: 37 }] }, { f: null })).toMatchObject([{ reading: 37 }])
    expect(nearLimits(w, {})).toEqual([])
  })
  it('leaves out readings of what the list measured before it was changed, rather than refusing the machine', () => {
    expect(nearLimits(w, { f: [{ at, value: 900 }] })).toEqual([])
  })
})

const pieces: Piece[] = [
  {
    id: 'wheel',
    label: 'Wheel',
    items: [
      { id: 'tyre', label: 'Tyre', look: 'Tread', measure: { kind: 'wear', wear: 'tyre-pressure', nominal: 800 } },
      { id: 'nuts', label: 'Nuts', look: 'Even', measure: { kind: 'wear', wear: 'wheel-studs' } },
    ],
  },
]
const template = (item: object) =>
  walkroundTemplate.parse({
    format: 'geolabe.walkround/1',
    machine: 'm',
    revision: 1,
    before: [],
    zones: [{ id: 'left', label: 'Left', part: 'ground', at: [0, 1], items: [item] }],
  })

describe('shared pieces', () => {
  it('are written once and placed with their own name, place, and this machine’s measure', () => {
    const own: Measure = { kind: 'wear', wear: 'tyre-pressure', nominal: 350 }
    const placed = writtenOut(
      template({ piece: 'wheel', id: 'fl', label: 'Front left', also: 'rim whole', measures: { tyre: own } }),
      pieces,
    )
    expect(placed.zones[0]?.items).toMatchObject([
      { id: 'fl', label: 'Front left', look: 'Tread; rim whole', measure: own, piece: 'wheel' },
      { id: 'fl-nuts', label: 'Front left: nuts', measure: { wear: 'wheel-studs' } },
    ])
  })
  it('leave out a further item whose measure this machine has not, and name one that is not there', () => {
    const placed = writtenOut(template({ piece: 'wheel', id: 'fl', label: 'Front left', measures: { nuts: null } }), pieces)
    expect(placed.zones[0]?.items.map((i) => i.id)).toEqual(['fl'])
    expect(() => writtenOut(template({ piece: 'wing', id: 'fl', label: 'Front left' }), pieces)).toThrow(
      expect.objectContaining({ code: 'unknown-piece', path: 'zones.0.items.0.piece' }),
    )
  })
})

describe('a walk-round', () => {
  const zone = (id: string, part: string, items: object[]) => ({ id, label: id, part, at: [0, 0], items })
  const item = (id: string, over: object = {}) => ({ id, label: id, look: 'x', ...over })
  const round = (zones: object[]): Walkround => walkround.parse({ before: [], zones })

  it('does not leave a zone while a cover that was opened there is open', () => {
    const w = round([
      zone('left', 'ground', [item('a', { cover: 'Bonnet' }), item('b'), item('c', { cover: 'Bonnet' })]),
      zone('rear', 'ground', [item('d')]),
    ])
    expect(itemsOf(w).map((x) => x.item.id)).toEqual(['a', 'b', 'c', 'left-shut-bonnet', 'd'])
  })
  it('goes through its parts in their order and each id once', () => {
    const wrong = (zones: object[]) => walkround.safeParse({ before: [], zones }).error?.issues[0]?.message
    expect(wrong([zone('a', 'cab', [item('x')]), zone('b', 'ground', [item('y')])])).toMatch(/comes before/)
    expect(wrong([zone('a', 'ground', [item('x')]), zone('a', 'ground', [item('y')])])).toMatch(/Two zones/)
    expect(wrong([zone('a', 'ground', [item('x'), item('x')])])).toMatch(/Two items/)
    expect(wrong([zone('a', 'ground', [])])).toMatch(/at least one item/)
  })
})

/** What kinds.md asks to be seen, proved or heeded, in words that each machine's list has to hold. */
const asked: Record<string, string[]> = {
  tern: ['leg', 'rope', 'hook', 'limit|stop', 'counterweight', 'tyre|wheel', 'bubble', 'table'],
  heron: ['fold', 'rest', 'stalls', 'radio', 'air shut-off', 'extensions', 'leg', 'slew'],
  puffin: [
    'plate',
    'clamp',
    'relief valve|gas cylinder',
    'locating pin',
    'bracket',
    'overhead guard',
    'pedal',
    'load guard',
    'mast chain',
    'tips',
    'projected',
  ],
  whimbrel: ['ramp', 'exhaust', 'overhead guard', 'fork', 'mast', 'plate'],
  godwit: [
    'steering pivot',
    'isolator',
    'earth',
    'additive',
    'climate',
    'load-stability sensor',
    'coolers',
    'separator',
    'exhaust',
    'sight glass',
    'boom chain',
    'coupler',
    'camera',
    'belt',
    'controls free',
    'washer',
  ],
  gannet: [
    'bolts',
    'wheel guard',
    'rope',
    'drum',
    'travel alarm',
    'warm',
    'synchronised',
    'equalis',
    'blind spots',
    'creep',
    'steering aligned',
  ],
  dunlin: [
    'battery mass',
    'voltage',
    'floats',
    'connector',
    'brake fluid',
    'side shift',
    'weight',
    'seat switch',
    'foot guard',
    'charge',
  ],
  curlew: ['limits', 'tool shown is the tool fitted', 'basket', 'key', 'low gear', 'let go early', 'suspension'],
  fulmar: ['barriers', 'track', 'level', 'stage', 'side shift', 'pressure', 'hose'],
  wren: ['isolator', 'pins, both clips|both pins', 'blocks', 'two-button', 'hand-drawn', 'gravity', 'tag line'],
  petrel: ['braces', 'props', 'slew stops', 'not a parking brake', 'engine speed', 'clutch', 'hook stop'],
  plover: ['diverter', 'take-off', 'leg lock|its lock', 'wheel-lift', 'loose parts', 'width ends'],
  bittern: ['slabs', 'extension', 'only separate brake', 'rocker', 'scale', 'keeper', 'gas', 'oil pressure', 'boom pin'],
  kittiwake: ['pendant', 'chords', 'track', 'mode', 'held button', 'mast angle', 'bail', 'guards'],
  turnstone: ['number', 'leg-pressure|leg watch', 'hook stop', 'forbidden sectors', 'intermittent', 'edge', 'fuel'],
  sandpiper: [
    'harness',
    'lanyard',
    'anchor',
    'gates',
    'foot switch',
    'play',
    'restraints',
    'disconnect',
    'hour meters',
    'list incomplete',
    'three ways to stop',
    'over the shoulder',
  ],
  avocet: [
    'grip',
    'arm rotation',
    'hand rotation',
    'tilt',
    'lock ring|rim',
    'nuts',
    'radios',
    'reversing alarm',
    'spotter',
    'cones',
  ],
  cormorant: ['ladder', 'limiter', 'rope', 'wind gauge', 'camera', 'fault code', 'trolley limits', 'anchor'],
  dipper: [
    'throat',
    'twist',
    'latch',
    'chain',
    'capsized',
    'upper limit',
    'lower limit',
    'drift',
    'pendant',
    'end stops',
    'wheels',
    'least governs',
  ],
}

describe('the walk-rounds of the yard', () => {
  it('hold what is special in each kind', () => {
    for (const [id, words] of Object.entries(asked)) {
      const said = JSON.stringify(demoMachine(id).walkround).toLowerCase()
      for (const w of words) expect(new RegExp(w).test(said), `${id}: ${w}`).toBe(true)
    }
    expect(Object.keys(asked)).toHaveLength(19)
  })

  it.each(demoMachines)('%s: has a round for each time, zones near the machine, and readings that judge', (id) => {
    const m = demoMachine(id)
    const start = itemsOf(m.walkround)
    const points = m.outline.plan.flatMap((p) => p.points)
    const [xs, ys] = [points.map((p) => p[0]), points.map((p) => p[1])]
    for (const z of m.walkround.zones) {
      const out = (v: number, all: number[]) => Math.max(Math.min(...all) - v, v - Math.max(...all), 0)
      expect(Math.hypot(out(z.at[0], xs), out(z.at[1], ys)), z.id).toBeLessThan(5)
    }
    const parts = m.walkround.zones.map((z) => walkPart.options.indexOf(z.part))
    expect(parts).toEqual([...parts].sort((a, b) => a - b))
    for (const { item } of start) if (item.measure) expect(verdict(item.measure, soundReading(item.measure))).toMatch(/ok|watch/)
    if (['rush', 'sedge'].includes(id)) return
    expect(start.length).toBeGreaterThanOrEqual(25)
    expect(start.length).toBeLessThanOrEqual(62)
    const [absence, end] = [itemsOf(m.walkround, 'after-absence'), itemsOf(m.walkround, 'end-of-shift')]
    expect(absence.length).toBeGreaterThan(3)
    expect(absence.length).toBeLessThan(start.length / 2)
    expect(end.length).toBeGreaterThan(0)
    expect(start.some(isRaised)).toBe(true)
    expect(start.some((x) => x.item.plate)).toBe(true)
    expect(m.plateFields.length).toBeGreaterThan(2)
    expect(m.controls.does.length).toBeGreaterThan(2)
    expect(m.stops.length).toBeGreaterThan(0)
  })

  it('measure every kind of wear that has a rule, somewhere in the yard', () => {
    const used = new Set<string>()
    for (const id of demoMachines) {
      for (const { item } of itemsOf(demoMachine(id).walkround)) if (item.measure?.kind === 'wear') used.add(item.measure.wear)
    }
    expect(wearKinds.filter((k) => !used.has(k))).toEqual([])
  })

  it('write shared pieces once: most wheels, ropes and hooks are placed, not written again', () => {
    const all = demoMachines.flatMap((id) => itemsOf(demoMachine(id).walkround))
    const placed = all.filter((x) => x.item.piece)
    expect(placed.length / all.length).toBeGreaterThan(0.5)
  })
})

describe('rounds that look as if they were filled in from memory', () => {
  const rounds = (n: number, over: (i: number) => Partial<InspectionFacts> = () => ({})): InspectionFacts[] =>
    Array.from({ length: n }, (_, i) => ({
      id: `r${i}`,
      machine: 'tern',
      by: 'tomas',
      at: new Date(Date.UTC(2026, 0, 1 + i)).toISOString(),
      items: 40,
      duration_s: 300 + i * 7,
      defects: i % 9 === 0 ? 1 : 0,
      ...over(i),
    }))
  const kinds = (r: InspectionFacts[], now = '2026-02-01T00:00:00Z') => memoryPatterns(r, now).map((p) => p.kind)

  it('are found by what the record shows: forty seconds, the same time daily, never a defect in ninety days', () => {
    expect(kinds(rounds(20))).toEqual([])
    expect(kinds(rounds(3, () => ({ duration_s: 40, defects: 0 })))).toContain('too-quick')
    expect(kinds(rounds(6, (i) => ({ duration_s: 300 + (i % 3) })))).toEqual(['same-duration'])
    expect(
      kinds(
        rounds(100, () => ({ defects: 0 })),
        '2026-04-10T00:00:00Z',
      ),
    ).toEqual(['never-a-defect'])
  })
  it('are no accusation where somebody looked and found something, or the record is short', () => {
    expect(kinds(rounds(3, () => ({ duration_s: 40, defects: 1 })))).not.toContain('too-quick')
    expect(kinds(rounds(30, () => ({ defects: 0 })))).not.toContain('never-a-defect')
    expect(kinds(rounds(2, () => ({ duration_s: 300 })))).toEqual([])
  })
})
