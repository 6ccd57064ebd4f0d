import { machineModel, ratingTable, tableAxes } from '@geolabe/core'
import { z } from 'zod'
import { maybeWords, moment } from './common'

export const tableSummary = z.object({
  id: z.string(),
  machine: z.string(),
  machineName: z.string(),
  kind: z.string(),
  title: z.string(),
  /** What its rows and columns are. */
  axes: tableAxes,
  /** The newest revision, and the one that lifts are proved with: the newest that somebody else has checked. */
  revision: z.number(),
  inUse: z.number(),
  checkedBy: z.string().nullable(),
  document: z.string(),
})
export type TableSummary = z.infer<typeof tableSummary>
export const tableList = z.object({ tables: z.array(tableSummary) })
export type TableList = z.infer<typeof tableList>

export const tableRevision = z.object({
  revision: z.number(),
  enteredBy: z.string(),
  enteredAt: moment,
  checkedBy: z.string().nullable(),
  why: z.string(),
})
export type TableRevision = z.infer<typeof tableRevision>

/** A table with what it is checked against, its revisions, and the one before for comparison. */
export const tableFile = z.object({
  table: ratingTable,
  before: ratingTable.nullable(),
  /** Geometry and masses of its machine; null: none is known and the table cannot be checked against physics. */
  model: machineModel.nullable(),
  revisions: z.array(tableRevision),
  inUse: z.number(),
})
export type TableFile = z.infer<typeof tableFile>

/** A new revision; the one it was made from has to be the newest still, so that nobody writes over another's work. */
export const reviseRequest = z.strictObject({
  from: z.int().min(1),
  table: ratingTable,
  why: maybeWords.min(1, 'Say what was changed and from which document.'),
})
export type ReviseRequest = z.infer<typeof reviseRequest>
export const checkTableRequest = z.strictObject({ revision: z.int().min(1) })
