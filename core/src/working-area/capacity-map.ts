import { type Area, type Cell, type Layer, NOT_RATED, type Ring } from '../check/area'
import { checks } from '../check/checks'
import { candidatesFor, ratedAtRadius } from '../check/choose-table'
import { type LiftContext, rulesFor } from '../check/context'
import { grace_deg } from '../check/reached'
import { type GroundInput, groundUse } from '../ground/ground-pressure'
import { nth } from '../list'
import { boomModelOf } from '../parts/booms/boom-model'
import type { SlewingParts } from '../parts/stability/slewing'
import { outwardShift_m } from '../parts/stability/stability'
import { counterweightNamed, upperMasses } from '../parts/superstructure'
import type { SupportState } from '../parts/supports/support'
import { g_mps2, rad } from '../physics'
import type { Deduction } from '../rating/chart-reading'
import { type ReadingRule, ratedAtSlew } from '../rating/read'
import type { RatingTable } from '../rating/table'
import { Refusal } from '../refusal'
import { elasticReactions, upperReactions } from '../statics/elastic'
import { prepareFootprint, type Support } from '../statics/footprint'
import { sumFixed, sumSlewing } from '../statics/resultant'
import { windForce_N } from '../wind/air'

export interface MapInput {
  machine: SlewingParts
  tables: readonly RatingTable[]
  /** A configuration by its id; omitted: at each slew the best of those that cover this footprint. */
  configuration?: string | undefined
  counterweight: string
  /** How it stands, of several ways; omitted: whatever covers the footprint. */
  state?: SupportState | null | undefined
  boom_m: number
  deflection_m?: number | undefined
  /** With the greatest load that each support's own structure may carry, where it is to be looked at. */
  footprint: readonly (Support & { capacity_N?: number | undefined })[]
  ground: readonly ({ id: string } & Omit<GroundInput, 'reaction_N'>)[]
  load: {
    mass_kg: number
    deductions: readonly Deduction[]
    sailArea_m2: number
    dragCoefficient: number
  }
  policy: { readingRule: ReadingRule; legLoads: 'upper' | 'elastic'; dynamicFactor: number }
  wind_mps: number
  tilt_deg: number
  radii_m: readonly number[]
  slew_deg: readonly number[]
  /** The lift that it is the surroundings of: its place is then looked at too. */
  lift?: LiftContext | undefined
}

/** Index of a cell: slew by slew, all radii of one after another. Shares of each limit used; `NOT_RATED` and beyond besides. */
export interface CapacityMap {
  radii: number
  slews: number
  /** One for each thing that is looked at and differs from cell to cell, by the finding's id. */
  layers: { id: string; use: Float64Array }[]
  /** Which layer is used most, by its place in the list. */
  governs: Uint8Array
}

export interface PreparedMap {
  input: MapInput
  area: Area
  layers: Layer[]
  ringAt: (radius_m: number) => Ring
  rings: Ring[]
  /** Tables that cover each slew. */
  covering: number[][]
  fixed: { wx_Nm: number; wy_Nm: number }
}

