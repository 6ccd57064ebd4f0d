import type { SetupPlan, Step } from '../lift/plan'
import type { StraddleMachine, TruckMachine } from '../machine/provable'
import { jointsFor, pointAt, poseFor, type ReachPart } from '../parts/booms/reach'
import type { DriveStep } from '../parts/truck-steps'
import { rad } from '../physics'
import { distanceToFeature, groundAt } from '../place/standing'
import { nominal } from '../quantity/measured'
import { goBy } from '../rating/axes'
import type { RatingTable } from '../rating/table'
import { Refusal } from '../refusal'
import { wayAlong, type Xy } from '../truck/route'
import { routeTo } from './route-to'
import { type Asked, type Effort, type Offered, type Stand, stoodAt, type Unable, type Way } from './way'

const xy = ({ x_m, y_m }: { x_m: number; y_m: number }): Xy => [x_m, y_m]
const long_m = (route: readonly Xy[]) =>
  route.slice(1).reduce((sum, [x, y], i) => sum + Math.hypot(x - (route[i]?.[0] ?? x), y - (route[i]?.[1] ?? y)), 0)

/** Forks so low on the way, metres. */
const carried_m = 0.15
/** Whoever rides up with a load is taken to weigh so much with all that he carries, kg. */
const rider_kg = 110
/** A walking pace. */
const slow_mps = 1.4

/** Stands where it takes the load up, its nose towards where it goes. */
function standAt(asked: Asked, to: Xy): Stand {
  const { from } = asked.wanted
  const heading_deg = Math.atan2(to[1] - from.y_m, to[0] - from.x_m) / rad
  return { x_m: from.x_m, y_m: from.y_m, heading_deg, id: null, label: '' }
}

/** Along a route: a truck is drawn over the place, a frame is told piece by piece. */
function driven(asked: Asked, route: readonly Xy[], height_m: number, drawn = true): DriveStep {
  const { way } = wayAlong(asked.place, route)
  const own = drawn && { route: route.map(([x, y]): [number, number] => [x, y]) }
  return { do: 'drive', laden: true, way, ...own, height_m, facing: 'load-first', speed_mps: slow_mps }
}

const groundThere = ({ place }: Asked, [x_m, y_m]: Xy) => {
  const id = groundAt(place, { x_m: 0, y_m: 0, heading_deg: 0 }, { x_m, y_m })
  return place.ground.find((g) => g.id === id) ?? null
}

/** What may be fitted to a truck: each tool; slabs and their extension as its table lists them; its battery as its plate asks. */
function fittings(
  { truck, id }: TruckMachine,
  tables: readonly RatingTable[],
): { fitted: SetupPlan['fitted']; effort: Effort[] }[] {
  const own = tables.filter((t) => t.machine === id)
  const battery = own.map((t) => t.battery?.min_kg).find((kg) => kg !== undefined)
  const base = battery === undefined ? {} : { battery_kg: battery }
  const tools = truck.attachments ?? []
  const bare = tools.length > 0 && tools.some((t) => t.id === 'forks') ? [] : [{ id: 'forks', label: '' }]
  const slabTables = own.filter((t) => goBy(t.axes, 'extension_m', 'slabs'))
  const slabs = slabTables.flatMap((t) =>
    t.configurations.flatMap((c) =>
      c.rows.flatMap((r) => c.columns.map((n) => ({ slabs: Number(n), extension_m: Number(r.at) }))),
    ),
  )
  const withSlabs = slabs.length > 0 ? unique(slabs) : [{}]
  return [...bare, ...tools.filter((t) => !('persons' in t && t.persons !== undefined))].flatMap((tool) =>
    withSlabs.map((s) => ({
      fitted: { ...base, ...(tools.length > 0 ? { attachment: tool.id } : {}), ...s },
      effort: [
        ...(tool.label ? [{ work: 'tool', label: tool.label } as const] : []),
        ...('slabs' in s && s.slabs > 0 ? [{ work: 'slabs', count: s.slabs } as const] : []),
      ],
    })),
  )
}
const unique = <T>(all: readonly T[]): T[] => [...new Map(all.map((x) => [JSON.stringify(x), x])).values()]

