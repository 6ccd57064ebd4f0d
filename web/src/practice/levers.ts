import { type ControlMap, type ControlWay, type DrivingMotion, drivingMotions, type Rig } from '@geolabe/core'

/** One way of a lever: what it does, in the machine's own words, and the key for it. */
export interface LeverWay {
  way: ControlWay
  does: string
  /** Index of the axis among the rig's, and which way this moves it. */
  axis: number
  sense: 1 | -1
  key: string
  /** A button: it knows all and nothing. */
  presses: boolean
}

/** A lever as it stands on the machine, with the ways that practice knows. */
export interface Lever {
  name: string
  /** Which it is, from the left. */
  stands: number
  ways: LeverWay[]
}

/** Keys of the first to the fifth lever: forward, back, left, right. */
const clusters = [
  ['w', 's', 'a', 'd'],
  ['ArrowUp', 'ArrowDown', 'ArrowLeft', 'ArrowRight'],
  ['i', 'k', 'j', 'l'],
  ['t', 'g', 'f', 'h'],
  ['y', 'n', 'v', 'b'],
] as const
const place: Partial<Record<ControlWay, 0 | 1 | 2 | 3>> = {
  forward: 0,
  up: 0,
  back: 1,
  down: 1,
  left: 2,
  right: 3,
  'turned-left': 2,
  'turned-right': 3,
}
const keyOf = (lever: number, way: ControlWay): string => {
  const at = place[way]
  return at === undefined ? '' : (clusters[lever % clusters.length]?.[at] ?? '')
}
/** Which way a motion goes on the screen that two buttons or valves make, one each way. */
function wayOnScreen({ axes, under }: Rig, { axis, sense }: LeverWay): ControlWay {
  const motion = axes[axis]?.motion
  if (motion === 'slew') return sense > 0 ? 'left' : 'right'
  if (motion === 'trolley' && under === 'beam') return sense > 0 ? 'right' : 'left'
  return sense > 0 ? 'up' : 'down'
}

/** What goes one way only stands with what goes the other way of the same motion: two buttons are one lever. */
function paired(levers: readonly Lever[], rig: Rig): Lever[] {
  const single = (l: Lever) => (l.ways.length === 1 ? l.ways[0] : undefined)
  const out: Lever[] = []
  for (const l of levers) {
    const [only, other] = [single(l), out.find((o) => single(o) && single(o)?.axis === single(l)?.axis)]
    if (!only || !other) out.push(l)
    else {
      other.name = `${other.name}, ${l.name}`
      other.ways = [...other.ways, only].map((w) => ({ ...w, way: wayOnScreen(rig, w) }))
    }
  }
  return out
}

/** The levers of a machine by its own map of controls, in the order they stand, each way with its key. */
export function leversOf({ devices, does: controls }: ControlMap, rig: Rig): Lever[] {
  const levers = new Map<string, Lever>()
  for (const { does, device, way, moves } of controls) {
    const axis = moves ? rig.axes.findIndex((a) => a.motion === moves.motion) : -1
    const lever = devices.find((d) => d.id === device)
    if (!moves || !way || !lever || axis < 0) continue
    const known = levers.get(lever.id) ?? { name: lever.label, stands: lever.stands, ways: [] }
    known.ways.push({ way, does, sense: moves.sense, axis, key: '', presses: lever.kind === 'button' })
    levers.set(lever.id, known)
  }
  const asTheyStand = [...levers.values()].sort((a, b) => a.stands - b.stands)
  return paired(asTheyStand, rig).map((l, i) => ({
    ...l,
    ways: l.ways.map((w) => ({ ...w, key: keyOf(i, w.way) })),
  }))
}

/** In this order under the thumbs: wheel and forks on the left, travel and tilt on the right; each with the keys of that cluster. */
const underThumbs: readonly { motion: DrivingMotion; keys: number }[] = [
  { motion: 'steer', keys: 0 },
  { motion: 'forks', keys: 1 },
  { motion: 'travel', keys: 0 },
  { motion: 'tilt', keys: 2 },
  { motion: 'shift', keys: 3 },
]

/**
 * What a truck is driven by, a lever a motion, whatever makes it on the machine: two pedals that go one way each are one, and so are a direction
 * lever and its pedal.
 */
export function drivingLeversOf({ devices, does }: ControlMap): Lever[] {
  return underThumbs.flatMap(({ motion, keys }, stands) => {
    const its = does.filter((c) => c.moves?.motion === motion)
    const of = devices.filter((d) => its.some((c) => c.device === d.id))
    const ways = its.flatMap(({ does: words, way, moves }): LeverWay[] => {
      if (!moves) return []
      // A pedal is pressed either way: on the screen forward is up.
      const to = motion === 'travel' || !way || place[way] === undefined ? (moves.sense > 0 ? 'forward' : 'back') : way
      return [
        { way: to, does: words, sense: moves.sense, axis: drivingMotions.indexOf(motion), key: keyOf(keys, to), presses: false },
      ]
    })
    return ways.length === 0 ? [] : [{ name: of.map((d) => d.label).join(', '), stands, ways }]
  })
}

/** Up or down the screen, or sideways: where a way points. */
export const isSideways = (w: ControlWay) => w === 'left' || w === 'right' || w === 'turned-left' || w === 'turned-right'
export const pointsBack = (w: ControlWay) => w === 'back' || w === 'down' || w === 'left' || w === 'turned-left'

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
    if (its > 0) said.set(w.axis, (w.presses ? 1 : its) * w.sense)
    else if (!said.has(w.axis)) said.set(w.axis, 0)
  }
  return said
}

/** How a key is called. */
export const keyName = (key: string): string =>
  ({ ArrowUp: '↑', ArrowDown: '↓', ArrowLeft: '←', ArrowRight: '→' })[key] ?? key.toUpperCase()
