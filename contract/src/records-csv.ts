import Papa from 'papaparse'
import type { Defect } from './defects'
import type { JournalEntry } from './journal'

const csv = (fields: string[], data: (string | number | null)[][]) =>
  Papa.unparse({ fields, data }, { newline: '\n', escapeFormulae: true })

/** One row a defect, oldest words first; a cell that a spreadsheet would take for a formula is made plain text. */
export const defectsToCsv = (defects: readonly Defect[]) =>
  csv(
    [
      'id',
      'machine',
      'where',
      'words',
      'grade',
      'raised_grade',
      'state',
      'raised_at',
      'raised_by',
      'repaired_at',
      'repair',
      'ended_at',
    ],
    defects.map((d) => [
      d.id,
      d.machine.id,
      d.where,
      d.words,
      d.grade,
      d.raisedGrade,
      d.state,
      d.raised.at,
      d.raised.by.name,
      d.repair?.at ?? null,
      d.repair?.words ?? null,
      d.returned?.at ?? d.accepted?.at ?? null,
    ]),
  )

export interface InspectionRow {
  id: string
  machine: string
  occasion: string
  by: string
  at: string
  item: string
  result: string
  reading: number | null
}
export const inspectionsToCsv = (rows: readonly InspectionRow[]) =>
  csv(
    ['inspection', 'machine', 'occasion', 'by', 'at', 'item', 'result', 'reading'],
    rows.map((r) => [r.id, r.machine, r.occasion, r.by, r.at, r.item, r.result, r.reading]),
  )

export const journalToCsv = (entries: readonly JournalEntry[]) =>
  csv(
    ['seq', 'at', 'actor', 'kind', 'subject', 'body', 'hash'],
    entries.map((e) => [e.seq, e.at, e.actor?.name ?? '', e.kind, e.subject, JSON.stringify(e.body), e.hash]),
  )