/** Everything that is the same for all cells, and for all cells of one radius. @throws Refusal as `assess`. */
export function prepareMap(input: MapInput): PreparedMap {
  const { machine, load, policy } = input
  const f = prepareFootprint(input.footprint)
  const counterweight = counterweightNamed(machine.name, machine.upper, input.counterweight)
  const tables = candidatesFor(input.tables, counterweight.mass_kg, f.supports, input.state ?? null)
    .filter((c) => c.short.length === 0 && (input.configuration === undefined || c.configuration.id === input.configuration))
    .map((c) => {
      const rule: ReadingRule = c.table.linearPermitted ? policy.readingRule : 'worse-row'
      return { ...c, rule, rules: rulesFor(c) }
    })
  const massOn = (where: Deduction['on']) => load.deductions.reduce((s, d) => s + (d.on === where ? d.mass_kg : 0), 0)
  const onBoom = load.deductions.filter((d) => d.on === 'boom')
  const total_kg = load.mass_kg + massOn('hook')
  const area: Area = {
    f,
    tables,
    total_kg,
    used_kg: total_kg + massOn('boom'),
    head_kg: boomModelOf(machine.boom, input.boom_m).headMass_kg(input.boom_m, onBoom),
    groundUse: f.supports.map((s) => {
      const under = input.ground.find((g) => g.id === s.id)
      return under ? groundUse(under) : null
    }),
    capacity_N: input.footprint.map((s) => s.capacity_N ?? null),
    lift: input.lift ?? null,
  }
  const ringAt = ringsOf(input, area, counterweight, onBoom)
  return {
    input,
    area,
    layers: checks.flatMap((check) => check.field?.(area) ?? []),
    ringAt,
    rings: input.radii_m.map(ringAt),
    covering: input.slew_deg.map((s) => tables.flatMap((c, i) => (ratedAtSlew(c.configuration, s) ? [i] : []))),
    fixed: sumFixed(machine.chassis.masses, {}),
  }
}

/** The machine with its boom at a radius, empty and loaded, and what each table rates there. */
function ringsOf(
  input: MapInput,
  { tables, total_kg }: Area,
  counterweight: { mass_kg: number; radius_m: number },
  onBoom: readonly Deduction[],
): (radius_m: number) => Ring {
  const { machine, load, policy, boom_m } = input
  const wind_N = windForce_N(input.wind_mps, load.dragCoefficient, load.sailArea_m2)
  const fixed = sumFixed(machine.chassis.masses, {})
  const boom = boomModelOf(machine.boom, boom_m)
  return (radius_m) => {
    const gross_kg = tables.map((c) => {
      const read = ratedAtRadius(c, radius_m, { boom, boom_m, deflection_m: input.deflection_m ?? 0 }, c.rule).gross_kg
      return read === 'not-rated' ? null : read
    })
    try {
      const { angle_deg, tip_height_m } = boom.poseAtRadius(boom_m, radius_m, input.deflection_m ?? 0)
      const hook_m = radius_m + outwardShift_m(tip_height_m, total_kg, { tilt_deg: input.tilt_deg, wind_N })
      const bare = sumSlewing([...upperMasses(machine.upper, counterweight), ...boom.massesAt(boom_m, angle_deg, onBoom)])
      const hung = total_kg * policy.dynamicFactor * g_mps2
      const force_N = fixed.force_N + bare.force_N
      return {
        radius_m,
        reaches: angle_deg <= boom.maxAngle_deg + grace_deg && angle_deg >= boom.minAngle_deg - grace_deg,
        angle_deg,
        tip_height_m,
        unloaded: { force_N, along_Nm: bare.along_Nm },
        loaded: { force_N: force_N + hung, along_Nm: bare.along_Nm + hung * hook_m },
        hook_m,
        gross_kg,
      }
    } catch (e) {
      if (!(e instanceof Refusal) || e.code !== 'out-of-reach') throw e
      return { ...nowhere, radius_m, gross_kg }
    }
  }
}

export function emptyMap(p: PreparedMap): CapacityMap {
  const [radii, slews] = [p.input.radii_m.length, p.input.slew_deg.length]
  return mapOf(p, radii, slews)
}
const mapOf = ({ layers }: PreparedMap, radii: number, slews: number): CapacityMap => ({
  radii,
  slews,
  layers: layers.map(({ id }) => ({ id, use: new Float64Array(radii * slews) })),
  governs: new Uint8Array(radii * slews),
})

/**
 * Fills the cells of some slews. Every layer is independent; a cell's boom masses are where its radius puts them; tilt, wind and the
 * dynamic factor count as in `assess`. Not rated stays not rated, whatever stability says.
 */
export function fillMap(p: PreparedMap, out: CapacityMap, fromSlew: number, toSlew: number): void {
  const at = cellsOf(p)
  for (let j = fromSlew; j < toSlew; j++) {
    at.turnTo(j)
    for (let i = 0; i < p.rings.length; i++) {
      at.placed(nth(p.rings, i))
      fillCell(p, at.weighed(), out, j * p.rings.length + i)
    }
  }
}

