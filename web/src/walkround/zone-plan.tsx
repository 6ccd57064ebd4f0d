import { type Machine, measureUnit, type Placed, type Zone } from '@geolabe/core'
import clsx from 'clsx'
import { onPaper, pairPath } from '../instruments/frame'
import { MachinePlan, MachineSide } from '../instruments/machine-shape'
import { t, told } from '../language/t'
import { asButton } from '../look/as-button'
import type { ShownEntry } from './entries'

type Entries = Map<string, ShownEntry>

/** The machine from above with its zones in walking order. */
export function ZonePlan({
  machine,
  items,
  entries,
  here,
  onZone,
}: {
  machine: Machine
  items: readonly Placed[]
  entries: Entries
  here: string | null
  onZone: (id: string) => void
}) {
  const zones = [...new Set(items.map((x) => x.zone))]
  const own = (z: Zone) => items.filter((x) => x.zone === z).map((x) => x.item)
  const points = [...zones.map((z) => z.at), ...machine.outline.plan.flatMap((p) => p.points)].map(([x_m, y_m]) =>
    onPaper({ x_m, y_m }),
  )
  // Lengthways across the screen: the machine is longer than it is wide, and so is the space.
  const xs = points.map((p) => -p[1])
  const ys = points.map((p) => p[0])
  const span = Math.max(...xs) - Math.min(...xs)
  // Marks of one size on the screen, whether the machine is three metres long or thirty.
  const u = Math.max(span, 1.6 * (Math.max(...ys) - Math.min(...ys))) / 16
  const pad = 1.3 * u
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
      className="block max-h-[34dvh] w-full rounded-xl border border-line bg-paper roomy:h-full roomy:max-h-none"
      role="group"
      aria-label={t`${machine.name} from above, zones in walking order`}
    >
      <g transform="rotate(90)">
        <path
          d={pairPath(walk).replace('Z', '')}
          fill="none"
          stroke="var(--edge)"
          strokeWidth={0.07 * u}
          strokeDasharray={`${0.25 * u} ${0.2 * u}`}
          aria-hidden="true"
        />
        <MachinePlan machine={machine} slew_deg={0} thin={0.04 * u} />
      </g>
      {zones.map((z, i) => {
        const [px, py] = onPaper({ x_m: z.at[0], y_m: z.at[1] })
        const [x, y] = [-py, px]
        const inIt = own(z)
        const done = inIt.filter((item) => entries.has(item.id)).length
        const bad = inIt.some((item) => entries.get(item.id)?.result === 'defect')
        const full = done === inIt.length
        const isHere = z.id === here
        return (
          <g
            key={z.id}
            {...asButton(t`Zone ${i + 1}, ${z.label}: ${done} of ${inIt.length}${bad ? t`, with a defect` : ''}`, () =>
              onZone(z.id),
            )}
            className="cursor-pointer outline-none [&:focus-visible>.ring]:opacity-100"
          >
            <circle
              className="ring opacity-0"
              cx={x}
              cy={y}
              r={1.15 * u}
              fill="none"
              stroke="var(--ink)"
              strokeWidth={0.12 * u}
            />
            {bad ? (
              <rect
                x={x - 0.75 * u}
                y={y - 0.75 * u}
                width={1.5 * u}
                height={1.5 * u}
                fill="var(--outside)"
                stroke="var(--ink)"
                strokeWidth={0.1 * u}
              />
            ) : (
              <circle
                cx={x}
                cy={y}
                r={(isHere ? 0.92 : 0.78) * u}
                fill={isHere ? 'var(--accent)' : full ? 'var(--ink)' : 'var(--sheet)'}
                stroke="var(--ink)"
                strokeWidth={(isHere ? 0.16 : 0.1) * u}
              />
            )}
            <text
              x={x}
              y={y}
              fontSize={0.9 * u}
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

/** The machine from its left side, with where the zone lies. */
export function ZoneSide({ machine, zone, number }: { machine: Machine; zone: Zone | null; number: number }) {
  const points = machine.outline.side.flatMap((p) => p.points)
  const boom = machine.boom ? (machine.boom.lengths_m[0] ?? 0) - machine.boom.pivot.back_m : 0
  const xs = [...points.map(([x]) => x), boom, ...(zone ? [zone.at[0]] : [])]
  const zs = [...points.map(([, z]) => z), machine.boom ? machine.boom.pivot.height_m + 0.6 : 0]
  const [left, right, top] = [Math.min(...xs), Math.max(...xs), Math.max(...zs)]
  const u = Math.max(right - left, 2.2 * top) / 16
  const at = zone ? (zone.sideAt ?? [zone.at[0], Math.min(top * 0.35, 1.1)]) : null
  return (
    <svg
      viewBox={`${left - u} ${-top - u} ${right - left + 2 * u} ${top + 1.6 * u}`}
      className="block max-h-44 w-full rounded-xl border border-line bg-paper roomy:h-full roomy:max-h-none"
      role="img"
      aria-label={t`${machine.name} from its left${zone ? t`, at ${zone.label}` : ''}`}
    >
      <path d={`M${left - 2 * u} 0H${right + 2 * u}`} stroke="var(--ink)" strokeWidth={0.05 * u} />
      <MachineSide machine={machine} thin={0.04 * u} stowed />
      {at && (
        <>
          <circle cx={at[0]} cy={-at[1]} r={0.9 * u} fill="var(--accent)" stroke="var(--ink)" strokeWidth={0.14 * u} />
          <text
            x={at[0]}
            y={-at[1]}
            fontSize={0.95 * u}
            fontWeight="750"
            textAnchor="middle"
            dominantBaseline="central"
            fill="var(--on-accent)"
          >
            {number}
          </text>
        </>
      )}
    </svg>
  )
}

/** The items of the zone one stands in. */
export function ZoneList({
  zone,
  items,
  entries,
  here,
  onItem,
}: {
  zone: Zone
  items: readonly Placed[]
  entries: Entries
  here: string
  onItem: (id: string) => void
}) {
  return (
    <ul className="overflow-hidden rounded-xl border border-line bg-sheet" aria-label={t`Items of ${zone.label}`}>
      {items
        .filter((x) => x.zone.id === zone.id)
        .map(({ item }) => {
          const entry = entries.get(item.id)
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
                <EntryShape entry={entry} />
                <span className="grow">{told(item.label)}</span>
                {entry?.reading != null && item.measure && (
                  <span className="figure text-quiet">
                    {entry.reading} {measureUnit(item.measure)}
                  </span>
                )}
              </button>
            </li>
          )
        })}
    </ul>
  )
}

function EntryShape({ entry }: { entry: ShownEntry | undefined }) {
  const words = !entry
    ? t`to look at`
    : `${entry.result === 'in-order' ? t`in order` : entry.result === 'defect' ? 'defect' : t`not fitted`}${entry.saved ? '' : t`, not yet sent`}`
  return (
    <svg viewBox="0 0 20 20" className="size-5 shrink-0" role="img" aria-label={words}>
      {!entry && <circle cx="10" cy="10" r="7" fill="none" stroke="var(--edge)" strokeWidth="2" />}
      {entry?.result === 'in-order' && (
        <circle
          cx="10"
          cy="10"
          r="8"
          fill={entry.saved ? 'var(--ink)' : 'none'}
          stroke="var(--ink)"
          strokeWidth="2"
          strokeDasharray={entry.saved ? undefined : '3 2.4'}
        />
      )}
      {entry?.result === 'defect' && (
        <>
          <rect x="2" y="2" width="16" height="16" fill="var(--outside)" />
          <path d="m6 6 8 8m0-8-8 8" stroke="var(--on-verdict)" strokeWidth="2.2" />
        </>
      )}
      {entry?.result === 'not-fitted' && (
        <path d="M3 10h14" stroke="var(--ink)" strokeWidth="3" strokeDasharray={entry.saved ? undefined : '3 2'} />
      )}
    </svg>
  )
}
