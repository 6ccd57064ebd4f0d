import { type Outline, planDistance } from '../clearance/standing'
import { type Finding, found } from '../finding/finding'
import { sizeOf } from '../lift/plan'
import { type EyePart, looksFrom } from '../parts/eye'
import { heightsOf } from '../parts/stability/slew'
import { normalDegrees, rad } from '../physics'
import { outlineOf } from '../place/outline'
import type { Feature, Place } from '../place/place'
import type { MachinePosition } from '../place/standing'
import { convexHull } from '../plane/hull'
import { type Box, boxesApart, boxOf, shapesMeet } from '../plane/meet'
import { atSlew, type Point } from '../plane/point'
import { high, low } from '../quantity/measured'
import type { Check } from './check'
import type { LiftContext } from './context'
import { widest_m } from './swept'

/** A part of the way in which something stands between the operator and the load, by the arc's own slews. */
export interface Blind {
  behind: Feature
  from_deg: number
  to_deg: number
}

/** A piece of the arc that is hidden is told from one that is seen as finely as this, degrees. */
const finest_deg = 0.25
/** Looked at first in pieces of this, degrees: in each the first and the last that is hidden are found. */
const coarse_deg = 6

/** Somebody's eye at a slew of the boom. */
interface Eye {
  z_m: number
  /** As far from the slew centre as it gets. */
  out_m: number
  /** @param grown so much further out, where that is asked */
  at: (slew_deg: number, grown?: number) => Point
}

function eyesOf(eye: EyePart | undefined, posts: readonly Point[]): Eye[] {
  if (!eye) return []
  const standing = (p: Point): Eye => ({ z_m: eye.z_m, out_m: Math.hypot(p.x_m, p.y_m), at: () => p })
  if (eye.on === 'foot') return posts.map(standing)
  const { x_m, y_m, z_m } = eye
  if (eye.on === 'chassis') return [standing({ x_m, y_m })]
  const [out_m, ahead_deg] = [Math.hypot(x_m, y_m), Math.atan2(y_m, x_m) / rad]
  return [{ z_m, out_m, at: (slew_deg, grown = 1) => atSlew(out_m * grown, slew_deg + ahead_deg) }]
}

/** From one to another of two slews or radii. */
type Between = readonly [number, number]
/** From where to where on a line, 0 to 1. */
type Share = readonly [number, number]

/** Something that can hide the load, with the box round it and how near it comes to the slew centre. */
interface Screen extends Outline {
  feature: Feature
  box: Box
  centre_m: number
  top_m: number
}

/**
 * Which share of the line from an eye to a point is no higher than something is: what stands there hides the point. Null: it looks over
 * it all the way.
 */
function lowShare(eye_m: number, at_m: number, top_m: number): Share | null {
  const share = (top_m - eye_m) / (at_m - eye_m)
  if (eye_m > top_m) return at_m >= top_m ? null : [share, 1]
  return at_m > top_m ? [0, share] : [0, 1]
}

/** The corners of what is looked through to the load at one place, low enough for something to hide it. */
function lookedThrough(e: Point, load: Point, half_m: number, share: Share): Point[] {
  const [dx, dy] = [load.x_m - e.x_m, load.y_m - e.y_m]
  const far = Math.max(Math.hypot(dx, dy), 1e-9)
  // Lines that touch the load on either side; an eye over the load sees all of it at its feet.
  const wide = half_m < far * 0.99 ? half_m / Math.sqrt(far ** 2 - half_m ** 2) : 7
  // What of the load is nearer is looked at more steeply, what is further off less so.
  const [near, away] = [share[0] * Math.max(0, 1 - half_m / far), share[1] * (1 + half_m / far)]
  const corner = (along: number, side: number): Point => ({
    x_m: e.x_m + along * (dx - side * dy),
    y_m: e.y_m + along * (dy + side * dx),
  })
  return [corner(near, wide), corner(near, -wide), corner(away, -wide), corner(away, wide)]
}

