import { readFileSync } from 'node:fs'
import type { Inspection, LiftRecord, Shift } from '@geolabe/contract'
import { groundPressure, liftsOnOutriggers, outriggersIn, placeDefinition } from '@geolabe/core'
import { describe, expect, it } from 'vitest'
import { readMachineFile } from '../../server/src/demo/files'
import { fromPaper, onPaper, pathOf } from '../src/instruments/frame'
import { firstLift, isLiftDraft, movedTo } from '../src/prove/draft'
import { blockedBy, firstDraft, isSetupDraft, planOf, widestThatFits } from '../src/setup/draft'
import { nextStation, stationStates } from '../src/shift/route-line'

const read = (path: string) => JSON.parse(readFileSync(new URL(`../../demo/${path}`, import.meta.url), 'utf8'))
const machine = readMachineFile('tern')
if (!liftsOnOutriggers(machine)) throw new Error('Tern is no crane')
const tern = machine
const quay = placeDefinition.parse(read('places/north-quay.json'))

const fresh: Shift = {
  id: '00000000-0000-4000-8000-000000000000',
  machine: { id: 'tern', name: 'Tern', revision: 1 },
  place: { id: 'north-quay', name: 'North Quay' },
  operator: { id: 'ines', name: 'Ines' },
  openedAt: '2026-01-01T07:00:00Z',
  closedAt: null,
  signOn: { ppe: [], documents: [] },
  inspections: [
    {
      id: '00000000-0000-4000-8000-000000000000',
      occasion: 'pre-use',
      openedAt: '2026-01-01T07:00:00Z',
      entries: [],
      finishedAt: null,
      raisedAt: null,
      handsOnAt: null,
    },
  ],
  order: [],
  overrides: [],
  site: null,
  movedAt: null,
  setups: [],
  lifts: [],
  handover: null,
}
const inspected = (s: Shift, by: Partial<Inspection>): Shift => ({
  ...s,
  inspections: s.inspections.map((i) => ({ ...i, ...by })),
})
const walked = inspected(fresh, { finishedAt: '2026-01-01T07:20:00Z' })
const looked: Shift = { ...walked, site: { controls: [], more: [], team: ['Ines'], fit: true, at: '2026-01-01T07:30:00Z' } }
const plan = planOf(firstDraft(tern, quay, fresh), tern, quay)
const set: Shift = { ...looked, setups: [{ id: 's', at: '2026-01-01T08:00:00Z', plan }] }
const standing = inspected(set, { raisedAt: '2026-01-01T08:10:00Z' })
const lift = { id: 'l', outcome: null, plan: firstLift(tern, quay, fresh).lift } as unknown as LiftRecord
const proven: Shift = { ...standing, lifts: [lift] }
const lifted: Shift = {
  ...standing,
  lifts: [{ ...lift, outcome: { outcome: 'done', reason: '', at: '2026-01-01T09:00:00Z' } }],
}

describe('the route', () => {
  it('leads from station to station, and after a lift to the next proof', () => {
    expect([fresh, walked, looked, set, standing, proven, lifted].map((s) => nextStation(s, tern))).toEqual([
      'walk-round',
      'site',
      'set-up',
      // What waited for overhead, people and legs.
      'walk-round',
      'prove',
      'lift',
      'prove',
    ])
  })
  it('goes back to the site while it is not fit for the job', () => {
    const unfit: Shift = { ...walked, site: { controls: [], more: [], team: ['Ines'], fit: false, at: '2026-01-01T07:30:00Z' } }
    expect(nextStation(unfit, tern)).toBe('site')
    expect(stationStates(unfit, tern, false).site).toBe('stopped')
  })
  it('stops lifting, and nothing else, when the machine is stopped', () => {
    const states = stationStates(standing, tern, true)
    expect(states).toMatchObject({ 'walk-round': 'done', 'set-up': 'done', prove: 'stopped', lift: 'stopped', stow: 'open' })
    expect(stationStates(lifted, tern, false)).toMatchObject({ prove: 'done', lift: 'done', stow: 'open' })
  })
})

