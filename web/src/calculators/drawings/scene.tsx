import { path } from 'd3-path'
import { type CurveFactory, curveLinear, curveLinearClosed, line } from 'd3-shape'
import { createContext, type ReactNode, useContext, useRef } from 'react'
import type { At } from './at'
import { Gripped, Grips } from './grip'

export type { At }
export type Tone = 'ink' | 'quiet' | 'edge' | 'inside' | 'near' | 'outside' | 'unproven' | 'water'

const Unit = createContext(1)
/** One hundredth of the drawing’s larger side, metres: what strokes and letters are sized by. */
export const useUnit = () => useContext(Unit)
const colour = (t: Tone) => `var(--${t})`
const drawn = (curve: CurveFactory) =>
  line<At>()
    .x(([x]) => x)
    .y(([, y]) => -y)
    .curve(curve)
const open = drawn(curveLinear)
const closed = drawn(curveLinearClosed)
/** Several straight strokes as one path. */
function strokes(...each: readonly (readonly [At, At])[]): string {
  const p = path()
  for (const [[x0, y0], [x1, y1]] of each) {
    p.moveTo(x0, -y0)
    p.lineTo(x1, -y1)
  }
  return p.toString()
}

/** A drawing true to scale: its box in metres, widened so that it is never a sliver. */
export function Scene({ box, label, children }: { box: readonly At[]; label: string; children: ReactNode }) {
  const xs = box.map((p) => p[0]).filter(Number.isFinite)
  const ys = box.map((p) => p[1]).filter(Number.isFinite)
  let [x0, x1, y0, y1] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)]
  const size = Math.max(x1 - x0, (y1 - y0) * 1.4, 1e-3)
  const pad = size * 0.1
  const grow = Math.max(0, size / 1.9 - (y1 - y0)) / 2
  ;[x0, x1, y0, y1] = [x0 - pad, x1 + pad, y0 - grow - pad, y1 + grow + pad]
  const wider = Math.max(0, (y1 - y0) * 1.5 - (x1 - x0)) / 2
  ;[x0, x1] = [x0 - wider, x1 + wider]
  const { grips, held } = useContext(Gripped)
  // The scale stays while a point is held.
  const frame = useRef([x0, x1, y0, y1] as const)
  if (!held) frame.current = [x0, x1, y0, y1]
  ;[x0, x1, y0, y1] = frame.current
  const unit = (x1 - x0) / 100
  return (
    <svg
      viewBox={`${x0} ${-y1} ${x1 - x0} ${y1 - y0}`}
      className="block w-full max-h-[22rem] rounded-xl border border-line bg-paper"
      // A drawing that can be worked is a group of what works it, not one picture.
      role={grips.length > 0 ? 'group' : 'img'}
      aria-label={label}
    >
      <Unit value={unit}>
        {children}
        <Grips unit={unit} />
      </Unit>
    </svg>
  )
}

export function Line({
  at,
  tone = 'ink',
  width = 0.5,
  dash,
  close,
  fill,
}: {
  at: readonly At[]
  tone?: Tone
  width?: number
  dash?: boolean
  close?: boolean
  fill?: Tone | 'sheet' | 'sunk'
}) {
  const u = useUnit()
  return (
    <path
      d={(close ? closed : open)(at) ?? ''}
      fill={fill ? `var(--${fill})` : 'none'}
      fillOpacity={fill && fill !== 'sheet' && fill !== 'sunk' ? 0.22 : 1}
      stroke={colour(tone)}
      strokeWidth={u * width}
      strokeLinejoin="round"
      strokeLinecap="round"
      strokeDasharray={dash ? `${u * 1.4} ${u * 1.2}` : undefined}
    />
  )
}

/** A box by its lower left corner, width and height. */
export function Box({
  at: [x, y],
  w,
  h,
  tone = 'ink',
  fill = 'sheet',
}: {
  at: At
  w: number
  h: number
  tone?: Tone
  fill?: Tone | 'sheet' | 'sunk'
}) {
  return (
    <Line
      at={[
        [x, y],
        [x + w, y],
        [x + w, y + h],
        [x, y + h],
      ]}
      close
      tone={tone}
      fill={fill}
    />
  )
}

const solid: ReadonlySet<string> = new Set(['sheet', 'sunk', 'ink', 'water', 'none'])

export function Round({
  at: [x, y],
  r,
  tone = 'ink',
  fill = 'sheet',
}: {
  at: At
  r: number
  tone?: Tone
  fill?: Tone | 'sheet' | 'sunk' | 'none'
}) {
  const u = useUnit()
  return (
    <circle
      cx={x}
      cy={-y}
      r={r}
      fill={fill === 'none' ? 'none' : `var(--${fill})`}
      fillOpacity={solid.has(fill) ? 1 : 0.25}
      stroke={colour(tone)}
      strokeWidth={u * 0.5}
    />
  )
}

