import { atSlew } from '../plane/point'

/** A ring on the deck: where it lies, seen from the slew centre, and how wide it is. */
export interface Ring {
  slew_deg: number
  radius_m: number
  ring_m: number
}

/** A place on the deck, metres. */
export type OnDeck = readonly [x: number, y: number]

/** Where a ring lies on the deck. */
export function placeOfRing({ slew_deg, radius_m }: Ring): [number, number] {
  const { x_m, y_m } = atSlew(radius_m, slew_deg)
  return [x_m, y_m]
}

/** Straight from one ring to another, round and out at once, as a load is carried: where its tip stands at so many steps. */
export const stepsBetween = (a: Ring, b: Ring, steps: number): Ring[] =>
  Array.from({ length: steps + 1 }, (_, k) => {
    const by = (from: number, to: number) => from + ((to - from) * k) / steps
    return { slew_deg: by(a.slew_deg, b.slew_deg), radius_m: by(a.radius_m, b.radius_m), ring_m: 0 }
  })
export const wayBetween = (a: Ring, b: Ring, steps: number): OnDeck[] => stepsBetween(a, b, steps).map(placeOfRing)

/** Beside a step of a way, square to it, left positive. */
export function asideOf(way: readonly OnDeck[], at: number, by_m: number): OnDeck | null {
  const [a, p, b] = [way[at - 1], way[at], way[at + 1]]
  if (!a || !p || !b) return null
  const d = Math.hypot(a[0] - b[0], a[1] - b[1])
  return d === 0 ? null : [p[0] - (by_m * (b[1] - a[1])) / d, p[1] + (by_m * (b[0] - a[0])) / d]
}
