import { describe, expect, it } from 'vitest'
import {
  byUse,
  changeWords,
  checkNames,
  type Finding,
  finding,
  findingWords,
  governingOf,
  isWorse,
  type MatKind,
  type RemedyKind,
  reasons,
  type Said,
  sayMetric,
  shareOf,
  verdict,
  worseVerdict,
} from '../src'
import { northQuay } from './demo'

const figures = {
  id: 'x',
  subject: null,
  verdict: 'inside',
  quantity: 'mass',
  measured: 3000,
  nominal: 2900,
  limit: 4000,
  utilisation: 0.75,
  at: { radius_m: 9, slew_deg: 120 },
} as const
const bare = {}
const rated = { table: 'Legs full', boom_m: 19.4, rule: 'linear', basis: 'structural' } as const
const deck = { label: 'front left leg', empty: false, ground: 'Quay deck', source: 'An engineer.' }
const quay = { label: 'front left leg', edge: 'Quay edge' }
const wall = { label: 'Market wall' }
const wires = { label: '11 kV line' }
const shown = { thing: 'attachment', reads: 'fender-clamp', is: 'tyre-hand' } as const
const hidden = { ...wall, from_deg: 12, to_deg: 31 }
const turned = { rate_deg_s: 4, quiet_s: 8.2, out_m: 0.4 }
/** One of every reason that a check can give, some twice. */
const given: Said[] = [
  { check: 'mass', reason: 'unknown', detail: bare },
  { check: 'mass', reason: 'lifted-unknown', detail: bare },
  { check: 'structure', reason: 'arm', detail: { out_m: 2.6 } },
  { check: 'structure', reason: 'foot-bears', detail: bare },
  { check: 'structure', reason: 'foot-pull', detail: bare },
  { check: 'motion', reason: 'up-and-down', detail: { label: 'On its outriggers, props under the boom' } },
  { check: 'axle', reason: 'front-left', detail: bare },
  { check: 'motion', reason: 'made-otherwise', detail: { label: 'On its wheels, to tow' } },
  { check: 'traction', reason: 'towed-unknown', detail: { piece: 'Quay road' } },
  { check: 'way', reason: 'no-radius', detail: { piece: 'Turn 2' } },
  { check: 'way', reason: 'no-axle', detail: { piece: 'Turn 2' } },
  { check: 'way', reason: 'too-tight', detail: { piece: 'Turn 2' } },
  { check: 'way', reason: 'through', detail: { label: 'Rack 2', x_m: 9, y_m: 6.5 } },
  { check: 'way', reason: 'touches', detail: { label: 'Rack 2', x_m: 9, y_m: 6.5 } },
  { check: 'way', reason: 'beside', detail: { label: 'Rack 2', x_m: 9, y_m: 6.5 } },
  { check: 'selection', reason: 'not-entered', detail: { thing: 'attachment' } },
  { check: 'selection', reason: 'agrees', detail: shown },
  { check: 'selection', reason: 'differs', detail: shown },
  { check: 'rating', reason: 'marks', detail: { part: 'hoist' } },
  { check: 'rating', reason: 'no-mark', detail: { part: 'hook' } },
  { check: 'hoist-rope', reason: 'chain', detail: { falls: 2 } },
  { check: 'rating', reason: 'grid', detail: { table: 'Forks, stabilisers up', height_m: 8, reach_m: 3 } },
  { check: 'rating', reason: 'off-grid', detail: { table: 'Forks, stabilisers up', height_m: 8, reach_m: 6 } },
  { check: 'rating', reason: 'stage', detail: { label: 'Tower A', table: 'Load on the middle line', height_m: 5 } },
  { check: 'rating', reason: 'hoist', detail: { label: 'Front hoist' } },
  { check: 'rating', reason: 'no-mark-on', detail: { label: 'Rear hoist' } },
  { check: 'share', reason: 'nothing-on', detail: bare },
  { check: 'share', reason: 'least', detail: { label: 'Rear hoist' } },
  { check: 'overturning', reason: 'frame', detail: { edge: 'side' } },
  { check: 'overturning', reason: 'by-papers', detail: bare },
  { check: 'overturning', reason: 'no-papers', detail: bare },
  { check: 'overturning', reason: 'papers-expired', detail: { until: '2026-09-30' } },
  { check: 'level', reason: 'fall-unread', detail: bare },
  { check: 'level', reason: 'fall', detail: { way: 'along' } },
  { check: 'motion', reason: 'one-at-a-time', detail: bare },
  { check: 'motion', reason: 'ballast-stands', detail: bare },
  { check: 'motion', reason: 'ballast-hangs', detail: bare },
  { check: 'backward', reason: 'behind', detail: bare },
  { check: 'structure', reason: 'pendants', detail: { boom_m: 48, at_deg: 0 } },
  { check: 'structure', reason: 'raising-front', detail: { boom_m: 48 } },
  { check: 'structure', reason: 'other-boom', detail: {} },
  { check: 'motion', reason: 'sync-unread', detail: bare },
  { check: 'motion', reason: 'aligned', detail: bare },
  { check: 'motion', reason: 'not-aligned', detail: bare },
  { check: 'structure', reason: 'header', detail: { label: 'Front header' } },
  { check: 'structure', reason: 'pressure', detail: { label: 'Tower A' } },
  { check: 'structure', reason: 'sideways', detail: bare },
  { check: 'structure', reason: 'no-hull', detail: bare },
  {
    check: 'structure',
    reason: 'bending',
    detail: { label: 'Beam', stress_MPa: 42.7, allowable_MPa: 70, section_m: 3, at_m: 3 },
  },
  { check: 'structure', reason: 'trolley', detail: { wheels: 4 } },
  { check: 'structure', reason: 'held-down', detail: bare },
  { check: 'structure', reason: 'pulled-up', detail: bare },
  { check: 'guard', reason: 'no-figure', detail: bare },
  { check: 'guard', reason: 'height', detail: { tiers: 3 } },
  { check: 'sight', reason: 'beyond-remote', detail: { post: 2 } },
  { check: 'sight', reason: 'seen', detail: bare },
  { check: 'sight', reason: 'covered', detail: { ...hidden, by: 'Wanda Rook' } },
  { check: 'sight', reason: 'blind', detail: hidden },
  { check: 'sight', reason: 'no-camera', detail: hidden },
  { check: 'sight', reason: 'no-signaller', detail: hidden },
  { check: 'sight', reason: 'no-signals', detail: hidden },
  { check: 'sight', reason: 'no-load-size', detail: wall },
  { check: 'sight', reason: 'signaller-blind', detail: hidden },
  { check: 'sight', reason: 'signaller-unseen', detail: wall },
  { check: 'people', reason: 'stands-clear', detail: { role: 'slinger' } },
  { check: 'people', reason: 'stands-under', detail: { role: 'tag-line' } },
  { check: 'people', reason: 'stands-by-tail', detail: { role: 'spotter' } },
  { check: 'people', reason: 'stands-in-line', detail: { role: 'slinger' } },
  { check: 'people', reason: 'stands-inside-barriers', detail: { role: 'spotter' } },
  { check: 'people', reason: 'stands-outside-barriers', detail: { role: 'spotter' } },
  { check: 'people', reason: 'stands-off-line', detail: { role: 'slinger' } },
  { check: 'people', reason: 'stands-by-wheel', detail: { role: 'spotter' } },
  { check: 'people', reason: 'stands-unseen', detail: { role: 'slinger' } },
  { check: 'people', reason: 'stands-unsized', detail: { role: 'signaller' } },
  { check: 'people', reason: 'past', detail: { label: 'Footpath' } },
  { check: 'people', reason: 'across', detail: { label: 'Footpath' } },
  { check: 'table', reason: 'no-table', detail: bare },
  { check: 'table', reason: 'unknown-configuration', detail: bare },
  { check: 'table', reason: 'legs-short', detail: { table: 'Legs full', outriggers: 'FL, RL' } },
  { check: 'rating', reason: 'outside-sector', detail: { table: 'Over the right' } },
  { check: 'rating', reason: 'outside-sector', detail: { table: 'Over the right', outriggers: 'FL', other: 'All round' } },
  { check: 'rating', reason: 'not-rated', detail: { table: 'Legs full', boom_m: 19.4 } },
  { check: 'rating', reason: 'bend-unknown', detail: rated },
  { check: 'rating', reason: 'capacity', detail: rated },
  { check: 'hoist-rope', reason: 'capacity', detail: { partsOfLine: 4 } },
  { check: 'hook', reason: 'capacity', detail: { block: 'two-sheave block' } },
  { check: 'overturning', reason: 'tipping', detail: { edge: 'RR–FR', tipping_kg: 9000 } },
  { check: 'overturning', reason: 'cannot-tip', detail: bare },
  { check: 'overturning', reason: 'unstable-unloaded', detail: bare },
  { check: 'rating', reason: 'plate', detail: { table: 'Forks, mast vertical' } },
  { check: 'rating', reason: 'not-on-plate', detail: { table: 'Forks, mast vertical' } },
  { check: 'rating', reason: 'no-row', detail: { what: 'clamp' } },
  { check: 'rating', reason: 'not-measured', detail: { what: 'the load’s centre' } },
  { check: 'rating', reason: 'battery', detail: { what: '680–820 kg' } },
  { check: 'overturning', reason: 'forward', detail: { tipping_kg: 4100 } },
  { check: 'overturning', reason: 'reserve', detail: { edge: 'front', along_pct: 4, across_pct: 6 } },
  { check: 'level', reason: 'stacking-floor', detail: bare },
  { check: 'wind', reason: 'under-roof', detail: bare },
  { check: 'axle', reason: 'steered', detail: bare },
  { check: 'way', reason: 'no-width', detail: { piece: 'Dock door' } },
  { check: 'way', reason: 'no-load-size', detail: { piece: 'Dock door' } },
  { check: 'way', reason: 'nose', detail: { piece: 'Trailer' } },
  { check: 'way', reason: 'gap', detail: { piece: 'Dock door', what: 'height' } },
  { check: 'way', reason: 'slope', detail: { piece: 'Ramp', what: 'grade' } },
  { check: 'travel', reason: 'raised', detail: { most_m: 0.15 } },
  { check: 'travel', reason: 'no-speed', detail: { piece: 'Corner' } },
  { check: 'travel', reason: 'margin', detail: { piece: 'Corner', edge: 'side', permitted_mps: 2.1 } },
  { check: 'grip', reason: 'faces-unknown', detail: bare },
  { check: 'grip', reason: 'friction', detail: { faces: 'wet' } },
  { check: 'aloft', reason: 'not-weighed', detail: bare },
  { check: 'aloft', reason: 'too-many', detail: { persons: 2, most: 1 } },
  { check: 'aloft', reason: 'persons', detail: { persons: 1, most: 1 } },
  { check: 'traction', reason: 'friction', detail: { piece: 'Ramp', surface: 'ice' } },
  { check: 'motion', reason: 'does-not-turn', detail: { label: 'Braced', from_deg: 178, to_deg: 182 } },
  { check: 'motion', reason: 'other-boom', detail: { label: 'Propped', boom_m: 12 } },
  { check: 'motion', reason: 'allowed', detail: { label: 'On its outriggers' } },
  { check: 'axle', reason: 'rating', detail: { label: 'rear axle group', empty: true } },
  { check: 'wheel', reason: 'not-looked-at', detail: bare },
  { check: 'wheel', reason: 'no-figure', detail: { label: 'rear left wheels', empty: false } },
  { check: 'wheel', reason: 'rating', detail: { label: 'rear left wheels', empty: false } },
  { check: 'floor', reason: 'unknown', detail: bare },
  { check: 'floor', reason: 'no-figure', detail: { floor: 'Apron' } },
  { check: 'floor', reason: 'axle', detail: { label: 'rear axle group', floor: 'Deck', source: 'An engineer.' } },
  { check: 'floor', reason: 'wheel', detail: { label: 'rear axle group', floor: 'Deck', source: 'An engineer.' } },
  { check: 'floor', reason: 'total', detail: { label: 'machine and load', floor: 'Leveller', source: 'Its plate.' } },
  { check: 'rating', reason: 'nothing-on', detail: bare },
  { check: 'evidence', reason: 'not-confirmed', detail: { open: ['Pins in', 'Locks shut'] } },
  { check: 'evidence', reason: 'confirmed', detail: bare },
  { check: 'backward', reason: 'falls-back', detail: bare },
  { check: 'backward', reason: 'under-boom', detail: bare },
  { check: 'outrigger', reason: 'capacity', detail: { label: 'front left leg', empty: false } },
  { check: 'ground', reason: 'allowable', detail: deck },
  { check: 'ground', reason: 'allowable', detail: { ...deck, empty: true } },
  { check: 'ground', reason: 'presumed', detail: { ...deck, source: 'BS 8004.' } },
  { check: 'ground', reason: 'nothing-presumed', detail: deck },
  { check: 'ground', reason: 'unknown', detail: { ...deck, ground: '', source: '' } },
  { check: 'edge', reason: 'none-near', detail: bare },
  { check: 'edge', reason: 'over-void', detail: quay },
  { check: 'edge', reason: 'ask-engineer', detail: quay },
  { check: 'edge', reason: 'engineer', detail: { ...quay, source: 'On file.' } },
  { check: 'edge', reason: 'setback', detail: { ...quay, source: '' } },
  { check: 'clearance', reason: 'nothing-near', detail: bare },
  { check: 'clearance', reason: 'no-boom-size', detail: wall },
  { check: 'clearance', reason: 'no-load-size', detail: wall },
  { check: 'clearance', reason: 'no-heights', detail: wall },
  { check: 'clearance', reason: 'too-many', detail: wall },
  { check: 'clearance', reason: 'gap', detail: { ...wall, body: 'boom' } },
  { check: 'people', reason: 'none-drawn', detail: bare },
  { check: 'people', reason: 'clear', detail: wall },
  { check: 'people', reason: 'closed', detail: wall },
  { check: 'people', reason: 'over', detail: wall },
  { check: 'people', reason: 'no-load-size', detail: wall },
  { check: 'overhead-line', reason: 'none-drawn', detail: bare },
  { check: 'overhead-line', reason: 'no-height', detail: wires },
  { check: 'overhead-line', reason: 'no-movement', detail: wires },
  { check: 'overhead-line', reason: 'no-figure', detail: wires },
  { check: 'overhead-line', reason: 'no-size', detail: wires },
  { check: 'overhead-line', reason: 'distance', detail: { ...wires, voltage_kV: 11 } },
  { check: 'overhead-line', reason: 'distance', detail: { ...wires, voltage_kV: null } },
  { check: 'hook-height', reason: 'no-heights', detail: bare },
  { check: 'hook-height', reason: 'no-block', detail: bare },
  { check: 'hook-height', reason: 'no-size', detail: bare },
  { check: 'hook-height', reason: 'room', detail: { event: 'over' } },
  { check: 'two-block', reason: 'no-block', detail: bare },
  { check: 'two-block', reason: 'no-heights', detail: bare },
  { check: 'two-block', reason: 'gap', detail: { out_m: 4.8 } },
  { check: 'two-block', reason: 'stalls', detail: { out_m: 4.8 } },
  { check: 'structure', reason: 'no-lengths', detail: bare },
  { check: 'structure', reason: 'sling-flat', detail: bare },
  { check: 'structure', reason: 'no-mark', detail: { legs: 4, angle_deg: 30 } },
  { check: 'structure', reason: 'sling', detail: { legs: 1, angle_deg: 0 } },
  { check: 'swing', reason: 'no-slew', detail: bare },
  { check: 'swing', reason: 'rate', detail: turned },
  { check: 'swing', reason: 'rate', detail: { ...turned, rate_deg_s: 20 } },
  { check: 'swing', reason: 'no-room', detail: turned },
  { check: 'wind', reason: 'no-limit', detail: bare },
  { check: 'wind', reason: 'no-sail', detail: bare },
  { check: 'wind', reason: 'no-mass', detail: bare },
  { check: 'wind', reason: 'unread', detail: bare },
  { check: 'wind', reason: 'speed', detail: { chart_mps: 9.8 } },
  { check: 'level', reason: 'unread', detail: bare },
  { check: 'level', reason: 'no-limit', detail: bare },
  { check: 'level', reason: 'bubble-unproved', detail: bare },
  { check: 'level', reason: 'tilt', detail: bare },
  { check: 'boom-limits', reason: 'too-steep', detail: { boom_m: 29, angle_deg: 80 } },
  { check: 'boom-limits', reason: 'too-flat', detail: { boom_m: 9.8, angle_deg: -2 } },
  { check: 'boom-limits', reason: 'out-of-reach', detail: { boom_m: 9.8 } },
  { check: 'ground', reason: 'mats-near', detail: { label: 'Front left', other: 'Front right' } },
  { check: 'ground', reason: 'mats-overlap', detail: { label: 'Front left', other: 'Front right' } },
  ...checkNames.map((check) => ({ check, reason: 'nothing-checks-this', detail: bare }) as Said),
]