describe('a first set-up', () => {
  const draft = firstDraft(tern, quay, fresh)
  it('puts every beam as far out as fits, and no further', () => {
    expect(Object.fromEntries(draft.outriggers.map((l) => [l.id, l.at.stop]))).toEqual({
      FL: 'intermediate',
      FR: 'fullyExtended',
      RL: 'intermediate',
      RR: 'fullyExtended',
    })
    for (const l of draft.outriggers) expect(blockedBy(tern, quay, draft.position, l.id, l.at.stop, l.mat)).toBeUndefined()
    expect(blockedBy(tern, quay, draft.position, 'FL', 'fullyExtended', 'mat-12')?.id).toBe('market')
  })
  it('turns the short side with the machine', () => {
    const about = { ...draft.position, heading_deg: 180 }
    expect(widestThatFits(tern, quay, about, 'FR', 'mat-12')).toBe('intermediate')
    expect(widestThatFits(tern, quay, about, 'FL', 'mat-12')).toBe('fullyExtended')
  })
  it('takes the ground from the plan of the place until somebody says otherwise', () => {
    expect(outriggersIn(plan.standing).map((l) => l.ground?.id)).toEqual(['deck', 'deck', 'deck', 'deck'])
    const said = planOf(
      { ...draft, outriggers: draft.outriggers.map((l) => (l.id === 'RR' ? { ...l, ground: 'made' } : l)) },
      tern,
      quay,
    )
    const outrigger = outriggersIn(said.standing).find((l) => l.id === 'RR')
    expect(outrigger?.ground?.soil).toBe('made-ground')
    expect(
      groundPressure({ reaction_N: 1e5, pad: { length_m: 0.5, width_m: 0.5 }, soil: outrigger?.ground?.soil }).utilisation,
    ).toBeNull()
  })
  it('counts the bubble as proved only by the step that proves it', () => {
    expect(planOf(draft, tern, quay).level.levelVerified).toBe(false)
    expect(planOf(draft, tern, quay, ['bubble']).level.levelVerified).toBe(true)
  })
  it('begins the next one where the last one stood, with its level to be read again', () => {
    const next = firstDraft(tern, quay, {
      ...standing,
      setups: [
        {
          id: 's',
          at: '',
          plan: {
            ...plan,
            fitted: { ...plan.fitted, counterweight: 'light' },
            level: { pitch_deg: 0.1, roll_deg: 0, levelVerified: true },
          },
        },
      ],
    })
    expect(next).toMatchObject({ counterweight: 'light', pitch_deg: null, roll_deg: null })
  })
})

describe('a first lift', () => {
  it('proposes what waits at the place, with nothing measured yet', () => {
    const first = firstLift(tern, quay, fresh)
    expect(first).toMatchObject({
      wind_mps: null,
      lift: { hung: { load: { name: 'Pump skid', mass_kg: 2850 } }, steps: [{ radiusBasis: null }] },
    })
  })
  it('leaves a draft of another shape aside, and takes up its own', () => {
    expect(isLiftDraft(firstLift(tern, quay, fresh))).toBe(true)
    expect(isLiftDraft({ lift: { load: {}, parts: 4 } } as never)).toBe(false)
    expect(isSetupDraft(firstDraft(tern, quay, fresh))).toBe(true)
    expect(isSetupDraft({ counterweight: 'heavy', outriggers: [{ id: 'FL', extension: 'full' }] } as never)).toBe(false)
  })
  it('keeps what is said of a measurement when its point is moved', () => {
    expect(movedTo({ radius_m: { value: 7, tolerance: 0.2 }, slew_deg: 10 }, { radius_m: 8, slew_deg: 20 })).toEqual({
      radius_m: { value: 8, tolerance: 0.2 },
      slew_deg: 20,
    })
    expect(movedTo({ radius_m: 7, slew_deg: 10 }, { radius_m: 8, slew_deg: 20 })).toEqual({ radius_m: 8, slew_deg: 20 })
  })
})

describe('the plan on paper', () => {
  it('points the nose up and the left side left, and comes back', () => {
    expect(onPaper({ x_m: 5, y_m: 0 })).toEqual([-0, -5])
    expect(onPaper({ x_m: 0, y_m: 3 })).toEqual([-3, -0])
    const [sx, sy] = onPaper({ x_m: 1.5, y_m: -2.5 })
    expect(fromPaper(sx, sy)).toEqual({ x_m: 1.5, y_m: -2.5 })
    expect(
      pathOf(
        [
          { x_m: 1, y_m: 2 },
          { x_m: 3, y_m: -1 },
        ],
        false,
      ),
    ).toBe('M-2,-1L1,-3')
    expect(
      pathOf([
        { x_m: 1, y_m: 2 },
        { x_m: 3, y_m: -1 },
      ]),
    ).toMatch(/Z$/)
  })
})
