import { z } from 'zod'

export const soil = z.enum([
  'rock-strong',
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
 * an engineer or a test. Source: BS 8004:1986, table 1. The edition in force locally decides.
 */
export const presumedBearing_kPa: Record<Soil, number | null> = {
  'rock-strong': 4000,
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
