import { existsSync, readdirSync, readFileSync } from 'node:fs'
import { type HistoryFile, historyFile, type OrganisationFile, organisationFile } from '@geolabe/contract'
import {
  composeMachine,
  type Machine,
  machineModel,
  parseOrRefuse,
  piecesFile,
  placeDefinition,
  procedurePieces,
  Refusal,
  ratingTable,
} from '@geolabe/core'
import type { z } from 'zod'

const demo = new URL('../../../demo/', import.meta.url)

/** One file of the demo world, through the same schema as any import; an error names file, field and remedy. */
function read<S extends z.ZodType>(path: string, schema: S): z.output<S> {
  try {
    return parseOrRefuse(schema, JSON.parse(readFileSync(new URL(path, demo), 'utf8')))
  } catch (e) {
    if (e instanceof Refusal) throw new Error(`demo/${path}: ${e.path}: ${e.message}`)
    throw e
  }
}

export const readOrganisations = (): OrganisationFile[] =>
  readdirSync(new URL('people/', demo))
    .filter((f) => f.endsWith('.json'))
    .sort((a, b) => b.localeCompare(a))
    .map((f) => read(`people/${f}`, organisationFile))
/** What the organisations did before today. */
export const readHistories = (): HistoryFile[] =>
  readdirSync(new URL('history/', demo)).map((f) => read(`history/${f}`, historyFile))
const json = (path: string): unknown => JSON.parse(readFileSync(new URL(path, demo), 'utf8'))
const maybe = (path: string): { there: unknown } | null => (existsSync(new URL(path, demo)) ? { there: json(path) } : null)

export const readProcedurePieces = () => read('pieces/procedures.json', procedurePieces)
export const readPieces = () => read('pieces/pieces.json', piecesFile)

/** A machine of the demo world, with its model and its walk-round where the file leaves them out. */
export function readMachineFile(id: string): Machine {
  const [model, template, order] = [maybe(`models/${id}.json`), maybe(`walkrounds/${id}.json`), maybe(`procedures/${id}.json`)]
  try {
    return composeMachine(json(`machines/${id}.json`), {
      ...(model ? { model: model.there } : {}),
      ...(template ? { template: template.there } : {}),
      ...(order ? { procedures: order.there } : {}),
      procedurePieces: readProcedurePieces(),
      pieces: readPieces(),
    })
  } catch (e) {
    if (e instanceof Refusal) throw new Error(`demo/machines/${id}.json: ${e.path}: ${e.message}`)
    throw e
  }
}
export const readTableFile = (id: string) => read(`tables/${id}.json`, ratingTable)
export const readModelFile = (id: string) => read(`models/${id}.json`, machineModel)
export const readPlaceFile = (id: string) => read(`places/${id}.json`, placeDefinition)
