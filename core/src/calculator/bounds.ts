import { known, nth } from '../list'
import { Refusal } from '../refusal'
import { peakBetween } from '../search'
import { mergeAnswers } from './merge'
import type { WorseByField } from './worse'

interface Place {
  owner: Record<string | number, unknown>
  key: string | number
  path: string
  value: number
  tolerance: number
}

const isTolerant = (v: unknown): v is { value: number; tolerance: number } =>
  typeof v === 'object' && v !== null && 'value' in v && 'tolerance' in v && Object.keys(v).length === 2

/** Replaces every ± in a copy by its value and says where they stood, and collects the plain figures by unit. */
function flatten(copy: unknown, path: string, places: Place[], plain: Map<string, number[]>, name: string): void {
  if (typeof copy !== 'object' || copy === null) return
  const owner = copy as Record<string | number, unknown>
  for (const key of Object.keys(owner)) {
    const v = owner[key]
    const at = path === '' ? key : `${path}.${key}`
    // In a list it is the owner's name that carries the unit.
    const named = Array.isArray(copy) ? name : key
    if (isTolerant(v)) {
      owner[key] = v.value
      if (v.tolerance > 0) places.push({ owner, key, path: at, value: v.value, tolerance: v.tolerance })
    } else if (typeof v === 'number') plain.set(unitOf(named), [...(plain.get(unitOf(named)) ?? []), v])
    else flatten(v, at, places, plain, named)
  }
}

const unitOf = (name: string) => /_[A-Za-z0-9_]+$/.exec(name)?.[0] ?? name

/**
 * Where a function may have a corner or a step inside a ±: every plain figure of the same unit in the input (rows of a table, stages,
 * limits), quarter turns, nothing; and between each two of them.
 */
function levelsOf(p: Place, plain: Map<string, number[]>, most: number): number[] {
  const [lo, hi] = [p.value - p.tolerance, p.value + p.tolerance]
  const inside = new Set<number>([p.value])
  const offer = (v: number) => {
    if (v > lo && v < hi) inside.add(v)
  }
  for (const v of plain.get(unitOf(String(p.key))) ?? []) offer(v)
  offer(0)
  if (p.path.endsWith('_deg')) {
    const first = Math.ceil(lo / 90)
    for (let k = first; k * 90 < hi && k - first < 8; k++) offer(k * 90)
  }
  const corners = [lo, ...[...inside].sort((a, b) => a - b), hi]
  const between = corners.slice(1).map((v, i) => (v + nth(corners, i)) / 2)
  const all = [...corners, ...between].sort((a, b) => a - b)
  if (all.length <= most) return all
  return Array.from({ length: most }, (_, i) => nth(all, Math.round((i * (all.length - 1)) / (most - 1))))
}

/** Figures of an answer by path, lists by place. */
function figuresOf(v: unknown, path: string, out: Map<string, number>): void {
  if (typeof v === 'number') out.set(path, v)
  else if (typeof v === 'object' && v !== null)
    for (const [k, x] of Object.entries(v)) figuresOf(x, path === '' ? k : `${path}.${k}`, out)
}

interface Extreme {
  value: number
  at: number[]
}

export interface BoundsOptions {
  worse: WorseByField
  /** Answers that may be worked out beyond the corners; a dear calculator gives fewer, one known to be monotone none. */
  effort?: number | undefined
}

const mostTolerances = 12

/**
 * Runs a function at the nominal input and, where there are tolerances in it, over the whole box they span: every corner, every
 * place where it may have a step, and from the best of these along each input by turns to where no figure goes further out.
 * Bounds are those extremes, never a root-sum-square.
 *
 * @throws Refusal `too-many-tolerances` above twelve; and whatever `run` throws anywhere in the box, because the worse end decides.
 */
