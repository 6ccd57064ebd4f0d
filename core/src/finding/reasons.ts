import { z } from 'zod'
import { displayed } from '../parts/display'
import { markedParts } from '../parts/runway'
import { standRole } from '../parts/stand-role'

/** Nothing to add to the reason. */
const bare = z.strictObject({})
const table = z.string()
const rated = z.strictObject({ table, boom_m: z.number(), rule: z.enum(['worse-row', 'linear']), basis: z.string() })
/** A bearing point, and whether it carries most with the hook empty. */
const bearing = { label: z.string(), empty: z.boolean() }
/** Two bearing points whose mats lie near each other. */
const nearMats = z.strictObject({ label: z.string(), other: z.string() })
/** A foot beside an edge, each by its name. */
const besideEdge = z.strictObject({ label: z.string(), edge: z.string() })
const nearEdge = besideEdge.extend({ source: z.string() })
const named = z.strictObject({ label: z.string() })
const stands = z.strictObject({ role: standRole })
const slung = z.strictObject({ legs: z.number(), angle_deg: z.number() })
const shownAs = z.strictObject({ thing: z.enum(displayed), reads: z.string(), is: z.string() })
/** What hides the load, and over which part of the arc. */
const hidden = z.strictObject({ label: z.string(), from_deg: z.number(), to_deg: z.number() })
/** A piece of a way by its name. */
const piece = z.string()
/** What is beside a drawn way, and where on it. */
const besideWay = z.strictObject({ label: z.string(), x_m: z.number(), y_m: z.number() })
const overEdge = z.enum(['front', 'side'])
const aloft = z.strictObject({ persons: z.number(), most: z.number() })
const onFloor = z.strictObject({ label: z.string(), floor: z.string(), source: z.string() })
const drawnOut = z.strictObject({ out_m: z.number() })
const turned = z.strictObject({ rate_deg_s: z.number(), quiet_s: z.number(), out_m: z.number() })
const ground = z.strictObject({ ...bearing, ground: z.string(), source: z.string(), side_m: z.number().optional() })

/**
 * Every check, every reason it can give, and what goes with that reason. A reason that is not here cannot be given; one that has
 * no words does not compile (`wording/`).
 */
