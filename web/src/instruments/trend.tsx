import { limitsOf, type Measure, measureUnit, type ReadingTrend } from '@geolabe/core'
import { scaleLinear, scaleTime } from 'd3-scale'

const [width, height, pad] = [320, 92, 10]

/** Readings of one part over time, the limit they go towards, and the line that says when it gets there. */
export function Trend({
  measure,
  readings,
  trend,
  now,
}: {
  measure: Measure
  readings: readonly { at: string; value: number }[]
  trend: ReadingTrend
  now: number | null
}) {
  const points = readings.map((r) => ({ t: Date.parse(r.at), v: r.value }))
  const last = points.at(-1)
  if (!last) return null
  const today = Date.now()
  const reaches = trend.reaches ? Date.parse(trend.reaches) : null
  // The limit's day is drawn where it is near enough to be read; further off it is only said.
  const span = Math.max(1, today - (points[0]?.t ?? today))
  const end = reaches !== null && reaches - today < span ? Math.max(reaches, today) : today
  const { least, most } = limitsOf(measure)
  const limit = trend.limit ?? least ?? most
  const values = [...points.map((p) => p.v), ...(now === null ? [] : [now]), ...(limit === null ? [] : [limit])]
  const begin = points[0] ?? last
  const x = scaleTime([begin.t, Math.max(end, begin.t + 1)], [pad, width - pad])
  const [lo, hi] = [Math.min(...values), Math.max(...values)]
  const y = scaleLinear([lo, Math.max(hi, lo + 1e-9)], [height - pad, pad])
  const lineAt = (t: number) =>
    trend.enough && trend.now !== null && trend.perDay !== null ? trend.now + (trend.perDay * (t - last.t)) / 86_400_000 : null
  const [from, to] = [lineAt(begin.t), lineAt(end)]
  const unit = measureUnit(measure)
  const said = `${points.length} earlier ${points.length === 1 ? 'reading' : 'readings'}, the last ${last.v} ${unit}${limit === null ? '' : `; limit ${Math.round(limit * 100) / 100} ${unit}`}`
  return (
    <svg viewBox={`0 0 ${width} ${height}`} className="w-full max-w-md" role="img" aria-label={said}>
      {limit !== null && (
        <>
          <path d={`M0 ${y(limit)}H${width}`} stroke="var(--outside)" strokeWidth="2" strokeDasharray="7 4" />
          <text
            x={width - 2}
            y={y(limit) < 16 ? y(limit) + 13 : y(limit) - 4}
            textAnchor="end"
            fontSize="11"
            fill="var(--outside)"
            fontWeight="700"
          >
            limit {Math.round(limit * 100) / 100}
          </text>
        </>
      )}
      {from !== null && to !== null && (
        <path d={`M${x(begin.t)} ${y(from)}L${x(end)} ${y(to)}`} stroke="var(--quiet)" strokeWidth="1.6" />
      )}
      {points.map((p) => (
        <circle key={p.t} cx={x(p.t)} cy={y(p.v)} r="3" fill="var(--ink)" />
      ))}
      {now !== null && <circle cx={x(today)} cy={y(now)} r="5.5" fill="var(--accent)" stroke="var(--ink)" strokeWidth="1.6" />}
    </svg>
  )
}
