import { contextsOf, type LiftContext } from '../check/context'
import type { Outline } from '../clearance/standing'
import type { Case } from '../lift/case'
import { sizeOf } from '../lift/plan'
import { nth } from '../list'
import { type Crane, liftsOnHook } from '../machine/crane'
import { isTruck, type TruckMachine } from '../machine/provable'
import { supportOf } from '../parts/supports/states'
import { rad } from '../physics'
import { type MachinePosition, toPlace } from '../place/standing'
import { atSlew, type Point } from '../plane/point'
import { high, low } from '../quantity/measured'
import { Refusal } from '../refusal'
import { drivenLine, type Xy } from '../truck/route'

/** A machine at a place, as it is set up, and the lift that it has before it; null: none is planned, or none was proved. */
export interface AtWork {
  id: string
  name: string
  setup: Case['setup']
  machine: Case['machine']
  plan: Case | null
}

export type Part = 'body' | 'boom' | 'load' | 'tail' | 'route'
/** When it takes that room up: always, while the lift begins or ends, or on the way between. */
export type When = 'always' | 'start' | 'way' | 'end'

/** Room that a machine takes up, in the place's metres: an outline in plan, so much wider all round, between two heights. */
export interface Space {
  part: Part
  when: When
  outline: Outline
  radius_m: number
  from_m: number
  to_m: number
}

/** What a machine takes up, and what of it nobody can say. */
export interface Spaces {
  spaces: readonly Space[]
  unknown: 'no-lift' | 'not-reached' | 'no-route' | 'not-worked-out' | 'no-load-size' | null
}

/** Between two poses that are looked at nothing moves further than this, which every space is wider by, metres. */
const between_m = 0.2
/** A boom in so many pieces, each as high as it gets there. */
const pieces = 6
/** A tail's corners go round this much before and behind its middle, degrees. */
const tailHalf_deg = 45
/** How far above the boom's foot the superstructure reaches, metres. */
const aboveFoot_m = 1
/** Half the depth of a level jib with what hangs from it, metres. */
const jibHalf_m = 1.5
/** As high as a foot and its beam, metres. */
const foot_m = 1
/** A load whose size nobody has said, from its middle, metres. */
const unknownHalf_m = 3

const line = (...points: Point[]): Outline => ({ points, closed: false })

/** The machine as it stands: its own outline, as high as it is drawn. */
function bodyOf(machine: Case['machine'], position: MachinePosition): Space[] {
  const { plan, side } = machine.outline
  const to_m = Math.max(
    1,
    ...side.filter((p) => p.raised !== true && p.slews !== true).flatMap((p) => p.points.map(([, z]) => z)),
  )
  return plan
    .filter((p) => p.slews !== true && p.raised !== true)
    .map((p) => ({
      part: 'body',
      when: 'always',
      outline: { closed: true, points: p.points.map(([x_m, y_m]) => toPlace(position, { x_m, y_m })) },
      radius_m: 0,
      from_m: 0,
      to_m,
    }))
}

/** One slew of a crane's way, at all radii that it passes there. */
interface Slewed {
  ctx: LiftContext
  slew_deg: number
  radii_m: readonly number[]
  when: When
  /** How much wider everything is taken, for what moves between two slews. */
  wider_m: number
}

const outAlong =
  ({ ctx, slew_deg }: Slewed) =>
  (out_m: number): Point =>
    toPlace(ctx.plan.setup.position, atSlew(out_m, slew_deg))

/** The boom over all those radii, piece by piece. */
function boomSpaces(at: Slewed): Space[] {
  const { ctx, radii_m, when, wider_m } = at
  const { boom, step, deflection_m, machine } = ctx
  const lines = radii_m.map((r) =>
    boom.lineAt(step.boom_m, boom.poseAtRadius(step.boom_m, r, deflection_m).angle_deg, deflection_m),
  )
  const out = outAlong(at)
  return (lines[0] ?? []).slice(1).flatMap((_, i): Space[] =>
    Array.from({ length: pieces }, (__, k): Space => {
      const corners = lines.flatMap((joints) => {
        const [p, q] = [nth(joints, i), nth(joints, i + 1)]
        return [k / pieces, (k + 1) / pieces].map((t) => ({
          out_m: p.out_m + (q.out_m - p.out_m) * t,
          height_m: p.height_m + (q.height_m - p.height_m) * t,
        }))
      })
      const [outs, heights] = [corners.map((c) => c.out_m), corners.map((c) => c.height_m)]
      return {
        part: 'boom',
        when,
        outline: line(out(Math.min(...outs)), out(Math.max(...outs))),
        radius_m: (machine.boom.halfWidth_m ?? 0) + wider_m,
        from_m: Math.min(...heights) - wider_m,
        to_m: Math.max(...heights) + wider_m,
      }
    }),
  )
}

