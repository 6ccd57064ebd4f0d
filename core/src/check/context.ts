import { type Case, nearShareOf } from '../lift/case'
import { type OnHook, onHook } from '../lift/hook-load'
import { type Motion, motionsOf } from '../lift/motion'
import { type Path, passing } from '../lift/path'
import type { Standing, Step } from '../lift/plan'
import { nth } from '../list'
import { type Crane, liftsOnHook, withTool } from '../machine/crane'
import type { BoomModel } from '../parts/booms/boom'
import type { Block, HoistModel } from '../parts/hoists/hoist'
import { ropeHoist } from '../parts/hoists/rope'
import { polygonStability } from '../parts/stability/polygon'
import type { SlewStep } from '../parts/stability/slew'
import type { PeakBetween, StabilityModel, StandingAt, StandingQuestion } from '../parts/stability/stability'
import { counterweightNamed, standing } from '../parts/superstructure'
import type { OutriggerSetting } from '../parts/supports/outriggers'
import { supportOf } from '../parts/supports/states'
import type { SupportModel } from '../parts/supports/support'
import { high } from '../quantity/measured'
import { Refusal } from '../refusal'
import { type Footprint, prepareFootprint, type Support } from '../statics/footprint'
import { allRules, type StabilityRule } from '../statics/tipping-load'
import { windForce_N } from '../wind/air'
import { type Bearing, bearingsOf } from './bearing'
import { type Choice, type ChosenTable, chooseTable, type Stretch } from './choose-table'
import { reachedAt, type Unreached } from './reached'
import { tiltOf } from './tilt'

/** It depends on the machine and on how it stands, not on the lift: made ready once for each. */
const known = new WeakMap<Crane, WeakMap<Standing, { support: SupportModel; footprint: Footprint }>>()

function standsOn(machine: Crane, standing: Standing): { support: SupportModel; footprint: Footprint } {
  const own = known.get(machine) ?? new WeakMap<Standing, { support: SupportModel; footprint: Footprint }>()
  known.set(machine, own)
  const before = own.get(standing)
  if (before) return before
  const support = supportOf(machine, standing)
  const stands = { support, footprint: prepareFootprint(support.contacts) }
  own.set(standing, stands)
  return stands
}

/** Everything that the checks of one step of a lift ask for, each worked out once, when it is first asked for. */
export class LiftContext {
  readonly machine: Crane
  readonly support: SupportModel
  readonly boom: BoomModel
  readonly hoist: HoistModel
  readonly block: Block
  /** Parts of line. */
  readonly partsOfLine: number
  /** Which step of the lift this is, counted from nought; and of its pieces the one that is looked at, as a slew. */
  readonly index: number
  readonly motion: Motion
  readonly step: SlewStep
  /** What lies under each bearing point. */
  readonly settings: readonly OutriggerSetting[]
  readonly path: Path
  readonly deflection_m: number
  /** What hangs on the hook; null while the load's mass is unknown. */
  readonly hook: OnHook | null
  /** From this share of a limit on a finding says near. */
  readonly near_share: number
  /** What turns behind with the load on; and with the hook empty, when what is suspended stands on the ground again. */
  readonly counterweight: { mass_kg: number; radius_m: number }
  readonly unladenCounterweight: { mass_kg: number; radius_m: number }
  /** What is suspended hangs clear of the ground wherever the load is; null: nothing is suspended. */
  readonly ballastHangs: boolean | null
  readonly #footprint
  readonly #table_kg: number
  #reached: { is: Unreached | null } | undefined
  #choice: Choice | undefined
  #stands: readonly StandingAt[] | undefined
  #bearings: readonly Bearing[] | undefined
  readonly #points: number | undefined

