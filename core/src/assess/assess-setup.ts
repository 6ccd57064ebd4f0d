import { axleCheck } from '../check/axle'
import { backwardCheck } from '../check/backward'
import { LiftContext } from '../check/context'
import { edgeCheck } from '../check/edge'
import { evidenceCheck } from '../check/evidence'
import { floorCheck } from '../check/floor'
import { groundCheck } from '../check/ground'
import { levelCheck } from '../check/level'
import { outriggerCheck } from '../check/outrigger'
import { structureCheck } from '../check/structure'
import { tableCheck } from '../check/table'
import { wheelCheck } from '../check/wheel'
import { type Finding, type Verdict, worstVerdict } from '../finding/finding'
import type { Case } from '../lift/case'
import type { OnHook } from '../lift/hook-load'
import type { LiftPlan } from '../lift/plan'
import { liftsOnHook } from '../machine/crane'
import { supportOf } from '../parts/supports/states'
import { normalDegrees } from '../physics'
import { Refusal } from '../refusal'
import { prepareFootprint } from '../statics/footprint'
import { type Arc, type ContactEnvelope, contactsOver } from '../statics/reaction-envelope'

/** What a set-up is tried with before a lift is planned: a boom, a radius, and everything on the hook. */
export interface Trial {
  boom_m: number
  radius_m: number
  /** Null: the hook is empty. */
  load_kg: number | null
  /** Through which slews; omitted: once round, or as far as its way of standing lets it turn. */
  arc?: Arc | undefined
}

/** How a machine stands, before any lift. */
export interface SetupAssessment {
  verdict: Verdict
  findings: Finding[]
  /** How far out of level the table that covers this set-up allows; null: none covers it. */
  levelLimit_deg: number | null
  /** What the outriggers carry with the hook empty, and with the trial load. */
  empty: readonly ContactEnvelope[]
  laden: readonly ContactEnvelope[] | null
  /** The outrigger that lightens first as the boom goes round, and where. */
  lightens: { id: string; min_N: number; at_deg: number } | null
}

/** Checks that a set-up is judged by before there is a lift: the same ones that prove the lift later. */
const setupChecks = [
  tableCheck,
  levelCheck,
  outriggerCheck,
  structureCheck,
  groundCheck,
  axleCheck,
  wheelCheck,
  floorCheck,
  edgeCheck,
  backwardCheck,
  evidenceCheck,
]

/** How finely what is shown of the empty machine is looked at. */
const [setupStep_deg, setupRefine_deg] = [2, 0.05]

/**
 * Judges how a machine stands by the checks of a lift, with a trial load once round: one outrigger reads the same here as in the proof of
 * that load at that radius.
 *
 * @throws Refusal when the set-up does not fit the machine, `out-of-reach`
 * @example assessSetup({ machine, tables, setup, place, policy }, { boom_m: 19.4, radius_m: 9, load_kg: 3000 }).lightens?.id
 */
export function assessSetup(plan: Omit<Case, 'lift' | 'conditions'>, trial: Trial): SetupAssessment {
  const { machine } = plan
  if (!liftsOnHook(machine)) throw new Refusal('no-crane', `${machine.name} has no boom, legs and hoist.`, 'machine')
  const { radius_m, load_kg } = trial
  const { state } = supportOf(machine, plan.setup.standing)
  const arc = trial.arc ?? state?.slew ?? { from_deg: 0, to_deg: 360 }
  const ctx = new LiftContext(
    { ...plan, lift: trialLift(trial), conditions: { wind_mps: null } },
    { points: 180, path: { arc, least_m: radius_m, greatest_m: radius_m, radii_m: [radius_m] }, hook: trialHook(load_kg ?? 0) },
  )
  const [position] = ctx.stands
  if (!position)
    throw new Refusal('out-of-reach', 'The boom does not get to this radius; change the boom or the radius.', 'radius_m')
  const findings = setupChecks.filter((check) => state?.for !== 'tow' || check.tow).flatMap((check) => check.run(ctx))
  const laden = load_kg === null ? null : position.laden
  const { fixed, slewing } = position.posed
  const empty = contactsOver(prepareFootprint(ctx.contacts), fixed, slewing, arc, setupStep_deg, setupRefine_deg)
  // What a prop carries does not change as the boom goes round.
  const legs = (laden ?? empty).filter((c) => !state?.props?.legs.some((l) => l.id === c.id))
  const [lightest] = [...legs].sort((a, b) => a.min_N - b.min_N)
  return {
    verdict: worstVerdict(findings.map((f) => f.verdict)) ?? 'inside',
    findings,
    levelLimit_deg: ctx.choice.chosen?.table.level_deg ?? null,
    empty,
    laden,
    lightens: lightest ? { id: lightest.id, min_N: lightest.min_N, at_deg: normalDegrees(lightest.min_at_deg) } : null,
  }
}

const trialHook = (kg: number): OnHook => ({
  load_kg: kg,
  loadNominal_kg: kg,
  loadLightest_kg: kg,
  deductions: [],
  total_kg: kg,
  totalNominal_kg: kg,
})

/** A lift that says no more than the trial does. */
function trialLift({ boom_m, radius_m, load_kg }: Trial): LiftPlan {
  const point = { radius_m, slew_deg: 0 }
  return {
    format: 'geolabe.lift/2',
    hung: {
      load: { name: '', mass_kg: load_kg || null, massSource: null, windArea_m2: null, dragCoefficient: 1 },
      rigging: [],
    },
    steps: [
      {
        do: 'slew',
        laden: true,
        boom_m,
        pickUp: point,
        setDown: point,
        slewDirection: 'anticlockwise',
        radiusBasis: 'measured-under-load',
      },
    ],
  }
}
