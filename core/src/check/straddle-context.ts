import { type Case, nearShareOf } from '../lift/case'
import type { Step } from '../lift/plan'
import { nth } from '../list'
import { isStraddle, type StraddleMachine } from '../machine/provable'
import type { StraddlePart } from '../parts/hoists/straddle'
import type { OnFrame } from '../parts/supports/frame'
import type { DriveStep, WayPart } from '../parts/truck-steps'
import { g_mps2 } from '../physics'
import { endsOf, high, low, nominal, type Tol } from '../quantity/measured'
import { Refusal } from '../refusal'
import { prepareFootprint } from '../statics/footprint'
import { type At, actsAt, firstOfTwo } from '../statics/shared-load'
import { reactionsAt } from '../statics/support-reactions'
import { windForce_N } from '../wind/air'
import { type Hanging, hangingOf } from './hanging'

/** What one hoist carries of all that hangs in its slings, as shares of it. */
export interface HoistShare {
  id: string
  label: string
  most: number
  least: number
  nominal: number
}

/** How it stands at one moment: the rise of its front and of its left side, how it is slowed, how it is blown. */
export interface Standing {
  along: number
  cross: number
  braking_mps2: number
  wind_N: number
}

/** Where all of it acts on its wheels. */
interface Resting {
  force_N: number
  x_m: number
  y_m: number
}

/** Everything that the checks of one step of a frame astride its load ask for. */
export class StraddleContext {
  readonly machine: StraddleMachine
  readonly hoists: StraddlePart
  readonly standing: OnFrame
  readonly step: Step
  readonly near_share: number
  readonly hung: Hanging | null
  /** Null where the centre of the load is not measured. */
  readonly shares: readonly HoistShare[] | null

  /** @throws Refusal `step-not-possible`, `unknown-state`, `unknown-hoist`, `slings-too-near`, `out-of-reach`, `cg-outside`, all naming the field */
  constructor(
    readonly plan: Case,
    readonly index: number,
  ) {
    const { machine, setup, lift } = plan
    if (!isStraddle(machine)) throw new Refusal('step-not-possible', `${machine.name} stands astride nothing.`, 'machine')
    const { standing } = setup
    if (standing.on !== 'frame')
      throw new Refusal('unknown-state', `${machine.name} stands on the wheels of its frame; set it up so.`, 'setup.standing.on')
    this.machine = machine
    this.hoists = machine.hoists
    this.standing = standing
    this.step = nth(lift.steps, index)
    this.near_share = nearShareOf(plan)
    refuseOtherHoists(machine, standing)
    if (this.step.do === 'drive' && this.step.route)
      throw new Refusal(
        'step-not-possible',
        'Its way is given piece by piece; leave the drawing out.',
        `lift.steps.${index}.route`,
      )
    if (this.step.do === 'hoist' && this.step.which !== 'all') refuseUnknownHoist(machine, this.step.which, index)
    this.hung = hangingOf(plan, this.step.laden)
    const { cg } = lift.hung.load
    this.shares = cg ? this.sharesOf(cg) : null
  }

  /** Two hoists share a load as statics says. */
  readonly settled = true

  get drive(): DriveStep | null {
    return this.step.do === 'drive' ? this.step : null
  }

  /** How high the keel hangs in this step at most, metres. */
  get keel_m(): number {
    const { step } = this
    if (step.do === 'hoist') return Math.max(high(step.from_m), high(step.to_m))
    return step.do === 'drive' ? step.height_m : 0
  }

  /** Rise of the front and of the left side where it stands, each at both ends; null: not read. */
  get falls(): { along: number[]; cross: number[] } | null {
    const { along_pct, cross_pct } = this.standing.fall
    if (along_pct === null || cross_pct === null) return null
    const shares = (t: Tol) => endsOf(t).map((p) => p / 100)
    return { along: shares(along_pct), cross: shares(cross_pct) }
  }