/** Ways of a boom that is drawn out: so far before where the load goes, as near as it gets there first. */
function reachSteps(reach: ReachPart, datum_m: number, asked: Asked): { pick: Step; place: Step; out_m: number }[] {
  const { from, to } = asked.wanted
  const nearest = (height_m: number) =>
    [0.5, 1, 1.5, 2, 2.5, 3, 3.5, 4, 5, 6, 7].find((reach_m) => reaches(reach, datum_m, { height_m, reach_m }))
  const near_m = nearest(from.height_m)
  const high = { height_m: to.height_m }
  if (near_m === undefined) return []
  const short = (angle_deg: number) => ({
    boom_m: reach.lengths.least_m,
    angle_deg: Math.min(reach.angles.most_deg, Math.max(reach.angles.least_deg, angle_deg)),
  })
  const step = (waypoints: Extract<Step, { do: 'reach' }>['waypoints']): Step => ({ do: 'reach', laden: true, waypoints })
  return [0.5, 1, 1.5, 2, 2.5, 3, 4, 5, 6, 7].flatMap((out_m) => {
    const there = { ...high, reach_m: out_m }
    if (!reaches(reach, datum_m, there)) return []
    const { angle_deg } = jointsFor(reach, datum_m, there)
    return [
      {
        pick: step([
          { height_m: from.height_m, reach_m: near_m },
          short(jointsFor(reach, datum_m, { height_m: from.height_m, reach_m: near_m }).angle_deg),
        ]),
        place: step([short(reach.angles.least_deg + 1), short(angle_deg), there]),
        out_m,
      },
    ]
  })
}
function reaches(reach: ReachPart, datum_m: number, at: { height_m: number; reach_m: number }): boolean {
  try {
    poseFor(reach, datum_m, at)
    return true
  } catch (e) {
    if (e instanceof Refusal) return false
    throw e
  }
}

/** A point so far before the end of a way. */
function before(route: readonly Xy[], back_m: number): Xy[] | null {
  const [a, b] = [route.at(-2), route.at(-1)]
  if (!a || !b) return null
  const long = Math.hypot(b[0] - a[0], b[1] - a[1])
  if (long <= back_m) return null
  const t = (long - back_m) / long
  return [...route.slice(0, -1), [a[0] + (b[0] - a[0]) * t, a[1] + (b[1] - a[1]) * t]]
}

/** What a truck does with it: what it raises, and what it drives between. */
interface Moves {
  steps: Step[]
  way_m: number
  state?: 'wheels' | 'stabilisers'
}

/** Why it is raised or taken up by none of its poses; null: it is. */
function beyondIt({ truck }: TruckMachine, { from, to }: Asked['wanted'], raised: readonly unknown[] | null): Unable | null {
  const { reach, chassis, faceToAxle_m } = truck
  const most_m = chassis.greatestHeight_m
  if (!reach) return Math.max(from.height_m, to.height_m) > most_m ? { reason: 'too-high', most_m } : null
  if (raised && raised.length > 0) return null
  const lowest = { boom_m: reach.lengths.least_m, angle_deg: reach.angles.least_deg }
  const { height_m: least_m } = pointAt(reach, faceToAxle_m, lowest)
  return Math.min(from.height_m, to.height_m) < least_m ? { reason: 'too-low', least_m } : { reason: 'too-high', most_m }
}

/** Along a route, or still where it is empty. */
function movesAlong(
  { truck }: TruckMachine,
  asked: Asked,
  route: readonly Xy[],
  raised: ReturnType<typeof reachSteps> | null,
): Moves[] {
  const { from, to } = asked.wanted
  const still = route.length === 0
  const stack = (height_m: number): Step => ({ do: 'mast', laden: true, waypoints: [{ height_m, tilt_deg: 0, sideShift_m: 0 }] })
  const drive = (r: readonly Xy[]): Step[] => (r.length > 1 ? [driven(asked, r, carried_m)] : [])
  if (!raised) return [{ steps: [stack(from.height_m), ...drive(route), stack(to.height_m)], way_m: long_m(route) }]
  return raised.flatMap(({ pick, place, out_m }) => {
    const short = still ? [] : before(route, out_m)
    if (short === null) return []
    const steps = [pick, ...drive(short), place]
    // Driven on its wheels; its feet are down only where it stays.
    const states = !truck.stabilisers ? [undefined] : still ? (['wheels', 'stabilisers'] as const) : (['wheels'] as const)
    return states.map((state) => ({ steps, way_m: long_m(short), ...(state && { state }) }))
  })
}

