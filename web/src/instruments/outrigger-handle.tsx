import { type Extension, extension, type Outrigger, stopWords } from '@geolabe/core'
import { useDrag } from '@use-gesture/react'
import { type KeyboardEvent, useRef } from 'react'
import { onPaper, underFinger } from './frame'

interface Props {
  outrigger: Outrigger
  at: Extension
  /** Where it can stand. */
  open: readonly Extension[]
  reach_m: number
  onMove: (to: Extension) => void
  onTouch?: (() => void) | undefined
}

/** A foot on the dial: drawn out or in along its beam with finger or arrow keys, from stop to stop, never to where it cannot stand. */
export function OutriggerHandle({ outrigger, at, open, reach_m, onMove, onTouch }: Props) {
  const group = useRef<SVGGElement>(null)
  const [x, y] = onPaper(outrigger.positions[at])
  const bind = useDrag(
    ({ xy, first, tap }) => {
      if (first) group.current?.focus()
      const to = underFinger(group.current, xy)
      if (!to || tap) return
      const away = (k: Extension) => Math.hypot(outrigger.positions[k].x_m - to.x_m, outrigger.positions[k].y_m - to.y_m)
      const nearest = [...open].sort((a, b) => away(a) - away(b))[0]
      if (nearest && nearest !== at) onMove(nearest)
    },
    { filterTaps: true, pointer: { keys: false } },
  )
  const key = (e: KeyboardEvent) => {
    const outwards = Math.sign(outrigger.positions.fullyExtended.y_m) > 0 ? 'ArrowLeft' : 'ArrowRight'
    const inwards = outwards === 'ArrowLeft' ? 'ArrowRight' : 'ArrowLeft'
    const by = e.key === outwards || e.key === 'ArrowUp' ? 1 : e.key === inwards || e.key === 'ArrowDown' ? -1 : 0
    if (by === 0) return
    e.preventDefault()
    onTouch?.()
    const to = extension.options[extension.options.indexOf(at) + by]
    if (to && open.includes(to)) onMove(to)
  }
  return (
    <g
      ref={group}
      role="slider"
      tabIndex={0}
      aria-label={`Foot of the ${outrigger.label}`}
      aria-valuemin={0}
      aria-valuemax={2}
      aria-valuenow={extension.options.indexOf(at)}
      aria-valuetext={stopWords[at]}
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
