import { type RatingConfiguration, type TableAxes, unitOfAxis } from '@geolabe/core'
import { CartesianGrid, Line, LineChart, ResponsiveContainer, Tooltip, XAxis, YAxis } from 'recharts'
import { t } from '../language/t'
import { figureOf, unitOf, usePreferences } from '../units/units'

const dashes = ['0', '9 4', '3 3', '12 3 3 3', '6 6', '1.5 3.5', '14 5']

/** Ratings along the rows, one line a column, and beneath each the limit that physics sets, thin. */
export function RatingChart({
  grid,
  axes: { row, column },
  limits,
}: {
  grid: RatingConfiguration
  axes: TableAxes
  limits: readonly (readonly (number | null)[])[] | null
}) {
  const { units } = usePreferences()
  const rowUnit = unitOfAxis(row)
  if (rowUnit === 'name') return <Bars grid={grid} limits={limits} />
  const length = rowUnit === 'm' ? unitOf(units, 'length') : null
  const mass = unitOf(units, 'mass')
  const out = (kg: number | null | undefined) => (kg === null || kg === undefined ? null : kg / mass.factor)
  // A limit far above every rating would flatten them.
  const top = Math.max(...grid.rows.flatMap((r) => r.ratings_kg).map((kg) => kg ?? 0)) * 1.35
  const data = grid.rows.map((r, i) => ({
    at: Number(r.at) / (length?.factor ?? 1),
    ...Object.fromEntries(grid.columns.map((_, j) => [`c${j}`, out(r.ratings_kg[j])])),
    ...Object.fromEntries(
      grid.columns.map((_, j) => {
        const kg = limits?.[i]?.[j] ?? null
        return [`l${j}`, kg === null || kg === 0 ? null : out(Math.min(kg, top))]
      }),
    ),
  }))
  const name = (j: number) => {
    const c = grid.columns[j]
    const own = grid.columnNames?.[j]
    if (own) return own
    return typeof c === 'number'
      ? `${column.label} ${unitOfAxis(column) === 'm' ? `${figureOf(units, 'length', c, 1)} ${unitOf(units, 'length').label}` : c}`
      : String(c)
  }
  const unit = length?.label ?? (rowUnit === '°' ? '°' : '')
  return (
    <figure>
      <div
        className="h-80 w-full overflow-x-auto overflow-y-hidden"
        role="img"
        aria-label={t`Ratings by ${row.label.toLowerCase()}, a line for each ${column.label.toLowerCase()}, with the limit that physics sets`}
      >
        <ResponsiveContainer width="100%" height="100%">
          <LineChart data={data} margin={{ top: 8, right: 14, bottom: 22, left: 14 }}>
            <CartesianGrid stroke="var(--line)" strokeDasharray="2 5" />
            <XAxis
              dataKey="at"
              type="number"
              domain={['dataMin', 'dataMax']}
              stroke="var(--quiet)"
              tick={{ fill: 'var(--ink)', fontSize: 14 }}
              label={{
                value: `${row.label}, ${unit}`,
                position: 'insideBottom',
                offset: -12,
                fill: 'var(--quiet)',
                fontSize: 14,
              }}
            />
            <YAxis
              stroke="var(--quiet)"
              width={74}
              tick={{ fill: 'var(--ink)', fontSize: 14 }}
              tickFormatter={(v: number) => v.toLocaleString()}
            />
            <Tooltip
              contentStyle={{ background: 'var(--sheet)', border: '2px solid var(--ink)', borderRadius: 8, color: 'var(--ink)' }}
              labelFormatter={(v) => `${Number(v).toLocaleString()} ${unit}`}
              formatter={(v, key) => [
                `${Number(v).toLocaleString(undefined, { maximumFractionDigits: 0 })} ${mass.label}`,
                `${name(Number(String(key).slice(1)))}${String(key).startsWith('l') ? t`, physics` : ''}`,
              ]}
            />
            {grid.columns.map((c, j) => (
              <Line
                key={`l${c}`}
                dataKey={`l${j}`}
                stroke="var(--outside)"
                strokeWidth={1}
                strokeOpacity={0.65}
                dot={false}
                isAnimationActive={false}
                connectNulls={false}
              />
            ))}
            {grid.columns.map((c, j) => (
              <Line
                key={`c${c}`}
                dataKey={`c${j}`}
                stroke="var(--ink)"
                strokeWidth={2.4}
                strokeDasharray={dashes[j % dashes.length] === '0' ? '' : dashes[j % dashes.length]}
                dot={{ r: 2.5, fill: 'var(--ink)', strokeDasharray: '0' }}
                isAnimationActive={false}
                connectNulls={false}
              />
            ))}
          </LineChart>
        </ResponsiveContainer>
      </div>
      <figcaption>
        <ul className="flex flex-wrap gap-x-5 gap-y-1 text-[0.92rem] text-quiet">
          {grid.columns.map((c, j) => (
            <li key={`${c}`} className="flex items-center gap-2">
              <svg viewBox="0 0 40 6" className="h-1.5 w-10" aria-hidden="true">
                <path
                  d="M0 3H40"
                  stroke="var(--ink)"
                  strokeWidth="3"
                  strokeDasharray={dashes[j % dashes.length] === '0' ? undefined : dashes[j % dashes.length]}
                />
              </svg>
              {name(j)}
            </li>
          ))}
          <li className="flex items-center gap-2">
            <svg viewBox="0 0 40 6" className="h-1.5 w-10" aria-hidden="true">
              <path d="M0 3H40" stroke="var(--outside)" strokeWidth="1.4" />
            </svg>
            {t`what physics allows`}
          </li>
        </ul>
      </figcaption>
    </figure>
  )
}

/** Rows that are names, not figures: a bar each, with physics as a mark. */
function Bars({ grid, limits }: { grid: RatingConfiguration; limits: readonly (readonly (number | null)[])[] | null }) {
  const { units } = usePreferences()
  const most =
    Math.max(...grid.rows.flatMap((r) => r.ratings_kg).map((kg) => kg ?? 0), ...(limits ?? []).flat().map((kg) => kg ?? 0)) * 1.05
  return (
    <ul className="grid gap-3">
      {grid.rows.map(({ at: r, ratings_kg }, i) => {
        const kg = ratings_kg[0] ?? null
        const limit = limits?.[i]?.[0] ?? null
        return (
          <li key={r}>
            <p className="flex justify-between">
              <span className="first-letter:uppercase">{r}</span>
              <span className="figure font-bold">
                {kg === null ? t`not rated` : `${figureOf(units, 'mass', kg)} ${unitOf(units, 'mass').label}`}
              </span>
            </p>
            <div className="relative h-5 bg-sunk">
              <div className="absolute inset-y-0 left-0 bg-ink" style={{ width: `${((kg ?? 0) / most) * 100}%` }} />
              {limit !== null && (
                <div className="absolute -inset-y-1 border-l-2 border-outside" style={{ left: `${(limit / most) * 100}%` }} />
              )}
            </div>
          </li>
        )
      })}
    </ul>
  )
}
