/** How a skill goes, from its last attempts. */
export interface Progress {
  count: number
  median: number
  /** From this one to that one lie half of them or a little more. */
  low: number
  high: number
  /** What an attempt adds on average, with what it may be out by either way (two standard errors); null: too few to say. */
  slope: { each: number; within: number } | null
}

/** So many attempts count, the last ones. */
export const lastAttempts = 30
/** Below this many nothing is said of where it goes. */
const fewest = 6

/**
 * How a skill goes: its middle, its spread, and by least squares where it goes.
 *
 * @param all oldest first; the last thirty count
 * @returns null where there are none
 * @example progressOf([50, 60, 70, 80, 90, 100])?.slope // { each: 10, within: 0 }
 */
export function progressOf(all: readonly number[]): Progress | null {
  const values = all.slice(-lastAttempts)
  const n = values.length
  if (n === 0) return null
  const sorted = [...values].sort((a, b) => a - b)
  const entry = (i: number) => sorted[i] ?? 0
  const mean = values.reduce((sum, v) => sum + v, 0) / n
  const middle = (n - 1) / 2
  const spread = values.reduce((sum, _, i) => sum + (i - middle) ** 2, 0)
  const each = values.reduce((sum, v, i) => sum + (i - middle) * (v - mean), 0) / Math.max(1, spread)
  const rest = values.reduce((sum, v, i) => sum + (v - mean - each * (i - middle)) ** 2, 0)
  return {
    count: n,
    median: (entry(Math.floor(middle)) + entry(Math.ceil(middle))) / 2,
    low: entry(Math.floor((n - 1) / 4)),
    high: entry(Math.ceil((3 * (n - 1)) / 4)),
    slope: n < fewest ? null : { each, within: 2 * Math.sqrt(rest / (n - 2) / spread) },
  }
}
