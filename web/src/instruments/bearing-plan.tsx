import { high, low, type Tol, type Verdict } from '@geolabe/core'
import { verdictInk } from './verdict-ink'

/** One point that carries, from above: what stands there, and how far it is used. */
export interface BearingMark {
  id: string
  x_m: number
  y_m: number
  /** Its figures, from the most important. */
  lines: readonly string[]
  use: number | null
  verdict: Verdict | null
}

/** What carries a shared load, from above, front to the right: each with its figures and a bar of its use, the load's centre with its doubt between them. */
export function BearingPlan({
  marks,
  size_m,
  cg,
  text,
  children,
}: {
  marks: readonly BearingMark[]
  /** A side of what stands at each, metres. */
  size_m: number
  cg: { x_m: Tol; y_m: Tol } | null
  text: number
  children?: React.ReactNode
}) {
  const thin = text / 14
  const h = size_m / 2
  const xs = marks.map((m) => m.x_m)
  const middle_m = (Math.min(...xs) + Math.max(...xs)) / 2
  // Where they stand near one another, figures begin at each and go outwards.
  const crowded = Math.max(...xs) - Math.min(...xs) < 11 * text
  return (
    <g>
      {children}
      {marks.map((m) => {
        const ink = m.verdict ? verdictInk[m.verdict] : 'var(--quiet)'
        const out = m.y_m > 0 ? -1 : 1
        const side = m.x_m > middle_m ? 1 : -1
        return (
          <g key={m.id}>
            <rect
              x={m.x_m - h}
              y={-m.y_m - h}
              width={size_m}
              height={size_m}
              fill="var(--sheet)"
              stroke="var(--ink)"
              strokeWidth={thin * 1.6}
            />
            {m.use !== null && (
              <rect
                x={m.x_m - h}
                y={-m.y_m + h - size_m * Math.min(1, m.use)}
                width={size_m}
                height={size_m * Math.min(1, m.use)}
                fill={ink}
                opacity={0.75}
              />
            )}
            <text
              x={m.x_m}
              y={-m.y_m}
              textAnchor="middle"
              dominantBaseline="central"
              fontSize={m.id.length > 1 ? text * 0.78 : text}
              fontWeight="750"
              fill="var(--ink)"
              stroke="var(--sheet)"
              strokeWidth={thin * 3}
              paintOrder="stroke"
            >
              {m.id}
            </text>
            <g
              fontSize={text * 0.92}
              fontWeight="650"
              fill="var(--ink)"
              stroke="var(--paper)"
              strokeWidth={thin * 3}
              paintOrder="stroke"
            >
              {m.lines.map((line, i) => {
                const below = out > 0 ? i : m.lines.length - 1 - i
                return (
                  <text
                    key={line}
                    x={m.x_m + (crowded ? side * h : 0)}
                    y={-m.y_m + out * (h + text * (0.95 + below * 1.12)) + (out < 0 ? text * 0.55 : text * 0.25)}
                    textAnchor={crowded ? (side > 0 ? 'start' : 'end') : 'middle'}
                    fill={i === 0 && m.verdict ? ink : 'var(--ink)'}
                  >
                    {line}
                  </text>
                )
              })}
            </g>
          </g>
        )
      })}
      {cg && <Centre cg={cg} text={text} />}
    </g>
  )
}

/** A centre of gravity, and the box that its doubt leaves it in. */
function Centre({ cg: { x_m, y_m }, text }: { cg: { x_m: Tol; y_m: Tol }; text: number }) {
  const [x, y] = [(low(x_m) + high(x_m)) / 2, (low(y_m) + high(y_m)) / 2]
  const r = text * 0.38
  return (
    <g stroke="var(--ink)" strokeWidth={text / 12}>
      <rect
        x={low(x_m)}
        y={-high(y_m)}
        width={high(x_m) - low(x_m)}
        height={high(y_m) - low(y_m)}
        fill="var(--accent)"
        opacity={0.5}
        stroke="none"
      />
      <circle cx={x} cy={-y} r={r} fill="var(--accent)" />
      <path d={`M${x - r * 1.9} ${-y}H${x + r * 1.9}M${x} ${-y - r * 1.9}V${-y + r * 1.9}`} fill="none" />
    </g>
  )
}
