import { compile, conditionsOf, no, type Scope, type Test, type Vector, yes } from './compiled'
import { type Condition, doneId, unknown } from './condition'
import { concerns, type Invariant, type ProcedureFile, type Step } from './file'

/** One thing that can happen: a step, something said to be so, a loss. */
export interface Move {
  words: string
  step: Step | null
  may: (v: Vector) => boolean
  does: (v: Vector) => Vector
}

export interface Violation {
  invariant: Invariant
  story: string[]
}
export interface Explored {
  worlds: number
  moves: number
  violations: Violation[]
  /** Moves to the nearest world where the goal holds; null: none. */
  goalAfter: number | null
  /** How it comes to a world from which no way leads to the goal any more; where there are too many worlds, to one that is hopeless. */
  stuck: string[] | null
  tooLarge: boolean
}

/** The move that is one step being done. */
export function stepMove(f: ProcedureFile, s: Step, scope: Scope): Move {
  const tests = [...conditionsOf(f, s), ...(s.when ? [s.when] : [])].map((c) => compile(c, scope))
  const effects = s.sets.flatMap(({ state, to }): [number, number][] => {
    const i = scope.at.get(state)
    if (i === undefined) return []
    const value = typeof to === 'object' ? unknown : to
    return [[i, Math.max(0, scope.variables[i]?.values.indexOf(value) ?? 0)]]
  })
  const done = scope.at.get(doneId(s.id))
  return {
    words: s.label,
    step: s,
    may: (v) => tests.every((test) => test(v) === yes),
    does: (v) => {
      const next = v.slice()
      for (const [i, value] of effects) next[i] = value
      if (done !== undefined) next[done] = 1
      return next
    },
  }
}

/** Somebody says what something is that nobody knew. */
export function foundMoves(f: ProcedureFile, scope: Scope): Move[] {
  return f.states.flatMap((s): Move[] => {
    const i = scope.at.get(s.id)
    if (i === undefined || s.source !== 'person') return []
    return (s.values ?? []).map((value, k) => ({
      words: `${s.label} found ${value.label}`,
      step: null,
      may: (v: Vector) => v[i] === 0,
      does: (v: Vector) => {
        const next = v.slice()
        next[i] = k + 1
        return next
      },
    }))
  })
}

/** What an adversary may do at any moment: press a stop, lose sight, leave, move it, strike it. */
export function lossMoves(f: ProcedureFile, scope: Scope): Move[] {
  const loss = (words: string, ids: readonly string[], kills: readonly [number, number][] = []): Move[] => {
    const places = ids.flatMap((id) => scope.at.get(id) ?? [])
    if (places.length === 0 && kills.length === 0) return []
    return [
      {
        words,
        step: null,
        may: () => true,
        does: (v) => {
          const next = v.slice()
          for (const i of places) next[i] = 0
          for (const [i, value] of kills) next[i] = value
          return next
        },
      },
    ]
  }
  const reasons = [...new Set(f.states.flatMap((s) => s.lost))]
  const losing = reasons.flatMap((why) =>
    loss(
      `lost: ${why}`,
      f.states.filter((s) => s.lost.includes(why)).map((s) => s.id),
    ),
  )
  const aged = f.states.filter((s) => s.lostAfter_s !== undefined).flatMap((s) => loss(`too long ago: ${s.label}`, [s.id]))
  const stops = f.stops.flatMap((stop) => {
    const ids = [...f.states.filter((s) => s.lost.includes('stop')).map((s) => s.id), ...stop.unknownAfter]
    const kills = stop.kills.flatMap(({ state, to }): [number, number][] => {
      const i = scope.at.get(state)
      return i === undefined ? [] : [[i, Math.max(0, scope.variables[i]?.values.indexOf(to) ?? 0)]]
    })
    return loss(`${stop.label} pressed`, ids, kills)
  })
  return [...losing, ...aged, ...stops]
}

