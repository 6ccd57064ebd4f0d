import { type Feature, type MachinePosition, type Place, toMachine, toPlace, type Xy } from '@geolabe/core'
import { useDrag } from '@use-gesture/react'
import { type ReactNode, type RefObject, type SVGProps, useMemo, useRef } from 'react'
import { onPaper, pathOf, underFinger } from './frame'
import { viewOf } from './place-view'
import { GroundPatterns, Surroundings } from './surroundings'

/** A place on paper: x to the right, y up. */
export interface OnPlan {
  half_m: number
  thin: number
  centre: MachinePosition
  paper: (p: Xy) => [number, number]
  path: (points: readonly Xy[], closed?: boolean) => string
  /** Where a pointer is, in the place's metres; null while nothing is laid out. */
  under: (xy: readonly [number, number]) => Xy | null
  /** A machine's own frame on this paper. */
  frame: (at: MachinePosition) => string
}

/** A place as it lies on this paper; what is dragged over it asks where it is. */
export function usePlan(place: Place): OnPlan & { ground: RefObject<SVGRectElement | null> } {
  const { centre, half_m } = useMemo(() => viewOf(place), [place])
  const ground = useRef<SVGRectElement>(null)
  return {
    half_m,
    thin: half_m / 420,
    centre,
    ground,
    paper: ([x_m, y_m]) => onPaper(toMachine(centre, { x_m, y_m })),
    path: (points, closed = false) =>
      pathOf(
        points.map(([x_m, y_m]) => toMachine(centre, { x_m, y_m })),
        closed,
      ),
    under: (xy) => {
      const p = underFinger(ground.current, xy)
      if (!p) return null
      const { x_m, y_m } = toPlace(centre, p)
      return [x_m, y_m]
    },
    frame: (at) => {
      const [x, y] = onPaper(toMachine(centre, at))
      return `translate(${x} ${y}) rotate(${90 - at.heading_deg})`
    },
  }
}

/** The place from above, true to scale, with whatever is drawn over it. */
export function PlacePlan({
  place,
  on,
  label,
  onTap,
  worked,
  named,
  children,
}: {
  place: Place
  on: ReturnType<typeof usePlan>
  label: string
  /** Touched beside everything that is drawn over it. */
  onTap?: (at: Xy) => void
  /** What else works the paper itself: a line drawn over it. */
  worked?: SVGProps<SVGRectElement>
  /** Which of it is worth its name here. */
  named?: (f: Feature) => boolean
  children: ReactNode
}) {
  const { half_m, thin, centre, ground, under } = on
  const bind = useDrag(
    ({ xy, tap }) => {
      const p = tap && under(xy)
      if (p) onTap?.(p)
    },
    { filterTaps: true, pointer: { keys: false } },
  )
  return (
    <svg
      viewBox={`${-half_m} ${-half_m} ${2 * half_m} ${2 * half_m}`}
      className="block aspect-square max-h-[44dvh] w-full touch-none rounded-xl border border-line bg-paper select-none roomy:aspect-auto roomy:h-full roomy:max-h-none"
      role="group"
      aria-label={label}
    >
      <GroundPatterns unit={half_m / 22} />
      <Surroundings place={place} position={centre} thin={thin} extent_m={half_m} {...(named ? { named } : {})} aisles />
      <rect
        ref={ground}
        x={-3 * half_m}
        y={-3 * half_m}
        width={6 * half_m}
        height={6 * half_m}
        fill="transparent"
        className={onTap || worked ? 'cursor-crosshair' : undefined}
        {...(worked ?? bind())}
      />
      {children}
    </svg>
  )
}

/** To five centimetres: as fine as anybody drags. */
export const fine = (m: number) => Math.round(m * 20) / 20
