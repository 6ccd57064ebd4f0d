import { boomTables } from '../check/choose-table'
import { LiftContext } from '../check/context'
import { tiltOf } from '../check/tilt'
import type { Case } from '../lift/case'
import { onHook } from '../lift/hook-load'
import { motionsOf } from '../lift/motion'
import { nth } from '../list'
import { liftsOnHook, withTool } from '../machine/crane'
import { boomModelOf } from '../parts/booms/boom-model'
import { ropeHoist } from '../parts/hoists/rope'
import { counterweightNamed } from '../parts/superstructure'
import { supportOf } from '../parts/supports/states'
import { high } from '../quantity/measured'
import type { MapInput } from './capacity-map'

/** What the map of a lift’s surroundings is made from, at the worse end of every doubt; null without a known mass, or without legs. */
export function mapOfCase(c: Case, radii_m: readonly number[], slew_deg: readonly number[]): MapInput | null {
  if (!liftsOnHook(c.machine)) return null
  const { setup, lift, policy } = c
  const machine = withTool(c.machine, setup.fitted.attachment)
  const step = lift.steps.find((s) => s.laden) ?? nth(lift.steps, 0)
  const support = supportOf(machine, setup.standing)
  const index = lift.steps.indexOf(step)
  const motion = nth(motionsOf(machine, step, `lift.steps.${index}`), 0)
  const { load } = lift.hung
  const hoist = ropeHoist(machine.name, machine.hoist)
  const hook = onHook(hoist.blockOf(hoist.reevedIn(setup.fitted.partsOfLine)), lift.hung, step.laden)
  if (!hook) return null
  const counterweight = counterweightNamed(machine.name, machine.upper, setup.fitted.counterweight)
  // What is suspended hangs at some radii and stands at others; no map shows that.
  if (counterweight.suspended) return null
  const sail = load.windArea_m2
  return {
    machine,
    tables: boomTables(
      c.tables.filter((t) => t.machine === machine.id),
      setup.fitted.partsOfLine ?? 0,
      { counterweight_kg: counterweight.mass_kg, contacts: support.contacts },
      setup.fitted.attachment,
    ),
    configuration: lift.configuration,
    counterweight: counterweight.id,
    boom_m: motion.boom_m,
    deflection_m: motion.deflection_m,
    state: support.state,
    footprint: support.contacts.map((c) => ({ ...c, capacity_N: support.points.find((o) => o.id === c.id)?.capacity_N })),
    ground: support.settings.flatMap((l) => {
      const point = support.points.find((x) => x.id === l.id)
      if (!point || !l.ground) return []
      return [{ id: l.id, pad: point.float, mat: l.mat ?? undefined, allowable_kPa: l.ground.allowable_kPa, soil: l.ground.soil }]
    }),
    load: {
      mass_kg: hook.load_kg,
      deductions: hook.deductions,
      // Unknown, it is not proven by any map; the lift's own finding says so.
      sailArea_m2: sail === null || !step.laden ? 0 : high(sail),
      dragCoefficient: load.dragCoefficient,
    },
    policy: { readingRule: policy.readingRule, legLoads: policy.legLoads, dynamicFactor: policy.dynamicFactor },
    wind_mps: c.conditions.wind_mps === null ? 0 : high(c.conditions.wind_mps),
    tilt_deg: Math.min(15, tiltOf(setup)?.worst_deg ?? 0),
    radii_m,
    slew_deg,
    lift: new LiftContext(c, { step: index, motion: { ...motion, boom: boomModelOf(machine.boom, motion.boom_m) } }),
  }
}
