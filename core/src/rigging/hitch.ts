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

/** A basket's two parts carry twice a straight one where they hang plumb over a wide enough bend. */
export function hitchShare(hitch: Hitch, chokerAngle_deg: number | undefined): number {
  if (hitch === 'straight') return 1
  if (hitch === 'basket') return 2
  return choke.find((c) => (chokerAngle_deg ?? 0) >= c.from_deg)?.share ?? 0.75 * 0.49
}
