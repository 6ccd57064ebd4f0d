import type { Machine, Zone } from '@geolabe/core'
import clsx from 'clsx'
import { onPaper, pairPath } from '../instruments/frame'
import { MachinePlan } from '../instruments/machine-shape'
import type { ShownMark } from './marks'

type Marks = Map<string, ShownMark>
const doneIn = (z: Zone, marks: Marks) => z.items.filter((i) => marks.has(i.id)).length

/** The machine from above with its zones in walking order. */
export function ZonePlan({
  machine,
  marks,
  here,
  onZone,
}: {
  machine: Machine
  marks: Marks
  here: string | null
  onZone: (id: string) => void
}) {
  const zones = machine.walkround.zones
  const points = [...zones.map((z) => z.at), ...machine.outline.plan.flatMap((p) => p.points)].map(([x_m, y_m]) =>
    onPaper({ x_m, y_m }),
  )
  // Lengthways across the screen: the machine is longer than it is wide, and so is the space.
  const xs = points.map((p) => -p[1])
  const ys = points.map((p) => p[0])
  const pad = 1.3
  const box = [
    Math.min(...xs) - pad,
    Math.min(...ys) - pad,
    Math.max(...xs) - Math.min(...xs) + 2 * pad,
    Math.max(...ys) - Math.min(...ys) + 2 * pad,
  ]
  const walk = zones.map((z) => z.at)
  return (
    <svg
      viewBox={box.join(' ')}
      className="block w-full rounded-xl border border-line bg-paper"
      role="group"
      aria-label={`${machine.name} from above, zones in walking order`}
    >
      <g transform="rotate(90)">
        <path
          d={pairPath(walk).replace('Z', '')}
          fill="none"
          stroke="var(--edge)"
          strokeWidth="0.07"
          strokeDasharray="0.25 0.2"
          aria-hidden="true"
        />
        <MachinePlan machine={machine} slew_deg={0} thin={0.04} />
      </g>
      {zones.map((z, i) => {
        const [px, py] = onPaper({ x_m: z.at[0], y_m: z.at[1] })
        const [x, y] = [-py, px]
        const done = doneIn(z, marks)
        const bad = z.items.some((item) => marks.get(item.id)?.result === 'defect')
        const full = done === z.items.length
        const isHere = z.id === here
        return (
          <g
            key={z.id}
            role="button"
            tabIndex={0}
            aria-label={`Zone ${i + 1}, ${z.label}: ${done} of ${z.items.length}${bad ? ', with a defect' : ''}`}
            className="cursor-pointer outline-none [&:focus-visible>.ring]:opacity-100"
            onClick={() => onZone(z.id)}
            onKeyDown={(e) => {
              if (e.key === 'Enter' || e.key === ' ') {
                e.preventDefault()
                onZone(z.id)
              }
            }}
          >
            <circle className="ring opacity-0" cx={x} cy={y} r="1.15" fill="none" stroke="var(--ink)" strokeWidth="0.12" />
            {bad ? (
              <rect
                x={x - 0.75}
                y={y - 0.75}
                width="1.5"
                height="1.5"
                fill="var(--outside)"
                stroke="var(--ink)"
                strokeWidth="0.1"
              />
            ) : (
              <circle
                cx={x}
                cy={y}
                r={isHere ? 0.92 : 0.78}
                fill={isHere ? 'var(--accent)' : full ? 'var(--ink)' : 'var(--sheet)'}
                stroke="var(--ink)"
                strokeWidth={isHere ? 0.16 : 0.1}
              />
            )}
            <text
              x={x}
              y={y}
              fontSize="0.9"
              fontWeight="750"
              textAnchor="middle"
              dominantBaseline="central"
              fill={bad ? 'var(--on-verdict)' : isHere ? 'var(--on-accent)' : full ? 'var(--paper)' : 'var(--ink)'}
              aria-hidden="true"
            >
              {i + 1}
            </text>
          </g>
        )
      })}
    </svg>
  )
}

/** The items of the zone one stands in. */
export function ZoneList({
  zone,
  marks,
  here,
  onItem,
}: {
  zone: Zone
  marks: Marks
  here: string
  onItem: (id: string) => void
}) {
  return (
    <ul className="mt-3 overflow-hidden rounded-xl border border-line bg-sheet" aria-label={`Items of ${zone.label}`}>
      {zone.items.map((item) => {
        const mark = marks.get(item.id)
        return (
          <li key={item.id} className="border-t border-line first:border-t-0">
            <button
              type="button"
              aria-current={item.id === here ? 'true' : undefined}
              className={clsx(
                'flex min-h-12 w-full items-center gap-3 px-4 py-2 text-left',
                item.id === here && 'bg-sunk font-bold',
              )}
              onClick={() => onItem(item.id)}
            >
              <MarkShape mark={mark} />
              <span className="grow">{item.label}</span>
              {mark?.reading != null && (
                <span className="figure text-quiet">
                  {mark.reading} {item.measure?.unit}
                </span>
              )}
            </button>
          </li>
        )
      })}
    </ul>
  )
}

function MarkShape({ mark }: { mark: ShownMark | undefined }) {
  const words = !mark
    ? 'to look at'
    : `${mark.result === 'in-order' ? 'in order' : mark.result === 'defect' ? 'defect' : 'not fitted'}${mark.saved ? '' : ', not yet sent'}`
  return (
    <svg viewBox="0 0 20 20" className="size-5 shrink-0" role="img" aria-label={words}>
      {!mark && <circle cx="10" cy="10" r="7" fill="none" stroke="var(--edge)" strokeWidth="2" />}
      {mark?.result === 'in-order' && (
        <circle
          cx="10"
          cy="10"
          r="8"
          fill={mark.saved ? 'var(--ink)' : 'none'}
          stroke="var(--ink)"
          strokeWidth="2"
          strokeDasharray={mark.saved ? undefined : '3 2.4'}
        />
      )}
      {mark?.result === 'defect' && (
        <>
          <rect x="2" y="2" width="16" height="16" fill="var(--outside)" />
          <path d="m6 6 8 8m0-8-8 8" stroke="var(--on-verdict)" strokeWidth="2.2" />
        </>
      )}
      {mark?.result === 'not-fitted' && (
        <path d="M3 10h14" stroke="var(--ink)" strokeWidth="3" strokeDasharray={mark.saved ? undefined : '3 2'} />
      )}
    </svg>
  )
}
