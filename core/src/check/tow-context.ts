import { type Case, nearShareOf } from '../lift/case'
import { nth } from '../list'
import type { Crane } from '../machine/crane'
import { telescopicBoom } from '../parts/booms/telescopic'
import { counterweightNamed, upperMasses } from '../parts/superstructure'
import { supportOf } from '../parts/supports/states'
import type { SupportState } from '../parts/supports/support'
import type { Axle, WheelsPart } from '../parts/supports/wheels'
import type { TowPart, TowStep } from '../parts/tow'
import { rad } from '../physics'
import { endsOf, nominal } from '../quantity/measured'
import { Refusal } from '../refusal'

/** What tows: its masses as they stand, its axles, its arm. */
export type Tower = Crane & { tow: TowPart; wheels: WheelsPart }

/** What the arm carries and where: one corner of the doubt. */
export interface OnArm {
  lifted_kg: number
  overhang_m: number
}

/** Both axles, kilograms. */
export interface AxleLoads {
  front_kg: number
  rear_kg: number
}

/** Everything that the checks of towing ask for. */
export class TowContext {
  readonly machine: Tower
  readonly tow: TowPart
  readonly step: TowStep
  readonly near_share: number
  /** The way of standing by the set-up; null: the machine has only one. */
  readonly state: SupportState | null
  readonly front: Axle
  readonly rear: Axle
  readonly wheelbase_m: number
  /** The machine by itself with its boom stowed. */
  readonly own_kg: number
  readonly unladen: AxleLoads

  /** @throws Refusal `step-not-possible`; `out-of-reach` where its arm does not go so far, or stops short of it */
  constructor(
    readonly plan: Case,
    readonly index: number,
  ) {
    const { machine, setup, lift } = plan
    const step = nth(lift.steps, index)
    if (!tows(machine) || step.do !== 'tow') throw new Refusal('step-not-possible', `${machine.name} does not tow.`, 'machine')
    this.machine = machine
    this.tow = machine.tow
    this.step = step
    this.near_share = nearShareOf(plan)
    this.state = supportOf(machine, setup.standing).state
    const [front, rear] = (['front', 'rear'] as const).map((id) => machine.wheels.axles.find((a) => a.id === id))
    if (!front || !rear) throw new Refusal('step-not-possible', `${machine.name} has no front and rear axle.`, 'machine')
    this.front = front
    this.rear = rear
    this.wheelbase_m = front.x_m - rear.x_m
    const counterweight = counterweightNamed(machine.name, machine.upper, setup.fitted.counterweight)
    const { boom_m, angle_deg, slew_deg } = machine.tow.stowed
    const ahead = Math.cos(slew_deg * rad)
    const masses = [
      ...machine.chassis.masses,
      ...[...upperMasses(machine.upper, counterweight), ...telescopicBoom(machine.boom).massesAt(boom_m, angle_deg)].map((m) => ({
        mass_kg: m.mass_kg,
        x_m: m.radius_m * ahead,
      })),
    ]
    this.own_kg = masses.reduce((s, m) => s + m.mass_kg, 0)
    const front_kg = masses.reduce((s, m) => s + m.mass_kg * (m.x_m - rear.x_m), 0) / this.wheelbase_m
    this.unladen = { front_kg, rear_kg: this.own_kg - front_kg }
    const { from_m } = machine.tow.arm
    const to_m = this.furthest_m
    const out_m = nominal(step.overhang_m)
    if (out_m < from_m - 1e-9 || out_m > to_m + 1e-9)
      throw new Refusal(
        'out-of-reach',
        `Its arm lifts ${from_m} to ${to_m} m behind the rear axle; measure again.`,
        `lift.steps.${index}.overhang_m`,
      )
  }

  get furthest_m(): number {
    return Math.max(...this.tow.arm.ratings.map((r) => r.to_m))
  }

  /** Every corner of the doubt; none while what is lifted is not known. */
  get onArm(): readonly OnArm[] {
    const { lifted_kg, overhang_m, laden } = this.step
    if (!laden) return [{ lifted_kg: 0, overhang_m: nominal(overhang_m) }]
    if (lifted_kg === null) return []
    return endsOf(lifted_kg).flatMap((kg) => endsOf(overhang_m).map((m) => ({ lifted_kg: Math.max(0, kg), overhang_m: m })))
  }

  /**
   * Both axles from moments: F = F0 − P·o/w, R = M + P − F; uphill the front carries z·(M + P)·sin p/w less, downhill more.
   *
   * @param grade_pct rising in the direction of travel: positive
   */
  axles({ lifted_kg, overhang_m }: OnArm, grade_pct: number): AxleLoads {
    const total_kg = this.own_kg + lifted_kg
    const shift_kg = (this.tow.cgHeight_m * total_kg * Math.sin(Math.atan(grade_pct / 100))) / this.wheelbase_m
    const front_kg = this.unladen.front_kg - (lifted_kg * overhang_m) / this.wheelbase_m - shift_kg
    return { front_kg, rear_kg: total_kg - front_kg }
  }

  /** What its arm may lift where it is drawn out to; beyond its last mark by the doubt: as at the last. */
  rated_kg(overhang_m: number): number {
    const { ratings } = this.tow.arm
    const own = ratings.filter((r) => overhang_m <= r.to_m + 1e-9)
    return own.length > 0 ? Math.max(...own.map((r) => r.rating_kg)) : Math.min(...ratings.map((r) => r.rating_kg))
  }
}

/** It has an arm behind, and wheels of which more is known than that they turn. */
export const tows = (m: Case['machine']): m is Tower =>
  m.tow !== undefined && m.wheels !== undefined && Boolean(m.boom && m.upper && m.chassis)
