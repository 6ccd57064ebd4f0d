import type { Bearing } from '../check/bearing'
import type { Check } from '../check/check'
import { checkNamed, checks } from '../check/checks'
import { ratedAtEnds } from '../check/choose-table'
import { contextsOf, type LiftContext } from '../check/context'
import { dueChecks } from '../check/due'
import { GantryContext } from '../check/gantry-context'
import { RunwayContext } from '../check/runway-context'
import { StraddleContext } from '../check/straddle-context'
import { TowContext } from '../check/tow-context'
import { TruckContext } from '../check/truck-context'
import { windLimitOf } from '../check/wind'
import { type Finding, found, governingOf, type Verdict, worstVerdict } from '../finding/finding'
import type { CheckName, Said } from '../finding/reasons'
import type { Case } from '../lift/case'
import { refuseImpossibleSteps } from '../lift/steps'
import { nth } from '../list'
import { liftsOnHook } from '../machine/crane'
import { isGantry, isRunway, isStraddle, isTruck } from '../machine/provable'
import { rad } from '../physics'
import { nominal } from '../quantity/measured'
import { Refusal } from '../refusal'
import { type Assessment, type ContactUse, notCheckedIn } from './assessment'

/** How an assessment is done, where not by all checks as finely as is usual. */
export interface Thoroughness {
  checks?: readonly Check[] | undefined
  /** Points the arc is looked at in before its extremes are refined; omitted: one every 5°. */
  points?: number | undefined
  /** The lift's own contexts, where some of it has been worked out already. */
  contexts?: readonly LiftContext[] | undefined
}

/**
 * Proves one lift: rated capacity from the table, line and hook, what the outriggers carry, ground, tipping, wind and level as
 * independent checks, each at the worse end of its doubt.
 *
 * What is missing makes a finding *not proven*; it is never taken as zero. A check that is due and says nothing is *not proven*
 * too. Computed stability may lower what the table allows; it never raises it.
 *
 * @throws Refusal when the plan does not fit the machine: unknown outrigger, reeving or counterweight, a step that its parts do not make.
 * @example assess({ machine, tables, setup, lift, conditions: { wind_mps: 4 }, place, policy }).verdict // 'inside'
 */
export function assess(plan: Case, { checks: run = checks, points, contexts }: Thoroughness = {}): Assessment {
  refuseImpossibleSteps(plan.machine, plan.lift)
  refuseUnknownAreas(plan)
  if (isTruck(plan.machine)) return assessTruck(plan, run)
  if (plan.lift.steps[0]?.do === 'tow') return assessTow(plan, run)
  if (isRunway(plan.machine)) return assessRunway(plan, run)
  if (isGantry(plan.machine)) return assessGantry(plan, run)
  if (isStraddle(plan.machine)) return assessStraddle(plan, run)
  if (!liftsOnHook(plan.machine)) return summed(plan, withUnanswered(plan, 0, []))
  const steps = contexts ?? contextsOf(plan, points)
  const findings = foundIn(plan, steps, (ctx) => run.flatMap((check) => check.run(ctx).map((f) => inStep(f, ctx))))
  return { ...summed(plan, findings), ...figuresOf(steps) }
}

/** Only a place where people walk can be closed. @throws Refusal `unknown-area` */
function refuseUnknownAreas({ lift, place }: Case): void {
  const areas = place.features.filter((f) => f.kind === 'people')
  const at = (lift.closes ?? []).findIndex((id) => areas.every((a) => a.id !== id))
  if (at < 0) return
  const there = areas.map((a) => a.id).join(', ') || 'none'
  throw new Refusal('unknown-area', `People walk in no such place here; drawn are: ${there}.`, `lift.closes.${at}`)
}

/** What every check finds in each step, with what is due and unanswered; of several steps the worst of each. */
function foundIn<C extends { index: number }>(plan: Case, steps: readonly C[], finds: (ctx: C) => Finding[]): Finding[] {
  const findings = steps.flatMap((ctx) => withUnanswered(plan, ctx.index, finds(ctx)))
  return steps.length > 1 ? worstOfEach(findings) : findings
}

const limitsOf = (findings: readonly Finding[], check: CheckName) =>
  findings.flatMap((f) => (f.check === check && f.limit !== null ? [f.limit] : []))
const least = (figures: readonly number[]) => (figures.length > 0 ? Math.min(...figures) : null)
const most = (figures: readonly number[]) => (figures.length > 0 ? Math.max(...figures) : null)

