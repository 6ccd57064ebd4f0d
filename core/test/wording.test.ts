import { describe, expect, it } from 'vitest'
import {
  byUse,
  type ChangeKind,
  changeWords,
  checkName,
  type Finding,
  findingWords,
  governingOf,
  isWorse,
  type MatKind,
  sayMetric,
  shareOf,
  verdict,
  worseVerdict,
} from '../src'
import { northQuay } from './demo'

const bare: Finding = {
  id: 'x',
  check: 'rating',
  subject: null,
  verdict: 'inside',
  reason: '',
  quantity: 'mass',
  measured: 3000,
  nominal: 2900,
  limit: 4000,
  utilisation: 0.75,
  at: { radius_m: 9, slew_deg: 120 },
  detail: {},
}
const reasons: [Finding['check'], string, Partial<Finding>][] = [
  ['mass', 'unknown', {}],
  ['table', 'no-table', {}],
  ['table', 'unknown-configuration', {}],
  ['table', 'legs-short', { detail: { table: 'Legs full', legs: 'FL, RL' } }],
  ['rating', 'outside-sector', { detail: { table: 'Over the right' } }],
  ['rating', 'outside-sector', { detail: { table: 'Over the right', legs: 'FL', other: 'All round' } }],
  ['rating', 'not-rated', {}],
  ['rating', 'bend-unknown', {}],
  ['rating', 'capacity', { detail: { rule: 'linear' } }],
  ['line', 'capacity', { detail: { parts: 4 } }],
  ['hook', 'capacity', { detail: { block: 'two-sheave block' } }],
  ['stability', 'tipping', { detail: { edge: 'RR–FR', tipping_kg: 9000 } }],
  ['stability', 'cannot-tip', {}],
  ['stability', 'unstable-unloaded', {}],
  ['leg', 'capacity', { subject: 'FL', quantity: 'force', detail: { label: 'front left leg' } }],
  [
    'ground',
    'allowable',
    { subject: 'FL', quantity: 'pressure', detail: { label: 'front left leg', ground: 'Quay deck', source: 'An engineer.' } },
  ],
  [
    'ground',
    'presumed',
    { subject: 'FL', quantity: 'pressure', detail: { label: 'front left leg', ground: 'Gravel', source: 'BS 8004.' } },
  ],
  [
    'ground',
    'nothing-presumed',
    { subject: 'FL', quantity: 'pressure', detail: { label: 'front left leg', ground: 'Made ground', source: '' } },
  ],
  ['ground', 'unknown', { subject: 'FL' }],
  ['wind', 'no-limit', {}],
  ['wind', 'no-sail', {}],
  ['wind', 'no-mass', {}],
  ['wind', 'unread', { quantity: 'speed' }],
  ['wind', 'speed', { quantity: 'speed' }],
  ['level', 'unread', {}],
  ['level', 'no-limit', {}],
  ['level', 'bubble-unproved', { quantity: 'angle' }],
  ['level', 'tilt', { quantity: 'angle' }],
  ['reach', 'too-steep', { detail: { boom_m: 29, angle_deg: 80 } }],
  ['reach', 'too-flat', { detail: { boom_m: 9.8, angle_deg: -2 } }],
  ['reach', 'out-of-reach', { detail: { boom_m: 9.8 } }],
]

describe('findings in words', () => {
  it.each(reasons)('%s/%s is a sentence, says what to do where something is wrong, and never “safe”', (check, reason, more) => {
    for (const v of verdict.options) {
      const w = findingWords({ ...bare, check, reason, verdict: v, ...more }, sayMetric)
      expect(w.what).toMatch(/^[A-Z0-9“].*[.]$/)
      expect(w.rule).toMatch(/\.$/)
      expect(`${w.title} ${w.what} ${w.rule} ${w.todo}`).not.toMatch(/\bsafe|undefined|NaN|null|\[object/i)
      if (v === 'outside' && reason !== 'cannot-tip') expect(w.todo.length).toBeGreaterThan(8)
    }
  })
  it('says when a figure is the worse end of its ±, and only then', () => {
    const rating = { ...bare, reason: 'capacity' }
    expect(findingWords(rating, sayMetric).what).toMatch(/worse end of its ±; as given it is 2,900 kg\.$/)
    expect(findingWords({ ...rating, nominal: 3000 }, sayMetric).what).not.toMatch(/±/)
    // A leg's elastic share is not a doubt about its bound.
    expect(findingWords({ ...bare, check: 'leg', reason: 'capacity' }, sayMetric).what).not.toMatch(/±/)
  })
  it('has a title for every check', () => {
    for (const check of checkName.options) expect(findingWords({ ...bare, check }, sayMetric).title).toMatch(/^[A-Z]/)
  })
})

describe('changes in words', () => {
  const mat = northQuay.mats[0] as MatKind
  it.each<[ChangeKind, RegExp]>([
    [{ kind: 'radius', radius_m: 8, less_m: 2 }, /within 8\.00 m radius, 2\.00 m less/],
    [{ kind: 'mass', mass_kg: 4000, less_kg: 500 }, /at most 4,000 kg, 500 kg less/],
    [{ kind: 'split', lifts: 2, mass_kg: 4000 }, /lift it in 2, each at most 4,000 kg/],
    [{ kind: 'turn', turn: 'clockwise' }, /other way round, clockwise/],
    [{ kind: 'set-slew', slew_deg: 300, by_deg: -15 }, /slew 300\.0°, 15\.0° clockwise/],
    [{ kind: 'set-slew', slew_deg: 300, by_deg: 15 }, /anticlockwise/],
    [
      {
        kind: 'extension',
        legs: [
          { id: 'FL', label: 'front left leg', extension: 'full' },
          { id: 'RL', label: 'rear left leg', extension: 'middle' },
        ],
      },
      /front left leg fully out and rear left leg to the middle/,
    ],
    [{ kind: 'mat', leg: 'FL', label: 'front left leg', mat }, /Lay composite mat 0\.8 m under front left leg/],
    [{ kind: 'mat-size', leg: 'FL', label: 'front left leg', side_m: 1.25 }, /1\.25 m square/],
    [{ kind: 'parts', parts: 4 }, /4 parts/],
    [{ kind: 'boom', boom_m: 14.6 }, /14\.60 m of boom/],
    [{ kind: 'counterweight', id: 'heavy', label: 'Heavy counterweight' }, /Fit heavy counterweight/],
    [{ kind: 'wind', wind_mps: 8.2 }, /under 8\.2 m\/s/],
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
    const f = (id: string, v: Finding['verdict'], utilisation: number | null) => ({ ...bare, id, verdict: v, utilisation })
    expect(governingOf([])).toBeNull()
    expect(governingOf([f('a', 'inside', 0.4), f('b', 'inside', 0.7), f('c', 'inside', null)])?.id).toBe('b')
    expect(governingOf([f('a', 'near', 0.99), f('b', 'not-proven', null)])?.id).toBe('b')
    expect(governingOf([f('a', 'not-proven', null), f('b', 'outside', 1.2)])?.id).toBe('b')
  })
})
