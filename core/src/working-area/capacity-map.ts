import { candidatesFor } from '../check/choose-table'
import { rulesFor } from '../check/context'
import { type GroundInput, groundUse as useOfGround } from '../ground/ground-pressure'
import { nth } from '../list'
import { telescopicBoom } from '../parts/booms/telescopic'
import type { SlewingParts } from '../parts/stability/slewing'
import { outwardShift_m } from '../parts/stability/stability'
import { counterweightNamed, upperMasses } from '../parts/superstructure'
import { g_mps2, rad } from '../physics'
import type { Deduction } from '../rating/chart-reading'
import { type ReadingRule, ratedAtSlew, ratingAt } from '../rating/read'
import type { RatingTable } from '../rating/table'
import { Refusal } from '../refusal'
import { elasticReactions, upperReactions } from '../statics/elastic'
import { type Footprint, prepareFootprint, type Support } from '../statics/footprint'
import { sumFixed, sumSlewing } from '../statics/resultant'
import { ratedByRule, type StabilityRule } from '../statics/tipping-load'
import { windForce_N } from '../wind/air'

export interface MapInput {
  machine: SlewingParts
  tables: readonly RatingTable[]
  /** A configuration by its id; omitted: at each slew the best of those that cover this footprint. */
  configuration?: string | undefined
  counterweight: string
  boom_m: number
  deflection_m?: number | undefined
  footprint: readonly Support[]
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
}

/** In a cell's place where there is nothing to say: not rated, or ground not proven. */
export const NOT_RATED = -1
/** In a cell's place where the machine would fall, or the boom does not reach. */
export const UNREACHABLE = Infinity

/** Index of a cell: slew by slew, all radii of one after another. Shares of each limit used; `NOT_RATED` and `beyond` besides. */
export interface CapacityMap {
  radii: number
  slews: number
  table: Float64Array
  stability: Float64Array
  /** One a support, in order. */
  ground: Float64Array[]
  /** 0 table, 1 stability, 2 + i the ground under support i. */
  governs: Uint8Array
}

const table_ = 0
const stability_ = 1

interface Ring {
  reaches: boolean
  /** Unloaded and loaded: along the boom, newton metres, and the whole weight. */
  unloaded: { force_N: number; along_Nm: number }
  loaded: { force_N: number; along_Nm: number }
  hook_m: number
  /** Use of the table by configuration; NOT_RATED where not rated. */
  tableUse: number[]
}

export interface PreparedMap {
  input: MapInput
  f: Footprint
  ringAt: (radius_m: number) => Ring
  rings: Ring[]
  /** Configurations that cover each slew. */
  covering: number[][]
  groundUse: ((reaction_N: number) => number)[]
  rules: readonly StabilityRule[]
  head_kg: number
  total_kg: number
  fixed: { wx_Nm: number; wy_Nm: number }
}

