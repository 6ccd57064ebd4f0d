import { nth } from '../../list'
import { Refusal } from '../../refusal'
import { peakBetween, rootBetween } from '../../search'
import { onProps } from '../../statics/boom-props'
import { type Footprint, prepareFootprint } from '../../statics/footprint'
import { contactsOver } from '../../statics/reaction-envelope'
import { resultantAt, type SlewingSums, sumSlewing } from '../../statics/resultant'
import { tippingOver } from '../../statics/tipping-arc'
import { ratedByRule } from '../../statics/tipping-load'
import { upperAlong } from '../../statics/upper-along'
import { upperOver } from '../../statics/upper-arc'
import type { BoomModel } from '../booms/boom'
import { straightBoom } from '../booms/boom-model'
import { upperMasses } from '../superstructure'
import type { PropsPart } from '../supports/props'
import { proppedContacts } from './propped'
import { type Posed, poseMachine, type SlewingParts } from './slewing'
import {
  outwardShift_m,
  type PeakBetween,
  type StabilityModel,
  type StandingAt,
  type StandingQuestion,
  type Tipping,
} from './stability'

const sum = (a: SlewingSums, b: SlewingSums): SlewingSums => ({
  force_N: a.force_N + b.force_N,
  along_Nm: a.along_Nm + b.along_Nm,
  across_Nm: a.across_Nm + b.across_Nm,
})

/** How finely an extreme's angle is found; the figure there is then good to a millionth. */
const refine_deg = 0.05

/** Samples along an arc when the extremes between them are refined, degrees. */
const step_deg = 5

/** A slewing machine on the polygon of its bearing points: it tips over the edge that the resultant leaves by. */
export function polygonStability(
  machine: SlewingParts,
  counterweight: { mass_kg: number; radius_m: number },
  f: Footprint,
  boom: BoomModel = straightBoom(machine.boom),
  props?: PropsPart,
): StabilityModel {
  const slewing = { machine, counterweight, boom, props }
  return {
    standingAt: (q) => standingAt(slewing, f, q),
    turnsBetween: (q, nearer_m) => (boom.hinged ? turnsBetween(slewing, f, q, nearer_m) : []),
    // On props nothing moves in or out.
    peaksBetween: (q, nearer_m, known_N) => (props ? [] : peaksBetween(slewing, f, q, nearer_m, known_N)),
  }
}

/** What turns, and on what. */
interface Slewing {
  machine: SlewingParts
  counterweight: { mass_kg: number; radius_m: number }
  boom: BoomModel
  props?: PropsPart | undefined
}

/** The machine with its boom at a radius, and with the load on it, where that acts. */
function loadedAt({ machine, counterweight, boom }: Slewing, q: StandingQuestion) {
  const { boom_m, radius_m, load } = q
  const posed = poseMachine(machine, counterweight, boom, { boom_m, radius_m, deflection_m: q.deflection_m }, load.onBoom)
  const hook_m = radius_m + outwardShift_m(posed.pose.tip_height_m, load.total_kg, load.outward)
  const loaded = sum(posed.slewing, sumSlewing([{ mass_kg: load.total_kg * load.dynamicFactor, radius_m: hook_m }]))
  return { posed, hook_m, loaded }
}

/** Where a way is looked at for turns, as shares of it from both ends: closer there, where a radius turns while its pose goes on. */
const looks = [0, 0.02, 0.06, ...Array.from({ length: 9 }, (_, i) => 0.14 + i * 0.09), 0.94, 0.98, 1]
const turn_share = 1e-7

function turnsBetween(slewing: Slewing, f: Footprint, q: StandingQuestion, nearer_m: number): number[] {
  const radiusAt = (u: number) => nearer_m + ((q.radius_m - nearer_m) * (1 - Math.cos(Math.PI * u))) / 2
  const head_kg = slewing.boom.headMass_kg(q.boom_m, q.load.onBoom)
  const figuresAt = (u: number) => {
    const asked = { ...q, radius_m: radiusAt(u) }
    const { posed, hook_m, loaded } = loadedAt(slewing, asked)
    // What stability alone rates is only ever wanted at its least.
    const rated = () => -(leastTipping(f, posed, hook_m, asked, head_kg).rated_kg ?? Infinity)
    return { loaded: loaded.along_Nm, empty: posed.slewing.along_Nm, rated }
  }
  const seen = looks.map(figuresAt)
  const peaks = (of: (x: ReturnType<typeof figuresAt>) => number): number[] => {
    const values = seen.map(of)
    return values.flatMap((v, i) => {
      const [before, after] = [values[i - 1], values[i + 1]]
      if (before === undefined || after === undefined || !(v > before && v >= after)) return []
      return [radiusAt(peakBetween((u) => of(figuresAt(u)), nth(looks, i - 1), nth(looks, i + 1), turn_share).x)]
    })
  }
  return [
    ...peaks((x) => x.loaded),
    ...peaks((x) => -x.loaded),
    ...peaks((x) => x.empty),
    ...peaks((x) => -x.empty),
    ...peaks((x) => x.rated()),
  ]
}

/** How closely the radius of a peak is found, as a share of the way between the two. */
const peakTolerance_share = 1e-9

