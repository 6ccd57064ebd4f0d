import { g_mps2, rad } from '../physics'
import { boundary } from '../search'
import { tick_s } from '../swing/axis'
import { catchInOne } from '../swing/reference'
import { swingPeriod_s } from '../swing/swing'
import type { Vec } from '../swing/vector'
import type { Course } from './course'
import { Drill, dragged_mps } from './drill'
import { isInTheirWay, nextCrossing } from './on-foot'
import { catchSpeed, type Plane } from './planes'
import { type Rig, restingAt } from './rig'
import type { OnDeck, Ring } from './ring'

/** One speed a tick for one axis, in its own unit a second. */
type Speeds = Map<number, number[]>

const lever_steps = 127
/** As fast as a load is let down. */
const gently_mps = 0.2

/** Levers, tick by tick, that make each axis go at given speeds: a dead time ahead, in the lever's own steps, what a step leaves made good by the next. */
function leversFor(rig: Rig, speeds: Speeds, ticks: number): number[][] {
  const out = Array.from({ length: ticks }, () => rig.axes.map(() => 0))
  for (const [axis, wanted] of speeds) {
    const l = rig.axes[axis]?.limits
    if (!l) continue
    let [speed, behind] = [0, 0]
    for (const [k, v] of wanted.entries()) {
      const before = speed
      behind += (v + (wanted[k - 1] ?? 0)) * (tick_s / 2)
      const ask = v === 0 && Math.abs(behind) < l.greatest * 1e-3 ? 0 : v + 2 * behind
      const u = Math.max(-1, Math.min(1, Math.round((ask / l.greatest) * lever_steps) / lever_steps))
      const to = u * l.greatest
      const most = (Math.abs(to) < Math.abs(speed) ? l.down : l.up) * tick_s
      speed += Math.max(-most, Math.min(most, to - speed))
      behind -= (speed + before) * (tick_s / 2)
      const row = out[k]
      if (row) row[axis] = u
    }
  }
  return out
}

/** Speed of a trapezium at a time: up, along, down. */
function trapezium(t: number, top: number, a: number, distance: number): number {
  const whole = distance / top + top / a
  return t <= 0 || t >= whole ? 0 : Math.min(top, a * t, a * (whole - t))
}

const plain = (distance: number, top: number, a: number): number[] => {
  const v = Math.min(top, Math.sqrt(Math.abs(distance) * a))
  const ticks = distance === 0 ? 0 : Math.ceil((Math.abs(distance) / v + v / a) / tick_s) + 1
  return Array.from({ length: ticks }, (_, k) => Math.sign(distance) * trapezium((k + 1) * tick_s, v, a, Math.abs(distance)))
}

/** Until everything stands after its last lever, ticks. */
const tailOf = (rig: Rig): number =>
  Math.round(0.5 / tick_s) + Math.max(...rig.axes.map((a) => Math.round(a.limits.dead_s / tick_s)))

/** Levers drive the drill; what has not moved for a while is waited for. */
function drive(d: Drill, rig: Rig, speeds: Speeds) {
  const longest = Math.max(0, ...[...speeds.values()].map((v) => v.length))
  const tail = tailOf(rig)
  const padded: Speeds = new Map([...speeds].map(([a, v]) => [a, [...v, ...Array.from({ length: tail }, () => 0)]]))
  for (const levers of leversFor(rig, padded, longest + tail)) d.step(levers)
}

const wait = (d: Drill, rig: Rig, ticks: number) => {
  for (let k = 0; k < ticks && !d.over; k++) d.step(rig.axes.map(() => 0))
}

/** How wide it swings in a plane now, and how far it is past its top outward or to the left. */
interface Swing {
  plane: Plane
  width_m: number
  phase_deg: number
}

/** The wider of what swings along and across. */
function widest(d: Drill, rope_m: number): Swing {
  const now = d.samples.at(-1)
  const w = Math.sqrt(g_mps2 / rope_m)
  const [along, across] = (['along', 'across'] as const).map((plane, i): Swing => {
    const [s, v] = [now?.beside_m[i] ?? 0, (now?.beside_mps[i] ?? 0) / w]
    return { plane, width_m: Math.hypot(s, v), phase_deg: Math.atan2(-v, s) / rad }
  })
  if (!along || !across) throw new RangeError('A load swings along and across.')
  return along.width_m > across.width_m ? along : across
}

/** Of what one move can take, so much is asked of it where it cannot take all. */
const ofOne_share = 0.9

