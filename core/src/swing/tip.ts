import { rad } from '../physics'
import type { Written } from './vector'

/** A time, or how long since one: numbers that a tick hands on go in what is written over, so that the engine keeps none of them apart. */
export interface Moment {
  readonly time_s: number
}

/**
 * A tip in polar terms, how it moves and speeds up. To be written to: no figure until it is. Of its own class, as all that a tick writes to: an engine
 * keeps the numbers of a class in their places, and none apart.
 */
export class TipMotion {
  radius_m = Number.NaN
  radius_mps = Number.NaN
  radius_mps2 = Number.NaN
  height_m = Number.NaN
  height_mps = Number.NaN
  height_mps2 = Number.NaN
}

/** A crane at a moment: its tip, the way it points and the rope, and how each moves and speeds up. */
export class Motion extends TipMotion {
  slew_deg = Number.NaN
  slew_deg_s = Number.NaN
  slew_deg_s2 = Number.NaN
  rope_m = Number.NaN
  payOut_mps = Number.NaN
  payOut_mps2 = Number.NaN
}

/** The tip in a frame that stands still, metres and seconds, and the rope below it to the load's centre. */
export class Drive {
  readonly tip: Written = [0, 0, 0]
  readonly speed: Written = [0, 0, 0]
  readonly acceleration: Written = [0, 0, 0]
  rope_m = Number.NaN
  payOut_mps = Number.NaN
  payOut_mps2 = Number.NaN
}

/** A crane that does not move, its tip at a radius, slew and height, with so much rope. */
export function stillMotion(at: { slew_deg: number; radius_m: number; height_m: number; rope_m: number }): Motion {
  const rest = {
    slew_deg_s: 0,
    slew_deg_s2: 0,
    radius_mps: 0,
    radius_mps2: 0,
    height_mps: 0,
    height_mps2: 0,
    payOut_mps: 0,
    payOut_mps2: 0,
  }
  return { ...at, ...rest }
}

/** Tip and rope from slew, luff or telescope (as radius and height of the tip) and hoist. */
export function driveOf(m: Motion, to = new Drive()): Drive {
  const { tip, speed, acceleration } = to
  const c = Math.cos(m.slew_deg * rad)
  const s = Math.sin(m.slew_deg * rad)
  const w = m.slew_deg_s * rad
  const a = m.slew_deg_s2 * rad
  const out = m.radius_mps2 - m.radius_m * w * w
  const round = m.radius_m * a + 2 * m.radius_mps * w
  tip[0] = m.radius_m * c
  tip[1] = m.radius_m * s
  tip[2] = m.height_m
  speed[0] = m.radius_mps * c - m.radius_m * w * s
  speed[1] = m.radius_mps * s + m.radius_m * w * c
  speed[2] = m.height_mps
  acceleration[0] = out * c - round * s
  acceleration[1] = out * s + round * c
  acceleration[2] = m.height_mps2
  to.rope_m = m.rope_m
  to.payOut_mps = m.payOut_mps
  to.payOut_mps2 = m.payOut_mps2
  return to
}

/** A figure that moves: where it is, how fast, and how its speed grows. */
export interface Moving {
  at: number
  speed: number
  acceleration: number
}

/** A figure that stands still, and may be set going. */
export class Figure implements Moving {
  at = Number.NaN
  speed = Number.NaN
  acceleration = Number.NaN
  constructor(at: number) {
    this.at = at
    this.speed = this.acceleration = 0
  }
}
export const atRest = (at: number): Moving => new Figure(at)

/** A boom by its foot (so far behind and over the slew centre) and its head's offset square to it, metres. */
export class BoomFigures {
  back_m = Number.NaN
  foot_m = Number.NaN
  offset_m = Number.NaN
  constructor(back_m: number, foot_m: number, offset_m: number) {
    this.back_m = back_m
    this.foot_m = foot_m
    this.offset_m = offset_m
  }
}

/** Tip of a member from a foot so far out and so high that moves as `to` says: so long, so far off square to itself, at an angle. */
function addMember(to: TipMotion, angle_deg: Moving, length_m: Moving, { offset_m: e }: BoomFigures) {
  const c = Math.cos(angle_deg.at * rad)
  const s = Math.sin(angle_deg.at * rad)
  const w = angle_deg.speed * rad
  const a = angle_deg.acceleration * rad
  const { at: l, speed: v, acceleration: k } = length_m
  to.radius_m += l * c + e * s
  to.radius_mps += (e * c - l * s) * w + c * v
  to.radius_mps2 += (e * c - l * s) * a - (l * c + e * s) * w * w + c * k - 2 * s * w * v
  to.height_m += l * s - e * c
  to.height_mps += (l * c + e * s) * w + s * v
  to.height_mps2 += (l * c + e * s) * a + (e * c - l * s) * w * w + s * k + 2 * c * w * v
}

/** At the foot, so far behind the slew centre and so high, nothing moves. */
function atFoot(to: TipMotion, { back_m, foot_m }: BoomFigures) {
  to.radius_m = -back_m
  to.height_m = foot_m
  to.radius_mps = 0
  to.radius_mps2 = 0
  to.height_mps = 0
  to.height_mps2 = 0
}

/**
 * Radius and height of a boom's tip with the head's own offset, as angle and length move at once:
 * R = ℓ·cos θ + e·sin θ − back, H = h + ℓ·sin θ − e·cos θ.
 *
 * @param angle_deg above level, degrees
 */
export function boomTip(b: BoomFigures, angle_deg: Moving, length_m: Moving, to = new TipMotion()): TipMotion {
  atFoot(to, b)
  addMember(to, angle_deg, length_m, b)
  return to
}

/** Two booms on a hinge, metres: the inner one never longer, the outer one as long as it is drawn. */
export interface HingedFigures {
  /** In line with both heads. */
  foot: BoomFigures
  inner_m: Moving
  /** Above level, of the outer boom: worked out again at each time. */
  level_deg: Moving
}

/**
 * Head of a folding boom as all its joints move at once: the inner boom at its angle, the outer one at that and its own together.
 *
 * @param inner_deg above level, degrees
 * @param outer_deg against the inner boom, degrees; folded down is negative
 * @param outer_m of the outer boom with what is drawn
 */
export function hingedTip(
  b: HingedFigures,
  inner_deg: Moving,
  outer_deg: Moving,
  outer_m: Moving,
  to = new TipMotion(),
): TipMotion {
  const { level_deg } = b
  level_deg.at = inner_deg.at + outer_deg.at
  level_deg.speed = inner_deg.speed + outer_deg.speed
  level_deg.acceleration = inner_deg.acceleration + outer_deg.acceleration
  atFoot(to, b.foot)
  addMember(to, inner_deg, b.inner_m, b.foot)
  addMember(to, level_deg, outer_m, b.foot)
  return to
}