/** The same key for worlds that differ only in which of several alike stands how. */
function keyOf(scope: Scope): (v: Vector) => string {
  if (scope.groups.length === 0) return (v) => v.join(',')
  return (v) => {
    const w = v.slice()
    for (const group of scope.groups) {
      const own = group.map((places) => places.map((i) => v[i] ?? 0))
      own.sort((a, b) => a.join().localeCompare(b.join()))
      group.forEach((places, k) => {
        places.forEach((i, j) => {
          w[i] = own[k]?.[j] ?? 0
        })
      })
    }
    return w.join(',')
  }
}

interface Watched {
  invariant: Invariant
  never: Test
}

interface Node {
  v: Vector
  from: Node | null
  by: string
  depth: number
  /** Worlds that lead here. */
  before: Node[]
}

const storyOf = (n: Node): string[] => (n.from ? [...storyOf(n.from), n.by] : [])

/** What is asked on the way. */
interface Exploring {
  invariants?: readonly Invariant[]
  /** Where it should be possible to come to from everywhere; left out: not asked. */
  goal?: readonly Condition[]
  /** Given up beyond, and said. */
  most_worlds?: number
  /** Whether the goal is out of reach from a world whatever is done; asked where there are too many to follow them all. */
  hopeless?: (v: Vector) => boolean
}

/** Every world that moves lead to, breadth first. */
export function explore(
  scope: Scope,
  starts: readonly Vector[],
  moves: readonly Move[],
  { invariants = [], goal, most_worlds = 300_000, hopeless }: Exploring,
): Explored {
  const watched = invariants.map((invariant): Watched => ({ invariant, never: compile(invariant.never, scope) }))
  const goals = goal?.map((c) => compile(c, scope))
  const there = (v: Vector) => goals?.every((test) => test(v) === yes) ?? false
  const key = keyOf(scope)
  const known = new Map<string, Node>()
  const queue: Node[] = []
  const enter = (v: Vector, from: Node | null, by: string): void => {
    const k = key(v)
    const before = known.get(k)
    if (before) {
      if (from && goals) before.before.push(from)
      return
    }
    const node: Node = { v, from, by, depth: from ? from.depth + 1 : 0, before: from && goals ? [from] : [] }
    known.set(k, node)
    queue.push(node)
  }
  for (const v of starts) enter(v, null, '')
  const found = new Map<string, Violation>()
  let taken = 0
  for (const node of queue) {
    if (known.size > most_worlds) break
    for (const m of moves) {
      if (!m.may(node.v)) continue
      const v = m.does(node.v)
      // What is found to be so already as it must never be is for the book and the fitter, not for a step.
      if (!m.step && watched.some((w) => !w.invariant.doing && w.never(v) === yes)) continue
      taken++
      enter(v, node, m.words)
      for (const w of watched)
        if (
          m.step &&
          concerns(w.invariant, m.step) &&
          w.never(w.invariant.doing ? node.v : v) !== no &&
          !found.has(w.invariant.id)
        )
          found.set(w.invariant.id, { invariant: w.invariant, story: [...storyOf(node), m.words] })
    }
  }
  const reached = queue.filter((n) => there(n.v))
  const tooLarge = known.size > most_worlds
  return {
    worlds: known.size,
    moves: taken,
    violations: [...found.values()],
    goalAfter: reached[0]?.depth ?? null,
    stuck: goals ? (tooLarge ? hopelessIn(queue, hopeless) : stuckIn(queue, reached)) : null,
    tooLarge,
  }
}

function hopelessIn(all: readonly Node[], hopeless: ((v: Vector) => boolean) | undefined): string[] | null {
  const lost = hopeless && all.find((n) => hopeless(n.v))
  return lost ? storyOf(lost) : null
}

function stuckIn(all: readonly Node[], goal: readonly Node[]): string[] | null {
  const can = new Set<Node>(goal)
  const queue = [...goal]
  for (let i = 0; i < queue.length; i++)
    for (const b of queue[i]?.before ?? [])
      if (!can.has(b)) {
        can.add(b)
        queue.push(b)
      }
  const lost = all.find((n) => !can.has(n))
  return lost ? storyOf(lost) : null
}
