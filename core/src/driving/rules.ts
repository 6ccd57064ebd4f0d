import { tick_s } from '../swing/axis'

/** What driving is judged by. */
export const driveRules = [
  'people',
  'edge-room',
  'load-uphill',
  'view-blocked',
  'corner-horn',
  'door-horn',
  'look-back',
  'travel-height',
  'mast-back',
  'shift-centred',
  'picking',
  'leaving',
] as const
export type DriveRule = (typeof driveRules)[number]

export type RuleMark = 'kept' | 'late' | 'missed'

const marks: readonly RuleMark[] = ['kept', 'late', 'missed']
export const worseMark = (a: RuleMark, b: RuleMark): RuleMark => (marks.indexOf(a) > marks.indexOf(b) ? a : b)

/** So much of it is still kept, so much late; more is missed. */
export const byAmount = (amount: number, kept: number, late: number): RuleMark =>
  amount <= kept ? 'kept' : amount <= late ? 'late' : 'missed'

/** Held from a tick until before another. */
export type Held = readonly [from: number, until: number]

const ticks = (s: number) => Math.round(s / tick_s)
/** How long of something held falls between two ticks, ticks. */
const within = (held: readonly Held[], from: number, until: number) =>
  held.reduce((sum, [a, b]) => sum + Math.max(0, Math.min(b, until) - Math.max(a, from)), 0)

/** Sounded all the time it warns nobody. */
const horn = { most_s: 4, in_s: 10 } as const

/** Sounded for more than four seconds in ten. */
export function soundsAllTheTime(held: readonly Held[]): boolean {
  const ends = held.flatMap(([a, b]) => [b, a + ticks(horn.in_s)])
  return ends.some((end) => within(held, end - ticks(horn.in_s), end) > ticks(horn.most_s))
}

/**
 * A horn before a corner or a door: from two seconds to half a second before it is passed. Sooner, or only as it is passed, is not at its time.
 *
 * @param passed the tick at which the end that goes first comes to it; null: it never did
 */
export function hornBefore(held: readonly Held[], passed: number | null): RuleMark | null {
  if (passed === null) return null
  if (soundsAllTheTime(held)) return 'missed'
  const between = (from_s: number, until_s: number) => within(held, passed - ticks(from_s), passed - ticks(until_s)) > 0
  if (between(2, 0.5)) return 'kept'
  return between(4, 2) || between(0.5, -0.5) ? 'late' : 'missed'
}

/** A look has lasted so long. */
const look_s = 0.6

/** Eyes back before it goes backwards: for over half a second, within the last three; a moment after is late. */
export function lookedBack(held: readonly Held[], reversed: number): RuleMark {
  const looked = (from_s: number, until_s: number) =>
    held.some((h) => within([h], reversed - ticks(from_s), reversed - ticks(until_s)) >= ticks(look_s))
  return looked(3, 0) ? 'kept' : looked(3, -1) ? 'late' : 'missed'
}

/** How a truck was left once its load stood: since which tick its brake was on and its key out, null: not; its mast not leaning back. */
export interface Left {
  brake: number | null
  key: number | null
  upright: boolean
}

/** Forks flat, the brake on, then the key out. Out before the brake was on, or with the forks' tips up, is late; without one of the two it was not left at all. */
export function leftWell({ brake, key, upright }: Left): RuleMark {
  if (brake === null || key === null) return 'missed'
  return upright && brake <= key ? 'kept' : 'late'
}
