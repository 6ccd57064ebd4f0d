import { useEffect, useRef, useState } from 'react'
import { t } from '../language/t'
import { feel, isSideways, type Lever, pushed } from './levers'

/** A pad's stick, pushed forward (up) and to the right, each −1 to 1. */
interface Stick {
  forward: number
  right: number
}
/** Both sticks, and the two triggers against one another: the right one pulled is 1, the left one −1. */
export interface Pad {
  sticks: readonly [left: Stick, right: Stick]
  triggers: number
}

/** Where a lever lies on a pad: a whole stick, one of its two directions, or the triggers. */
export type OnPad = { stick: 0 | 1; along: 'both' | 'forward' | 'right' } | 'triggers'

const other = (stick: 0 | 1): 0 | 1 => (stick === 0 ? 1 : 0)

/**
 * Which lever is which stick, in the order they stand: two levers a stick each; of more, one that goes every way a stick of its own, the others half
 * under each thumb, one that goes sideways sideways, as far as there is room; then the triggers; null: there is none.
 */
export function onPad(levers: readonly Lever[]): (OnPad | null)[] {
  if (levers.length <= 2) return levers.map((_, i) => ({ stick: i === 0 ? 0 : 1, along: 'both' }))
  const free = new Set(['0 forward', '0 right', '1 forward', '1 right', 'triggers'])
  const placed = new Map<Lever, OnPad>()
  const sidewaysOf = (l: Lever) => l.ways.map((w) => isSideways(w.way))
  const isEveryWay = (l: Lever) => new Set(sidewaysOf(l)).size === 2
  for (const [i, l] of levers.entries()) {
    if (!isEveryWay(l)) continue
    const own = i < (levers.length - 1) / 2 ? 0 : 1
    const stick = ([own, other(own)] as const).find((s) => free.has(`${s} forward`))
    if (stick === undefined) continue
    free.delete(`${stick} forward`)
    free.delete(`${stick} right`)
    placed.set(l, { stick, along: 'both' })
  }
  for (const [i, l] of levers.entries()) {
    if (isEveryWay(l)) continue
    const own = i < levers.length / 2 ? 0 : 1
    const wanted = sidewaysOf(l).includes(true) ? (['right', 'forward'] as const) : (['forward', 'right'] as const)
    const along = wanted.find((a) => free.delete(`${own} ${a}`))
    const there = along ? undefined : wanted.find((a) => free.delete(`${other(own)} ${a}`))
    if (along) placed.set(l, { stick: own, along })
    else if (there) placed.set(l, { stick: other(own), along: there })
    else if (free.delete('triggers')) placed.set(l, 'triggers')
  }
  return levers.map((l) => placed.get(l) ?? null)
}

/** What the sticks say to each axis. */
export function bySticks(levers: readonly Lever[], { sticks, triggers }: Pad, axes: number): number[] {
  const said = Array.from({ length: axes }, () => 0)
  const places = onPad(levers)
  for (const [i, lever] of levers.entries()) {
    const place = places[i]
    if (!place) continue
    const { forward, right } = place === 'triggers' ? { forward: triggers, right: triggers } : sticks[place.stick]
    const whole = place !== 'triggers' && place.along === 'both'
    const only = place !== 'triggers' && place.along === 'right' ? right : forward
    const to = whole ? pushed(lever, feel(forward), feel(right)) : pushed(lever, feel(only), feel(only))
    for (const [axis, u] of to) said[axis] = (said[axis] ?? 0) + u
  }
  return said
}

/** Any of the four keys under the right thumb stops everything. */
const stopKeys = [0, 1, 2, 3]

/** The first pad that is there and laid out as pads are. */
const padNow = (): Gamepad | null => navigator.getGamepads?.().find((g) => g?.connected && g.mapping === 'standard') ?? null

/** A gamepad as the machine's levers, read each frame; taken away in a run, it lets time stand still. */
export function useGamepad(levers: readonly Lever[], active: boolean, onStop: () => void, onLost: () => void) {
  const calls = useRef({ onStop, onLost })
  calls.current = { onStop, onLost }
  const had = useRef(false)
  const pressed = useRef(false)
  useEffect(() => {
    if (!active) had.current = false
  }, [active])
  return (axes: number): number[] => {
    const pad = padNow()
    if (!pad) {
      if (had.current) calls.current.onLost()
      had.current = false
      return Array.from({ length: axes }, () => 0)
    }
    had.current = true
    const now = stopKeys.some((k) => pad.buttons[k]?.pressed)
    if (now && !pressed.current) calls.current.onStop()
    pressed.current = now
    const [lx = 0, ly = 0, rx = 0, ry = 0] = pad.axes
    const sticks = [
      { forward: -ly, right: lx },
      { forward: -ry, right: rx },
    ] as const
    return bySticks(levers, { sticks, triggers: (pad.buttons[7]?.value ?? 0) - (pad.buttons[6]?.value ?? 0) }, axes)
  }
}

/** The keys over its sticks, left and right, and the two small ones in its middle: held or not. */
export function padKeys(): Record<'left' | 'right' | 'middleLeft' | 'middleRight', boolean> {
  const buttons = padNow()?.buttons
  const is = (k: number) => buttons?.[k]?.pressed ?? false
  return { left: is(4), right: is(5), middleLeft: is(8), middleRight: is(9) }
}

/** Whether a pad is there, as it comes and goes. */
export function usePadThere(): boolean {
  const [there, setThere] = useState(() => padNow() !== null)
  useEffect(() => {
    const look = () => setThere(padNow() !== null)
    addEventListener('gamepadconnected', look)
    addEventListener('gamepaddisconnected', look)
    return () => {
      removeEventListener('gamepadconnected', look)
      removeEventListener('gamepaddisconnected', look)
    }
  }, [])
  return there
}

/** Where a lever lies on the pad, as its player finds it. */
export const padWords = (place: OnPad | null): string => {
  if (!place) return t`not on the pad`
  if (place === 'triggers') return t`triggers, right one forward`
  const stick = place.stick === 0 ? t`left stick` : t`right stick`
  return place.along === 'both' ? stick : place.along === 'forward' ? t`${stick}, up and down` : t`${stick}, sideways`
}