/** Everything that is the same for all cells, and for all cells of one radius. @throws Refusal as `assess`. */
export function prepareMap(input: MapInput): PreparedMap {
  const { machine, load, policy } = input
  const f = prepareFootprint(input.footprint)
  const counterweight = counterweightNamed(machine.name, machine.upper, input.counterweight)
  const chosen = candidatesFor(input.tables, counterweight.mass_kg, f.supports).filter(
    (c) => c.short.length === 0 && (input.configuration === undefined || c.configuration.id === input.configuration),
  )
  const rules = [...new Set(chosen.length === 0 ? rulesFor(null) : chosen.flatMap(rulesFor))]
  const onHook_kg = load.deductions.reduce((s, d) => s + (d.on === 'hook' ? d.mass_kg : 0), 0)
  const onBoom = load.deductions.filter((d) => d.on === 'boom')
  const onBoom_kg = onBoom.reduce((s, d) => s + d.mass_kg, 0)
  const total_kg = load.mass_kg + onHook_kg
  const wind_N = windForce_N(input.wind_mps, load.dragCoefficient, load.sailArea_m2)
  const fixed = sumFixed(machine.chassis.masses, {})
  const boom = telescopicBoom(machine.boom)
  const ringAt = (radius_m: number): Ring => {
    const tableUse = chosen.map((c) => {
      const rule: ReadingRule = c.table.linearPermitted ? policy.readingRule : 'worse-row'
      const { gross_kg } = ratingAt(c.table.axes, c.configuration, radius_m, input.boom_m, rule)
      return gross_kg === 'not-rated' ? NOT_RATED : gross_kg > 0 ? (total_kg + onBoom_kg) / gross_kg : UNREACHABLE
    })
    const none = { force_N: 1, along_Nm: 0 }
    try {
      const pose = boom.poseAtRadius(input.boom_m, radius_m, input.deflection_m ?? 0)
      const hook_m = radius_m + outwardShift_m(pose.tip_height_m, total_kg, { tilt_deg: input.tilt_deg, wind_N })
      const bare = sumSlewing([
        ...upperMasses(machine.upper, counterweight),
        ...boom.massesAt(input.boom_m, pose.angle_deg, onBoom),
      ])
      const hung = total_kg * policy.dynamicFactor * g_mps2
      return {
        reaches: pose.angle_deg <= machine.boom.maxAngle_deg + 1e-9 && pose.angle_deg >= machine.boom.minAngle_deg - 1e-9,
        unloaded: { force_N: fixed.force_N + bare.force_N, along_Nm: bare.along_Nm },
        loaded: { force_N: fixed.force_N + bare.force_N + hung, along_Nm: bare.along_Nm + hung * hook_m },
        hook_m,
        tableUse,
      }
    } catch (e) {
      if (e instanceof Refusal && e.code === 'out-of-reach')
        return { reaches: false, unloaded: none, loaded: none, hook_m: 0, tableUse }
      throw e
    }
  }
  return {
    input,
    f,
    ringAt,
    rings: input.radii_m.map(ringAt),
    covering: input.slew_deg.map((s) => chosen.flatMap((c, i) => (ratedAtSlew(c.configuration, s) ? [i] : []))),
    groundUse: f.supports.map((s) => groundUseOf(input.ground.find((g) => g.id === s.id))),
    rules,
    head_kg: boom.headMass_kg(input.boom_m, onBoom),
    total_kg,
    fixed,
  }
}

/** Share of what the ground allows, by reaction. */
function groundUseOf(g: MapInput['ground'][number] | undefined): (reaction_N: number) => number {
  return (g && useOfGround(g)) ?? (() => NOT_RATED)
}

export function emptyMap(p: PreparedMap): CapacityMap {
  const [radii, slews] = [p.input.radii_m.length, p.input.slew_deg.length]
  const layer = () => new Float64Array(radii * slews)
  return {
    radii,
    slews,
    table: layer(),
    stability: layer(),
    ground: p.f.supports.map(layer),
    governs: new Uint8Array(radii * slews),
  }
}

/**
 * Fills the cells of some slews. Table, stability and the ground under each support are independent; a cell's boom masses are
 * where its radius puts them; tilt, wind and the dynamic factor count as in `assess`. Not rated stays not rated, whatever
 * stability says.
 */
export function fillMap(p: PreparedMap, out: CapacityMap, fromSlew: number, toSlew: number): void {
  const scratch = scratchFor(p)
  for (let j = fromSlew; j < toSlew; j++) {
    turnTo(p, scratch, j)
    for (let i = 0; i < p.rings.length; i++) fillCell(p, scratch, nth(p.rings, i), out, j * p.rings.length + i)
  }
}

/** The share used at one slew of the map and any radius, as `useAt` says it: for finding an edge between two cells. */
export function probe(p: PreparedMap): (slew: number, radius_m: number) => number {
  const scratch = scratchFor(p)
  const one: CapacityMap = {
    radii: 1,
    slews: 1,
    table: new Float64Array(1),
    stability: new Float64Array(1),
    ground: p.f.supports.map(() => new Float64Array(1)),
    governs: new Uint8Array(1),
  }
  return (slew, radius_m) => {
    turnTo(p, scratch, slew)
    fillCell(p, scratch, p.ringAt(radius_m), one, 0)
    return useAt(one, 0)
  }
}

/** What the cells of one slew share. */
interface Scratch {
  reaction: Float64Array
  alongEdge: Float64Array
  c: number
  s: number
  covering: number[]
}

const scratchFor = (p: PreparedMap): Scratch => ({
  reaction: new Float64Array(p.f.supports.length),
  alongEdge: new Float64Array(p.f.edges.length),
  c: 1,
  s: 0,
  covering: [],
})

