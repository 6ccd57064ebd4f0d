import { contextsOf } from '../check/context'
import { ratingCheck } from '../check/rating'
import { reachedAt } from '../check/reached'
import { tableCheck } from '../check/table'
import { type Outline, outlineDistance } from '../clearance/standing'
import type { Case } from '../lift/case'
import { onHook } from '../lift/hook-load'
import { type Standing, type Step, sizeOf } from '../lift/plan'
import { nth } from '../list'
import type { Crane } from '../machine/crane'
import { foldingPoses } from '../parts/booms/articulated-geometry'
import { foldingOf, straightBoom } from '../parts/booms/boom-model'
import type { ArticulatedPose } from '../parts/booms/pose'
import type { Block } from '../parts/hoists/hoist'
import { ropeHoist } from '../parts/hoists/rope'
import { keepsFootFrom } from '../parts/supports/feet'
import { type OutriggerSetting, stopsOf } from '../parts/supports/outriggers'
import { propContacts } from '../parts/supports/props'
import type { SupportState } from '../parts/supports/support'
import { normalDegrees, rad } from '../physics'
import { outlineOf } from '../place/outline'
import type { Feature, MatKind, Place } from '../place/place'
import { groundAt, toMachine, weakestUnder } from '../place/standing'
import { high } from '../quantity/measured'
import { Refusal } from '../refusal'
import {
  type Asked,
  type Assumed,
  type Effort,
  nobody,
  type Offered,
  type Stand,
  stoodAt,
  type Unable,
  type Way,
  workOf,
} from './way'

/** A way of standing at a stand, with what it takes. */
interface Stood {
  standing: Standing
  effort: Effort[]
  assumed: Assumed[]
}

const groundUnder = (place: Place, at: Stand, p: { x_m: number; y_m: number }) =>
  place.ground.find((g) => g.id === groundAt(place, at, p)) ?? null

/** The largest mat of the place that spreads both ways. */
const matOf = (place: Place): MatKind | undefined =>
  [...place.mats].filter((m) => m.spreads === 'two-way').sort((a, b) => b.length_m * b.width_m - a.length_m * a.width_m)[0]

/** Outriggers as far out as there is room for, on the largest mats; what keeps one of them from standing at all. */
function onOutriggers(machine: Crane, place: Place, at: Stand, state: SupportState | null): Stood | Unable {
  const mat = matOf(place)
  const there = { place, position: at }
  const settings: OutriggerSetting[] = []
  for (const o of machine.outriggers ?? []) {
    const stop = [...stopsOf(o)].reverse().find((s) => !keepsFootFrom(o, s.id, mat, there))
    if (!stop) {
      const feature = keepsFootFrom(o, nth(stopsOf(o), 0).id, mat, there)
      return { reason: 'no-room', label: o.label, inTheWay: feature?.label ?? '' }
    }
    const ground = groundUnder(place, at, stop)
    settings.push({ id: o.id, at: { stop: stop.id }, mat: mat ?? null, ground, stroke_m: o.stroke.min_m })
  }
  const props = (state?.props ? propContacts(state.props) : []).map(
    (p): OutriggerSetting => ({
      id: p.id,
      at: { stop: 'set' },
      mat: mat ?? null,
      ground: groundUnder(place, at, p),
      stroke_m: 0,
    }),
  )
  const feet = settings.length + props.length
  return {
    standing: { on: 'outriggers', ...(state && { state: state.id }), outriggers: [...props, ...settings] },
    effort: [{ work: 'feet', count: feet }, ...(mat ? [{ work: 'mats', count: feet } as const] : [])],
    assumed: [{ what: 'level' }],
  }
}

/** Every way in which a crane can stand at a stand; what keeps it from standing there. */
function standingsOf(machine: Crane, place: Place, at: Stand): (Stood | Unable)[] {
  if (machine.tower?.base) {
    if (at.madeFor !== 'base') return []
    const certificate = { id: nobody.by, until: '9999-12-31' }
    return [{ standing: { on: 'base', certificate }, effort: [], assumed: [{ what: 'papers' }] }]
  }
  if (at.madeFor) return []
  if (machine.tracks) {
    const { length_m, gauge_m, width_m } = machine.tracks
    const ground = weakestUnder(place, at, { length_m, width_m: gauge_m + width_m })
    return [{ standing: { on: 'tracks', ground }, effort: [], assumed: [{ what: 'level' }] }]
  }
  const states = machine.supportStates?.filter((s) => s.for === 'lift') ?? [null]
  return states.map((state) => {
    if (state?.on !== 'wheels') return onOutriggers(machine, place, at, state)
    const ground = groundUnder(place, at, { x_m: 0, y_m: 0 })
    return {
      standing: { on: 'wheels', state: state.id, ground, tyres: 'checked' },
      effort: [],
      assumed: [{ what: 'level' }, { what: 'tyres' }],
    }
  })
}

