import { lineToStanding, lineToWire, type Outline, planDistance } from '../clearance/standing'
import { leastOverSweep, type Sweep, type Swept } from '../clearance/sweep'
import { rad } from '../physics'
import { atSlew } from '../plane/point'
import type { Point3 } from '../plane/segment3'
import { high } from '../quantity/measured'
import type { LiftContext } from './context'

/** What moves round in a step, and how near its parts come to something: boom, the load on its rope, tail. */
export interface Moving {
  /** The furthest any of it gets from the slew centre, metres. */
  reach_m: number
  /** Half the load's diagonal with its swing; null: its size is not known. */
  load_m: number | null
  boomTo: (o: Outline, top_m: number) => Swept
  /** In plan, from the load's outside; its pick-up and set-down by themselves, too. */
  loadTo: (o: Outline) => Swept
  loadAtEnds: (o: Outline) => { pickUp_m: number; setDown_m: number }
  tailTo: (o: Outline) => Swept
  boomToWire: (o: Outline, height_m: number) => Swept
  loadToWire: (o: Outline, height_m: number) => Swept
}

/** A tail's corners go round this much before and behind its middle, degrees: a tail as wide as it is long. */
const tailHalf_deg = 45

/** @param ctx a step whose radii the boom gets to */
export function movingIn(ctx: LiftContext): Moving {
  const { boom, machine, step, path, deflection_m, plan } = ctx
  const { boom_m } = step
  const near = boom.poseAtRadius(boom_m, path.least_m, deflection_m)
  const far = boom.poseAtRadius(boom_m, path.greatest_m, deflection_m)
  const { from_deg, to_deg } = path.arc
  const sweep: Sweep = { slew_deg: [from_deg, to_deg], angle_deg: [far.angle_deg, near.angle_deg] }
  const flatSweep: Sweep = { ...sweep, angle_deg: [0, 0] }
  const headAt = (slew_deg: number, angle_deg: number): Point3 => {
    const { radius_m, tip_height_m } = boom.poseAtAngle(boom_m, angle_deg, deflection_m)
    const { x_m, y_m } = atSlew(radius_m, slew_deg)
    return { x: x_m, y: y_m, z: tip_height_m }
  }
  const { back_m, height_m } = machine.boom.pivot
  const footAt = (slew_deg: number): Point3 => {
    const { x_m, y_m } = atSlew(-back_m, slew_deg)
    return { x: x_m, y: y_m, z: height_m }
  }
  const half_m = machine.boom.halfWidth_m ?? 0
  // Round the slew centre the head moves furthest; about the foot as far as the boom is long, its head's offset with it.
  const reach = { slew: Math.max(path.greatest_m, back_m), angle: boom_m + machine.boom.headOffset_m }
  const { size } = plan.lift.hung.load
  const swing_m = near.tip_height_m * Math.sin(plan.policy.quietSwing_deg * rad)
  const load_m = !step.laden ? swing_m : size ? Math.hypot(size.length_m, size.width_m) / 2 + swing_m : null
  const tailRadius_m = machine.upper.tailSwingRadius_m
  const flat = ({ x, y }: Point3) => ({ x_m: x, y_m: y })
  const end = (which: 'pickUp' | 'setDown') => atSlew(high(step[which].radius_m), step[which].slew_deg)
  const overSweep = (distanceAt: (slew_deg: number, angle_deg: number) => number, by_m: number) =>
    leastOverSweep((slew, angle) => Math.max(0, distanceAt(slew, angle) - by_m), reach, sweep)
  return {
    reach_m: path.greatest_m + (load_m ?? 0),
    load_m,
    boomTo: (o, top_m) => overSweep((s, a) => lineToStanding(footAt(s), headAt(s, a), o, top_m), half_m),
    loadTo: (o) => overSweep((s, a) => planDistance(o, flat(headAt(s, a))), load_m ?? 0),
    loadAtEnds: (o) => ({
      pickUp_m: Math.max(0, planDistance(o, end('pickUp')) - (load_m ?? 0)),
      setDown_m: Math.max(0, planDistance(o, end('setDown')) - (load_m ?? 0)),
    }),
    tailTo: (o) =>
      leastOverSweep(
        (s) => planDistance(o, atSlew(tailRadius_m, s)),
        { slew: tailRadius_m, angle: 0 },
        {
          ...flatSweep,
          slew_deg: [Math.min(from_deg, to_deg) + 180 - tailHalf_deg, Math.max(from_deg, to_deg) + 180 + tailHalf_deg],
        },
      ),
    boomToWire: (o, height) => overSweep((s, a) => lineToWire(footAt(s), headAt(s, a), o, height), half_m),
    loadToWire: (o, height) =>
      overSweep((s, a) => {
        const head = headAt(s, a)
        return lineToWire({ ...head, z: 0 }, head, o, height)
      }, load_m ?? 0),
  }
}