function turnTo(p: PreparedMap, t: Scratch, slew: number): void {
  const a = nth(p.input.slew_deg, slew) * rad
  t.c = Math.cos(a)
  t.s = Math.sin(a)
  t.covering = nth(p.covering, slew)
  p.f.edges.forEach((e, i) => {
    t.alongEdge[i] = e.nx * t.c + e.ny * t.s
  })
}

/** Mass on the hook at which the machine would tip in a cell, kg; nothing where it falls without one, Infinity where none could. */
function tipping_kg({ f: { edges }, fixed }: PreparedMap, { alongEdge, c, s }: Scratch, ring: Ring): number {
  const u = ring.unloaded
  const [ux, uy] = [(fixed.wx_Nm + u.along_Nm * c) / u.force_N, (fixed.wy_Nm + u.along_Nm * s) / u.force_N]
  let least = Infinity
  for (let e = 0; e < edges.length; e++) {
    const edge = nth(edges, e)
    const inside = edge.nx * ux + edge.ny * uy + edge.c
    if (inside <= 0) return 0
    const hook = ring.hook_m * nth(alongEdge, e) + edge.c
    if (hook < 0) least = Math.min(least, (u.force_N / g_mps2) * (inside / -hook))
  }
  return least
}

function fillCell(p: PreparedMap, t: Scratch, ring: Ring, out: CapacityMap, at: number): void {
  const { groundUse, f, fixed } = p
  const { edges } = f
  const { reaction, c, s, covering } = t
  const outriggers = f.supports.length
  const elastic = p.input.policy.legLoads === 'elastic'
  let table = NOT_RATED
  for (const k of covering) {
    const use = nth(ring.tableUse, k)
    if (use !== NOT_RATED && (table === NOT_RATED || use < table)) table = use
  }
  out.table[at] = table
  if (!ring.reaches) {
    out.stability[at] = UNREACHABLE
    for (let l = 0; l < outriggers; l++) nth(out.ground, l)[at] = NOT_RATED
    out.governs[at] = stability_
    return
  }
  const tipping = tipping_kg(p, t, ring)
  let rated = Infinity
  if (tipping !== Infinity) for (const rule of p.rules) rated = Math.min(rated, ratedByRule(tipping, rule, p.head_kg))
  const stability = rated === Infinity ? 0 : rated > 0 ? p.total_kg / rated : UNREACHABLE
  out.stability[at] = stability

  const w = ring.loaded
  const [x, y] = [(fixed.wx_Nm + w.along_Nm * c) / w.force_N, (fixed.wy_Nm + w.along_Nm * s) / w.force_N]
  let falls = false
  for (const edge of edges) if (edge.nx * x + edge.ny * y + edge.c <= f.least_m) falls = true
  if (!falls) {
    if (elastic) elasticReactions(f, x, y, w.force_N, reaction)
    else upperReactions(f, x, y, w.force_N, reaction)
  }
  let governs = table_
  let worst = table
  if (stability > worst) {
    governs = stability_
    worst = stability
  }
  for (let l = 0; l < outriggers; l++) {
    const use = falls ? UNREACHABLE : nth(groundUse, l)(nth(reaction, l))
    nth(out.ground, l)[at] = use
    if (use > worst) {
      governs = 2 + l
      worst = use
    }
  }
  // Without a table nothing else can make a rating.
  out.governs[at] = table === NOT_RATED ? table_ : governs
}

/** The whole map in one go. */
export function capacityMap(input: MapInput): CapacityMap {
  const p = prepareMap(input)
  const out = emptyMap(p)
  fillMap(p, out, 0, out.slews)
  return out
}

/** The greatest share used in a cell; `NOT_RATED` where the table does not rate it or the ground under a support is not proven. */
export function useAt(m: CapacityMap, at: number): number {
  const table = nth(m.table, at)
  if (table === NOT_RATED) return NOT_RATED
  let worst = Math.max(table, nth(m.stability, at))
  let open = false
  for (const g of m.ground) {
    const use = nth(g, at)
    if (use === NOT_RATED) open = true
    if (use > worst) worst = use
  }
  return open && worst <= 1 ? NOT_RATED : worst
}
