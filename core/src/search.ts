import { nth } from './list'
/** Where f is greatest between a and b, given that it has one peak there (golden section). */
export function peakBetween(f: (x: number) => number, a: number, b: number, tolerance: number): { x: number; y: number } {
  const ratio = (Math.sqrt(5) - 1) / 2
  let [lo, hi] = [a, b]
  let x1 = hi - ratio * (hi - lo)
  let x2 = lo + ratio * (hi - lo)
  let [y1, y2] = [f(x1), f(x2)]
  while (hi - lo > tolerance) {
    if (y1 >= y2) {
      hi = x2
      ;[x2, y2] = [x1, y1]
      x1 = hi - ratio * (hi - lo)
      y1 = f(x1)
    } else {
      lo = x1
      ;[x1, y1] = [x2, y2]
      x2 = lo + ratio * (hi - lo)
      y2 = f(x2)
    }
  }
  return y1 >= y2 ? { x: x1, y: y1 } : { x: x2, y: y2 }
}

/** The point between `holds` (where the test is true) and `fails` at which it changes, by bisection; returns the side that holds. */
export function boundary(test: (x: number) => boolean, holds: number, fails: number, tolerance: number): number {
  let [good, bad] = [holds, fails]
  while (Math.abs(good - bad) > tolerance) {
    const middle = (good + bad) / 2
    if (middle === good || middle === bad) break
    if (test(middle)) good = middle
    else bad = middle
  }
  return good
}

/** Where f is least on [from, to]: sampled every `step`, then refined about each of the three best samples. */
export function leastOn(
  f: (x: number) => number,
  from: number,
  to: number,
  step: number,
  tolerance = 1e-7,
): { x: number; y: number } {
  const count = Math.max(1, Math.ceil(Math.abs(to - from) / step - 1e-9))
  const at = (i: number) => from + ((to - from) * i) / count
  const samples = Array.from({ length: count + 1 }, (_, i) => ({ i, y: f(at(i)) })).sort((a, b) => a.y - b.y)
  const first = nth(samples, 0)
  let best = { x: at(first.i), y: first.y }
  for (const { i } of samples.slice(0, 3)) {
    const [a, b] = [at(Math.max(0, i - 1)), at(Math.min(count, i + 1))]
    const p = peakBetween((x) => -f(x), Math.min(a, b), Math.max(a, b), tolerance)
    if (-p.y < best.y) best = { x: p.x, y: -p.y }
  }
  return best
}

/**
 * Where f is nothing between a and b, given that it has different signs there: false position, which for a function that is nearly
 * straight takes a handful of looks (Illinois rule, so that neither end stays for ever).
 */
export function rootBetween(f: (x: number) => number, a: number, b: number, tolerance: number): number {
  let [x0, x1] = [a, b]
  let [y0, y1] = [f(a), f(b)]
  if (y0 === 0) return a
  for (let i = 0; i < 100 && y1 !== 0; i++) {
    const x = x1 - (y1 * (x1 - x0)) / (y1 - y0)
    const y = f(x)
    const near = Math.abs(x - x1) <= tolerance
    if (y * y1 < 0) [x0, y0] = [x1, y1]
    else y0 /= 2
    ;[x1, y1] = [x, y]
    if (near) break
  }
  return x1
}
