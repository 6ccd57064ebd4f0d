import { z } from 'zod'
import { defineCalculator } from '../calculator/define'
import { measured, measuredPositive } from '../quantity/measured'
import { Refusal } from '../refusal'

/**
 * Pressure under two tracks for a resultant off their middle. Along a track: N/(bL)·(1 ± 6e/L) while it bears all over
 * (|e| ≤ L/6), else a triangle over 3(L/2 − |e|). Sideways the tracks share by distance.
 * @throws Refusal `unstable` when the resultant stands outside the tracks.
 */
export function trackPressure(input: {
  force_N: number
  eccentricityLong_m: number
  eccentricityLat_m: number
  track: { length_m: number; width_m: number; gauge_m: number }
}) {
  const { length_m: L, width_m: b, gauge_m } = input.track
  const e = Math.abs(input.eccentricityLong_m)
  if (Math.abs(input.eccentricityLat_m) >= gauge_m / 2) {
    throw new Refusal(
      'unstable',
      'The weight stands outside the tracks sideways: the machine would fall over.',
      'eccentricityLat_m',
    )
  }
  if (e >= L / 2) {
    throw new Refusal(
      'unstable',
      'The weight stands beyond the end of the tracks: the machine would fall over.',
      'eccentricityLong_m',
    )
  }
  const one = (side: 'left' | 'right', share: number) => {
    const force_N = input.force_N * share
    const whole = e <= L / 6
    const mean = force_N / (b * L) / 1000
    return {
      side,
      force_N,
      max_kPa: whole ? mean * (1 + (6 * e) / L) : (2 * force_N) / (3 * b * (L / 2 - e)) / 1000,
      min_kPa: whole ? mean * (1 - (6 * e) / L) : 0,
      contact_m: whole ? L : 3 * (L / 2 - e),
    }
  }
  const left = 0.5 + input.eccentricityLat_m / gauge_m
  return { tracks: [one('left', left), one('right', 1 - left)] }
}

export const trackPressureCalculator = defineCalculator({
  name: 'track-pressure',
  purpose: 'Pressure under each track, and how much of it still bears.',
  source: 'Statics of a stiff strip on ground that cannot pull.',
  cautions: [
    'Between rollers and on stones the true pressure is higher.',
    'What the ground may carry comes from the site, not from here.',
  ],
  input: z.strictObject({
    force_N: measuredPositive,
    eccentricityLong_m: measured,
    eccentricityLat_m: measured,
    track: z.strictObject({ length_m: measuredPositive, width_m: measuredPositive, gauge_m: measuredPositive }),
  }),
  output: z.object({
    tracks: z.array(
      z.object({
        side: z.enum(['left', 'right']),
        force_N: z.number(),
        max_kPa: z.number(),
        min_kPa: z.number(),
        contact_m: z.number(),
      }),
    ),
  }),
  worse: {
    tracks: { rows: 'side' },
    'tracks.*.side': 'given',
    'tracks.*.force_N': 'high',
    'tracks.*.max_kPa': 'high',
    'tracks.*.min_kPa': 'low',
    'tracks.*.contact_m': 'low',
  },
  example: {
    force_N: 800000,
    eccentricityLong_m: 1.1,
    eccentricityLat_m: 0.4,
    track: { length_m: 6, width_m: 0.9, gauge_m: 4.6 },
  },
  compute: trackPressure,
})
