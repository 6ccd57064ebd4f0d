import {
  type Assessment,
  high,
  type LiftPlan,
  nominal,
  pointAt,
  poseFor,
  type RatingTable,
  Refusal,
  ratingAt,
  type SetupPlan,
  type TruckMachine,
} from '@geolabe/core'
import { MachineSide } from '../instruments/machine-shape'
import { t } from '../language/t'
import { useSay } from '../units/units'
import { reachOf } from './draft'

const samples = 24

/** A cell of the grid: between two heights and two reaches, with what it is rated for; null: nothing. */
interface Cell {
  from: { height_m: number; reach_m: number }
  to: { height_m: number; reach_m: number }
  rated_kg: number | null
}

/** The grid of its tool from the side, true to scale, with the way of the load through its cells; the cell that decides is outlined. */
export function ReachView({
  machine,
  lift,
  setup,
  tables,
  assessment,
}: {
  machine: TruckMachine
  lift: LiftPlan | null
  setup: SetupPlan
  tables: readonly RatingTable[]
  assessment: Pick<Assessment, 'findings'> | null
}) {
  const say = useSay()
  const { reach, faceToAxle_m } = machine.truck
  const tool = setup.fitted.attachment ?? 'forks'
  const stands = setup.standing.state === 'stabilisers' ? 'down' : 'up'
  const table = tables.find(
    (x) => x.machine === machine.id && x.axes.column.quantity === 'reach_m' && x.axes.row.quantity === 'height_m',
  )
  const grid = table?.configurations.find((c) => c.appliesTo.attachment === tool && c.appliesTo.stabilisers === stands)
  if (!reach) return null
  const { mass_kg } = lift?.hung.load ?? { mass_kg: null }
  const kg = mass_kg === null ? null : high(mass_kg)
  const columns = (grid?.columns ?? []).map(Number)
  const rows = (grid?.rows ?? []).map((r) => Number(r.at))
  const [top, far] = [Math.max(8, ...rows) + 1, Math.max(5, ...columns) + 0.6]
  const outline = machine.outline.side.flatMap((p) => p.points)
  // Reach counts from the front of the tyres.
  const front = frontOf(machine) + faceToAxle_m
  const left = Math.min(...outline.map(([x]) => x)) - front - 0.3
  const [width, height] = [far - left, top + 1.2]
  const text = Math.max(width, height) / 34
  const thin = text / 14
  const step = lift && reachOf(lift)
  const rating = assessment?.findings.find((f) => f.check === 'rating') ?? null
  const beyond = lift?.hung.load.cg ? nominal(lift.hung.load.cg.x_m) - reach.loadCentre_m : 0
  let way: { height_m: number; reach_m: number }[] = []
  try {
    const poses = (step?.waypoints ?? []).map((w) => poseFor(reach, faceToAxle_m, w))
    way = poses.flatMap((to, i) => {
      const from = poses[i - 1]
      if (!from) return [pointAt(reach, faceToAxle_m, to)]
      return Array.from({ length: samples }, (_, k) => {
        const s = (k + 1) / samples
        return pointAt(reach, faceToAxle_m, {
          boom_m: from.boom_m + (to.boom_m - from.boom_m) * s,
          angle_deg: from.angle_deg + (to.angle_deg - from.angle_deg) * s,
        })
      })
    })
  } catch (e) {
    if (!(e instanceof Refusal)) throw e
  }
  const last = way.at(-1)
  const placed = step?.waypoints.at(-1)
  const boom = last && placed ? [reach.pin.x_m - faceToAxle_m, -reach.pin.height_m] : null
  const worst = rating && (rating.reason === 'grid' || rating.reason === 'off-grid') ? rating.detail : null
  const cells = rows.flatMap((h, i) =>
    columns.map((r, j): Cell => {
      const [from, to] = [
        { height_m: rows[i - 1] ?? 0, reach_m: columns[j - 1] ?? 0 },
        { height_m: h, reach_m: r },
      ]
      const middle = [(h + from.height_m) / 2, (r + from.reach_m) / 2] as const
      const read = table && grid ? ratingAt(table.axes, grid, ...middle, 'worse-row').gross_kg : 'not-rated'
      return { from, to, rated_kg: read === 'not-rated' ? null : read }
    }),
  )
  const decides =
    worst &&
    cells.find(
      ({ from, to }) =>
        worst.height_m > from.height_m - 1e-6 &&
        worst.height_m <= to.height_m + 1e-6 &&
        worst.reach_m > from.reach_m &&
        worst.reach_m <= to.reach_m + 1e-6,
    )
  const inkOf = (cell: number | null) =>
    cell === null
      ? 'var(--sunk)'
      : kg === null
        ? 'var(--sheet)'
        : kg <= cell * 0.9
          ? 'var(--inside)'
          : kg <= cell
            ? 'var(--near)'
            : 'var(--outside)'
  return (
    <svg
      viewBox={`${left} ${-top} ${width} ${height}`}
      className="block aspect-square max-h-[44dvh] w-full rounded-xl border border-line bg-paper roomy:aspect-auto roomy:h-full roomy:max-h-none"
      role="img"
      aria-label={t`${machine.name} from its side with the grid of its tool${last ? t`, placed ${say('length', last.height_m)} up and ${say('length', last.reach_m)} out` : ''}`}
    >
      <path d={`M${left} 0H${far}`} stroke="var(--ink)" strokeWidth={thin * 3} />
      {cells.map(({ from, to, rated_kg }) => (
        <rect
          key={`${to.height_m} ${to.reach_m}`}
          x={from.reach_m}
          y={-to.height_m}
          width={to.reach_m - from.reach_m}
          height={to.height_m - from.height_m}
          fill={inkOf(rated_kg)}
          fillOpacity={rated_kg === null || kg === null ? 1 : 0.2}
          stroke="var(--line)"
          strokeWidth={thin}
        />
      ))}
      {decides && (
        <rect
          x={decides.from.reach_m}
          y={-decides.to.height_m}
          width={decides.to.reach_m - decides.from.reach_m}
          height={decides.to.height_m - decides.from.height_m}
          fill="none"
          stroke="var(--ink)"
          strokeWidth={thin * 5}
        />
      )}
      <g transform={`translate(${-front} 0)`}>
        <MachineSide machine={machine} thin={thin * 1.2} raised={boom !== null} />
      </g>
      {boom && last && (
        <g stroke="var(--ink)" fill="none" strokeLinejoin="round">
          <path
            d={`M${boom[0]} ${boom[1]}L${last.reach_m - reach.loadCentre_m - reach.head.ahead_m} ${-last.height_m - reach.head.below_m}`}
            strokeWidth={thin * 8}
          />
          {/* Head, carriage and forks. */}
          <path
            d={`M${last.reach_m - reach.loadCentre_m - reach.head.ahead_m} ${-last.height_m - reach.head.below_m}L${last.reach_m - reach.loadCentre_m} ${-last.height_m - reach.head.below_m}V${-last.height_m}h1.2`}
            strokeWidth={thin * 5}
          />
        </g>
      )}
      <g
        fontSize={text * 0.85}
        textAnchor="middle"
        dominantBaseline="central"
        fill="var(--ink)"
        stroke="var(--paper)"
        strokeWidth={thin * 3}
        paintOrder="stroke"
      >
        {cells.map(({ from, to, rated_kg }) =>
          rated_kg === null || to.height_m - from.height_m <= text ? null : (
            <text key={`${to.height_m} ${to.reach_m}`} x={(from.reach_m + to.reach_m) / 2} y={-(from.height_m + to.height_m) / 2}>
              {rated_kg}
            </text>
          ),
        )}
      </g>
      {way.length > 1 && (
        <path
          d={`M${way.map((p) => `${p.reach_m + beyond} ${-p.height_m}`).join('L')}`}
          fill="none"
          stroke="var(--ink)"
          strokeWidth={thin * 3}
          strokeDasharray={`${thin * 9} ${thin * 6}`}
        />
      )}
      {worst && (
        <circle
          cx={worst.reach_m}
          cy={-Math.max(0, worst.height_m)}
          r={text * 0.45}
          fill={rating?.verdict === 'outside' ? 'var(--outside)' : 'var(--ink)'}
          stroke="var(--sheet)"
          strokeWidth={thin * 3}
        />
      )}
      {last && (
        <rect
          x={last.reach_m + beyond - 0.6}
          y={-last.height_m - 0.9}
          width={1.2}
          height={0.9}
          fill="var(--accent)"
          stroke="var(--ink)"
          strokeWidth={thin * 2}
        />
      )}
      <g fontSize={text} fontWeight="650" fill="var(--ink)" stroke="var(--paper)" strokeWidth={thin * 4} paintOrder="stroke">
        {columns.slice(0, -1).map((r) => (
          <text key={r} x={r} y={text * 1.2} textAnchor="middle" fontWeight="500" fill="var(--quiet)">
            {r}
          </text>
        ))}
        <text x={left + 0.5} y={-top + text * 1.3}>
          {grid?.label ?? t`No grid for this tool so`}
        </text>
        <text x={far - 0.1} y={text * 1.2} textAnchor="end" fontWeight="500" fill="var(--quiet)">
          {t`${columns.at(-1) ?? 0} m out`}
        </text>
      </g>
    </svg>
  )
}

/** Where the front wheels stand in its outline: the foremost wheel's middle. */
function frontOf(machine: TruckMachine): number {
  const wheels = machine.outline.side.filter((p) => p.shade === 'wheel')
  const middles = wheels.map((p) => p.points.reduce((s, [x]) => s + x, 0) / p.points.length)
  return middles.length > 0 ? Math.max(...middles) : 0
}
