import type { Transferred } from '../transfer/transfer-to-lift'
import { type ProveDraft, stepOf, withHung, withStep } from './draft'

/** A draft with the figures that a calculator worked out. */
export function withTransferred(d: ProveDraft, t: Transferred): ProveDraft {
  const load =
    t.mass_kg === undefined
      ? d.lift.hung.load
      : {
          ...d.lift.hung.load,
          name: t.name ?? 'Worked-out load',
          mass_kg: t.mass_kg,
          massSource: 'worked-out' as const,
          windArea_m2: t.windArea_m2 ?? null,
          // Another load: how large it is, is measured anew.
          size: undefined,
        }
  const step = stepOf(d.lift)
  const lift =
    step.do === 'slew' && t.radius_m !== undefined
      ? withStep(d.lift, { setDown: { ...step.setDown, radius_m: t.radius_m } })
      : d.lift
  return { wind_mps: t.wind_mps ?? d.wind_mps, lift: withHung(lift, { load }) }
}
