import { type Crane, type RatingTable, ratingAt } from '@geolabe/core'
import { curveLinear, line } from 'd3-shape'
import { t } from '../language/t'
import { useSay } from '../units/units'

/** The tower from its side, the trolley where the load is put down; under it what its table rates at each radius, beside it the steps of the wind. */
export function TowerSide({
  machine,
  tables,
  partsOfLine,
  radius_m,
  hung_kg,
  wind_mps,
  label,
}: {
  machine: Crane
  tables: readonly RatingTable[]
  partsOfLine: number | null
  /** Null: nothing is lifted yet. */
  radius_m: number | null
  hung_kg: number | null
  wind_mps: number | null
  label: string
}) {
  const say = useSay()
  const jib = Math.max(...machine.boom.lengths_m)
  const { height_m } = machine.boom.pivot
  const tail = machine.upper.tailSwingRadius_m
  const table = tables.find((x) => x.machine === machine.id && x.axes.column.quantity === 'parts')
  const c = table?.configurations.find((x) => x.appliesTo.jib_m === jib)
  const rows = c?.rows ?? []
  const column = c && partsOfLine !== null ? c.columns.indexOf(partsOfLine) : -1
  const rated = (r: number) => {
    const kg = table && c && column >= 0 ? ratingAt(table.axes, c, r, partsOfLine ?? 0, 'worse-row').gross_kg : 'not-rated'
    return kg === 'not-rated' ? null : kg
  }
  // Over a lift’s drawing stand the buttons of its views.
  const [left, right, top] = [-tail - 2, jib + 18, height_m + (radius_m === null ? 10 : 21)]
  const width = right - left
  const deep = 30
  const height = top + deep
  const text = width / 34
  const thin = text / 14
  const most = Math.max(1, ...rows.map((r) => r.ratings_kg[column] ?? 0), hung_kg ?? 0)
  const base = deep - text * 2.4
  const y = (kg: number) => base - (kg / most) * (deep - text * 6)
  // As it is read: a figure holds until the next row, where the lower one begins.
  const stairs = rows.flatMap((r, i): [number, number][] => {
    const kg = r.ratings_kg[column] ?? null
    const from = i === 0 ? Number(r.at) : Number(rows[i - 1]?.at)
    return kg === null
      ? []
      : [
          [from, y(kg)],
          [Number(r.at), y(kg)],
        ]
  })
  const drawn = line<[number, number]>().curve(curveLinear).digits(2)(stairs) ?? ''
  const here = radius_m === null ? null : rated(radius_m)
  const furthest = hung_kg === null ? null : (rows.findLast((r) => (r.ratings_kg[column] ?? -1) >= hung_kg)?.at ?? null)
  const fits = here !== null && hung_kg !== null && hung_kg <= here
  const hook = radius_m === null ? null : Math.min(height_m * 0.55, height_m - 6)
  const steps = machine.tower?.base?.windSteps ?? []
  const strongest = Math.max(16, ...steps.map((s) => s.upTo_mps + 2))
  const ladder = (mps: number) => -4 - (mps / strongest) * (height_m - 6)
  return (
    <svg
      viewBox={`${left} ${-top} ${width} ${height}`}
      className="block aspect-square max-h-[44dvh] w-full rounded-xl border border-line bg-paper roomy:aspect-auto roomy:h-full roomy:max-h-none"
      role="img"
      aria-label={
        radius_m === null
          ? t`${machine.name} from its side, with what it is rated for at each radius`
          : t`${label}: trolley at ${say('length', radius_m)}, rated ${here === null ? t`nothing` : say('mass', here)} there`
      }
    >
      <rect x={left} y={0} width={width} height={deep} fill="var(--sunk)" />
      <path d={`M${left} 0H${right}`} stroke="var(--ink)" strokeWidth={thin * 3} />
      <g stroke="var(--ink)" strokeWidth={thin * 2} fill="none">
        <rect x={-3} y={-0.9} width={6} height={0.9} fill="var(--edge)" />
        <path d={`M-1 -0.9V${-height_m}M1 -0.9V${-height_m}`} strokeWidth={thin * 3} />
        {Array.from({ length: Math.floor(height_m / 3) }, (_, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: always the same bays
          <path key={i} d={`M-1 ${-1 - i * 3}L1 ${-4 - i * 3}M1 ${-1 - i * 3}L-1 ${-4 - i * 3}`} strokeWidth={thin} />
        ))}
        <path
          d={`M${-tail} ${-height_m}H${jib}M${-tail} ${-height_m - 1.2}H0L1 ${-height_m - 5}L${jib * 0.62} ${-height_m - 1}`}
          strokeWidth={thin * 3}
        />
        <path d={`M1 ${-height_m - 1}H${jib}`} strokeWidth={thin * 1.6} />
        <rect x={-tail} y={-height_m} width={3} height={3.2} fill="var(--edge)" />
        <rect x={1} y={-height_m - 0.2} width={2.2} height={2.4} fill="var(--sheet)" />
        {radius_m !== null && hook !== null && (
          <>
            <rect x={radius_m - 0.9} y={-height_m} width={1.8} height={0.8} fill="var(--ink)" />
            <path d={`M${radius_m} ${-height_m}V${-height_m + hook}`} strokeDasharray={`${thin * 6} ${thin * 3}`} />
            <rect x={radius_m - 1.5} y={-height_m + hook} width={3} height={2.4} fill="var(--accent)" />
            <path
              d={`M${radius_m} ${-height_m + hook + 2.4}V${base}`}
              stroke="var(--quiet)"
              strokeWidth={thin * 1.4}
              strokeDasharray={`${thin * 3} ${thin * 4}`}
            />
          </>
        )}
      </g>
      {/* What it is rated for, radius by radius. */}
      <g>
        {stairs.length > 0 && <path d={`${drawn}V${base}H${Number(rows[0]?.at ?? 0)}Z`} fill="var(--inside)" opacity={0.16} />}
        <path d={drawn} fill="none" stroke="var(--ink)" strokeWidth={thin * 2.6} />
        <path d={`M0 ${base}H${jib}`} stroke="var(--ink)" strokeWidth={thin * 1.6} />
        {hung_kg !== null && (
          <path
            d={`M0 ${y(hung_kg)}H${jib}`}
            stroke={fits ? 'var(--inside)' : 'var(--outside)'}
            strokeWidth={thin * 2}
            strokeDasharray={`${thin * 8} ${thin * 5}`}
          />
        )}
        {radius_m !== null && here !== null && <circle cx={radius_m} cy={y(here)} r={text * 0.4} fill="var(--ink)" />}
        {radius_m !== null && hung_kg !== null && (
          <circle
            cx={radius_m}
            cy={y(hung_kg)}
            r={text * 0.55}
            fill={fits ? 'var(--inside)' : 'var(--outside)'}
            stroke="var(--sheet)"
            strokeWidth={thin * 3}
          />
        )}
        <g fontSize={text} fontWeight="650" fill="var(--ink)" stroke="var(--sunk)" strokeWidth={thin * 4} paintOrder="stroke">
          {[10, 30, 50]
            .filter((m) => m <= jib)
            .map((m) => (
              <text key={m} x={m} y={base + text * 1.2} textAnchor="middle" fontWeight="500" fill="var(--quiet)">
                {say('length', m)}
              </text>
            ))}
          {column < 0 ? (
            <text x={0} y={text * 2}>{t`Parts of line not said: nothing is rated.`}</text>
          ) : (
            <text x={jib * 0.34} y={text * 1.8}>
              {here === null
                ? t`In ${partsOfLine ?? 0} parts`
                : t`${say('mass', here)} at ${say('length', radius_m ?? 0)}, in ${partsOfLine ?? 0} parts`}
            </text>
          )}
          {furthest !== null && hung_kg !== null && (
            <text x={jib * 0.34} y={text * 3.1}>{t`${say('mass', hung_kg)} to ${say('length', Number(furthest))} at most`}</text>
          )}
        </g>
      </g>
      {/* The wind, step by step. */}
      {steps.length > 0 && (
        <g>
          {steps.map((s, i) => {
            const from = i === 0 ? 0 : (steps[i - 1]?.upTo_mps ?? 0)
            return (
              <g key={s.upTo_mps}>
                <rect
                  x={jib + 4}
                  y={ladder(s.upTo_mps)}
                  width={2}
                  height={ladder(from) - ladder(s.upTo_mps)}
                  fill={s.windArea_m2 === undefined ? 'var(--inside)' : 'var(--near)'}
                  opacity={0.55}
                  stroke="var(--ink)"
                  strokeWidth={thin}
                />
                <text x={jib + 6.4} y={ladder(s.upTo_mps) + text * 0.35} fontSize={text} fontWeight="650" fill="var(--ink)">
                  {say('speed', s.upTo_mps)}
                </text>
              </g>
            )
          })}
          <rect
            x={jib + 4}
            y={ladder(strongest)}
            width={2}
            height={ladder(steps.at(-1)?.upTo_mps ?? 0) - ladder(strongest)}
            fill="var(--outside)"
            opacity={0.55}
            stroke="var(--ink)"
            strokeWidth={thin}
          />
          {wind_mps !== null && (
            <path d={`M${jib + 3.6} ${ladder(Math.min(strongest, wind_mps))}l-1.6 -0.9v1.8Z`} fill="var(--ink)" />
          )}
          <text
            x={jib + 5}
            y={ladder(0) + text * 1.2}
            textAnchor="middle"
            fontSize={text * 0.95}
            fill="var(--quiet)"
          >{t`wind`}</text>
        </g>
      )}
    </svg>
  )
}