  /**
   * @param given `step` which one, omitted: the first; `points` the arc is looked at in before its extremes are refined, omitted: one
   * every 5°; `path`, `hook` and `choice` of the table in place of the lift's own, for a trial
   * @throws Refusal when the plan does not fit the machine: unknown outrigger, reeving, counterweight, a step it cannot make
   */
  constructor(
    readonly plan: Case,
    given: { step?: number; motion?: Motion; points?: number | undefined; path?: Path; hook?: OnHook; choice?: Choice } = {},
  ) {
    const { setup, lift } = plan
    if (!liftsOnHook(plan.machine)) {
      throw new Refusal(
        'no-crane',
        `${plan.machine.name} has no boom that turns with a hook on it; this assessment is not for it.`,
        'machine',
      )
    }
    const machine = withTool(plan.machine, setup.fitted.attachment)
    this.machine = machine
    this.index = given.step ?? 0
    this.motion = given.motion ?? nth(motionsOf(machine, nth(lift.steps, this.index), `lift.steps.${this.index}`), 0)
    this.step = this.motion.step
    const { support, footprint } = standsOn(machine, setup.standing)
    this.support = support
    this.settings = support.settings
    this.#footprint = footprint
    this.boom = this.motion.boom
    this.hoist = ropeHoist(machine.name, machine.hoist)
    this.#points = given.points
    this.path = given.path ?? this.motion.path
    this.deflection_m = this.motion.deflection_m
    const fitted = counterweightNamed(machine.name, machine.upper, setup.fitted.counterweight)
    this.unladenCounterweight = standing(fitted)
    this.partsOfLine = this.hoist.reevedIn(setup.fitted.partsOfLine)
    this.block = this.hoist.blockOf(this.partsOfLine)
    this.hook = given.hook ?? onHook(this.block, lift.hung, this.step.laden)
    this.#choice = given.choice
    this.ballastHangs = fitted.suspended && this.step.laden ? this.#hangs(fitted.suspended) : null
    this.counterweight = this.ballastHangs === false || !this.step.laden ? this.unladenCounterweight : fitted
    // With its ballast on the ground no table stands for it.
    this.#table_kg = this.ballastHangs === false ? Number.NaN : fitted.mass_kg
    this.near_share = nearShareOf(plan)
  }

