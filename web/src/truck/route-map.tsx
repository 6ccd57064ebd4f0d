import {
  type Assessment,
  type DriveStep,
  type Feature,
  type Place,
  snapped,
  wayAlong,
  worstVerdict,
  type Xy,
} from '@geolabe/core'
import { useDrag } from '@use-gesture/react'
import { type ReactNode, useMemo, useRef, useState } from 'react'
import simplify from 'simplify-js'
import { DragPoint } from '../instruments/drag-point'
import { PlacePlan, usePlan } from '../instruments/place-plan'
import { verdictInk } from '../instruments/verdict-ink'
import { t } from '../language/t'

/** A finger is so far off what it means, and a line it draws is kept so true, metres. */
const [finger_m, true_m] = [1.6, 0.45]

/** A wall says by itself what it is. */
const named = ({ kind, geometry: { points } }: Feature): boolean => {
  const wide = (of: (p: readonly [number, number]) => number) => Math.max(...points.map(of)) - Math.min(...points.map(of))
  return (
    kind !== 'solid' ||
    Math.min(
      wide(([x]) => x),
      wide(([, y]) => y),
    ) > 1.5
  )
}

const snappedAll = (place: Place, raw: readonly Xy[]): Xy[] => {
  const kept = simplify(
    raw.map(([x, y]) => ({ x, y })),
    true_m,
    true,
  ).map(({ x, y }) => snapped(place, [x, y], finger_m))
  return kept
    .filter(([x, y], i) => i === 0 || Math.hypot(x - (kept[i - 1]?.[0] ?? 0), y - (kept[i - 1]?.[1] ?? 0)) > 0.3)
    .slice(0, 40)
}
const decimetre = ([x, y]: Xy): [number, number] => [Math.round(x * 20) / 20, Math.round(y * 20) / 20]

/** The place from above: a way is drawn over it with a finger, its corners are moved, and each piece shows what is wrong there. */
export function RouteMap({
  place,
  drive,
  assessment,
  onRoute,
}: {
  place: Place
  drive: DriveStep | null
  assessment: Assessment | null
  onRoute: (route: [number, number][]) => void
}) {
  const on = usePlan(place)
  const { half_m, thin, paper, under } = on
  const [drawn, setDrawn] = useState<Xy[] | null>(null)
  const raw = useRef<Xy[]>([])
  const draw = useDrag(
    ({ xy, first, last, tap }) => {
      const p = under(xy)
      if (!p || tap) return setDrawn(null)
      if (first) raw.current = []
      const before = raw.current.at(-1)
      if (!before || Math.hypot(p[0] - before[0], p[1] - before[1]) > 0.25) raw.current.push(p)
      const route = snappedAll(place, raw.current)
      setDrawn(last ? null : route)
      if (last && route.length > 1) onRoute(route.map(decimetre))
    },
    { pointer: { keys: false }, filterTaps: true },
  )
  const route = drawn ?? drive?.route ?? []
  const line = on.path(route)
  const move = (i: number, to: Xy) => onRoute(route.map((p, k) => (k === i ? decimetre(to) : [p[0], p[1]])))
  return (
    <div className="relative h-full">
      <PlacePlan place={place} on={on} label={t`${place.name} from above: draw the way over it`} named={named} worked={draw()}>
        <g fill="none" pointerEvents="none" strokeLinejoin="round">
          <path d={line} stroke="var(--paper)" strokeWidth={thin * 14} />
          <path d={line} stroke="var(--ink)" strokeWidth={thin * 6} />
        </g>
        {drawn === null && drive?.route && (
          <Pieces place={place} drive={drive} assessment={assessment} half_m={half_m} paper={paper} />
        )}
        {drawn === null && <Beside assessment={assessment} half_m={half_m} paper={paper} />}
        {drawn === null &&
          route.map((p, i) => (
            <DragPoint
              // biome-ignore lint/suspicious/noArrayIndexKey: a corner is known by its place on the way
              key={i}
              on={on}
              name={t`Corner ${i + 1} of ${route.length}`}
              at={p}
              onMove={(to) => move(i, snapped(place, to, finger_m / 2))}
              onOut={() => route.length > 2 && onRoute(route.filter((_, k) => k !== i).map(([x, y]) => [x, y]))}
            />
          ))}
      </PlacePlan>
      {route.length === 0 && (
        <p className="pointer-events-none absolute inset-x-3 bottom-3 text-center font-semibold text-quiet">{t`Draw the way here, from start to end.`}</p>
      )}
    </div>
  )
}

