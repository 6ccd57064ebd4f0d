import { z } from 'zod'
import { defineCalculator } from '../calculator/define'
import { g_mps2, rad } from '../physics'
import { measured, measuredNotNegative, measuredPositive } from '../quantity/measured'
import { Refusal } from '../refusal'
import { boundary } from '../search'

/** Period of a pendulum, seconds: 2π√(L/g)·(1 + θ²/16 + 11θ⁴/3072), θ the amplitude in radians, good to 0.1 % up to 60°. */
export function swingPeriod_s(ropeLength_m: number, amplitude_deg = 0): number {
  const t = amplitude_deg * rad
  return 2 * Math.PI * Math.sqrt(ropeLength_m / g_mps2) * (1 + t ** 2 / 16 + (11 * t ** 4) / 3072)
}

/** Faster than this no crane turns with a load, degrees a second. */
export const fastestSlew_deg_s = 20

/** A load that hangs flatter than this is no longer swinging but falling, degrees. */
const flattest_deg = 90

/**
 * How far a load on a rope stands out while its tip goes round steadily, metres: L·sin φ with tan φ = ω²(r + L·sin φ)/g. The load
 * itself goes round further out than the tip, so this is more than L·r·ω²/g.
 */
export function thrownOut_m(ropeLength_m: number, radius_m: number, rate_deg_s: number): number {
  const w2 = (rate_deg_s * rad) ** 2
  if (w2 === 0 || radius_m === 0) return 0
  // Out so far the rope stands too steep for its speed until it does not: one crossing below the horizontal.
  const steep = (s: number) =>
    (s * ropeLength_m) / (ropeLength_m * Math.sqrt(1 - s * s)) < (w2 * (radius_m + ropeLength_m * s)) / g_mps2
  return ropeLength_m * boundary(steep, 0, 1 - 1e-15, 1e-15)
}

/**
 * Swing of a load: its period, what a constant ramp of the hook's speed leaves behind, and how far slewing throws it out.
 * Length is to the load's centre. Small-angle theory for the ramp; what swings already is added to it at its worst, and a slew that
 * starts at once throws a load out to twice where it then stands.
 *
 * @throws Refusal `too-wide` where it would swing to the horizontal.
 */
export function swing(input: {
  ropeLength_m: number
  startAmplitude_deg?: number | undefined
  ramp?: { acceleration_mps2: number; time_s: number } | undefined
  slew?: { radius_m: number; rate_deg_s: number } | undefined
}) {
  const start_deg = Math.abs(input.startAmplitude_deg ?? 0)
  const smallPeriod_s = swingPeriod_s(input.ropeLength_m)
  const a_g = Math.abs(input.ramp?.acceleration_mps2 ?? 0) / g_mps2
  const tau = input.ramp?.time_s ?? 0
  const left = 2 * a_g * Math.abs(Math.sin((Math.PI * tau) / smallPeriod_s))
  const during = tau >= smallPeriod_s / 2 ? 2 * a_g : a_g * (1 - Math.cos((2 * Math.PI * tau) / smallPeriod_s))
  const peakAngle_deg = start_deg + Math.max(during, left) / rad
  if (start_deg >= flattest_deg)
    throw new Refusal('too-wide', 'A load does not swing to 90° and more; check the amplitude.', 'startAmplitude_deg')
  if (peakAngle_deg >= flattest_deg)
    throw new Refusal(
      'too-wide',
      'This start would throw the load to the horizontal; check the acceleration.',
      'ramp.acceleration_mps2',
    )
  const L = input.ropeLength_m
  const steady_m = input.slew ? thrownOut_m(L, input.slew.radius_m, input.slew.rate_deg_s) : 0
  return {
    period_s: swingPeriod_s(input.ropeLength_m, start_deg),
    smallPeriod_s,
    residualAmplitude_deg: start_deg + left / rad,
    peakAngle_deg,
    /** Out while the slew goes on steadily. */
    slewRadius_m: steady_m,
    /** The most it may stand out: thrown by a sudden slew, and swinging besides. */
    extraRadius_m: 2 * steady_m + L * Math.sin(peakAngle_deg * rad),
    /** A ramp as long as one period leaves no swing. */
    quietRamp_s: smallPeriod_s,
  }
}

export const swingCalculator = defineCalculator({
  name: 'swing',
  purpose: 'How long a load swings for, what starting and stopping leaves of it, and how far slewing throws it out.',
  source:
    'Pendulum: T = 2π√(L/g)(1 + θ²/16 + 11θ⁴/3072); residual 2(a/g)|sin(πτ/T)|; slewing tan φ = ω²(r + L·sin φ)/g, twice that from a sudden start.',
  cautions: [
    'A swinging load is at a greater radius than the table was read for.',
    'Nobody steadies a load by standing under or before it.',
  ],
  input: z.strictObject({
    ropeLength_m: measuredPositive,
    startAmplitude_deg: measuredNotNegative.optional(),
    ramp: z.strictObject({ acceleration_mps2: measured, time_s: measuredNotNegative }).optional(),
    slew: z.strictObject({ radius_m: measuredNotNegative, rate_deg_s: measured }).optional(),
  }),
  output: z.object({
    period_s: z.number(),
    smallPeriod_s: z.number(),
    residualAmplitude_deg: z.number(),
    peakAngle_deg: z.number(),
    slewRadius_m: z.number(),
    extraRadius_m: z.number(),
    quietRamp_s: z.number(),
  }),
  worse: {
    period_s: 'either',
    smallPeriod_s: 'either',
    residualAmplitude_deg: 'high',
    peakAngle_deg: 'high',
    slewRadius_m: 'high',
    extraRadius_m: 'high',
    quietRamp_s: 'either',
  },
  example: {
    ropeLength_m: 12,
    startAmplitude_deg: 2,
    ramp: { acceleration_mps2: 0.2, time_s: 3 },
    slew: { radius_m: 14, rate_deg_s: 4 },
  },
  compute: swing,
})