export const reasons = {
  mass: { unknown: bare, 'lifted-unknown': bare },
  table: {
    'no-table': bare,
    'unknown-configuration': bare,
    'legs-short': z.strictObject({ table, outriggers: z.string() }),
  },
  rating: {
    'outside-sector': z.strictObject({ table, outriggers: z.string().optional(), other: z.string().optional() }),
    'not-rated': z.strictObject({ table, boom_m: z.number() }),
    'bend-unknown': rated,
    capacity: rated,
    plate: z.strictObject({ table }),
    grid: z.strictObject({ table, height_m: z.number(), reach_m: z.number() }),
    'off-grid': z.strictObject({ table, height_m: z.number(), reach_m: z.number() }),
    'not-on-plate': z.strictObject({ table }),
    marks: z.strictObject({ part: z.enum(markedParts) }),
    'no-mark': z.strictObject({ part: z.enum(markedParts) }),
    hoist: named,
    'no-mark-on': named,
    stage: named.extend({ table, height_m: z.number() }),
    'nothing-on': bare,
    'no-row': z.strictObject({ what: z.string() }),
    'not-measured': z.strictObject({ what: z.string() }),
    battery: z.strictObject({ what: z.string() }),
  },
  selection: {
    'not-entered': z.strictObject({ thing: z.enum(displayed) }),
    agrees: shownAs,
    differs: shownAs,
  },
  share: { 'nothing-on': bare, least: named },
  'hoist-rope': { capacity: z.strictObject({ partsOfLine: z.number() }), chain: z.strictObject({ falls: z.number() }) },
  hook: { capacity: z.strictObject({ block: z.string() }) },
  'boom-limits': {
    'too-steep': z.strictObject({ angle_deg: z.number(), boom_m: z.number() }),
    'too-flat': z.strictObject({ angle_deg: z.number(), boom_m: z.number() }),
    'out-of-reach': z.strictObject({ boom_m: z.number() }),
  },
  level: {
    unread: bare,
    'no-limit': bare,
    'bubble-unproved': bare,
    tilt: bare,
    'stacking-floor': bare,
    'fall-unread': bare,
    fall: z.strictObject({ way: z.enum(['along', 'across']) }),
  },
  wind: {
    'no-limit': bare,
    'no-sail': bare,
    'no-mass': bare,
    unread: bare,
    speed: z.strictObject({ chart_mps: z.number() }),
    'under-roof': bare,
  },
  overturning: {
    'unstable-unloaded': bare,
    'cannot-tip': bare,
    tipping: z.strictObject({ tipping_kg: z.number(), edge: z.string() }),
    forward: z.strictObject({ tipping_kg: z.number() }),
    frame: z.strictObject({ edge: overEdge }),
    'by-papers': bare,
    'no-papers': bare,
    'papers-expired': z.strictObject({ until: z.string() }),
    reserve: z.strictObject({ edge: overEdge, along_pct: z.number(), across_pct: z.number() }),
  },
  motion: {
    'does-not-turn': z.strictObject({ label: z.string(), from_deg: z.number(), to_deg: z.number() }),
    'other-boom': z.strictObject({ label: z.string(), boom_m: z.number() }),
    allowed: named,
    'made-otherwise': named,
    'up-and-down': named,
    'ballast-stands': bare,
    'ballast-hangs': bare,
    'one-at-a-time': bare,
    'sync-unread': bare,
    aligned: bare,
    'not-aligned': bare,
  },
  axle: { rating: z.strictObject(bearing), steered: bare, 'front-left': bare },
  way: {
    'no-width': z.strictObject({ piece }),
    'no-load-size': z.strictObject({ piece }),
    'no-radius': z.strictObject({ piece }),
    'no-axle': z.strictObject({ piece }),
    nose: z.strictObject({ piece }),
    gap: z.strictObject({ piece, what: z.enum(['width', 'height', 'aisle', 'tips']) }),
    slope: z.strictObject({ piece, what: z.enum(['grade', 'cross-fall']) }),
    'too-tight': z.strictObject({ piece }),
    through: besideWay,
    touches: besideWay,
    beside: besideWay,
  },
  travel: {
    raised: z.strictObject({ most_m: z.number() }),
    'no-speed': z.strictObject({ piece }),
    margin: z.strictObject({ piece, edge: overEdge, permitted_mps: z.number().nullable() }),
  },
  grip: { 'faces-unknown': bare, friction: z.strictObject({ faces: z.enum(['dry', 'wet']) }) },
  guard: { 'no-figure': bare, height: z.strictObject({ tiers: z.number() }) },
  aloft: { 'not-weighed': bare, 'too-many': aloft, persons: aloft },
  traction: {
    friction: z.strictObject({ piece, surface: z.enum(['dry', 'wet', 'wet-steel', 'ice']) }),
    'towed-unknown': z.strictObject({ piece }),
  },
  wheel: { 'not-looked-at': bare, 'no-figure': z.strictObject(bearing), rating: z.strictObject(bearing) },
  floor: {
    unknown: bare,
    'no-figure': z.strictObject({ floor: z.string() }),
    axle: onFloor,
    wheel: onFloor,
    total: onFloor,
  },
  evidence: { 'not-confirmed': z.strictObject({ open: z.array(z.string()) }), confirmed: bare },
  backward: { 'falls-back': bare, behind: bare, 'under-boom': bare },
  outrigger: { capacity: z.strictObject(bearing) },
  ground: {
    'mats-near': nearMats,
    'mats-overlap': nearMats,
    unknown: ground,
    'nothing-presumed': ground,
    allowable: ground,
    presumed: ground,
  },
  edge: { 'none-near': bare, 'over-void': besideEdge, 'ask-engineer': besideEdge, engineer: nearEdge, setback: nearEdge },
  clearance: {
    'nothing-near': bare,
    'no-boom-size': named,
    'no-load-size': named,
    'no-heights': named,
    'too-many': named,
    gap: z.strictObject({ label: z.string(), body: z.enum(['boom', 'load', 'tail']) }),
  },
  people: {
    'none-drawn': bare,
    clear: named,
    closed: named,
    over: named,
    'no-load-size': named,
    past: named,
    across: named,
    'stands-clear': stands,
    'stands-under': stands,
    'stands-by-tail': stands,
    'stands-by-wheel': stands,
    'stands-inside-barriers': stands,
    'stands-outside-barriers': stands,
    'stands-in-line': stands,
    'stands-off-line': stands,
    'stands-unseen': stands,
    'stands-unsized': stands,
  },
  sight: {
    seen: bare,
    covered: hidden.extend({ by: z.string() }),
    blind: hidden,
    'no-camera': hidden,
    'no-signaller': hidden,
    'no-signals': hidden,
    'no-load-size': named,
    'beyond-remote': z.strictObject({ post: z.number() }),
    'signaller-blind': hidden,
    'signaller-unseen': named,
  },
  'overhead-line': {
    'none-drawn': bare,
    'no-height': named,
    'no-movement': named,
    'no-figure': named,
    'no-size': named,
    distance: z.strictObject({ label: z.string(), voltage_kV: z.number().nullable() }),
  },
  'hook-height': {
    'no-heights': bare,
    'no-block': bare,
    'no-size': bare,
    room: z.strictObject({ event: z.enum(['pickUp', 'over', 'setDown']) }),
  },
  'two-block': { 'no-block': bare, 'no-heights': bare, gap: drawnOut, stalls: drawnOut },
  structure: {
    'no-lengths': bare,
    'no-hull': bare,
    'sling-flat': bare,
    'no-mark': slung,
    sling: slung,
    arm: drawnOut,
    'foot-bears': bare,
    'foot-pull': bare,
    bending: named.extend({ stress_MPa: z.number(), allowable_MPa: z.number(), section_m: z.number(), at_m: z.number() }),
    trolley: z.strictObject({ wheels: z.number() }),
    pendants: z.strictObject({ boom_m: z.number(), at_deg: z.number() }),
    'raising-front': z.strictObject({ boom_m: z.number() }),
    'other-boom': bare,
    header: named,
    pressure: named,
    sideways: bare,
    'held-down': bare,
    'pulled-up': bare,
  },
  swing: { 'no-slew': bare, rate: turned, 'no-room': turned },
} satisfies Record<string, Record<string, z.ZodType>>

export type CheckName = keyof typeof reasons
type ReasonOf<C extends CheckName> = keyof (typeof reasons)[C] & string
/** What every check may have to say besides: it is due here and gave no answer. */
const unanswered = 'nothing-checks-this'

type Detail<T> = T extends z.ZodType ? z.output<T> : never
/** A check, a reason of its own and what goes with it. */
export type Said = {
  [C in CheckName]:
    | { [R in ReasonOf<C>]: { check: C; reason: R; detail: Detail<(typeof reasons)[C][R]> } }[ReasonOf<C>]
    | { check: C; reason: typeof unanswered; detail: z.output<typeof bare> }
}[CheckName]
export type Reason<C extends CheckName = CheckName> = Extract<Said, { check: C }>['reason']

export const checkNames = Object.keys(reasons) as CheckName[]

/** The same as a schema, for what crosses the wire. */
export const said = z.union(
  checkNames.flatMap((check) => [
    ...Object.entries<z.ZodType>(reasons[check]).map(([reason, detail]) =>
      z.object({ check: z.literal(check), reason: z.literal(reason), detail }),
    ),
    z.object({ check: z.literal(check), reason: z.literal(unanswered), detail: bare }),
  ]),
) as unknown as z.ZodType<Said, Said>
