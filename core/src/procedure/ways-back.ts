import { conditionsOf, influence, plannedWays, type Scope, scopeOf, type Vector } from './compiled'
import { type Condition, doneId, namedIn, stateHolds, unknown } from './condition'
import { explore, stepMove } from './explore'
import { type Procedure, type ProcedureFile, type Step, setBy, stepsOfFile } from './file'

/** So many worlds are looked through; beyond, only those are found from which no way leads whatever else was done. */
const most_worlds = 6_000

/** Values that a state may come to have. */
type Reach = Map<string, Set<string | number>>

/** Whether a condition can come to be true, or false, where nothing that was once so is ever lost again. */
function can(c: Condition, truth: boolean, reach: Reach): boolean {
  if ('state' in c) return [...(reach.get(c.state) ?? [])].some((v) => v !== unknown && stateHolds(c, v) === truth)
  if ('done' in c) return !truth || (reach.get(doneId(c.done))?.size ?? 0) > 0
  if ('no' in c) return can(c.no, !truth, reach)
  if ('all' in c) return truth ? c.all.every((x) => can(x, true, reach)) : c.all.some((x) => can(x, false, reach))
  if ('any' in c) return truth ? c.any.some((x) => can(x, true, reach)) : c.any.every((x) => can(x, false, reach))
  return true
}

const add = (reach: Reach, id: string, value: string | number): boolean => {
  const had = reach.get(id) ?? new Set()
  if (had.has(value)) return false
  reach.set(id, had.add(value))
  return true
}

/** Whether a goal is out of reach from a world even if no step ever undid what another needs. */
function hopeless(f: ProcedureFile, scope: Scope, steps: readonly Step[], goal: readonly Condition[]): (v: Vector) => boolean {
  const asked = steps.map((s) => ({ s, needs: [...conditionsOf(f, s), ...(s.when ? [s.when] : [])] }))
  return (v) => {
    const reach: Reach = new Map(scope.variables.map(({ id, values }, i) => [id, new Set([values[v[i] ?? 0] ?? unknown])]))
    for (const { id } of scope.variables) if (id.startsWith('done ') && reach.get(id)?.has(unknown)) reach.delete(id)
    for (let changed = true; changed; ) {
      changed = false
      for (const { s, needs } of asked) {
        if (!needs.every((c) => can(c, true, reach))) continue
        for (const { state, to } of s.sets) if (add(reach, state, typeof to === 'object' ? unknown : to)) changed = true
        if (add(reach, doneId(s.id), 1)) changed = true
      }
    }
    return !goal.every((c) => can(c, true, reach))
  }
}

/**
 * How a machine that is as usual, whichever way it is planned to stand, comes to where its own steps cannot put it away any more; null: nowhere
 * that was looked at.
 */
export function stranded(f: ProcedureFile, away: Procedure): string[] | null {
  const steps = stepsOfFile(f)
  const cone = influence(f, steps, away.goal)
  const scope = scopeOf(f, cone)
  const useful = steps.filter((s) => setBy(s).some((id) => cone.has(id)) || cone.has(doneId(s.id)))
  const moves = useful.map((s) => stepMove(f, s, scope))
  const looked = new Set<string>()
  for (const own of plannedWays(f)) {
    const start = Uint8Array.from(scope.variables, ({ id, values }) => {
      const d = own.states.find((s) => s.id === id)
      return d ? Math.max(0, values.indexOf(d.usual ?? d.initial)) : 0
    })
    // Planned otherwise in what it never asks for here, it is the same.
    if (looked.has(start.join())) continue
    looked.add(start.join())
    const e = explore(scope, [start], moves, { goal: away.goal, most_worlds, hopeless: hopeless(f, scope, useful, away.goal) })
    if (e.stuck) return e.stuck
  }
  return null
}

/** Whether the steps named as the way to undo one can follow it, each after the one before, and change what it made. */
export function undoes(f: ProcedureFile, s: Step): boolean {
  if (s.undo.how !== 'steps') return true
  const named = s.undo.steps.flatMap((id) => stepsOfFile(f).filter((x) => x.id === id))
  const both = [s, ...named]
  const cone = new Set([...both.flatMap(setBy), ...both.flatMap((x) => conditionsOf(f, x).flatMap((c) => namedIn(c)))])
  const made = new Set(s.sets.map((x) => `${x.state} ${String(typeof x.to === 'object' ? unknown : x.to)}`))
  const changes = named.some((x) => x.sets.some((y) => setBy(s).includes(y.state) && !made.has(`${y.state} ${String(y.to)}`)))
  if (!changes) return false
  // What a step has made is that; everything else is anything.
  const scope = scopeOf(f, cone)
  const reach: Reach = new Map(scope.variables.map(({ id, values }) => [id, new Set(values)]))
  for (const { state, to } of s.sets) if (typeof to !== 'object') reach.set(state, new Set([to]))
  for (const x of named) {
    if (!conditionsOf(f, x).every((c) => can(c, true, reach))) return false
    for (const { state, to } of x.sets) reach.set(state, new Set([typeof to === 'object' ? unknown : to]))
  }
  return true
}
