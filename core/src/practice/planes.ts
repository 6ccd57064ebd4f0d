import type { Machine } from '../machine/machine'
import type { MotionName } from '../parts/drives'
import { rad } from '../physics'
import { greatestCatch_m, type TipSpeed } from '../swing/reference'
import { canPractise, type Rig } from './rig'

/** Outward along the boom, or across it to the left. */
export type Plane = 'along' | 'across'

/** The planes in which levers move its load: across by slewing alone; none where there is no practice. */
export const planesOn = (m: Machine): Plane[] => (canPractise(m) ? ['along', ...(m.drives?.slew ? ['across' as const] : [])] : [])

/** The plane that a motion moves the tip in; hoisting moves it in none. */
export const planeOf: Readonly<Record<MotionName, Plane | null>> = {
  slew: 'across',
  luff: 'along',
  outer: 'along',
  extend: 'along',
  trolley: 'along',
  hoist: null,
  travel: 'along',
  rear: null,
}

/** Metres of tip in its plane for one of the motion's own unit, at a radius. */
export function tipPerUnit(rig: Rig, motion: MotionName, radius_m: number): number {
  if (motion === 'slew') return radius_m * rad
  if (motion !== 'luff') return 1
  const at = (r: number) => rig.reach.at(r)
  // Raising the boom brings the tip in.
  return 0.02 / (at(radius_m + 0.01) - at(radius_m - 0.01))
}

/** How the tip moves in a plane at full lever, by the motion that catches there: its speed, and the widest swing one move takes; axis −1 and none where nothing moves it there. */
export function catchSpeed(rig: Rig, plane: Plane, radius_m: number) {
  const motion = plane === 'across' ? 'slew' : rig.reach.motion
  const axis = rig.axes.findIndex((a) => a.motion === motion)
  const limits = rig.axes[axis]?.limits
  const none = { greatest_mps: 0, up_mps2: 1, down_mps2: 1, dead_s: 0 }
  if (!limits) return { axis, tip: none, sense: 1, most_m: () => 0 }
  const per = tipPerUnit(rig, motion, radius_m)
  const tip: TipSpeed = {
    greatest_mps: limits.greatest * Math.abs(per),
    up_mps2: limits.up * Math.abs(per),
    down_mps2: limits.down * Math.abs(per),
    dead_s: limits.dead_s,
  }
  return { axis, tip, sense: Math.sign(per), most_m: (rope_m: number) => greatestCatch_m(tip, rope_m) }
}