function hides({ screen, share }: Look['over'][number], eye: Eye, slews: Between, radii_m: Between, half_m: number): boolean {
  // Between two slews load and eye go round outside of the straight line between their places.
  const bulge = 1 / Math.cos((Math.abs(slews[1] - slews[0]) / 2) * rad)
  const corners = slews.flatMap((slew_deg) =>
    [radii_m[0], radii_m[1] * bulge].flatMap((r) =>
      [1, bulge].flatMap((grown) => lookedThrough(eye.at(slew_deg, grown), atSlew(r, slew_deg), half_m, share)),
    ),
  )
  return !boxesApart(boxOf(corners), screen.box) && shapesMeet(convexHull(corners), screen.points, screen.closed)
}

const drawnUp = new WeakMap<Place, WeakMap<MachinePosition, readonly Screen[]>>()

/** What can hide a load at a place, in the frame of a machine that stands there: drawn up once for each. */
function screensAt(place: Place, position: MachinePosition): readonly Screen[] {
  const here = drawnUp.get(place) ?? new WeakMap<MachinePosition, readonly Screen[]>()
  drawnUp.set(place, here)
  const known = here.get(position)
  if (known) return known
  const screens = place.features
    .filter((f) => f.kind === 'solid' || f.kind === 'rack')
    .map((feature): Screen => {
      const o = outlineOf(feature, position)
      const centre_m = planDistance(o, { x_m: 0, y_m: 0 })
      return { ...o, feature, box: boxOf(o.points), top_m: feature.height_m ?? Infinity, centre_m }
    })
  here.set(position, screens)
  return screens
}

/** One eye, and what it does not look over, each with the share of the line that is no higher. */
interface Look {
  eye: Eye
  over: readonly { screen: Screen; share: Share }[]
}

/** The eyes that look after a load: the operator's, from every place they stand at. */
const operatorEyes = ({ machine, plan }: LiftContext): Eye[] => eyesOf(machine.eye, plan.lift.crew?.posts ?? [])

/** What an eye does not look over to something at a height. */
const lookTo = (eye: Eye, screens: readonly Screen[], height_m: number): Look => ({
  eye,
  over: screens.flatMap((screen) => {
    const share = lowShare(eye.z_m, height_m, screen.top_m)
    return share ? [{ screen, share }] : []
  }),
})

/** Everything that sight of one step asks for. */
function looking({ plan }: LiftContext, height_m: number, eyes: readonly Eye[]) {
  const screens = screensAt(plan.place, plan.setup.position)
  const looks = eyes.map((eye) => lookTo(eye, screens, height_m))
  const furthestEye_m = Math.max(...looks.map((l) => l.eye.out_m))
  return {
    looks,
    /** What is near enough to hide a load of a size that nobody knows. */
    near: (radius_m: number): Feature | null =>
      screens.find((s) => s.centre_m <= Math.max(radius_m + widest_m / 2, furthestEye_m))?.feature ?? null,
    /** What hides the load from every eye between two slews; null: one of them sees it. */
    hiddenBy: (slews: Between, radii_m: Between, half_m: number): Feature | null => {
      let first: Feature | null = null
      for (const { eye, over } of looks) {
        const within_m = Math.max(radii_m[1] + half_m, eye.out_m) * 1.01
        const by = over.find((o) => o.screen.centre_m <= within_m && hides(o, eye, slews, radii_m, half_m))
        if (!by) return null
        first ??= by.screen.feature
      }
      return first
    },
  }
}

/** A part of the way: slews by the arc's own count, radii, and how high the load's underside is there. */
interface Part {
  slews: Between
  radii_m: Between
  height_m: number
}

/** Taken up and put down at their heights, between them carried no lower than over what is on the way; where nobody has said, on the ground. */
function partsOf({ step, path }: LiftContext): Part[] {
  const h = heightsOf(step)
  const { from_deg, to_deg } = path.arc
  const slews: Between = [Math.min(from_deg, to_deg), Math.max(from_deg, to_deg)]
  const whole = { slews, radii_m: [path.least_m, path.greatest_m] as const, height_m: h ? h.over_m : 0 }
  if (!h) return [whole]
  const end = (which: 'pickUp' | 'setDown', at_deg: number, height_m: number): Part => {
    const r = step[which].radius_m
    return { slews: [at_deg, at_deg], radii_m: [low(r), high(r)], height_m }
  }
  return [whole, end('pickUp', from_deg, h.pickUp_m), end('setDown', to_deg, h.setDown_m)]
}