/** The lever's move that catches what swings in a plane, at the first top that leaves time for it; of more than one move takes, as much as it can. */
function catchIn(d: Drill, rig: Rig, { plane, width_m, phase_deg }: Swing, radius_m: number) {
  const { axis, tip, sense, most_m } = catchSpeed(rig, plane, radius_m)
  const rope_m = restingAt(rig).rope_m
  const period_s = swingPeriod_s(rope_m, (width_m / rope_m) * 57.3)
  // Raising follows it inward: its tops are there half a period later.
  const inward = plane === 'along' && rig.reach.motion === 'luff'
  const to_top = (((((inward ? 180 : 0) - phase_deg) % 360) + 360) % 360) / 360
  const first_s = (to_top > 0 ? to_top : 1) * period_s
  // What bearing and rope take until then is not caught any more.
  const left_m = width_m * Math.exp((-rig.load.loss_per_s * first_s) / 2)
  const one_m = most_m(rope_m)
  const c = catchInOne(tip, rope_m, left_m <= one_m ? left_m : ofOne_share * one_m)
  const top_s = first_s + period_s * Math.max(0, Math.ceil((c.lead_s - first_s) / period_s))
  wait(d, rig, Math.round((top_s - c.lead_s) / tick_s))
  const u = sense * (inward ? -1 : 1)
  const held = Math.round(c.hold_s / tick_s)
  for (let k = 0; k < held; k++) d.step(rig.axes.map((_, i) => (i === axis ? u : 0)))
  wait(d, rig, Math.round((period_s * 0.6) / tick_s))
}

/** A swing that an assessor sets wide may take so many moves. */
const most_moves = 12
/** Set down still swinging, it stays below so much of what drags. */
const ofDragged_share = 0.8

/**
 * What the load begins with, caught: in one move where one takes it. What is left of a wide one, also where slewing has turned it along the boom, is
 * caught as well, until it would not drag as it is set down.
 */
function catchFirst(d: Drill, rig: Rig, { swings }: Course) {
  const [start] = [...swings].sort((a, b) => b.amplitude_m - a.amplitude_m)
  if (!start) return
  const { rope_m, radius_m } = restingAt(rig)
  const { plane, amplitude_m, phase_deg } = start
  catchIn(d, rig, { plane, width_m: amplitude_m, phase_deg }, radius_m)
  for (let move = 1; move < most_moves; move++) {
    const left = widest(d, rope_m)
    if (left.width_m * Math.sqrt(g_mps2 / rope_m) <= ofDragged_share * dragged_mps) return
    catchIn(d, rig, left, d.samples.at(-1)?.radius_m ?? radius_m)
  }
}

/** From nought to one and still at both ends, in its first three rates too. */
const smooth = (x: number) => (x <= 0 ? 0 : x >= 1 ? 1 : x ** 4 * (35 - 84 * x + 70 * x ** 2 - 20 * x ** 3))

/** The same direction, by whole turns as near to another as it gets. */
const nearTo = (other_deg: number, deg: number) => deg + 360 * Math.round((other_deg - deg) / 360)

interface Way {
  /** Each axis where it has to stand at a tick. */
  at: Map<number, number[]>
  /** The most that any of them asks of its lever or of its brake, as a share of what it has. */
  strain: number
}

/** Where the load is in plan, tick by tick, on its way from where it hangs to over a ring. */
function loadOn(rig: Rig, figures: readonly number[], load: Vec, ring: Ring, ticks: number): (k: number) => OnDeck {
  const slewing = figures[rig.axes.findIndex((a) => a.motion === 'slew')]
  const from = {
    r: Math.hypot(load[0], load[1]),
    turn: nearTo(slewing ?? rig.slew_deg, Math.atan2(load[1], load[0]) / rad),
  }
  return (k) => {
    const x = smooth(k / ticks)
    const [r, turn] = [from.r + x * (ring.radius_m - from.r), (from.turn + x * (ring.slew_deg - from.turn)) * rad]
    return [r * Math.cos(turn), r * Math.sin(turn)]
  }
}

/**
 * Where tip and rope have to be, every so many ticks, so that the load goes smoothly from here to over a ring in so many ticks, at one height: over the load by as much
 * ahead as speeds it up, and behind as it slows down.
 */
