import { assessSetup, type Trial } from '../assess/assess-setup'
import type { Finding } from '../finding/finding'
import { heavyFoot_N } from '../ground/edge-setback'
import type { SetupPlan } from '../lift/plan'
import { liftsOnOutriggers, type OutriggerCrane } from '../machine/crane'
import type { Machine } from '../machine/machine'
import { feetOf, furtherOut, stopsOf } from '../parts/supports/outriggers'
import type { SupportState } from '../parts/supports/support'
import { type Feature, type GroundKind, type MatKind, type Place, sitePolicy } from '../place/place'
import { groundAt } from '../place/standing'
import { tailGap } from '../place/tail'
import type { Point } from '../plane/point'
import { outriggersShortOf } from '../rating/covers'
import { type RatingTable, type StandingConfiguration, saysStanding } from '../rating/table'
import { Refusal } from '../refusal'
import type { Support } from '../statics/footprint'
import { type Random, shuffled, spread } from './lots'

/** What can be wrong with how a machine stands, as it is seen from above. */
export const standFaults = ['leg-short', 'over-cover', 'near-edge', 'weak-ground', 'tail-room', 'out-of-level'] as const
export type StandFault = (typeof standFaults)[number]

/** Those that one outrigger has: which one is asked as well. */
const atFoot = new Set<StandFault>(['leg-short', 'over-cover', 'near-edge', 'weak-ground'])
export const isAtFoot = (f: string): boolean => [...atFoot].some((x) => x === f)

/** Somebody set a machine up and says that it stands well: what is wrong with it, and where? */
export interface StandItem {
  of: 'stand'
  /** Made up round the machine, which stands in its middle with its nose along x. */
  place: Place
  setup: SetupPlan
  /** The sheet that they mean to work by. */
  table: string
  configuration: string
  /** The most that each outrigger presses with, once round with a load and without, newtons. */
  feet_N: Readonly<Record<string, number>>
  /** How far out of level that sheet allows. */
  level_deg: number
  wrong: StandFault | 'nothing'
  /** Outriggers that it is wrong with; none where it is wrong with the whole. */
  where: readonly string[]
  /** What the checks of a set-up say of that; none where no check of its own does. */
  findings: readonly Finding[]
}

/** A way for the machine to stand by one sheet of its tables: every outrigger at the stop that the sheet was made for. */
interface Stance {
  machine: OutriggerCrane
  table: RatingTable
  tables: readonly RatingTable[]
  configuration: StandingConfiguration
  state: SupportState | null
  stops: readonly { id: string; stop: string }[]
  trial: Trial
  level_deg: number
}

const [hard_kPa, mat_m] = [300, 0.12]
/** An edge runs so far either way: out of sight. */
const far_m = 40
/** What is in order has at least so much room to its limit, what is not is over it by as much; nobody is asked about what lies between. */
const [clear_share, over_share] = [0.8, 1.25]
/** Scenes tried for one item. */
const most_tries = 24

/** A footprint is drawn from stops, and rounded. */
const sameStop_m = 0.05

function stopsFor({ outriggers }: OutriggerCrane, configuration: StandingConfiguration): Stance['stops'] | null {
  const { footprint } = configuration.appliesTo.standing
  const found = outriggers.flatMap((o) => {
    const foot = footprint.find((f) => f.id === o.id)
    const stop = stopsOf(o).find((s) => foot && Math.hypot(s.x_m - foot.x_m, s.y_m - foot.y_m) < sameStop_m)
    return stop ? [{ id: o.id, stop: stop.id }] : []
  })
  if (found.length !== footprint.length || found.length !== outriggers.length) return null
  // Legs that are in stand under the machine, where nothing is seen from above.
  const isIn = outriggers.some((o) => stopsOf(o).length > 1 && found.some((f) => f.id === o.id && f.stop === stopsOf(o)[0]?.id))
  return !isIn && outriggersShortOf(configuration, feetOf(outriggers, settingsOf(found))).length === 0 ? found : null
}

