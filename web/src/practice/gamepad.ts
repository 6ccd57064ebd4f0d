import { useEffect, useRef, useState } from 'react'
import { t } from '../language/t'
import { feel, isSideways, type Lever, pushed } from './levers'

/** A pad's stick, pushed forward (up) and to the right, each −1 to 1. */
export type Sticks = readonly [left: { forward: number; right: number }, right: { forward: number; right: number }]

/** Where a lever lies on a pad: a whole stick, or one of its two directions. */
export interface OnPad {
  stick: 0 | 1
  along: 'both' | 'forward' | 'right'
}

/**
 * Which lever is which stick, in the order they stand: two levers a stick each; of more, half under each thumb, one that goes sideways
 * sideways, as far as there is room; null: there is none.
 */
export function onPad(levers: readonly Lever[]): (OnPad | null)[] {
  if (levers.length <= 2) return levers.map((_, i) => ({ stick: i === 0 ? 0 : 1, along: 'both' }))
  const taken = new Set<string>()
  return levers.map(({ ways }, i) => {
    const sideways = ways.map((w) => isSideways(w.way))
    if (sideways.includes(true) && sideways.includes(false)) return null
    const stick = i < levers.length / 2 ? 0 : 1
    const wanted = sideways.includes(true) ? (['right', 'forward'] as const) : (['forward', 'right'] as const)
    const along = wanted.find((a) => !taken.has(`${stick} ${a}`))
    if (!along) return null
    taken.add(`${stick} ${along}`)
    return { stick, along }
  })
}

/** What the sticks say to each axis. */
export function bySticks(levers: readonly Lever[], sticks: Sticks, axes: number): number[] {
  const said = Array.from({ length: axes }, () => 0)
  const places = onPad(levers)
  for (const [i, lever] of levers.entries()) {
    const place = places[i]
    if (!place) continue
    const { forward, right } = sticks[place.stick]
    const only = place.along === 'forward' ? forward : right
    const to = place.along === 'both' ? pushed(lever, feel(forward), feel(right)) : pushed(lever, feel(only), feel(only))
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
    return bySticks(
      levers,
      [
        { forward: -ly, right: lx },
        { forward: -ry, right: rx },
      ],
      axes,
    )
  }
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
  const stick = place.stick === 0 ? t`left stick` : t`right stick`
  return place.along === 'both' ? stick : place.along === 'forward' ? t`${stick}, up and down` : t`${stick}, sideways`
}