/** The same of a truck: it has no hook and no outriggers, and its plate says what it may take. */
function assessTruck(plan: Case, run: readonly Check[]): Assessment {
  const steps = plan.lift.steps.map((_, i) => new TruckContext(plan, i))
  const findings = foundIn(plan, steps, (ctx) => run.flatMap((check) => check.truck?.(ctx) ?? []))
  const [first] = steps.filter((s) => s.step.laden)
  return {
    ...summed(plan, findings),
    rated_kg: least(limitsOf(findings, 'rating')),
    hookLoad_kg: first?.mass_kg?.worst ?? null,
    carries: first?.mass_kg ? [{ id: 'load', kg: first.mass_kg.nominal, own_kg: 0, kPa_per_kg: null }] : [],
  }
}

/** The same of what tows: an arm and two axles. */
function assessTow(plan: Case, run: readonly Check[]): Assessment {
  const steps = plan.lift.steps.map((_, i) => new TowContext(plan, i))
  const findings = foundIn(plan, steps, (ctx) => run.flatMap((check) => check.tow?.(ctx) ?? []))
  const lifted = findings.filter((f) => f.check === 'structure' && f.limit !== null).map((f) => f.measured ?? 0)
  return { ...summed(plan, findings), rated_kg: least(limitsOf(findings, 'structure')), hookLoad_kg: most(lifted) }
}

/** The same of a hoist under a beam: four marks, a chain, a beam. */
function assessRunway(plan: Case, run: readonly Check[]): Assessment {
  const steps = plan.lift.steps.map((_, i) => new RunwayContext(plan, i))
  const findings = foundIn(plan, steps, (ctx) => run.flatMap((check) => check.runway?.(ctx) ?? []))
  const hung = steps.flatMap((s) => (s.step.laden && s.hung ? [s.hung.worst_kg] : []))
  return { ...summed(plan, findings), rated_kg: least(limitsOf(findings, 'rating')), hookLoad_kg: most(hung) }
}

/** The same of a gantry: what each of its towers carries. */
function assessGantry(plan: Case, run: readonly Check[]): Assessment {
  const steps = plan.lift.steps.map((_, i) => new GantryContext(plan, i))
  const findings = foundIn(plan, steps, (ctx) => run.flatMap((check) => check.gantry?.(ctx).map((f) => ofStep(f, ctx)) ?? []))
  const hung = steps.flatMap((s) => (s.step.laden && s.hung ? [s.hung.worst_kg] : []))
  const [taken] = steps.filter((s) => s.step.laden)
  return {
    ...summed(plan, findings),
    rated_kg: least(limitsOf(findings, 'rating')),
    hookLoad_kg: most(hung),
    carries: taken ? carriedBy(taken, { own_kg: taken.header_kg, kPa_per_kg: taken.kPa_per_kg }) : [],
  }
}

/** What each carries of what hangs, as it was said, over what it carries of its own. */
const carriedBy = (
  { hung, shares, settled }: Pick<GantryContext | StraddleContext, 'hung' | 'shares' | 'settled'>,
  of: { own_kg: number; kPa_per_kg: number | null },
): Assessment['carries'] =>
  hung && settled ? (shares ?? []).map(({ id, nominal: n }) => ({ id, kg: n * hung.nominal_kg + of.own_kg, ...of })) : []

/** The same of a frame astride its load: two hoists, four wheels. */
function assessStraddle(plan: Case, run: readonly Check[]): Assessment {
  const steps = plan.lift.steps.map((_, i) => new StraddleContext(plan, i))
  const findings = foundIn(plan, steps, (ctx) => run.flatMap((check) => check.straddle?.(ctx).map((f) => ofStep(f, ctx)) ?? []))
  const hung = steps.flatMap((s) => (s.step.laden && s.hung ? [s.hung.worst_kg] : []))
  const [taken] = steps.filter((s) => s.step.laden)
  return {
    ...summed(plan, findings),
    rated_kg: most(limitsOf(findings, 'rating')),
    hookLoad_kg: most(hung),
    carries: taken ? carriedBy(taken, { own_kg: 0, kPa_per_kg: null }) : [],
  }
}

/** By its step, where it goes by no radius and no slew. */
const ofStep = (f: Finding, { index }: { index: number }): Finding => ({ ...f, where: { step: index } })

/** Where on the path it is, a finding says by its step too. */
function inStep(f: Finding, { index, motion, path }: LiftContext): Finding {
  if (!f.at) return f
  const { posed } = motion
  const radius_m = Math.min(path.greatest_m, Math.max(path.least_m, f.at.radius_m))
  return { ...f, where: { step: index, ...(posed && { t: posed.t_at(radius_m), pose: posed.poseAt(radius_m) }) } }
}

/** Not rated at all: worse than any share of what is. */
const beyondAny = (f: Finding) => f.verdict === 'outside' && f.utilisation === null && f.limit === null

