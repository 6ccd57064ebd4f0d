import type { Vec } from '../swing/vector'
import type { Rig } from './rig'
import { type OnDeck, placeOfRing, type Ring } from './ring'

/** A place on the deck into which nobody sees from the controls: so far about its middle, and so high. */
export interface BlindSpot {
  at: OnDeck
  radius_m: number
  height_m: number
}

/** Easier courses have none. */
const from_level = 0.6
/** It reaches so far beyond its ring, and as high as a wall of a building site. */
const beyond_m = 1
const high_m = 3.5

/** One ring of a hard course lies where nobody sees it. */
export function blindSpotFor(legs: readonly Ring[], random: () => number, level: number): BlindSpot | null {
  const ring = legs[Math.floor(random() * legs.length)]
  if (level < from_level || !ring) return null
  return { at: placeOfRing(ring), radius_m: ring.ring_m + beyond_m, height_m: high_m }
}

/** Whether a load that hangs there is out of sight. */
export const isOutOfSight = (spot: BlindSpot | null, [x, y, z]: Vec, { deck_m }: Pick<Rig, 'deck_m'>): boolean =>
  spot !== null && Math.hypot(x - spot.at[0], y - spot.at[1]) < spot.radius_m && z < deck_m + spot.height_m
