import { Refusal } from '../refusal'
import { boundary, peakBetween } from '../search'
import { swingPeriod_s } from './swing'

/** How the tip moves at full lever: metres a second and a second. */
export interface TipSpeed {
  greatest_mps: number
  up_mps2: number
  down_mps2: number
  dead_s: number
}

export type Complex = readonly [re: number, im: number]
const plus = (a: Complex, b: Complex): Complex => [a[0] + b[0], a[1] + b[1]]

/** ∫ (v + a·(t − from))·e^{iωt} dt over one leg, in closed form. */
export function swayLeg(v: number, a: number, from_s: number, to_s: number, w: number): Complex {
  const at = (t: number): Complex => {
    const [c, s] = [Math.cos(w * t), Math.sin(w * t)]
    const speed = v + a * (t - from_s)
    // e^{iωt}·(speed/(iω) + a/ω²)
    return [(speed * s) / w + (a * c) / w ** 2, (-speed * c) / w + (a * s) / w ** 2]
  }
  const [end, begin] = [at(to_s), at(from_s)]
  return [end[0] - begin[0], end[1] - begin[1]]
}

/** The tip's speed for a lever held so long: up, along, down; from the moment at which it begins to move. */
function pulse(m: TipSpeed, hold_s: number) {
  const top = Math.min(m.greatest_mps, m.up_mps2 * hold_s)
  const [risen_s, still_s] = [top / m.up_mps2, hold_s + top / m.down_mps2]
  const of = (w: number): Complex =>
    plus(
      plus(swayLeg(0, m.up_mps2, 0, risen_s, w), risen_s < hold_s ? swayLeg(top, 0, risen_s, hold_s, w) : [0, 0]),
      swayLeg(top, -m.down_mps2, hold_s, still_s, w),
    )
  const travel_m = (top * risen_s) / 2 + top * (hold_s - risen_s) + top ** 2 / (2 * m.down_mps2)
  return { of, top, travel_m }
}

export interface Catch {
  /** Lever held so long. */
  hold_s: number
  /** Lever moved so long before the load tops out. */
  lead_s: number
  /** What the tip goes meanwhile. */
  travel_m: number
  greatest_mps: number
}

/** What a hold takes of a swing rises to one top within a period: how much, and held how long. */
function oneMove(m: TipSpeed, rope_m: number) {
  const period_s = swingPeriod_s(rope_m)
  const w = (2 * Math.PI) / period_s
  const reach = (hold_s: number) => Math.hypot(...pulse(m, hold_s).of(w))
  const { x: most_s, y: most_m } = peakBetween(reach, 0, period_s, 1e-9)
  return { w, reach, most_s, most_m }
}

/** The widest swing that one move takes, metres of load against tip. */
export const greatestCatch_m = (m: TipSpeed, rope_m: number) => oneMove(m, rope_m).most_m

/**
 * The one move that catches a swing: over the load as it tops out. Small swing, one plane; the lever is held until the speed's own turn with the
 * swing is as large as the swing, and begun so early that its middle stands on the top.
 *
 * @param amplitude_m of the load against its tip, metres
 * @throws Refusal `needs-two` where no one move takes so much
 * @example catchInOne({ greatest_mps: 0.8, up_mps2: 1, down_mps2: 1, dead_s: 0 }, 12, 1) // held 1.362 s from 1.081 s before the top
 */
export function catchInOne(m: TipSpeed, rope_m: number, amplitude_m: number): Catch {
  const { w, reach, most_s, most_m } = oneMove(m, rope_m)
  if (amplitude_m > most_m)
    throw new Refusal(
      'needs-two',
      `One move takes a swing of ${most_m.toFixed(2)} m at most: catch this one in two.`,
      'amplitude_m',
    )
  const hold_s = boundary((s) => reach(s) < amplitude_m, 0, most_s, 1e-12)
  const { of, top, travel_m } = pulse(m, hold_s)
  const [re, im] = of(w)
  return { hold_s, lead_s: Math.atan2(im, re) / w + m.dead_s, travel_m, greatest_mps: top }
}

export interface Travel {
  /** Twice at half height, half a period apart; or held for whole periods. */
  how: 'twice' | 'whole-periods'
  takes_s: number
  /** The same way without regard to the swing. */
  heedless_s: number
}

/**
 * How long the quickest of two quiet ways takes from rest to rest: the speed's trapezium given twice at half height, half a period apart, or a lever
 * held for whole periods.
 *
 * @param distance_m of the tip
 */
export function quietTravel(m: TipSpeed, rope_m: number, distance_m: number): Travel {
  const T = swingPeriod_s(rope_m)
  const a = Math.min(m.up_mps2, m.down_mps2)
  const v = Math.min(m.greatest_mps, Math.sqrt(distance_m * a))
  const heedless_s = distance_m / v + v / a + m.dead_s
  const twice_s = heedless_s + T / 2
  for (let k = 1; ; k++) {
    const speed = distance_m / (k * T)
    if (k * T + speed / a + m.dead_s >= twice_s && speed <= m.greatest_mps) break
    if (speed > m.greatest_mps || speed / a > k * T) continue
    return { how: 'whole-periods', takes_s: k * T + speed / a + m.dead_s, heedless_s }
  }
  return { how: 'twice', takes_s: twice_s, heedless_s }
}
