import type { MotionName } from '../parts/drives'
import { rad } from '../physics'
import { greatestCatch_m, type TipSpeed } from '../swing/reference'
import type { Rig } from './rig'

/** Outward along the boom, or across it to the left. */
export type Plane = 'along' | 'across'

/** The plane that a motion moves the tip in; hoisting moves it in none. */
export const planeOf: Readonly<Record<MotionName, Plane | null>> = {
  slew: 'across',
  luff: 'along',
  outer: 'along',
  extend: 'along',
  trolley: 'along',
  hoist: null,
}

/** Metres of tip in its plane for one of the motion's own unit, at a radius. */
export function tipPerUnit(rig: Rig, motion: MotionName, radius_m: number): number {
  if (motion === 'slew') return radius_m * rad
  if (motion !== 'luff') return 1
  const at = (r: number) => rig.reach.at(r)
  // Raising the boom brings the tip in.
  return 0.02 / (at(radius_m + 0.01) - at(radius_m - 0.01))
}

/** How the tip moves in a plane at full lever, by the motion that catches there: its speed, and the widest swing one move takes. */
export function catchSpeed(rig: Rig, plane: Plane, radius_m: number) {
  const motion = plane === 'across' ? 'slew' : rig.reach.motion
  const axis = rig.axes.findIndex((a) => a.motion === motion)
  const limits = rig.axes[axis]?.limits
  const per = tipPerUnit(rig, motion, radius_m)
  const tip: TipSpeed = {
    greatest_mps: (limits?.greatest ?? 0) * Math.abs(per),
    up_mps2: (limits?.up ?? 0) * Math.abs(per),
    down_mps2: (limits?.down ?? 0) * Math.abs(per),
    dead_s: limits?.dead_s ?? 0,
  }
  return { axis, tip, sense: Math.sign(per), most_m: (rope_m: number) => greatestCatch_m(tip, rope_m) }
}