/** Something on the hook in the middle of what the sheet rates; by heights nothing is hung. */
function trialOf(machine: OutriggerCrane, table: RatingTable, c: StandingConfiguration): Trial | null {
  const boom_m = machine.boom.lengths_m[0]
  if (boom_m === undefined) return null
  if (table.axes.row.quantity !== 'radius_m') return { boom_m, radius_m: 0.6 * boom_m, load_kg: null }
  const column = c.columns.indexOf(boom_m)
  const rated = c.rows.filter((r) => (r.ratings_kg[column] ?? 0) > 0)
  const row = rated[Math.floor(rated.length / 2)]
  return row ? { boom_m, radius_m: Number(row.at), load_kg: Math.round(0.7 * Number(row.ratings_kg[column])) } : null
}

/** Sheets for all round, on outriggers by themselves. */
function stancesOf(machine: Machine, tables: readonly RatingTable[]): Stance[] {
  if (!liftsOnOutriggers(machine)) return []
  const states = machine.supportStates?.filter((s) => s.on === 'outriggers' && s.for === 'lift' && !s.props && !s.contacts)
  return tables.flatMap((table) => {
    const { level_deg } = table
    if (level_deg === undefined) return []
    return table.configurations.filter(saysStanding).flatMap((configuration) => {
      const { sector, forbidden } = configuration.appliesTo
      const state = states?.find((s) => s.configurations?.includes(configuration.id) ?? true) ?? null
      const stops = sector || forbidden?.length || (states && !state) ? null : stopsFor(machine, configuration)
      const trial = trialOf(machine, table, configuration)
      return stops && trial ? [{ machine, table, tables, configuration, state, stops, trial, level_deg }] : []
    })
  })
}

/** The stop next further in, where a beam has one. */
function stopInside({ machine }: Stance, { id, stop }: Stance['stops'][number]): string | null {
  const outrigger = machine.outriggers.find((o) => o.id === id)
  const inside = outrigger ? stopsOf(outrigger).filter((s) => furtherOut(outrigger, s.id).some((f) => f.id === stop)) : []
  return inside.at(-1)?.id ?? null
}

/** So far a tail has to stand out over the feet's own width for anything to stand in its way between them. */
const tailOut_m = 0.3
const widest = (feet: readonly Point[]) => Math.max(...feet.map((f) => Math.abs(f.y_m)))

/** Which mistakes a machine can be stood with, by its own parts and tables. */
export function standFaultsOf(machine: Machine, tables: readonly RatingTable[]): StandFault[] {
  const stances = stancesOf(machine, tables)
  if (stances.length === 0) return []
  const there: Partial<Record<StandFault, boolean>> = {
    'leg-short': stances.some((s) => s.stops.some((x) => stopInside(s, x) !== null)),
    'tail-room': stances.some((s) => hasTail(s)),
  }
  return standFaults.filter((f) => there[f] ?? true)
}

/** Its tail comes out at least nearly as far as half its feet's width: something can stand in its way between them. */
const hasTail = ({ machine, stops }: Stance): boolean =>
  machine.upper.tailSwingRadius_m > 0.55 * widest(feetOf(machine.outriggers, settingsOf(stops))) + tailOut_m

const settingsOf = (stops: Stance['stops']) => stops.map(({ id, stop }) => ({ id, at: { stop } }))

/** How everything lies that can be wrong, before the place is drawn. */
interface Scene {
  stops: Stance['stops']
  mat_m: number
  /** Under which foot weaker ground lies, and what it takes. */
  soft: { foot: string | null; kPa: number }
  cover: { foot: string; gap_m: number }
  trench: { side: 1 | -1; gap_m: number; turned: number; drop_m: number; soil: 'firm' | 'loose' }
  stack: { side: 1 | -1; gap_m: number; at_m: number } | null
  tilt: { deg: number; towards: number }
}

const hardGround: GroundKind = { id: 'hard', label: 'rolled stone', allowable_kPa: hard_kPa, source: 'The site’s own figure.' }
const softGround = (kPa: number): GroundKind => ({
  id: 'soft',
  label: 'Backfill',
  allowable_kPa: kPa,
  source: 'The site’s own figure.',
})

const matOf = (side_m: number): MatKind => ({
  id: 'mat',
  label: 'Mat',
  length_m: side_m,
  width_m: side_m,
  thickness_m: mat_m,
  allowableBending_MPa: 60,
  mass_kg: 100,
  spreads: 'two-way',
})

const polygon = (points: [number, number][]): Feature['geometry'] => ({ type: 'Polygon', points })
const square = (x: number, y: number, half: number): Feature['geometry'] =>
  polygon([
    [x - half, y - half],
    [x + half, y - half],
    [x + half, y + half],
    [x - half, y + half],
  ])

