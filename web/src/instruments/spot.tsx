import type { Spot } from '@geolabe/contract'
import type { Machine } from '@geolabe/core'
import { t } from '../language/t'
import { onPaper } from './frame'
import { MachinePlan, MachineSide } from './machine-shape'

/** Where on the machine: a cross on its outline from above or from its left; touched, or moved by arrow keys. */
export function SpotOn({
  machine,
  spot,
  onSpot,
  view,
}: {
  machine: Machine
  spot: Spot | null
  onSpot: ((s: Spot) => void) | null
  view: 'plan' | 'side'
}) {
  const plan = view === 'plan'
  const corners = (plan ? machine.outline.plan : machine.outline.side).flatMap((p) => p.points)
  // The plan lies lengthways: nose to the right, left side up. The side view likewise.
  const toScreen = ([a, b]: readonly [number, number]): [number, number] => {
    if (!plan) return [a, -b]
    const [px, py] = onPaper({ x_m: a, y_m: b })
    return [-py, px]
  }
  const points = corners.map(toScreen)
  const [xs, ys] = [points.map((p) => p[0]), points.map((p) => p[1])]
  const span = Math.max(...xs) - Math.min(...xs)
  const u = Math.max(span, 2 * (Math.max(...ys) - Math.min(...ys))) / 16
  const box = [Math.min(...xs) - u, Math.min(...ys) - u, span + 2 * u, Math.max(...ys) - Math.min(...ys) + 2 * u] as const
  const at = spot?.view === view ? toScreen(spot.at) : null
  const put = (x: number, y: number) => {
    const round = (v: number) => Math.round(v * 100) / 100
    onSpot?.({ view, at: plan ? [round(x), round(-y)] : [round(x), round(-y)] })
  }
  const touch = (e: React.PointerEvent<SVGSVGElement>) => {
    const m = e.currentTarget.getScreenCTM()?.inverse()
    if (!m) return
    const p = new DOMPoint(e.clientX, e.clientY).matrixTransform(m)
    put(p.x, p.y)
  }
  const keys: Record<string, [number, number]> = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }
  const name = t`${machine.name} from ${plan ? t`above` : t`its left`}`
  const drawing = (
    <>
      {plan ? (
        <g transform="rotate(90)">
          <MachinePlan machine={machine} slew_deg={0} thin={0.04 * u} />
        </g>
      ) : (
        <>
          <path d={`M${box[0]} 0H${box[0] + box[2]}`} stroke="var(--ink)" strokeWidth={0.05 * u} />
          <MachineSide machine={machine} thin={0.04 * u} stowed />
        </>
      )}
      {at && (
        <g transform={`translate(${at[0]} ${at[1]})`}>
          <circle r={0.95 * u} fill="var(--paper)" opacity="0.75" />
          <circle r={0.95 * u} fill="none" stroke="var(--outside)" strokeWidth={0.22 * u} />
          <path
            d={`M${-0.5 * u} ${-0.5 * u}L${0.5 * u} ${0.5 * u}M${0.5 * u} ${-0.5 * u}L${-0.5 * u} ${0.5 * u}`}
            stroke="var(--outside)"
            strokeWidth={0.22 * u}
          />
        </g>
      )}
    </>
  )
  if (!onSpot) {
    return (
      <svg
        viewBox={box.join(' ')}
        className="block max-h-56 w-full"
        role="img"
        aria-label={t`${name}, with the place of the defect`}
      >
        {drawing}
      </svg>
    )
  }
  return (
    <button
      type="button"
      className="block w-full cursor-crosshair touch-none rounded-lg border-2 border-line bg-paper focus-visible:outline-3 focus-visible:outline-ink"
      aria-label={t`${name}: touch where it is, or use the arrow keys${at ? t`; a place is marked` : ''}`}
      onKeyDown={(e) => {
        const by = keys[e.key]
        if (!by) return
        e.preventDefault()
        const [x, y] = at ?? [box[0] + box[2] / 2, box[1] + box[3] / 2]
        put(x + by[0] * 0.3 * u, y + by[1] * 0.3 * u)
      }}
    >
      <svg viewBox={box.join(' ')} className="block max-h-48 w-full" aria-hidden="true" onPointerDown={touch}>
        {drawing}
      </svg>
    </button>
  )
}
