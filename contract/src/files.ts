import {
  isoDate,
  machineDefinition,
  machineModel,
  piecesFile,
  placeDefinition,
  procedurePieces,
  procedureSource,
  ratingTable,
  role,
  walkroundTemplate,
} from '@geolabe/core'
import { z } from 'zod'
import { defectsFile } from './defects'
import { practiceCertificate } from './exams'
import { historyFile } from './history'
import { inspectionFile } from './inspections'
import { practiceRun } from './practice'
import { shiftFile } from './shift'

/** A date, or in demo files one that stays the same distance from today. */
const demoDate = z.union([isoDate, z.strictObject({ daysFromToday: z.int() })])

export const personFile = z.strictObject({
  format: z.literal('geolabe.person/1'),
  id: z.string().regex(/^[a-z][a-z0-9-]*$/),
  name: z.string().min(1),
  badge: z.string().min(1),
  /** Demo files only; shown on the sign-on screen in demo mode. */
  demoPin: z
    .string()
    .regex(/^\d{4,8}$/, 'Four to eight figures.')
    .optional(),
  roles: z.array(role).min(1),
  licences: z.array(z.strictObject({ class: z.string().min(1), grade: z.string().min(1), validUntil: demoDate })),
  trained: z.array(z.string()),
  /** Machines this person is authorised for; “all” for every one of the yard. */
  authorised: z.union([z.literal('all'), z.array(z.string())]).optional(),
  note: z.string(),
})
export type PersonFile = z.infer<typeof personFile>

export const organisationFile = z.strictObject({
  format: z.literal('geolabe.organisation/1'),
  id: z.string().regex(/^[a-z][a-z0-9-]*$/),
  name: z.string().min(1),
  people: z.array(personFile),
  machines: z.array(z.string()),
  places: z.array(z.string()),
  tables: z.array(z.string()),
  /** Machines of which geometry and tables are there, and no walk-round yet. */
  models: z.array(z.string()),
  /** Who is told of defects, and who stands in. */
  contacts: z.array(z.strictObject({ person: z.string(), standIn: z.string() })).optional(),
})
export type OrganisationFile = z.infer<typeof organisationFile>

/** Open file formats with a published JSON Schema each. */
export const fileFormats = {
  machine: machineDefinition,
  model: machineModel,
  table: ratingTable,
  place: placeDefinition,
  person: personFile,
  organisation: organisationFile,
  history: historyFile,
  shift: shiftFile,
  pieces: piecesFile,
  procedure: procedureSource,
  'procedure-pieces': procedurePieces,
  walkround: walkroundTemplate,
  inspection: inspectionFile,
  defects: defectsFile,
  practice: practiceRun,
  certificate: practiceCertificate,
} as const
export type FileFormat = keyof typeof fileFormats

export function jsonSchemaOf(name: FileFormat): object {
  return { title: `Geolabe ${name}`, ...z.toJSONSchema(fileFormats[name], { io: 'input', unrepresentable: 'any' }) }
}
