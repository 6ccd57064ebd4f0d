import type { ControlMap, ControlWay, MotionName, Rig } from '@geolabe/core'

/** One way of a lever: what it does, in the machine's own words, and the key for it. */
export interface LeverWay {
  way: ControlWay
  does: string
  motion: MotionName
  /** Index of the axis among the rig's, and which way this moves it. */
  axis: number
  sense: 1 | -1
  key: string
}

/** A lever as it stands on the machine, with the ways that practice knows. */
export interface Lever {
  name: string
  /** Which it is, from the left. */
  stands: number
  ways: LeverWay[]
}

/** Keys of the first, second … lever: forward, back, left, right. */
const clusters = [
  ['w', 's', 'a', 'd'],
  ['ArrowUp', 'ArrowDown', 'ArrowLeft', 'ArrowRight'],
  ['i', 'k', 'j', 'l'],
  ['t', 'g', 'f', 'h'],
] as const
const place: Partial<Record<ControlWay, 0 | 1 | 2 | 3>> = { forward: 0, up: 0, back: 1, down: 1, left: 2, right: 3 }
const keyOf = (lever: number, way: ControlWay): string => {
  const at = place[way]
  return at === undefined ? '' : (clusters[lever % clusters.length]?.[at] ?? '')
}
/** The levers of a machine by its own map of controls, in the order they stand, each way with its key. */
export function leversOf({ devices, does: controls }: ControlMap, rig: Rig): Lever[] {
  const levers = new Map<string, Lever>()
  for (const { does, device, way, moves } of controls) {
    const axis = moves ? rig.axes.findIndex((a) => a.motion === moves.motion) : -1
    const lever = devices.find((d) => d.id === device)
    if (!moves || !way || !lever || axis < 0) continue
    const known = levers.get(lever.id) ?? { name: lever.label, stands: lever.stands, ways: [] }
    known.ways.push({ way, does, ...moves, axis, key: '' })
    levers.set(lever.id, known)
  }
  return [...levers.values()]
    .sort((a, b) => a.stands - b.stands)
    .map((l, i) => ({
      ...l,
      ways: l.ways.map((w) => ({ ...w, key: keyOf(i, w.way) })),
    }))
}

/** Up or down the screen, or sideways: where a way points. */
export const isSideways = (w: ControlWay) => w === 'left' || w === 'right'
export const pointsBack = (w: ControlWay) => w === 'back' || w === 'down' || w === 'left'

/** A lever pushed so far of its whole travel: nothing near its middle, fine at first. */
export function feel(share: number): number {
  const dead = 0.12
  const past = (Math.min(1, Math.abs(share)) - dead) / (1 - dead)
  return past <= 0 ? 0 : Math.sign(share) * past ** 2
}

/** What pushing a lever so far forward (or up) and so far right says to each axis. */
export function pushed(lever: Lever, forward: number, right: number): Map<number, number> {
  const said = new Map<number, number>()
  for (const w of lever.ways) {
    const along = isSideways(w.way) ? right : forward
    const its = pointsBack(w.way) ? -along : along
    if (its > 0) said.set(w.axis, its * w.sense)
    else if (!said.has(w.axis)) said.set(w.axis, 0)
  }
  return said
}

/** How a key is called. */
export const keyName = (key: string): string =>
  ({ ArrowUp: '↑', ArrowDown: '↓', ArrowLeft: '←', ArrowRight: '→' })[key] ?? key.toUpperCase()
