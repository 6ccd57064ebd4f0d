import clsx from 'clsx'
import { useMemo, useRef, useState } from 'react'
import { t } from '../language/t'
import { Button } from '../look/button'
import { onPad, padWords, usePadThere } from './gamepad'
import { feel, isSideways, keyName, type Lever, pointsBack, pushed } from './levers'

/** So far a thumb moves for the whole of a lever, pixels. */
const travel_px = 64

/**
 * One lever under a thumb: put down anywhere on it, pushed from there, back in its middle when let go. Its ways stand on it in the machine's own
 * words with their keys.
 */
function LeverPad({
  lever,
  padded,
  held,
  onPush,
}: {
  lever: Lever
  /** Where it lies on a gamepad, where one is there. */
  padded: string | null
  held: readonly number[]
  onPush: (to: Map<number, number>) => void
}) {
  const from = useRef<{ id: number; x: number; y: number } | null>(null)
  const [at, setAt] = useState<{ x: number; y: number }>({ x: 0, y: 0 })
  const wide = lever.ways.some((w) => isSideways(w.way))
  // Where nothing stands above and below, a phone has the words there, clear of the knob.
  const sideways = lever.ways.every((w) => isSideways(w.way))
  const move = (x: number, y: number) => {
    const clamp = (v: number) => Math.max(-1, Math.min(1, v))
    const [right, forward] = [clamp(x / travel_px), clamp(-y / travel_px)]
    setAt({ x: right, y: forward })
    onPush(pushed(lever, feel(forward), feel(right)))
  }
  const release = (id: number) => {
    if (from.current?.id !== id) return
    from.current = null
    setAt({ x: 0, y: 0 })
    onPush(pushed(lever, 0, 0))
  }
  return (
    <div className={clsx('min-w-0 text-center', wide ? 'flex-[1.4] max-w-44' : 'flex-1 max-w-28')}>
      <p className="mb-1 text-[0.9rem] leading-tight font-semibold">
        <span className="max-sm:line-clamp-2">{lever.name}</span>
        {padded && <span className="block text-[0.82rem] font-normal text-quiet">{padded}</span>}
      </p>
      <div
        role="group"
        aria-label={lever.name}
        className={clsx(
          'relative h-40 touch-none rounded-xl border-2 border-edge bg-sheet select-none',
          from.current ? 'border-ink' : '',
        )}
        onPointerDown={(e) => {
          e.preventDefault()
          e.currentTarget.setPointerCapture(e.pointerId)
          from.current = { id: e.pointerId, x: e.clientX, y: e.clientY }
          move(0, 0)
        }}
        onPointerMove={(e) => {
          const f = from.current
          if (f?.id === e.pointerId) move(e.clientX - f.x, e.clientY - f.y)
        }}
        onPointerUp={(e) => release(e.pointerId)}
        onPointerCancel={(e) => release(e.pointerId)}
      >
        {lever.ways.map((w) => {
          const on = (held[w.axis] ?? 0) * w.sense > 0.05
          return (
            <span
              key={w.does}
              className={clsx(
                'pointer-events-none absolute text-[0.82rem] leading-tight max-sm:tracking-tight',
                on ? 'font-bold text-ink' : 'text-quiet',
                isSideways(w.way)
                  ? clsx(
                      'top-1/2 w-[3.4rem] -translate-y-1/2',
                      pointsBack(w.way) ? 'left-1' : 'right-1',
                      sideways ? 'max-sm:inset-x-1 max-sm:w-auto max-sm:translate-y-0' : 'max-sm:w-[2.3rem]',
                      sideways && (pointsBack(w.way) ? 'max-sm:top-1' : 'max-sm:top-auto max-sm:bottom-1'),
                    )
                  : clsx('inset-x-1 max-sm:inset-x-0', pointsBack(w.way) ? 'bottom-1' : 'top-1'),
              )}
            >
              {sideways && (
                <span aria-hidden="true" className="sm:hidden">
                  {pointsBack(w.way) ? '← ' : '→ '}
                </span>
              )}
              {w.does} <kbd className="rounded border border-edge px-1 font-mono max-sm:hidden">{keyName(w.key)}</kbd>
            </span>
          )
        })}
        <span
          aria-hidden="true"
          className="pointer-events-none absolute top-1/2 left-1/2 size-11 rounded-full max-sm:size-8 border-2 border-ink bg-accent"
          style={{ transform: `translate(calc(-50% + ${at.x * 34}px), calc(-50% + ${-at.y * 34}px))` }}
        />
      </div>
    </div>
  )
}

/** All levers of a machine in their row, Stop in its middle. */
export function LeverRow({
  levers,
  held,
  onPush,
  onStop,
}: {
  levers: readonly Lever[]
  held: readonly number[]
  onPush: (to: Map<number, number>) => void
  onStop: () => void
}) {
  const [padThere, places] = [usePadThere(), useMemo(() => onPad(levers), [levers])]
  return (
    <div className="flex items-end justify-between gap-2 max-sm:gap-1.5">
      {levers.map((l, i) => (
        <div key={`${l.stands} ${l.name}`} className="contents">
          {i === Math.ceil(levers.length / 2) && (
            <Button look="stop" className="min-h-16 self-center max-sm:px-2" onClick={onStop}>{t`Stop`}</Button>
          )}
          <LeverPad lever={l} padded={padThere ? padWords(places[i] ?? null) : null} held={held} onPush={onPush} />
        </div>
      ))}
    </div>
  )
}
