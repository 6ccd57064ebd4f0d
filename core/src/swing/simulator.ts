import { g_mps2, rad } from '../physics'

type Vec = readonly [number, number, number]

/** A hanging load in a frame that stands still: x, y in plan, z up; metres and metres a second. */
export interface Swinging {
  time_s: number
  p: Vec
  v: Vec
  /** What the rope's pull has done to the load so far, and what the air has taken, joules. */
  work_J: number
  lost_J: number
}

/** Controls of a crane at a time: where the tip is in polar terms, the rope, and how each moves and speeds up. */
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

const dot = (a: Vec, b: Vec) => a[0] * b[0] + a[1] * b[1] + a[2] * b[2]
const add = (a: Vec, b: Vec, by = 1): Vec => [a[0] + by * b[0], a[1] + by * b[1], a[2] + by * b[2]]
const gravity: Vec = [0, 0, -g_mps2]

/** A load hanging still under the tip, moving with it. */
export function hangingStill(d: Drive): Swinging {
  const p: Vec = [d.tip[0], d.tip[1], d.tip[2] - d.rope_m]
  return { time_s: 0, p, v: [d.speed[0], d.speed[1], d.speed[2] - d.payOut_mps], work_J: 0, lost_J: 0 }
}

/** A load let go from an angle in a plane through the plumb line, `towards_deg` in plan. */
export function letGo(d: Drive, angle_deg: number, towards_deg: number): Swinging {
  const [n, z] = [d.rope_m * Math.sin(angle_deg * rad), d.rope_m * Math.cos(angle_deg * rad)]
  const p: Vec = [d.tip[0] + n * Math.cos(towards_deg * rad), d.tip[1] + n * Math.sin(towards_deg * rad), d.tip[2] - z]
  // Its speed along the rope is the winch's.
  const v = add(d.speed, add(p, d.tip, -1), d.payOut_mps / d.rope_m)
  return { time_s: 0, p, v, work_J: 0, lost_J: 0 }
}

/** Kinetic and potential energy of the load, joules; potential nothing at z = 0. */
export function energy_J(s: Pick<Swinging, 'p' | 'v'>, mass_kg: number): number {
  return 0.5 * mass_kg * dot(s.v, s.v) + mass_kg * g_mps2 * s.p[2]
}

/** Angle of the rope from plumb, degrees. */
export function swingAngle_deg(s: Swinging, d: Drive): number {
  const r = add(s.p, d.tip, -1)
  return Math.atan2(Math.hypot(r[0], r[1]), -r[2]) / rad
}

/**
 * What the rope has to pull with so that the load keeps its length: from r·r = L²,
 * T/m = (r·(g − a) + ṙ² − L̇² − L·L̈)/L, r from the tip to the load, a the tip's acceleration. It cannot push.
 */
export function pull_N(p: Vec, v: Vec, d: Drive, mass_kg: number): number {
  const r = add(p, d.tip, -1)
  const w = add(v, d.speed, -1)
  const L = d.rope_m
  return Math.max(
    0,
    (mass_kg * (dot(r, add(gravity, d.acceleration, -1)) + dot(w, w) - d.payOut_mps ** 2 - L * d.payOut_mps2)) / L,
  )
}

/**
 * One step of the load under a moving tip and a rope of changing length: Runge–Kutta of fourth order on place, speed, the
 * rope's work and the air's. Drift off the rope's length is taken out at the end of the step.
 *
 * @param damping_per_s share of its speed relative to the tip that the air takes each second
 */
export function stepSwing(
  s: Swinging,
  mass_kg: number,
  driveAt: (time_s: number) => Drive,
  dt_s: number,
  damping_per_s = 0,
): Swinging {
  const rates = (time_s: number, p: Vec, v: Vec) => {
    const d = driveAt(time_s)
    const T = pull_N(p, v, d, mass_kg)
    const r = add(p, d.tip, -1)
    const length = Math.sqrt(dot(r, r)) || 1
    const pull: Vec = [(-T * r[0]) / length, (-T * r[1]) / length, (-T * r[2]) / length]
    const w = add(v, d.speed, -1)
    const drag: Vec = [-damping_per_s * mass_kg * w[0], -damping_per_s * mass_kg * w[1], -damping_per_s * mass_kg * w[2]]
    return { v, a: add(add(gravity, pull, 1 / mass_kg), drag, 1 / mass_kg), power: dot(pull, v), lost: -dot(drag, v) }
  }
  const h = dt_s
  const k1 = rates(s.time_s, s.p, s.v)
  const k2 = rates(s.time_s + h / 2, add(s.p, k1.v, h / 2), add(s.v, k1.a, h / 2))
  const k3 = rates(s.time_s + h / 2, add(s.p, k2.v, h / 2), add(s.v, k2.a, h / 2))
  const k4 = rates(s.time_s + h, add(s.p, k3.v, h), add(s.v, k3.a, h))
  const sum = (pick: (k: typeof k1) => Vec): Vec => {
    const [a, b, c, d] = [pick(k1), pick(k2), pick(k3), pick(k4)]
    const mean = (i: 0 | 1 | 2) => (h / 6) * (a[i] + 2 * b[i] + 2 * c[i] + d[i])
    return [mean(0), mean(1), mean(2)]
  }
  const total = (pick: (k: typeof k1) => number) => (h / 6) * (pick(k1) + 2 * pick(k2) + 2 * pick(k3) + pick(k4))
  const work_J = s.work_J + total((k) => k.power)
  const lost_J = s.lost_J + total((k) => k.lost)
  let p = add(
    s.p,
    sum((k) => k.v),
  )
  let v = add(
    s.v,
    sum((k) => k.a),
  )
  const d = driveAt(s.time_s + h)
  const r = add(p, d.tip, -1)
  const length = Math.sqrt(dot(r, r))
  // A slack rope may be longer than it hangs; a taut one is brought to its length, and its speed along to the winch's.
  if (length > d.rope_m || pull_N(p, v, d, mass_kg) > 0) {
    const n: Vec = [r[0] / length, r[1] / length, r[2] / length]
    const off = dot(add(v, d.speed, -1), n) - d.payOut_mps
    p = add(d.tip, n, d.rope_m)
    v = add(v, n, -off)
  }
  return { time_s: s.time_s + h, p, v, work_J, lost_J }
}

/**
 * How far energy and work have come apart since a beginning, joules: the change of energy less the rope's work, plus what the
 * air took. Nothing but the step's error; a simulator checks it at every step.
 */
export function energyError_J(from: Swinging, to: Swinging, mass_kg: number): number {
  return energy_J(to, mass_kg) - energy_J(from, mass_kg) - (to.work_J - from.work_J) + (to.lost_J - from.lost_J)
}
