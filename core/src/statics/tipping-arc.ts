import { rad } from '../physics'
import { atSlew, type Point } from '../plane/point'
import type { Footprint } from './footprint'
import { type FixedSums, resultantAt, type SlewingSums } from './resultant'
import { onArc } from './round'
import { tippingAt } from './tipping-load'

/** a + b·cos θ + c·sin θ of a slew θ. */
type Wave = readonly [a: number, b: number, c: number]

/** How far a point that goes round a centre stands inside an edge. `ahead`: where it stands from the centre at a slew of nought. */
const insideOf = ({ nx, ny, c }: Footprint['edges'][number], centre: Point, ahead: Point): Wave => [
  nx * centre.x_m + ny * centre.y_m + c,
  nx * ahead.x_m + ny * ahead.y_m,
  ny * ahead.x_m - nx * ahead.y_m,
]

/** Of two sides that are alike but for round-off, the first on the way is named. */
const alike_share = 1e-12

/** Where the quotient of two waves has its extremes: u′·v − u·v′ is a wave again, and these are its roots. */
function extremesOf([u0, u1, u2]: Wave, [v0, v1, v2]: Wave): number[] {
  const [k, p, q] = [u2 * v1 - u1 * v2, u2 * v0 - u0 * v2, u0 * v1 - u1 * v0]
  const size = Math.hypot(p, q)
  if (!(size > Math.abs(k))) return []
  const past = Math.acos(-k / size)
  return [Math.atan2(q, p) + past, Math.atan2(q, p) - past]
}

/**
 * The least load that tips the machine while the hook goes round an arc, in closed form: over each edge the load is a quotient of two
 * waves, with extremes that are known; a narrow peak between two looks cannot be missed.
 *
 * @param hook_m radius of the hook
 * @returns kg, null where no edge can be tipped over; and at which slew, degrees
 * @throws Refusal `unstable-unloaded` when it would not stand somewhere on the arc even without a load
 */
export function tippingOver(
  f: Footprint,
  fixed: FixedSums,
  slewing: SlewingSums,
  hook_m: number,
  arc: { from_deg: number; to_deg: number },
): { tippingLoad_kg: number | null; edge: [string, string] | null; slew_deg: number } {
  const turned = { from_deg: Math.min(arc.from_deg, arc.to_deg), to_deg: Math.max(arc.from_deg, arc.to_deg) }
  const force_N = fixed.force_N + slewing.force_N
  const centre = { x_m: fixed.wx_Nm / force_N, y_m: fixed.wy_Nm / force_N }
  const ahead = { x_m: slewing.along_Nm / force_N, y_m: slewing.across_Nm / force_N }
  const looks = f.edges.flatMap((edge) => {
    const weight = insideOf(edge, centre, ahead)
    const hook = insideOf(edge, { x_m: 0, y_m: 0 }, { x_m: hook_m, y_m: 0 })
    // And where it stands nearest to this edge without a load.
    return [...extremesOf(hook, weight), Math.atan2(weight[2], weight[1]) + Math.PI]
  })
  const slews = [arc.to_deg, ...looks.flatMap((a) => onArc(a / rad, turned) ?? [])]
  slews.sort((a, b) => Math.abs(a - arc.from_deg) - Math.abs(b - arc.from_deg))
  let least: ReturnType<typeof tippingOver> = { tippingLoad_kg: null, edge: null, slew_deg: arc.from_deg }
  for (const slew_deg of [arc.from_deg, ...slews]) {
    const found = tippingAt(f, resultantAt(fixed, slewing, slew_deg), atSlew(hook_m, slew_deg))
    const below_kg = (least.tippingLoad_kg ?? Infinity) * (1 - alike_share)
    if (found.tippingLoad_kg !== null && found.tippingLoad_kg < below_kg) least = { ...found, slew_deg }
  }
  return least
}