function wayTo(rig: Rig, figures: readonly number[], load: Vec, ring: Ring, ticks: number, every = 1): Way {
  const axisOf = (m: string) => rig.axes.findIndex((a) => a.motion === m)
  const [slew, reach] = [axisOf('slew'), axisOf(rig.reach.motion)]
  const hoists = hoistsOf(rig)
  const motion = (at: readonly number[]) => restingAt(rig, at)
  const dt_s = every * tick_s
  const loadAt = loadOn(rig, figures, load, ring, ticks)
  const now = motion(figures)
  const at = new Map<number, number[]>([slew, reach, ...hoists].filter((i) => i >= 0).map((i) => [i, []]))
  let [height_m, turned] = [now.height_m, figures[slew] ?? rig.slew_deg]
  for (let k = 0; k <= ticks; k += every) {
    const [a, b, c] = [loadAt(k - every), loadAt(k), loadAt(k + every)]
    const lead = (height_m - load[2]) / g_mps2 / dt_s ** 2
    const [x, y] = [b[0] + lead * (a[0] - 2 * b[0] + c[0]), b[1] + lead * (a[1] - 2 * b[1] + c[1])]
    const next = figures.map((f, i) => (i === reach ? rig.reach.at(Math.hypot(x, y)) : f))
    height_m = motion(next).height_m
    turned = nearTo(turned, Math.atan2(y, x) / rad)
    at.get(slew)?.push(turned)
    at.get(reach)?.push(next[reach] ?? 0)
    for (const hoist of hoists)
      at.get(hoist)?.push((figures[hoist] ?? 0) + now.rope_m - (now.height_m - load[2]) + (now.height_m - height_m))
  }
  return { at, strain: strainOf(rig, at, dt_s) }
}

/** The most that a way asks of an axis: of its speed, or of how its speed may change. */
function strainOf(rig: Rig, at: Way['at'], dt_s: number): number {
  let most = 0
  for (const [axis, path] of at) {
    const l = rig.axes[axis]?.limits
    if (!l) continue
    for (let k = 1; k + 1 < path.length; k++) {
      const [a, b, c] = [path[k - 1] ?? 0, path[k] ?? 0, path[k + 1] ?? 0]
      most = Math.max(most, Math.abs(c - b) / dt_s / l.greatest, Math.abs(a - 2 * b + c) / dt_s ** 2 / Math.min(l.up, l.down))
    }
  }
  return most
}

/** Asked of levers and brakes at most, as a share of what they have. */
const most_strain = 0.9
/** A slow boom may take so many swings over a way: it is found within that. */
const slowest = 60
/** Whether a way can be driven is looked at every so many ticks. */
const coarse = 12

/** So much longer than the quickest it may take, in steps, where that spares the levers. */
const longer = [1, 1.15, 1.3, 1.5]

/** How often the lever of an axis turns round along a way. */
function turnsOf(path: readonly number[], least: number): number {
  let [turns, way, from] = [0, 0, path[0] ?? 0]
  for (const at of path) {
    if (Math.abs(at - from) < least) continue
    const now = Math.sign(at - from)
    if (way !== 0 && now !== way) turns++
    way = now
    from = at
  }
  return turns
}

/** Of a few ways, the first on which no lever turns round more than on any: a boom that slews quickly throws the load out, and luffing would have to follow. */
function calmest(rig: Rig, quick: number, wayIn: (ticks: number) => Way): number {
  const ways = longer.map((by) => {
    const ticks = Math.round(quick * by)
    const turns = [...wayIn(ticks).at].map(([axis, path]) => turnsOf(path, (rig.axes[axis]?.limits.greatest ?? 1) * 0.02))
    return { ticks, turns: turns.reduce((a, b) => a + b, 0) }
  })
  const fewest = Math.min(...ways.map((w) => w.turns))
  return ways.find((w) => w.turns === fewest)?.ticks ?? quick
}

/** A way from where its axis stands, however little beside the load that is: what it is off is made good all along, not with a jerk. */
const fromWhere = (path: readonly number[], stands: number): number[] =>
  path.map((x, k) => x + (stands - (path[0] ?? stands)) * (1 - smooth(k / Math.max(1, path.length - 1))))

/** Its hoist, or both that carry one load. */
const hoistsOf = (rig: Rig): number[] => rig.axes.flatMap((a, i) => (a.motion === 'hoist' || a.motion === 'rear' ? [i] : []))

/** Speeds up or down by so much, no faster than so much and than a share of what its slowest hoist can. */
function hoisting(rig: Rig, by_m: number, most_mps: number, share: number): number[] {
  const limits = hoistsOf(rig).flatMap((i) => rig.axes[i]?.limits ?? [])
  const top_mps = Math.min(most_mps, ...limits.map((l) => share * l.greatest))
  return plain(by_m, top_mps, Math.min(...limits.flatMap((l) => [l.up, l.down])))
}

