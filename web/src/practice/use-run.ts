import type { LoadRun, Machine, Sample } from '@geolabe/core'
import { type RefObject, useEffect, useRef, useState } from 'react'
import { newId } from '../api/client'
import { useGamepad } from './gamepad'
import type { Lever } from './levers'
import { Recorder } from './recorder'
import { drawPlan, drawSide, paintsOf, sheetOf } from './scene'
import { useLeverKeys } from './use-keys'

/** Figures on the screen are written anew so often, ms: more often nobody reads them. */
const figures_ms = 100

/** As a run stands before its first tick. */
function firstLook({ rig, drill }: Recorder): Sample {
  const fresh = new Recorder({ id: '', revision: 1 }, rig, drill.course, { seed: 0, level: 0 })
  fresh.pass(0.02, [])
  const s = fresh.drill.samples[0]
  if (!s) throw new Error('A run has a first tick.')
  return s
}

export type RunState = 'ready' | 'going' | 'paused'

interface Told {
  s: Sample
  ring: number
  time_s: number
  /** What the levers say, an axis each. */
  held: readonly number[]
}

/**
 * A run turned frame by frame: levers in, machine and load drawn, figures told. It pauses where the page is hidden, the device falls behind or a gamepad is taken away, and
 * hands the run over once it is over.
 */
export function useRun(
  recorder: Recorder,
  machine: Machine,
  levers: readonly Lever[],
  plan: RefObject<HTMLCanvasElement | null>,
  side: RefObject<HTMLCanvasElement | null>,
  onOver: (run: LoadRun) => void,
) {
  const [state, setState] = useState<RunState>('ready')
  const { rig, drill } = recorder
  const pushed = useRef(new Map<number, number>())
  const [told, setTold] = useState<Told>(() => ({ s: firstLook(recorder), ring: 1, time_s: 0, held: rig.axes.map(() => 0) }))
  const keys = useLeverKeys(levers, state === 'going', () => recorder.stop())
  const pad = useGamepad(
    levers,
    state === 'going',
    () => recorder.stop(),
    () => setState('paused'),
  )
  const now = useRef({ keys, pad, onOver })
  now.current = { keys, pad, onOver }

  useEffect(() => {
    const draw = () => {
      const paint = paintsOf(document.documentElement)
      const s = drill.samples.at(-1) ?? firstLook(recorder)
      const above = sheetOf(plan.current, paint)
      if (above) drawPlan(above, drill, machine.outline.plan, s)
      const beside = sheetOf(side.current, paint)
      if (beside) drawSide(beside, drill, s)
      return s
    }
    const again = () => void draw()
    // Drawn anew where its room changes, and where day turns to night while it stands still.
    const watched = new ResizeObserver(again)
    for (const c of [plan.current, side.current]) if (c) watched.observe(c)
    const lit = new MutationObserver(again)
    lit.observe(document.documentElement, { attributeFilter: ['data-light'] })
    const unwatch = () => {
      watched.disconnect()
      lit.disconnect()
    }
    if (state !== 'going') {
      pushed.current.clear()
      return unwatch
    }
    const hide = () => document.hidden && setState('paused')
    const onEscape = (e: KeyboardEvent) => e.key === 'Escape' && setState('paused')
    document.addEventListener('visibilitychange', hide)
    addEventListener('keydown', onEscape)
    let [frame, last, last_told] = [0, performance.now(), 0]
    const turn = (at: number) => {
      const dt_s = Math.max(0, at - last) / 1000
      last = at
      const byKeys = now.current.keys(dt_s, rig.axes.length)
      const byPad = now.current.pad(rig.axes.length)
      const held = byKeys.map((k, i) => Math.max(-1, Math.min(1, k + (byPad[i] ?? 0) + (pushed.current.get(i) ?? 0))))
      if (!recorder.pass(dt_s, held)) setState('paused')
      const s = draw()
      if (at - last_told > figures_ms) {
        last_told = at
        const ring = Math.min(drill.course.legs.length, drill.landed.length + 1)
        setTold({ s, ring, time_s: recorder.time_s, held })
      }
      if (drill.over) now.current.onOver(recorder.run(newId()))
      else frame = requestAnimationFrame(turn)
    }
    frame = requestAnimationFrame(turn)
    return () => {
      cancelAnimationFrame(frame)
      unwatch()
      document.removeEventListener('visibilitychange', hide)
      removeEventListener('keydown', onEscape)
    }
  }, [state, recorder, drill, rig, machine, plan, side])

  const push = (to: ReadonlyMap<number, number>) => {
    for (const [axis, u] of to) pushed.current.set(axis, u)
  }
  return { state, told, push, go: () => setState('going'), pause: () => setState('paused') }
}
