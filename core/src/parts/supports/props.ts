import { z } from 'zod'
import { atSlew } from '../../plane/point'
import { finite, positive } from '../../quantity/measured'
import { Refusal } from '../../refusal'
import type { Support } from '../../statics/footprint'
import type { BearingPoint } from './bearing-point'
import type { OutriggerSetting } from './outriggers'

/** Two legs set under a boom, so that it bears on them and on its own foot. */
export const propsPart = z.strictObject({
  /** How far from the slew centre they bear, and at which slew. */
  at_m: positive,
  slew_deg: finite,
  legs: z.array(z.strictObject({ id: z.string().min(1), label: z.string().min(1), aside_m: finite })).length(2),
  /** What one of them may carry, what it stands on the ground with, and what the boom's foot may pull up with. */
  capacity_N: positive,
  float: z.strictObject({ length_m: positive, width_m: positive }),
  footPull_N: positive,
})
export type PropsPart = z.infer<typeof propsPart>

/** Where the props stand: along the boom, and to either side of it. */
export function propContacts({ at_m, slew_deg, legs }: PropsPart): Support[] {
  const along = atSlew(at_m, slew_deg)
  const across = atSlew(1, slew_deg + 90)
  const round = (m: number) => Math.round(m * 1e9) / 1e9
  return legs.map(({ id, aside_m }) => ({
    id,
    x_m: round(along.x_m + aside_m * across.x_m),
    y_m: round(along.y_m + aside_m * across.y_m),
  }))
}

export const propPoints = ({ legs, capacity_N, float }: PropsPart): BearingPoint[] =>
  legs.map(({ id, label }) => ({ id, label, capacity_N, float }))

/** Settings without those of the props. @throws Refusal `missing-leg` where one of them has none */
export function withoutProps(settings: readonly OutriggerSetting[], props: PropsPart | undefined): readonly OutriggerSetting[] {
  if (!props) return settings
  const missing = props.legs.find(({ id }) => !settings.some((s) => s.id === id))
  if (missing) throw new Refusal('missing-leg', `Say what the ${missing.label} stands on.`, 'setup.standing.outriggers')
  return settings.filter((s) => !props.legs.some(({ id }) => id === s.id))
}
