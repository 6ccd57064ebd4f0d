import { lineToStanding, lineToWire, type Outline, planDistance } from '../clearance/standing'
import { leastOverSweep, type Sweep, type Swept } from '../clearance/sweep'
import { sizeOf } from '../lift/plan'
import { nth } from '../list'
import { rad } from '../physics'
import { atSlew, type Point } from '../plane/point'
import type { Point3 } from '../plane/segment3'
import type { Ring } from './area'
import type { LiftContext } from './context'

/** How near one body is to something in one pose, metres. */
type InPose = (slew_deg: number, angle_deg: number) => number

/** The bodies of a step: boom, the load on its rope, tail; and how near each comes to something in one pose. */
export interface Bodies {
  /** Half the load's diagonal with its swing, metres; null: its size is not known. */
  load_m: number | null
  boomTo: (o: Outline, top_m: number) => InPose
  /** In plan, from the load's outside. */
  loadTo: (o: Outline) => InPose
  boomToWire: (o: Outline, height_m: number) => InPose
  loadToWire: (o: Outline, height_m: number) => InPose
  /** The tail's corners at a slew of the boom, all that it covers there. */
  tailTo: (o: Outline, from_deg: number, to_deg: number, enough_m?: number) => Swept
  loadAt: (o: Outline, at: Point) => number
  /** How far any of it moves for each radian of slew, and of boom angle. */
  reach: { slew: number; angle: number }
}

/** A load whose size nobody has said is taken for no wider than this, metres; where nothing is so near, it does not matter. */
export const widest_m = 12

/** A tail's corners go round this much before and behind its middle, degrees: a tail as wide as it is long. */
export const tailHalf_deg = 45

/** The boom's own line from foot over its joints to its head. */
function boomLine({ boom, step: { boom_m }, deflection_m }: LiftContext) {
  // Boom, rope and load are asked about in one pose after another, each several times over.
  let last = { slew_deg: Number.NaN, angle_deg: Number.NaN, line: [{ x: 0, y: 0, z: 0 }] }
  const lineAt = (slew_deg: number, angle_deg: number): readonly Point3[] => {
    if (last.slew_deg !== slew_deg || last.angle_deg !== angle_deg) {
      const [c, s] = [Math.cos(slew_deg * rad), Math.sin(slew_deg * rad)]
      const joints = boom.lineAt(boom_m, angle_deg, deflection_m)
      last = { slew_deg, angle_deg, line: joints.map((j) => ({ x: j.out_m * c, y: j.out_m * s, z: j.height_m })) }
    }
    return last.line
  }
  /** The nearest of all its pieces between two joints. */
  const leastOfBoom = (slew_deg: number, angle_deg: number, to: (a: Point3, b: Point3) => number): number => {
    const line = lineAt(slew_deg, angle_deg)
    let least = Infinity
    for (let i = 1; i < line.length; i++) least = Math.min(least, to(nth(line, i - 1), nth(line, i)))
    return least
  }
  return { lineAt, leastOfBoom }
}

/** @param tip_height_m the highest that the head stands in what is looked at: the rope is then longest */
export function bodiesOf(ctx: LiftContext, tip_height_m: number, greatest_m: number): Bodies {
  const { machine, step, plan } = ctx
  const { boom_m } = step
  const { lineAt, leastOfBoom } = boomLine(ctx)
  const headAt = (slew_deg: number, angle_deg: number): Point3 => {
    const line = lineAt(slew_deg, angle_deg)
    return nth(line, line.length - 1)
  }
  const { back_m } = machine.boom.pivot
  const size = sizeOf(plan.lift.hung.load)
  const swing_m = tip_height_m * Math.sin(plan.policy.quietSwing_deg * rad)
  const load_m = !step.laden ? swing_m : size ? Math.hypot(size.length_m, size.width_m) / 2 + swing_m : null
  const tailRadius_m = machine.upper.tailSwingRadius_m
  const less = (d: number, by_m: number) => Math.max(0, d - by_m)
  const half_m = machine.boom.halfWidth_m ?? 0
  const wide_m = load_m ?? 0
  const loadAt = (o: Outline, at: Point) => less(planDistance(o, at), wide_m)
  return {
    load_m,
    loadAt,
    reach: { slew: Math.max(greatest_m, back_m), angle: boom_m + machine.boom.headOffset_m },
    boomTo: (o, top_m) => (s, a) =>
      less(
        leastOfBoom(s, a, (p, q) => lineToStanding(p, q, o, top_m)),
        half_m,
      ),
    loadTo: (o) => (s, a) => {
      const { x, y } = headAt(s, a)
      return loadAt(o, { x_m: x, y_m: y })
    },
    boomToWire: (o, height) => (s, a) =>
      less(
        leastOfBoom(s, a, (p, q) => lineToWire(p, q, o, height)),
        half_m,
      ),
    loadToWire: (o, height) => (s, a) => {
      const head = headAt(s, a)
      return less(lineToWire({ ...head, z: 0 }, head, o, height), wide_m)
    },
    tailTo: (o, from_deg, to_deg, enough_m) => {
      const [first, last] = [Math.min(from_deg, to_deg), Math.max(from_deg, to_deg)]
      const round: Sweep = { slew_deg: [first + 180 - tailHalf_deg, last + 180 + tailHalf_deg], angle_deg: [0, 0] }
      return leastOverSweep((s) => planDistance(o, atSlew(tailRadius_m, s)), { slew: tailRadius_m, angle: 0 }, round, enough_m)
    },
  }
}

