import { nth } from '../list'
import { g_mps2 } from '../physics'

/** A beam on two supports, the second of which it passes by an overhang, with its own weight all along. */
export interface Beam {
  span_m: number
  overhang_m: number
  mass_kg_per_m: number
}

/** What the support away from the overhang carries, newtons: less than nothing, and it is pulled up. */
export function farSupport_N({ span_m, overhang_m, mass_kg_per_m }: Beam, load_N: number, at_m: number): number {
  const w = mass_kg_per_m * g_mps2
  return (w * (span_m ** 2 - overhang_m ** 2)) / (2 * span_m) + (load_N * (span_m - at_m)) / span_m
}

/**
 * Bending of the beam at a section with one load somewhere on it, newton metres: sagging positive, over the support hogging negative.
 *
 * @example bendingAt({ span_m: 6, overhang_m: 0.9, mass_kg_per_m: 42 }, 14660.94, 3, 3) // 23761.464 Nm
 */
export function bendingAt(beam: Beam, load_N: number, at_m: number, section_m: number): number {
  const w = beam.mass_kg_per_m * g_mps2
  if (section_m > beam.span_m) {
    const end_m = beam.span_m + beam.overhang_m
    return -(load_N * Math.max(0, at_m - section_m)) - (w * (end_m - section_m) ** 2) / 2
  }
  return farSupport_N(beam, load_N, at_m) * section_m - (w * section_m ** 2) / 2 - load_N * Math.max(0, section_m - at_m)
}

export interface Bending {
  /** Its size, whichever way it bends. */
  moment_Nm: number
  /** The section that bends most, and where the load is then. */
  section_m: number
  at_m: number
}

/**
 * The most that the beam bends while a load travels from one place to another, exactly: at each section it is worst with the load over it or
 * at an end of its travel, and between those the bending is a parabola.
 */
export function worstBending(beam: Beam, load_N: number, from_m: number, to_m: number): Bending {
  const [first, last] = [Math.min(from_m, to_m), Math.max(from_m, to_m)]
  const { span_m } = beam
  const places = (section_m: number) => [first, last, Math.min(last, Math.max(first, section_m))]
  const worstAt = (section_m: number): Bending =>
    places(section_m)
      .map((at_m) => ({ moment_Nm: Math.abs(bendingAt(beam, load_N, at_m, section_m)), section_m, at_m }))
      .reduce((a, b) => (b.moment_Nm > a.moment_Nm ? b : a))
  // The load's ends, both supports: between two of them one parabola holds for each place of the load.
  const kinks = [0, ...[first, last].filter((x) => x > 0 && x < span_m), span_m].sort((a, b) => a - b)
  const candidates = kinks.slice(1).flatMap((b, i) => {
    const a = nth(kinks, i)
    const tops = [0, 1, 2].map((k) => topOf((s) => bendingAt(beam, load_N, nth(places(s), k), s), a, b))
    return [a, b, ...tops.filter((x): x is number => x !== null)]
  })
  return candidates.map(worstAt).reduce((a, b) => (b.moment_Nm > a.moment_Nm ? b : a))
}

/** Where a parabola turns between two places; null: not between them. */
function topOf(f: (x: number) => number, a: number, b: number): number | null {
  const m = (a + b) / 2
  const [fa, fm, fb] = [f(a), f(m), f(b)]
  const half = (b - a) / 2
  const bend = fa - 2 * fm + fb
  if (bend === 0) return null
  const x = m + (half * (fa - fb)) / (2 * bend)
  return x > a && x < b ? x : null
}
