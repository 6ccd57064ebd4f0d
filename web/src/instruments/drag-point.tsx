import type { Xy } from '@geolabe/core'
import { useDrag } from '@use-gesture/react'
import type { KeyboardEvent, ReactNode } from 'react'
import type { OnPlan } from './place-plan'

const steps: Record<string, [number, number]> = { ArrowUp: [0, 1], ArrowDown: [0, -1], ArrowLeft: [-1, 0], ArrowRight: [1, 0] }

/**
 * A point of a place, in its metres: dragged, moved with the arrow keys by a decimetre, with Shift by a metre, taken out with Delete. With no
 * mark of its own it is drawn as a corner.
 */
export function DragPoint({
  on,
  name,
  at,
  onMove,
  onOut,
  children,
}: {
  on: OnPlan
  name: string
  at: Xy
  onMove: (to: Xy) => void
  onOut?: () => void
  children?: (x: number, y: number) => ReactNode
}) {
  const bind = useDrag(
    ({ xy }) => {
      const to = on.under(xy)
      if (to) onMove(to)
    },
    { pointer: { keys: false } },
  )
  const key = (e: KeyboardEvent) => {
    if (onOut && (e.key === 'Delete' || e.key === 'Backspace')) return onOut()
    const step = steps[e.key]
    if (!step) return
    e.preventDefault()
    const far_m = e.shiftKey ? 1 : 0.1
    onMove([at[0] + step[0] * far_m, at[1] + step[1] * far_m])
  }
  const [x, y] = on.paper(at)
  const size = on.half_m / 34
  return (
    <g
      role="button"
      tabIndex={0}
      aria-label={name}
      className="cursor-grab touch-none outline-none active:cursor-grabbing focus-visible:[&>circle]:stroke-ink"
      onKeyDown={key}
      {...bind()}
    >
      <circle cx={x} cy={y} r={size * 3} fill="transparent" strokeWidth={size * 0.15} />
      {children?.(x, y) ?? (
        <rect
          x={x - size * 0.6}
          y={y - size * 0.6}
          width={size * 1.2}
          height={size * 1.2}
          transform={`rotate(45 ${x} ${y})`}
          fill="var(--accent)"
          stroke="var(--ink)"
          strokeWidth={size * 0.18}
        />
      )}
    </g>
  )
}