/** The bodies of a step over all that it sweeps. */
export interface Moving {
  bodies: Bodies
  /** The furthest any of it gets from the slew centre, metres. */
  reach_m: number
  least: (inPose: InPose, enough_m?: number) => Swept
  /**
   * The same at the lowest boom angle only. Enough for the boom and what stands on the ground: over any place in plan the boom is then as low
   * as it gets, and it reaches furthest.
   */
  leastLow: (inPose: InPose, enough_m?: number) => Swept
}

/** @param ctx a step whose radii the boom gets to */
export function movingIn(ctx: LiftContext): Moving {
  const { boom, step, path, deflection_m } = ctx
  const near = boom.poseAtRadius(step.boom_m, path.least_m, deflection_m)
  const far = boom.poseAtRadius(step.boom_m, path.greatest_m, deflection_m)
  // The rope is longest where the head stands highest; a hinged boom's between its ends too, at most its whole length up.
  const { pivot } = ctx.machine.boom
  const highest_m = boom.hinged ? pivot.height_m + ctx.step.boom_m : near.tip_height_m
  const bodies = bodiesOf(ctx, highest_m, path.greatest_m)
  const { from_deg, to_deg } = path.arc
  const sweep: Sweep = { slew_deg: [from_deg, to_deg], angle_deg: [far.angle_deg, near.angle_deg] }
  const low: Sweep = boom.hinged ? sweep : { ...sweep, angle_deg: [far.angle_deg, far.angle_deg] }
  return {
    bodies,
    reach_m: path.greatest_m + (bodies.load_m ?? widest_m),
    least: (inPose, enough_m) => leastOverSweep(inPose, bodies.reach, sweep, enough_m),
    leastLow: (inPose, enough_m) => leastOverSweep(inPose, bodies.reach, low, enough_m),
  }
}

const byRing = new WeakMap<LiftContext, Map<Ring, Bodies>>()

/** The bodies at one radius of a working area: made once, whichever check asks first. */
export function bodiesOnRing(ctx: LiftContext, ring: Ring): Bodies {
  const rings = byRing.get(ctx) ?? new Map<Ring, Bodies>()
  byRing.set(ctx, rings)
  const bodies = rings.get(ring) ?? bodiesOf(ctx, ring.tip_height_m, ring.radius_m)
  rings.set(ring, bodies)
  return bodies
}

/** In a working area a gap by this much wider than where it is near need not be known exactly: it is enough that it is no less. */
export const plenty = 1.1

/** A gap that was seen, or is no less than that, in one pose of a working area. */
interface Known {
  slew_deg: number
  ring: Ring
  load_m: number
  gap_m: number
}

/**
 * What is known of a gap from another radius of the same slew, or from another slew at the same radius, so that not every cell of a working
 * area is looked at closely. Between two radii nothing moves further than the boom's head or the load does, between two slews nothing
 * further than its way round: as far as what was seen allows for that, the gap is known well enough.
 *
 * @param enough_m a gap that is wider need not be known exactly
 */
export function fromPoseToPose({ boom, step, machine }: LiftContext, enough_m: number) {
  const hinged = boom.hinged ?? false
  /** How far the head is from the boom's foot, and whatever turns from the slew centre besides it. */
  const reach_m = step.boom_m + machine.boom.headOffset_m
  const round_m = Math.max(machine.upper.tailSwingRadius_m, machine.boom.pivot.back_m, hinged ? reach_m : 0)
  let last: Known | null = null
  const onRing = new Map<Ring, Known>()
  const alongSlew = (ring: Ring, load_m: number): number => {
    if (!last) return 0
    const raised_m = Math.abs(ring.angle_deg - last.ring.angle_deg) * rad * reach_m
    const moved_m = Math.max(raised_m, Math.abs(ring.radius_m - last.ring.radius_m) + Math.max(0, load_m - last.load_m))
    return last.gap_m - moved_m
  }
  const keep = (known: Known) => {
    last = known
    onRing.set(known.ring, known)
  }
  return {
    /** The gap is no less than this; null: look. */
    atLeast: (ring: Ring, slew_deg: number, load_m: number): number | null => {
      if (last?.slew_deg === slew_deg) {
        const along_m = alongSlew(ring, load_m)
        if (along_m >= enough_m) return along_m
      }
      const before = onRing.get(ring)
      if (!before) return null
      const turned_m = Math.abs(slew_deg - before.slew_deg) * rad * Math.max(ring.radius_m, round_m)
      const gap_m = before.gap_m - turned_m
      if (gap_m < enough_m) return null
      // What is known of it here is known of the next radius too.
      last = { ...before, slew_deg, gap_m }
      return gap_m
    },
    seen: (ring: Ring, slew_deg: number, load_m: number, gap_m: number): void => keep({ slew_deg, ring, load_m, gap_m }),
  }
}
