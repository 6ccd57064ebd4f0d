import { g_mps2 } from '../../physics'
import type { OnProps } from '../../statics/boom-props'
import { type Footprint, prepareFootprint } from '../../statics/footprint'
import type { Arc, ContactEnvelope } from '../../statics/reaction-envelope'
import { contactsOver } from '../../statics/reaction-envelope'
import { type FixedSums, type SlewingSums, sumSlewing } from '../../statics/resultant'
import type { PropsPart } from '../supports/props'

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
