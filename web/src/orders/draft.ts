import {
  type Condition,
  type Need,
  type OrderPartName,
  orderParts,
  type ProcedureFile,
  type ProcedureStep,
  parseOrRefuse,
  plainIssue,
  procedureFile,
  procedureSource,
  procedureStep,
  stepsOfFile,
  writtenFlat,
} from '@geolabe/core'

/** An order of work as it is being changed on this device. */
export interface OrderDraft {
  /** The revision that it is written over. */
  from: number
  file: ProcedureFile
  why: string
  /** What is typed as JSON and cannot be read yet; the file stays as it was. */
  unread?: string
}

/** A step by where it stands. */
export interface At {
  procedure: number
  step: number
}

export const stepAt = (f: ProcedureFile, { procedure, step }: At): ProcedureStep | undefined =>
  f.procedures[procedure]?.steps[step]

/** The file with other steps in one of its procedures. */
const withSteps = (f: ProcedureFile, procedure: number, change: (steps: ProcedureStep[]) => ProcedureStep[]): ProcedureFile => ({
  ...f,
  procedures: f.procedures.map((p, i) => (i === procedure ? { ...p, steps: change(p.steps) } : p)),
})

export const withStep = (f: ProcedureFile, { procedure, step }: At, to: Partial<ProcedureStep>): ProcedureFile =>
  withSteps(f, procedure, (steps) => steps.map((s, i) => (i === step ? { ...s, ...to } : s)))

export const withWritten = (f: ProcedureFile, { procedure, step }: At, as: ProcedureStep): ProcedureFile =>
  withSteps(f, procedure, (steps) => steps.toSpliced(step, 1, as))

/** Whether what was kept on a device is of today's shape; what does not read yet may be in it. */
export const isOrderDraft = (d: OrderDraft | null): boolean =>
  d === null ||
  (Array.isArray(d.file?.procedures) &&
    stepsOfFile(d.file).every((s) => [s.needs, s.keeps, s.sets, s.hazards, s.measures].every(Array.isArray)))

/** A step one earlier (-1) or later (1) in its procedure; at an end it stays. */
export function withMoved(f: ProcedureFile, at: At, by: -1 | 1): { file: ProcedureFile; at: At } {
  const to = at.step + by
  const here = stepAt(f, at)
  if (!here || !stepAt(f, { ...at, step: to })) return { file: f, at }
  const file = withSteps(f, at.procedure, (steps) => steps.filter((_, i) => i !== at.step).toSpliced(to, 0, here))
  return { file, at: { ...at, step: to } }
}

export const withoutStep = (f: ProcedureFile, at: At): ProcedureFile =>
  withSteps(f, at.procedure, (steps) => steps.filter((_, i) => i !== at.step))

/** The first of a row of names that none of a list has. */
export function freeName(name: string, taken: readonly { id: string }[]): string {
  for (let n = 1; ; n++) if (!taken.some((x) => x.id === `${name}-${n}`)) return `${name}-${n}`
}

/** A new step after this one: it sets nothing and needs nothing yet. */
export function withNewStep(f: ProcedureFile, at: At, label: string): { file: ProcedureFile; at: At } {
  const id = freeName('own', stepsOfFile(f))
  const fresh = procedureStep.parse({ id, label })
  const step = at.step + 1
  return { file: withSteps(f, at.procedure, (steps) => steps.toSpliced(step, 0, fresh)), at: { ...at, step } }
}

/** A need that is asked of the first state there is, to be said otherwise. */
export function newNeed(f: ProcedureFile, needs: readonly Need[]): Need {
  const id = freeName('own', needs)
  return { id, if: firstCondition(f), because: '' }
}
export const firstCondition = (f: ProcedureFile): Condition => {
  const state = f.states.find((s) => s.values)
  return { state: state?.id ?? '', is: state?.values?.[0]?.id ?? '' }
}

/** As an open file, so that it reads alone. */
export const asFile = (machine: string, file: ProcedureFile): string =>
  JSON.stringify({ format: 'geolabe.procedure/1', machine, ...file }, null, 1)

/**
 * An open file read. @throws Refusal with what of it cannot be, SyntaxError where it is no JSON
 */
export function fromFile(text: string): { machine: string; file: ProcedureFile } {
  const source = parseOrRefuse(procedureSource, JSON.parse(text))
  const flat = writtenFlat(source, { format: 'geolabe.procedure-pieces/1', pieces: [] })
  return { machine: source.machine, file: parseOrRefuse(procedureFile, flat) }
}

/** The first thing that keeps a file from being read, in the words of its step, and where it is; no path: nowhere that has a form. */
export function faultOf(f: ProcedureFile): { words: string; path: string } | null {
  const [issue] = procedureFile.safeParse(f).error?.issues ?? []
  if (!issue) return null
  const path = issue.path.map(String).join('.')
  const at = atOf(path)
  const step = at && stepAt(f, at)
  return {
    words: `${step ? `${step.label}: ` : ''}${plainIssue(issue).message}`,
    path: step || partAtOf(path) ? path : '',
  }
}

/** The step that a path leads to. */
export function atOf(path: string): At | null {
  const [, procedure, step] = /^procedures\.(\d+)\.steps\.(\d+)/.exec(path) ?? []
  return procedure === undefined ? null : { procedure: Number(procedure), step: Number(step) }
}

/** One of a list that a file has besides its steps, by where it stands. */
export interface PartAt {
  of: OrderPartName
  at: number
}
type PartOf<K extends OrderPartName> = ProcedureFile[K][number]

export const withPart = <K extends OrderPartName>(f: ProcedureFile, of: K, at: number, to: PartOf<K>): ProcedureFile => ({
  ...f,
  [of]: f[of].map((x, i) => (i === at ? to : x)),
})
export const withoutPart = (f: ProcedureFile, { of, at }: PartAt): ProcedureFile => ({
  ...f,
  [of]: f[of].filter((_, i) => i !== at),
})

/** One more of a list, at its end, to be said otherwise. */
export function withNewPart(f: ProcedureFile, of: OrderPartName, label: string): { file: ProcedureFile; at: PartAt } {
  const id = freeName('own', f[of])
  const fresh: { [K in OrderPartName]: () => unknown } = {
    invariants: () => ({ id, never: firstCondition(f), because: label }),
    states: () => ({
      id,
      label,
      values: [
        { id: 'yes', label: 'yes' },
        { id: 'no', label: 'no' },
      ],
    }),
    stops: () => ({ id, label, stillMoves: [label], reset: [label] }),
    overrides: () => ({ id, label, purpose: label, most_s: 10, load: 'none', follow: { what: label, by: 'person-in-charge' } }),
    procedures: () => ({
      id,
      label,
      station: 'setup',
      goal: [firstCondition(f)],
      steps: [
        {
          id: freeName('own', stepsOfFile(f)),
          label,
        },
      ],
    }),
  }
  return { file: { ...f, [of]: [...f[of], orderParts[of].parse(fresh[of]())] }, at: { of, at: f[of].length } }
}

/** The part that a path leads to, where it is no step. */
export function partAtOf(path: string): PartAt | null {
  const [, of, at] = /^([a-z]+)\.(\d+)/.exec(path) ?? []
  const known = orderPartNames.find((x) => x === of)
  return known === undefined || atOf(path) ? null : { of: known, at: Number(at) }
}
export const orderPartNames: readonly OrderPartName[] = ['invariants', 'states', 'stops', 'overrides', 'procedures']
