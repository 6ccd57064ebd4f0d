import { TruckContext } from '../check/truck-context'
import { truckTraction, truckTravel, truckWay } from '../check/truck-travels'
import type { Finding } from '../finding/finding'
import type { Case } from '../lift/case'
import type { Machine } from '../machine/machine'
import { isTruck, type TruckMachine } from '../machine/provable'
import type { DriveStep, Surface, WayPart } from '../parts/truck-steps'
import type { GroundKind } from '../place/place'
import { usualPolicy } from '../place/policies'
import { Refusal } from '../refusal'
import { type Random, spread } from './lots'
import { clear_share, madeUp, over_share } from './made-up'

/** What can be wrong with how a truck is about to be driven over a piece of its way. */
export const wayFaults = [
  'forks-raised',
  'too-steep',
  'across-slope',
  'too-narrow',
  'too-low',
  'slippery',
  'turned-fast',
] as const
export type WayFault = (typeof wayFaults)[number]

/** Somebody is about to drive a load over a piece of way and says that it may go: what is wrong with that? */
export interface WayItem {
  of: 'way'
  part: WayPart
  /** Underside of the forks above the floor, metres. */
  height_m: number
  facing: DriveStep['facing']
  speed_mps: number
  load: { mass_kg: number; length_m: number; width_m: number; height_m: number }
  wrong: WayFault | 'nothing'
  /** What the checks of a move say of that. */
  findings: readonly Finding[]
}

const most_tries = 40
/** Room and speed at which nothing but the rest of a piece is told. */
const [any_m, crawl_mps] = [40, 0.2]
/** Bends of so many wheelbases. */
const [tightest, widest] = [1, 2.6]

const floor: GroundKind = { id: 'floor', label: 'the floor', allowable_kPa: 1000, source: 'made up' }
const anyPlace = madeUp({ ground: [floor], defaultGround: floor.id })

type Move = Pick<WayItem, 'part' | 'height_m' | 'facing' | 'speed_mps' | 'load'>

/** A move over one piece of way, as it would be proved. */
function caseOf(machine: TruckMachine, m: Move): Case {
  const { truck } = machine
  const { mass_kg, ...size } = m.load
  const ahead_m = truck.reach?.loadCentre_m ?? truck.driving?.reach_m ?? size.length_m / 2
  const tool = truck.boom ? truck.attachments?.[0]?.id : undefined
  return {
    machine,
    tables: [],
    place: anyPlace,
    policy: usualPolicy,
    conditions: { wind_mps: 0 },
    setup: {
      format: 'geolabe.setup/2',
      place: anyPlace.id,
      position: { x_m: 0, y_m: 0, heading_deg: 0 },
      standing: { on: 'wheels', ground: floor, tyres: 'checked', ...(truck.stabilisers ? { state: 'wheels' } : {}) },
      fitted: tool === undefined ? {} : { attachment: tool },
      level: { pitch_deg: 0, roll_deg: 0, levelVerified: true },
      confirmed: [],
    },
    lift: {
      format: 'geolabe.lift/2',
      hung: {
        load: {
          name: '',
          mass_kg,
          massSource: 'marked',
          windArea_m2: 1,
          dragCoefficient: 1.2,
          size,
          cg: { x_m: ahead_m, y_m: 0, z_m: size.height_m / 2 },
        },
        rigging: [],
      },
      steps: [{ do: 'drive', laden: true, way: [m.part], height_m: m.height_m, facing: m.facing, speed_mps: m.speed_mps }],
    },
  }
}

/** What is too near, of a gap beside, above or before a truck. */
const gapOf = ({ check, reason, detail }: Finding) =>
  check === 'way' && reason === 'gap' && 'what' in detail ? detail.what : null

/** Which mistake it is that a check of the move names. */
function faultOf(f: Finding, { kind }: WayPart): WayFault | null {
  const { check, reason, subject } = f
  if (check === 'traction') return 'slippery'
  if (check === 'travel') return reason === 'raised' ? 'forks-raised' : kind === 'turn' ? 'turned-fast' : null
  if (reason === 'slope') return subject?.endsWith('cross-fall') ? 'across-slope' : 'too-steep'
  const gap = gapOf(f)
  return gap === null || gap === 'tips' ? null : gap === 'height' ? 'too-low' : 'too-narrow'
}

interface Looked {
  /** Null: something is neither in order nor plainly wrong. */
  wrong: ReadonlySet<WayFault> | null
  findings: readonly Finding[]
}

