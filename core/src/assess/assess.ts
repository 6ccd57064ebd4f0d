import { type Finding, found, governingOf, type Verdict, worseVerdict } from '../finding/finding'
import { pathOf } from '../lift/path'
import type { Conditions, LiftPlan, SetupPlan } from '../lift/plan'
import type { Machine } from '../machine/machine'
import { counterweightOf, footprintOf, isCrane } from '../machine/posed'
import type { Policy } from '../place/place'
import type { BoomTable } from '../rating/table'
import { Refusal } from '../refusal'
import { prepareFootprint } from '../statics/footprint'
import type { StabilityRule } from '../statics/tipping-load'
import { type LegUse, legsOf, stabilityFinding } from './legs'
import { levelFinding } from './level'
import { onHook, reevingOf } from './on-hook'
import { type ChosenTable, candidatesFor, rate, ratedAtEnds, rateLine } from './rating'
import { deflectionOf, reachFinding, tipOf } from './reach'
import { standAt } from './standing'
import { windFinding } from './wind'

/** What nobody has looked at when an assessment is done. Words in `wording/`. */
export const notChecked = [
  'clearance',
  'overhead-lines',
  'slings',
  'buried',
  'swing',
  'condition',
  'hook-height',
  'people',
  'machine-tilt',
  'mats-near',
] as const
export type NotChecked = (typeof notChecked)[number]

export interface Assessment {
  verdict: Verdict
  governing: Finding | null
  findings: Finding[]
  notChecked: readonly NotChecked[]
  /** The table configuration the machine's own computer has to be set to. */
  configuration: { table: string; revision: number; id: string; label: string } | null
  rated_kg: number | null
  /** What the same table rates at each end; null: not rated there. The worst on the path is `rated_kg`. */
  ratedAt: { pick_kg: number | null; set_kg: number | null } | null
  /** Cells the worst reading was taken from. */
  readFrom: { boom_m: number; radius_m: number; rating_kg: number | null }[]
  onHook_kg: number | null
  legs: LegUse[]
  windLimit_mps: number | null
  tip: { pick_m: number; set_m: number; angle_pick_deg: number; angle_set_deg: number } | null
}

const allRules: readonly StabilityRule[] = ['75%', '85%', '1.25P+0.1F']

/**
 * Proves one lift: rated capacity from the table, line and hook, leg loads, ground, tipping, wind and level as independent
 * checks, each at the worse end of its doubt.
 *
 * What is missing makes a finding *not proven*; it is never taken as zero. Computed stability may lower what the table
 * allows; it never raises it.
 *
 * @throws Refusal when the plan does not fit the machine (unknown leg, reeving or counterweight), or the machine has no
 * boom, legs and hoist.
 */
export function assess(
  machine: Machine,
  tables: readonly BoomTable[],
  setup: SetupPlan,
  lift: LiftPlan,
  conditions: Conditions,
  policy: Policy,
  /** Points the arc is looked at in before its extremes are refined; omitted: one every 5°. */
  points?: number,
): Assessment {
  if (!isCrane(machine)) {
    throw new Refusal('no-crane', `${machine.name} has no boom, legs and hoist; this assessment is not for it.`, 'machine')
  }
  const path = pathOf(lift)
  const footprint = footprintOf(machine, setup.legs)
  const prepared = prepareFootprint(footprint)
  const counterweight = counterweightOf(machine, setup)
  reevingOf(machine, lift.parts)
  const hook = onHook(machine, lift)
  const findings: Finding[] = []
  if (!hook) findings.push(found({ check: 'mass', verdict: 'not-proven', reason: 'unknown' }))

  const candidates = candidatesFor(tables, machine, counterweight.mass_kg, footprint)
  const rated = rate(candidates, lift, path, hook, policy, hook?.deductions ?? [])
  findings.push(...rated.findings)
  if (hook) findings.push(...rateLine(machine, lift, hook, policy.near_share))

  const reach = reachFinding(machine, lift, path.radii_m)
  if (reach) findings.push(reach)
  const level = levelFinding(setup, rated.chosen)
  findings.push(level.finding)
  const wind = windFinding(lift, conditions, rated.chosen, policy, hook?.loadLightest_kg ?? null)
  findings.push(wind.finding)

  let legs: LegUse[] = []
  if (hook && !reach) {
    const outward = { tilt_deg: level.tilt_deg ?? 0, wind_N: wind.force_N ?? 0 }
    const rules = rulesFor(rated.chosen)
    const shape = { boom_m: lift.boom_m, deflection_m: deflectionOf(lift) }
    const onBoom = hook.deductions.filter((d) => d.on === 'boom')
    const load = { total_kg: hook.total_kg, dynamicFactor: policy.dynamicFactor, outward, onBoom }
    const stands = path.radii_m.map((r) => standAt(machine, setup, prepared, shape, path, r, load, rules, points))
    findings.push(stabilityFinding(stands, hook.total_kg, hook.totalNominal_kg, policy))
    legs = legsOf(machine, setup.legs, stands, policy, findings)
  }
  const governing = governingOf(findings)
  const chosen = rated.chosen
  return {
    verdict: findings.reduce<Verdict>((v, f) => worseVerdict(v, f.verdict), 'inside'),
    governing,
    findings,
    notChecked,
    configuration: chosen && {
      table: chosen.table.id,
      revision: chosen.table.revision,
      id: chosen.configuration.id,
      label: chosen.configuration.label,
    },
    rated_kg: typeof rated.reading?.gross_kg === 'number' ? rated.reading.gross_kg : null,
    ratedAt: chosen && ratedAtEnds(chosen, lift, policy),
    readFrom: rated.reading?.rows ?? [],
    onHook_kg: hook?.total_kg ?? null,
    legs,
    windLimit_mps: wind.limit_mps,
    tip: reach ? null : tipOf(machine, lift),
  }
}

/** The rule of the table; 85 % only for legs fully out. Without one, the least of the three. */
function rulesFor(chosen: ChosenTable | null): readonly StabilityRule[] {
  if (!chosen) return allRules
  const { stabilityRule } = chosen.table
  return stabilityRule === '85%' && !chosen.configuration.fullyExtended ? ['75%'] : [stabilityRule]
}
