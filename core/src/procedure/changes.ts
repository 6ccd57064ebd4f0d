import alike from 'fast-deep-equal'
import { type Invariant, type Need, type ProcedureFile, type Step, stepsOfFile } from './file'

/** What a part of an order is: whoever checks one reads it by these. */
export type OrderPart =
  | 'procedure'
  | 'step'
  | 'need'
  | 'reading'
  | 'state'
  | 'never'
  | 'stop'
  | 'override'
  | 'place'
  | 'assembly'
  | 'emergency'

/** One thing in which an order differs from the one before it. */
export interface OrderChange {
  what: 'gone' | 'new' | 'changed' | 'moved'
  part: OrderPart
  /** As it is said to a person. */
  name: string
  /** The step or procedure that it is in; null: the file. */
  within: string | null
  /** Which of its fields read otherwise, and how; what was or is not there is null. */
  fields: { field: string; was: unknown; is: unknown }[]
  /** Where it is: in the new file, or in the old one if it is gone. */
  path: string
}

interface Item {
  id: string
}
type Found = Omit<OrderChange, 'part' | 'within'>

/** What of two lists by id is gone, new or otherwise; `apart` are the fields that are looked at by themselves. */
function between<T extends Item>(
  before: readonly T[],
  after: readonly T[],
  { path, name, apart = [] }: { path: string; name: (x: T) => string; apart?: readonly (keyof T & string)[] },
): Found[] {
  const [was, is] = [new Map(before.map((x) => [x.id, x])), new Set(after.map((x) => x.id))]
  return [
    ...before.flatMap((x, i): Found[] =>
      is.has(x.id) ? [] : [{ what: 'gone', name: name(x), fields: [], path: `${path}.${i}` }],
    ),
    ...after.flatMap((x, i): Found[] => {
      const old = was.get(x.id)
      if (!old) return [{ what: 'new', name: name(x), fields: [], path: `${path}.${i}` }]
      const [a, b] = [new Map<string, unknown>(Object.entries(old)), new Map<string, unknown>(Object.entries(x))]
      const fields = [...new Set([...a.keys(), ...b.keys()])]
        .filter((k) => !apart.some((y) => y === k) && !alike(a.get(k), b.get(k)))
        .map((field) => ({ field, was: a.get(field) ?? null, is: b.get(field) ?? null }))
      return fields.length > 0 ? [{ what: 'changed', name: name(x), fields, path: `${path}.${i}` }] : []
    }),
  ]
}

/** Those that both have and that stand elsewhere among the others: the fewest that explain it. */
function moved<T extends Item>(before: readonly T[], after: readonly T[], path: string, name: (x: T) => string): Found[] {
  const was = new Map(before.map((x, i) => [x.id, i]))
  const both = after.filter((x) => was.has(x.id))
  const onTheirWay = keptInOrder(both.map((x) => was.get(x.id) ?? 0))
  return both
    .filter((_, i) => !onTheirWay.has(i))
    .map((x): Found => ({ what: 'moved', name: name(x), fields: [], path: `${path}.${after.indexOf(x)}` }))
}

/** Places of a longest rising run: what need not be said to have moved. */
function keptInOrder(places: readonly number[]): Set<number> {
  const best = places.map((): { length: number; from: number } => ({ length: 1, from: -1 }))
  for (const [i, at] of places.entries())
    for (let k = 0; k < i; k++) {
      const [mine, other] = [best[i], best[k]]
      if (mine && other && (places[k] ?? 0) < at && other.length + 1 > mine.length)
        best[i] = { length: other.length + 1, from: k }
    }
  let end = best.reduce((top, b, i) => (b.length > (best[top]?.length ?? 0) ? i : top), 0)
  const kept = new Set<number>()
  while (end >= 0 && places.length > 0) {
    kept.add(end)
    end = best[end]?.from ?? -1
  }
  return kept
}

/** Each need by where it is asked: before, while it lasts, or before the two begin; two of one id by their turn. */
function needsOf(s: Step): (Need & { asked: string })[] {
  const lists = { needs: s.needs, keeps: s.keeps, first: s.two?.first ?? [] }
  return Object.entries(lists).flatMap(([asked, list]) =>
    list.map((n, i) => ({ ...n, asked, id: `${asked}/${n.id}/${list.slice(0, i).filter((x) => x.id === n.id).length}` })),
  )
}