/** Rope and load, which may be at any height: taken for a column under the head. */
function loadSpace(at: Slewed): Space {
  const { ctx, radii_m, when, wider_m } = at
  const { boom, step, deflection_m, plan } = ctx
  const tip_m = Math.max(...radii_m.map((r) => boom.poseAtRadius(step.boom_m, r, deflection_m).tip_height_m))
  const size = sizeOf(plan.lift.hung.load)
  const swing_m = tip_m * Math.sin(plan.policy.quietSwing_deg * rad)
  const load_m = !step.laden ? swing_m : (size ? Math.hypot(size.length_m, size.width_m) / 2 : unknownHalf_m) + swing_m
  const out = outAlong(at)
  return {
    part: 'load',
    when,
    outline: line(out(Math.min(...radii_m)), out(Math.max(...radii_m))),
    radius_m: load_m + wider_m,
    from_m: 0,
    to_m: tip_m,
  }
}

/** What turns behind: of a tower at the height of its jib. */
function tailSpaces({ ctx, slew_deg, when, wider_m }: Slewed): Space[] {
  const { machine, plan } = ctx
  const { position } = plan.setup
  const tower = machine.tower !== undefined
  const pivot_m = machine.boom.pivot.height_m
  return [-tailHalf_deg, 0, tailHalf_deg].map((off): Space => {
    const corner = atSlew(machine.upper.tailSwingRadius_m, slew_deg + 180 + (tower ? off / 10 : off))
    return {
      part: 'tail',
      when,
      outline: line(toPlace(position, { x_m: 0, y_m: 0 }), toPlace(position, corner)),
      radius_m: wider_m,
      from_m: tower ? pivot_m - jibHalf_m : 0,
      to_m: pivot_m + (tower ? jibHalf_m : aboveFoot_m),
    }
  })
}

const inSlew = (at: Slewed): Space[] => [...boomSpaces(at), loadSpace(at), ...tailSpaces(at)]

function ofCrane(plan: Case): Spaces {
  const contexts = contextsOf(plan)
  const size = sizeOf(plan.lift.hung.load)
  // Where it does not get to it may be driven all the same, or otherwise.
  if (contexts.some((ctx) => ctx.reached)) return { spaces: [], unknown: 'not-reached' }
  const last = contexts.length - 1
  const spaces = contexts.flatMap((ctx, i) => {
    const { path, step, machine, boom } = ctx
    const { from_deg, to_deg } = path.arc
    // The furthest that anything of it is from the slew centre: a level jib reaches past its trolley.
    const load_m = size ? Math.hypot(size.length_m, size.width_m) / 2 : unknownHalf_m
    const reach_m = Math.max(boom.furthest_m(step.boom_m), path.greatest_m + load_m, machine.upper.tailSwingRadius_m)
    const turned = Math.abs(to_deg - from_deg)
    const looks = Math.max(1, Math.ceil((turned * rad * reach_m) / (2 * between_m)))
    const way = Array.from({ length: looks + 1 }, (_, k) => {
      const slew_deg = from_deg + ((to_deg - from_deg) * k) / looks
      return inSlew({ ctx, slew_deg, radii_m: path.radii_m, when: 'way', wider_m: between_m })
    }).flat()
    const end = (which: 'pickUp' | 'setDown', slew_deg: number, when: When) => {
      const at = step[which].radius_m
      return inSlew({ ctx, slew_deg, radii_m: unique([low(at), high(at)]), when, wider_m: 0 })
    }
    return [...(i === 0 ? end('pickUp', from_deg, 'start') : []), ...way, ...(i === last ? end('setDown', to_deg, 'end') : [])]
  })
  return { spaces, unknown: size ? null : 'no-load-size' }
}
const unique = (all: readonly number[]) => [...new Set(all)]