/** What no machine stands in; where nobody has marked a stand, nor on what trucks and people go. */
const inItsWay = ({ kind }: Feature, { id }: Stand) =>
  ['solid', 'void', 'rack'].includes(kind) || (id === null && ['trailer', 'leveller', 'ramp', 'people'].includes(kind))

/** The machine itself would stand in something: what it is. */
function standsIn({ outline }: Crane, place: Place, at: Stand): string | null {
  const body = outline.plan
    .filter((p) => p.slews !== true && p.raised !== true)
    .map((p): Outline => ({ points: p.points.map(([x_m, y_m]) => ({ x_m, y_m })), closed: true }))
  const thing = place.features.find((f) => {
    if (!inItsWay(f, at)) return false
    const o = outlineOf(f, at)
    return body.some((b) => outlineDistance(b, o) === 0)
  })
  return thing?.label ?? null
}

/** Room that a load's head is planned to keep above what it is carried over, besides what the site asks for. */
const spare_m = 0.3
/** A load whose height, or whose slings', nobody has said is taken to hang so far below the head. */
const unmeasured_m = 3

/** How far under the boom's head the load's underside hangs, its block a little below the stop. */
function hangs_m({ wanted, policy }: Asked, { leastDrop_m }: Block): number {
  const { load, rigging_height_m } = wanted.hung
  const size = sizeOf(load)
  if (!size || rigging_height_m === undefined || leastDrop_m === undefined) return unmeasured_m
  return leastDrop_m + high(rigging_height_m) + size.height_m + policy.thingGap_m + spare_m
}

/** Points of the lift as the machine sees them from its stand. */
function seenFrom(at: Stand, { wanted }: Asked) {
  const polar = (p: { x_m: number; y_m: number }) => {
    const { x_m, y_m } = toMachine(at, p)
    return { radius_m: Math.hypot(x_m, y_m), slew_deg: normalDegrees(Math.atan2(y_m, x_m) / rad) }
  }
  const over_m = Math.max(wanted.over_m, wanted.from.height_m, wanted.to.height_m)
  return {
    pickUp: polar(wanted.from),
    setDown: polar(wanted.to),
    heights: { pickUp_m: wanted.from.height_m, setDown_m: wanted.to.height_m, over_m },
  }
}
type Seen = ReturnType<typeof seenFrom>

/** The shorter way round, and the other. */
const directionsOf = ({ pickUp, setDown }: Seen) => {
  const anticlockwise_deg = normalDegrees(setDown.slew_deg - pickUp.slew_deg)
  return anticlockwise_deg <= 180 ? (['anticlockwise', 'clockwise'] as const) : (['clockwise', 'anticlockwise'] as const)
}

