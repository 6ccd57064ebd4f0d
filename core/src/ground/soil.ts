import { z } from 'zod'

export const soil = z.enum([
  'rock-strong',
  'limestone-strong',
  'rock-weak',
  'gravel-dense',
  'gravel-medium-dense',
  'gravel-loose',
  'sand-dense',
  'sand-medium-dense',
  'sand-loose',
  'clay-hard',
  'clay-stiff',
  'clay-firm',
  'clay-soft',
  'made-ground',
  'peat',
])
export type Soil = z.infer<typeof soil>

/**
 * Presumed allowable bearing, kPa, the low end of each range; null: nothing may be presumed, a figure has to come from
 * an engineer or a test. They assume a pressed area a metre wide and water well below it (`presumedAt_kPa`).
 * Source: BS 8004:1986, table 1. The edition in force locally decides.
 */
export const presumedBearing_kPa: Record<Soil, number | null> = {
  // Strong shale and mudstone are the least of them.
  'rock-strong': 2000,
  'limestone-strong': 4000,
  'rock-weak': 600,
  'gravel-dense': 600,
  'gravel-medium-dense': 200,
  'gravel-loose': 100,
  'sand-dense': 300,
  'sand-medium-dense': 100,
  'sand-loose': 50,
  'clay-hard': 300,
  'clay-stiff': 150,
  'clay-firm': 75,
  'clay-soft': 40,
  'made-ground': null,
  peat: null,
}

/** How far down water stands: below the pressed area by more than its width, or not. */
export const waterTable = z.enum(['well-below', 'high'])
export type WaterTable = z.infer<typeof waterTable>

/**
 * What may be presumed under an area of a width, kPa: narrower than a metre in proportion less; under high water nothing.
 * @param width_m the lesser side of what presses on the ground
 */
export function presumedAt_kPa(s: Soil, width_m: number, water: WaterTable | undefined): number | null {
  const whole = presumedBearing_kPa[s]
  return whole === null || water === 'high' ? null : whole * Math.min(1, width_m)
}
