import { z } from 'zod'
import { parseOrRefuse } from '../calculator/define'
import { type PiecesFile, walkroundTemplate, writtenOut } from '../inspection/pieces'
import { type ProcedurePieces, procedureSource, writtenFlat } from '../procedure/source'
import { Refusal } from '../refusal'
import { type Machine, machineDefinition } from './machine'
import { machineModel } from './model'

/** What a machine's file may leave to others: its geometry to a model, its walk-round to a template, shared ways to the pieces. */
export interface MachineSources {
  model?: unknown
  template?: unknown
  pieces?: PiecesFile
  /** Its order of work as it is written, and the runs of steps that it shares. */
  procedures?: unknown
  procedurePieces?: ProcedurePieces
}

const loose = z.looseObject({ id: z.string(), symptoms: z.array(z.unknown()).optional(), walkround: z.unknown().optional() })

/**
 * A whole machine from its file and what that leaves to others.
 * @throws Refusal with the path of what is wrong; `unknown-symptom`, `unknown-piece`, `other-machine`.
 */
export function composeMachine(
  raw: unknown,
  { model, template, pieces, procedures, procedurePieces }: MachineSources = {},
): Machine {
  const own = parseOrRefuse(loose, raw)
  const parts = model === undefined ? {} : partsOf(model, own.id)
  const symptoms = (own.symptoms ?? []).map((s, i) => {
    if (typeof s !== 'string') return s
    const shared = pieces?.symptoms.find((p) => p.id === s)
    if (!shared) throw new Refusal('unknown-symptom', `There is no shared way for “${s}”.`, `symptoms.${i}`)
    return shared
  })
  return parseOrRefuse(machineDefinition, {
    ...parts,
    ...(procedures === undefined ? {} : { procedures: orderOf(procedures, own.id, procedurePieces) }),
    ...own,
    symptoms,
    walkround: own.walkround ?? roundOf(template, own.id, pieces),
  })
}

function partsOf(model: unknown, id: string): object {
  const { format: _f, id: of, name: _n, kind: _k, note: _o, ...parts } = parseOrRefuse(machineModel, model)
  if (of !== id) throw new Refusal('other-machine', `This model is of “${of}”, not of “${id}”.`, 'id')
  return parts
}

function roundOf(template: unknown, id: string, pieces: PiecesFile | undefined): object | undefined {
  if (template === undefined) return undefined
  const t = parseOrRefuse(walkroundTemplate, template)
  if (t.machine !== id) throw new Refusal('other-machine', `This walk-round is of “${t.machine}”, not of “${id}”.`, 'machine')
  return writtenOut(t, pieces?.pieces ?? [])
}

function orderOf(written: unknown, id: string, pieces: ProcedurePieces | undefined): object {
  const source = parseOrRefuse(procedureSource, written)
  if (source.machine !== id)
    throw new Refusal('other-machine', `This order of work is of “${source.machine}”, not of “${id}”.`, 'machine')
  return writtenFlat(source, pieces ?? { format: 'geolabe.procedure-pieces/1', pieces: [] })
}
