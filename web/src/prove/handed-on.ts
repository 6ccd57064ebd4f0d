import type { HandedOn } from '../transfer/transfer'
import type { ProveDraft } from './draft'

export function withHandedOn(d: ProveDraft, h: HandedOn): ProveDraft {
  const load =
    h.mass_kg === undefined
      ? d.lift.load
      : {
          ...d.lift.load,
          name: h.name ?? 'Worked-out load',
          mass_kg: h.mass_kg,
          massSource: 'worked-out' as const,
          sailArea_m2: h.sailArea_m2 ?? null,
        }
  const set = h.setRadius_m === undefined ? d.lift.set : { ...d.lift.set, radius_m: h.setRadius_m }
  return { wind_mps: h.wind_mps ?? d.wind_mps, lift: { ...d.lift, load, set } }
}