/** Of several findings of the same thing, each from another step, the worst. */
function worstOfEach(findings: readonly Finding[]): Finding[] {
  const worst = new Map<string, Finding>()
  for (const f of findings) {
    const other = worst.get(f.id)
    if (!other || (!beyondAny(other) && (beyondAny(f) || governingOf([other, f]) === f))) worst.set(f.id, f)
  }
  return [...worst.values()]
}

/** What is due in a step and was not answered, nor held back by what was. */
function withUnanswered({ machine, setup, lift }: Case, step: number, findings: readonly Finding[]): Finding[] {
  const spoke = new Set<CheckName>(findings.map((f) => f.check))
  const adverse = new Set<CheckName>(
    findings.filter((f) => f.verdict === 'outside' || f.verdict === 'not-proven').map((f) => f.check),
  )
  const silent = dueChecks(machine, setup, lift, step).filter((name) => {
    const { heldBackBy, impliedBy } = checkNamed(name)
    return !spoke.has(name) && !heldBackBy.some((x) => adverse.has(x)) && !impliedBy.some((x) => spoke.has(x))
  })
  return [...findings, ...silent.map(unanswered)]
}

// Every check has this reason; the compiler does not follow that through so many of them.
const unanswered = (check: CheckName): Finding =>
  found({ check, verdict: 'not-proven', reason: 'nothing-checks-this', detail: {} } as Said & { verdict: Verdict })

function summed({ machine, lift }: Case, findings: Finding[]): Assessment {
  return {
    verdict: worstVerdict(findings.map((f) => f.verdict)) ?? 'inside',
    governing: governingOf(findings),
    findings,
    notChecked: notCheckedIn(machine, lift),
    configuration: null,
    rated_kg: null,
    ratedAt: null,
    readFrom: [],
    hookLoad_kg: null,
    carries: [],
    outriggers: [],
    windLimit_mps: null,
    tip: null,
  }
}

/** The figures shown beside the findings: of all steps, and of the one that reads the table at its worst. */
function figuresOf(steps: readonly LiftContext[]): Partial<Assessment> {
  const first = nth(steps, 0)
  const { choice } = first
  const governing = (choice.by === 'table' && steps.find((s) => s.index === choice.step)) || first
  const { chosen, reading } = choice
  return {
    configuration: chosen && {
      table: chosen.table.id,
      revision: chosen.table.revision,
      id: chosen.configuration.id,
      label: chosen.configuration.label,
    },
    rated_kg: typeof reading?.gross_kg === 'number' ? reading.gross_kg : null,
    ratedAt: chosen && ratedAtEnds(chosen, governing.step, governing.stretch, first.plan.policy),
    readFrom: reading?.rows ?? [],
    hookLoad_kg: governing.hook?.total_kg ?? null,
    outriggers: usesOf(steps.map((s) => s.bearings)),
    windLimit_mps: windLimitOf(governing),
    tip: steps.some((s) => s.reached) ? null : tipOf(governing),
  }
}

/** What each outrigger carries over all steps. */
function usesOf(steps: readonly (readonly Bearing[])[]): ContactUse[] {
  if (steps.some((bearings) => bearings.length === 0)) return []
  return nth(steps, 0).map(({ point: { id } }) => {
    const own = steps.flatMap((bearings) => bearings.filter((b) => b.point.id === id))
    const most = own.reduce((a, b) => (b.reaction_N > a.reaction_N ? b : a))
    const least = own.reduce((a, b) => (b.min_N < a.min_N ? b : a))
    return {
      id,
      max_N: Math.max(...own.map((b) => b.max_N)),
      upper_N: Math.max(...own.map((b) => b.upper_N)),
      min_N: least.min_N,
      min_at_deg: least.min_at_deg,
      groundUse: most.pressed.utilisation,
      pressure_kPa: most.pressed.formation_kPa,
    }
  })
}

/** Heights of the boom's head and its angles at the two ends. */
function tipOf({ boom, deflection_m, step }: LiftContext): Assessment['tip'] {
  const at = (end: 'pickUp' | 'setDown') => {
    const { tip_height_m, angle_deg } = boom.poseAtRadius(step.boom_m, nominal(step[end].radius_m), deflection_m)
    const line = boom.lineAt(step.boom_m, angle_deg, deflection_m)
    const [foot, head] = [nth(line, 0), nth(line, line.length - 1)]
    const rise_deg = Math.atan2(head.height_m - foot.height_m, head.out_m - foot.out_m) / rad
    return { tip_height_m, angle_deg: boom.hinged ? rise_deg : angle_deg }
  }
  const [pickUp, set] = [at('pickUp'), at('setDown')]
  return {
    pick_m: pickUp.tip_height_m,
    set_m: set.tip_height_m,
    angle_pick_deg: pickUp.angle_deg,
    angle_set_deg: set.angle_deg,
  }
}
