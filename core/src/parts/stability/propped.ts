import { g_mps2 } from '../../physics'
import { type Footprint, prepareFootprint } from '../../statics/footprint'
import type { Arc, ContactEnvelope } from '../../statics/reaction-envelope'
import { contactsOver } from '../../statics/reaction-envelope'
import { type FixedSums, type SlewingSums, sumSlewing } from '../../statics/resultant'
import type { SlewingMass } from '../../statics/schema'
import type { PropsPart } from '../supports/props'

/** A boom on its foot and on props under it, as a lever. */
export interface OnProps {
  /** On both props together. */
  pair_kg: number
  /** On the boom's foot; negative: it pulls the frame up. */
  foot_kg: number
}

/**
 * Moments about the boom's foot: R = (Q·(r + back) + Σ m·(s·cos)) / (p + back); the foot carries what is left.
 *
 * @param hook what hangs, and how far from the slew centre
 * @param boom the boom's own masses, at their radii from the slew centre
 * @param back_m the boom's foot behind the slew centre
 * @example onProps({ mass_kg: 14_000, radius_m: 6 }, boom, 4.5, 1.2).foot_kg // −1413
 */
export function onProps(hook: SlewingMass, boom: readonly SlewingMass[], at_m: number, back_m: number): OnProps {
  const all = [hook, ...boom]
  const pair_kg = all.reduce((s, m) => s + m.mass_kg * (m.radius_m + back_m), 0) / (at_m + back_m)
  return { pair_kg, foot_kg: all.reduce((s, m) => s + m.mass_kg, 0) - pair_kg }
}

/**
 * What outriggers and props carry: the frame with what the boom's foot presses on it, or pulls it up with, and each prop its half, with
 * what a load aside of the boom puts on one of them.
 *
 * @param aside_kgm how much the load hangs aside of the boom, for tilt and wind
 */
export function proppedContacts(
  f: Footprint,
  props: PropsPart,
  fixed: FixedSums,
  upper: SlewingSums,
  { pair_kg, foot_kg, aside_kgm, back_m }: OnProps & { aside_kgm: number; back_m: number },
  arc: Arc,
  by_deg: number,
): ContactEnvelope[] {
  const frame = prepareFootprint(f.supports.filter((s) => !props.legs.some((l) => l.id === s.id)))
  const foot = sumSlewing([{ mass_kg: foot_kg, radius_m: -back_m }])
  const standing = {
    force_N: upper.force_N + foot.force_N,
    along_Nm: upper.along_Nm + foot.along_Nm,
    across_Nm: upper.across_Nm + foot.across_Nm,
  }
  const apart_m = Math.abs((props.legs[0]?.aside_m ?? 0) - (props.legs[1]?.aside_m ?? 0))
  const each_N = Math.max(0, pair_kg / 2 + aside_kgm / apart_m) * g_mps2
  const least_N = Math.max(0, pair_kg / 2 - aside_kgm / apart_m) * g_mps2
  return [
    ...contactsOver(frame, fixed, standing, arc, by_deg),
    ...props.legs.map(({ id }) => ({
      id,
      max_N: each_N,
      max_at_deg: arc.from_deg,
      min_N: least_N,
      min_at_deg: arc.from_deg,
      upper_N: each_N,
      upper_at_deg: arc.from_deg,
    })),
  ]
}
