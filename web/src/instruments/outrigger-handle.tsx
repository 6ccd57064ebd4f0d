import { type Outrigger, stopNamed, stopsOf } from '@geolabe/core'
import { useDrag } from '@use-gesture/react'
import { type KeyboardEvent, useRef } from 'react'
import { t } from '../language/t'
import { stopWords } from '../language/words'
import { onPaper, underFinger } from './frame'

interface Props {
  outrigger: Outrigger
  at: string
  /** Where it can stand. */
  open: readonly string[]
  reach_m: number
  onMove: (to: string) => void
  onTouch?: (() => void) | undefined
}

/** A foot on the dial: drawn out or in along its beam with finger or arrow keys, from stop to stop, never to where it cannot stand. */
export function OutriggerHandle({ outrigger, at, open, reach_m, onMove, onTouch }: Props) {
  const group = useRef<SVGGElement>(null)
  const stops = stopsOf(outrigger)
  const here = stops.findIndex((s) => s.id === at)
  const now = stopNamed(outrigger, at)
  const [x, y] = onPaper(now)
  const bind = useDrag(
    ({ xy, first, tap }) => {
      if (first) group.current?.focus()
      const to = underFinger(group.current, xy)
      if (!to || tap) return
      const away = (s: (typeof stops)[number]) => Math.hypot(s.x_m - to.x_m, s.y_m - to.y_m)
      const nearest = stops.filter((s) => open.includes(s.id)).sort((a, b) => away(a) - away(b))[0]
      if (nearest && nearest.id !== at) onMove(nearest.id)
    },
    { filterTaps: true, pointer: { keys: false } },
  )
  const key = (e: KeyboardEvent) => {
    const outwards = now.y_m > 0 ? 'ArrowLeft' : 'ArrowRight'
    const inwards = outwards === 'ArrowLeft' ? 'ArrowRight' : 'ArrowLeft'
    const by = e.key === outwards || e.key === 'ArrowUp' ? 1 : e.key === inwards || e.key === 'ArrowDown' ? -1 : 0
    if (by === 0) return
    e.preventDefault()
    onTouch?.()
    const to = stops[here + by]
    if (to && open.includes(to.id)) onMove(to.id)
  }
  return (
    <g
      ref={group}
      role="slider"
      tabIndex={0}
      aria-label={t`Foot of the ${outrigger.label}`}
      aria-valuemin={0}
      aria-valuemax={stops.length - 1}
      aria-valuenow={here}
      aria-valuetext={stopWords(now.id, now.label)}
      className="group cursor-ew-resize touch-none"
      {...bind()}
      onPointerDownCapture={onTouch}
      onKeyDown={key}
    >
      <rect x={x - reach_m} y={y - reach_m} width={2 * reach_m} height={2 * reach_m} fill="transparent" />
      <rect
        x={x - reach_m}
        y={y - reach_m}
        width={2 * reach_m}
        height={2 * reach_m}
        fill="none"
        stroke="var(--ink)"
        strokeWidth={reach_m / 8}
        strokeDasharray={`${reach_m / 3} ${reach_m / 4}`}
        className="opacity-0 group-focus-visible:opacity-100"
      />
    </g>
  )
}