function peaksBetween(
  slewing: Slewing,
  f: Footprint,
  q: StandingQuestion,
  nearer_m: number,
  known_N: (id: string) => number,
): PeakBetween[] {
  const at = (radius_m: number) => loadedAt(slewing, { ...q, radius_m })
  const [near, far] = [at(nearer_m), at(q.radius_m)]
  const ends = [...new Set([q.arc.from_deg, q.arc.to_deg])]
  return [false, true].flatMap((empty) => {
    const turning = (x: typeof near) => (empty ? x.posed.slewing : x.loaded)
    const [first, last] = [turning(near), turning(far)]
    const force_N = far.posed.fixed.force_N + last.force_N
    return ends.flatMap((slew_deg) => {
      const place = (x: typeof near) => resultantAt(x.posed.fixed, turning(x), slew_deg)
      return upperAlong(f, place(near), place(far), force_N)
        .filter(({ id, upper_N, t }) => t > 0 && t < 1 && upper_N > known_N(id))
        .map(({ id, upper_N, t }) => {
          const sought = first.along_Nm + t * (last.along_Nm - first.along_Nm)
          const beyond = (r: number) => turning(at(r)).along_Nm - sought
          const tolerance = peakTolerance_share * (q.radius_m - nearer_m)
          return { id, upper_N, radius_m: rootBetween(beyond, nearer_m, q.radius_m, tolerance), slew_deg, empty }
        })
    })
  })
}

function standingAt(slewing: Slewing, f: Footprint, q: StandingQuestion): StandingAt {
  const { radius_m, arc, points } = q
  const { posed, hook_m, loaded } = loadedAt(slewing, q)
  const by_deg = points === undefined ? step_deg : Math.max(0.01, Math.abs(arc.to_deg - arc.from_deg) / points)
  const hookless = [f, posed.fixed, posed.slewing, arc] as const
  const propped = slewing.props && loadOnProps(slewing, slewing.props, f, q, { posed, hook_m }, by_deg)
  let tipping: Tipping | undefined
  return {
    radius_m,
    posed,
    ...(propped && { propped: propped.on }),
    laden: propped?.laden ?? contactsOver(f, posed.fixed, loaded, arc, by_deg, refine_deg),
    empty: propped
      ? [...propped.unloaded, ...contactsOver(...onLegs(slewing.props, hookless), by_deg, refine_deg)]
      : q.loads === 'upper'
        ? upperOver(...hookless)
        : contactsOver(...hookless, by_deg, refine_deg),
    tipping: () => {
      tipping ??= leastTipping(f, posed, hook_m, q, slewing.boom.headMass_kg(q.boom_m, q.load.onBoom))
      return tipping
    },
  }
}

/** The frame without its props, as it stands before they bear. */
function onLegs(
  props: PropsPart | undefined,
  [f, fixed, slewing, arc]: readonly [Footprint, Posed['fixed'], SlewingSums, StandingQuestion['arc']],
) {
  const legs = f.supports.filter((s) => !props?.legs.some((l) => l.id === s.id))
  return [prepareFootprint(legs), fixed, slewing, arc] as const
}

/** With the boom on its props: the load on, and nothing on the hook. */
function loadOnProps(
  { machine, counterweight, boom }: Slewing,
  props: PropsPart,
  f: Footprint,
  { boom_m, load, arc }: StandingQuestion,
  { posed, hook_m }: { posed: Posed; hook_m: number },
  by_deg: number,
) {
  const { back_m } = machine.boom.pivot
  const masses = boom.massesAt(boom_m, posed.pose.angle_deg, load.onBoom)
  const upper = sumSlewing(upperMasses(machine.upper, counterweight))
  const mass_kg = load.total_kg * load.dynamicFactor
  const on = onProps({ mass_kg, radius_m: hook_m }, masses, props.at_m, back_m)
  const bare = onProps({ mass_kg: 0, radius_m: hook_m }, masses, props.at_m, back_m)
  const aside_kgm = mass_kg * outwardShift_m(posed.pose.tip_height_m, load.total_kg, load.outward)
  const legs = new Set(props.legs.map((l) => l.id))
  return {
    on,
    laden: proppedContacts(f, props, posed.fixed, upper, { ...on, aside_kgm, back_m }, arc, by_deg),
    unloaded: proppedContacts(f, props, posed.fixed, upper, { ...bare, aside_kgm: 0, back_m }, arc, by_deg).filter((c) =>
      legs.has(c.id),
    ),
  }
}

/** The least load on the arc that would tip the machine, and what stability alone rates there. */
function leastTipping(
  f: Footprint,
  { fixed, slewing }: Posed,
  hook_m: number,
  { arc, rules }: StandingQuestion,
  head_kg: number,
): Tipping {
  try {
    const { tippingLoad_kg: tipping_kg, edge, slew_deg } = tippingOver(f, fixed, slewing, hook_m, arc)
    const rated_kg = tipping_kg === null ? null : Math.min(...rules.map((rule) => ratedByRule(tipping_kg, rule, head_kg)))
    return { rated_kg, tipping_kg, slew_deg, edge, standsUnloaded: true }
  } catch (e) {
    if (!(e instanceof Refusal) || e.code !== 'unstable-unloaded') throw e
    return { rated_kg: 0, tipping_kg: 0, slew_deg: arc.from_deg, edge: null, standsUnloaded: false }
  }
}