const halfWidth_m = ({ plan }: LiftContext): number | null => {
  const size = sizeOf(plan.lift.hung.load)
  return size && Math.hypot(size.length_m, size.width_m) / 2
}

/** The parts of a step's way in which the load is out of sight of every eye, where none is named the operator's, each no less than it is and by a quarter of a degree more at most. */
export function blindParts(ctx: LiftContext, half_m: number, eyes: readonly Eye[] = operatorEyes(ctx)): Blind[] {
  const parts = new Map<string, Blind>()
  const note = (behind: Feature, from_deg: number, to_deg: number) => {
    const known = parts.get(behind.id) ?? { behind, from_deg, to_deg }
    parts.set(behind.id, { behind, from_deg: Math.min(known.from_deg, from_deg), to_deg: Math.max(known.to_deg, to_deg) })
  }
  for (const { slews, radii_m, height_m } of partsOf(ctx)) {
    const { hiddenBy } = looking(ctx, height_m, eyes)
    /** The first finest piece that is hidden, from one end or from the other. */
    const find = (from_deg: number, to_deg: number, fromEnd: boolean): boolean => {
      const behind = hiddenBy([from_deg, to_deg], radii_m, half_m)
      if (!behind) return false
      if (to_deg - from_deg <= finest_deg) {
        note(behind, from_deg, to_deg)
        return true
      }
      const middle = (from_deg + to_deg) / 2
      const halves = [
        [from_deg, middle],
        [middle, to_deg],
      ] as const
      return (fromEnd ? [...halves].reverse() : halves).some(([a, b]) => find(a, b, fromEnd))
    }
    const [first, last] = slews
    const pieces = Math.max(1, Math.ceil((last - first) / coarse_deg))
    for (let i = 0; i < pieces; i++) {
      const [from_deg, to_deg] = [first + ((last - first) * i) / pieces, first + ((last - first) * (i + 1)) / pieces]
      if (find(from_deg, to_deg, false)) find(from_deg, to_deg, true)
    }
  }
  return [...parts.values()]
}

/** Who watches where the operator does not see the load; null: nobody who counts, and why. */
function watcher({
  machine,
  plan,
}: LiftContext): { by: string } | { lacks: 'blind' | 'no-camera' | 'no-signaller' | 'no-signals' } {
  const crew = plan.lift.crew
  if (crew?.sightBy === 'camera') return machine.eye?.camera ? { by: 'camera' } : { lacks: 'no-camera' }
  if (crew?.sightBy !== 'signaller') return { lacks: 'blind' }
  if (crew.signaller === null) return { lacks: 'no-signaller' }
  return crew.signals === 'agreed' ? { by: crew.signaller } : { lacks: 'no-signals' }
}

/** Where the operator stands further off than the remote works. */
function beyondRemote({ machine, plan }: LiftContext): Finding[] {
  const limit = machine.eye?.on === 'foot' ? machine.eye.range_m : undefined
  if (limit === undefined) return []
  return (plan.lift.crew?.posts ?? []).flatMap(({ x_m, y_m }, i): Finding[] => {
    const measured = Math.hypot(x_m, y_m)
    if (measured <= limit) return []
    const figures = { quantity: 'length', measured, nominal: measured, limit, utilisation: measured / limit } as const
    const on = { check: 'sight', subject: `place-${i + 1}`, verdict: 'outside', reason: 'beyond-remote' } as const
    return [found({ ...on, ...figures, detail: { post: i + 1 } })]
  })
}

/** Height of the eyes, and of the hands, of somebody who stands on the ground, metres. */
const standing_m = 1.6
/** Half the width that has to be seen of somebody who signals by hand, metres. */
const signals_m = 0.5
/** Where the boom stands as somebody is looked for from a cab that turns with it, degrees apart. */
const turning_deg = 5

