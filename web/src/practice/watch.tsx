import type { Exam, ExamTry } from '@geolabe/contract'
import { type Machine, tick_s } from '@geolabe/core'
import { type ReactNode, useCallback, useEffect, useRef, useState } from 'react'
import { useMachine, useTryWatched } from '../api/queries'
import { t } from '../language/t'
import { Loaded, Refused } from '../look/page'
import { type Growing, watchedOf } from './again'
import { clockOf } from './clock'
import { sheetOf } from './scene'
import { TwoPictures } from './two-pictures'
import { usePictures } from './use-pictures'

/** It is shown so far behind, so that it goes on evenly; further behind it catches up. */
const [behind_s, far_s] = [1.5, 4]
/** In one frame it catches up by so much of the run. */
const most_ticks = Math.round(20 / tick_s)
/** Nothing new for so long: time stands still there, or the network is away. */
const quiet_ms = 5000
/** The clock is written anew so often. */
const clock_ms = 200

/** A try as it goes on, a second or two behind. */
export function Watch({ exam, made, children }: { exam: Exam; made: ExamTry; children: (at_s: number) => ReactNode }) {
  const machine = useMachine(exam.machine.id)
  return (
    <Loaded query={machine}>
      {(m) => (
        <Watching machine={m.definition} exam={exam} made={made}>
          {children}
        </Watching>
      )}
    </Loaded>
  )
}

function Watching({
  machine,
  exam,
  made,
  children,
}: {
  machine: Machine
  exam: Exam
  made: ExamTry
  children: (at_s: number) => ReactNode
}) {
  const watched = useTryWatched(exam.id, made.id)
  const soFar = watched.data?.soFar ?? null
  const growing = useRef<Growing | null>(null)
  const heard_ms = useRef(0)
  const above = useRef<HTMLCanvasElement>(null)
  const beside = useRef<HTMLCanvasElement>(null)
  const [told, setTold] = useState({ at_s: 0, quiet: false })
  const [refused, setRefused] = useState<unknown>(null)
  const draw = usePictures(
    [above, beside],
    useCallback((paint) => growing.current?.draw(sheetOf(above.current, paint), sheetOf(beside.current, paint)), []),
  )
  useEffect(() => {
    if (!soFar) return
    heard_ms.current = performance.now()
    try {
      if (growing.current) growing.current.more(soFar)
      else growing.current = watchedOf(machine, soFar)
    } catch (e) {
      setRefused(e)
    }
  }, [soFar, machine])
  useEffect(() => {
    let [frame, last_ms, told_ms, shown] = [0, performance.now(), 0, 0]
    const next = (now_ms: number) => {
      frame = requestAnimationFrame(next)
      const passed = (now_ms - last_ms) / 1000 / tick_s
      last_ms = now_ms
      const g = growing.current
      if (!g) return
      const wanted = g.ticks - shown > far_s / tick_s ? g.ticks - behind_s / tick_s : shown + passed
      shown = Math.min(wanted, g.ticks, g.tick + most_ticks)
      g.to(shown)
      draw()
      if (now_ms - told_ms < clock_ms) return
      told_ms = now_ms
      setTold({ at_s: g.tick * tick_s, quiet: now_ms - heard_ms.current > quiet_ms })
    }
    frame = requestAnimationFrame(next)
    return () => cancelAnimationFrame(frame)
  }, [draw])
  if (refused !== null) return <Refused error={refused} />
  return (
    <div className="grid gap-3">
      <TwoPictures above={above} beside={beside} time_s={told.at_s} />
      <div className="flex items-baseline gap-4">
        <span className="text-[1.7rem] leading-none font-bold tabular-nums">{clockOf(told.at_s)}</span>
        <p role="status" className="text-quiet">
          {told.at_s === 0
            ? t`Nothing has come of it yet.`
            : told.quiet
              ? t`Nothing new: time stands still there, or there is no network.`
              : t`A second or two behind.`}
        </p>
      </div>
      {children(told.at_s)}
    </div>
  )
}
