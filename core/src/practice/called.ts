import { g_mps2, normalDegrees, rad } from '../physics'
import { isOutOfSight } from './blind-spot'
import type { Drill, Sample } from './drill'
import type { Rig } from './rig'
import { placeOfRing, type Ring } from './ring'

/** What a signaller says who stands by: which way, or to hold it as it is. */
export type Call = 'left' | 'right' | 'out' | 'in' | 'lower' | 'hoist' | 'hold'
/** And how far it is, metres. */
export interface Called {
  call: Call
  by_m: number
}

/** Whoever talks somebody in says something so often, ticks. */
const each_ticks = 240
/** So much of its ring beside the middle is near enough to be lowered. */
const near_share = 0.35
/** Nearer to the deck than this share of what it is carried at, nothing is led on. */
const low_share = 0.3
/** Swinging wider than this share of its ring nothing is set down. */
const swings_share = 0.4

/**
 * What is called out to bring a load into its ring, of the boom's own ways: the longer way first, then down; what stands beside it comes up again. By
 * where its hook hangs over the deck: called by a load that swings, it would be chased. Nothing moves while somebody walks.
 *
 * @example calledTo(rig, ring, sample) // { call: 'left', by_m: 1.4 }
 */
export function calledTo(rig: Pick<Rig, 'deck_m' | 'load' | 'hangs_m'>, ring: Ring, s: Sample): Called {
  if (s.onFoot?.walks) return { call: 'hold', by_m: 0 }
  const [x, y] = placeOfRing(ring)
  // The nearer way round.
  const round_deg = normalDegrees(ring.slew_deg - s.slew_deg + 180) - 180
  const [along_m, across_m] = [ring.radius_m - s.radius_m, round_deg * rad * ring.radius_m]
  const by_m = Math.max(Math.abs(along_m), Math.abs(across_m))
  const over_m = Math.max(0, s.load[2] - rig.deck_m - rig.load.half_m)
  const stands = s.standing && Math.hypot(x - s.load[0], y - s.load[1]) <= ring.ring_m
  // Led out by a boom that is lowered, it comes down on the way.
  const low = by_m > near_share * ring.ring_m && over_m < low_share * rig.hangs_m
  if (!stands && (s.standing || low)) return { call: 'hoist', by_m: rig.hangs_m - over_m }
  if (stands) return { call: 'hold', by_m: 0 }
  if (by_m > near_share * ring.ring_m) {
    if (Math.abs(across_m) === by_m) return { call: across_m > 0 ? 'left' : 'right', by_m }
    return { call: along_m > 0 ? 'out' : 'in', by_m }
  }
  const [far_m, fast_m] = [Math.hypot(...s.beside_m), Math.hypot(...s.beside_mps) * Math.sqrt(s.rope_m / g_mps2)]
  if (Math.hypot(far_m, fast_m) > swings_share * ring.ring_m) return { call: 'hold', by_m: 0 }
  return { call: 'lower', by_m: over_m }
}

/** What is in the ear while the load is out of sight: said anew every two seconds; null: it is seen. */
export function calledIn({ rig, course, samples, landed }: Drill): Called | null {
  const now = samples.at(-1)
  const said = samples[Math.floor((samples.length - 1) / each_ticks) * each_ticks]
  const ring = course.legs[landed.length]
  if (!now || !said || !ring || !isOutOfSight(course.blind, now.load, rig)) return null
  return calledTo(rig, ring, said)
}
