import { type Case, nearShareOf } from '../lift/case'
import type { Step } from '../lift/plan'
import { nth } from '../list'
import { isTruck, type TruckMachine } from '../machine/provable'
import type { DriveStep } from '../parts/truck-steps'
import { endsOf, high, low, nominal } from '../quantity/measured'
import { Refusal } from '../refusal'
import { type Balance, balanceOf, type FittedMasses, type MastPose, type OnForks, type Truck } from '../truck/balance'

/** What a truck's tool is called in its tables where nothing is fitted. */
const forks = 'forks'

/** What is fitted to a truck by its set-up. @throws Refusal `unknown-tool` naming those there are */
export function fittedOf(truck: Truck, { setup, lift }: Pick<Case, 'setup'> & { lift?: Case['lift'] | null }): FittedMasses {
  const { attachment, slabs, extension_m } = setup.fitted
  const tool = truck.attachments?.find((a) => a.id === attachment)
  if (attachment !== undefined && attachment !== forks && !tool) {
    const known = [forks, ...(truck.attachments ?? []).map((a) => a.id)].join(', ')
    throw new Refusal('unknown-tool', `It has no such tool; it has: ${known}.`, 'setup.fitted.attachment')
  }
  const out =
    truck.slab && slabs
      ? { mass_kg: slabs * truck.slab.mass_kg, behindFront_m: truck.slab.behindFront_m + (extension_m ?? 0) }
      : null
  const persons_kg = (lift?.hung.persons ?? []).reduce((sum, p) => sum + high(p.mass_kg), 0)
  return { tool: tool ?? null, slabs: out, persons_kg }
}

/** Everything that the checks of one step of a truck ask for. */
export class TruckContext {
  readonly machine: TruckMachine
  readonly truck: Truck
  readonly fitted: FittedMasses
  /** By which name its tables know the tool. */
  readonly tool: string
  readonly step: Step
  readonly near_share: number
  /** Every pose of the step. */
  readonly poses: readonly MastPose[]

  /** @throws Refusal `unknown-tool`, `out-of-reach`, `step-not-possible` */
  constructor(
    readonly plan: Case,
    readonly index: number,
  ) {
    const { machine, setup, lift } = plan
    if (!isTruck(machine)) throw new Refusal('step-not-possible', `${machine.name} is no truck.`, 'machine')
    if (setup.standing.on !== 'wheels')
      throw new Refusal('unknown-state', `${machine.name} stands on its wheels; set it up so.`, 'setup.standing.on')
    this.machine = machine
    this.truck = machine.truck
    this.fitted = fittedOf(machine.truck, plan)
    this.tool = setup.fitted.attachment ?? forks
    this.step = nth(lift.steps, index)
    this.near_share = nearShareOf(plan)
    refuseOffForks(lift)
    this.poses = this.step.do === 'mast' ? this.step.waypoints : this.step.do === 'drive' ? [travelling(this.step)] : []
    const most_m = machine.truck.chassis.greatestHeight_m
    for (const [i, p] of this.poses.entries())
      if (p.height_m > most_m + 1e-9)
        throw new Refusal(
          'out-of-reach',
          `The mast goes to ${most_m} m; stack lower.`,
          `lift.steps.${index}.waypoints.${i}.height_m`,
        )
  }

  get drive(): DriveStep | null {
    return this.step.do === 'drive' ? this.step : null
  }

  /** What is on the forks at each corner of its doubt; one that is null: empty. None while its mass or its centre is not known. */
  get loads(): readonly (OnForks | null)[] {
    if (!this.step.laden) return [null]
    const { mass_kg, massSource, lightest_kg, cg } = this.plan.lift.hung.load
    if (mass_kg === null || massSource === null || !cg) return []
    const masses = [...new Set([high(mass_kg), lightest_kg === undefined ? low(mass_kg) : low(lightest_kg)])]
    return masses.flatMap((kg) =>
      endsOf(cg.x_m).flatMap((x_m) =>
        endsOf(cg.y_m).flatMap((y_m) => endsOf(cg.z_m).map((z_m) => ({ mass_kg: Math.max(0, kg), x_m, y_m, z_m }))),
      ),
    )
  }

  /** The same with the forks empty: before the load is taken, or after it is let go. */
  get loadsAndEmpty(): readonly (OnForks | null)[] {
    return this.loads.length === 0 ? [] : [...this.loads, null]
  }

  /** @param reach_m how far an arm is drawn out with nothing on it; omitted: to the load's centre */
  balance(load: OnForks | null, pose: MastPose, reach_m?: number): Balance {
    return balanceOf(this.truck, this.fitted, load, pose, reach_m)
  }

  /** Heaviest with whoever rides up, and as it is said; null: not known. */
  get mass_kg(): { worst: number; nominal: number } | null {
    const { mass_kg, massSource } = this.plan.lift.hung.load
    if (!this.step.laden) return { worst: 0, nominal: 0 }
    const persons_kg = this.fitted.persons_kg ?? 0
    return mass_kg === null || massSource === null
      ? null
      : { worst: high(mass_kg) + persons_kg, nominal: nominal(mass_kg) + persons_kg }
  }
}

/** On forks a centre lies ahead of their face, and above them. @throws Refusal `negative` */
function refuseOffForks({ hung: { load } }: Case['lift']): void {
  const { cg } = load
  if (cg && low(cg.x_m) <= 0)
    throw new Refusal(
      'negative',
      'Its centre lies ahead of the face of the forks: more than zero, with its ± too.',
      'lift.hung.load.cg.x_m',
    )
  if (cg && low(cg.z_m) < 0)
    throw new Refusal('negative', 'Its centre lies above the forks: not below zero, with its ± too.', 'lift.hung.load.cg.z_m')
}

/** As it travels: mast back, carriage in the middle. */
const travelling = ({ height_m }: DriveStep): MastPose => ({ height_m, tilt_deg: 0, sideShift_m: 0 })
