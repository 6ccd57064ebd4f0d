import { Refusal } from '../refusal'

type Json = unknown
type Path = (string | number)[]

const isTolerant = (v: Json): v is { value: number; tolerance: number } =>
  typeof v === 'object' && v !== null && 'value' in v && 'tolerance' in v && Object.keys(v).length === 2

/** Where in the input the tolerances stand. */
function tolerancesIn(input: Json, at: Path = [], found: Path[] = []): Path[] {
  if (isTolerant(input)) {
    if (input.tolerance > 0) found.push(at)
  } else if (Array.isArray(input)) {
    input.forEach((v, i) => {
      tolerancesIn(v, [...at, i], found)
    })
  } else if (typeof input === 'object' && input !== null) {
    for (const [k, v] of Object.entries(input)) tolerancesIn(v, [...at, k], found)
  }
  return found
}

/** The input with each tolerance replaced by value + share·tolerance; shares in the order of `paths`. */
function narrow(input: Json, paths: Path[], shares: number[], at = ''): Json {
  if (isTolerant(input)) {
    const i = paths.findIndex((p) => p.join('.') === at)
    return input.value + (i < 0 ? 0 : (shares[i] as number) * input.tolerance)
  }
  const below = (k: string | number) => (at === '' ? `${k}` : `${at}.${k}`)
  if (Array.isArray(input)) return input.map((v, i) => narrow(v, paths, shares, below(i)))
  if (typeof input === 'object' && input !== null) {
    return Object.fromEntries(Object.entries(input).map(([k, v]) => [k, narrow(v, paths, shares, below(k))]))
  }
  return input
}

/** Leaf by leaf the least (or greatest) number over many results of one shape; a leaf that is no number everywhere: the odd one out. */
function extreme(results: Json[], pick: (a: number, b: number) => number): Json {
  const first = results[0]
  if (results.every((r) => typeof r === 'number')) return (results as number[]).reduce((a, b) => pick(a, b))
  if (results.every(Array.isArray)) {
    const same = results.every((r) => (r as Json[]).length === (first as Json[]).length)
    if (!same) return first
    return (first as Json[]).map((_, i) =>
      extreme(
        results.map((r) => (r as Json[])[i]),
        pick,
      ),
    )
  }
  if (results.every((r) => typeof r === 'object' && r !== null && !Array.isArray(r))) {
    return Object.fromEntries(
      Object.keys(first as object).map((k) => [
        k,
        extreme(
          results.map((r) => (r as Record<string, Json>)[k]),
          pick,
        ),
      ]),
    )
  }
  // Words, booleans, nulls, or a mixture: the value that does not prove anything stands at both ends.
  const unproven = results.find((r) => typeof r !== 'number' && r !== true)
  return unproven === undefined ? first : unproven
}

/**
 * Runs a function at the nominal input and, where tolerances stand in it, over every corner of them (up to five also over
 * their middles, for functions that are not monotone). Bounds are those extremes, never a root-sum-square.
 *
 * @throws Refusal `too-many-tolerances` above twelve; and whatever `run` throws at any corner, because the worse end decides.
 */
export function withBounds<R extends object>(
  input: unknown,
  run: (narrowed: unknown) => R,
): R & { low?: unknown; high?: unknown } {
  const paths = tolerancesIn(input)
  const middle = run(
    narrow(
      input,
      paths,
      paths.map(() => 0),
    ),
  )
  if (paths.length === 0) return middle
  if (paths.length > 12) {
    throw new Refusal('too-many-tolerances', 'At most twelve inputs may carry a tolerance at once.', paths[12]?.join('.'))
  }
  const levels = paths.length <= 5 ? [-1, 0, 1] : [-1, 1]
  const results: unknown[] = [middle]
  const count = levels.length ** paths.length
  for (let n = 0; n < count; n++) {
    let rest = n
    const shares = paths.map(() => {
      const level = levels[rest % levels.length] as number
      rest = Math.floor(rest / levels.length)
      return level
    })
    results.push(run(narrow(input, paths, shares)))
  }
  return { ...middle, low: extreme(results, Math.min), high: extreme(results, Math.max) }
}