  /** Both slopes of every moment of the step: where it stands, or piece by piece of its way; as nothing where they are not read. */
  get moments(): { part: WayPart | null; i: number; all: Standing[] }[] {
    const { straddle } = this.hoists
    const wind_N = this.wind_N
    const blown = wind_N === 0 ? [0] : [wind_N, -wind_N]
    if (!this.drive) {
      const { along, cross } = this.falls ?? { along: [0], cross: [0] }
      const all = along.flatMap((a) =>
        cross.flatMap((c) => blown.map((w) => ({ along: a, cross: c, braking_mps2: 0, wind_N: w }))),
      )
      return [{ part: null, i: 0, all }]
    }
    const { facing, way } = this.drive
    const sign = facing === 'load-first' ? 1 : -1
    return way.map((part, i) => ({
      part,
      i,
      all: [0, straddle.braking_mps2].flatMap((b) =>
        this.turning(part).flatMap((turn) =>
          blown.map((w) => ({
            along: (sign * part.grade_pct) / 100,
            cross: (sign * part.cross_pct) / 100 + turn,
            braking_mps2: sign * b,
            wind_N: w,
          })),
        ),
      ),
    }))
  }

  /** What turning on a piece adds to its cross-fall, either way; nothing where it is straight, or no speed is said. */
  turning({ radius_m }: WayPart): number[] {
    const speed = this.drive?.speed_mps
    if (radius_m === undefined || speed === null || speed === undefined) return [0]
    const by = high(speed) ** 2 / (g_mps2 * radius_m)
    return [by, -by]
  }

