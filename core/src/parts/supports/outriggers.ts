import { z } from 'zod'
import { finite, notNegative, positive } from '../../quantity/measured'
import { Refusal } from '../../refusal'
import type { SupportModel } from './support'

export const extension = z.enum(['in', 'middle', 'full'])
export type Extension = z.infer<typeof extension>

const footPosition = z.strictObject({ x_m: finite, y_m: finite })

/** One outrigger: where its foot stands at each stop, its jack's travel, its strength, its pad. */
export const leg = z.strictObject({
  id: z.string().min(1),
  label: z.string().min(1),
  positions: z.strictObject({ in: footPosition, middle: footPosition, full: footPosition }),
  /** Jack's ends; the foot leaves the ground below min. */
  stroke: z.strictObject({ min_m: notNegative, max_m: positive }),
  /** The greatest load the leg's own structure may carry. */
  capacity_N: positive,
  pad: z.strictObject({ length_m: positive, width_m: positive }),
})
export type Leg = z.infer<typeof leg>

/** Standing on outriggers: beams with three stops, all wheels clear. */
export function outriggers(legs: readonly Leg[]): SupportModel<Extension> {
  const stops = extension.options
  return {
    points: legs,
    contactsOf: (settings) =>
      legs.map((leg) => {
        const chosen = settings.find((s) => s.id === leg.id)
        if (!chosen) throw new Refusal('missing-leg', `Say how far ${leg.label} is out.`, 'setup.legs')
        return { id: leg.id, ...leg.positions[chosen.extension] }
      }),
    furtherOut: (stop) => stops.slice(stops.indexOf(stop) + 1),
  }
}
