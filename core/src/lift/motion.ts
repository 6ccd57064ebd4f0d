import type { Crane } from '../machine/crane'
import { foldingStretches } from '../parts/booms/articulated'
import type { BoomAt } from '../parts/booms/boom'
import { foldingOf, straightBoom } from '../parts/booms/boom-model'
import type { ArticulatedPose } from '../parts/booms/pose'
import type { PoseStep } from '../parts/stability/pose'
import type { SlewStep } from '../parts/stability/slew'
import { Refusal } from '../refusal'
import { deflectionOf } from './hook-load'
import { type Path, pathOf } from './path'
import type { Step } from './plan'

/** A piece of a step along which the head only goes out, or only comes in: what the checks look at. */
export interface Motion extends BoomAt {
  path: Path
  /** The piece as a slew from one point to another. */
  step: SlewStep
  /** How far along its step a radius is, and in which pose; null: the step says no poses. */
  posed: { t_at: (radius_m: number) => number; poseAt: (radius_m: number) => ArticulatedPose } | null
}

const known = new WeakMap<Crane, WeakMap<Step, readonly Motion[]>>()

/**
 * The pieces of a step, in the order in which they are done: one of a slew; of a folding boom as many as its head turns back.
 *
 * @param path where the step stands in the plan, for what is refused
 * @throws Refusal `joint-outside`, `unknown-section`, `step-not-possible`
 */
export function motionsOf(machine: Crane, step: Step, path: string): readonly Motion[] {
  const own = known.get(machine) ?? new WeakMap<Step, readonly Motion[]>()
  known.set(machine, own)
  const motions = own.get(step) ?? movesOf(machine, step, path)
  own.set(step, motions)
  return motions
}

function movesOf(machine: Crane, step: Step, path: string): Motion[] {
  if (step.do === 'slew') return [slewMotion(machine, step)]
  if (step.do === 'pose') return poseMotions(machine, step, path)
  throw new Refusal('step-not-possible', `${machine.name} makes no such step; take it out.`, `${path}.do`)
}

function slewMotion(machine: Crane, step: SlewStep): Motion {
  const { boom_m } = step
  return { boom: straightBoom(machine.boom), boom_m, deflection_m: deflectionOf(step), path: pathOf(step), step, posed: null }
}

/**
 * Both ends of a piece and radii between: a folding boom's masses move otherwise than its head, so that tipping and loads on the supports need
 * not be worst at an end.
 */
const spread = (near_m: number, far_m: number): number[] =>
  Array.from({ length: between + 2 }, (_, i) => near_m + ((far_m - near_m) * i) / (between + 1))
const between = 4

function poseMotions(machine: Crane, step: PoseStep, path: string): Motion[] {
  const folding = foldingOf(machine.boom)
  if (!folding) throw new Refusal('step-not-possible', `${machine.name} has no folding boom; take this step out.`, `${path}.do`)
  const deflection_m = deflectionOf(step)
  const stretches = foldingStretches(folding, step, path)
  return stretches.map(({ boom, boom_m, ends, poseAt, t_at }, i) => {
    const [from, to] = ends
    const [near_m, far_m] = [
      Math.min(from.radius_m, to.radius_m) + deflection_m,
      Math.max(from.radius_m, to.radius_m) + deflection_m,
    ]
    const { heights } = step
    return {
      boom,
      boom_m,
      deflection_m,
      path: {
        arc: { from_deg: from.pose.slew_deg, to_deg: to.pose.slew_deg },
        least_m: near_m,
        greatest_m: far_m,
        radii_m: far_m - near_m > 1e-9 ? spread(near_m, far_m) : [far_m],
      },
      step: {
        do: 'slew',
        laden: step.laden,
        boom_m,
        pickUp: { radius_m: from.radius_m + deflection_m, slew_deg: from.pose.slew_deg },
        setDown: { radius_m: to.radius_m + deflection_m, slew_deg: to.pose.slew_deg },
        // On the way it hangs over what it is carried over; it is picked up and set down only at the ends.
        ...(heights && {
          heights: {
            over_m: heights.over_m,
            pickUp_m: i === 0 ? heights.pickUp_m : heights.over_m,
            setDown_m: i === stretches.length - 1 ? heights.setDown_m : heights.over_m,
          },
        }),
        slewDirection: to.pose.slew_deg < from.pose.slew_deg ? 'clockwise' : 'anticlockwise',
        radiusBasis: step.radiusBasis,
      },
      posed: { t_at: (r) => t_at(r - deflection_m), poseAt: (r) => poseAt(r - deflection_m) },
    }
  })
}