/** What stands between the operator and a signaller who tells by hand, wherever the boom is on its way; null: they see each other. */
function signallerUnseen(ctx: LiftContext, at: Point): Feature | null {
  const { plan, path } = ctx
  const screens = screensAt(plan.place, plan.setup.position)
  const { from_deg, to_deg } = path.arc
  const n = Math.max(1, Math.ceil(Math.abs(to_deg - from_deg) / turning_deg))
  const [r, own_deg] = [Math.hypot(at.x_m, at.y_m), Math.atan2(at.y_m, at.x_m) / rad]
  const from = (eye: Eye, boom_deg: number): Feature | null => {
    const there: Eye = { ...eye, at: () => eye.at(boom_deg) }
    const by = lookTo(there, screens, standing_m).over.find((o) => hides(o, there, [own_deg, own_deg], [r, r], signals_m))
    return by?.screen.feature ?? null
  }
  for (let i = 0; i <= n; i++) {
    // From one of the places where the operator goes they see each other.
    const hiding = operatorEyes(ctx).map((eye) => from(eye, from_deg + ((to_deg - from_deg) * i) / n))
    if (hiding.length > 0 && hiding.every((f) => f !== null)) return hiding[0] ?? null
  }
  return null
}

/** Of what the operator does not see, what a signaller does not see either from where they stand; and whether they are seen themselves. */
function fromSignaller(ctx: LiftContext, half_m: number): Finding[] {
  const { crew } = ctx.plan.lift
  const stands = crew?.stands?.filter((s) => s.role === 'signaller') ?? []
  if (crew?.sightBy !== 'signaller' || stands.length === 0) return []
  const unseen = stands.map((s) => (crew.told === 'radio' ? null : signallerUnseen(ctx, s)))
  // Who cannot be seen tells the operator nothing; where none is, that is what is said.
  const telling = stands.filter((_, i) => unseen[i] === null)
  const eyes = (telling.length > 0 ? telling : stands).map(
    (p): Eye => ({ z_m: standing_m, out_m: Math.hypot(p.x_m, p.y_m), at: () => p }),
  )
  const blind = blindParts(ctx, half_m, [...operatorEyes(ctx), ...eyes]).map(({ behind: { id, label }, from_deg, to_deg }) =>
    found({
      check: 'sight',
      subject: `signaller-${id}`,
      verdict: 'not-proven',
      reason: 'signaller-blind',
      at: { radius_m: ctx.path.greatest_m, slew_deg: normalDegrees(from_deg) },
      detail: { label, from_deg, to_deg },
    }),
  )
  const behind = telling.length === 0 ? unseen[0] : null
  if (!behind) return blind
  const { id, label } = behind
  return [
    ...blind,
    found({ check: 'sight', subject: `unseen-${id}`, verdict: 'not-proven', reason: 'signaller-unseen', detail: { label } }),
  ]
}

const seen = () => [found({ check: 'sight', verdict: 'inside', reason: 'seen', detail: {} })]

/** Where on the way the load is hidden from the operator, and who watches there. */
function hidden(ctx: LiftContext): Finding[] {
  const { path } = ctx
  const half_m = halfWidth_m(ctx)
  if (half_m === null) {
    const near = looking(ctx, 0, operatorEyes(ctx)).near(path.greatest_m)
    if (!near) return seen()
    const { id: subject, label } = near
    return [found({ check: 'sight', subject, verdict: 'not-proven', reason: 'no-load-size', detail: { label } })]
  }
  const parts = blindParts(ctx, half_m)
  if (parts.length === 0) return seen()
  const who = watcher(ctx)
  const covered = parts.map(({ behind: { id: subject, label }, from_deg, to_deg }) => {
    const at = { radius_m: path.greatest_m, slew_deg: normalDegrees(from_deg) }
    const detail = { label, from_deg, to_deg }
    const on = { check: 'sight', subject, at } as const
    return 'by' in who
      ? found({ ...on, verdict: 'inside', reason: 'covered', detail: { ...detail, by: who.by } })
      : found({ ...on, verdict: 'not-proven', reason: who.lacks, detail })
  })
  return 'by' in who ? [...covered, ...fromSignaller(ctx, half_m)] : covered
}

/** Somebody sees the load all the way: the operator, or whoever signals where the operator does not. */
export const sightCheck: Check<'sight'> = {
  id: 'sight',
  since: 1,
  run: (ctx) =>
    ctx.reached || !ctx.step.laden || !looksFrom(ctx.machine, ctx.plan.lift) ? [] : [...beyondRemote(ctx), ...hidden(ctx)],
  // Of a working area it is not asked: a signaller may be named wherever the load goes, and the planned way says where one has to be.
  heldBackBy: ['boom-limits'],
  impliedBy: [],
  remedies: [],
}
