import { atSlew, normalDegrees } from '@geolabe/core'
import { useDrag } from '@use-gesture/react'
import { type KeyboardEvent, useRef } from 'react'
import { FocusRing } from './focus-ring'
import { onPaper, underFinger } from './frame'
import { PointMark } from './point-mark'

export interface Polar {
  radius_m: number
  slew_deg: number
}

const steps: Record<string, [number, number]> = { ArrowUp: [1, 0], ArrowDown: [-1, 0], ArrowLeft: [0, 1], ArrowRight: [0, -1] }

/** A point of the path as it is drawn. */
export function HookMark({ letter, at, size }: { letter: string; at: Polar; size: number }) {
  const [x, y] = onPaper(atSlew(at.radius_m, at.slew_deg))
  return (
    <g aria-hidden="true">
      <PointMark letter={letter} x={x} y={y} size={size} />
    </g>
  )
}

interface Props {
  name: string
  letter: string
  at: Polar
  size: number
  most_m: number
  spoken: string
  onMove: (p: Polar) => void
  onTouch?: (() => void) | undefined
  /** It is dragged beyond where it can go, and held there; or no longer. */
  onHeld?: ((held: boolean) => void) | undefined
}

/**
 * A point of the path: dragged, or moved with the arrow keys (up and down: radius by 0.1 m, left and right: slew by 1°; with
 * Shift ten times as far).
 */
export function HookPoint({ name, letter, at, size, most_m, spoken, onMove, onTouch, onHeld }: Props) {
  const group = useRef<SVGGElement>(null)
  const [x, y] = onPaper(atSlew(at.radius_m, at.slew_deg))
  const limited = (r: number) => Math.min(Math.floor(most_m * 10) / 10, Math.max(1, Math.round(r * 10) / 10))

  const bind = useDrag(
    ({ xy, first }) => {
      if (first) group.current?.focus()
      const to = underFinger(group.current, xy)
      if (!to) return
      const out_m = Math.hypot(to.x_m, to.y_m)
      onHeld?.(out_m > most_m)
      onMove({
        radius_m: limited(out_m),
        slew_deg: Math.round(normalDegrees((Math.atan2(to.y_m, to.x_m) * 180) / Math.PI)) % 360,
      })
    },
    { pointer: { keys: false } },
  )
  const key = (e: KeyboardEvent) => {
    const step = steps[e.key]
    if (!step) return
    e.preventDefault()
    const far = e.shiftKey ? 10 : 1
    onTouch?.()
    onMove({ radius_m: limited(at.radius_m + step[0] * 0.1 * far), slew_deg: normalDegrees(at.slew_deg + step[1] * far) })
  }
  return (
    <g
      ref={group}
      role="slider"
      tabIndex={0}
      aria-label={name}
      aria-valuenow={Math.round(at.radius_m * 10) / 10}
      aria-valuemin={1}
      aria-valuemax={most_m}
      aria-valuetext={spoken}
      className="group cursor-grab touch-none active:cursor-grabbing"
      {...bind()}
      onPointerDownCapture={onTouch}
      onKeyDown={key}
    >
      <circle cx={x} cy={y} r={size * 1.8} fill="transparent" />
      <FocusRing x={x} y={y} size={size} />
      <HookMark letter={letter} at={at} size={size} />
    </g>
  )
}
