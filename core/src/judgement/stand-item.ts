import { assessSetup } from '../assess/assess-setup'
import type { Finding } from '../finding/finding'
import { heavyFoot_N } from '../ground/edge-setback'
import type { SetupPlan } from '../lift/plan'
import type { Machine } from '../machine/machine'
import type { Place } from '../place/place'
import { tailGap } from '../place/tail'
import { outriggersShortOf } from '../rating/covers'
import type { RatingTable, StandingConfiguration } from '../rating/table'
import { Refusal } from '../refusal'
import { type Random, shuffled, spread } from './lots'
import { clear_share, over_share } from './made-up'
import { hard_kPa, placed, type Scene } from './scene'
import { feetAt, hasTail, type Stance, stancesOf, stopInside } from './stance'

/** What can be wrong with how a machine stands, as it is seen from above. */
export const standFaults = ['leg-short', 'over-cover', 'near-edge', 'weak-ground', 'tail-room', 'out-of-level'] as const
export type StandFault = (typeof standFaults)[number]

/** Those that one outrigger has: which one is asked as well. */
const atFoot: readonly string[] = ['leg-short', 'over-cover', 'near-edge', 'weak-ground'] satisfies StandFault[]
export const isAtFoot = (f: string): boolean => atFoot.includes(f)

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

/** Scenes tried for one item. */
const most_tries = 24

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
  const { stops } = stance
  const ids = shuffled(random, stops)
  const [coverAt, softAt] = ids
  const shortAt = ids.findLast((x) => stopInside(stance, x) !== null)
  const feet = feetAt(stance, stops)
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
 * @example standItem(randomFrom(1), tern, [ternTable], { wrong: 'near-edge', level: 0, right: false })?.where // ['FL'], or whichever it is
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
