import { readdirSync, readFileSync } from 'node:fs'
import { type OrganisationFile, organisationFile } from '@geolabe/contract'
import { machineDefinition, machineModel, parseOrRefuse, placeDefinition, Refusal, ratingTable } from '@geolabe/core'
import type { z } from 'zod'

const demo = new URL('../../../demo/', import.meta.url)

/** One file of the demo world, through the same schema as any import; an error names file, field and mend. */
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
export const readMachineFile = (id: string) => read(`machines/${id}.json`, machineDefinition)
export const readTableFile = (id: string) => read(`tables/${id}.json`, ratingTable)
export const readModelFile = (id: string) => read(`models/${id}.json`, machineModel)
export const readPlaceFile = (id: string) => read(`places/${id}.json`, placeDefinition)
