import { compile, conditionsOf, influence, type Mark, no, plannedWays, type Scope, scopeOf, type Vector, yes } from './compiled'
import { type Condition, inputsIn, namedIn, oraclesIn, unknown } from './condition'
import { emergencyCards, emergencyLabel, sparedByNone } from './emergency'
import { type Explored, explore, foundMoves, lossMoves, stepMove } from './explore'
import { concerns, type Invariant, type Procedure, type ProcedureFile, type Step, stepsOfFile } from './file'
import { walkThrough } from './walk'
import { stranded, undoes } from './ways-back'
import { apply, factsOf, firstWorld, stateWords } from './world'

export type FindingCode =
  | 'never-set'
  | 'never-read'
  | 'unreachable-step'
  | 'dead-end'
  | 'no-way-to-goal'
  | 'no-way-back'
  | 'undo-breaks'
  | 'override-too-wide'
  | 'drop-unguarded'
  | 'violates'
  | 'two-person-one-badge'
  | 'stop-without-reset'
  | 'blocks-emergency'
  | 'too-large'

/** What is wrong with a file, where, and how it comes to it. */
export interface ProcedureFinding {
  code: FindingCode
  path: string
  words: string
  /** The shortest way there, act by act. */
  story: string[]
}

const finding = (code: FindingCode, path: string, words: string, story: string[] = []): ProcedureFinding => ({
  code,
  path,
  words,
  story,
})

const nobody = { id: 'nobody', name: '' }
const stations = ['setup', 'lift', 'stow'] as const

/** Worlds that a procedure begins in: everything usual, what comes before it done right; for each way that its plan may have. */
function startsOf(f: ProcedureFile, p: Procedure, scope: Scope): Vector[] {
  return plannedWays(f).map((own) => {
    let w = firstWorld(own)
    try {
      for (const station of stations.slice(0, stations.indexOf(p.station)))
        for (const e of walkThrough(own, w, station, { by: nobody, from_ms: 0, id: String, computed: () => true }))
          w = apply(own, w, e)
    } catch (e) {
      if (!(e instanceof RangeError)) throw e
    }
    const facts = factsOf(own, w, { now_ms: 0, computed: () => true })
    return Uint8Array.from(scope.variables, ({ id, values }) => {
      const d = own.states.find((s) => s.id === id)
      if (!d) return w.done[id.slice(5)] === undefined ? 0 : 1
      const now = facts.state(id)
      return Math.max(0, values.indexOf(now === unknown && d.usual !== undefined ? d.usual : now))
    })
  })
}

/**
 * Steps that their own needs do not keep from breaking a rule, in whatever world an adversary may have left: each is looked at in which its needs are
 * true and the rule is not broken yet. Stricter than what can be reached.
 */
function breaking(f: ProcedureFile, v: Invariant, path: string): ProcedureFinding[] {
  return stepsOfFile(f)
    .filter((s) => concerns(v, s))
    .flatMap((s) => {
      const bad = breaks(f, s, v)
      if (bad === null) return [tooMany(path, `“${s.label}” beside “${v.id}”`)]
      const words = `“${s.label}” may break “${v.id}”: ${v.because}`
      return bad ? [finding('violates', path, words, shortest(f, v) ?? [...bad, s.label])] : []
    })
}

/** A world, in words, in which a step breaks a rule; undefined: none; null: there are too many to look. */
function breaks(f: ProcedureFile, s: Step, v: Invariant): string[] | undefined | null {
  const needs = conditionsOf(f, s)
  const asked = [...needs, ...(s.when ? [s.when] : [])]
  const scope = scopeOf(f, new Set([...[v.never, ...asked].flatMap((c) => namedIn(c)), ...oraclesIn(v.never)]))
  const [move, never] = [stepMove(f, s, scope), compile(v.never, scope)]
  // Where it was not known before and is not after, the engine itself refuses the step with the rule's own words.
  const broken = (before: Mark, after: Mark) => before !== yes && (after === yes || (before === no && after !== no))
  const bad = worldWhere(scope, needs, (w) => move.may(w) && (v.doing ? never(w) !== no : broken(never(w), never(move.does(w)))))
  return bad ? said(f, scope, bad) : bad
}