/** The greatest share used at a radius, or that a limit is passed: what is passed in one cell most likely is in the next, and is asked first. */
function asking([rated, ...others]: readonly Layer[], at: ReturnType<typeof cellsOf>): (ring: Ring) => number {
  const light = others.filter((l) => !l.weighs)
  const heavy = others.filter((l) => l.weighs)
  const most = (of: Layer[], from: number, cell: Cell): number => {
    let [worst, open] = [from, false]
    for (let l = 0; l < of.length; l++) {
      const layer = nth(of, l)
      const u = layer.useAt(cell)
      if (u === NOT_RATED) open = true
      if (u > worst) worst = u
      if (worst > 1) {
        of.splice(l, 1)
        of.unshift(layer)
        return worst
      }
    }
    // What is not known counts where no limit is passed.
    return open ? NOT_RATED : worst
  }
  return (ring) => {
    const spot = at.placed(ring)
    const rating = rated?.useAt(spot) ?? NOT_RATED
    if (rating === NOT_RATED || rating > 1) return rating
    const beside = most(light, rating, spot)
    if (beside > 1) return beside
    const all = most(heavy, Math.max(rating, beside), at.weighed())
    return beside === NOT_RATED && all <= 1 ? NOT_RATED : all
  }
}

/**
 * The cells of a map one slew after another, each worked out when it is asked for, and any radius between them: for who does not need
 * them all.
 */
export function slewBySlew(p: PreparedMap) {
  const { layers, rings, ringAt } = p
  const at = cellsOf(p)
  const one = mapOf(p, 1, 1)
  const known = new Float64Array(rings.length).fill(Number.NaN)
  // Edges are searched for by halving: the same radii come again at each slew.
  const between = new Map<number, Ring>()
  const ringBetween = (radius_m: number) => {
    const ring = between.get(radius_m) ?? ringAt(radius_m)
    between.set(radius_m, ring)
    return ring
  }
  const used = asking(layers, at)
  return {
    turnTo: (slew: number): void => {
      at.turnTo(slew)
      known.fill(Number.NaN)
    },
    /** The share used in a cell of this slew, as `useAt` says it; where a limit is passed, not by how much. */
    useIn: (i: number): number => {
      const had = known[i] ?? Number.NaN
      if (!Number.isNaN(had)) return had
      const use = used(nth(rings, i))
      known[i] = use
      return use
    },
    useAtRadius: (radius_m: number): number => used(ringBetween(radius_m)),
    /** The layer that is used most in a cell of this slew. */
    governsIn: (i: number): string => {
      at.placed(nth(rings, i))
      fillCell(p, at.weighed(), one, 0)
      return nth(layers, nth(one.governs, 0)).id
    },
  }
}

/** Mass on the hook at which the machine would tip, kg; nothing where it falls without one, Infinity where none could. */
function tipping_kg(p: PreparedMap, { unloaded: u, hook_m }: Ring, along: Float64Array, c: number, s: number): number {
  const { fixed, area } = p
  const { edges } = area.f
  const [x, y] = [(fixed.wx_Nm + u.along_Nm * c) / u.force_N, (fixed.wy_Nm + u.along_Nm * s) / u.force_N]
  let least = Infinity
  for (let e = 0; e < edges.length; e++) {
    const edge = edges[e]
    if (!edge) continue
    const inside = edge.nx * x + edge.ny * y + edge.c
    if (inside <= 0) return 0
    const hook = hook_m * (along[e] ?? 0) + edge.c
    if (hook < 0) least = Math.min(least, (u.force_N / g_mps2) * (inside / -hook))
  }
  return least
}

const none = { force_N: 1, along_Nm: 0 }
const nowhere: Ring = {
  radius_m: 0,
  reaches: false,
  angle_deg: 0,
  tip_height_m: 0,
  unloaded: none,
  loaded: none,
  hook_m: 0,
  gross_kg: [],
}

