import { rad } from '../physics'
import { Refusal } from '../refusal'

/** What a hitch leaves of a sling's straight-pull limit. */
export const hitches = ['straight', 'choker', 'basket'] as const
export type Hitch = (typeof hitches)[number]

/**
 * Share of a wire-rope sling's straight limit in a choker by its angle of choke (ASME B30.9: three quarters at 120° and
 * over, then less in steps).
 */
const choke: readonly { from_deg: number; share: number }[] = [
  { from_deg: 120, share: 0.75 },
  { from_deg: 90, share: 0.75 * 0.87 },
  { from_deg: 60, share: 0.75 * 0.74 },
  { from_deg: 30, share: 0.75 * 0.62 },
  { from_deg: 0, share: 0.75 * 0.49 },
]

/**
 * Share of its strength that a wire rope keeps over a bend, by the bend's diameter over the rope's, the next lower step; tighter than
 * one to one nothing is said for it. Source: wire rope users' tables for basket hitches (ASME B30.9 asks for 25).
 */
const bends: readonly { from: number; share: number }[] = [
  { from: 25, share: 1 },
  { from: 20, share: 0.92 },
  { from: 15, share: 0.89 },
  { from: 10, share: 0.86 },
  { from: 6, share: 0.79 },
  { from: 4, share: 0.75 },
  { from: 2, share: 0.65 },
  { from: 1, share: 0.5 },
]

export interface HitchInput {
  chokerAngle_deg?: number | undefined
  /** Basket: how far each of its two parts hangs from plumb. */
  basketAngle_deg?: number | undefined
  /** Basket: diameter of what it lies round over the sling's own. */
  bendRatio?: number | undefined
}

/** Parts of a basket flatter than this from plumb are refused, as sling legs are. */
const flattestBasket_deg = 60

/**
 * What of its straight limit a sling keeps in a hitch: a choker by its angle of choke, a basket twice by the cosine of its parts'
 * angle and by the bend.
 *
 * @throws Refusal `missing-field`, `sling-too-flat`, `bend-too-tight`
 */
export function hitchShare(hitch: Hitch, input: HitchInput): number {
  if (hitch === 'straight') return 1
  if (hitch === 'choker') {
    const angle = input.chokerAngle_deg
    if (angle === undefined) throw new Refusal('missing-field', 'A choker needs its angle of choke.', 'chokerAngle_deg')
    return choke.find((c) => angle >= c.from_deg)?.share ?? 0.75 * 0.49
  }
  const { basketAngle_deg, bendRatio } = input
  if (basketAngle_deg === undefined)
    throw new Refusal('missing-field', 'A basket needs the angle of its parts from plumb.', 'basketAngle_deg')
  if (bendRatio === undefined)
    throw new Refusal('missing-field', 'A basket needs the bend: diameter it lies round over its own.', 'bendRatio')
  if (basketAngle_deg > flattestBasket_deg)
    throw new Refusal(
      'sling-too-flat',
      'A basket hanging more than 60° from plumb is refused; use a longer sling.',
      'basketAngle_deg',
    )
  const bend = bends.find((b) => bendRatio >= b.from)
  if (!bend)
    throw new Refusal('bend-too-tight', 'Bent tighter than its own diameter a sling is not rated; pad the edge.', 'bendRatio')
  return 2 * Math.cos(basketAngle_deg * rad) * bend.share
}