  /** How far the line of its slings tilts in this step, front up: where one hoist moves alone, by all that it moves. */
  get #tilts(): number[] {
    const { step, hoists } = this
    if (step.do !== 'hoist' || step.which === 'all') return [0]
    const [front, rear] = [hoists.each[0]?.id, hoists.each[1]?.id]
    const at = (id: string | undefined) => nominal(this.standing.hoists.find((h) => h.id === id)?.x_m ?? 0)
    const moved = (high(step.to_m) - low(step.from_m)) / Math.max(0.1, at(front) - at(rear))
    const sign = (step.which.includes(front ?? '') ? 1 : 0) - (step.which.includes(rear ?? '') ? 1 : 0)
    return [0, sign * moved]
  }

  /** Wind on the load and on the frame, newtons, from the side. */
  get wind_N(): number {
    const { wind_mps, roofShut } = this.plan.conditions
    if (roofShut || wind_mps === null) return 0
    const { windArea_m2, dragCoefficient } = this.plan.lift.hung.load
    const { area_m2, drag } = this.hoists.straddle.sail
    const load_N = this.step.laden ? windForce_N(high(wind_mps), dragCoefficient, high(windArea_m2 ?? 0)) : 0
    return load_N + windForce_N(high(wind_mps), drag, area_m2)
  }

  /** Where it all acts on its wheels, at each corner of the load's doubt. */
  resting({ along, cross, braking_mps2, wind_N }: Standing): Resting[] {
    const { straddle } = this.hoists
    const { cg } = this.plan.lift.hung.load
    if (!this.hung || !cg) return []
    const [own, hungAt_m] = [straddle.own_kg, straddle.beams.height_m]
    const masses = this.step.laden ? [this.hung.worst_kg, this.hung.lightest_kg] : [this.hung.worst_kg]
    // What hangs pulls at what it hangs from.
    const tip_kgm = own * straddle.cgHeight_m
    const back = along - braking_mps2 / g_mps2
    return masses.flatMap((kg) =>
      endsOf(cg.x_m).flatMap((x) =>
        endsOf(cg.y_m).map((y) => {
          const total = own + kg
          const high_kgm = tip_kgm + kg * hungAt_m
          return {
            force_N: total * g_mps2,
            x_m: (kg * x - high_kgm * back) / total,
            y_m: (kg * y - high_kgm * cross + (wind_N * hungAt_m) / g_mps2) / total,
          }
        }),
      ),
    )
  }

  /** What each wheel carries at most over some moments, by its frame's book elastic or by its upper bound, newtons; null: it would not stand. */
  wheels_N(moments: readonly Standing[]): { id: string; label: string; most_N: number }[] | null {
    const { wheels, twist } = this.hoists.straddle
    const footprint = prepareFootprint(wheels.map(({ id, x_m, y_m }) => ({ id, x_m, y_m })))
    const most = wheels.map(() => 0)
    for (const r of moments.flatMap((m) => this.resting(m))) {
      const { reactions } = reactionsAt(footprint, r)
      if (!reactions) return null
      for (const [i, w] of reactions.entries()) most[i] = Math.max(nth(most, i), twist ? w.reaction_N : w.upper_N)
    }
    return wheels.map(({ id, label }, i) => ({ id, label, most_N: nth(most, i) }))
  }

  private sharesOf(cg: NonNullable<Case['lift']['hung']['load']['cg']>): HoistShare[] {
    const { each } = this.hoists
    const at = (id: string): Tol => this.standing.hoists.find((h) => h.id === id)?.x_m ?? 0
    const [first, second] = [nth(each, 0), nth(each, 1)]
    const share = (x: number, a: number, b: number) => firstOfTwo(x, a, b)
    const plain = share(nominal(cg.x_m), nominal(at(first.id)), nominal(at(second.id)))
    if (plain < 0 || plain > 1)
      throw new Refusal('cg-outside', 'The load’s centre lies outside its slings; move them.', 'lift.hung.load.cg.x_m')
    const alongs = [...new Set(this.moments.flatMap((m) => m.all.flatMap((s) => this.#tilts.map((t) => s.along + t))))]
    const all = alongs.flatMap((along) =>
      endsOf(cg.x_m).flatMap((x_m) =>
        endsOf(cg.z_m).flatMap((z_m) => {
          const acts: At = actsAt({ x_m, y_m: 0, z_m }, along, 0)
          return endsOf(at(first.id)).flatMap((a) => endsOf(at(second.id)).map((b) => share(acts.x_m, a, b)))
        }),
      ),
    )
    const [most, least] = [Math.max(plain, ...all), Math.min(plain, ...all)]
    return [
      { ...first, most, least, nominal: plain },
      { ...second, most: 1 - least, least: 1 - most, nominal: 1 - plain },
    ]
  }
}

function refuseOtherHoists({ name, hoists }: StraddleMachine, standing: OnFrame): void {
  const ids = hoists.each.map((h) => h.id)
  const odd = standing.hoists.findIndex((h, i) => !ids.includes(h.id) || standing.hoists.findIndex((x) => x.id === h.id) < i)
  if (odd >= 0) throw new Refusal('unknown-hoist', `${name} has ${ids.join(', ')}, each once.`, `setup.standing.hoists.${odd}.id`)
  if (standing.hoists.length !== ids.length)
    throw new Refusal('missing-hoist', `Say where the slings of ${ids.join(' and ')} hang.`, 'setup.standing.hoists')
  const { rear_m, front_m, leastBetween_m } = hoists.straddle.beams
  for (const [i, { x_m }] of standing.hoists.entries())
    if (low(x_m) < rear_m - 1e-9 || high(x_m) > front_m + 1e-9)
      throw new Refusal('out-of-reach', `Its slings travel from ${rear_m} to ${front_m} m.`, `setup.standing.hoists.${i}.x_m`)
  const [front, rear] = ids.map((id) => standing.hoists.find((h) => h.id === id)?.x_m ?? 0)
  if (front !== undefined && rear !== undefined && nominal(front) - nominal(rear) < leastBetween_m - 1e-9)
    throw new Refusal(
      'slings-too-near',
      `At least ${leastBetween_m} m from sling to sling, the first ahead of the second.`,
      'setup.standing.hoists',
    )
}

function refuseUnknownHoist({ name, hoists }: StraddleMachine, which: readonly string[], index: number): void {
  const at = which.findIndex((id) => hoists.each.every((h) => h.id !== id))
  if (at >= 0)
    throw new Refusal(
      'unknown-hoist',
      `${name} has no such hoist; it has: ${hoists.each.map((h) => h.id).join(', ')}.`,
      `lift.steps.${index}.which.${at}`,
    )
}