export function withBounds<R extends object>(
  input: unknown,
  run: (narrowed: unknown) => R,
  { worse, effort = 4000 }: BoundsOptions,
): R & { low?: unknown; high?: unknown } {
  const copy = structuredClone(input)
  const places: Place[] = []
  const plain = new Map<string, number[]>()
  flatten({ input: copy }, '', places, plain, '')
  const middle = run(copy)
  if (places.length === 0) return middle
  if (places.length > mostTolerances) {
    const path = places[mostTolerances]?.path.replace(/^input\.?/, '')
    throw new Refusal('too-many-tolerances', 'At most twelve inputs may carry a tolerance at once.', path)
  }
  const answers = mergeAnswers(middle, worse)
  const least = new Map<string, Extreme>()
  const greatest = new Map<string, Extreme>()
  const seen = new Map<string, Map<string, number>>()
  const look = (point: readonly number[]): Map<string, number> => {
    const key = point.join(' ')
    const before = seen.get(key)
    if (before) return before
    places.forEach((p, i) => {
      p.owner[p.key] = point[i]
    })
    const answer = run(structuredClone(copy))
    answers.take(answer)
    const figures = new Map<string, number>()
    figuresOf(answer, '', figures)
    seen.set(key, figures)
    for (const [path, value] of figures) {
      if (value < (least.get(path)?.value ?? Infinity)) least.set(path, { value, at: [...point] })
      if (value > (greatest.get(path)?.value ?? -Infinity)) greatest.set(path, { value, at: [...point] })
    }
    return figures
  }
  const most = places.length === 1 ? 61 : 17
  const levels = places.map((p) => levelsOf(p, plain, most))
  grid(levels, Math.max(2 ** places.length, Math.min(effort, 2000)), look)
  if (effort > 0) climb(levels, { least, greatest, seen, look }, effort)
  return answers.bounded()
}

/** Every combination of levels while they are few enough, else every corner with the levels of one input at a time. */
function grid(levels: readonly (readonly number[])[], most: number, look: (point: number[]) => void): void {
  const combine = (lists: readonly (readonly number[])[]) => {
    const count = lists.reduce((n, l) => n * l.length, 1)
    for (let n = 0; n < count; n++) {
      let rest = n
      look(
        lists.map((l) => {
          const v = nth(l, rest % l.length)
          rest = Math.floor(rest / l.length)
          return v
        }),
      )
    }
  }
  const ends = levels.map((l) => [nth(l, 0), nth(l, l.length - 1)])
  if (levels.reduce((n, l) => n * l.length, 1) <= most) {
    combine(levels)
    return
  }
  combine(ends)
  const thin = levels.map((l) => [nth(l, 0), nth(l, Math.floor(l.length / 2)), nth(l, l.length - 1)])
  if (3 ** levels.length <= most) combine(thin)
  const middle = thin.map((l) => nth(l, 1))
  if (levels.reduce((n, l) => n + l.length, 0) <= most)
    levels.forEach((l, i) => {
      for (const v of l) look(middle.map((m, k) => (k === i ? v : m)))
    })
}

interface Search {
  least: Map<string, Extreme>
  greatest: Map<string, Extreme>
  seen: Map<string, unknown>
  look: (point: readonly number[]) => Map<string, number>
}

/** From each figure's furthest point along every input by turns: over its levels, then to the peak between the best one's neighbours. */
function climb(levels: readonly (readonly number[])[], s: Search, effort: number): void {
  const done = new Set<string>()
  const spent = () => s.seen.size >= effort
  const along = (path: string, sign: 1 | -1, i: number) => {
    const table = sign > 0 ? s.greatest : s.least
    const from = known(table, path).at
    const rest = from.map((v, k) => (k === i ? '*' : v)).join(' ')
    const list = nth(levels, i)
    const put = (v: number) => from.map((x, k) => (k === i ? v : x))
    const worth = (v: number) => sign * (s.look(put(v)).get(path) ?? -sign * Infinity)
    if (!done.has(rest)) {
      for (const v of list) if (!spent()) s.look(put(v))
      done.add(rest)
    }
    const best = nth(known(table, path).at, i)
    const below = list.filter((v) => v < best).at(-1)
    const above = list.find((v) => v > best)
    // At an end of the range: its neighbour may still stand before a peak that lies between them.
    const [a, b] = [below ?? best, above ?? best]
    const inner = below !== undefined && above !== undefined
    const edge = inner ? null : worth(best + (inner ? 0 : (below === undefined ? b - best : a - best) * 1e-4))
    if (inner || (edge !== null && edge > worth(best))) {
      const p = peakBetween((v) => (spent() ? -Infinity : worth(v)), a, b, 1e-9 * Math.max(1e-3, Math.abs(b - a)))
      worth(p.x)
    }
  }
  for (let sweep = 0; sweep < 4 && !spent(); sweep++) {
    let moved = false
    for (const sign of [1, -1] as const) {
      const table = sign > 0 ? s.greatest : s.least
      for (const path of [...table.keys()]) {
        const before = known(table, path).value
        for (let i = 0; i < levels.length && !spent(); i++) along(path, sign, i)
        const after = known(table, path).value
        if (sign * (after - before) > 1e-12 * Math.max(1, Math.abs(after))) moved = true
      }
    }
    if (!moved || levels.length === 1) break
  }
}
