import { type Called, calledIn, type EyePart, type LoadRun, type Machine, type Sample } from '@geolabe/core'
import { type RefObject, useCallback, useRef, useState } from 'react'
import { drawFromEye } from './cab-scene'
import { useRunId } from './given'
import type { Lever } from './levers'
import { Recorder } from './recorder'
import { drawPlan, drawSide, sheetOf } from './scene'
import { usePictures } from './use-pictures'
import { useSoFar } from './use-so-far'
import { useTurn } from './use-turn'

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

interface Told {
  s: Sample
  ring: number
  time_s: number
  /** What the levers say, an axis each. */
  held: readonly number[]
  /** What a signaller says while the load is out of sight. */
  called: Called | null
}

/** A run turned frame by frame: levers in, machine and load drawn, figures told; once it is over it is handed over. */
export function useRun(
  recorder: Recorder,
  machine: Machine,
  levers: readonly Lever[],
  plan: RefObject<HTMLCanvasElement | null>,
  beside: { canvas: RefObject<HTMLCanvasElement | null>; fromEye: EyePart | null },
  onHeard: (offset_m: number) => void,
  onOver: (run: LoadRun) => void,
) {
  const { rig, drill } = recorder
  const runId = useRunId()
  const [told, setTold] = useState<Told>(() => ({
    s: firstLook(recorder),
    ring: 1,
    time_s: 0,
    held: rig.axes.map(() => 0),
    called: null,
  }))
  useSoFar(() => {
    const run = recorder.run(runId())
    return { ticks: run.ticks, run }
  })
  const told_ms = useRef(0)
  const { canvas: side, fromEye } = beside
  const draw = usePictures(
    [plan, side],
    useCallback(
      (paint) => {
        const s = drill.samples.at(-1) ?? firstLook(recorder)
        const above = sheetOf(plan.current, paint)
        if (above) drawPlan(above, drill, machine.outline.plan, s, null, true)
        const other = sheetOf(side.current, paint)
        if (other && fromEye) drawFromEye(other, drill, s, fromEye)
        else if (other) drawSide(other, drill, s, true)
        return s
      },
      [recorder, drill, machine, plan, side, fromEye],
    ),
  )
  const turned = useTurn(
    levers,
    rig.axes.length,
    () => recorder.stop(),
    (dt_s, held, at_ms) => {
      const kept = recorder.pass(dt_s, held)
      const s = draw()
      onHeard(Math.hypot(...s.beside_m))
      if (at_ms - told_ms.current > figures_ms) {
        told_ms.current = at_ms
        const ring = Math.min(drill.course.legs.length, drill.landed.length + 1)
        setTold({ s, ring, time_s: recorder.time_s, held, called: calledIn(drill) })
      }
      if (drill.over) onOver(recorder.run(runId()))
      return drill.over ? 'over' : kept ? 'on' : 'behind'
    },
  )
  return { ...turned, told }
}
