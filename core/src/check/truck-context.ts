import { type Case, nearShareOf } from '../lift/case'
import type { Step } from '../lift/plan'
import { nth } from '../list'
import { isTruck, type TruckMachine } from '../machine/provable'
import { alongReach, pointAt, poseFor } from '../parts/booms/reach'
import type { DriveStep } from '../parts/truck-steps'
import { endsOf, high, low, nominal } from '../quantity/measured'
import { goBy } from '../rating/axes'
import { columnFigures, rowFigures } from '../rating/table'
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
  /** It stands on its feet ahead, not on its front wheels. */
  readonly feetDown: boolean
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
    this.feetDown = machine.truck.stabilisers !== undefined && setup.standing.state === 'stabilisers'
    this.truck = this.feetDown ? onFeet(machine.truck) : machine.truck
    this.fitted = fittedOf(machine.truck, plan)
    this.tool = setup.fitted.attachment ?? forks
    this.step = nth(lift.steps, index)
    this.near_share = nearShareOf(plan)
    refuseOffForks(lift)
    refuseOtherState(machine, setup)
    this.poses = this.#posesOf(plan)
    const most_m = machine.truck.chassis.greatestHeight_m
    for (const [i, p] of this.poses.entries())
      if (p.reach_m === undefined && p.height_m > most_m + 1e-9)
        throw new Refusal(
          'out-of-reach',
          `The mast goes to ${most_m} m; stack lower.`,
          `lift.steps.${index}.waypoints.${i}.height_m`,
        )
  }

  #posesOf({ tables }: Case): readonly MastPose[] {
    const { step, truck, machine } = this
    if (step.do === 'mast') return step.waypoints
    const { reach, faceToAxle_m } = truck
    if (step.do === 'drive') {
      // Driven with the boom drawn in, its tool as low as is said.
      if (!reach) return [travelling(step)]
      // Level with its pin it reaches furthest at that length: no less is reckoned with.
      const drawnIn = pointAt(reach, faceToAxle_m, { boom_m: reach.lengths.least_m, angle_deg: 0 })
      return [{ ...travelling(step), reach_m: drawnIn.reach_m }]
    }
    if (step.do !== 'reach' || !reach) return []
    const poses = step.waypoints.map((w, i) => poseFor(reach, faceToAxle_m, w, `lift.steps.${this.index}.waypoints.${i}`))
    const grids = tables.filter((t) => t.machine === machine.id && goBy(t.axes, 'height_m', 'reach_m'))
    const [rows, columns] = [rowFigures(grids, 'height_m'), columnFigures(grids)]
    // Reach is read to the load's own centre, which may stand further out than the one it is counted to.
    const beyond = this.#beyond_m
    return alongReach(
      reach,
      faceToAxle_m,
      poses,
      rows,
      columns.flatMap((c) => beyond.map((b) => c - b)),
    ).map(({ t, height_m, reach_m }) => ({
      height_m: Math.max(0, height_m),
      tilt_deg: 0,
      sideShift_m: 0,
      reach_m,
      t,
    }))
  }

  /** How much further out than the load centre that reach is counted to the load's own centre stands, at both ends. */
  get #beyond_m(): number[] {
    const { cg } = this.plan.lift.hung.load
    const counted = this.truck.reach?.loadCentre_m ?? 0
    return cg ? endsOf(cg.x_m).map((x) => x - counted) : [0]
  }

  /** How far out a load's centre is in a pose: from the face, or by the boom's reach. */
  outTo_m(load: OnForks, { reach_m }: MastPose): number {
    return reach_m === undefined ? load.x_m : reach_m + load.x_m - (this.truck.reach?.loadCentre_m ?? 0)
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
    if (pose.reach_m === undefined) return balanceOf(this.truck, this.fitted, load, pose, reach_m)
    // Reach is counted from the front of the tyres, whatever the tool.
    const fitted = { ...this.fitted, tool: this.fitted.tool && { ...this.fitted.tool, ahead_m: 0 } }
    return balanceOf(this.truck, fitted, load && { ...load, x_m: this.outTo_m(load, pose) }, pose, pose.reach_m)
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

/** On its feet: the edge they make, and half of what is between them. */
const onFeet = (t: Truck): Truck => ({
  ...t,
  edgeAhead_m: t.stabilisers?.ahead_m ?? 0,
  chassis: { ...t.chassis, frontHalfTrack_m: t.stabilisers?.half_m ?? t.chassis.frontHalfTrack_m },
})

/** @throws Refusal `unknown-state` where it has feet and nobody said whether they are down, or has none */
function refuseOtherState({ name, truck }: TruckMachine, { standing }: Case['setup']): void {
  const states = truck.stabilisers ? ['wheels', 'stabilisers'] : []
  if (standing.state === undefined ? states.length === 0 : states.includes(standing.state)) return
  const words =
    states.length > 0
      ? `Say how ${name} stands: ${states.join(', ')}.`
      : `${name} has only one way of standing; leave the state out.`
  throw new Refusal('unknown-state', words, 'setup.standing.state')
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
