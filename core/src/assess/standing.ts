import type { Path } from '../lift/path'
import type { SetupPlan } from '../lift/plan'
import { boomHeadMass_kg, type Crane, type OnBoom, type Posed, poseMachine } from '../machine/posed'
import { g_mps2, rad } from '../physics'
import { atSlew } from '../plane/point'
import { Refusal } from '../refusal'
import { peakBetween } from '../search'
import type { Footprint } from '../statics/footprint'
import { envelopeOver, type ReactionEnvelope } from '../statics/reaction-envelope'
import { resultantAt, type SlewingSums, sumSlewing } from '../statics/resultant'
import { ratedByRule, type StabilityRule, tippingAt } from '../statics/tipping-load'

export interface Outward {
  /** What tilt and wind add to the radius that legs and stability feel, metres: Δr = H·tan(tilt) + F·H/(m·g). */
  tilt_deg: number
  wind_N: number
}

/** How much further out the hook load acts for tilt and wind. Wind acts through the rope at the boom tip, outwards. */
export function outwardShift_m(tip_height_m: number, mass_kg: number, o: Outward): number {
  return tip_height_m * Math.tan(o.tilt_deg * rad) + (mass_kg > 0 ? (o.wind_N * tip_height_m) / (mass_kg * g_mps2) : 0)
}

const sum = (a: SlewingSums, b: SlewingSums): SlewingSums => ({
  force_N: a.force_N + b.force_N,
  along_Nm: a.along_Nm + b.along_Nm,
  across_Nm: a.across_Nm + b.across_Nm,
})

/** How finely an extreme's angle is found; the figure there is then good to a millionth. */
const refine_deg = 0.05

/** Samples along an arc when the extremes between them are refined, degrees. */
const step_deg = 5

export interface StandingAt {
  radius_m: number
  posed: Posed
  legs: ReactionEnvelope
  /** Least rating by stability on the arc and where; null: nothing to tip over. */
  rated_kg: number | null
  tipping_kg: number | null
  slew_deg: number
  edge: [string, string] | null
  /** Stands without a load everywhere on the arc. */
  standsUnloaded: boolean
}

/** Leg loads and tipping over a path at one radius. */
export function standAt(
  machine: Crane,
  setup: SetupPlan,
  f: Footprint,
  lift: { boom_m: number; deflection_m: number },
  path: Pick<Path, 'arc'>,
  radius_m: number,
  load: { total_kg: number; dynamicFactor: number; outward: Outward; onBoom: readonly OnBoom[] },
  rules: readonly StabilityRule[],
  points?: number,
): StandingAt {
  const posed = poseMachine(machine, setup, lift.boom_m, radius_m, lift.deflection_m, load.onBoom)
  const shifted = radius_m + outwardShift_m(posed.pose.tip_height_m, load.total_kg, load.outward)
  const loaded = sum(posed.slewing, sumSlewing([{ mass_kg: load.total_kg * load.dynamicFactor, radius_m: shifted }]))
  const { from_deg, to_deg } = path.arc
  const by_deg = points === undefined ? step_deg : Math.max(0.01, Math.abs(to_deg - from_deg) / points)
  const legs = envelopeOver(f, posed.fixed, loaded, path.arc, by_deg, refine_deg)
  const head_kg = boomHeadMass_kg(machine, lift.boom_m, load.onBoom)
  const tipping = (slew_deg: number) => tippingAt(f, resultantAt(posed.fixed, posed.slewing, slew_deg), atSlew(shifted, slew_deg))
  const count = Math.max(1, Math.ceil(Math.abs(to_deg - from_deg) / by_deg))
  let least: { slew_deg: number; kg: number } | null = null
  try {
    for (let i = 0; i <= count; i++) {
      const slew_deg = from_deg + ((to_deg - from_deg) * i) / count
      const kg = tipping(slew_deg).tippingLoad_kg
      if (kg !== null && (least === null || kg < least.kg)) least = { slew_deg, kg }
    }
    if (least !== null && from_deg !== to_deg) {
      const [a, b] = [Math.min(from_deg, to_deg), Math.max(from_deg, to_deg)]
      const by = Math.abs(to_deg - from_deg) / count
      const p = peakBetween(
        (d) => -(tipping(d).tippingLoad_kg ?? Infinity),
        Math.max(a, least.slew_deg - by),
        Math.min(b, least.slew_deg + by),
        refine_deg,
      )
      if (-p.y < least.kg) least = { slew_deg: p.x, kg: -p.y }
    }
  } catch (e) {
    if (!(e instanceof Refusal) || e.code !== 'unstable-unloaded') throw e
    return { radius_m, posed, legs, rated_kg: 0, tipping_kg: 0, slew_deg: from_deg, edge: null, standsUnloaded: false }
  }
  const base = { radius_m, posed, legs, standsUnloaded: true }
  if (least === null) return { ...base, rated_kg: null, tipping_kg: null, slew_deg: from_deg, edge: null }
  const { kg, slew_deg } = least
  return {
    ...base,
    tipping_kg: kg,
    rated_kg: Math.min(...rules.map((rule) => ratedByRule(kg, rule, head_kg))),
    slew_deg,
    edge: tipping(slew_deg).edge,
  }
}
