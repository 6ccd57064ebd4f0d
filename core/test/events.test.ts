import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  entryResult,
  itemsOf,
  preUseOf,
  project,
  Refusal,
  type ShiftEvent,
  shift,
  shiftEvent,
  walkedEvidence,
  withEvent,
} from '../src'
import { demoMachine, demoMachines } from './demo'

const ines = { id: 'ines', name: 'Ines' }
const minute = (n: number) => new Date(Date.UTC(2026, 0, 5, 6, n)).toISOString()
const opening: ShiftEvent[] = [
  {
    kind: 'shift-opened',
    at: minute(0),
    by: ines,
    shift: 's',
    machine: { id: 'tern', name: 'Tern', revision: 3 },
    place: { id: 'quay', name: 'Quay' },
    signOn: { ppe: ['boots'], documents: [] },
  },
  { kind: 'inspection-opened', at: minute(1), by: ines, inspection: 's', occasion: 'pre-use' },
]
const handover = {
  hours: 12,
  fuel_share: null,
  standsAt: '',
  words: '',
  leftAs: '',
  limitsOn: '',
  leftAsItStands: null,
}

/** Events as they may come after the opening, of two walk-rounds and a few ids, so that they meet. */
const some: fc.Arbitrary<ShiftEvent> = fc
  .record({ n: fc.integer({ min: 2, max: 59 }), of: fc.constantFrom('s', 'b'), id: fc.constantFrom('1', '2', '3') })
  .chain(({ n, of, id }) => {
    const told = { at: minute(n), by: ines }
    const entry = fc.record({
      item: fc.constantFrom('lean', 'drips', 'rope'),
      result: fc.constantFrom(...entryResult.options),
      reading: fc.constantFrom(null, 15.5),
      at: fc.integer({ min: 2, max: 59 }).map(minute),
      device: fc.constantFrom('', 'tablet'),
      because: fc.constant(null),
    })
    return fc.oneof(
      fc.constant<ShiftEvent>({ kind: 'inspection-opened', ...told, inspection: 'b', occasion: 'after-absence' }),
      entry.map((e): ShiftEvent => ({ kind: 'inspection-entry', ...told, inspection: of, entry: e })),
      fc.constantFrom<ShiftEvent>(
        { kind: 'inspection-finished', ...told, inspection: of, part: 'first' },
        { kind: 'inspection-finished', ...told, inspection: of, part: 'raised' },
        { kind: 'hands-on', ...told, inspection: of },
        { kind: 'hands-off', ...told, inspection: of },
        { kind: 'site-recorded', ...told, site: { controls: [], more: [], team: ['Ines'], fit: true } },
        { kind: 'machine-moved', ...told, place: { id: 'bed', name: 'Bed' }, words: '' },
        { kind: 'order', ...told, events: [{ do: 'confirm', id, ...told, device: '', step: 'a' }] },
        {
          kind: 'override-used',
          ...told,
          use: { id, override: 'hook-stop', label: 'Hook stop', reason: 'tied', seconds: 4, after: 'try it', role: 'fitter' },
        },
        { kind: 'override-followed', ...told, use: id },
        { kind: 'lift-outcome', ...told, lift: id, outcome: { outcome: 'done', reason: '' } },
        { kind: 'shift-closed', ...told, handover },
      ),
    )
  })

