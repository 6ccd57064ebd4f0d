import { type Machine, type Polygon, rad } from '@geolabe/core'
import { curveLinearClosed, line } from 'd3-shape'
import { memo, useMemo } from 'react'
import { pathOf, turned } from './frame'

const fills: Record<Polygon['shade'], string> = {
  body: 'var(--sunk)',
  cab: 'var(--water)',
  wheel: 'var(--edge)',
  dark: 'var(--quiet)',
  light: 'var(--sheet)',
}

type Pair = readonly [number, number]
const along = ([ax, ay]: Pair, [bx, by]: Pair, t: number): Pair => [ax + (bx - ax) * t, ay + (by - ay) * t]
const apart = ([ax, ay]: Pair, [bx, by]: Pair) => Math.hypot(bx - ax, by - ay)

/** The two longest sides of a part, running the same way; null where it has none. */
function longSides(points: readonly Pair[]): [[Pair, Pair], [Pair, Pair]] | null {
  const sides = points.map((a, i): [Pair, Pair] => [a, points[(i + 1) % points.length] ?? a])
  const [one, other] = sides.sort((x, y) => apart(...y) - apart(...x))
  if (!one || !other) return null
  // Round an outline they run against each other.
  return [one, [other[1], other[0]]]
}

/** Lines on a part that say how it is made: the bars of a lattice, the ends of nested sections, the rails of a mast. */
function marksOf(p: Polygon): Pair[][] {
  const sides = longSides(p.points)
  if (!sides) return []
  // A boom's sections end towards its tip, which is further ahead.
  const ahead = sides[0][1][0] >= sides[0][0][0]
  const [[a, b], [c, d]] = ahead ? sides : [[sides[0][1], sides[0][0]] as const, [sides[1][1], sides[1][0]] as const]
  const bay = Math.max(apart(a, c), apart(b, d), 0.2)
  const bays = Math.min(60, Math.max(2, Math.round(apart(a, b) / bay)))
  if (p.made === 'lattice') {
    return [Array.from({ length: bays + 1 }, (_, i) => (i % 2 === 0 ? along(a, b, i / bays) : along(c, d, i / bays)))]
  }
  if (p.made === 'rails') return [1 / 3, 2 / 3].map((t) => [along(a, c, t), along(b, d, t)])
  if (p.made === 'sections') return [0.55, 0.75, 0.9].map((t) => [along(a, b, t), along(c, d, t)])
  return []
}

const middleOf = (points: readonly Pair[]): Pair => [
  points.reduce((sum, [x]) => sum + x, 0) / points.length,
  points.reduce((sum, [, y]) => sum + y, 0) / points.length,
]

/** Rollers along a track seen from the side, as large as it is high; from above, its shoes across it. */
function Track({ points, draw, thin, above }: { points: readonly Pair[]; draw: Draw; thin: number; above: boolean }) {
  const [xs, ys] = [points.map((p) => p[0]), points.map((p) => p[1])]
  const [x0, x1, y0, y1] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)]
  const high = Math.min(x1 - x0, y1 - y0)
  const n = Math.max(3, Math.round((x1 - x0) / (above ? high * 0.5 : high)))
  const at = (i: number) => x0 + ((x1 - x0) * (i + 0.5)) / n
  const each = Array.from({ length: n }, (_, i) => at(i))
  if (above) {
    return each.map((x) => (
      <path
        key={x}
        d={draw([
          [x, y0],
          [x, y1],
        ])}
        stroke="var(--ink)"
        strokeWidth={thin * 0.7}
      />
    ))
  }
  return each.map((x) => (
    <circle key={x} cx={x} cy={-(y0 + y1) / 2} r={high * 0.3} fill="var(--sheet)" stroke="var(--ink)" strokeWidth={thin} />
  ))
}

type Draw = (points: readonly Pair[]) => string

/** Where a point of an outline lies on paper: from above with the nose up, from the side with heights up. */
const views = {
  above: {
    closed: (points: readonly Pair[]) => pathOf(points.map(([x_m, y_m]) => ({ x_m, y_m }))),
    open: (points: readonly Pair[]) =>
      pathOf(
        points.map(([x_m, y_m]) => ({ x_m, y_m })),
        false,
      ),
  },
  side: {
    closed: (points: readonly Pair[]) =>
      line<Pair>()
        .y(([, z]) => -z)
        .curve(curveLinearClosed)(points) ?? '',
    open: (points: readonly Pair[]) => line<Pair>().y(([, z]) => -z)(points) ?? '',
  },
} as const

