import {
  assessment,
  conditions,
  liftPlan,
  machineDefinition,
  placeDefinition,
  ratingTable,
  roundTime,
  setupPlan,
  sitePolicy,
} from '@geolabe/core'
import { z } from 'zod'
import { clientId, maybeWords, moment, personRef, words } from './common'
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
  wear: z.array(z.string()),
  papers: z.array(z.string()),
  /** Hand-over and watched defects were read. */
  readHandOver: z.literal(true, { error: 'Read the hand-over and the watched defects first.' }),
})
export type OpenShiftRequest = z.infer<typeof openShiftRequest>

/** A quick sum noted in a shift’s record; it is worked out again from its input. */
export const noteSumRequest = z.strictObject({ calculator: z.string().min(1).max(60), input: z.looseObject({}) })

export const walkResult = z.enum(['in-order', 'defect', 'not-fitted'])
export type WalkResult = z.infer<typeof walkResult>

export const walkMark = z.strictObject({
  item: z.string(),
  result: walkResult,
  reading: z.number().nullable(),
  at: moment,
  /** The device it was entered on: what another device said about the same item is not overwritten unseen. */
  device: z.string().max(60).default(''),
  /** A reading that is hard to believe beside the last: measured again and it stands, or the part was replaced. */
  because: z.enum(['measured-again', 'replaced']).nullable().default(null),
})
export type WalkMark = z.infer<typeof walkMark>

export const walkMarkRequest = walkMark.extend({
  /** Which round; left out: the one before the shift. */
  round: clientId.nullable().default(null),
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
export type WalkMarkRequest = z.input<typeof walkMarkRequest>

export const roundRequest = z.strictObject({ id: clientId, time: roundTime })
export type RoundRequest = z.infer<typeof roundRequest>
export const walkFinishRequest = z.strictObject({
  round: clientId.nullable().default(null),
  part: z.enum(['first', 'raised']).default('first'),
})
export type WalkFinishRequest = z.infer<typeof walkFinishRequest>
export const handsOnRequest = z.strictObject({ on: z.boolean() })

export const sequenceRequest = z.strictObject({ id: clientId, procedure: z.enum(['setup', 'lift']), steps: z.array(z.string()) })
export type SequenceRequest = z.infer<typeof sequenceRequest>

export const overrideRequest = z.strictObject({
  id: clientId,
  override: z.string(),
  reason: words,
  seconds: z.number().positive('Give how long it was held, in seconds.').max(36_000),
})
export type OverrideRequest = z.infer<typeof overrideRequest>

export const siteRequest = z.strictObject({
  controls: z.array(z.strictObject({ hazard: z.string(), control: words })),
  /** Hazards nobody listed beforehand. */
  more: z.array(z.strictObject({ label: words, control: words })).max(30),
  team: z.array(z.string().trim().min(1).max(80)).min(1, 'Name who looked at the site.').max(30),
  fit: z.boolean(),
})
export type SiteRecord = z.infer<typeof siteRequest>

/** The machine stands somewhere else now: what rested on where it stood is asked anew. */
export const moveRequest = z.strictObject({ id: clientId, place: z.string(), words: maybeWords })
export type MoveRequest = z.infer<typeof moveRequest>

export const setupRequest = z.strictObject({ id: clientId, plan: setupPlan, steps: z.array(z.string()) })
export type SetupRequest = z.infer<typeof setupRequest>

export const proveRequest = z.strictObject({ id: clientId, setup: clientId, plan: liftPlan, conditions })
export type ProveRequest = z.infer<typeof proveRequest>

export const outcomeRequest = z
  .strictObject({
    outcome: z.enum(['done', 'abandoned']),
    reason: maybeWords,
    steps: z.array(z.string()),
  })
  .refine((o) => o.outcome === 'done' || o.reason.length > 0, { message: 'Say why it was abandoned.', path: ['reason'] })
export type OutcomeRequest = z.infer<typeof outcomeRequest>

export const handOverRequest = z.strictObject({
  steps: z.array(z.string()),
  hours: z.number().min(0).max(1_000_000).nullable(),
  fuel_share: z.number().min(0).max(1).nullable(),
  standsAt: maybeWords,
  words: maybeWords,
  /** Legs, forks, boom: as it was left. */
  leftAs: maybeWords.default(''),
  /** Working limits left switched on; empty: none. */
  limitsOn: maybeWords.default(''),
  /**
   * Broken down, or called away: left as it stands, with no step confirmed that was not done. What stands how, how it was made safe as
   * far as it could be, and who takes it back.
   */
  leftAsItStands: z.strictObject({ how: words, madeSafe: words, takenBackBy: words }).nullable().default(null),
})
export type HandOverRequest = z.input<typeof handOverRequest>

export const setupRecord = z.object({ id: z.string(), at: moment, plan: setupPlan, steps: z.array(z.string()) })
export type SetupRecord = z.infer<typeof setupRecord>

export const liftRecord = z.object({
  id: z.string(),
  setup: z.string(),
  at: moment,
  plan: liftPlan,
  conditions,
  policy: sitePolicy,
  assessment: assessment,
  /** What it was computed with, so that it can be computed again years later. */
  versions: z.object({
    geolabe: z.string(),
    machine: z.object({ id: z.string(), revision: z.number() }),
    place: z.object({ id: z.string(), revision: z.number() }),
    tables: z.array(z.object({ id: z.string(), revision: z.number() })),
  }),
  outcome: z
    .object({ outcome: z.enum(['done', 'abandoned']), reason: z.string(), steps: z.array(z.string()), at: moment })
    .nullable(),
})
export type LiftRecord = z.infer<typeof liftRecord>

export const shift = z.object({
  id: z.string(),
  machine: z.object({ id: z.string(), name: z.string(), revision: z.number() }),
  place: z.object({ id: z.string(), name: z.string() }),
  operator: personRef,
  openedAt: moment,
  closedAt: moment.nullable(),
  signOn: z.object({ wear: z.array(z.string()), papers: z.array(z.string()) }),
  walk: z.object({
    marks: z.array(walkMark),
    finishedAt: moment.nullable(),
    /** What waited for overhead, people and legs. */
    raisedAt: moment.nullable().default(null),
    handsOnAt: moment.nullable().default(null),
  }),
  /** Further rounds: after absences, at the end. */
  rounds: z
    .array(
      z.object({ id: z.string(), time: roundTime, openedAt: moment, marks: z.array(walkMark), finishedAt: moment.nullable() }),
    )
    .default([]),
  sequences: z
    .array(z.object({ id: z.string(), procedure: z.enum(['setup', 'lift']), steps: z.array(z.string()), at: moment }))
    .default([]),
  overrides: z
    .array(
      z.object({
        id: z.string(),
        override: z.string(),
        label: z.string(),
        reason: z.string(),
        seconds: z.number(),
        at: moment,
        after: z.string(),
        followedAt: moment.nullable(),
        role: z.string().default('person-in-charge'),
      }),
    )
    .default([]),
  site: siteRequest.extend({ at: moment }).nullable(),
  /** When it last moved; what was set up before stands no more. */
  movedAt: moment.nullable().default(null),
  setups: z.array(setupRecord),
  lifts: z.array(liftRecord),
  handOver: handOverRequest.extend({ at: moment }).nullable(),
})
export type Shift = z.infer<typeof shift>

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