describe('a shift', () => {
  it('is what its events make of it: a shift by its schema, whatever they are, and each of them an event by its own', () => {
    fc.assert(
      fc.property(fc.array(some, { maxLength: 30, size: 'max' }), (events) => {
        const made = project([...opening, ...events])
        expect(shift.parse(made)).toEqual(made)
        expect(made.operator).toEqual(ines)
        for (const e of events) expect(shiftEvent.parse(e)).toEqual(e)
      }),
    )
  })
  it('is the same when its events were written down and read again, and when one of them arrives twice', () => {
    fc.assert(
      fc.property(fc.array(some, { maxLength: 30, size: 'max' }), fc.nat(), (events, n) => {
        const all = [...opening, ...events]
        const made = project(all)
        expect(project(JSON.parse(JSON.stringify(all)))).toEqual(made)
        const last = events[events.length - 1]
        if (last) expect(withEvent(made, last)).toEqual(made)
        const again = all[n % all.length] as ShiftEvent
        expect(withEvent(withEvent(made, again), again)).toEqual(withEvent(made, again))
      }),
    )
  })
  it('has one entry an item, the last that was recorded, in the order they were noted', () => {
    fc.assert(
      fc.property(fc.array(some, { maxLength: 40, size: 'max' }), (events) => {
        const { entries } = preUseOf(project([...opening, ...events]))
        const recorded = events.flatMap((e) => (e.kind === 'inspection-entry' && e.inspection === 's' ? [e.entry] : []))
        const last = new Map(recorded.map((e) => [e.item, e]))
        expect(new Map(entries.map((e) => [e.item, e]))).toEqual(last)
        expect(entries.map((e) => e.at)).toEqual(entries.map((e) => e.at).sort())
      }),
    )
  })
  it('stands nowhere settled after it moved: site and what was proved raised are asked anew', () => {
    const raised: ShiftEvent = { kind: 'inspection-finished', at: minute(9), by: ines, inspection: 's', part: 'raised' }
    const site = { controls: [], more: [], team: ['Ines'], fit: true }
    const looked: ShiftEvent = { kind: 'site-recorded', at: minute(8), by: ines, site }
    const before = project([...opening, looked, raised])
    expect(before.site?.at).toBe(minute(8))
    expect(preUseOf(before).raisedAt).toBe(minute(9))
    const moved = withEvent(before, {
      kind: 'machine-moved',
      at: minute(10),
      by: ines,
      place: { id: 'bed', name: 'Bed' },
      words: '',
    })
    expect(moved).toMatchObject({ site: null, movedAt: minute(10), place: { id: 'bed' } })
    expect(preUseOf(moved).raisedAt).toBeNull()
  })
  it('does not begin but by being opened', () => {
    expect(() => project([])).toThrow(Refusal)
    expect(() => project(opening.slice(1))).toThrow(Refusal)
    expect(() => preUseOf({ inspections: [] })).toThrow(RangeError)
  })
})

describe('what the walk-round has looked at', () => {
  const evidence = [
    { id: 'tyres', label: 'Tyres', walked: ['left', 'right'] },
    { id: 'papers', label: 'Papers' },
  ]
  const walked = (results: Record<string, string>) =>
    project([
      ...opening,
      ...Object.entries(results).map(
        ([item, result], n) =>
          ({
            kind: 'inspection-entry',
            at: minute(2 + n),
            by: ines,
            inspection: 's',
            entry: { item, result, reading: null, at: minute(2 + n), device: '', because: null },
          }) as ShiftEvent,
      ),
    ])
  it('is not asked again once all of it is in order, and is asked where anything of it is not', () => {
    expect(walkedEvidence(evidence, walked({ left: 'in-order', right: 'in-order' }))).toEqual([{ id: 'tyres', at: minute(3) }])
    for (const result of ['defect', 'not-fitted'])
      expect(walkedEvidence(evidence, walked({ left: 'in-order', right: result }))).toEqual([])
    expect(walkedEvidence(evidence, walked({ left: 'in-order' }))).toEqual([])
  })
  it('is asked again once the machine has been set up: something may have been changed since', () => {
    const s = walked({ left: 'in-order', right: 'in-order' })
    expect(walkedEvidence(evidence, { ...s, setups: [{} as never] })).toEqual([])
  })
  it('names items that each machine’s own walk-round has', () => {
    for (const m of demoMachines.map(demoMachine)) {
      const items = new Set(itemsOf(m.walkround).map((x) => x.item.id))
      for (const e of m.evidence)
        expect(
          (e.walked ?? []).filter((i) => !items.has(i)),
          `${m.id}: ${e.id}`,
        ).toEqual([])
    }
  })
  it('and leaving the machine takes back what holds only while somebody is there', () => {
    const away = project([
      ...opening,
      { kind: 'inspection-opened', at: minute(9), by: ines, inspection: 'b', occasion: 'after-absence' },
    ])
    expect(away.order).toMatchObject([{ do: 'lost', why: 'leaving', at: minute(9) }])
    expect(project(opening).order).toEqual([])
  })
})