/** An edge along one side of the machine, a little turned, its nearest point so far from the nearest mat. */
function trenchOf({ trench: t, mat_m: mat }: Scene, feet: readonly Support[]): Feature {
  const slope = Math.tan(t.turned)
  // Corners of the mats, as far out as they reach across the edge's own way.
  const corners = feet.flatMap((f) => [-1, 1].map((i) => t.side * f.y_m + mat / 2 - slope * (f.x_m + (i * mat) / 2)))
  const at = (x: number): [number, number] => [x, t.side * (Math.max(...corners) + t.gap_m / Math.cos(t.turned) + slope * x)]
  return {
    id: 'trench',
    label: 'the trench',
    kind: 'edge',
    geometry: { type: 'LineString', points: [at(-far_m), at(far_m)] },
    drop_m: t.drop_m,
    soil: t.soil,
  }
}

function featuresOf(scene: Scene, { machine }: Stance, feet: readonly Support[]): Feature[] {
  const soft = feet.find((f) => f.id === scene.soft.foot)
  // Where it lies under no foot it lies between them.
  const softAt = soft ?? { x_m: 0, y_m: 0 }
  const cover = feet.find((f) => f.id === scene.cover.foot)
  const half = 0.4
  const inwards = (cover?.x_m ?? 0) > 0 ? -1 : 1
  const coverX = (cover?.x_m ?? 0) + inwards * (scene.mat_m / 2 + scene.cover.gap_m + half)
  const stack = scene.stack
  const stackY = stack ? stack.side * (machine.upper.tailSwingRadius_m + stack.gap_m + half) : 0
  return [
    {
      id: 'soft',
      label: 'the backfill',
      kind: 'ground',
      geometry: square(softAt.x_m, softAt.y_m, scene.mat_m / 2 + 0.35),
      ground: 'soft',
    },
    ...(cover ? [{ id: 'cover', label: 'the cover', kind: 'void' as const, geometry: square(coverX, cover.y_m, half) }] : []),
    trenchOf(scene, feet),
    ...(stack ? [{ id: 'stack', label: 'the stack', kind: 'solid' as const, geometry: square(stack.at_m, stackY, half) }] : []),
  ]
}

const anyPolicy = sitePolicy.parse({})

/** The scene as a place with the machine set up in it. */
function placed(scene: Scene, stance: Stance): { place: Place; setup: SetupPlan; feet: readonly Support[] } {
  const { machine, configuration, state } = stance
  const feet = feetOf(machine.outriggers, settingsOf(scene.stops))
  const position = { x_m: 0, y_m: 0, heading_deg: 0 }
  const ground = [hardGround, softGround(scene.soft.kPa)]
  const place: Place = {
    format: 'geolabe.place/1',
    id: 'made-up',
    name: 'Made up',
    note: '',
    ground,
    defaultGround: 'hard',
    features: featuresOf(scene, stance, feet),
    hazards: [],
    positions: [{ id: 'here', label: 'Here', ...position }],
    mats: [matOf(scene.mat_m)],
    loads: [],
    policy: anyPolicy,
  }
  const { counterweight_kg } = configuration.appliesTo.standing
  const { attachment } = configuration.appliesTo
  const setup: SetupPlan = {
    format: 'geolabe.setup/2',
    place: place.id,
    position,
    standing: {
      on: 'outriggers',
      ...(state ? { state: state.id } : {}),
      outriggers: feet.map((foot) => ({
        id: foot.id,
        at: { stop: scene.stops.find((s) => s.id === foot.id)?.stop ?? '' },
        mat: matOf(scene.mat_m),
        ground: ground.find((g) => g.id === groundAt(place, position, foot)) ?? null,
        stroke_m: machine.outriggers.find((o) => o.id === foot.id)?.stroke.max_m ?? 0,
      })),
    },
    fitted: {
      counterweight: machine.upper.counterweights.find((c) => c.mass_kg === counterweight_kg)?.id,
      partsOfLine: machine.hoist.reevings.at(-1)?.parts,
      ...(attachment ? { attachment } : {}),
    },
    level: {
      pitch_deg: scene.tilt.deg * Math.cos(scene.tilt.towards),
      roll_deg: scene.tilt.deg * Math.sin(scene.tilt.towards),
      levelVerified: true,
    },
    confirmed: [],
  }
  return { place, setup, feet }
}

