import { useDrag } from '@use-gesture/react'
import { createContext, type KeyboardEvent, useContext, useRef } from 'react'
import type { At } from './at'

/** A point of a drawing that stands for an input: where it is, and what the input would be were it elsewhere. */
export interface Grip<In> {
  label: string
  at: At
  to: (p: At) => Part<In>
  /** What it says of itself to somebody who does not see it. */
  value: string
}

/** Any part of an input, however deep; of a list, the entries that change by their place. */
export type Part<T> = T extends readonly (infer E)[]
  ? { [at: number]: Part<E> }
  : T extends object
    ? { [K in keyof T]?: Part<T[K]> | undefined }
    : T

/** What can be dragged in the drawing that is shown, and what takes the change. */
export const Gripped = createContext<{
  grips: readonly Grip<unknown>[]
  held: boolean
  /** `beyond`: the finger has left the drawing, the point stays at its border. */
  onMove: (part: unknown, beyond: boolean) => void
  onHold: (held: boolean) => void
}>({ grips: [], held: false, onMove: () => {}, onHold: () => {} })

const within = (v: number, from: number, wide: number) => Math.min(from + wide, Math.max(from, v))

/** Figures as a finger gives them: three digits, and no finer than a hundredth of the drawing. */
function shown<T>(part: T, unit: number): T {
  if (typeof part === 'number') {
    const digits = Math.min(6, Math.max(0, Math.ceil(-Math.log10(unit))))
    return Number(Number(part.toPrecision(3)).toFixed(digits)) as T
  }
  if (typeof part !== 'object' || part === null) return part
  return Object.fromEntries(Object.entries(part).map(([k, v]) => [k, shown(v, unit)])) as T
}

const steps: Record<string, At> = { ArrowUp: [0, 1], ArrowDown: [0, -1], ArrowLeft: [-1, 0], ArrowRight: [1, 0] }

/** Every grip of the drawing it stands in; `unit`: a hundredth of its larger side, metres. */
export function Grips({ unit }: { unit: number }) {
  const { grips } = useContext(Gripped)
  return grips.map((g) => <Handle key={g.label} grip={g} unit={unit} />)
}

function Handle({ grip, unit }: { grip: Grip<unknown>; unit: number }) {
  const { onMove, onHold } = useContext(Gripped)
  const group = useRef<SVGGElement>(null)
  const [x, y] = grip.at
  const bind = useDrag(
    ({ xy, first, last }) => {
      if (first) group.current?.focus()
      if (first || last) onHold(first)
      const drawing = group.current?.ownerSVGElement
      const matrix = drawing?.getScreenCTM()
      if (!drawing || !matrix) return
      const p = new DOMPoint(...xy).matrixTransform(matrix.inverse())
      const box = drawing.viewBox.baseVal
      const held = { x: within(p.x, box.x, box.width), y: within(p.y, box.y, box.height) }
      onMove(shown(grip.to([held.x, -held.y]), unit), held.x !== p.x || held.y !== p.y)
    },
    { pointer: { keys: false }, filterTaps: true },
  )
  const key = (e: KeyboardEvent) => {
    const step = steps[e.key]
    if (!step) return
    e.preventDefault()
    const by = unit * (e.shiftKey ? 10 : 1)
    onMove(shown(grip.to([x + step[0] * by, y + step[1] * by]), unit), false)
  }
  return (
    <g
      ref={group}
      role="slider"
      tabIndex={0}
      aria-label={grip.label}
      aria-valuenow={0}
      aria-valuetext={grip.value}
      className="group cursor-grab touch-none outline-none active:cursor-grabbing"
      {...bind()}
      onKeyDown={key}
    >
      <circle cx={x} cy={-y} r={unit * 4.5} fill="transparent" />
      <circle
        cx={x}
        cy={-y}
        r={unit * 3}
        fill="none"
        stroke="var(--ink)"
        strokeWidth={unit * 0.4}
        strokeDasharray={`${unit} ${unit * 0.7}`}
        className="opacity-0 group-focus-visible:opacity-100"
      />
      <circle cx={x} cy={-y} r={unit * 1.7} fill="var(--accent)" stroke="var(--ink)" strokeWidth={unit * 0.5} />
    </g>
  )
}
