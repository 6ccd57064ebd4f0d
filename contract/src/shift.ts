import {
  conditions,
  type handover,
  inspectionEntry,
  liftOutcome,
  liftPlan,
  machineDefinition,
  occasion,
  orderAct,
  placeDefinition,
  ratingTable,
  setupPlan,
  shift,
  shiftEvent,
} from '@geolabe/core'
import { z } from 'zod'
import { clientId, maybeWords, moment, personRef } from './common'
import { raiseDefectRequest } from './defects'

export const station = z.enum(['sign-on', 'walk-round', 'site', 'set-up', 'prove', 'lift', 'stow'])
export type Station = z.infer<typeof station>
export const stationWords: Record<Station, string> = {
  'sign-on': 'Sign on',
  'walk-round': 'Walk-round',
  site: 'Site',
  'set-up': 'Set up',
  prove: 'Prove',
  lift: 'Lift',
  stow: 'Stow & hand over',
}

export const openShiftRequest = z.strictObject({
  id: clientId,
  machine: z.string(),
  place: z.string(),
  ppe: z.array(z.string()),
  documents: z.array(z.string()),
  /** Handover and watched defects were read. */
  readHandover: z.literal(true, { error: 'Read the handover and the watched defects first.' }),
})
export type OpenShiftRequest = z.infer<typeof openShiftRequest>

/** A calculation noted in a shift’s record; it is worked out again from its input. */
export const noteCalculationRequest = z.strictObject({ calculator: z.string().min(1).max(60), input: z.looseObject({}) })

export const inspectionEntryRequest = inspectionEntry.extend({
  inspection: clientId,
  /** What another device said and this one has seen: its moment. */
  replaces: moment.nullable().default(null),
  /** The rating plate as it reads, field by field. */
  plate: z
    .record(
      z.string(),
      z.union([z.string().trim().max(120), z.number().min(0, 'At least 0.').max(1e9, 'At most 1,000,000,000.')]),
    )
    .nullable()
    .default(null),
})
export type InspectionEntryRequest = z.input<typeof inspectionEntryRequest>

export const openInspectionRequest = z.strictObject({ id: clientId, occasion })
export type OpenInspectionRequest = z.infer<typeof openInspectionRequest>
export const finishInspectionRequest = z.strictObject({
  inspection: clientId,
  part: z.enum(['first', 'raised']).default('first'),
})
export type FinishInspectionRequest = z.infer<typeof finishInspectionRequest>
export const handsOnRequest = z.strictObject({ inspection: clientId, on: z.boolean() })

export const badgeAndPin = z.strictObject({ badge: z.string().trim().min(1).max(40), pin: z.string().min(1).max(20) })

/**
 * Acts of the order, as the device has told them; each counts once. The second of two people says who it is with badge and PIN: as they are, or, as a
 * device keeps them till there is a network, sealed for the installation and for that act.
 */
export const orderRequest = z.strictObject({
  events: z.array(orderAct).min(1).max(200, 'At most 200 at once.'),
  second: z.union([badgeAndPin, z.strictObject({ sealed: z.string().min(1).max(1000) })]).optional(),
  /** The last act of the order that the device knew of; *null*: of none. What was told elsewhere since is shown where an act is refused. */
  after: z.string().min(1).max(80).nullish(),
})
export type OrderRequest = z.input<typeof orderRequest>

/** Six figures for the second person's own device. */
export interface SecondCode {
  step: string
  code: string
}

/** The machine stands somewhere else now: what rested on where it stood is asked anew. */
export const moveRequest = z.strictObject({ id: clientId, place: z.string(), words: maybeWords })
export type MoveRequest = z.infer<typeof moveRequest>

export const setupRequest = z.strictObject({ id: clientId, plan: setupPlan })
export type SetupRequest = z.infer<typeof setupRequest>

export const proveRequest = z.strictObject({ id: clientId, setup: clientId, plan: liftPlan, conditions })
export type ProveRequest = z.infer<typeof proveRequest>

export const outcomeRequest = liftOutcome
  .extend({ reason: maybeWords })
  .strict()
  .refine((o) => o.outcome === 'done' || o.reason.length > 0, { message: 'Say why it was abandoned.', path: ['reason'] })
export type OutcomeRequest = z.infer<typeof outcomeRequest>

/** As it is sent: what is left out has its default. */
export type HandoverRequest = z.input<typeof handover>

export const shiftSummary = z.object({
  id: z.string(),
  machine: z.object({ id: z.string(), name: z.string() }),
  place: z.string(),
  operator: personRef,
  openedAt: moment,
  closedAt: moment.nullable(),
  lifts: z.number(),
})
export type ShiftSummary = z.infer<typeof shiftSummary>
export const shiftPage = z.object({ shifts: z.array(shiftSummary), next: z.string().nullable() })
export type ShiftPage = z.infer<typeof shiftPage>

/** Ed25519 over the file without this field, its fields in order of their names. */
export const fileSignature = z.strictObject({ installation: z.string(), publicKey: z.string(), value: z.string() })
export type FileSignature = z.infer<typeof fileSignature>

/** A shift as a file: with the very revisions of machine, place and tables that it rests on, so that it reads and recomputes alone. */
export const shiftFile = z.strictObject({
  format: z.literal('geolabe.shift/1'),
  exportedAt: moment,
  organisation: z.string(),
  shift,
  /** What happened in it, in order: the shift is what `project` makes of them. */
  events: z.array(shiftEvent).min(1).max(5_000),
  /** The machine as it was taken, with the walk-round that was walked. */
  machine: machineDefinition,
  used: z.strictObject({
    machines: z.array(z.strictObject({ revision: z.number(), document: machineDefinition })).max(20),
    places: z.array(z.strictObject({ revision: z.number(), document: placeDefinition })).max(20),
    tables: z.array(ratingTable).max(50),
  }),
  defects: z.array(
    raiseDefectRequest.extend({ id: z.string(), shift: z.string().nullable(), raisedBy: personRef, raisedAt: moment }),
  ),
  signature: fileSignature.optional(),
})
export type ShiftFile = z.infer<typeof shiftFile>

/** What came from elsewhere: marked for ever with who took it in and where it is from. */
export const importedShift = z.object({
  id: z.string(),
  machine: z.string(),
  place: z.string(),
  operator: z.string(),
  openedAt: moment,
  closedAt: moment.nullable(),
  lifts: z.number(),
  from: z.object({ organisation: z.string(), installation: z.string(), exportedAt: moment, ours: z.boolean() }),
  recomputes: z.boolean(),
  importedBy: personRef,
  importedAt: moment,
})
export type ImportedShift = z.infer<typeof importedShift>
export const importedPage = z.object({ shifts: z.array(importedShift), next: z.string().nullable() })
export type ImportedPage = z.infer<typeof importedPage>

export type {
  EntryResult,
  Inspection,
  InspectionEntry,
  LiftRecord,
  SetupRecord,
  Shift,
  SiteRecord,
} from '@geolabe/core'