/** Ways in which a truck would do it: taken up, driven the shortest way that is open, put down or stacked. None: why not. */
export function onForks({ machine, tables }: Offered & { machine: TruckMachine }, asked: Asked): Way[] | Unable {
  const { wanted } = asked
  const { truck } = machine
  const { chassis, reach } = truck
  const raised = reach ? reachSteps(reach, truck.faceToAxle_m, asked) : null
  const beyond = beyondIt(machine, wanted, raised)
  if (beyond) return beyond
  const load_m = wanted.hung.load.size?.width_m ?? 0
  const width_m = Math.max(chassis.width_m, load_m) + 2 * asked.policy.trucks.sideGap_m
  const still = Math.hypot(wanted.to.x_m - wanted.from.x_m, wanted.to.y_m - wanted.from.y_m) < 0.05
  const route = still ? [] : routeTo(asked.place, xy(wanted.from), xy(wanted.to), width_m)
  if (route === null) return { reason: 'no-way' }
  const at = standAt(asked, route[1] ?? xy(wanted.to))
  const ground = groundThere(asked, xy(wanted.from))
  const persons = chassis.operator ? { persons: [{ mass_kg: rider_kg }] } : {}
  return fittings(machine, tables).flatMap(({ fitted, effort }) =>
    movesAlong(machine, asked, route, raised).map(({ steps, way_m, state }): Way => {
      const shows = machine.display?.shows.includes('attachment') && fitted.attachment
      const { setup, confirmed } = stoodAt(machine, asked, at, {
        standing: { on: 'wheels', ...(state && { state }), ground, tyres: 'checked' },
        fitted: { ...fitted, ...(shows ? { selected: { attachment: fitted.attachment } } : {}) },
      })
      return {
        stand: at,
        setup,
        lift: { format: 'geolabe.lift/2', hung: { ...wanted.hung, ...persons }, steps },
        effort: [...effort, ...(way_m > 0 ? [{ work: 'drive', way_m } as const] : [])],
        assumed: [
          ...confirmed,
          { what: 'level' },
          { what: 'tyres' },
          ...(way_m > 0 ? [{ what: 'driven', speed_mps: slow_mps } as const] : []),
          ...(fitted.battery_kg === undefined ? [] : [{ what: 'battery' } as const]),
          ...(shows ? [{ what: 'display' } as const] : []),
          ...(chassis.operator ? [{ what: 'operator-rides', mass_kg: rider_kg } as const] : []),
        ],
      }
    }),
  )
}

/** So near to where a dock is marked a load lies in it, metres. */
const atDock_m = 6
/** As high as a hull hangs on the way, metres. */
const hull_m = 1.5

/** A frame astride its load: raised in its slings, driven, put down; slings evenly about the load's centre. */
export function astride({ machine }: Offered & { machine: StraddleMachine }, asked: Asked): Way[] | Unable {
  const { wanted, place } = asked
  const { hoists } = machine
  const { beams, width_m } = hoists.straddle
  if (!wanted.hung.belly) return { reason: 'no-hull' }
  const up_m = Math.max(hull_m, wanted.to.height_m + 0.3)
  const still = Math.hypot(wanted.to.x_m - wanted.from.x_m, wanted.to.y_m - wanted.from.y_m) < 0.05
  // The water that its load lies in is between its wheels, and in nobody's way; any other is.
  const dock = place.positions.find(
    (p) => p.madeFor === 'frame' && Math.hypot(p.x_m - wanted.from.x_m, p.y_m - wanted.from.y_m) < atDock_m,
  )
  const open = { ...place, features: place.features.filter((f) => f.kind !== 'void' || distanceToFeature(f, wanted.from) > 0) }
  const route = still ? [] : routeTo(open, xy(wanted.from), xy(wanted.to), width_m)
  if (route === null) return { reason: 'no-way' }
  const centre = wanted.hung.load.cg ? nominal(wanted.hung.load.cg.x_m) : 0
  const at = { ...standAt(asked, route[1] ?? xy(wanted.to)), ...(dock && { id: dock.id, label: dock.label }) }
  const hoist = (from_m: number, to_m: number): Step => ({ do: 'hoist', laden: true, from_m, to_m, which: 'all' })
  return [2, 3, 4, 5, 6, 7, 8].flatMap((apart_m): Way[] => {
    const [front, rear] = [centre + apart_m / 2, centre - apart_m / 2]
    if (apart_m < beams.leastBetween_m || front > beams.front_m || rear < beams.rear_m) return []
    const [first, second] = hoists.each
    if (!first || !second) return []
    const { setup, confirmed } = stoodAt(machine, asked, at, {
      standing: {
        on: 'frame',
        hoists: [
          { id: first.id, x_m: front },
          { id: second.id, x_m: rear },
        ],
        synchronised: 'aligned',
        ground: groundThere(asked, xy(wanted.from)),
        fall: { along_pct: 0, cross_pct: 0 },
      },
      fitted: {},
    })
    const drive = route.length > 1 ? [driven(asked, route, up_m, false)] : []
    return [
      {
        stand: at,
        setup,
        lift: {
          format: 'geolabe.lift/2',
          hung: wanted.hung,
          steps: [hoist(wanted.from.height_m, up_m), ...drive, hoist(up_m, wanted.to.height_m)],
        },
        effort: [{ work: 'slings', count: 2 }, ...(still ? [] : [{ work: 'drive', way_m: long_m(route) } as const])],
        assumed: [
          ...confirmed,
          { what: 'slings-at', apart_m },
          { what: 'level' },
          { what: 'aligned' },
          ...(still ? [] : [{ what: 'driven', speed_mps: slow_mps } as const]),
        ],
      },
    ]
  })
}
