import { assess } from '../assess/assess'
import type { Case } from '../lift/case'
import { nominal, type Tolerant, tolerant } from '../quantity/measured'
import { Refusal } from '../refusal'

export interface UncertainInput {
  /** Where it stands in the case: lift.load.mass_kg. */
  id: string
  /** How much of the governing limit's use this ± is answerable for: what its removal takes away. */
  share: number
}

/** The governing figure through its doubt: share of its limit with every ± at its best, left out, and at its worst. */
export interface Uncertainty {
  finding: string
  low: number
  nominal: number
  high: number
  /** Every measured input with a ±, the one that matters most first. */
  inputs: UncertainInput[]
}

/** Where a ± stands in a case: the keys from the case down to it. */
type Path = readonly string[]

/** The parts of a case that hold what was measured. */
const measuredParts = ['lift', 'conditions', 'setup'] as const

/** Every ± of a value that is more than nothing, wherever it stands in it. */
function uncertainIn(value: unknown, path: Path): Path[] {
  if (typeof value !== 'object' || value === null) return []
  const { data } = tolerant.safeParse(value)
  if (data) return data.tolerance > 0 ? [path] : []
  return Object.entries(value).flatMap(([key, v]) => uncertainIn(v, [...path, key]))
}

const read = (c: Case, path: Path): Tolerant => tolerant.parse(path.reduce<object>((v, key) => Reflect.get(v, key), c))

/** The same case with another figure at a path. */
function put<T>(value: T, [key, ...rest]: Path, by: number): T {
  if (key === undefined) return by as T
  if (Array.isArray(value)) return value.map((x, i) => (String(i) === key ? put(x, rest, by) : x)) as T
  return { ...value, [key]: put(Reflect.get(Object(value), key), rest, by) }
}

/**
 * What the ± of the inputs does to the figure that governs, and which measurement matters most. Null where nothing that governs
 * has a figure, or no input has a ±.
 */
export function uncertaintyOf(c: Case): Uncertainty | null {
  const use = (x: Case, id: string): number | null => {
    try {
      return assess(x).findings.find((f) => f.id === id)?.utilisation ?? null
    } catch (e) {
      if (e instanceof Refusal) return null
      throw e
    }
  }
  const governing = assess(c).governing
  if (!governing || governing.utilisation === null) return null
  const uncertain = measuredParts.flatMap((part) => uncertainIn(c[part], [part]))
  if (uncertain.length === 0) return null
  const high = governing.utilisation
  const flat = (x: Case, path: Path) => put(x, path, nominal(read(c, path)))
  const inputs = uncertain.map((path) => ({
    id: path.join('.'),
    share: Math.max(0, high - (use(flat(c, path), governing.id) ?? high)),
  }))
  const plain = uncertain.reduce(flat, c)
  const middle = use(plain, governing.id) ?? high
  // Each at whichever end uses less, one after another.
  const best = uncertain.reduce((x, path) => {
    const { value, tolerance } = read(c, path)
    const [low, up] = [put(x, path, value - tolerance), put(x, path, value + tolerance)]
    return (use(low, governing.id) ?? Infinity) <= (use(up, governing.id) ?? Infinity) ? low : up
  }, plain)
  return {
    finding: governing.id,
    low: Math.min(use(best, governing.id) ?? middle, middle),
    nominal: middle,
    high,
    inputs: inputs.sort((a, b) => b.share - a.share),
  }
}
