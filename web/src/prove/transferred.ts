import { t } from '../language/t'
import type { Transferred } from '../transfer/transfer-to-lift'
import { type ProveDraft, stepOf, withHung, withStep } from './draft'

/** A draft with the figures that a calculator worked out. */
export function withTransferred(d: ProveDraft, taken: Transferred): ProveDraft {
  const load =
    taken.mass_kg === undefined
      ? d.lift.hung.load
      : {
          ...d.lift.hung.load,
          name: taken.name ?? t`Worked-out load`,
          mass_kg: taken.mass_kg,
          massSource: 'worked-out' as const,
          windArea_m2: taken.windArea_m2 ?? null,
          // Another load: how large it is, is measured anew.
          size: undefined,
        }
  const step = stepOf(d.lift)
  const lift =
    step.do === 'slew' && taken.radius_m !== undefined
      ? withStep(d.lift, { setDown: { ...step.setDown, radius_m: taken.radius_m } })
      : d.lift
  return { wind_mps: taken.wind_mps ?? d.wind_mps, lift: withHung(lift, { load }) }
}
