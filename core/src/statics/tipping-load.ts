import { z } from 'zod'
import { defineCalculator } from '../calculator/define'
import { sampleLegs } from '../calculator/sample'
import { g_mps2 } from '../physics'
import { atSlew, type Point } from '../plane/point'
import { measured, measuredNotNegative, measuredPositive } from '../quantity/measured'
import { Refusal } from '../refusal'
import { type Footprint, prepareFootprint, type Support } from './footprint'
import { type Resultant, resultantAt, sumFixed, sumSlewing } from './resultant'
import { footingInput, type Mass, type Moments, type SlewingMass, slewingInput } from './schema'

/** How a tipping load becomes a rating; belongs to the machine's data. */
export const stabilityRule = z.enum(['75%', '85%', '1.25P+0.1F', '70%'])
export type StabilityRule = z.infer<typeof stabilityRule>

/** Those of cranes: where nobody says which, the least counts. 70 % is a rotating telehandler’s own. */
export const allRules: readonly StabilityRule[] = ['75%', '85%', '1.25P+0.1F']

/** Rating by stability from a tipping load, kg. `boomHead_kg` is the boom and jib mass reduced to the head (Σm·s/L). */
export function ratedByRule(tippingLoad_kg: number, rule: StabilityRule, boomHead_kg = 0): number {
  if (rule === '70%') return 0.7 * tippingLoad_kg
  if (rule === '75%') return 0.75 * tippingLoad_kg
  if (rule === '85%') return 0.85 * tippingLoad_kg
  return Math.max(0, (tippingLoad_kg - 0.1 * boomHead_kg) / 1.25)
}

export interface TippingLoad {
  /** Load on the hook that would just tip the machine; null: no edge can be tipped over from here. */
  tippingLoad_kg: number | null
  edge: [string, string] | null
  ratedByStability_kg: number | null
}

/**
 * Tipping load at a hook position for an unloaded resultant: per hull edge with the hook outside, T = W·d_W/(−d_P);
 * the least governs.
 * @throws Refusal `unstable-unloaded` when the machine would not stand even without a load.
 */
export function tippingAt(
  f: Footprint,
  unloaded: Resultant,
  hook: Point,
): { tippingLoad_kg: number | null; edge: [string, string] | null } {
  let least: number | null = null
  let edge: [string, string] | null = null
  for (const e of f.edges) {
    const weightInside_m = e.nx * unloaded.x_m + e.ny * unloaded.y_m + e.c
    if (weightInside_m <= 0) {
      throw new Refusal(
        'unstable-unloaded',
        `Without a load the machine would already tip over ${e.a.id}–${e.b.id}; widen the footprint or turn the boom.`,
        'supports',
      )
    }
    const hookInside_m = e.nx * hook.x_m + e.ny * hook.y_m + e.c
    if (hookInside_m < 0) {
      const t = (unloaded.force_N / g_mps2) * (weightInside_m / -hookInside_m)
      if (least === null || t < least) {
        least = t
        edge = [e.a.id, e.b.id]
      }
    }
  }
  return { tippingLoad_kg: least, edge }
}

/** Tipping load and the rating it allows. Slewing radii are those that hold at this radius. */
export function tippingLoad(
  input: {
    supports: readonly Support[]
    masses: readonly Mass[]
    slewing: readonly SlewingMass[]
    radius_m: number
    slew_deg: number
    rule: StabilityRule
    boomHead_kg?: number | undefined
  } & Moments,
): TippingLoad {
  const f = prepareFootprint(input.supports)
  const unloaded = resultantAt(sumFixed(input.masses, input), sumSlewing(input.slewing), input.slew_deg)
  const t = tippingAt(f, unloaded, atSlew(input.radius_m, input.slew_deg))
  return {
    ...t,
    ratedByStability_kg: t.tippingLoad_kg === null ? null : ratedByRule(t.tippingLoad_kg, input.rule, input.boomHead_kg),
  }
}

export const tippingLoadCalculator = defineCalculator({
  name: 'tipping-load',
  purpose: 'The load that would tip the machine at this radius and slew, and what stability alone would allow.',
  source: 'Statics; margins of ISO 4305, ASME B30.5 and SAE J1289 (75 %, 85 %) and EN 13000 (1.25P + 0.1F).',
  cautions: [
    'Stability may lower what a table allows; it never makes a rating and never raises one.',
    'Not for forklifts, gantries or tower cranes.',
  ],
  input: z.strictObject({
    ...footingInput,
    slewing: z.array(slewingInput).max(1000),
    radius_m: measuredPositive,
    slew_deg: measured,
    rule: stabilityRule,
    boomHead_kg: measuredNotNegative.optional(),
  }),
  output: z.object({
    tippingLoad_kg: z.number().nullable(),
    edge: z.tuple([z.string(), z.string()]).nullable(),
    ratedByStability_kg: z.number().nullable(),
  }),
  worse: {
    tippingLoad_kg: { worse: 'low', nothing: 'best' },
    edge: { with: 'tippingLoad_kg' },
    ratedByStability_kg: { worse: 'low', nothing: 'best' },
  },
  example: {
    supports: sampleLegs,
    masses: [{ mass_kg: 24000, x_m: -0.2, y_m: 0 }],
    slewing: [
      { mass_kg: 8000, radius_m: -2 },
      { mass_kg: 3000, radius_m: 4.2 },
    ],
    radius_m: 9,
    slew_deg: 70,
    rule: '75%',
    boomHead_kg: 900,
  },
  compute: (input) => tippingLoad(input),
})
