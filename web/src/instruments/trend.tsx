import { limitsOf, type Measure, measureUnit, type ReadingTrend } from '@geolabe/core'
import { Line, LineChart, ReferenceDot, ReferenceLine, XAxis, YAxis } from 'recharts'
import { plural, t } from '../language/t'

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
  const [lo, hi] = [Math.min(...values), Math.max(...values)]
  const lineAt = (t: number) =>
    trend.enough && trend.now !== null && trend.perDay !== null ? trend.now + (trend.perDay * (t - last.t)) / 86_400_000 : null
  const [from, to] = [lineAt(begin.t), lineAt(end)]
  const unit = measureUnit(measure)
  const round = (v: number) => Math.round(v * 100) / 100
  const said = `${plural(
    points.length,
    { one: '# earlier reading, the last {1}', other: '# earlier readings, the last {1}' },
    `${last.v} ${unit}`,
  )}${limit === null ? '' : t`; limit ${round(limit)} ${unit}`}`
  return (
    <div role="img" aria-label={said}>
      <LineChart
        responsive
        className="h-24 w-full max-w-md"
        data={points}
        margin={{ top: 14, right: 10, bottom: 10, left: 10 }}
        accessibilityLayer={false}
      >
        <XAxis dataKey="t" type="number" hide domain={[begin.t, Math.max(end, begin.t + 1)]} />
        <YAxis type="number" hide domain={[lo, Math.max(hi, lo + 1e-9)]} />
        {limit !== null && (
          <ReferenceLine
            y={limit}
            stroke="var(--outside)"
            strokeWidth={2}
            strokeDasharray="7 4"
            label={{
              value: t`limit ${round(limit)}`,
              position: limit === hi ? 'insideBottomRight' : 'insideTopRight',
              fill: 'var(--outside)',
              fontSize: 12,
              fontWeight: 700,
            }}
          />
        )}
        {from !== null && to !== null && (
          <ReferenceLine
            segment={[
              { x: begin.t, y: from },
              { x: end, y: to },
            ]}
            stroke="var(--quiet)"
            strokeWidth={1.6}
          />
        )}
        <Line dataKey="v" stroke="none" dot={{ r: 3, fill: 'var(--ink)', stroke: 'none' }} isAnimationActive={false} />
        {now !== null && <ReferenceDot x={today} y={now} r={5.5} fill="var(--accent)" stroke="var(--ink)" strokeWidth={1.6} />}
      </LineChart>
    </div>
  )
}
