import { z } from 'zod'
import { positive } from '../quantity/measured'

/** What a machine runs on, and how a full tank or battery lasts. */
export const energy = z.strictObject({
  kind: z.enum(['fuel', 'gas', 'battery']),
  label: z.string().min(1),
  /** Share of a full tank or battery that an hour of use takes. */
  perHour_share: positive.max(1, 'A share, at most 1.'),
  /** Hours from empty to full: charging, or a change of cylinder. */
  refill_h: positive,
  /** The battery's own book, where it asks for something else than the site. */
  book: z.enum(['when-low', 'every-shift-end']).optional(),
})
export type Energy = z.infer<typeof energy>

export interface EnergyPolicy {
  /** When low, below the threshold; or at every end of shift. */
  when: 'when-low' | 'every-shift-end'
  threshold_share: number
}
/** When low unless the battery's book says otherwise: each charge ages a battery. */
export const energyPolicy: EnergyPolicy = { when: 'when-low', threshold_share: 0.3 }

export interface EnergyPlan {
  share: number | null
  hoursLeft: number | null
  /** What to do now. */
  action: 'nothing' | 'refill-now' | 'refill-today' | 'read-it'
  why: string
  refill_h: number | null
}

const verbs = { fuel: 'Refuel', gas: 'Change the cylinder', battery: 'Charge' } as const

/**
 * Whether to charge or refuel, under the site's policy: from what was last read and what a day of use takes.
 * @param share what was left at the last reading, 0 to 1; null: not read
 * @param hoursADay present use; null: not known
 */
export function energyPlan(e: Energy, share: number | null, hoursADay: number | null, policy = energyPolicy): EnergyPlan {
  const when = e.book ?? policy.when
  const verb = verbs[e.kind]
  if (share === null)
    return { share, hoursLeft: null, action: 'read-it', why: `${e.label} was not read at the last handover.`, refill_h: null }
  const hoursLeft = share / e.perHour_share
  const refill_h = (1 - share) * e.refill_h
  const said = { share, hoursLeft, refill_h }
  if (share < policy.threshold_share) {
    return { ...said, action: 'refill-now', why: `${verb} now: below ${Math.round(policy.threshold_share * 100)} %.` }
  }
  if (when === 'every-shift-end' && share < 0.98) {
    return {
      ...said,
      action: 'refill-today',
      why: `${verb} at the end of the shift: ${e.book ? 'its own book asks for it' : 'site policy'}.`,
    }
  }
  if (hoursADay !== null && share - hoursADay * e.perHour_share < policy.threshold_share) {
    return {
      ...said,
      action: 'refill-today',
      why: `${verb} today: a day of use takes it below ${Math.round(policy.threshold_share * 100)} %.`,
    }
  }
  return { ...said, action: 'nothing', why: 'Enough for a day of use.' }
}
