import { inspectionEntry, occasion, walkround } from '@geolabe/core'
import { z } from 'zod'
import { moment, personRef, words } from './common'

export const inspectionSummary = z.object({
  id: z.string(),
  shift: z.string(),
  machine: z.object({ id: z.string(), name: z.string() }),
  occasion,
  by: personRef,
  openedAt: moment,
  finishedAt: moment.nullable(),
  items: z.number().nullable(),
  defects: z.number().nullable(),
  duration_s: z.number().nullable(),
})
export type InspectionSummary = z.infer<typeof inspectionSummary>
export const inspectionPage = z.object({ inspections: z.array(inspectionSummary), next: z.string().nullable() })
export type InspectionPage = z.infer<typeof inspectionPage>

/** One round as a file: what was asked, what was answered. */
export const inspectionFile = z.strictObject({
  format: z.literal('geolabe.inspection/1'),
  exportedAt: moment,
  organisation: z.string(),
  inspection: inspectionSummary.extend({
    entries: z.array(inspectionEntry.extend({ label: z.string(), zone: z.string(), unit: z.string().nullable() })),
  }),
  walkround,
})
export type InspectionFile = z.infer<typeof inspectionFile>

export const memoryFinding = z.object({
  kind: z.enum(['too-quick', 'same-duration', 'never-a-defect']),
  machine: z.object({ id: z.string(), name: z.string() }),
  by: personRef,
  fact: z.string(),
  rounds: z.array(z.string()),
})
export const weekOfInspections = z.object({ week: z.string(), shifts: z.number(), finished: z.number() })
export const inspectionReport = z.object({ weeks: z.array(weekOfInspections), patterns: z.array(memoryFinding) })
export type InspectionReport = z.infer<typeof inspectionReport>

/** What happened to a machine, on one time axis. */
export const lifeLine = z.object({
  from: moment,
  to: moment,
  shifts: z.array(
    z.object({ id: z.string(), by: personRef, openedAt: moment, closedAt: moment.nullable(), hours: z.number().nullable() }),
  ),
  defects: z.array(
    z.object({
      id: z.string(),
      where: z.string(),
      words: z.string(),
      grade: z.string(),
      state: z.string(),
      from: moment,
      to: moment.nullable(),
    }),
  ),
  repairs: z.array(z.object({ defect: z.string(), at: moment, by: personRef, words: z.string() })),
  duties: z.array(z.object({ duty: z.string(), label: z.string(), on: z.string(), words: z.string() })),
  readings: z.array(z.object({ item: z.string(), at: moment, value: z.number(), replaced: z.boolean() })),
})
export type LifeLine = z.infer<typeof lifeLine>

/** A walk-round brought in as a file or changed: what and why. */
export const reviseWalkroundRequest = z.strictObject({ template: z.looseObject({}), why: words })
export const walkroundFile = z.object({
  machine: z.string(),
  revision: z.number(),
  walkround,
  enteredBy: personRef.nullable(),
  enteredAt: moment.nullable(),
  why: z.string(),
  /** Entered, asking for less than the one in force, and not checked by a second person yet. */
  waiting: z
    .object({ revision: z.number(), enteredBy: personRef.nullable(), enteredAt: moment, why: z.string(), walkround })
    .nullable(),
})
export type WalkroundFile = z.infer<typeof walkroundFile>
