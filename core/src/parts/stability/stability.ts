import { g_mps2, rad } from '../../physics'
import type { OnProps } from '../../statics/boom-props'
import type { Arc, ContactEnvelope } from '../../statics/reaction-envelope'
import type { StabilityRule } from '../../statics/tipping-load'
import type { UpperOver } from '../../statics/upper-arc'
import type { OnBoom } from '../booms/boom'
import type { Posed } from './slewing'

export interface Outward {
  /** What tilt and wind add to the radius that legs and stability feel, metres: Δr = H·tan(tilt) + F·H/(m·g). */
  tilt_deg: number
  wind_N: number
}

/** How much further out the hook load acts for tilt and wind. Wind acts through the rope at the boom tip, outwards. */
export function outwardShift_m(tip_height_m: number, mass_kg: number, o: Outward): number {
  return tip_height_m * Math.tan(o.tilt_deg * rad) + (mass_kg > 0 ? (o.wind_N * tip_height_m) / (mass_kg * g_mps2) : 0)
}

export interface StandingAt {
  radius_m: number
  posed: Posed
  /** What the bearing points carry over the arc with the load on, and with the hook empty. */
  laden: readonly ContactEnvelope[]
  empty: readonly UpperOver[]
  /** Where the boom bears on props: what they and its foot carry, the load on. */
  propped?: OnProps | undefined
  /** Worked out when it is first asked for. */
  tipping: () => Tipping
}

/** The load that would tip a machine, over an arc at one radius. */
export interface Tipping {
  /** Least rating by stability on the arc and where; null: nothing to tip over. */
  rated_kg: number | null
  tipping_kg: number | null
  slew_deg: number
  edge: [string, string] | null
  /** Stands without a load everywhere on the arc. */
  standsUnloaded: boolean
}

/** One radius of a lift, over the arc it is slewed through. */
export interface StandingQuestion {
  boom_m: number
  deflection_m: number
  radius_m: number
  arc: Arc
  load: { total_kg: number; dynamicFactor: number; outward: Outward; onBoom: readonly OnBoom[] }
  rules: readonly StabilityRule[]
  /** By which the outriggers are judged; the empty hook is looked at no further than that needs. */
  loads: 'upper' | 'elastic'
  /** Points the arc is looked at in before its extremes are refined; omitted: one every 5°. */
  points?: number | undefined
}

/** A bearing point that carries more between two radii than at either. */
export interface PeakBetween {
  id: string
  upper_N: number
  radius_m: number
  slew_deg: number
  /** With the hook empty. */
  empty: boolean
}

/** What keeps a machine from tipping: what its bearing points carry, and the load that would tip it. */
export interface StabilityModel {
  /** @throws Refusal `out-of-reach` */
  standingAt: (q: StandingQuestion) => StandingAt
  /**
   * Radii between two where what turns weighs further out, or less far, than on either side of it, or would tip soonest; none of a straight
   * boom, whose masses go out with its head.
   * @param nearer_m the lesser radius; the greater is the question's own
   */
  turnsBetween: (q: StandingQuestion, nearer_m: number) => number[]
  /**
   * Where a bearing point carries more between two radii than at either, at the ends of the arc: the upper bound of its load is concave
   * in the place of the resultant, so that inside the arc no other place can hold more than the arcs themselves and these two edges.
   * @param nearer_m the lesser radius; the greater is the question's own
   * @param known_N what each is known to carry already, newtons: only what is more is a peak
   */
  peaksBetween: (q: StandingQuestion, nearer_m: number, known_N: (id: string) => number) => PeakBetween[]
}