/** An override lets a step pass what keeps it from breaking a rule, or names a need that is several. */
function ofOverrides(f: ProcedureFile): ProcedureFinding[] {
  return f.overrides.flatMap((o, i) => {
    const path = `overrides.${i}`
    const letThrough = stepsOfFile(f).filter((s) => s.needs.some((n) => o.waits.includes(n.id)))
    const several = o.waits.find(
      (id) => new Set(letThrough.flatMap((s) => s.needs.filter((n) => n.id === id).map((n) => JSON.stringify(n.if)))).size !== 1,
    )
    if (several !== undefined)
      return [finding('override-too-wide', path, `“${o.label}” lets “${several}” pass, which is not one need of this file.`)]
    return letThrough.flatMap((s) =>
      f.invariants.flatMap((v) => {
        if (!concerns(v, s)) return []
        const bad = breaks(f, { ...s, needs: [...o.needs, ...s.needs.filter((n) => !o.waits.includes(n.id))] }, v)
        if (bad === null) return [tooMany(path, `“${s.label}” beside “${v.id}”`)]
        const words = `Under “${o.label}” “${s.label}” may break “${v.id}”: ${v.because}`
        return bad ? [finding('override-too-wide', path, words, [...bad, o.label, s.label])] : []
      }),
    )
  })
}

/** A machine that its own steps bring to where they cannot put it away any more; and steps that do not undo what they are named to undo. */
function ofWaysBack(f: ProcedureFile): ProcedureFinding[] {
  const undoing = f.procedures.flatMap((p, i) =>
    p.steps.flatMap((s, k) =>
      undoes(f, s)
        ? []
        : [finding('undo-breaks', `procedures.${i}.steps.${k}`, `What is to undo “${s.label}” does not.`, [s.label])],
    ),
  )
  const away = f.procedures.flatMap((p, i) => {
    if (p.station !== 'stow' || !awaited(p)) return []
    const stuck = stranded(f, p)
    return stuck
      ? [finding('no-way-back', `procedures.${i}`, `After this “${p.label}” cannot come to its goal any more.`, stuck)]
      : []
  })
  return [...undoing, ...away]
}

const tooMany = (path: string, what: string) => finding('too-large', path, `${what} has more worlds than can be looked at.`)

/** So many worlds are looked at for the shortest story; where it is further the world itself is told. */
const story_worlds = 20_000

/** The shortest way to where a rule is broken, from a machine that was just taken, an adversary at work; null: none so near. */
function shortest(f: ProcedureFile, v: Invariant): string[] | null {
  const steps = stepsOfFile(f)
  const scope = scopeOf(f, influence(f, steps, [v.never]))
  const start = Uint8Array.from(scope.variables, ({ id, values }) => {
    const d = f.states.find((s) => s.id === id)
    return d ? Math.max(0, values.indexOf(d.initial)) : 0
  })
  const moves = [...steps.map((s) => stepMove(f, s, scope)), ...foundMoves(f, scope), ...lossMoves(f, scope)]
  return explore(scope, [start], moves, { invariants: [v], most_worlds: story_worlds }).violations[0]?.story ?? null
}

/** A world in words: what is known of it. */
const said = (f: ProcedureFile, scope: Scope, w: Vector): string[] =>
  scope.variables.map((x, i) => {
    const { label, value } = stateWords(f, x.id, x.values[w[i] ?? 0] ?? unknown)
    return `${label}: ${value}`
  })

/** The first world in which needs may be met and a test holds: a state that a need asks to be one thing is that, the others are anything. */
function worldWhere(scope: Scope, needs: readonly Condition[], test: (v: Vector) => boolean): Vector | undefined | null {
  const fixed = new Map<number, number>()
  const fix = (c: Condition) => {
    if ('all' in c) c.all.forEach(fix)
    if (!('state' in c) || c.is === undefined) return
    const i = scope.at.get(c.state)
    const value = i === undefined ? -1 : (scope.variables[i]?.values.indexOf(c.is) ?? -1)
    if (i !== undefined && value >= 0) fixed.set(i, value)
  }
  needs.forEach(fix)
  return firstWorldWhere(scope, fixed, test)
}

/** Whether a procedure can be brought to its goal from how a machine is usually found, whatever order its steps are done in. */
export function exploreProcedure(f: ProcedureFile, p: Procedure, most_worlds?: number): Explored {
  const scope = scopeOf(f, influence(f, p.steps, [...p.goal, ...(p.when ? [p.when] : [])]))
  const moves = p.steps.map((s) => stepMove(f, s, scope))
  const starts = startsOf(f, p, scope).filter((v) => p.when === undefined || compile(p.when, scope)(v) !== 0)
  return explore(scope, starts, moves, { goal: p.goal, ...(most_worlds === undefined ? {} : { most_worlds }) })
}

