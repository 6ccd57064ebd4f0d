import { rad } from '../physics'
import type { Vec } from './vector'

/** A crane at a moment: where the tip is in polar terms, the rope, and how each moves and speeds up. */
export interface Motion {
  slew_deg: number
  slew_deg_s: number
  slew_deg_s2: number
  radius_m: number
  radius_mps: number
  radius_mps2: number
  height_m: number
  height_mps: number
  height_mps2: number
  rope_m: number
  payOut_mps: number
  payOut_mps2: number
}

/** What of it is the tip's alone. */
export type TipMotion = Pick<Motion, 'radius_m' | 'radius_mps' | 'radius_mps2' | 'height_m' | 'height_mps' | 'height_mps2'>

/** The tip in a frame that stands still, metres and seconds, and the rope below it to the load's centre. */
export interface Drive {
  tip: Vec
  speed: Vec
  acceleration: Vec
  rope_m: number
  payOut_mps: number
  payOut_mps2: number
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
export function driveOf(m: Motion): Drive {
  const [c, s] = [Math.cos(m.slew_deg * rad), Math.sin(m.slew_deg * rad)]
  const [w, a] = [m.slew_deg_s * rad, m.slew_deg_s2 * rad]
  const out = m.radius_mps2 - m.radius_m * w * w
  const round = m.radius_m * a + 2 * m.radius_mps * w
  return {
    tip: [m.radius_m * c, m.radius_m * s, m.height_m],
    speed: [m.radius_mps * c - m.radius_m * w * s, m.radius_mps * s + m.radius_m * w * c, m.height_mps],
    acceleration: [out * c - round * s, out * s + round * c, m.height_mps2],
    rope_m: m.rope_m,
    payOut_mps: m.payOut_mps,
    payOut_mps2: m.payOut_mps2,
  }
}

/** A figure that moves: where it is, how fast, and how its speed grows. */
export interface Moving {
  at: number
  speed: number
  acceleration: number
}

/** A boom by its foot (so far behind and over the slew centre) and its head's offset square to it, metres. */
export interface BoomFigures {
  back_m: number
  foot_m: number
  offset_m: number
}

/**
 * Radius and height of a boom's tip with the head's own offset, as angle and length move at once:
 * R = ℓ·cos θ + e·sin θ − back, H = h + ℓ·sin θ − e·cos θ.
 *
 * @param angle_deg above level, degrees
 */
export function boomTip(b: BoomFigures, angle_deg: Moving, length_m: Moving): TipMotion {
  const [c, s] = [Math.cos(angle_deg.at * rad), Math.sin(angle_deg.at * rad)]
  const [w, a] = [angle_deg.speed * rad, angle_deg.acceleration * rad]
  const { at: l, speed: v, acceleration: k } = length_m
  const e = b.offset_m
  return {
    radius_m: l * c + e * s - b.back_m,
    radius_mps: (e * c - l * s) * w + c * v,
    radius_mps2: (e * c - l * s) * a - (l * c + e * s) * w * w + c * k - 2 * s * w * v,
    height_m: b.foot_m + l * s - e * c,
    height_mps: (l * c + e * s) * w + s * v,
    height_mps2: (l * c + e * s) * a + (e * c - l * s) * w * w + s * k + 2 * c * w * v,
  }
}

/** Two booms on a hinge, metres: the outer one as long as it is drawn. */
export interface HingedFigures {
  back_m: number
  foot_m: number
  inner_m: number
}

/**
 * Head of a folding boom as all its joints move at once: the inner boom at its angle, the outer one at that and its own together.
 *
 * @param inner_deg above level, degrees
 * @param outer_deg against the inner boom, degrees; folded down is negative
 * @param outer_m of the outer boom with what is drawn
 */
export function hingedTip(b: HingedFigures, inner_deg: Moving, outer_deg: Moving, outer_m: Moving): TipMotion {
  const rigid: Moving = { at: b.inner_m, speed: 0, acceleration: 0 }
  const elbow = boomTip({ back_m: b.back_m, foot_m: b.foot_m, offset_m: 0 }, inner_deg, rigid)
  const level_deg: Moving = {
    at: inner_deg.at + outer_deg.at,
    speed: inner_deg.speed + outer_deg.speed,
    acceleration: inner_deg.acceleration + outer_deg.acceleration,
  }
  const beyond = boomTip({ back_m: 0, foot_m: 0, offset_m: 0 }, level_deg, outer_m)
  return {
    radius_m: elbow.radius_m + beyond.radius_m,
    radius_mps: elbow.radius_mps + beyond.radius_mps,
    radius_mps2: elbow.radius_mps2 + beyond.radius_mps2,
    height_m: elbow.height_m + beyond.height_m,
    height_mps: elbow.height_mps + beyond.height_mps,
    height_mps2: elbow.height_mps2 + beyond.height_mps2,
  }
}