/** What the checks of a move make of it. */
function look(machine: TruckMachine, move: Move): Looked {
  const ctx = new TruckContext(caseOf(machine, move), 0)
  const findings = [...truckTravel(ctx), ...truckTraction(ctx), ...truckWay(ctx)]
  const wrong = new Set<WayFault>()
  for (const f of findings) {
    const use = f.utilisation ?? (f.verdict === 'inside' ? 0 : Infinity)
    if (use <= clear_share && f.verdict === 'inside') continue
    const fault = faultOf(f, move.part)
    if (!fault || use < over_share) return { wrong: null, findings }
    wrong.add(fault)
  }
  return { wrong, findings }
}

const round = (v: number, to: number) => Math.round(v / to) * to
const tenths = (v: number) => Number(round(v, 0.1).toFixed(1))
const hundredths = (v: number) => Number(round(v, 0.01).toFixed(2))

/** How much room a piece leaves: what is measured where there is any amount of it. */
function needed_m(machine: TruckMachine, move: Move, what: 'width' | 'height'): number {
  const wide: Move = { ...move, speed_mps: crawl_mps, part: { ...move.part, width_m: any_m, height_m: any_m } }
  const gap = look(machine, wide).findings.find((f) => {
    const of = gapOf(f)
    return what === 'height' ? of === 'height' : of === 'width' || of === 'aisle'
  })
  return any_m - (gap?.measured ?? any_m)
}

/** The fastest that a bend may be driven, m/s. */
function permitted_mps(machine: TruckMachine, move: Move): number {
  const slow: Move = { ...move, speed_mps: crawl_mps }
  const each = look(machine, slow).findings.flatMap(({ detail }) =>
    'permitted_mps' in detail && typeof detail.permitted_mps === 'number' ? [detail.permitted_mps] : [],
  )
  return Math.min(...each)
}

const kindsFor: Record<WayFault | 'nothing', readonly WayPart['kind'][]> = {
  'forks-raised': ['straight', 'turn', 'door'],
  'too-steep': ['ramp'],
  'across-slope': ['ramp'],
  'too-narrow': ['straight', 'door', 'turn'],
  'too-low': ['door'],
  slippery: ['ramp', 'straight'],
  'turned-fast': ['turn'],
  nothing: ['straight', 'ramp', 'door', 'turn', 'ramp', 'turn'],
}

/** So far over a limit is what is wrong: plainly at level 0, by little at 1. */
const overBy = (random: Random, level: number) => spread(random, over_share, over_share + 0.15 + 0.9 * (1 - level))
const underBy = (random: Random) => spread(random, 0.25, clear_share)
const one = <T>(random: Random, of: readonly T[]): T | undefined => of[Math.floor(random() * of.length)]

/** How it slopes: a ramp with its load uphill, whichever way it is driven. */
function slopeOf(random: Random, { truck }: TruckMachine, kind: WayPart['kind'], wrong: WayFault | null, level: number) {
  if (kind !== 'ramp') return { grade_pct: 0, cross_pct: 0, facing: 'load-first' as const }
  const { along_pct, cross_pct } = truck.chassis.grades
  const up = random() < 0.4
  // Told in whole per cent.
  const steep = along_pct * (wrong === 'too-steep' ? overBy(random, level) : underBy(random))
  const grade = Math.min(38, wrong === 'too-steep' ? Math.ceil(steep) : Math.max(1, Math.floor(steep)))
  const side = cross_pct * (wrong === 'across-slope' ? overBy(random, level) : spread(random, 0, clear_share))
  return {
    grade_pct: up ? grade : -grade,
    cross_pct: (random() < 0.5 ? -1 : 1) * (wrong === 'across-slope' ? Math.ceil(side) : Math.floor(side)),
    facing: up ? ('load-first' as const) : ('load-last' as const),
  }
}