  /** Boom and lightest load turn about the boom's foot at least as hard as what is suspended, at every radius of the way. */
  #hangs({ mass_kg, radius_m }: { mass_kg: number; radius_m: number }): boolean {
    if (!this.hook || this.reached) return false
    const { back_m } = this.machine.boom.pivot
    const held = mass_kg * (-radius_m - back_m)
    const lightest_kg = this.hook.total_kg - this.hook.load_kg + this.hook.loadLightest_kg
    const { boom_m } = this.step
    return this.path.radii_m.every((r) => {
      const { angle_deg } = this.boom.poseAtRadius(boom_m, r, this.deflection_m)
      const boom_kgm = this.boom.massesAt(boom_m, angle_deg).reduce((s, m) => s + m.mass_kg * (m.radius_m + back_m), 0)
      return boom_kgm + lightest_kg * (r + back_m) >= held
    })
  }

  /** The same step and table looked at in one slew of its way only: never worse than over the whole. Null where it does not pass there. */
  onlyAt(slew_deg: number): LiftContext | null {
    const { plan, index, motion, hook, choice, path } = this
    const at_deg = passing(path.arc, slew_deg)
    if (at_deg === null) return null
    const at = { ...path, arc: { from_deg: at_deg, to_deg: at_deg } }
    return new LiftContext(plan, { step: index, motion, path: at, choice, ...(hook && { hook }) })
  }

  /** Where the machine bears on the ground. */
  get contacts(): readonly Support[] {
    return this.#footprint.supports
  }

  /** The table that covers this set-up and path, or why none does. */
  get choice(): Choice {
    this.#choice ??= chooseTable(this.plan, this.#stretches, this.#table_kg, this.support, this.hook)
    return this.#choice
  }

  /** The ways that the table has to cover: of every step with the load on; where none has it, of this one. */
  get #stretches(): readonly Stretch[] {
    const { machine, plan, motion } = this
    const laden = plan.lift.steps.flatMap((s, step) =>
      s.laden ? motionsOf(machine, s, `lift.steps.${step}`).map((m) => (m === motion ? this.stretch : { ...m, step })) : [],
    )
    return laden.length > 0 ? laden : [this.stretch]
  }

  /** This step's way, with the boom it is done with. */
  get stretch(): Stretch {
    const { index, path, boom, deflection_m } = this
    return { step: index, path, boom, boom_m: this.motion.boom_m, deflection_m }
  }

  /** The first radius of the path that the boom does not get to, and why; null: it gets to all. */
  get reached(): Unreached | null {
    this.#reached ??= { is: reachedAt(this.boom, this.step.boom_m, this.deflection_m, this.path.radii_m) }
    return this.#reached.is
  }

  /** Force of the wind on the load where table, sail, mass and wind are known, newtons; else none. */
  get wind_N(): number {
    const { lift, conditions } = this.plan
    const { windArea_m2: sail, dragCoefficient } = lift.hung.load
    if (!this.step.laden || sail === null || conditions.wind_mps === null || !this.choice.chosen?.table.wind || !this.hook)
      return 0
    return windForce_N(high(conditions.wind_mps), dragCoefficient, high(sail))
  }

  /** Bearing loads and tipping at each radius of the path; none while the mass is unknown or the boom does not get there. */
  get stands(): readonly StandingAt[] {
    const { hook } = this
    this.#stands ??=
      hook === null || this.reached !== null
        ? []
        : this.#radii(hook).map((radius_m) => this.#stability.standingAt(this.#question(hook, radius_m)))
    return this.#stands
  }

  /** Those of the path, and where a folding boom's own weight turns between them. */
  #radii(hook: OnHook): readonly number[] {
    const { radii_m, least_m, greatest_m } = this.path
    if (radii_m.length < 2) return radii_m
    const turns = this.#stability.turnsBetween(this.#question(hook, greatest_m), least_m)
    return [...radii_m, ...turns].sort((a, b) => a - b)
  }

  /** What each outrigger carries over the whole path. */
  get bearings(): readonly Bearing[] {
    this.#bearings ??= bearingsOf(this.support.points, this.settings, this.plan.policy, this.stands, this.#peaks)
    return this.#bearings
  }

  /** Where outriggers carry more, by the upper bound, between the least and the greatest radius than at either. */
  get #peaks(): readonly PeakBetween[] {
    const { hook, plan } = this
    if (hook === null || this.stands.length < 2 || plan.policy.legLoads !== 'upper') return []
    const loads = this.stands.flatMap(({ laden, empty }) => [...laden, ...empty])
    const most_N = new Map(loads.map(({ id }) => [id, Math.max(...loads.filter((x) => x.id === id).map((x) => x.upper_N))]))
    const radii_m = this.stands.map((s) => s.radius_m)
    return radii_m.slice(1).flatMap((radius_m, i) => {
      const nearer_m = nth(radii_m, i)
      const known = (id: string) => most_N.get(id) ?? 0
      return radius_m > nearer_m ? this.#stability.peaksBetween(this.#question(hook, radius_m), nearer_m, known) : []
    })
  }

  get #stability(): StabilityModel {
    return polygonStability(this.machine, this.counterweight, this.#footprint, this.boom, this.support.state?.props)
  }

  #question(hook: OnHook, radius_m: number): StandingQuestion {
    const { setup, policy } = this.plan
    return {
      boom_m: this.step.boom_m,
      deflection_m: this.deflection_m,
      radius_m,
      arc: this.path.arc,
      load: {
        total_kg: hook.total_kg,
        dynamicFactor: policy.dynamicFactor,
        outward: { tilt_deg: tiltOf(setup)?.worst_deg ?? 0, wind_N: this.wind_N },
        onBoom: hook.deductions.filter((d) => d.on === 'boom'),
      },
      rules: rulesFor(this.choice.chosen),
      loads: policy.legLoads,
      points: this.#points,
    }
  }
}

/** One context for each step of a lift. @throws Refusal as the constructor */
export const contextsOf = (plan: Case, points?: number): LiftContext[] =>
  plan.lift.steps.flatMap((step, i) =>
    piecesOf(plan, step, i).map((motion) => new LiftContext(plan, { step: i, points, ...(motion && { motion }) })),
  )

const piecesOf = ({ machine, setup }: Case, step: Step, i: number): readonly (Motion | undefined)[] =>
  liftsOnHook(machine) ? motionsOf(withTool(machine, setup.fitted.attachment), step, `lift.steps.${i}`) : [undefined]

/** The rule of the table; 85 % only for outriggers fully out. Without a table, or where it is silent, the least of the three. */
export function rulesFor(chosen: ChosenTable | null): readonly StabilityRule[] {
  if (!chosen) return allRules
  const { stabilityRule } = chosen.table
  if (stabilityRule === undefined) return allRules
  return stabilityRule === '85%' && !chosen.configuration.appliesTo.standing.fullyExtended ? ['75%'] : [stabilityRule]
}
