import { defectActions, defectState, grade } from '@geolabe/core'
import { z } from 'zod'
import { clientId, maybeWords, moment, personRef, words } from './common'

export { type DefectState, defectState, type Grade, grade, gradeWords, stopsMachine } from '@geolabe/core'

/** A point on the machine's outline, metres: plan (x, y) or side (x, z). */
export const spot = z.strictObject({ view: z.enum(['plan', 'side']), at: z.tuple([z.number(), z.number()]) })
export type Spot = z.infer<typeof spot>

export const raiseDefectRequest = z.strictObject({
  id: clientId,
  machine: z.string(),
  shift: clientId.nullable(),
  item: z.string().nullable(),
  /** The item's own words, so that the defect reads alone. */
  where: z.string().trim().min(1, 'Say where on the machine.').max(200),
  words,
  grade,
  spot: spot.nullable().default(null),
})
export type RaiseDefectRequest = z.input<typeof raiseDefectRequest>

export const repairRequest = z.strictObject({
  words,
  parts: z.string().trim().max(500),
  hours: z.number('Give the hours of work.').min(0).max(1000),
})
export type RepairRequest = z.infer<typeof repairRequest>
export const returnRequest = z.strictObject({ words })
export type ReturnRequest = z.infer<typeof returnRequest>
/** Looked at by another than who repaired it: in order, or not and back to the fitter. */
export const verifyRequest = z.strictObject({ inOrder: z.boolean(), words })
export type VerifyRequest = z.infer<typeof verifyRequest>

/** Watched until a date or until the meter stands at so many hours, whichever comes first. */
export const watchRequest = z
  .strictObject({
    untilDate: z.iso.date('Give the day.').nullable(),
    untilHours: z.number().min(0).max(1_000_000).nullable(),
    words,
  })
  .refine((w) => w.untilDate !== null || w.untilHours !== null, {
    message: 'Watch it until a date, until hours, or both.',
    path: ['untilDate'],
  })
export type WatchRequest = z.infer<typeof watchRequest>
export const acceptRequest = z.strictObject({ words })
export const noteRequest = z.strictObject({ id: clientId, words, worsened: z.boolean(), grade: grade.nullable() })
export type NoteRequest = z.infer<typeof noteRequest>
export const gradeRequest = z.strictObject({ grade, words: maybeWords })
export type GradeRequest = z.infer<typeof gradeRequest>

const step = z.object({ by: personRef, at: moment })

export const defect = z.object({
  id: z.string(),
  machine: z.object({ id: z.string(), name: z.string() }),
  item: z.string().nullable(),
  where: z.string(),
  words: z.string(),
  grade,
  raisedGrade: grade,
  /** Stops the machine until the person in charge has graded it. */
  pending: z.boolean(),
  state: defectState,
  spot: spot.nullable(),
  raised: step,
  acknowledged: step.nullable(),
  repair: step.extend({ words: z.string(), parts: z.string(), hours: z.number() }).nullable(),
  verified: step.extend({ words: z.string() }).nullable(),
  returned: step.extend({ words: z.string() }).nullable(),
  watched: step
    .extend({ words: z.string(), untilDate: z.string().nullable(), untilHours: z.number().nullable(), over: z.boolean() })
    .nullable(),
  accepted: step.extend({ words: z.string() }).nullable(),
  worsenedAt: moment.nullable(),
  notes: z.array(
    z.object({ id: z.string(), kind: z.enum(['note', 'worsened', 'graded']), words: z.string(), by: personRef, at: moment }),
  ),
  /** Every decision in its order, those that were overtaken too. */
  steps: z.array(
    z.object({
      action: z.enum(defectActions),
      by: personRef,
      at: moment,
      words: z.string(),
      grade,
      detail: z.record(z.string(), z.unknown()),
    }),
  ),
  /** Who is told of it, and who stands in. */
  contacts: z.array(z.object({ person: personRef, standIn: personRef })),
  photos: z.array(z.string()),
})
export type Defect = z.infer<typeof defect>

export const defectPage = z.object({ defects: z.array(defect), next: z.string().nullable() })
export type DefectPage = z.infer<typeof defectPage>

/** Defects as a file, read alone. */
export const defectsFile = z.strictObject({
  format: z.literal('geolabe.defects/1'),
  exportedAt: moment,
  organisation: z.string(),
  defects: z.array(defect),
})
export type DefectsFile = z.infer<typeof defectsFile>

export const photoLimit_bytes = 4 * 1024 * 1024