/** Everything in order, drawn by lot, but for what is to be wrong. */
function moveOf(random: Random, machine: TruckMachine, wrong: WayFault | null, level: number): Move | null {
  const { truck } = machine
  const kind = one(random, kindsFor[wrong ?? 'nothing'])
  if (!kind || !truck.driving) return null
  const { load } = truck.driving
  const greatest_mps = truck.driving.travel.greatest
  const { facing, ...slope } = slopeOf(random, machine, kind, wrong, level)
  const surface: Surface = wrong === 'slippery' ? (one(random, ['ice', 'wet-steel', 'wet'] as const) ?? 'ice') : 'dry'
  const part: WayPart = {
    kind,
    label: '',
    length_m: 6,
    ...slope,
    width_m: any_m,
    height_m: null,
    surface: wrong === null && random() < 0.3 ? 'wet' : surface,
    floor,
    ...(kind === 'turn' ? { radius_m: tenths(truck.chassis.wheelbase_m * spread(random, tightest, widest)) } : {}),
  }
  const move: Move = {
    part,
    facing,
    load: { ...load, mass_kg: round(load.mass_kg * spread(random, 0.5, 1), 10) },
    height_m:
      wrong === 'forks-raised' ? tenths(spread(random, 0.3, 0.5 + 1.2 * (1 - level))) : hundredths(spread(random, 0.08, 0.15)),
    speed_mps: 1,
  }
  const { sideGap_m, headGap_m } = usualPolicy.trucks
  const gap = (fault: WayFault, least_m: number) =>
    wrong === fault ? least_m / overBy(random, level) - 0.2 * (1 - level) * random() : least_m / underBy(random)
  part.width_m = hundredths(Math.max(0.5, needed_m(machine, move, 'width') + gap('too-narrow', 2 * sideGap_m)))
  if (kind === 'door' || wrong === 'too-low')
    part.height_m = hundredths(needed_m(machine, move, 'height') + gap('too-low', headGap_m) + (wrong === 'too-low' ? 0 : 0.1))
  if (kind !== 'turn') return move
  const most = permitted_mps(machine, move)
  const share = wrong === 'turned-fast' ? Math.sqrt(overBy(random, level)) : spread(random, 0.4, 0.85)
  const speed_mps =
    wrong === 'turned-fast' ? tenths(most * share) : tenths(Math.max(crawl_mps, Math.min(most, greatest_mps) * share))
  return speed_mps <= greatest_mps ? { ...move, speed_mps } : null
}

const isJust = ({ wrong }: Looked, fault: WayFault | null) =>
  wrong !== null && (fault ? wrong.size === 1 && wrong.has(fault) : wrong.size === 0)

/** Whether a bend can be driven too fast at all, and a ramp be too steep and nothing else besides. */
function canBe(machine: TruckMachine, fault: WayFault): boolean {
  const { driving, chassis } = machine.truck
  if (!driving) return false
  const part: WayPart = {
    kind: 'ramp',
    label: '',
    length_m: 6,
    grade_pct: 0,
    cross_pct: 0,
    width_m: any_m,
    height_m: null,
    surface: 'dry',
    floor,
  }
  const move: Move = { part, facing: 'load-last', load: driving.load, height_m: 0.1, speed_mps: crawl_mps }
  if (fault === 'turned-fast') {
    const bend: Move = { ...move, part: { ...part, kind: 'turn', radius_m: chassis.wheelbase_m * tightest } }
    return permitted_mps(machine, bend) * Math.sqrt(over_share + 0.1) < driving.travel.greatest
  }
  if (fault !== 'too-steep') return true
  return isJust(look(machine, { ...move, part: { ...part, grade_pct: -chassis.grades.along_pct * (over_share + 0.1) } }), fault)
}

/** Which mistakes can be made with a truck on its way: of one whose file says how it drives. */
export function wayFaultsOf(machine: Machine): WayFault[] {
  if (!isTruck(machine) || !machine.truck.driving) return []
  try {
    return wayFaults.filter((f) => canBe(machine, f))
  } catch (e) {
    if (e instanceof Refusal) return []
    throw e
  }
}

/**
 * A piece of way about to be driven with one mistake, or with none; null: none that the checks tell apart was found.
 *
 * @param wrong what may be wrong with it
 * @param right nothing is
 * @example wayItem(randomFrom(1), dunlin, { wrong: 'too-low', level: 0, right: false })?.part.height_m // less than its mast
 */
export function wayItem(
  random: Random,
  machine: Machine,
  { wrong, level, right }: { wrong: WayFault; level: number; right: boolean },
): WayItem | null {
  if (!isTruck(machine)) return null
  const fault = right ? null : wrong
  for (let i = 0; i < most_tries; i++) {
    try {
      const move = moveOf(random, machine, fault, level)
      const seen = move && look(machine, move)
      if (!move || !seen || !isJust(seen, fault)) continue
      const findings = seen.findings.filter((f) => fault !== null && faultOf(f, move.part) === fault && f.verdict !== 'inside')
      return { of: 'way', ...move, wrong: fault ?? 'nothing', findings }
    } catch (e) {
      if (!(e instanceof Refusal)) throw e
    }
  }
  return null
}
