import type { PracticeRun } from '@geolabe/contract'
import { type Machine, tick_s } from '@geolabe/core'
import { useCallback, useEffect, useMemo, useRef, useState } from 'react'
import { t } from '../language/t'
import { Button } from '../look/button'
import { Refused } from '../look/page'
import { againOf } from './again'
import { clockOf } from './clock'
import { sheetOf } from './scene'
import type { Trace } from './trace'
import { TwoPictures } from './two-pictures'
import { usePictures } from './use-pictures'

/** Something that happened at a moment of a run. */
export interface Moment {
  at_s: number
  words: string
}

/** A run seen again: gone through by the slider, or as it went; each thing that happened leads to its moment. */
export function SeenAgain({
  machine,
  run,
  ghost,
  moments,
}: {
  machine: Machine
  run: PracticeRun
  /** Where the reference went meanwhile. */
  ghost?: Trace
  moments: readonly Moment[]
}) {
  const made = useMemo(() => {
    try {
      return { again: againOf(machine, run, ghost) }
    } catch (e) {
      return { refused: e }
    }
  }, [machine, run, ghost])
  const above = useRef<HTMLCanvasElement>(null)
  const beside = useRef<HTMLCanvasElement>(null)
  const [at, setAt] = useState(1)
  const [going, setGoing] = useState(false)
  const again = 'again' in made ? made.again : null
  const draw = usePictures(
    [above, beside],
    useCallback((paint) => again?.draw(sheetOf(above.current, paint), sheetOf(beside.current, paint)), [again]),
  )
  const to = useCallback(
    (tick: number) => {
      if (!again) return
      again.to(tick)
      setAt(again.tick)
      draw()
    },
    [again, draw],
  )
  useEffect(() => {
    if (!again || !going) return
    let [frame, last_ms, owed] = [0, performance.now(), again.tick]
    const next = (now_ms: number) => {
      // As fast as it went; a device that is slow shows fewer moments of it, not a slower run.
      owed += (now_ms - last_ms) / 1000 / tick_s
      last_ms = now_ms
      to(owed)
      if (again.tick >= again.ticks) setGoing(false)
      else frame = requestAnimationFrame(next)
    }
    frame = requestAnimationFrame(next)
    return () => cancelAnimationFrame(frame)
  }, [again, going, to])
  if ('refused' in made) return <Refused error={made.refused} />
  if (!again) return null
  const time_s = at * tick_s
  const play = () => {
    if (at >= again.ticks) to(1)
    setGoing(!going)
  }
  return (
    <div className="grid gap-3">
      <TwoPictures above={above} beside={beside} time_s={time_s} />
      <div className="flex items-center gap-4">
        <Button className="min-w-28 justify-center" onClick={play}>
          {going ? t`Pause` : t`Play`}
        </Button>
        <input
          type="range"
          aria-label={t`Moment of the run`}
          aria-valuetext={clockOf(time_s)}
          className="h-12 grow accent-(--ink)"
          min={1}
          max={again.ticks}
          step={12}
          value={at}
          onChange={(e) => {
            setGoing(false)
            to(Number(e.target.value))
          }}
        />
        <span className="w-14 text-right text-[1.2rem] font-bold tabular-nums">{clockOf(time_s)}</span>
      </div>
      {ghost && <p className="text-quiet">{t`Broken ring: where the reference has its load at the same moment.`}</p>}
      {moments.length > 0 && (
        <ul className="grid gap-1.5">
          {moments.map((m) => (
            <li key={`${m.at_s} ${m.words}`}>
              <button
                type="button"
                className="min-h-12 w-full rounded-lg border-2 border-edge bg-paper px-3 py-1 text-left hover:bg-sunk"
                onClick={() => {
                  setGoing(false)
                  // A little before it, so that one sees it coming.
                  to((m.at_s - 1) / tick_s)
                }}
              >
                <span className="text-quiet tabular-nums">{clockOf(m.at_s)}</span> {m.words}
              </button>
            </li>
          ))}
        </ul>
      )}
    </div>
  )
}