/** Everything that a condition of a file asks for. */
function* conditionsIn(f: ProcedureFile): Generator<[path: string, Condition]> {
  for (const [i, p] of f.procedures.entries()) {
    if (p.when) yield [`procedures.${i}.when`, p.when]
    for (const [k, g] of p.goal.entries()) yield [`procedures.${i}.goal.${k}`, g]
    for (const [k, s] of p.steps.entries()) {
      for (const c of conditionsOf(f, s)) yield [`procedures.${i}.steps.${k}`, c]
      if (s.when) yield [`procedures.${i}.steps.${k}.when`, s.when]
    }
  }
  for (const [i, v] of f.invariants.entries()) yield [`invariants.${i}`, v.never]
  for (const [i, o] of f.overrides.entries()) for (const n of o.needs) yield [`overrides.${i}`, n.if]
  for (const [i, s] of f.states.entries()) if (s.holds) yield [`states.${i}.holds`, s.holds.instead]
}

/** What is read off has to decide something, or to be what a state becomes. */
function ofReadings(f: ProcedureFile): ProcedureFinding[] {
  const asked = new Set([...conditionsIn(f)].flatMap(([, c]) => inputsIn(c)))
  for (const s of stepsOfFile(f)) for (const { to } of s.sets) if (typeof to === 'object') asked.add(to.from)
  return f.procedures.flatMap((p, i) =>
    p.steps.flatMap((s, k) =>
      s.measures
        .filter((m) => !asked.has(m.id))
        .map((m) => finding('never-read', `procedures.${i}.steps.${k}.measures`, `“${m.ask}” is read and decides nothing.`)),
    ),
  )
}

function ofStates(f: ProcedureFile): ProcedureFinding[] {
  const read = new Set([...conditionsIn(f)].flatMap(([, c]) => namedIn(c)))
  const steps = stepsOfFile(f)
  const set = new Set(steps.flatMap((s) => s.sets.map((x) => x.state)))
  return f.states.flatMap((s, i) => {
    const path = `states.${i}`
    if (s.source === 'person' && !set.has(s.id) && s.usual === undefined && s.initial === unknown && read.has(s.id))
      return [finding('never-set', path, `No step makes “${s.label}” anything, and nobody is asked what it is.`)]
    return read.has(s.id) || s.source !== 'person' ? [] : [finding('never-read', path, `Nothing asks for “${s.label}”.`)]
  })
}

/** A step that could let something drop, and nothing has to be so before it. */
function ofSteps(f: ProcedureFile): ProcedureFinding[] {
  return f.procedures.flatMap((p, i) =>
    p.steps.flatMap((s, k) => {
      const path = `procedures.${i}.steps.${k}`
      const found: ProcedureFinding[] = []
      if (s.hazards.includes('drop') && s.needs.length === 0)
        found.push(finding('drop-unguarded', path, `“${s.label}” could drop something, and needs nothing to be so first.`))
      if (s.two && s.two.acts === s.two.signals)
        found.push(finding('two-person-one-badge', path, `“${s.label}” has one person act and signal.`))
      found.push(...opening(f, s, path))
      return found
    }),
  )
}

/** A step that opens what holds a part asks first for what holds it instead. */
function opening(f: ProcedureFile, s: Step, path: string): ProcedureFinding[] {
  return f.states.flatMap((d) => {
    const { holds } = d
    if (!holds || !s.sets.some((x) => x.state === d.id && x.to === holds.open)) return []
    const needs = conditionsOf(f, s)
    const scope = scopeOf(f, new Set([holds.instead, ...needs].flatMap((c) => namedIn(c))))
    const [move, instead] = [stepMove(f, s, scope), compile(holds.instead, scope)]
    const loose = worldWhere(scope, needs, (v) => move.may(v) && instead(move.does(v)) !== yes)
    if (loose === null) return [tooMany(path, `“${s.label}”`)]
    return loose
      ? [finding('drop-unguarded', path, `“${s.label}” opens what holds ${holds.part}, and nothing else has to hold it.`)]
      : []
  })
}