/** One cell after another, in the same memory. */
function cellsOf(p: PreparedMap) {
  const { area, input, fixed, covering } = p
  const { f } = area
  const outriggers = f.supports.length
  const [once, along] = [new Float64Array(outriggers), new Float64Array(f.edges.length)]
  const reactions = input.policy.legLoads === 'elastic' ? elasticReactions : upperReactions
  const reaction = new Float64Array(outriggers)
  const cell: Cell = { ring: nowhere, slew_deg: 0, slew: -1, table: -1, falls: false, tipping_kg: 0, reaction }
  let [c, s] = [1, 0]
  let covers: readonly number[] = []
  /** Does it stand there, and with what on each support? The greater of what is known already and of this counts. */
  const carry = ({ force_N, along_Nm }: Ring['loaded']): boolean => {
    const [x, y] = [(fixed.wx_Nm + along_Nm * c) / force_N, (fixed.wy_Nm + along_Nm * s) / force_N]
    for (const e of f.edges) if (e.nx * x + e.ny * y + e.c <= f.least_m) return false
    reactions(f, x, y, force_N, once)
    for (let i = 0; i < outriggers; i++) reaction[i] = Math.max(reaction[i] ?? 0, once[i] ?? 0)
    return true
  }
  return {
    turnTo: (slew: number) => {
      cell.slew = slew
      cell.slew_deg = nth(input.slew_deg, slew)
      const a = cell.slew_deg * rad
      ;[c, s] = [Math.cos(a), Math.sin(a)]
      covers = nth(covering, slew)
      f.edges.forEach((e, i) => {
        along[i] = e.nx * c + e.ny * s
      })
    },
    /** At a radius of this slew; what weighs on the supports is not known yet. */
    placed: (ring: Ring): Cell => {
      cell.ring = ring
      cell.table = -1
      for (const k of covers) {
        const kg = ring.gross_kg[k] ?? null
        if (kg !== null && (cell.table < 0 || kg > (ring.gross_kg[cell.table] ?? 0))) cell.table = k
      }
      return cell
    },
    /** The same with that. */
    weighed: (): Cell => {
      const { ring } = cell
      if (!ring.reaches) return cell
      reaction.fill(0)
      cell.tipping_kg = tipping_kg(p, ring, along, c, s)
      carry(ring.unloaded)
      cell.falls = !carry(ring.loaded)
      return cell
    },
  }
}

function fillCell({ layers }: PreparedMap, cell: Cell, out: CapacityMap, at: number): void {
  let governs = 0
  let worst = -Infinity
  for (let l = 0; l < layers.length; l++) {
    const layer = layers[l]
    const column = out.layers[l]
    if (!layer || !column) continue
    const use = layer.useAt(cell)
    column.use[at] = use
    if (use > worst) {
      governs = l
      worst = use
    }
    // The rated capacity comes first: without it nothing else can make one.
    if (l === 0 && use === NOT_RATED) worst = Infinity
  }
  out.governs[at] = governs
}

/** The whole map in one go. */
export function capacityMap(input: MapInput): CapacityMap {
  const p = prepareMap(input)
  const out = emptyMap(p)
  fillMap(p, out, 0, out.slews)
  return out
}

/**
 * The greatest share used in a cell; `NOT_RATED` where the table does not rate it or something there is not proven. The rated capacity comes
 * first: where there is none nothing else is asked.
 */
export function useAt({ layers }: CapacityMap, at: number): number {
  const useOf = (l: number) => nth(nth(layers, l).use, at)
  let worst = useOf(0)
  if (worst === NOT_RATED) return NOT_RATED
  let open = false
  for (let l = 1; l < layers.length; l++) {
    const u = useOf(l)
    if (u === NOT_RATED) open = true
    if (u > worst) worst = u
  }
  return open && worst <= 1 ? NOT_RATED : worst
}
