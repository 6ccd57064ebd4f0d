import { z } from 'zod'
import { moment, personRef } from './common'

export const journalEntry = z.object({
  seq: z.number(),
  at: moment,
  actor: personRef.nullable(),
  kind: z.string(),
  subject: z.string(),
  body: z.record(z.string(), z.unknown()),
  hash: z.string(),
})
export type JournalEntry = z.infer<typeof journalEntry>

export const journalPage = z.object({ entries: z.array(journalEntry), next: z.number().nullable() })
export type JournalPage = z.infer<typeof journalPage>

export const journalCheck = z.object({
  entries: z.number(),
  intact: z.boolean(),
  /** The first entry that does not agree with its hash or with the one before it. */
  brokenAt: z.number().nullable(),
})
export type JournalCheck = z.infer<typeof journalCheck>

/** What the journal calls things, in words. */
export const kindWords: Record<string, string> = {
  'signed-in': 'Signed in',
  'shift-opened': 'Shift opened',
  'inspection-entry': 'Walk-round item',
  'inspection-finished': 'Walk-round finished',
  'defect-raised': 'Defect raised',
  'defect-photo': 'Photo added',
  'defect-acknowledged': 'Defect acknowledged',
  'defect-repaired': 'Repair recorded',
  'defect-returned': 'Returned to service',
  'defect-verified': 'Repair looked at',
  'defect-sent-back': 'Repair sent back',
  'defect-watched': 'Kept watched',
  'defect-accepted': 'Accepted as it is',
  'defect-noted': 'Note on a defect',
  'defect-worsened': 'Defect has worsened',
  'defect-graded': 'Defect graded',
  'hands-on': 'Hands on the machine',
  'hands-off': 'Hands off the machine',
  'inspection-opened': 'Walk-round begun',
  order: 'Order of work',
  'override-used': 'Override used',
  'override-followed': 'After an override',
  'plate-entered': 'Rating plate entered',
  'exam-set': 'Exam of practice set',
  'certificate-issued': 'Certificate of practice issued',
  'key-given': 'Authorised for a machine',
  'key-withdrawn': 'Authorisation withdrawn',
  'duty-done': 'Duty done',
  'walkround-revised': 'Walk-round revised',
  'walkround-checked': 'Walk-round checked',
  'order-written': 'Order of work written anew',
  'order-in-force': 'Order of work put in force',
  'order-returned': 'Order of work sent back',
  'machine-moved': 'Machine moved',
  'left-as-it-stands': 'Left as it stands',
  'site-recorded': 'Site looked at',
  'setup-recorded': 'Set-up recorded',
  'lift-proved': 'Lift proved',
  'lift-outcome': 'Lift recorded',
  'shift-closed': 'Handed over',
  'shift-imported': 'Shift imported',
  'calculation-noted': 'Calculation noted',
  'place-drawn': 'Place drawn anew',
  'drawing-checked': 'Drawing of a place checked',
  'drawing-returned': 'Drawing of a place sent back',
  'policy-set': 'Site policy set',
  'table-revised': 'Table revised',
  'table-checked': 'Table checked',
  'demo-seeded': 'Demo world laid out',
}
