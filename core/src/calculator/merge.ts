import { isNothing, type Worse, type WorseByField } from './worse'

type End = 'low' | 'high'
type Fields = Record<string, unknown>
const isFields = (v: unknown): v is Fields => typeof v === 'object' && v !== null && !Array.isArray(v)
const below = (path: string, key: string) => (path === '' ? key : `${path}.${key}`)
const isDeciding = (w: Worse | undefined): boolean =>
  typeof w === 'boolean' || (typeof w === 'object' && ('words' in w || 'arcs' in w || 'unite' in w))

/** The figure at a path of one answer; a list on the way ends it. */
function at(answer: unknown, path: string): unknown {
  return path.split('.').reduce<unknown>((v, k) => (isFields(v) ? v[k] : undefined), answer)
}

/** The rule of a field, or of the nearest field above that goes whole with something. */
function withRule(worse: WorseByField, path: string): string | null {
  const w = worse[path]
  return typeof w === 'object' && 'with' in w ? w.with : null
}

/** Joins stretches of an angle that meet; each list is of one subject. */
function joinArcs(rows: Fields[], by: string | null): Fields[] {
  const groups = new Map<unknown, Fields[]>()
  for (const r of rows) {
    const key = by === null ? null : r[by]
    groups.set(key, [...(groups.get(key) ?? []), r])
  }
  return [...groups.values()].flatMap((list) => {
    const sorted = [...list].sort((a, b) => Number(a.from_deg) - Number(b.from_deg))
    return sorted.reduce<Fields[]>((out, r) => {
      const last = out[out.length - 1]
      if (last && Number(r.from_deg) <= Number(last.to_deg))
        out[out.length - 1] = { ...last, to_deg: Math.max(Number(last.to_deg), Number(r.to_deg)) }
      else out.push({ ...r })
      return out
    }, [])
  })
}

function uniteRows(a: readonly unknown[], b: readonly unknown[]): unknown[] {
  const known = new Set(a.map((r) => JSON.stringify(r)))
  return [...a, ...b.filter((r) => !known.has(JSON.stringify(r)))]
}

/** One end of two answers, field by field as the declaration says. @throws Error for a field that is not declared and not a figure. */
function join(worse: WorseByField, a: unknown, b: unknown, end: End, path: string): unknown {
  const w = worse[path]
  if (withRule(worse, path) !== null || w === 'given') return a
  if (typeof a === 'number' && typeof b === 'number') return end === 'low' ? Math.min(a, b) : Math.max(a, b)
  if (typeof w === 'boolean') return a === w || b === w ? w : a
  if (typeof w === 'object' && 'words' in w) {
    const rank = (v: unknown) => w.words.indexOf(v)
    return rank(a) >= rank(b) ? a : b
  }
  if (isNothing(a) || isNothing(b)) {
    if (isNothing(a) && isNothing(b)) return a
    const nothing = typeof w === 'object' && 'nothing' in w ? w : null
    const none = isNothing(a) ? a : b
    const figure = isNothing(a) ? b : a
    if (!nothing || nothing.nothing === 'unknown') return none
    const beyond = (nothing.nothing === 'best') === (nothing.worse === 'low') ? 'high' : 'low'
    return end === beyond ? none : figure
  }
  if (Array.isArray(a) && Array.isArray(b)) {
    if (typeof w === 'object' && 'arcs' in w) return joinArcs([...a, ...b].filter(isFields), w.arcs)
    if (typeof w === 'object' && 'unite' in w) return uniteRows(a, b)
    if (typeof w === 'object' && 'rows' in w) {
      const other = (key: unknown, list: unknown[]) => list.filter(isFields).find((r) => r[w.rows] === key)
      const both = a.filter(isFields).map((r) => {
        const match = other(r[w.rows], b)
        return match ? join(worse, r, match, end, below(path, '*')) : r
      })
      return [...both, ...b.filter(isFields).filter((r) => !other(r[w.rows], a))]
    }
    if (a.length === b.length) return a.map((v, i) => join(worse, v, b[i], end, below(path, '*')))
    throw new Error(`${path}: lists of different length, and nothing says how they are joined`)
  }
  if (isFields(a) && isFields(b)) {
    const keys = [...new Set([...Object.keys(a), ...Object.keys(b)])]
    return Object.fromEntries(keys.map((k) => [k, join(worse, a[k], b[k], end, below(path, k))]))
  }
  if (a === b) return a
  throw new Error(`${path}: two words, and nothing says which is worse`)
}

/** The nominal answer with everything that decides at its worse end. */
function decided(worse: WorseByField, nominal: unknown, worst: unknown, path: string): unknown {
  const w = worse[path]
  if (isDeciding(w)) return worst
  if (withRule(worse, path) !== null) return nominal
  if (Array.isArray(nominal) && Array.isArray(worst)) {
    const rows = typeof w === 'object' && 'rows' in w ? w.rows : null
    return nominal.map((r, i) => {
      const match = rows === null ? worst[i] : worst.filter(isFields).find((x) => isFields(r) && x[rows] === r[rows])
      return match === undefined ? r : decided(worse, r, match, below(path, '*'))
    })
  }
  if (isFields(nominal) && isFields(worst))
    return Object.fromEntries(Object.entries(nominal).map(([k, v]) => [k, decided(worse, v, worst[k], below(path, k))]))
  return nominal
}

/**
 * Collects answers over a box of inputs into one: nominal figures, their least and greatest, and every decision at its worse end.
 *
 * @param nominal answer at the stated figures
 */
export function mergeAnswers<R extends object>(nominal: R, worse: WorseByField) {
  let [low, high]: [unknown, unknown] = [nominal, nominal]
  // What goes whole with a figure: the answers that have its least and its greatest.
  const wholes = Object.entries(worse).flatMap(([path, w]) =>
    typeof w === 'object' && 'with' in w && !path.includes('*') ? [{ path, by: w.with, low: nominal, high: nominal }] : [],
  )
  const worth = (answer: unknown, by: string): number => {
    const v = at(answer, by)
    if (typeof v === 'number') return v
    const w = worse[by]
    const nothing = typeof w === 'object' && 'nothing' in w ? w : null
    return nothing && (nothing.nothing === 'best') === (nothing.worse === 'low') ? Infinity : -Infinity
  }
  return {
    take(answer: R): void {
      low = join(worse, low, answer, 'low', '')
      high = join(worse, high, answer, 'high', '')
      for (const w of wholes) {
        if (worth(answer, w.by) < worth(w.low, w.by)) w.low = answer
        if (worth(answer, w.by) > worth(w.high, w.by)) w.high = answer
      }
    },
    bounded(): R & { low: unknown; high: unknown } {
      const put = (end: unknown, which: End) =>
        wholes.reduce<unknown>((out, w) => replaced(out, w.path.split('.'), at(w[which], w.path)), end)
      return {
        ...(decided(worse, nominal, low, '') as R),
        low: put(low, 'low'),
        high: put(high, 'high'),
      }
    },
  }
}

function replaced(v: unknown, path: readonly string[], by: unknown): unknown {
  const [key, ...rest] = path
  if (key === undefined) return by
  return isFields(v) ? { ...v, [key]: replaced(v[key], rest, by) } : v
}
