import type { Check } from '../check/check'
import { checkNamed, checks } from '../check/checks'
import { ratedAtEnds } from '../check/choose-table'
import { LiftContext } from '../check/context'
import { dueChecks } from '../check/due'
import { windLimitOf } from '../check/wind'
import { type Finding, found, governingOf, type Verdict, worseVerdict } from '../finding/finding'
import type { CheckName } from '../finding/reasons'
import type { Case } from '../lift/case'
import { liftsOnOutriggers } from '../machine/crane'
import { nominal } from '../quantity/measured'
import { type Assessment, notChecked } from './assessment'

/** How an assessment is done, where not by all checks as finely as is usual. */
export interface Thoroughness {
  checks?: readonly Check[] | undefined
  /** Points the arc is looked at in before its extremes are refined; omitted: one every 5°. */
  points?: number | undefined
}

/**
 * Proves one lift: rated capacity from the table, line and hook, what the outriggers carry, ground, tipping, wind and level as
 * independent checks, each at the worse end of its doubt.
 *
 * What is missing makes a finding *not proven*; it is never taken as zero. A check that is due and says nothing is *not proven*
 * too. Computed stability may lower what the table allows; it never raises it.
 *
 * @throws Refusal when the plan does not fit the machine: unknown leg, reeving or counterweight.
 * @example assess({ machine, tables, setup, lift, conditions: { wind_mps: 4 }, policy }).verdict // 'inside'
 */
export function assess(plan: Case, { checks: run = checks, points }: Thoroughness = {}): Assessment {
  if (!liftsOnOutriggers(plan.machine)) return summed(withUnanswered(plan, []))
  const ctx = new LiftContext(plan, { points })
  return {
    ...summed(
      withUnanswered(
        plan,
        run.flatMap((check) => check.run(ctx)),
      ),
    ),
    ...figuresOf(ctx),
  }
}

/** What is due and was not answered, nor held back by what was. */
function withUnanswered({ machine }: Case, findings: readonly Finding[]): Finding[] {
  const spoke = new Set<CheckName>(findings.map((f) => f.check))
  const adverse = new Set<CheckName>(
    findings.filter((f) => f.verdict === 'outside' || f.verdict === 'not-proven').map((f) => f.check),
  )
  const silent = dueChecks(machine).filter((name) => {
    const { heldBackBy, impliedBy } = checkNamed(name)
    return !spoke.has(name) && !heldBackBy.some((x) => adverse.has(x)) && !impliedBy.some((x) => spoke.has(x))
  })
  return [...findings, ...silent.map(unanswered)]
}

const unanswered = (check: CheckName): Finding =>
  found({ check, verdict: 'not-proven', reason: 'nothing-checks-this', detail: {} })

function summed(findings: Finding[]): Assessment {
  return {
    verdict: findings.reduce<Verdict>((v, f) => worseVerdict(v, f.verdict), 'inside'),
    governing: governingOf(findings),
    findings,
    notChecked,
    configuration: null,
    rated_kg: null,
    ratedAt: null,
    readFrom: [],
    hookLoad_kg: null,
    outriggers: [],
    windLimit_mps: null,
    tip: null,
  }
}

/** The figures shown beside the findings. */
function figuresOf(ctx: LiftContext): Partial<Assessment> {
  const { choice, plan, hook, bearings } = ctx
  const { chosen, reading } = choice
  return {
    configuration: chosen && {
      table: chosen.table.id,
      revision: chosen.table.revision,
      id: chosen.configuration.id,
      label: chosen.configuration.label,
    },
    rated_kg: typeof reading?.gross_kg === 'number' ? reading.gross_kg : null,
    ratedAt: chosen && ratedAtEnds(chosen, plan.lift, plan.policy),
    readFrom: reading?.rows ?? [],
    hookLoad_kg: hook?.total_kg ?? null,
    outriggers: bearings.map(({ point, max_N, upper_N, min_N, min_at_deg, pressed }) => ({
      id: point.id,
      max_N,
      upper_N,
      min_N,
      min_at_deg,
      groundUse: pressed.utilisation,
      pressure_kPa: pressed.formation_kPa,
    })),
    windLimit_mps: windLimitOf(ctx),
    tip: ctx.reached ? null : tipOf(ctx),
  }
}

/** Heights of the boom's head and its angles at the two ends. */
function tipOf({ boom, deflection_m, plan: { lift } }: LiftContext): Assessment['tip'] {
  const at = (end: 'pickUp' | 'setDown') => boom.poseAtRadius(lift.boom_m, nominal(lift[end].radius_m), deflection_m)
  const [pickUp, set] = [at('pickUp'), at('setDown')]
  return {
    pick_m: pickUp.tip_height_m,
    set_m: set.tip_height_m,
    angle_pick_deg: pickUp.angle_deg,
    angle_set_deg: set.angle_deg,
  }
}