/** A mark of the same size at any scale: where a centre of gravity stands. */
export function Cog({ at: [x, y], tone = 'ink' }: { at: At; tone?: Tone }) {
  const u = useUnit()
  return (
    <g stroke={colour(tone)} strokeWidth={u * 0.4}>
      <circle cx={x} cy={-y} r={u * 1.5} fill="var(--sheet)" />
      <path d={`M${x - u * 1.5} ${-y}h${u * 3}M${x} ${-y - u * 1.5}v${u * 3}`} />
    </g>
  )
}

export function Word({
  at: [x, y],
  children,
  anchor = 'middle',
  tone = 'ink',
  size = 3.6,
  bold,
}: {
  at: At
  children: ReactNode
  anchor?: 'start' | 'middle' | 'end'
  tone?: Tone
  size?: number
  bold?: boolean
}) {
  const u = useUnit()
  return (
    <text
      x={x}
      y={-y}
      fontSize={u * size}
      textAnchor={anchor}
      dominantBaseline="central"
      fill={colour(tone)}
      fontWeight={bold ? 700 : 500}
      stroke="var(--paper)"
      strokeWidth={u * 0.9}
      paintOrder="stroke"
      className="figure"
    >
      {children}
    </text>
  )
}

/** An arrow with its head at `to`; its word stands at its tail. */
export function Arrow({
  from,
  to,
  tone = 'ink',
  children,
  width = 0.8,
}: {
  from: At
  to: At
  tone?: Tone
  children?: ReactNode
  width?: number
}) {
  const u = useUnit()
  const a = Math.atan2(to[1] - from[1], to[0] - from[0])
  const long = Math.hypot(to[0] - from[0], to[1] - from[1])
  const h = Math.min(u * 2.4, long)
  const back: At = [to[0] - h * Math.cos(a), to[1] - h * Math.sin(a)]
  const side = (s: number): At => [back[0] - s * h * 0.45 * Math.sin(a), back[1] + s * h * 0.45 * Math.cos(a)]
  const word: At = [from[0] - u * 2.6 * Math.cos(a), from[1] - u * 2.6 * Math.sin(a)]
  const anchor = Math.cos(a) > 0.5 ? 'end' : Math.cos(a) < -0.5 ? 'start' : 'middle'
  return (
    <g>
      <path d={strokes([from, back])} stroke={colour(tone)} strokeWidth={u * width} />
      <path d={closed([to, side(1), side(-1)]) ?? ''} fill={colour(tone)} />
      {children !== undefined && (
        <Word at={word} anchor={anchor} tone={tone}>
          {children}
        </Word>
      )}
    </g>
  )
}

/** A measured distance between two points, moved to one side by some hundredths of the drawing. */
export function Dim({ a, b, off = 4, children }: { a: At; b: At; off?: number; children: ReactNode }) {
  const u = useUnit()
  const t = Math.atan2(b[1] - a[1], b[0] - a[0])
  const move = (p: At, by: number): At => [p[0] - by * u * Math.sin(t), p[1] + by * u * Math.cos(t)]
  const [c, d] = [move(a, off), move(b, off)]
  const middle = move([(a[0] + b[0]) / 2, (a[1] + b[1]) / 2], off + (off < 0 ? -2.4 : 2.4))
  const upright = Math.abs(Math.cos(t)) < 0.4
  return (
    <g>
      <path
        d={strokes([move(a, off * 0.2), move(a, off * 1.2)], [move(b, off * 0.2), move(b, off * 1.2)], [c, d])}
        stroke="var(--quiet)"
        strokeWidth={u * 0.3}
        fill="none"
      />
      <Word at={middle} size={3.2} tone="quiet" anchor={upright ? (off * Math.sin(t) > 0 ? 'end' : 'start') : 'middle'}>
        {children}
      </Word>
    </g>
  )
}

/** The ground: a line with what is below it. */
export function Earth({ from, to, y = 0, deep }: { from: number; to: number; y?: number; deep?: number }) {
  const u = useUnit()
  return (
    <g>
      <rect x={from} y={-y} width={to - from} height={deep ?? u * 9} fill="var(--sunk)" />
      <path d={`M${from} ${-y}H${to}`} stroke="var(--ink)" strokeWidth={u * 0.6} />
    </g>
  )
}

export const turnedBy = ([x, y]: At, deg: number): At => {
  const a = (deg * Math.PI) / 180
  return [x * Math.cos(a) - y * Math.sin(a), x * Math.sin(a) + y * Math.cos(a)]
}
export const polar = (r: number, deg: number, [x, y]: At = [0, 0]): At => [
  x + r * Math.cos((deg * Math.PI) / 180),
  y + r * Math.sin((deg * Math.PI) / 180),
]
/** Points round an arc. */
export const arcOf = (r: number, from: number, to: number, centre: At = [0, 0], n = 40): At[] =>
  Array.from({ length: n + 1 }, (_, i) => polar(r, from + ((to - from) * i) / n, centre))
/** Plan (x forward, y left) on paper: forward is up. */
export const plan = (p: { x_m: number; y_m: number }): At => [-p.y_m, p.x_m]
/** The angle of a direction, degrees. */
export const degrees = (along: number, up: number) => (Math.atan2(up, along) * 180) / Math.PI
