import { levelFinding } from '../assess/level'
import { onHook } from '../assess/on-hook'
import { deflectionOf } from '../assess/reach'
import { counterweightOf, footprintOf, isCrane } from '../machine/posed'
import { high } from '../quantity/measured'
import type { Case } from '../remedy/change'
import type { MapInput } from './capacity-map'

/** What the map of a lift’s surroundings is made from, at the worse end of every doubt; null without a known mass, or without legs. */
export function mapOfCase(c: Case, radii_m: readonly number[], slew_deg: readonly number[]): MapInput | null {
  if (!isCrane(c.machine)) return null
  const { machine, setup, lift, policy } = c
  const hook = onHook(machine, lift)
  if (!hook) return null
  counterweightOf(machine, setup)
  const sail = lift.load.sailArea_m2
  return {
    machine,
    tables: c.tables.filter((t) => t.machine === machine.id),
    configuration: lift.configuration,
    counterweight: setup.counterweight,
    boom_m: lift.boom_m,
    deflection_m: deflectionOf(lift),
    footprint: footprintOf(machine, setup.legs),
    ground: setup.legs.flatMap((l) => {
      const leg = machine.legs.find((x) => x.id === l.id)
      if (!leg || !l.ground) return []
      return [{ id: l.id, pad: leg.pad, mat: l.mat ?? undefined, allowable_kPa: l.ground.allowable_kPa, soil: l.ground.soil }]
    }),
    load: {
      mass_kg: hook.load_kg,
      deductions: hook.deductions,
      // Unknown, it is not proven by any map; the lift's own finding says so.
      sailArea_m2: sail === null ? 0 : high(sail),
      dragCoefficient: lift.load.dragCoefficient,
    },
    policy: { readingRule: policy.readingRule, legLoads: policy.legLoads, dynamicFactor: policy.dynamicFactor },
    wind_mps: c.conditions.wind_mps === null ? 0 : high(c.conditions.wind_mps),
    tilt_deg: Math.min(15, levelFinding(setup, null).tilt_deg ?? 0),
    radii_m,
    slew_deg,
  }
}
