import { z } from 'zod'
import { finding, verdict } from '../finding/finding'
import type { LiftPlan } from '../lift/plan'
import type { Machine } from '../machine/machine'
import { looksFrom } from '../parts/eye'
import { readCell } from '../rating/read'

/** What nobody has looked at when an assessment is done. Words in `wording/`. */
export const notChecked = [
  'slings',
  'hook-height',
  'buried',
  'drum',
  'swing',
  'condition',
  'people',
  'sight',
  'machine-tilt',
  'backward-wind',
  'way-past',
  'way-over',
] as const
export type NotChecked = (typeof notChecked)[number]

type Does = LiftPlan['steps'][number]['do']
const boomDoes: readonly Does[] = ['slew', 'pose']
const hookDoes: readonly Does[] = [...boomDoes, 'traverse']
const driverDoes: readonly Does[] = ['mast', 'reach', 'drive', 'tow']

/** What there is only where a step does one of these; the rest is there whatever is done. */
const onlyWhere: Partial<Record<NotChecked, readonly Does[]>> = {
  sight: boomDoes,
  drum: boomDoes,
  swing: boomDoes,
  'machine-tilt': boomDoes,
  'backward-wind': boomDoes,
  slings: hookDoes,
  'hook-height': hookDoes,
  'way-past': driverDoes,
  'way-over': driverDoes,
  // Under a beam nothing stands on the ground.
  buried: [...boomDoes, ...driverDoes],
}

/** The same for one lift: what it says is looked at. */
export function notCheckedIn(machine: Machine, lift: LiftPlan): NotChecked[] {
  const { hung, steps } = lift
  const said: Partial<Record<NotChecked, boolean>> = {
    'way-past':
      steps.every((s) => s.do === 'mast' || s.do === 'reach' || (s.do === 'drive' && s.route !== undefined)) &&
      steps.some((s) => s.do === 'drive'),
    slings: hung.slings !== undefined,
    sight: looksFrom(machine, lift),
    'hook-height': steps.every((s) => !s.laden || (s.do !== 'slew' && s.do !== 'pose') || s.heights !== undefined),
  }
  return notChecked.filter((n) => !said[n] && (onlyWhere[n]?.some((does) => steps.some((s) => s.do === does)) ?? true))
}

const kg = z.number().nullable()

/** What is carried by one outrigger over the whole path at its worse radius. */
const contactUse = z.object({
  id: z.string(),
  max_N: z.number(),
  upper_N: z.number(),
  min_N: z.number(),
  min_at_deg: z.number(),
  /** Share of what the ground allows; null: not proven. */
  groundUse: z.number().nullable(),
  pressure_kPa: z.number().nullable(),
})
export type ContactUse = z.infer<typeof contactUse>

/** What came of proving one lift: a value, kept whole with its record. */
export const assessment = z.object({
  verdict,
  governing: finding.nullable(),
  findings: z.array(finding),
  notChecked: z.array(z.enum(notChecked)).readonly(),
  /** The table configuration the machine's own computer has to be set to. */
  configuration: z.object({ table: z.string(), revision: z.number(), id: z.string(), label: z.string() }).nullable(),
  rated_kg: kg,
  /** What the same table rates at each end; null: not rated there. The worst on the path is `rated_kg`. */
  ratedAt: z.object({ pick_kg: kg, set_kg: kg }).nullable(),
  /** Cells the worst reading was taken from. */
  readFrom: z.array(readCell),
  hookLoad_kg: kg,
  /** What each that carries some of a load carries as it is taken, everything as it was said, and of it what is on it without one; empty where statics cannot say. */
  carries: z.array(
    z.object({
      id: z.string(),
      kg: z.number(),
      own_kg: z.number(),
      /** What its gauge then shows for each kilogram; null: no gauge of pressure. */
      kPa_per_kg: z.number().nullable(),
    }),
  ),
  outriggers: z.array(contactUse),
  windLimit_mps: z.number().nullable(),
  /** Height of the boom's head and its angle at the two ends, as given. */
  tip: z.object({ pick_m: z.number(), set_m: z.number(), angle_pick_deg: z.number(), angle_set_deg: z.number() }).nullable(),
})
export type Assessment = z.infer<typeof assessment>