interface Looked {
  /** What is wrong, and with which feet; null: something is neither in order nor plainly wrong. */
  wrong: ReadonlyMap<StandFault, readonly string[]> | null
  feet_N: Record<string, number>
  findings: readonly Finding[]
}

/** Which mistake it is that a check of the set-up names. */
function faultOf({ check, reason }: Finding): StandFault | null {
  if (check === 'edge') return reason === 'over-void' ? 'over-cover' : 'near-edge'
  if (check === 'ground') return 'weak-ground'
  // With a leg short there may be no sheet left to say how level it has to be.
  return check === 'level' && reason !== 'no-limit' ? 'out-of-level' : null
}

/** What the checks of a set-up make of it. */
function look(scene: Scene, stance: Stance): Looked & ReturnType<typeof placed> {
  const made = placed(scene, stance)
  const { place, setup, feet } = made
  const { machine, tables, configuration, trial } = stance
  const { findings, laden, empty } = assessSetup({ machine, tables, setup, place, policy: place.policy }, trial)
  const most = (id: string) => Math.max(...[...(laden ?? []), ...empty].filter((c) => c.id === id).map((c) => c.upper_N))
  const short = outriggersShortOf(configuration, feet)
  const wrong = new Map<StandFault, string[]>(short.length > 0 ? [['leg-short', short]] : [])
  for (const f of findings) {
    const fault = faultOf(f)
    if (!fault || f.verdict === 'inside') continue
    const foot = feet.find((x) => f.subject === x.id || f.subject?.startsWith(`${x.id}-`))
    wrong.set(fault, [...(wrong.get(fault) ?? []), ...(foot && isAtFoot(fault) ? [foot.id] : [])])
  }
  if (tailGap(place, setup.position, machine.upper.tailSwingRadius_m)) wrong.set('tail-room', [])
  const unclear = findings.some((f) => f.verdict === 'near' && faultOf(f) !== null)
  return { ...made, findings, wrong: unclear ? null : wrong, feet_N: Object.fromEntries(feet.map(({ id }) => [id, most(id)])) }
}

const known = new WeakMap<Machine, Map<StandingConfiguration, Record<string, number> | null>>()

/** What each foot presses with where nothing is wrong; null: it cannot stand so, or nothing can be tried on it. */
function pressOf(stance: Stance): Record<string, number> | null {
  const of = known.get(stance.machine) ?? new Map<StandingConfiguration, Record<string, number> | null>()
  known.set(stance.machine, of)
  const before = of.get(stance.configuration)
  if (before !== undefined) return before
  const press = pressed(stance)
  of.set(stance.configuration, press)
  return press
}

function pressed(stance: Stance): Record<string, number> | null {
  const foot = stance.stops[0]?.id ?? ''
  try {
    return look(
      {
        stops: stance.stops,
        mat_m: 1,
        soft: { foot: null, kPa: hard_kPa },
        cover: { foot, gap_m: 9 },
        trench: { side: 1, gap_m: 30, turned: 0, drop_m: 1, soil: 'firm' },
        stack: null,
        tilt: { deg: 0, towards: 0 },
      },
      stance,
    ).feet_N
  } catch (e) {
    if (e instanceof Refusal) return null
    throw e
  }
}

/** So far over a limit is what is wrong: plainly at level 0, by little at 1. */
const overBy = (random: Random, level: number) => spread(random, over_share, over_share + 0.2 + 1.2 * (1 - level))
const underBy = (random: Random) => spread(random, 1.1 / clear_share, 2)

