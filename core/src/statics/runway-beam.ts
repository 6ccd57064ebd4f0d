import { z } from 'zod'
import { defineCalculator } from '../calculator/define'
import { useOf } from '../calculator/use'
import { nth } from '../list'
import { g_mps2 } from '../physics'
import { measuredNotNegative, notNegative, positive } from '../quantity/measured'
import { Refusal } from '../refusal'

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

/** What may travel there until the beam bends as far as it may, newtons: 0 where its own weight does so already. */
function mostOn_N(beam: Beam, allowed_Nm: number, from_m: number, to_m: number): number {
  // The worst bending is the greatest of many straight lines over the load: from above, line by line, it is met from one side.
  let load_N = 1e9
  for (let i = 0; i < 60; i++) {
    const { section_m, at_m } = worstBending(beam, load_N, from_m, to_m)
    const [none, one] = [bendingAt(beam, 0, at_m, section_m), bendingAt(beam, 1, at_m, section_m)]
    const each = one - none
    if (each === 0) return none > allowed_Nm || -none > allowed_Nm ? 0 : load_N
    const next_N = ((each > 0 ? allowed_Nm : -allowed_Nm) - none) / each
    if (next_N <= 0) return 0
    if (Math.abs(next_N - load_N) <= 1e-12 * load_N) return next_N
    load_N = next_N
  }
  return load_N
}

export const runwayBeamCalculator = defineCalculator({
  name: 'runway-beam',
  purpose: 'How far a runway beam bends at the worst place of a load’s travel, and what its far support carries.',
  source: 'Statics of a beam on two supports with an overhang, its own weight all along.',
  cautions: [
    'The marks govern: this may lower what they allow, never raise it.',
    'A pull to the side, a twisted beam and a flange that bends under the wheels are not in it.',
    'A far support that is pulled up needs its bolts looked at.',
  ],
  input: z.strictObject({
    span_m: positive,
    /** Beyond the support from which positions do not count. */
    overhang_m: notNegative,
    beam_kg_per_m: notNegative,
    sectionModulus_cm3: positive,
    allowableStress_MPa: positive,
    /** Hoist and trolley. */
    hoistAndTrolley_kg: measuredNotNegative,
    /** Everything that hangs on the hook. */
    onHook_kg: measuredNotNegative,
    takenUpAt_m: measuredNotNegative,
    putDownAt_m: measuredNotNegative,
  }),
  output: z.object({
    moment_Nm: z.number(),
    stress_MPa: z.number(),
    utilisation: z.number().nullable(),
    section_m: z.number(),
    at_m: z.number(),
    farSupport_N: z.number(),
    most_kg: z.number(),
  }),
  worse: {
    moment_Nm: 'high',
    stress_MPa: 'high',
    utilisation: 'high',
    section_m: { with: 'moment_Nm' },
    at_m: { with: 'moment_Nm' },
    farSupport_N: 'low',
    most_kg: 'low',
  },
  example: {
    span_m: 6,
    overhang_m: 0.9,
    beam_kg_per_m: 42,
    sectionModulus_cm3: 557,
    allowableStress_MPa: 70,
    hoistAndTrolley_kg: 95,
    onHook_kg: { value: 1400, tolerance: 40 },
    takenUpAt_m: 1,
    putDownAt_m: 6.8,
  },
  compute: ({
    span_m,
    overhang_m,
    beam_kg_per_m,
    sectionModulus_cm3,
    allowableStress_MPa,
    hoistAndTrolley_kg,
    onHook_kg,
    takenUpAt_m,
    putDownAt_m,
  }) => {
    const beam = { span_m, overhang_m, mass_kg_per_m: beam_kg_per_m }
    const end_m = span_m + overhang_m
    for (const [field, at_m] of Object.entries({ takenUpAt_m, putDownAt_m }))
      if (at_m > end_m + 1e-9) throw new Refusal('out-of-reach', `The beam ends at ${end_m} m.`, field)
    const load_N = (hoistAndTrolley_kg + onHook_kg) * g_mps2
    const worst = worstBending(beam, load_N, takenUpAt_m, putDownAt_m)
    const stress_MPa = worst.moment_Nm / sectionModulus_cm3
    return {
      ...worst,
      stress_MPa,
      utilisation: useOf(stress_MPa, allowableStress_MPa).utilisation,
      farSupport_N: farSupport_N(beam, load_N, Math.max(takenUpAt_m, putDownAt_m)),
      most_kg: Math.max(
        0,
        mostOn_N(beam, allowableStress_MPa * sectionModulus_cm3, takenUpAt_m, putDownAt_m) / g_mps2 - hoistAndTrolley_kg,
      ),
    }
  },
})
