import { atSlew } from '../../plane/point'
import { Refusal } from '../../refusal'
import { peakBetween, rootBetween } from '../../search'
import type { Footprint } from '../../statics/footprint'
import { contactsOver } from '../../statics/reaction-envelope'
import { resultantAt, type SlewingSums, sumSlewing } from '../../statics/resultant'
import { ratedByRule, tippingAt } from '../../statics/tipping-load'
import { upperAlong } from '../../statics/upper-along'
import { upperOver } from '../../statics/upper-arc'
import { telescopicBoom } from '../booms/telescopic'
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
): StabilityModel {
  return {
    standingAt: (q) => standingAt(machine, counterweight, f, q),
    peaksBetween: (q, nearer_m, known_N) => peaksBetween(machine, counterweight, f, q, nearer_m, known_N),
  }
}

/** The machine with its boom at a radius, and with the load on it, where that acts. */
function loadedAt(machine: SlewingParts, counterweight: { mass_kg: number; radius_m: number }, q: StandingQuestion) {
  const { boom_m, radius_m, load } = q
  const posed = poseMachine(machine, counterweight, boom_m, radius_m, q.deflection_m, load.onBoom)
  const hook_m = radius_m + outwardShift_m(posed.pose.tip_height_m, load.total_kg, load.outward)
  const loaded = sum(posed.slewing, sumSlewing([{ mass_kg: load.total_kg * load.dynamicFactor, radius_m: hook_m }]))
  return { posed, hook_m, loaded }
}

/** How closely the radius of a peak is found, as a share of the way between the two. */
const peakTolerance_share = 1e-9

function peaksBetween(
  machine: SlewingParts,
  counterweight: { mass_kg: number; radius_m: number },
  f: Footprint,
  q: StandingQuestion,
  nearer_m: number,
  known_N: (id: string) => number,
): PeakBetween[] {
  const at = (radius_m: number) => loadedAt(machine, counterweight, { ...q, radius_m })
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

function standingAt(
  machine: SlewingParts,
  counterweight: { mass_kg: number; radius_m: number },
  f: Footprint,
  q: StandingQuestion,
): StandingAt {
  const { radius_m, arc, points } = q
  const { posed, hook_m, loaded } = loadedAt(machine, counterweight, q)
  const by_deg = points === undefined ? step_deg : Math.max(0.01, Math.abs(arc.to_deg - arc.from_deg) / points)
  const hookless = [f, posed.fixed, posed.slewing, arc] as const
  let tipping: Tipping | undefined
  return {
    radius_m,
    posed,
    laden: contactsOver(f, posed.fixed, loaded, arc, by_deg, refine_deg),
    empty: q.loads === 'upper' ? upperOver(...hookless) : contactsOver(...hookless, by_deg, refine_deg),
    tipping: () => {
      tipping ??= leastTipping(f, posed, hook_m, q, by_deg, telescopicBoom(machine.boom).headMass_kg(q.boom_m, q.load.onBoom))
      return tipping
    },
  }
}

/** The least load on the arc that would tip the machine, sampled and refined about the least of the samples. */
function leastTipping(
  f: Footprint,
  { fixed, slewing }: Posed,
  hook_m: number,
  { arc: { from_deg, to_deg }, rules }: StandingQuestion,
  by_deg: number,
  head_kg: number,
): Tipping {
  const tippingOn = (slew_deg: number) => tippingAt(f, resultantAt(fixed, slewing, slew_deg), atSlew(hook_m, slew_deg))
  const count = Math.max(1, Math.ceil(Math.abs(to_deg - from_deg) / by_deg))
  let least: { slew_deg: number; kg: number } | null = null
  try {
    for (let i = 0; i <= count; i++) {
      const slew_deg = from_deg + ((to_deg - from_deg) * i) / count
      const kg = tippingOn(slew_deg).tippingLoad_kg
      if (kg !== null && (least === null || kg < least.kg)) least = { slew_deg, kg }
    }
    if (least !== null && from_deg !== to_deg) {
      const [a, b] = [Math.min(from_deg, to_deg), Math.max(from_deg, to_deg)]
      const by = Math.abs(to_deg - from_deg) / count
      const p = peakBetween(
        (d) => -(tippingOn(d).tippingLoad_kg ?? Infinity),
        Math.max(a, least.slew_deg - by),
        Math.min(b, least.slew_deg + by),
        refine_deg,
      )
      if (-p.y < least.kg) least = { slew_deg: p.x, kg: -p.y }
    }
  } catch (e) {
    if (!(e instanceof Refusal) || e.code !== 'unstable-unloaded') throw e
    return { rated_kg: 0, tipping_kg: 0, slew_deg: from_deg, edge: null, standsUnloaded: false }
  }
  if (least === null) return { rated_kg: null, tipping_kg: null, slew_deg: from_deg, edge: null, standsUnloaded: true }
  const { kg, slew_deg } = least
  const rated_kg = Math.min(...rules.map((rule) => ratedByRule(kg, rule, head_kg)))
  return { rated_kg, tipping_kg: kg, slew_deg, edge: tippingOn(slew_deg).edge, standsUnloaded: true }
}
