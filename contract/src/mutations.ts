import { handover, type PersonRef, type ShiftEvent, siteRecord } from '@geolabe/core'
import { z } from 'zod'
import { raiseDefectRequest } from './defects'
import { practiceRequest } from './practice'
import {
  finishInspectionRequest,
  handsOnRequest,
  inspectionEntryRequest,
  moveRequest,
  noteCalculationRequest,
  openInspectionRequest,
  openShiftRequest,
  orderRequest,
  outcomeRequest,
  proveRequest,
  setupRequest,
} from './shift'
import { checkTableRequest, reviseRequest } from './tables'

/** Who does it and when, as far as the device knows; the records have the last word on the moment. */
export interface Doing {
  at: string
  by: PersonRef
}

/**
 * A write: where it goes, what it says, and what it does to the shift it belongs to. The device keeps it under its name until the
 * records have it, and shows meanwhile what it will do.
 */
export interface Mutation<Body extends z.ZodType = z.ZodType> {
  method: 'POST' | 'PUT'
  /** Where it is sent; `:name` are its parameters. */
  path: string
  body: Body
  /** What it does to the shift, as long as only the device knows of it; null: only the records can say. */
  event: ((body: z.output<Body>, doing: Doing) => ShiftEvent | null) | null
}
const mutation = <Body extends z.ZodType>(path: string, body: Body, event: Mutation<Body>['event'] = null): Mutation<Body> => ({
  method: 'POST',
  path,
  body,
  event,
})

/** What of an entry stands in the records: what it replaces and what the plate read are asked for beside it. */
export function entryIn({ inspection: _i, replaces: _r, plate: _p, ...entry }: z.output<typeof inspectionEntryRequest>) {
  return entry
}

export const mutations = {
  'open-shift': mutation('/shifts', openShiftRequest),
  'open-inspection': mutation('/shifts/:shift/inspections', openInspectionRequest, ({ id, occasion }, doing) => ({
    kind: 'inspection-opened',
    ...doing,
    inspection: id,
    occasion,
  })),
  'enter-item': mutation('/shifts/:shift/entries', inspectionEntryRequest, (b, doing) => ({
    kind: 'inspection-entry',
    ...doing,
    inspection: b.inspection,
    entry: entryIn(b),
  })),
  'finish-inspection': mutation('/shifts/:shift/inspections/finish', finishInspectionRequest, ({ inspection, part }, doing) => ({
    kind: 'inspection-finished',
    ...doing,
    inspection,
    part,
  })),
  'hands-on': mutation('/shifts/:shift/hands-on', handsOnRequest, ({ inspection, on }, doing) => ({
    kind: on ? 'hands-on' : 'hands-off',
    ...doing,
    inspection,
  })),
  'record-site': mutation('/shifts/:shift/site', siteRecord, (site, doing) => ({ kind: 'site-recorded', ...doing, site })),
  'move-machine': mutation('/shifts/:shift/moves', moveRequest),
  'record-setup': mutation('/shifts/:shift/setups', setupRequest, (setup, doing) => ({
    kind: 'setup-recorded',
    ...doing,
    setup,
  })),
  'do-order': mutation('/shifts/:shift/procedure-events', orderRequest, ({ events }, doing) => ({
    kind: 'order',
    ...doing,
    events,
  })),
  'prove-lift': mutation('/shifts/:shift/lifts', proveRequest),
  'end-lift': mutation('/shifts/:shift/lifts/:lift/outcome', outcomeRequest),
  'close-shift': mutation('/shifts/:shift/handover', handover),
  'note-calculation': mutation('/shifts/:shift/calculations', noteCalculationRequest),
  'raise-defect': mutation('/defects', raiseDefectRequest),
  /** What is done about a defect; the records say what each step asks for. */
  'defect-step': mutation('/defects/:defect/:step', z.unknown()),
  'add-photo': { ...mutation('/defects/:defect/photos/:photo', z.unknown()), method: 'PUT' },
  'revise-table': mutation('/tables/:table/revisions', reviseRequest),
  'check-table': mutation('/tables/:table/check', checkTableRequest),
  'practice-run': mutation('/practice/runs', practiceRequest),
  'record-due': mutation('/machines/:machine/duties', z.unknown()),
} as const
export type Mutations = typeof mutations
export type MutationName = keyof Mutations
export type MutationBody<N extends MutationName> = z.input<Mutations[N]['body']>

/** The address of a mutation. @throws RangeError where a parameter is missing: a defect of ours */
export function pathOf(name: MutationName, params: Readonly<Record<string, string>>): string {
  return mutations[name].path.replace(/:(\w+)/g, (_, key: string) => {
    const value = params[key]
    if (value === undefined) throw new RangeError(`${name} lacks ${key}`)
    return encodeURIComponent(value)
  })
}

/** What a mutation that waits on a device will do to its shift; null: nothing that can be known before the records have it. */
export function eventOf(name: MutationName, body: unknown, doing: Doing): ShiftEvent | null {
  const { event, body: schema }: Mutation = mutations[name]
  const parsed = schema.safeParse(body)
  return event && parsed.success ? event(parsed.data, doing) : null
}
