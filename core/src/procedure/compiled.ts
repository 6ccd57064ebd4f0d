import { type Condition, doneId, namedIn, oracleId, partsOf, type StateValue, stateHolds, unknown } from './condition'
import type { ProcedureFile, StateDeclaration, Step } from './file'

/** True, false, unknown, as small numbers. */
export const [no, yes, open] = [0, 1, 2] as const
export type Mark = 0 | 1 | 2
/** A world of the analysis: of each state the place of its value among those that it can have; nought is *unknown*. */
export type Vector = Uint8Array

interface Variable {
  id: string
  values: readonly StateValue[]
}

/** What an exploration looks at: states, and steps whose doing a condition asks for. */
export interface Scope {
  variables: readonly Variable[]
  at: ReadonlyMap<string, number>
  /** Members of a group, with the places of their variables in the same order: alike, they are counted and not named. */
  groups: readonly (readonly (readonly number[])[])[]
}

/** What a step rests on: its own needs and those of its procedure. */
export const conditionsOf = (f: ProcedureFile, s: Step): Condition[] => {
  const home = f.procedures.find((p) => p.steps.includes(s))
  return [...(home?.when ? [home.when] : []), ...[...(home?.start ?? []), ...s.needs, ...(s.two?.first ?? [])].map((n) => n.if)]
}

/** Everything that decides whether conditions come to hold by these steps. */
export function influence(f: ProcedureFile, steps: readonly Step[], wanted: readonly Condition[]): Set<string> {
  const cone = new Set(wanted.flatMap((c) => namedIn(c)))
  for (let before = -1; before !== cone.size; ) {
    before = cone.size
    for (const s of steps) {
      if (!s.sets.some((x) => cone.has(x.state)) && !cone.has(doneId(s.id))) continue
      for (const c of [...conditionsOf(f, s), ...(s.when ? [s.when] : [])]) for (const id of namedIn(c)) cone.add(id)
    }
  }
  return cone
}

const figuresFor = (d: StateDeclaration): StateValue[] => (d.values ?? []).map((v) => v.id)

/** Values that conditions of a file compare a state with that lists none itself. */
export function comparedWith(f: ProcedureFile, id: string): StateValue[] {
  const found = new Set<StateValue>()
  const look = (c: Condition) => {
    for (const x of partsOf(c))
      if ('state' in x && x.state === id) for (const v of [x.is, x.not, ...(x.in ?? [])]) if (v !== undefined) found.add(v)
  }
  for (const p of f.procedures) {
    if (p.when) look(p.when)
    p.goal.forEach(look)
    for (const s of p.steps) [...conditionsOf(f, s), ...(s.when ? [s.when] : [])].forEach(look)
  }
  for (const v of f.invariants) look(v.never)
  return [...found]
}

/** The file once for each way that its plan may have: what is computed begins as that. */
export function plannedWays(f: ProcedureFile): ProcedureFile[] {
  const planned = f.states.filter((s) => s.source === 'computed')
  const ways = planned.reduce<Map<string, StateValue>[]>(
    (all, s) => {
      // What no step's condition asks for makes no difference here.
      const values = comparedWith(f, s.id)
      return values.length === 0 ? all : all.flatMap((way) => values.map((v) => new Map([...way, [s.id, v]])))
    },
    [new Map()],
  )
  return ways.map((way) => ({ ...f, states: f.states.map((s) => ({ ...s, initial: way.get(s.id) ?? s.initial })) }))
}

export function scopeOf(f: ProcedureFile, cone: ReadonlySet<string>): Scope {
  const states = f.states
    .filter((s) => cone.has(s.id))
    .map(
      (s): Variable => ({
        id: s.id,
        values: [unknown, ...(s.values ? figuresFor(s) : comparedWith(f, s.id))],
      }),
    )
  const done = [...cone].filter((id) => id.startsWith('done ')).map((id): Variable => ({ id, values: [unknown, 'done'] }))
  const oracles = [...cone]
    .filter((id) => id.startsWith('asked '))
    .map((id): Variable => ({ id, values: [unknown, 'yes', 'no'] }))
  const variables = [...states, ...done, ...oracles]
  const members = f.states.flatMap((s) => (s.member && cone.has(s.id) ? [{ ...s.member, state: s.id }] : []))
  const at = new Map(variables.map((v, i) => [v.id, i]))
  const groups = grouped(members, (m) => m.of).map((all) =>
    grouped(all, (m) => m.id).map((own) => own.sort((a, b) => a.base.localeCompare(b.base)).map((m) => at.get(m.state) ?? 0)),
  )
  return { variables, at, groups: groups.filter((g) => new Set(g.map((m) => m.length)).size === 1 && !asksDone(done)) }
}
/** What has the same name, together; in the order in which names come. */
const grouped = <T>(all: readonly T[], by: (x: T) => string): T[][] =>
  [...new Set(all.map(by))].map((name) => all.filter((x) => by(x) === name))
/** Where a step's doing is asked for, members are told apart. */
const asksDone = (done: readonly Variable[]) => done.some((d) => d.id.includes(':'))

export type Test = (v: Vector) => Mark

const stateTest = (c: Extract<Condition, { state: string }>, s: Scope): Test => {
  const i = s.at.get(c.state)
  if (i === undefined) return () => open
  const marks = (s.variables[i]?.values ?? []).map((value): Mark => {
    const right = stateHolds(c, value)
    return right === null ? open : right ? yes : no
  })
  return (v) => marks[v[i] ?? 0] ?? open
}

/**
 * A condition made ready for many worlds. What is computed or measured is as it is wanted, as the analysis asks what may happen; or it comes out
 * either way where the scope has it.
 */
export function compile(c: Condition, s: Scope): Test {
  if ('state' in c) return stateTest(c, s)
  if ('done' in c) {
    const i = s.at.get(doneId(c.done))
    return i === undefined ? () => no : (v) => (v[i] === 0 ? no : yes)
  }
  if ('calc' in c || 'input' in c) {
    const i = s.at.get(oracleId(c))
    return i === undefined ? () => yes : (v) => ([open, yes, no] as const)[v[i] ?? 0] ?? open
  }
  if ('no' in c) {
    const test = compile(c.no, s)
    return (v) => (test(v) === open ? open : test(v) === yes ? no : yes)
  }
  const [parts, decides] = 'all' in c ? ([c.all, no] as const) : ([c.any, yes] as const)
  const tests = parts.map((x) => compile(x, s))
  return (v) => {
    let unsure = false
    for (const test of tests) {
      const m = test(v)
      if (m === decides) return decides
      if (m === open) unsure = true
    }
    return unsure ? open : decides === no ? yes : no
  }
}