/** Up or down by so much: level. */
function hoistBy(d: Drill, rig: Rig, by_m: number, most_mps: number, share: number) {
  const speeds = hoisting(rig, by_m, most_mps, share)
  drive(d, rig, new Map(hoistsOf(rig).map((i) => [i, speeds])))
}

/** So many ticks a way takes: as quick as leaves no swing. */
function ticksTo(rig: Rig, figures: readonly number[], load: Vec, rope_m: number, ring: Ring): number {
  const wayIn = (ticks: number) => wayTo(rig, figures, load, ring, ticks, coarse)
  // Never quicker than one swing there and back: a load cannot follow.
  const least = Math.round(swingPeriod_s(rope_m) / tick_s)
  const quick = Math.ceil(boundary((t) => wayIn(Math.round(t)).strain > most_strain, least, least * slowest, 4))
  return calmest(rig, quick, wayIn)
}

/** From where the load hangs to over a ring at its height; then let down. */
function toRing(d: Drill, rig: Rig, ring: Ring) {
  const now = d.samples.at(-1)
  if (!now) return
  const figures = d.axesAt()
  const { at } = wayTo(rig, figures, now.load, ring, ticksTo(rig, figures, now.load, now.rope_m, ring))
  const speedsOf = (path: readonly number[]) => path.map((x, k) => (x - (path[k - 1] ?? x)) / tick_s)
  drive(d, rig, new Map([...at].map(([axis, path]) => [axis, speedsOf(fromWhere(path, figures[axis] ?? 0))])))
  const down_m = (d.samples.at(-1)?.load[2] ?? 0) - rig.deck_m - rig.load.half_m + 0.1
  hoistBy(d, rig, -down_m, gently_mps, 1)
  wait(d, rig, 150)
}

/**
 * The course as a very good operator would drive it: the swing caught in one move, then ring by ring, each way as quick as leaves no swing, plumb
 * before it is lifted and let down gently. Run through the same motion as anybody’s.
 */
export function referenceRun(whole: Rig, course: Course): Drill {
  const d = new Drill(whole, course)
  const { rig } = d
  catchFirst(d, rig, course)
  for (let leg = 0; leg < course.legs.length && !d.over; leg++) {
    const ring = course.legs[leg]
    if (!ring) break
    letOver(d, rig, ring)
    if (leg > 0) liftPlumb(d, rig)
    else wait(d, rig, 1)
    toRing(d, rig, ring)
  }
  return d
}

const lifted = { most_mps: Number.POSITIVE_INFINITY, share: 0.7 }
/** Up from where it stands. */
const liftPlumb = (d: Drill, rig: Rig) => hoistBy(d, rig, rig.hangs_m, lifted.most_mps, lifted.share)

/** Whoever crosses is over by so much before the load comes, or sees it in time to stay, seconds. */
const spare_s = 1.5

/** With whoever crosses the way: stands until they are not on it as the load comes; once it is there they wait for it. */
function letOver(d: Drill, rig: Rig, ring: Ring) {
  const [who, now] = [d.onFoot, d.samples.at(-1)]
  if (!who || !now) return
  const hoists = hoistsOf(rig)
  const figures = d.axesAt().map((f, i) => (hoists.includes(i) ? f + rig.hangs_m : f))
  const load: Vec = [now.load[0], now.load[1], now.load[2] + rig.hangs_m]
  const ticks = ticksTo(rig, figures, load, now.rope_m - rig.hangs_m, ring)
  const goes = loadOn(rig, figures, load, ring, ticks)
  let k = 0
  while (k < ticks && !isInTheirWay(who, goes(k), rig.load.radius_m)) k++
  const lifts = k === 0 ? 0 : hoisting(rig, rig.hangs_m, lifted.most_mps, lifted.share).length + tailOf(rig)
  const comes_s = (lifts + k) * tick_s
  // The leg has gone on for so long: its load landed, and what came to rest was waited for.
  const gone_s = (d.samples.length - (d.landed.at(-1)?.tick ?? 0)) * tick_s
  let at_s = gone_s + comes_s
  for (;;) {
    const { begins_s, over_s } = nextCrossing(who, at_s - spare_s)
    if (begins_s > at_s + spare_s) break
    at_s = over_s + 2 * spare_s
  }
  wait(d, rig, Math.ceil((at_s - gone_s - comes_s) / tick_s))
}