/** Each piece by its number, with the worst that was found there. */
function Pieces({
  place,
  drive,
  assessment,
  half_m,
  paper,
}: {
  place: Place
  drive: DriveStep
  assessment: Assessment | null
  half_m: number
  paper: (p: Xy) => [number, number]
}): ReactNode {
  const { at } = useMemo(() => wayAlong(place, drive.route ?? []), [place, drive.route])
  if (at.length !== drive.way.length) return null
  const [r, thin] = [half_m / 24, half_m / 420]
  return at.map((p, i) => {
    const floor = drive.way[i]?.floor?.id
    const own = (assessment?.findings ?? []).filter(
      (f) =>
        (['way', 'travel', 'traction'].includes(f.check) && (f.subject === `${i}` || f.subject?.startsWith(`${i}-`))) ||
        (f.check === 'floor' && floor !== undefined && f.subject?.startsWith(floor)),
    )
    const verdict = worstVerdict(own.map((f) => f.verdict))
    // A corner's own handle stands there.
    const aside = drive.way[i]?.kind === 'turn' ? r * 1.7 : 0
    const [x, y] = paper(p).map((v, k) => v + (k === 0 ? aside : -aside)) as [number, number]
    const colour = verdict ? verdictInk[verdict] : 'var(--quiet)'
    return (
      <g key={`${p[0]} ${p[1]}`} pointerEvents="none" aria-hidden="true">
        {verdict === 'outside' && (
          <path
            d={`M${x - r * 1.5} ${y - r * 1.5}l${r * 3} ${r * 3}m0 ${-r * 3}l${-r * 3} ${r * 3}`}
            stroke={colour}
            strokeWidth={thin * 6}
          />
        )}
        <circle
          cx={x}
          cy={y}
          r={r}
          fill="var(--sheet)"
          stroke={colour}
          strokeWidth={thin * 6}
          strokeDasharray={verdict === 'not-proven' ? `${thin * 8} ${thin * 6}` : undefined}
        />
        <text x={x} y={y} fontSize={r * 1.25} fontWeight="700" textAnchor="middle" dominantBaseline="central" fill="var(--ink)">
          {i + 1}
        </text>
      </g>
    )
  })
}

/** Where the way goes through something, or too near by it. */
function Beside({
  assessment,
  half_m,
  paper,
}: {
  assessment: Assessment | null
  half_m: number
  paper: (p: Xy) => [number, number]
}): ReactNode {
  const f = assessment?.findings.find((x) => x.check === 'way' && x.subject === 'beside')
  if (f?.check !== 'way' || f.verdict === 'inside' || !('x_m' in f.detail)) return null
  const [x, y] = paper([f.detail.x_m, f.detail.y_m])
  const [r, thin] = [half_m / 18, half_m / 420]
  return (
    <g pointerEvents="none" aria-hidden="true" fill="none">
      {[
        ['var(--paper)', 11],
        [verdictInk[f.verdict], 6],
      ].map(([colour, wide]) => (
        <path
          key={colour}
          d={`M${x - r} ${y - r}l${r * 2} ${r * 2}m0 ${-r * 2}l${-r * 2} ${r * 2}`}
          stroke={`${colour}`}
          strokeWidth={thin * Number(wide)}
        />
      ))}
    </g>
  )
}