/** With the boom at one length: by slewing; of a folding boom through the poses that hold its load high enough. Null: it does not get there. */
function stepsOf(machine: Crane, boom_m: number, seen: Seen, below_m: number): Step[] {
  const folding = foldingOf(machine.boom)
  if (!folding) {
    const boom = straightBoom(machine.boom)
    if (reachedAt(boom, boom_m, 0, [seen.pickUp.radius_m, seen.setDown.radius_m])) return []
    const lowest = boom.lowest(boom_m, ...ordered(seen), 0)
    if (lowest.tip_height_m - below_m < seen.heights.over_m) return []
    return directionsOf(seen).map((slewDirection) => ({
      do: 'slew',
      laden: true,
      boom_m,
      ...seen,
      slewDirection,
      radiusBasis: 'measured-under-load',
    }))
  }
  const extension_m = boom_m - folding.inner_m - folding.outer_m
  const outer_m = folding.outer_m + extension_m
  const within = (v: number, { min_deg, max_deg }: { min_deg: number; max_deg: number }) => v >= min_deg && v <= max_deg
  const poseAt = (end: 'pickUp' | 'setDown', height_m: number, slew_deg: number): ArticulatedPose | null => {
    const { radius_m } = seen[end]
    const found = foldingPoses({ inner_m: folding.inner_m, outer_m, pivot: folding.pivot }, { radius_m, height_m }).find(
      (p) => within(p.angle_deg, folding.innerAngle) && within(p.fold_deg, folding.fold),
    )
    return found ? { inner_deg: found.angle_deg, fold_deg: found.fold_deg, extension_m, slew_deg } : null
  }
  const { over_m } = seen.heights
  return directionsOf(seen).flatMap((direction): Step[] => {
    const from_deg = seen.pickUp.slew_deg
    const turned = normalDegrees(seen.setDown.slew_deg - from_deg)
    const to_deg = direction === 'anticlockwise' ? from_deg + turned : from_deg - normalDegrees(-turned)
    const carried_m = over_m + below_m
    const poses = [poseAt('pickUp', carried_m, from_deg), poseAt('setDown', carried_m, to_deg)]
    const [first, last] = poses
    if (!first || !last) return []
    const { heights } = seen
    return [{ do: 'pose', laden: true, waypoints: [first, last], mode: 'together', heights, radiusBasis: 'measured-under-load' }]
  })
}

const ordered = ({ pickUp, setDown }: Seen): [number, number] => [
  Math.min(pickUp.radius_m, setDown.radius_m),
  Math.max(pickUp.radius_m, setDown.radius_m),
]

/** What is fitted for it: the fewest parts of line that hold it. */
function partsFor(machine: Crane, asked: Asked): { parts: number; block: Block } {
  const hoist = ropeHoist(machine.name, machine.hoist)
  const all = [...hoist.parts].sort((a, b) => a - b)
  const holds = (parts: number) => {
    const block = hoist.blockOf(parts)
    const hung = onHook(block, asked.wanted.hung)
    return hung !== null && hung.total_kg <= Math.min(hoist.limit_kg(parts), block.hook_kg) * asked.policy.near_share
  }
  const parts = all.find(holds) ?? nth(all, all.length - 1)
  return { parts, block: hoist.blockOf(parts) }
}

/** Tools that something hangs from, where tools are changed. */
const toolsOf = (machine: Crane) => machine.truck?.attachments?.filter((a) => a.hook) ?? [null]

/** What a machine's display shows of what is fitted, taken as read and right. */
function shownBy(machine: Crane, fitted: Case['setup']['fitted'], boom_m: number): Case['setup']['fitted'] {
  const shows = machine.display?.shows ?? []
  if (shows.length === 0) return fitted
  const all = { ...fitted, boom_m }
  const selected = Object.fromEntries(shows.flatMap((s) => (s !== 'configuration' && all[s] !== undefined ? [[s, all[s]]] : [])))
  return { ...fitted, selected }
}

/** Share of the rating that a way uses, by its table alone: enough to leave out what is hopeless. Null: the table does not cover it. */
function ratedUse(c: Case): number | null {
  try {
    const findings = contextsOf(c).flatMap((ctx) => [...tableCheck.run(ctx), ...ratingCheck.run(ctx)])
    if (findings.some((f) => f.verdict === 'outside' && f.utilisation === null)) return null
    return Math.max(0, ...findings.map((f) => f.utilisation ?? 0))
  } catch (e) {
    if (e instanceof Refusal) return null
    throw e
  }
}

/** A way, and what share of its rating it uses; Infinity: no table covers it. */
export interface Rated {
  way: Way
  use: number
}

/** One choice of everything that is chosen. */
interface Chosen {
  at: Stand
  stands: Stood
  tool: ReturnType<typeof toolsOf>[number]
  counterweight: Crane['upper']['counterweights'][number]
  parts: number
  boom_m: number
  step: Step
}