/** What a stop kills or leaves unknown, and nothing makes known again: what waits for it waits for ever. */
function ofStops(f: ProcedureFile): ProcedureFinding[] {
  const set = new Set(stepsOfFile(f).flatMap((s) => s.sets.map((x) => x.state)))
  return f.stops.flatMap((stop, i) =>
    [...new Set([...stop.kills.map((k) => k.state), ...stop.unknownAfter])].flatMap((id) => {
      const d = f.states.find((s) => s.id === id)
      if (d?.source !== 'person' || d.usual !== undefined || set.has(id)) return []
      return [finding('stop-without-reset', `stops.${i}`, `After “${stop.label}” nothing makes “${d.label}” known again.`)]
    }),
  )
}

/** What can happen to every machine has its card, whatever the file says. */
function ofEmergency(f: ProcedureFile): ProcedureFinding[] {
  const there = new Set(emergencyCards(f.emergency).map((c) => c.id))
  const wanted = [...new Set([...sparedByNone, ...f.emergency.own.map((o) => o.id)])]
  return wanted
    .filter((id) => !there.has(id))
    .map((id) =>
      finding('blocks-emergency', 'emergency', `The card “${emergencyLabel(id)}” is left out, and it can happen here.`),
    )
}

const most_combinations = 3_000_000

/** The first world of a small scope for which a test holds; undefined: none; null: there are too many to look. @param fixed what is given */
function firstWorldWhere(
  scope: Scope,
  fixed: ReadonlyMap<number, number>,
  test: (v: Vector) => boolean,
): Vector | undefined | null {
  const sizes = scope.variables.map((x, i) => (fixed.has(i) ? 1 : x.values.length))
  const all = sizes.reduce((n, k) => n * k, 1)
  if (all > most_combinations) return null
  const v = Uint8Array.from(sizes, (_, i) => fixed.get(i) ?? 0)
  for (let n = 0; n < all; n++) {
    let rest = n
    for (const [i, k] of sizes.entries()) {
      if (!fixed.has(i)) v[i] = rest % k
      rest = Math.floor(rest / k)
    }
    if (test(v)) return v.slice()
  }
  return undefined
}

/** A station waits for it, always or as the plan has it. */
const awaited = (p: Procedure) => p.required || p.requiredIf !== undefined

function ofProcedures(f: ProcedureFile): ProcedureFinding[] {
  return f.procedures.flatMap((p, i) => {
    const path = `procedures.${i}`
    const e = exploreProcedure(f, p)
    if (e.tooLarge) return [tooMany(path, `“${p.label}”`)]
    if (e.goalAfter === null && awaited(p)) return [finding('no-way-to-goal', path, `“${p.label}” cannot come to its goal.`)]
    return e.stuck && awaited(p)
      ? [finding('dead-end', path, `“${p.label}” can come to where its goal is out of reach.`, e.stuck)]
      : []
  })
}

const ofInvariants = (f: ProcedureFile): ProcedureFinding[] => f.invariants.flatMap((v, i) => breaking(f, v, `invariants.${i}`))

/** A step that is never permitted by itself: its needs speak against one another. */
function ofReach(f: ProcedureFile): ProcedureFinding[] {
  return f.procedures.flatMap((p, i) =>
    p.steps.flatMap((s, k) => {
      const conditions = conditionsOf(f, s)
      const scope = scopeOf(f, new Set(conditions.flatMap((c) => namedIn(c))))
      const tests = conditions.map((c) => compile(c, scope))
      return worldWhere(scope, conditions, (v) => tests.every((t) => t(v) === yes)) === undefined
        ? [
            finding(
              'unreachable-step',
              `procedures.${i}.steps.${k}`,
              `“${s.label}” can never be done: what it needs is never so at once.`,
            ),
          ]
        : []
    }),
  )
}

/**
 * What is wrong with an order of work: what would let something drop, break a *never*, end nowhere; each with the shortest story.
 *
 * @param waysBack left out only where a file differs from one that has them
 * @returns empty where it may be used
 * @example checkProcedures(machine.procedures).map((x) => x.words)
 */
export const checkProcedures = (f: ProcedureFile, { waysBack = true } = {}): ProcedureFinding[] => [
  ...ofStates(f),
  ...ofReadings(f),
  ...ofSteps(f),
  ...ofStops(f),
  ...ofEmergency(f),
  ...ofReach(f),
  ...ofProcedures(f),
  ...ofInvariants(f),
  ...ofOverrides(f),
  ...(waysBack ? ofWaysBack(f) : []),
]