/** Everything in order, drawn by lot, but for what is to be wrong. */
function sceneOf(random: Random, stance: Stance, press: Record<string, number>, wrong: StandFault | null, level: number): Scene {
  const { stops, machine } = stance
  const ids = shuffled(random, stops)
  const [coverAt, softAt] = ids
  const shortAt = ids.findLast((x) => stopInside(stance, x) !== null)
  const feet = feetOf(machine.outriggers, settingsOf(stops))
  const left = (feet.find((f) => f.id === coverAt?.id)?.y_m ?? 0) > 0
  const most_N = Math.max(...Object.values(press))
  const mat = Math.ceil(10 * Math.sqrt(most_N / (0.7e3 * hard_kPa))) / 10 + 0.1 * Math.floor(3 * random())
  const mat_m = Math.max(mat, 0.5)
  const under_kPa = (press[softAt?.id ?? ''] ?? 0) / mat_m ** 2 / 1000
  const weak = wrong === 'weak-ground'
  const soil = random() < 0.5 ? ('firm' as const) : ('loose' as const)
  const drop_m = Math.round(spread(random, 5, 9)) / 10
  const needed_m = drop_m * (soil === 'firm' ? 1 : 2)
  const off = Math.max(needed_m * spread(random, 1.1 / clear_share, 1.7), most_N > heavyFoot_N ? 2.1 * drop_m : 0)
  const near = random() < 0.5
  return {
    stops: stops.map((s) => (wrong === 'leg-short' && s === shortAt ? { id: s.id, stop: stopInside(stance, s) ?? s.stop } : s)),
    mat_m,
    soft: weak
      ? { foot: softAt?.id ?? null, kPa: Math.max(5, 5 * Math.floor(under_kPa / overBy(random, level) / 5)) }
      : near
        ? { foot: softAt?.id ?? null, kPa: Math.min(hard_kPa - 20, 5 * Math.ceil((under_kPa * underBy(random)) / 5)) }
        : { foot: null, kPa: 5 * Math.round(spread(random, 8, 24)) },
    cover: {
      foot: coverAt?.id ?? '',
      gap_m: wrong === 'over-cover' ? -spread(random, 0.12, 0.2 + 0.4 * (1 - level)) : spread(random, 0.3, 0.8),
    },
    trench: {
      side: left ? 1 : -1,
      gap_m: wrong === 'near-edge' ? needed_m / overBy(random, level) : off,
      turned: spread(random, -0.13, 0.13),
      drop_m,
      soil,
    },
    stack: hasTail(stance)
      ? {
          side: left ? -1 : 1,
          gap_m: wrong === 'tail-room' ? spread(random, -0.3 * (1 - level), 0.35) : spread(random, 0.7, 1.4),
          at_m: spread(random, -0.3, 0.3),
        }
      : null,
    tilt: {
      deg: stance.level_deg * (wrong === 'out-of-level' ? overBy(random, level) : spread(random, 0.1, clear_share)),
      towards: spread(random, 0, 2 * Math.PI),
    },
  }
}

/** Exactly this is wrong with it, as the checks have it; null: nothing is. */
const isJust = ({ wrong }: Looked, fault: StandFault | null) =>
  wrong !== null && (fault ? wrong.size === 1 && wrong.has(fault) : wrong.size === 0)

/**
 * A stand that one mistake was made with, or none; null: none that its checks tell apart was found.
 *
 * @param wrong what may be wrong with it
 * @param right nothing is
 * @example standItem(randomFrom(1), tern, [ternTable], 'near-edge', 0, false)?.where // ['FL'], or whichever it is
 */
export function standItem(
  random: Random,
  machine: Machine,
  tables: readonly RatingTable[],
  { wrong, level, right }: { wrong: StandFault; level: number; right: boolean },
): StandItem | null {
  const fault = right ? null : wrong
  const fits = (s: Stance) =>
    (fault !== 'leg-short' || s.stops.some((x) => stopInside(s, x) !== null)) && (fault !== 'tail-room' || hasTail(s))
  const stances = stancesOf(machine, tables).filter(fits)
  for (let i = 0; i < most_tries; i++) {
    const stance = stances[Math.floor(random() * stances.length)]
    const press = stance && pressOf(stance)
    if (!stance || !press) continue
    const seen = look(sceneOf(random, stance, press, fault, level), stance)
    if (!isJust(seen, fault)) continue
    const { place, setup, feet_N } = seen
    const findings = seen.findings.filter((f) => fault !== null && faultOf(f) === fault && f.verdict !== 'inside')
    const told = { table: stance.table.id, configuration: stance.configuration.id, level_deg: stance.level_deg }
    return {
      of: 'stand',
      place,
      setup,
      feet_N,
      findings,
      ...told,
      wrong: fault ?? 'nothing',
      where: (fault && seen.wrong?.get(fault)) ?? [],
    }
  }
  return null
}
