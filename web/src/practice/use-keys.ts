import { useEffect, useRef } from 'react'
import type { Lever, LeverWay } from './levers'
import { onKeys } from './on-keys'

/** From nothing to full, seconds, while a key is held. */
const ramp_s = 0.3
const fine = 0.5

/** Keys held down as levers: each runs up to full in a moment and is back in its middle when let go; with Shift, half. */
export function useLeverKeys(levers: readonly Lever[], active: boolean, onStop: () => void) {
  const down = useRef(new Map<string, number>())
  const half = useRef(false)
  const stop = useRef(onStop)
  stop.current = onStop
  useEffect(() => {
    down.current.clear()
    if (!active) return
    const known = new Set(levers.flatMap((l) => l.ways.map((w) => w.key.toLowerCase())))
    const press = (e: KeyboardEvent) => {
      half.current = e.shiftKey
      if (e.ctrlKey || e.metaKey || e.altKey) return
      if (e.code === 'Space') {
        e.preventDefault()
        if (!e.repeat) stop.current()
        return
      }
      const key = e.key.toLowerCase()
      if (!known.has(key)) return
      e.preventDefault()
      if (!down.current.has(key)) down.current.set(key, 0)
    }
    const release = (e: KeyboardEvent) => {
      half.current = e.shiftKey
      down.current.delete(e.key.toLowerCase())
    }
    return onKeys(press, release, () => down.current.clear())
  }, [levers, active])
  /** What the keys say to each axis after so much more time. */
  return (dt_s: number, axes: number): number[] => {
    const said = Array.from({ length: axes }, () => 0)
    const of = (w: LeverWay) => {
      const held = down.current.get(w.key.toLowerCase())
      if (held === undefined) return
      const now = w.presses ? 1 : Math.min(1, held + dt_s / ramp_s)
      down.current.set(w.key.toLowerCase(), now)
      said[w.axis] = (said[w.axis] ?? 0) + w.sense * now * (half.current ? fine : 1)
    }
    for (const l of levers) for (const w of l.ways) of(w)
    return said
  }
}