/** Parts of an outline: what carries is drawn with a heavier line than shell and covers. */
const Shapes = memo(function Shapes({
  polygons,
  thin,
  view,
}: {
  polygons: readonly Polygon[]
  thin: number
  view: keyof typeof views
}) {
  const { closed, open } = views[view]
  return polygons.map((p) => {
    const weight = p.made ? thin * 1.7 : thin * 0.8
    const round = p.shade === 'wheel' && p.points.length >= 12
    const [mx, my] = middleOf(p.points)
    const reach = p.points[0] ? apart(p.points[0], [mx, my]) : 0
    return (
      <g key={p.name}>
        <path
          d={closed(p.points)}
          fill={fills[p.made === 'lattice' ? 'light' : p.shade]}
          stroke="var(--ink)"
          strokeWidth={weight}
          strokeLinejoin="round"
        />
        {marksOf(p).map((m) => (
          <path
            key={m.join(' ')}
            d={open(m)}
            fill="none"
            stroke={p.made === 'rails' ? 'var(--sheet)' : 'var(--ink)'}
            strokeWidth={p.made === 'lattice' ? thin * 0.8 : thin}
          />
        ))}
        {p.made === 'track' && <Track points={p.points} draw={open} thin={thin} above={view === 'above'} />}
        {round && view === 'side' && (
          <circle cx={mx} cy={-my} r={reach * 0.42} fill="var(--sheet)" stroke="var(--ink)" strokeWidth={thin * 0.8} />
        )}
      </g>
    )
  })
})

/** The machine from above, drawn from its definition; what slews is turned with the boom. */
export function MachinePlan({ machine, slew_deg, thin }: { machine: Machine; slew_deg: number; thin: number }) {
  const { plan } = machine.outline
  const [stays, slews] = useMemo(() => [plan.filter((p) => !p.slews), plan.filter((p) => p.slews)], [plan])
  return (
    <g aria-hidden="true">
      <Shapes polygons={stays} thin={thin} view="above" />
      <g transform={turned(slew_deg)}>
        <Shapes polygons={slews} thin={thin} view="above" />
      </g>
    </g>
  )
}

/** How many sections of a telescopic boom are drawn. */
const sectionsOf = (boom: NonNullable<Machine['boom']>) => Math.min(5, boom.lengths_m.length)

/** The boom as it lies for the road: its shortest, at its least angle. */
function StowedBoom({ boom, thin }: { boom: NonNullable<Machine['boom']>; thin: number }) {
  const length_m = boom.lengths_m[0] ?? 0
  const angle = Math.min(0, boom.minAngle_deg) * rad
  const foot: Pair = [-boom.pivot.back_m, -boom.pivot.height_m]
  const tip: Pair = [foot[0] + length_m * Math.cos(angle), foot[1] - length_m * Math.sin(angle)]
  return <BoomSections boom={boom} foot={foot} tip={tip} thin={thin} />
}

/** So much of each section still shows with everything drawn in, metres. */
const nose_m = 0.28

/** A telescopic boom between two points on paper: its sections as they stand out of one another, the slimmest at the tip. */
export function BoomSections({
  boom,
  foot,
  tip,
  thin,
}: {
  boom: NonNullable<Machine['boom']>
  foot: Pair
  tip: Pair
  thin: number
}) {
  const sections = sectionsOf(boom)
  const length_m = apart(foot, tip)
  const base_m = Math.max(0.1, (boom.lengths_m[0] ?? 0) - nose_m * (sections - 1))
  const angle = Math.atan2(tip[1] - foot[1], tip[0] - foot[0]) / rad
  return (
    <g transform={`translate(${foot[0]} ${foot[1]}) rotate(${angle})`} stroke="var(--ink)" fill="var(--sheet)">
      {/* From the tip inwards: each wider one covers the foot of the one that comes out of it. */}
      {Array.from({ length: sections }, (_, i) => {
        const k = sections - 1 - i
        const tall = (1 - (0.54 * k) / Math.max(1, sections - 1)) * Math.min(0.78, 2 * (boom.halfWidth_m ?? 0.39))
        const end = base_m + ((length_m - base_m) * k) / Math.max(1, sections - 1)
        return (
          <rect key={k} x={0} y={-tall / 2} width={Math.max(0.1, end)} height={tall} rx={tall / 6} strokeWidth={thin * 1.7} />
        )
      })}
    </g>
  )
}

/** The machine from its left side; nose to the right. */
export function MachineSide({
  machine,
  thin,
  stowed,
  raised,
}: {
  machine: { outline: Pick<Machine['outline'], 'side'>; boom?: Machine['boom'] | undefined }
  thin: number
  stowed?: boolean
  /** Its boom is drawn elsewhere: what moves with it is left out. */
  raised?: boolean
}) {
  const side = machine.outline.side.filter((p) => !(raised && p.raised))
  return (
    <g aria-hidden="true">
      <Shapes polygons={side.filter((p) => !p.slews)} thin={thin} view="side" />
      {stowed && machine.boom && !side.some((p) => p.made === 'lattice' || p.made === 'sections') && (
        <StowedBoom boom={machine.boom} thin={thin} />
      )}
      <Shapes polygons={side.filter((p) => p.slews)} thin={thin} view="side" />
    </g>
  )
}