/** Reasons that are only ever given where nothing is wrong. */
const always = new Set<string>([
  'agrees',
  'held-down',
  'by-papers',
  'one-at-a-time',
  'ballast-hangs',
  'aligned',
  'seen',
  'covered',
  'past',
  'stands-clear',
  'stands-off-line',
  'stands-outside-barriers',
  'foot-bears',
  'cannot-tip',
  'none-near',
  'nothing-near',
  'none-drawn',
  'no-slew',
  'rate',
  'allowed',
  'confirmed',
  'under-roof',
  'nothing-on',
  'clear',
  'closed',
  'persons',
])

describe('findings in words', () => {
  it('there is one here of every reason that a check can give', () => {
    const here = new Set(given.map((g) => `${g.check}/${g.reason}`))
    for (const check of checkNames)
      for (const reason of [...Object.keys(reasons[check]), 'nothing-checks-this']) expect(here).toContain(`${check}/${reason}`)
  })
  it.each(given.map((g) => [g.check, g.reason, g] as const))(
    '%s/%s is a sentence, says what to do where something is wrong, and never “safe”; and is what the schema of findings takes',
    (_check, reason, g) => {
      for (const v of verdict.options) {
        const f = { ...figures, verdict: v, ...g } as Finding
        expect(finding.parse(JSON.parse(JSON.stringify(f)))).toEqual(f)
        const w = findingWords(f, sayMetric)
        expect(w.title).toMatch(/^[A-Z]/)
        expect(w.what).toMatch(/^[A-Z0-9“].*[.]$/)
        expect(w.rule).toMatch(/\.$/)
        expect(`${w.title} ${w.what} ${w.rule} ${w.todo}`).not.toMatch(/\bsafe|undefined|NaN|null|\[object/i)
        if (v === 'outside' && !always.has(reason)) expect(w.todo.length).toBeGreaterThan(8)
      }
    },
  )
  it('says of less than nothing that nothing is left', () => {
    const gap = { ...figures, verdict: 'outside', check: 'way', reason: 'gap', quantity: 'length', limit: 0.3 } as const
    const left = (measured: number) =>
      findingWords({ ...gap, measured, nominal: measured, detail: { piece: 'Dock door', what: 'width' } }, sayMetric).what
    expect(left(-0.75)).toMatch(/^Dock door: nothing left .*, at least 0\.30/)
    expect(left(0.12)).toMatch(/^Dock door: 0\.12/)
  })
  it('a reason that a check cannot give, or a detail that is not its own, is no finding', () => {
    const f = { ...figures, check: 'hoist-rope', reason: 'capacity', detail: { partsOfLine: 4 } }
    expect(finding.safeParse(f).success).toBe(true)
    expect(finding.safeParse({ ...f, reason: 'tilt' }).success).toBe(false)
    expect(finding.safeParse({ ...f, check: 'hook' }).success).toBe(false)
    expect(finding.safeParse({ ...f, detail: {} }).success).toBe(false)
  })
  it('says when a figure is the worse end of its ±, and only then', () => {
    const rating: Finding = { ...figures, check: 'rating', reason: 'capacity', detail: rated }
    expect(findingWords(rating, sayMetric).what).toMatch(/Worse end of its ±; as given 2,900 kg\.$/)
    expect(findingWords({ ...rating, nominal: 3000 }, sayMetric).what).not.toMatch(/±/)
    // A leg's elastic share is not a doubt about its bound.
    const outrigger: Finding = {
      ...figures,
      check: 'outrigger',
      reason: 'capacity',
      detail: { label: 'front left leg', empty: false },
    }
    expect(findingWords(outrigger, sayMetric).what).not.toMatch(/±/)
  })
})

describe('changes in words', () => {
  const mat = northQuay.mats[0] as MatKind
  it.each<[RemedyKind, RegExp]>([
    [{ kind: 'radius', radius_m: 8, less_m: 2 }, /within 8\.00 m radius, 2\.00 m less/],
    [{ kind: 'mass', mass_kg: 4000, less_kg: 500 }, /at most 4,000 kg, 500 kg less/],
    [{ kind: 'split', lifts: 2, mass_kg: 4000 }, /lift it in 2, each at most 4,000 kg/],
    [{ kind: 'slew-direction', slewDirection: 'clockwise' }, /other way round, clockwise/],
    [{ kind: 'set-down-slew', slew_deg: 300, by_deg: -15 }, /slew 300\.0°, 15\.0° clockwise/],
    [{ kind: 'set-down-slew', slew_deg: 300, by_deg: 15 }, /anticlockwise/],
    [
      {
        kind: 'extension',
        outriggers: [
          { id: 'FL', label: 'front left leg', stop: 'fullyExtended', stopLabel: 'Full' },
          { id: 'RL', label: 'rear left leg', stop: 'intermediate', stopLabel: 'Middle' },
        ],
      },
      /front left leg fully out and rear left leg to the middle/,
    ],
    [{ kind: 'mat', outrigger: 'FL', label: 'front left leg', mat }, /Lay composite mat 0\.8 m under front left leg/],
    [{ kind: 'mat-size', outrigger: 'FL', label: 'front left leg', side_m: 1.25 }, /1\.25 m square/],
    [{ kind: 'parts-of-line', partsOfLine: 4 }, /4 parts/],
    [{ kind: 'boom', boom_m: 14.6 }, /14\.60 m of boom/],
    [{ kind: 'counterweight', id: 'heavy', label: 'Heavy counterweight' }, /Fit heavy counterweight/],
    [{ kind: 'wind', wind_mps: 8.2 }, /under 8\.2 m\/s/],
    [{ kind: 'lifted', mass_kg: 1550, less_kg: 950 }, /at most 1,550 kg behind, 950 kg less/],
    [{ kind: 'arm', out_m: 2.4, less_m: 0.2 }, /arm in to 2\.40 m, 0\.20 m less/],
    [{ kind: 'close', feature: 'path', label: 'Footpath' }, /Close footpath while the load is up/],
    [{ kind: 'level' }, /Level the machine again/],
  ])('%o', (change, words) => {
    expect(changeWords(change, sayMetric)).toMatch(words)
  })
})

describe('verdicts', () => {
  it('are ordered: outside before not proven before near before inside', () => {
    const order = ['inside', 'near', 'not-proven', 'outside'] as const
    order.forEach((a, i) => {
      order.forEach((b, j) => {
        expect(isWorse(a, b)).toBe(i > j)
        expect(worseVerdict(a, b)).toBe(order[Math.max(i, j)])
      })
    })
  })
  it('come from the use of a limit: near from its share, outside past it, and outside when it cannot be compared', () => {
    expect([0, 0.89, 0.9, 1, 1.0001, Number.NaN, Infinity].map((u) => byUse(u, 0.9))).toEqual([
      'inside',
      'inside',
      'near',
      'near',
      'outside',
      'outside',
      'outside',
    ])
    expect(shareOf(5, 0)).toBeNull()
    expect(shareOf(5, 10)).toBe(0.5)
  })
  it('are governed by the worst finding, and among equals by the fullest', () => {
    const tilt = { ...figures, check: 'level', reason: 'tilt', detail: bare } as const
    const f = (id: string, v: Finding['verdict'], utilisation: number | null) => ({ ...tilt, id, verdict: v, utilisation })
    expect(governingOf([])).toBeNull()
    expect(governingOf([f('a', 'inside', 0.4), f('b', 'inside', 0.7), f('c', 'inside', null)])?.id).toBe('b')
    expect(governingOf([f('a', 'near', 0.99), f('b', 'not-proven', null)])?.id).toBe('b')
    expect(governingOf([f('a', 'not-proven', null), f('b', 'outside', 1.2)])?.id).toBe('b')
  })
})