/** Feet of a crane as they are set, with what they stand on, and the beams out to them. */
function feetOf(machine: Crane, { position, standing }: Case['setup']): Space[] {
  const { contacts, settings, points } = supportOf(machine, standing)
  return contacts.map(({ id, x_m, y_m }): Space => {
    const on = settings.find((s) => s.id === id)?.mat ?? points.find((p) => p.id === id)?.float
    return {
      part: 'body',
      when: 'always',
      outline: line(toPlace(position, { x_m, y_m: 0 }), toPlace(position, { x_m, y_m })),
      radius_m: on ? Math.hypot(on.length_m, on.width_m) / 2 : 0,
      from_m: 0,
      to_m: foot_m,
    }
  })
}

/** Points of a turn are joined by straight pieces: so much wider, metres. */
const chord_m = 0.1

/**
 * A truck along its ways, and raised where it stands before and after. A set-up does not say where a truck stands: without a way that is drawn, nothing
 * of it is known.
 */
function ofTruck(machine: TruckMachine, { lift, place }: Case): Spaces {
  const drives = lift.steps.flatMap((s) => (s.do === 'drive' ? [s] : []))
  const lines = drives.map((d) => d.route && drivenLine(place, d.route))
  if (lines.length === 0 || lines.some((l) => l === undefined)) return { spaces: [], unknown: 'no-route' }
  const { chassis } = machine.truck
  const size = sizeOf(lift.hung.load)
  const half_m = Math.max(chassis.width_m, size?.width_m ?? 2 * unknownHalf_m) / 2
  const low_m = Math.max(chassis.mastLow_m ?? 3, size?.height_m ?? 0)
  // Turned whichever way: as far as its furthest corner, with the load ahead of it.
  const corners = machine.outline.plan.flatMap((p) => p.points)
  const round_m = Math.max(...corners.map(([x, y]) => Math.hypot(x, y))) + (size?.length_m ?? 2 * unknownHalf_m)
  const tops = lift.steps.flatMap((s) =>
    s.do === 'mast' || s.do === 'reach' ? s.waypoints.map((w) => ('height_m' in w ? w.height_m : chassis.greatestHeight_m)) : [],
  )
  const raised_m = Math.max(low_m, ...tops.map((h) => h + (size?.height_m ?? 2 * unknownHalf_m) + (chassis.guardAbove_m ?? 1)))
  const pointOf = ([x_m, y_m]: Xy): Point => ({ x_m, y_m })
  const disc = (at: Xy, part: Part, when: When, to_m: number): Space => ({
    part,
    when,
    outline: line(pointOf(at), pointOf(at)),
    radius_m: round_m,
    from_m: 0,
    to_m,
  })
  const ways = lines.flatMap((l = []) => [
    ...l.slice(1).map(
      ({ at }, i): Space => ({
        part: 'route',
        when: 'way',
        outline: line(pointOf(nth(l, i).at), pointOf(at)),
        radius_m: half_m + chord_m,
        from_m: 0,
        to_m: low_m,
      }),
    ),
    // In a turn its tail goes outside of its way.
    ...l.filter((p) => p.turning).map((p) => disc(p.at, 'route', 'way', low_m)),
  ])
  const ends = lines.flatMap((l = []) => [l[0], l.at(-1)].flatMap((p) => (p ? [p.at] : [])))
  const stops = ends.map((at, i) => disc(at, 'body', i === 0 ? 'start' : i === ends.length - 1 ? 'end' : 'way', raised_m))
  return { spaces: [...stops, ...ways], unknown: size ? null : 'no-load-size' }
}

/**
 * The room that a machine takes up with its lift: its body and feet, boom, load and tail over all that it sweeps, or its way. Never less than it is, and
 * at most twice `between_m` more where it turns. What does not fit the machine is not worked out.
 */
export function spacesOf(at: AtWork): Spaces {
  try {
    return takenBy(at)
  } catch (e) {
    if (e instanceof Refusal) return { spaces: [], unknown: 'not-worked-out' }
    throw e
  }
}

function takenBy({ machine, setup, plan }: AtWork): Spaces {
  if (isTruck(machine)) return plan ? ofTruck(machine, plan) : { spaces: [], unknown: 'no-lift' }
  const body = bodyOf(machine, setup.position)
  if (!liftsOnHook(machine)) return { spaces: body, unknown: plan ? 'not-worked-out' : 'no-lift' }
  const stands = [...body, ...feetOf(machine, setup)]
  if (!plan) return { spaces: stands, unknown: 'no-lift' }
  if (plan.lift.steps[0]?.do === 'tow') return { spaces: stands, unknown: 'no-route' }
  const { spaces, unknown } = ofCrane(plan)
  return { spaces: [...stands, ...spaces], unknown }
}
