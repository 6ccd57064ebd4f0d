import { useEffect, useRef, useState } from 'react'
import { useGamepad } from './gamepad'
import type { Lever } from './levers'
import { useLeverKeys } from './use-keys'

export type RunState = 'ready' | 'going' | 'paused'

/** What became of a frame: time went on, the device was too far behind, or it was the last. */
export type Turned = 'on' | 'behind' | 'over'

/**
 * Levers held, frame by frame, by thumbs, keys or a gamepad. It pauses where the page is hidden, Escape is pressed, the device falls behind or a
 * gamepad is taken away.
 *
 * @param turn so much time with the levers held so, −1 to 1 an axis
 */
export function useTurn(
  levers: readonly Lever[],
  axes: number,
  onStop: () => void,
  turn: (dt_s: number, held: readonly number[], at_ms: number) => Turned,
) {
  const [state, setState] = useState<RunState>('ready')
  const pushed = useRef(new Map<number, number>())
  const keys = useLeverKeys(levers, state === 'going', onStop)
  const pad = useGamepad(levers, state === 'going', onStop, () => setState('paused'))
  const now = useRef({ keys, pad, turn })
  now.current = { keys, pad, turn }

  useEffect(() => {
    if (state !== 'going') {
      pushed.current.clear()
      return
    }
    const hide = () => document.hidden && setState('paused')
    const onEscape = (e: KeyboardEvent) => e.key === 'Escape' && setState('paused')
    document.addEventListener('visibilitychange', hide)
    addEventListener('keydown', onEscape)
    let [frame, last] = [0, performance.now()]
    const next = (at: number) => {
      const dt_s = Math.max(0, at - last) / 1000
      last = at
      const byKeys = now.current.keys(dt_s, axes)
      const byPad = now.current.pad(axes)
      const held = byKeys.map((k, i) => Math.max(-1, Math.min(1, k + (byPad[i] ?? 0) + (pushed.current.get(i) ?? 0))))
      const turned = now.current.turn(dt_s, held, at)
      if (turned === 'behind') setState('paused')
      if (turned !== 'over') frame = requestAnimationFrame(next)
    }
    frame = requestAnimationFrame(next)
    return () => {
      cancelAnimationFrame(frame)
      document.removeEventListener('visibilitychange', hide)
      removeEventListener('keydown', onEscape)
    }
  }, [state, axes])

  const push = (to: ReadonlyMap<number, number>) => {
    for (const [axis, u] of to) pushed.current.set(axis, u)
  }
  return { state, push, go: () => setState('going'), pause: () => setState('paused') }
}