function wayWith(machine: Crane, asked: Asked, chosen: Chosen): Way {
  const { at, stands, tool, counterweight, parts, boom_m, step } = chosen
  const lightest = Math.min(...machine.upper.counterweights.map((c) => c.mass_kg))
  const bare = { counterweight: counterweight.id, partsOfLine: parts, ...(tool && { attachment: tool.id }) }
  const fitted = shownBy(machine, bare, boom_m)
  const { setup, confirmed } = stoodAt(machine, asked, at, { standing: stands.standing, fitted })
  return {
    stand: at,
    setup,
    lift: {
      format: 'geolabe.lift/2',
      hung: asked.wanted.hung,
      steps: [step],
      crew: { signaller: nobody.by, sightBy: 'signaller', signals: 'agreed' },
    },
    effort: [
      ...stands.effort,
      ...(counterweight.mass_kg > lightest ? [{ work: 'counterweight', label: counterweight.label } as const] : []),
      ...(machine.boom.pinned || machine.boom.raising ? [{ work: 'boom', boom_m } as const] : []),
      ...(tool ? [{ work: 'tool', label: tool.label } as const] : []),
      { work: 'reeve', parts },
    ],
    assumed: [
      ...confirmed,
      ...stands.assumed,
      { what: 'radius-measured' },
      { what: 'signals' },
      ...(fitted.selected ? [{ what: 'display' } as const] : []),
    ],
  }
}

/**
 * Ways in which a crane would do it from a stand: as it can stand there, with each boom that gets there and each counterweight; what its table
 * rates first, of those the least work first. None: why not.
 */
export function onHookFrom({ machine, tables }: Offered & { machine: Crane }, asked: Asked, at: Stand): Rated[] | Unable {
  const { place, policy, conditions } = asked
  const seen = seenFrom(at, asked)
  const far = beyondReach(machine, seen)
  if (far) return far
  const inside = at.madeFor ? null : standsIn(machine, place, at)
  if (inside !== null) return { reason: 'no-room', label: machine.name, inTheWay: inside }
  const stood = standingsOf(machine, place, at)
  const can = stood.filter((s): s is Stood => 'standing' in s)
  const cannot = stood.find((s): s is Unable => 'reason' in s)
  if (can.length === 0) return cannot ?? { reason: 'no-stand' }
  const { parts, block } = partsFor(machine, asked)
  const below_m = hangs_m(asked, block)
  const ways = can.flatMap((stands) =>
    toolsOf(machine).flatMap((tool) =>
      machine.upper.counterweights.flatMap((counterweight) =>
        machine.boom.lengths_m.flatMap((boom_m) =>
          stepsOf(machine, boom_m, seen, below_m).map((step) =>
            wayWith(machine, asked, { at, stands, tool, counterweight, parts, boom_m, step }),
          ),
        ),
      ),
    ),
  )
  if (ways.length === 0) return unreached(machine, seen, below_m)
  const rated = ways.map((way) => {
    const use = ratedUse({ machine, tables, setup: way.setup, lift: way.lift, conditions, place, policy })
    return { way, use: use ?? Infinity }
  })
  const rank = (use: number) => (use < policy.near_share ? 0 : use <= 1 ? 1 : 2)
  return rated.sort((a, b) => rank(a.use) - rank(b.use) || workOf(a.way.effort) - workOf(b.way.effort) || a.use - b.use)
}

/** Further out than any boom of it gets; null: not so far. */
function beyondReach(machine: Crane, seen: Seen): Unable | null {
  const boom = straightBoom(machine.boom)
  const most_m = Math.max(...machine.boom.lengths_m.map((l) => boom.furthest_m(l)))
  const [, radius_m] = ordered(seen)
  return radius_m > most_m ? { reason: 'out-of-reach', radius_m, most_m } : null
}

/** Why no boom of it gets there, though not too far: not so high, or not so near. */
function unreached(machine: Crane, seen: Seen, below_m: number): Unable {
  const boom = straightBoom(machine.boom)
  const [nearest_m, furthest_m] = ordered(seen)
  if (machine.boom.articulated) return { reason: 'no-pose' }
  const needed_m = seen.heights.over_m + below_m
  const heads_m = machine.boom.lengths_m.flatMap((l) =>
    reachedAt(boom, l, 0, [furthest_m]) ? [] : [boom.poseAtRadius(l, furthest_m).tip_height_m],
  )
  const most_high_m = Math.max(0, ...heads_m)
  return most_high_m < needed_m
    ? { reason: 'too-high', most_m: Math.max(0, most_high_m - below_m) }
    : { reason: 'too-near', radius_m: nearest_m }
}