function inSteps(before: ProcedureFile, after: ProcedureFile): OrderChange[] {
  const old = new Map(stepsOfFile(before).map((s) => [s.id, s]))
  return after.procedures.flatMap((p, i) =>
    p.steps.flatMap((s, k) => {
      const was = old.get(s.id)
      if (!was) return []
      const at = `procedures.${i}.steps.${k}`
      return [
        ...between(needsOf(was), needsOf(s), { path: `${at}.needs`, name: (n) => n.because }).map(
          (c): OrderChange => ({ ...c, part: 'need', within: s.label }),
        ),
        ...between(was.measures, s.measures, { path: `${at}.measures`, name: (m) => m.ask }).map(
          (c): OrderChange => ({ ...c, part: 'reading', within: s.label }),
        ),
      ]
    }),
  )
}

/** Steps of all procedures together: one that went into another procedure is not gone. */
function ofSteps(before: ProcedureFile, after: ProcedureFile): OrderChange[] {
  const home = new Map(before.procedures.flatMap((p) => p.steps.map((s) => [s.id, p] as const)))
  const old = new Map(stepsOfFile(before).map((s) => [s.id, s]))
  const now = new Set(stepsOfFile(after).map((s) => s.id))
  const name = (s: Step) => s.label
  const apart = ['needs', 'keeps', 'measures'] as const
  const gone = before.procedures.flatMap((p, i) =>
    p.steps.flatMap((s, k): OrderChange[] =>
      now.has(s.id)
        ? []
        : [{ what: 'gone', part: 'step', name: s.label, within: p.label, fields: [], path: `procedures.${i}.steps.${k}` }],
    ),
  )
  const here = after.procedures.flatMap((p, i) => {
    const path = `procedures.${i}.steps`
    const was = p.steps.flatMap((s) => old.get(s.id) ?? [])
    const own = before.procedures.find((x) => x.id === p.id)?.steps ?? []
    const elsewhere = p.steps.flatMap((s, k): Found[] => {
      const from = home.get(s.id)
      return from && from.id !== p.id ? [{ what: 'moved', name: s.label, fields: [], path: `${path}.${k}` }] : []
    })
    return [...between(was, p.steps, { path, name, apart }), ...moved(own, p.steps, path, name), ...elsewhere].map(
      (c): OrderChange => ({ ...c, part: 'step', within: p.label }),
    )
  })
  return [...gone, ...here]
}

const ranks: readonly OrderChange['what'][] = ['gone', 'changed', 'moved', 'new']

/**
 * In what an order of work differs from the one before it, what is gone first: for whoever checks it. What both say in the same words is not told.
 *
 * @returns nothing where both say the same; each gone, new, changed or moved part once
 * @example orderChanges(inForce, entered).filter((c) => c.what === 'gone').map((c) => c.name)
 */
export function orderChanges(before: ProcedureFile, after: ProcedureFile): OrderChange[] {
  const whole =
    (part: OrderPart) =>
    (c: Found): OrderChange => ({ ...c, part, within: null })
  const label = (x: { label: string }) => x.label
  const never = (v: Invariant) => v.because
  const found = [
    ...between(before.invariants, after.invariants, { path: 'invariants', name: never }).map(whole('never')),
    ...between(before.procedures, after.procedures, { path: 'procedures', name: label, apart: ['steps'] }).map(
      whole('procedure'),
    ),
    ...moved(before.procedures, after.procedures, 'procedures', label).map(whole('procedure')),
    ...ofSteps(before, after),
    ...inSteps(before, after),
    ...between(before.states, after.states, { path: 'states', name: label }).map(whole('state')),
    ...between(before.stops, after.stops, { path: 'stops', name: label }).map(whole('stop')),
    ...between(before.overrides, after.overrides, { path: 'overrides', name: label }).map(whole('override')),
    ...between(before.posts, after.posts, { path: 'posts', name: label }).map(whole('place')),
    ...between(before.assembly, after.assembly, { path: 'assembly', name: label }).map(whole('assembly')),
    ...(alike(before.emergency, after.emergency)
      ? []
      : [{ what: 'changed', part: 'emergency', name: '', within: null, fields: [], path: 'emergency' } satisfies OrderChange]),
  ]
  return ranks.flatMap((what) => found.filter((c) => c.what === what))
}
