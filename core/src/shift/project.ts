import type { OrderEvent } from '../procedure/event'
import { Refusal } from '../refusal'
import type { ShiftEvent, ShiftEventKind } from './event'
import { ofAbsence, ofMove, ofProvedLift, ofSetup } from './order'
import type { Inspection, InspectionEntry, Shift } from './shift'

type Of<K extends ShiftEventKind> = Extract<ShiftEvent, { kind: K }>

const opened = (e: Of<'shift-opened'>): Shift => ({
  id: e.shift,
  machine: e.machine,
  place: e.place,
  operator: e.by,
  openedAt: e.at,
  closedAt: null,
  signOn: e.signOn,
  inspections: [],
  order: [],
  overrides: [],
  site: null,
  movedAt: null,
  setups: [],
  lifts: [],
  handover: null,
})

const inInspection = (s: Shift, id: string, change: (i: Inspection) => Partial<Inspection>): Shift => ({
  ...s,
  inspections: s.inspections.map((i) => (i.id === id ? { ...i, ...change(i) } : i)),
})

/** An event that was taken in already changes nothing: what it adds has its own id. */
const added = <T extends { id: string }>(list: readonly T[], one: T): T[] =>
  list.some((x) => x.id === one.id) ? [...list] : [...list, one]

/** An act of the order counts once, however often it is told. */
function ordered(before: readonly OrderEvent[], more: readonly OrderEvent[]): OrderEvent[] {
  const known = new Set(before.map((e) => e.id))
  return [...before, ...more.filter((e) => !known.has(e.id))]
}
const told = ({ at, by }: ShiftEvent) => ({ at, by })

/** An item has one entry: the last that was recorded. They stand by the moment they were noted. */
const withEntry = (entries: readonly InspectionEntry[], entry: InspectionEntry): InspectionEntry[] =>
  [...entries.filter((x) => x.item !== entry.item), entry].sort(
    (a, b) => a.at.localeCompare(b.at) || a.item.localeCompare(b.item),
  )

/** Lifts whose outcome nobody will record any more are abandoned for the reason given. */
const abandoned = (s: Shift, reason: string, at: string): Shift['lifts'] =>
  s.lifts.map((l) => (l.outcome ? l : { ...l, outcome: { outcome: 'abandoned', reason, at } }))

/** Why a lift that waits is abandoned when its machine is left as it stands. */
export const leftReason = (how: string): string => `Left as it stands: ${how}`.slice(0, 2000)

const changes: { [K in Exclude<ShiftEventKind, 'shift-opened'>]: (s: Shift, e: Of<K>) => Shift } = {
  'inspection-opened': (s, e) => ({
    ...s,
    inspections: added(s.inspections, {
      id: e.inspection,
      occasion: e.occasion,
      openedAt: e.at,
      entries: [],
      finishedAt: null,
      raisedAt: null,
      handsOnAt: null,
    }),
    order: e.occasion === 'after-absence' ? ordered(s.order, [ofAbsence(e.inspection, told(e))]) : s.order,
  }),
  'inspection-entry': (s, e) => inInspection(s, e.inspection, (i) => ({ entries: withEntry(i.entries, e.entry) })),
  'inspection-finished': (s, e) =>
    inInspection(s, e.inspection, (i) =>
      e.part === 'raised' ? { raisedAt: i.raisedAt ?? e.at } : { finishedAt: i.finishedAt ?? e.at, handsOnAt: null },
    ),
  'hands-on': (s, e) => inInspection(s, e.inspection, (i) => ({ handsOnAt: i.handsOnAt ?? e.at })),
  'hands-off': (s, e) => inInspection(s, e.inspection, () => ({ handsOnAt: null })),
  'site-recorded': (s, e) => ({ ...s, site: { ...e.site, at: e.at } }),
  // It stands somewhere else now: site, set-up and what was proved raised are asked anew.
  'machine-moved': (s, e) => ({
    ...s,
    place: e.place,
    site: null,
    movedAt: e.at,
    order: ordered(s.order, ofMove(told(e))),
    inspections: s.inspections.map((i) => (i.occasion === 'pre-use' ? { ...i, raisedAt: null } : i)),
  }),
  'setup-recorded': (s, e) => ({
    ...s,
    setups: added(s.setups, { ...e.setup, at: e.at }),
    order: ordered(s.order, ofSetup(e.setup.id, e.setup.plan, told(e))),
  }),
  order: (s, e) => ({ ...s, order: ordered(s.order, e.events) }),
  'override-used': (s, e) => ({ ...s, overrides: added(s.overrides, { ...e.use, at: e.at, followedAt: null }) }),
  'override-followed': (s, e) => ({
    ...s,
    overrides: s.overrides.map((o) => (o.id === e.use ? { ...o, followedAt: e.at } : o)),
  }),
  'lift-proved': (s, e) => ({
    ...s,
    lifts: added(s.lifts, { ...e.lift, at: e.at, outcome: null }),
    order: ordered(
      s.order,
      ofProvedLift(
        s.lifts.findLast((l) => l.id !== e.lift.id),
        e.lift,
        told(e),
      ),
    ),
  }),
  'lift-outcome': (s, e) => ({
    ...s,
    lifts: s.lifts.map((l) => (l.id === e.lift ? { ...l, outcome: { ...e.outcome, at: e.at } } : l)),
  }),
  'shift-closed': (s, e) => ({
    ...s,
    closedAt: e.at,
    handover: { ...e.handover, at: e.at },
    inspections: s.inspections.map((i) => ({ ...i, handsOnAt: null })),
    lifts: e.handover.leftAsItStands ? abandoned(s, leftReason(e.handover.leftAsItStands.how), e.at) : s.lifts,
  }),
}

/** One event taken into a shift; taken in twice it is as once. Events that name what the shift does not hold change nothing. */
export function withEvent(s: Shift, e: ShiftEvent): Shift {
  if (e.kind === 'shift-opened') return s
  const change = changes[e.kind] as (s: Shift, e: ShiftEvent) => Shift
  return change(s, e)
}

/**
 * The shift that its events make, in the order they were recorded.
 *
 * @throws Refusal `not-opened` where the first is not the one that opens a shift
 * @example project(events).closedAt // null: it is under way
 */
export function project(events: readonly ShiftEvent[]): Shift {
  const [first, ...rest] = events
  if (first?.kind !== 'shift-opened') throw new Refusal('not-opened', 'A shift begins with the event that opens it.', 'events.0')
  return rest.reduce(withEvent, opened(first))
}
